//! The keys machines come with.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use serde::Serialize;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::person_role::PersonRole;
use crate::schema::api_key;
use crate::store::{Store, act};
use crate::word::Word;

/// A key as it is listed: what it is itself was shown once.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Selectable, Serialize)]
#[diesel(table_name = api_key)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ApiKey {
    pub id: Uuid,
    pub name: String,
    #[cfg_attr(feature = "openapi", schema(value_type = PersonRole))]
    pub role: Word<PersonRole>,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
    pub revoked_at: Option<DateTime<Utc>>,
}

impl Store {
    /// Every key, newest first.
    pub async fn api_keys(&self) -> Result<Vec<ApiKey>> {
        Ok(api_key::table
            .order((api_key::made_at.desc(), api_key::id))
            .select(ApiKey::as_select())
            .load(&mut self.connection().await?)
            .await?)
    }

    /// Keeps a new key by its hash.
    pub async fn add_api_key(&self, key: &ApiKey, hash: &[u8]) -> Result<()> {
        act!(self, |connection| {
            diesel::insert_into(api_key::table)
                .values((
                    api_key::id.eq(key.id),
                    api_key::name.eq(&key.name),
                    api_key::key_hash.eq(hash),
                    api_key::role.eq(key.role),
                    api_key::made_by.eq(&key.made_by),
                ))
                .execute(connection)
                .await
                .map_err(|error| {
                    StoreError::or_conflict(error, || "a key stands under this id already".into())
                })?;
        })
    }

    /// The key of a hash that was not revoked.
    pub async fn api_key(&self, hash: &[u8]) -> Result<Option<ApiKey>> {
        Ok(api_key::table
            .filter(api_key::key_hash.eq(hash))
            .filter(api_key::revoked_at.is_null())
            .select(ApiKey::as_select())
            .first(&mut self.connection().await?)
            .await
            .optional()?)
    }

    /// Lets a key open nothing any more.
    pub async fn revoke_api_key(&self, id: Uuid) -> Result<()> {
        act!(self, |connection| {
            let changed = diesel::update(api_key::table.find(id))
                .set(api_key::revoked_at.eq(diesel::dsl::now))
                .execute(connection)
                .await?;
            if changed == 0 {
                return Err(StoreError::NotFound("this key"));
            }
        })
    }
}
