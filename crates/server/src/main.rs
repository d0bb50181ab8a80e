//! The `ironpeel` binary: serves the application, or prints what is made from its code.

use std::net::{IpAddr, SocketAddr};
use std::path::PathBuf;

use anyhow::Context;
use clap::{Parser, Subcommand};
use ironpeel_server::Config;
use ironpeel_store::Store;
use tokio::net::TcpListener;
use tracing_subscriber::EnvFilter;

#[derive(Debug, Parser)]
#[command(name = "ironpeel", version, about = "From a flour's lab sheet to a good loaf.")]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    /// Serve the application.
    Serve(Serve),
    /// Bring the records to this version's tables, take the newest step back, or say what stands.
    Migrate(Migrate),
    /// Print the version.
    Version,
    /// Print the OpenAPI document.
    Openapi,
    /// Print the list of coefficients.
    Coefficients,
}

#[derive(Debug, clap::Args)]
struct Serve {
    #[arg(long, env = "DATABASE_URL", hide_env_values = true)]
    database_url: String,
    #[arg(long, env = "IRONPEEL_HOST", default_value = "127.0.0.1")]
    host: IpAddr,
    #[arg(long, env = "IRONPEEL_PORT", default_value_t = 7420)]
    port: u16,
    /// Folder of the built front end.
    #[arg(long)]
    web: Option<PathBuf>,
    /// Load the demo plant if the records are empty.
    #[arg(long)]
    demo: bool,
    /// Where people reach it, as `https://bread.example`: behind TLS its cookies are for TLS alone.
    #[arg(long, env = "IRONPEEL_BASE_URL")]
    base_url: Option<String>,
    /// Logs as one JSON object a line.
    #[arg(long)]
    log_json: bool,
}

#[derive(Debug, clap::Args)]
struct Migrate {
    #[arg(long, env = "DATABASE_URL", hide_env_values = true)]
    database_url: String,
    #[arg(value_enum)]
    way: Way,
}

#[derive(Debug, Clone, Copy, clap::ValueEnum)]
enum Way {
    Up,
    /// One step; what was recorded in its tables alone is gone.
    Down,
    Status,
}

#[tokio::main]
async fn main() -> anyhow::Result<()> {
    match Arguments::parse().command {
        Command::Serve(arguments) => serve(arguments).await,
        Command::Migrate(Migrate { database_url, way }) => migrate(database_url, way).await,
        Command::Version => {
            println!("ironpeel {}", env!("CARGO_PKG_VERSION"));
            Ok(())
        }
        Command::Openapi => {
            println!("{}", ironpeel_server::document().to_pretty_json()?);
            Ok(())
        }
        Command::Coefficients => {
            print!("{}", ironpeel_server::coefficient_list());
            Ok(())
        }
    }
}

async fn migrate(database_url: String, way: Way) -> anyhow::Result<()> {
    match way {
        Way::Up => ironpeel_store::migrate(database_url.clone()).await?,
        Way::Down => {
            let step = ironpeel_store::migrate_down(database_url.clone()).await?;
            println!("taken back: {step}");
        }
        Way::Status => {}
    }
    for step in ironpeel_store::migration_steps(database_url).await? {
        println!("{} {}", if step.applied { "stands " } else { "pending" }, step.name);
    }
    Ok(())
}

async fn serve(arguments: Serve) -> anyhow::Result<()> {
    start_log(arguments.log_json);
    let address = SocketAddr::new(arguments.host, arguments.port);
    let listener = TcpListener::bind(address).await.with_context(|| {
        format!("{address} is taken by another program; set IRONPEEL_PORT to a free port")
    })?;
    ironpeel_store::migrate(arguments.database_url.clone())
        .await
        .context("the records could not be brought to this version")?;
    // Two connections a core keep PostgreSQL busy without queueing inside it.
    let cores = std::thread::available_parallelism().map_or(2, usize::from);
    let store = Store::new(&arguments.database_url, (2 * cores).max(4))?;
    if arguments.demo && ironpeel_server::demo::load(&store).await? {
        tracing::info!("the demo plant was loaded");
    }
    let address = listener.local_addr()?;
    println!("Ironpeel is at http://{address}");
    if let Some(code) = ironpeel_server::setup_code(&store, arguments.demo).await? {
        println!("Nobody has an account yet. The first administrator is made there with: {code}");
    }
    let Serve { demo, base_url, .. } = arguments;
    let config = Config { demo, base_url, ..Config::default() };
    let app = ironpeel_server::app(store, arguments.web.as_deref(), config);
    ironpeel_server::serve(listener, app, Box::pin(shutdown_signal())).await?;
    println!("Ironpeel has stopped.");
    Ok(())
}

fn start_log(json: bool) {
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("info"));
    let log = tracing_subscriber::fmt().with_env_filter(filter).with_writer(std::io::stderr);
    if json { log.json().init() } else { log.init() }
}

/// Ctrl-C, or the signal a service manager sends.
async fn shutdown_signal() {
    let interrupt = tokio::signal::ctrl_c();
    let mut terminate = tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate())
        .expect("the runtime has signals enabled");
    tokio::select! {
        _ = interrupt => {}
        _ = terminate.recv() => {}
    }
}
