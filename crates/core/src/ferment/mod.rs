//! How a dough ferments: its gas, its sugar, its culture and its temperature over time.

mod culture;
mod dough;
mod fermentation;
mod film;
mod fit;
mod solve;
mod track;
mod upkeep;

pub use culture::Culture;
pub use dough::{FermentingDough, SPONGE_LAG_H};
pub use fermentation::{
    FermentationAnswer, FermentationInput, FermentingInput, PhaseInput, Ripeness, RiseReached,
};
pub use film::{FilmFlour, retention, rise_limit_pct};
pub use fit::{Rate, Reading, fit_rate};
pub use solve::{NotReachable, yeast_for};
pub use track::{Begun, Phase, Point, Track, Within, ferment, ferment_on};
pub use upkeep::{Feed, FeedInput};
