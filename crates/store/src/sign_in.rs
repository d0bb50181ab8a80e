//! Failures to sign in, counted so that guessing takes too long.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;

use crate::error::Result;
use crate::schema::sign_in_failure;
use crate::store::Store;

/// How often signing in failed, and when last.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Queryable)]
pub struct SignInFailures {
    pub failures: i32,
    pub failed_at: DateTime<Utc>,
}

impl Store {
    /// Failures of an account from an address; of the address alone where the account is empty.
    pub async fn sign_in_failures(
        &self,
        account: &str,
        address: &str,
    ) -> Result<Option<SignInFailures>> {
        Ok(sign_in_failure::table
            .find((account, address))
            .select((sign_in_failure::failures, sign_in_failure::failed_at))
            .first(&mut self.connection().await?)
            .await
            .optional()?)
    }

    /// Counts a failure and answers with the count, which begins anew where the last was before
    /// `since`.
    pub async fn count_sign_in_failure(
        &self,
        account: &str,
        address: &str,
        since: DateTime<Utc>,
    ) -> Result<i32> {
        let anew = 1.into_sql::<diesel::sql_types::Integer>();
        let counted = diesel::dsl::case_when(sign_in_failure::failed_at.lt(since), anew)
            .otherwise(sign_in_failure::failures + 1);
        Ok(diesel::insert_into(sign_in_failure::table)
            .values((
                sign_in_failure::account.eq(account),
                sign_in_failure::address.eq(address),
                sign_in_failure::failures.eq(1),
                sign_in_failure::failed_at.eq(Utc::now()),
            ))
            .on_conflict((sign_in_failure::account, sign_in_failure::address))
            .do_update()
            .set((sign_in_failure::failures.eq(counted), sign_in_failure::failed_at.eq(Utc::now())))
            .returning(sign_in_failure::failures)
            .get_result(&mut self.connection().await?)
            .await?)
    }

    /// Takes one failure back that was none.
    pub async fn take_back_sign_in_failure(&self, account: &str, address: &str) -> Result<()> {
        diesel::update(sign_in_failure::table.find((account, address)))
            .set(sign_in_failure::failures.eq(sign_in_failure::failures - 1))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Whoever signed in begins anew.
    pub async fn forget_sign_in_failures(&self, account: &str, address: &str) -> Result<()> {
        diesel::delete(sign_in_failure::table.find((account, address)))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }
}
