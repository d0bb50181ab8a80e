//! What the floor was handed with a batch: a record, not recomputed.

use ironpeel_core::chain::Chain;
use ironpeel_store::LotDisposition;
use serde::Serialize;
use utoipa::ToSchema;

use crate::state::Specified;

/// What the floor was handed.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Issued {
    pub product: String,
    pub line: String,
    pub process: &'static str,
    pub lot: String,
    pub flour: String,
    pub mill: String,
    /// Of the formula's other flours.
    pub other_lots: Vec<IssuedLot>,
    pub specification_number: Option<i32>,
    pub lot_number: i32,
    pub formula_number: i32,
    pub method_number: i32,
    pub line_number: i32,
    /// Who released which lot, where somebody did; none of before releases were kept.
    #[schema(required = false)]
    pub releases: Vec<Release>,
    pub chain: Chain,
}

/// A lot that somebody released for this batch.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Release {
    pub lot: String,
    #[serde(flatten)]
    pub decision: LotDisposition,
}

/// A lot of another flour that the floor was handed.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct IssuedLot {
    pub lot: String,
    pub flour: String,
    pub lot_number: i32,
}

impl IssuedLot {
    pub fn of(Specified { lot, .. }: &Specified) -> Self {
        Self {
            lot: lot.code.clone(),
            flour: lot.flour.name.clone(),
            lot_number: lot.current.revision.number,
        }
    }
}
