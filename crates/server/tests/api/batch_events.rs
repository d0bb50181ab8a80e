//! Batches on the floor, on the real server.

use std::sync::atomic::{AtomicI64, Ordering};

use crate::support::{Plant, full_mixer, new_id};
use chrono::{DateTime, SubsecRound, TimeDelta, Utc};
use ironpeel_server::Config;
use ironpeel_store::PersonRole;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

const PRODUCT: &str = "deck-roll-60";
const LOT: &str = "VR-26-1090";

/// Plans a batch of rolls; its id.
async fn planned(plant: &Plant) -> String {
    let scenario = plant.scenario(PRODUCT, LOT, full_mixer()).await;
    let id = new_id();
    let body = json!({"slug": PRODUCT, "scenario": scenario, "planned_for": Utc::now()});
    let (status, batch) = plant.put(&format!("/api/v1/batches/{id}"), &body).await;
    assert_eq!(status, StatusCode::OK, "{batch}");
    id
}

/// An event a little after the one before it: at one moment the ids would order them.
fn event(kind: &str, at: DateTime<Utc>, said: &Value) -> Value {
    static BEFORE: AtomicI64 = AtomicI64::new(0);
    let after = TimeDelta::microseconds(BEFORE.fetch_add(1, Ordering::Relaxed));
    let at = at.trunc_subsecs(6) + after;
    let mut event = json!({"id": new_id(), "kind": kind, "happened_at": at});
    let said = said.as_object().expect("an object").clone();
    event.as_object_mut().expect("an object").extend(said);
    event
}

async fn sent(plant: &Plant, batch: &str, events: &[Value]) -> Value {
    let path = format!("/api/v1/batches/{batch}/events");
    let body = json!({"sent_at": Utc::now(), "events": events});
    let (status, answer) = plant.ask_as(PersonRole::Floor, Method::POST, &path, &body).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    answer
}

fn moment(at: &Value) -> Option<DateTime<Utc>> {
    at.as_str()?.parse().ok()
}

fn outcomes(answer: &Value) -> Vec<&str> {
    let events = answer["events"].as_array().expect("a list");
    events.iter().map(|one| one["outcome"].as_str().expect("an outcome")).collect()
}

#[tokio::test]
async fn a_batch_runs_from_its_sheet_to_its_finish() {
    let plant = Plant::open().await;
    let id = planned(&plant).await;
    let run = plant.get(&format!("/api/v1/batches/{id}/run")).await;
    assert_eq!(run["state"], "planned");
    let stages: Vec<Value> = run["stages"].as_array().expect("stages").clone();
    let line = &run["report"]["lines"][0];
    let now = Utc::now();
    let weighing = json!({"quantity": "mass_kg", "of": line["of"], "stage": line["stage"],
        "value": line["kg"]});
    let mut events = vec![event("start", now, &json!({})), event("reading", now, &weighing)];
    let answer = sent(&plant, &id, &events).await;
    assert_eq!((outcomes(&answer), &answer["state"]), (vec!["stored"; 2], &json!("running")));
    // Sent again, however its numbers are written, it is stored once; something else is not.
    events[0]["happened_at"] =
        json!(moment(&events[0]["happened_at"]).expect("a moment").to_rfc3339());
    events[1]["value"] = json!(line["kg"].as_f64().expect("a mass") + 1.0);
    let answer = sent(&plant, &id, &events).await;
    assert_eq!(outcomes(&answer), ["already", "conflict"]);

    let dough = event("reading", now, &json!({"quantity": "dough_c", "value": 27.4}));
    let mut ends: Vec<Value> = stages
        .iter()
        .map(|stage| event("stage_end", now, &json!({"stage": stage["stage"], "ended_by": "look"})))
        .collect();
    ends.push(dough);
    sent(&plant, &id, &ends).await;
    let run = plant.get(&format!("/api/v1/batches/{id}/run")).await;
    assert_eq!(run["report"]["dough_c"]["actual"], 27.4);
    assert_eq!(run["report"]["lines"][0]["weighed_kg"], line["kg"]);
    assert_eq!(run["report"]["next"]["stage"], Value::Null, "only the finish is left");
    assert_eq!(run["record"]["unplaced"], json!([]));

    let pieces = run["planned"]["pieces"].as_f64().expect("pieces");
    let kg = run["planned"]["piece_kg"].as_f64().expect("a piece") * pieces * 0.88;
    let finish = json!({"pieces_good": pieces - 10.0, "pieces_rejected": 10, "mass_kg": kg,
        "reasons": [{"reason": "torn", "pieces": 10}]});
    let answer = sent(&plant, &id, &[event("finish", Utc::now(), &finish)]).await;
    assert_eq!(answer["state"], "finished");
    let page = plant.get("/api/v1/batches?state=finished&search=roll").await;
    let listed = &page["batches"][0];
    assert_eq!((&listed["id"], &listed["dough_c"]), (&json!(id), &json!(27.4)));
    assert!((listed["loss_pct"].as_f64().expect("a loss") - 12.0).abs() < 0.01);
    assert_eq!(plant.get("/api/v1/batches?state=held,running").await["batches"], json!([]));

    // Undone, it runs again.
    let kept = plant.get(&format!("/api/v1/batches/{id}/events")).await;
    let last = kept["events"].as_array().and_then(|all| all.last()).expect("the finish");
    let undo = event("correct", Utc::now(), &json!({"corrects": last["id"]}));
    assert_eq!(sent(&plant, &id, &[undo]).await["state"], "running");
}

#[tokio::test]
async fn a_set_of_folds_and_a_fed_starter_are_stamped_and_what_is_held_has_ways_out() {
    let plant = Plant::open().await;
    let id = planned(&plant).await;
    let recovery = format!("/api/v1/batches/{id}/recovery");
    assert_eq!(plant.get(&recovery).await["delayed"], Value::Null, "it has not begun");
    let rises = plant.get(&format!("/api/v1/batches/{id}/fermentation")).await;
    assert_eq!(rises["feed"], Value::Null, "rolls have no starter");
    let fed = event("note", Utc::now(), &json!({"of": "feed", "text": "The starter was fed"}));
    let long = event("note", Utc::now(), &json!({"of": "f".repeat(500), "text": "so"}));
    assert_eq!(outcomes(&sent(&plant, &id, &[fed, long]).await), ["stored", "refused"]);
    let held = event("hold", Utc::now(), &json!({"reason": "divider"}));
    sent(&plant, &id, &[event("start", Utc::now(), &json!({})), held]).await;
    assert_eq!(plant.get(&recovery).await["delayed"], Value::Null, "it is within its time");
    let nowhere = format!("/api/v1/batches/{}/recovery", new_id());
    assert_eq!(plant.ask(Method::GET, &nowhere, &Value::Null).await.0, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn one_bad_event_stops_none_of_the_others() {
    let plant = Plant::open().await;
    let id = planned(&plant).await;
    let other = plant.get("/api/v1/products/ferry-tin-800").await;
    let strange = &other["method"]["stages"][0]["id"];
    let now = Utc::now();
    let reading = |quantity: &str, value: Value| {
        event("reading", now, &json!({"quantity": quantity, "value": value}))
    };
    let events = [
        event("start", now, &json!({})),
        reading("dough_c", json!(79.7)),
        reading("dough_c", json!(270)),
        event("stage_end", now, &json!({"stage": strange})),
        event("note", now + TimeDelta::minutes(10), &json!({"text": "later"})),
        event("note", now - TimeDelta::days(2), &json!({"text": "earlier"})),
        json!({"id": "not an id", "kind": "note", "happened_at": now, "text": "what"}),
        json!("nonsense"),
        json!({"id": new_id(), "kind": "dance", "happened_at": now}),
        event("note", now, &json!({"text": "the divider squeaks"})),
    ];
    let answer = sent(&plant, &id, &events).await;
    let refused = vec!["refused"; 8];
    assert_eq!(outcomes(&answer), [vec!["stored"], refused, vec!["stored"]].concat());
    let message = |at: usize| answer["events"][at]["message"].as_str().expect("why").to_owned();
    assert!(message(1).ends_with("26.5?"), "{}", message(1));
    assert!(message(2).ends_with("27.0?"), "{}", message(2));
    assert!(message(3).contains("no such stage"));
    assert!(message(4).contains("future") && message(5).contains("planned"));

    let path = format!("/api/v1/batches/{id}/events");
    for (body, status) in [
        (json!({"events": []}), StatusCode::UNPROCESSABLE_ENTITY),
        (json!({"events": vec![json!({}); 501]}), StatusCode::UNPROCESSABLE_ENTITY),
        (json!({}), StatusCode::UNPROCESSABLE_ENTITY),
    ] {
        assert_eq!(plant.post(&path, &body).await.0, status);
    }
    let nowhere = format!("/api/v1/batches/{}/events", new_id());
    let one = json!({"events": [event("start", now, &json!({}))]});
    assert_eq!(plant.post(&nowhere, &one).await.0, StatusCode::NOT_FOUND);
    let (status, _) = plant.ask_as(PersonRole::Visitor, Method::POST, &path, &one).await;
    assert_eq!(status, StatusCode::FORBIDDEN);
}

#[tokio::test]
async fn what_the_batch_could_not_take_is_stored_and_said() {
    let plant = Plant::open().await;
    let id = planned(&plant).await;
    let now = Utc::now();
    let events = [
        event("scrap", now, &json!({"reason": "the trough tipped over"})),
        event("addition", now + TimeDelta::seconds(1), &json!({"ingredient": "water", "kg": 1})),
    ];
    let answer = sent(&plant, &id, &events).await;
    assert_eq!((outcomes(&answer), &answer["state"]), (vec!["stored"; 2], &json!("scrapped")));
    let run = plant.get(&format!("/api/v1/batches/{id}/run")).await;
    let unplaced = &run["record"]["unplaced"][0];
    assert_eq!(
        (&unplaced["event"], &unplaced["why"]),
        (&events[1]["id"], &json!("the batch was scrapped"))
    );
}

#[tokio::test]
async fn a_clock_that_is_off_is_put_right_and_the_original_kept() {
    let plant = Plant::open().await;
    let id = planned(&plant).await;
    let ahead = Utc::now() + TimeDelta::hours(1);
    let start = event("start", ahead, &json!({}));
    let body = json!({"sent_at": ahead, "events": [start]});
    let path = format!("/api/v1/batches/{id}/events");
    let (_, answer) = plant.post(&path, &body).await;
    assert_eq!(outcomes(&answer), ["stored"], "{answer}");
    let kept = plant.get(&path).await;
    let first = &kept["events"][0];
    let at = moment(&first["happened_at"]).expect("a time");
    assert!((at - Utc::now()).abs() < TimeDelta::minutes(1));
    assert_eq!(moment(&first["claimed_at"]), moment(&start["happened_at"]));
    // The same sent later, by the same clock, is the same.
    let (_, again) = plant.post(&path, &body).await;
    assert_eq!(outcomes(&again), ["already"]);
}

#[tokio::test]
async fn events_are_listed_page_after_page() {
    let plant = Plant::open().await;
    let id = planned(&plant).await;
    let now = Utc::now();
    let notes: Vec<Value> = (0..400)
        .map(|number| event("note", now, &json!({"text": format!("note {number}")})))
        .collect();
    sent(&plant, &id, &notes[..300]).await;
    sent(&plant, &id, &notes[200..]).await;
    let more: Vec<Value> = (0..200).map(|_| event("note", now, &json!({"text": "more"}))).collect();
    sent(&plant, &id, &more).await;
    let path = format!("/api/v1/batches/{id}/events");
    let first = plant.get(&path).await;
    let next = first["next"].as_str().expect("another page");
    let second = plant.get(&format!("{path}?after={next}")).await;
    let count = |page: &Value| page["events"].as_array().map_or(0, Vec::len);
    assert_eq!((count(&first), count(&second), &second["next"]), (500, 100, &Value::Null));
}

/// The next batch a reader is told of.
async fn told(response: &mut reqwest::Response, text: &mut String, batch: &str) -> String {
    loop {
        let found =
            text.split("\n\n").find(|one| one.contains("event: batch") && one.contains(batch));
        if let Some(found) = found {
            return found.to_owned();
        }
        let chunk = response.chunk().await.expect("a stream").expect("it goes on");
        text.push_str(&String::from_utf8_lossy(&chunk));
    }
}

#[tokio::test]
async fn whoever_listens_is_told_and_told_again_what_they_missed() {
    let plant = Plant::open().await;
    let beside = plant.beside(Config { demo: true, ..Config::default() }).await;
    let id = planned(&plant).await;
    let client = reqwest::Client::new();
    let listen = |last: Option<String>| {
        let request = client
            .get(format!("{beside}/api/v1/live"))
            .bearer_auth(crate::support::key_of(PersonRole::Visitor));
        let request = match last {
            Some(last) => request.header("last-event-id", last),
            None => request,
        };
        async { request.send().await.expect("the server answers") }
    };
    let mut stream = listen(None).await;
    let mut text = String::new();
    while !text.contains("event: listening") {
        let chunk = stream.chunk().await.expect("a stream").expect("it goes on");
        text.push_str(&String::from_utf8_lossy(&chunk));
    }
    let place = text.lines().find_map(|line| line.strip_prefix("id: ")).expect("a place");
    let place = place.to_owned();
    sent(&plant, &id, &[event("start", Utc::now(), &json!({}))]).await;
    let heard = told(&mut stream, &mut text, &id).await;
    assert!(heard.contains("\"state\":\"running\""), "{heard}");
    drop(stream);
    // Away while it was held: asked from the last place, it is told.
    sent(&plant, &id, &[event("hold", Utc::now(), &json!({"reason": "divider"}))]).await;
    let mut again = listen(Some(place)).await;
    let heard = told(&mut again, &mut String::new(), &id).await;
    assert!(heard.contains("\"state\":\"held\""), "{heard}");
    // A place of another life of the database is none to go on from.
    let mut lost = listen(Some("9000000000000000".into())).await;
    let chunk = lost.chunk().await.expect("a stream").expect("it goes on");
    assert!(String::from_utf8_lossy(&chunk).contains("event: missed"));
}

#[tokio::test]
async fn what_can_be_observed_is_listed_with_what_its_steps_stand_for() {
    let plant = Plant::open().await;
    let all = plant.get("/api/v1/observations").await;
    let all = all.as_array().expect("a list");
    let tap = all.iter().find(|one| one["name"] == "sponge_tap").expect("the sponge's test");
    assert_eq!((&tap["low"], &tap["high"]), (&json!(1.0), &json!(3.0)));
    assert_eq!(tap["choices"].as_array().map(Vec::len), Some(3));
    let id = planned(&plant).await;
    let now = Utc::now();
    let events = [
        event("observation", now, &json!({"name": "sponge_tap", "value": 2})),
        event("observation", now, &json!({"name": "sponge_tap", "value": 9})),
        event("observation", now, &json!({"name": "good_luck", "value": 1})),
    ];
    assert_eq!(outcomes(&sent(&plant, &id, &events).await), ["stored", "refused", "refused"]);
}

#[tokio::test]
async fn a_sheet_of_an_earlier_version_is_run_without_its_lines() {
    let plant = Plant::open().await;
    let id = planned(&plant).await;
    let old = "ALTER TABLE batch DISABLE TRIGGER append_only";
    plant.database.run(old).await;
    let chain = r#"'{"sheet": {"doughs": "two"}}'::jsonb"#;
    plant
        .database
        .run(&format!("UPDATE batch SET issued = jsonb_set(issued, '{{chain}}', {chain})"))
        .await;
    // Another server has not read it yet.
    let beside = plant.beside(Config { demo: true, ..Config::default() }).await;
    let answer = reqwest::Client::new()
        .get(format!("{beside}/api/v1/batches/{id}/run"))
        .bearer_auth(crate::support::key_of(PersonRole::Visitor))
        .send()
        .await
        .expect("the server answers");
    assert_eq!(answer.status(), StatusCode::OK);
    let run: Value = answer.json().await.expect("JSON");
    assert_eq!((&run["product"], &run["report"]["lines"]), (&json!("Deck Roll 60"), &json!([])));
    assert!(run["stages"].as_array().is_some_and(|stages| stages.len() > 3), "its method stands");
}

#[tokio::test]
async fn a_list_is_not_asked_for_what_is_no_state() {
    let plant = Plant::open().await;
    for path in [
        "/api/v1/batches?state=burnt",
        "/api/v1/batches?from=yesterday",
        "/api/v1/batch-chart?figure=luck",
        "/api/v1/batch-export?format=xml",
    ] {
        let (status, problem) = plant.ask(Method::GET, path, &Value::Null).await;
        assert!(status.is_client_error(), "{path}: {status} {problem}");
    }
    let none = plant.get("/api/v1/batch-quarters?product=deck-roll-60").await;
    assert_eq!((&none["last"]["batches"], &none["last"]["dough_c_sd"]), (&json!(0), &Value::Null));
    let (status, _) =
        plant.ask(Method::GET, "/api/v1/learned-numbers?product=nothing", &Value::Null).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn the_board_shows_each_line_with_what_is_next() {
    let plant = Plant::open().await;
    let [one, other] = [planned(&plant).await, planned(&plant).await];
    let start = Utc::now();
    sent(&plant, &one, &[event("start", start, &json!({}))]).await;
    let board = plant.get("/api/v1/board").await;
    let lines = board["lines"].as_array().expect("lines");
    assert_eq!(lines.len(), 1);
    let batches = lines[0]["batches"].as_array().expect("batches");
    let of = |id: &str| batches.iter().find(|batch| batch["id"] == id).expect("on the board");
    assert_eq!(of(&one)["state"], "running");
    let first = &of(&one)["stages"][0]["stage"];
    assert_eq!(&of(&one)["next"]["stage"], first);
    assert_eq!(of(&other)["next"]["stage"], Value::Null, "it is to be started");
}

#[tokio::test]
async fn a_learned_correction_is_taken_over_moves_the_sheet_and_is_put_back() {
    let plant = Plant::open().await;
    // Six batches that each took a point more than planned, and were judged right.
    for _ in 0..6 {
        let id = planned(&plant).await;
        let run = plant.get(&format!("/api/v1/batches/{id}/run")).await;
        let flour_kg = run["planned"]["flour_kg"].as_f64().expect("flour");
        let now = Utc::now();
        let water = json!({"ingredient": "water", "kg": flour_kg / 100.0, "reason": "feel"});
        let events = [
            event("start", now, &json!({})),
            event("addition", now, &water),
            event("consistency", now, &json!({"value": 0})),
            event("finish", now, &json!({"pieces_good": 100})),
        ];
        let answer = sent(&plant, &id, &events).await;
        assert_eq!(answer["state"], "finished", "{answer}");
    }
    let learned = plant.get(&format!("/api/v1/learned-numbers?product={PRODUCT}")).await;
    let water = &learned[0];
    assert_eq!(water["subject"], "water_correction");
    let mean = water["offer"]["mean"].as_f64().expect("a mean");
    assert!((0.8..1.0).contains(&mean), "{}", water["offer"]);
    assert_eq!(water["offer"]["used"], 6);

    let take = |number: i32, value: Option<f64>| {
        json!({"subject": "water_correction", "product": PRODUCT, "number": number, "value": value,
            "signed": {"reason": "six batches alike"}})
    };
    let path = || format!("/api/v1/learned-numbers/{}", new_id());
    let (status, _) = plant.put(&path(), &take(1, Some(mean + 1.0))).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "it is another value by now");
    let before = plant.scenario(PRODUCT, LOT, full_mixer()).await;
    let (status, taken) = plant.put(&path(), &take(1, Some(mean))).await;
    assert_eq!(status, StatusCode::OK, "{taken}");
    assert_eq!(plant.put(&path(), &take(1, Some(mean))).await.0, StatusCode::CONFLICT);

    let after = plant.scenario(PRODUCT, LOT, full_mixer()).await;
    assert_eq!(after["revision_refs"]["water_correction_id"], taken["id"]);
    let asked = json!({"now": after, "before": before});
    let (_, answer) = plant.post("/api/v1/chain", &asked).await;
    let steps = answer["chain"]["water"]["steps"].as_array().expect("steps");
    let step = steps.iter().find(|step| step["key"] == "learned").expect("its step");
    assert_eq!((&step["origin"], &step["points"]), (&json!("learned"), &taken["value"]));
    let (_, without) = plant.post("/api/v1/chain", &json!({"now": before})).await;
    let floor = |answer: &Value| answer["chain"]["water"]["floor_pct"].as_f64().expect("a figure");
    assert!((floor(&answer) - floor(&without) - mean).abs() < 1e-9);

    // A batch made with it, to the gram as planned, teaches the same again.
    let (_, back) = plant.put(&path(), &take(2, None)).await;
    assert_eq!(back["value"], Value::Null);
    let now = plant.scenario(PRODUCT, LOT, full_mixer()).await;
    assert_eq!(now["revision_refs"]["water_correction_id"], Value::Null);
}

#[tokio::test]
async fn a_recall_goes_both_ways_and_out_as_a_file() {
    let plant = Plant::open().await;
    let id = planned(&plant).await;
    let run = plant.get(&format!("/api/v1/batches/{id}/run")).await;
    let lot = &run["lots"][0];
    assert_eq!(lot["lot"], LOT);
    let lot_id = lot["lot_id"].as_str().expect("an id");
    let uses = plant.get(&format!("/api/v1/lots/{lot_id}/batches")).await;
    assert_eq!(uses["batches"][0]["batch_id"], id);
    let csv =
        plant.raw(Method::GET, &format!("/api/v1/batch-export?format=csv&lot={LOT}"), "").await;
    let csv = csv.text().await.expect("a file");
    assert!(csv.starts_with("batch,state,") && csv.contains(&id), "{csv}");
    let json = plant.get("/api/v1/batch-export?format=json").await;
    assert_eq!(json[0]["id"], id);
    sent(&plant, &id, &[event("start", Utc::now(), &json!({}))]).await;
    let json = plant.get("/api/v1/batch-export?format=json").await;
    assert_eq!(json[0]["events"][0]["kind"], "start");
}

#[tokio::test]
async fn batches_are_compared_differences_first_and_charted() {
    let plant = Plant::open().await;
    let mut ids = Vec::new();
    for celsius in [26.0, 28.5, 26.2] {
        let id = planned(&plant).await;
        let now = Utc::now();
        let dough = json!({"quantity": "dough_c", "value": celsius});
        sent(&plant, &id, &[event("start", now, &json!({})), event("reading", now, &dough)]).await;
        ids.push(id);
    }
    // A scale, a probe and a jar camera that are simulated show something of it.
    let run = plant.get(&format!("/api/v1/batches/{}/run", ids[0])).await;
    let line = &run["report"]["lines"][0];
    let (of, stage) =
        (line["of"].as_str().expect("a line"), line["stage"].as_str().expect("a stage"));
    let instrument = format!("/api/v1/batches/{}/instrument?instrument", ids[0]);
    let shown = plant.get(&format!("{instrument}=scale&of={of}&stage={stage}")).await;
    let (kg, planned) = (shown["value"].as_f64(), line["kg"].as_f64());
    assert!((kg.expect("a mass") / planned.expect("a mass") - 1.0).abs() < 0.02, "{shown}");
    assert_eq!(plant.get(&format!("{instrument}=dough_probe")).await["quantity"], "dough_c");
    assert_eq!(plant.get(&format!("{instrument}=jar_camera")).await["quantity"], "jar_rise_pct");
    let (status, _) =
        plant.ask(Method::GET, &format!("{instrument}=scale&of=sand"), &Value::Null).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);

    let path = format!("/api/v1/batch-comparison?batches={},{}", ids[0], ids[1]);
    let compared = plant.get(&path).await;
    let rows = compared["rows"].as_array().expect("rows");
    let dough = rows.iter().find(|row| row["label"] == "Dough temperature").expect("its row");
    assert_eq!((&dough["differs"], &dough["values"]), (&json!(true), &json!([26.0, 28.5])));
    let chart =
        plant.get(&format!("/api/v1/batch-chart?figure=dough_temperature&product={PRODUCT}")).await;
    assert_eq!(chart["drift"]["points"].as_array().map(Vec::len), Some(3));
    for path in ["/api/v1/batch-comparison?batches=", "/api/v1/batch-comparison?batches=a,b"] {
        let (status, _) = plant.ask(Method::GET, path, &Value::Null).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{path}");
    }
}

#[tokio::test]
async fn a_fault_is_found_by_what_the_batch_says_and_what_is_answered() {
    let plant = Plant::open().await;
    let id = planned(&plant).await;
    sent(&plant, &id, &[event("start", Utc::now(), &json!({}))]).await;
    let warm = event("reading", Utc::now(), &json!({"quantity": "dough_c", "value": 30.5}));
    let blades = event("observation", Utc::now(), &json!({"name": "blade_h", "value": 12}));
    sent(&plant, &id, &[warm, blades]).await;
    let known = plant.get("/api/v1/faults").await;
    let faults = known["faults"].as_array().expect("a list");
    assert!(faults.iter().any(|one| one["key"] == "smearing" && one["group"] == "slicing"));
    assert_eq!(known["features"].as_array().map(Vec::len), Some(107));

    let path = format!("/api/v1/batches/{id}/diagnosis");
    let (status, found) = plant.post(&path, &json!({"fault": "dough_hot"})).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    assert_eq!(found["features"]["blade_h"], 12.0, "what was entered");
    assert!(found["features"]["dough_c_d"].as_f64().is_some_and(|apart| apart > 2.0), "{found}");
    let gates = found["gates"].as_array().expect("gates");
    assert!(gates.contains(&json!("straight")) && gates.contains(&json!("wheat")), "{found}");
    assert_eq!(found["diagnosis"]["answer"], "too_little", "one reading is no ranking");
    let answers = json!({"fault": "moulder_holes", "gates": ["tin"],
        "answers": {"hole_wall": 2, "moulder_changed": 0}});
    let (_, found) = plant.post(&path, &answers).await;
    assert_eq!(found["diagnosis"]["causes"][0]["cause"], "dough_warm", "{found}");
    assert_eq!(found["diagnosis"]["causes"][0]["opens"], "dough_hot");

    let (status, problem) = plant.post(&path, &json!({"fault": "mould"})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "it is never ranked: {problem}");
    let nowhere = format!("/api/v1/batches/{}/diagnosis", new_id());
    let (status, _) = plant.post(&nowhere, &json!({"fault": "smearing"})).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}
