use crate::{Noise, Sample, solve};

const STEP_MM: f64 = 0.5;
/// Where the pressure is highest, mm.
const TOP_MM: f64 = 8.0;
/// Samples drawn after the bubble burst.
const AFTER: usize = 6;
const NOISE_MM: f64 = 0.4;

/// Lengths and pressures of each bubble.
#[derive(Debug, Clone, PartialEq)]
pub struct Bubbles(pub Vec<(Vec<f64>, Vec<f64>)>);

/// Blows five bubbles of a sample; one in twenty bursts early, as they do.
pub fn run_alveograph(sample: &Sample, seed: u64) -> Bubbles {
    let mut noise = Noise::seeded(seed);
    let bubbles = (0..5).map(|_| {
        let p = sample.p_mmh2o * (1.0 + noise.of(0.02));
        let burst = if noise.of(1.0) > 1.65 { 0.6 } else { 1.0 };
        let l = (sample.l_mm * burst * (1.0 + noise.of(0.05))).max(2.0 * TOP_MM);
        bubble(p, l, sample.w * p / sample.p_mmh2o * l / sample.l_mm, &mut noise)
    });
    Bubbles(bubbles.collect())
}

impl Bubbles {
    /// The same with one bubble, counted from 0, that bursts at this share of its length.
    #[must_use]
    pub fn burst_early(mut self, bubble: usize, share: f64) -> Self {
        let (_, p_mmh2o) = &mut self.0[bubble];
        let last = ((p_mmh2o.len() - AFTER) as f64 * share) as usize;
        for p in &mut p_mmh2o[last..] {
            *p = 0.0;
        }
        self
    }

    /// The same with a knock at the instrument: one value of a bubble is off by so much.
    #[must_use]
    pub fn knocked(mut self, bubble: usize, at_mm: f64, off_mmh2o: f64) -> Self {
        let (l_mm, p_mmh2o) = &mut self.0[bubble];
        if let Some(at) = l_mm.iter().position(|l| *l >= at_mm) {
            p_mmh2o[at] += off_mmh2o;
        }
        self
    }
}

/// A bubble of height p and length l whose sheet has the area that W asks for.
fn bubble(p: f64, l: f64, w: f64, noise: &mut Noise) -> (Vec<f64>, Vec<f64>) {
    let drawn_mm2 = w / 6.54 * 100.0 * 1.1;
    let pressure = |at: f64, floor: f64| {
        if at <= TOP_MM {
            p * (at / TOP_MM * std::f64::consts::FRAC_PI_2).sin()
        } else {
            p * (floor + (1.0 - floor) * (-(at - TOP_MM) / 22.0).exp())
        }
    };
    let steps = (l / STEP_MM).round() as usize;
    let area = |floor: f64| {
        let heights = (0..=steps).map(|step| pressure(step as f64 * STEP_MM, floor));
        heights.sum::<f64>() * STEP_MM
    };
    let floor = solve(0.05, 0.95, drawn_mm2, area);
    let round = |value: f64| (value * 10.0).round() / 10.0;
    let l_mm: Vec<f64> = (0..=steps + AFTER).map(|step| step as f64 * STEP_MM).collect();
    let p_mmh2o = l_mm.iter().enumerate().map(|(step, at)| match step {
        0 => 0.0,
        step if step <= steps => round((pressure(*at, floor) + noise.of(NOISE_MM)).max(0.0)),
        step => round((4.0 / (step - steps) as f64 + noise.of(0.3)).max(0.0)),
    });
    let p_mmh2o = p_mmh2o.collect();
    (l_mm, p_mmh2o)
}
