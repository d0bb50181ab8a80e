//! The stand-ins of the floor: what they show is near the truth, and theirs alone.

use ironpeel_instruments::{
    Bake, CutLoaf, Picture, draw_cut_loaf, run_jar_camera, run_oven_logger, run_scale,
};

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

#[test]
fn a_logger_sets_each_core_when_it_truly_is() {
    let bake = Bake { bake_min: 21.0, start_c: 30.0, arrival_pct: 85.0, spread_min: 1.0 };
    let trace = run_oven_logger(bake, 3, 0.5, 11);
    assert_eq!((trace.t_min.len(), trace.probes.len()), (43, 3));
    for ((_, core_c), arrives) in trace.probes.iter().zip([17.85, 17.35, 16.85]) {
        let set = trace.t_min.iter().zip(core_c).find(|(_, c)| **c >= 93.0);
        let (minute, _) = set.expect("it is set");
        assert!((minute - arrives).abs() <= 0.75, "{minute} is not {arrives}");
        assert!((core_c[0] - 30.0).abs() < 1.0);
    }
    assert_eq!(trace, run_oven_logger(bake, 3, 0.5, 11), "one seed, one reading");
    let out = trace.fell_out(1, 10.0, 215.0);
    assert!(out.probes[1].1[20..].iter().all(|c| *c == 215.0) && out.probes[1].1[19] < 100.0);
}

const CUT: CutLoaf =
    CutLoaf { height: 1.0, cell_mm: 1.4, scatter: 0.45, dark: 0.1, crust: 0.5, streak_mm: 0.0 };

/// The middle light of a part of a picture, 0 to 255: columns and rows from and to, as shares.
fn light(picture: &Picture, across: (f64, f64), down: (f64, f64)) -> f64 {
    let (wide, high) = (f64::from(picture.width), f64::from(picture.height));
    let within = |at: usize| {
        let (x, y) = (at % picture.width as usize, at / picture.width as usize);
        let (x, y) = (x as f64 / wide, y as f64 / high);
        (across.0..across.1).contains(&x) && (down.0..down.1).contains(&y)
    };
    let pixels = picture.rgb.chunks(3).enumerate().filter(|(at, _)| within(*at));
    mean(pixels.map(|(_, rgb)| rgb.iter().copied().map(f64::from).sum::<f64>() / 3.0))
}

#[test]
fn a_cut_face_shows_what_the_loaf_is() {
    let middle = |loaf| light(&draw_cut_loaf(&loaf, 5), (0.4, 0.6), (0.4, 0.6));
    let usual = draw_cut_loaf(&CUT, 5);
    assert_eq!(usual.rgb.len(), (usual.width * usual.height * 3) as usize);
    assert_eq!(draw_cut_loaf(&CUT, 5), usual, "one seed, one picture");
    assert_ne!(draw_cut_loaf(&CUT, 6), usual, "no loaf is cut alike");
    assert!(middle(CutLoaf { dark: 0.9, ..CUT }) < middle(CUT) - 40.0);
    let crumb = |loaf| {
        let drawn = (0..8).map(|seed| draw_cut_loaf(&loaf, seed));
        mean(drawn.map(|picture| light(&picture, (0.25, 0.75), (0.35, 0.8))))
    };
    let (wide, usually) = (crumb(CutLoaf { cell_mm: 4.0, ..CUT }), crumb(CUT));
    assert!(wide < usually - 1.0, "wide cells are deep: {wide} and {usually}");
    // The table is seen above a low loaf, and a wet streak over its base.
    let above = |loaf| light(&draw_cut_loaf(&loaf, 5), (0.4, 0.6), (0.12, 0.2));
    assert!(above(CutLoaf { height: 0.7, ..CUT }) > 190.0);
    assert!(above(CUT) < 190.0);
    let base = |loaf| light(&draw_cut_loaf(&loaf, 5), (0.3, 0.7), (0.88, 0.91));
    assert!(base(CutLoaf { streak_mm: 6.0, ..CUT }) < base(CUT) - 10.0);
}
