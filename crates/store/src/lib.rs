//! Ironpeel's records in PostgreSQL.
//!
//! One file per subject holds its rows and queries. Specifications, lots, formulas, methods and
//! lines are never overwritten: each is a chain of numbered revisions with who, when and why.
//! Everything a client makes carries the client's own id, so that sending twice stores once.

mod batch;
mod error;
mod flour;
mod formula;
mod line;
mod lot;
mod method;
mod product;
mod revision;
mod schema;
mod store;
#[cfg(feature = "testing")]
pub mod testing;

pub use batch::{Batch, BatchSummary, NewBatch};
pub use error::{Result, StoreError};
pub use flour::{Flour, SpecificationRevision};
pub use formula::{FormulaRevision, NewFormula};
pub use line::LineRevision;
pub use lot::{Lot, LotRevision, LotSummary, NewLotRevision, Stated};
pub use method::MethodRevision;
pub use product::Product;
pub use revision::{Revision, Signed};
pub use store::{PageKey, Store, migrate};
