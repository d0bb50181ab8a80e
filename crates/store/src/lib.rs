//! Ironpeel's records in PostgreSQL.
//!
//! One file per subject holds its rows and queries. Specifications, lots, formulas, methods and
//! lines are never overwritten: each is a chain of numbered revisions with who, when and why.
//! Everything a client makes carries the client's own id, so that sending twice stores once.

mod api_key;
mod audit;
mod author;
mod backup;
mod batch;
mod beginning;
mod blend;
mod database;
mod dough_temperature;
mod error;
mod export;
mod flour;
mod formula;
mod line;
mod live;
mod lot;
mod lot_disposition;
mod lot_import;
mod lot_record;
mod mapping;
mod method;
mod migration;
mod mill;
mod parameters;
mod person;
mod person_role;
mod plant;
mod product;
mod revision;
mod schema;
mod session;
mod setup_code;
mod sign_in;
mod specification;
mod station;
mod store;
#[cfg(feature = "testing")]
pub mod testing;
mod trace;
mod trial;
mod word;

pub use api_key::ApiKey;
pub use audit::{AuditEntry, AuditFilter};
pub use author::{AuditedAct, Author};
pub use backup::{backup, restore};
pub use batch::{Batch, BatchFlour, BatchSummary, NewBatch};
pub use beginning::Beginning;
pub use blend::{BlendPart, BlendRevision, LotPart, NewBlend};
pub use database::Database;
pub use dough_temperature::DoughTemperature;
pub use error::{Result, StoreError};
pub use export::{ExportedColumn, ExportedFile, ExportedTable, Manifest, export};
pub use flour::{Flour, FlourRevision};
pub use formula::{FormulaRevision, NewFormula};
pub use line::{LineRevision, NewLine};
pub use live::Listener;
pub use lot::{Lot, LotRevision, LotSummary, Stated};
pub use lot_disposition::{Disposition, LotDisposition, LotStock};
pub use lot_import::{Imported, ReadingColumn};
pub use lot_record::NewLotRevision;
pub use mapping::MillMapping;
pub use method::{MethodRevision, NewMethod};
pub use migration::{MigrationStep, migrate, migrate_down, migration_steps};
pub use mill::Mill;
pub use parameters::ParametersRevision;
pub use person::{Account, Person, PersonDetails};
pub use person_role::PersonRole;
pub use plant::{MassUnit, Plant, PlantSettings, TemperatureUnit, WeekStart};
pub use product::Product;
pub use revision::{Revision, Signed};
pub use session::Session;
pub use sign_in::SignInFailures;
pub use specification::{CurrentLimits, SpecificationRevision};
pub use station::{NewStation, Station, StationPerson, StationSession};
pub use store::{ClientWrite, PageKey, Store};
pub use trace::{Trace, TraceKind, TraceMark, TraceSource, TraceSummary};
pub use trial::{NewTrial, Trial, TrialSummary};
pub use word::Word;
