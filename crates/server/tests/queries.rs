//! How much is asked of the database: as much for many lots as for few.

mod support;

use ironpeel_store::testing::{count_queries, queries_asked};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use support::Plant;

/// What one request asks, once whatever may be remembered is.
async fn asked_by(plant: &Plant, method: Method, path: &str, body: &Value) -> usize {
    let mut asked = 0;
    for _ in 0..2 {
        let before = queries_asked();
        let (status, answer) = plant.ask(method.clone(), path, body).await;
        assert_eq!(status, StatusCode::OK, "{path}: {answer}");
        asked = queries_asked() - before;
    }
    asked
}

#[tokio::test]
async fn many_lots_ask_no_more_queries_than_few() {
    count_queries();
    let plant = Plant::open().await;
    let (many, few) = (plant.flour("Tarn Strong").await, plant.flour("Lantern Blend").await);
    let flour = |flour: &Value| flour["id"].as_str().expect("an id").to_owned();
    let (many, few) = (flour(&many), flour(&few));
    let lots = |flour_id: &str| format!("/api/v1/lots?flour_id={flour_id}");
    let listed = plant.get(&lots(&many)).await["lots"].clone();
    let listed = listed.as_array().expect("a list");
    assert!(listed.len() >= 20, "{}", listed.len());
    assert!(plant.get(&lots(&few)).await["lots"].as_array().expect("a list").len() < 8);

    let get = async |path: String| asked_by(&plant, Method::GET, &path, &Value::Null).await;
    assert_eq!(get(lots(&many)).await, get(lots(&few)).await, "a page of lots, judged");
    let drift = |flour: &str| format!("/api/v1/flours/{flour}/control-chart?property=moisture");
    assert_eq!(get(drift(&many)).await, get(drift(&few)).await, "drift");
    let suggestions = |flour: &str| format!("/api/v1/flours/{flour}/specifications/suggestions");
    assert_eq!(get(suggestions(&many)).await, get(suggestions(&few)).await, "suggestions");

    let bench = async |count: usize| {
        let parts = listed.iter().take(count).map(|lot| {
            json!({"lot_id": lot["id"], "share_pct": 100.0 / count as f64, "price_per_t": 500})
        });
        let body = json!({"parts": parts.collect::<Vec<_>>()});
        asked_by(&plant, Method::POST, "/api/v1/blends/calculation", &body).await
    };
    assert_eq!(bench(20).await, bench(2).await, "a blend");

    let model = get("/api/v1/absorption-model".into()).await;
    assert!((2..20).contains(&model), "it is counted: {model}");
    for at in 0..12 {
        let rows = [
            ["moisture", "14.0", "%", "as is"],
            ["protein", "12.6", "%", "14 %"],
            ["ash", "0.61", "%", "dry matter"],
            ["damaged starch", "7.9", "%", "as is"],
            ["absorption", "62.4", "%", "14 %"],
        ];
        plant.record_lot("Tarn Strong", &format!("VR-MORE-{at}"), &rows).await;
    }
    assert_eq!(get("/api/v1/absorption-model".into()).await, model, "the absorption model");
}
