//! What a certificate says of a flour, on which basis, and whether it is in specification.

mod age;
mod alveograph;
mod bag;
mod blend;
mod certificate;
mod certificate_text;
pub mod coefficients;
mod curve_check;
mod drift;
mod falling_number;
mod farinograph;
mod flour_type;
mod mapping;
mod moisture;
mod moisture_basis;
mod names;
mod property;
mod reading;
mod release;
mod revised;
mod sift;
mod smooth;
mod species;
mod specification;
mod strength;
mod suggest_limits;
mod treatment;
mod words;

pub use age::FlourAge;
pub use alveograph::{
    AlveogramCurve, AlveogramCurveInput, AlveogramNote, AlveographAnswer, AlveographInput, Curve,
    read_curves,
};
pub use bag::{Bag, BagInput};
pub use blend::{
    Blend, BlendAnswer, BlendCheck, BlendFlour, BlendFlourInput, BlendInput, BlendProperty,
    BlendShare, BlendShares, BlendTargetInput, Conflict, ConflictOf, LotInBlend, Mixture, Side,
    Target, blend_price, blended_certificate,
};
pub use certificate::{CertificateColumn, Row, RowFault, read_rows};
pub use certificate_text::{RowInText, rows_in_text};
pub use curve_check::{
    CurveCheck, FromCurve, check_against_curve, from_alveogram, from_farinogram,
};
pub use drift::{Drift, DriftPoint, drift};
pub use falling_number::{LEAST_FALLING_NUMBER_S, falling_number, liquefaction};
pub use farinograph::{
    Farinogram, FarinogramNote, FarinographAnswer, FarinographInput, FarinographMixer, LateMark,
    MovedMarks,
};
pub use flour_type::{FlourType, flour_types};
pub use mapping::{
    ColumnMeaning, DateOrder, LotField, MappedLot, Mapping, date_parts, is_blank, own_header_of,
    suggest_mapping,
};
pub use moisture::{
    Moisture, MoistureBasisAnswer, MoistureBasisInput, absorption_at_moisture, at_moisture,
};
pub use moisture_basis::MoistureBasis;
pub use names::{
    FlourName, Hardness, NameKind, NameProtein, NameStanding, UseByProtein, flour_names,
    hard_and_soft,
};
pub use property::{BasisConversion, Property, Repeatability, usual_basis};
pub use reading::{Censored, Reading, Readings, ValuesByBasis};
pub use release::{Barred, Decision, barred};
pub use revised::{Revised, revised};
pub use sift::{SIEVE_PASSES, SievePass, Sift, SiftAnswer, SiftInput, SiftMiss, SiftTarget};
pub use species::Species;
pub use specification::{
    Assessment, Limit, LimitFault, RequirementCheck, Verdict, assess, nonconformities, targets,
};
pub use strength::{StrengthClass, TenacityClass};
pub use suggest_limits::{IntendedUse, SuggestedFrom, SuggestedLimit, suggest_limits};
pub use treatment::Treatment;
