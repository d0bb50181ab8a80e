use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel::sql_types::{BigInt, Bool, Nullable, Text, Timestamptz, Uuid as SqlUuid};
use diesel_async::RunQueryDsl;
use serde::Serialize;
use uuid::Uuid;

use crate::error::Result;
use crate::store::Store;

/// A mill the plant has flours of; the plant's own blends are of a mill too.
#[derive(Debug, Clone, PartialEq, Eq, QueryableByName, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Mill {
    #[diesel(sql_type = SqlUuid)]
    pub id: Uuid,
    #[diesel(sql_type = Text)]
    pub name: String,
    #[diesel(sql_type = BigInt)]
    pub flours: i64,
    /// When its newest lot came; none before the first.
    #[diesel(sql_type = Nullable<Timestamptz>)]
    pub newest_lot_at: Option<DateTime<Utc>>,
    /// Whether its own table of readings was read once and is known.
    #[diesel(sql_type = Bool)]
    pub is_table_known: bool,
}

impl Store {
    /// Every mill, by name.
    pub async fn mills(&self) -> Result<Vec<Mill>> {
        // A place in the index for each flour, however many lots it has.
        Ok(diesel::sql_query(
            "SELECT mill.id, mill.name, \
             (SELECT count(*) FROM flour WHERE flour.mill_id = mill.id) AS flours, \
             (SELECT max(newest.received_at) FROM flour CROSS JOIN LATERAL \
              (SELECT lot.received_at FROM lot WHERE lot.flour_id = flour.id \
               ORDER BY lot.received_at DESC, lot.id DESC LIMIT 1) AS newest \
              WHERE flour.mill_id = mill.id) AS newest_lot_at, \
             EXISTS (SELECT 1 FROM mill_mapping WHERE mill_mapping.mill = mill.name) \
              AS is_table_known \
             FROM mill ORDER BY mill.name",
        )
        .load(&mut self.connection().await?)
        .await?)
    }
}
