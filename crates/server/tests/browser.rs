//! The interface against a real server with the demo plant: its components by themselves, then the
//! journeys of e2e/ in headless Chromium.

mod support;

use std::path::Path;
use std::process::Stdio;

use ironpeel_server::Config;
use ironpeel_store::testing::TestDatabase;
use support::{Plant, served};

/// Runs a script of the interface with the address of a plant of its own.
async fn holds(folder: &str, script: &[&str]) {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    let plant = Plant::open().await;
    // With its past and its present, as the start command has it.
    let batches = ironpeel_server::demo::load_batches(&plant.database.store).await;
    batches.expect("the past of the demo plant");
    let other = plant.beside(Config { demo: true, ..Config::default() }).await;
    let fresh = TestDatabase::new().await;
    let code = ironpeel_server::setup_code(&fresh.store, false).await.expect("records");
    let empty = served(&fresh, Config::default()).await;
    let run = tokio::process::Command::new("npx")
        .args(script)
        .current_dir(root.join(folder))
        .env("IRONPEEL_URL", &plant.base)
        .env("IRONPEEL_OTHER_URL", other)
        .env("IRONPEEL_EMPTY_URL", empty)
        .env("IRONPEEL_EMPTY_CODE", code.expect("nobody has an account"))
        .stdin(Stdio::null())
        .status();
    assert!(run.await.expect("Node.js is installed").success(), "{folder}: see above");
}

#[tokio::test(flavor = "multi_thread")]
async fn the_interface_holds() {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    for script in [&["scripts/setup", "tests"][..], &["scripts/build-web"]] {
        let ready = tokio::process::Command::new(root.join(script[0]))
            .args(&script[1..])
            .stdin(Stdio::null())
            .status();
        assert!(ready.await.expect("part of the project").success(), "{script:?}");
    }
    holds("web", &["vitest", "run"]).await;
    holds("e2e", &["playwright", "test"]).await;
}
