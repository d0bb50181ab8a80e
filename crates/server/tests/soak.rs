//! Faults survived: the server killed, the database stopped, connections cut, all while entries are
//! sent. Nothing acknowledged is lost, nothing is doubled, and nobody has to help.
//!
//! A few faults here; `make soak` sends from `IRONPEEL_SOAK_STATIONS` at once, and goes on for as long
//! as `IRONPEEL_SOAK_SECONDS` says and until `IRONPEEL_SOAK_ENTRIES` were acknowledged.

mod support;

use std::collections::HashSet;
use std::io::{BufRead, BufReader};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};
use std::sync::{Arc, Mutex};
use std::time::{Duration, Instant};

use chrono::Utc;
use diesel::sql_types::Uuid as SqlUuid;
use diesel::{QueryableByName, sql_query};
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use support::{list, new_id};
use tokio::io::AsyncWriteExt;
use tokio::net::TcpStream;
use uuid::Uuid;

/// Without a person, everything is back within this.
const RECOVERED: Duration = Duration::from_secs(10);

/// A number the environment states, or the usual one.
fn stated(name: &str, usual: usize) -> usize {
    let text = std::env::var(format!("IRONPEEL_SOAK_{name}")).ok();
    text.map_or(usual, |text| text.parse().expect("a whole number"))
}

/// A database that is not spared: what it acknowledges is on the disk.
struct Database {
    folder: PathBuf,
    url: String,
    script: Child,
}

impl Database {
    fn start() -> Self {
        let folder = std::env::temp_dir().join(format!("ironpeel-soak-{}", new_id()));
        let script = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../scripts/postgres");
        let mut script = Command::new(script)
            .arg(&folder)
            .stdin(Stdio::piped())
            .stdout(Stdio::piped())
            .spawn()
            .expect("part of the project");
        let mut url = String::new();
        let told = script.stdout.take().expect("asked for");
        BufReader::new(told).read_line(&mut url).expect("an address");
        Self { folder, url: url.trim().to_owned(), script }
    }

    /// Stops it as a power cut would, and starts it again.
    fn cut_power(&self) {
        let data = self.folder.join("data");
        let version = std::fs::read_to_string(data.join("PG_VERSION")).expect("a version");
        let tool = format!("/usr/lib/postgresql/{}/bin/pg_ctl", version.trim());
        let data = format!("--pgdata={}", data.display());
        let log = format!("--log={}", self.folder.join("data/server.log").display());
        let arguments = [&*tool, &data, &log, "--silent", "--mode=immediate", "restart"];
        // Root's cluster is the user postgres's.
        let as_root = Command::new("id").arg("-u").output().expect("a user").stdout == b"0\n";
        let lead: &[&str] = if as_root { &["runuser", "-u", "postgres", "--"] } else { &[] };
        let all = [lead, &arguments].concat();
        let done = Command::new(all[0]).args(&all[1..]).current_dir("/").status();
        assert!(done.expect("PostgreSQL is installed").success());
    }
}

impl Drop for Database {
    fn drop(&mut self) {
        drop(self.script.stdin.take());
        let _ = self.script.wait();
        let _ = std::fs::remove_dir_all(&self.folder);
    }
}

/// A server, killed when it is no longer wanted.
struct Server(Child);

impl Server {
    fn start(url: &str, port: u16) -> Self {
        let server = Command::new(env!("CARGO_BIN_EXE_ironpeel"))
            .args(["serve", "--demo", "--port", &port.to_string()])
            .env("DATABASE_URL", url)
            .env("RUST_LOG", "off")
            .stdout(Stdio::null())
            .spawn();
        Self(server.expect("it was built with the tests"))
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        self.0.kill().expect("it runs");
        self.0.wait().expect("it ends");
    }
}

/// What the senders know.
struct Sent {
    base: String,
    cookie: String,
    lot: String,
    /// Batches of the floor that run.
    batches: Vec<String>,
    /// Somebody in whose name entries of tablets are sent.
    author: String,
    acknowledged: Mutex<HashSet<Uuid>>,
    again: AtomicUsize,
    /// When something was last acknowledged.
    at: Mutex<Instant>,
    stop: AtomicBool,
}

impl Sent {
    /// Sends one entry until it is acknowledged, whatever happens meanwhile.
    async fn one(&self, client: &reqwest::Client) {
        let id = Uuid::new_v4();
        // One in two is an event of a batch: those of one batch meet at its lock.
        let batch = &self.batches[(id.as_u128() % self.batches.len() as u128) as usize];
        let is_event = (id.as_u128() >> 64).is_multiple_of(2);
        let (method, path, body) = if is_event {
            let event =
                json!({"id": id, "kind": "note", "happened_at": Utc::now(), "text": "so it is"});
            let path = format!("/api/v1/batches/{batch}/events");
            (Method::POST, path, json!({"events": [event]}))
        } else {
            let body = json!({"place": "silo 1", "tonnes_left": 0.5, "signed": {"reason": ""}});
            (Method::PUT, format!("/api/v1/lots/{}/stock/{id}", self.lot), body)
        };
        if id.as_u128().is_multiple_of(5) {
            self.cut_short(&path).await;
        }
        loop {
            let url = format!("{}{path}", self.base);
            let request = client.request(method.clone(), url).json(&body);
            let request = request.header("cookie", &self.cookie).header("origin", &self.base);
            // A tablet whose clock is an hour early, or late.
            let off = if id.as_u128().is_multiple_of(2) { 1 } else { -1 };
            let written = Utc::now() + chrono::TimeDelta::hours(off);
            let request = request
                .header("x-written-by", &self.author)
                .header("x-written-at", written.to_rfc3339());
            match request.send().await {
                Ok(answer) if answer.status() == StatusCode::OK => break,
                Ok(answer) => {
                    let status = answer.status();
                    let told = answer.text().await.unwrap_or_default();
                    assert!(status == StatusCode::SERVICE_UNAVAILABLE, "{id}: {status} {told}");
                }
                Err(error) => assert!(!error.is_builder(), "{error}"),
            }
            self.again.fetch_add(1, Ordering::SeqCst);
            tokio::time::sleep(Duration::from_millis(100)).await;
        }
        self.acknowledged.lock().expect("no panic").insert(id);
        *self.at.lock().expect("no panic") = Instant::now();
    }

    /// The head of it and half of its body, and no more.
    async fn cut_short(&self, path: &str) {
        let host = self.base.trim_start_matches("http://");
        let Ok(mut stream) = TcpStream::connect(host).await else { return };
        let head = format!(
            "PUT {path} HTTP/1.1\r\nHost: {host}\r\nCookie: {}\r\nOrigin: {}\r\n\
             Content-Type: application/json\r\nContent-Length: 60\r\n\r\n{{\"place\": \"si",
            self.cookie, self.base
        );
        // It may be gone already.
        let _ = stream.write_all(head.as_bytes()).await;
    }
}

#[derive(QueryableByName)]
struct Stored {
    #[diesel(sql_type = SqlUuid)]
    id: Uuid,
}

async fn ask(client: &reqwest::Client, url: String, cookie: &str) -> Option<Value> {
    let answer = client.get(url).header("cookie", cookie).send().await.ok()?;
    answer.error_for_status().ok()?.json().await.ok()
}

/// Free once this is over.
fn free_port() -> u16 {
    let held = std::net::TcpListener::bind("127.0.0.1:0").expect("a free port");
    held.local_addr().expect("bound").port()
}

/// Signs in as soon as there is somebody to answer.
async fn signed_in(client: &reqwest::Client, base: &str) -> String {
    let input = json!({"email": "floor@skerrow.example", "password": "skerrow-demo"});
    // The demo plant's past is computed once.
    for _ in 0..3000 {
        if let Ok(answer) = client.post(format!("{base}/api/v1/session")).json(&input).send().await
            && let Some(set) = answer.headers().get("set-cookie")
        {
            let set = set.to_str().expect("text");
            return set.split(';').next().expect("a cookie").to_owned();
        }
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
    panic!("nobody answers");
}

/// Somebody in whose name a tablet sends.
async fn technologist(client: &reqwest::Client, base: &str, cookie: &str) -> String {
    let people = ask(client, format!("{base}/api/v1/session/people"), cookie).await;
    let people = people.expect("people of the floor");
    let author = list(&people).iter().find(|one| one["name"] == "Runa Kell");
    author.expect("a technologist")["id"].as_str().expect("an id").to_owned()
}

/// Entries that are not when they came, or not in the author's name unverified.
async fn misplaced(connection: &mut AsyncPgConnection) -> usize {
    let misplaced = "SELECT record_id AS id FROM audit_entry WHERE action LIKE 'PUT %'
        AND (at NOT BETWEEN now() - interval '30 minutes' AND now()
            OR who <> 'Runa Kell' OR verified)";
    let misplaced: Vec<Stored> = sql_query(misplaced).load(connection).await.expect("rows");
    misplaced.len()
}

/// Batches of the floor that run.
async fn running(client: &reqwest::Client, base: &str, cookie: &str) -> Vec<String> {
    let path = format!("{base}/api/v1/batches?state=running");
    let batches = ask(client, path, cookie).await.expect("batches");
    let ids = list(&batches["batches"]).iter().filter_map(|one| one["id"].as_str());
    ids.map(str::to_owned).collect()
}

/// Batches that come to something else than their events: both are written, or neither.
async fn apart(connection: &mut AsyncPgConnection) -> usize {
    let apart = "SELECT batch_id AS id FROM batch_state WHERE events <>
        (SELECT count(*) FROM batch_event WHERE batch_event.batch_id = batch_state.batch_id)";
    let apart: Vec<Stored> = sql_query(apart).load(connection).await.expect("rows");
    apart.len()
}

/// Every batch that was written to folds to the same on two servers that know nothing of each other.
async fn two_servers_agree(url: &str, client: &reqwest::Client, sent: &Sent) {
    let ports = [free_port(), free_port()];
    let servers = ports.map(|port| Server::start(url, port));
    let mut records = Vec::new();
    for port in ports {
        let base = format!("http://127.0.0.1:{port}");
        let cookie = signed_in(client, &base).await;
        let mut found = Vec::new();
        for batch in &sent.batches {
            let run = ask(client, format!("{base}/api/v1/batches/{batch}/run"), &cookie).await;
            found.push(run.expect("the batch")["record"].clone());
        }
        records.push(found);
    }
    drop(servers);
    assert!(!records[0].is_empty() && records[0] == records[1], "they fold to something else");
}

/// Senders that go on until they are told to stop.
fn sending(sent: &Arc<Sent>, client: &reqwest::Client) -> Vec<tokio::task::JoinHandle<()>> {
    (0..stated("STATIONS", 4))
        .map(|_| {
            let (sent, client) = (sent.clone(), client.clone());
            tokio::spawn(async move {
                while !AtomicBool::load(&sent.stop, Ordering::SeqCst) {
                    sent.one(&client).await;
                }
            })
        })
        .collect()
}

#[tokio::test(flavor = "multi_thread")]
async fn nothing_acknowledged_is_lost_or_doubled_whatever_fails() {
    let lasts = Duration::from_secs(stated("SECONDS", 12) as u64);
    let entries = stated("ENTRIES", 0);
    let database = Database::start();
    let port = free_port();
    let base = format!("http://127.0.0.1:{port}");
    let mut server = Server::start(&database.url, port);
    let client = reqwest::Client::builder().timeout(Duration::from_secs(20)).build();
    let client = client.expect("a client");
    let cookie = signed_in(&client, &base).await;
    let lots = ask(&client, format!("{base}/api/v1/lots"), &cookie).await.expect("lots");
    let author = technologist(&client, &base, &cookie).await;
    let batches = running(&client, &base, &cookie).await;
    let sent = Arc::new(Sent {
        base,
        cookie,
        author,
        batches,
        lot: list(&lots["lots"])[0]["id"].as_str().expect("an id").to_owned(),
        acknowledged: Mutex::default(),
        again: AtomicUsize::new(0),
        at: Mutex::new(Instant::now()),
        stop: AtomicBool::new(false),
    });
    let senders = sending(&sent, &client);

    let begun = Instant::now();
    let (mut killed, mut cut, mut longest) = (0, 0, Duration::ZERO);
    let enough = || sent.acknowledged.lock().expect("no panic").len() >= entries;
    while begun.elapsed() < lasts || !enough() {
        let at_random = (Uuid::new_v4().as_u128() % 1000) as u64;
        tokio::time::sleep(Duration::from_millis(300 + at_random)).await;
        // In turn, so that a short run has both.
        if killed <= cut {
            drop(server);
            server = Server::start(&database.url, port);
            killed += 1;
        } else {
            database.cut_power();
            cut += 1;
        }
        let failed = Instant::now();
        while *sent.at.lock().expect("no panic") < failed {
            assert!(failed.elapsed() < RECOVERED, "nothing is acknowledged any more");
            tokio::time::sleep(Duration::from_millis(20)).await;
        }
        longest = longest.max(failed.elapsed());
    }
    sent.stop.store(true, Ordering::SeqCst);
    for sender in senders {
        sender.await.expect("every entry was taken in the end");
    }
    drop(server);
    two_servers_agree(&database.url, &client, &sent).await;

    let mut connection =
        AsyncPgConnection::establish(&database.url).await.expect("the database is back");
    let written = "SELECT written.id FROM written JOIN lot_stock ON lot_stock.id = written.id
        UNION ALL SELECT id FROM batch_event WHERE kind = 'note'";
    let found: Vec<Stored> = sql_query(written).load(&mut connection).await.expect("rows");
    let found: HashSet<Uuid> = found.iter().map(|one| one.id).collect();
    let twice = "SELECT record_id AS id FROM audit_entry WHERE action LIKE 'PUT %'
        GROUP BY record_id HAVING count(*) > 1";
    let doubled: Vec<Stored> = sql_query(twice).load(&mut connection).await.expect("rows");
    assert_eq!(misplaced(&mut connection).await, 0, "the clock of a tablet moves nothing");
    assert_eq!(apart(&mut connection).await, 0, "batches and their events");
    let acknowledged = sent.acknowledged.lock().expect("no panic");
    let (lost, doubled) = (acknowledged.difference(&found).count(), doubled.len());
    assert_eq!(found.len(), acknowledged.len(), "what was stored was acknowledged in the end");
    let (count, again) = (acknowledged.len(), AtomicUsize::load(&sent.again, Ordering::SeqCst));
    println!(
        "{count} acknowledged, {again} sent again, {lost} lost, {doubled} doubled; the server \
         killed {killed} times, the database cut {cut} times; back within {longest:.1?} at most"
    );
    assert!(killed > 0 && cut > 0 && count > 50, "there was something to lose");
    assert_eq!((lost, doubled), (0, 0));
}
