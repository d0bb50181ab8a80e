//! Formulas, what they are written from, and variants of them.

mod amounts;
mod edit;
mod file;
mod formula;
mod kept;
mod template;
mod trial;

use utoipa_axum::router::OpenApiRouter;

pub use formula::FormulaView;
pub use template::{template, templates};

use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .merge(formula::routes())
        .merge(file::routes())
        .merge(amounts::routes())
        .merge(edit::routes())
        .merge(template::routes())
        .merge(trial::routes())
        .merge(kept::routes())
}
