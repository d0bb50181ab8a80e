use serde::{Deserialize, Serialize};

use super::bake_trace::{BakeTrace, ProbeReading, summed};

/// A level that a core rises through.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Crossing {
    YeastKill,
    Gelatinised,
    Arrival,
}

/// A crossing of a probe that a person moved.
#[derive(Debug, Clone, PartialEq)]
pub struct MovedCrossing {
    pub probe: String,
    pub crossing: Crossing,
    /// From oven entry.
    pub minute: f64,
}

impl ProbeReading {
    fn crossing(&mut self, crossing: Crossing) -> &mut Option<f64> {
        match crossing {
            Crossing::YeastKill => &mut self.yeast_kill_min,
            Crossing::Gelatinised => &mut self.gelatinised_min,
            Crossing::Arrival => &mut self.arrival_min,
        }
    }

    /// Whether it comes to each level no sooner than to the one below.
    pub fn rises(&self) -> bool {
        let all = [self.yeast_kill_min, self.gelatinised_min, self.arrival_min];
        let known: Vec<f64> = all.into_iter().flatten().collect();
        known.is_sorted()
    }
}

impl BakeTrace {
    /// The same with crossings where a person moved them, and all that follows from them; when steam
    /// goes off stays as it was read.
    ///
    /// ```
    /// use ironpeel_core::coefficient::Coefficients;
    /// use ironpeel_core::oven::{BakeTraceInput, Crossing, MovedCrossing};
    /// let input: BakeTraceInput = serde_json::from_str(r#"{"bake_min": 20,
    ///     "t_min": [0, 4, 8, 12, 14, 16, 18, 20],
    ///     "probes": [{"name": "1", "core_c": [28, 34, 48, 66, 76, 85, 92, 96]}]}"#)?;
    /// let read = input.compute(&Coefficients::default())?;
    /// let moved = MovedCrossing { probe: "1".into(), crossing: Crossing::Arrival, minute: 17.0 };
    /// let read = read.moved(&[moved], 20.0);
    /// assert_eq!((read.probes[0].arrival_pct, read.bake_min_for_target), (Some(85.0), Some(20.0)));
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    #[must_use]
    pub fn moved(mut self, moves: &[MovedCrossing], bake_min: f64) -> Self {
        for one in moves {
            let probe = self.probes.iter_mut().find(|probe| probe.name == one.probe);
            if let Some(probe) = probe {
                *probe.crossing(one.crossing) = Some(one.minute);
                probe.arrival_pct = probe.arrival_min.map(|arrival| 100.0 * arrival / bake_min);
            }
        }
        let (slowest, spread_min, bake_min_for_target) =
            summed(&self.probes, self.target_arrival_pct);
        Self {
            slowest: slowest.map(|at| self.probes[at].name.clone()),
            spread_min,
            bake_min_for_target,
            ..self
        }
    }
}
