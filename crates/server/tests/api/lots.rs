//! Certificates and lots on the real server.

use crate::support::{Plant, fields, new_id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

const EXAMPLE: &str = include_str!("../../demo/certificate-example.csv");

async fn read(plant: &Plant, file: impl Into<reqwest::Body>) -> (StatusCode, Value) {
    let response = plant.raw(Method::POST, "/api/v1/certificates/read", file).await;
    (response.status(), response.json().await.expect("JSON"))
}

async fn strong(plant: &Plant) -> Value {
    let flours = plant.get("/api/v1/flours").await;
    let flours = flours.as_array().expect("a list");
    flours.iter().find(|flour| flour["name"] == "Tarn Strong").expect("in the demo plant")["id"]
        .clone()
}

async fn input(plant: &Plant) -> Value {
    let (status, file) = read(plant, EXAMPLE).await;
    assert_eq!(status, StatusCode::OK);
    json!({
        "flour_id": strong(plant).await,
        "code": file["head"]["lot"],
        "milled": file["head"]["milled"],
        "delivered": file["head"]["delivered"],
        "tonnes": file["head"]["tonnes"],
        "number": 1,
        "rows": file["rows"],
        "signed": {"reason": ""},
    })
}

fn at(lot: &str, revision: &str) -> String {
    format!("/api/v1/lots/{lot}/revisions/{revision}")
}

#[tokio::test]
async fn a_certificate_is_read_judged_recorded_and_stored_once() {
    let plant = Plant::open().await;
    let input = input(&plant).await;
    let to_judge = json!({"flour_id": input["flour_id"], "rows": input["rows"]});
    let (status, judged) = plant.post("/api/v1/certificates/assessment", &to_judge).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(judged["assessment"]["verdict"], "in");
    let protein = &judged["rows"][1]["reading"];
    assert_eq!((&protein["value"], &protein["basis"]), (&json!(13.0), &json!("fourteen")));
    let dry = protein["on"]["dry_matter"].as_f64().expect("has moisture");
    assert!((dry - 13.0 * 100.0 / 86.0).abs() < 1e-9);
    let earlier = judged["earlier"].as_array().expect("a list");
    assert!(earlier.iter().any(|run| run["property"] == "damaged_starch"
        && run["values"].as_array().is_some_and(|values| values.len() == 16)));

    let path = at(&new_id(), &new_id());
    let (status, lot) = plant.put(&path, &input).await;
    assert_eq!(status, StatusCode::OK, "{lot}");
    assert_eq!((&lot["code"], &lot["tonnes"]), (&json!("VR-26-1107"), &json!(24.6)));
    let (status, again) = plant.put(&path, &input).await;
    assert_eq!((status, &again["id"]), (StatusCode::OK, &lot["id"]));
    let page = plant.get("/api/v1/lots").await;
    let same =
        page["lots"].as_array().expect("a list").iter().filter(|row| row["code"] == "VR-26-1107");
    assert_eq!(same.count(), 1);

    let (status, problem) = plant.put(&at(&new_id(), &new_id()), &input).await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert!(
        problem["detail"].as_str().is_some_and(|message| message.contains("already on record"))
    );
}

#[tokio::test]
async fn a_correction_keeps_what_was_written_and_needs_a_reason() {
    let plant = Plant::open().await;
    let mut input = input(&plant).await;
    let lot_id = new_id();
    plant.put(&at(&lot_id, &new_id()), &input).await;
    let stored = plant.get(&format!("/api/v1/lots/{lot_id}")).await;
    assert_eq!(stored["certificate"]["rows"][1]["written"]["value"], "13,0");

    input["number"] = json!(2);
    input["rows"][1]["value"] = json!("12,1");
    let (status, problem) = plant.put(&at(&lot_id, &new_id()), &input).await;
    assert_eq!(
        (status, fields(&problem)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["signed.reason"])
    );
    input["signed"]["reason"] = json!("the mill sent a second sheet");
    let (status, lot) = plant.put(&at(&lot_id, &new_id()), &input).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(
        (&lot["revision"]["number"], &lot["certificate"]["assessment"]["verdict"]),
        (&json!(2), &json!("out"))
    );
}

#[tokio::test]
async fn a_late_replay_undoes_nothing_and_no_other_lot_takes_its_revision() {
    let plant = Plant::open().await;
    let first = input(&plant).await;
    let mut second = first.clone();
    for (key, value) in [
        ("number", json!(2)),
        ("delivered", json!("2026-11-20")),
        ("signed", json!({"reason": "the date was wrong"})),
    ] {
        second[key] = value;
    }
    let (lot_id, revision, corrected) = (new_id(), new_id(), new_id());
    for (revision, body) in [(&revision, &first), (&corrected, &second), (&revision, &first)] {
        let (status, lot) = plant.put(&at(&lot_id, revision), body).await;
        assert_eq!(status, StatusCode::OK, "{lot}");
    }
    let lot = plant.get(&format!("/api/v1/lots/{lot_id}")).await;
    assert_eq!(
        (&lot["revision"]["number"], &lot["delivered_on"]),
        (&json!(2), &json!("2026-11-20")),
        "the later date stands"
    );
    let page = plant.get("/api/v1/lots").await;
    let row =
        page["lots"].as_array().expect("a list").iter().find(|row| row["id"] == lot_id.as_str());
    assert_eq!(row.expect("in the list")["delivered_on"], "2026-11-20", "there too");

    let stray = new_id();
    let mut other = first.clone();
    other["code"] = json!("VR-26-9999");
    for body in [&first, &other] {
        let (status, problem) = plant.put(&at(&stray, &revision), body).await;
        assert_eq!(status, StatusCode::CONFLICT, "{problem}");
    }
    let (status, _) = plant.ask(Method::GET, &format!("/api/v1/lots/{stray}"), &Value::Null).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    let rest = plant.get("/api/v1/lots").await;
    assert_eq!(rest["lots"], page["lots"]);
}

#[tokio::test]
async fn nothing_is_saved_half() {
    let plant = Plant::open().await;
    let mut input = input(&plant).await;
    input["rows"][1]["value"] = json!("130");
    input["rows"][2]["unit"] = json!("");
    input["rows"][3]["property"] = json!("loaf joy");
    input["milled"] = json!("yesterday");
    input["tonnes"] = json!("a lot");
    input["code"] = json!(" ");
    let lot_id = new_id();
    let (status, problem) = plant.put(&at(&lot_id, &new_id()), &input).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(fields(&problem), ["code", "milled", "tonnes", "rows[1]", "rows[2]", "rows[3]"]);
    let (status, _) = plant.ask(Method::GET, &format!("/api/v1/lots/{lot_id}"), &Value::Null).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_file_that_is_no_certificate_says_what_one_is() {
    let plant = Plant::open().await;
    for (file, message) in [
        (b"\x89PNG\r\n\x1a\n\0\0".to_vec(), "not a text file"),
        (b"dear miller".to_vec(), "property;value;unit;basis;method"),
        (Vec::new(), "empty"),
        (b"Lot,Flour,\"Protein, % d.m.\",Moisture %,W\nBS-1,x,1,2,3".to_vec(), "a lot in each row"),
    ] {
        let (status, problem) = read(&plant, file).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(
            problem["detail"].as_str().is_some_and(|detail| detail.contains(message)),
            "{problem}"
        );
    }
    let (status, _) = read(&plant, vec![b'x'; 2 * 1024 * 1024]).await;
    assert_eq!(status, StatusCode::PAYLOAD_TOO_LARGE);
}

#[tokio::test]
async fn the_finder_finds_lots_and_takes_anything_typed() {
    let plant = Plant::open().await;
    let found = plant.get("/api/v1/find?q=vr-26-10").await;
    assert_eq!(found.as_array().map(Vec::len), Some(8));
    assert_eq!(plant.get("/api/v1/find?q=%25%5C_").await, json!([]));
}

#[tokio::test]
async fn a_mill_is_told_what_a_lot_has_what_was_asked_and_what_was_decided() {
    let plant = Plant::open().await;
    let lot = plant.lot("VR-26-1033").await;
    let path = format!("/api/v1/lots/{}/report/csv", lot["id"].as_str().expect("an id"));
    let response = plant.raw(Method::GET, &path, "").await;
    assert_eq!(response.status(), StatusCode::OK);
    let named = response.headers()["content-disposition"].to_str().expect("text").to_owned();
    assert!(named.contains("vr-26-1033-report-to-the-mill.csv"), "{named}");
    let text = response.text().await.expect("text");
    let lines: Vec<&str> = text.lines().collect();
    assert_eq!(lines[0], "lot,VR-26-1033");
    assert_eq!(lines[5], "decision,held");
    assert!(lines.iter().any(|line| line.starts_with("damaged starch,") && line.contains("above")));
    let gone = format!("/api/v1/lots/{}/report/csv", new_id());
    assert_eq!(plant.raw(Method::GET, &gone, "").await.status(), StatusCode::NOT_FOUND);
}
