//! Drift charts: what is unusual is found, and nothing else.

use ironpeel_core::flour::{Drift, drift};
use proptest::prelude::*;

fn chart(values: &[f64]) -> Drift {
    drift(values).expect("enough lots")
}

/// Values that go up and down by so much around 10.
fn usual(count: usize, by: f64) -> Vec<f64> {
    (0..count).map(|at| 10.0 + if at % 2 == 0 { by } else { -by }).collect()
}

#[test]
fn fewer_than_three_lots_say_nothing() {
    for count in 0..3 {
        assert_eq!(drift(&usual(count, 0.1)), None);
    }
    assert!(drift(&usual(3, 0.1)).is_some());
}

#[test]
fn usual_lots_are_nothing_to_look_at() {
    let found = chart(&usual(40, 0.2));
    assert!(found.points.iter().all(|point| !point.beyond && !point.run && !point.drifting));
    assert!((found.centre - 10.0).abs() < 1e-12);
    assert!((found.sigma - 0.4 / 1.128).abs() < 1e-12, "the mean moving range over 1.128");
    assert!((found.upper - found.centre - 3.0 * found.sigma).abs() < 1e-12);
    assert!((found.ewma_upper - found.centre - found.sigma).abs() < 1e-12, "√(0.2/1.8) is a third");
}

#[test]
fn one_stray_lot_widens_its_own_limits_little() {
    let mut values = usual(40, 0.2);
    values[20] = 13.0;
    let found = chart(&values);
    let beyond: Vec<usize> = (0..40).filter(|at| found.points[*at].beyond).collect();
    assert_eq!(beyond, [20]);
    assert!(found.sigma < 2.0 * chart(&usual(40, 0.2)).sigma);
}

#[test]
fn eight_on_one_side_are_a_run_and_seven_are_not() {
    for (count, run) in [(7, false), (8, true), (11, true)] {
        let mut values = usual(24, 0.3);
        values.extend(std::iter::repeat_n(10.1, count));
        values.push(9.0);
        let found = chart(&values);
        let side = &found.points[24..24 + count];
        assert!(side.iter().all(|point| point.run == run), "{count}");
        assert!(!found.points[24 + count].run);
    }
}

#[test]
fn a_slow_drift_is_seen_before_any_lot_strays() {
    let mut values = usual(30, 0.3);
    let wave = |at: i32| if at % 2 == 0 { 0.25 } else { -0.25 };
    values.extend((0..14).map(|at| 10.0 + 0.1 * f64::from(at) + wave(at)));
    let found = chart(&values);
    assert!(found.points.iter().all(|point| !point.beyond));
    assert!(found.points[43].drifting);
    assert!(!found.points[25].drifting);
}

#[test]
fn lots_all_alike_have_no_spread_and_no_fault() {
    let found = chart(&[10.0; 12]);
    assert_eq!((found.sigma, found.lower, found.upper), (0.0, 10.0, 10.0));
    assert!(found.points.iter().all(|point| !point.beyond && !point.run && !point.drifting));
}

proptest! {
    #[test]
    fn moving_or_stretching_all_lots_changes_no_judgement(
        values in prop::collection::vec(5.0..15.0f64, 3..60), by in -100.0..100.0f64, times in 0.1..20.0f64,
    ) {
        let plain = chart(&values);
        let moved: Vec<f64> = values.iter().map(|value| value * times + by).collect();
        let moved = chart(&moved);
        let near_an_edge = |point: f64, edge: f64| (point - edge).abs() < 1e-9;
        for (one, other) in plain.points.iter().zip(&moved.points) {
            if [plain.lower, plain.upper, plain.centre].iter().any(|edge| near_an_edge(one.value, *edge)) {
                continue;
            }
            prop_assert_eq!(one.beyond, other.beyond);
        }
        prop_assert!((moved.sigma - plain.sigma * times).abs() < 1e-6 * (1.0 + moved.sigma));
    }

    #[test]
    fn the_average_lies_among_what_it_averages(values in prop::collection::vec(0.0..100.0f64, 3..80)) {
        let found = chart(&values);
        let low = values.iter().copied().fold(f64::INFINITY, f64::min);
        let high = values.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        for point in &found.points {
            prop_assert!(point.ewma >= low - 1e-9 && point.ewma <= high + 1e-9);
        }
        prop_assert!(found.lower <= found.centre && found.centre <= found.upper);
    }
}
