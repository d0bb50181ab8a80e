use crate::{Noise, Sample, solve};

/// Water too much, in ml, by which a dough in the 300 g mixer loses its consistency e-fold.
const SOFTENS_ML: f64 = 47.0;
/// Half the band's width at the start and at the end, FU.
const BAND: (f64, f64) = (44.0, 16.0);
const NOISE_FU: f64 = 6.0;
const MIXER_G: f64 = 300.0;

/// What went into the mixer and what the pen drew, once a second.
#[derive(Debug, Clone, PartialEq)]
pub struct Titration {
    pub mixer_g: f64,
    pub flour_moisture_pct: f64,
    pub flour_g: f64,
    pub water_ml: f64,
    pub t_s: Vec<f64>,
    pub fu: Vec<f64>,
    pub band_fu: Vec<f64>,
}

/// Runs a sample in a 300 g mixer with water that is off by so many ml.
///
/// The centre line rises to the peak at the sample's development time and falls so that it has
/// lost its softening after 12 min and its upper edge leaves the line after its stability.
pub fn run_farinograph(sample: &Sample, water_off_ml: f64, seed: u64) -> Titration {
    let mut noise = Noise::seeded(seed);
    let flour_g = MIXER_G * 86.0 / (100.0 - sample.moisture_pct);
    let right_ml = sample.absorption_14_pct * MIXER_G / 100.0 + MIXER_G - flour_g;
    let water_ml = ((right_ml + water_off_ml) * 10.0).round() / 10.0;
    let peak_fu = 500.0 * ((right_ml - water_ml) / SOFTENS_ML).exp();
    let minutes = (sample.development_min + 13.0).max(20.0);

    let shape = Shape::of(sample);
    let t_s: Vec<f64> = (0..=(minutes * 60.0) as u32).map(f64::from).collect();
    let round = |value: f64| (value * 10.0).round() / 10.0;
    let fu =
        t_s.iter().map(|t| round((shape.centre(t / 60.0, peak_fu) + noise.of(NOISE_FU)).max(0.0)));
    let fu = fu.collect();
    let band_fu = t_s.iter().map(|t| round(band(t / 60.0))).collect();
    let flour_moisture_pct = round(sample.moisture_pct);
    Titration { mixer_g: MIXER_G, flour_moisture_pct, flour_g, water_ml, t_s, fu, band_fu }
}

impl Titration {
    /// The same with a knock at the instrument: for two seconds the pen is off by so much.
    #[must_use]
    pub fn knocked(mut self, at_s: f64, off_fu: f64) -> Self {
        for (t, fu) in self.t_s.iter().zip(&mut self.fu) {
            if (at_s..at_s + 2.0).contains(t) {
                *fu = (*fu + off_fu).max(0.0);
            }
        }
        self
    }
}

/// Half the band's width.
fn band(minute: f64) -> f64 {
    BAND.1 + (BAND.0 - BAND.1) * (-minute / 9.0).exp()
}

struct Shape {
    develops_min: f64,
    softening_fu: f64,
    /// Minutes before softening sets in.
    holds_min: f64,
}

impl Shape {
    fn of(sample: &Sample) -> Self {
        let at = |holds_min| Self {
            develops_min: sample.development_min,
            softening_fu: sample.softening_fu,
            holds_min,
        };
        // The line is reached on the way up when the centre is half a band below it.
        let sure = at(3.0);
        let arrival = solve(0.0, sample.development_min, 500.0, |minute| {
            sure.centre(minute, 500.0) + band(minute)
        });
        let residual = (arrival + sample.stability_min - sample.development_min).clamp(0.5, 11.5);
        let wanted = band(sample.development_min + residual);
        // The longer it holds at first, the less it has fallen by then.
        at(solve(0.02, 60.0, -wanted, |holds_min| -at(holds_min).fallen(residual)))
    }

    /// FU below the peak, this long after it.
    fn fallen(&self, minutes: f64) -> f64 {
        let bent = |x: f64| x * x / (x + self.holds_min);
        self.softening_fu * bent(minutes) / bent(12.0)
    }

    fn centre(&self, minute: f64, peak_fu: f64) -> f64 {
        let along = minute / self.develops_min;
        if along >= 1.0 {
            return peak_fu - self.fallen(minute - self.develops_min);
        }
        // Flat at the peak, steep in the middle, nothing in the first seconds.
        let wetted = 1.0 - (-(along * 4.0).powi(2)).exp();
        peak_fu * wetted * (1.0 - 0.25 * (1.0 - along).powi(2))
    }
}
