use axum::extract::State;
use chrono::{DateTime, NaiveDate, Utc};
use ironpeel_core::flour::{
    FlourAge, FlourName, Readings, Row, Verdict, flour_names, hard_and_soft, read_rows,
};
use ironpeel_core::units::{
    DecimalMark, NumberError, ValidationErrors, decimal_mark_of, parse_number, spelt_out,
};
use ironpeel_store::{
    Author, Lot, LotDisposition, LotPart, LotRevision, NewLotRevision, PageKey, Revision, Stated,
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::date::date;
use super::disposition::{LotAssessment, LotStatus};
use super::file::MOST_ROWS;
use super::{Certificate, FlourView};
use crate::page::{Cursor, PAGE, PageQuery, paginate};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(lots)).routes(routes!(lot)).routes(routes!(save))
}

/// A lot as lists show it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LotRow {
    pub id: Uuid,
    pub code: String,
    pub flour_id: Uuid,
    pub flour: String,
    pub mill: String,
    /// Delivered, else milled, else recorded.
    pub received_at: DateTime<Utc>,
    pub milled_on: Option<NaiveDate>,
    pub delivered_on: Option<NaiveDate>,
    pub tonnes: Option<f64>,
    /// None where its flour has no specification.
    pub verdict: Option<Verdict>,
    pub status: LotStatus,
}

/// A page of lots, newest first.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LotPage {
    pub lots: Vec<LotRow>,
    /// Of one flour, the lot it is taken from where nobody chose: its newest on this page that may
    /// be planned.
    pub usual: Option<Uuid>,
    /// Where the next page begins; none on the last.
    pub next: Option<Cursor>,
}

/// A lot with its certificate held against the flour's specification.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LotView {
    pub id: Uuid,
    pub code: String,
    pub flour: FlourView,
    pub revision: Revision,
    pub milled_on: Option<NaiveDate>,
    pub delivered_on: Option<NaiveDate>,
    pub tonnes: Option<f64>,
    /// Days since milling.
    pub age_days: Option<i64>,
    /// What the age means for the dough, where it means something.
    pub age_message: Option<FlourAge>,
    pub certificate: Certificate,
    /// What each national system calls it.
    pub names: Vec<FlourName>,
    /// What “hard” and “soft” mean for it.
    pub hard_and_soft: String,
    pub status: LotStatus,
    pub decisions: Vec<LotDisposition>,
    /// Lots it was blended of.
    pub parts: Vec<LotPart>,
}

/// A lot, or a correction of one, as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct LotInput {
    pub flour_id: Uuid,
    #[serde(default)]
    pub code: String,
    /// Year-month-day, or day.month.year; empty if not known.
    #[serde(default)]
    pub milled: String,
    #[serde(default)]
    pub delivered: String,
    #[serde(default)]
    pub tonnes: String,
    /// 1 for a new lot; for a correction the number after the one that was looked at.
    pub number: i32,
    /// What a mark that could be either is, where the rows leave it open; refused if left out.
    #[serde(default)]
    pub decimal_mark: Option<DecimalMark>,
    pub rows: Vec<Row>,
    pub signed: SignedInput,
}

#[derive(Debug, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
struct OfFlour {
    flour_id: Option<Uuid>,
}

/// Lots, newest first
#[utoipa::path(get, path = "/api/v1/lots", security(("session" = ["read"])), tag = "flour", params(OfFlour, PageQuery),
    responses((status = 200, body = LotPage), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn lots(
    State(app): State<App>,
    Query(of): Query<OfFlour>,
    Query(page): Query<PageQuery>,
) -> Result<Json<LotPage>> {
    lot_page(&app, of.flour_id, page.key()).await.map(Json)
}

/// A page of lots, of one flour or of all.
pub async fn lot_page(
    app: &App,
    flour_id: Option<Uuid>,
    after: Option<PageKey>,
) -> Result<LotPage> {
    let mut found = app.store.lots(flour_id, after, PAGE + 1).await?;
    let next = paginate(&mut found, |lot| (lot.received_at, lot.id));
    let specifications = app.store.current_specifications().await?;
    let plant = app.parameters().await?;
    let ids: Vec<Uuid> = found.iter().map(|lot| lot.id).collect();
    let mut dispositions = app.store.dispositions(&ids).await?;
    let lots = found.into_iter().map(|lot| {
        let specification = specifications.get(&lot.flour_id);
        let specification = specification.map(|current| (current.revision_id, &*current.limits));
        let judged = LotAssessment::of(&lot.current, specification, &plant.coefficients);
        LotRow {
            verdict: judged.verdict(),
            status: LotStatus::of(dispositions.remove(&lot.id), &judged),
            id: lot.id,
            code: lot.code,
            flour_id: lot.flour_id,
            flour: lot.flour,
            mill: lot.mill,
            received_at: lot.received_at,
            milled_on: lot.current.milled_on,
            delivered_on: lot.current.delivered_on,
            tonnes: lot.current.tonnes,
        }
    });
    let lots: Vec<LotRow> = lots.collect();
    let usual = lots.iter().find(|lot| lot.status.barred.is_none()).map(|lot| lot.id);
    Ok(LotPage { usual: flour_id.and(usual), lots, next })
}

/// A lot in its newest state
#[utoipa::path(get, path = "/api/v1/lots/{lot_id}", security(("session" = ["read"])), tag = "flour", params(("lot_id" = Uuid, Path)),
    responses((status = 200, body = LotView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn lot(State(app): State<App>, Path(lot_id): Path<Uuid>) -> Result<Json<LotView>> {
    lot_view(&app, lot_id).await.map(Json)
}

/// Records a lot, or a correction of one; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/lots/{lot_id}/revisions/{revision_id}", security(("session" = ["change"])), tag = "flour",
    params(("lot_id" = Uuid, Path), ("revision_id" = Uuid, Path)), request_body = LotInput,
    responses((status = 200, body = LotView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((lot_id, revision_id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<LotInput>,
) -> Result<Json<LotView>> {
    let new = input.check(lot_id, revision_id, &write.author)?;
    app.store.flour(new.flour_id).await?;
    write.of(&app, revision_id).add_lot_revision(&new).await?;
    let lot = app.store.lot_at(revision_id).await?;
    view_of(&app, lot).await.map(Json)
}

/// A lot in its newest state.
pub async fn lot_view(app: &App, lot_id: Uuid) -> Result<LotView> {
    view_of(app, app.store.lot(lot_id).await?).await
}

pub async fn view_of(app: &App, lot: Lot) -> Result<LotView> {
    let readings = lot.current.readings.0.iter().cloned().map(Ok);
    let rows = written(&lot.current).into_iter().zip(readings).collect();
    let specification = app.specification_of(lot.flour.id).await?;
    let delivered_at = lot.current.age_days();
    let certificate =
        Certificate::judged(app, rows, specification.as_ref(), Some(lot.id), delivered_at).await?;
    let by = specification.as_ref().map(|current| (current.revision.id, &*current.limits));
    let plant = app.parameters().await?;
    let judged = LotAssessment::of(&lot.current, by, &plant.coefficients);
    let status = LotStatus::of(app.store.dispositions(&[lot.id]).await?.remove(&lot.id), &judged);
    let decisions = app.store.decisions(lot.id).await?;
    let parts = app.store.lot_parts(lot.id).await?;
    let today = app.today().await?;
    let age_days = lot.current.milled_on.map(|milled| (today - milled).num_days());
    Ok(LotView {
        names: flour_names(lot.flour.species, &lot.current.readings, &plant.coefficients),
        hard_and_soft: hard_and_soft(lot.flour.species, lot.flour.hardness),
        age_message: age_days.and_then(|days| FlourAge::of(days as f64, &plant.coefficients)),
        age_days,
        status,
        decisions,
        parts,
        id: lot.id,
        code: lot.code,
        flour: lot.flour.into(),
        revision: lot.current.revision,
        milled_on: lot.current.milled_on,
        delivered_on: lot.current.delivered_on,
        tonnes: lot.current.tonnes,
        certificate,
    })
}

/// The readings as the certificate wrote them.
pub fn written(current: &LotRevision) -> Vec<Row> {
    let rows = current.readings.0.iter().zip(&current.stated);
    rows.map(|(reading, stated)| Row {
        property: reading.property.label().into(),
        value: stated.value.clone(),
        unit: stated.unit.clone(),
        basis: reading.basis.map(|basis| basis.label().into()).unwrap_or_default(),
        method: reading.method.clone().unwrap_or_default(),
    })
    .collect()
}

impl LotInput {
    pub fn check(
        self,
        lot_id: Uuid,
        revision_id: Uuid,
        author: &Author,
    ) -> std::result::Result<NewLotRevision, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let code = self.code.trim().to_owned();
        if code.is_empty() || code.chars().count() > 60 {
            faults.push("code", "the lot needs its code, up to 60 letters");
        }
        if self.number < 1 {
            faults.push("number", "revisions count from 1");
        }
        let milled_on = date("milled", &self.milled, &mut faults);
        let delivered_on = date("delivered", &self.delivered, &mut faults);
        if let (Some(milled), Some(delivered)) = (milled_on, delivered_on)
            && delivered < milled
        {
            faults.push("delivered", format!("delivered before it was milled ({milled})"));
        }
        let written = self.rows.iter().map(|row| row.value.as_str());
        let mark = decimal_mark_of(written).or(self.decimal_mark);
        let tonnes = tonnes(&self.tonnes, mark, &mut faults);
        if self.rows.is_empty() {
            faults.push("rows", "a certificate has at least one reading");
        }
        if self.rows.len() > MOST_ROWS {
            faults.push("rows", format!("a certificate has up to {MOST_ROWS} rows"));
        }
        let mut readings = Vec::with_capacity(self.rows.len());
        let mut stated = Vec::with_capacity(self.rows.len());
        for (at, (read, row)) in read_rows(&self.rows, mark).into_iter().zip(&self.rows).enumerate()
        {
            match read {
                Ok(reading) => {
                    readings.push(reading);
                    stated.push(Stated {
                        value: stated_value(row.value.trim(), mark),
                        unit: row.unit.trim().into(),
                    });
                }
                Err(fault) => faults.push(format!("rows[{at}]"), fault.message),
            }
        }
        let signed = self.signed.check(author, self.number > 1, &mut faults);
        faults.or(NewLotRevision {
            lot_id,
            flour_id: self.flour_id,
            code,
            revision_id,
            number: self.number,
            milled_on,
            delivered_on,
            tonnes,
            readings: Readings(readings),
            stated,
            signed,
        })
    }
}

/// A value as it was written; as plain digits where its mark meant something to its writer alone.
fn stated_value(text: &str, mark: Option<DecimalMark>) -> String {
    let number = text.trim_start_matches(['<', '>', '≤', '≥']);
    let bound = &text[..text.len() - number.len()];
    match (parse_number(number, None), parse_number(number, mark)) {
        (Err(NumberError::Ambiguous { .. }), Ok(value)) => format!("{bound}{}", spelt_out(value)),
        _ => text.into(),
    }
}

fn tonnes(text: &str, mark: Option<DecimalMark>, faults: &mut ValidationErrors) -> Option<f64> {
    if text.trim().is_empty() {
        return None;
    }
    match parse_number(text, mark) {
        Ok(tonnes) if (0.0..=100_000.0).contains(&tonnes) => Some(tonnes),
        Ok(tonnes) => {
            faults.push("tonnes", format!("{tonnes} t cannot be delivered; from 0 to 100000 t"));
            None
        }
        Err(error) => {
            faults.push("tonnes", format!("{error}; tonnes are a number, such as 24.6"));
            None
        }
    }
}
