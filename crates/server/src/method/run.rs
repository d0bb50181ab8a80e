//! A run of doughs on the clock, the line standing still in it or not.

use axum::extract::State;
use axum::response::IntoResponse;
use chrono::{DateTime, Utc};
use ironpeel_core::chain::{DelayedBatch, chain, each_dough, late};
use ironpeel_core::method::StageRole;
use ironpeel_core::schedule::{
    Place, RunError, RunPlan, RunRequest, ScheduleInput, Shift, Stop, plan_run,
};
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors, timestamp};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use super::calendar::{Entry, file, folds};
use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

/// Most doughs of a run, and most stages moved in it.
const MOST_DOUGHS: u32 = 200;
const MOST_SHIFTS: usize = 200;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(run)).routes(routes!(calendar))
}

/// A run of the selected product, as many as its amount makes.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct RunQuery {
    scenario: ScenarioInput,
    day: ScheduleInput,
    /// Stages begun later or earlier, up to 200.
    #[serde(default)]
    shifts: Vec<ShiftInput>,
    /// The line stands still.
    stop: Option<StopInput>,
    /// Doughs that are not made after all, by their number from 1.
    #[serde(default)]
    dropped: Vec<usize>,
}

/// A stage of one dough begun later or earlier.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct ShiftInput {
    /// Its number from 1.
    dough: usize,
    /// The stage's place in the method, from 0.
    stage: usize,
    /// −600 to 600 min.
    #[serde(default)]
    by_min: RawNumber,
}

/// The line stands still.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct StopInput {
    #[serde(deserialize_with = "timestamp::within")]
    at: DateTime<Utc>,
    /// 1 to 1440 min.
    #[serde(default)]
    minutes: RawNumber,
    /// What stands still, anything but the troughs; the whole line if left out.
    place: Option<Place>,
}

const BY: NumberRange = NumberRange::new("by_min", "moved by", "min", -600.0, 600.0);
const STANDS: NumberRange = NumberRange::new("minutes", "the line stands for", "min", 1.0, 1440.0);

/// A run on the clock, and what to do about what is late.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct RunView {
    plan: RunPlan,
    /// Doughs that wait because the line stands still, with the ways out.
    late: Vec<DelayedBatch>,
    /// When the run would be out if the line did not stand still.
    calm_out_at: Option<DateTime<Utc>>,
}

/// What is moved of a run as it was planned.
struct Moves {
    shifts: Vec<Shift>,
    dropped: Vec<usize>,
    stop: Option<Stop>,
}

impl RunQuery {
    /// What is asked to be moved, or what is wrong with it.
    fn moves(&self, faults: &mut ValidationErrors) -> Moves {
        if self.shifts.len() > MOST_SHIFTS {
            faults.push("shifts", format!("up to {MOST_SHIFTS} stages are moved"));
        }
        let shifts: Vec<Shift> = self
            .shifts
            .iter()
            .take(MOST_SHIFTS)
            .enumerate()
            .map(|(at, shift)| Shift {
                dough: counted(shift.dough, format!("shifts[{at}].dough"), faults),
                stage: shift.stage,
                by_min: BY.check(&shift.by_min, &format!("shifts[{at}]."), faults),
            })
            .collect();
        let dropped: Vec<usize> = (0..)
            .zip(&self.dropped)
            .map(|(at, number)| counted(*number, format!("dropped[{at}]"), faults))
            .collect();
        let stop = self.stop.as_ref().map(|stop| Stop {
            from: stop.at,
            minutes: STANDS.check(&stop.minutes, "stop.", faults),
            place: stop.place,
        });
        if stop.is_some_and(|stop| stop.place == Some(Place::Troughs)) {
            faults.push(
                "stop.place",
                "troughs do not stand still: the mixer, divider, proofer or oven does",
            );
        }
        Moves { shifts, dropped, stop }
    }

    async fn plan(&self, app: &App) -> Result<(RunView, String)> {
        let mut faults = ValidationErrors::default();
        let day = self.day.check(app.clock().await?, "day.", &mut faults);
        let Moves { shifts, dropped, stop } = self.moves(&mut faults);
        faults.or(())?;
        let context = ScenarioContext::load(app, &self.scenario, "scenario.").await?;
        let flours = context.flours();
        let scenario = context.scenario(&flours);
        let chain = chain(&scenario);
        let (Some(each), Some(dough)) = (each_dough(&scenario, &chain), &chain.dough) else {
            return Err(Problem::field(
                "scenario",
                "the chain stops before the mixer: no run follows",
            ));
        };
        if dough.scaled.doughs > MOST_DOUGHS {
            let message =
                format!("a run is up to {MOST_DOUGHS} doughs; this is {}", dough.scaled.doughs);
            return Err(Problem::field("scenario.run_settings.amount", message));
        }
        let wanted = RunRequest {
            method: scenario.method,
            equipment: &scenario.line.equipment,
            doughs: dough.scaled.doughs as usize,
            each,
            day: &day,
            shifts: &shifts,
            stop,
            dropped: &dropped,
            coefficients: scenario.coefficients(),
        };
        let fits = |wanted: &RunRequest<'_>| {
            plan_run(wanted).map_err(|error| match error {
                RunError::ScheduleError(error) => {
                    Problem::field("day.closed_hours", error.to_string())
                }
                RunError::TooLong { .. } | RunError::TooMany { .. } => {
                    Problem::field("scenario.run_settings.amount", error.to_string())
                }
            })
        };
        let plan = fits(&wanted)?;
        let calm = match stop {
            Some(_) => Some(fits(&RunRequest { stop: None, dropped: &[], ..wanted })?.out_at),
            None => None,
        };
        let late =
            stop.map_or_else(Vec::new, |stop| late(&scenario, &chain, &plan.doughs, stop.until()));
        Ok((RunView { plan, late, calm_out_at: calm }, context.documents.formula.name.clone()))
    }
}

/// A dough by its number from 1, counted from 0.
fn counted(number: usize, field: String, faults: &mut ValidationErrors) -> usize {
    number.checked_sub(1).unwrap_or_else(|| {
        faults.push(field, "doughs are counted from 1");
        0
    })
}

/// Puts a run of the selected product on the clock at its line's cadence
#[utoipa::path(post, path = "/api/v1/chain/production-run", security(("session" = ["read"])), tag = "chain", request_body = RunQuery,
    responses((status = 200, body = RunView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn run(State(app): State<App>, Json(asked): Json<RunQuery>) -> Result<Json<RunView>> {
    Ok(Json(asked.plan(&app).await?.0))
}

/// The run as a calendar file: an entry for each stage of each dough that somebody does
#[utoipa::path(post, path = "/api/v1/chain/production-run/calendar", security(("session" = ["read"])), tag = "chain", request_body = RunQuery,
    responses((status = 200, body = String, content_type = "text/calendar"), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn calendar(
    State(app): State<App>,
    Json(asked): Json<RunQuery>,
) -> Result<impl IntoResponse> {
    let (RunView { plan, .. }, product) = asked.plan(&app).await?;
    let entries = plan.doughs.iter().flat_map(|dough| {
        // What begins a dough, whatever it is, and what hands do.
        let stages = dough.stages.iter().enumerate();
        let done = stages.filter(|(at, stage)| {
            *at == 0
                || stage.role == StageRole::Slicing
                || stage.place.is_some_and(Place::is_worked)
                || !stage.folds.is_empty()
        });
        done.flat_map(|(_, stage)| {
            let summary = format!("{product}, dough {}: {}", dough.number, stage.label);
            let message = format!("dough {} of {}", dough.number, plan.doughs.len());
            if !stage.folds.is_empty() {
                return folds(&summary, &message, &stage.folds);
            }
            let (starts_at, ends_at) = (stage.starts_at, stage.ends_at);
            vec![Entry { summary, message, starts_at, ends_at, reminds: true }]
        })
    });
    Ok(file(&product, entries.collect::<Vec<_>>()))
}
