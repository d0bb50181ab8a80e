//! Formulas, amounts, templates, levers and trials on the real server.

use crate::support::{Plant, fields, full_mixer, list, new_id, number};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

/// The formula of a product as it would be sent back.
async fn formula(plant: &Plant, slug: &str) -> Value {
    plant.get(&format!("/api/v1/products/{slug}")).await["formula"].clone()
}

fn next_of(formula: &Value) -> Value {
    json!({
        "number": number(&formula["revision"]["number"]) as u32 + 1,
        "lines": formula["lines"], "flours": formula["flours"], "parts": formula["parts"],
        "style_points": formula["style_points"], "piece_kg": formula["piece_kg"],
        "losses": formula["losses"],
        "signed": {"reason": "a warmer summer"},
    })
}

fn at(formula: &Value, revision: &str) -> String {
    format!("/api/v1/formulas/{}/revisions/{revision}", formula["id"].as_str().expect("an id"))
}

#[tokio::test]
async fn a_formula_with_parts_and_flours_is_revised_and_compared() {
    let plant = Plant::open().await;
    let first = formula(&plant, "rigg-spelt-500").await;
    let mut next = next_of(&first);
    next["flours"] = json!([
        {"name": "Rigg Spelt", "share_pct": 60}, {"name": "Brae Emmer", "share_pct": 40},
    ]);
    next["parts"][0]["water_pct"] = json!(14);
    next["piece_kg"] = json!(0.6);
    let id = new_id();
    let (status, second) = plant.put(&at(&first, &id), &next).await;
    assert_eq!(status, StatusCode::OK, "{second}");
    let (status, again) = plant.put(&at(&first, &id), &next).await;
    assert_eq!((status, &again["revision"]), (StatusCode::OK, &second["revision"]));
    let (status, _) = plant.put(&at(&first, &new_id()), &next).await;
    assert_eq!(status, StatusCode::CONFLICT, "somebody else revised it before");

    let all = plant
        .get(&format!("/api/v1/formulas/{}/revisions", first["id"].as_str().expect("an id")))
        .await;
    let numbers: Vec<f64> = list(&all).iter().map(|one| number(&one["number"])).collect();
    assert_eq!(numbers, [2.0, 1.0]);
    let old = first["revision"]["id"].as_str().expect("an id");
    assert_eq!(plant.get(&format!("/api/v1/formula-revisions/{old}")).await, first);

    let compared = plant.get(&format!("/api/v1/formula-comparison?was={old}&is={id}")).await;
    let rows = list(&compared["rows"]);
    let delta = |label: &str| {
        let row = rows.iter().find(|row| row["label"] == label);
        row.unwrap_or_else(|| panic!("{label} among {rows:?}"))["delta"].clone()
    };
    assert!((number(&delta("piece")) - 0.03).abs() < 1e-9);
    assert!((number(&delta("Rigg Spelt")) - 15.0).abs() < 1e-9);
    assert!((number(&delta("Tarn Strong")) + 30.0).abs() < 1e-9);
    assert!((number(&delta("water in spelt sour")) - 2.0).abs() < 1e-9);
    let differing = rows.iter().take_while(|row| !row["delta"].is_null()).count();
    assert!(rows[differing..].iter().all(|row| row["delta"].is_null()), "differences first");

    // What needs no lot of the third flour any more still makes its dough.
    let scenario = plant.scenario("rigg-spelt-500", "RS-26-0505", full_mixer()).await;
    let (status, answer) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    assert_eq!(list(&answer["chain"]["flour"]["others"]).len(), 1);
}

#[tokio::test]
async fn a_formula_that_cannot_be_is_said_at_each_place() {
    let plant = Plant::open().await;
    let first = formula(&plant, "rigg-spelt-500").await;
    let refuse = async |change: &dyn Fn(&mut Value)| -> Vec<String> {
        let mut next = next_of(&first);
        change(&mut next);
        let (status, problem) = plant.put(&at(&first, &new_id()), &next).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        fields(&problem).into_iter().map(str::to_owned).collect()
    };
    assert_eq!(refuse(&|next| next["piece_kg"] = json!(0)).await, ["piece_kg"]);
    assert_eq!(refuse(&|next| next["losses"]["bake_pct"] = json!(100)).await, ["losses.bake_pct"]);
    assert_eq!(refuse(&|next| next["signed"]["reason"] = json!(" ")).await, ["signed.reason"]);
    assert_eq!(refuse(&|next| next["flours"][0]["share_pct"] = json!(50)).await, ["flours"]);
    assert_eq!(
        refuse(&|next| next["flours"][1]["name"] = json!("Nobody's Flour")).await,
        ["flours[1].name"]
    );
    assert_eq!(
        refuse(&|next| next["parts"][0]["flour_pct"] = json!(-1)).await,
        ["parts[0].flour_pct"]
    );
    assert_eq!(
        refuse(&|next| next["parts"][0]["flour"] = json!("Tarn Plain")).await,
        ["parts[0].flour"]
    );
    let unknown = json!({"ingredient": "own_4", "pct": 2});
    assert_eq!(refuse(&|next| next["lines"][1] = unknown.clone()).await, ["lines[1].ingredient"]);
    assert_eq!(
        plant.get(at(&first, "").trim_end_matches('/')).await.as_array().map(Vec::len),
        Some(1),
        "nothing was recorded"
    );
}

#[tokio::test]
async fn a_formula_goes_into_a_file_and_comes_back_the_same() {
    let plant = Plant::open().await;
    for slug in ["kesh-dark", "rigg-spelt-500", "deck-roll-60", "ferry-tin-800", "lantern-flats"] {
        let formula = formula(&plant, slug).await;
        let revision = formula["revision"]["id"].as_str().expect("an id");
        for kind in ["json", "csv"] {
            let path = format!("/api/v1/formula-revisions/{revision}/file/{kind}");
            let response = plant.raw(Method::GET, &path, "").await;
            let named =
                response.headers()["content-disposition"].to_str().expect("letters").to_owned();
            assert!(named.contains(&format!(".{kind}")), "{named}");
            let file = response.text().await.expect("text");
            let response = plant.raw(Method::POST, "/api/v1/formula-file", file.clone()).await;
            assert_eq!(response.status(), StatusCode::OK, "{file}");
            let read: Value = response.json().await.expect("JSON");
            for key in ["name", "style_points", "piece_kg", "losses"] {
                assert_eq!(read[key], formula[key], "{slug} as {kind}: {key}");
            }
            let pairs = |lines: &Value| -> Vec<(Value, Value)> {
                list(lines)
                    .iter()
                    .map(|one| (one["ingredient"].clone(), one["pct"].clone()))
                    .collect()
            };
            assert_eq!(
                pairs(&read["draft"]["lines"]),
                pairs(&formula["lines"]),
                "{slug} as {kind}"
            );
            assert_eq!(read["draft"]["flours"], formula["flours"]);
            // What is read of a file is new, and gets ids of its own.
            let mut parts = formula["parts"].clone();
            for part in parts.as_array_mut().into_iter().flatten() {
                part.as_object_mut().map(|part| part.remove("id"));
            }
            assert_eq!(read["draft"]["parts"], parts);
        }
    }
    let revision = formula(&plant, "kesh-dark").await["revision"]["id"].clone();
    let path = format!("/api/v1/formula-revisions/{}/file/pdf", revision.as_str().expect("an id"));
    assert_eq!(plant.raw(Method::GET, &path, "").await.status(), StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_file_that_is_no_formula_says_what_one_is() {
    let plant = Plant::open().await;
    for (file, message) in [
        ("dear baker", "names its columns"),
        ("{\"format\": \"cake\"}", "must say “ironpeel formula”"),
        ("{\"format\"", "this is not JSON"),
        ("stage,item,value,unit\nwhole,moon dust,3,%", "“moon dust” is no ingredient"),
        ("stage,item,value,unit\nwhole,flour,much,%", "flour: “much” is not a number"),
        ("stage,item,value,unit\nabout,taste,3,%", "nothing a formula says of itself"),
        ("stage,item,value,unit\n1 poolish cake,flour,30,%", "is no stage"),
        ("stage,item,value,unit\nwhole,flour,90,%", "these percentages make no dough"),
        ("", "the file is empty"),
    ] {
        let response = plant.raw(Method::POST, "/api/v1/formula-file", file).await;
        assert_eq!(response.status(), StatusCode::UNPROCESSABLE_ENTITY, "{file}");
        let problem: Value = response.json().await.expect("JSON");
        assert!(problem.to_string().contains(message), "{file}: {problem}");
    }
    let bytes = vec![0x89, 0x50, 0x00, 0x01];
    let response = plant.raw(Method::POST, "/api/v1/formula-file", bytes).await;
    assert_eq!(response.status(), StatusCode::UNPROCESSABLE_ENTITY);
}

#[tokio::test]
async fn amounts_are_read_as_baker_s_percent_with_their_doubt() {
    let plant = Plant::open().await;
    let by_mass = json!({
        "lines": [
            {"ingredient": "flour", "amount": "900 g"}, {"ingredient": "water", "amount": "0.6 kg"},
            {"ingredient": "salt", "amount": "20 g"},
        ],
        "starter": {"amount": "200 g", "hydration_pct": 100},
    });
    let (status, read) = plant.post("/api/v1/formula-amounts", &by_mass).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    assert!((number(&read["hydration_pct"]["typical"]) - 70.0).abs() < 1e-9);
    assert!((number(&read["starter"]["prefermented_flour_pct"]) - 10.0).abs() < 1e-9);
    assert!((number(&read["dough_kg"]["typical"]) - 1.72).abs() < 1e-9);

    let cups = json!({"lines": [
        {"ingredient": "flour", "amount": "4 cups"}, {"ingredient": "water", "amount": "1 1/2 cup"},
    ]});
    let (_, read) = plant.post("/api/v1/formula-amounts", &cups).await;
    let hydration = &read["hydration_pct"];
    assert!(number(&hydration["low"]) + 20.0 < number(&hydration["high"]), "{hydration}");

    let wrong = json!({
        "lines": [
            {"ingredient": "flour", "amount": "a heap"}, {"ingredient": "salt", "amount": "2 tsp"},
            {"ingredient": "flour", "flour": "Nobody's", "amount": "1 g"},
        ],
        "starter": {"amount": "some", "hydration_pct": 9000},
    });
    let (status, problem) = plant.post("/api/v1/formula-amounts", &wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let named = fields(&problem);
    for field in ["lines[0].amount", "lines[2].flour", "starter.amount", "starter.hydration_pct"] {
        assert!(named.contains(&field), "{field} among {named:?}");
    }
}

#[tokio::test]
async fn starter_shares_agree_in_every_convention() {
    let plant = Plant::open().await;
    let ask = |convention: &str, pct: f64| json!({"convention": convention, "pct": pct, "hydration_pct": 80, "dough_pct": 170});
    let (_, first) = plant.post("/api/v1/starter-shares", &ask("prefermented_flour", 15.0)).await;
    for convention in ["on_final_flour", "of_dough"] {
        let pct = number(&first[format!("{convention}_pct")]);
        let (status, same) = plant.post("/api/v1/starter-shares", &ask(convention, pct)).await;
        assert_eq!(status, StatusCode::OK);
        assert!((number(&same["prefermented_flour_pct"]) - 15.0).abs() < 1e-9, "{same}");
    }
    let (status, problem) =
        plant.post("/api/v1/starter-shares", &ask("prefermented_flour", 100.0)).await;
    assert_eq!((status, fields(&problem)), (StatusCode::UNPROCESSABLE_ENTITY, vec!["pct"]));
    let (_, problem) =
        plant.post("/api/v1/starter-shares", &json!({"convention": "of_dough"})).await;
    assert_eq!(fields(&problem), ["pct"]);
}

#[tokio::test]
async fn one_mass_changes_and_what_was_to_stay_stays() {
    let plant = Plant::open().await;
    // Half a mixer: there is room for what is added.
    let half = json!({"amount": {"by": "dough", "kg": 80}});
    let scenario = plant.scenario("deck-roll-60", "VR-26-1090", half).await;
    let (_, was) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    let dough = &was["chain"]["dough"];
    for keep in ["flour", "dough", "water"] {
        let body = json!({"scenario": scenario, "ingredient": "salt", "kg": 3, "keep": keep});
        let (status, changed) = plant.post("/api/v1/chain/weight-adjustment", &body).await;
        assert_eq!(status, StatusCode::OK, "{changed}");
        let mut now = scenario.clone();
        now["draft"] = json!({"lines": changed["lines"]});
        now["run_settings"] = json!({
            "amount": {"by": "dough", "kg": changed["dough_kg"]},
            "hydration_pct": changed["hydration_pct"],
        });
        let (_, answer) = plant.post("/api/v1/chain", &json!({"now": now})).await;
        let is = &answer["chain"]["dough"];
        let (was, is) = match keep {
            "flour" => (&dough["flour_kg"], &is["flour_kg"]),
            "dough" => (&dough["total_kg"], &is["total_kg"]),
            _ => (&dough["water_kg"], &is["water_kg"]),
        };
        assert!((number(was) - number(is)).abs() < 1e-6, "{keep}: {was} and {is}");
        let salt = list(&answer["chain"]["sheet"]["steps"])
            .iter()
            .flat_map(|step| list(&step["takes"]))
            .find(|item| item["ingredient"] == "salt");
        assert!((number(&salt.expect("in the sheet")["kg"]) - 3.0).abs() < 0.011);
    }
    let body = json!({"scenario": scenario, "ingredient": "salt", "kg": 1e9, "keep": "flour"});
    let (_, problem) = plant.post("/api/v1/chain/weight-adjustment", &body).await;
    assert_eq!(fields(&problem), ["kg"]);
    let body = json!({"scenario": scenario, "ingredient": "salt", "kg": 500, "keep": "dough"});
    let (_, problem) = plant.post("/api/v1/chain/weight-adjustment", &body).await;
    assert_eq!(fields(&problem), ["kg"], "more salt than there is dough");
}

#[tokio::test]
async fn an_edited_formula_moves_piece_losses_and_style_with_it() {
    let plant = Plant::open().await;
    let pieces = json!({"amount": {"by": "pieces", "pieces": 100}});
    let before = plant.scenario("deck-roll-60", "VR-26-1090", pieces).await;
    let recorded = formula(&plant, "deck-roll-60").await;
    let mut now = before.clone();
    now["draft"] = json!({
        "lines": recorded["lines"], "piece_kg": 0.12, "style_points": 3,
        "losses": {"scaling_pct": 0, "fermentation_pct": 0, "bake_pct": 40, "cooling_pct": 0},
    });
    let (status, answer) =
        plant.post("/api/v1/chain", &json!({"now": now, "before": before})).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    let dough = &answer["chain"]["dough"];
    assert_eq!(number(&dough["piece_kg"]), 0.12);
    assert!((number(&dough["cooled_piece_kg"]) - 0.072).abs() < 1e-9);
    let style = list(&answer["chain"]["water"]["steps"]).iter().find(|step| step["key"] == "style");
    assert_eq!(number(&style.expect("a step of its own")["points"]), 3.0);
    now["draft"]["losses"]["bake_pct"] = json!("half");
    let (_, problem) = plant.post("/api/v1/chain", &json!({"now": now})).await;
    assert_eq!(fields(&problem), ["losses.bake_pct"]);
}

#[tokio::test]
async fn a_flour_without_a_lot_is_asked_for() {
    let plant = Plant::open().await;
    let mut scenario = plant.scenario("rigg-spelt-500", "RS-26-0505", full_mixer()).await;
    scenario["revision_refs"]["other_lots"] = json!([]);
    let (status, problem) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(fields(&problem), ["now.revision_refs.other_lots"]);
    assert!(problem.to_string().contains("no lot of Brae Emmer was chosen"), "{problem}");
    let mut twice = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    twice["revision_refs"]["other_lots"] = json!([{
        "lot_revision_id": new_id(), "specification_revision_id": new_id(),
    }]);
    let (status, _) = plant.post("/api/v1/chain", &json!({"now": twice})).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_product_is_made_of_a_template_once() {
    let plant = Plant::open().await;
    let templates = plant.get("/api/v1/templates").await;
    assert_eq!(list(&templates).len(), 9);
    let lines = plant.get("/api/v1/lines").await;
    let (spelt, emmer) = (plant.flour("Rigg Spelt").await, plant.flour("Brae Emmer").await);
    let strong = plant.flour("Tarn Strong").await;
    let input = json!({
        "name": "Gull Loaf", "template": "spelt_emmer", "line_id": lines[0]["id"],
        "flours": [spelt["id"], emmer["id"], strong["id"]], "signed": {},
    });
    let (status, made) = plant.put("/api/v1/products/gull-loaf", &input).await;
    assert_eq!(status, StatusCode::OK, "{made}");
    assert_eq!(made["formula"]["flours"][1]["name"], "Brae Emmer");
    assert_eq!(list(&made["other_flours"]).len(), 2);
    let (status, again) = plant.put("/api/v1/products/gull-loaf", &input).await;
    assert_eq!((status, &again["id"]), (StatusCode::OK, &made["id"]));
    let mut other = input.clone();
    other["name"] = json!("Another Gull");
    assert_eq!(plant.put("/api/v1/products/gull-loaf", &other).await.0, StatusCode::CONFLICT);
    // The same name of another flour is another product, not this one again.
    other["name"] = json!("Gull Loaf");
    other["flours"] = json!([emmer["id"], spelt["id"], strong["id"]]);
    assert_eq!(plant.put("/api/v1/products/gull-loaf", &other).await.0, StatusCode::CONFLICT);
    let scenario = plant.scenario("gull-loaf", "RS-26-0505", full_mixer()).await;
    let (_, answer) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    assert!(answer["chain"]["sheet"].is_object(), "{answer}");

    let refuse = async |slug: &str, change: Value| -> Vec<String> {
        let mut wrong = input.clone();
        for (key, value) in change.as_object().expect("an object") {
            wrong[key] = value.clone();
        }
        let (status, problem) = plant.put(&format!("/api/v1/products/{slug}"), &wrong).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        fields(&problem).into_iter().map(str::to_owned).collect()
    };
    assert_eq!(refuse("tern", json!({"name": "  "})).await, ["name"]);
    assert_eq!(refuse("Tern", json!({})).await, ["slug"]);
    assert_eq!(refuse("tern", json!({"template": "croissant"})).await, ["template"]);
    assert_eq!(refuse("tern", json!({"flours": [spelt["id"]]})).await, ["flours"]);
    let bare = json!({
        "number": 1, "signed": {},
        "name": "Bare", "mill": "Brae Stone Mill", "species": "wheat", "treatment": "none",
        "intended_use": "general",
    });
    let bare_id = new_id();
    let path = format!("/api/v1/flours/{bare_id}/revisions/{}", new_id());
    assert_eq!(plant.put(&path, &bare).await.0, StatusCode::OK);
    let flours = json!({"template": "hearth", "flours": [bare_id, bare_id]});
    assert_eq!(refuse("tern", flours).await, ["flours"], "one flour is wanted");
}

#[tokio::test]
async fn every_wish_has_levers_and_each_says_what_it_costs() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("causeway-stick", "VP-26-0435", full_mixer()).await;
    let goals = plant.get("/api/v1/quality-goals").await;
    assert_eq!(list(&goals).len(), 9);
    let mut offered = 0;
    for wish in list(&goals) {
        let (status, levers) = plant
            .post("/api/v1/interventions", &json!({"scenario": scenario, "goal": wish["goal"]}))
            .await;
        assert_eq!(status, StatusCode::OK, "{levers}");
        for lever in list(&levers) {
            offered += 1;
            for key in ["label", "does", "trade_off"] {
                assert!(lever[key].as_str().is_some_and(|words| words.contains(' ')), "{lever}");
            }
            assert!(
                lever["variant"]["handling"].is_string() || lever["variant"]["error"].is_string()
            );
        }
    }
    assert!(offered > 15, "{offered} levers in all");
    let (_, problem) =
        plant.post("/api/v1/interventions", &json!({"scenario": scenario, "goal": "cake"})).await;
    assert_eq!(fields(&problem), ["goal"]);
}

#[tokio::test]
async fn a_trial_set_is_kept_as_it_was_set_out() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("causeway-stick", "VP-26-0435", full_mixer()).await;
    let input = json!({
        "scenario": scenario, "interventions": ["more_water", "another_fold"], "kg": 2, "slug": "causeway-stick",

    });
    let (status, set) = plant.post("/api/v1/trial-sets", &input).await;
    assert_eq!(status, StatusCode::OK, "{set}");
    let variants = list(&set["variants"]);
    assert_eq!(variants.len(), 4, "as it is, two alone, all together");
    for variant in variants {
        assert!((number(&variant["sheet"]["dough_kg"]) - 2.0).abs() < 0.02, "{variant}");
    }
    let water = |at: usize| number(&variants[at]["dough_absorption_pct"]);
    assert!((water(1) - water(0) - 3.0).abs() < 1e-9);

    let id = new_id();
    let path = format!("/api/v1/trials/{id}");
    let (status, kept) = plant.put(&path, &input).await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    assert_eq!(kept["issued"], set);
    plant.put(&path, &input).await;
    let page = plant.get("/api/v1/trials").await;
    assert_eq!(list(&page["trials"]).len(), 1, "sent twice, kept once");

    // A later rule reaches no trial that was set out before.
    let rule = json!({
        "number": 1, "signed": {"reason": "ours"},
        "correction_factors": [{"rule": "straight_bulk", "typical": 4, "low": 3, "high": 5, "reason": "ours"}],
    });
    let path_of_rule = format!("/api/v1/plant/parameters/revisions/{}", new_id());
    assert_eq!(plant.put(&path_of_rule, &rule).await.0, StatusCode::OK);
    assert_eq!(plant.get(&path).await["issued"], set);

    for (change, named) in [
        (json!({"interventions": []}), "interventions"),
        (json!({"interventions": vec!["more_water"; 7]}), "interventions"),
        (json!({"kg": 0}), "kg"),
    ] {
        let mut wrong = input.clone();
        for (key, value) in change.as_object().expect("an object") {
            wrong[key] = value.clone();
        }
        let (status, problem) = plant.put(&format!("/api/v1/trials/{}", new_id()), &wrong).await;
        assert_eq!((status, fields(&problem)), (StatusCode::UNPROCESSABLE_ENTITY, vec![named]));
    }
    let (status, _) =
        plant.ask(Method::GET, &format!("/api/v1/trials/{}", new_id()), &Value::Null).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn trials_come_a_page_at_a_time_each_once() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("causeway-stick", "VP-26-0435", full_mixer()).await;
    let input =
        json!({"scenario": scenario, "interventions": ["more_water"], "slug": "causeway-stick"});
    for _ in 0..53 {
        let (status, _) = plant.put(&format!("/api/v1/trials/{}", new_id()), &input).await;
        assert_eq!(status, StatusCode::OK);
    }
    let mut seen = std::collections::HashSet::new();
    let mut path = "/api/v1/trials".to_owned();
    loop {
        let page = plant.get(&path).await;
        for trial in list(&page["trials"]) {
            assert!(seen.insert(trial["id"].to_string()), "seen twice");
        }
        let next = &page["next"];
        let Some(after_at) = next["after_at"].as_str() else { break };
        let after_id = next["after_id"].as_str().expect("both");
        path =
            format!("/api/v1/trials?after_at={}&after_id={after_id}", after_at.replace('+', "%2B"));
    }
    assert_eq!(seen.len(), 53);
}

#[tokio::test]
async fn a_batch_of_several_flours_is_tied_to_a_lot_of_each() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("kesh-dark", "KR-26-0466", full_mixer()).await;
    let body = json!({
        "slug": "kesh-dark", "scenario": scenario, "planned_for": "2026-11-26T02:00:00Z",
    });
    let id = new_id();
    let (status, batch) = plant.put(&format!("/api/v1/batches/{id}"), &body).await;
    assert_eq!(status, StatusCode::OK, "{batch}");
    let issued = &batch["issued"];
    assert_eq!(issued["other_lots"][0]["flour"], "Tarn Plain");
    assert_eq!(batch["revision_refs"]["other_lots"], scenario["revision_refs"]["other_lots"]);
    let parts = list(&issued["chain"]["sheet"]["parts"]);
    assert_eq!(parts.len(), 2);
    let sum: f64 = parts
        .iter()
        .flat_map(|part| list(&part["takes"]))
        .chain(
            list(&issued["chain"]["sheet"]["steps"]).iter().flat_map(|step| list(&step["takes"])),
        )
        .map(|item| number(&item["kg"]))
        .sum();
    assert!((sum - number(&issued["chain"]["sheet"]["dough_kg"])).abs() < 1e-6);
    assert_eq!(plant.get(&format!("/api/v1/batches/{id}")).await["issued"], *issued);
}

async fn day(plant: &Plant, slug: &str, lot: &str, day: Value) -> (StatusCode, Value) {
    let scenario = plant.scenario(slug, lot, full_mixer()).await;
    plant.post("/api/v1/chain/schedule", &json!({"scenario": scenario, "day": day})).await
}

#[tokio::test]
async fn a_dough_is_put_on_the_clock_around_the_night() {
    let plant = Plant::open().await;
    let wanted = json!({
        "anchor": {"by": "out_by", "at": "2026-11-26T05:00:00Z"}, "zone": "Europe/London",
        "closed_hours": [{"from": "22:00", "to": "4:00"}],
    });
    for (slug, lot) in
        [("ferry-tin-800", "VR-26-1090"), ("holm-tin", "BS-0430"), ("ebb-flats-240", "VP-26-0435")]
    {
        let (status, found) = day(&plant, slug, lot, wanted.clone()).await;
        assert_eq!(status, StatusCode::OK, "{slug}: {found}");
        let plan = &found["plan"];
        assert!(plan["out_at"].as_str() <= Some("2026-11-26T05:00:00Z"), "{plan}");
        let stages = list(&plan["stages"]);
        assert!(stages.windows(2).all(|two| two[0]["ends_at"] == two[1]["starts_at"]));
        let before: f64 = if slug == "ferry-tin-800" { 3.5 + 4.0 / 60.0 } else { 0.0 };
        assert!((number(&found["mixes_h"]) - before).abs() < 1e-9, "{slug}: the sponge is before");
        assert!(!list(&found["rise"]["stages"]).is_empty(), "{slug} rises in its plan");
    }
    let (status, problem) = day(
        &plant,
        "holm-tin",
        "BS-0430",
        json!({
            "anchor": {"by": "from", "at": "2026-11-26T05:00:00Z"}, "zone": "Atlantis",
            "closed_hours": [{"from": "late", "to": "4:00"}],
        }),
    )
    .await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(fields(&problem), ["day.closed_hours[0].from", "day.zone"]);
}

#[tokio::test]
async fn a_day_s_calendar_is_opened_by_a_calendar_library() {
    use icalendar::{Calendar, CalendarComponent, Component};
    let plant = Plant::open().await;
    let scenario = plant.scenario("ebb-flats-240", "VP-26-0435", full_mixer()).await;
    let body = json!({"scenario": scenario, "day": {
        "anchor": {"by": "out_by", "at": "2026-11-27T18:00:00Z"}, "zone": "Europe/London",
    }});
    let (_, planned) = plant.post("/api/v1/chain/schedule", &body).await;
    let response =
        plant.raw(Method::POST, "/api/v1/chain/schedule/calendar", body.to_string()).await;
    assert_eq!(response.headers()["content-type"], "text/calendar; charset=utf-8");
    let text = response.text().await.expect("text");
    let calendar: Calendar = text.parse().expect("a calendar");
    let events: Vec<&icalendar::Event> = calendar
        .components
        .iter()
        .filter_map(
            |one| if let CalendarComponent::Event(event) = one { Some(event) } else { None },
        )
        .collect();
    let stages = list(&planned["plan"]["stages"]);
    assert_eq!(events.len(), stages.len());
    for (event, stage) in events.iter().zip(stages) {
        let label = stage["label"].as_str().expect("a label");
        assert_eq!(event.get_summary(), Some(&*format!("Ebb Flats 240: {label}")));
        let starts = event.get_start().expect("a beginning");
        let icalendar::DatePerhapsTime::DateTime(icalendar::CalendarDateTime::Utc(starts)) = starts
        else {
            panic!("a moment, not {starts:?}");
        };
        assert_eq!(
            Some(starts.to_rfc3339_opts(chrono::SecondsFormat::Secs, true).as_str()),
            stage["starts_at"].as_str()
        );
    }
    assert!(text.contains("BEGIN:VALARM") && text.contains("TRIGGER:-PT"), "{text}");
}

#[tokio::test]
async fn a_flour_renamed_is_found_by_drafts_and_files_under_its_earlier_name() {
    let plant = Plant::open().await;
    let mut scenario = plant.scenario("rigg-spelt-500", "RS-26-0505", full_mixer()).await;
    let formula = formula(&plant, "rigg-spelt-500").await;
    let revision = formula["revision"]["id"].as_str().expect("an id");
    let file = plant.get(&format!("/api/v1/formula-revisions/{revision}/file/json")).await;
    let mut emmer = plant.flour("Brae Emmer").await;
    emmer["name"] = json!("Brae Old Emmer");
    emmer["number"] = json!(2);
    emmer["signed"] = json!({"reason": "the mill's new name"});
    let path =
        format!("/api/v1/flours/{}/revisions/{}", emmer["id"].as_str().expect("an id"), new_id());
    assert_eq!(plant.put(&path, &emmer).await.0, StatusCode::OK);
    let names = plant.get("/api/v1/flour-names").await;
    assert_eq!(names, json!({"Brae Emmer": "Brae Old Emmer"}));

    scenario["draft"] = formula.clone();
    let (status, answer) = plant.post("/api/v1/chain", &json!({"now": scenario})).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    assert_eq!(answer["chain"]["error"], Value::Null, "{answer}");

    let (status, read) = plant.post("/api/v1/formula-file", &file).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    let of = |view: &Value| view["flours"][1]["name"].clone();
    assert_eq!(of(&read["draft"]), "Brae Old Emmer", "{read}");

    let id = formula["id"].as_str().expect("an id");
    let path = format!("/api/v1/formulas/{id}/revisions/{}", new_id());
    let (status, view) = plant.put(&path, &next_of(&formula)).await;
    assert_eq!((status, of(&view)), (StatusCode::OK, json!("Brae Old Emmer")), "{view}");
}
