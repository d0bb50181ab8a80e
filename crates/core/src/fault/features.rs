//! What of a batch is evidence: a pure function of its record, each figure for itself.

use std::collections::BTreeMap;

use super::PlanEvidence;
use super::coefficients::{TRAP_ARMED, TRAP_LATE_WATER, TRAP_OVER_PLAN};
use crate::batch::{
    AFTER_A_STAGE, Added, BatchPlan, BatchRecord, BatchReport, EndedBy, EventKind, PlanDifference,
    Quantity, StagePlan, StageTimes, minutes,
};
use crate::coefficient::Coefficients;
use crate::flour::{MoistureBasis, Property, Readings};
use crate::judging::{Characteristic, ScoreMark};
use crate::method::{EndFigure, StageKind, StageRole};
use crate::units::{MIN_PER_H, RawNumber};
use crate::water::coefficients::CRITICAL_DAMAGED_STARCH;

/// A flour as a batch's evidence takes it: its lot, and the lot that came before.
#[derive(Debug, Clone, Copy)]
pub struct FlourEvidence<'a> {
    pub readings: &'a Readings,
    pub before: Option<&'a Readings>,
    /// From milling to mixing.
    pub age_days: Option<f64>,
}

/// What a batch's bake trace and its judges say, where there are any.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct SeenEvidence {
    pub bake: Option<BakeEvidence>,
    /// The judges' marks together.
    pub marks: Vec<ScoreMark>,
}

/// A bake trace as evidence.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BakeEvidence {
    /// Of the slowest probe; none where it never arrives.
    pub arrival_pct: Option<f64>,
    pub target_arrival_pct: f64,
    /// When the slowest probe's yeast is killed, % of the bake.
    pub kill_pct: Option<f64>,
    pub spread_min: Option<f64>,
    /// The slowest probe's core at the end, °C.
    pub end_c: f64,
}

/// A batch with its flour, to be searched for evidence.
#[derive(Debug, Clone, Copy)]
pub struct BatchEvidence<'a> {
    pub plan: &'a BatchPlan,
    pub record: &'a BatchRecord,
    pub report: &'a BatchReport,
    pub flour: Option<FlourEvidence<'a>>,
    pub planned: &'a PlanEvidence,
    pub seen: &'a SeenEvidence,
    /// What somebody says that is not on record; it counts before all else.
    pub answers: &'a BTreeMap<String, f64>,
    pub coefficients: &'a Coefficients,
}

/// Every feature the batch has figures for; what was entered counts before what was worked out.
/// Missing is missing, not nothing.
pub fn features(batch: &BatchEvidence<'_>) -> BTreeMap<String, f64> {
    let mut found = BTreeMap::new();
    let mut add = |key: &str, value: Option<f64>| {
        if let Some(value) = value.filter(|value| value.is_finite()) {
            found.insert(key.to_owned(), value);
        }
    };
    for (key, value) in &batch.planned.figures {
        add(key, Some(*value));
    }
    for (key, value) in batch.of_flour().into_iter().chain(batch.of_lines()) {
        add(key, value);
    }
    for (key, value) in batch.of_water().into_iter().chain(batch.of_surroundings()) {
        add(key, value);
    }
    for (key, value) in batch.of_stages().into_iter().chain(batch.of_ages()) {
        add(key, value);
    }
    for (key, value) in batch.of_oven().into_iter().chain(batch.of_trace()) {
        add(key, value);
    }
    for (key, value) in batch.of_marks() {
        add(key, value);
    }
    for (key, value) in batch.entered() {
        add(key, Some(value));
    }
    for (key, value) in batch.answers {
        add(key, Some(*value));
    }
    if let Some(trap) = batch.trap(&found) {
        found.entry("ds_trap".into()).or_insert(trap);
    }
    found
}

pub(super) type Figures = Vec<(&'static str, Option<f64>)>;

impl<'a> BatchEvidence<'a> {
    fn of_flour(&self) -> Figures {
        let Some(FlourEvidence { readings, before, age_days }) = self.flour else {
            return Vec::new();
        };
        let fourteen = Some(MoistureBasis::Fourteen);
        let now = |property, basis| readings.value(property, basis);
        let apart = |property, basis: Option<MoistureBasis>| {
            Some(readings.value(property, basis)? - before?.value(property, basis)?)
        };
        let apart_pct = |property| {
            let before = before?.value(property, None)?;
            Some(100.0 * (readings.value(property, None)? - before) / before)
        };
        vec![
            ("protein_d_pts", apart(Property::Protein, fourteen)),
            ("ash_d_pts", apart(Property::Ash, Some(MoistureBasis::DryMatter))),
            ("falling_number_s", now(Property::FallingNumber, None)),
            ("damaged_starch_pct", now(Property::DamagedStarch, None)),
            ("damaged_starch_d_pts", apart(Property::DamagedStarch, None)),
            ("absorption_d_pts", apart(Property::Absorption, fourteen)),
            ("stability_d_pct", apart_pct(Property::Stability)),
            ("softening_fu", now(Property::Softening, None)),
            ("w_d_pct", apart_pct(Property::W)),
            ("p_over_l", now(Property::POverL, None)),
            ("flour_age_days", age_days),
        ]
    }

    fn of_water(&self) -> Figures {
        let water = self.report.water;
        let told = water.filter(|water| water.complete || water.added_kg > 0.0);
        let lines = || self.report.lines.iter().filter(|line| line.planned.is_water);
        let own = || lines().filter(|line| line.planned.part.is_none());
        let planned_c = own().find(|line| !line.planned.is_ice);
        let planned_c = planned_c.and_then(|line| line.planned.temperature_c);
        let all: f64 = own().map(|line| line.planned.kg).sum();
        let ice = own().find(|line| line.planned.is_ice);
        let ice_kg = ice.and_then(|line| Some(line.weighed_kg? - line.planned.kg));
        vec![
            ("water_over_plan_pts", told.map(|water| water.over_plan_pts)),
            ("water_late_pts", self.late_water_pts()),
            ("water_c_d", self.first(Quantity::WaterC).zip(planned_c).map(|(is, was)| is - was)),
            ("ice_d_pct", ice_kg.filter(|_| all > 0.0).map(|kg| 100.0 * kg / all)),
            ("dough_c_d", self.report.dough_c.map(|one| one.difference)),
            ("mix_energy_d_pct", self.report.mixing_kj_per_kg.and_then(of_planned)),
        ]
    }

    /// Water that was added after the dough had cleaned up, points; nothing where none was added.
    fn late_water_pts(&self) -> Option<f64> {
        let added: Vec<Added<'_>> = self.record.additions().filter(Added::is_water).collect();
        if added.is_empty() {
            return self.report.water.filter(|water| water.complete).map(|_| 0.0);
        }
        let cleaned = self.record.stages.iter().filter(|stage| {
            stage.ended_by == Some(EndedBy::ClearsBowl)
                && self
                    .plan
                    .stages
                    .iter()
                    .any(|one| one.stage == stage.stage && one.role == StageRole::Mixing)
        });
        let cleaned = cleaned.filter_map(|stage| stage.ended_at).min()?;
        let late: f64 = added.iter().filter(|one| one.at > cleaned).map(|one| one.kg).sum();
        let flour = self.plan.figures.flour_kg;
        (flour > 0.0).then(|| 100.0 * late / flour)
    }

    fn of_stages(&self) -> Figures {
        let over = |role| self.over(role).map(|(stage, times)| longer(stage, times));
        let over_pct = |role| {
            self.over(role)
                .filter(|(stage, _)| stage.minutes > 0.0)
                .map(|(stage, times)| 100.0 * longer(stage, times) / stage.minutes)
        };
        let sponge = self.over(StageRole::Sponge);
        let waited = sponge.map(|(stage, times)| {
            let held = self.held_within(times);
            if held { longer(stage, times).max(0.0) } else { 0.0 }
        });
        let height = |(stage, times): (&StagePlan, &StageTimes)| {
            let is_height = stage.end_point.figure(true) == Some(EndFigure::Height);
            let aim = stage.ends_at.filter(|_| is_height)?;
            self.last_within(Quantity::HeightMm, times).map(|read| read - aim)
        };
        let proof = self.over(StageRole::Proof);
        vec![
            ("sponge_time_d_pct", over_pct(StageRole::Sponge)),
            (
                "sponge_end_c",
                sponge.and_then(|(_, times)| self.last_within(Quantity::SpongeC, times)),
            ),
            ("sponge_stop_min", waited),
            ("floor_time_d_min", over(StageRole::Floor)),
            ("retard_h", self.over(StageRole::Cold).map(|(_, times)| lasted(times) / MIN_PER_H)),
            ("rest_d_pct", over_pct(StageRole::Intermediate)),
            ("proof_time_d_pct", self.report.proof_min.and_then(of_planned)),
            (
                "proof_rh_pct",
                proof.and_then(|(_, times)| self.last_within(Quantity::HumidityPct, times)),
            ),
            ("proof_height_d_mm", proof.and_then(height)),
            (
                "where_after_stop",
                self.record.ended_at.map(|_| f64::from(u8::from(self.was_held()))),
            ),
        ]
    }

    fn of_oven(&self) -> Figures {
        let bake = self.last_over(StageKind::Bake);
        let core = bake.and_then(|(stage, times)| {
            let wanted = stage.core_c()?;
            self.last_within(Quantity::CoreC, times).map(|read| read - wanted)
        });
        let cool = self.last_over(StageKind::Cool);
        let sliced = self.last_over(StageKind::Slice);
        let out = bake.and_then(|(_, times)| times.ended_at);
        let at_slicer =
            sliced.or(cool).and_then(|(_, times)| self.last_within(Quantity::CoreC, times));
        let slicing = sliced.and_then(|(_, times)| times.begun_at);
        let cooling = cool
            .filter(|(stage, _)| stage.minutes > 0.0)
            .map(|(stage, times)| 100.0 * longer(stage, times) / stage.minutes);
        vec![
            ("bake_time_d_pct", self.report.bake_min.and_then(of_planned)),
            ("core_end_d_c", core),
            ("bake_loss_d_pts", self.report.loss_pct.map(|one| one.difference)),
            ("cool_time_d_pct", cooling),
            ("core_slice_c", at_slicer),
            (
                "slice_age_h",
                out.zip(slicing)
                    .map(|(from, to)| self.slicing_age_h(minutes(from, to) / MIN_PER_H)),
            ),
        ]
    }

    fn of_trace(&self) -> Figures {
        let Some(bake) = self.seen.bake else { return Vec::new() };
        let late = bake.arrival_pct.map(|pct| pct - bake.target_arrival_pct);
        let baked = self.plan.stages.iter().rfind(|stage| stage.kind == StageKind::Bake);
        let wanted = baked.and_then(StagePlan::core_c);
        vec![
            ("arrival_d_pts", late),
            ("spread_min", bake.spread_min),
            ("kill_pct", bake.kill_pct),
            ("core_end_d_c", wanted.map(|wanted| bake.end_c - wanted)),
        ]
    }

    fn of_marks(&self) -> Figures {
        let of = |of| self.seen.marks.iter().find(|mark| mark.of == of);
        let signed = |one| of(one).and_then(ScoreMark::signed);
        vec![
            ("colour_d", signed(Characteristic::CrustColour)),
            ("openness_d", signed(Characteristic::Openness)),
            ("stick_mark", of(Characteristic::Stickiness).map(|mark| mark.mark)),
        ]
    }

    /// What somebody entered, the latest of each.
    fn entered(&self) -> impl Iterator<Item = (&'a str, f64)> {
        let seen = self.record.placed.iter().filter(|one| one.kind == EventKind::Observation);
        seen.filter_map(|one| match one.details.value {
            RawNumber::Number(value) => Some((one.details.name.as_deref()?, value)),
            _ => None,
        })
    }

    /// Whether damaged starch and water added for feel met: 1 armed, 2 sprung.
    fn trap(&self, found: &BTreeMap<String, f64>) -> Option<f64> {
        let value = |key: &str| found.get(key).copied();
        let of = |coefficient| self.coefficients.value(coefficient);
        let (starch, over, late) =
            (value("damaged_starch_pct")?, value("water_over_plan_pts")?, value("water_late_pts")?);
        let more = value("damaged_starch_d_pts").unwrap_or(0.0);
        if starch <= of(&CRITICAL_DAMAGED_STARCH) && more < of(&TRAP_ARMED) {
            return Some(0.0);
        }
        let sprung = over >= of(&TRAP_OVER_PLAN) || late >= of(&TRAP_LATE_WATER);
        Some(if sprung { 2.0 } else { 1.0 })
    }

    pub(super) fn first(&self, quantity: Quantity) -> Option<f64> {
        self.record.readings(quantity).next().map(|(_, value, _)| value)
    }

    /// The last reading of a quantity while a stage lasted, and a little after.
    fn last_within(&self, quantity: Quantity, times: &StageTimes) -> Option<f64> {
        let (from, to) = (times.begun_at?, times.ended_at.unwrap_or(times.expected_end));
        let to = to + AFTER_A_STAGE;
        let within = self.record.readings(quantity).filter(|(at, ..)| (from..=to).contains(at));
        within.last().map(|(_, value, _)| value)
    }

    fn was_held(&self) -> bool {
        self.record.placed.iter().any(|one| one.kind == EventKind::Hold)
    }

    fn held_within(&self, times: &StageTimes) -> bool {
        let holds = self.record.placed.iter().filter(|one| one.kind == EventKind::Hold);
        let (from, to) = (times.expected_begin, times.ended_at.unwrap_or(times.expected_end));
        holds.map(|one| one.happened_at).any(|at| (from..=to).contains(&at))
    }

    /// The last stage of a role that is over.
    pub(super) fn over(&self, role: StageRole) -> Option<(&'a StagePlan, &'a StageTimes)> {
        self.stages().rfind(|(stage, times)| stage.role == role && times.ended_at.is_some())
    }

    fn last_over(&self, kind: StageKind) -> Option<(&'a StagePlan, &'a StageTimes)> {
        self.stages().rfind(|(stage, times)| stage.kind == kind && times.ended_at.is_some())
    }

    pub(super) fn stages(
        &self,
    ) -> impl DoubleEndedIterator<Item = (&'a StagePlan, &'a StageTimes)> {
        self.plan.stages.iter().zip(&self.report.times)
    }
}

fn lasted(times: &StageTimes) -> f64 {
    times.lasted_min.unwrap_or(0.0)
}

/// How much longer than planned it lasted, min.
fn longer(stage: &StagePlan, times: &StageTimes) -> f64 {
    lasted(times) - stage.minutes
}

/// Off the plan, % of it.
fn of_planned(one: PlanDifference) -> Option<f64> {
    (one.planned > 0.0).then(|| 100.0 * one.difference / one.planned)
}
