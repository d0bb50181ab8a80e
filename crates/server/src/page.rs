use chrono::{DateTime, Utc};
use ironpeel_store::PageKey;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// Rows in one page of a list.
pub const PAGE: i64 = 50;

/// Where a page begins: after this row, counted from the newest.
#[derive(Debug, Clone, Copy, Deserialize, Serialize, IntoParams, ToSchema)]
#[into_params(parameter_in = Query)]
pub struct After {
    pub after_at: Option<DateTime<Utc>>,
    pub after_id: Option<Uuid>,
}

impl After {
    pub fn key(self) -> Option<PageKey> {
        self.after_at.zip(self.after_id)
    }
}

/// Cuts the one row too many that was asked for, and says where the next page begins.
pub fn cut<T>(rows: &mut Vec<T>, key: impl Fn(&T) -> PageKey) -> Option<After> {
    let more = rows.len() > PAGE as usize;
    rows.truncate(PAGE as usize);
    let last = rows.last().filter(|_| more)?;
    let (at, id) = key(last);
    Some(After { after_at: Some(at), after_id: Some(id) })
}
