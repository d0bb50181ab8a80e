//! People: who may ask what, who is signed in, and what each did.

mod access;
mod account;
mod audit;
mod credentials;

mod key;
mod lockout;

mod session;
mod setup;

use utoipa_axum::router::OpenApiRouter;

use crate::state::App;

pub use access::{Guard, KEY, Rules, SESSION, enforce, open_to_keys};

pub use setup::setup_code;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .merge(session::routes())
        .merge(setup::routes())
        .merge(account::routes())
        .merge(key::routes())
        .merge(audit::routes())
}
