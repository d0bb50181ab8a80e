//! What a batch was planned as, read off its records.

use chrono::{DateTime, Utc};
use ironpeel_core::batch::{
    BatchPlan, BatchRecord, BatchReport, Event, PlannedFigures, PlannedLine, Quantity, StagePlan,
    fold, report, slicer_limit_c,
};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::heat::Temperatures;
use ironpeel_core::method::StageKind;
use ironpeel_store::{
    Batch, BatchEvent, BatchFigures, BatchProjection, LineRevision, MethodRevision, NewBatch,
    NewBatchEvent,
};
use serde::Deserialize;
use serde_json::Value;
use uuid::Uuid;

/// A batch's plan, and what is said of it on every screen.
#[derive(Debug, Clone)]
pub struct PlannedBatch {
    pub id: Uuid,
    pub slug: String,
    pub product: String,
    pub line: String,
    pub lot: String,
    pub flour: String,
    pub saved_at: DateTime<Utc>,
    pub plan: BatchPlan,
    /// What each stage asks attention for, by its place.
    pub cautions: Vec<Vec<String>>,
    /// Whether damaged starch is over what is critical.
    pub damaged_starch: Option<String>,
}

/// What the floor was told of it.
#[derive(Default, Deserialize)]
#[serde(default)]
struct Issued {
    product: String,
    line: String,
    lot: String,
    flour: String,
    /// Read apart: the sheet of an earlier version may be of another shape.
    chain: Value,
}

/// Of a sheet as it was issued, what is read here; documents of earlier versions lack some of it.
#[derive(Default, Deserialize)]
struct IssuedChain {
    water: Option<IssuedWater>,
    dough: Option<IssuedDough>,
    method: Option<IssuedMethod>,
    sheet: Option<IssuedSheet>,
}

#[derive(Deserialize)]
struct IssuedWater {
    #[serde(default)]
    steps: Vec<IssuedStep>,
    #[serde(default)]
    cautions: Vec<IssuedCaution>,
}

#[derive(Deserialize)]
struct IssuedStep {
    key: String,
    points: f64,
}

#[derive(Deserialize)]
struct IssuedCaution {
    key: String,
    says: String,
}

#[derive(Default, Deserialize)]
struct IssuedDough {
    flour_kg: f64,
    pieces: f64,
    piece_kg: f64,
    cooled_piece_kg: f64,
}

#[derive(Default, Deserialize)]
struct IssuedMethod {
    mixing_kj_per_kg: f64,
}

#[derive(Deserialize)]
struct IssuedSheet {
    doughs: f64,
    target_c: f64,
    #[serde(default)]
    parts: Vec<SheetPart>,
    steps: Vec<SheetStep>,
}

#[derive(Deserialize)]
struct SheetPart {
    name: String,
    takes: Vec<ToWeigh>,
}

#[derive(Deserialize)]
struct SheetStep {
    takes: Vec<ToWeigh>,
    #[serde(default)]
    cautions: Vec<String>,
}

#[derive(Deserialize)]
struct ToWeigh {
    name: String,
    ingredient: String,
    kg: f64,
    division_kg: f64,
    #[serde(default)]
    is_ice: bool,
    #[serde(default)]
    temperature_c: Option<f64>,
}

impl ToWeigh {
    fn line(&self, stage: Option<Uuid>, part: Option<&str>) -> PlannedLine {
        PlannedLine {
            stage,
            of: part.map_or_else(|| self.name.clone(), |part| format!("{part}: {}", self.name)),
            name: self.name.clone(),
            ingredient: self.ingredient.clone(),
            part: part.map(str::to_owned),
            kg: self.kg,
            division_kg: self.division_kg,
            temperature_c: self.temperature_c,
            is_water: self.ingredient == "water",
            is_ice: self.is_ice,
        }
    }
}

impl PlannedBatch {
    pub fn of(
        batch: &Batch,
        slug: String,
        method: &MethodRevision,
        line: &LineRevision,
        coefficients: &Coefficients,
    ) -> Self {
        let Batch { id, planned_for, saved_at, issued, .. } = batch;
        Self::read((*id, *planned_for, *saved_at), issued, slug, method, line, coefficients)
    }

    /// The same of a batch that is not on record yet.
    pub fn of_new(
        batch: &NewBatch,
        saved_at: DateTime<Utc>,
        slug: String,
        method: &MethodRevision,
        line: &LineRevision,
    ) -> Self {
        let NewBatch { id, planned_for, issued, .. } = batch;
        let house = Coefficients::default();
        Self::read((*id, *planned_for, saved_at), issued, slug, method, line, &house)
    }

    fn read(
        (id, planned_for, saved_at): (Uuid, DateTime<Utc>, DateTime<Utc>),
        issued: &Value,
        slug: String,
        method: &MethodRevision,
        line: &LineRevision,
        coefficients: &Coefficients,
    ) -> Self {
        let Issued { product, line: line_name, lot, flour, chain } =
            Issued::deserialize(issued).unwrap_or_default();
        let chain = IssuedChain::deserialize(chain).unwrap_or_default();
        let stages = StagePlan::of(&method.method, &line.line.mixer, coefficients);
        let (mut lines, mut cautions) = (Vec::new(), Vec::new());
        if let Some(sheet) = &chain.sheet {
            for part in &sheet.parts {
                lines.extend(part.takes.iter().map(|item| item.line(None, Some(&part.name))));
            }
            for (at, step) in sheet.steps.iter().enumerate() {
                let stage = stages.get(at).map(|stage| stage.stage);
                lines.extend(step.takes.iter().map(|item| item.line(stage, None)));
                cautions.push(step.cautions.clone());
            }
        }
        let learned = chain.water.iter().flat_map(|water| &water.steps);
        let dough = chain.dough.unwrap_or_default();
        let figures = PlannedFigures {
            doughs: chain.sheet.as_ref().map_or(1.0, |sheet| sheet.doughs),
            flour_kg: dough.flour_kg,
            target_c: chain.sheet.as_ref().map_or(method.method.target_c, |sheet| sheet.target_c),
            mixing_kj_per_kg: chain.method.unwrap_or_default().mixing_kj_per_kg,
            pieces: dough.pieces,
            piece_kg: dough.piece_kg,
            bake_loss_pct: if dough.piece_kg > 0.0 {
                100.0 * (1.0 - dough.cooled_piece_kg / dough.piece_kg)
            } else {
                0.0
            },
            standing_correction_pts: learned
                .filter(|step| step.key == "learned")
                .map(|step| step.points)
                .sum(),
            slicer_core_c: slicer_limit_c(&stages, coefficients),
        };
        let mut water_cautions = chain.water.into_iter().flat_map(|water| water.cautions);
        Self {
            id,
            slug,
            product,
            line: line_name,
            lot,
            flour,
            saved_at,
            plan: BatchPlan { planned_for, stages, lines, figures },
            cautions,
            damaged_starch: water_cautions
                .find(|caution| caution.key == "damaged_starch")
                .map(|caution| caution.says),
        }
    }

    /// Its last bake, if it is baked.
    pub fn bake(&self) -> Option<&StagePlan> {
        self.plan.stages.iter().rfind(|stage| stage.kind == StageKind::Bake)
    }

    /// The stages its method has.
    pub fn stages(&self) -> Vec<Uuid> {
        self.plan.stages.iter().map(|stage| stage.stage).collect()
    }

    /// What happened, and how it stands to the plan by now; one that is over stands as it ended.
    pub fn followed(
        &self,
        events: &[BatchEvent],
        now: DateTime<Utc>,
    ) -> (BatchRecord, BatchReport) {
        self.followed_read(&read(events), now)
    }

    fn followed_read(&self, events: &[Event], now: DateTime<Utc>) -> (BatchRecord, BatchReport) {
        let record = fold(events);
        let report = report(&self.plan, &record, record.ended_at.unwrap_or(now));
        (record, report)
    }

    /// What its events come to; the same on every server.
    pub fn project(&self, events: &[BatchEvent]) -> BatchProjection {
        self.project_read(&read(events))
    }

    /// The same of events that are not on record yet.
    pub fn project_new(&self, events: &[NewBatchEvent]) -> BatchProjection {
        let read = events.iter().filter_map(|event| Event::deserialize(&event.body).ok());
        self.project_read(&read.collect::<Vec<_>>())
    }

    fn project_read(&self, events: &[Event]) -> BatchProjection {
        let last = events.iter().map(|event| event.happened_at).max();
        let (record, report) = self.followed_read(events, last.unwrap_or(self.plan.planned_for));
        let finish = record.finish.clone().unwrap_or_default();
        // Before anybody weighed or added any, nothing is known of it.
        let water = report
            .water
            .filter(|water| water.complete || water.added_kg > 0.0 || record.ended_at.is_some());
        BatchProjection {
            state: record.state,
            started_at: record.started_at,
            ended_at: record.ended_at,
            events: count(events.len()),
            unplaced: count(record.unplaced.len()),
            figures: BatchFigures {
                dough_c: report.dough_c.map(|one| one.actual),
                dough_c_d: report.dough_c.map(|one| one.difference),
                water_pts: water.map(|water| water.over_plan_pts),
                by_feel_pts: water.map(|water| water.by_feel_pts),
                water_complete: report.water.is_some_and(|water| water.complete),
                consistency: report.consistency,
                mixing_kj_per_kg: report.mixing_kj_per_kg.map(|one| one.actual),
                proof_min: report.proof_min.map(|one| one.actual),
                bake_min: report.bake_min.map(|one| one.actual),
                loss_pct: report.loss_pct.map(|one| one.actual),
                pieces_good: finish.pieces_good,
                pieces_rejected: finish.pieces_rejected,
                friction_c: self.friction(&record),
            },
        }
    }

    /// Friction as its measured temperatures say; none where one of them is missing.
    fn friction(&self, record: &BatchRecord) -> Option<f64> {
        let first = |quantity| record.readings(quantity).next().map(|(_, value, _)| value);
        let lines = ironpeel_core::batch::weighed(&self.plan.lines, record);
        let water = |ice: bool| -> f64 {
            let of_it = lines.iter().filter(|line| line.planned.is_water);
            let of_it = of_it.filter(|line| line.planned.part.is_none());
            of_it
                .filter(|line| line.planned.is_ice == ice)
                .map(|line| line.weighed_kg.unwrap_or(line.planned.kg))
                .sum()
        };
        let (liquid, ice) = (water(false), water(true));
        let temperatures = Temperatures {
            flour_c: first(Quantity::FlourC)?,
            room_c: first(Quantity::RoomC)?,
            water_c: first(Quantity::WaterC)?,
            preferment_c: first(Quantity::SpongeC),
            dough_c: first(Quantity::DoughC)?,
            ice_share_pct: if ice > 0.0 { 100.0 * ice / (liquid + ice) } else { 0.0 },
            ice_c: 0.0,
        };
        Some(temperatures.friction_c())
    }
}

fn read(events: &[BatchEvent]) -> Vec<Event> {
    events.iter().filter_map(BatchEvent::event).collect()
}

fn count(many: usize) -> i32 {
    i32::try_from(many).unwrap_or(i32::MAX)
}
