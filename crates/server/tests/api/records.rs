//! Records over HTTP: what is sent twice, what may be planned, what a formula holds.

use crate::support::{Plant, fields, full_mixer, new_id};
use reqwest::StatusCode;
use serde_json::{Value, json};

/// Held in the demo plant: its damaged starch is out.
const DAMAGED: &str = "VR-26-1033";
const STRONG: &str = "VR-26-1090";

fn signed(reason: &str) -> Value {
    json!({"reason": reason})
}

async fn decide(plant: &Plant, lot: &Value, decision: &str) {
    let lot = lot["id"].as_str().expect("an id");
    let path = format!("/api/v1/lots/{lot}/dispositions/{}", new_id());
    let body = json!({"decision": decision, "signed": signed("for rolls")});
    assert_eq!(plant.put(&path, &body).await.0, StatusCode::OK);
}

async fn plan(plant: &Plant, scenario: &Value) -> (StatusCode, Value) {
    let body = json!({
        "slug": "deck-roll-60", "scenario": scenario, "planned_for": "2026-11-24T22:00:00Z",
    });
    plant.put(&format!("/api/v1/batches/{}", new_id()), &body).await
}

#[tokio::test]
async fn no_batch_is_planned_of_a_lot_that_is_held_or_out_and_not_released_for_these_papers() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("deck-roll-60", DAMAGED, full_mixer()).await;
    let barred = async |scenario: &Value, why: &str| {
        let (status, problem) = plan(&plant, scenario).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert_eq!(fields(&problem), ["scenario.revision_refs.lot_revision_id"]);
        assert!(problem.to_string().contains(why), "{problem}");
        let lot = plant.lot(DAMAGED).await;
        assert!(
            lot["status"]["barred"].as_str().is_some_and(|message| message.contains(why)),
            "{lot}"
        );
    };
    barred(&scenario, "it is held").await;
    let lot = plant.lot(DAMAGED).await;
    decide(&plant, &lot, "release").await;
    barred(&scenario, "nobody has released it with a note").await;
    decide(&plant, &lot, "reject").await;
    barred(&scenario, "it was rejected").await;
    decide(&plant, &lot, "release_with_note").await;
    assert_eq!(plant.lot(DAMAGED).await["status"]["barred"], Value::Null);
    let (status, batch) = plan(&plant, &scenario).await;
    assert_eq!(status, StatusCode::OK, "{batch}");

    // Another specification asks for another release.
    let flour = lot["flour"]["id"].as_str().expect("an id");
    let revision = lot["certificate"]["specification"]["id"].as_str().expect("an id");
    let specification = plant.get(&format!("/api/v1/specifications/{revision}")).await;
    let next = json!({
        "number": specification["revision"]["number"].as_i64().expect("a number") + 1,
        "limits": specification["limits"], "signed": signed("the same again"),
    });
    let path = format!("/api/v1/flours/{flour}/specifications/{}", new_id());
    let (status, revised) = plant.put(&path, &next).await;
    assert_eq!(status, StatusCode::OK, "{revised}");
    let scenario = plant.scenario("deck-roll-60", DAMAGED, full_mixer()).await;
    barred(&scenario, "released for an earlier certificate or specification").await;

    // One that is in needs no release, and one that is held stays, in or not.
    let scenario = plant.scenario("deck-roll-60", STRONG, full_mixer()).await;
    assert_eq!(plan(&plant, &scenario).await.0, StatusCode::OK);
    let strong = plant.lot(STRONG).await;
    decide(&plant, &strong, "hold").await;
    let (status, _) = plan(&plant, &scenario).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
}

#[expect(clippy::too_many_lines, reason = "each kind of record in turn")]
#[tokio::test]
async fn the_same_sent_again_is_answered_and_another_of_the_same_name_is_told_what_is_stored() {
    let plant = Plant::open().await;
    let product = plant.get("/api/v1/products/deck-roll-60").await;
    let lot = plant.lot(STRONG).await;
    let lot_id = lot["id"].as_str().expect("an id");
    let formula = product["formula"]["id"].as_str().expect("an id");
    let method = product["method"]["id"].as_str().expect("an id");
    let line = product["line"]["id"].as_str().expect("an id");
    let lines = &product["formula"]["lines"];
    let flour = lot["flour"]["id"].as_str().expect("an id");
    let priced = |price_per_t: f64| {
        let mut state = lot["flour"].clone();
        for (key, value) in [
            ("number", json!(2)),
            ("signed", signed("new contract")),
            ("price_per_t", json!(price_per_t)),
        ] {
            state[key] = value;
        }
        state
    };
    let writes = [
        (format!("/api/v1/flours/{flour}/revisions/{}", new_id()), priced(580.0), priced(600.0)),
        (
            format!("/api/v1/lots/{lot_id}/dispositions/{}", new_id()),
            json!({"decision": "hold", "signed": signed("wait")}),
            json!({"decision": "reject", "signed": signed("wait")}),
        ),
        (
            format!("/api/v1/lots/{lot_id}/stock/{}", new_id()),
            json!({"place": "silo 1", "tonnes_left": 20, "signed": signed("")}),
            json!({"place": "silo 1", "tonnes_left": 2, "signed": signed("")}),
        ),
        (
            format!("/api/v1/formulas/{formula}/revisions/{}", new_id()),
            json!({"number": 2, "lines": lines, "piece_kg": 0.06, "signed": signed("once")}),
            json!({"number": 2, "lines": lines, "piece_kg": 0.07, "signed": signed("once")}),
        ),
        (
            format!("/api/v1/lines/{line}/revisions/{}", new_id()),
            json!({"number": 2, "room_c": 21, "signed": signed("once")}),
            json!({"number": 2, "room_c": 22, "signed": signed("once")}),
        ),
        (
            format!("/api/v1/dough-temperatures/{}", new_id()),
            json!({"method_id": method, "line_id": line, "taken_at": "2026-11-24T22:00:00Z",
                "flour_c": 22, "room_c": 24, "water_c": 9, "dough_c": 27}),
            json!({"method_id": method, "line_id": line, "taken_at": "2026-11-24T22:00:00Z",
                "flour_c": 22, "room_c": 24, "water_c": 9, "dough_c": 29}),
        ),
    ];
    for (path, body, other) in writes {
        let (status, stored) = plant.put(&path, &body).await;
        assert_eq!(status, StatusCode::OK, "{path}: {stored}");
        assert_eq!(plant.put(&path, &body).await, (StatusCode::OK, stored), "{path}");
        let (status, problem) = plant.put(&path, &other).await;
        assert_eq!(status, StatusCode::CONFLICT, "{path}: {problem}");
    }
    let revision = lot["certificate"]["specification"]["id"].as_str().expect("an id");
    let specification = plant.get(&format!("/api/v1/specifications/{revision}")).await;
    let asked = product["method"].clone();
    for number in [0, 4, i32::MAX] {
        let with = |mut body: Value| {
            body["number"] = json!(number);
            body["signed"] = signed("a jump");
            body
        };
        for (path, body) in [
            (format!("formulas/{formula}/revisions"), json!({"lines": lines, "piece_kg": 0.06})),
            (format!("lines/{line}/revisions"), json!({"room_c": 21})),
            (format!("methods/{method}/revisions"), asked.clone()),
            (format!("flours/{flour}/revisions"), lot["flour"].clone()),
            (format!("flours/{flour}/specifications"), json!({"limits": specification["limits"]})),
            ("plant/parameters/revisions".into(), json!({})),
        ] {
            let path = format!("/api/v1/{path}/{}", new_id());
            let (status, problem) = plant.put(&path, &with(body)).await;
            assert!(
                [StatusCode::CONFLICT, StatusCode::UNPROCESSABLE_ENTITY].contains(&status),
                "{path}, {number}: {status} {problem}"
            );
        }
    }
    let newest = plant.get("/api/v1/products/deck-roll-60").await;
    assert_eq!(newest["formula"]["revision"]["number"], 2);
}

#[tokio::test]
async fn a_formula_holds_its_own_water_and_its_usual_batch() {
    let plant = Plant::open().await;
    let product = plant.get("/api/v1/products/causeway-stick").await;
    let formula = product["formula"]["id"].as_str().expect("an id");
    let was = product["formula"]["revision"]["id"].as_str().expect("an id");
    let body = json!({
        "number": 2, "lines": product["formula"]["lines"], "hydration_pct": 75, "batch_kg": 0.7,
        "piece_kg": 0.35, "signed": signed("by amounts"),
    });
    let path = format!("/api/v1/formulas/{formula}/revisions/{}", new_id());
    let (status, saved) = plant.put(&path, &body).await;
    assert_eq!(status, StatusCode::OK, "{saved}");
    let reopened = plant.get("/api/v1/products/causeway-stick").await;
    assert_eq!(reopened["formula"]["hydration_pct"], 75.0);
    assert_eq!(reopened["formula"]["batch_kg"], 0.7);

    let scenario = plant.scenario("causeway-stick", "VP-26-0435", full_mixer()).await;
    let (status, answer) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    let floor = answer["chain"]["water"]["floor_pct"].as_f64().expect("a number");
    assert!((floor - 75.0).abs() < 1e-9, "{floor}");

    let is = reopened["formula"]["revision"]["id"].as_str().expect("an id");
    let compared = plant.get(&format!("/api/v1/formula-comparison?was={was}&is={is}")).await;
    let rows = compared["rows"].as_array().expect("a list");
    for (label, value) in [("own water", 75.0), ("usual batch", 0.7)] {
        let row = rows.iter().find(|row| row["label"] == label).expect(label);
        assert_eq!((&row["was"], &row["is"]), (&Value::Null, &json!(value)));
    }

    // The file carries both, as JSON and as CSV.
    for kind in ["json", "csv"] {
        let path = format!("/api/v1/formula-revisions/{is}/file/{kind}");
        let file = plant.raw(reqwest::Method::GET, &path, "").await.text().await.expect("text");
        let read = plant.raw(reqwest::Method::POST, "/api/v1/formula-file", file).await;
        let read: Value = read.json().await.expect("JSON");
        assert_eq!(
            (&read["hydration_pct"], &read["batch_kg"]),
            (&json!(75.0), &json!(0.7)),
            "{read}"
        );
    }
}

#[tokio::test]
async fn no_batch_is_planned_of_another_flour_or_by_another_flours_limits() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("kesh-dark", "KR-26-0466", full_mixer()).await;
    let other = plant.scenario("ferry-tin-short", STRONG, full_mixer()).await;
    let refused = async |scenario: &Value| {
        let body = json!({
            "slug": "kesh-dark", "scenario": scenario, "planned_for": "2026-11-24T22:00:00Z",
        });
        let path = format!("/api/v1/batches/{}", new_id());
        let (status, problem) = plant.put(&path, &body).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        fields(&problem).into_iter().map(str::to_owned).collect::<Vec<_>>()
    };
    let mut strange = scenario.clone();
    strange["revision_refs"]["lot_revision_id"] = other["revision_refs"]["lot_revision_id"].clone();
    strange["revision_refs"]["specification_revision_id"] =
        other["revision_refs"]["specification_revision_id"].clone();
    assert_eq!(refused(&strange).await, ["scenario.revision_refs.lot_revision_id"]);
    let mut strange = scenario.clone();
    strange["revision_refs"]["other_lots"][0]["specification_revision_id"] =
        scenario["revision_refs"]["specification_revision_id"].clone();
    assert_eq!(refused(&strange).await, ["scenario.revision_refs.other_lots"]);
    strange["revision_refs"]["other_lots"] = json!([]);
    assert_eq!(refused(&strange).await, ["scenario.revision_refs.other_lots"]);
}
