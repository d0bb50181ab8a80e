//! The build-up with the plant's own numbers, who holds the water, and what lots teach.

use crate::support::{Plant, fields, full_mixer, list, new_id, number};
use reqwest::StatusCode;
use serde_json::{Value, json};

async fn save(plant: &Plant, input: &Value) -> (StatusCode, Value) {
    plant.put(&format!("/api/v1/plant/parameters/revisions/{}", new_id()), input).await
}

async fn build_up(plant: &Plant, slug: &str, lot: &str) -> Value {
    let scenario = plant.scenario(slug, lot, full_mixer()).await;
    let (status, answer) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    answer["chain"]["water"].clone()
}

fn step<'a>(build_up: &'a Value, key: &str) -> Option<&'a Value> {
    list(&build_up["steps"]).iter().find(|step| step["coefficient"] == key || step["key"] == key)
}

#[tokio::test]
async fn a_rule_is_overridden_switched_off_and_goes_back() {
    let plant = Plant::open().await;
    let house = build_up(&plant, "deck-roll-60", "VR-26-1090").await;
    let before = number(&step(&house, "no_time").expect("a no-time dough")["points"]);
    let change = |number: u32, one: Value| json!({"number": number, "coefficients": [one], "signed": {"reason": "our mixer"}});
    let own =
        json!({"key": "no_time", "typical": -1.6, "low": -2, "high": 0, "reason": "our mixer"});
    let (status, parameters) = save(&plant, &change(1, own)).await;
    assert_eq!(status, StatusCode::OK, "{parameters}");
    let ours = build_up(&plant, "deck-roll-60", "VR-26-1090").await;
    let moved = step(&ours, "no_time").expect("still a step");
    assert_eq!((number(&moved["points"]), &moved["origin"]), (-1.6, &json!("plant")));
    assert!(moved["reason"].as_str().is_some_and(|message| message.contains("our mixer")));
    let shift = number(&ours["floor_pct"]) - number(&house["floor_pct"]);
    assert!((shift - (-1.6 - before)).abs() < 1e-9);

    let off = json!({"key": "no_time", "off": true, "reason": "never seen here"});
    assert_eq!(save(&plant, &change(2, off)).await.0, StatusCode::OK);
    let without = build_up(&plant, "deck-roll-60", "VR-26-1090").await;
    assert!(step(&without, "no_time").is_none_or(|step| number(&step["points"]) == 0.0));

    let back = json!({
        "number": 3, "coefficients_back": ["no_time"], "signed": {"reason": "house again"},
    });
    assert_eq!(save(&plant, &back).await.0, StatusCode::OK);
    assert_eq!(build_up(&plant, "deck-roll-60", "VR-26-1090").await, house);
    let revisions = plant.get("/api/v1/plant/parameters/revisions").await;
    let reasons: Vec<&str> =
        list(&revisions).iter().filter_map(|one| one["reason"].as_str()).collect();
    assert_eq!(reasons, ["house again", "our mixer", "our mixer"]);
    assert_eq!(save(&plant, &back).await.0, StatusCode::CONFLICT, "its number is taken");
}

#[tokio::test]
async fn a_rule_without_sense_or_reason_is_refused_at_its_field() {
    let plant = Plant::open().await;
    for (rule, named) in [
        (
            json!({"key": "no_time", "typical": -1, "low": 2, "high": 0, "reason": "x"}),
            "coefficients[0].",
        ),
        (
            json!({"key": "no_time", "typical": 900, "low": 0, "high": 999, "reason": "x"}),
            "coefficients[0].",
        ),
        (json!({"key": "no_time", "typical": -1, "low": -2, "high": 0}), "coefficients[0].reason"),
    ] {
        let input = json!({"number": 1, "coefficients": [rule], "signed": {"reason": "ours"}});
        let (status, problem) = save(&plant, &input).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert!(fields(&problem).iter().all(|field| field.starts_with(named)), "{problem}");
    }
    let unsigned = json!({"number": 1, "coefficients_back": ["no_time"], "signed": {"reason": ""}});
    let (_, problem) = save(&plant, &unsigned).await;
    assert_eq!(fields(&problem), ["signed.reason"]);
    let parameters = plant.get("/api/v1/plant/parameters").await;
    assert_eq!(parameters["revision"], Value::Null, "nothing was recorded");
    assert!(list(&parameters["coefficients"]).iter().all(|one| one["own"] == Value::Null));
}

#[tokio::test]
async fn an_ingredient_of_the_plant_s_own_counts_in_water_cost_and_allergens() {
    let plant = Plant::open().await;
    let kelp = json!({
        "ingredient": "own_1", "label": "kelp meal", "role": "fibre", "water_pct": 12,
        "points": 1.5, "points_low": 1, "points_high": 2, "kg_per_l": 0.6, "kg_per_l_low": 0.5,
        "kg_per_l_high": 0.7, "allergens": ["mustard", "mustard"], "price_per_kg": 12,
    });
    let input = |number: u32, kelp: &Value| json!({"number": number, "ingredients": [kelp], "signed": {"reason": "the shore"}});
    let (status, parameters) = save(&plant, &input(1, &kelp)).await;
    assert_eq!(status, StatusCode::OK, "{parameters}");
    let known = list(&parameters["ingredients"]).iter().find(|one| one["ingredient"] == "own_1");
    let known = known.expect("in the library");
    assert_eq!((&known["label"], &known["origin"]), (&json!("kelp meal"), &json!("plant")));
    assert_eq!(known["allergens"], json!({"contains": ["mustard"], "may_contain": []}));

    let mut scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let lines = plant.get("/api/v1/products/deck-roll-60").await["formula"]["lines"].clone();
    let before = json!({"now": scenario});
    let (_, was) = plant.post("/api/v1/chain", &before).await;
    let mut with = list(&lines).to_vec();
    with.push(json!({"ingredient": "own_1", "pct": 2}));
    scenario["draft"] = json!({"lines": with});
    let (status, is) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    assert_eq!(status, StatusCode::OK, "{is}");
    let floor = |answer: &Value| number(&answer["chain"]["water"]["floor_pct"]);
    assert!((floor(&is) - floor(&was) - 3.0).abs() < 1e-9);
    let cost = |answer: &Value| number(&answer["chain"]["dough"]["cost"]["per_kg"]);
    assert!(cost(&is) > cost(&was));
    let message = is["chain"]["dough"]["allergens"]["message"].as_str().expect("words");
    assert!(message.contains("mustard"), "{message}");

    let by_cups = json!({"lines": [
        {"ingredient": "flour", "amount": "1 kg"}, {"ingredient": "own_1", "amount": "1 cup"},
    ]});
    let (_, read) = plant.post("/api/v1/formula-amounts", &by_cups).await;
    assert_eq!(read["lines"][1]["label"], "kelp meal", "{read}");

    let mut twin = kelp.clone();
    twin["ingredient"] = json!("own_2");
    let (_, problem) = save(&plant, &input(2, &twin)).await;
    assert_eq!(fields(&problem), ["ingredients[0].label"], "its name is taken");
    for (key, value) in [
        ("label", json!("")),
        ("water_pct", json!(140)),
        ("specific_heat", json!(40)),
        ("points", json!("many")),
        ("price_per_kg", json!(-1)),
    ] {
        let mut wrong = kelp.clone();
        wrong[key] = value;
        let (status, problem) = save(&plant, &input(2, &wrong)).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(fields(&problem).contains(&&*format!("ingredients[0].{key}")), "{problem}");
    }
    let back = json!({
        "number": 2, "ingredients_back": ["own_1"], "signed": {"reason": "gone"},
    });
    let (_, parameters) = save(&plant, &back).await;
    assert!(list(&parameters["ingredients"]).iter().all(|one| one["ingredient"] != "own_1"));
}

#[tokio::test]
async fn a_lot_without_a_curve_is_estimated_and_the_plant_s_lots_narrow_it() {
    let plant = Plant::open().await;
    plant
        .record_lot(
            "Tarn Strong",
            "VR-NOCURVE",
            &[
                ["moisture", "14.0", "%", "as is"],
                ["protein", "12.9", "%", "14 %"],
                ["damaged starch", "8.2", "%", "as is"],
                ["ash", "0.60", "%", "dry matter"],
            ],
        )
        .await;
    let house = build_up(&plant, "deck-roll-60", "VR-NOCURVE").await;
    assert_eq!(house["estimated"], true);
    let model = plant.get("/api/v1/absorption-model").await;
    assert!(number(&model["lots"]) > 50.0 && number(&model["in_use_lots"]) == 0.0);
    assert_eq!(model["prior"], model["in_use"]);
    let spread = |of: &Value| -> f64 { list(of).iter().map(|one| number(&one["sd"])).sum() };
    assert!(spread(&model["learned"]) < spread(&model["prior"]));
    assert!(number(&model["off_pct"]) < 1.0);
    let predictions = list(&model["predictions"]);
    assert_eq!(predictions.len() as f64, number(&model["lots"]));
    assert!(
        predictions
            .windows(2)
            .all(|two| two[0]["received_at"].as_str() <= two[1]["received_at"].as_str())
    );
    assert!(
        number(&predictions[0]["sd_pct"]) > number(&predictions[predictions.len() - 1]["sd_pct"]),
        "the more lots, the surer"
    );

    let learn = json!({"number": 1, "model": "learn", "signed": {"reason": "a year"}});
    let (status, parameters) = save(&plant, &learn).await;
    assert_eq!(
        (status, &parameters["model_lots"]),
        (StatusCode::OK, &model["lots"]),
        "{parameters}"
    );
    let taught = build_up(&plant, "deck-roll-60", "VR-NOCURVE").await;
    let band = |build_up: &Value| number(&build_up["high_pct"]) - number(&build_up["low_pct"]);
    assert!(band(&taught) < band(&house), "what was learned narrows the band");
    let forget = json!({"number": 2, "model": "forget", "signed": {"reason": "anew"}});
    save(&plant, &forget).await;
    assert_eq!(build_up(&plant, "deck-roll-60", "VR-NOCURVE").await, house);
}

#[tokio::test]
async fn who_holds_the_water_moves_with_what_feel_adds() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("deck-roll-60", "VR-26-1033", full_mixer()).await;
    let reference = plant.lot("VR-26-1090").await;
    let ask = |added: Value| {
        json!({
            "scenario": scenario, "added_points": added,
            "reference_revision_id": reference["revision"]["id"],
        })
    };
    let (status, none) = plant.post("/api/v1/chain/water-distribution", &ask(json!(0))).await;
    assert_eq!(status, StatusCode::OK, "{none}");
    let (_, felt) = plant.post("/api/v1/chain/water-distribution", &ask(json!(4))).await;
    let keys = ["intact_pct", "damaged_pct", "protein_pct", "pentosan_pct", "free_pct"];
    for shares in [
        &none["lot"]["shares"],
        &none["reference"]["shares"],
        &none["by_feel"]["shares"],
        &felt["by_feel"]["shares"],
    ] {
        let sum: f64 = keys.iter().map(|key| number(&shares[*key])).sum();
        assert!((sum - 100.0).abs() < 1e-9, "{shares}");
    }
    assert_eq!(none["reference_code"], "VR-26-1090");
    let damaged = |of: &Value| number(&of["shares"]["damaged_pct"]);
    assert!(damaged(&none["lot"]) > damaged(&none["reference"]), "the damaged lot is the trap");
    let protein = |of: &Value| number(&of["by_feel"]["shares"]["protein_pct"]);
    assert!(protein(&felt) < protein(&none));
    assert!(list(&none["by_feel"]["will"]).is_empty());
    assert!(list(&felt["by_feel"]["will"]).len() >= 3);
    for wrong in [json!(-1), json!(50), json!("a bucket")] {
        let (status, problem) = plant.post("/api/v1/chain/water-distribution", &ask(wrong)).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert_eq!(fields(&problem), ["added_points"]);
    }

    let blend = plant.scenario("lantern-flats", "LB-26-0440", full_mixer()).await;
    let (status, without) =
        plant.post("/api/v1/chain/water-distribution", &json!({"scenario": blend})).await;
    assert_eq!((status, &without["lot"]), (StatusCode::OK, &Value::Null), "{without}");
    assert_eq!(without["grains"]["has_gluten"], false);
}

#[tokio::test]
async fn grains_of_a_mix_are_its_parts() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("rigg-spelt-500", "RS-26-0505", full_mixer()).await;
    let (_, answer) =
        plant.post("/api/v1/chain/water-distribution", &json!({"scenario": scenario})).await;
    let grains = list(&answer["grains"]["grains"]);
    let sum: f64 = grains.iter().map(|grain| number(&grain["share_pct"])).sum();
    assert!((sum - 100.0).abs() < 1e-9);
    let species: Vec<&str> = grains.iter().filter_map(|grain| grain["species"].as_str()).collect();
    assert_eq!(species, ["spelt", "wheat", "emmer"], "the largest first");
    let mixing: f64 = grains
        .iter()
        .map(|grain| number(&grain["share_pct"]) / 100.0 * number(&grain["mixing"]["typical"]))
        .sum();
    assert!(number(&answer["grains"]["mixing"]["typical"]) <= mixing + 1e-9, "bran shortens it");
}

#[tokio::test]
async fn water_calculators_answer_the_contract() {
    let plant = Plant::open().await;
    let flour = json!({"protein_14_pct": 12.5, "damaged_starch_pct": 8.0, "ash_dm_pct": 0.55});
    let lot = json!({
        "protein_14_pct": 12.5, "damaged_starch_pct": 8.0, "ash_dm_pct": 0.55,
        "absorption_14_pct": 63.0,
    });
    let (_, prior) =
        plant.post("/api/v1/calc/absorption-model", &json!({"flour": flour, "lots": []})).await;
    let (status, after) =
        plant.post("/api/v1/calc/absorption-model", &json!({"flour": flour, "lots": [lot]})).await;
    assert_eq!(status, StatusCode::OK, "{after}");
    assert_eq!((&prior["lots"], &after["lots"]), (&json!(0), &json!(1)));
    assert!(number(&after["mean_pct"]) > number(&prior["mean_pct"]));
    assert!(number(&after["sd_pct"]) < number(&prior["sd_pct"]));

    let absorption = json!({
        "flour": {"absorption_14_pct": 62.0, "moisture_pct": 14.0},
        "lines": [{"ingredient": "salt", "pct": 2}], "process": "straight_bulk",
    });
    let (status, build_up) = plant.post("/api/v1/calc/absorption", &absorption).await;
    assert_eq!(status, StatusCode::OK, "{build_up}");
    let sum: f64 = list(&build_up["steps"]).iter().map(|step| number(&step["points"])).sum();
    assert!((sum - number(&build_up["floor_pct"])).abs() < 1e-9);

    let starter =
        json!({"flour_g": 900, "water_g": 600, "starter_g": 200, "starter_hydration_pct": 100});
    let (status, shares) = plant.post("/api/v1/calc/starter", &starter).await;
    assert_eq!(status, StatusCode::OK, "{shares}");
    assert!((number(&shares["hydration_pct"]) - 70.0).abs() < 1e-9);
    assert!((number(&shares["prefermented_flour_pct"]) - 10.0).abs() < 1e-9);
    for path in ["absorption-model", "absorption", "starter"] {
        for body in [json!({}), json!({"flour": 3}), json!([]), json!({"lots": [{}], "flour": {}})]
        {
            let (status, problem) = plant.post(&format!("/api/v1/calc/{path}"), &body).await;
            assert!(status.is_client_error() || status.is_success(), "{path}: {problem}");
            assert!(status.is_success() || problem["detail"].is_string(), "{path}: {problem}");
        }
    }
}
