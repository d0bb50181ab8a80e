//! The public calculators: the contract, and bad input told as problem details.

use crate::support::{Plant, fields};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

const MOISTURE: &str = "/api/v1/calc/moisture-basis";
const HEAT: &str = "/api/v1/calc/dough-temperature";
const FARINOGRAPH: &str = "/api/v1/calc/farinograph";
const ALVEOGRAPH: &str = "/api/v1/calc/alveograph";
const BLEND: &str = "/api/v1/calc/blend";
const SIFT: &str = "/api/v1/calc/sift";

#[tokio::test]
async fn moisture_basis_answers_the_contract() {
    let plant = Plant::open().await;
    let asked = json!({"value_pct": 13.5, "from_moisture_pct": 0, "to_moisture_pct": 14});
    let (status, answer) = plant.post(MOISTURE, &asked).await;
    assert_eq!(status, StatusCode::OK);
    assert!((answer["value_pct"].as_f64().expect("a number") - 11.61).abs() < 0.005);
}

#[tokio::test]
async fn dough_temperature_answers_the_contract() {
    let plant = Plant::open().await;
    let asked = json!({
        "parts": [
            {"name": "sponge", "kg": 114, "temperature_c": 29.5, "specific_heat": 2.8},
            {"name": "flour", "kg": 30, "temperature_c": 24, "specific_heat": 1.833},
            {"name": "other", "kg": 12, "temperature_c": 22, "specific_heat": 1.6}
        ],
        "water_kg": 20, "tap_c": 16, "target_c": 26.5, "mixing_kj_per_kg": 22, "flour_wetted_kg": 30
    });
    let (status, answer) = plant.post(HEAT, &asked).await;
    assert_eq!(status, StatusCode::OK);
    assert!((answer["ice_kg"].as_f64().expect("a number") - 10.42).abs() < 0.005);
    assert_eq!(answer["reachable"], true);
    let levers = answer["levers"].as_array().expect("a list");
    assert!(levers.iter().all(|lever| lever["ice_kg"].as_f64().expect("a number") < 0.0));
}

#[tokio::test]
async fn bad_input_is_a_problem_and_never_a_fault_of_ours() {
    let plant = Plant::open().await;
    for (path, body, status, named) in [
        (MOISTURE, "{", 400, vec![]),
        (MOISTURE, "not JSON", 400, vec![]),
        (MOISTURE, "", 400, vec![]),
        (MOISTURE, r#"{"value_pct": NaN}"#, 400, vec![]),
        (MOISTURE, "{} {}", 400, vec![]),
        (MOISTURE, "[]", 422, vec!["value_pct", "from_moisture_pct", "to_moisture_pct"]),
        (MOISTURE, "{}", 422, vec!["value_pct", "from_moisture_pct", "to_moisture_pct"]),
        (
            MOISTURE,
            r#"{"value_pct": 130, "from_moisture_pct": "damp", "to_moisture_pct": null}"#,
            422,
            vec!["value_pct", "from_moisture_pct", "to_moisture_pct"],
        ),
        (
            MOISTURE,
            r#"{"value_pct": 1e999, "from_moisture_pct": 0, "to_moisture_pct": 14}"#,
            422,
            vec!["value_pct"],
        ),
        (
            HEAT,
            r#"{"parts": 3, "water_kg": 1, "tap_c": 1, "target_c": 1, "mixing_kj_per_kg": 1, "flour_wetted_kg": 1}"#,
            422,
            vec!["parts"],
        ),
        (
            HEAT,
            r#"{"parts": [{"name": "flour", "kg": -1, "temperature_c": 20, "specific_heat": 1.8}],
                "water_kg": 1, "tap_c": 1, "target_c": 26, "mixing_kj_per_kg": 1, "flour_wetted_kg": 1}"#,
            422,
            vec!["parts[0].kg"],
        ),
    ] {
        let response = plant.raw(Method::POST, path, body).await;
        assert_eq!(response.status().as_u16(), status, "{body}");
        assert_eq!(response.headers()["content-type"], "application/problem+json", "{body}");
        let problem: Value = response.json().await.expect("JSON");
        assert_eq!(problem["status"], status);
        assert!(problem["detail"].as_str().is_some_and(|detail| !detail.is_empty()));
        assert_eq!(fields(&problem), named, "{body}: {problem}");
    }
}

#[tokio::test]
async fn a_body_beyond_16_mib_is_refused() {
    let plant = Plant::open().await;
    let response = plant.raw(Method::POST, MOISTURE, vec![b' '; 17 * 1024 * 1024]).await;
    assert_eq!(response.status(), StatusCode::PAYLOAD_TOO_LARGE);
    assert_eq!(response.headers()["content-type"], "application/problem+json");
}

#[tokio::test]
async fn unknown_addresses_and_methods_are_problems() {
    let plant = Plant::open().await;
    for (method, path, status) in [
        (Method::GET, "/api/v1/loaf", 404),
        (Method::GET, "/api/v1/lots/not-an-id", 404),
        (Method::GET, "/api/v1/lots/6f0f4a3e-0000-4000-8000-000000000000", 404),
        (Method::GET, "/api/v1/products/no-such-loaf", 404),
        (Method::GET, "/api/v1/lots?flour_id=flour", 400),
        (Method::DELETE, "/api/v1/lots", 405),
        (Method::GET, HEAT, 405),
    ] {
        let response = plant.raw(method, path, "").await;
        assert_eq!(response.status().as_u16(), status, "{path}");
        assert_eq!(response.headers()["content-type"], "application/problem+json", "{path}");
    }
}

fn number(value: &Value) -> f64 {
    value.as_f64().expect("a number")
}

/// A mixing curve with its peak at 6 min and so many FU.
fn titration(peak: f64, points: u32) -> Value {
    let t_s: Vec<f64> = (0..points).map(|at| f64::from(at) * 1200.0 / f64::from(points)).collect();
    let fu: Vec<f64> = t_s
        .iter()
        .map(|t| if *t < 360.0 { peak * t / 360.0 } else { peak - (t - 360.0) / 8.0 })
        .collect();
    json!({"mixer_g": 300, "flour_moisture_pct": 13.2, "water_ml": 186.0,
        "band_fu": vec![20.0; t_s.len()], "t_s": t_s, "fu": fu})
}

#[tokio::test]
async fn farinograph_answers_the_contract_up_to_its_size() {
    let plant = Plant::open().await;
    let (status, read) = plant.post(FARINOGRAPH, &titration(512.0, 1200)).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    assert!((number(&read["absorption_14_pct"]) - 61.46).abs() < 0.03);
    assert!((number(&read["development_min"]) - 6.0).abs() < 0.1);
    for field in [
        "arrival_min",
        "departure_min",
        "stability_min",
        "mti_fu",
        "softening_fu",
        "quality_number_mm",
        "absorption_as_is_pct",
        "max_consistency_fu",
    ] {
        assert!(read[field].is_number(), "{field}: {read}");
    }
    assert_eq!(plant.post(FARINOGRAPH, &titration(500.0, 200_000)).await.0, StatusCode::OK);
    let (status, problem) = plant.post(FARINOGRAPH, &titration(500.0, 200_001)).await;
    assert_eq!((status, fields(&problem)[0]), (StatusCode::UNPROCESSABLE_ENTITY, "t_s"));
}

#[tokio::test]
async fn alveograph_blend_and_sift_answer_the_contract() {
    let plant = Plant::open().await;
    let l: Vec<f64> = (0..=110).map(f64::from).collect();
    let p: Vec<f64> = l.iter().map(|l| if *l <= 100.0 { 11.0 * l.min(5.0) } else { 0.0 }).collect();
    let (status, read) =
        plant.post(ALVEOGRAPH, &json!({"curves": [{"l_mm": l, "p_mmh2o": p}]})).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    assert_eq!((number(&read["p_over_l"]), number(&read["ie_pct"])), (0.55, 100.0));
    assert!((number(&read["w"]) - 6.54 * 48.75).abs() < 1e-6);

    let flour = |name: &str, price: f64, protein: f64| {
        json!({"name": name, "price_per_t": price,
        "moisture_pct": 14, "protein_14_pct": protein, "ash_dm_pct": 0.6, "damaged_starch_pct": 8,
        "w": 250, "falling_number_s": 300})
    };
    let wanted = |min: f64| {
        json!({"flours": [flour("A", 500.0, 14.0), flour("B", 400.0, 10.0)],
        "targets": [{"property": "protein_14_pct", "min": min}]})
    };
    let (status, read) = plant.post(BLEND, &wanted(12.0)).await;
    assert_eq!((status, &read["feasible"]), (StatusCode::OK, &json!(true)));
    assert!((number(&read["price_per_t"]) - 450.0).abs() < 1e-6);
    let (status, read) = plant.post(BLEND, &wanted(15.0)).await;
    assert_eq!((status, &read["feasible"]), (StatusCode::OK, &json!(false)));
    assert!((number(&read["conflicts"][0]["best_reachable"]) - 14.0).abs() < 1e-6);

    let (status, read) =
        plant.post(SIFT, &json!({"ash_dm_pct": 1.62, "target_ash_dm_pct": 0.85})).await;
    assert_eq!((status, &read["feasible"]), (StatusCode::OK, &json!(true)));
    assert!((number(&read["extraction_pct"]) - 84.44).abs() < 0.01);
    let (_, read) = plant.post(SIFT, &json!({"ash_dm_pct": 0.6, "removed_pct": 80})).await;
    assert_eq!(read["feasible"], false);
}

#[tokio::test]
async fn no_calculator_of_curves_and_blends_breaks_on_what_it_is_given() {
    let plant = Plant::open().await;
    let flat = |value: f64| {
        json!({"mixer_g": 50, "flour_moisture_pct": 14, "water_ml": 30,
        "t_s": (0..100).collect::<Vec<_>>(), "fu": vec![value; 100]})
    };
    for (path, body, status) in [
        (FARINOGRAPH, json!({}), 422),
        (
            FARINOGRAPH,
            json!({"t_s": "none", "fu": {"a": 1}, "band_fu": true, "mixer_g": null}),
            422,
        ),
        (
            FARINOGRAPH,
            json!({"mixer_g": 300, "flour_moisture_pct": 14, "water_ml": 186, "t_s": [], "fu": []}),
            422,
        ),
        (FARINOGRAPH, flat(0.0), 200),
        (FARINOGRAPH, flat(-200.0), 200),
        (FARINOGRAPH, flat(2000.0), 200),
        (ALVEOGRAPH, json!({}), 422),
        (ALVEOGRAPH, json!({"curves": 7}), 422),
        (ALVEOGRAPH, json!({"curves": [{}]}), 422),
        (ALVEOGRAPH, json!({"curves": vec![json!({"l_mm": [0], "p_mmh2o": [1]}); 11]}), 422),
        (BLEND, json!({}), 422),
        (BLEND, json!({"flours": [{}], "targets": [{}]}), 422),
        (BLEND, json!({"flours": "all of them"}), 422),
        (SIFT, json!({}), 422),
        (SIFT, json!({"ash_dm_pct": 1.6, "removed_pct": -1}), 422),
        (SIFT, json!([1.6]), 422),
    ] {
        let (found, answer) = plant.post(path, &body).await;
        assert_eq!(found.as_u16(), status, "{path} {body:.200}: {answer}");
        assert!(!answer.to_string().contains("NaN"), "{answer}");
        if status == 422 {
            assert!(!answer["detail"].as_str().unwrap_or_default().is_empty());
        }
    }
}

#[tokio::test]
async fn fermentation_and_friction_answer_the_contract() {
    let plant = Plant::open().await;
    let dough = json!({
        "phases": [{"hours": 6, "ambient_c": 24}],
        "dough": {"yeast_idy_pct": 0.8, "salt_pct": 2, "hydration_pct": 62, "damaged_starch_pct": 7.5,
                  "falling_number_s": 300, "start_c": 26, "mass_kg": 20},
        "rise_targets_pct": [50, 100, 1500],
    });
    let (status, found) = plant.post("/api/v1/calc/fermentation", &dough).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    for (at, wanted) in [(0, 0.927), (1, 1.595)] {
        let hours = found["times"][at]["at_h"].as_f64().expect("reached");
        assert!((hours - wanted).abs() < 0.01 * wanted, "{hours}");
    }
    assert_eq!(found["times"][2]["at_h"], Value::Null);
    for key in ["t_h", "rise_pct", "dough_c", "sugar_pct"] {
        assert!(found["series"][72][key].is_number(), "{key}");
    }
    // 20 phases of ten days are as long as it gets.
    let long = json!({
        "phases": vec![json!({"hours": 240, "ambient_c": 20}); 20], "dough": dough["dough"],
    });
    assert_eq!(plant.post("/api/v1/calc/fermentation", &long).await.0, StatusCode::OK);

    let observations: Vec<Value> = [15.2, 13.9, 16.0, 15.5]
        .map(|friction| {
            json!({"flour_c": 20, "room_c": 23, "water_c": 35.0 - friction, "dough_c": 26})
        })
        .into();
    let (status, learned) =
        plant.post("/api/v1/calc/friction", &json!({"observations": observations})).await;
    assert_eq!(status, StatusCode::OK, "{learned}");
    assert!((learned["friction_c"].as_f64().expect("a number") - 15.19).abs() < 0.005);
    assert!((learned["sd_c"].as_f64().expect("a number") - 0.83).abs() < 0.005);

    let straight = json!({
        "work_kj_per_kg": 9, "fold_sets": 3, "flour_w": 170, "mean_c": 25, "gas_ml_per_g": 5.5,
        "parts": [{"flour_share_pct": 100, "hours": 4.5}],
    });
    let (status, ripe) = plant.post("/api/v1/calc/maturity", &straight).await;
    assert_eq!((status, &ripe["verdict"]), (StatusCode::OK, &json!("ripe")), "{ripe}");
    assert!((ripe["maturity"].as_f64().expect("a number") - 0.987).abs() < 0.001);
    let read = json!({
        "phases": dough["phases"], "dough": dough["dough"], "rise_targets_pct": [100],
        "readings": [{"at_h": 0.927, "rise_pct": 50}, {"at_h": 1.2, "rise_pct": 69}],
    });
    let (status, fitted) = plant.post("/api/v1/calc/rate-fit", &read).await;
    assert_eq!((status, &fitted["left_out"]), (StatusCode::OK, &json!([])), "{fitted}");
    assert!((fitted["rate"].as_f64().expect("a number") - 1.0).abs() < 0.05, "{fitted}");
    for path in ["fermentation", "friction", "maturity", "rate-fit"] {
        for body in [json!({}), json!([]), json!({"dough": 3}), json!({"observations": [null]})] {
            let (status, problem) = plant.post(&format!("/api/v1/calc/{path}"), &body).await;
            assert!(status.is_client_error(), "{path}: {problem}");
            assert!(problem["detail"].is_string());
        }
    }
}

#[tokio::test]
async fn oven_judging_and_faults_answer_the_contract() {
    let plant = Plant::open().await;
    let trace = json!({
        "t_min": [0, 4, 8, 12, 14, 16, 18, 20], "bake_min": 20,
        "probes": [{"name": "middle", "core_c": [28, 34, 48, 66, 76, 85, 92, 96]}],
    });
    let (status, read) = plant.post("/api/v1/calc/bake-trace", &trace).await;
    assert_eq!((status, &read["slowest"]), (StatusCode::OK, &json!("middle")), "{read}");
    assert!((number(&read["probes"][0]["arrival_pct"]) - 92.5).abs() < 0.005, "{read}");
    assert!((number(&read["bake_min_for_target"]) - 21.76).abs() < 0.005, "{read}");

    let marks = json!({"difference": 0.7, "batches": 1, "loaves": 6, "sd_batch": null,
        "sd_loaf": 0.35, "sd_judge": 0.3});
    let (status, told) = plant.post("/api/v1/calc/score-difference", &marks).await;
    assert_eq!((status, &told["says"]), (StatusCode::OK, &json!("doughs_differ")), "{told}");
    let sheets = json!({"marks": [[4, 3], [4.5, 4]], "repeats_1": [0.5], "repeats_2": [],
        "now": [4, 3]});
    let (status, judges) = plant.post("/api/v1/calc/judges", &sheets).await;
    assert_eq!((status, &judges["now"]["agree"]), (StatusCode::OK, &json!(true)), "{judges}");
    assert!(number(&judges["judges"][0]["level"]) > 0.0, "the first marks higher");

    let asked = json!({"fault": "smearing", "gates": ["sponge", "wheat", "tin"],
        "features": {"ds_trap": 2, "water_over_plan_pts": 2.1, "arrival_d_pts": 11.4}});
    let (status, found) = plant.post("/api/v1/calc/diagnose", &asked).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    assert_eq!(found["causes"][0]["cause"], "ds_trap_water");
    assert!(number(&found["causes"][0]["families"]["WA"]) > 2.0, "{found}");
    assert_eq!(found["would_decide"][0]["feature"], "damaged_starch_pct");

    for path in ["bake-trace", "score-difference", "judges", "diagnose"] {
        for body in [json!({"marks": [[4]], "now": 3}), json!([]), json!({"features": {"x": {}}})] {
            let (status, problem) = plant.post(&format!("/api/v1/calc/{path}"), &body).await;
            assert!(status.is_client_error(), "{path}: {problem}");
            assert!(problem["detail"].is_string());
        }
    }
}
