//! Stations of the floor: who is at them, and whose name is on what they record.

use crate::support::{Plant, full_mixer, list, new_id};
use chrono::{Duration, Utc};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

/// A browser with its cookie.
struct Tablet<'a> {
    plant: &'a Plant,
    cookie: String,
}

impl<'a> Tablet<'a> {
    async fn signed_in(plant: &'a Plant, email: &str) -> Self {
        let input = json!({"email": email, "password": "skerrow-demo"});
        let answer = plant.request(Method::POST, "/api/v1/session").json(&input).send().await;
        let answer = answer.expect("an answer");
        assert_eq!(answer.status(), StatusCode::OK);
        Self { plant, cookie: cookie(&answer) }
    }

    async fn answer(
        &self,
        method: Method,
        path: &str,
        body: &Value,
        headers: &[(&'static str, String)],
    ) -> reqwest::Response {
        let mut request = self.plant.request(method, path).header("cookie", &self.cookie);
        for (name, value) in headers {
            request = request.header(*name, value);
        }
        let origin = self.plant.base.clone();
        request.header("origin", origin).json(body).send().await.expect("an answer")
    }

    async fn ask(&self, method: Method, path: &str, body: &Value) -> (StatusCode, Value) {
        let answer = self.answer(method, path, body, &[]).await;
        (answer.status(), answer.json().await.unwrap_or_default())
    }

    /// Becomes a station.
    async fn station(mut self, idle_minutes: i32) -> Self {
        let input = json!({"name": "Mixer 1", "idle_minutes": idle_minutes});
        let path = format!("/api/v1/stations/{}", new_id());
        let answer = self.answer(Method::PUT, &path, &input, &[]).await;
        assert_eq!(answer.status(), StatusCode::OK);
        let set = answer.headers()["set-cookie"].to_str().expect("text");
        assert!(set.contains("Max-Age=2592000"), "thirty days: {set}");
        self.cookie = cookie(&answer);
        self
    }

    async fn person(&self, name: &str) -> Value {
        let (_, people) = self.ask(Method::GET, "/api/v1/session/people", &Value::Null).await;
        let person = list(&people).iter().find(|one| one["name"] == name);
        person.unwrap_or_else(|| panic!("{name} in {people}"))["id"].clone()
    }

    async fn enter(&self, name: &str, pin: &str) -> (StatusCode, Value) {
        let input = json!({"person_id": self.person(name).await, "pin": pin});
        self.ask(Method::PUT, "/api/v1/session/person", &input).await
    }

    /// Says where a lot lies.
    async fn record(&self, headers: &[(&'static str, String)]) -> (StatusCode, Value) {
        let lot = self.plant.lot("VR-26-1090").await;
        let lot = lot["id"].as_str().expect("an id");
        let input = json!({"place": "silo 2", "tonnes_left": 0.9, "signed": {"reason": ""}});
        let path = format!("/api/v1/lots/{lot}/stock/{}", new_id());
        let answer = self.answer(Method::PUT, &path, &input, headers).await;
        (answer.status(), answer.json().await.unwrap_or_default())
    }

    /// The newest entry of the trail.
    async fn entry(&self) -> Value {
        list(&self.plant.get("/api/v1/audit").await["entries"])[0].clone()
    }
}

fn cookie(answer: &reqwest::Response) -> String {
    let set = answer.headers()["set-cookie"].to_str().expect("text");
    set.split(';').next().expect("a cookie").to_owned()
}

fn written(by: &Value, at: chrono::DateTime<Utc>) -> [(&'static str, String); 2] {
    let by = by.as_str().expect("an id").to_owned();
    [("x-written-by", by), ("x-written-at", at.to_rfc3339())]
}

#[tokio::test]
async fn who_is_at_a_station_is_the_author_of_what_is_recorded_there() {
    let plant = Plant::open().await;
    let (status, _) = Tablet::signed_in(&plant, "floor@skerrow.example")
        .await
        .ask(Method::PUT, &format!("/api/v1/stations/{}", new_id()), &json!({"name": "x"}))
        .await;
    assert_eq!(status, StatusCode::FORBIDDEN, "the floor makes none");

    let before = Tablet::signed_in(&plant, "technologist@skerrow.example").await;
    let own = Tablet { plant: &plant, cookie: before.cookie.clone() };
    let tablet = before.station(15).await;
    let (_, nobody) = own.ask(Method::GET, "/api/v1/session", &Value::Null).await;
    assert!(nobody["person"].is_null() && nobody["station"].is_null(), "{nobody}");
    let (_, session) = tablet.ask(Method::GET, "/api/v1/session", &Value::Null).await;
    assert!(session["person"].is_null(), "{session}");
    assert_eq!(
        (&session["station"]["name"], &session["may"]),
        (&json!("Mixer 1"), &json!(["read"]))
    );
    let (status, problem) = tablet.record(&[]).await;
    assert_eq!(status, StatusCode::FORBIDDEN);
    assert!(problem["detail"].as_str().expect("words").contains("who is at this station"));

    let (status, session) = tablet.enter("Odd Marren", "2580").await;
    assert_eq!((status, &session["person"]["name"]), (StatusCode::OK, &json!("Odd Marren")));
    assert_eq!(tablet.record(&[]).await.0, StatusCode::OK);
    let entry = tablet.entry().await;
    assert_eq!((&entry["who"], &entry["verified"]), (&json!("Odd Marren"), &json!(true)));
    assert_eq!(entry["station_id"], session["station"]["id"]);

    // A technologist at it records as the floor does, and no more.
    assert_eq!(tablet.enter("Runa Kell", "4071").await.0, StatusCode::OK);
    assert_eq!(tablet.record(&[]).await.0, StatusCode::OK);
    assert_eq!(tablet.entry().await["who"], "Runa Kell");
    let path = "/api/v1/plant/settings";
    assert_eq!(tablet.ask(Method::PUT, path, &json!({})).await.0, StatusCode::FORBIDDEN);
    let (_, left) = tablet.ask(Method::DELETE, "/api/v1/session/person", &Value::Null).await;
    assert!(left["person"].is_null() && left["station"]["name"] == "Mixer 1", "{left}");
    assert_eq!(tablet.record(&[]).await.0, StatusCode::FORBIDDEN);

    // Signed out from afar, it opens nothing.
    let technologist = Tablet::signed_in(&plant, "technologist@skerrow.example").await;
    let (_, stations) = technologist.ask(Method::GET, "/api/v1/stations", &Value::Null).await;
    let id = list(&stations)[0]["id"].as_str().expect("an id").to_owned();
    let path = format!("/api/v1/stations/{id}");
    let (status, _) = technologist.ask(Method::PUT, &path, &json!({"name": "again"})).await;
    assert_eq!(status, StatusCode::CONFLICT, "it is one already");
    let (status, _) = technologist.ask(Method::DELETE, &path, &Value::Null).await;
    assert_eq!(status, StatusCode::NO_CONTENT);
    let (status, _) = tablet.ask(Method::GET, "/api/v1/lots", &Value::Null).await;
    assert_eq!(status, StatusCode::UNAUTHORIZED);
}

#[tokio::test]
async fn what_was_queued_is_its_authors_and_unverified_where_no_pin_was_shown() {
    let plant = Plant::open().await;
    let tablet = Tablet::signed_in(&plant, "technologist@skerrow.example").await.station(15).await;
    let (odd, runa) = (tablet.person("Odd Marren").await, tablet.person("Runa Kell").await);
    assert_eq!(tablet.enter("Odd Marren", "2580").await.0, StatusCode::OK);
    let while_there = Utc::now();
    assert_eq!(tablet.enter("Runa Kell", "4071").await.0, StatusCode::OK);

    for (who, at, verified, sent_by) in [
        (&odd, while_there, true, json!("Runa Kell")),
        (&odd, while_there - Duration::hours(1), false, json!("Runa Kell")),
        (&runa, Utc::now(), true, Value::Null),
    ] {
        let (status, answer) = tablet.record(&written(who, at)).await;
        assert_eq!(status, StatusCode::OK, "{answer}");
        let entry = tablet.entry().await;
        assert_eq!((&entry["person_id"], &entry["verified"]), (who, &json!(verified)), "{entry}");
        assert_eq!(entry["details"]["sent_by"], sent_by, "{entry}");
    }
    let nobody = written(&json!(new_id()), Utc::now());
    assert_eq!(tablet.record(&nobody).await.0, StatusCode::UNPROCESSABLE_ENTITY);

    // Its session over, an ordinary floor account sends the rest, in their author's name.
    let floor = Tablet::signed_in(&plant, "floor@skerrow.example").await;
    assert_eq!(floor.record(&written(&runa, while_there)).await.0, StatusCode::OK);
    let entry = floor.entry().await;
    assert_eq!((&entry["who"], &entry["verified"]), (&json!("Runa Kell"), &json!(false)));
    assert_eq!(entry["details"]["sent_by"], "Odd Marren");
    // It is no way to more than the floor's, nor into somebody's account.
    let headers = written(&runa, while_there);
    let answer = floor.answer(Method::PUT, "/api/v1/plant/settings", &json!({}), &headers).await;
    assert_eq!(answer.status(), StatusCode::FORBIDDEN);
    let runas = Tablet::signed_in(&plant, "technologist@skerrow.example").await;
    floor.answer(Method::DELETE, "/api/v1/session/all", &Value::Null, &headers).await;
    let (_, session) = runas.ask(Method::GET, "/api/v1/session", &Value::Null).await;
    assert_eq!(session["person"]["name"], "Runa Kell", "signed in still");
}

#[tokio::test]
async fn a_pin_is_set_with_the_password_and_guessing_it_has_to_wait() {
    let plant = Plant::open().await;
    let runa = Tablet::signed_in(&plant, "technologist@skerrow.example").await;
    for (current, pin, named) in [
        ("skerrow-demo", "1234", "pin"),
        ("skerrow-demo", "12", "pin"),
        ("wrong", "8153", "current"),
    ] {
        let input = json!({"current": current, "pin": pin});
        let (status, problem) = runa.ask(Method::PUT, "/api/v1/session/pin", &input).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert_eq!(problem["errors"][0]["field"], named);
    }
    let input = json!({"current": "skerrow-demo", "pin": "8153"});
    let (status, _) = runa.ask(Method::PUT, "/api/v1/session/pin", &input).await;
    assert_eq!(status, StatusCode::NO_CONTENT);
    let tablet = runa.station(15).await;
    assert_eq!(tablet.enter("Runa Kell", "8153").await.0, StatusCode::OK);
    for _ in 0..5 {
        assert_eq!(tablet.enter("Odd Marren", "0147").await.0, StatusCode::UNPROCESSABLE_ENTITY);
    }
    assert_eq!(tablet.enter("Odd Marren", "2580").await.0, StatusCode::TOO_MANY_REQUESTS);
    let (_, session) = tablet.ask(Method::GET, "/api/v1/session", &Value::Null).await;
    assert_eq!(session["person"]["name"], "Runa Kell", "nothing changed");
}

/// A batch that may be run.
async fn planned(plant: &Plant) -> String {
    let scenario = plant.scenario("deck-roll-60", "VR-26-1090", full_mixer()).await;
    let id = new_id();
    let body = json!({"slug": "deck-roll-60", "scenario": scenario, "planned_for": Utc::now()});
    let (status, batch) = plant.put(&format!("/api/v1/batches/{id}"), &body).await;
    assert_eq!(status, StatusCode::OK, "{batch}");
    format!("/api/v1/batches/{id}/events")
}

#[tokio::test]
async fn an_event_at_a_station_is_of_whom_it_says_if_they_worked_here_then() {
    let plant = Plant::open().await;
    let path = planned(&plant).await;
    let tablet = Tablet::signed_in(&plant, "technologist@skerrow.example").await.station(15).await;
    let (status, _) = tablet.enter("Odd Marren", "2580").await;
    assert!(status.is_success());
    let [odd, runa] = [tablet.person("Odd Marren").await, tablet.person("Runa Kell").await];
    let note = |person: &Value| {
        json!({"id": new_id(), "kind": "note", "happened_at": Utc::now(), "text": "so",
            "person": person})
    };
    let nobody = json!(new_id());
    let admin = Tablet::signed_in(&plant, "admin@skerrow.example").await;
    let (_, visitor) = admin.ask(Method::GET, "/api/v1/people", &Value::Null).await;
    let visitor = list(&visitor).iter().find(|one| one["name"] == "Ines Brack").cloned();
    let visitor = visitor.expect("a visitor")["id"].clone();
    let unsaid = json!({"id": new_id(), "kind": "note", "happened_at": Utc::now(), "text": "so"});
    let events = [note(&odd), note(&runa), unsaid, note(&nobody), note(&visitor)];
    let body = json!({"sent_at": Utc::now(), "events": events});
    let (status, answer) = tablet.ask(Method::POST, &path, &body).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    let outcomes: Vec<&Value> = list(&answer["events"]).iter().map(|one| &one["outcome"]).collect();
    assert_eq!(outcomes, ["stored", "stored", "stored", "refused", "refused"]);

    let kept = plant.get(&path).await;
    let by = |event: &Value| {
        let kept = list(&kept["events"]).iter().find(|one| one["id"] == event["id"]);
        let kept = kept.expect("on record");
        assert!(kept["station_id"].is_string(), "it came from the tablet");
        (kept["who"].as_str().expect("a name").to_owned(), kept["verified"] == true)
    };
    assert_eq!(by(&events[0]), ("Odd Marren".into(), true));
    assert_eq!(by(&events[1]), ("Runa Kell".into(), false), "she gave no PIN here");
    assert_eq!(by(&events[2]), ("Odd Marren".into(), true), "whoever is there");
}

#[tokio::test]
async fn elsewhere_an_event_is_of_whoever_is_signed_in_whomever_it_names() {
    let plant = Plant::open().await;
    let path = planned(&plant).await;
    let floor = Tablet::signed_in(&plant, "floor@skerrow.example").await;
    let runa = floor.person("Runa Kell").await;
    let event = json!({"id": new_id(), "kind": "note", "happened_at": Utc::now(), "text": "so",
        "person": runa});
    let (status, _) = floor.ask(Method::POST, &path, &json!({"events": [event]})).await;
    assert_eq!(status, StatusCode::OK);
    let kept = plant.get(&path).await;
    assert_eq!(
        (&kept["events"][0]["who"], &kept["events"][0]["station_id"]),
        (&json!("Odd Marren"), &Value::Null)
    );
}

#[tokio::test]
async fn at_a_station_where_nobody_is_nothing_happens() {
    let plant = Plant::open().await;
    let path = planned(&plant).await;
    let tablet = Tablet::signed_in(&plant, "technologist@skerrow.example").await.station(15).await;
    let event = json!({"id": new_id(), "kind": "start", "happened_at": Utc::now()});
    let (status, problem) = tablet.ask(Method::POST, &path, &json!({"events": [event]})).await;
    assert_eq!(status, StatusCode::FORBIDDEN, "{problem}");
    assert_eq!(plant.get(&path).await["events"], json!([]));
}

#[tokio::test]
async fn what_somebody_did_before_they_left_stays_theirs() {
    let plant = Plant::open().await;
    let path = planned(&plant).await;
    let tablet = Tablet::signed_in(&plant, "technologist@skerrow.example").await.station(15).await;
    tablet.enter("Odd Marren", "2580").await;
    let runa = tablet.person("Runa Kell").await;
    let before = Utc::now();
    let id = runa.as_str().expect("an id");
    plant.database.run(&format!("UPDATE person SET active = false WHERE id = '{id}'")).await;
    let after = Utc::now();
    let note = |at| json!({"id": new_id(), "kind": "note", "happened_at": at, "text": "so", "person": runa});
    let body = json!({"events": [note(before), note(after)]});
    let (_, answer) = tablet.ask(Method::POST, &path, &body).await;
    let outcomes: Vec<&Value> = list(&answer["events"]).iter().map(|one| &one["outcome"]).collect();
    assert_eq!(outcomes, ["stored", "refused"], "{answer}");
}
