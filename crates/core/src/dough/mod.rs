//! The formula in baker's percent, split over its parts, scaled to a dough and weighed on a real
//! scale.

mod allergens;
mod by_amount;
mod columns;
mod compare;
mod cost;
mod formula;
mod ingredient;
mod keep;
mod library;
mod part;
mod quantity;
mod scale;
mod starter;
mod weigh;

pub use allergens::{Allergen, AllergenFlour, AllergenLine, AllergenStatement, allergen_line};
pub use by_amount::{AmountLine, AmountRead, AmountsRead, ByAmount, StarterAmount};
pub use columns::{Column, Columns, TooMuchEarlyWater};
pub use compare::{Compared, compare};
pub use cost::{Cost, PointOfWater, cost};
pub use formula::{FLOUR_PCT, FlourShare, FlourShareInput, Formula, FormulaDraft, Line, LineInput};
pub use ingredient::Ingredient;
pub use keep::{CannotKeep, Keep, Masses};
pub use library::{Effect, Facts, FactsInput, IngredientPrice, Library, Role, Storage};
pub use part::{DoughPart, DoughPartInput, PartKind};
pub use quantity::{QuantityError, read_quantity};
pub use scale::{Amount, AmountInput, Losses, LossesInput, Scaled, scale};
pub use starter::{StarterAnswer, StarterConvention, StarterInput, StarterShares};
pub(crate) use weigh::shown;
pub use weigh::{Weighed, weigh};
