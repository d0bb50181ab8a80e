//! What becomes of a lot: decisions, and where it lies and how much is left.

use axum::extract::State;
use chrono::Utc;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::flour::{Barred, Decision, Limit, Verdict, assess, barred};
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use ironpeel_store::{Disposition, LotDisposition, LotRevision, LotStock, Word};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(decide)).routes(routes!(place))
}

/// How a lot stands: the newest decision and stock, where there are any.
#[derive(Debug, Clone, Default, Serialize, ToSchema)]
pub struct LotStatus {
    pub decision: Option<LotDisposition>,
    pub stock: Option<LotStock>,
    /// Why no batch may be planned of it; none where one may.
    pub barred: Option<Barred>,
}

/// What a lot is judged by: its certificate, the specification, and what comes of the two.
#[derive(Debug, Clone, Copy)]
pub struct LotAssessment {
    lot_revision_id: Uuid,
    /// None where its flour has no specification.
    by: Option<(Uuid, Verdict)>,
}

impl LotAssessment {
    /// A lot's certificate held against a specification, where there is one.
    pub fn of(
        current: &LotRevision,
        specification: Option<(Uuid, &[Limit])>,
        coefficients: &Coefficients,
    ) -> Self {
        let verdict = |limits| assess(limits, &current.judged(), coefficients).verdict;
        let by = specification.map(|(id, limits)| (id, verdict(limits)));
        Self { lot_revision_id: current.revision.id, by }
    }

    pub fn verdict(&self) -> Option<Verdict> {
        self.by.map(|(_, verdict)| verdict)
    }

    /// The decision that releases the lot as it is judged now; none where there is none.
    pub fn release<'a>(&self, decision: Option<&'a LotDisposition>) -> Option<&'a LotDisposition> {
        let (by, _) = self.by?;
        decision.filter(|decision| {
            matches!(decision.decision.0, Decision::Release | Decision::ReleaseWithNote)
                && decision.is_of(self.lot_revision_id, by)
        })
    }

    /// Why no batch may be planned of the lot; none where one may.
    pub fn barred(&self, decision: Option<&LotDisposition>) -> Option<Barred> {
        let of_these = match (decision, self.by) {
            (Some(decision), Some((by, _))) => decision.is_of(self.lot_revision_id, by),
            _ => false,
        };
        let decided = decision.map(|decision| decision.decision.0);
        barred(self.verdict(), decided, of_these)
    }
}

impl LotStatus {
    pub fn of(disposition: Option<Disposition>, judged: &LotAssessment) -> Self {
        let Disposition { decision, stock } = disposition.unwrap_or_default();
        Self { barred: judged.barred(decision.as_ref()), decision, stock }
    }
}

/// A decision on a lot, as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct DispositionInput {
    /// release, release_with_note, hold or reject.
    #[serde(default)]
    pub decision: String,
    pub signed: SignedInput,
}

/// Where a lot lies and how much is left, as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct StockInput {
    #[serde(default)]
    pub place: String,
    /// 0 to 100 000 t; it must be said.
    #[serde(default)]
    pub tonnes_left: RawNumber,
    pub signed: SignedInput,
}

const LEFT: NumberRange = NumberRange::new("tonnes_left", "what is left", "t", 0.0, 100_000.0);
const PLACE_MAX: usize = 80;

/// Decides on a lot: a person's act, with a reason for all but a plain release
#[utoipa::path(put, path = "/api/v1/lots/{lot_id}/dispositions/{disposition_id}", security(("session" = ["change"])), tag = "flour",
    params(("lot_id" = Uuid, Path), ("disposition_id" = Uuid, Path)), request_body = DispositionInput,
    responses((status = 200, body = LotDisposition), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn decide(
    State(app): State<App>,
    Path((lot_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<DispositionInput>,
) -> Result<Json<LotDisposition>> {
    let mut faults = ValidationErrors::default();
    let decision = Word::<Decision>::named(&input.decision);
    if decision.is_none() {
        faults.push("decision", "release, release with a note, hold or reject");
    }
    let signed =
        input.signed.check(&write.author, decision != Some(Decision::Release), &mut faults);
    let decision = faults.or(decision)?.unwrap_or(Decision::Hold);
    // A release is of the certificate and the specification as they are now.
    let lot = app.store.lot(lot_id).await?;
    let specification = app.specification_of(lot.flour.id).await?;
    let made = LotDisposition {
        id,
        lot_id,
        decision: Word(decision),
        reason: signed.reason,
        made_by: signed.by,
        made_at: Utc::now(),
        lot_revision_id: Some(lot.current.revision.id),
        specification_revision_id: specification.map(|specification| specification.revision.id),
    };
    write.of(&app, id).add_dispositions(std::slice::from_ref(&made)).await?;
    Ok(Json(app.store.decision(id).await?))
}

/// Says where a lot lies and how much is left
#[utoipa::path(put, path = "/api/v1/lots/{lot_id}/stock/{stock_id}", security(("session" = ["record"])), tag = "flour",
    params(("lot_id" = Uuid, Path), ("stock_id" = Uuid, Path)), request_body = StockInput,
    responses((status = 200, body = LotStock), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn place(
    State(app): State<App>,
    Path((lot_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<StockInput>,
) -> Result<Json<LotStock>> {
    let mut faults = ValidationErrors::default();
    let place = input.place.trim();
    if place.is_empty() || place.chars().count() > PLACE_MAX {
        faults
            .push("place", format!("where does it lie? a silo or bay, up to {PLACE_MAX} letters"));
    }
    let tonnes_left = LEFT.check(&input.tonnes_left, "", &mut faults);
    let signed = input.signed.check(&write.author, false, &mut faults);
    faults.or(())?;
    let made_at = Utc::now();
    let made =
        LotStock { id, lot_id, place: place.into(), tonnes_left, made_by: signed.by, made_at };
    write.of(&app, id).add_stock(&made).await?;
    Ok(Json(app.store.stock(id).await?))
}
