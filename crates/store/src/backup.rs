//! Everything in one file and back, by PostgreSQL's own tools.

use std::path::Path;

use diesel::sql_types::BigInt;
use diesel::{QueryableByName, sql_query};
use diesel_async::RunQueryDsl;
use tokio::process::Command;

use crate::database::Database;
use crate::error::{Result, StoreError};
use crate::migration::migrate;

/// Writes everything to a new file, as it stands at one moment. It is whole or not there.
pub async fn backup(database: &Database, file: &Path) -> Result<()> {
    refuse_taken(file)?;
    let unfinished = file.with_added_extension("unfinished");
    let archive = format!("--file={}", unfinished.display());
    let shape = ["--format=custom", "--no-owner", "--no-privileges"];
    let written = run(database, "pg_dump", &[&shape[..], &[&archive]].concat()).await;
    let moved = match written {
        Ok(()) => std::fs::rename(&unfinished, file).map_err(|error| at(file, &error)),
        Err(error) => Err(error),
    };
    if moved.is_err() {
        // Nothing is there where the tool could not begin.
        let _ = std::fs::remove_file(&unfinished);
    }
    moved
}

/// Brings the records of a backup into a database without tables, all or nothing, and then to this
/// version's.
pub async fn restore(database: Database, file: &Path) -> Result<()> {
    std::fs::File::open(file).map_err(|error| at(file, &error))?;
    refuse_used(&database).await?;
    let name = database.name();
    let into = format!("--dbname={name}");
    let shape = ["--exit-on-error", "--single-transaction", "--no-owner", "--no-privileges"];
    let archive = file.display().to_string();
    run(&database, "pg_restore", &[&shape[..], &[&into, &archive]].concat()).await?;
    migrate(database).await
}

/// Refuses to write where something is already.
pub(crate) fn refuse_taken(path: &Path) -> Result<()> {
    if path.exists() {
        let detail = format!("{} is there already; nothing was written", path.display());
        return Err(StoreError::Conflict(detail));
    }
    Ok(())
}

/// What a file says that cannot be read or written.
pub(crate) fn at(path: &Path, error: &std::io::Error) -> StoreError {
    StoreError::Conflict(format!("{}: {error}", path.display()))
}

#[derive(QueryableByName)]
struct Count {
    #[diesel(sql_type = BigInt)]
    tables: i64,
}

async fn refuse_used(database: &Database) -> Result<()> {
    const TABLES: &str =
        "SELECT count(*) AS tables FROM information_schema.tables WHERE table_schema = 'public'";
    let connected = database.connect().await;
    let mut connection = connected.map_err(|error| StoreError::Unavailable(error.into()))?;
    let Count { tables } = sql_query(TABLES).get_result(&mut connection).await?;
    if tables > 0 {
        let detail = "the database holds records already; a backup is restored into an empty one";
        return Err(StoreError::Conflict(detail.into()));
    }
    Ok(())
}

async fn run(database: &Database, tool: &str, arguments: &[&str]) -> Result<()> {
    let done =
        Command::new(tool).args(arguments).envs(database.variables()).output().await.map_err(
            |error| StoreError::Conflict(format!("PostgreSQL's {tool} is needed: {error}")),
        )?;
    if done.status.success() {
        return Ok(());
    }
    let said = String::from_utf8_lossy(&done.stderr);
    Err(StoreError::Conflict(said.trim().to_owned()))
}
