//! A plant's own value of any coefficient reaches every figure that rests on it, and no batch that was
//! planned before.

use crate::support::{Plant, full_mixer, list, new_id, number};
use axum::http::StatusCode;
use serde_json::{Value, json};

async fn save(plant: &Plant, number: u32, change: Value) -> (StatusCode, Value) {
    let mut input = json!({"number": number, "signed": {"reason": "a year of jars"}});
    input.as_object_mut().expect("a body").extend(change.as_object().expect("a change").clone());
    plant.put(&format!("/api/v1/plant/parameters/revisions/{}", new_id()), &input).await
}

async fn end_rise(plant: &Plant) -> f64 {
    let scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let (status, rise) = plant.post("/api/v1/chain/fermentation", &scenario).await;
    assert_eq!(status, StatusCode::OK, "{rise}");
    number(&list(&rise["stages"]).last().expect("a stage")["rise_pct"])
}

#[tokio::test]
async fn every_coefficient_is_listed_with_its_band_and_origin() {
    let plant = Plant::open().await;
    let parameters = plant.get("/api/v1/plant/parameters").await;
    let all = list(&parameters["coefficients"]);
    assert!(all.len() > 200, "{}", all.len());
    for one in all {
        let house = &one["house"];
        assert!(number(&house["low"]) <= number(&house["value"]), "{one}");
        assert!(number(&one["least"]) <= number(&house["low"]), "{one}");
        assert!(house["source"].as_str().is_some_and(|source| !source.is_empty()), "{one}");
    }
    let subjects: std::collections::BTreeSet<&str> =
        all.iter().filter_map(|one| one["subject"].as_str()).collect();
    assert_eq!(subjects.len(), 11, "{subjects:?}");
}

#[tokio::test]
async fn a_plants_own_gas_reaches_the_rise_and_its_reasons_and_goes_back() {
    let plant = Plant::open().await;
    let house = end_rise(&plant).await;
    let own = json!({"coefficients": [
        {"key": "gas_per_yeast", "typical": 1.9, "reason": "slower yeast"}]});
    assert_eq!(save(&plant, 1, own).await.0, StatusCode::OK);
    assert!(end_rise(&plant).await < house - 1.0, "less gas, less rise");
    let scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let (_, why) = plant.post("/api/v1/chain/derivations", &scenario).await;
    let gas = list(&why["rise"]["coefficients"]).iter().find(|one| one["key"] == "gas_per_yeast");
    let gas = gas.expect("the rise rests on it");
    assert_eq!((&gas["origin"], &gas["source"]), (&json!("plant"), &json!("slower yeast")));
    assert_eq!(
        save(&plant, 2, json!({"coefficients_back": ["gas_per_yeast"]})).await.0,
        StatusCode::OK
    );
    assert_eq!(end_rise(&plant).await, house);
}

#[tokio::test]
async fn what_was_pinned_before_stays_as_it_was() {
    let plant = Plant::open().await;
    let before = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let computed = async |scenario: &Value| {
        let (status, chain) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
        assert_eq!(status, StatusCode::OK, "{chain}");
        chain["chain"].clone()
    };
    let planned = computed(&before).await;
    let own = json!({"coefficients": [{"key": "no_time", "off": true, "reason": "never seen"}]});
    assert_eq!(save(&plant, 1, own).await.0, StatusCode::OK);
    assert_eq!(computed(&before).await, planned, "what it was pinned to holds");
    let after = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    assert_ne!(computed(&after).await, planned, "a new plan takes the new revision");
}

#[tokio::test]
async fn what_cannot_be_replaced_is_refused_at_its_field() {
    let plant = Plant::open().await;
    for (change, field) in [
        (json!({"key": "magic", "reason": "x"}), "key"),
        (json!({"key": "melting_of_ice", "typical": 300, "reason": "x"}), "key"),
        (json!({"key": "gas_per_yeast", "off": true, "reason": "x"}), "off"),
        (json!({"key": "gas_per_yeast", "typical": 90, "reason": "x"}), "typical"),
    ] {
        let (status, problem) = save(&plant, 1, json!({"coefficients": [change]})).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert_eq!(problem["errors"][0]["field"], format!("coefficients[0].{field}"), "{problem}");
    }
}

#[test]
fn the_list_in_the_documents_is_of_today() {
    let kept = include_str!("../../../../docs/coefficients.md");
    assert!(ironpeel_server::coefficient_list() == kept, "run `make generate`");
}
