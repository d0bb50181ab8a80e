//! What a stand-in draws, read by the core, gives back what the sample is.

use ironpeel_core::flour::{
    AlveogramCurveInput, AlveogramNote, AlveographAnswer, AlveographInput, FarinogramNote,
    FarinographAnswer, FarinographInput, Readings, read_rows,
};
use ironpeel_instruments::{
    Bubbles, Sample, Titration, certificate, run_alveograph, run_farinograph, run_probe,
};

const STRONG: Sample = Sample {
    moisture_pct: 14.1,
    protein_14_pct: 12.9,
    ash_dm_pct: 0.60,
    damaged_starch_pct: 8.2,
    falling_number_s: 340.0,
    absorption_14_pct: 62.2,
    development_min: 6.2,
    stability_min: 11.5,
    softening_fu: 48.0,
    p_mmh2o: 84.0,
    l_mm: 101.0,
    w: 305.0,
};
const PLAIN: Sample = Sample {
    protein_14_pct: 10.4,
    absorption_14_pct: 56.5,
    development_min: 2.2,
    stability_min: 4.6,
    softening_fu: 92.0,
    p_mmh2o: 58.0,
    l_mm: 92.0,
    w: 165.0,
    ..STRONG
};

#[track_caller]
fn near(found: f64, wanted: f64, within: f64) {
    assert!((found - wanted).abs() <= within, "{found} is not within {within} of {wanted}");
}

fn gram(run: &Titration) -> FarinographAnswer {
    FarinographInput {
        mixer_g: 300.0.into(),
        flour_moisture_pct: run.flour_moisture_pct.into(),
        flour_g: run.flour_g.into(),
        water_ml: run.water_ml.into(),
        t_s: run.t_s.clone().into(),
        fu: run.fu.clone().into(),
        band_fu: run.band_fu.clone().into(),
    }
    .compute()
    .expect("in range")
}

#[test]
fn a_titration_reads_as_the_sample_is() {
    for (sample, seeds) in [(STRONG, 0..8), (PLAIN, 20..28)] {
        for seed in seeds {
            let read = gram(&run_farinograph(&sample, 0.0, seed));
            near(read.absorption_14_pct, sample.absorption_14_pct, 0.3);
            near(read.softening_fu.expect("long enough"), sample.softening_fu, 8.0);
            near(read.stability_min.expect("long enough"), sample.stability_min, 1.2);
            near(read.max_consistency_fu, 500.0, 4.0);
        }
    }
}

#[test]
fn water_that_is_off_is_seen_and_corrected_for() {
    let read = gram(&run_farinograph(&STRONG, -5.8, 3));
    near(read.max_consistency_fu, 565.7, 5.0);
    near(read.absorption_14_pct, STRONG.absorption_14_pct, 0.3);
    assert!(read.notes.iter().any(|note| matches!(note, FarinogramNote::PeakOffAim { .. })));
}

#[test]
fn a_knock_at_the_farinograph_does_not_pass_for_flour() {
    for at_s in [40.0, 372.0, 700.0] {
        for off_fu in [-150.0, 150.0] {
            let run = run_farinograph(&STRONG, 0.0, 3).knocked(at_s, off_fu);
            let read = gram(&run);
            near(read.absorption_14_pct, STRONG.absorption_14_pct, 0.5);
            near(read.max_consistency_fu, 500.0, 20.0);
            near(read.stability_min.expect("long enough"), STRONG.stability_min, 2.0);
        }
    }
}

fn read_bubbles(bubbles: &Bubbles) -> AlveographAnswer {
    let curve = |(l, p): &(Vec<f64>, Vec<f64>)| AlveogramCurveInput {
        l_mm: l.clone().into(),
        p_mmh2o: p.clone().into(),
    };
    let curves = Some(bubbles.0.iter().map(curve).collect());
    AlveographInput { curves }.compute().expect("in range")
}

#[test]
fn a_bubble_that_bursts_early_is_left_out() {
    let sound = run_alveograph(&STRONG, 4);
    let was = read_bubbles(&sound);
    assert!(was.left_out.is_empty());
    let read = read_bubbles(&sound.burst_early(2, 0.5));
    assert_eq!(read.left_out, [3]);
    near(read.w, was.w, 0.04 * was.w);
    assert!(read.notes.iter().any(|note| matches!(note, AlveogramNote::LeftOut { curve: 3, .. })));
}

#[test]
fn a_curve_with_a_knock_in_it_is_left_out() {
    let sound = run_alveograph(&STRONG, 4);
    let was = read_bubbles(&sound);
    for (at_mm, off) in [(8.0, 40.0), (30.0, 120.0), (30.0, -60.0), (60.0, 80.0)] {
        let read = read_bubbles(&sound.clone().knocked(1, at_mm, off));
        assert_eq!(read.left_out, [2], "{off:+} at {at_mm} mm");
        near(read.p_mmh2o, was.p_mmh2o, 4.0);
        near(read.l_mm, was.l_mm, 5.0);
        near(read.w, was.w, 0.1 * was.w);
    }
}

#[test]
fn bubbles_read_as_the_sample_is() {
    for (sample, seed) in [(STRONG, 1), (PLAIN, 2)] {
        let read = read_bubbles(&run_alveograph(&sample, seed));
        near(read.p_mmh2o, sample.p_mmh2o, 4.0);
        near(read.l_mm, sample.l_mm, 8.0);
        near(read.w, sample.w, 0.1 * sample.w);
    }
}

#[test]
fn the_same_seed_measures_the_same_and_another_does_not() {
    assert_eq!(certificate(&STRONG, 5), certificate(&STRONG, 5));
    assert_ne!(certificate(&STRONG, 5), certificate(&STRONG, 6));
    assert_eq!(run_farinograph(&PLAIN, 0.0, 5), run_farinograph(&PLAIN, 0.0, 5));
}

#[test]
fn a_certificate_can_be_read_and_its_sample_guessed() {
    let rows = certificate(&STRONG, 9);
    let readings =
        read_rows(&rows, None).into_iter().map(|read| read.expect("as a laboratory writes"));
    let readings = Readings(readings.collect());
    let behind = Sample::behind(&readings, 4);
    near(behind.protein_14_pct, STRONG.protein_14_pct, 0.4);
    near(behind.w, STRONG.w, 20.0);
    let bare = Sample::behind(&Readings::default(), 4);
    assert!(bare.development_min >= 1.0 && bare.softening_fu >= 8.0);
}

#[test]
fn a_probe_that_drifts_is_off_by_the_hour_and_a_spike_by_one_reading() {
    let cools = |t: f64| 22.0 + 5.0 * (-t / 90.0).exp();
    let sound = run_probe(cools, 121, 1.0, 5);
    for (t, c) in sound.t_min.iter().zip(&sound.core_c) {
        near(*c, cools(*t), 0.5);
    }
    let drifts = sound.clone().drifting(0.8);
    near(drifts.core_c[120] - sound.core_c[120], 1.6, 1e-9);
    near(drifts.core_c[0], sound.core_c[0], 0.0);
    let spiked = sound.clone().spiked(60, -30.0);
    let off = spiked.core_c.iter().zip(&sound.core_c).filter(|(one, other)| one != other).count();
    assert_eq!(off, 1);
}
