use std::borrow::Cow;

use serde::Serialize;

use crate::coefficient::Origin;

/// One step from the flour's figure to the dough absorption.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Adjustment {
    /// The step's own word, the same from lot to lot.
    #[cfg_attr(feature = "openapi", schema(value_type = String))]
    pub key: Cow<'static, str>,
    pub label: String,
    pub points: f64,
    pub low: f64,
    pub high: f64,
    pub origin: Origin,
    pub reason: String,
    /// Key of the coefficient a plant may switch off or replace; none where there is none.
    pub coefficient: Option<&'static str>,
}
