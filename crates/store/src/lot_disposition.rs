//! What becomes of a lot: a person's decisions, and where it lies and how much is left.

use std::collections::HashMap;

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::flour::Decision;
use serde::Serialize;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{lot_disposition, lot_stock};
use crate::store::{Store, add_once};
use crate::word::Word;

/// A decision on a lot, with who, when and why.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Insertable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[diesel(table_name = lot_disposition)]
pub struct LotDisposition {
    pub id: Uuid,
    pub lot_id: Uuid,
    #[cfg_attr(feature = "openapi", schema(value_type = Decision))]
    pub decision: Word<Decision>,
    pub reason: String,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
    /// The certificate and the specification it was given for; none of old decisions.
    pub lot_revision_id: Option<Uuid>,
    pub specification_revision_id: Option<Uuid>,
}

/// Where a lot lies and how much is left of it, as somebody saw it.
#[derive(Debug, Clone, PartialEq, Queryable, Insertable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[diesel(table_name = lot_stock)]
pub struct LotStock {
    pub id: Uuid,
    pub lot_id: Uuid,
    pub place: String,
    pub tonnes_left: f64,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

impl LotDisposition {
    /// It was given for this certificate and this specification.
    pub fn is_of(&self, lot_revision_id: Uuid, specification_revision_id: Uuid) -> bool {
        self.lot_revision_id == Some(lot_revision_id)
            && self.specification_revision_id == Some(specification_revision_id)
    }
}

/// The newest decision and stock of a lot.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Disposition {
    pub decision: Option<LotDisposition>,
    pub stock: Option<LotStock>,
}

impl Store {
    /// How lots stand now; those nobody decided or placed are left out.
    pub async fn dispositions(&self, lot_ids: &[Uuid]) -> Result<HashMap<Uuid, Disposition>> {
        self.dispositions_at(lot_ids, Utc::now()).await
    }

    /// The same as it stood at a time.
    pub async fn dispositions_at(
        &self,
        lot_ids: &[Uuid],
        at: DateTime<Utc>,
    ) -> Result<HashMap<Uuid, Disposition>> {
        let connection = &mut self.connection().await?;
        let decisions: Vec<LotDisposition> = lot_disposition::table
            .filter(lot_disposition::lot_id.eq_any(lot_ids))
            .filter(lot_disposition::made_at.le(at))
            .distinct_on(lot_disposition::lot_id)
            .order((
                lot_disposition::lot_id,
                lot_disposition::made_at.desc(),
                lot_disposition::id.desc(),
            ))
            .load(connection)
            .await?;
        let stocks: Vec<LotStock> = lot_stock::table
            .filter(lot_stock::lot_id.eq_any(lot_ids))
            .filter(lot_stock::made_at.le(at))
            .distinct_on(lot_stock::lot_id)
            .order((lot_stock::lot_id, lot_stock::made_at.desc(), lot_stock::id.desc()))
            .load(connection)
            .await?;
        let mut dispositions: HashMap<Uuid, Disposition> = HashMap::new();
        for decision in decisions {
            let disposition: &mut Disposition = dispositions.entry(decision.lot_id).or_default();
            disposition.decision = Some(decision);
        }
        for stock in stocks {
            let disposition: &mut Disposition = dispositions.entry(stock.lot_id).or_default();
            disposition.stock = Some(stock);
        }
        Ok(dispositions)
    }

    /// Every decision on a lot, newest first.
    pub async fn decisions(&self, lot_id: Uuid) -> Result<Vec<LotDisposition>> {
        Ok(lot_disposition::table
            .filter(lot_disposition::lot_id.eq(lot_id))
            .order((lot_disposition::made_at.desc(), lot_disposition::id.desc()))
            .load(&mut self.connection().await?)
            .await?)
    }

    /// One decision.
    pub async fn decision(&self, id: Uuid) -> Result<LotDisposition> {
        let found = lot_disposition::table.find(id).first(&mut self.connection().await?).await;
        found.optional()?.ok_or(StoreError::NotFound("this decision"))
    }

    /// What was once seen of a lot's stock.
    pub async fn stock(&self, id: Uuid) -> Result<LotStock> {
        let found = lot_stock::table.find(id).first(&mut self.connection().await?).await;
        found.optional()?.ok_or(StoreError::NotFound("this stock"))
    }

    /// Records decisions. Sent twice, each is stored once.
    pub async fn add_dispositions(&self, new: &[LotDisposition]) -> Result<()> {
        add_once!(self, lot_disposition, new, |error| StoreError::or_missing(error, "this lot"))
    }

    /// Records where a lot lies and how much is left. Sent twice, it is stored once.
    pub async fn add_stock(&self, new: &LotStock) -> Result<()> {
        add_once!(self, lot_stock, new, |error| StoreError::or_missing(error, "this lot"))
    }
}
