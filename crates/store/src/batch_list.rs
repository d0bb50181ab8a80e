//! Batches as lists, boards and charts show them.

use chrono::{DateTime, Utc};
use diesel::dsl::exists;
use diesel::pg::Pg;
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use ironpeel_core::batch::BatchState;
use serde::Serialize;
use uuid::Uuid;

use crate::batch_state::{BatchFigures, BatchSeen};
use crate::error::Result;
use crate::schema::{
    batch, batch_event, batch_lot, batch_state, fault_case, flour, line, lot, product,
};
use crate::store::{PageKey, Store, past};
use crate::word::Word;

/// A batch as lists show it.
#[derive(Debug, Clone, PartialEq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BatchSummary {
    pub id: Uuid,
    #[cfg_attr(feature = "openapi", schema(value_type = BatchState))]
    pub state: Word<BatchState>,
    pub product: String,
    pub slug: String,
    pub line: String,
    pub line_id: Uuid,
    pub lot: String,
    pub lot_id: Uuid,
    pub flour: String,
    pub planned_for: DateTime<Utc>,
    pub started_at: Option<DateTime<Utc>>,
    pub ended_at: Option<DateTime<Utc>>,
    pub saved_at: DateTime<Utc>,
    pub saved_by: String,
    /// Events that found no place, for a person to look at.
    pub unplaced: i32,
    #[serde(flatten)]
    pub figures: BatchFigures,
    #[serde(flatten)]
    pub seen: BatchSeen,
}

/// Which batches are wanted; all where nothing is set.
#[derive(Debug, Clone, Default)]
pub struct BatchFilter {
    /// By slug.
    pub product: Option<String>,
    pub line_id: Option<Uuid>,
    /// By code.
    pub lot: Option<String>,
    pub states: Vec<BatchState>,
    pub person_id: Option<Uuid>,
    /// Planned from and until before.
    pub from: Option<DateTime<Utc>>,
    pub to: Option<DateTime<Utc>>,
    /// Part of the product's, the lot's, the flour's or the line's name.
    pub text: Option<String>,
    /// Judged below.
    pub score_below: Option<f64>,
    /// By its key: somebody looked for its cause and said what it was.
    pub fault: Option<String>,
}

/// A batch as a chart and learning take it.
#[derive(Debug, Clone, PartialEq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ChartBatch {
    pub id: Uuid,
    #[cfg_attr(feature = "openapi", schema(value_type = BatchState))]
    pub state: Word<BatchState>,
    pub planned_for: DateTime<Utc>,
    pub lot: String,
    pub flour_id: Uuid,
    pub standing_pts: f64,
    pub damaged_starch_caution: bool,
    pub water_was_set: bool,
    #[serde(flatten)]
    pub figures: BatchFigures,
    #[serde(flatten)]
    pub seen: BatchSeen,
}

/// The columns of a batch as lists show it.
macro_rules! summary_columns {
    () => {
        (
            batch_state::batch_id,
            batch_state::state,
            product::name,
            product::slug,
            line::name,
            batch_state::line_id,
            lot::code,
            batch_state::lot_id,
            flour::name,
            batch_state::planned_for,
            batch_state::started_at,
            batch_state::ended_at,
            batch::saved_at,
            batch::saved_by,
            batch_state::unplaced,
            BatchFigures::as_select(),
            BatchSeen::as_select(),
        )
    };
}

impl Store {
    /// Batches from the newest planned to the oldest.
    pub async fn batches(
        &self,
        filter: &BatchFilter,
        after: Option<PageKey>,
        most: i64,
    ) -> Result<Vec<BatchSummary>> {
        let mut query = batch_state::table
            .inner_join(batch::table)
            .inner_join(product::table)
            .inner_join(line::table)
            .inner_join(lot::table.inner_join(flour::table))
            .select(summary_columns!())
            .order((batch_state::planned_for.desc(), batch_state::batch_id.desc()))
            .limit(most)
            .into_boxed::<Pg>();
        if let Some(slug) = &filter.product {
            query = query.filter(product::slug.eq(slug));
        }
        if let Some(line_id) = filter.line_id {
            query = query.filter(batch_state::line_id.eq(line_id));
        }
        if let Some(code) = &filter.lot {
            // Whichever of its flours it is the lot of.
            let any = diesel::alias!(lot as any_lot);
            let ids = any.filter(any.field(lot::code).eq(code)).select(any.field(lot::id));
            let of_lot = batch_lot::table
                .filter(batch_lot::batch_id.eq(batch_state::batch_id))
                .filter(batch_lot::lot_id.eq_any(ids));
            query = query.filter(exists(of_lot));
        }
        if !filter.states.is_empty() {
            let states: Vec<_> = filter.states.iter().map(|state| Word(*state)).collect();
            query = query.filter(batch_state::state.eq_any(states));
        }
        if let Some(person_id) = filter.person_id {
            let theirs = batch_event::table
                .filter(batch_event::batch_id.eq(batch_state::batch_id))
                .filter(batch_event::person_id.eq(person_id));
            query = query.filter(exists(theirs));
        }
        if let Some(from) = filter.from {
            query = query.filter(batch_state::planned_for.ge(from));
        }
        if let Some(to) = filter.to {
            query = query.filter(batch_state::planned_for.lt(to));
        }
        if let Some(most) = filter.score_below {
            query = query.filter(batch_state::score.lt(most));
        }
        if let Some(fault) = &filter.fault {
            let cases = fault_case::table
                .filter(fault_case::batch_id.eq(batch_state::batch_id))
                .filter(fault_case::fault.eq(fault));
            query = query.filter(exists(cases));
        }
        if let Some(text) = &filter.text {
            let escaped = text.replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_");
            let like = format!("%{escaped}%");
            let fits = product::name
                .ilike(like.clone())
                .or(lot::code.ilike(like.clone()))
                .or(flour::name.ilike(like.clone()));
            query = query.filter(fits.or(line::name.ilike(like)));
        }
        if let Some(key) = after {
            query = query.filter(past!("batch_state.planned_for, batch_state.batch_id", "<", key));
        }
        Ok(query.load(&mut self.connection().await?).await?)
    }

    /// The last batches of a product on a line, or of a whole line, oldest first.
    pub async fn chart_batches(
        &self,
        product_id: Option<Uuid>,
        line_id: Option<Uuid>,
        after: Option<DateTime<Utc>>,
        most: i64,
    ) -> Result<Vec<ChartBatch>> {
        let mut query = batch_state::table
            .inner_join(lot::table)
            .select((
                batch_state::batch_id,
                batch_state::state,
                batch_state::planned_for,
                lot::code,
                batch_state::flour_id,
                batch_state::standing_pts,
                batch_state::damaged_starch_caution,
                batch_state::water_was_set,
                BatchFigures::as_select(),
                BatchSeen::as_select(),
            ))
            .order((batch_state::planned_for.desc(), batch_state::batch_id.desc()))
            .limit(most)
            .into_boxed::<Pg>();
        if let Some(product_id) = product_id {
            query = query.filter(batch_state::product_id.eq(product_id));
        }
        if let Some(line_id) = line_id {
            query = query.filter(batch_state::line_id.eq(line_id));
        }
        if let Some(after) = after {
            query = query.filter(batch_state::planned_for.ge(after));
        }
        let mut found: Vec<ChartBatch> = query.load(&mut self.connection().await?).await?;
        found.reverse();
        Ok(found)
    }
}
