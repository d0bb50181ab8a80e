//! What is learned of the demo plant's past, held against the truths it hides.

use crate::support::{Plant, list, new_id};
use ironpeel_server::demo::{JUDGES, SEED, judge_level, load_batches, truths};
use serde_json::Value;

const MADE: [&str; 7] = [
    "ferry-tin-800",
    "ferry-tin-short",
    "deck-roll-60",
    "causeway-stick",
    "holm-tin",
    "rigg-spelt-500",
    "kesh-dark",
];

fn number(value: &Value) -> f64 {
    value.as_f64().expect("a number")
}

#[tokio::test]
async fn the_past_teaches_what_is_true_and_stands_once() {
    let plant = Plant::open().await;
    let added = load_batches(&plant.database.store).await.expect("the past");
    assert!((550..700).contains(&added), "{added}");
    let again = load_batches(&plant.database.store).await.expect("the past");
    assert_eq!(again, 0, "it stands already");

    let (mut held, mut all) = (0, 0);
    let mut missed = Vec::new();
    for product in MADE {
        let truth = truths(SEED, product);
        let learned = plant.get(&format!("/api/v1/learned-numbers?product={product}")).await;
        for one in list(&learned) {
            let offer = &one["offer"];
            let told = number(&offer["used"]) >= 5.0;
            let true_value = match one["subject"].as_str() {
                Some("water_correction") => truth.water_pts,
                Some("arrival") => truth.arrival_pct,
                Some("bake_loss") => number(&offer["prior"]["typical"]) + truth.loss_pts,
                _ => continue,
            };
            if told {
                all += 1;
                let within = number(&offer["low"])..=number(&offer["high"]);
                if within.contains(&true_value) {
                    held += 1;
                } else {
                    missed
                        .push(format!("{product} {}: {true_value:.2} {within:.2?}", one["label"]));
                }
            }
        }
    }
    assert!(all >= 10, "{all} numbers were learned");
    assert!(100 * held >= 85 * all, "{held} of {all}; {missed:?}");

    // A judge's level shows against the other's.
    let marked = plant.get("/api/v1/batches?product=ferry-tin-800&score_below=100").await;
    let marked = marked["batches"][0]["id"].as_str().expect("a batch that was marked");
    let scores = plant.get(&format!("/api/v1/batches/{marked}/scores")).await;
    let judges = list(&scores["panel"]["judges"]);
    let level = |name: &str| {
        let judge = judges.iter().find(|judge| judge["judge"] == name);
        number(&judge.expect("both marked")["level"])
    };
    let truly = JUDGES.map(|judge| judge_level(SEED, judge));
    let apart = (truly[0] - truly[1]) / 2.0;
    assert!((level(JUDGES[0]) - apart).abs() < 0.2, "{} is not {apart:.2}", level(JUDGES[0]));
    // What smeared was marked so, and the finder knows why.
    let smeared = plant.get("/api/v1/batches?product=ferry-tin-800&lot=VR-26-1033").await;
    let smeared = smeared["batches"][0]["id"].as_str().expect("made of that lot");
    let (_, found) = plant
        .post(
            &format!("/api/v1/batches/{smeared}/diagnosis"),
            &serde_json::json!({"fault": "smearing", "gates": ["tin"]}),
        )
        .await;
    let first = &found["diagnosis"]["causes"][0];
    assert_eq!(first["cause"], "ds_trap_water", "{found}");

    // The board has something running, something held, and something to come.
    let board = plant.get("/api/v1/board").await;
    let batches = list(&board["lines"]).iter().flat_map(|line| list(&line["batches"]));
    let states: Vec<&str> = batches.map(|one| one["state"].as_str().expect("a state")).collect();
    for state in ["running", "held", "planned"] {
        assert!(states.contains(&state), "{state} in {states:?}");
    }
    // A jar that was read arrives within a band.
    let bench = plant.get("/api/v1/batches?state=running&search=holm").await;
    let jar = bench["batches"][0]["id"].as_str().expect("a sour in its jar");
    let jar = plant.get(&format!("/api/v1/batches/{jar}/fermentation")).await;
    let wanted = &jar["fermentation"]["wanted"];
    assert!(number(&wanted["early_h"]) <= number(&wanted["at_h"]), "{wanted}");
    let quarters = plant.get("/api/v1/batch-quarters").await;
    assert!(number(&quarters["last"]["batches"]) > 50.0, "{quarters}");
    what_drifts_is_told(&plant).await;
}

/// What drifts is told before it is a fault, until somebody has seen it: here a product that truly loses
/// less or more in the oven than its formula has it.
async fn what_drifts_is_told(plant: &Plant) {
    let mut drift = Value::Null;
    for _ in 0..1500 {
        let drifts = plant.get("/api/v1/drifts").await;
        let loss = list(&drifts).iter().find(|one| one["feature"] == "bake_loss_d_pts");
        if let Some(loss) = loss {
            drift = loss.clone();
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(200)).await;
    }
    assert!(number(&drift["beyond"]) >= 6.0 && number(&drift["of"]) <= 8.0, "{drift}");
    let truly = truths(SEED, drift["slug"].as_str().expect("a product")).loss_pts;
    assert!((number(&drift["mean"]) - truly).abs() < 0.5, "{truly:.2}: {drift}");
    let id = drift["id"].as_str().expect("an id");
    let seen = format!("/api/v1/drifts/{id}/seen/{}", new_id());
    let (status, left) = plant.put(&seen, &serde_json::json!({})).await;
    assert_eq!(status, reqwest::StatusCode::OK, "{left}");
    assert!(list(&left).iter().all(|one| one["id"] != id), "{left}");
}
