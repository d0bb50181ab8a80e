//! What a mill is told of a lot: its readings against the limits, and what was decided.

use axum::extract::State;
use axum::response::IntoResponse;
use ironpeel_core::flour::RequirementCheck;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::lots::{LotView, lot_view};
use crate::download::{CSV, attachment, csv_of};
use crate::problem::{Problem, Result};
use crate::request::Path;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(report))
}

/// A lot's readings against its specification as CSV, to send to the mill
#[utoipa::path(get, path = "/api/v1/lots/{lot_id}/report/csv", security(("session" = ["read"])), tag = "flour", params(("lot_id" = Uuid, Path)),
    responses((status = 200, body = String, content_type = "text/csv"), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn report(State(app): State<App>, Path(lot_id): Path<Uuid>) -> Result<impl IntoResponse> {
    let lot = lot_view(&app, lot_id).await?;
    let checks = lot.certificate.assessment.iter().flat_map(|assessed| &assessed.checks);
    let rows = head(&lot).into_iter().chain(checks.map(|check| row(&lot, check)));
    Ok(attachment(&format!("{} report to the mill", lot.code), "csv", CSV, csv_of(rows)))
}

/// What lot it is, what was decided, and the names of the columns.
fn head(lot: &LotView) -> Vec<Vec<String>> {
    let date = |date: Option<chrono::NaiveDate>| date.map(|on| on.to_string()).unwrap_or_default();
    let decision = lot.status.decision.as_ref();
    let decided = decision.map_or("pending", |one| one.decision.0.label());
    let facts = [
        ("lot", lot.code.clone()),
        ("flour", lot.flour.name.clone()),
        ("mill", lot.flour.mill.clone()),
        ("milled", date(lot.milled_on)),
        ("delivered", date(lot.delivered_on)),
        ("decision", decided.to_owned()),
        ("reason", decision.map(|one| one.reason.clone()).unwrap_or_default()),
    ];
    let columns =
        ["property", "value", "unit", "basis", "method", "min", "max", "requirement", "verdict"];
    let facts = facts.into_iter().map(|(name, is)| vec![name.to_owned(), is]);
    facts.chain([columns.map(str::to_owned).to_vec()]).collect()
}

/// A requirement with what the lot has of it.
fn row(lot: &LotView, check: &RequirementCheck) -> Vec<String> {
    let number = |value: Option<f64>| value.map(|value| value.to_string()).unwrap_or_default();
    let stated = lot.certificate.rows.iter().find(|row| row.property == Some(check.limit.property));
    vec![
        check.label.into(),
        number(check.value),
        check.unit.into(),
        check.limit.basis.map(|basis| basis.label().to_owned()).unwrap_or_default(),
        stated.map(|row| row.written.method.clone()).unwrap_or_default(),
        number(check.limit.min),
        number(check.limit.max),
        if check.limit.must { "must" } else { "should" }.into(),
        check.message.to_string(),
    ]
}
