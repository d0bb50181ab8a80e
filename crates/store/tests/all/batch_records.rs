//! Batches and what happens to them on a real database.

use std::sync::Arc;

use crate::support::{flour, lot, signed};
use chrono::{DateTime, SubsecRound, TimeDelta, Utc};
use ironpeel_core::batch::{BatchState, EventKind};
use ironpeel_core::chain::{ScenarioFormula, ScenarioLine};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::dough::{Formula, Ingredient, LineInput, Losses};
use ironpeel_core::fault::{CaseVerdict, DriftSide, drifting};
use ironpeel_core::heat::WaterSources;
use ironpeel_core::judging::{
    Characteristic, PhotographView, ProductStandard, ScoreMark, ScoredMark, Sign,
};
use ironpeel_core::learn::LearnedSubject;
use ironpeel_core::method::{Equipment, Method, Mixer, Process, Stage, StageKind};
use ironpeel_core::oven::LoggerProbe;
use ironpeel_store::testing::TestDatabase;
use ironpeel_store::{
    BakeTraceRecord, BatchEvent, BatchFigures, BatchFilter, BatchProjection, BatchSeen, DriftSeen,
    EventAuthor, FaultCaseRecord, Features, LearnedKey, NewBakeTrace, NewBatch, NewBatchEvent,
    NewBatchState, NewFormula, NewLearned, NewLine, NewMethod, NewSample, NewScore, NewStandard,
    Photograph, Product, Recorded, RunBatch, SamplePhotograph, Score, Store, StoreError,
    TraceSource, Word,
};
use serde_json::json;
use uuid::Uuid;

/// A product with a lot of its flour, and what a batch of it is tied to.
struct Bakery {
    product: Product,
    lot_id: Uuid,
    lot_revision_id: Uuid,
    formula_revision_id: Uuid,
    method_revision_id: Uuid,
    line_revision_id: Uuid,
}

impl Bakery {
    async fn open(store: &Store, name: &str) -> Self {
        let flour_id = flour(store).await;
        let new_lot = lot(flour_id, &format!("VR-{name}"), 1, 12.9);
        store.add_lot_revision(&new_lot).await.expect("recorded");
        let line = |ingredient, pct: f64| LineInput { ingredient, pct: pct.into() };
        let lines = [line(Ingredient::Flour, 100.0), line(Ingredient::Salt, 1.9)];
        let formula = NewFormula {
            formula_id: Uuid::now_v7(),
            name: name.into(),
            revision_id: Uuid::now_v7(),
            number: 1,
            formula: ScenarioFormula {
                formula: Formula::new(&lines).expect("makes a dough"),
                style_points: 0.0,
                piece_kg: 0.8,
                losses: Losses::house(),
                hydration_pct: None,
                batch_kg: None,
            },
            signed: signed("first"),
        };
        store.add_formula(&formula).await.expect("recorded");
        let stage = Stage { id: Some(Uuid::now_v7()), ..Stage::new(StageKind::Mix, "Mix", 10.0) };
        let method = NewMethod {
            method_id: Uuid::now_v7(),
            name: name.into(),
            revision_id: Uuid::now_v7(),
            number: 1,
            method: Method {
                process: Process::StraightBulk,
                target_c: 26.0,
                sponge_c: None,
                machine_divided: false,
                stages: vec![stage],
            },
            signed: signed("first"),
        };
        store.add_method(&method).await.expect("recorded");
        let line = NewLine {
            line_id: Uuid::now_v7(),
            name: format!("Line of {name}"),
            revision_id: Uuid::now_v7(),
            number: 1,
            line: bench(),
            signed: signed("first"),
        };
        store.add_line(&line).await.expect("recorded");
        let product = Product {
            id: Uuid::now_v7(),
            slug: name.to_lowercase(),
            name: name.into(),
            flour_id,
            flour: String::new(),
            formula_id: formula.formula_id,
            method_id: method.method_id,
            line_id: line.line_id,
            line: line.name.clone(),
        };
        store.add_product(&product).await.expect("recorded");
        Self {
            product,
            lot_id: new_lot.lot_id,
            lot_revision_id: new_lot.revision_id,
            formula_revision_id: formula.revision_id,
            method_revision_id: method.revision_id,
            line_revision_id: line.revision_id,
        }
    }

    fn batch(&self, planned_for: DateTime<Utc>) -> NewBatch {
        NewBatch {
            id: Uuid::now_v7(),
            product_id: self.product.id,
            lot_revision_id: self.lot_revision_id,
            specification_revision_id: None,
            formula_revision_id: self.formula_revision_id,
            method_revision_id: self.method_revision_id,
            line_revision_id: self.line_revision_id,
            parameters_revision_id: None,
            water_correction_id: None,
            planned_for,
            saved_by: "RK".into(),
            run_settings: json!({}),
            issued: json!({"chain": {"dough": {"pieces": 200, "cost": {"per_piece": 0.5}}}}),
        }
    }

    fn state(&self) -> NewBatchState {
        NewBatchState {
            line_id: self.product.line_id,
            flour_id: self.product.flour_id,
            lot_id: self.lot_id,
            lots: vec![(self.lot_id, Some(100.0))],
            standing_pts: 0.0,
            damaged_starch_caution: false,
            water_was_set: false,
        }
    }

    async fn planned(&self, store: &Store, planned_for: DateTime<Utc>) -> Uuid {
        let batch = self.batch(planned_for);
        store.add_batch(&batch, &[], &self.state()).await.expect("recorded");
        batch.id
    }

    /// A batch as it was run and finished, with how warm its dough was.
    fn run(&self, planned_for: DateTime<Utc>, dough_c: f64) -> RunBatch {
        let figures = BatchFigures {
            dough_c: Some(dough_c),
            dough_c_d: Some(dough_c - 26.0),
            pieces_good: Some(190.0),
            pieces_rejected: Some(10.0),
            ..BatchFigures::default()
        };
        RunBatch {
            batch: self.batch(planned_for),
            others: Vec::new(),
            state: self.state(),
            saved_at: planned_for - TimeDelta::hours(8),
            events: vec![event(EventKind::Start, planned_for)],
            projection: BatchProjection {
                state: BatchState::Finished,
                started_at: Some(planned_for),
                ended_at: Some(planned_for + TimeDelta::hours(4)),
                events: 1,
                unplaced: 0,
                figures,
            },
            trace: None,
            samples: Vec::new(),
            scores: Vec::new(),
            photographs: Vec::new(),
            seen: BatchSeen::default(),
        }
    }
}

/// A loaf of a batch under a code.
fn sample(bakery: &Bakery, batch: Uuid, code: u16) -> NewSample {
    NewSample {
        id: Uuid::now_v7(),
        product_id: bakery.product.id,
        batch_id: Some(batch),
        bench_dough_id: None,
        loaf: 1,
        code: code.to_string(),
        made_by: "RK".into(),
        made_at: Utc::now(),
    }
}

/// A judge's sheet: the volume is too little.
fn score(sample_id: Uuid, judge: &str) -> NewScore {
    let mark = ScoreMark { of: Characteristic::Volume, mark: 3.0, sign: Some(Sign::TooLittle) };
    NewScore {
        id: Uuid::now_v7(),
        sample_id,
        round: 1,
        judge: judge.into(),
        person_id: None,
        note: "small".into(),
        scored_at: Utc::now(),
        marks: vec![ScoredMark { mark, measured: Some(3.4) }],
    }
}

fn bench() -> ScenarioLine {
    ScenarioLine {
        mixer: Mixer {
            name: "Spiral".into(),
            kind: "spiral".into(),
            min_kg: 1.0,
            max_kg: 60.0,
            slow_kj_per_kg_min: 1.0,
            fast_kj_per_kg_min: 2.0,
            jacket_kj_per_kg_min: None,
        },
        equipment: Equipment {
            turn_min: 5.0,
            troughs: 4,
            trough_kg: 100.0,
            trough_m2: 1.0,
            divider_per_min: 10.0,
            proofer_pieces: 400.0,
            oven_pieces: 200.0,
        },
        division_kg: 0.01,
        tap_c: 12.0,
        flour_c: 20.0,
        room_c: 22.0,
        water: WaterSources {
            chilled_c: None,
            refrigerator_c: None,
            hot_c: None,
            max_ice_pct: 60.0,
        },
    }
}

fn now() -> DateTime<Utc> {
    Utc::now().trunc_subsecs(3)
}

fn event(kind: EventKind, happened_at: DateTime<Utc>) -> NewBatchEvent {
    let id = Uuid::now_v7();
    NewBatchEvent {
        id,
        kind,
        stage_id: None,
        happened_at,
        claimed_at: None,
        author: EventAuthor {
            person_id: None,
            who: "RK".into(),
            station_id: None,
            api_key_id: None,
            verified: true,
        },
        corrects: None,
        body: json!({"id": id, "kind": kind, "happened_at": happened_at}),
        body_hash: id.as_bytes().to_vec(),
    }
}

/// As many events as there are, and running once there is one.
fn counted(events: &[BatchEvent]) -> BatchProjection {
    BatchProjection {
        state: BatchState::Running,
        started_at: events.first().map(|event| event.happened_at),
        ended_at: None,
        events: i32::try_from(events.len()).expect("a few"),
        unplaced: 0,
        figures: BatchFigures { dough_c: Some(27.5), ..BatchFigures::default() },
    }
}

#[tokio::test]
async fn an_event_is_stored_once_and_what_it_comes_to_with_it() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Gull").await;
    let at = now();
    let [one, other] = [bakery.planned(store, at).await, bakery.planned(store, at).await];
    assert_eq!(store.batch_state(one).await.expect("read"), Some(BatchState::Planned));

    let [start, note] =
        [event(EventKind::Start, at), event(EventKind::Note, at + TimeDelta::seconds(1))];
    let sent = [start.clone(), note.clone(), start.clone()];
    let (recorded, state) = store.add_batch_events(one, &sent, counted).await.expect("recorded");
    assert_eq!(recorded, [Recorded::Stored, Recorded::Stored, Recorded::Already]);
    assert_eq!(state, BatchState::Running);

    // Something else under its id, here or on another batch, is told apart and changes nothing.
    let strange = NewBatchEvent { body_hash: vec![9], ..start.clone() };
    let (recorded, _) = store.add_batch_events(one, &[strange], counted).await.expect("answered");
    assert_eq!(recorded, [Recorded::Conflict]);
    let (recorded, state) = store
        .add_batch_events(other, std::slice::from_ref(&start), counted)
        .await
        .expect("answered");
    assert_eq!((recorded, state), (vec![Recorded::Conflict], BatchState::Planned));

    let listed = store.batches(&BatchFilter::default(), None, 10).await.expect("a list");
    let row = listed.iter().find(|batch| batch.id == one).expect("it is listed");
    assert_eq!((row.state, row.figures.dough_c), (Word(BatchState::Running), Some(27.5)));
    let nowhere = store.add_batch_events(Uuid::now_v7(), &[note], counted).await;
    assert!(matches!(nowhere, Err(StoreError::NotFound(_))));
}

#[tokio::test]
async fn senders_that_meet_at_one_batch_lose_and_double_nothing() {
    let database = TestDatabase::new().await;
    let bakery = Bakery::open(&database.store, "Tern").await;
    let at = now();
    let id = bakery.planned(&database.store, at).await;
    let events: Vec<NewBatchEvent> =
        (0..40).map(|second| event(EventKind::Note, at + TimeDelta::seconds(second))).collect();
    let events = Arc::new(events);
    let senders = (0..4).map(|sender| {
        let (store, events) = (database.store.clone(), events.clone());
        tokio::spawn(async move {
            // Each sends all of them, two at a time, beginning elsewhere.
            for pair in events.chunks(2).cycle().skip(sender * 5).take(20) {
                store.add_batch_events(id, pair, counted).await.expect("recorded");
            }
        })
    });
    for sender in senders.collect::<Vec<_>>() {
        sender.await.expect("no sender fails");
    }
    let stored = database.store.events_of(&[id]).await.expect("read").remove(&id);
    let stored: Vec<Uuid> = stored.expect("events").iter().map(|event| event.id).collect();
    let sent: Vec<Uuid> = events.iter().map(|event| event.id).collect();
    assert_eq!(stored, sent, "each once, in order");
}

#[tokio::test]
async fn events_are_read_page_after_page_in_their_order() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Auk").await;
    let at = now();
    let id = bakery.planned(store, at).await;
    // Three at one moment: their ids order them.
    let sent: Vec<NewBatchEvent> = [2, 0, 1, 1, 1]
        .map(|second| event(EventKind::Note, at + TimeDelta::seconds(second)))
        .into();
    store.add_batch_events(id, &sent, counted).await.expect("recorded");
    let mut seen = Vec::new();
    let mut after = None;
    loop {
        let page = store.batch_events(id, after, 2).await.expect("a page");
        let Some(last) = page.last() else { break };
        after = Some(last.id);
        seen.extend(page.iter().map(|event| (event.happened_at, event.id)));
    }
    let mut expected: Vec<_> = sent.iter().map(|event| (event.happened_at, event.id)).collect();
    expected.sort_unstable();
    assert_eq!(seen, expected);
    let unknown = store.batch_events(id, Some(Uuid::now_v7()), 2).await;
    assert!(matches!(unknown, Err(StoreError::NotFound(_))));
}

#[tokio::test]
async fn a_clock_that_was_put_right_moves_a_corrections_own_moment_too() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Skua").await;
    let at = now();
    let id = bakery.planned(store, at).await;
    let hour = TimeDelta::hours(1);
    let mut moved = event(EventKind::Correct, at);
    moved.claimed_at = Some(at + hour);
    moved.corrects = Some(Uuid::now_v7());
    moved.body["happened_at"] = json!(at + hour);
    moved.body["corrects"] = json!(moved.corrects);
    moved.body["new_happened_at"] = json!(at + hour - TimeDelta::minutes(5));
    store.add_batch_events(id, &[moved], counted).await.expect("recorded");
    let stored = store.batch_events(id, None, 10).await.expect("a page");
    let event = stored[0].event().expect("as the fold takes it");
    assert_eq!(event.happened_at, at);
    assert_eq!(event.new_happened_at, Some(at - TimeDelta::minutes(5)));
}

#[tokio::test]
async fn whoever_was_away_is_told_what_changed_since() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Puffin").await;
    let before = bakery.planned(store, now()).await;
    let (place, next) = store.transactions().await.expect("a place");
    assert!(place <= next);
    let after = bakery.planned(store, now()).await;
    let changed = store.batches_changed_since(place, 10).await.expect("a list");
    assert_eq!(changed, [(after, Word(BatchState::Planned))]);
    let start = event(EventKind::Start, now());
    store.add_batch_events(before, &[start], counted).await.expect("recorded");
    let changed = store.batches_changed_since(place, 10).await.expect("a list");
    assert!(changed.contains(&(before, Word(BatchState::Running))), "{changed:?}");
}

#[tokio::test]
async fn batches_are_filtered_and_paged_from_the_newest_planned() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let [gull, tern] = [Bakery::open(store, "Gull").await, Bakery::open(store, "Tern").await];
    let noon = now();
    let mut runs = Vec::new();
    for day in 0..6 {
        let bakery = if day % 2 == 0 { &gull } else { &tern };
        runs.push(bakery.run(noon - TimeDelta::days(day), 26.0 + day as f64));
    }
    store.add_run_batches(&runs).await.expect("recorded");
    // Loaded again, nothing is there twice.
    store.add_run_batches(&runs).await.expect("known");
    let tonight = gull.planned(store, noon + TimeDelta::hours(9)).await;

    let asked = async |filter: BatchFilter| -> Vec<Uuid> {
        let found = store.batches(&filter, None, 50).await.expect("a list");
        found.iter().map(|batch| batch.id).collect()
    };
    let ids: Vec<Uuid> = runs.iter().map(|run| run.batch.id).collect();
    let all = asked(BatchFilter::default()).await;
    assert_eq!(all, [vec![tonight], ids.clone()].concat(), "the newest planned first");

    let every_other =
        |from: usize| -> Vec<Uuid> { ids.iter().skip(from).step_by(2).copied().collect() };
    let of =
        |product: &str| BatchFilter { product: Some(product.into()), ..BatchFilter::default() };
    assert_eq!(asked(of("tern")).await, every_other(1));
    let lot = BatchFilter { lot: Some("VR-Tern".into()), ..BatchFilter::default() };
    assert_eq!(asked(lot).await, every_other(1));
    let line = BatchFilter { line_id: Some(tern.product.line_id), ..BatchFilter::default() };
    assert_eq!(asked(line).await, every_other(1));
    let text = BatchFilter { text: Some("line of TERN".into()), ..BatchFilter::default() };
    assert_eq!(asked(text).await, every_other(1));
    let odd = BatchFilter { text: Some("100 %_\\".into()), ..BatchFilter::default() };
    assert_eq!(asked(odd).await, Vec::<Uuid>::new(), "signs of a pattern are letters");
    let planned = BatchFilter { states: vec![BatchState::Planned], ..BatchFilter::default() };
    assert_eq!(asked(planned).await, [tonight]);
    let period = BatchFilter {
        from: Some(noon - TimeDelta::days(3)),
        to: Some(noon - TimeDelta::days(1)),
        ..BatchFilter::default()
    };
    assert_eq!(asked(period).await, ids[2..4], "from a moment on, and before another");
    let nobody = BatchFilter { person_id: Some(Uuid::now_v7()), ..BatchFilter::default() };
    assert_eq!(asked(nobody).await, Vec::<Uuid>::new());

    // Page after page, each row once.
    let (mut paged, mut after) = (Vec::new(), None);
    loop {
        let page = store.batches(&BatchFilter::default(), after, 3).await.expect("a page");
        let Some(last) = page.last() else { break };
        after = Some((last.planned_for, last.id));
        paged.extend(page.iter().map(|batch| batch.id));
    }
    assert_eq!(paged, all);

    let chart = store.chart_batches(Some(tern.product.id), None, None, 2).await.expect("a chart");
    let dough: Vec<_> = chart.iter().map(|batch| batch.figures.dough_c).collect();
    assert_eq!(dough, [Some(29.0), Some(27.0)], "the last two, oldest first");
}

#[tokio::test]
async fn what_went_into_batches_is_found_from_either_end_and_counted() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Gannet").await;
    let noon = now();
    let runs: Vec<RunBatch> =
        (0..3).map(|day| bakery.run(noon - TimeDelta::days(day), 26.0)).collect();
    store.add_run_batches(&runs).await.expect("recorded");
    bakery.planned(store, noon + TimeDelta::hours(1)).await;
    let uses = store.uses_of_lot(bakery.lot_id, None, 50).await.expect("a list");
    assert_eq!(uses.len(), 4, "planned ones too: they can still be stopped");
    assert_eq!((uses[1].kg, uses[1].pieces_good), (Some(100.0), Some(190.0)));
    let first = &runs[0];
    let lots = store.lots_of_batch(first.batch.id).await.expect("a list");
    assert_eq!((lots.len(), lots[0].lot_id), (1, bakery.lot_id));
    // What was begun since a time has drawn; what is only planned has not.
    let drawn = store.drawn_from_lot(bakery.lot_id, noon - TimeDelta::hours(30)).await;
    assert!((drawn.expect("a sum") - 200.0).abs() < 1e-9);
    let none = store.drawn_from_lot(Uuid::now_v7(), noon).await;
    assert!(none.expect("a sum").abs() < 1e-9);

    let period = store
        .batch_period(noon - TimeDelta::hours(30), noon + TimeDelta::hours(2), None)
        .await
        .expect("a period");
    assert_eq!((period.batches, period.scrapped), (2, 0), "what is over");
    assert_eq!(period.rejected_pct, Some(5.0));
    assert_eq!(period.lost_cost, Some(10.0), "twenty pieces at half a coin");
    let other = store.batch_period(noon, noon, Some(Uuid::now_v7())).await.expect("a period");
    assert_eq!((other.batches, other.dough_c_sd), (0, None));
}

#[tokio::test]
async fn a_learned_number_is_a_chain_of_revisions_and_the_newest_counts() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Kittiwake").await;
    let key = LearnedKey {
        subject: LearnedSubject::WaterCorrection,
        product_id: bakery.product.id,
        line_id: bakery.product.line_id,
        flour_id: bakery.product.flour_id,
    };
    let taken = |number: i32, value: Option<f64>| NewLearned {
        id: Uuid::now_v7(),
        key,
        number,
        value,
        sd: value.map(|_| 0.2),
        batches: 12,
        begins_at: None,
        saved_by: "RK".into(),
        reason: "twelve alike".into(),
    };
    assert_eq!(store.current_learned(key).await.expect("read"), None);
    let first = taken(1, Some(0.6));
    store.take_over(&first).await.expect("recorded");
    let current = store.current_learned(key).await.expect("read").expect("it stands");
    assert_eq!((current.id, current.value), (first.id, Some(0.6)));
    assert!(matches!(store.take_over(&taken(1, Some(0.9))).await, Err(StoreError::Conflict(_))));
    let other = LearnedKey { subject: LearnedSubject::Friction, ..key };
    assert_eq!(store.current_learned(other).await.expect("read"), None, "another number");
    store.take_over(&taken(2, None)).await.expect("recorded");
    assert_eq!(store.current_learned(key).await.expect("read"), None, "it was reset");
    let numbers: Vec<i32> =
        store.learned(key).await.expect("read").iter().map(|one| one.number).collect();
    assert_eq!(numbers, [2, 1]);
    assert_eq!(store.learned_revision(first.id).await.expect("on record").value, Some(0.6));
    let gone = store.learned_revision(Uuid::now_v7()).await;
    assert!(matches!(gone, Err(StoreError::NotFound(_))));
}

#[tokio::test]
async fn what_happened_is_never_changed() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Razorbill").await;
    let id = bakery.planned(store, now()).await;
    store.add_batch_events(id, &[event(EventKind::Start, now())], counted).await.expect("recorded");
    for change in [
        "UPDATE batch_event SET who = 'somebody else'",
        "DELETE FROM batch_event",
        "UPDATE batch_lot SET kg = 0",
        "UPDATE learned_number SET value = 0",
    ] {
        let told = database.refuses(change).await;
        assert!(told.contains("append-only"), "{change}: {told}");
    }
}

#[tokio::test]
async fn a_trace_and_a_score_stand_once_beside_what_events_say() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Judged").await;
    let batch = bakery.planned(store, Utc::now()).await;
    let trace = BakeTraceRecord {
        id: Uuid::now_v7(),
        batch_id: batch,
        source: TraceSource::Imported,
        bake_min: 20.0,
        t_min: vec![0.0, 10.0, 20.0],
        probes: vec![LoggerProbe { name: "left".into(), core_c: vec![28.0, 60.0, 95.0] }],
        made_by: "RK".into(),
        made_at: Utc::now().trunc_subsecs(6),
    };
    let read =
        NewBakeTrace { trace: trace.clone(), arrival_pct: Some(92.5), steam_until_min: Some(15.0) };
    store.add_bake_trace(&read).await.expect("recorded");
    assert_eq!(store.bake_trace(trace.id).await.expect("it is there"), trace);
    assert!(matches!(store.bake_trace(Uuid::now_v7()).await, Err(StoreError::NotFound(_))));
    let bakes = store.bakes(Some("judged"), None, None, 10).await.expect("listed");
    assert_eq!((bakes.len(), bakes[0].arrival_pct), (1, Some(92.5)));
    let before = Some((bakes[0].planned_for, bakes[0].id));
    assert_eq!(store.bakes(None, None, before, 10).await.expect("listed").len(), 0);

    let sample = sample(&bakery, batch, 417);
    store.add_samples(std::slice::from_ref(&sample)).await.expect("set out");
    assert_eq!(store.coded_sample("417").await.expect("it is there").batch_id, Some(batch));
    assert!(store.coded_sample("418").await.is_err());
    let sheet_of = |judge: &str| score(sample.id, judge);
    let seen = |all: &[Score], before: BatchSeen| BatchSeen {
        score: Some(10.0 * all.len() as f64),
        ..before
    };
    store.add_score(Some(batch), &sheet_of("one"), seen).await.expect("recorded");
    store.add_score(Some(batch), &sheet_of("two"), seen).await.expect("recorded");
    let twice = store.add_score(Some(batch), &sheet_of("one"), seen).await;
    assert!(matches!(twice, Err(StoreError::Conflict(_))), "the first marks stay");
    let scores = store.scores(batch).await.expect("listed");
    assert_eq!((scores.len(), &scores[0].marks), (2, &sheet_of("one").marks));
    let listed = store.batches(&BatchFilter::default(), None, 10).await.expect("listed");
    let wanted = BatchSeen { arrival_pct: Some(92.5), score: Some(20.0), crumb_is_low: false };
    assert_eq!(listed[0].seen, wanted, "a trace and a score leave one another alone");
    let product = bakery.product.id;
    assert!(store.earlier_scores(product, Some(batch), 9).await.expect("none else").is_empty());
    let other = store.earlier_scores(product, None, 1).await.expect("the newest");
    assert_eq!(other.len(), 1);
}

#[tokio::test]
async fn what_a_product_is_held_to_and_what_a_fault_was_are_kept() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Held").await;
    let standard = |number| NewStandard {
        id: Uuid::now_v7(),
        product_id: bakery.product.id,
        number,
        standard: ProductStandard {
            anchors: [(Characteristic::Volume, format!("as agreed, {number}"))].into(),
            ..ProductStandard::default()
        },
        signed: signed("agreed"),
    };
    store.add_standard(&standard(1)).await.expect("recorded");
    store.add_standard(&standard(2)).await.expect("recorded");
    assert!(matches!(store.add_standard(&standard(2)).await, Err(StoreError::Conflict(_))));
    let all = store.standards(bakery.product.id).await.expect("both");
    assert_eq!(all.iter().map(|one| one.revision.number).collect::<Vec<_>>(), [2, 1]);
    assert_eq!(all[0].standard, standard(2).standard);

    let batch = bakery.planned(store, Utc::now()).await;
    let case = FaultCaseRecord {
        id: Uuid::now_v7(),
        batch_id: batch,
        fault: "gummy".into(),
        cause: Some("bake_short".into()),
        verdict: Word(CaseVerdict::Confirmed),
        by_change: false,
        note: String::new(),
        made_by: "RK".into(),
        made_at: Utc::now().trunc_subsecs(6),
    };
    store.add_fault_case(&case).await.expect("recorded");
    assert_eq!(store.fault_cases(batch, "gummy").await.expect("kept"), [case]);
    let of = async |process| store.cases_of_process("gummy", process).await.expect("counted");
    assert_eq!(of(Process::StraightBulk).await.len(), 1);
    assert!(of(Process::Frozen).await.is_empty(), "another process has its own");
    assert_eq!(store.finished_after(batch).await.expect("counted"), 0);
    let filter = BatchFilter { fault: Some("gummy".into()), ..BatchFilter::default() };
    assert_eq!(store.batches(&filter, None, 10).await.expect("listed").len(), 1);
}

#[tokio::test]
async fn what_drifts_is_told_until_it_was_seen_or_is_over() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Drifting").await;
    let now = Utc::now().trunc_subsecs(3);
    let days = |days| now - TimeDelta::days(days);
    let run: Vec<RunBatch> = (1..=8).rev().map(|day| bakery.run(days(day), 27.2)).collect();
    store.add_run_batches(&run).await.expect("recorded");
    let waiting = store.batches_to_watch(days(6), 20).await.expect("read");
    assert_eq!(waiting.len(), 6, "older ones say nothing of today");
    let waiting = store.batches_to_watch(days(30), 20).await.expect("read");
    let ids: Vec<Uuid> = waiting.iter().map(|one| one.0).collect();
    assert_eq!(ids, run.iter().map(|one| one.batch.id).collect::<Vec<_>>(), "oldest first");

    let look = async |batch: (Uuid, i64), off: f64| {
        let found = Features::from([("dough_c_d".to_owned(), off)]);
        let house = Coefficients::default();
        let drifting = |newest: &[Features]| drifting(newest, &house);
        store.watch_batch(batch, &found, 8, drifting).await.expect("kept");
        store.drifts().await.expect("read")
    };
    for batch in &waiting[..5] {
        assert_eq!(look(*batch, 1.2).await, [], "five say too little");
    }
    let told = look(waiting[5], 1.2).await;
    let [one] = &told[..] else { panic!("{told:?}") };
    assert_eq!((&*one.feature, one.side.0, one.beyond), ("dough_c_d", DriftSide::Above, 6));
    assert_eq!((&*one.product, one.began_at), ("Drifting", days(8)));
    assert_eq!(one.batches.first(), Some(&ids[5]), "newest first");
    // A further batch goes on with it: it is the same.
    assert_eq!(look(waiting[6], 1.2).await[0].id, one.id);
    let waits = store.batches_to_watch(days(30), 20).await.expect("read");
    assert_eq!(waits, waiting[7..], "the others were looked at");

    let seen =
        DriftSeen { id: Uuid::now_v7(), drift_id: one.id, seen_by: "RK".into(), seen_at: now };
    store.see_drift(&seen).await.expect("recorded");
    store.see_drift(&seen).await.expect("stored once");
    assert_eq!(look(waiting[7], 1.2).await, [], "seen, it is told no more");
    // It ends; when it comes again, that is news.
    for batch in &waiting[..5] {
        look(*batch, 0.0).await;
    }
    let mut last = Vec::new();
    for batch in &waiting[..5] {
        last = look(*batch, 1.2).await;
    }
    assert!(last.len() == 1 && last[0].id != one.id, "{last:?}");
    // A judge's sheet is more to look at.
    let new = sample(&bakery, ids[0], 107);
    store.add_samples(std::slice::from_ref(&new)).await.expect("recorded");
    let sheet = score(new.id, "RK");
    store.add_score(Some(ids[0]), &sheet, |_, before| before).await.expect("recorded");
    let waits = store.batches_to_watch(days(30), 20).await.expect("read");
    assert_eq!(waits.iter().map(|one| one.0).collect::<Vec<_>>(), ids[..1]);
}

#[tokio::test]
async fn a_photograph_lies_there_once_and_the_newest_of_a_view_stands() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let bakery = Bakery::open(store, "Pictured").await;
    let batch = bakery.planned(store, Utc::now()).await;
    let samples = [101, 102].map(|code| sample(&bakery, batch, code));
    store.add_samples(&samples).await.expect("recorded");
    let taken = |content: &[u8]| Photograph {
        hash: format!("{:064x}", content.len()),
        media_type: "image/png".into(),
        width: 4,
        height: 3,
        content: content.to_vec(),
    };
    let of = |sample: usize, taken: &Photograph, minute| SamplePhotograph {
        id: Uuid::now_v7(),
        sample_id: samples[sample].id,
        hash: taken.hash.clone(),
        shows: Word(PhotographView::CutFace),
        taken_by: "RK".into(),
        taken_at: Utc::now().trunc_subsecs(3) + TimeDelta::minutes(minute),
    };
    let (first, second) = (taken(b"one"), taken(b"another"));
    for (of, taken) in
        [(of(0, &first, 0), &first), (of(1, &first, 0), &first), (of(0, &second, 1), &second)]
    {
        store.add_photograph(&of, taken).await.expect("recorded");
        store.add_photograph(&of, taken).await.expect("stored once");
    }
    let ids = [samples[0].id, samples[1].id];
    let stand = store.photographs(&ids).await.expect("read");
    let hash = |sample| stand.iter().find(|one| one.sample_id == sample).map(|one| &one.hash);
    assert_eq!((hash(ids[0]), hash(ids[1])), (Some(&second.hash), Some(&first.hash)));
    let content = store.photograph_content(&first.hash).await.expect("read");
    assert_eq!(content, ("image/png".into(), b"one".to_vec()));
    let unknown = SamplePhotograph { sample_id: Uuid::now_v7(), ..of(0, &first, 2) };
    let refused = store.add_photograph(&unknown, &first).await;
    assert!(matches!(refused, Err(StoreError::NotFound(_))), "{refused:?}");
}
