//! What a certificate says of a flour, on which basis, and whether it is in specification.

mod alveograph;
mod blend;
mod certificate;
mod falling_number;
mod farinograph;
mod moisture;
mod property;
mod reading;
mod sift;
mod smooth;
mod specification;

pub use alveograph::{AlveographAnswer, AlveographInput, Bubble, BubbleInput, Curve, read_bubbles};
pub use blend::{
    Blend, BlendAnswer, BlendFlour, BlendFlourInput, BlendInput, BlendProperty, BlendTargetInput,
    Conflict, Mixture, Share, Side, Target,
};
pub use certificate::{Column, Row, RowFault, read_rows};
pub use falling_number::{falling_number, liquefaction};
pub use farinograph::{Farinogram, FarinographAnswer, FarinographInput, FarinographMixer};
pub use moisture::{
    Moisture, MoistureBasisAnswer, MoistureBasisInput, absorption_at_moisture, at_moisture,
};
pub use property::{Movement, Property, Repeatability};
pub use reading::{MoistureBasis, OnBases, Reading, Readings};
pub use sift::{
    BRAN_ASH, SIEVE_PASSES, SievePass, Sift, SiftAnswer, SiftInput, Wanted as SiftWanted,
};
pub use specification::{Assessment, Limit, LimitFault, Rule, Verdict, assess};
