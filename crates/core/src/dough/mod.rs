//! The formula in baker's percent, split over its parts, scaled to a dough and weighed on a real
//! scale.

mod allergen_line;
mod allergens;
mod by_amount;
pub mod coefficients;
mod columns;
mod compare;
mod cost;
mod edit;
mod formula;
mod house_ingredients;
mod ingredient;
mod ingredient_properties;
mod library;
mod line;
mod part;
mod piece_form;
mod quantity;
mod rescaling;
mod round_to_resolution;
mod scale;
mod starter;
mod vessel;
mod words;

pub use allergen_line::{AllergenFlour, AllergenLine, allergen_line};
pub use allergens::{Allergen, AllergenStatement};
pub use by_amount::{
    AmountLine, AmountRead, AmountsRead, ByAmount, CupFlour, FlourRead, StarterAmount,
};
pub use columns::{DoughColumn, DoughColumns, TooMuchPrefermentWater};
pub use compare::{ComparedLine, compare};
pub use cost::{Cost, PointOfWater, cost};
pub use edit::FormulaEdit;
pub use formula::{FLOUR_PCT, FlourShare, FlourShareInput, Formula, FormulaDraft};
pub use ingredient::Ingredient;
pub use ingredient_properties::{Effect, IngredientProperties, Role, Storage};
pub use library::{IngredientPrice, IngredientPropertiesInput, Library};
pub use line::{Line, LineInput};
pub use part::{Preparation, PreparationInput, PreparationKind};
pub use piece_form::{PieceForm, PieceFormAnswer, PieceFormInput, TinDough};
pub use quantity::{QuantityError, read_quantity};
pub use rescaling::{KeptConstant, Masses, RescalingError};
pub(crate) use round_to_resolution::shown;
pub use round_to_resolution::{RoundedMass, round_to_resolution};
pub use scale::{Amount, AmountInput, Losses, LossesInput, ScaleRequest, Scaled};
pub use starter::{StarterAnswer, StarterConvention, StarterInput, StarterShare, StarterShares};
pub use vessel::Vessel;
