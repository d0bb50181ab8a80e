//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use super::{EventRefusal, Misplaced};
use crate::units::{quoted, serialize_in_words};

serialize_in_words!(Misplaced);

impl Display for EventRefusal {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::Missing(field) => write!(f, "{} is missing", field.replace('_', " ")),
            Self::Impossible { message, likely_meant: None } => f.write_str(message),
            Self::Impossible { message, likely_meant: Some(meant) } => {
                write!(f, "{message}: {meant:.1}?")
            }
            Self::Unknown { field, given } => {
                let field = field.replace('_', " ");
                write!(f, "{} is no {field} that is known", quoted(given))
            }
            Self::TooLong { field, most } => {
                write!(f, "{} is too long; up to {most}", field.replace('_', " "))
            }
            Self::StrangeStage => f.write_str("its method has no such stage"),
            Self::CorrectsItself => f.write_str("an event cannot correct itself"),
            Self::Future => f.write_str("it lies in the future: look at this device's clock"),
            Self::BeforePlanned => f.write_str("it lies before the batch was planned"),
        }
    }
}

impl Display for Misplaced {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::NotStarted => f.write_str("the batch had not started"),
            Self::AlreadyStarted => f.write_str("the batch had started already"),
            Self::Held => f.write_str("the batch was held"),
            Self::NotHeld => f.write_str("the batch was not held"),
            Self::Finished => f.write_str("the batch was finished"),
            Self::Scrapped => f.write_str("the batch was scrapped"),
            Self::StageBegun => f.write_str("the stage had begun already"),
            Self::StageOver => f.write_str("the stage was over already"),
            Self::NothingToCorrect => f.write_str("what it corrects is not here"),
            Self::Impossible(refusal) => write!(f, "as corrected it cannot be: {refusal}"),
        }
    }
}
