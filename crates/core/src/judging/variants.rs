//! The variants of a trial beside the dough as it is: which differences are real.

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use statrs::distribution::{ContinuousCDF, Normal, StudentsT};
use statrs::statistics::Statistics;
use uuid::Uuid;

use super::coefficients::LOAF_SD;
use super::difference::{Scatter, verdict};
use super::{
    Characteristic, DifferenceVerdict, MARKS, Panel, PanelTrait, ProductStandard, Sheet, panel,
};
use crate::coefficient::Coefficients;

/// One dough of a trial with the sheets of its loaves, each bake apart.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct VariantSheets {
    /// By the number of the bake: variants under the same one were baked side by side.
    pub bakes: BTreeMap<i16, Vec<Sheet>>,
}

/// What a trial's sheets come to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TrialVerdict {
    /// Each variant's judges together, the dough as it is first; none where nobody judged it.
    pub variants: Vec<Option<Panel>>,
    /// Each variant beside the dough as it is, where both were judged in one bake.
    pub differences: Vec<VariantDifference>,
}

/// A variant beside the dough as it is.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct VariantDifference {
    /// Its place in the trial.
    pub variant: usize,
    /// Bakes in which both were judged.
    pub bakes: usize,
    /// Loaves of each in a bake, at least.
    pub loaves: usize,
    /// None where one of them has no total.
    pub total: Option<TestedDifference>,
    /// Of the marks, those with the surest difference first.
    pub traits: Vec<TraitDifference>,
}

/// A difference held against the least that would be seen.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TestedDifference {
    /// The variant less the dough as it is.
    pub difference: f64,
    /// The least difference that is significant at 95 %.
    pub limit: f64,
    pub says: DifferenceVerdict,
    /// So many loaves of each in a bake would show a difference of this size; none where 100 would not.
    pub loaves_needed: Option<u32>,
    /// So many bakes would; none where 100 would not.
    pub bakes_needed: Option<u32>,
}

/// A characteristic's difference.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TraitDifference {
    pub of: Characteristic,
    pub difference: f64,
    /// Chance of a difference this large where there is none.
    pub p: f64,
    /// By Holm's step-down over the sheet.
    pub says: DifferenceVerdict,
}

/// The chance of finding a difference that is not there.
const CHANCE: f64 = 0.05;
/// The most loaves or bakes that are advised.
const MOST: u32 = 100;
/// Batches that have been judged before their scatter is used.
const LEAST_BATCHES: usize = 3;

/// Puts the sheets of each variant together and holds each against the first, the dough as it is.
///
/// Baked side by side in r bakes, `|d̄| > t(0.975, r − 1)·s_d/√r`. In one bake
/// `LSD = q·√(2·(σ_B² + (σ_L² + σ_J²)/n))`: σ_J is the judges', σ_L the house's, σ_B of the product's
/// earlier batches with q Student's at their degrees of freedom; with fewer than three of them the
/// answer is of these doughs, never of the variants. The total is tested at 95 %, the marks by Holm's
/// step-down.
///
/// ```
/// use ironpeel_core::coefficient::Coefficients;
/// use ironpeel_core::judging::*;
/// use uuid::Uuid;
/// let sheet = |dough: u128, mark| Sheet { judge: "one".into(), loaf: (Uuid::from_u128(dough), 1),
///     sample: Uuid::from_u128(dough), marks: Characteristic::ALL.map(|of| ScoreMark { of, mark, sign: None }).to_vec() };
/// let variant = |bakes: [(u128, f64); 3]| VariantSheets {
///     bakes: (1..).zip(bakes.map(|(dough, mark)| vec![sheet(dough, mark)])).collect() };
/// let found = variants(&[variant([(1, 3.0), (2, 3.0), (3, 3.5)]), variant([(4, 4.0), (5, 4.0), (6, 4.0)])],
///     &[], &ProductStandard::default(), &Coefficients::default());
/// let total = found.differences[0].total.unwrap();
/// // 25, 25 and 12.5 points apart: mean 20.8, limit 4.303·7.22/√3.
/// assert!((total.difference - 20.83).abs() < 0.01 && (total.limit - 17.93).abs() < 0.01);
/// assert_eq!(total.says, DifferenceVerdict::VariantsDiffer);
/// ```
pub fn variants(
    doughs: &[VariantSheets],
    earlier: &[Sheet],
    standard: &ProductStandard,
    coefficients: &Coefficients,
) -> TrialVerdict {
    let together = |sheets: &[Sheet]| panel(sheets, earlier, standard, coefficients);
    let between = Between::of(earlier, &together, coefficients);
    let all = |dough: &VariantSheets| dough.bakes.values().flatten().cloned().collect::<Vec<_>>();
    let as_it_is = doughs.first();
    let differences = doughs.iter().enumerate().skip(1).filter_map(|(variant, dough)| {
        let bakes = as_it_is?.bakes.iter().filter_map(|(number, sheets)| {
            Some((together(sheets)?, together(dough.bakes.get(number)?)?))
        });
        difference(variant, &bakes.collect::<Vec<_>>(), &between)
    });
    TrialVerdict {
        differences: differences.collect(),
        variants: doughs.iter().map(|dough| together(&all(dough))).collect(),
    }
}

/// A figure of a panel: the total, or one mark.
#[derive(Clone, Copy)]
enum Figure {
    Total,
    Mark(Characteristic),
}

impl Figure {
    fn value(self, panel: &Panel) -> Option<f64> {
        match self {
            Self::Total => panel.total.total,
            Self::Mark(of) => Some(marked(panel, of)?.mark),
        }
    }

    /// How far judging scatters it, a loaf judged once.
    fn judging(self, panel: &Panel) -> Option<f64> {
        let loaves = (panel.loaves as f64).sqrt();
        match self {
            Self::Total => Some(panel.total_sd? * loaves),
            Self::Mark(of) => Some(marked(panel, of)?.sd * loaves),
        }
    }

    /// How far loaves of one dough scatter it.
    fn between_loaves(self, panel: &Panel, sd: f64) -> f64 {
        match self {
            Self::Mark(_) => sd,
            // The marks of a loaf scatter each for itself.
            Self::Total => {
                let weights = || panel.traits.iter().map(|one| one.weight);
                let spread = weights().map(|weight| weight.powi(2)).sum::<f64>().sqrt();
                100.0 * sd * spread / (MARKS.1 - MARKS.0) / weights().sum::<f64>()
            }
        }
    }
}

fn marked(panel: &Panel, of: Characteristic) -> Option<&PanelTrait> {
    panel.traits.iter().find(|one| one.of == of)
}

/// The product's earlier batches as they were judged.
struct Between {
    batches: Vec<Panel>,
    loaf_sd: f64,
}

impl Between {
    fn of(
        earlier: &[Sheet],
        together: &impl Fn(&[Sheet]) -> Option<Panel>,
        coefficients: &Coefficients,
    ) -> Self {
        let doughs: BTreeSet<Uuid> = earlier.iter().map(|sheet| sheet.loaf.0).collect();
        let panel_of = |dough: Uuid| {
            let own = earlier.iter().filter(|sheet| sheet.loaf.0 == dough);
            together(&own.cloned().collect::<Vec<_>>())
        };
        let batches = doughs.into_iter().filter_map(panel_of).collect();
        Self { batches, loaf_sd: coefficients.value(&LOAF_SD) }
    }

    /// `σ_B² = max(0, s² of batch means − (σ_L² + σ_J²)/n)` with its degrees of freedom.
    fn scatter(&self, figure: Figure) -> Option<(f64, f64)> {
        let seen: Vec<(f64, f64)> = self
            .batches
            .iter()
            .filter_map(|batch| {
                let loaf = figure.between_loaves(batch, self.loaf_sd);
                let within = loaf.powi(2) + figure.judging(batch)?.powi(2);
                Some((figure.value(batch)?, within / batch.loaves as f64))
            })
            .collect();
        if seen.len() < LEAST_BATCHES {
            return None;
        }
        let free = seen.len() as f64 - 1.0;
        let between = seen.iter().map(|one| one.0).variance();
        let within = seen.iter().map(|one| one.1).mean();
        Some(((between - within).max(0.0).sqrt(), free))
    }
}

fn difference(
    variant: usize,
    bakes: &[(Panel, Panel)],
    between: &Between,
) -> Option<VariantDifference> {
    let loaves = bakes.iter().map(|(was, is)| was.loaves.min(is.loaves)).min()?;
    let tested = |figure| Tested::of(figure, bakes, loaves, between);
    let marks = Characteristic::ALL.into_iter();
    let mut marks: Vec<(Characteristic, Tested)> =
        marks.filter_map(|of| Some((of, tested(Figure::Mark(of))?))).collect();
    marks.sort_by(|one, other| one.1.p().total_cmp(&other.1.p()));
    let count = marks.len();
    let mut real = true;
    let traits = marks.into_iter().enumerate().map(|(at, (of, one))| {
        let p = one.p();
        real &= p <= CHANCE / (count - at) as f64;
        TraitDifference {
            of,
            difference: one.difference,
            p,
            says: verdict(real, one.is_of_variants()),
        }
    });
    Some(VariantDifference {
        variant,
        bakes: bakes.len(),
        loaves,
        traits: traits.collect(),
        total: tested(Figure::Total).map(|one| one.said()),
    })
}

/// A difference with what it scatters by.
struct Tested {
    difference: f64,
    by: ScatterOf,
}

enum ScatterOf {
    /// Differences of bakes: their σ and how many there are.
    Bakes { sd: f64, bakes: u32 },
    /// One bake: what is known of doughs, loaves and judges, and the degrees of freedom behind it.
    Loaves { scatter: Scatter, free: Option<f64> },
}

impl Tested {
    fn of(
        figure: Figure,
        bakes: &[(Panel, Panel)],
        loaves: usize,
        between: &Between,
    ) -> Option<Self> {
        let apart = bakes.iter();
        let apart: Vec<f64> =
            apart.filter_map(|(was, is)| Some(figure.value(is)? - figure.value(was)?)).collect();
        let (was, is) = bakes.first()?;
        if apart.is_empty() {
            return None;
        }
        let (difference, scatter) = ((&apart).mean(), (&apart).std_dev());
        if apart.len() > 1 && scatter > 0.0 {
            let by = ScatterOf::Bakes { sd: scatter, bakes: apart.len() as u32 };
            return Some(Self { difference, by });
        }
        let known = between.scatter(figure);
        let squares = [was, is].map(|one| figure.judging(one).map(|sd| sd.powi(2)));
        let judging = f64::midpoint(squares[0]?, squares[1]?);
        let scatter = Scatter {
            batches: apart.len() as f64,
            loaves: loaves as f64,
            sd_loaf: figure.between_loaves(is, between.loaf_sd),
            sd_judge: judging.sqrt(),
            sd_batch: known.map(|(sd, _)| sd),
        };
        Some(Self {
            difference,
            by: ScatterOf::Loaves { scatter, free: known.map(|(_, free)| free) },
        })
    }

    /// σ of the difference.
    fn sd(&self) -> f64 {
        match &self.by {
            ScatterOf::Bakes { sd, bakes } => sd / f64::from(*bakes).sqrt(),
            ScatterOf::Loaves { scatter, .. } => scatter.of_difference(),
        }
    }

    fn free(&self) -> Option<f64> {
        match self.by {
            ScatterOf::Bakes { bakes, .. } => Some(f64::from(bakes) - 1.0),
            ScatterOf::Loaves { free, .. } => free,
        }
    }

    fn is_of_variants(&self) -> bool {
        self.free().is_some()
    }

    fn p(&self) -> f64 {
        2.0 * beyond(self.difference.abs() / self.sd(), self.free())
    }

    fn said(&self) -> TestedDifference {
        let limit = quantile(self.free()) * self.sd();
        let seen = |limit: f64| self.difference.abs() > limit;
        let least = |limit_of: &dyn Fn(f64) -> Option<f64>| {
            (1..=MOST).find(|count| limit_of(f64::from(*count)).is_some_and(&seen))
        };
        let (loaves_needed, bakes_needed) = match &self.by {
            ScatterOf::Bakes { sd, .. } => (
                None,
                least(&|bakes| {
                    (bakes > 1.0).then(|| quantile(Some(bakes - 1.0)) * sd / bakes.sqrt())
                }),
            ),
            ScatterOf::Loaves { scatter, free } => {
                let of = |scatter: Scatter| Some(quantile(*free) * scatter.of_difference());
                (
                    least(&|loaves| of(Scatter { loaves, ..*scatter })),
                    least(&|batches| of(Scatter { batches, ..*scatter })),
                )
            }
        };
        let says = verdict(seen(limit), self.is_of_variants());
        TestedDifference { difference: self.difference, limit, says, loaves_needed, bakes_needed }
    }
}

/// Beyond it lies one in forty of Student's t, of a normal distribution where nothing is estimated.
fn quantile(free: Option<f64>) -> f64 {
    let up_to = 1.0 - CHANCE / 2.0;
    match students(free) {
        Some(of) => of.inverse_cdf(up_to),
        None => Normal::standard().inverse_cdf(up_to),
    }
}

/// How much of it lies beyond.
fn beyond(x: f64, free: Option<f64>) -> f64 {
    students(free).map_or_else(|| Normal::standard().sf(x), |of| of.sf(x))
}

fn students(free: Option<f64>) -> Option<StudentsT> {
    StudentsT::new(0.0, 1.0, free?).ok()
}
