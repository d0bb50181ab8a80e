//! A flour from its bag becomes a dough without a certificate or a specification.

use crate::support::{Plant, fields, full_mixer, list, new_id};
use reqwest::StatusCode;
use serde_json::{Value, json};

fn bag(name: &str) -> Value {
    json!({"name": name, "species": "wheat", "flour_type": "DE 550", "protein_pct": 11, "signed": {}})
}

#[tokio::test]
async fn a_bag_with_a_type_number_is_planned_and_sent_twice_is_stored_once() {
    let plant = Plant::open().await;
    let (flour_id, lot_id) = (new_id(), new_id());
    let path = format!("/api/v1/flours/{flour_id}/bags/{lot_id}");
    let (status, lot) = plant.put(&path, &bag("Corner white")).await;
    assert_eq!(status, StatusCode::OK, "{lot}");
    assert_eq!(plant.put(&path, &bag("Corner white")).await, (status, lot.clone()));
    let rows = list(&lot["certificate"]["rows"]);
    let written: Vec<_> = rows.iter().map(|row| &row["written"]["property"]).collect();
    assert_eq!(written, ["protein", "ash"], "only what it states and its type means");
    assert_eq!(rows[1]["written"]["method"], "usual of DE 550");
    assert_eq!(lot["certificate"]["specification"], Value::Null);

    let line = plant.get("/api/v1/lines").await[0]["id"].clone();
    let product = json!({
        "name": "Corner loaf", "template": "hearth", "flours": [flour_id], "line_id": line,
        "signed": {},
    });
    let (status, made) = plant.put("/api/v1/products/corner-loaf", &product).await;
    assert_eq!(status, StatusCode::OK, "{made}");
    let code = lot["code"].as_str().expect("a code");
    let scenario = plant.scenario("corner-loaf", code, full_mixer()).await;
    let (_, answer) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    assert_eq!(answer["chain"]["error"], Value::Null);
    let assumed: Vec<_> =
        list(&answer["chain"]["flour"]["assumed"]).iter().map(|one| &one["property"]).collect();
    assert_eq!(assumed, ["moisture", "damaged_starch"]);
    let batch = json!({
        "slug": "corner-loaf", "scenario": scenario, "planned_for": "2026-11-28T05:00:00Z",
    });
    let (status, planned) = plant.put(&format!("/api/v1/batches/{}", new_id()), &batch).await;
    assert_eq!(status, StatusCode::OK, "{planned}");
    assert_eq!(planned["issued"]["specification_number"], Value::Null);
}

#[tokio::test]
async fn what_no_bag_states_is_refused_at_its_field_and_nothing_is_kept() {
    let plant = Plant::open().await;
    let flour_id = new_id();
    let path = format!("/api/v1/flours/{flour_id}/bags/{}", new_id());
    let wrong = json!({
        "name": " ", "mill": "m".repeat(81), "species": "rye", "flour_type": "DE 550", "protein_pct": 90, "w": "strong",
        "moisture_pct": 40, "signed": {},
    });
    let (status, problem) = plant.put(&path, &wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(
        fields(&problem),
        ["name", "mill", "flour_type", "moisture_pct", "protein_pct", "w"]
    );
    assert!(problem.to_string().contains("DE 550 is a class of common wheat"), "{problem}");
    let known = plant.get("/api/v1/flours").await;
    assert!(list(&known).iter().all(|flour| flour["id"] != json!(flour_id)));
    let types = plant.get("/api/v1/flour-types").await;
    assert!(list(&types).iter().any(|one| one["key"] == "FR T65"));
}
