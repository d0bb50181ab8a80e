//! A trial baked, judged under codes, and one of its doughs kept.

use crate::support::{Plant, full_mixer, list, new_id, number};
use ironpeel_store::PersonRole;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

const PRODUCT: &str = "deck-roll-60";

/// A trial of two changes: four doughs.
async fn trial(plant: &Plant) -> String {
    let scenario = plant.scenario(PRODUCT, "VR-26-1090", full_mixer()).await;
    let input = json!({"slug": PRODUCT, "scenario": scenario,
        "interventions": ["more_water", "more_salt"], "kg": 2});
    let path = format!("/api/v1/trials/{}", new_id());
    let (status, kept) = plant.put(&path, &input).await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    assert_eq!(list(&kept["issued"]["variants"]).len(), 4);
    path
}

/// Every line of a sheet at one mark, below the standard where it has two sides.
fn marks(sheet: &Value, mark: f64) -> Value {
    let lines = list(&sheet["lines"]).iter();
    lines
        .map(|line| match line["two_sided"] {
            Value::Bool(true) => json!({"of": line["of"], "mark": mark, "sign": "too_little"}),
            _ => json!({"of": line["of"], "mark": mark}),
        })
        .collect()
}

/// A bake with every loaf of its doughs marked, each dough by its mark.
async fn baked(plant: &Plant, trial: &str, bake: f64, by: [f64; 4]) -> Value {
    let path = format!("{trial}/bakes/{}", new_id());
    let (status, found) = plant.put(&path, &json!({"loaves": 2})).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    let again = plant.put(&path, &json!({"loaves": 2})).await.1;
    assert_eq!(again["samples"], found["samples"], "set out once");
    let doughs = list(&found["doughs"]).iter().filter(|dough| number(&dough["bake"]) == bake);
    for dough in doughs {
        let own = list(&found["samples"]).iter().filter(|one| one["bench_dough_id"] == dough["id"]);
        for sample in own {
            let mark = by[number(&dough["variant"]) as usize];
            let code = &sample["code"];
            let sheet =
                plant.get(&format!("/api/v1/samples/{}", code.as_str().expect("a code"))).await;
            let sheet = json!({"code": code, "marks": marks(&sheet, mark)});
            let path = format!("/api/v1/scores/{}", new_id());
            let (status, stored) = plant.put(&path, &sheet).await;
            assert_eq!(status, StatusCode::OK, "{stored}");
        }
    }
    plant.get(&format!("{trial}/scores")).await
}

#[tokio::test]
async fn doughs_of_a_trial_are_judged_side_by_side() {
    let plant = Plant::open().await;
    let trial = trial(&plant).await;
    let nothing = plant.get(&format!("{trial}/scores")).await;
    assert_eq!((list(&nothing["samples"]).len(), list(&nothing["lines"]).len()), (0, 12));
    assert_eq!(nothing["verdict"]["variants"], json!([null, null, null, null]));
    let none = json!({"loaves": 2, "twice": 3});
    let (_, refused) = plant.put(&format!("{trial}/bakes/{}", new_id()), &none).await;
    assert_eq!(refused["errors"][0]["field"], "twice");
    let bake = format!("{trial}/bakes/{}", new_id());
    let (status, _) = plant.ask_as(PersonRole::Visitor, Method::PUT, &bake, &none).await;
    assert_eq!(status, StatusCode::FORBIDDEN);

    let first = baked(&plant, &trial, 1.0, [3.0, 4.5, 3.0, 4.0]).await;
    assert_eq!(list(&first["samples"]).len(), 8);
    let differences = list(&first["verdict"]["differences"]);
    let says: Vec<&Value> = differences.iter().map(|one| &one["total"]["says"]).collect();
    assert_eq!(says, ["doughs_differ", "not_shown", "doughs_differ"], "one bake knows no more");
    assert_eq!(number(&differences[0]["loaves"]), 2.0);
    assert_eq!(list(&differences[0]["traits"]).len(), 12);

    let second = baked(&plant, &trial, 2.0, [3.0, 4.5, 3.5, 4.0]).await;
    assert_eq!(list(&second["doughs"]).len(), 8);
    let third = baked(&plant, &trial, 3.0, [3.0, 4.0, 3.0, 4.0]).await;
    let water = &third["verdict"]["differences"][0];
    assert_eq!(
        (number(&water["bakes"]), &water["total"]["says"]),
        (3.0, &json!("variants_differ"))
    );
    assert_eq!(third["verdict"]["differences"][1]["total"]["says"], "not_shown");
    // Which dough it is of is not said to whoever judges.
    let code = third["samples"][0]["code"].as_str().expect("a code");
    let sheet = plant.get(&format!("/api/v1/samples/{code}")).await.to_string();
    let dough = third["samples"][0]["bench_dough_id"].as_str().expect("an id");
    assert!(!sheet.contains(dough), "{sheet}");
    // Trials do not count as batches of the product.
    assert_eq!(plant.get("/api/v1/batches?score_below=100").await["batches"], json!([]));
}

#[tokio::test]
async fn a_kept_dough_is_the_next_revision_with_its_trial_as_reason() {
    let plant = Plant::open().await;
    let trial = trial(&plant).await;
    let product = plant.get(&format!("/api/v1/products/{PRODUCT}")).await;
    let before = number(&product["formula"]["revision"]["number"]);
    let keep = async |variant: u16, reason: &str| {
        let body = json!({"variant": variant, "signed": {"reason": reason}});
        plant.put(&format!("{trial}/kept/{}", new_id()), &body).await
    };
    assert_eq!(keep(1, " ").await.1["errors"][0]["field"], "signed.reason");
    assert_eq!(keep(9, "it is best").await.1["errors"][0]["field"], "variant");
    let (status, kept) = keep(3, "both were better").await;
    assert_eq!((status, list(&kept).len()), (StatusCode::OK, 1), "{kept}");
    assert_eq!((&kept[0]["method_revision_id"], &kept[0]["variant"]), (&Value::Null, &json!(3)));
    let now = plant.get(&format!("/api/v1/products/{PRODUCT}")).await["formula"].clone();
    assert_eq!(now["revision"]["id"], kept[0]["formula_revision_id"]);
    assert_eq!(number(&now["revision"]["number"]), before + 1.0);
    assert_eq!(now["revision"]["reason"], "both were better");
    let style = |formula: &Value| number(&formula["style_points"]);
    assert!((style(&now) - style(&product["formula"]) - 3.0).abs() < 1e-9);
    // The formula has moved on since it was tried: that is looked at first.
    let (status, refused) = keep(1, "water alone").await;
    assert_eq!(status, StatusCode::CONFLICT, "{refused}");
    // That a dough stays as it is may be kept all the same.
    let (status, kept) = keep(0, "as it is").await;
    assert_eq!((status, list(&kept).len()), (StatusCode::OK, 2), "{kept}");
    assert_eq!(kept[0]["formula_revision_id"], Value::Null);
}

#[tokio::test]
async fn what_was_edited_when_it_was_tried_is_kept_with_it() {
    let plant = Plant::open().await;
    let mut scenario = plant.scenario(PRODUCT, "VR-26-1090", full_mixer()).await;
    let formula = plant.get(&format!("/api/v1/products/{PRODUCT}")).await["formula"].clone();
    let mut draft = formula.clone();
    draft["piece_kg"] = json!(0.071);
    scenario["draft"] = draft;
    let input = json!({"slug": PRODUCT, "scenario": scenario, "interventions": ["more_salt"]});
    let trial = format!("/api/v1/trials/{}", new_id());
    let (status, saved) = plant.put(&trial, &input).await;
    assert_eq!(status, StatusCode::OK, "{saved}");
    let body = json!({"variant": 0, "signed": {"reason": "larger, as it was tried"}});
    let (status, kept) = plant.put(&format!("{trial}/kept/{}", new_id()), &body).await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    let now = plant.get(&format!("/api/v1/products/{PRODUCT}")).await["formula"].clone();
    assert_eq!((number(&now["piece_kg"]), &now["lines"]), (0.071, &formula["lines"]));
}
