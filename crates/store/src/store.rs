use std::time::Duration;

use chrono::{DateTime, Utc};
use diesel::{ExpressionMethods, OptionalExtension, QueryDsl};
use diesel_async::pooled_connection::deadpool::{Object, Pool};
use diesel_async::pooled_connection::{
    AsyncDieselConnectionManager, ManagerConfig, RecyclingMethod,
};
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use futures_util::FutureExt;
use uuid::Uuid;

use crate::author::{AuditedAct, Author};
use crate::database::Database;
use crate::error::{Result, StoreError};
use crate::schema::written;

/// How long a request waits for a connection before it is told to come again.
const POOL_TIMEOUT: Duration = Duration::from_secs(3);

/// The place of a row in a list from newest to oldest.
pub type PageKey = (DateTime<Utc>, Uuid);

/// The records, behind a pool of connections.
#[derive(Clone)]
pub struct Store {
    pub(crate) database: Database,
    pool: Pool<AsyncPgConnection>,
    /// The client's write that is being done, if it is one.
    once: Option<ClientWrite>,
    /// What else is being done, and by whom.
    audited: Option<(Author, AuditedAct)>,
}

/// A client's write: the id it made for it, its content, whose it is and what it does.
#[derive(Debug, Clone)]
pub struct ClientWrite {
    pub id: Uuid,
    pub body_hash: Vec<u8>,
    pub author: Author,
    pub act: AuditedAct,
}

/// Why a write did not come about.
pub(crate) enum WriteError {
    Database(diesel::result::Error),
    ClosedHours(StoreError),
}

impl From<diesel::result::Error> for WriteError {
    fn from(error: diesel::result::Error) -> Self {
        Self::Database(error)
    }
}

impl From<StoreError> for WriteError {
    fn from(error: StoreError) -> Self {
        Self::ClosedHours(error)
    }
}

/// How long the database may take over one statement, ms: nobody waits for it longer.
const STATEMENT_MS: u32 = 14_000;
/// How often a write is tried again that got in another's way.
const TRIES: u32 = 3;

/// Rows past a place of a list, as one comparison of rows: an index finds it at any depth.
macro_rules! past {
    ($columns:literal, $way:literal, $key:expr) => {{
        let (at, id): crate::store::PageKey = $key;
        diesel::dsl::sql::<diesel::sql_types::Bool>(concat!("(", $columns, ") ", $way, " ("))
            .bind::<diesel::sql_types::Timestamptz, _>(at)
            .sql(", ")
            .bind::<diesel::sql_types::Uuid, _>(id)
            .sql(")")
    }};
}
pub(crate) use past;

impl std::fmt::Debug for Store {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Store").field("pool", &self.pool.status()).finish_non_exhaustive()
    }
}

impl Store {
    /// A pool that connects when first used. Connections are checked before each use, so that a
    /// restarted database costs nobody an error.
    pub fn new(database: Database, connections: usize) -> Result<Self> {
        let mut config = ManagerConfig::default();
        config.recycling_method = RecyclingMethod::Verified;
        let limited = database.clone().limited(STATEMENT_MS);
        config.custom_setup = Box::new(move |_| {
            let database = limited.clone();
            async move { database.connect().await }.boxed()
        });
        // Its address is the database's to know.
        let manager = AsyncDieselConnectionManager::new_with_config("", config);
        let pool = Pool::builder(manager)
            .max_size(connections)
            .wait_timeout(Some(POOL_TIMEOUT))
            .create_timeout(Some(POOL_TIMEOUT))
            .recycle_timeout(Some(POOL_TIMEOUT))
            .runtime(deadpool::Runtime::Tokio1)
            .build()
            .map_err(|error| StoreError::Unavailable(error.into()))?;
        Ok(Self { database, pool, once: None, audited: None })
    }

    pub(crate) async fn connection(&self) -> Result<Object<AsyncPgConnection>> {
        self.pool.get().await.map_err(|error| StoreError::Unavailable(error.into()))
    }

    /// The records for one write of a client: sent again it is answered with what is stored, and
    /// with other content under the same id it is refused.
    #[must_use]
    pub fn once(&self, write: ClientWrite) -> Self {
        Self { once: Some(write), ..self.clone() }
    }

    /// The records for one act of somebody, whose entry in the audit trail is made with what it
    /// changes, both or neither.
    #[must_use]
    pub fn audited(&self, author: &Author, act: AuditedAct) -> Self {
        Self { audited: Some((author.clone(), act)), ..self.clone() }
    }

    pub(crate) const fn entry(&self) -> Option<&(Author, AuditedAct)> {
        self.audited.as_ref()
    }

    /// Whether this write was stored before, with the same content.
    pub async fn was_written(&self) -> Result<bool> {
        let Some(once) = &self.once else { return Ok(false) };
        let hash: Option<Vec<u8>> = written::table
            .find(once.id)
            .select(written::body_hash)
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        Ok(hash.is_some_and(|hash| hash == once.body_hash))
    }

    pub(crate) const fn client_write(&self) -> Option<&ClientWrite> {
        self.once.as_ref()
    }

    /// Connections that are idle, in use, and waited for.
    pub fn connections(&self) -> [usize; 3] {
        let status = self.pool.status();
        [status.available, status.size - status.available, status.waiting]
    }

    /// Whether the records can be reached.
    pub async fn ping(&self) -> Result<()> {
        diesel::sql_query("SELECT 1").execute(&mut self.connection().await?).await?;
        Ok(())
    }
}

/// Does all or nothing, and with it appends what it is to the audit trail.
macro_rules! act {
    ($store:expr, |$connection:ident| $work:block) => {{
        use diesel_async::AsyncConnection as _;
        let mut connection = $store.connection().await?;
        connection
            .transaction::<_, crate::error::StoreError, _>(async |$connection| {
                let done = $work;
                if let Some((author, act)) = $store.entry() {
                    crate::author::append($connection, author, act).await?;
                }
                Ok(done)
            })
            .await
    }};
}
pub(crate) use act;

/// Writes in one transaction, all or nothing: the block says whether it added anything, and the last
/// puts a broken rule of the tables into words. A client's write that was stored before adds nothing.
macro_rules! write_once {
    ($store:expr, |$connection:ident| $work:block, $message:expr) => {{
        let mut connection = $store.connection().await?;
        let once = $store.client_write();
        let mut tries = 0;
        loop {
            tries += 1;
            let done = connection
                .transaction::<(), crate::store::WriteError, _>(async |$connection| {
                    if let Some(once) = once
                        && !crate::store::is_new($connection, once).await?
                    {
                        return Ok(());
                    }
                    let added: bool = $work;
                    crate::store::added_if_new(once, added)
                })
                .await;
            match done {
                Ok(()) => break Ok(()),
                Err(crate::store::WriteError::ClosedHours(error)) => break Err(error),
                Err(crate::store::WriteError::Database(error)) => {
                    if !crate::store::worth_again(&error, tries) {
                        break Err($message(error));
                    }
                }
            }
        }
    }};
}
pub(crate) use write_once;

/// Adds rows of one table, those already there left as they are.
macro_rules! add_once {
    ($store:expr, $table:ident, $rows:expr, $message:expr) => {
        crate::store::write_once!(
            $store,
            |connection| {
                let added = diesel::insert_into($table::table)
                    .values($rows)
                    .on_conflict($table::id)
                    .do_nothing()
                    .execute(connection)
                    .await?;
                added > 0
            },
            $message
        )
    };
}
pub(crate) use add_once;

/// A client's write that found something under its id is refused.
pub(crate) fn added_if_new(
    once: Option<&ClientWrite>,
    added: bool,
) -> std::result::Result<(), WriteError> {
    if once.is_some() && !added {
        return Err(StoreError::Conflict(TAKEN.into()).into());
    }
    Ok(())
}

const TAKEN: &str = "something else stands under this id already; nothing was changed";

/// Whether a client's write is new; false where the same was stored before.
pub(crate) async fn is_new(
    connection: &mut AsyncPgConnection,
    once: &ClientWrite,
) -> std::result::Result<bool, WriteError> {
    let added = diesel::insert_into(written::table)
        .values((
            written::id.eq(once.id),
            written::body_hash.eq(&once.body_hash),
            written::written_by.eq(&once.author.name),
            written::person_id.eq(once.author.person_id),
            written::api_key_id.eq(once.author.api_key_id),
            written::station_id.eq(once.author.station_id),
            written::verified.eq(once.author.verified),
        ))
        .on_conflict(written::id)
        .do_nothing()
        .execute(connection)
        .await?;
    if added == 1 {
        crate::author::append(connection, &once.author, &once.act).await?;
        return Ok(true);
    }
    let (hash, by, at): (Vec<u8>, String, DateTime<Utc>) = written::table
        .find(once.id)
        .select((written::body_hash, written::written_by, written::written_at))
        .first(connection)
        .await?;
    if hash == once.body_hash {
        return Ok(false);
    }
    let message = format!(
        "{TAKEN}: {by} recorded it on {}. Look at what is stored, and send yours under an id of its \
         own",
        at.format("%-d %b %Y, %H:%M UTC")
    );
    Err(StoreError::Conflict(message).into())
}

/// Whether two writes met, and the same again may well go through.
pub(crate) fn worth_again(error: &diesel::result::Error, tries: u32) -> bool {
    use diesel::result::{DatabaseErrorKind, Error};
    tries < TRIES
        && match error {
            Error::DatabaseError(DatabaseErrorKind::SerializationFailure, _) => true,
            Error::DatabaseError(_, information) => {
                information.message().contains("deadlock detected")
            }
            _ => false,
        }
}
