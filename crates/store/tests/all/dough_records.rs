//! Formulas, products, numbers, trials and batches on a real database.

use crate::support::{flour, lot, signed};
use diesel_async::AsyncPgConnection;
use diesel_async::async_connection_wrapper::AsyncConnectionWrapper;
use ironpeel_core::chain::{ScenarioFormula, ScenarioLine};
use ironpeel_core::coefficient::Override;
use ironpeel_core::dough::{
    FlourShareInput, Formula, FormulaDraft, Ingredient, LineInput, Losses, PreparationInput,
    PreparationKind, Vessel,
};
use ironpeel_core::heat::WaterSources;
use ironpeel_core::method::{
    Addition, AmbientPoint, BakePhase, EndPoint, Equipment, Method, Mixer, OptionalStep, OvenAid,
    Process, Stage, StageKind, TimeTolerance,
};
use ironpeel_core::plant::OwnParameters;
use ironpeel_core::units::Estimate;
use ironpeel_core::water::coefficients::RYE_OFFSET;
use ironpeel_core::water::{AbsorptionModel, Composition};
use ironpeel_store::testing::TestDatabase;
use ironpeel_store::{
    BatchFilter, BatchFlour, DoughTemperature, NewBatch, NewBatchState, NewFormula, NewLine,
    NewMethod, NewTrial, Product, Store, StoreError,
};
use serde_json::{Value, json};
use uuid::Uuid;

fn line(ingredient: Ingredient, pct: f64) -> LineInput {
    LineInput { ingredient, pct: pct.into() }
}

/// A plain formula, or with these flours and a starter of the second.
fn formula(flours: &[(String, f64)]) -> ScenarioFormula {
    let starter = |flour: &String| PreparationInput {
        id: Some(Uuid::from_u128(1)),
        name: "rye sour".into(),
        flour: Some(flour.clone()),
        flour_pct: 12.5.into(),
        water_pct: 15.0.into(),
        temperature_c: 26.0.into(),
        rate: 1.25.into(),
        set_c: 27.0.into(),
        lines: vec![line(Ingredient::Salt, 0.2)],
        ..PreparationInput::of(PreparationKind::Starter)
    };
    let soaker = PreparationInput {
        id: Some(Uuid::from_u128(2)),
        name: "seeds".into(),
        flour_pct: 0.0.into(),
        water_pct: 6.0.into(),
        vessel: Some(Vessel::Pot),
        water_c: 60.0.into(),
        lines: vec![line(Ingredient::Seeds, 8.0)],
        ..PreparationInput::of(PreparationKind::Soaker)
    };
    let parts = flours.get(1).map(|(name, _)| vec![starter(name), soaker]);
    let draft = FormulaDraft {
        lines: vec![
            line(Ingredient::Flour, 100.0),
            line(Ingredient::Salt, 1.9),
            line(Ingredient::Seeds, 8.0),
            line(Ingredient::Own(7), 0.25),
        ],
        flours: flours
            .iter()
            .map(|(name, share)| FlourShareInput { name: name.clone(), share_pct: (*share).into() })
            .collect(),
        parts: parts.unwrap_or_default(),
    };
    ScenarioFormula {
        formula: Formula::check(&draft).expect("makes a dough"),
        style_points: -1.5,
        piece_kg: 0.875,
        losses: Losses { bake_pct: 11.5, ..Losses::house() },
        hydration_pct: None,
        batch_kg: None,
    }
}

fn method() -> Method {
    let stage = |id: u128, kind, label: &str, minutes| Stage {
        id: Some(Uuid::from_u128(id)),
        temperature_c: Some(27.0),
        ends_when: "thin enough to read through".into(),
        end_point: EndPoint::Windowpane,
        reason: "all the development".into(),
        tolerance: Some(TimeTolerance { low_min: 5.0, high_min: 90.0 }),
        adds: vec![
            Addition::rest_of(Ingredient::Salt),
            Addition {
                ingredient: Ingredient::Water,
                share_pct: Some(15.0),
                temperature_c: Some(95.0),
            },
        ],
        ..Stage::new(kind, label, minutes)
    };
    Method {
        process: Process::StraightBulk,
        target_c: 25.0,
        sponge_c: None,
        machine_divided: false,
        stages: vec![
            stage(1, StageKind::Mix, "Mix", 8.0),
            Stage {
                ends_when: "nearly doubled".into(),
                end_point: EndPoint::Rise,
                ends_at: Some(100.0),
                ambient_curve: vec![AmbientPoint { after_min: 40.0, temperature_c: 24.0 }],
                ..stage(2, StageKind::Proof, "Proof", 60.0)
            },
            Stage {
                end_point: EndPoint::Time,
                ends_at: Some(30.0),
                ends_after: Some(Uuid::from_u128(2)),
                programme: vec![BakePhase {
                    minutes: 30.0,
                    top_c: 230.0,
                    bottom_c: None,
                    steam_s: Some(10.0),
                    steam_until_core_c: Some(80.0),
                    lid: true,
                    tin_out: false,
                    aid: Some(OvenAid::HotVessel),
                    damper_open: false,
                }],
                ..stage(3, StageKind::Bake, "Bake", 30.0)
            },
        ],
    }
}

async fn names(store: &Store, shares: &[f64]) -> Vec<(String, f64)> {
    let mut all = Vec::new();
    for share in shares {
        let id = flour(store).await;
        all.push((store.flour(id).await.expect("on record").name, *share));
    }
    all
}

fn state(formula_id: Uuid, number: i32, formula: ScenarioFormula) -> NewFormula {
    let signed = signed("a colder night");
    let (name, revision_id) = ("Gull Loaf".into(), Uuid::now_v7());
    NewFormula { formula_id, name, revision_id, number, formula, signed }
}

/// A product of one flour on a line of its own, ready to plan with.
async fn product(store: &Store, name: &str) -> Product {
    let flour_id = flour(store).await;
    let line_id = Uuid::now_v7();
    let bench = ScenarioLine {
        mixer: Mixer {
            name: "Bench mixer".into(),
            kind: "spiral".into(),
            min_kg: 1.0,
            max_kg: 20.0,
            slow_kj_per_kg_min: 1.1,
            fast_kj_per_kg_min: 2.6,
            jacket_kj_per_kg_min: None,
        },
        equipment: Equipment {
            turn_min: 3.0,
            troughs: 4,
            trough_kg: 20.0,
            trough_m2: 0.2,
            divider_per_min: 4.0,
            proofer_pieces: 80.0,
            oven_pieces: 40.0,
        },
        division_kg: 0.001,
        tap_c: 12.0,
        flour_c: 20.0,
        room_c: 22.0,
        water: WaterSources {
            chilled_c: Some(3.0),
            refrigerator_c: None,
            hot_c: Some(55.0),
            max_ice_pct: 60.0,
        },
    };
    let new = NewLine {
        line_id,
        name: format!("Bench of {name}"),
        revision_id: Uuid::now_v7(),
        number: 1,
        line: bench,
        signed: signed("first state"),
    };
    store.add_line(&new).await.expect("recorded");
    let line = new.name;
    let new = Product {
        id: Uuid::now_v7(),
        slug: name.to_lowercase().replace(' ', "-"),
        name: name.into(),
        flour_id,
        flour: store.flour(flour_id).await.expect("on record").name,
        formula_id: Uuid::now_v7(),
        method_id: Uuid::now_v7(),
        line_id,
        line,
    };
    store
        .make_product(&new, &formula(&[]), &method(), &signed("from a template"))
        .await
        .expect("recorded");
    new
}

#[tokio::test]
async fn a_formula_comes_back_with_its_flours_parts_and_lines() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flours = names(store, &[70.0, 30.0]).await;
    let new = state(Uuid::now_v7(), 1, formula(&flours));
    store.add_formula(&new).await.expect("recorded");
    store.add_formula(&new).await.expect("sent again, stored once");
    let found = store.formula(new.revision_id).await.expect("on record");
    assert_eq!(found.formula, new.formula);
    assert_eq!((found.name, found.revision.made_by), (new.name, new.signed.by));
    assert_eq!(store.formula_revisions(new.formula_id).await.expect("a list").len(), 1);
}

#[tokio::test]
async fn a_revision_takes_nothing_from_the_one_before() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flours = names(store, &[60.0, 40.0]).await;
    let first = state(Uuid::now_v7(), 1, formula(&flours));
    let second = state(first.formula_id, 2, formula(&[]));
    store.add_formula(&first).await.expect("recorded");
    store.add_formula(&second).await.expect("recorded");
    let current = store.current_formula(first.formula_id).await.expect("newest");
    assert_eq!((current.revision.number, &current.formula), (2, &second.formula));
    let old = store.formula(first.revision_id).await.expect("the old one");
    assert_eq!(old.formula, first.formula, "its parts and flours are still its own");
    let late = state(first.formula_id, 2, formula(&[]));
    let refused = store.add_formula(&late).await.expect_err("somebody was there before");
    assert!(matches!(refused, StoreError::Conflict(message) if message.contains("somebody else")));
    let numbers: Vec<i32> = store
        .formula_revisions(first.formula_id)
        .await
        .expect("a list")
        .into_iter()
        .map(|revision| revision.number)
        .collect();
    assert_eq!(numbers, [2, 1]);
}

#[tokio::test]
async fn a_flour_renamed_is_still_the_formulas_flour() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let flours = names(store, &[80.0, 20.0]).await;
    let new = state(Uuid::now_v7(), 1, formula(&flours));
    store.add_formula(&new).await.expect("recorded");
    let all = store.flours().await.expect("a list");
    let mut second = all.into_iter().find(|one| one.name == flours[1].0).expect("on record");
    second.name = "Kesh Rye".into();
    store.add_flour(&second, Uuid::now_v7(), 2, &signed("new")).await.expect("recorded");
    let found = store.formula(new.revision_id).await.expect("on record");
    assert_eq!(found.formula.formula.flours()[1].name, "Kesh Rye");
    assert_eq!(found.formula.formula.parts()[0].flour.as_deref(), Some("Kesh Rye"));
}

#[tokio::test]
async fn a_formula_of_a_flour_nobody_knows_stores_nothing() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let mut flours = names(store, &[80.0, 20.0]).await;
    flours[1].0 = "Nobody's Flour".into();
    let new = state(Uuid::now_v7(), 1, formula(&flours));
    store.add_formula(&new).await.expect_err("it is not on record");
    assert!(store.formula(new.revision_id).await.is_err());
    assert!(store.current_formula(new.formula_id).await.is_err(), "not even its name");
}

#[tokio::test]
async fn a_product_is_made_whole_or_not_at_all() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let made = product(store, "Gull Loaf").await;
    assert_eq!(store.product("gull-loaf").await.expect("on record"), made);
    assert_eq!(store.current_method(made.method_id).await.expect("its own").method, method());
    let lines = store.lines().await.expect("a list");
    let lines: Vec<_> = lines.iter().map(|line| (line.line_id, &line.name)).collect();
    assert_eq!(lines, [(made.line_id, &made.line)]);
    let revisions = store.line_revisions(made.line_id).await.expect("a list");
    assert_eq!(revisions.iter().map(|one| one.number).collect::<Vec<_>>(), [1]);
    assert_eq!(store.line_name(made.line_id).await.expect("on record"), made.line);

    let again = Product {
        id: Uuid::now_v7(),
        formula_id: Uuid::now_v7(),
        method_id: Uuid::now_v7(),
        ..made.clone()
    };
    let refused = store.make_product(&again, &formula(&[]), &method(), &signed("")).await;
    assert!(matches!(refused, Err(StoreError::Conflict(message)) if message.contains("Gull Loaf")));
    assert!(store.current_formula(again.formula_id).await.is_err(), "nor its formula");
    assert!(store.current_method(again.method_id).await.is_err(), "nor its method");
    assert_eq!(store.products().await.expect("a list").len(), 1);
    assert!(matches!(store.product("tern").await, Err(StoreError::NotFound(_))));
    assert!(matches!(store.line_name(Uuid::now_v7()).await, Err(StoreError::NotFound(_))));
}

#[tokio::test]
async fn the_plants_parameters_come_back_as_they_were_held() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    assert!(store.current_parameters().await.expect("asked").is_none(), "the house's hold");
    let model = AbsorptionModel::default().learn(
        Composition {
            protein_14_pct: Some(12.9),
            damaged_starch_pct: Some(8.2),
            ash_dm_pct: Some(0.6),
        },
        62.1,
    );
    let own = OwnParameters {
        coefficients: vec![Override {
            key: RYE_OFFSET.key.into(),
            off: false,
            value: Estimate::new(9.0, 5.0, 12.0),
            reason: "twelve doughs".into(),
        }],
        ingredients: Vec::new(),
        model: Some(model),
    };
    let first = Uuid::now_v7();
    for _ in 0..2 {
        store.add_parameters(first, 1, &own, &signed("a year of lots")).await.expect("recorded");
    }
    let current = store.current_parameters().await.expect("asked").expect("on record");
    assert_eq!((current.revision.number, &current.own), (1, &own));
    assert_eq!(current.parameters.model.lots(), 1);
    assert!((current.parameters.coefficients.value(&RYE_OFFSET) - 9.0).abs() < f64::EPSILON);

    let back = OwnParameters::default();
    store.add_parameters(Uuid::now_v7(), 2, &back, &signed("house again")).await.expect("recorded");
    let late = store.add_parameters(Uuid::now_v7(), 2, &own, &signed("late")).await;
    assert!(
        matches!(late, Err(StoreError::Conflict(message)) if message.contains("somebody else"))
    );
    assert_eq!(store.parameters(first).await.expect("the old one").own, own);
    let reasons: Vec<String> = store
        .parameters_revisions()
        .await
        .expect("a list")
        .into_iter()
        .map(|revision| revision.reason)
        .collect();
    assert_eq!(reasons, ["house again", "a year of lots"]);
    assert!(matches!(store.parameters(Uuid::now_v7()).await, Err(StoreError::NotFound(_))));
}

#[tokio::test]
async fn a_trial_is_kept_once_and_found_newest_first() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let made = product(store, "Gull Loaf").await;
    let mut ids = Vec::new();
    for number in 0..5 {
        let new = NewTrial {
            id: Uuid::now_v7(),
            product_id: made.id,
            saved_by: "RK".into(),
            asked: json!({"number": number}),
            issued: json!({"variants": [number, 2.5]}),
        };
        store.add_trial(&new).await.expect("recorded");
        let other = NewTrial { issued: json!("something else"), ..new.clone() };
        store.add_trial(&other).await.expect("sent again, stored once");
        let found = store.trial(new.id).await.expect("on record");
        assert_eq!((found.issued, &*found.slug), (new.issued, "gull-loaf"));
        ids.push(new.id);
    }
    let mut seen = Vec::new();
    let mut after = None;
    loop {
        let page = store.trials(after, 2).await.expect("a page");
        let Some(last) = page.last() else { break };
        after = Some((last.saved_at, last.id));
        seen.extend(page.into_iter().map(|trial| trial.id));
    }
    ids.reverse();
    assert_eq!(seen, ids);
    assert!(matches!(store.trial(Uuid::now_v7()).await, Err(StoreError::NotFound(_))));
}

/// A batch of a product to be planned, with a lot of each of three flours.
async fn batch_of(
    store: &Store,
    made: &Product,
    issued: Value,
) -> (NewBatch, Vec<BatchFlour>, NewBatchState) {
    let mut lots = Vec::new();
    let mut revision_refs = Vec::new();
    for (number, flour_id) in
        [made.flour_id, flour(store).await, flour(store).await].into_iter().enumerate()
    {
        let new = lot(flour_id, &format!("VR-{number}"), 1, 12.0);
        store.add_lot_revision(&new).await.expect("recorded");
        lots.push((new.lot_id, Some(25.0)));
        // Of the last nothing is asked.
        let specification_revision_id = (number < 2).then(Uuid::now_v7);
        if let Some(id) = specification_revision_id {
            store
                .add_specification(flour_id, id, 1, &[], &signed("first"))
                .await
                .expect("recorded");
        }
        let lot_revision_id = new.revision_id;
        revision_refs.push(BatchFlour { lot_revision_id, specification_revision_id });
    }
    let numbers = Uuid::now_v7();
    store
        .add_parameters(numbers, 1, &OwnParameters::default(), &signed("ours"))
        .await
        .expect("recorded");
    let formula = store.current_formula(made.formula_id).await.expect("its own");
    let method = store.current_method(made.method_id).await.expect("its own");
    let line = store.current_line(made.line_id).await.expect("its own");
    let new = NewBatch {
        id: Uuid::now_v7(),
        product_id: made.id,
        lot_revision_id: revision_refs[0].lot_revision_id,
        specification_revision_id: revision_refs[0].specification_revision_id,
        formula_revision_id: formula.revision.id,
        method_revision_id: method.revision.id,
        line_revision_id: line.revision.id,
        parameters_revision_id: Some(numbers),
        water_correction_id: None,
        planned_for: chrono::Utc::now(),
        saved_by: "RK".into(),
        run_settings: json!({"amount": {"by": "mixer", "doughs": 1}}),
        issued,
    };
    let state = NewBatchState {
        line_id: made.line_id,
        flour_id: made.flour_id,
        lot_id: lots[0].0,
        lots,
        standing_pts: 0.0,
        damaged_starch_caution: false,
        water_was_set: false,
    };
    (new, revision_refs.split_off(1), state)
}

#[tokio::test]
async fn a_batch_keeps_its_numbers_and_the_lot_of_each_flour() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let made = product(store, "Gull Loaf").await;
    let (new, other_lots, state) = batch_of(store, &made, json!({"chain": null})).await;
    store.add_batch(&new, &other_lots, &state).await.expect("recorded");
    store.add_batch(&new, &other_lots, &state).await.expect("sent again, stored once");
    let (batch, slug, others) = store.batch(new.id).await.expect("on record");
    assert_eq!((batch.parameters_revision_id, &*slug), (new.parameters_revision_id, "gull-loaf"));
    assert_eq!(others, other_lots, "in the order of the formula");
    let all = BatchFilter::default();
    assert_eq!(store.batches(&all, None, 10).await.expect("a list").len(), 1);
    let lots = store.lots_of_batch(new.id).await.expect("its lots");
    assert_eq!(lots.len(), 3);
    // From any of them the batch is found again.
    for lot in lots {
        let uses = store.uses_of_lot(lot.lot_id, None, 10).await.expect("its batches");
        assert_eq!(uses.iter().map(|one| one.batch_id).collect::<Vec<_>>(), [new.id]);
        let filter = BatchFilter { lot: Some(lot.lot), ..BatchFilter::default() };
        assert_eq!(store.batches(&filter, None, 10).await.expect("a list").len(), 1);
    }

    let gone = BatchFlour { lot_revision_id: Uuid::now_v7(), ..other_lots[0] };
    let other = NewBatch { id: Uuid::now_v7(), ..new };
    assert!(store.add_batch(&other, &[gone], &state).await.is_err());
    assert!(store.batch(other.id).await.is_err(), "nothing is stored half");
}

/// Takes a database to before the standard terms, or back to today.
async fn migrate(database: &TestDatabase, down: bool) {
    use diesel_migrations::{FileBasedMigrations, MigrationHarness};
    let url = database.url.clone();
    let migrating = tokio::task::spawn_blocking(move || {
        use diesel::Connection;
        let mut connection =
            AsyncConnectionWrapper::<AsyncPgConnection>::establish(&url).expect("connected");
        let migrations = FileBasedMigrations::find_migrations_directory().expect("a folder");
        if down {
            let mut down = || {
                let migrations = FileBasedMigrations::find_migrations_directory();
                connection.revert_last_migration(migrations.expect("a folder")).expect("down")
            };
            while down().to_string() != "20261126230000" {}
        } else {
            connection.run_pending_migrations(migrations).map(drop).expect("up");
        }
    });
    migrating.await.expect("no panic");
    database.cut_connections().await;
}

#[tokio::test(flavor = "multi_thread")]
async fn documents_of_earlier_versions_are_read_by_the_terms_of_today() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let made = product(store, "Gull Loaf").await;
    let issued = json!({
        "releases": [
            {"lot": "VR-0", "decision": {"decision": "release_with_note"}},
            {"lot": "VR-1", "decision": {"decision": "release"}},
        ],
        "chain": {
            "error": null,
            "flour": {"nonconformities": [{"label": "ash", "message": "at its maximum"}]},
            "water": {"floor_pct": 62.0, "cautions": [{"key": "green", "says": "wait"}],
                "steps": [{"key": "process", "coefficient": "no_time"}]},
            "heat": {"levers": [{"lever": "tap"}], "remedies": [{"remedy": "tap", "says": "ice"}]},
        },
    });
    let (batch, other_lots, state) = batch_of(store, &made, issued).await;
    store.add_batch(&batch, &other_lots, &state).await.expect("recorded");
    let trial = NewTrial {
        id: Uuid::now_v7(),
        product_id: made.id,
        saved_by: "RK".into(),
        asked: json!({"scenario": {"revision_refs": {}, "run_settings": {}}, "interventions": []}),
        issued: json!({"variants": [{"dough_absorption_pct": 62.0, "error": null}]}),
    };
    store.add_trial(&trial).await.expect("recorded");
    let own = OwnParameters {
        coefficients: vec![Override {
            key: RYE_OFFSET.key.into(),
            off: false,
            value: Estimate::new(9.0, 5.0, 12.0),
            reason: "twelve doughs".into(),
        }],
        ..OwnParameters::default()
    };
    let parameters = Uuid::now_v7();
    store.add_parameters(parameters, 2, &own, &signed("ours")).await.expect("recorded");

    migrate(&database, true).await;
    // As an earlier version had it, or this statement divides by zero.
    for holds in [
        "SELECT 1 / count(*) FROM batch WHERE issued #> '{chain,trouble}' IS NOT NULL
            AND issued #>> '{chain,flour,concerns,0,says}' = 'at its maximum'
            AND issued #>> '{chain,water,cautions,0,says}' = 'wait'
            AND issued #>> '{chain,water,steps,0,rule}' = 'no_time'
            AND issued #>> '{releases,0,decision,decision}' = 'accept_with_note'
            AND issued #>> '{releases,1,decision,decision}' = 'accept'
            AND knobs ? 'amount'",
        "SELECT 1 / count(*) FROM trial WHERE asked #> '{hand,knobs}' IS NOT NULL
            AND asked ? 'levers' AND issued #>> '{variants,0,floor_pct}' = '62.0'",
        "SELECT 1 / count(*) FROM plant_numbers_revision
            WHERE numbers #>> '{rules,0,rule}' = 'rye_offset'",
    ] {
        database.run(holds).await;
    }
    migrate(&database, false).await;
    let (read, ..) = store.batch(batch.id).await.expect("on record");
    assert_eq!((read.issued, read.run_settings), (batch.issued, batch.run_settings));
    let read = store.trial(trial.id).await.expect("on record");
    assert_eq!((read.asked, read.issued), (trial.asked, trial.issued));
    assert_eq!(store.parameters(parameters).await.expect("on record").own, own);
    let read = store.current_method(made.method_id).await.expect("on record").method;
    let rises = |method: &Method| -> Vec<_> {
        method.stages.iter().take(2).map(|stage| stage.ends_at).collect()
    };
    assert_eq!(rises(&read), rises(&method()), "a rise that was only said in words");
}

#[tokio::test]
async fn methods_are_revised_and_an_old_one_stays_as_it_was() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let made = product(store, "Gull Loaf").await;
    let first = store.current_method(made.method_id).await.expect("its own");
    assert_eq!((first.revision.number, &first.method), (1, &method()));
    let mut changed = method();
    changed.sponge_c = Some(23.5);
    changed.stages[1].minutes = 75.0;
    changed.stages[1].tolerance = None;
    let new = NewMethod {
        method_id: made.method_id,
        name: first.name.clone(),
        revision_id: Uuid::now_v7(),
        number: 2,
        method: changed.clone(),
        signed: signed("proofs longer in winter"),
    };
    store.add_method(&new).await.expect("recorded");
    store.add_method(&new).await.expect("sent again, stored once");
    let now = store.current_method(made.method_id).await.expect("on record");
    assert_eq!((now.revision.number, now.method), (2, changed));
    assert_eq!(store.method(first.revision.id).await.expect("the old one"), first);
    let late = NewMethod { revision_id: Uuid::now_v7(), ..new };
    let refused = store.add_method(&late).await;
    assert!(
        matches!(refused, Err(StoreError::Conflict(message)) if message.contains("somebody else"))
    );
    let reasons: Vec<String> = store
        .method_revisions(made.method_id)
        .await
        .expect("a list")
        .into_iter()
        .map(|revision| revision.reason)
        .collect();
    assert_eq!(reasons[0], "proofs longer in winter");
    assert_eq!(reasons.len(), 2);
}

#[tokio::test]
async fn lines_are_revised_and_doughs_measured_are_kept_once() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let made = product(store, "Gull Loaf").await;
    let was = store.current_line(made.line_id).await.expect("its own");
    let mut line = was.line.clone();
    line.equipment.troughs = 9;
    line.mixer.jacket_kj_per_kg_min = Some(0.8);
    let new = NewLine {
        line_id: made.line_id,
        name: was.name.clone(),
        revision_id: Uuid::now_v7(),
        number: 2,
        line: line.clone(),
        signed: signed("five more troughs"),
    };
    store.add_line(&new).await.expect("recorded");
    store.add_line(&new).await.expect("sent again, stored once");
    assert_eq!(store.current_line(made.line_id).await.expect("on record").line, line);
    assert_eq!(store.line(was.revision.id).await.expect("the old one"), was);

    let now = chrono::Utc::now();
    let dough = |minutes: i64, dough_c: f64| DoughTemperature {
        id: Uuid::now_v7(),
        method_id: made.method_id,
        line_id: made.line_id,
        taken_at: now - chrono::Duration::minutes(minutes),
        taken_by: "RK".into(),
        flour_c: 21.0,
        room_c: 23.0,
        water_c: 12.0,
        preferment_c: (minutes > 30).then_some(28.5),
        ice_share_pct: 0.0,
        ice_c: 0.0,
        mixed: None,
        dough_c,
    };
    let doughs = [dough(60, 26.0), dough(20, 27.0), dough(40, 26.5)];
    store.add_dough_temperatures(&doughs).await.expect("recorded");
    store.add_dough_temperatures(&doughs).await.expect("sent again, stored once");
    let found = store.dough_temperatures(made.method_id, made.line_id, 2).await.expect("a list");
    let temperatures: Vec<f64> = found.iter().map(|one| one.dough_c).collect();
    assert_eq!(temperatures, [27.0, 26.5], "the newest first");
    assert_eq!(found[1].temperatures().preferment_c, Some(28.5));
    let elsewhere = store.dough_temperatures(made.method_id, Uuid::now_v7(), 2).await;
    assert!(elsewhere.expect("a list").is_empty());
}

#[tokio::test]
async fn stages_are_the_same_ones_whatever_they_are_called_and_wherever_they_stand() {
    let database = TestDatabase::new().await;
    let store = &database.store;
    let made = product(store, "Gull Loaf").await;
    let first = store.current_method(made.method_id).await.expect("its own").method;
    let mut changed = first.clone();
    changed.stages[1].label = "Final proof".into();
    let rest = Stage {
        optional_step: Some(OptionalStep::Autolyse),
        ..Stage::new(StageKind::Rest, "Autolyse", 20.0)
    };
    changed.stages.insert(0, rest);
    let new = NewMethod {
        method_id: made.method_id,
        name: "Gull Loaf".into(),
        revision_id: Uuid::now_v7(),
        number: 2,
        method: changed,
        signed: signed("a rest before"),
    };
    store.add_method(&new).await.expect("recorded");
    let now = store.current_method(made.method_id).await.expect("on record").method;
    let ids = |method: &Method| method.stages.iter().map(|stage| stage.id).collect::<Vec<_>>();
    assert_eq!(ids(&now)[1..], ids(&first), "renamed and moved, they are the same");
    assert!(ids(&now)[0].is_some(), "a new one has an id of its own from now on");
    assert_eq!(now.stages[0].optional_step, Some(OptionalStep::Autolyse));
    assert_eq!(store.current_method(made.method_id).await.expect("on record").method, now);
}
