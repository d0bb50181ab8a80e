//! Databases for tests: one throwaway cluster a process, one database a test.

use std::io::{BufRead, BufReader};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::sync::atomic::{AtomicUsize, Ordering};

use diesel::connection::{Instrumentation, InstrumentationEvent, set_default_instrumentation};
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use diesel_migrations::MigrationHarness;
use tokio::sync::OnceCell;
use uuid::Uuid;

use crate::migration::{Blocking, MIGRATIONS, locked};
use crate::{Database, Store, migrate};

/// Enough for what one test does at once.
const CONNECTIONS: usize = 4;

static SERVER: OnceCell<Server> = OnceCell::const_new();

/// The server tests run on, with a migrated template to copy.
struct Server {
    /// Address of the server without a database's name.
    base: String,
    template: String,
    /// Stops the cluster when this process ends and its end of the pipe closes.
    _cluster: Option<Child>,
}

/// A database of a test's own, migrated and empty.
#[derive(Debug)]
pub struct TestDatabase {
    pub url: String,
    pub store: Store,
}

impl TestDatabase {
    /// A copy of the template; `DATABASE_URL` names the server if it is set.
    pub async fn new() -> Self {
        let server = SERVER.get_or_init(Server::start).await;
        Self::of(server, &server.template).await
    }

    /// Without any table.
    pub async fn empty() -> Self {
        Self::of(SERVER.get_or_init(Server::start).await, "template0").await
    }

    async fn of(server: &Server, template: &str) -> Self {
        let name = format!("test_{}", Uuid::now_v7().simple());
        server.run(&format!("CREATE DATABASE {name} TEMPLATE {template}")).await;
        let url = format!("{}/{name}", server.base);
        let store = Store::new(at(&url), CONNECTIONS).expect("a pool needs no server yet");
        Self { url, store }
    }

    /// Where it is.
    pub fn database(&self) -> Database {
        at(&self.url)
    }

    /// Takes one step of the tables up, and no more.
    pub async fn step_up(&self) {
        let step = |connection: &mut Blocking| connection.run_next_migration(MIGRATIONS).map(drop);
        locked(self.database(), step).await.expect("a step up");
    }

    /// Runs a statement on this database.
    pub async fn run(&self, sql: &str) {
        run(&self.url, sql).await;
    }

    /// What the database says to a statement it refuses.
    pub async fn refuses(&self, sql: &str) -> String {
        let connection = AsyncPgConnection::establish(&self.url).await;
        let mut connection = connection.expect("the test server takes connections");
        let done = diesel::sql_query(sql).execute(&mut connection).await;
        done.expect_err(sql).to_string()
    }

    /// Cuts every connection to this database, as a restart would.
    pub async fn cut_connections(&self) {
        let server = SERVER.get().expect("this database is on it");
        let name = self.url.rsplit('/').next().unwrap_or_default();
        server
            .run(&format!(
                "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '{name}'"
            ))
            .await;
    }
}

/// The database of an address a test made.
fn at(url: &str) -> Database {
    Database::new(url, None).expect("an address")
}

static ASKED: AtomicUsize = AtomicUsize::new(0);

/// Counts from now on what every new connection of this process asks the database.
pub fn count_queries() {
    let counter = || -> Option<Box<dyn Instrumentation>> {
        Some(Box::new(|event: InstrumentationEvent<'_>| {
            if matches!(event, InstrumentationEvent::StartQuery { .. }) {
                ASKED.fetch_add(1, Ordering::SeqCst);
            }
        }))
    };
    set_default_instrumentation(counter).expect("it is set once");
}

/// How much was asked so far.
pub fn queries_asked() -> usize {
    AtomicUsize::load(&ASKED, Ordering::SeqCst)
}

impl Server {
    async fn start() -> Self {
        let given = std::env::var("DATABASE_URL").map(|url| (url, None));
        let (url, cluster) = given.unwrap_or_else(|_| start_cluster());
        let base = url.rsplit_once('/').expect("an address ends in a database's name").0.to_owned();
        let template = format!("template_{}", Uuid::now_v7().simple());
        let server = Self { base, template, _cluster: cluster };
        server.run(&format!("CREATE DATABASE {}", server.template)).await;
        let template = format!("{}/{}", server.base, server.template);
        migrate(at(&template)).await.expect("the migrations run on an empty database");
        server
    }

    async fn run(&self, sql: &str) {
        run(&format!("{}/postgres", self.base), sql).await;
    }
}

async fn run(url: &str, sql: &str) {
    let mut connection =
        AsyncPgConnection::establish(url).await.expect("the test server takes connections");
    diesel::sql_query(sql).execute(&mut connection).await.expect(sql);
}

fn start_cluster() -> (String, Option<Child>) {
    let directory = std::env::temp_dir().join(format!("ironpeel-{}", Uuid::now_v7().simple()));
    let (url, cluster) = cluster(&directory, &[]);
    (url, Some(cluster))
}

/// A throwaway server that can be asked over TLS: its address, its certificate, and what stops it
/// when it is dropped.
pub fn cluster_over_tls() -> (String, PathBuf, Child) {
    let directory = std::env::temp_dir().join(format!("ironpeel-{}", Uuid::now_v7().simple()));
    let (url, cluster) = cluster(&directory, &["tls"]);
    (url, directory.join("server.crt"), cluster)
}

fn cluster(directory: &Path, more: &[&str]) -> (String, Child) {
    let script = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../scripts/postgres");
    let mut cluster = Command::new(script)
        .arg(directory)
        .arg("throwaway")
        .args(more)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .spawn()
        .expect("scripts/postgres is part of the project");
    let mut url = String::new();
    let stdout = cluster.stdout.take().expect("it was asked for");
    BufReader::new(stdout).read_line(&mut url).expect("scripts/postgres says its address");
    assert!(!url.trim().is_empty(), "PostgreSQL did not start; scripts/setup installs it");
    (url.trim().to_owned(), cluster)
}
