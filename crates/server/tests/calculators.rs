//! The public calculators: the contract, and bad input told as problem details.

mod support;

use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use support::{Plant, fields};

const MOISTURE: &str = "/api/v1/calc/moisture-basis";
const HEAT: &str = "/api/v1/calc/dough-temperature";

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
