//! What another lot, or a mended one, does to the dough.

mod comparison;
mod correction;
mod words;

pub use comparison::{Consequence, Difference, LotComparison, compare_lots};
pub use correction::{
    AmountOf, Corrected, Correction, CorrectionError, CorrectionInput, CorrectionTargets, SievedBy,
};
