use std::time::Duration;

use chrono::{DateTime, Utc};
use diesel_async::async_connection_wrapper::AsyncConnectionWrapper;
use diesel_async::pooled_connection::deadpool::{Object, Pool};
use diesel_async::pooled_connection::{
    AsyncDieselConnectionManager, ManagerConfig, RecyclingMethod,
};
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};
use uuid::Uuid;

use crate::error::{Result, StoreError};

const MIGRATIONS: EmbeddedMigrations = embed_migrations!();
/// How long a request waits for a connection before it is told to come again.
const PATIENCE: Duration = Duration::from_secs(3);

/// The place of a row in a list from newest to oldest.
pub type PageKey = (DateTime<Utc>, Uuid);

/// The records, behind a pool of connections.
#[derive(Clone)]
pub struct Store {
    pool: Pool<AsyncPgConnection>,
}

impl std::fmt::Debug for Store {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Store").field("pool", &self.pool.status()).finish()
    }
}

impl Store {
    /// A pool that connects when first used. Connections are checked before each use, so that a
    /// restarted database costs nobody an error.
    pub fn new(database_url: &str, connections: usize) -> Result<Self> {
        let mut config = ManagerConfig::default();
        config.recycling_method = RecyclingMethod::Verified;
        let manager = AsyncDieselConnectionManager::new_with_config(database_url, config);
        let pool = Pool::builder(manager)
            .max_size(connections)
            .wait_timeout(Some(PATIENCE))
            .create_timeout(Some(PATIENCE))
            .recycle_timeout(Some(PATIENCE))
            .runtime(deadpool::Runtime::Tokio1)
            .build()
            .map_err(|error| StoreError::Unavailable(error.into()))?;
        Ok(Self { pool })
    }

    pub(crate) async fn connection(&self) -> Result<Object<AsyncPgConnection>> {
        self.pool.get().await.map_err(|error| StoreError::Unavailable(error.into()))
    }

    /// Whether the records can be reached.
    pub async fn ping(&self) -> Result<()> {
        diesel::sql_query("SELECT 1").execute(&mut self.connection().await?).await?;
        Ok(())
    }
}

/// Brings the database to this version's tables.
pub async fn migrate(database_url: String) -> Result<()> {
    let run = move || -> std::result::Result<(), Box<dyn std::error::Error + Send + Sync>> {
        use diesel::Connection;
        let mut connection = AsyncConnectionWrapper::<AsyncPgConnection>::establish(&database_url)?;
        connection.run_pending_migrations(MIGRATIONS).map(drop)
    };
    tokio::task::spawn_blocking(run)
        .await
        .map_err(|error| StoreError::Unavailable(error.into()))?
        .map_err(StoreError::Unavailable)
}
