//! How this server is run.

use axum_extra::extract::cookie::{Cookie, SameSite};
use chrono::Duration;

/// Settings of one server; the plant's own are in its records.
#[derive(Debug, Clone)]
pub struct Config {
    /// The demo plant: its accounts open it, and the sign-in page names them.
    pub demo: bool,
    /// Where people reach it, `https://bread.example`, where that is not the address it is asked at.
    pub base_url: Option<String>,
    /// How long a session lasts without use.
    pub session_lasts: Duration,
}

impl Default for Config {
    fn default() -> Self {
        Self { demo: false, base_url: None, session_lasts: Duration::hours(12) }
    }
}

impl Config {
    /// Whether browsers reach it over TLS.
    fn is_secure(&self) -> bool {
        self.base_url.as_deref().is_some_and(|base| base.starts_with("https://"))
    }

    pub fn cookie_name(&self) -> &'static str {
        if self.is_secure() { "__Host-ironpeel" } else { "ironpeel" }
    }

    /// The cookie of a session. The server says when it is over.
    pub fn session_cookie(&self, token: &str) -> Cookie<'static> {
        Cookie::build((self.cookie_name(), token.to_owned()))
            .http_only(true)
            .same_site(SameSite::Lax)
            .secure(self.is_secure())
            .path("/")
            .max_age(time::Duration::seconds(self.session_lasts.num_seconds()))
            .build()
    }
}
