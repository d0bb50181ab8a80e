use chrono::{DateTime, Utc};
use ironpeel_core::units::timestamp;
use ironpeel_store::PageKey;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// Rows in one page of a list.
pub const PAGE: i64 = 50;

/// Where a page begins: after this row, counted from the newest.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct Cursor {
    pub after_at: DateTime<Utc>,
    pub after_id: Uuid,
}

/// The page wanted; the first if both are left out.
#[derive(Debug, Clone, Copy, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct PageQuery {
    #[serde(default, deserialize_with = "timestamp::maybe")]
    pub after_at: Option<DateTime<Utc>>,
    pub after_id: Option<Uuid>,
}

impl PageQuery {
    pub fn key(self) -> Option<PageKey> {
        self.after_at.zip(self.after_id)
    }
}

/// Cuts the one row too many that was asked for, and says where the next page begins.
pub fn paginate<T>(rows: &mut Vec<T>, key: impl Fn(&T) -> PageKey) -> Option<Cursor> {
    let more = rows.len() > PAGE as usize;
    rows.truncate(PAGE as usize);
    let (after_at, after_id) = rows.last().filter(|_| more).map(key)?;
    Some(Cursor { after_at, after_id })
}
