//! Lists by key: every row once, newest first, whatever comes in meanwhile.

use crate::support::{Plant, full_mixer, new_id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

/// Every row of a list, page after page; `between` happens after each page.
async fn walk(plant: &Plant, path: &str, key: &str, mut between: impl AsyncFnMut()) -> Vec<String> {
    let mut seen = Vec::new();
    let mut query = String::new();
    loop {
        let page = plant.get(&format!("{path}{query}")).await;
        let rows = page[key].as_array().expect("a list");
        assert!(rows.len() <= 50, "a page is up to 50 rows");
        seen.extend(rows.iter().map(|row| row["id"].as_str().expect("an id").to_owned()));
        let next = &page["next"];
        let Some(at) = next["after_at"].as_str() else { return seen };
        let id = next["after_id"].as_str().expect("both or neither");
        query =
            format!("{}after_at={at}&after_id={id}", if path.contains('?') { "&" } else { "?" });
        between().await;
    }
}

async fn record_lot(plant: &Plant, flour_id: &Value, code: &str) -> String {
    let id = new_id();
    let row = json!({"property": "W", "value": "300", "unit": "10-4 J"});
    let lot = json!({
        "flour_id": flour_id, "code": code, "number": 1, "rows": [row],
        "signed": {"reason": ""},
    });
    let path = format!("/api/v1/lots/{id}/revisions/{}", new_id());
    let (status, answer) = plant.put(&path, &lot).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    id
}

#[tokio::test]
async fn lots_are_each_seen_once_while_others_come_in() {
    let plant = Plant::open().await;
    let flours = plant.get("/api/v1/flours").await;
    let flour = flours[0]["id"].clone();
    let mut recorded = Vec::new();
    for number in 0..110 {
        recorded.push(record_lot(&plant, &flour, &format!("P-{number:03}")).await);
    }
    recorded.reverse();
    let mut late = 0;
    let seen = walk(&plant, "/api/v1/lots", "lots", async || {
        late += 1;
        record_lot(&plant, &flour, &format!("LATE-{late}")).await;
    })
    .await;
    assert_eq!(seen[..recorded.len()], recorded, "newest first, none twice, none left out");
    assert_eq!(seen.len(), recorded.len() + 126, "and the demo plant's own");
}

#[tokio::test]
async fn batches_are_each_seen_once() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let mut planned = Vec::new();
    for hour in 0..53 {
        let id = new_id();
        let body = json!({
            "slug": "deck-roll-60", "scenario": scenario,
            "planned_for": format!("2026-11-{:02}T{:02}:00:00Z", 1 + hour / 24, hour % 24),
        });
        let (status, _) = plant.put(&format!("/api/v1/batches/{id}"), &body).await;
        assert_eq!(status, StatusCode::OK);
        planned.push(id);
    }
    planned.reverse();
    assert_eq!(walk(&plant, "/api/v1/batches", "batches", async || {}).await, planned);
}

#[tokio::test]
async fn a_page_that_cannot_be_read_is_told() {
    let plant = Plant::open().await;
    for query in ["after_at=yesterday&after_id=1", "after_at=2026-11-24T00:00:00Z&after_id=x"] {
        let response = plant.raw(Method::GET, &format!("/api/v1/lots?{query}"), "").await;
        assert_eq!(response.status(), StatusCode::BAD_REQUEST);
    }
}
