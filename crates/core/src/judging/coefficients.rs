//! What judging rests on: how far judges, loaves and batches scatter, and what each characteristic weighs.

use crate::coefficient::{Coefficient, coefficients};

coefficients! {
    JUDGE_SD = Coefficient::house("judge_sd", "repeatability of a judge before any repeat, 1 σ",
        (0.5, 0.3, 0.8), "marks", "one trait of the sheet, by somebody who has judged before");
    JUDGE_SD_COUNTS = Coefficient::house("judge_sd_counts", "it counts as so many repeats",
        (6.0, 3.0, 12.0), "repeats", "until the judge's own say more");
    LOAF_SD = Coefficient::house("loaf_sd", "scatter of loaves of one dough, 1 σ",
        (0.35, 0.2, 0.6), "marks", "one trait of the sheet, loaves of one bake");
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
    /// Over which a measured mark falls from 5 to 1: per cent of the target, or in the measure's unit.
    RANGE_VOLUME = Coefficient::house("range_volume", "volume: from best to worst over", (25.0, 15.0, 35.0),
        "% of target", "specific volume, by seed or laser").within(5.0, 100.0);
    RANGE_SHAPE = Coefficient::house("range_shape", "shape: from best to worst over", (20.0, 10.0, 30.0),
        "mm", "height left less right").within(2.0, 100.0);
    RANGE_CRUST = Coefficient::house("range_crust_colour", "crust colour: from best to worst over",
        (16.0, 10.0, 24.0), "ΔE", "distance from the product's chip").within(2.0, 60.0);
    RANGE_BLISTERS = Coefficient::house("range_blisters", "crust character: from best to worst over",
        (20.0, 10.0, 40.0), "blisters", "over 4 mm on the top face").within(2.0, 200.0);
    RANGE_SPRING = Coefficient::house("range_spring", "break: from best to worst over", (100.0, 60.0, 100.0),
        "% of target", "no spring at all is the worst").within(20.0, 200.0);
    RANGE_CELLS = Coefficient::house("range_cells", "openness: from best to worst over", (60.0, 40.0, 80.0),
        "% of target", "cells per cm² at three places").within(10.0, 200.0);
    TARGET_HOLE = Coefficient::house("target_hole", "largest hole not of the style, target", (3.0, 1.0, 5.0),
        "mm", "smaller ones are crumb").within(0.0, 20.0);
    RANGE_HOLE = Coefficient::house("range_hole", "evenness: from best to worst over", (20.0, 12.0, 25.0),
        "mm", "largest hole not of the style").within(2.0, 100.0);
    RANGE_CRUMB = Coefficient::house("range_crumb_colour", "crumb colour: from best to worst over",
        (12.0, 8.0, 18.0), "ΔE", "distance from the product's chip").within(2.0, 60.0);
    RANGE_PRESS = Coefficient::house("range_press", "texture: from best to worst over", (60.0, 40.0, 80.0),
        "%", "recovery in 5 s after a quarter's press").within(10.0, 100.0);
    RANGE_TRAY = Coefficient::house("range_tray", "slicing: from best to worst over", (400.0, 200.0, 600.0),
        "% of target", "four times the usual crumbs").within(50.0, 2000.0);
    /// A batch whose crumb is judged below it teaches nothing of its water.
    CRUMB_FLOOR = Coefficient::house("crumb_floor", "crumb has to be judged at least", (3.0, 2.5, 3.5),
        "marks", "else the water that spoilt it would be learned").within(1.0, 5.0);
}
