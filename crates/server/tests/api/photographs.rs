//! Photographs of samples: taken in by what they are, once by their content, and given back.

use crate::support::{Plant, full_mixer, list, new_id};
use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use chrono::Utc;
use image::{DynamicImage, ImageFormat};
use ironpeel_store::PersonRole;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use std::io::Cursor;

/// The codes of a batch's two loaves, and where the batch is scored.
async fn set_out(plant: &Plant) -> (Vec<String>, String) {
    let scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let batch = format!("/api/v1/batches/{}", new_id());
    let body = json!({"slug": "deck-roll-60", "scenario": scenario, "planned_for": Utc::now()});
    assert_eq!(plant.put(&batch, &body).await.0, StatusCode::OK);
    let path = format!("{batch}/samples/{}", new_id());
    let (_, samples) = plant.put(&path, &json!({"loaves": 2})).await;
    let code = |one: &Value| one["code"].as_str().expect("a code").to_owned();
    (list(&samples).iter().map(code).collect(), format!("{batch}/scores"))
}

fn picture(wide: u32, high: u32, format: ImageFormat) -> Vec<u8> {
    let mut content = Cursor::new(Vec::new());
    DynamicImage::new_rgb8(wide, high).write_to(&mut content, format).expect("drawn");
    content.into_inner()
}

fn sent(content: &[u8], shows: &str) -> Value {
    json!({"shows": shows, "content": STANDARD.encode(content)})
}

fn at(code: &str) -> String {
    format!("/api/v1/samples/{code}/photographs/{}", new_id())
}

#[tokio::test]
async fn a_photograph_is_kept_once_by_its_content_and_given_back_as_it_was() {
    let plant = Plant::open().await;
    let (codes, scores) = set_out(&plant).await;
    let content = picture(8, 6, ImageFormat::Png);
    let (path, face) = (at(&codes[0]), sent(&content, "cut_face"));
    let (status, found) = plant.put(&path, &face).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    let again = plant.put(&path, &face).await;
    assert_eq!((again.0, &again.1), (StatusCode::OK, &found), "sent twice, it is there once");
    assert_eq!(plant.put(&path, &sent(&content, "whole_loaf")).await.0, StatusCode::CONFLICT);
    let hash = found[0]["hash"].as_str().expect("a hash");
    let (_, other) = plant.put(&at(&codes[1]), &face).await;
    assert_eq!(other[0]["hash"], hash, "its content lies there once, whosever sample it is");

    let back = plant.raw(Method::GET, &format!("/api/v1/photographs/{hash}"), "").await;
    let header = |name: &str| back.headers()[name].to_str().expect("text").to_owned();
    assert_eq!(
        (header("content-type"), header("x-content-type-options")),
        ("image/png".into(), "nosniff".into())
    );
    assert_eq!(back.bytes().await.expect("content"), content);

    // The newest of each view stands; earlier ones stay on record.
    let newer = sent(&picture(9, 6, ImageFormat::Jpeg), "cut_face");
    plant.put(&at(&codes[0]), &newer).await;
    let whole = sent(&picture(9, 6, ImageFormat::WebP), "whole_loaf");
    assert_eq!(list(&plant.put(&at(&codes[0]), &whole).await.1).len(), 2);
    let sheet = plant.get(&format!("/api/v1/samples/{}", codes[0])).await;
    let hashes: Vec<&Value> = list(&sheet["photographs"]).iter().map(|one| &one["hash"]).collect();
    assert!(hashes.len() == 2 && hashes.iter().all(|one| *one != hash), "{sheet}");
    assert_eq!(list(&plant.get(&scores).await["photographs"]).len(), 3);
}

#[tokio::test]
async fn what_is_no_photograph_is_refused_in_words_and_nothing_is_kept() {
    let plant = Plant::open().await;
    let (codes, scores) = set_out(&plant).await;
    let whole = picture(64, 64, ImageFormat::Png);
    let drawing = br#"<?xml version="1.0"?><svg xmlns="a"><script>alert(1)</script></svg>"#;
    let huge = vec![0; 12 * 1024 * 1024];
    for (content, says) in [
        (&drawing[..], "an SVG is a drawing that may carry a script"),
        (b"GIF89a, it says", "this is not a photograph, whatever it is called"),
        (b"", "this is not a photograph"),
        (&whole[..whole.len() / 2], "this photograph is broken"),
        (&picture(5000, 2, ImageFormat::Png), "4096 pixels along a side"),
        (&huge, "this one has 12.0 MB: make it smaller"),
    ] {
        let (status, problem) = plant.put(&at(&codes[0]), &sent(content, "cut_face")).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{says}");
        assert_eq!(problem["errors"][0]["field"], "content", "{problem}");
        let message = problem["errors"][0]["message"].as_str().expect("words");
        assert!(message.contains(says), "{message}");
    }
    let body = json!({"shows": "cut_face", "content": "no base64 at all!"});
    assert_eq!(plant.put(&at(&codes[0]), &body).await.0, StatusCode::UNPROCESSABLE_ENTITY);
    let body = sent(&whole, "its_owner");
    assert_eq!(plant.put(&at(&codes[0]), &body).await.0, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(plant.put(&at("99"), &sent(&whole, "cut_face")).await.0, StatusCode::NOT_FOUND);
    let face = sent(&whole, "cut_face");
    let (status, _) = plant.ask_as(PersonRole::Visitor, Method::PUT, &at(&codes[0]), &face).await;
    assert_eq!(status, StatusCode::FORBIDDEN);
    let unknown = plant.raw(Method::GET, "/api/v1/photographs/00ff", "").await;
    assert_eq!(unknown.status(), StatusCode::NOT_FOUND);
    assert_eq!(plant.get(&scores).await["photographs"], json!([]));
}
