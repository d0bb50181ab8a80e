//! What a certificate says of a flour, on which basis, and whether it is in specification.

mod age;
mod alveograph;
mod blend;
mod certificate;
mod change;
mod curve_check;
mod drift;
mod falling_number;
mod farinograph;
mod mapping;
mod mend;
mod moisture;
mod names;
mod property;
mod propose;
mod reading;
mod release;
mod revised;
mod sift;
mod smooth;
mod species;
mod specification;
mod treatment;

pub use age::{AGED_DAYS, GREEN_DAYS, age_says};
pub use alveograph::{AlveographAnswer, AlveographInput, Bubble, BubbleInput, Curve, read_bubbles};
pub use blend::{
    Blend, BlendAnswer, BlendFlour, BlendFlourInput, BlendInput, BlendProperty, BlendTargetInput,
    Conflict, Mixture, Share, Side, Target,
};
pub use certificate::{Column, Row, RowFault, read_rows};
pub use change::{Change, Consequence, Difference, change, usual_basis};
pub use curve_check::{
    CurveCheck, FromCurve, check_against_curve, from_alveogram, from_farinogram,
};
pub use drift::{Drift, DriftPoint, drift};
pub use falling_number::{falling_number, liquefaction};
pub use farinograph::{
    Farinogram, FarinographAnswer, FarinographInput, FarinographMixer, MovedMarks,
};
pub use mapping::{
    ColumnMeaning, DateOrder, HeadField, MappedLot, Mapping, date_parts, own_header_of,
    propose_mapping, says_nothing,
};
pub use mend::{CannotMend, Mended, Mending};
pub use moisture::{
    Moisture, MoistureBasisAnswer, MoistureBasisInput, absorption_at_moisture, at_moisture,
};
pub use names::{FlourName, Hardness, NameKind, flour_names, hard_and_soft, strength, temper};
pub use property::{Movement, Property, Repeatability};
pub use propose::{IntendedUse, Proposal, ProposedFrom, propose};
pub use reading::{Censored, MoistureBasis, OnBases, Reading, Readings};
pub use release::{Decision, barred};
pub use revised::{Revised, revised};
pub use sift::{
    BRAN_ASH, SIEVE_PASSES, SievePass, Sift, SiftAnswer, SiftInput, Wanted as SiftWanted,
};
pub use species::Species;
pub use specification::{Assessment, Limit, LimitFault, Rule, Verdict, assess, concerns, targets};
pub use treatment::Treatment;
