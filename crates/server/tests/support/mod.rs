//! A real server on a free port, with the demo plant in a database of its own.

#![allow(dead_code, reason = "each test binary uses its part")]

use std::path::Path;

use chrono::Utc;
use ironpeel_server::Config;
use ironpeel_store::testing::TestDatabase;
use ironpeel_store::{ApiKey, PersonRole, Store, Word};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use sha2::{Digest, Sha256};
use tokio::net::TcpListener;
use uuid::Uuid;

pub struct Plant {
    pub database: TestDatabase,
    pub base: String,
    client: reqwest::Client,
}

/// The key machines of a role come with.
pub fn key_of(role: PersonRole) -> String {
    format!("the key of {role:?}")
}

/// A server on these records, for as long as the test runs.
pub async fn served(database: &TestDatabase, config: Config) -> String {
    // Connections of its own, as another process has.
    let store = Store::new(database.database(), 4).expect("a pool needs no server yet");
    let app = ironpeel_server::app(store, config);
    let listener = TcpListener::bind("127.0.0.1:0").await.expect("a free port");
    let base = format!("http://{}", listener.local_addr().expect("bound"));
    tokio::spawn(ironpeel_server::serve(listener, app, Box::pin(std::future::pending())));
    base
}

impl Plant {
    pub async fn open() -> Self {
        Self::open_with(None).await
    }

    pub async fn open_with(web: Option<&Path>) -> Self {
        let database = TestDatabase::new().await;
        let loaded = ironpeel_server::demo::load(&database.store).await;
        assert!(loaded.expect("the demo plant loads"), "a new database is empty");
        for role in [
            PersonRole::Technologist,
            PersonRole::Floor,
            PersonRole::Visitor,
            PersonRole::Administrator,
        ] {
            let name = if role == PersonRole::Floor { "OM" } else { "RK" };
            let (id, name) = (Uuid::new_v4(), name.to_owned());
            let (made_by, made_at) = ("a test".to_owned(), Utc::now());
            let key = ApiKey { id, name, role: Word(role), made_by, made_at, revoked_at: None };
            let hash = Sha256::digest(key_of(role));
            database.store.add_api_key(&key, &hash).await.expect("a new key");
        }
        let config = Config { demo: true, web: web.map(Into::into), ..Config::default() };
        let base = served(&database, config).await;
        Self { database, base, client: reqwest::Client::new() }
    }

    /// The address of another server on the same records.
    pub async fn beside(&self, config: Config) -> String {
        served(&self.database, config).await
    }

    /// A request of nobody's.
    pub fn request(&self, method: Method, path: &str) -> reqwest::RequestBuilder {
        self.client.request(method, format!("{}{path}", self.base))
    }

    /// What a technologist's machine sends.
    pub async fn raw(
        &self,
        method: Method,
        path: &str,
        body: impl Into<reqwest::Body>,
    ) -> reqwest::Response {
        let request = self.request(method, path).bearer_auth(key_of(PersonRole::Technologist));
        let request = request.header("content-type", "application/json").body(body);
        request.send().await.expect("the server answers")
    }

    pub async fn ask(&self, method: Method, path: &str, body: &Value) -> (StatusCode, Value) {
        let response = self.raw(method, path, body.to_string()).await;
        let status = response.status();
        (status, response.json().await.expect("JSON"))
    }

    /// What a machine of this role sends.
    pub async fn ask_as(
        &self,
        role: PersonRole,
        method: Method,
        path: &str,
        body: &Value,
    ) -> (StatusCode, Value) {
        let request = self.request(method, path).bearer_auth(key_of(role)).json(body);
        let response = request.send().await.expect("the server answers");
        let status = response.status();
        (status, response.json().await.unwrap_or_default())
    }

    pub async fn get(&self, path: &str) -> Value {
        let (status, body) = self.ask(Method::GET, path, &Value::Null).await;
        assert_eq!(status, StatusCode::OK, "{path}: {body}");
        body
    }

    pub async fn post(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        self.ask(Method::POST, path, body).await
    }

    pub async fn put(&self, path: &str, body: &Value) -> (StatusCode, Value) {
        self.ask(Method::PUT, path, body).await
    }

    /// A lot of the demo plant by its code.
    pub async fn lot(&self, code: &str) -> Value {
        let page = self.get("/api/v1/lots").await;
        let lots = page["lots"].as_array().expect("a list");
        let lot = lots.iter().find(|lot| lot["code"] == code).expect(code);
        self.get(&format!("/api/v1/lots/{}", lot["id"].as_str().expect("an id"))).await
    }

    /// A flour of the demo plant by its name.
    pub async fn flour(&self, name: &str) -> Value {
        let flours = self.get("/api/v1/flours").await;
        let flours = flours.as_array().expect("a list");
        flours.iter().find(|flour| flour["name"] == name).expect(name).clone()
    }

    /// A new lot of a flour with these rows, each a property, a value, a unit and a basis.
    pub async fn record_lot(&self, flour: &str, code: &str, rows: &[[&str; 4]]) {
        let rows: Vec<Value> = rows
            .iter()
            .map(|[property, value, unit, basis]| {
                json!({"property": property, "value": value, "unit": unit, "basis": basis})
            })
            .collect();
        let input = json!({
            "flour_id": self.flour(flour).await["id"], "code": code, "milled": "2026-11-05",
            "delivered": "2026-11-07", "number": 1, "rows": rows,
            "signed": {"reason": ""},
        });
        let path = format!("/api/v1/lots/{}/revisions/{}", new_id(), new_id());
        let (status, answer) = self.put(&path, &input).await;
        assert_eq!(status, StatusCode::OK, "{answer}");
    }

    /// The selected product: a product from a lot.
    pub async fn scenario(&self, slug: &str, code: &str, run_settings: Value) -> Value {
        let product = self.get(&format!("/api/v1/products/{slug}")).await;
        let lot = self.lot(code).await;
        let mut others = Vec::new();
        for other in product["other_flours"].as_array().expect("a list") {
            let flour = other["flour"]["id"].as_str().expect("an id");
            let page = self.get(&format!("/api/v1/lots?flour_id={flour}")).await;
            let newest = page["lots"][0]["id"].as_str().expect("a lot of it");
            let lot = self.get(&format!("/api/v1/lots/{newest}")).await;
            others.push(pin(&lot));
        }
        json!({
            "revision_refs": {
                "lot_revision_id": lot["revision"]["id"],
                "specification_revision_id": lot["certificate"]["specification"]["id"],
                "formula_revision_id": product["formula"]["revision"]["id"],
                "method_revision_id": product["method"]["revision"]["id"],
                "line_revision_id": product["line"]["revision"]["id"],
                "parameters_revision_id": product["parameters"]["id"],
                "water_correction_id": product["water_correction"]["id"],
                "other_lots": others,
            },
            "run_settings": run_settings,
        })
    }
}

/// A number of an answer.
pub fn number(value: &Value) -> f64 {
    value.as_f64().unwrap_or_else(|| panic!("a number, not {value}"))
}

/// A list of an answer.
pub fn list(value: &Value) -> &[Value] {
    value.as_array().unwrap_or_else(|| panic!("a list, not {value}"))
}

/// A lot and what is asked of it, as a hand points at them.
pub fn pin(lot: &Value) -> Value {
    json!({
        "lot_revision_id": lot["revision"]["id"],
        "specification_revision_id": lot["certificate"]["specification"]["id"],
    })
}

pub fn full_mixer() -> Value {
    json!({"amount": {"by": "mixer", "doughs": 1}})
}

pub fn new_id() -> String {
    Uuid::new_v4().to_string()
}

/// The fields a problem names.
pub fn fields(problem: &Value) -> Vec<&str> {
    let errors = problem["errors"].as_array().map(Vec::as_slice).unwrap_or_default();
    errors.iter().filter_map(|error| error["field"].as_str()).collect()
}
