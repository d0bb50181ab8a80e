//! The what-if of the whole chain against `/healthz`, on one server in one run.
//!
//! Requests take turns on one connection, so that whatever else the machine does weighs on both.
//! Every second what-if changes the lot, every other the hydration; each asks for the moves too.

#[path = "../tests/support/mod.rs"]
mod support;

use std::time::{Duration, Instant};

use ironpeel_store::PersonRole;
use serde_json::{Value, json};
use support::{Plant, full_mixer, key_of};

const ROUNDS: usize = 5_000;
const WARM_UP: usize = 500;

#[tokio::main]
async fn main() {
    let plant = Plant::open().await;
    let set = json!({"amount": {"by": "mixer", "doughs": 1}, "hydration_pct": 60});
    let usual = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let other = plant.scenario("deck-roll-60", "VR-26-1063", full_mixer()).await;
    let wetter = plant.scenario("deck-roll-60", "VR-26-1090", set).await;
    let asked = [
        json!({"now": other, "before": usual}).to_string(),
        json!({"now": wetter, "before": usual}).to_string(),
    ];
    let client = reqwest::Client::new();
    let key = key_of(PersonRole::Technologist);
    let mut empty = Vec::with_capacity(ROUNDS);
    let mut what_if = Vec::with_capacity(ROUNDS);
    for round in 0..WARM_UP + ROUNDS {
        let healthz = timed(client.get(format!("{}/healthz", plant.base))).await;
        let body = asked[round % 2].clone();
        let chain =
            timed(client.post(format!("{}/api/v1/chain", plant.base)).bearer_auth(&key).body(body))
                .await;
        if round >= WARM_UP {
            empty.push(healthz);
            what_if.push(chain);
        }
    }
    let moved: Value = client
        .post(format!("{}/api/v1/chain", plant.base))
        .bearer_auth(&key)
        .body(asked[0].clone())
        .send()
        .await
        .expect("an answer")
        .json()
        .await
        .expect("JSON");
    assert!(
        moved["changes"].as_array().is_some_and(|changes| !changes.is_empty()),
        "nothing was computed"
    );
    println!("{ROUNDS} requests of each, in turn, on one connection");
    for (name, share) in [("median", 0.5), ("99th percentile", 0.99)] {
        let (base, chain) = (at(&mut empty, share), at(&mut what_if, share));
        println!(
            "{name}: /healthz {base:?}, what-if {chain:?}, ratio {:.2}",
            chain.as_secs_f64() / base.as_secs_f64()
        );
    }
}

async fn timed(request: reqwest::RequestBuilder) -> Duration {
    let start = Instant::now();
    let response = request.send().await.expect("an answer");
    assert!(response.status().is_success());
    response.bytes().await.expect("its body");
    start.elapsed()
}

fn at(times: &mut [Duration], share: f64) -> Duration {
    times.sort_unstable();
    times[((times.len() - 1) as f64 * share) as usize]
}
