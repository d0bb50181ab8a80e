//! What judging rests on: how far judges, loaves and batches scatter, and what each characteristic weighs.

use crate::coefficient::{Coefficient, coefficients};

coefficients! {
    JUDGE_SD = Coefficient::house("judge_sd", "repeatability of a judge before any repeat, 1 σ",
        (0.5, 0.3, 0.8), "marks", "one trait of the sheet, by somebody who has judged before");
    JUDGE_SD_COUNTS = Coefficient::house("judge_sd_counts", "it counts as so many repeats",
        (6.0, 3.0, 12.0), "repeats", "until the judge's own say more");
    LEVEL_COUNTS = Coefficient::house("judge_level_counts", "a level of nought counts as so many loaves",
        (10.0, 5.0, 20.0), "loaves", "a judge's level shows slowly");
    /// A mark this low on volume, stickiness or flavour is a stop.
    STOP_MARK = Coefficient::house("stop_mark", "a mark that stops a loaf, at most", (1.5, 1.0, 2.0),
        "marks", "a total does not buy it back");
    /// Weight marked below which there is no total.
    LEAST_WEIGHT = Coefficient::house("least_weight", "weight that has to be marked for a total",
        (70.0, 50.0, 90.0), "of 100", "a total of few traits is another total");
    /// What each characteristic weighs where a product states no weights of its own; together 100.
    WEIGHT_VOLUME = Coefficient::house("weight_volume", "weight of volume", (12.0, 0.0, 24.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_SHAPE = Coefficient::house("weight_shape", "weight of shape and symmetry", (8.0, 0.0, 16.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_CRUST_COLOUR = Coefficient::house("weight_crust_colour", "weight of crust colour", (8.0, 0.0, 16.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_CRUST_CHARACTER = Coefficient::house("weight_crust_character", "weight of crust character", (5.0, 0.0, 10.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_BREAK = Coefficient::house("weight_break", "weight of break and shred, or cut opening", (6.0, 0.0, 12.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_OPENNESS = Coefficient::house("weight_openness", "weight of crumb openness", (10.0, 0.0, 20.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_EVENNESS = Coefficient::house("weight_evenness", "weight of evenness and holes", (8.0, 0.0, 16.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_CRUMB_COLOUR = Coefficient::house("weight_crumb_colour", "weight of crumb colour", (4.0, 0.0, 8.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_TEXTURE = Coefficient::house("weight_texture", "weight of crumb texture", (10.0, 0.0, 20.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_STICKINESS = Coefficient::house("weight_stickiness", "weight of stickiness", (8.0, 0.0, 16.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_SLICING = Coefficient::house("weight_slicing", "weight of slicing and buttering", (6.0, 0.0, 12.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
    WEIGHT_FLAVOUR = Coefficient::house("weight_flavour", "weight of smell and flavour", (15.0, 0.0, 30.0),
        "of 100", "of a usual loaf").within(0.0, 100.0);
}
