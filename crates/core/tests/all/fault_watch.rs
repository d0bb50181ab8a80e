//! What drifts over batches before it is a fault.

use std::collections::BTreeMap;

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::fault::{DriftSide, FigureDrift, drifting, knowledge};

fn batches(feature: &str, values: &[f64]) -> Vec<BTreeMap<String, f64>> {
    values.iter().map(|value| BTreeMap::from([(feature.to_owned(), *value)])).collect()
}

fn found(batches: &[BTreeMap<String, f64>]) -> Vec<FigureDrift> {
    drifting(batches, &Coefficients::default())
}

#[test]
fn six_of_eight_beyond_half_way_on_one_side_is_a_drift() {
    let starch = |values: &[f64]| found(&batches("damaged_starch_pct", values));
    // Usual 8, its threshold 10: from 9 on.
    let high = [9.4, 9.2, 8.1, 9.6, 9.8, 9.1, 9.5, 8.9];
    let one = &starch(&high)[0];
    assert_eq!((one.side, one.beyond, one.of, one.from), (DriftSide::Above, 6, 8, 9.0));
    assert!((one.mean - 56.6 / 6.0).abs() < 1e-9, "{}", one.mean);
    assert_eq!(starch(&[9.4, 9.2, 8.1, 9.6, 9.8, 9.0, 9.5, 8.9]), [], "five, and one on the line");
    // What was before the last eight is forgotten.
    let mut older = vec![8.0; 8];
    older.extend(high);
    assert_eq!(starch(&older), []);
    // Below: usual 8, threshold 6.
    assert_eq!(starch(&[6.5; 7])[0].side, DriftSide::Below);
    // On both sides by turns, nothing drifts.
    assert_eq!(starch(&[9.4, 6.4, 9.4, 6.4, 9.4, 6.4, 9.4, 6.4]), []);
}

#[test]
fn what_was_not_measured_does_not_count_and_words_do_not_drift() {
    let mut some = batches("dough_c_d", &[1.2; 5]);
    some.extend(vec![BTreeMap::new(); 3]);
    assert_eq!(found(&some), []);
    some[7] = BTreeMap::from([("dough_c_d".into(), 1.2)]);
    assert_eq!(found(&some)[0].beyond, 6);
    let taps = knowledge().features.iter().filter(|feature| feature.ramp == 0.0);
    for tap in taps {
        assert_eq!(found(&batches(&tap.key, &[1.0; 8])), [], "{}", tap.key);
    }
    assert_eq!(found(&[]), []);
}

#[test]
fn what_is_usual_never_drifts_and_what_lies_furthest_comes_first() {
    let usual = knowledge().features.iter().filter_map(|one| Some((one.key.clone(), one.usual?)));
    let usual: BTreeMap<String, f64> = usual.collect();
    assert_eq!(found(&vec![usual.clone(); 8]), []);
    let mut off = usual;
    off.insert("dough_c_d".into(), 1.2);
    off.insert("damaged_starch_pct".into(), 12.0);
    let drifts = found(&vec![off; 8]);
    let keys: Vec<&str> = drifts.iter().map(|one| &*one.feature).collect();
    assert_eq!(keys, ["damaged_starch_pct", "dough_c_d"]);
}
