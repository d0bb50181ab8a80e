//! Bakes with their traces, and judges with their marks, on the real server.

use crate::support::{Plant, full_mixer, list, new_id, number};
use chrono::Utc;
use ironpeel_store::PersonRole;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

const PRODUCT: &str = "deck-roll-60";

async fn planned(plant: &Plant) -> String {
    let scenario = plant.scenario(PRODUCT, "VR-26-1090", full_mixer()).await;
    let id = new_id();
    let body = json!({"slug": PRODUCT, "scenario": scenario, "planned_for": Utc::now()});
    let (status, batch) = plant.put(&format!("/api/v1/batches/{id}"), &body).await;
    assert_eq!(status, StatusCode::OK, "{batch}");
    id
}

/// A logger's file, taken apart.
async fn taken_apart(plant: &Plant, query: &str, file: &'static str) -> (StatusCode, Value) {
    let path = format!("/api/v1/bake-traces/read{query}");
    let response = plant.raw(Method::POST, &path, file).await;
    (response.status(), response.json().await.expect("JSON"))
}

fn trace() -> Value {
    json!({"bake_min": 20, "t_min": [0, 4, 8, 12, 14, 16, 18, 20],
        "probes": [{"name": "left", "core_c": [28, 34, 48, 66, 76, 85, 92, 96]},
            {"name": "right", "core_c": [28, 36, 51, 70, 80, 89, 95, 97]}]})
}

#[tokio::test]
async fn a_trace_is_read_kept_once_and_seen_beside_the_products_others() {
    let plant = Plant::open().await;
    let (first, second) = (planned(&plant).await, planned(&plant).await);
    let (status, file) = taken_apart(&plant, "", "time (min),left\n0,28\n10,60\n20,95\n").await;
    assert_eq!((status, &file["t_min"]), (StatusCode::OK, &json!([0.0, 10.0, 20.0])), "{file}");
    let hot = "time,left\n0,82\n10,140\n20,203\n";
    let (status, asked) = taken_apart(&plant, "", hot).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let unit = &asked["errors"][0];
    assert_eq!(unit["field"], "unit");
    assert!(unit["message"].as_str().expect("words").contains("°F"), "{asked}");
    let (status, file) = taken_apart(&plant, "?unit=fahrenheit", hot).await;
    assert_eq!((status, &file["unit"]), (StatusCode::OK, &json!("fahrenheit")), "{file}");

    let id = new_id();
    let path = format!("/api/v1/batches/{first}/bake-traces/{id}");
    let (status, read) = plant.put(&path, &trace()).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    let again = plant.put(&path, &trace()).await;
    assert_eq!((again.0, &again.1["bake"]["id"]), (StatusCode::OK, &json!(id)));
    let other = json!({"bake_min": 21, "t_min": trace()["t_min"], "probes": trace()["probes"]});
    assert_eq!(plant.put(&path, &other).await.0, StatusCode::CONFLICT);
    assert!((number(&read["read"]["probes"][0]["arrival_pct"]) - 92.5).abs() < 0.01);
    assert!((number(&read["wanted"]["bake_min"]) - 21.76).abs() < 0.01, "{}", read["wanted"]);
    assert_eq!(read["read"]["slowest"], "left");
    assert_eq!((&read["steam"], &read["earlier"]), (&Value::Null, &json!([])));

    // The floor may send a logger along; the next bake is seen beside the first.
    let logger = format!("/api/v1/batches/{second}/oven-logger/{}", new_id());
    let (status, read) = plant.ask_as(PersonRole::Floor, Method::PUT, &logger, &json!({})).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    assert_eq!(list(&read["probes"]).len(), 5);
    assert_eq!(list(&read["earlier"]).len(), 1);
    assert_eq!(number(&read["steam"]["traces"]), 1.0);
    let bakes = plant.get(&format!("/api/v1/bakes?product={PRODUCT}")).await;
    assert_eq!(list(&bakes["bakes"]).len(), 2);
    let batch = plant.get("/api/v1/batches").await;
    let arrival: Vec<&Value> =
        list(&batch["batches"]).iter().map(|one| &one["arrival_pct"]).collect();
    assert!(arrival.iter().any(|pct| pct.as_f64().is_some_and(|pct| (pct - 92.5).abs() < 0.01)));
    let chart = plant.get("/api/v1/batch-chart?figure=arrival").await;
    assert_eq!(list(&chart["batches"]).len(), 2);
    // What it says is evidence.
    let asked = json!({"fault": "gummy", "gates": ["tin"]});
    let (_, found) = plant.post(&format!("/api/v1/batches/{first}/diagnosis"), &asked).await;
    assert!((number(&found["features"]["arrival_d_pts"]) - 7.5).abs() < 0.01, "{found}");
}

/// A batch with a trace: where it is, the trace's id, and what was read.
async fn baked(plant: &Plant) -> (String, String, Value) {
    let (batch, id) = (planned(plant).await, new_id());
    let path = format!("/api/v1/batches/{batch}/bake-traces/{id}");
    let (status, read) = plant.put(&path, &trace()).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    (batch, id, read)
}

#[tokio::test]
async fn a_crossing_is_moved_by_hand_and_another_piece_scaled() {
    let plant = Plant::open().await;
    let (first, id, read) = baked(&plant).await;
    // A person moves a crossing: all that rests on it follows, and it is put back.
    let mark = async |said: Value| {
        let path = format!("/api/v1/bake-traces/{id}/marks/{}", new_id());
        plant.put(&path, &said).await
    };
    let (_, found) = mark(json!({"probe": "left", "crossing": "arrival", "minute": 17})).await;
    assert_eq!(number(&found["read"]["probes"][0]["arrival_pct"]), 85.0, "{}", found["read"]);
    assert_eq!(
        (&found["read"]["slowest"], &found["moves"][0]["probe"]),
        (&json!("right"), &json!("left"))
    );
    let listed = plant.get(&format!("/api/v1/bakes?batch={first}")).await;
    assert_eq!(listed["bakes"][0]["arrival_pct"], found["read"]["probes"][1]["arrival_pct"]);
    let early = mark(json!({"probe": "left", "crossing": "arrival", "minute": 12})).await;
    assert_eq!(
        (early.0, &early.1["errors"][0]["field"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("minute"))
    );
    let none = mark(json!({"probe": "middle", "crossing": "arrival", "minute": 17})).await;
    assert_eq!(none.1["errors"][0]["field"], "probe");
    let (_, back) = mark(json!({"probe": "left", "crossing": "arrival"})).await;
    assert_eq!((&back["read"], &back["moves"]), (&read["read"], &json!([])));
    // A piece of eight times the mass bakes four times as long.
    let scaled =
        async |kg: f64| plant.get(&format!("/api/v1/bake-traces/{id}/scaled?piece_kg={kg}")).await;
    let one = scaled(0.06).await;
    let eightfold = scaled(8.0 * number(&one["from_kg"])).await;
    let times = number(&eightfold["minutes"]["typical"]) / number(&one["from_min"]);
    assert!((times - 4.0).abs() < 1e-9, "{eightfold}");
    let path = format!("/api/v1/bake-traces/{id}/scaled?piece_kg=90");
    let (status, told) = plant.ask(Method::GET, &path, &Value::Null).await;
    assert_eq!(
        (status, &told["errors"][0]["field"]),
        (StatusCode::UNPROCESSABLE_ENTITY, &json!("piece_kg"))
    );
}

#[tokio::test]
async fn an_action_opens_as_a_plan() {
    let plant = Plant::open().await;
    let (first, _, _) = baked(&plant).await;
    // 92.5 where 85 is wanted, so the bake is longer.
    let opened = plant.get(&format!("/api/v1/batches/{first}/what-if/bake_short")).await;
    let product = plant.get(&format!("/api/v1/products/{PRODUCT}")).await;
    let bake = |method: &Value| {
        let mut stages = list(&method["stages"]).iter().filter(|stage| stage["kind"] == "bake");
        number(&stages.next_back().expect("it is baked")["minutes"])
    };
    let longer = (bake(&product["method"]) * 92.5 / 85.0).round();
    assert_eq!((bake(&opened["method"]), &opened["formula"]), (longer, &Value::Null), "{opened}");
    let wet = plant.get(&format!("/api/v1/batches/{first}/what-if/water_high")).await;
    let dry = plant.get(&format!("/api/v1/batches/{first}/what-if/water_low")).await;
    assert!((number(&dry["hydration_pct"]) - number(&wet["hydration_pct"]) - 2.0).abs() < 1e-9);
    assert_eq!((&wet["slug"], &wet["method"]), (&json!(PRODUCT), &Value::Null));
    let yeast = plant.get(&format!("/api/v1/batches/{first}/what-if/yeast_low")).await;
    assert_ne!(yeast["formula"]["lines"], product["formula"]["lines"]);
    for none in ["blade_dull", "nothing_known"] {
        let path = format!("/api/v1/batches/{first}/what-if/{none}");
        let (status, _) = plant.ask(Method::GET, &path, &Value::Null).await;
        assert_eq!(status, StatusCode::NOT_FOUND, "{none}");
    }
}

#[tokio::test]
async fn a_trace_that_cannot_be_is_told_at_its_place() {
    let plant = Plant::open().await;
    let batch = planned(&plant).await;
    let refused = async |change: Value| {
        let mut body = trace();
        for (key, value) in change.as_object().expect("an object") {
            body[key] = value.clone();
        }
        let path = format!("/api/v1/batches/{batch}/bake-traces/{}", new_id());
        let (status, problem) = plant.put(&path, &body).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        problem["errors"][0]["field"].as_str().expect("a field").to_owned()
    };
    assert_eq!(refused(json!({"bake_min": 0})).await, "bake_min");
    assert_eq!(refused(json!({"t_min": [0, 4, 8, 12, 14, 16, 15, 20]})).await, "t_min[6]");
    assert_eq!(refused(json!({"probes": []})).await, "probes");
    let short = json!([{"name": "left", "core_c": [28, 34, 48, 66, 76]}]);
    assert_eq!(refused(json!({"probes": short})).await, "probes[0].core_c");
    let nowhere = format!("/api/v1/batches/{}/bake-traces/{}", new_id(), new_id());
    assert_eq!(plant.put(&nowhere, &trace()).await.0, StatusCode::NOT_FOUND);
    let path = format!("/api/v1/batches/{batch}/bake-traces/{}", new_id());
    let visitor = plant.ask_as(PersonRole::Visitor, Method::PUT, &path, &trace()).await;
    assert_eq!(visitor.0, StatusCode::FORBIDDEN);
    assert_eq!(taken_apart(&plant, "", "").await.0, StatusCode::UNPROCESSABLE_ENTITY);
}

/// Every characteristic at one mark, below the standard where it has two sides.
fn marks(mark: f64) -> Value {
    let all = [
        "volume",
        "shape",
        "crust_colour",
        "crust_character",
        "break",
        "openness",
        "evenness",
        "crumb_colour",
        "texture",
        "stickiness",
        "slicing",
        "flavour",
    ];
    let two_sided = ["volume", "crust_colour", "break", "openness"];
    all.map(|of| {
        if two_sided.contains(&of) {
            json!({"of": of, "mark": mark, "sign": "too_little"})
        } else {
            json!({"of": of, "mark": mark})
        }
    })
    .into()
}

#[tokio::test]
async fn judges_mark_alone_under_codes_and_meet_in_the_batch() {
    let plant = Plant::open().await;
    let batch = planned(&plant).await;
    let set_out = format!("/api/v1/batches/{batch}/samples/{}", new_id());
    let wanted = json!({"loaves": 2, "twice": 1});
    let (status, samples) = plant.put(&set_out, &wanted).await;
    assert_eq!((status, list(&samples).len()), (StatusCode::OK, 3), "{samples}");
    let again = plant.put(&set_out, &wanted).await.1;
    assert_eq!(again, samples, "set out once");
    let codes: Vec<&str> =
        list(&samples).iter().map(|one| one["code"].as_str().expect("a code")).collect();
    let sheet = plant.get(&format!("/api/v1/samples/{}", codes[0])).await;
    assert_eq!(list(&sheet["lines"]).len(), 12);
    assert!(!sheet.to_string().contains(&batch), "which batch it is of is not said");

    let score = async |role, body: &Value| {
        let path = format!("/api/v1/scores/{}", new_id());
        plant.ask_as(role, Method::PUT, &path, body).await
    };
    let of = |code: &str, mark| json!({"code": code, "marks": marks(mark), "note": "even"});
    for code in &codes {
        let (status, stored) = score(PersonRole::Technologist, &of(code, 4.0)).await;
        assert_eq!((status, list(&stored["marks"]).len()), (StatusCode::OK, 12), "{stored}");
    }
    let (status, _) = score(PersonRole::Floor, &of(codes[0], 3.0)).await;
    assert_eq!(status, StatusCode::OK);
    // A judge scores once; a second look is said to be one.
    let twice = score(PersonRole::Floor, &of(codes[0], 5.0)).await;
    assert_eq!(twice.0, StatusCode::CONFLICT, "{}", twice.1);
    let mut look = of(codes[0], 3.5);
    look["round"] = json!(2);
    assert_eq!(score(PersonRole::Floor, &look).await.0, StatusCode::OK);
    look["code"] = json!(codes[1]);
    assert_eq!(score(PersonRole::Floor, &look).await.1["errors"][0]["field"], "round");
    let six = json!({"code": codes[1], "marks": [{"of": "flavour", "mark": 6}]});
    assert_eq!(score(PersonRole::Floor, &six).await.1["errors"][0]["field"], "marks[0].mark");
    assert_eq!(score(PersonRole::Floor, &of("nothing", 4.0)).await.0, StatusCode::NOT_FOUND);
    assert_eq!(score(PersonRole::Visitor, &of(codes[1], 4.0)).await.0, StatusCode::FORBIDDEN);

    let found = plant.get(&format!("/api/v1/batches/{batch}/scores")).await;
    assert_eq!(list(&found["scores"]).len(), 5, "the first marks stay");
    let total = number(&found["panel"]["total"]["total"]);
    assert!((50.0..75.0).contains(&total), "{total}");
    assert_eq!(list(&found["panel"]["judges"]).len(), 2);
    assert_eq!(number(&found["panel"]["loaves"]), 2.0);
    let listed = plant.get("/api/v1/batches?score_below=80").await;
    let listed = list(&listed["batches"]);
    assert_eq!((&listed[0]["id"], listed.len()), (&json!(batch), 1));
    assert!((number(&listed[0]["score"]) - total).abs() < 1e-9);
    assert_eq!(plant.get("/api/v1/batches?score_below=40").await["batches"], json!([]));
    // What they say is evidence.
    let asked = json!({"fault": "pale_crust", "gates": ["tin"]});
    let (_, found) = plant.post(&format!("/api/v1/batches/{batch}/diagnosis"), &asked).await;
    assert!(number(&found["features"]["colour_d"]) < -1.0, "{}", found["features"]);
}

#[tokio::test]
async fn a_product_is_held_to_its_own_standard() {
    let plant = Plant::open().await;
    let path = format!("/api/v1/products/{PRODUCT}/standard");
    let house = plant.get(&path).await;
    assert_eq!((&house["revisions"], number(&house["lines"][0]["weight"])), (&json!([]), 12.0));
    let save = async |number: i32, standard: Value| {
        let body = json!({"number": number, "standard": standard, "signed": {"reason": "agreed"}});
        plant.put(&format!("{path}/{}", new_id()), &body).await
    };
    let own =
        json!({"targets": {"volume": {"target": 5.2}}, "anchors": {"volume": "fills its box"}});
    let (status, found) = save(1, own.clone()).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    let volume = &found["lines"][0];
    assert!((number(&volume["measure"]["target"]["range"]) - 1.3).abs() < 1e-9, "{volume}");
    assert_eq!(volume["anchors"][2], "fills its box");
    assert_eq!(save(1, own).await.0, StatusCode::CONFLICT, "somebody made the first already");
    let (status, refused) = save(2, json!({"weights": {"volume": 100}})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(refused["errors"][0]["field"], "standard.weights");
    // A measurement is marked by it.
    let batch = planned(&plant).await;
    let set_out = format!("/api/v1/batches/{batch}/samples/{}", new_id());
    let (_, samples) = plant.put(&set_out, &json!({"loaves": 1})).await;
    let sheet = json!({"code": samples[0]["code"], "marks": [{"of": "volume", "measured": 4.55}]});
    let (_, stored) = plant.put(&format!("/api/v1/scores/{}", new_id()), &sheet).await;
    let mark = &stored["marks"][0];
    assert!((number(&mark["mark"]) - 3.0).abs() < 1e-9, "{stored}");
    assert_eq!((&mark["sign"], number(&mark["measured"])), (&json!("too_little"), 4.55));
}

#[tokio::test]
async fn a_person_confirms_a_cause_and_it_teaches() {
    let plant = Plant::open().await;
    let batch = planned(&plant).await;
    let diagnosis = format!("/api/v1/batches/{batch}/diagnosis");
    let asked = json!({"fault": "gummy", "gates": ["tin"], "answers": {"core_end_d_c": -2.5,
        "falling_number_s": 240}});
    let prior = |found: &Value| {
        let causes = list(&found["diagnosis"]["causes"]);
        let cause = causes.iter().find(|one| one["cause"] == "bake_short");
        number(&cause.expect("it can be")["prior"])
    };
    let (_, house) = plant.post(&diagnosis, &asked).await;
    assert_eq!(number(&house["confirmed"]["batches"]), 0.0);
    let decide = async |said: Value| {
        let path = format!("/api/v1/batches/{batch}/fault-cases/{}", new_id());
        plant.put(&path, &said).await
    };
    let confirmed = json!({"fault": "gummy", "cause": "bake_short", "verdict": "confirmed",
        "note": "paste on the knife"});
    let (status, cases) = decide(confirmed.clone()).await;
    assert_eq!((status, list(&cases).len()), (StatusCode::OK, 1), "{cases}");
    let (_, taught) = plant.post(&diagnosis, &asked).await;
    assert!(prior(&taught) > prior(&house), "it counts half a case");
    assert_eq!(taught["cases"][0]["note"], "paste on the knife");
    let listed = plant.get("/api/v1/batches?fault=gummy").await;
    assert_eq!(listed["batches"][0]["id"], json!(batch));
    assert_eq!(plant.get("/api/v1/batches?fault=smearing").await["batches"], json!([]));
    // A change is judged by the two batches after it, and none was finished.
    let mut cured = confirmed.clone();
    cured["by_change"] = json!(true);
    let (status, refused) = decide(cured).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(refused["errors"][0]["field"], "by_change");
    let foreign = json!({"fault": "gummy", "cause": "retard_sweat", "verdict": "confirmed"});
    assert_eq!(decide(foreign).await.1["errors"][0]["field"], "cause");
    // What was said last stands.
    let mut rejected = confirmed;
    rejected["verdict"] = json!("rejected");
    assert_eq!(decide(rejected).await.0, StatusCode::OK);
    let (_, again) = plant.post(&diagnosis, &asked).await;
    assert!((prior(&again) - prior(&house)).abs() < 1e-12);
    assert_eq!(list(&again["cases"]).len(), 2, "the first stays on record");
}

#[tokio::test]
async fn a_plants_own_weight_reaches_the_diagnosis_with_its_reason() {
    let plant = Plant::open().await;
    let batch = planned(&plant).await;
    let asked = json!({"fault": "gummy", "gates": ["tin"]});
    let prior = |found: &Value| {
        let causes = list(&found["diagnosis"]["causes"]);
        number(&causes.iter().find(|one| one["cause"] == "bake_short").expect("a cause")["prior"])
    };
    let diagnosis = format!("/api/v1/batches/{batch}/diagnosis");
    let (_, house) = plant.post(&diagnosis, &asked).await;
    assert_eq!(house["own"], json!([]));
    let listed = plant.get("/api/v1/faults/gummy/coefficients").await;
    let key = "fault.gummy.bake_short.weight";
    let weight = list(&listed).iter().find(|one| one["house"]["key"] == key).expect("a weight");
    let save = async |value: f64| {
        let change = json!({"number": 1, "signed": {"reason": "a short oven"}, "coefficients":
            [{"key": key, "typical": value, "reason": "a short oven"}]});
        plant.put(&format!("/api/v1/plant/parameters/revisions/{}", new_id()), &change).await
    };
    let (status, refused) = save(100.0).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{refused}");
    assert_eq!(save(2.0 * number(&weight["house"]["value"])).await.0, StatusCode::OK);
    let (_, own) = plant.post(&diagnosis, &asked).await;
    assert!(prior(&own) > prior(&house), "{own}");
    assert_eq!(own["own"][0]["source"], "a short oven");
    // Among the plant's parameters stand its own alone, not the thousands of the house's.
    let all = plant.get("/api/v1/plant/parameters").await;
    let of_faults =
        list(&all["coefficients"]).iter().filter_map(|one| one["house"]["key"].as_str());
    assert_eq!(of_faults.filter(|key| key.starts_with("fault.")).collect::<Vec<_>>(), [key]);
    let (status, _) =
        plant.ask(Method::GET, "/api/v1/faults/no-such/coefficients", &json!({})).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}
