//! The temperatures of doughs as they come off the mixer.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::chain::{figures, mixed_dough};
use ironpeel_core::heat::{Temperatures, TemperaturesInput};
use ironpeel_core::units::{ValidationErrors, timestamp};
use ironpeel_store::DoughTemperature;
use serde::{Deserialize, Serialize};
use serde_json::json;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::state::App;

/// Doughs that friction is learned from: the filter has forgotten older ones.
pub const LEARNED_FROM: i64 = 60;
pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(save))
}

/// A dough's temperatures, as they were measured.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct MeasuredInput {
    method_id: Uuid,
    line_id: Uuid,
    /// When it came off the mixer.
    #[serde(deserialize_with = "timestamp::within")]
    taken_at: DateTime<Utc>,
    #[serde(flatten)]
    temperatures: TemperaturesInput,
    /// The dough as it was mixed, so that its own masses are kept.
    #[serde(default)]
    scenario: Option<ScenarioInput>,
}

/// A dough's temperatures on record.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct TemperatureView {
    id: Uuid,
    taken_at: DateTime<Utc>,
    taken_by: String,
    flour_c: f64,
    room_c: f64,
    water_c: f64,
    preferment_c: Option<f64>,
    dough_c: f64,
    /// Share of the water that was ice, %, and how cold it was.
    ice_share_pct: f64,
    ice_c: f64,
    /// What the friction factor method leaves unexplained.
    friction_c: f64,
}

impl From<DoughTemperature> for TemperatureView {
    fn from(one: DoughTemperature) -> Self {
        let friction_c = one.temperatures().friction_c();
        let DoughTemperature {
            id,
            taken_at,
            taken_by,
            flour_c,
            room_c,
            water_c,
            preferment_c,
            dough_c,
            ice_share_pct,
            ice_c,
            ..
        } = one;
        Self {
            id,
            taken_at,
            taken_by,
            flour_c,
            room_c,
            water_c,
            preferment_c,
            dough_c,
            ice_share_pct,
            ice_c,
            friction_c,
        }
    }
}

/// Records a dough's temperatures; sent twice, they are stored once
#[utoipa::path(put, path = "/api/v1/dough-temperatures/{id}", security(("session" = ["record"])), tag = "method", params(("id" = Uuid, Path)),
    request_body = MeasuredInput,
    responses((status = 200, body = TemperatureView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Recorded { input, write }: Recorded<MeasuredInput>,
) -> Result<Json<TemperatureView>> {
    let mut faults = ValidationErrors::default();
    let measured = input.temperatures.check("", &mut faults);
    faults.or(())?;
    // Both must be on record, and are told apart when they are not.
    app.store.current_method(input.method_id).await?;
    app.store.current_line(input.line_id).await?;
    let mixed = match &input.scenario {
        Some(scenario) => {
            let context = ScenarioContext::load(&app, scenario, "scenario.").await?;
            let flours = context.flours();
            let scenario = context.scenario(&flours);
            mixed_dough(&scenario, &figures(&scenario)).map(|mixed| json!(mixed))
        }
        None => None,
    };
    let Temperatures { flour_c, room_c, water_c, preferment_c, dough_c, ice_share_pct, ice_c } =
        measured;
    let new = DoughTemperature {
        id,
        method_id: input.method_id,
        line_id: input.line_id,
        taken_at: input.taken_at,
        taken_by: write.author.name.clone(),
        flour_c,
        room_c,
        water_c,
        preferment_c,
        dough_c,
        ice_share_pct,
        ice_c,
        mixed,
    };
    write.of(&app, id).add_dough_temperatures(std::slice::from_ref(&new)).await?;
    Ok(Json(app.store.dough_temperature(id).await?.into()))
}
