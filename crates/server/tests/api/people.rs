//! Who may do what on the real server, how they sign in, and what is kept of it.

use crate::support::{Plant, fields, list, new_id};
use chrono::Utc;
use diesel::sql_query;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_server::Config;
use ironpeel_store::PersonRole;
use reqwest::{Method, RequestBuilder, StatusCode};
use serde_json::{Value, json};

const PASSWORD: &str = "skerrow-demo";
const SESSION: &str = "/api/v1/session";

/// Somebody's browser.
struct Browser<'a> {
    plant: &'a Plant,
    base: &'a str,
    cookie: String,
}

impl Browser<'_> {
    /// What a page of ours sends.
    fn asks(&self, method: Method, path: &str) -> RequestBuilder {
        let request = reqwest::Client::new().request(method, format!("{}{path}", self.base));
        request.header("cookie", &self.cookie).header("origin", self.base)
    }

    async fn status(&self, method: Method, path: &str, body: &Value) -> StatusCode {
        self.asks(method, path).json(body).send().await.expect("an answer").status()
    }

    async fn who(&self) -> Value {
        let asked = self.asks(Method::GET, SESSION).send().await.expect("an answer");
        asked.json::<Value>().await.expect("JSON")["person"].clone()
    }
}

async fn tries(plant: &Plant, email: &str, password: &str) -> reqwest::Response {
    let input = json!({"email": email, "password": password});
    plant.request(Method::POST, SESSION).json(&input).send().await.expect("an answer")
}

async fn signed_in<'a>(plant: &'a Plant, email: &str, password: &str) -> Browser<'a> {
    let answer = tries(plant, email, password).await;
    assert_eq!(answer.status(), StatusCode::OK);
    let set = answer.headers()["set-cookie"].to_str().expect("text").to_owned();
    for wanted in ["HttpOnly", "SameSite=Lax", "Path=/"] {
        assert!(set.contains(wanted), "{set}");
    }
    let cookie = set.split(';').next().expect("a cookie").to_owned();
    Browser { plant, base: &plant.base, cookie }
}

/// The operations of the document with what each takes.
fn operations() -> Vec<(Method, String, Vec<String>)> {
    let document = serde_json::to_value(ironpeel_server::document()).expect("JSON");
    let mut all = Vec::new();
    for (path, item) in document["paths"].as_object().expect("paths") {
        for (method, operation) in item.as_object().expect("operations") {
            let Ok(method) = method.to_uppercase().parse::<Method>() else { continue };
            let stated = operation["security"].as_array();
            let stated = stated.unwrap_or_else(|| panic!("{method} {path} does not say who may"));
            let words = stated.iter().filter_map(|one| one["session"].as_array()).flatten();
            let words = words.map(|word| word.as_str().expect("a word").to_owned()).collect();
            all.push((method, path.clone(), words));
        }
    }
    all
}

#[tokio::test]
async fn every_route_is_for_whom_the_document_says_and_for_nobody_else() {
    const OPEN: [&str; 6] =
        ["/healthz", "/readyz", "/metrics", SESSION, "/api/v1/about", "/api/v1/setup"];
    let plant = Plant::open().await;
    let may = |role: PersonRole| match role {
        PersonRole::Technologist => vec!["read", "record", "change"],
        PersonRole::Floor => vec!["read", "record"],
        PersonRole::Visitor => vec!["read"],
        PersonRole::Administrator => vec!["read", "administer"],
    };
    let roles = [
        PersonRole::Technologist,
        PersonRole::Floor,
        PersonRole::Visitor,
        PersonRole::Administrator,
    ];
    for (method, path, words) in operations() {
        let open = OPEN.contains(&&*path) || path.starts_with("/api/v1/calc/");
        assert_eq!(words.is_empty(), open, "{method} {path}");
        // Nothing of it is looked at before who asks: not its ids, its body or what that is.
        let parts = path.split('/').map(|part| if part.starts_with('{') { "x" } else { part });
        let address = parts.collect::<Vec<_>>().join("/");
        let nobody = plant.request(method.clone(), &address).body("{");
        let status = nobody.send().await.expect("an answer").status();
        assert_eq!(status == StatusCode::UNAUTHORIZED, !open, "{method} {path}: {status}");
        if open {
            continue;
        }
        for role in roles {
            let asked = plant.request(method.clone(), &address).body("{");
            let asked = asked.bearer_auth(crate::support::key_of(role));
            let status = asked.send().await.expect("an answer").status();
            let theirs = may(role).iter().any(|word| words.iter().any(|one| one == word));
            assert_eq!(
                status != StatusCode::FORBIDDEN,
                theirs,
                "{role:?} {method} {path}: {status}"
            );
            assert!(status.as_u16() < 500, "{role:?} {method} {path}: {status}");
        }
    }
    for path in ["/api/v1/nowhere", "/api/v2/lots", "/api/v1/levers"] {
        let status = plant.request(Method::GET, path).send().await.expect("an answer").status();
        assert_eq!(status, StatusCode::UNAUTHORIZED, "{path}");
    }
}

#[tokio::test]
async fn somebody_signs_in_is_who_they_are_and_signs_out() {
    let plant = Plant::open().await;
    let here = signed_in(&plant, " Technologist@Skerrow.example", PASSWORD).await;
    let there = signed_in(&plant, "technologist@skerrow.example", PASSWORD).await;
    assert_eq!(here.who().await["initials"], "RK");
    assert_eq!(here.status(Method::DELETE, SESSION, &Value::Null).await, StatusCode::NO_CONTENT);
    assert_eq!(here.who().await, Value::Null);
    assert_eq!(
        here.status(Method::GET, "/api/v1/lots", &Value::Null).await,
        StatusCode::UNAUTHORIZED
    );
    assert_eq!(there.who().await["initials"], "RK", "elsewhere it goes on");

    let other = signed_in(&plant, "technologist@skerrow.example", PASSWORD).await;
    let path = "/api/v1/session/password";
    for (change, wrong) in [
        (json!({"current": "something", "password": "long enough for it"}), "current"),
        (json!({"current": PASSWORD, "password": "short"}), "password"),
    ] {
        let answer = there.asks(Method::PUT, path).json(&change).send().await.expect("an answer");
        assert_eq!(answer.status(), StatusCode::UNPROCESSABLE_ENTITY);
        assert_eq!(fields(&answer.json().await.expect("JSON")), [wrong]);
    }
    let change = json!({"current": PASSWORD, "password": "a loaf a day keeps"});
    assert_eq!(there.status(Method::PUT, path, &change).await, StatusCode::NO_CONTENT);
    assert_eq!(there.who().await["initials"], "RK");
    assert_eq!(other.who().await, Value::Null, "signed out everywhere else");
    let old = tries(&plant, "technologist@skerrow.example", PASSWORD).await;
    assert_eq!(old.status(), StatusCode::UNAUTHORIZED);

    let again = signed_in(&plant, "technologist@skerrow.example", "a loaf a day keeps").await;
    let all = "/api/v1/session/all";
    assert_eq!(again.status(Method::DELETE, all, &Value::Null).await, StatusCode::NO_CONTENT);
    assert_eq!(there.who().await, Value::Null);
}

#[tokio::test]
async fn guessing_has_to_wait_whether_or_not_there_is_such_an_account() {
    let plant = Plant::open().await;
    for email in ["floor@skerrow.example", "nobody@skerrow.example"] {
        let mut answers = Vec::new();
        for _ in 0..6 {
            let answer = tries(&plant, email, "a guess of many").await;
            let waits = answer.headers().get("retry-after").cloned();
            let status = answer.status();
            let detail = answer.json::<Value>().await.expect("JSON")["detail"].clone();
            answers.push((status, waits.is_some(), detail));
        }
        for (status, waits, detail) in &answers[..5] {
            assert_eq!((*status, *waits), (StatusCode::UNAUTHORIZED, false), "{email}");
            assert_eq!(detail, &answers[0].2);
        }
        assert_eq!((answers[5].0, answers[5].1), (StatusCode::TOO_MANY_REQUESTS, true), "{email}");
    }
    let right = tries(&plant, "floor@skerrow.example", PASSWORD).await;
    assert_eq!(right.status(), StatusCode::TOO_MANY_REQUESTS, "the right one waits as well");
    signed_in(&plant, "visitor@skerrow.example", PASSWORD).await;
}

#[tokio::test]
async fn a_session_writes_from_our_pages_alone_and_only_what_is_documented() {
    let plant = Plant::open().await;
    let technologist = signed_in(&plant, "technologist@skerrow.example", PASSWORD).await;
    let lot = plant.lot("VR-26-1090").await;
    let path = format!("/api/v1/lots/{}/stock/{}", lot["id"].as_str().expect("an id"), new_id());
    let body = json!({"place": "silo 2", "tonnes_left": 3, "signed": {}}).to_string();
    let send = async |origin: Option<&str>, kind: &str| {
        let mut request = technologist.plant.request(Method::PUT, &path);
        request = request.header("cookie", &technologist.cookie).header("content-type", kind);
        if let Some(origin) = origin {
            request = request.header("origin", origin);
        }
        request.body(body.clone()).send().await.expect("an answer").status()
    };
    let ours = Some(&*plant.base);
    assert_eq!(send(None, "application/json").await, StatusCode::FORBIDDEN);
    let other = Some("https://elsewhere.example");
    assert_eq!(send(other, "application/json").await, StatusCode::FORBIDDEN);
    assert_eq!(send(ours, "text/plain").await, StatusCode::UNSUPPORTED_MEDIA_TYPE);
    assert_eq!(send(ours, "").await, StatusCode::UNSUPPORTED_MEDIA_TYPE);
    assert_eq!(send(ours, "application/json; charset=utf-8").await, StatusCode::OK);
    let own = technologist.asks(Method::PUT, "/api/v1/session/password").body("{}");
    let status = own.header("content-type", "text/plain").send().await.expect("an answer").status();
    assert_eq!(status, StatusCode::UNSUPPORTED_MEDIA_TYPE);
}

#[tokio::test]
async fn people_are_made_changed_and_let_go() {
    let plant = Plant::open().await;
    let admin = signed_in(&plant, "admin@skerrow.example", PASSWORD).await;
    let path = format!("/api/v1/people/{}", new_id());
    let wrong = json!({"name": " ", "initials": "toolong", "email": "nowhere", "roles": []});
    let answer = admin.asks(Method::PUT, &path).json(&wrong).send().await.expect("an answer");
    let problem: Value = answer.json().await.expect("JSON");
    assert_eq!(fields(&problem), ["name", "initials", "email", "roles"]);
    let mut input = json!({"name": "Lin Osk", "initials": "LO", "email": "Lin@Skerrow.example",
        "roles": ["floor", "visitor"], "active": true});
    assert_eq!(admin.status(Method::PUT, &path, &input).await, StatusCode::OK);
    let twin = json!({"name": "Lin Two", "initials": "LT", "email": "lin@skerrow.example",
        "roles": ["visitor"], "active": true});
    let another = format!("/api/v1/people/{}", new_id());
    assert_eq!(admin.status(Method::PUT, &another, &twin).await, StatusCode::CONFLICT);
    let none_yet = tries(&plant, "lin@skerrow.example", "").await;
    assert_eq!(none_yet.status(), StatusCode::UNAUTHORIZED, "no password was set");
    let given = json!({"password": "bread and butter"});
    let set = format!("{path}/password");
    assert_eq!(admin.status(Method::PUT, &set, &given).await, StatusCode::NO_CONTENT);
    let lin = signed_in(&plant, "lin@skerrow.example", "bread and butter").await;
    assert_eq!(
        lin.status(Method::GET, "/api/v1/people", &Value::Null).await,
        StatusCode::FORBIDDEN
    );

    input["active"] = json!(false);
    assert_eq!(admin.status(Method::PUT, &path, &input).await, StatusCode::OK);
    assert_eq!(lin.who().await, Value::Null, "an account that is closed is signed out");
    let closed = tries(&plant, "lin@skerrow.example", "bread and butter").await;
    assert_eq!(closed.status(), StatusCode::UNAUTHORIZED);
    let me = format!("/api/v1/people/{}", admin.who().await["id"].as_str().expect("an id"));
    let less = json!({"name": "Hale Tiden", "initials": "HT", "email": "admin@skerrow.example",
        "roles": ["visitor"], "active": true});
    assert_eq!(admin.status(Method::PUT, &me, &less).await, StatusCode::UNPROCESSABLE_ENTITY);
}

#[tokio::test]
async fn a_key_is_shown_once_and_opens_what_its_role_does_until_it_is_revoked() {
    let plant = Plant::open().await;
    let admin = signed_in(&plant, "admin@skerrow.example", PASSWORD).await;
    let path = format!("/api/v1/keys/{}", new_id());
    let wanted = json!({"name": "laboratory", "role": "visitor"});
    let made = admin.asks(Method::PUT, &path).json(&wanted).send().await.expect("an answer");
    let made: Value = made.json().await.expect("JSON");
    let secret = made["secret"].as_str().expect("shown");
    let comes = async |method: Method, path: &str| {
        let asked = plant.request(method, path).bearer_auth(secret);
        asked.send().await.expect("an answer").status()
    };
    assert_eq!(comes(Method::GET, "/api/v1/lots").await, StatusCode::OK);
    assert_eq!(comes(Method::PUT, "/api/v1/products/x").await, StatusCode::FORBIDDEN);
    let listed = admin.asks(Method::GET, "/api/v1/keys").send().await.expect("an answer");
    let listed = listed.text().await.expect("text");
    assert!(listed.contains("laboratory") && !listed.contains(secret));
    assert_eq!(admin.status(Method::PUT, &path, &wanted).await, StatusCode::CONFLICT);
    assert_eq!(admin.status(Method::DELETE, &path, &Value::Null).await, StatusCode::NO_CONTENT);
    assert_eq!(comes(Method::GET, "/api/v1/lots").await, StatusCode::UNAUTHORIZED);
}

#[tokio::test]
async fn the_trail_holds_each_write_once_and_nothing_changes_it() {
    let plant = Plant::open().await;
    let technologist = signed_in(&plant, "technologist@skerrow.example", PASSWORD).await;
    let product = plant.get("/api/v1/products/causeway-stick").await;
    let (formula, revision) = (product["formula"]["id"].as_str().expect("an id"), new_id());
    let path = format!("/api/v1/formulas/{formula}/revisions/{revision}");
    let body = json!({"number": 2, "lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 2}],
        "piece_kg": 0.3, "signed": {"reason": "less salt"}});
    for _ in 0..2 {
        let answer = technologist.asks(Method::PUT, &path).json(&body).send().await;
        let answer = answer.expect("an answer");
        assert_eq!(answer.status(), StatusCode::OK, "{}", answer.text().await.expect("text"));
    }
    let trail = plant.get(&format!("/api/v1/audit?q={revision}")).await;
    let [entry] = list(&trail["entries"]) else { panic!("one entry: {trail}") };
    assert_eq!((&entry["who"], &entry["record_id"]), (&json!("Runa Kell"), &json!(revision)));
    assert_eq!((&entry["revision_before"], &entry["revision_after"]), (&json!(1), &json!(2)));
    assert_eq!(entry["action"], "PUT /api/v1/formulas/{formula_id}/revisions/{revision_id}");
    assert_eq!(entry["address"], "127.0.0.1");
    let signed = plant.get("/api/v1/audit?q=sign-in").await;
    assert_eq!(list(&signed["entries"]).len(), 1);
    let csv = plant.raw(Method::GET, "/api/v1/audit/csv", "").await.text().await.expect("text");
    let rows: Vec<&str> = csv.lines().collect();
    assert!(rows[1].contains("Runa Kell") && rows[1].contains(&revision), "{csv}");
    assert_eq!(rows.len(), 3, "a head, the formula and the sign-in: {csv}");
    let beyond = json!({"number": i32::MIN, "lines": [], "signed": {"reason": "x"}});
    let status = technologist.status(Method::PUT, &path, &beyond).await;
    assert!(status.is_client_error(), "{status}");
    let (status, _) =
        plant.ask_as(PersonRole::Visitor, Method::GET, "/api/v1/audit", &Value::Null).await;
    assert_eq!(status, StatusCode::FORBIDDEN);
    for change in [
        "UPDATE audit_entry SET who = 'nobody'",
        "DELETE FROM audit_entry",
        "TRUNCATE audit_entry",
        "UPDATE formula_revision SET reason = ''",
        "DELETE FROM lot_revision",
        "TRUNCATE batch CASCADE",
    ] {
        let refused = plant.database.refuses(change).await;
        assert!(refused.contains("append-only"), "{change}: {refused}");
    }
}

#[tokio::test]
async fn outside_demo_mode_its_accounts_open_nothing_and_the_first_administrator_is_made_by_code() {
    let plant = Plant::open().await;
    let in_demo = signed_in(&plant, "technologist@skerrow.example", PASSWORD).await;
    let base = plant.beside(Config::default()).await;
    let client = reqwest::Client::new();
    let about: Value = client
        .get(format!("{base}/api/v1/about"))
        .send()
        .await
        .expect("an answer")
        .json()
        .await
        .expect("JSON");
    assert_eq!((&about["set_up"], &about["demo"]), (&json!(true), &Value::Null));
    let sign_in = json!({"email": "admin@skerrow.example", "password": PASSWORD});
    let refused = client.post(format!("{base}{SESSION}")).json(&sign_in).send().await;
    assert_eq!(refused.expect("an answer").status(), StatusCode::UNAUTHORIZED);
    let carried = Browser { plant: &plant, base: &base, cookie: in_demo.cookie.clone() };
    assert_eq!(carried.who().await, Value::Null, "nor does a session begun in it");

    let store = &plant.database.store;
    let first = ironpeel_server::setup_code(store, false).await.expect("records").expect("a code");
    let code = ironpeel_server::setup_code(store, false).await.expect("records").expect("a code");
    ironpeel_server::setup_code(store, false).await.expect("records").expect("another's");
    let set_up = async |code: &str| {
        let input = json!({"code": code, "name": "Moa Lind", "initials": "ML",
            "email": "moa@bread.example", "password": "first in the house"});
        let asked = client.post(format!("{base}/api/v1/setup")).json(&input).send().await;
        asked.expect("an answer")
    };
    let wrong = set_up("0000-0000-0000-0000").await;
    assert_eq!(wrong.status(), StatusCode::UNPROCESSABLE_ENTITY);
    // Each server that starts prints one, and each of the last day holds.
    let old = "UPDATE setup_code SET made_at = made_at - interval '25 hours'
        WHERE made_at = (SELECT min(made_at) FROM setup_code)";
    plant.database.run(old).await;
    assert_eq!(set_up(&first).await.status(), StatusCode::UNPROCESSABLE_ENTITY, "a day ago");
    let made = set_up(&code.to_uppercase()).await;
    assert_eq!(made.status(), StatusCode::OK);
    let made: Value = made.json().await.expect("JSON");
    assert_eq!(made["may"], json!(["read", "record", "change", "administer"]));
    assert_eq!(set_up(&code).await.status(), StatusCode::CONFLICT, "closed once used");
    assert!(ironpeel_server::setup_code(store, false).await.expect("records").is_none());
}

#[tokio::test]
async fn behind_tls_the_cookie_is_for_tls_alone_and_a_session_ends_by_itself() {
    let plant = Plant::open().await;
    let base_url = Some("https://bread.example".to_owned());
    let config = Config { demo: true, base_url, session_hours: 1, ..Config::default() };
    let base = plant.beside(config).await;
    let client = reqwest::Client::new();
    let sign_in = json!({"email": "admin@skerrow.example", "password": PASSWORD});
    let answer = client.post(format!("{base}{SESSION}")).json(&sign_in).send().await;
    let answer = answer.expect("an answer");
    let set = answer.headers()["set-cookie"].to_str().expect("text").to_owned();
    assert!(set.starts_with("__Host-ironpeel=") && set.contains("Secure"), "{set}");
    let cookie = set.split(';').next().expect("a cookie").to_owned();
    let status = async |origin: &str| {
        let asked = client.delete(format!("{base}{SESSION}")).header("cookie", &cookie);
        asked.header("origin", origin).send().await.expect("an answer").status()
    };
    assert_eq!(status(&base).await, StatusCode::FORBIDDEN, "people come by its own address");
    let browser = Browser { plant: &plant, base: &base, cookie: cookie.clone() };
    assert_eq!(browser.who().await["initials"], "HT");
    let past = Utc::now() - chrono::Duration::minutes(1);
    plant.database.run(&format!("UPDATE session SET expires_at = '{past}'")).await;
    assert_eq!(browser.who().await, Value::Null);
    assert_eq!(status("https://bread.example").await, StatusCode::NO_CONTENT);
}

#[tokio::test]
async fn people_are_changed_by_who_gave_their_password_a_short_while_ago() {
    let plant = Plant::open().await;
    let admin = signed_in(&plant, "admin@skerrow.example", PASSWORD).await;
    let path = format!("/api/v1/people/{}", new_id());
    let person = json!({"name": "Moa Lind", "initials": "ML", "email": "moa@bread.example",
        "roles": ["visitor"], "active": true});
    let long_ago = "UPDATE session SET confirmed_at = now() - interval '16 minutes'";
    let mut connection =
        AsyncPgConnection::establish(&plant.database.url).await.expect("the records");
    sql_query(long_ago).execute(&mut connection).await.expect("a session");
    let refused = admin.asks(Method::PUT, &path).json(&person).send().await.expect("an answer");
    assert_eq!(refused.status(), StatusCode::FORBIDDEN);
    assert_eq!(fields(&refused.json().await.expect("JSON")), ["current"]);
    assert_eq!(admin.status(Method::GET, "/api/v1/people", &Value::Null).await, StatusCode::OK);

    let again = "/api/v1/session/confirmation";
    let wrong = admin.status(Method::POST, again, &json!({"current": "something"})).await;
    assert_eq!(wrong, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(admin.status(Method::PUT, &path, &person).await, StatusCode::FORBIDDEN);
    let right = admin.status(Method::POST, again, &json!({"current": PASSWORD})).await;
    assert_eq!(right, StatusCode::NO_CONTENT);
    assert_eq!(admin.status(Method::PUT, &path, &person).await, StatusCode::OK);
}

/// What an authenticator with this secret shows, so many steps of 30 s from now.
fn code(secret: &str, steps: i64) -> String {
    let secret = totp_rs::Secret::try_from_base32(secret).expect("base 32");
    let codes = totp_rs::Builder::new().with_secret(secret).build().expect("a secret of 20 bytes");
    let at = Utc::now().timestamp() + 30 * steps;
    codes.generate(at.unsigned_abs()).to_string()
}

#[tokio::test]
async fn with_an_authenticator_signing_in_takes_its_code_once() {
    let plant = Plant::open().await;
    let email = "technologist@skerrow.example";
    let here = signed_in(&plant, email, PASSWORD).await;
    let path = "/api/v1/session/second-factor";
    let offer = here.asks(Method::POST, path).send().await.expect("an answer");
    let offer: Value = offer.json().await.expect("JSON");
    let secret = offer["secret"].as_str().expect("a secret").to_owned();
    let address = offer["address"].as_str().expect("an address");
    assert!(address.starts_with("otpauth://totp/") && address.contains(&secret), "{address}");
    assert!(offer["picture"].as_str().is_some_and(|picture| picture.contains("<svg")));

    let shown = |code: String| json!({"secret": secret, "code": code});
    for wrong in ["", "12345", &code(&secret, -9)] {
        let refused = here.status(Method::PUT, path, &shown(wrong.into())).await;
        assert_eq!(refused, StatusCode::UNPROCESSABLE_ENTITY, "{wrong}");
    }
    assert_eq!(tries(&plant, email, PASSWORD).await.status(), StatusCode::OK, "not set yet");
    let set = here.status(Method::PUT, path, &shown(code(&secret, 0))).await;
    assert_eq!(set, StatusCode::NO_CONTENT);

    let with = async |code: String| {
        let input = json!({"email": email, "password": PASSWORD, "code": code});
        plant.request(Method::POST, SESSION).json(&input).send().await.expect("an answer")
    };
    let wanted = tries(&plant, email, PASSWORD).await;
    assert_eq!(wanted.status(), StatusCode::UNAUTHORIZED);
    assert_eq!(fields(&wanted.json().await.expect("JSON")), ["code"]);
    // Coming without a code is the first half of signing in, and no guess, however often.
    for _ in 0..6 {
        let half = tries(&plant, email, PASSWORD).await;
        assert_eq!(half.status(), StatusCode::UNAUTHORIZED);
    }
    let once = code(&secret, 0);
    assert_eq!(with(once.clone()).await.status(), StatusCode::OK);
    assert_eq!(with(once).await.status(), StatusCode::UNAUTHORIZED, "it was taken");
    assert_eq!(with(code(&secret, 1)).await.status(), StatusCode::OK, "the next one");

    let admin = signed_in(&plant, "admin@skerrow.example", PASSWORD).await;
    let people = admin.asks(Method::GET, "/api/v1/people").send().await.expect("an answer");
    let people: Value = people.json().await.expect("JSON");
    let them = list(&people).iter().find(|one| one["email"] == email).expect("somebody");
    assert_eq!(them["has_second_factor"], true);
    let id = them["id"].as_str().expect("an id");
    let forget = format!("/api/v1/people/{id}/second-factor");
    assert_eq!(admin.status(Method::DELETE, &forget, &Value::Null).await, StatusCode::NO_CONTENT);
    assert_eq!(here.who().await, Value::Null, "their sessions ended");
    assert_eq!(tries(&plant, email, PASSWORD).await.status(), StatusCode::OK);
}
