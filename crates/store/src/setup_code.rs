//! The code the first administrator is made with.

use diesel::prelude::*;
use diesel_async::RunQueryDsl;

use crate::error::Result;
use crate::schema::setup_code;
use crate::store::Store;

impl Store {
    /// Puts the code the first administrator is made with, in place of any before.
    pub async fn set_setup_code(&self, hash: &[u8]) -> Result<()> {
        let set = (setup_code::code_hash.eq(hash), setup_code::made_at.eq(diesel::dsl::now));
        diesel::insert_into(setup_code::table)
            .values(set)
            .on_conflict(setup_code::singleton)
            .do_update()
            .set(set)
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Takes the setup code away, and says whether it was this one.
    pub async fn take_setup_code(&self, hash: &[u8]) -> Result<bool> {
        let this = setup_code::table.filter(setup_code::code_hash.eq(hash));
        Ok(diesel::delete(this).execute(&mut self.connection().await?).await? == 1)
    }
}
