//! The clock on the plant's wall decides what day it is and which hours are nobody's.

use crate::support::{Plant, fields, full_mixer};
use chrono::{DateTime, Timelike, Utc};
use ironpeel_store::PersonRole;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

/// The first place on earth to begin a day, and one that ends it 25 hours later.
const FIRST: &str = "Pacific/Kiritimati";
const LAST: &str = "Pacific/Pago_Pago";

async fn set(plant: &Plant, time_zone: &str) -> (StatusCode, Value) {
    settings(plant, &json!({ "time_zone": time_zone })).await
}

/// Settings as an administrator changes them.
async fn settings(plant: &Plant, change: &Value) -> (StatusCode, Value) {
    plant.ask_as(PersonRole::Administrator, Method::PUT, "/api/v1/plant/settings", change).await
}

#[tokio::test]
async fn the_clock_is_set_by_a_name_that_is_known_and_a_lot_ages_by_it() {
    let plant = Plant::open().await;
    assert_eq!(plant.get("/api/v1/plant/settings").await["time_zone"], "Europe/London");
    let (status, refused) = set(&plant, "Atlantis/Skerrow").await;
    assert_eq!((status, fields(&refused)), (StatusCode::UNPROCESSABLE_ENTITY, vec!["time_zone"]));
    let (_, as_it_was) = settings(&plant, &json!({})).await;
    assert_eq!(as_it_was["time_zone"], "Europe/London", "what is left out stays");

    let lots = plant.get("/api/v1/lots").await;
    let path = format!("/api/v1/lots/{}", lots["lots"][0]["id"].as_str().expect("a lot"));
    let mut ages = Vec::new();
    for zone in [FIRST, LAST] {
        assert_eq!(set(&plant, zone).await.0, StatusCode::OK);
        assert_eq!(plant.get("/api/v1/plant/settings").await["time_zone"], zone);
        ages.push(plant.get(&path).await["age_days"].as_i64().expect("milled on a day"));
    }
    assert!(ages[0] > ages[1], "a day begins a day earlier there: {ages:?}");
}

#[tokio::test]
async fn hours_that_are_nobodys_are_hours_of_the_plants_clock() {
    let plant = Plant::open().await;
    let lots = plant.get("/api/v1/lots").await;
    let code = lots["lots"][0]["code"].as_str().expect("a lot");
    let scenario = plant.scenario("ferry-tin-short", code, full_mixer()).await;
    for zone in [FIRST, LAST] {
        set(&plant, zone).await;
        let asked = json!({"scenario": scenario, "day": {
            "anchor": {"by": "from", "at": "2030-06-03T00:00:00Z"},
            "closed_hours": [{"from": "22:00", "to": "4:00"}],
        }});
        let (status, found) = plant.post("/api/v1/chain/schedule", &asked).await;
        assert_eq!(status, StatusCode::OK, "{found}");
        let zone: chrono_tz::Tz = zone.parse().expect("a zone");
        for stage in found["plan"]["stages"].as_array().expect("stages") {
            let begins: DateTime<Utc> =
                stage["starts_at"].as_str().expect("a moment").parse().expect("a moment");
            let hour = begins.with_timezone(&zone).hour();
            assert!((4..22).contains(&hour), "{hour} in {zone}: {stage}");
        }
    }
}

#[tokio::test]
async fn currency_week_and_units_are_the_plants_and_old_addresses_lead_to_them() {
    let plant = Plant::open().await;
    let path = "/api/v1/plant/settings";
    let wanted =
        json!({"currency": " GBP ", "week_starts": "sunday", "temperature_unit": "fahrenheit"});
    let (status, set) = settings(&plant, &wanted).await;
    assert_eq!(status, StatusCode::OK, "{set}");
    assert_eq!(
        plant.get("/api/v1/plant/clock").await,
        json!({"time_zone": "Europe/London", "currency": "GBP", "week_starts": "sunday",
            "temperature_unit": "fahrenheit", "mass_unit": "kilogram"})
    );
    let wrong = json!({"currency": "doubloons", "week_starts": "noon", "mass_unit": "stone",
        "temperature_unit": "kelvin"});
    let (status, refused) = settings(&plant, &wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(fields(&refused), ["currency", "week_starts", "temperature_unit", "mass_unit"]);
    assert_eq!(plant.get(path).await["currency"], "GBP", "a refusal changes nothing");
    let trail = plant.get("/api/v1/audit?q=settings").await;
    let details = &trail["entries"][0]["details"];
    assert_eq!(details["before"]["week_starts"], "monday");
    assert_eq!(details["after"]["week_starts"], "sunday");
}
