//! The front end as it is served, and the server's own start and stop.

use std::time::Duration;

use crate::support::Plant;
use reqwest::{Method, StatusCode};
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::{TcpListener, TcpStream};

#[tokio::test]
async fn files_are_packed_cached_by_name_and_under_a_strict_policy() {
    let dist = std::env::temp_dir().join(format!("ironpeel-dist-{}", crate::support::new_id()));
    std::fs::create_dir_all(dist.join("assets")).expect("a folder");
    std::fs::write(dist.join("index.html"), "<!doctype html>").expect("written");
    std::fs::write(dist.join("assets/app-1a2b.js"), "plain").expect("written");
    std::fs::write(dist.join("assets/app-1a2b.js.br"), "packed").expect("written");
    let plant = Plant::open_with(Some(&dist)).await;

    for path in ["/", "/water?product=deck-roll-60", "/batches/anything"] {
        let page = plant.raw(Method::GET, path, "").await;
        assert_eq!(page.status(), 200, "{path}");
        let headers = page.headers();
        assert_eq!(headers["cache-control"], "no-cache");
        let policy = headers["content-security-policy"].to_str().expect("text");
        assert!(policy.contains("default-src 'none'") && !policy.contains("unsafe"));
        assert_eq!(headers["x-content-type-options"], "nosniff");
        assert_eq!(page.text().await.expect("text"), "<!doctype html>");
    }
    let url = format!("{}/assets/app-1a2b.js", plant.base);
    let packed = reqwest::Client::new().get(url).header("accept-encoding", "br");
    let packed = packed.send().await.expect("an answer");
    assert_eq!(packed.headers()["content-encoding"], "br");
    assert!(packed.headers()["cache-control"].to_str().expect("text").contains("immutable"));
    assert_eq!(packed.text().await.expect("text"), "packed");
    let gone = plant.raw(Method::GET, "/assets/old-9z.js", "").await;
    assert_eq!(gone.status(), StatusCode::NOT_FOUND);
    assert!(!gone.headers()["cache-control"].to_str().expect("text").contains("immutable"));
    std::fs::remove_dir_all(dist).expect("removed");
}

#[tokio::test]
async fn no_answer_of_the_api_is_kept_or_guessed_at() {
    let plant = Plant::open().await;
    for (method, path, status) in [
        (Method::GET, "/api/v1/lots", StatusCode::OK),
        (Method::GET, "/api/v1/lots/export?format=json", StatusCode::OK),
        (Method::GET, "/api/v1/lots/nonsense", StatusCode::NOT_FOUND),
        (Method::GET, "/api/v1/nowhere", StatusCode::NOT_FOUND),
        (Method::DELETE, "/api/v1/lots", StatusCode::METHOD_NOT_ALLOWED),
        (Method::POST, "/api/v1/chain", StatusCode::BAD_REQUEST),
        (Method::GET, "/api/openapi.json", StatusCode::OK),
    ] {
        let answer = plant.raw(method, path, "").await;
        assert_eq!(answer.status(), status, "{path}");
        assert_eq!(answer.headers()["cache-control"], "no-store", "{path}");
        assert_eq!(answer.headers()["x-content-type-options"], "nosniff", "{path}");
    }
}

#[tokio::test]
async fn what_never_ends_does_not_keep_it_from_stopping() {
    let plant = Plant::open().await;
    let app =
        ironpeel_server::app(plant.database.store.clone(), ironpeel_server::Config::default());
    let listener = TcpListener::bind("127.0.0.1:0").await.expect("a free port");
    let mut stream =
        TcpStream::connect(listener.local_addr().expect("bound")).await.expect("connected");
    let (stop, told) = tokio::sync::oneshot::channel::<()>();
    let stopped = Box::pin(async { drop(told.await) });
    let server = tokio::spawn(ironpeel_server::serve(listener, app, stopped));
    // The head of a request whose body is promised and never comes, once it is being answered.
    let head = "POST /api/v1/calc/starter HTTP/1.1\r\nHost: x\r\nContent-Length: 9\r\nExpect: 100-continue\r\n\r\n";
    stream.write_all(head.as_bytes()).await.expect("sent");
    let mut going_on = [0; 12];
    stream.read_exact(&mut going_on).await.expect("asked to go on");
    assert_eq!(&going_on, b"HTTP/1.1 100");
    // From here on waiting is skipped: the clock moves on as soon as nothing else can.
    tokio::time::pause();
    let told_at = tokio::time::Instant::now();
    stop.send(()).expect("it runs");
    server.await.expect("no panic").expect("it ends by itself");
    assert_eq!(told_at.elapsed().as_secs(), 10, "the grace it gives");
}

#[tokio::test]
async fn a_second_start_loads_the_demo_plant_no_second_time() {
    let plant = Plant::open().await;
    let again = ironpeel_server::demo::load(&plant.database.store).await;
    assert!(!again.expect("asked"));
}

#[tokio::test]
async fn told_to_stop_it_finishes_and_says_when_its_port_is_taken() {
    let plant = Plant::open().await;
    let start = |port: u16| {
        tokio::process::Command::new(env!("CARGO_BIN_EXE_ironpeel"))
            .args(["serve", "--port", &port.to_string()])
            .env("DATABASE_URL", &plant.database.url)
            .stdout(std::process::Stdio::piped())
            .stderr(std::process::Stdio::piped())
            .spawn()
            .expect("the binary starts")
    };
    let port: u16 =
        plant.base.rsplit(':').next().and_then(|port| port.parse().ok()).expect("a port");
    let refused = start(port).wait_with_output().await.expect("it ends");
    assert!(!refused.status.success());
    assert!(String::from_utf8_lossy(&refused.stderr).contains("taken by another program"));

    let free = std::net::TcpListener::bind("127.0.0.1:0").expect("a free port");
    let port = free.local_addr().expect("bound").port();
    drop(free);
    let child = start(port);
    let url = format!("http://127.0.0.1:{port}/readyz");
    let mut tries = tokio::time::interval(Duration::from_millis(50));
    for _ in 0..200 {
        tries.tick().await;
        if reqwest::get(&url).await.is_ok_and(|answer| answer.status().is_success()) {
            break;
        }
    }
    let id = child.id().expect("it runs").to_string();
    let told = std::process::Command::new("kill").args(["-INT", &id]).status().expect("kill");
    assert!(told.success());
    let stopped = child.wait_with_output().await.expect("it ends");
    assert!(stopped.status.success());
    assert!(String::from_utf8_lossy(&stopped.stdout).contains("Ironpeel has stopped"));
}
