//! Batches by the million: lists, board and chart beside themselves with few, a stamp and a diagnosis
//! beside `/readyz`, on one server in one run.
//!
//! The demo plant's past is run once more, moved back in time, until there are as many as wanted
//! (`IRONPEEL_BENCH_BATCHES`, a million if it is not set). Requests take turns on one connection.

#[path = "../tests/support/mod.rs"]
mod support;

use std::time::{Duration, Instant};

use chrono::Utc;
use ironpeel_store::PersonRole;
use serde_json::{Value, json};
use support::{Plant, key_of, list, new_id};

const ROUNDS: usize = 300;
const WARM_UP: usize = 30;
const STAMPS: usize = 200;
/// Of the batch that is diagnosed, sent in blocks.
const READINGS: usize = 2000;
const BLOCK: usize = 200;

#[tokio::main]
async fn main() {
    let wanted: u64 = std::env::var("IRONPEEL_BENCH_BATCHES")
        .map_or(1_000_000, |many| many.parse().expect("a number of batches"));
    let plant = Plant::open().await;
    let added = ironpeel_server::demo::load_batches(&plant.database.store).await.expect("run");
    let bench = Bench { plant: &plant, client: reqwest::Client::new() };
    bench.stamps().await;
    bench.diagnosis().await;
    let few = bench.lists("2026-01-01").await;
    many(&plant, wanted);
    let filled = bench.lists("2024-01-01").await;
    for ((name, few), (_, filled)) in few.into_iter().zip(filled) {
        println!(
            "{name}: {few:?} at {added} batches, {filled:?} at {wanted}, ratio {:.2} (wanted under 1.5)",
            ratio(filled, few)
        );
    }
}

fn ratio(one: Duration, other: Duration) -> f64 {
    one.as_secs_f64() / other.as_secs_f64()
}

fn median(mut times: Vec<Duration>) -> Duration {
    times.sort_unstable();
    times[times.len() / 2]
}

struct Bench<'a> {
    plant: &'a Plant,
    client: reqwest::Client,
}

impl Bench<'_> {
    async fn timed(&self, request: reqwest::RequestBuilder) -> Duration {
        let start = Instant::now();
        let response = request.send().await.expect("an answer");
        assert!(response.status().is_success(), "{}", response.url());
        response.bytes().await.expect("its body");
        start.elapsed()
    }

    fn get(&self, path: &str) -> reqwest::RequestBuilder {
        self.client
            .get(format!("{}{path}", self.plant.base))
            .bearer_auth(key_of(PersonRole::Technologist))
    }

    /// A stamp beside `/readyz`, and how soon another tablet hears of it.
    async fn stamps(&self) {
        let running = self.plant.get("/api/v1/batches?state=running").await;
        let batch = list(&running["batches"])[0]["id"].as_str().expect("one runs").to_owned();
        let path = format!("{}/api/v1/batches/{batch}/events", self.plant.base);
        let mut live = self.get("/api/v1/live").send().await.expect("a stream");
        let (mut ready, mut stamped, mut heard) = (Vec::new(), Vec::new(), Vec::new());
        for round in 0..WARM_UP + STAMPS {
            let empty = self.timed(self.client.get(format!("{}/readyz", self.plant.base))).await;
            let note = json!({"id": new_id(), "kind": "note", "text": "so",
                "happened_at": Utc::now()});
            let request = self.client.post(&path).bearer_auth(key_of(PersonRole::Floor));
            let start = Instant::now();
            let stamp = self.timed(request.json(&json!({"events": [note]}))).await;
            // What the stream says of it.
            loop {
                let said = live.chunk().await.expect("the stream").expect("goes on");
                if String::from_utf8_lossy(&said).contains(&batch) {
                    break;
                }
            }
            if round >= WARM_UP {
                ready.push(empty);
                stamped.push(stamp);
                heard.push(start.elapsed());
            }
        }
        let (ready, stamped, heard) = (median(ready), median(stamped), median(heard));
        println!(
            "a stamp: {stamped:?}, /readyz {ready:?}, ratio {:.2} (wanted within 4); on another \
             tablet after {heard:?} (wanted within 250 ms)",
            ratio(stamped, ready)
        );
    }

    /// A fault's causes of a batch with two thousand readings, beside `/readyz`.
    async fn diagnosis(&self) {
        let running = self.plant.get("/api/v1/batches?state=running").await;
        let batch = list(&running["batches"])[0]["id"].as_str().expect("one runs").to_owned();
        let now = Utc::now();
        for block in 0..READINGS / BLOCK {
            let reading = |at: usize| {
                let happened_at = now - Duration::from_millis((block * BLOCK + at) as u64);
                json!({"id": new_id(), "kind": "reading", "quantity": "dough_c", "value": 26.1,
                    "happened_at": happened_at})
            };
            let events: Vec<Value> = (0..BLOCK).map(reading).collect();
            let path = format!("{}/api/v1/batches/{batch}/events", self.plant.base);
            let request = self.client.post(path).bearer_auth(key_of(PersonRole::Floor));
            self.timed(request.json(&json!({"events": events}))).await;
        }
        let path = format!("{}/api/v1/batches/{batch}/diagnosis", self.plant.base);
        let asked = json!({"fault": "smearing", "gates": ["tin"],
            "answers": {"core_slice_c": 37.6, "arrival_d_pts": 6}});
        let (mut ready, mut found) = (Vec::new(), Vec::new());
        for round in 0..WARM_UP + STAMPS {
            let empty = self.timed(self.client.get(format!("{}/readyz", self.plant.base))).await;
            let request = self.client.post(&path).bearer_auth(key_of(PersonRole::Technologist));
            let diagnosed = self.timed(request.json(&asked)).await;
            if round >= WARM_UP {
                ready.push(empty);
                found.push(diagnosed);
            }
        }
        let (ready, found) = (median(ready), median(found));
        println!(
            "a diagnosis over {READINGS} readings: {found:?}, /readyz {ready:?}, ratio {:.2} (wanted \
             under 5)",
            ratio(found, ready)
        );
    }

    /// The batch list, a page deep in it, the board and a control chart, each with its median.
    async fn lists(&self, long_ago: &str) -> Vec<(&'static str, Duration)> {
        let oldest = self.plant.get(&format!("/api/v1/batches?to={long_ago}T00:00:00Z")).await;
        let key = &oldest["next"];
        let text = |value: &Value| value.as_str().expect("more follow").replace('+', "%2B");
        let deep = format!(
            "/api/v1/batches?after_at={}&after_id={}",
            text(&key["after_at"]),
            text(&key["after_id"])
        );
        let asked = [
            ("batch list", "/api/v1/batches".to_owned()),
            ("a deep page of it", deep),
            ("batches of a product", "/api/v1/batches?product=ferry-tin-800".to_owned()),
            ("board", "/api/v1/board".to_owned()),
            (
                "control chart",
                "/api/v1/batch-chart?product=ferry-tin-800&figure=dough_temperature".to_owned(),
            ),
        ];
        let mut times = vec![Vec::with_capacity(ROUNDS); asked.len()];
        for round in 0..WARM_UP + ROUNDS {
            for ((_, path), times) in asked.iter().zip(&mut times) {
                let taken = self.timed(self.get(path)).await;
                if round >= WARM_UP {
                    times.push(taken);
                }
            }
        }
        asked.iter().zip(times).map(|((name, _), times)| (*name, median(times))).collect()
    }
}

/// The past once more and again, each time half a day earlier, so that what is on the board stays; what
/// a list never reads of a batch is left out.
fn many(plant: &Plant, wanted: u64) {
    let script = format!(
        "ALTER TABLE batch_state DISABLE TRIGGER tell_new;
        CREATE TEMP TABLE copied AS
            SELECT gen_random_uuid() AS id, batch_id AS was,
                interval '3 days' + again * interval '12 hours' AS earlier
            FROM batch_state, generate_series(1, 1 + {wanted} / (SELECT count(*) FROM batch_state))
                AS again
            WHERE state IN ('finished', 'scrapped')
            LIMIT {wanted};
        INSERT INTO batch SELECT copied.id, product_id, lot_revision_id, specification_revision_id,
                formula_revision_id, method_revision_id, line_revision_id, planned_for - earlier,
                saved_at - earlier, saved_by, '{{}}', '{{}}', parameters_revision_id
            FROM batch JOIN copied ON copied.was = batch.id;
        INSERT INTO batch_state SELECT copied.id, state, planned_for - earlier, product_id, line_id,
                flour_id, lot_id, started_at - earlier, ended_at - earlier, events, unplaced, dough_c,
                dough_c_d, water_pts, by_feel_pts, standing_pts, water_complete, consistency,
                mixing_kj_per_kg, proof_min, bake_min, loss_pct, pieces_good, pieces_rejected,
                friction_c, damaged_starch_caution, water_was_set, changed_in
            FROM batch_state JOIN copied ON copied.was = batch_id;
        INSERT INTO batch_lot SELECT copied.id, lot_id, kg
            FROM batch_lot JOIN copied ON copied.was = batch_id;
        ALTER TABLE batch_state ENABLE TRIGGER tell_new;
        ANALYZE;"
    );
    let done = std::process::Command::new("psql")
        .args(["--quiet", "--set", "ON_ERROR_STOP=1", &plant.database.url, "--command", &script])
        .status();
    assert!(done.expect("psql runs").success(), "the batches were not added");
}
