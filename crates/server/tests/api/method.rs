//! Methods, lines, sponges, two ways, runs and the standing line, over HTTP.

use crate::support::{Plant, fields, full_mixer, new_id};
use chrono::{DateTime, Duration, Utc};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

const STRONG: &str = "VR-26-1098";

fn doughs(number: u32) -> Value {
    json!({"amount": {"by": "mixer", "doughs": number}})
}

fn moment(value: &Value) -> DateTime<Utc> {
    value.as_str().and_then(|text| text.parse().ok()).expect("a moment")
}

fn out_by(at: DateTime<Utc>) -> Value {
    json!({"anchor": {"by": "out_by", "at": at}})
}

/// A later hour of a day that is certainly to come.
fn to_come() -> DateTime<Utc> {
    Utc::now() + Duration::hours(60)
}

#[tokio::test]
async fn a_method_is_revised_with_a_reason_and_a_what_if_sees_it_before() {
    let plant = Plant::open().await;
    let product = plant.get("/api/v1/products/deck-roll-60").await;
    let method = &product["method"];
    let id = method["id"].as_str().expect("an id");
    let mut draft = json!({
        "process": method["process"], "target_c": 26.0, "machine_divided": true,
        "stages": method["stages"],
    });
    draft["stages"][1]["minutes"] = json!(4);
    let mut scenario = plant.scenario("deck-roll-60", STRONG, full_mixer()).await;
    let (_, before) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    scenario["method"] = draft.clone();
    let (status, after) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    assert_eq!(status, StatusCode::OK, "{after}");
    let energy = |answer: &Value| answer["chain"]["method"]["mixing_kj_per_kg"].as_f64();
    assert!(energy(&after) < energy(&before), "two fast minutes less");
    assert_eq!(after["chain"]["heat"]["target_c"], 26.0);

    let path = format!("/api/v1/methods/{id}/revisions/{}", new_id());
    let mut input = draft.clone();
    input["number"] = json!(2);
    input["signed"] = json!({"reason": ""});
    let (status, refused) = plant.put(&path, &input).await;
    assert_eq!(
        (status, fields(&refused)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["signed.reason"])
    );
    input["signed"]["reason"] = json!("shorter mixing in summer");
    let (status, saved) = plant.put(&path, &input).await;
    assert_eq!(status, StatusCode::OK, "{saved}");
    assert_eq!(saved["revision"]["number"], 2);
    let (again, _) = plant.put(&path, &input).await;
    assert_eq!(again, StatusCode::OK, "sent twice, stored once");
    let late = format!("/api/v1/methods/{id}/revisions/{}", new_id());
    assert_eq!(plant.put(&late, &input).await.0, StatusCode::CONFLICT);
    let revisions = plant.get(&format!("/api/v1/methods/{id}/revisions")).await;
    assert_eq!(revisions[0]["reason"], "shorter mixing in summer");
    let old = revisions[1]["id"].as_str().expect("an id");
    let old = plant.get(&format!("/api/v1/method-revisions/{old}")).await;
    assert_eq!(old["stages"], method["stages"], "the old one is as it was");

    // A sheet is planned from what is recorded only.
    let batch = json!({"slug": "deck-roll-60", "scenario": scenario, "planned_for": to_come()});
    let (status, planned) = plant.put(&format!("/api/v1/batches/{}", new_id()), &batch).await;
    assert_eq!(status, StatusCode::OK, "{planned}");
    assert_eq!(planned["issued"]["chain"]["heat"]["target_c"], 27.0, "as its pinned revision says");
}

#[tokio::test]
async fn a_method_no_dough_can_be_made_by_is_refused_at_its_place() {
    let plant = Plant::open().await;
    let mut scenario = plant.scenario("deck-roll-60", STRONG, full_mixer()).await;
    scenario["method"] = json!({"process": "no_time", "target_c": 27,
        "stages": [{"kind": "proof", "label": "", "minutes": 55}]});
    let (status, refused) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(fields(&refused), ["now.method.stages", "now.method.stages[0].label"]);
}

#[tokio::test]
async fn families_are_offered_and_a_step_is_left_out_with_what_makes_it_good() {
    let plant = Plant::open().await;
    let families = plant.get("/api/v1/method-families").await;
    let families = families.as_array().expect("a list");
    assert!(families.len() >= 14, "{}", families.len());
    let sour = families.iter().find(|one| one["key"] == "sour_folds").expect("a family");
    let asked = json!({"method": sour, "choice": "autolyse", "taken": false});
    let (status, changed) = plant.post("/api/v1/optional-step", &asked).await;
    assert_eq!(status, StatusCode::OK, "{changed}");
    let labels: Vec<&str> = changed["stages"]
        .as_array()
        .expect("stages")
        .iter()
        .filter_map(|stage| stage["label"].as_str())
        .collect();
    assert!(
        !labels.contains(&"Autolyse") && labels.contains(&"One more set of folds"),
        "{labels:?}"
    );
    let asked = json!({"method": {"process": "frozen"}, "choice": "autolyse", "taken": true});
    assert_eq!(
        plant.post("/api/v1/optional-step", &asked).await.0,
        StatusCode::UNPROCESSABLE_ENTITY
    );
}

#[tokio::test]
async fn friction_is_learned_from_measured_doughs_and_the_line_is_revised() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("ferry-tin-800", STRONG, full_mixer()).await;
    let (_, guide) = plant.post("/api/v1/chain/method", &scenario).await;
    assert_eq!(guide["friction_factor"]["doughs"], 0);
    assert_eq!(guide["friction_factor"]["friction"]["friction_c"], 14.0);
    let product = plant.get("/api/v1/products/ferry-tin-800").await;
    let mut dough = json!({
        "method_id": product["method"]["id"], "line_id": product["line"]["id"],
        "taken_at": Utc::now(), "flour_c": 22, "room_c": 250, "water_c": 9, "dough_c": 27,
    });
    let path = format!("/api/v1/dough-temperatures/{}", new_id());
    let (status, refused) = plant.put(&path, &dough).await;
    assert_eq!((status, fields(&refused)), (StatusCode::UNPROCESSABLE_ENTITY, vec!["room_c"]));
    dough["room_c"] = json!(24);
    dough["preferment_c"] = json!(28.5);
    for _ in 0..2 {
        let (status, saved) = plant.put(&path, &dough).await;
        assert_eq!(status, StatusCode::OK, "{saved}");
        // 4 · 27 − 22 − 24 − 9 − 28.5
        assert_eq!(saved["friction_c"], 24.5);
    }
    let (_, learned) = plant.post("/api/v1/chain/method", &scenario).await;
    assert_eq!(
        (&learned["friction_factor"]["doughs"], &learned["friction_factor"]["counts"]),
        (&json!(1), &json!(4))
    );
    assert!(learned["friction_factor"]["friction"]["friction_c"].as_f64() > Some(20.0));
    assert_eq!(
        learned["friction_factor"]["measured_kj_per_kg"],
        Value::Null,
        "its own dough is not known"
    );
    let mut known = dough.clone();
    known["scenario"] = scenario.clone();
    let another = format!("/api/v1/dough-temperatures/{}", new_id());
    let (status, saved) = plant.put(&another, &known).await;
    assert_eq!(status, StatusCode::OK, "{saved}");
    let (_, learned) = plant.post("/api/v1/chain/method", &scenario).await;
    assert!(learned["friction_factor"]["measured_kj_per_kg"].is_number(), "{learned}");
    dough["method_id"] = json!(new_id());
    let nowhere = format!("/api/v1/dough-temperatures/{}", new_id());
    assert_eq!(plant.put(&nowhere, &dough).await.0, StatusCode::NOT_FOUND);

    let line = product["line"]["id"].as_str().expect("an id");
    let path = format!("/api/v1/lines/{line}/revisions/{}", new_id());
    let mut change = json!({"number": 2, "oven_pieces": 0, "max_kg": 100,
        "signed": {"reason": "a smaller oven"}});
    let (_, refused) = plant.put(&path, &change).await;
    assert_eq!(fields(&refused), ["max_kg", "oven_pieces"]);
    change["oven_pieces"] = json!(650);
    change["max_kg"] = json!(480);
    let (status, saved) = plant.put(&path, &change).await;
    assert_eq!(status, StatusCode::OK, "{saved}");
    assert_eq!(saved["equipment"]["oven_pieces"], 650.0);
    assert_eq!(saved["equipment"]["troughs"], product["line"]["equipment"]["troughs"]);
    assert_eq!(plant.get("/api/v1/products/ferry-tin-800").await["line"]["revision"]["number"], 2);
}

#[tokio::test]
async fn a_sponge_is_solved_and_stands_beside_the_straight_dough() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("ferry-tin-800", STRONG, full_mixer()).await;
    let asked = json!({"scenario": scenario, "end_c": 29, "sooner_min": 30});
    let (status, found) = plant.post("/api/v1/chain/sponge", &asked).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    assert_eq!(found["found"].as_array().map(Vec::len), Some(4));
    assert!(found["acceleration"]["extra_min"].as_f64() > Some(1.0));
    let bad = json!({"scenario": scenario, "end_c": 90, "sooner_min": "soon"});
    let (_, refused) = plant.post("/api/v1/chain/sponge", &bad).await;
    assert_eq!(fields(&refused), ["end_c", "sooner_min"]);

    let (status, both) = plant.post("/api/v1/chain/process-comparison", &scenario).await;
    assert_eq!(status, StatusCode::OK, "{both}");
    assert_eq!(both["own"]["process"], "sponge_dough");
    assert_eq!(both["other"]["process"], "no_time");
    assert!(
        both["own"]["dough_absorption_pct"].as_f64()
            > both["other"]["dough_absorption_pct"].as_f64()
    );

    let roll = plant.scenario("deck-roll-60", STRONG, full_mixer()).await;
    let (_, none) = plant.post("/api/v1/chain/sponge", &json!({"scenario": roll})).await;
    assert_eq!(none["sponge"], Value::Null);
}

#[tokio::test]
async fn ten_doughs_are_planned_moved_stopped_and_replanned() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("ferry-tin-800", STRONG, doughs(10)).await;
    let at = to_come();
    let (status, calm) = plant
        .post("/api/v1/chain/production-run", &json!({"scenario": scenario, "day": out_by(at)}))
        .await;
    assert_eq!(status, StatusCode::OK, "{calm}");
    assert_eq!(calm["plan"]["doughs"].as_array().map(Vec::len), Some(10));
    assert_eq!(calm["plan"]["cadence"]["bottleneck"], "mixer", "for sponge and dough");
    assert!((moment(&calm["plan"]["out_at"]) - at).num_seconds().abs() < 2);
    assert_eq!(calm["late"], json!([]));

    let shifted = json!({"scenario": scenario, "day": out_by(at), "shifts": [{"dough": 3, "stage": 2, "by_min": 30}]});
    let (_, moved) = plant.post("/api/v1/chain/production-run", &shifted).await;
    let mixed =
        |run: &Value, dough: usize| moment(&run["plan"]["doughs"][dough]["stages"][2]["starts_at"]);
    assert_eq!(mixed(&moved, 2) - mixed(&calm, 2), Duration::minutes(30));
    assert!(mixed(&moved, 3) > mixed(&calm, 3), "the rest follows");
    assert_eq!(mixed(&moved, 1), mixed(&calm, 1));

    let from = mixed(&calm, 2) - Duration::minutes(1);
    let mut stop =
        json!({"scenario": scenario, "day": out_by(at), "stop": {"at": from, "minutes": 90}});
    let (status, stopped) = plant.post("/api/v1/chain/production-run", &stop).await;
    assert_eq!(status, StatusCode::OK, "{stopped}");
    let late = stopped["late"].as_array().expect("a list");
    assert!(late.iter().any(|one| one["dough"] == 3 && one["past_min"].as_f64() > Some(10.0)));
    assert_eq!(moment(&stopped["calm_out_at"]), moment(&calm["plan"]["out_at"]));
    assert!(moment(&stopped["plan"]["out_at"]) > at);
    stop["dropped"] = json!([3, 4]);
    let (_, fewer) = plant.post("/api/v1/chain/production-run", &stop).await;
    assert_eq!(fewer["plan"]["doughs"].as_array().map(Vec::len), Some(8));
    assert!(moment(&fewer["plan"]["out_at"]) < moment(&stopped["plan"]["out_at"]));

    stop["stop"]["minutes"] = json!(0);
    let (_, refused) = plant.post("/api/v1/chain/production-run", &stop).await;
    assert_eq!(fields(&refused), ["stop.minutes"]);
    let many = plant.scenario("ferry-tin-800", STRONG, doughs(201)).await;
    let (_, refused) = plant
        .post("/api/v1/chain/production-run", &json!({"scenario": many, "day": out_by(at)}))
        .await;
    assert_eq!(fields(&refused), ["scenario.run_settings.amount"]);
}

/// A calendar read by a library that reads calendars.
async fn calendar(plant: &Plant, path: &str, asked: &Value) -> icalendar::Calendar {
    let response = plant.raw(Method::POST, path, asked.to_string()).await;
    assert_eq!(response.status(), StatusCode::OK);
    response.text().await.expect("text").parse().expect("a calendar")
}

fn summaries(calendar: &icalendar::Calendar) -> Vec<&str> {
    use icalendar::Component;
    let events = calendar.components.iter().filter_map(|one| one.as_event());
    events.filter_map(|event| event.get_summary()).collect()
}

#[tokio::test]
async fn balls_for_friday_have_their_spare_ones_in_the_calendar_and_a_sour_its_feed() {
    let plant = Plant::open().await;
    let plain = plant.flour("Tarn Plain").await;
    let lots =
        plant.get(&format!("/api/v1/lots?flour_id={}", plain["id"].as_str().expect("id"))).await;
    let code = lots["lots"][0]["code"].as_str().expect("a lot");
    let scenario = plant.scenario("ebb-flats-240", code, full_mixer()).await;
    let asked = json!({"scenario": scenario, "day": out_by(to_come()),
        "spare": {"pieces": 4, "on": to_come() + Duration::days(5)}});
    let (status, found) = plant.post("/api/v1/chain/schedule", &asked).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    assert_eq!(found["spare"]["pieces"], 4);
    let read = calendar(&plant, "/api/v1/chain/schedule/calendar", &asked).await;
    let names = summaries(&read);
    let stages = found["plan"]["stages"].as_array().expect("stages").len();
    assert_eq!(names.len(), stages + 3);
    assert!(
        names.iter().any(|name| name.ends_with("surplus pieces into the freezer")),
        "{names:?}"
    );
    let mut soon = asked.clone();
    soon["spare"]["on"] = json!(to_come() - Duration::hours(10));
    let (_, refused) = plant.post("/api/v1/chain/schedule", &soon).await;
    assert_eq!(fields(&refused), ["spare.on"]);

    let whole = plant.flour("Holm Whole").await;
    let lots =
        plant.get(&format!("/api/v1/lots?flour_id={}", whole["id"].as_str().expect("id"))).await;
    let code = lots["lots"][0]["code"].as_str().expect("a lot");
    let scenario = plant.scenario("holm-tin", code, full_mixer()).await;
    let asked = json!({"scenario": scenario, "day": out_by(to_come())});
    let (_, found) = plant.post("/api/v1/chain/schedule", &asked).await;
    let fed = moment(&found["feed"]["at"]);
    assert!(fed < moment(&found["plan"]["starts_at"]), "{found}");
    let read = calendar(&plant, "/api/v1/chain/schedule/calendar", &asked).await;
    let names = summaries(&read);
    assert!(names.iter().any(|name| name.ends_with("feed the starter")));
    let folds = names.iter().filter(|name| name.contains("Three sets of folds, "));
    assert_eq!(folds.count(), 3, "each set is an entry: {names:?}");
}

#[tokio::test]
async fn a_runs_calendar_has_what_somebody_does_with_each_dough() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("ferry-tin-800", STRONG, doughs(4)).await;
    let asked = json!({"scenario": scenario, "day": out_by(to_come())});
    let read = calendar(&plant, "/api/v1/chain/production-run/calendar", &asked).await;
    let names = summaries(&read);
    let sponges = names.iter().filter(|name| name.ends_with("Mix the sponge")).count();
    assert_eq!(sponges, 4, "{names:?}");
    assert!(!names.iter().any(|name| name.ends_with("Final proof")));
}

#[tokio::test]
async fn portions_of_one_dough_come_out_at_their_own_hours() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("ebb-flats-240", "VP-26-0435", full_mixer()).await;
    let at = to_come();
    let mut asked = json!({"scenario": scenario, "starts_at": at, "portions": [
        {"pieces": 2, "kept": "refrigerator", "out_of_oven_at": at + Duration::hours(30)},
        {"pieces": 2, "kept": "freezer", "out_of_oven_at": at + Duration::days(9)}]});
    let (status, found) = plant.post("/api/v1/chain/portions", &asked).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    let one = &found["portions"][1];
    assert_eq!(moment(&one["out_at"]) - moment(&one["thaw_at"]), Duration::hours(24));
    assert!(moment(&one["warm_at"]) < moment(&one["bake_at"]), "{one}");
    let read = calendar(&plant, "/api/v1/chain/portions/calendar", &asked).await;
    let names = summaries(&read);
    assert_eq!(names.len(), 5, "{names:?}");
    assert!(names.iter().any(|name| name.ends_with("2 pieces out of the cold")), "{names:?}");
    asked["portions"][0]["out_of_oven_at"] = json!(at + Duration::hours(1));
    let (status, problem) = plant.post("/api/v1/chain/portions", &asked).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "portions[0].out_of_oven_at");
}

#[tokio::test]
async fn tonights_dough_is_followed_by_its_readings() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("deck-roll-60", STRONG, full_mixer()).await;
    let asked =
        json!({"scenario": scenario, "of": "jar", "readings": [{"minutes": 40, "rise_pct": 20}]});
    let (status, found) = plant.post("/api/v1/chain/fermentation-tracking", &asked).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    assert!(found["rate"]["sd"].as_f64() < Some(0.25));
    assert_eq!(found["marks"].as_array().map(Vec::len), Some(3));
    let bad =
        json!({"scenario": scenario, "of": "bulk", "readings": [{"minutes": 0, "rise_pct": -3}]});
    let (_, refused) = plant.post("/api/v1/chain/fermentation-tracking", &bad).await;
    assert_eq!(fields(&refused), ["readings[0].minutes", "readings[0].rise_pct"]);
    let (_, solved) = plant
        .post("/api/v1/chain/target-rise", &json!({"scenario": scenario, "rise_pct": 60}))
        .await;
    assert!(solved["after_h"].is_number(), "{solved}");
}

#[tokio::test]
async fn a_starters_feed_is_open_to_spreadsheets() {
    let plant = Plant::open().await;
    let path = "/api/v1/calc/starter-feed";
    let (status, fed) =
        plant.post(path, &json!({"ambient_c": 22, "grams": 300, "ripe_in_h": 10})).await;
    assert_eq!(status, StatusCode::OK, "{fed}");
    let g = |key: &str| fed[key].as_f64().expect("a mass");
    assert!((g("starter_g") + g("flour_g") + g("water_g") - 300.0).abs() < 1e-9);
    assert!((fed["ripe_h"].as_f64().expect("ripe") - 10.0).abs() < 0.01);
    let (status, refused) = plant.post(path, &json!({"ambient_c": 60})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(fields(&refused), ["ambient_c", "grams"]);
}

#[tokio::test]
async fn a_run_that_fits_no_hours_says_what_is_in_the_way() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("ferry-tin-800", STRONG, doughs(10)).await;
    let mut day = out_by(to_come());
    day["closed_hours"] = json!([{"from": "6:00", "to": "2:00"}]);
    let asked = json!({"scenario": scenario, "day": day});
    let (status, refused) = plant.post("/api/v1/chain/production-run", &asked).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(fields(&refused), ["day.closed_hours"]);
    let mut late = asked.clone();
    late["day"] = json!({"anchor": {"by": "out_by", "at": Utc::now()}, "not_before": Utc::now()});
    let (_, refused) = plant.post("/api/v1/chain/production-run", &late).await;
    assert!(refused["errors"][0]["message"].as_str().expect("words").contains("into the past"));
    late["day"]["zone"] = json!("Nowhere/Land");
    let (_, refused) = plant.post("/api/v1/chain/production-run", &late).await;
    assert_eq!(fields(&refused), ["day.zone"]);
}

#[tokio::test]
async fn a_line_is_made_from_nothing_and_asks_for_what_it_needs() {
    let plant = Plant::open().await;
    let path = format!("/api/v1/lines/{}/revisions/{}", new_id(), new_id());
    let signed = json!({"reason": ""});
    let (status, _) = plant.put(&path, &json!({"number": 1, "signed": signed})).await;
    assert_eq!(status, StatusCode::NOT_FOUND, "neither a line nor a name for one");
    let bare = json!({"number": 1, "name": "Line 1", "mixer_kind": "hand", "signed": signed});
    let (status, refused) = plant.put(&path, &bare).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let asked = fields(&refused);
    for field in [
        "name",
        "mixer_name",
        "min_kg",
        "max_kg",
        "troughs",
        "oven_pieces",
        "division_kg",
        "room_c",
    ] {
        assert!(asked.contains(&field), "{field} is not asked for: {asked:?}");
    }
    assert!(!asked.contains(&"chilled_c"), "a line may be without");
    let line = json!({
        "number": 1, "name": "Table 4", "mixer_name": "A bowl", "mixer_kind": "hand", "min_kg": 0.2,
        "max_kg": 3, "slow_kj_per_kg_min": 0.1, "fast_kj_per_kg_min": 0.2, "turn_min": 10,
        "troughs": 2, "trough_kg": 3, "trough_m2": 0.1, "divider_per_min": 2, "proofer_pieces": 8,
        "oven_pieces": 4, "division_kg": 0.001, "tap_c": 14, "flour_c": 20, "room_c": 21,
        "signed": signed,
    });
    let (status, made) = plant.put(&path, &line).await;
    assert_eq!((status, &made["name"]), (StatusCode::OK, &json!("Table 4")), "{made}");
    assert_eq!(plant.put(&path, &line).await.1, made, "sent twice, made once");
    let lines = plant.get("/api/v1/lines").await;
    let names: Vec<&str> =
        lines.as_array().expect("a list").iter().filter_map(|one| one["name"].as_str()).collect();
    assert_eq!(names.iter().filter(|name| **name == "Table 4").count(), 1, "{names:?}");
    let revisions = plant
        .get(&format!("/api/v1/lines/{}/revisions", made["id"].as_str().expect("an id")))
        .await;
    assert_eq!(revisions.as_array().expect("a list").len(), 1);
}
