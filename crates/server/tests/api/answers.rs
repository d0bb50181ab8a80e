//! What an answer says of itself: whose fault it was, that it is whole, that it changed nothing.

use std::collections::BTreeMap;

use crate::support::{Plant, full_mixer, new_id};
use reqwest::{Method, StatusCode};
use serde_json::Value;

#[tokio::test]
async fn a_fault_of_ours_is_told_as_one_and_no_half_file_passes_for_a_whole() {
    let plant = Plant::open().await;
    plant.database.run("ALTER TABLE reading RENAME TO gone").await;
    let (status, problem) = plant.ask(Method::GET, "/api/v1/lots", &Value::Null).await;
    assert_eq!(status, StatusCode::INTERNAL_SERVER_ERROR);
    let detail = problem["detail"].as_str().expect("a text");
    let id = detail.split("logged as ").nth(1).and_then(|rest| rest.split(':').next());
    assert!(id.is_some_and(|id| uuid::Uuid::parse_str(id).is_ok()), "{detail}");
    assert!(detail.ends_with("will not go through") && !detail.contains("Nothing was stored"));

    let file = plant.raw(Method::GET, "/api/v1/lots/export?format=json", "").await;
    assert!(file.text().await.is_err(), "it breaks off");
}

#[tokio::test]
async fn no_question_changes_anything() {
    let plant = Plant::open().await;
    let batch = new_id();
    let scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let body = serde_json::json!({
        "slug": "deck-roll-60", "scenario": scenario, "planned_for": "2026-11-24T22:00:00Z",
    });
    let (status, _) = plant.put(&format!("/api/v1/batches/{batch}"), &body).await;
    assert_eq!(status, StatusCode::OK);
    let product = plant.get("/api/v1/products/deck-roll-60").await;
    let lot = plant.lot("VR-26-1090").await;
    let text = |value: &Value| value.as_str().expect("an id").to_owned();
    let ids: BTreeMap<&str, String> = [
        ("lot_id", text(&lot["id"])),
        ("flour_id", text(&lot["flour"]["id"])),
        ("batch_id", batch),
        ("slug", "deck-roll-60".into()),
        ("formula_id", text(&product["formula"]["id"])),
        ("method_id", text(&product["method"]["id"])),
        ("line_id", text(&product["line"]["id"])),
    ]
    .into();

    let name = plant.database.url.rsplit('/').next().expect("a name");
    let read_only = format!("ALTER DATABASE {name} SET default_transaction_read_only = on");
    plant.database.run(&read_only).await;
    plant.database.cut_connections().await;
    let (status, _) = plant.put(&format!("/api/v1/batches/{}", new_id()), &body).await;
    assert!(status.is_server_error(), "nothing can be recorded: {status}");

    let document = plant.get("/api/openapi.json").await;
    let mut asked = 0;
    for (path, operations) in document["paths"].as_object().expect("paths") {
        if operations["get"].is_null() {
            continue;
        }
        let address = ids
            .iter()
            .fold(path.clone(), |path, (name, id)| path.replace(&format!("{{{name}}}"), id));
        if address.contains('{') {
            continue;
        }
        asked += 1;
        let answer = plant.raw(Method::GET, &address, "").await;
        assert!(!answer.status().is_server_error(), "{address}: {}", answer.status());
    }
    assert!(asked > 20, "{asked}");
}

#[tokio::test]
async fn addresses_of_earlier_versions_lead_to_where_their_subject_is_now() {
    let plant = Plant::open().await;
    let lot = plant.lot("VR-26-1090").await;
    let lot_id = lot["id"].as_str().expect("an id");
    let flour = lot["flour"]["id"].as_str().expect("an id");
    for path in [
        "/api/v1/plant/parameters".to_owned(),
        "/api/v1/plant/parameters/revisions".into(),
        format!("/api/v1/flours/{flour}/drift?property=moisture"),
        format!("/api/v1/lots/{lot_id}/change"),
    ] {
        plant.get(&path).await;
    }
    let body = serde_json::json!({
        "decision": "hold", "signed": {"reason": "queued before the upgrade"},
    });
    let path = format!("/api/v1/lots/{lot_id}/decisions/{}", new_id());
    assert_eq!(plant.put(&path, &body).await.0, StatusCode::OK);
    // A batch with its names of then.
    let mut scenario = plant.scenario("deck-roll-60", "VR-26-1098", full_mixer()).await;
    for (was, is) in [("pins", "revision_refs"), ("knobs", "run_settings")] {
        scenario[was] = scenario[is].take();
        scenario.as_object_mut().expect("an object").remove(is);
    }
    let body = serde_json::json!({
        "slug": "deck-roll-60", "hand": scenario, "planned_for": "2026-11-24T22:00:00Z",
    });
    let (status, batch) = plant.put(&format!("/api/v1/batches/{}", new_id()), &body).await;
    assert_eq!(status, StatusCode::OK, "{batch}");
    assert_eq!(batch["run_settings"], full_mixer());
}
