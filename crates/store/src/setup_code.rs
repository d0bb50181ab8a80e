//! The codes the first administrator is made with, one of each server that started meanwhile.

use chrono::{Duration, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;

use crate::error::Result;
use crate::schema::setup_code;
use crate::store::Store;

impl Store {
    /// Keeps a code the first administrator can be made with.
    pub async fn add_setup_code(&self, hash: &[u8]) -> Result<()> {
        diesel::insert_into(setup_code::table)
            .values(setup_code::code_hash.eq(hash))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Whether this is one of the codes of the last day.
    pub async fn is_setup_code(&self, hash: &[u8]) -> Result<bool> {
        let lately = setup_code::made_at.gt(Utc::now() - Duration::days(1));
        let this = setup_code::table.find(hash).filter(lately);
        Ok(diesel::select(diesel::dsl::exists(this))
            .get_result(&mut self.connection().await?)
            .await?)
    }

    /// Lets no code open anything any more.
    pub async fn forget_setup_codes(&self) -> Result<()> {
        diesel::delete(setup_code::table).execute(&mut self.connection().await?).await?;
        Ok(())
    }
}
