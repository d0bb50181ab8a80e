//! The journeys of e2e/, driven in headless Chromium against a real server with the demo plant.

mod support;

use std::path::Path;
use std::process::Stdio;

use support::Plant;

#[tokio::test(flavor = "multi_thread")]
async fn the_journeys_hold() {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    for script in [&["scripts/setup", "tests"][..], &["scripts/build-web"]] {
        let ready = tokio::process::Command::new(root.join(script[0]))
            .args(&script[1..])
            .stdin(Stdio::null())
            .status();
        assert!(ready.await.expect("part of the project").success(), "{script:?}");
    }
    let plant = Plant::open_with(Some(&root.join("web/dist"))).await;
    let journeys = tokio::process::Command::new("npx")
        .args(["playwright", "test"])
        .current_dir(root.join("e2e"))
        .env("IRONPEEL_URL", &plant.base)
        .stdin(Stdio::null())
        .status();
    assert!(journeys.await.expect("Node.js is installed").success(), "a journey failed, see above");
}
