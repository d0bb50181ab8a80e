//! What the batches of a period came to, together.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel::sql_types::{BigInt, Double, Nullable, Timestamptz, Uuid as SqlUuid};
use diesel_async::RunQueryDsl;
use serde::Serialize;
use uuid::Uuid;

use crate::error::Result;
use crate::store::Store;

/// Batches of a period.
#[derive(Debug, Clone, Copy, PartialEq, QueryableByName, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BatchPeriod {
    #[diesel(sql_type = BigInt)]
    pub batches: i64,
    #[diesel(sql_type = BigInt)]
    pub scrapped: i64,
    /// How far dough temperatures scatter about their target, 1 σ, °C.
    #[diesel(sql_type = Nullable<Double>)]
    pub dough_c_sd: Option<f64>,
    /// How far water scatters about the plan, 1 σ, points.
    #[diesel(sql_type = Nullable<Double>)]
    pub water_pts_sd: Option<f64>,
    #[diesel(sql_type = Nullable<Double>)]
    pub rejected_pct: Option<f64>,
    /// Pieces rejected and those of scrapped batches, as their ingredients cost.
    #[diesel(sql_type = Nullable<Double>)]
    pub lost_cost: Option<f64>,
}

/// The cost of a piece and the pieces planned, as the sheet was issued.
const QUERY: &str = "
    SELECT count(*) AS batches,
        count(*) FILTER (WHERE state = 'scrapped') AS scrapped,
        stddev_samp(dough_c_d) AS dough_c_sd,
        stddev_samp(water_pts) FILTER (WHERE state = 'finished') AS water_pts_sd,
        100 * sum(pieces_rejected) / nullif(sum(pieces_good + pieces_rejected), 0) AS rejected_pct,
        sum((issued #>> '{chain,dough,cost,per_piece}')::float8 * CASE
            WHEN state = 'scrapped' THEN (issued #>> '{chain,dough,pieces}')::float8
            ELSE coalesce(pieces_rejected, 0) END) AS lost_cost
    FROM batch_state JOIN batch ON batch.id = batch_id
    WHERE batch_state.planned_for >= $1 AND batch_state.planned_for < $2
        AND state IN ('finished', 'scrapped') AND ($3 IS NULL OR batch_state.product_id = $3)";

impl Store {
    /// What the batches planned in a period came to.
    pub async fn batch_period(
        &self,
        from: DateTime<Utc>,
        to: DateTime<Utc>,
        product_id: Option<Uuid>,
    ) -> Result<BatchPeriod> {
        Ok(diesel::sql_query(QUERY)
            .bind::<Timestamptz, _>(from)
            .bind::<Timestamptz, _>(to)
            .bind::<Nullable<SqlUuid>, _>(product_id)
            .get_result(&mut self.connection().await?)
            .await?)
    }
}
