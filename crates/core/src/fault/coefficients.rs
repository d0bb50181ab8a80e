//! What the sum rests on; the weights, limits and ratios themselves are data beside the code.

use crate::coefficient::{Coefficient, coefficients};

coefficients! {
    NONE_OF_THESE = Coefficient::house("fault_none_of_these", "before any evidence, none of the causes",
        (0.15, 0.10, 0.25), "", "lists are never whole");
    RATIO_CUT = Coefficient::house("fault_ratio_cut", "one reading says at most", (8.0, 5.0, 12.0),
        ": 1", "house judgement deserves no more").within(2.0, 100.0);
    FAMILY_CUT = Coefficient::house("fault_family_cut", "readings of one kind say at most together",
        (12.0, 8.0, 20.0), ": 1", "they partly repeat each other").within(2.0, 1000.0);
    EVIDENCE_CUT = Coefficient::house("fault_evidence_cut", "all evidence of a cause says at most",
        (50.0, 30.0, 100.0), ": 1", "house judgement deserves no more").within(2.0, 10_000.0);
    /// What makes a reading count towards an answer, ln.
    SPEAKS = Coefficient::house("fault_reading_speaks", "a reading counts from a log ratio of",
        (0.4, 0.3, 0.6), "", "less hardly moves anything");
    /// From where on words are chosen.
    LEADING = Coefficient::house("fault_leading", "a cause leads from", (0.4, 0.3, 0.5), "",
        "below it no single cause stands out");
    LIKELY = Coefficient::house("fault_likely", "a cause is likely from", (0.6, 0.5, 0.7), "",
        "a word for a figure");
    VERY_LIKELY = Coefficient::house("fault_very_likely", "a cause is very likely from",
        (0.8, 0.7, 0.9), "", "a word for a figure");
    AHEAD = Coefficient::house("fault_ahead", "a cause leads by a factor of", (1.5, 1.2, 2.0), "",
        "closer ones are shown beside each other");
    IN_A_CHAIN = Coefficient::house("fault_in_a_chain", "both ends of a chain hold at least",
        (0.05, 0.03, 0.1), "", "then they are one road, not rivals");
    PRIOR_COUNTS = Coefficient::house("fault_prior_counts", "the house's weights count as so many cases",
        (12.0, 6.0, 30.0), "cases", "until the plant's own confirmed ones say more");
    /// What arms the damaged-starch trap beside the critical level, and what springs it, points.
    TRAP_ARMED = Coefficient::house("trap_armed_by", "damaged starch over the previous lot arms the trap",
        (1.5, 1.0, 2.5), "points", "hands go on by the last lot's feel");
    TRAP_OVER_PLAN = Coefficient::house("trap_over_plan", "water over plan springs the trap",
        (1.0, 0.5, 1.5), "points", "more than scales and habit");
    TRAP_LATE_WATER = Coefficient::house("trap_late_water", "water after clean-up springs the trap",
        (0.5, 0.3, 1.0), "points", "it was added for feel");
    /// What makes a dough one of rye, or of whole grain.
    RYE_DOUGH_PCT = Coefficient::house("fault_rye_dough", "a dough is one of rye from",
        (20.0, 15.0, 30.0), "% of all flour", "its starch and pentosan decide by then");
    WHOLE_DOUGH_PCT = Coefficient::house("fault_whole_dough", "a dough is one of whole grain from",
        (30.0, 20.0, 40.0), "% of all flour", "its bran decides by then");
    SOFTENING_FAT_PCT = Coefficient::house("fault_softening_fat", "fat keeps a crumb soft from",
        (2.0, 1.5, 3.0), "% of all flour", "less is mainly for the moulder");
    /// What a person confirmed counts by judgement alone, of one tried by a change.
    JUDGED_COUNTS = Coefficient::house("judged_case_counts", "a case confirmed by judgement counts as",
        (0.5, 0.25, 0.75), "cases", "nobody saw the fault go");
    CASE_HALF_LIFE_D = Coefficient::house("case_half_life", "a confirmed case counts half after",
        (365.0, 180.0, 730.0), "days", "flours, people and machines change").within(30.0, 3650.0);
    LINE_CASES = Coefficient::house("line_cases", "a line's own cases count alone from",
        (10.0, 6.0, 20.0), "cases", "fewer say little of one line");
    /// How a plant's own batches move the ratios of the evidence.
    RATIO_COUNTS = Coefficient::house("fault_ratio_counts", "the house's ratios count as so many batches",
        (10.0, 5.0, 20.0), "batches", "until the plant's own say more");
    ORDINARY_COUNT = Coefficient::house("fault_ordinary_count", "ordinary batches count as at most",
        (50.0, 30.0, 100.0), "batches", "there are many, and few causes");
    RATIO_CASES = Coefficient::house("fault_ratio_cases", "confirmed cases before a ratio is the plant's own",
        (5.0, 4.0, 10.0), "cases", "fewer are chance").within(1.0, 1000.0);
    /// What makes a figure one that drifts.
    DRIFT_BATCHES = Coefficient::house("drift_batches", "newest batches in which a drift is looked for",
        (8.0, 6.0, 12.0), "batches", "about a week of a product").within(3.0, 50.0);
    DRIFT_BEYOND = Coefficient::house("drift_beyond", "a figure drifts where it lies beyond in",
        (6.0, 5.0, 8.0), "batches", "where three in ten lie beyond by chance, that is once in ninety").within(2.0, 50.0);
    DRIFT_SHARE = Coefficient::house("drift_share", "it lies beyond from this share of the way to its threshold",
        (0.5, 0.4, 0.7), "", "half-way, before it is a fault").within(0.1, 1.0);
}
