//! Flours over HTTP: specifications, decisions, drift, what changed, imports, curves, blends.

use crate::support::{Plant, fields, new_id};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

const BRAE: &str = include_str!("../../demo/certificates-brae.csv");
const MIXING: &str = include_str!("../../demo/curve-mixing.csv");
const BUBBLE: &str = include_str!("../../demo/curve-bubble.csv");

fn signed() -> Value {
    json!({"reason": "for the test"})
}

fn text(value: &Value) -> &str {
    value.as_str().expect("a text")
}

fn list(value: &Value) -> &[Value] {
    value.as_array().expect("a list")
}

async fn flour(plant: &Plant, name: &str) -> Value {
    let flours = plant.get("/api/v1/flours").await;
    list(&flours).iter().find(|flour| flour["name"] == name).expect(name).clone()
}

#[tokio::test]
async fn properties_are_listed_with_the_basis_they_are_judged_on() {
    let plant = Plant::open().await;
    let all = plant.get("/api/v1/properties").await;
    let of = |key: &str| {
        let all = all.as_array().expect("a list");
        all.iter().find(|one| one["property"] == key).expect("a property").clone()
    };
    assert_eq!(
        (&of("ash")["basis"], &of("damaged_starch")["basis"]),
        (&json!("dry_matter"), &json!("as_is"))
    );
    assert_eq!(
        (&of("falling_number")["basis"], &of("falling_number")["unit"]),
        (&Value::Null, &json!("s"))
    );
    assert_eq!((&of("age")["is_read"], &of("protein")["is_read"]), (&json!(false), &json!(true)));
}

#[tokio::test]
async fn a_specification_is_revised_compared_and_sent() {
    let plant = Plant::open().await;
    let id = flour(&plant, "Tarn Strong").await["id"].clone();
    let path = format!("/api/v1/flours/{}/specifications", text(&id));
    let first = plant.get(&path).await[0].clone();
    let shown = plant.get(&format!("/api/v1/specifications/{}", text(&first["id"]))).await;
    let mut limits = list(&shown["limits"]).to_vec();
    for limit in &mut limits {
        let method = limit["method"].as_str().unwrap_or_default().to_owned();
        limit["method"] = json!(method);
    }
    let starch =
        limits.iter_mut().find(|limit| limit["property"] == "damaged_starch").expect("asked");
    starch["max"] = json!(9.0);
    let revision = new_id();
    let put = format!("{path}/{revision}");
    let body = json!({"number": 2, "limits": limits, "signed": signed()});
    let (status, revised) = plant.put(&put, &body).await;
    assert_eq!(status, StatusCode::OK, "{revised}");
    assert_eq!(plant.put(&put, &body).await.0, StatusCode::OK, "sent twice, stored once");
    assert_eq!(list(&plant.get(&path).await).len(), 2);

    let compared = plant
        .get(&format!("/api/v1/specifications/{revision}/compare?before={}", text(&first["id"])))
        .await;
    let [change] = list(&compared) else { panic!("{compared}") };
    assert_eq!(
        (&change["property"], &change["message"]),
        (&json!("damaged_starch"), &json!("narrower"))
    );

    let (status, problem) = plant.put(&format!("{path}/{}", new_id()), &body).await;
    assert_eq!(status, StatusCode::CONFLICT, "somebody else's second revision: {problem}");

    let csv = plant.raw(Method::GET, &format!("/api/v1/specifications/{revision}/csv"), "").await;
    let csv = csv.text().await.expect("a text");
    assert!(csv.contains("damaged starch,6.5,8.2,9,%,as is,must,AACC 76-31"), "{csv}");

    let wrong = json!({"number": 3, "limits": [
        {"property": "ash", "basis": "dry_matter", "min": 0.7, "max": 0.6, "must": true},
        {"property": "protein", "min": "much", "must": true},
        {"property": "protein", "basis": "fourteen", "max": 130, "must": true}], "signed": {}});
    let (status, problem) = plant.put(&format!("{path}/{}", new_id()), &wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    for field in ["limits[0]", "limits[1].min", "limits[2].max", "signed.reason"] {
        assert!(fields(&problem).contains(&field), "{field}: {problem}");
    }
}

#[tokio::test]
async fn limits_are_proposed_with_what_they_would_have_done() {
    let plant = Plant::open().await;
    let id = flour(&plant, "Tarn Strong").await["id"].clone();
    let path = format!("/api/v1/flours/{}/specifications/suggestions?k=2", text(&id));
    let suggestions = plant.get(&path).await;
    let starch: Vec<&Value> = list(&suggestions)
        .iter()
        .filter(|one| one["limit"]["property"] == "damaged_starch")
        .collect();
    assert_eq!(starch.len(), 2, "from the use and from history");
    assert!(starch.iter().all(|one| one["would_fail_pct"].as_f64().expect("a share") > 0.0));
    let (status, _) = plant.ask(Method::GET, &format!("{path}00"), &Value::Null).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
}

#[tokio::test]
async fn a_lot_is_decided_on_and_placed() {
    let plant = Plant::open().await;
    let lot = plant.lot("VR-26-1098").await;
    let id = text(&lot["id"]);
    let path = format!("/api/v1/lots/{id}/dispositions/{}", new_id());
    let (status, problem) =
        plant.put(&path, &json!({"decision": "reject", "signed": {"reason": ""}})).await;
    assert_eq!(
        (status, fields(&problem)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["signed.reason"])
    );
    for _ in 0..2 {
        let body = json!({"decision": "hold", "signed": signed()});
        assert_eq!(plant.put(&path, &body).await.0, StatusCode::OK);
    }
    let stock = format!("/api/v1/lots/{id}/stock/{}", new_id());
    let (status, problem) =
        plant.put(&stock, &json!({"place": "", "tonnes_left": -1, "signed": signed()})).await;
    assert_eq!(
        (status, fields(&problem)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["place", "tonnes_left"])
    );
    for nothing in [
        json!({"place": "silo 2", "signed": signed()}),
        json!({"place": "silo 2", "tonnes_left": "", "signed": signed()}),
    ] {
        let (status, problem) = plant.put(&stock, &nothing).await;
        assert_eq!(
            (status, fields(&problem)),
            (StatusCode::UNPROCESSABLE_ENTITY, vec!["tonnes_left"]),
            "nothing said is not 0 t"
        );
    }
    let body = json!({"place": "silo 2", "tonnes_left": 12.5, "signed": signed()});
    assert_eq!(plant.put(&stock, &body).await.0, StatusCode::OK);

    let lot = plant.lot("VR-26-1098").await;
    assert_eq!(lot["status"]["decision"]["decision"], "hold");
    assert_eq!(lot["status"]["stock"]["tonnes_left"], 12.5);
    assert_eq!(list(&lot["decisions"]).len(), 1, "sent twice, stored once");
    let nowhere = format!("/api/v1/lots/{}/dispositions/{}", new_id(), new_id());
    let body = json!({"decision": "release", "signed": signed()});
    assert_eq!(plant.put(&nowhere, &body).await.0, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn the_damaged_lot_is_found_by_drift_and_explained() {
    let plant = Plant::open().await;
    let flour = flour(&plant, "Tarn Strong").await;
    let path =
        format!("/api/v1/flours/{}/control-chart?property=damaged_starch", text(&flour["id"]));
    let view = plant.get(&path).await;
    let at =
        list(&view["lots"]).iter().position(|lot| lot["code"] == "VR-26-1033").expect("charted");
    assert_eq!(view["drift"]["points"][at]["beyond"], true);
    assert_eq!(list(&view["lots"]).len(), list(&view["drift"]["points"]).len());

    let lot = text(&view["lots"][at]["id"]).to_owned();
    let change = plant.get(&format!("/api/v1/lots/{lot}/comparison")).await;
    assert_eq!(change["against"]["code"], "VR-26-1028");
    let message = &change["against"]["comparison"]["consequences"][0]["message"];
    assert!(text(message).starts_with("Hold back"), "{message}");

    let target = plant.get(&format!("/api/v1/lots/{lot}/comparison?target=true")).await;
    assert_eq!(target["against"]["code"], "the targets of revision 1");
    let parts = list(&target["against"]["comparison"]["absorption_difference"]["parts"]);
    let starch = parts.iter().find(|part| part["key"] == "damaged_starch").expect("a part");
    assert!((starch["points"].as_f64().expect("points") - 1.4 * 2.7).abs() < 1e-9);

    let from = text(&view["lots"][at - 5]["received_at"]);
    let part = plant.get(&format!("{path}&from={from}")).await;
    assert!(list(&part["lots"]).len() < list(&view["lots"]).len());
    let oldest =
        plant.get(&format!("/api/v1/lots/{}/comparison", text(&view["lots"][0]["id"]))).await;
    assert_eq!(oldest["against"], Value::Null);
}

#[tokio::test]
async fn a_mills_table_is_mapped_taken_in_once_and_remembered() {
    let plant = Plant::open().await;
    let preview = plant.raw(Method::POST, "/api/v1/imports/preview", BRAE).await;
    let preview: Value = preview.json().await.expect("JSON");
    assert_eq!(preview["remembered_by"], Value::Null);
    let last = &preview["sample"][3];
    assert!(
        list(&last["readings"]).iter().any(|one| text(one) == "damaged starch 9.1 %, as is"),
        "{last}"
    );
    assert_eq!(last["milled"], "2026-11-09");

    let mut mapping = preview["mapping"].clone();
    mapping["columns"][9]["basis"] = json!("fourteen");
    let body =
        json!({"table": BRAE, "mapping": mapping, "mill": "Brae Stone Mill", "signed": signed()});
    let (status, report) = plant.post("/api/v1/imports/lots", &body).await;
    assert_eq!(status, StatusCode::OK, "{report}");
    assert_eq!(
        (&report["rows"], &report["added"], &report["same"]),
        (&json!(4), &json!(4), &json!(0)),
        "{report}"
    );
    let (_, again) = plant.post("/api/v1/imports/lots", &body).await;
    assert_eq!((&again["added"], &again["same"]), (&json!(0), &json!(4)), "no doubles");

    let lot = plant.lot("BS-0444").await;
    let rows = list(&lot["certificate"]["rows"]);
    assert!(!rows.iter().any(|row| row["property"] == "protein"), "n/a is no reading");
    let falling = rows.iter().find(|row| row["property"] == "falling_number").expect("stated");
    assert_eq!(
        (&falling["written"]["value"], &falling["reading"]["censored"]),
        (&json!("<62"), &json!("below"))
    );

    let again = plant.raw(Method::POST, "/api/v1/imports/preview", BRAE).await;
    let again: Value = again.json().await.expect("JSON");
    assert_eq!(
        (&again["remembered_by"], &again["mill"]),
        (&json!("RK"), &json!("Brae Stone Mill"))
    );
    assert_eq!(again["mapping"], mapping);
}

#[tokio::test]
async fn rows_that_cannot_be_taken_in_are_told_and_spoil_no_other() {
    let plant = Plant::open().await;
    let table = "Lot,Flour,Protein % 14,Milled\nA-1,Tarn Strong,130,2026-01-01\nA-2,Nobody,12,2026-01-01\n\
                 A-3,Tarn Strong,12.8,2026-01-01\n,Tarn Strong,12.8,soon\n";
    let body = json!({"table": table, "first_row": 501, "signed": signed()});
    let (status, report) = plant.post("/api/v1/imports/lots", &body).await;
    assert_eq!((status, &report["added"]), (StatusCode::OK, &json!(1)), "{report}");
    let rows: Vec<u64> =
        list(&report["faults"]).iter().filter_map(|fault| fault["row"].as_u64()).collect();
    assert_eq!(rows, [501, 502, 504, 504]);
    assert!(text(&report["faults"][1]["message"]).starts_with("no flour called Nobody"));
    let changed = body.to_string().replace("12.8", "12.9");
    let (_, report) =
        plant.post("/api/v1/imports/lots", &serde_json::from_str(&changed).expect("JSON")).await;
    assert!(
        text(&report["faults"].as_array().expect("a list").last().expect("one")["message"])
            .contains("another certificate")
    );
}

#[tokio::test]
async fn what_is_exported_comes_back_the_same() {
    let plant = Plant::open().await;
    let csv = plant
        .raw(Method::GET, "/api/v1/lots/export?format=csv", "")
        .await
        .text()
        .await
        .expect("a text");
    let whole: Value = plant
        .raw(Method::GET, "/api/v1/lots/export?format=json", "")
        .await
        .json()
        .await
        .expect("our own JSON");
    let all = list(&whole).len();
    assert!(all > 100 && csv.lines().count() == all + 1);
    for body in
        [json!({"table": csv, "signed": signed()}), json!({"lots": whole, "signed": signed()})]
    {
        let (status, report) = plant.post("/api/v1/imports/lots", &body).await;
        assert_eq!(status, StatusCode::OK, "{report}");
        assert_eq!(
            (&report["same"], &report["faults"]),
            (&json!(all), &json!([])),
            "to the letter"
        );
    }
}

#[tokio::test]
async fn a_curve_is_taken_in_read_and_its_mark_moved() {
    let plant = Plant::open().await;
    let lot = plant.lot("VR-26-1090").await;
    let file: Value =
        plant.raw(Method::POST, "/api/v1/curves/read", MIXING).await.json().await.expect("JSON");
    let id = new_id();
    let path = format!("/api/v1/lots/{}/curves/{id}", text(&lot["id"]));
    let input = json!({"mixer_g": 300, "flour_moisture_pct": 13.6, "water_ml": 184.9,
        "t_s": file["t_s"], "fu": file["fu"], "band_fu": file["band_fu"]});
    let body = json!({"kind": "farinograph", "input": input, "signed": signed()});
    let (status, read) = plant.put(&path, &body).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    let peak = read["farinograph"]["max_consistency_fu"].as_f64().expect("read");
    assert!((peak - 502.0).abs() < 6.0, "{peak}");
    let absorption = read["checks"]
        .as_array()
        .expect("a list")
        .iter()
        .find(|one| one["property"] == "absorption");
    assert!(absorption.is_some());

    let marks = format!("/api/v1/curves/{id}/marks");
    let moved = json!({"mark": "development", "minute": 6.0, "signed": signed()});
    let (status, read) = plant.put(&format!("{marks}/{}", new_id()), &moved).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    let development = read["farinograph"]["development_min"].as_f64().expect("read");
    assert!((development - 6.0).abs() < 0.02, "{development}");
    assert_eq!((&read["marks"][1]["moved"], list(&read["moves"]).len()), (&json!(true), 1));
    let back = json!({"mark": "development", "minute": null, "signed": signed()});
    let (_, read) = plant.put(&format!("{marks}/{}", new_id()), &back).await;
    assert_eq!((&read["marks"][1]["moved"], list(&read["moves"]).len()), (&json!(false), 2));
    let wrong = json!({"mark": "joy", "minute": -1, "signed": signed()});
    let (status, problem) = plant.put(&format!("{marks}/{}", new_id()), &wrong).await;
    assert_eq!(
        (status, fields(&problem)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["mark", "minute"])
    );

    let file: Value =
        plant.raw(Method::POST, "/api/v1/curves/read", BUBBLE).await.json().await.expect("JSON");
    let body =
        json!({"kind": "alveograph", "input": {"curves": file["curves"]}, "signed": signed()});
    let path = format!("/api/v1/lots/{}/curves/{}", text(&lot["id"]), new_id());
    let (_, read) = plant.put(&path, &body).await;
    assert_eq!(read["alveograph"]["left_out"], json!([4]), "the one that burst early");

    let short =
        json!({"kind": "farinograph", "input": {"t_s": [0, 1], "fu": [1]}, "signed": signed()});
    let (status, problem) = plant.put(&path, &short).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
}

#[tokio::test]
async fn an_instrument_draws_live_and_is_recorded_once() {
    let plant = Plant::open().await;
    let lot = plant.lot("VR-26-1052").await;
    // The noise of a run follows from its id: the same run each time.
    for (kind, id) in [
        ("farinograph", "0193a000-0000-7000-8000-000000000001"),
        ("alveograph", "0193a000-0000-7000-8000-000000000002"),
    ] {
        let path = format!("/api/v1/lots/{}/instruments/{kind}/{id}", text(&lot["id"]));
        for _ in 0..2 {
            let drawn = plant
                .raw(Method::GET, &format!("{path}?speed=10000"), "")
                .await
                .text()
                .await
                .expect("events");
            assert!(
                drawn.contains("event: points")
                    && drawn.contains(&format!("event: done\ndata: {id}")),
                "{drawn:.300}"
            );
        }
        let curve = format!("/api/v1/curves/{id}");
        let (status, _) = plant.ask(Method::GET, &curve, &Value::Null).await;
        assert_eq!(status, StatusCode::NOT_FOUND, "what is only shown is not recorded");
        for _ in 0..2 {
            assert_eq!(plant.put(&path, &json!({})).await.0, StatusCode::OK);
        }
        let (status, _) = plant.put(&path, &json!({"speed": 2})).await;
        assert_eq!(status, StatusCode::CONFLICT, "another body under the same id");
        let read = plant.get(&curve).await;
        assert_eq!((&read["source"], &read["made_by"]), (&json!("instrument"), &json!("RK")));
        let off: Vec<_> =
            list(&read["checks"]).iter().filter(|one| one["agrees"] == false).collect();
        assert!(off.is_empty(), "{off:?}");
    }
    let (status, _) = plant
        .ask(
            Method::GET,
            &format!("/api/v1/lots/{}/instruments/oven/{}", text(&lot["id"]), new_id()),
            &Value::Null,
        )
        .await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_blend_is_mixed_solved_and_becomes_a_flour_of_its_own() {
    let plant = Plant::open().await;
    let (strong, plain) = (plant.lot("VR-26-1090").await, plant.lot("VP-26-0435").await);
    let parts = json!([
        {"lot_id": strong["id"], "share_pct": 50, "price_per_t": 520},
        {"lot_id": plain["id"], "share_pct": 50, "price_per_t": 430}]);
    let asked = json!({"parts": parts, "targets": [{"property": "protein_14_pct", "min": 11.5}]});
    let (status, bench) = plant.post("/api/v1/blends/calculation", &asked).await;
    assert_eq!(status, StatusCode::OK, "{bench}");
    assert_eq!(
        (&bench["price_per_t"], &bench["solved"]["feasible"]),
        (&json!(475.0), &json!(true))
    );
    assert!(bench["solved"]["price_per_t"].as_f64().expect("a price") < 475.0);

    // What nobody priced is taken at its flour's price on record, and never as free.
    let of = async |lot: &Value, price: Value| {
        let asked = json!({"parts": [
            {"lot_id": strong["id"], "share_pct": 50, "price_per_t": 520},
            {"lot_id": lot["id"], "share_pct": 50, "price_per_t": price}]});
        plant.post("/api/v1/blends/calculation", &asked).await
    };
    let (_, bench) = of(&plain, Value::Null).await;
    assert_eq!(bench["parts"][1]["price_per_t"], plain["flour"]["price_per_t"]);
    let (status, problem) = of(&plain, json!("dear")).await;
    assert_eq!(
        (status, fields(&problem)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["parts[1].price_per_t"])
    );
    let mut unpriced = plain["flour"].clone();
    for (key, value) in [
        ("number", json!(2)),
        ("price_per_t", Value::Null),
        ("signed", json!({"reason": "no contract"})),
    ] {
        unpriced[key] = value;
    }
    let path = format!("/api/v1/flours/{}/revisions/{}", text(&unpriced["id"]), new_id());
    assert_eq!(plant.put(&path, &unpriced).await.0, StatusCode::OK);
    let (_, bench) = of(&plain, Value::Null).await;
    assert_eq!((&bench["price_per_t"], &bench["unpriced"]), (&Value::Null, &json!(["VP-26-0435"])));
    assert_eq!(
        (&bench["solved"]["feasible"], &bench["solved"]["price_per_t"]),
        (&json!(true), &json!(0.0))
    );

    let (flour_id, lot_id) = (new_id(), new_id());
    let mut save = json!({"name": "Tarn Middle", "number": 1, "revision_id": new_id(), "parts": parts,
        "lot_id": lot_id, "lot_revision_id": new_id(), "lot_code": "TM-1", "tonnes": "2", "signed": signed()});
    let path = format!("/api/v1/blends/{flour_id}");
    for _ in 0..2 {
        let (status, lot) = plant.put(&path, &save).await;
        assert_eq!(status, StatusCode::OK, "{lot}");
        assert_eq!(list(&lot["parts"]).len(), 2);
    }
    let blend = plant.get(&format!("/api/v1/flours/{flour_id}/blend")).await;
    assert_eq!((&blend["revision"]["number"], list(&blend["parts"]).len()), (&json!(1), 2));
    save["parts"][0]["share_pct"] = json!(70);
    save["lot_code"] = json!("");
    let (status, problem) = plant.put(&path, &save).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(
        fields(&problem).contains(&"parts") && fields(&problem).contains(&"lot_code"),
        "{problem}"
    );
}

#[tokio::test]
async fn a_lot_is_mended_or_told_why_not() {
    let plant = Plant::open().await;
    let path = format!("/api/v1/lots/{}/correction", text(&plant.lot("BS-0430").await["id"]));
    let (status, mended) = plant.post(&path, &json!({"remedy": "sieve", "ash_dm_pct": 0.9})).await;
    assert_eq!(status, StatusCode::OK, "{mended}");
    assert!(mended["low_pct"].as_f64() < mended["amount_pct"].as_f64());
    for wrong in [
        json!({"remedy": "sieve", "ash_dm_pct": 3}),
        json!({"remedy": "malt", "falling_number_s": 900}),
        json!({"remedy": "prayer"}),
    ] {
        assert_eq!(plant.post(&path, &wrong).await.0, StatusCode::UNPROCESSABLE_ENTITY, "{wrong}");
    }
}

#[tokio::test]
async fn a_flour_is_recorded_as_it_is() {
    let plant = Plant::open().await;
    let id = new_id();
    let path = format!("/api/v1/flours/{id}/revisions/{}", new_id());
    let mut body = json!({"number": 1, "signed": {}, "mill": "Brae Stone Mill", "name": "Brae Einkorn", "species": "einkorn", "note": "",
        "hardness": null, "extraction_pct": 100, "treatment": "none", "intended_use": "ancient_grain_bread"});
    assert_eq!(plant.put(&path, &body).await.0, StatusCode::OK);
    assert_eq!(plant.get(&format!("/api/v1/flours/{id}")).await["species_label"], "einkorn");
    body["extraction_pct"] = json!(7);
    body["name"] = json!("");
    let (status, problem) = plant.put(&path, &body).await;
    assert_eq!(
        (status, fields(&problem)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["name", "extraction_pct"])
    );
    body["number"] = json!(2);
    body["extraction_pct"] = json!(92);
    body["name"] = json!("Brae Einkorn");
    let path = format!("/api/v1/flours/{id}/revisions/{}", new_id());
    let (status, problem) = plant.put(&path, &body).await;
    assert_eq!(
        (status, fields(&problem)),
        (StatusCode::UNPROCESSABLE_ENTITY, vec!["signed.reason"])
    );
    body["signed"] = json!({"reason": "the mill's new screens"});
    assert_eq!(plant.put(&path, &body).await.0, StatusCode::OK);
    let revisions = plant.get(&format!("/api/v1/flours/{id}/revisions")).await;
    let extractions = revisions.as_array().expect("a list").iter();
    let extractions: Vec<_> = extractions.map(|one| &one["flour"]["extraction_pct"]).collect();
    assert_eq!(extractions, [&json!(92.0), &json!(100.0)]);
    let taken = json!({"number": 1, "signed": {}, "mill": "x", "name": "Tarn Strong", "species": "wheat", "treatment": "none", "intended_use": "general"});
    assert_eq!(
        plant.put(&format!("/api/v1/flours/{}/revisions/{}", new_id(), new_id()), &taken).await.0,
        StatusCode::CONFLICT
    );
}
