//! The `ironpeel` binary: serves the application, keeps its records, or prints what is made from its
//! code.

use std::io::ErrorKind;
use std::net::SocketAddr;
use std::path::{Path, PathBuf};

use anyhow::Context;
use clap::{Parser, Subcommand, ValueEnum};
use ironpeel_server::{Config, Flags};
use ironpeel_store::{Database, Store};
use tokio::net::TcpListener;
use tracing_subscriber::EnvFilter;

#[derive(Debug, Parser)]
#[command(name = "ironpeel", version, about = "From a flour's lab sheet to a good loaf.")]
struct Arguments {
    #[command(flatten, next_help_heading = "Settings")]
    flags: Flags,
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    /// Serve the application.
    Serve,
    /// Print the settings in effect and where each is from, without secrets.
    Config,
    /// Bring the records to this version's tables, take the newest step back, or say what stands.
    Migrate { way: Way },
    /// Write all records to one new file.
    Backup { file: PathBuf },
    /// Bring the records of a backup into an empty database.
    Restore { file: PathBuf },
    /// Write all records as CSV and JSON, with a manifest, into a new folder.
    Export { folder: PathBuf },
    /// Print the version.
    Version,
    /// Print the OpenAPI document.
    Openapi,
    /// Print the list of coefficients.
    Coefficients,
}

#[derive(Debug, Clone, Copy, ValueEnum)]
enum Way {
    Up,
    /// One step; what was recorded in its tables alone is gone.
    Down,
    Status,
}

#[tokio::main]
async fn main() -> anyhow::Result<()> {
    let Arguments { flags, command } = Arguments::parse();
    match command {
        Command::Serve => serve(flags.read()?).await,
        Command::Config => {
            print!("{}", ironpeel_server::effective(&flags)?);
            Ok(())
        }
        Command::Migrate { way } => migrate(flags.read()?.database()?, way).await,
        Command::Backup { file } => backup(&flags.read()?.database()?, &file).await,
        Command::Restore { file } => restore(flags.read()?.database()?, &file).await,
        Command::Export { folder } => export(&flags.read()?.database()?, &folder).await,
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

async fn migrate(database: Database, way: Way) -> anyhow::Result<()> {
    match way {
        Way::Up => ironpeel_store::migrate(database.clone()).await?,
        Way::Down => {
            let step = ironpeel_store::migrate_down(database.clone()).await?;
            println!("taken back: {step}");
        }
        Way::Status => {}
    }
    for step in ironpeel_store::migration_steps(database).await? {
        println!("{} {}", if step.applied { "stands " } else { "pending" }, step.name);
    }
    Ok(())
}

async fn backup(database: &Database, file: &Path) -> anyhow::Result<()> {
    ironpeel_store::backup(database, file).await?;
    println!("All records are in {}.", file.display());
    Ok(())
}

async fn restore(database: Database, file: &Path) -> anyhow::Result<()> {
    ironpeel_store::restore(database, file).await?;
    println!("The records of {} are restored.", file.display());
    Ok(())
}

async fn export(database: &Database, folder: &Path) -> anyhow::Result<()> {
    let manifest = ironpeel_store::export(database, folder).await?;
    let rows: u64 = manifest.tables.iter().map(|table| table.rows).sum();
    println!("{} tables, {rows} rows in {}.", manifest.tables.len(), folder.display());
    Ok(())
}

async fn serve(config: Config) -> anyhow::Result<()> {
    start_log(config.log_json);
    let database = config.database()?;
    let listener = listen(SocketAddr::new(config.host, config.port)).await?;
    ironpeel_store::migrate(database.clone())
        .await
        .context("the records could not be brought to this version")?;
    let store = Store::new(database, config.connections())?;
    if config.demo && ironpeel_server::demo::load(&store).await? {
        tracing::info!("the demo plant was loaded");
    }
    if config.demo {
        let added = ironpeel_server::demo::load_batches(&store).await?;
        tracing::info!(added, "the demo plant's batches stand");
    }
    println!("Ironpeel is at http://{}", listener.local_addr()?);
    if let Some(code) = ironpeel_server::setup_code(&store, config.demo).await? {
        println!("Nobody has an account yet. The first administrator is made there with: {code}");
    }
    let app = ironpeel_server::app(store, config);
    ironpeel_server::serve(listener, app, Box::pin(shutdown_signal())).await?;
    println!("Ironpeel has stopped.");
    Ok(())
}

/// The place to answer at, or why there is none.
async fn listen(address: SocketAddr) -> anyhow::Result<TcpListener> {
    TcpListener::bind(address).await.map_err(|error| {
        let why = match error.kind() {
            ErrorKind::AddrInUse => "taken by another program; set IRONPEEL_PORT to a free port",
            ErrorKind::AddrNotAvailable => "no address of this machine; set IRONPEEL_HOST to one",
            ErrorKind::PermissionDenied => "not this user's to open; ports from 1024 on are",
            _ => "not to be had",
        };
        anyhow::Error::new(error).context(format!("{address} is {why}"))
    })
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
