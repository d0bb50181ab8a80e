//! The what-if and planned batches on the real server.

use crate::support::{Plant, fields, full_mixer, new_id, number};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

const CHAIN: &str = "/api/v1/chain";

#[tokio::test]
async fn another_lot_moves_the_chain_and_says_why() {
    let plant = Plant::open().await;
    let now = plant.scenario("deck-roll-60", "VR-26-1063", full_mixer()).await;
    let before = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let (status, answer) = plant.post(CHAIN, &json!({"now": now, "before": before})).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    let changes = answer["changes"].as_array().expect("a list");
    let floor = changes.iter().find(|one| one["figure"] == "floor_pct").expect("water moved");
    let told: f64 = floor["because"]
        .as_array()
        .expect("a list")
        .iter()
        .map(|because| because["delta"].as_f64().expect("a number"))
        .sum();
    assert!((told - floor["delta"].as_f64().expect("a number")).abs() < 0.02);
    let build_up = &answer["chain"]["water"];
    let sum: f64 = build_up["steps"]
        .as_array()
        .expect("a list")
        .iter()
        .map(|step| step["points"].as_f64().expect("a number"))
        .sum();
    assert!((sum - build_up["floor_pct"].as_f64().expect("a number")).abs() < 1e-9);
}

#[tokio::test]
async fn what_could_not_be_used_before_spoils_nothing_now() {
    let plant = Plant::open().await;
    let now = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let wrong = json!({"amount": {"by": "dough", "kg": -4}});
    let before = plant.scenario("deck-roll-60", "VR-26-1090", wrong).await;
    let (status, answer) = plant.post(CHAIN, &json!({"now": now, "before": before})).await;
    assert_eq!((status, &answer["changes"]), (StatusCode::OK, &json!([])));
    assert!(answer["chain"]["sheet"].is_object());
}

#[tokio::test]
async fn what_a_lot_does_not_state_is_taken_as_usual_and_marked() {
    let plant = Plant::open().await;
    plant.record_lot("Tarn Plain", "VP-BARE", &[["W", "200", "10-4 J", ""]]).await;
    let scenario = plant.scenario("causeway-stick", "VP-BARE", full_mixer()).await;
    let (status, answer) = plant.post(CHAIN, &json!({"now": scenario})).await;
    assert_eq!((status, &answer["chain"]["error"]), (StatusCode::OK, &Value::Null));
    let assumed = answer["chain"]["flour"]["assumed"].as_array().expect("a list");
    let assumed: Vec<_> = assumed.iter().map(|one| &one["property"]).collect();
    assert_eq!(assumed, ["moisture", "protein", "damaged_starch"]);
    let water = &answer["chain"]["water"];
    assert!(number(&water["high_pct"]) - number(&water["low_pct"]) > 6.0, "{water}");
    let run_settings = json!({"amount": {"by": "dough", "kg": 12}, "hydration_pct": 78});
    let scenario = plant.scenario("causeway-stick", "VP-BARE", run_settings).await;
    let (_, answer) = plant.post(CHAIN, &json!({"now": scenario})).await;
    assert_eq!(answer["chain"]["error"], Value::Null);
    assert_eq!(answer["chain"]["dough"]["formula_hydration_pct"], 78.0);
}

#[tokio::test]
async fn what_cannot_be_is_said_at_its_field() {
    let plant = Plant::open().await;
    for (run_settings, named) in [
        (json!({"amount": {"by": "dough", "kg": -4}}), "now.run_settings.amount.kg"),
        (json!({"amount": {"by": "pieces"}}), "now.run_settings.amount.pieces"),
        (json!({"amount": {"by": "mixer", "doughs": 1}, "tap_c": 300}), "now.run_settings.tap_c"),
        (
            json!({"amount": {"by": "mixer", "doughs": 1}, "hydration_pct": "wet"}),
            "now.run_settings.hydration_pct",
        ),
        (
            json!({"amount": {"by": "mixer", "doughs": 1}, "division_kg": 0}),
            "now.run_settings.division_kg",
        ),
    ] {
        let scenario = plant.scenario("deck-roll-60", "VR-26-1090", run_settings).await;
        let (status, problem) = plant.post(CHAIN, &json!({"now": scenario})).await;
        assert_eq!((status, fields(&problem)), (StatusCode::UNPROCESSABLE_ENTITY, vec![named]));
    }
    let mut scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    scenario["draft"] =
        json!({"lines": [{"ingredient": "flour", "pct": 0}, {"ingredient": "salt", "pct": -2}]});
    let (_, problem) = plant.post(CHAIN, &json!({"now": scenario})).await;
    assert_eq!(fields(&problem), ["lines[1].pct"]);
    scenario["draft"] = json!({"lines": [{"ingredient": "flour", "pct": 0}]});
    let (_, problem) = plant.post(CHAIN, &json!({"now": scenario})).await;
    assert!(problem["detail"].as_str().is_some_and(|message| message.contains("make no dough")));
    scenario["revision_refs"]["lot_revision_id"] = json!(new_id());
    let (status, _) = plant.post(CHAIN, &json!({"now": scenario})).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

async fn plan(plant: &Plant, id: &str, scenario: &Value) -> (StatusCode, Value) {
    let body = json!({
        "slug": "deck-roll-60", "scenario": scenario, "planned_for": "2026-11-24T22:00:00Z",
    });
    plant.put(&format!("/api/v1/batches/{id}"), &body).await
}

#[tokio::test]
async fn a_planned_batch_stays_as_it_was_issued_whatever_is_changed_later() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let id = new_id();
    let (status, batch) = plan(&plant, &id, &scenario).await;
    assert_eq!(status, StatusCode::OK, "{batch}");
    plan(&plant, &id, &scenario).await;
    let page = plant.get("/api/v1/batches").await;
    assert_eq!(page["batches"].as_array().map(Vec::len), Some(1), "sent twice, stored once");

    let product = plant.get("/api/v1/products/deck-roll-60").await;
    let formula = product["formula"]["id"].as_str().expect("an id");
    let mut lines = product["formula"]["lines"].clone();
    lines[1]["pct"] = json!(2.2);
    let revision = json!({
        "number": 2, "lines": lines, "piece_kg": 0.060,
        "signed": {"reason": "cold night"},
    });
    let path = format!("/api/v1/formulas/{formula}/revisions/{}", new_id());
    let (status, changed) = plant.put(&path, &revision).await;
    assert_eq!((status, &changed["revision"]["number"]), (StatusCode::OK, &json!(2)));
    let other = format!("/api/v1/formulas/{formula}/revisions/{}", new_id());
    assert_eq!(plant.put(&other, &revision).await.0, StatusCode::CONFLICT);

    let kept = plant.get(&format!("/api/v1/batches/{id}")).await;
    assert_eq!(kept["issued"], batch["issued"]);
    assert_eq!(kept["issued"]["formula_number"], 1);
    assert_eq!(
        kept["revision_refs"]["formula_revision_id"],
        scenario["revision_refs"]["formula_revision_id"]
    );
    let newest = plant.get("/api/v1/products/deck-roll-60").await;
    assert_eq!(newest["formula"]["lines"][1]["pct"], 2.2);
}

#[tokio::test]
async fn a_batch_without_a_name_or_a_sheet_is_not_planned() {
    let plant = Plant::open().await;
    let dry = json!({"hydration_pct": 20, "amount": {"by": "mixer", "doughs": 1}});
    let scenario = plant.scenario("ferry-tin-800", "VR-26-1090", dry).await;
    let body = json!({
        "slug": "ferry-tin-800", "scenario": scenario, "planned_for": "2026-11-24T22:00:00Z",
    });
    let (status, problem) = plant.put(&format!("/api/v1/batches/{}", new_id()), &body).await;
    assert_eq!((status, fields(&problem)), (StatusCode::UNPROCESSABLE_ENTITY, vec!["scenario"]));
    let mut wrong = plant.scenario("causeway-stick", "VP-26-0435", full_mixer()).await;
    let strong = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    wrong["revision_refs"]["specification_revision_id"] =
        strong["revision_refs"]["specification_revision_id"].clone();
    let (_, problem) = plan(&plant, &new_id(), &wrong).await;
    assert_eq!(
        fields(&problem),
        [
            "scenario.revision_refs.formula_revision_id",
            "scenario.revision_refs.method_revision_id",
            "scenario.revision_refs.line_revision_id",
            "scenario.revision_refs.lot_revision_id",
            "scenario.revision_refs.specification_revision_id",
        ]
    );
    let body = json!({"slug": "deck-roll-60", "scenario": scenario, "planned_for": "tonight"});
    let (status, problem) = plant.put(&format!("/api/v1/batches/{}", new_id()), &body).await;
    assert_eq!((status, fields(&problem)), (StatusCode::UNPROCESSABLE_ENTITY, vec!["planned_for"]));
}

#[tokio::test]
async fn a_restarted_database_loses_nothing_and_a_lost_one_is_told() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let id = new_id();
    assert_eq!(plan(&plant, &id, &scenario).await.0, StatusCode::OK);
    plant.database.cut_connections().await;
    let kept = plant.get(&format!("/api/v1/batches/{id}")).await;
    assert_eq!(kept["saved_by"], "RK");

    let nowhere = ironpeel_store::Database::new("postgres://nobody@127.0.0.1:1/nothing", None)
        .and_then(|nowhere| ironpeel_store::Store::new(nowhere, 1));
    let app =
        ironpeel_server::app(nowhere.expect("connects later"), ironpeel_server::Config::default());
    let listener = tokio::net::TcpListener::bind("127.0.0.1:0").await.expect("a free port");
    let base = format!("http://{}", listener.local_addr().expect("bound"));
    tokio::spawn(ironpeel_server::serve(listener, app, Box::pin(std::future::pending())));
    for path in ["/readyz", "/api/v1/lots", "/api/v1/products/deck-roll-60"] {
        let asked = reqwest::Client::new().get(format!("{base}{path}")).bearer_auth("a key");
        let response = asked.send().await.expect("an answer");
        assert_eq!(response.status(), StatusCode::SERVICE_UNAVAILABLE);
        assert!(response.headers().contains_key("retry-after"));
        let problem: Value = response.json().await.expect("JSON");
        assert!(problem["detail"].as_str().is_some_and(|message| message.contains("sent again")));
    }
    let healthy = reqwest::get(format!("{base}/healthz")).await.expect("an answer");
    assert_eq!(healthy.status(), StatusCode::OK);
}

#[tokio::test]
async fn the_document_of_the_api_is_the_one_the_interface_was_made_from() {
    let plant = Plant::open().await;
    let served = plant.get("/api/openapi.json").await;
    let kept: Value = serde_json::from_str(include_str!("../../../../web/src/api/openapi.json"))
        .expect("web/src/api/openapi.json is JSON");
    assert!(served == kept, "run `make generate`");
    for path in ["/api/v1/calc/moisture-basis", "/api/v1/calc/dough-temperature"] {
        assert!(served["paths"][path]["post"].is_object(), "{path}");
    }
    let (_, none) = plant.ask(Method::GET, "/api/nothing", &Value::Null).await;
    assert_eq!(none["status"], 404);
}

#[tokio::test]
async fn a_dough_is_followed_to_the_oven() {
    let plant = Plant::open().await;
    for (slug, lot) in [
        ("deck-roll-60", "VR-26-1090"),
        ("ferry-tin-800", "VR-26-1090"),
        ("holm-tin", "BS-0430"),
        ("rigg-spelt-500", "RS-26-0505"),
        ("lantern-flats", "LB-26-0440"),
    ] {
        let scenario = plant.scenario(slug, lot, full_mixer()).await;
        let (status, found) = plant.post("/api/v1/chain/fermentation", &scenario).await;
        assert_eq!(status, StatusCode::OK, "{slug}: {found}");
        let stages = found["stages"].as_array().expect("a list");
        let series = found["series"].as_array().expect("a list");
        let end = stages.last().expect("at least one");
        let risen = end["rise_pct"].as_f64().expect("a number");
        assert!(risen > 10.0, "{slug} rises {risen} %");
        let (to, last) = (&end["to_h"], &series.last().expect("a moment")["t_h"]);
        assert!(to.as_f64().zip(last.as_f64()).is_some_and(|(to, last)| (to - last).abs() < 1e-9));
        let yeasted = found["yeast_idy_pct"].as_f64().expect("a number") > 0.0;
        let seasons = found["seasons"].as_array().expect("a list");
        assert_eq!(seasons.len(), if yeasted { 11 } else { 0 }, "{slug}");
        assert_eq!(found["sponge"].is_object(), slug == "ferry-tin-800");
        assert_eq!(found["jar"].as_array().map(Vec::len), Some(3));
    }
}

#[tokio::test]
async fn the_yeast_for_a_rise_gives_that_rise() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let ask = |rise: Value| json!({"scenario": scenario, "rise_pct": rise});
    let (status, found) = plant.post("/api/v1/chain/target-rise", &ask(json!(120))).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    let mut edited = scenario.clone();
    let mut lines = plant.get("/api/v1/products/deck-roll-60").await["formula"]["lines"].clone();
    let yeast = lines.as_array_mut().expect("a list").iter_mut();
    for line in yeast.filter(|line| line["ingredient"] == "instant_yeast") {
        line["pct"] = found["yeast_idy_pct"].clone();
    }
    edited["draft"] = json!({"lines": lines});
    let (_, risen) = plant.post("/api/v1/chain/fermentation", &edited).await;
    let end = risen["stages"].as_array().and_then(|stages| stages.last()).expect("a stage");
    assert!((end["rise_pct"].as_f64().expect("a number") - 120.0).abs() < 1.0, "{end}");

    let (_, none) = plant.post("/api/v1/chain/target-rise", &ask(json!(990))).await;
    assert_eq!(none["yeast_idy_pct"], Value::Null);
    assert!(
        none["message"].as_str().is_some_and(|message| message.contains("gives way")),
        "{none}"
    );
    let (status, problem) = plant.post("/api/v1/chain/target-rise", &ask(json!(0))).await;
    assert_eq!((status, fields(&problem)), (StatusCode::UNPROCESSABLE_ENTITY, vec!["rise_pct"]));
    let mut flat = scenario.clone();
    flat["draft"] = json!({"lines": [{"ingredient": "flour", "pct": 100}]});
    let (status, problem) = plant.post("/api/v1/chain/fermentation", &flat).await;
    assert_eq!((status, fields(&problem)), (StatusCode::UNPROCESSABLE_ENTITY, vec!["scenario"]));
    assert!(problem.to_string().contains("nothing in this dough makes gas"), "{problem}");
}
