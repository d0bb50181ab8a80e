//! People: who may ask what, who is signed in, and what each did.

mod access;
mod account;
mod audit;
mod credentials;
mod guard;
mod in_name_of;
mod key;
mod lockout;
mod pin;
mod second_factor;
mod session;
mod setup;
mod station;

use utoipa_axum::router::OpenApiRouter;

use crate::state::App;

pub use guard::{Guard, KEY, Rules, SESSION, enforce, open_to_keys};
pub use setup::setup_code;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .merge(session::routes())
        .merge(setup::routes())
        .merge(account::routes())
        .merge(pin::routes())
        .merge(second_factor::routes())
        .merge(station::routes())
        .merge(key::routes())
        .merge(audit::routes())
}
