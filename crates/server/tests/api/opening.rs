//! A product opened on the real server: its lots and its chain in one answer.

use crate::support::{Plant, fields, list, new_id, pin};
use reqwest::StatusCode;
use serde_json::{Value, json};

const CHAIN: &str = "/api/v1/chain";

async fn open(plant: &Plant, slug: &str, input: Value) -> (StatusCode, Value) {
    plant.post(&format!("/api/v1/products/{slug}/opening"), &input).await
}

#[tokio::test]
async fn it_says_what_its_parts_say_when_asked_one_by_one() {
    let plant = Plant::open().await;
    for slug in ["deck-roll-60", "kesh-dark"] {
        let (status, opened) = open(&plant, slug, json!({"run_settings": {"tap_c": 18}})).await;
        assert_eq!(status, StatusCode::OK, "{opened}");
        assert_eq!(opened["product"], plant.get(&format!("/api/v1/products/{slug}")).await);
        assert_eq!(opened["flours"], plant.get("/api/v1/flours").await);
        let selected = list(&opened["selected"]);
        assert_eq!(selected.len(), list(&opened["lots"]).len());
        for (lots, lot) in list(&opened["lots"]).iter().zip(selected) {
            let flour = lots["flour_id"].as_str().expect("an id");
            let page = plant.get(&format!("/api/v1/lots?flour_id={flour}")).await;
            assert_eq!((&lots["page"], &lot["id"]), (&page, &page["usual"]));
            let first = list(&page["lots"]).iter().find(|lot| lot["status"]["barred"].is_null());
            assert_eq!(first.expect("a lot to plan")["id"], lot["id"]);
        }
        let code = selected[0]["code"].as_str().expect("a code");
        let mut scenario = plant.scenario(slug, code, json!({"tap_c": 18})).await;
        let others: Value = selected.iter().skip(1).map(pin).collect();
        scenario["revision_refs"]["other_lots"] = others;
        let (_, asked) = plant.post(CHAIN, &json!({"now": scenario})).await;
        assert_eq!(opened["chain"], asked["chain"], "{slug}");
        assert!(opened["chain"]["sheet"].is_object());
    }
}

#[tokio::test]
async fn the_lots_chosen_are_those_it_is_made_from() {
    let plant = Plant::open().await;
    let lot = plant.lot("VR-26-1063").await;
    let (_, opened) =
        open(&plant, "deck-roll-60", json!({"lot_id": lot["id"], "run_settings": {}})).await;
    assert_eq!(opened["selected"][0]["code"], "VR-26-1063");
    assert_ne!(opened["lots"][0]["page"]["usual"], lot["id"]);
    let of_another_flour = plant.lot("VP-26-0435").await;
    let input = json!({"lot_id": of_another_flour["id"], "run_settings": {}});
    let (_, opened) = open(&plant, "deck-roll-60", input).await;
    assert_eq!(opened["selected"][0]["code"], "VP-26-0435");
}

#[tokio::test]
async fn nobody_said_how_much_so_it_is_the_usual_batch_or_one_mixer() {
    let plant = Plant::open().await;
    let lines = json!([{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 2}]);
    for (batch_kg, amount) in [
        (Value::Null, json!({"by": "mixer", "doughs": 1.0})),
        (json!(12), json!({"by": "dough", "kg": 12.0})),
    ] {
        let draft = json!({"lines": lines, "batch_kg": batch_kg});
        let input = json!({"run_settings": {}, "draft": draft});
        let (_, opened) = open(&plant, "causeway-stick", input).await;
        assert_eq!(opened["chain"]["dough"]["amount"], amount);
    }
}

#[tokio::test]
async fn what_cannot_be_computed_is_left_to_the_chain_to_say() {
    let plant = Plant::open().await;
    let (status, opened) =
        open(&plant, "deck-roll-60", json!({"run_settings": {"tap_c": 300}})).await;
    assert_eq!((status, &opened["chain"]), (StatusCode::OK, &Value::Null));
    assert!(opened["selected"][0].is_object());
    let nobody = json!({"run_settings": {}});
    assert_eq!(open(&plant, "no-such-loaf", nobody).await.0, StatusCode::NOT_FOUND);
    let gone = json!({"lot_id": new_id(), "run_settings": {}});
    assert_eq!(open(&plant, "deck-roll-60", gone).await.0, StatusCode::NOT_FOUND);
    let many: Vec<String> = (0..21).map(|_| new_id()).collect();
    let (status, problem) =
        open(&plant, "deck-roll-60", json!({"other_lots": many, "run_settings": {}})).await;
    assert_eq!((status, fields(&problem)), (StatusCode::UNPROCESSABLE_ENTITY, vec!["other_lots"]));
}
