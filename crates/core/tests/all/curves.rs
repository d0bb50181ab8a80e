//! Curves: the standard's readings, and readings that survive what real traces do.

use ironpeel_core::flour::{
    AlveogramNote, AlveographInput, FarinogramNote, FarinographAnswer, FarinographInput,
};
use ironpeel_core::units::Series;
use serde_json::{Value, json};

#[track_caller]
fn near(found: f64, wanted: f64, within: f64) {
    assert!((found - wanted).abs() <= within, "{found} is not within {within} of {wanted}");
}

/// Evenly distributed numbers, the same at every run.
struct Dice(u64);

impl Dice {
    fn even(&mut self) -> f64 {
        self.0 =
            self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (self.0 >> 11) as f64 / (1u64 << 53) as f64
    }

    /// Normal, by the sum of twelve.
    fn normal(&mut self) -> f64 {
        (0..12).map(|_| self.even()).sum::<f64>() - 6.0
    }
}

/// A dough that takes its water up, develops, holds, and softens.
#[derive(Debug, Clone, Copy)]
struct Dough {
    peak_fu: f64,
    develops_min: f64,
    softens: f64,
    minutes: f64,
}

const DOUGH: Dough = Dough { peak_fu: 505.0, develops_min: 6.5, softens: 0.9, minutes: 24.0 };

impl Dough {
    fn times(self) -> Vec<f64> {
        (0..=(self.minutes * 60.0) as u32).map(f64::from).collect()
    }

    fn centre(self, t_s: f64) -> f64 {
        let t = t_s / 60.0 / self.develops_min;
        // Highest, and flat, at t = 1.
        let rise = 1.0 - (-3.5 * t).exp() * (1.0 + 3.5 * t);
        let past = (t - 1.0).max(0.0);
        let peak = 1.0 - (-3.5f64).exp() * 4.5;
        self.peak_fu * (rise.min(peak) / peak - 0.06 * self.softens * past * past / (1.0 + past))
    }

    fn band(t_s: f64) -> f64 {
        16.0 + 28.0 * (-t_s / 500.0).exp()
    }

    fn read(self, noise: f64, dice: &mut Dice) -> FarinographAnswer {
        let t_s = self.times();
        let fu: Vec<f64> = t_s.iter().map(|t| self.centre(*t) + noise * dice.normal()).collect();
        let band_fu: Vec<f64> = t_s.iter().map(|t| Self::band(*t)).collect();
        gram(&t_s, &fu, &band_fu)
    }
}

fn gram(t_s: &[f64], fu: &[f64], band_fu: &[f64]) -> FarinographAnswer {
    FarinographInput {
        mixer_g: 300.0.into(),
        flour_moisture_pct: 13.6.into(),
        flour_g: (300.0 * 86.0 / (100.0 - 13.6)).into(),
        water_ml: 184.9.into(),
        t_s: t_s.to_vec().into(),
        fu: fu.to_vec().into(),
        band_fu: if band_fu.is_empty() { Series::Missing } else { band_fu.to_vec().into() },
    }
    .compute()
    .expect("in range")
}

/// A trace straight up to a peak and straight down again.
fn ridge(minutes: u32, peak_min: f64, peak_fu: f64) -> (Vec<f64>, Vec<f64>) {
    let t_s: Vec<f64> = (0..=minutes * 60).map(f64::from).collect();
    let fu = t_s.iter().map(|t| {
        let off = t / 60.0 - peak_min;
        if off < 0.0 { peak_fu * (1.0 + off / peak_min) } else { peak_fu - 8.0 * off }
    });
    let fu = fu.collect();
    (t_s, fu)
}

#[test]
fn absorption_by_both_mixers() {
    for (mixer, moisture, water, peak, wanted) in
        [(300, 13.2, 186.0, 512.0, 61.46), (50, 14.6, 29.4, 487.0, 59.09)]
    {
        let (t_s, fu) = ridge(20, 6.0, peak);
        let input: FarinographInput = serde_json::from_value(json!({
            "mixer_g": mixer, "flour_moisture_pct": moisture, "water_ml": water,
            "t_s": t_s, "fu": fu,
        }))
        .expect("the contract's shape");
        let read = input.compute().expect("in range");
        near(read.absorption_14_pct, wanted, 0.005);
        near(read.max_consistency_fu, peak, 1e-9);
        near(read.line_fu, 500.0, 0.0);
    }
}

#[test]
fn every_reading_where_the_standard_reads_it() {
    let (t_s, fu) = ridge(20, 6.0, 510.0);
    let band = vec![20.0; t_s.len()];
    let read = gram(&t_s, &fu, &band);
    // Flat within half a FU until 3.75 s past the peak.
    near(read.development_min, 6.05, 0.02);
    // 480 FU on the way up at 85 FU a minute, on the way down at 8.
    near(read.arrival_min.expect("crossed"), 480.0 / 85.0, 1e-6);
    near(read.departure_min.expect("crossed"), 6.0 + 30.0 / 8.0, 1e-6);
    near(read.stability_min.expect("both"), 9.75 - 480.0 / 85.0, 1e-6);
    near(read.mti_fu.expect("long enough"), 40.0, 1e-6);
    near(read.softening_fu.expect("long enough"), 96.0, 1e-6);
    near(read.quality_number_mm.expect("fell"), 10.0 * (6.0 + 30.0 / 8.0), 0.6);
    assert_eq!((read.noise_fu, read.notes), (0.0, vec![]));
}

#[test]
fn a_flat_top_ends_and_of_two_peaks_the_second_counts() {
    let t_s: Vec<f64> = (0..1200).map(f64::from).collect();
    let flat: Vec<f64> = t_s
        .iter()
        .map(|t| 500.0 - (t - 300.0).clamp(-300.0, 0.0).abs() - (t - 480.0).max(0.0) / 5.0)
        .collect();
    near(gram(&t_s, &flat, &[]).development_min, 8.0, 0.05);
    let two: Vec<f64> =
        t_s.iter().map(|t| 500.0 - (t - 180.0).abs().min((t - 540.0).abs()) / 3.0).collect();
    near(gram(&t_s, &two, &[]).development_min, 9.0, 0.05);
}

#[test]
fn a_titration_that_missed_is_read_at_its_own_height_and_says_so() {
    let (t_s, fu) = ridge(20, 6.0, 560.0);
    let band = vec![20.0; t_s.len()];
    let read = gram(&t_s, &fu, &band);
    near(read.line_fu, 560.0, 1e-9);
    assert!(
        read.notes.iter().any(|note| matches!(note, FarinogramNote::PeakOffAim { .. })),
        "{:?}",
        read.notes
    );
    near(read.departure_min.expect("crossed"), 6.0 + 20.0 / 8.0, 1e-6);
}

#[test]
fn what_a_trace_is_too_short_for_is_none_with_a_note() {
    let (t_s, fu) = ridge(9, 6.0, 505.0);
    let band = vec![60.0; t_s.len()];
    let read = gram(&t_s, &fu, &band);
    assert_eq!(read.departure_min, None);
    assert_eq!((read.stability_min, read.mti_fu, read.softening_fu), (None, None, None));
    assert_eq!(read.quality_number_mm, None);
    assert_eq!(read.notes.len(), 4, "{:?}", read.notes);
    near(read.absorption_14_pct, (184.9 + 0.48 + 300.0 * 86.0 / 86.4 - 300.0) / 3.0, 1e-6);
}

#[test]
fn noise_moves_readings_by_less_than_the_eye_would() {
    let mut dice = Dice(7);
    let mut some = false;
    let doughs = [
        DOUGH,
        Dough { peak_fu: 512.0, develops_min: 2.5, softens: 0.5, minutes: 20.0 },
        Dough { peak_fu: 492.0, develops_min: 9.5, softens: 1.4, minutes: 30.0 },
        Dough { peak_fu: 548.0, develops_min: 5.0, softens: 1.2, minutes: 24.0 },
    ];
    for dough in doughs {
        let clean = dough.read(0.0, &mut dice);
        for _ in 0..12 {
            let noisy = dough.read(8.0, &mut dice);
            near(noisy.noise_fu, 8.0, 1.5);
            let moved = |of: fn(&FarinographAnswer) -> Option<f64>| {
                (of(&noisy).expect("long enough") - of(&clean).expect("long enough")).abs()
            };
            for off in [
                moved(|read| Some(read.max_consistency_fu)),
                moved(|read| read.mti_fu),
                moved(|read| read.softening_fu),
            ] {
                assert!(off <= 4.0, "{off} FU in {dough:?}");
                some |= off > 0.0;
            }
            assert!(moved(|read| read.arrival_min) <= 0.3, "{noisy:?} {clean:?}");
            // A broad peak may be found anywhere on its top.
            let top = dough.centre(noisy.development_min * 60.0);
            assert!(dough.peak_fu - top < 3.0, "{top} in {dough:?}");
        }
    }
    assert!(some, "noise moves something");
}

#[test]
fn dropped_samples_move_nothing() {
    let t_s = DOUGH.times();
    let kept: Vec<f64> = t_s
        .iter()
        .copied()
        .filter(|t| (*t as u32) % 7 != 3 && !(400.0..430.0).contains(t))
        .collect();
    let fu: Vec<f64> = kept.iter().map(|t| DOUGH.centre(*t)).collect();
    let band: Vec<f64> = kept.iter().map(|t| Dough::band(*t)).collect();
    let whole = DOUGH.read(0.0, &mut Dice(1));
    let read = gram(&kept, &fu, &band);
    near(read.development_min, whole.development_min, 0.05);
    near(read.stability_min.expect("long enough"), whole.stability_min.expect("long enough"), 0.02);
    near(read.mti_fu.expect("long enough"), whole.mti_fu.expect("long enough"), 0.05);
}

#[test]
fn a_trace_that_cannot_be_used_says_why() {
    let mut input = json!({
        "mixer_g": 200, "flour_moisture_pct": 40, "water_ml": "much",
        "t_s": (0..100).collect::<Vec<_>>(), "fu": vec![400; 99], "band_fu": [1, "x"],
    });
    let faults = |input: &Value| {
        let input: FarinographInput = serde_json::from_value(input.clone()).expect("a shape");
        let faults = input.compute().expect_err("cannot be used").0;
        faults.into_iter().map(|fault| fault.field).collect::<Vec<_>>()
    };
    let wanted = ["mixer_g", "flour_moisture_pct", "water_ml", "band_fu[1]", "fu"];
    assert_eq!(faults(&input), wanted);
    input = json!({
        "mixer_g": 300, "flour_moisture_pct": 14, "water_ml": 186,
        "t_s": (0..100).map(|t| t / 2).collect::<Vec<_>>(), "fu": 7,
    });
    assert_eq!(faults(&input), ["fu", "t_s[1]"]);
}

fn bubbles(curves: &Value) -> AlveographInput {
    serde_json::from_value(json!({"curves": curves})).expect("the contract's shape")
}

/// A bubble that swells to `p` and is drawn out to `l`, 0.5 mm a sample.
fn bubble(p: f64, l: f64) -> Value {
    let l_mm: Vec<f64> = (0..=(2.0 * l) as u32 + 6).map(|half| f64::from(half) / 2.0).collect();
    let height = |at: &f64| {
        if *at > l { 0.0 } else { p * (at / 8.0).min(1.0) * (1.0 - 0.4 * (at - 8.0).max(0.0) / l) }
    };
    json!({"l_mm": l_mm, "p_mmh2o": l_mm.iter().map(height).collect::<Vec<_>>()})
}

#[test]
fn a_bubble_is_read_to_where_it_bursts() {
    let read = bubbles(&json!([bubble(84.0, 100.0)])).compute().expect("in range");
    let ie = 100.0 * (1.0 - 0.4 * 32.0 / 100.0);
    near(read.l_mm, 100.0, 1e-9);
    near(read.p_mmh2o, 84.0, 1e-9);
    near(read.g, 22.26, 1e-9);
    near(read.p_over_l.expect("long"), 0.84, 1e-9);
    near(read.ie_pct.expect("past 40 mm"), ie, 1e-6);
    let area_cm2 = (84.0 * 4.0 + 84.0 * 92.0 * (1.0 - 0.4 * 46.0 / 100.0)) / 1.1 / 100.0;
    near(read.w, 6.54 * area_cm2, 1e-6);
}

#[test]
fn an_early_burst_is_left_out_and_named() {
    let curves =
        json!([bubble(84.0, 100.0), bubble(80.0, 104.0), bubble(82.0, 55.0), bubble(82.0, 96.0)]);
    let read = bubbles(&curves).compute().expect("in range");
    assert_eq!(read.left_out, [3]);
    assert!(matches!(read.notes[0], AlveogramNote::LeftOut { curve: 3, .. }), "{:?}", read.notes);
    near(read.l_mm, 100.0, 1e-9);
    assert_eq!(read.curves.len(), 4);
}

#[test]
fn a_bubble_burst_before_40_mm_has_no_elasticity() {
    let read = bubbles(&json!([bubble(90.0, 35.0)])).compute().expect("in range");
    assert_eq!(read.ie_pct, None);
    assert!(read.w > 0.0);
}

#[test]
fn curves_that_cannot_be_used_say_why() {
    let short = json!({"l_mm": [0, 1], "p_mmh2o": [0, 1]});
    let late = json!({"l_mm": (1..40).collect::<Vec<_>>(), "p_mmh2o": vec![5; 39]});
    let flat = json!({"l_mm": (0..40).collect::<Vec<_>>(), "p_mmh2o": vec![0; 40]});
    let faults = bubbles(&json!([short, late, flat])).compute().expect_err("cannot be used").0;
    let fields: Vec<_> = faults.iter().map(|fault| fault.field.as_str()).collect();
    let wanted = ["curves[0].l_mm", "curves[0].p_mmh2o", "curves[1].l_mm", "curves[2].p_mmh2o"];
    assert_eq!(fields, wanted);
    assert!(bubbles(&json!([])).compute().is_err());
}
