use serde::Serialize;
use thiserror::Error;

use super::{FLOUR_PCT, FlourShare, Formula, Ingredient, Line, PreparationKind};

/// One column of a formula: a part, the final dough, or the whole. Everything in percent on all
/// flour of the whole dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DoughColumn {
    /// None for the final dough and for the whole.
    pub kind: Option<PreparationKind>,
    pub name: String,
    /// Each of several flours.
    pub flours: Vec<FlourShare>,
    pub flour_pct: f64,
    /// Water to weigh.
    pub water_pct: f64,
    /// Water over flour; none without flour.
    pub hydration_pct: Option<f64>,
    /// Everything but flour and water.
    pub lines: Vec<Line>,
    pub total_pct: f64,
}

/// A formula laid out over its parts and the final dough, which together are the whole.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DoughColumns {
    pub parts: Vec<DoughColumn>,
    pub final_dough: DoughColumn,
    pub whole: DoughColumn,
}

/// The parts take more water than the whole dough has.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
#[error(
    "sponge, starter and the like take {early_pct:.1} % of water, the whole dough has \
     {added_water_pct:.1} %: make them drier or the dough wetter"
)]
pub struct TooMuchPrefermentWater {
    pub early_pct: f64,
    pub added_water_pct: f64,
}

impl Formula {
    /// Lays the whole dough over its parts; the final dough is what is left, so that each row adds
    /// up.
    ///
    /// ```
    /// use ironpeel_core::dough::{Formula, FormulaDraft};
    /// let draft: FormulaDraft = serde_json::from_str(r#"{
    ///     "lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 2}],
    ///     "parts": [{"kind": "starter", "flour_pct": 15, "water_pct": 15}]}"#)?;
    /// let columns = Formula::check(&draft)?.columns(72.0)?;
    /// assert_eq!((columns.final_dough.flour_pct, columns.final_dough.water_pct), (85.0, 57.0));
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn columns(&self, added_water_pct: f64) -> Result<DoughColumns, TooMuchPrefermentWater> {
        let early_pct = self.preferment_water_pct();
        if early_pct > added_water_pct + 1e-9 {
            return Err(TooMuchPrefermentWater { early_pct, added_water_pct });
        }
        let parts: Vec<DoughColumn> = self
            .parts()
            .iter()
            .map(|part| DoughColumn {
                kind: Some(part.kind),
                name: part.name.clone(),
                flours: self.flours_of(part),
                flour_pct: part.flour_pct,
                water_pct: part.water_pct,
                hydration_pct: part.hydration_pct(),
                lines: part.lines.clone(),
                total_pct: part.total_pct(),
            })
            .collect();
        let early_flour: f64 = parts.iter().map(|part| part.flour_pct).sum();
        let left = |line: &Line| Line { ingredient: line.ingredient, pct: self.in_final(line) };
        let lines = |of: &dyn Fn(&Line) -> Line| -> Vec<Line> {
            self.additions().map(of).filter(|line| line.pct > 0.0).collect()
        };
        let column = |name: &str, flours, flour_pct, water_pct, lines: Vec<Line>| {
            let rest: f64 = lines.iter().map(|line| line.pct).sum();
            let total_pct = flour_pct + water_pct + rest;
            DoughColumn {
                kind: None,
                name: name.into(),
                flours,
                flour_pct,
                water_pct,
                hydration_pct: (flour_pct > 0.0).then(|| 100.0 * water_pct / flour_pct),
                lines,
                total_pct,
            }
        };
        let mut last_flours = self.final_flours();
        for flour in &mut last_flours {
            flour.share_pct = flour.share_pct.max(0.0);
        }
        Ok(DoughColumns {
            final_dough: column(
                "final dough",
                last_flours,
                (FLOUR_PCT - early_flour).max(0.0),
                (added_water_pct - early_pct).max(0.0),
                lines(&left),
            ),
            whole: column(
                "whole",
                self.flours().to_vec(),
                FLOUR_PCT,
                added_water_pct,
                lines(&Line::clone),
            ),
            parts,
        })
    }
}

impl DoughColumn {
    /// How much of an ingredient is in it; flour and water too.
    pub fn pct_of(&self, ingredient: Ingredient) -> f64 {
        match ingredient {
            Ingredient::Flour => self.flour_pct,
            Ingredient::Water => self.water_pct,
            other => {
                self.lines.iter().find(|line| line.ingredient == other).map_or(0.0, |line| line.pct)
            }
        }
    }
}
