//! One batch as it would be run: what its stages, scales, thermometers and people say.

use chrono::{DateTime, TimeDelta, Utc};
use ironpeel_core::batch::{EventKind, PlannedLine, StagePlan};
use ironpeel_core::method::{StageKind, StageRole};
use ironpeel_instruments::Noise;
use ironpeel_store::{EventAuthor, NewBatchEvent};
use serde_json::{Value, json};
use sha2::{Digest, Sha256};
use uuid::Uuid;

use super::truths::Truth;
use crate::planned_batch::PlannedBatch;

/// What is out of the ordinary.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Story {
    /// Dough warmer than planned, °C.
    pub warm_c: f64,
    /// Water added by feel beyond what the flour takes, points.
    pub by_feel_pts: f64,
    /// Proof longer than planned, as a factor.
    pub proof: f64,
    /// Rest longer than planned, as a factor.
    pub rest: f64,
    /// Pieces rejected for smearing, %.
    pub smearing_pct: f64,
    /// The line stops in the sponge for so long, min; then it is scrapped.
    pub lost_after_stop_min: Option<f64>,
    /// The line stops in the proof and stands for hours.
    pub held_in_proof: bool,
}

/// How long a line stands that stopped, min.
const HELD_MIN: f64 = 240.0;

/// A batch to be run.
pub struct Simulation<'a> {
    pub batch: &'a PlannedBatch,
    pub truth: Truth,
    pub story: Story,
    pub start: DateTime<Utc>,
    /// What would happen later has not happened yet.
    pub until: DateTime<Utc>,
    pub author: &'a EventAuthor,
    pub flour_c: f64,
    pub room_c: f64,
    pub seed: u64,
}

/// Writes the events down as they come.
struct Log<'a> {
    batch: Uuid,
    author: &'a EventAuthor,
    until: DateTime<Utc>,
    events: Vec<NewBatchEvent>,
    /// How many were written, whether or not they came in time.
    number: u32,
}

impl Log<'_> {
    fn write(&mut self, at: DateTime<Utc>, kind: EventKind, said: Value) -> Uuid {
        let id = Uuid::new_v5(&self.batch, &self.number.to_be_bytes());
        // Two at one moment stand in the order they were written.
        let at = at + TimeDelta::milliseconds(self.number.into());
        self.number += 1;
        if at > self.until {
            return id;
        }
        let mut body = json!({"id": id, "kind": kind, "happened_at": at});
        if let (Value::Object(body), Value::Object(said)) = (&mut body, said) {
            body.extend(said);
        }
        let stage_id = body["stage"].as_str().and_then(|stage| stage.parse().ok());
        let corrects = body["corrects"].as_str().and_then(|id| id.parse().ok());
        let body_hash = Sha256::digest(body.to_string()).to_vec();
        self.events.push(NewBatchEvent {
            id,
            kind,
            stage_id,
            happened_at: at,
            claimed_at: None,
            author: self.author.clone(),
            corrects,
            body,
            body_hash,
        });
        id
    }
}

fn after(at: DateTime<Utc>, minutes: f64) -> DateTime<Utc> {
    at + TimeDelta::seconds((minutes * 60.0).round() as i64)
}

fn tenth(value: f64) -> f64 {
    (value * 10.0).round() / 10.0
}

impl Simulation<'_> {
    /// What happened, in order.
    pub fn run(&self) -> Vec<NewBatchEvent> {
        let mut noise = Noise::seeded(self.seed);
        let mut log = Log {
            batch: self.batch.id,
            author: self.author,
            until: self.until,
            events: Vec::new(),
            number: 0,
        };
        log.write(self.start, EventKind::Start, json!({}));
        self.temperatures(&mut log, &mut noise);
        let mut at = self.start;
        let last_mix = self.batch.plan.stages.iter().rposition(|one| one.role == StageRole::Mixing);
        for (number, stage) in self.batch.plan.stages.iter().enumerate() {
            self.weigh(&mut log, &mut noise, at, Some(stage.stage));
            if let Some(minutes) = self.story.lost_after_stop_min
                && stage.role == StageRole::Sponge
            {
                self.lose(&mut log, after(at, stage.minutes * 0.9), minutes);
                return log.events;
            }
            let lasts = stage.minutes * self.factor(stage, &mut noise);
            self.watch(&mut log, &mut noise, stage, at, lasts);
            if self.story.held_in_proof && stage.role == StageRole::Proof {
                let held = json!({"reason": "the divider stopped", "stage": stage.stage});
                let stops = after(at, lasts * 0.3);
                log.write(stops, EventKind::Hold, held);
                at = after(at, HELD_MIN);
                log.write(after(stops, HELD_MIN), EventKind::Resume, json!({}));
            }
            at = after(at, lasts);
            let ended_by = ironpeel_core::batch::EndedBy::from(stage.end_point);
            let ended = json!({"stage": stage.stage, "ended_by": ended_by});
            log.write(at, EventKind::StageEnd, ended);
            if Some(number) == last_mix {
                self.after_mixing(&mut log, &mut noise, stage, at);
            }
        }
        self.finish(&mut log, &mut noise, after(at, 6.0));
        log.events
    }

    fn factor(&self, stage: &StagePlan, noise: &mut Noise) -> f64 {
        let story = match stage.role {
            StageRole::Proof if self.story.proof > 0.0 => self.story.proof,
            StageRole::Floor | StageRole::Sponge | StageRole::Folds if self.story.rest > 0.0 => {
                self.story.rest
            }
            _ => 1.0,
        };
        let sd = if stage.kind == StageKind::Mix { 0.05 } else { 0.03 };
        (story * (1.0 + noise.of(sd))).max(0.3)
    }

    fn temperatures(&self, log: &mut Log<'_>, noise: &mut Noise) {
        let water_c = self
            .batch
            .plan
            .lines
            .iter()
            .find(|line| line.is_water && !line.is_ice && line.part.is_none());
        let water_c = water_c.and_then(|line| line.temperature_c).unwrap_or(12.0);
        let mut read = |quantity: &str, value: f64| {
            // One in twelve is forgotten.
            if noise.of(1.0) < 1.38 {
                let value = tenth(value + noise.of(0.3));
                let said = json!({"quantity": quantity, "value": value});
                log.write(self.start, EventKind::Reading, said);
            }
        };
        read("flour_c", self.flour_c);
        read("room_c", self.room_c);
        read("water_c", water_c.max(1.0));
    }

    fn weigh(&self, log: &mut Log<'_>, noise: &mut Noise, at: DateTime<Utc>, stage: Option<Uuid>) {
        let first = self.batch.plan.stages.first().map(|one| one.stage);
        let here =
            |line: &&PlannedLine| line.stage == stage || line.stage.is_none() && stage == first;
        for line in self.batch.plan.lines.iter().filter(here) {
            let division = line.division_kg.max(0.0001);
            let kg = ((line.kg + noise.of(division)) / division).round() * division;
            let kg = (kg.max(0.0) * 10_000.0).round() / 10_000.0;
            let mut said = json!({"quantity": "mass_kg", "of": line.of, "value": kg});
            if let Some(stage) = line.stage {
                said["stage"] = json!(stage);
            }
            log.write(at, EventKind::Reading, said);
        }
    }

    /// Readings while a stage lasts.
    fn watch(
        &self,
        log: &mut Log<'_>,
        noise: &mut Noise,
        stage: &StagePlan,
        at: DateTime<Utc>,
        lasts: f64,
    ) {
        match stage.role {
            StageRole::Sponge => {
                let end = tenth(29.6 + noise.of(0.5));
                let said = json!({"quantity": "sponge_c", "value": end, "stage": stage.stage});
                log.write(after(at, lasts * 0.97), EventKind::Reading, said);
            }
            StageRole::Floor | StageRole::Folds if lasts > 60.0 => {
                let whole = stage.ends_at.unwrap_or(60.0);
                let bulk = self.batch.plan.stages.iter();
                let bulk: Vec<_> = bulk
                    .filter(|one| matches!(one.role, StageRole::Floor | StageRole::Folds))
                    .collect();
                let (Some(first), Some(last)) = (bulk.first(), bulk.last()) else { return };
                let all = last.at_min + last.minutes - first.at_min;
                for share in [0.3, 0.55, 0.8] {
                    let so_far = (stage.at_min - first.at_min + share * stage.minutes) / all;
                    let rise = (whole * so_far.powi(2) + noise.of(2.0)).max(0.0).round();
                    let said =
                        json!({"quantity": "jar_rise_pct", "value": rise, "stage": stage.stage});
                    log.write(after(at, lasts * share), EventKind::Reading, said);
                }
            }
            StageRole::Bake => {
                let core = tenth(95.5 + noise.of(0.8));
                let said = json!({"quantity": "core_c", "value": core, "stage": stage.stage});
                log.write(after(at, lasts * 0.98), EventKind::Reading, said);
            }
            _ => {}
        }
    }

    /// The dough off the mixer: how warm, how it feels, and the water added for it.
    fn after_mixing(
        &self,
        log: &mut Log<'_>,
        noise: &mut Noise,
        stage: &StagePlan,
        at: DateTime<Utc>,
    ) {
        let figures = &self.batch.plan.figures;
        let dough_c = tenth(figures.target_c + self.story.warm_c + noise.of(0.5));
        // One in twenty is a slip of the hand, put right when it is seen.
        let slip = noise.of(1.0) > 1.65;
        let typed = if slip { tenth(dough_c - 10.0) } else { dough_c };
        let said = json!({"quantity": "dough_c", "value": typed, "stage": stage.stage});
        let read = log.write(at, EventKind::Reading, said);
        if slip {
            let right = json!({"corrects": read, "value": dough_c});
            log.write(after(at, 3.0), EventKind::Correct, right);
        }
        let wants = self.truth.water_pts + noise.of(0.35) - figures.standing_correction_pts;
        // What the hand feels it adds, by the half litre; what is left it judges.
        let felt = if wants > 0.3 { (wants * 20.0).round() / 20.0 } else { 0.0 };
        let by_feel = self.story.by_feel_pts + felt;
        if by_feel > 0.0 && figures.flour_kg > 0.0 {
            let kg = (by_feel * figures.flour_kg).round() / 100.0;
            let said = json!({"ingredient": "water", "kg": kg, "reason": "feel"});
            log.write(after(at, -2.0), EventKind::Addition, said);
        }
        let feels = ((wants - felt) / 0.8 + noise.of(0.4)).round().clamp(-2.0, 2.0);
        // A dough that was put right is not always judged.
        if felt == 0.0 || noise.of(1.0) < 0.67 {
            log.write(after(at, 1.0), EventKind::Consistency, json!({"value": feels}));
        }
    }

    fn lose(&self, log: &mut Log<'_>, at: DateTime<Utc>, minutes: f64) {
        let held = json!({"reason": format!("{} stopped", self.batch.line)});
        log.write(at, EventKind::Hold, held);
        let lost = json!({"reason": "the sponge had fallen when the line went on"});
        log.write(after(at, minutes), EventKind::Scrap, lost);
    }

    fn finish(&self, log: &mut Log<'_>, noise: &mut Noise, at: DateTime<Utc>) {
        let figures = &self.batch.plan.figures;
        let pieces = figures.pieces.round();
        let spoilt = (pieces * (0.006 + noise.of(0.003).abs())).round();
        let smeared = (pieces * self.story.smearing_pct / 100.0).round();
        let rejected = spoilt + smeared;
        let loss_pct = figures.bake_loss_pct + self.truth.loss_pts + noise.of(0.35);
        let kg = pieces * figures.piece_kg * (1.0 - loss_pct / 100.0);
        let mut reasons = vec![json!({"reason": "shape", "pieces": spoilt})];
        if smeared > 0.0 {
            reasons.push(json!({"reason": "smears at the slicer", "pieces": smeared}));
        }
        let said = json!({
            "pieces_good": pieces - rejected,
            "pieces_rejected": rejected,
            "mass_kg": (kg * 100.0).round() / 100.0,
            "reasons": reasons,
        });
        log.write(at, EventKind::Finish, said);
    }
}
