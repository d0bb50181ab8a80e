//! The stand-ins of the floor: what they show is near the truth, and theirs alone.

use ironpeel_instruments::{run_jar_camera, run_scale};

fn mean(values: impl Iterator<Item = f64>) -> f64 {
    let (sum, count) = values.fold((0.0, 0.0), |(sum, count), value| (sum + value, count + 1.0));
    sum / count
}

#[test]
fn a_scale_shows_divisions_about_what_was_wanted() {
    let shown: Vec<f64> = (0..400).map(|seed| run_scale(41.55, 0.05, seed)).collect();
    assert!((mean(shown.iter().copied()) - 41.55).abs() < 0.02);
    for kg in &shown {
        let divisions = kg / 0.05;
        assert!((divisions - divisions.round()).abs() < 1e-6, "{kg} is between two divisions");
        assert!((kg / 41.55 - 1.0).abs() < 0.02, "{kg}");
    }
    assert!(shown.iter().any(|kg| *kg != shown[0]), "no hand pours alike");
    assert_eq!(run_scale(41.55, 0.05, 7), run_scale(41.55, 0.05, 7), "one seed, one reading");
    assert_eq!(run_scale(0.0, 0.01, 3), 0.0);
}

#[test]
fn a_jar_camera_reads_whole_points_about_the_level() {
    let read: Vec<f64> = (0..400).map(|seed| run_jar_camera(52.0, seed)).collect();
    assert!((mean(read.iter().copied()) - 52.0).abs() < 0.5);
    assert!(read.iter().all(|rise| rise.fract() == 0.0 && (rise - 52.0).abs() < 12.0));
    let sd = mean(read.iter().map(|rise| (rise - 52.0).powi(2))).sqrt();
    assert!((1.0..3.5).contains(&sd), "{sd}");
}
