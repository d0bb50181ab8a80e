//! What is written, told as it is committed, whichever server wrote it.

use std::pin::pin;

use diesel_async::{AsyncPgConnection, RunQueryDsl};
use futures_util::StreamExt;

use crate::error::{Result, StoreError};
use crate::store::Store;

/// A connection that hears of every write.
pub struct Listener {
    connection: AsyncPgConnection,
}

impl std::fmt::Debug for Listener {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Listener").finish_non_exhaustive()
    }
}

impl Store {
    /// Listens from now on.
    pub async fn listener(&self) -> Result<Listener> {
        let connected = self.database.connect().await;
        let mut connection = connected.map_err(|error| StoreError::Unavailable(error.into()))?;
        diesel::sql_query("LISTEN written").execute(&mut connection).await?;
        Ok(Listener { connection })
    }
}

impl Listener {
    /// The address something was written at; none once the connection is gone.
    pub async fn next(&mut self) -> Option<String> {
        let told = pin!(self.connection.notifications_stream()).next().await?;
        told.ok().map(|told| told.payload)
    }
}
