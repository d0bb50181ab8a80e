//! What a batch's logger and its two judges would have said.

use chrono::{DateTime, TimeDelta, Utc};
use image::ExtendedColorType;
use image::codecs::jpeg::JpegEncoder;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::judging::{
    Characteristic, PhotographView, ProductStandard, ScoreMark, ScoredMark, Sheet, Sign, panel,
};
use ironpeel_instruments::{CutLoaf, Noise, draw_cut_loaf};
use ironpeel_store::{
    BatchSeen, NewBakeTrace, NewSample, NewScore, Photograph, SamplePhotograph, Word,
};
use uuid::Uuid;

use super::simulated::Story;
use super::truths::{JUDGES, Truth, judge_level};
use crate::judging::{EARLIER_SHEETS, seen_by_judges, taken};
use crate::oven::{Logged, logged};
use crate::planned_batch::PlannedBatch;

/// A sheet says so much less than the loaf is off, 1 σ of a judge's hand.
const HAND: f64 = 0.35;
/// One sheet after the other.
const MINUTES_A_SHEET: TimeDelta = TimeDelta::minutes(1);
/// How far below the best a usual loaf lies, and how much loaves scatter.
const USUAL: (f64, f64) = (0.5, 0.3);

/// A batch that is over, as logger and judges saw it.
#[derive(Debug, Default)]
pub struct Seen {
    pub trace: Option<NewBakeTrace>,
    pub samples: Vec<NewSample>,
    pub scores: Vec<NewScore>,
    pub photographs: Vec<(SamplePhotograph, Photograph)>,
    pub figures: BatchSeen,
}

impl Seen {
    /// As judges are put together.
    fn sheets(&self) -> Vec<Sheet> {
        let scores = self.scores.iter();
        let sheets = scores.filter_map(|score| {
            let sample = self.samples.iter().find(|sample| sample.id == score.sample_id)?;
            Some(Sheet {
                judge: score.judge.clone(),
                loaf: (sample.batch_id.unwrap_or_default(), sample.loaf),
                sample: sample.id,
                marks: score.marks.iter().map(|given| given.mark).collect(),
            })
        });
        sheets.collect()
    }
}

/// What is known of a batch that is over.
pub struct Over<'a> {
    pub batch: &'a PlannedBatch,
    pub product_id: Uuid,
    pub truth: Truth,
    pub story: Story,
    pub ended_at: DateTime<Utc>,
    pub seed: u64,
    /// Whether its cut faces were photographed.
    pub photographed: bool,
}

impl Over<'_> {
    /// Sends the logger with every other bake, and a third of the batches to the judges.
    pub fn seen(&self, earlier: &mut Vec<Sheet>, coefficients: &Coefficients) -> Seen {
        let mut noise = Noise::seeded(self.seed);
        let mut found = Seen::default();
        if self.seed.is_multiple_of(2) || self.story.smearing_pct > 0.0 {
            found.trace = self.bake(&mut noise, coefficients);
        }
        let arrival_pct = found.trace.as_ref().and_then(|trace| trace.arrival_pct);
        found.figures.arrival_pct = arrival_pct;
        if (self.seed / 2).is_multiple_of(3) || self.story.smearing_pct > 0.0 {
            self.judge(&mut noise, &mut found);
            let sheets = found.sheets();
            let from = earlier.len().saturating_sub(EARLIER_SHEETS.into());
            let standard = ProductStandard::default();
            let panel = panel(&sheets, &earlier[from..], &standard, coefficients);
            found.figures = seen_by_judges(panel.as_ref(), found.figures);
            earlier.extend(sheets);
        }
        found
    }

    fn bake(&self, noise: &mut Noise, coefficients: &Coefficients) -> Option<NewBakeTrace> {
        let bake_min = self.batch.bake()?.minutes;
        // A dough that holds too much water sets late.
        let wet = if self.story.smearing_pct > 0.0 { 7.0 } else { 0.0 };
        let bake = Logged {
            bake_min: bake_min * (1.0 + noise.of(0.01)),
            arrival_pct: (self.truth.arrival_pct + wet + noise.of(1.4)).min(97.0),
            seed: self.seed,
            by: "oven logger".into(),
        };
        let id = Uuid::new_v5(&self.batch.id, b"bake trace");
        let mut new = logged(id, self.batch, bake, coefficients).ok()?;
        new.trace.made_at = self.ended_at;
        Some(new)
    }

    fn judge(&self, noise: &mut Noise, found: &mut Seen) {
        let made_at = self.ended_at + TimeDelta::hours(18);
        let mut sample = |place: u32, loaf: i16| {
            let drawn = Uuid::new_v5(&self.batch.id, &place.to_be_bytes());
            found.samples.push(NewSample {
                id: drawn,
                product_id: self.product_id,
                batch_id: Some(self.batch.id),
                bench_dough_id: None,
                loaf,
                code: (100 + drawn.as_u128() % 900).to_string(),
                made_by: JUDGES[0].into(),
                made_at,
            });
        };
        sample(1, 1);
        sample(2, 2);
        // Now and then one is met again.
        if (self.seed / 6).is_multiple_of(4) {
            sample(3, 1);
        }
        let loaves: Vec<_> = (0..2).map(|_| self.loaf(noise)).collect();
        for sample in &found.samples {
            let loaf = &loaves[usize::from(sample.loaf == 2)];
            if self.photographed {
                found.photographs.extend(self.photograph(sample, loaf));
            }
            for judge in JUDGES {
                let level = judge_level(super::SEED, judge);
                let marks = loaf.iter().map(|(of, off)| marked(*of, *off, level + noise.of(HAND)));
                found.scores.push(NewScore {
                    id: Uuid::new_v5(&sample.id, judge.as_bytes()),
                    sample_id: sample.id,
                    round: 1,
                    judge: judge.into(),
                    person_id: None,
                    note: String::new(),
                    scored_at: made_at
                        + MINUTES_A_SHEET * i32::try_from(found.scores.len()).unwrap_or(i32::MAX),
                    marks: marks.collect(),
                });
            }
        }
    }

    /// A loaf's cut face as the stand-in draws it: met again, it is the same.
    fn photograph(
        &self,
        sample: &NewSample,
        loaf: &[(Characteristic, f64)],
    ) -> Option<(SamplePhotograph, Photograph)> {
        let off = |wanted| loaf.iter().find(|(of, _)| *of == wanted).map_or(0.0, |(_, off)| *off);
        let cut = CutLoaf {
            height: 1.0 + 0.07 * off(Characteristic::Volume),
            cell_mm: self.truth.cell_mm * (0.35 * off(Characteristic::Openness)).exp(),
            scatter: 0.45 + 0.12 * off(Characteristic::Evenness).abs(),
            dark: self.truth.dark + 0.06 * off(Characteristic::CrumbColour),
            crust: 0.55 + 0.2 * off(Characteristic::CrustColour),
            streak_mm: 4.0 * (off(Characteristic::Stickiness) - 0.6).max(0.0),
        };
        let picture = draw_cut_loaf(&cut, self.seed ^ sample.loaf as u64);
        let mut content = Vec::new();
        JpegEncoder::new_with_quality(&mut content, 85)
            .encode(&picture.rgb, picture.width, picture.height, ExtendedColorType::Rgb8)
            .ok()?;
        let taken = taken(content).ok()?;
        let of = SamplePhotograph {
            id: Uuid::new_v5(&sample.id, b"cut face"),
            sample_id: sample.id,
            hash: taken.hash.clone(),
            shows: Word(PhotographView::CutFace),
            taken_by: JUDGES[0].into(),
            taken_at: sample.made_at,
        };
        Some((of, taken))
    }

    /// How far a loaf is off in each characteristic, below nothing where there is too little.
    fn loaf(&self, noise: &mut Noise) -> Vec<(Characteristic, f64)> {
        let Story { smearing_pct, warm_c, proof, .. } = self.story;
        let (smears, warm, cold_proof) = (smearing_pct > 0.0, warm_c > 0.0, proof > 1.0);
        let story = |of| match of {
            Characteristic::Stickiness if smears => 2.2,
            Characteristic::Texture | Characteristic::Slicing if smears => 1.4,
            Characteristic::CrustColour if smears => 1.2,
            Characteristic::Volume if smears => -1.0,
            Characteristic::Openness if warm => 1.0,
            Characteristic::Volume if cold_proof => -0.4,
            _ => 0.0,
        };
        let (usual, scatter) = USUAL;
        let all = Characteristic::ALL.into_iter();
        all.map(|of| (of, story(of) - usual + noise.of(scatter))).collect()
    }
}

/// A mark in halves of a trait that is so far off, by a judge who marks so much too high.
fn marked(of: Characteristic, off: f64, high: f64) -> ScoredMark {
    let mark = (2.0 * (5.0 - off.abs() + high)).round() / 2.0;
    let mark = mark.clamp(1.0, 5.0);
    let sign = (of.is_two_sided() && mark < 5.0).then_some(if off < 0.0 {
        Sign::TooLittle
    } else {
        Sign::TooMuch
    });
    ScoredMark { mark: ScoreMark { of, mark, sign }, measured: None }
}
