//! What batches teach: the plant's own numbers, each with its band, its history and what was left
//! out. A learned number is offered; a person takes it over.

pub(crate) mod coefficients;
mod learned_number;
mod offer;
mod subject;
mod water;
mod words;

pub use learned_number::{LearnedNumber, LearnedNumberInput, LearnedStep, ObservationInput};
pub use offer::{HitRate, Lesson, Offer, OfferStep, offer};
pub use subject::{LearnedSubject, Settings};
pub use water::{NotLearned, PlannedWater, WaterLesson, water_lesson};
