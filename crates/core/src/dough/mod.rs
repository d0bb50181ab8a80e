//! The formula in baker's percent, scaled to a dough and weighed on a real scale.

mod formula;
mod ingredient;
mod scale;
mod weigh;

pub use formula::{FLOUR_PCT, Formula, Line, LineInput};
pub use ingredient::{Effect, Ingredient};
pub use scale::{Amount, AmountInput, Losses, Scaled, scale};
pub use weigh::{Weighed, weigh};
