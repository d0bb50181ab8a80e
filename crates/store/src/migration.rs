//! The tables' versions: up to this one, one step down, and what stands.

use diesel::RunQueryDsl;
use diesel::migration::{Migration, MigrationSource, MigrationVersion};
use diesel::pg::Pg;
use diesel_async::AsyncPgConnection;
use diesel_async::async_connection_wrapper::AsyncConnectionWrapper;
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};

use crate::database::Database;
use crate::error::{Result, StoreError};

pub(crate) const MIGRATIONS: EmbeddedMigrations = embed_migrations!();

/// What servers that start at once wait for, one after the other.
const LOCK: &str = "SELECT pg_advisory_lock(19871991)";

pub(crate) type Blocking = AsyncConnectionWrapper<AsyncPgConnection>;
type AnyError = Box<dyn std::error::Error + Send + Sync>;

/// A step of the tables, and whether it was taken.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct MigrationStep {
    /// Its day and what it brought.
    pub name: String,
    pub applied: bool,
}

/// Brings the database to this version's tables. A newer version's are refused, in words.
pub async fn migrate(database: Database) -> Result<()> {
    locked(database, |connection| {
        connection.run_pending_migrations(MIGRATIONS).map(drop)?;
        Ok(())
    })
    .await
}

/// Takes the newest step back, and says which; what was recorded in its tables alone is gone.
pub async fn migrate_down(database: Database) -> Result<String> {
    locked(database, |connection| {
        let version = connection.revert_last_migration(MIGRATIONS)?.to_string();
        let step = known()?.into_iter().find(|(one, _)| *one == version);
        Ok(step.map_or(version, |(_, name)| name))
    })
    .await
}

/// Every step of this version, the first one first.
pub async fn migration_steps(database: Database) -> Result<Vec<MigrationStep>> {
    locked(database, |connection| {
        let applied = connection.applied_migrations()?;
        let steps = known()?.into_iter().map(|(version, name)| {
            let applied = applied.iter().any(|one| one.to_string() == version);
            MigrationStep { name, applied }
        });
        Ok(steps.collect())
    })
    .await
}

/// This version's steps, each with its version and name.
fn known() -> std::result::Result<Vec<(String, String)>, AnyError> {
    let all: Vec<Box<dyn Migration<Pg>>> = MIGRATIONS.migrations()?;
    Ok(all.iter().map(|one| (one.name().version().to_string(), one.name().to_string())).collect())
}

/// Does it alone, whichever server or command else is about to. The lock ends with the connection.
pub(crate) async fn locked<T: Send + 'static>(
    database: Database,
    work: impl FnOnce(&mut Blocking) -> std::result::Result<T, AnyError> + Send + 'static,
) -> Result<T> {
    let unavailable = |error: AnyError| StoreError::Unavailable(error);
    let connection = database.connect().await.map_err(|error| unavailable(error.into()))?;
    let run = move || -> Result<T> {
        let mut connection = Blocking::from(connection);
        diesel::sql_query(LOCK)
            .execute(&mut connection)
            .map_err(|error| unavailable(error.into()))?;
        refuse_newer(&mut connection)?;
        work(&mut connection).map_err(unavailable)
    };
    tokio::task::spawn_blocking(run).await.map_err(|error| StoreError::Unavailable(error.into()))?
}

fn refuse_newer(connection: &mut Blocking) -> Result<()> {
    let applied = connection.applied_migrations().map_err(StoreError::Unavailable)?;
    let known = known().map_err(StoreError::Fault)?;
    let is_known =
        |version: &MigrationVersion<'_>| known.iter().any(|(one, _)| *one == version.to_string());
    match applied.iter().find(|version| !is_known(version)) {
        None => Ok(()),
        Some(newer) => Err(StoreError::Conflict(format!(
            "the records are of a newer version of Ironpeel, which brought {newer}: start that \
             version, or take its steps back with it first"
        ))),
    }
}
