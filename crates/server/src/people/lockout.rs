//! Guessing takes too long: after some failures the next try has to wait.

use axum::http::StatusCode;
use chrono::{Duration, Utc};
use ironpeel_store::SignInFailures;

use crate::problem::{Problem, Result};
use crate::state::App;

/// Failures of one account from one address before it has to wait.
const OF_ACCOUNT: i32 = 5;
/// Failures from one address, whatever the account.
const OF_ADDRESS: i32 = 50;
/// The first wait; each failure after doubles it.
const FIRST_WAIT: Duration = Duration::seconds(30);
const LONGEST_WAIT: Duration = Duration::minutes(15);
/// After so long without a failure the count begins anew, of an account and of an address.
const FORGOTTEN: [Duration; 2] = [Duration::hours(24), Duration::hours(1)];

/// How long after its last failure the next try has to wait.
fn wait(failures: i32, most: i32) -> Duration {
    if failures < most {
        return Duration::zero();
    }
    let doubled = FIRST_WAIT * (1 << (failures - most).clamp(0, 10));
    doubled.min(LONGEST_WAIT)
}

/// A try that counts as failed until it succeeds.
#[derive(Debug)]
pub struct Attempt {
    account: String,
    address: String,
}

/// Begins a try, unless it has to wait.
pub async fn attempt(app: &App, account: &str, address: &str) -> Result<Attempt> {
    let account: String = account.chars().take(254).collect();
    let [of_account, of_address] = FORGOTTEN;
    for (account, most, forgotten) in
        [(&*account, OF_ACCOUNT, of_account), ("", OF_ADDRESS, of_address)]
    {
        let before = app.store.sign_in_failures(account, address).await?;
        refuse_early(before, most)?;
        let counted =
            app.store.count_sign_in_failure(account, address, Utc::now() - forgotten).await?;
        // Several at once count each other.
        let known = before.map_or(0, |before| before.failures);
        if counted > most && counted > known + 1 {
            return Err(too_many(wait(counted, most)));
        }
    }
    Ok(Attempt { account, address: address.into() })
}

fn refuse_early(before: Option<SignInFailures>, most: i32) -> Result<()> {
    let Some(SignInFailures { failures, failed_at }) = before else { return Ok(()) };
    let left = failed_at + wait(failures, most) - Utc::now();
    if left > Duration::zero() { Err(too_many(left)) } else { Ok(()) }
}

fn too_many(left: Duration) -> Problem {
    let seconds = left.num_seconds().max(1);
    let detail = format!("too many tries: the next is taken in {seconds} s");
    Problem::new(StatusCode::TOO_MANY_REQUESTS, "Too many tries", detail).retry_after(seconds)
}

impl Attempt {
    /// It was no try: both counts are as they were.
    pub async fn taken_back(self, app: &App) -> Result<()> {
        app.store.take_back_sign_in_failure(&self.account, &self.address).await?;
        app.store.take_back_sign_in_failure("", &self.address).await?;
        Ok(())
    }

    /// It was right: the account's count begins anew, and the address is given its try back.
    pub async fn succeeded(self, app: &App) -> Result<()> {
        app.store.forget_sign_in_failures(&self.account, &self.address).await?;
        app.store.take_back_sign_in_failure("", &self.address).await?;
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_failure_past_the_fifth_doubles_the_wait_up_to_a_quarter_of_an_hour() {
        let waits = [4, 5, 6, 7, 9, 10, 11, 500].map(|failures| wait(failures, OF_ACCOUNT));
        assert_eq!(waits.map(|wait| wait.num_seconds()), [0, 30, 60, 120, 480, 900, 900, 900]);
    }
}
