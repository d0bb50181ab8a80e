//! The variants of a trial beside the dough as it is.

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::judging::{
    Characteristic, DifferenceVerdict, ProductStandard, ScoreMark, Sheet, TrialVerdict,
    VariantSheets, variants,
};
use proptest::prelude::*;
use proptest::strategy::ValueTree;
use proptest::test_runner::TestRunner;
use uuid::Uuid;

const TRAITS: usize = Characteristic::ALL.len();

fn sheet(dough: u128, loaf: i16, marks: impl Fn(usize) -> f64) -> Sheet {
    let all = Characteristic::ALL.into_iter().enumerate();
    Sheet {
        judge: "RK".into(),
        loaf: (Uuid::from_u128(dough), loaf),
        sample: Uuid::from_u128(dough * 100 + loaf as u128),
        marks: all.map(|(at, of)| ScoreMark { of, mark: marks(at), sign: None }).collect(),
    }
}

/// Doughs baked side by side, each a list of loaves by bake, a loaf the mark of every characteristic.
fn doughs(of: &[&[&[f64]]]) -> Vec<VariantSheets> {
    let dough = |(variant, bakes): (usize, &&[&[f64]])| VariantSheets {
        bakes: (1i16..)
            .zip(bakes.iter())
            .map(|(bake, loaves)| {
                let id = 1 + variant as u128 * 50 + bake as u128;
                let loaves = (1i16..).zip(loaves.iter());
                (bake, loaves.map(|(loaf, mark)| sheet(id, loaf, |_| *mark)).collect())
            })
            .collect(),
    };
    of.iter().enumerate().map(dough).collect()
}

fn judged(doughs: &[VariantSheets], earlier: &[Sheet]) -> TrialVerdict {
    variants(doughs, earlier, &ProductStandard::default(), &Coefficients::default())
}

#[test]
fn totals_of_several_days_are_held_against_how_the_days_scatter() {
    // 5.1, 3.2, 6.0 and 2.5 points apart.
    let is: Vec<f64> = [5.1, 3.2, 6.0, 2.5].iter().map(|points| 3.0 + points / 25.0).collect();
    let is: Vec<&[f64]> = is.iter().map(std::slice::from_ref).collect();
    let found = judged(&doughs(&[&[&[3.0][..]; 4], &is]), &[]);
    let one = &found.differences[0];
    assert_eq!((one.variant, one.bakes, one.loaves), (1, 4, 1));
    let total = one.total.expect("all is marked");
    assert!(
        (total.difference - 4.2).abs() < 1e-9 && (total.limit - 2.589).abs() < 0.001,
        "{total:?}"
    );
    assert_eq!(total.says, DifferenceVerdict::VariantsDiffer);
    assert_eq!((total.loaves_needed, total.bakes_needed), (None, Some(3)), "two would not do");
}

#[test]
fn one_bake_tells_doughs_apart_and_variants_only_beside_earlier_batches() {
    let (was, is) = ([3.0; 6], [3.8; 6]);
    let pair = doughs(&[&[&was], &[&is]]);
    let total = judged(&pair, &[]).differences[0].total.expect("a total");
    // 25 points a mark; twelve marks that scatter each for itself by √(0.35² + 0.5²), six loaves.
    let weights = [12.0, 8.0, 8.0, 5.0, 6.0, 10.0, 8.0, 4.0, 10.0, 8.0, 6.0, 15.0_f64];
    let spread = weights.iter().map(|weight| weight.powi(2)).sum::<f64>().sqrt() / 4.0;
    let limit = 1.96 * spread * (2.0_f64 * (0.35_f64.powi(2) + 0.25) / 6.0).sqrt();
    assert!((total.limit - limit).abs() < 0.01, "{total:?} beside {limit}");
    assert_eq!(total.says, DifferenceVerdict::DoughsDiffer);

    // Earlier batches that scatter as much themselves.
    let earlier: Vec<Sheet> = [2.6, 3.0, 3.4, 3.8]
        .iter()
        .zip(900..)
        .flat_map(|(mark, dough)| (1..=6).map(move |loaf| sheet(dough, loaf, |_| *mark)))
        .collect();
    let wider = judged(&pair, &earlier).differences[0].total.expect("a total");
    assert!(wider.limit > 2.0 * limit, "{wider:?}");
    assert_eq!(wider.says, DifferenceVerdict::NotShown);
    let needed = wider.bakes_needed.expect("more bakes would show it");
    let bakes: Vec<&[f64]> = vec![&is; needed as usize];
    let as_it_is: Vec<&[f64]> = vec![&was; needed as usize];
    let more = judged(&doughs(&[&as_it_is, &bakes]), &earlier).differences[0].total;
    assert_eq!(more.expect("a total").says, DifferenceVerdict::VariantsDiffer);
    // Only bakes of both count, and a dough nobody judged has no place.
    let mut half = doughs(&[&[&was], &[&is], &[]]);
    assert_eq!(judged(&half, &[]).differences.len(), 1);
    half[1].bakes = half[1].bakes.iter().map(|(bake, all)| (bake + 1, all.clone())).collect();
    let found = judged(&half, &[]);
    assert!(found.differences.is_empty() && found.variants[1].is_some(), "never side by side");
}

#[test]
fn a_sheet_of_noise_seldom_finds_a_mark_and_a_true_one_is_found() {
    // As wide as marks of one loaf scatter.
    let hand = (0.35_f64.powi(2) + 0.25).sqrt() * 3.0_f64.sqrt();
    let mut runner = TestRunner::deterministic();
    let loaves = 6_i16;
    let noise = prop::collection::vec(-hand..hand, 2 * loaves as usize * TRAITS);
    let (mut found, mut seen) = (0, 0);
    for _ in 0..300 {
        let off = noise.new_tree(&mut runner).expect("noise").current();
        let dough = |variant: usize, better: f64| VariantSheets {
            bakes: [(
                1,
                (1..=loaves)
                    .map(|loaf| {
                        let from = (variant * loaves as usize + loaf as usize - 1) * TRAITS;
                        let off = &off[from..from + TRAITS];
                        sheet(1 + variant as u128, loaf, |at| {
                            3.0 + off[at] + if at == 5 { better } else { 0.0 }
                        })
                    })
                    .collect(),
            )]
            .into(),
        };
        let traits =
            |better| judged(&[dough(0, 0.0), dough(1, better)], &[]).differences.remove(0).traits;
        let real = |says| says != DifferenceVerdict::NotShown;
        found += usize::from(traits(0.0).iter().any(|one| real(one.says)));
        let better = traits(1.6);
        seen += usize::from(better[0].of == Characteristic::Openness && real(better[0].says));
        let sure: Vec<f64> = better.iter().map(|one| one.p).collect();
        assert!(sure.is_sorted(), "the surest first");
    }
    assert!(found <= 24, "{found} of 300 sheets find what is not there");
    assert!(seen >= 285, "{seen} of 300 sheets find what is there");
}
