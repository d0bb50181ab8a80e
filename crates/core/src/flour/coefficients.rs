//! What judging and mending a flour rest on. Limits by use and classes of nations are tables of
//! their own.

use crate::coefficient::{Coefficient, coefficients};

const REPEATS: &str =
    "how far two measurements of one sample lie apart; take your laboratory's own";
const CALLED: &str = "what the trade calls it; a plant may draw its own line";
const USED: &str = "what a white flour of so much protein is sold for";
const BEGUN: &str = "a target to begin with; to be set";

coefficients! {
    /// Younger is green, older is aged, days.
    GREEN_DAYS = Coefficient::house("green_days", "a flour is green until", (2.0, 1.0, 3.0), "days",
        "its strength comes with two days of age");
    AGED_DAYS = Coefficient::house("aged_days", "a flour is aged from", (14.0, 10.0, 21.0), "days",
        "it has taken up its air");
    /// What is taken where a certificate does not state it: moisture, protein on 14 %, damaged starch as is,
    /// ash of a white flour on dry matter, %, and the falling number, s.
    USUAL_MOISTURE = Coefficient::house("usual_moisture", "moisture where none is stated",
        (14.0, 13.0, 15.0), "%", "a usual flour from the bag").within(5.0, 18.0);
    USUAL_PROTEIN = Coefficient::house("usual_protein", "protein where none is stated",
        (12.0, 11.0, 13.0), "% on 14 %", "a usual bread flour");
    USUAL_DAMAGED_STARCH = Coefficient::house("usual_damaged_starch",
        "damaged starch where none is stated", (7.5, 6.0, 9.0), "%", "a usual bread flour");
    USUAL_ASH = Coefficient::house("usual_ash", "ash of a white flour where none is stated",
        (0.60, 0.50, 0.70), "% on dry matter", "a usual bread flour");
    USUAL_FALLING_NUMBER = Coefficient::house("usual_falling_number",
        "falling number where none is stated", (300.0, 250.0, 350.0), "s", "a usual bread flour")
        .within(80.0, 500.0);
    /// Extraction from which on a flour counts as partly whole grain, %; at 100 it all is.
    WHITE_EXTRACTION = Coefficient::house("white_extraction",
        "extraction from which on bran counts", (80.0, 76.0, 85.0), "%", "whiter has hardly any")
        .within(60.0, 95.0);
    /// Protein of vital gluten on 14 %.
    GLUTEN_PROTEIN = Coefficient::house("gluten_protein", "protein of vital gluten",
        (75.0, 70.0, 80.0), "% on 14 %", "usual on its label; take yours").within(50.0, 90.0);
    /// What a correction is begun with, beside what the lot has.
    MORE_PROTEIN = Coefficient::house("correction_more_protein", "protein a correction begins with, above the lot's",
        (1.0, 0.5, 2.0), "points", BEGUN);
    LESS_FALLING_NUMBER = Coefficient::house("correction_less_falling_number",
        "falling number a correction begins with, below the lot's", (60.0, 30.0, 100.0), "s", BEGUN);
    LESS_ASH = Coefficient::house("correction_less_ash", "ash a correction begins with, of the lot's",
        (80.0, 70.0, 90.0), "%", BEGUN);
    WHITE_ASH = Coefficient::house("white_flour_ash", "ash of the white flour that takes part",
        (0.55, 0.45, 0.65), "% on dry matter", BEGUN);
    /// Liquefaction number of diastatic malt flour.
    MALT_LIQUEFACTION = Coefficient::house("malt_liquefaction", "liquefaction number of malt flour",
        (2500.0, 1500.0, 4000.0), "", "differs by malt; test the mix before the plant relies on it");
    /// Ash of what a sieve holds back, % on dry matter.
    BRAN_ASH = Coefficient::house("bran_ash", "ash of the bran", (5.8, 5.0, 6.5), "% on dry matter",
        "usual for the coarse bran of wheat; measure your own").within(3.0, 9.0);
    /// Within how much two measurements of one sample agree: a reading so near a limit is borderline.
    REPEATS_MOISTURE = Coefficient::house("repeatability_moisture", "repeatability of moisture",
        (0.2, 0.1, 0.4), "points", REPEATS);
    REPEATS_PROTEIN = Coefficient::house("repeatability_protein", "repeatability of protein",
        (0.2, 0.1, 0.4), "points", REPEATS);
    REPEATS_ASH = Coefficient::house("repeatability_ash", "repeatability of ash",
        (0.02, 0.01, 0.04), "points", REPEATS);
    REPEATS_ABSORPTION = Coefficient::house("repeatability_absorption",
        "repeatability of water absorption", (0.6, 0.3, 1.0), "points", REPEATS);
    REPEATS_DAMAGED_STARCH = Coefficient::house("repeatability_damaged_starch",
        "repeatability of damaged starch", (0.4, 0.2, 0.8), "points", REPEATS);
    REPEATS_WET_GLUTEN = Coefficient::house("repeatability_wet_gluten", "repeatability of wet gluten",
        (0.8, 0.4, 1.5), "points", REPEATS);
    REPEATS_W = Coefficient::house("repeatability_w", "repeatability of W", (8.0, 5.0, 12.0),
        "% of the value", REPEATS);
    REPEATS_FALLING_NUMBER = Coefficient::house("repeatability_falling_number",
        "repeatability of the falling number", (8.0, 5.0, 12.0), "% of the value", REPEATS);
    /// W from which on a flour is called low, medium, strong, and above which very strong, 10⁻⁴ J.
    LOW_FROM = Coefficient::house("low_w", "low strength from W", (120.0, 100.0, 140.0),
        "10⁻⁴ J", CALLED);
    MEDIUM_FROM = Coefficient::house("weak_w", "medium strength from W; below it the film needs help",
        (180.0, 160.0, 200.0), "10⁻⁴ J", CALLED);
    STRONG_FROM = Coefficient::house("strong_from_w", "a strong flour from W",
        (260.0, 240.0, 280.0), "10⁻⁴ J", CALLED);
    VERY_STRONG_FROM = Coefficient::house("strong_w", "a very strong flour above W: its film holds by itself",
        (340.0, 320.0, 360.0), "10⁻⁴ J", CALLED);
    /// P/L from which on a dough is balanced, and above which it is more and is tenacious.
    BALANCED_FROM = Coefficient::house("giving_p_over_l", "a balanced dough from P/L; below it it gives by itself",
        (0.5, 0.4, 0.6), "", CALLED);
    BALANCED_TO = Coefficient::house("balanced_p_over_l", "more than balanced above P/L",
        (0.8, 0.7, 0.9), "", CALLED);
    TENACIOUS_FROM = Coefficient::house("tenacious_p_over_l", "a tenacious dough above P/L",
        (1.0, 0.9, 1.2), "", CALLED);
    /// Protein on 14 % from which on a white flour is for more than cake in the United States.
    US_PASTRY = Coefficient::house("us_pastry_protein", "protein of a US pastry flour, from",
        (8.5, 8.0, 9.0), "% on 14 %", USED);
    US_ALL_PURPOSE = Coefficient::house("us_all_purpose_protein",
        "protein of a US all-purpose flour, from", (9.8, 9.0, 10.5), "% on 14 %", USED);
    US_BREAD_FLOUR = Coefficient::house("us_bread_protein", "protein of a US bread flour, from",
        (11.5, 11.0, 12.0), "% on 14 %", USED);
    US_HIGH_GLUTEN = Coefficient::house("us_high_gluten_protein",
        "protein of a US high-gluten flour, from", (13.5, 13.0, 14.0), "% on 14 %", USED);
    /// Within such a share of the value figures agree where no repeatability is on record, %.
    CURVE_AGREES = Coefficient::house("curve_agrees",
        "certificate and curve agree within", (10.0, 5.0, 15.0), "% of the value",
        "where no repeatability is on record");
    /// Changes from which on a lot is felt to be another: points of water, minutes of development,
    /// minutes of stability.
    FELT_WATER = Coefficient::house("felt_water", "change of water worth telling", (0.5, 0.3, 1.0),
        "points", "less is not felt in the hand");
    FELT_DEVELOPMENT = Coefficient::house("felt_development", "change of development worth telling",
        (0.5, 0.3, 1.0), "min", "less is not seen at the mixer");
    FELT_STABILITY = Coefficient::house("felt_stability", "change of stability worth telling",
        (1.0, 0.5, 2.0), "min", "less is not seen at the mixer");
}
