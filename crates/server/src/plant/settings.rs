//! What is everybody's at the plant: its clock, its currency, its week, its units.

use axum::extract::State;
use ironpeel_core::schedule::time_zone;
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{AuditedAct, MassUnit, PlantSettings, TemperatureUnit, WeekStart, Word};
use serde::Deserialize;
use serde_json::json;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::caller::Caller;
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

const CURRENCY_MAX: usize = 8;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(settings, set_settings))
}

/// Settings to be changed; what is left out stays as it is.
#[derive(Debug, Clone, Default, Deserialize, ToSchema)]
struct SettingsInput {
    /// By its name in the time zone database, like Europe/London.
    time_zone: Option<String>,
    /// Up to 8 letters, like EUR; empty where it is not said.
    currency: Option<String>,
    /// monday, sunday or saturday.
    #[schema(value_type = Option<WeekStart>)]
    week_starts: Option<String>,
    /// celsius or fahrenheit.
    #[schema(value_type = Option<TemperatureUnit>)]
    temperature_unit: Option<String>,
    /// kilogram or pound.
    #[schema(value_type = Option<MassUnit>)]
    mass_unit: Option<String>,
}

/// What is everybody's at the plant
#[utoipa::path(get, path = "/api/v1/plant/settings", security(("session" = ["read"])), tag = "plant",
    responses((status = 200, body = PlantSettings), (status = "5XX", body = Problem, content_type = "application/problem+json")))]
async fn settings(State(app): State<App>) -> Result<Json<PlantSettings>> {
    Ok(Json(app.revisions.plant().await?.settings.clone()))
}

/// Changes what is everybody's; moments on record stay what they are and are shown by its clock
#[utoipa::path(put, path = "/api/v1/plant/settings", security(("session" = ["administer"])), tag = "plant", request_body = SettingsInput,
    responses((status = 200, body = PlantSettings), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_settings(
    State(app): State<App>,
    Caller { author, .. }: Caller,
    Json(asked): Json<SettingsInput>,
) -> Result<Json<PlantSettings>> {
    let before = app.store.plant().await?.settings;
    let mut settings = before.clone();
    let mut faults = ValidationErrors::default();
    if let Some(name) = asked.time_zone
        && let Some(zone) = time_zone(&name, "time_zone", "", &mut faults)
    {
        settings.time_zone = zone.name().into();
    }
    if let Some(currency) = asked.currency {
        settings.currency = currency.trim().into();
        if settings.currency.chars().count() > CURRENCY_MAX {
            faults.push("currency", format!("a currency's sign: up to {CURRENCY_MAX} letters"));
        }
    }
    let unknown = |what: &str| format!("one of {what}");
    if let Some(word) = asked.week_starts {
        match Word::<WeekStart>::named(&word) {
            Some(day) => settings.week_starts = Word(day),
            None => faults.push("week_starts", unknown("monday, sunday or saturday")),
        }
    }
    if let Some(word) = asked.temperature_unit {
        match Word::<TemperatureUnit>::named(&word) {
            Some(unit) => settings.temperature_unit = Word(unit),
            None => faults.push("temperature_unit", unknown("celsius or fahrenheit")),
        }
    }
    if let Some(word) = asked.mass_unit {
        match Word::<MassUnit>::named(&word) {
            Some(unit) => settings.mass_unit = Word(unit),
            None => faults.push("mass_unit", unknown("kilogram or pound")),
        }
    }
    faults.or(())?;
    let details = Some(json!({"before": before, "after": settings}));
    let act = AuditedAct::new("PUT /api/v1/plant/settings", "/api/v1/plant/settings");
    let act = AuditedAct { details, ..act };
    app.store.audited(&author, act).set_settings(&settings).await?;
    app.revisions.forget_plant().await;
    Ok(Json(settings))
}
