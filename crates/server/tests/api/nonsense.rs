//! Every route of the document, given nonsense: refused in words, and never a fault of ours.

use crate::support::{Plant, full_mixer, new_id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

/// Every path of the document with its method.
async fn routes(plant: &Plant) -> Vec<(Method, String)> {
    let document = plant.get("/api/openapi.json").await;
    let mut all = Vec::new();
    for (path, methods) in document["paths"].as_object().expect("paths") {
        for method in methods.as_object().expect("methods").keys() {
            let method = Method::from_bytes(method.to_uppercase().as_bytes()).expect("a method");
            all.push((method, path.clone()));
        }
    }
    assert!(all.len() > 60, "{} routes", all.len());
    all
}

/// A path with its places filled.
fn filled(path: &str, with: &str) -> String {
    path.split('/')
        .map(|part| if part.starts_with('{') { with } else { part })
        .collect::<Vec<_>>()
        .join("/")
}

async fn told(plant: &Plant, method: &Method, path: &str, body: Vec<u8>) -> StatusCode {
    let response = plant.raw(method.clone(), path, body).await;
    let status = response.status();
    assert!(!status.is_server_error(), "{method} {path}: {status}");
    let kind = response
        .headers()
        .get("content-type")
        .map(|kind| kind.to_str().unwrap_or_default().to_owned());
    // What is not refused may go on for as long as somebody listens.
    if status.is_client_error() {
        let text = response.text().await.unwrap_or_default();
        assert_eq!(kind.as_deref(), Some("application/problem+json"), "{method} {path}: {text}");
        let problem: Value = serde_json::from_str(&text).expect("JSON");
        assert!(
            problem["detail"].as_str().is_some_and(|message| !message.is_empty()),
            "{method} {path}"
        );
        assert_eq!(problem["status"], status.as_u16());
        assert!(!text.contains("panicked"), "{text}");
    }
    status
}

#[tokio::test]
async fn addresses_that_lead_nowhere_are_told_as_such() {
    let plant = Plant::open().await;
    for (method, path) in routes(&plant).await {
        if !path.contains('{') || path.contains("/instruments/") {
            continue;
        }
        for place in ["nothing", "0", "%00", "🥖", &new_id()] {
            told(&plant, &method, &filled(&path, place), b"{}".to_vec()).await;
        }
    }
}

#[tokio::test]
async fn bodies_that_are_nothing_are_told_as_such() {
    let plant = Plant::open().await;
    let deep = format!("{}1{}", "[".repeat(200), "]".repeat(200));
    let bodies: [&[u8]; 10] = [
        br#"{"name": "a\u0000b", "code": "\u0000", "signed": {"by": "\u0000", "reason": "x"}}"#,
        b"",
        b"null",
        b"[]",
        b"{}",
        b"{\"hand\": 3, \"rows\": \"x\", \"lines\": {}, \"number\": -1}",
        b"{\"signed\": null, \"revision_refs\": [], \"run_settings\": false}",
        b"\xff\xfe\x00",
        b"{\"a\":",
        deep.as_bytes(),
    ];
    for (method, path) in routes(&plant).await {
        if method == Method::GET {
            continue;
        }
        let path = filled(&path, &new_id());
        for body in bodies {
            told(&plant, &method, &path, body.to_vec()).await;
        }
    }
    assert_eq!(plant.get("/api/v1/batches").await["batches"], json!([]), "nothing was stored");
    assert_eq!(plant.get("/api/v1/plant/parameters").await["revision"], Value::Null);
    assert_eq!(plant.get("/api/v1/products").await.as_array().map(Vec::len), Some(9));
}

#[tokio::test]
async fn a_character_zero_is_refused_and_any_other_letter_kept() {
    let plant = Plant::open().await;
    let flour = |name: &str| {
        json!({
            "number": 1, "signed": {},
            "name": name, "mill": "Brae Stone Mill", "species": "wheat", "treatment": "none",
            "intended_use": "general",
        })
    };
    let path = format!("/api/v1/flours/{}/revisions/{}", new_id(), new_id());
    let (status, problem) = plant.put(&path, &flour("Holm\0Whole")).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(problem["detail"].as_str().is_some_and(|message| message.contains("character zero")));
    let odd = "Hölm “ganz” 小麦 🌾 \u{202e}\\u";
    let (status, kept) = plant.put(&path, &flour(odd)).await;
    assert_eq!((status, &kept["flour"]["name"]), (StatusCode::OK, &json!(odd)), "{kept}");
}

#[tokio::test]
async fn questions_in_the_address_that_are_nonsense_are_told_as_such() {
    let plant = Plant::open().await;
    for (method, path) in routes(&plant).await {
        if method != Method::GET || path.contains('{') {
            continue;
        }
        for query in [
            "after_at=never&after_id=7",
            "flour_id=x",
            "q=%00",
            "was=&is=",
            "format=xls",
            "property=joy",
        ] {
            told(&plant, &method, &format!("{path}?{query}"), Vec::new()).await;
        }
    }
}

/// Every place of a value where something else may be put.
fn places(value: &Value, at: &str, all: &mut Vec<String>) {
    all.push(at.to_owned());
    match value {
        Value::Object(fields) => {
            for (key, inner) in fields {
                places(inner, &format!("{at}/{key}"), all);
            }
        }
        Value::Array(items) => {
            for (number, inner) in items.iter().enumerate() {
                places(inner, &format!("{at}/{number}"), all);
            }
        }
        _ => {}
    }
}

#[tokio::test]
async fn a_dough_in_hand_with_any_one_thing_wrong_is_never_our_fault() {
    let plant = Plant::open().await;
    let mut scenario = plant.scenario("rigg-spelt-500", "RS-26-0505", full_mixer()).await;
    let formula = plant.get("/api/v1/products/rigg-spelt-500").await["formula"].clone();
    scenario["draft"] = json!({
        "lines": formula["lines"], "flours": formula["flours"], "parts": formula["parts"],
        "style_points": 2, "piece_kg": 0.5, "losses": {"bake_pct": 11},
    });
    scenario["run_settings"]["hydration_pct"] = json!(70);
    scenario["run_settings"]["tap_c"] = json!(12);
    let mut all = Vec::new();
    places(&scenario, "", &mut all);
    assert!(all.len() > 40, "{} places", all.len());
    for place in &all {
        for wrong in [Value::Null, json!("wrong"), json!(-1e300), json!([]), json!({"x": 1})] {
            let mut broken = scenario.clone();
            if place.is_empty() {
                broken = wrong.clone();
            } else if let Some(inner) = broken.pointer_mut(place) {
                *inner = wrong.clone();
            }
            for (path, body) in [
                ("/api/v1/chain", json!({"now": broken})),
                ("/api/v1/chain/fermentation", broken.clone()),
                ("/api/v1/chain/water-distribution", json!({"scenario": broken})),
            ] {
                told(&plant, &Method::POST, path, body.to_string().into_bytes()).await;
            }
        }
    }
}

#[tokio::test]
async fn moments_no_plant_can_mean_are_refused() {
    let plant = Plant::open().await;
    let scenario = plant.scenario("ferry-tin-800", "VR-26-1090", full_mixer()).await;
    let product = plant.get("/api/v1/products/ferry-tin-800").await;
    let (method_id, line_id) = (&product["method"]["id"], &product["line"]["id"]);
    let fine = json!({"anchor": {"by": "from", "at": "2030-01-01T00:00:00Z"}});
    for far in ["+262142-12-31T23:59:59Z", "-262143-01-01T00:00:00Z", "1850-06-01T00:00:00Z"] {
        let day = json!({"anchor": {"by": "out_by", "at": far}});
        let soon = json!({"anchor": fine["anchor"], "not_before": far});
        for (method, path, body) in [
            (Method::POST, "/api/v1/chain/schedule", json!({"scenario": scenario, "day": day})),
            (
                Method::POST,
                "/api/v1/chain/schedule/calendar",
                json!({"scenario": scenario, "day": soon}),
            ),
            (
                Method::POST,
                "/api/v1/chain/production-run",
                json!({"scenario": scenario, "day": day}),
            ),
            (
                Method::POST,
                "/api/v1/chain/production-run",
                json!({"scenario": scenario, "day": fine, "stop": {"at": far, "minutes": 90}}),
            ),
            (
                Method::POST,
                "/api/v1/chain/schedule",
                json!({"scenario": scenario, "day": fine, "spare": {"pieces": 4, "on": far}}),
            ),
            (
                Method::PUT,
                &*format!("/api/v1/dough-temperatures/{}", new_id()),
                json!({"method_id": method_id, "line_id": line_id, "taken_at": far,
                    "flour_c": 20, "room_c": 22, "water_c": 9, "dough_c": 26}),
            ),
            (
                Method::PUT,
                &*format!("/api/v1/batches/{}", new_id()),
                json!({"slug": "ferry-tin-800", "scenario": scenario, "planned_for": far}),
            ),
        ] {
            let status = told(&plant, &method, path, body.to_string().into_bytes()).await;
            assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{path} at {far}");
        }
        let far = far.replace('+', "%2B");
        let list = format!("/api/v1/batches?after_at={far}&after_id={}", new_id());
        let status = told(&plant, &Method::GET, &list, Vec::new()).await;
        assert!(status.is_client_error(), "{list}: {status}");
    }
}
