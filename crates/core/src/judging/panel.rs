//! Several judges' sheets of one batch, put together.

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use uuid::Uuid;

use super::coefficients::CRUMB_FLOOR;
use super::judges::{LAST, by_precision, level, repeatability};
use super::{
    Characteristic, JudgeLevel, MARKS, NINETEEN_IN_TWENTY, ProductStandard, ScoreMark, ScoreTotal,
    Sign, total,
};
use crate::coefficient::Coefficients;
use crate::units::Estimate;

/// A judge's marks of one loaf.
#[derive(Debug, Clone, PartialEq)]
pub struct Sheet {
    pub judge: String,
    /// The batch and its loaf, whatever codes it was met under.
    pub loaf: (Uuid, i16),
    /// The coded sample.
    pub sample: Uuid,
    pub marks: Vec<ScoreMark>,
}

/// What the judges of a batch say together.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Panel {
    pub traits: Vec<PanelTrait>,
    pub total: ScoreTotal,
    /// How far judging alone scatters the total, 1 σ, points; none where there is no total.
    pub total_sd: Option<f64>,
    pub judges: Vec<PanelJudge>,
    /// Loaves that were judged.
    pub loaves: usize,
    /// Of the traits of the crumb, by weight; none where none is marked.
    pub crumb_mark: Option<f64>,
    /// Whether it is below what the plant learns from.
    pub crumb_is_low: bool,
}

/// A characteristic as the judges mark it together.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PanelTrait {
    pub of: Characteristic,
    pub weight: f64,
    pub mark: f64,
    pub sign: Option<Sign>,
    /// Of judging, 1 σ.
    pub sd: f64,
    /// Between these nine times in ten, as far as the scale goes.
    pub low: f64,
    pub high: f64,
    /// Where they do not, both look once more, blind.
    pub agree: bool,
    /// Each judge's, the mean over the loaves.
    pub marks: Vec<PanelMark>,
}

/// One judge's mark of a characteristic.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PanelMark {
    pub judge: String,
    pub mark: f64,
    /// With the judge's level taken off.
    pub levelled: f64,
}

/// A judge, over all characteristics.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PanelJudge {
    pub judge: String,
    /// The mean of the levels by characteristic.
    pub level: f64,
    /// Repeatability, the root of the mean square by characteristic.
    pub sd: f64,
    pub total: ScoreTotal,
}

const CRUMB: [Characteristic; 5] = [
    Characteristic::Openness,
    Characteristic::Evenness,
    Characteristic::CrumbColour,
    Characteristic::Texture,
    Characteristic::Stickiness,
];

/// Puts the sheets of one batch together: each mark with the judge's level taken off,
/// `m = Σ m'/σ² / Σ 1/σ²`, the mean over the loaves; a trait's judges disagree beyond
/// `1.96·√(σ₁² + σ₂²)`, sides counted. Levels and repeatability are of earlier sheets of the product,
/// newest last. None where nobody judged.
///
/// ```
/// use ironpeel_core::coefficient::Coefficients;
/// use ironpeel_core::judging::{Characteristic, ProductStandard, ScoreMark, Sheet, panel};
/// use uuid::Uuid;
/// let sheet = |judge: &str, mark| Sheet { judge: judge.into(), loaf: (Uuid::nil(), 1), sample: Uuid::nil(),
///     marks: Characteristic::ALL.map(|of| ScoreMark { of, mark, sign: None }).to_vec() };
/// let house = Coefficients::default();
/// let found = panel(&[sheet("one", 4.0), sheet("two", 3.0)], &[], &ProductStandard::default(), &house);
/// let found = found.unwrap();
/// assert_eq!(found.total.total, Some(62.5));
/// assert!(found.traits.iter().all(|one| one.mark == 3.5 && one.agree));
/// ```
pub fn panel(
    sheets: &[Sheet],
    earlier: &[Sheet],
    standard: &ProductStandard,
    coefficients: &Coefficients,
) -> Option<Panel> {
    let names: BTreeSet<&str> = sheets.iter().map(|sheet| &*sheet.judge).collect();
    if names.is_empty() {
        return None;
    }
    let weight = |of| standard.weight(of, coefficients);
    let mut levels: BTreeMap<&str, Vec<JudgeLevel>> = BTreeMap::new();
    let mut traits = Vec::new();
    for of in Characteristic::ALL {
        let past = Past::of(earlier, of);
        let mut marks = Vec::new();
        for name in &names {
            let own = marks_of(sheets, name, of);
            let Some(mean) = mean(own.iter().map(|mark| mark.mark)) else { continue };
            let judge = past.judge(name, coefficients);
            levels.entry(name).or_default().push(judge);
            let side = own.iter().filter_map(ScoreMark::signed).sum::<f64>();
            marks.push(Marked { name, mean, side, looks: own.len(), judge });
        }
        traits.extend(joint(of, weight(of), &marks));
    }
    let joint: Vec<ScoreMark> = traits.iter().map(PanelTrait::score_mark).collect();
    let total_of = |marks: &[ScoreMark]| total(marks, weight, coefficients);
    let total = total_of(&joint);
    let spread: f64 = traits.iter().map(|one| (one.weight * one.sd).powi(2)).sum();
    let all: f64 = traits.iter().map(|one| one.weight).sum();
    let crumb = traits.iter().filter(|one| CRUMB.contains(&one.of) && one.weight > 0.0);
    let (sum, weights) = crumb.fold((0.0, 0.0), |(sum, weights), one| {
        (sum + one.weight * one.mark, weights + one.weight)
    });
    let crumb_mark = (weights > 0.0).then(|| sum / weights);
    let loaves: BTreeSet<(Uuid, i16)> = sheets.iter().map(|sheet| sheet.loaf).collect();
    Some(Panel {
        total_sd: total.total.map(|_| 100.0 * spread.sqrt() / (MARKS.1 - MARKS.0) / all),
        total,
        judges: names
            .into_iter()
            .map(|name| {
                let own: Vec<ScoreMark> = Characteristic::ALL
                    .into_iter()
                    .filter_map(|of| {
                        let marks = marks_of(sheets, name, of);
                        let mark = mean(marks.iter().map(|mark| mark.mark))?;
                        Some(ScoreMark { of, mark, sign: None })
                    })
                    .collect();
                let levels = levels.remove(name).unwrap_or_default();
                PanelJudge {
                    judge: name.into(),
                    level: mean(levels.iter().map(|one| one.level)).unwrap_or_default(),
                    sd: mean(levels.iter().map(|one| one.sd.powi(2))).unwrap_or_default().sqrt(),
                    total: total_of(&own),
                }
            })
            .collect(),
        loaves: loaves.len(),
        crumb_mark,
        crumb_is_low: crumb_mark.is_some_and(|mark| mark < coefficients.value(&CRUMB_FLOOR)),
        traits,
    })
}

impl PanelTrait {
    /// As the fault finder and the total take it.
    pub const fn score_mark(&self) -> ScoreMark {
        ScoreMark { of: self.of, mark: self.mark, sign: self.sign }
    }
}

/// One judge's marks of a characteristic of this batch.
struct Marked<'a> {
    name: &'a str,
    mean: f64,
    /// Below nothing where there is too little.
    side: f64,
    /// Loaves and rounds.
    looks: usize,
    judge: JudgeLevel,
}

fn joint(of: Characteristic, weight: f64, marks: &[Marked<'_>]) -> Option<PanelTrait> {
    if marks.is_empty() {
        return None;
    }
    let looked = |one: &Marked<'_>| (one.levelled(), one.judge.sd / (one.looks as f64).sqrt());
    let (mark, sd) = by_precision(marks.iter().map(looked));
    let on_scale = |mark: f64| mark.clamp(MARKS.0, MARKS.1);
    let Estimate { low, high, .. } = Estimate::nine_tenths(mark, sd);
    let mark = on_scale(mark);
    let side: f64 = marks.iter().map(|one| one.side).sum();
    Some(PanelTrait {
        of,
        weight,
        mark,
        sign: match side {
            _ if !of.is_two_sided() || mark >= MARKS.1 => None,
            side if side < 0.0 => Some(Sign::TooLittle),
            side if side > 0.0 => Some(Sign::TooMuch),
            _ => None,
        },
        sd,
        low: on_scale(low),
        high: on_scale(high),
        agree: marks.iter().enumerate().all(|(at, one)| {
            marks[at + 1..].iter().all(|other| {
                let limit = NINETEEN_IN_TWENTY * one.judge.sd.hypot(other.judge.sd);
                one.apart_from(other) <= limit
            })
        }),
        marks: marks
            .iter()
            .map(|one| PanelMark {
                judge: one.name.into(),
                mark: one.mean,
                levelled: one.levelled(),
            })
            .collect(),
    })
}

impl Marked<'_> {
    fn levelled(&self) -> f64 {
        self.mean - self.judge.level
    }

    /// Marks on two sides of the standard lie apart by both ways to it.
    fn apart_from(&self, other: &Self) -> f64 {
        if self.side * other.side < 0.0 {
            (MARKS.1 - self.levelled()) + (MARKS.1 - other.levelled())
        } else {
            (self.levelled() - other.levelled()).abs()
        }
    }
}

/// Earlier marks of one characteristic, newest first.
struct Past<'a> {
    marks: Vec<(&'a Sheet, f64)>,
    /// Each sample's marks together.
    samples: BTreeMap<Uuid, Vec<f64>>,
}

impl<'a> Past<'a> {
    fn of(earlier: &'a [Sheet], of: Characteristic) -> Self {
        let newest_first = earlier.iter().rev();
        let marks: Vec<_> =
            newest_first.filter_map(|sheet| Some((sheet, mark_of(sheet, of)?))).collect();
        let mut samples: BTreeMap<Uuid, Vec<f64>> = BTreeMap::new();
        for (sheet, mark) in &marks {
            samples.entry(sheet.sample).or_default().push(*mark);
        }
        Self { marks, samples }
    }

    /// How a judge marks it.
    fn judge(&self, name: &str, coefficients: &Coefficients) -> JudgeLevel {
        let mut above = Vec::new();
        let mut repeats = Vec::new();
        let mut met: BTreeMap<(Uuid, i16), (Uuid, f64)> = BTreeMap::new();
        for (sheet, own) in self.marks.iter().filter(|(sheet, _)| sheet.judge == name) {
            let all = &self.samples[&sheet.sample];
            if all.len() > 1 && above.len() < LAST {
                above.extend(mean(all.iter().copied()).map(|mean| own - mean));
            }
            // A loaf met again under another code.
            match met.get(&sheet.loaf) {
                Some((sample, other)) if *sample != sheet.sample => repeats.push(own - other),
                Some(_) => {}
                None => {
                    met.insert(sheet.loaf, (sheet.sample, *own));
                }
            }
        }
        JudgeLevel {
            level: level(above.into_iter(), coefficients),
            sd: repeatability(&repeats, coefficients),
        }
    }
}

fn mark_of(sheet: &Sheet, of: Characteristic) -> Option<f64> {
    sheet.marks.iter().find(|mark| mark.of == of).map(|mark| mark.mark)
}

fn marks_of(sheets: &[Sheet], name: &str, of: Characteristic) -> Vec<ScoreMark> {
    let own = sheets.iter().filter(|sheet| sheet.judge == name);
    own.flat_map(|sheet| sheet.marks.iter().filter(|mark| mark.of == of).copied()).collect()
}

fn mean(of: impl Iterator<Item = f64>) -> Option<f64> {
    let (sum, count) = of.fold((0.0, 0.0), |(sum, count), one| (sum + one, count + 1.0));
    (count > 0.0).then(|| sum / count)
}
