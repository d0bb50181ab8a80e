//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use super::NotLearned;
use crate::units::serialize_in_words;

serialize_in_words!(NotLearned);

impl Display for NotLearned {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::NotFinished => "it is not finished",
            Self::Scrapped => "it was scrapped",
            Self::DamagedStarch => {
                "water was added by feel while damaged starch was high: that is no water the flour \
                 needs"
            }
            Self::WaterSet => "its water was overridden, or changed by style",
            Self::NothingSaid => "nobody ticked its water, added any or judged its consistency",
            Self::Outlier => "too far off all others",
            Self::LowScore => "its crumb was judged below the plant's least",
        })
    }
}
