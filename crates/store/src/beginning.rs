//! What a plant has of what its first mixing sheet takes.

use diesel::QueryableByName;
use diesel::sql_types::Bool;
use diesel_async::RunQueryDsl;
use serde::Serialize;

use crate::error::Result;
use crate::store::Store;

/// What is on record already, in the order a plant begins.
#[derive(Debug, Clone, Copy, PartialEq, Eq, QueryableByName, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[expect(clippy::struct_excessive_bools, reason = "each is a fact of its own")]
pub struct Beginning {
    /// Somebody set what is everybody's: time zone, units, currency.
    #[diesel(sql_type = Bool)]
    pub settings: bool,
    /// There is somebody beside the first.
    #[diesel(sql_type = Bool)]
    pub people: bool,
    /// A line with its mixer.
    #[diesel(sql_type = Bool)]
    pub line: bool,
    /// A flour with its specification.
    #[diesel(sql_type = Bool)]
    pub specification: bool,
    /// A lot with its certificate.
    #[diesel(sql_type = Bool)]
    pub lot: bool,
    #[diesel(sql_type = Bool)]
    pub product: bool,
    /// A planned mixing sheet.
    #[diesel(sql_type = Bool)]
    pub batch: bool,
}

impl Store {
    pub async fn beginning(&self) -> Result<Beginning> {
        const ASKED: &str = "SELECT \
            EXISTS (SELECT FROM audit_entry WHERE subject = '/api/v1/plant/settings') AS settings, \
            (SELECT count(*) > 1 FROM (SELECT FROM person WHERE NOT demo LIMIT 2) AS beside) AS people, \
            EXISTS (SELECT FROM line) AS line, \
            EXISTS (SELECT FROM specification_revision) AS specification, \
            EXISTS (SELECT FROM lot) AS lot, \
            EXISTS (SELECT FROM product) AS product, \
            EXISTS (SELECT FROM batch) AS batch";
        Ok(diesel::sql_query(ASKED).get_result(&mut self.connection().await?).await?)
    }
}
