//! A mill's lots over the years: around the usual, a little like the one before, the same by seed.

use ironpeel_core::flour::{Property, Readings, drift, read_rows};
use ironpeel_instruments::{Sample, certificate, lots_over_years, run_alveograph, run_farinograph};

const USUAL: Sample = Sample {
    moisture_pct: 14.0,
    protein_14_pct: 12.9,
    ash_dm_pct: 0.60,
    damaged_starch_pct: 8.2,
    falling_number_s: 330.0,
    absorption_14_pct: 62.0,
    development_min: 6.0,
    stability_min: 11.0,
    softening_fu: 50.0,
    p_mmh2o: 82.0,
    l_mm: 100.0,
    w: 300.0,
};

fn mean_and_sd(values: &[f64]) -> (f64, f64) {
    let mean = values.iter().sum::<f64>() / values.len() as f64;
    let squares: f64 = values.iter().map(|value| (value - mean).powi(2)).sum();
    (mean, (squares / values.len() as f64).sqrt())
}

#[test]
fn lots_lie_around_the_usual() {
    let lots = lots_over_years(&USUAL, 400, 7);
    assert_eq!(lots.len(), 400);
    let of = |property: fn(&Sample) -> f64| -> Vec<f64> { lots.iter().map(property).collect() };
    for (values, usual, spread) in [
        (of(|lot| lot.protein_14_pct), 12.9, 0.19),
        (of(|lot| lot.ash_dm_pct), 0.60, 0.009),
        (of(|lot| lot.damaged_starch_pct), 8.2, 0.33),
        (of(|lot| lot.falling_number_s), 330.0, 12.0),
    ] {
        let (mean, sd) = mean_and_sd(&values);
        assert!((mean - usual).abs() < spread / 3.0, "{mean} is not {usual}");
        assert!((0.8 * spread..1.3 * spread).contains(&sd), "{sd} is not {spread}");
    }
}

#[test]
fn what_makes_a_flour_thirsty_makes_it_thirsty() {
    let lots = lots_over_years(&USUAL, 200, 11);
    for lot in &lots {
        // By what a house expects, to half a point; the plant's own truth is a little another.
        let expected = 1.1 * (lot.protein_14_pct - 12.9)
            + 1.4 * (lot.damaged_starch_pct - 8.2)
            + 4.0 * (lot.ash_dm_pct - 0.60);
        assert!((lot.absorption_14_pct - 62.0 - expected).abs() < 0.5);
    }
    let thirsty = |lot: &Sample| lot.protein_14_pct > 13.0 && lot.damaged_starch_pct > 8.4;
    assert!(lots.iter().filter(|lot| thirsty(lot)).all(|lot| lot.absorption_14_pct > 62.0));
}

#[test]
fn no_lot_is_beyond_what_a_mill_would_send() {
    for lot in lots_over_years(&USUAL, 1000, 3) {
        assert!((10.0..16.0).contains(&lot.protein_14_pct));
        assert!(lot.development_min >= 1.0 && lot.stability_min >= 1.5 && lot.softening_fu >= 8.0);
        assert!(lot.l_mm > 40.0 && lot.p_mmh2o > 30.0 && lot.w > 100.0);
    }
}

#[test]
fn the_same_seed_is_the_same_history_and_longer_ones_begin_alike() {
    let short = lots_over_years(&USUAL, 12, 42);
    let long = lots_over_years(&USUAL, 60, 42);
    let figures = |lots: &[Sample]| -> Vec<(f64, f64)> {
        lots.iter().map(|lot| (lot.protein_14_pct, lot.w)).collect()
    };
    assert_eq!(figures(&short), figures(&long[..12]));
    assert_ne!(figures(&short), figures(&lots_over_years(&USUAL, 12, 43)));
}

#[test]
fn most_lots_are_nothing_to_look_at() {
    let values: Vec<f64> =
        lots_over_years(&USUAL, 120, 5).iter().map(|lot| lot.damaged_starch_pct).collect();
    let found = drift(&values).expect("enough lots");
    let beyond = found.points.iter().filter(|point| point.beyond).count();
    assert!(beyond <= 3, "{beyond} of 120 lots stray");
}

#[test]
fn every_lots_certificate_can_be_read_whole() {
    for (seed, lot) in (0..).zip(lots_over_years(&USUAL, 30, 9)) {
        let rows = certificate(&lot, seed);
        let read =
            read_rows(&rows, None).into_iter().map(|row| row.expect("as a laboratory writes"));
        let readings = Readings(read.collect());
        let protein = readings.value(Property::Protein, None).expect("stated");
        assert!((protein - lot.protein_14_pct).abs() < 1.0, "{protein}");
    }
}

#[test]
fn instruments_draw_what_can_be_drawn() {
    for (seed, lot) in (0..).zip(lots_over_years(&USUAL, 20, 13)) {
        let gram = run_farinograph(&lot, 0.0, seed);
        assert_eq!(gram.t_s.len(), gram.fu.len());
        assert_eq!(gram.t_s.len(), gram.band_fu.len());
        assert!(gram.t_s.windows(2).all(|two| two[0] < two[1]));
        assert!(gram.fu.iter().chain(&gram.band_fu).all(|fu| fu.is_finite()));
        let bubbles = run_alveograph(&lot, seed);
        for (l_mm, p_mmh2o) in &bubbles.0 {
            assert_eq!(l_mm.len(), p_mmh2o.len());
            assert!(l_mm.windows(2).all(|two| two[0] < two[1]));
            assert!(p_mmh2o.iter().all(|p| p.is_finite()));
        }
    }
}
