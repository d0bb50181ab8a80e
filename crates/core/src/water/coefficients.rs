//! What the absorption build-up rests on. What 1 % of an ingredient does is the library's.

use crate::coefficient::{Coefficient, coefficients};
use crate::flour::Species;
use crate::flour::coefficients::{USUAL_ASH, USUAL_DAMAGED_STARCH, USUAL_PROTEIN};

const LEARNED: &str = "prior of the absorption model; your own lots will move it";
const CAPACITY: &str = "capacities after Greer & Stewart, 1959, and Bushuk, 1966";
const UNMEASURED: &str =
    "its gluten takes up less than common wheat's; measure a lot and this step goes";
const VITREOUS: &str = "a hard, vitreous grain: more damaged starch than its figure says";
const WEAK_FILM: &str = "a weak film: hold water back, let it rest, and add by the dough";
const BESIDE: &str = "seen in doughs of the grain";
const CARRIES: &str = "what a folded or long-rested dough of that strength carries";

coefficients! {
    /// What each process takes more or less than a straight dough with bulk, points.
    NO_TIME = step("no_time", "no-time straight dough", (-1.0, -2.0, 0.0),
        "no hours to hydrate: what is not taken up at the mixer stays sticky");
    STRAIGHT_BULK = step("straight_bulk", "straight dough with bulk", (0.0, 0.0, 0.0),
        "the flour's own figure holds for a dough with bulk time");
    SPONGE_DOUGH = step("sponge_dough", "sponge and dough", (3.0, 2.0, 4.0),
        "the sponge's hours hydrate flour that a mixer cannot");
    LONG_COLD = step("long_cold", "long cold or autolysed", (1.0, 0.0, 2.0),
        "a long rest takes up more water");
    FROZEN = step("frozen", "frozen dough", (-3.0, -4.0, -2.0),
        "free water makes ice that tears the film");
    /// What a grain takes more or less than common wheat of its composition, points.
    SPELT_OFFSET = step("spelt_offset", "spelt, not measured", (-3.0, -5.0, -1.0), UNMEASURED);
    EMMER_OFFSET = step("emmer_offset", "emmer, not measured", (-4.0, -7.0, -1.0), UNMEASURED);
    EINKORN_OFFSET = step("einkorn_offset", "einkorn, not measured", (-8.0, -12.0, -4.0), UNMEASURED);
    KHORASAN_OFFSET = step("khorasan_offset", "khorasan, not measured", (2.0, 0.0, 4.0), VITREOUS);
    DURUM_OFFSET = step("durum_offset", "durum, not measured", (2.0, 0.0, 4.0), VITREOUS);
    RYE_OFFSET = step("rye_offset", "rye, not measured", (8.0, 4.0, 12.0),
        "pentosans drink; measure a lot and this step goes");
    /// What is held back from a weak film, points.
    SPELT_HELD_BACK = step("spelt_held_back", "spelt, held back", (-1.5, -3.0, 0.0), WEAK_FILM);
    EMMER_HELD_BACK = step("emmer_held_back", "emmer, held back", (-2.0, -4.0, 0.0), WEAK_FILM);
    EINKORN_HELD_BACK = step("einkorn_held_back", "einkorn, held back", (-3.0, -5.0, 0.0), WEAK_FILM);
    /// What 100 % whole grain takes where absorption is estimated, by its ash and beyond it.
    WHOLE_GRAIN = correction("whole_grain", "whole grain, absorption estimated", (3.0, 1.0, 5.0),
        "points for 100 % whole grain", "bran drinks more than its ash says");
    WHOLE_GRAIN_UNKNOWN = correction("whole_grain_unknown",
        "whole grain, neither curve nor ash known", (8.0, 6.0, 10.0),
        "points for 100 % whole grain", "bran drinks, and nothing on the certificate counts it");
    /// What the days since milling do, points.
    GREEN = step("green", "green flour, under 2 days", (-0.5, -1.0, 0.0),
        "green flour: not yet at its full strength or absorption");
    AGED = step("aged", "aged flour, over 14 days", (0.5, 0.0, 1.0),
        "aged flour takes more and acts stronger");
    /// Damaged starch above which the trap opens, %.
    CRITICAL_DAMAGED_STARCH = correction("critical_damaged_starch", "critical damaged starch",
        (10.0, 8.0, 12.0), "%", "above it the dough feels dry early and sticks late");
    /// Water the strength can carry: at W 0, for each of W, and less where a machine divides.
    CEILING_BASE = correction("ceiling_base", "water that strength carries at W 0",
        (50.0, 45.0, 55.0), "%", CARRIES);
    CEILING_PER_W = correction("ceiling_per_w", "water that strength carries, per W",
        (0.13, 0.11, 0.15), "% per W", CARRIES);
    MACHINE_DIVIDED = step("machine_divided", "less where a machine divides", (8.0, 5.0, 11.0),
        "a divider and moulder forgive less than hands do");
    /// Points that 1 % of vital gluten lets strength carry more, and of bran or oat fibre less.
    GLUTEN_CARRIES = step("gluten_carries", "water that 1 % vital gluten lets strength carry",
        (2.0, 1.0, 3.0), "gluten builds film");
    FIBRE_CUTS = step("fibre_cuts", "water that 1 % of fibre lets strength carry",
        (-0.5, -1.0, 0.0), "fibre cuts film");
    /// Points of water per point of protein on 14 %, damaged starch and ash on dry matter.
    PER_PROTEIN = Coefficient::house("water_per_protein", "water per point of protein",
        (1.1, 0.7, 1.5), "points", LEARNED);
    PER_DAMAGED_STARCH = Coefficient::house("water_per_damaged_starch",
        "water per point of damaged starch", (1.4, 1.0, 1.8), "points", LEARNED);
    PER_ASH = Coefficient::house("water_per_ash", "water per point of ash", (4.0, 2.0, 6.0),
        "points", LEARNED);
    /// Absorption on 14 % of a flour of the model's centre.
    AT_CENTRE = Coefficient::house("absorption_at_centre",
        "absorption of a flour of 12 % protein, 7.5 % damaged starch, 0.60 % ash",
        (60.0, 58.5, 61.5), "%", LEARNED);
    /// Where the model counts composition from: a usual flour's.
    CENTRE_PROTEIN = Coefficient::reference("model_protein", "protein the model counts from",
        USUAL_PROTEIN.value, "% on 14 %", "a usual bread flour");
    CENTRE_DAMAGED_STARCH = Coefficient::reference("model_damaged_starch",
        "damaged starch the model counts from", USUAL_DAMAGED_STARCH.value, "%", "a usual bread flour");
    CENTRE_ASH = Coefficient::reference("model_ash", "ash the model counts from",
        USUAL_ASH.value, "% on dry matter", "a usual bread flour");
    /// Standard deviation of a measured absorption about the model, points.
    MODEL_SD = Coefficient::house("model_sd", "measured absorption about the model, 1 σ",
        (1.5, 1.0, 2.0), "points", "of lots of several mills");
    /// How far a property may lie from the centre where the certificate does not state it, 1 σ.
    PROTEIN_SD = Coefficient::house("protein_sd", "protein where none is stated, 1 σ",
        (1.2, 0.8, 1.6), "%", "among bread flours");
    DAMAGED_STARCH_SD = Coefficient::house("damaged_starch_sd",
        "damaged starch where none is stated, 1 σ", (1.5, 1.0, 2.0), "%", "among bread flours");
    ASH_SD = Coefficient::house("ash_sd", "ash where none is stated, 1 σ", (0.05, 0.03, 0.08), "%",
        "among white flours");
    /// Half the repeatability of ISO 5530-1, taken as the standard deviation of a measured absorption.
    MEASURED_SD = Coefficient::standard("absorption_sd", "measured absorption, 1 σ", 0.3, "points",
        "half the repeatability of ISO 5530-1");
    /// How far off the water on a blend's own sheet may be, points.
    SHEET_SD = Coefficient::house("sheet_sd", "water on a blend's own sheet, 1 σ", (2.0, 1.0, 3.0),
        "points", "sheets state it for their own recipe");
    /// Held back from 100 % whole grain and added after it has drunk, and from a blend without gluten.
    BRAN_HELD_BACK = Coefficient::house("bran_held_back", "held back from 100 % whole grain",
        (2.0, 1.0, 3.0), "points", "bran drinks slowly");
    NO_FILM_HELD_BACK = Coefficient::house("no_film_held_back", "held back from a blend without gluten",
        (5.0, 3.0, 8.0), "points", "fibres and gums swell slowly");
    /// Minutes to wait before water is judged: whole grain and rye, a weak film, no gluten, damaged
    /// starch.
    BRAN_WAITS = Coefficient::house("bran_waits", "wait before judging whole grain and rye",
        (12.5, 10.0, 15.0), "min", "bran and pentosans drink slowly");
    WEAK_FILM_WAITS = Coefficient::house("weak_film_waits", "wait before judging a weak film",
        (15.0, 10.0, 20.0), "min", "wetter than it feels");
    NO_FILM_WAITS = Coefficient::house("no_film_waits", "wait before judging a blend without gluten",
        (15.0, 10.0, 20.0), "min", "fibres and gums swell slowly");
    DAMAGED_STARCH_WAITS = Coefficient::house("damaged_starch_waits",
        "wait before judging high damaged starch", (7.5, 5.0, 10.0), "min",
        "it drinks at once; what it took is seen later");
    /// Less bran than this in the flour needs no waiting, %.
    LITTLE_BRAN = Coefficient::house("little_bran", "whole grain that needs no waiting",
        (10.0, 5.0, 20.0), "% of all flour", "less is not felt");
    /// When the core should arrive, % of the bake, and where damaged starch lies above its critical level.
    ARRIVAL = Coefficient::house("arrival", "core arrives by", (85.0, 82.0, 88.0), "% of the bake",
        "the crumb sets in time").within(60.0, 95.0);
    ARRIVAL_TRAPPED = Coefficient::house("arrival_high_damaged_starch",
        "core arrives by, with high damaged starch", (80.0, 77.0, 83.0), "% of the bake",
        "its water must be driven off").within(60.0, 95.0);
    /// Strength below its ceiling by less than this is at the edge, points.
    EDGE = Coefficient::house("ceiling_edge", "water at the edge of what strength carries",
        (3.0, 2.0, 4.0), "points", "felt as slack");
    /// A change from what strength carries that is felt in the hand, points.
    FELT_HANDLING = Coefficient::house("felt_handling", "change felt in the hand", (0.25, 0.2, 0.5),
        "points", "less is not felt");
    /// Water each gram holds, g/g.
    INTACT_HOLDS = Coefficient::standard("intact_starch_holds", "water intact starch holds", 0.44, "g/g", CAPACITY);
    DAMAGED_HOLDS = Coefficient::standard("damaged_starch_holds", "water damaged starch holds", 2.00, "g/g", CAPACITY);
    PROTEIN_HOLDS = Coefficient::standard("protein_holds", "water protein holds", 2.15, "g/g", CAPACITY);
    PENTOSAN_HOLDS = Coefficient::standard("pentosan_holds", "water pentosan holds", 15.0, "g/g", CAPACITY);
    /// Fat, sugars, cellulose and other things that are none of the four, % of a white flour.
    OTHER = Coefficient::house("flour_other", "fat, sugars and cellulose of a white flour",
        (5.6, 4.5, 6.5), "%", "usual of white flour");
    /// Pentosan of a white flour, %, and how much more of it a point of ash brings.
    PENTOSAN = Coefficient::house("pentosan", "pentosan of a white flour", (1.3, 1.0, 1.7), "%",
        "usual of white flour");
    PENTOSAN_PER_ASH = Coefficient::house("pentosan_per_ash", "pentosan for each point of ash",
        (4.7, 3.5, 6.0), "points", "bran is rich in it");
    /// Free water from which on machines stick, % of the dough's water.
    FREE_WATER_STICKS = Coefficient::house("free_water_sticks", "free water from which machines stick",
        (2.0, 1.0, 4.0), "% of the water", "seen at dividers");
    /// Mixing time and speed of fermentation beside white common wheat.
    WHEAT_MIXING = Coefficient::reference("wheat_mixing", "mixing of white wheat", 1.0, "times", "what others are held against");
    WHEAT_FERMENTS = Coefficient::reference("wheat_ferments", "fermentation of white wheat", 1.0, "times", "what others are held against");
    DURUM_MIXING = Coefficient::house("durum_mixing", "mixing of durum, beside white wheat", (1.2, 1.0, 1.4), "times", BESIDE);
    DURUM_FERMENTS = Coefficient::house("durum_ferments", "fermentation of durum, beside white wheat", (1.0, 0.9, 1.1), "times", BESIDE);
    SPELT_MIXING = Coefficient::house("spelt_mixing", "mixing of spelt, beside white wheat", (0.6, 0.5, 0.75), "times", BESIDE);
    SPELT_FERMENTS = Coefficient::house("spelt_ferments", "fermentation of spelt, beside white wheat", (1.1, 1.0, 1.25), "times", BESIDE);
    EMMER_MIXING = Coefficient::house("emmer_mixing", "mixing of emmer, beside white wheat", (0.5, 0.4, 0.65), "times", BESIDE);
    EMMER_FERMENTS = Coefficient::house("emmer_ferments", "fermentation of emmer, beside white wheat", (1.15, 1.0, 1.3), "times", BESIDE);
    EINKORN_MIXING = Coefficient::house("einkorn_mixing", "mixing of einkorn, beside white wheat", (0.4, 0.3, 0.55), "times", BESIDE);
    EINKORN_FERMENTS = Coefficient::house("einkorn_ferments", "fermentation of einkorn, beside white wheat", (1.2, 1.0, 1.4), "times", BESIDE);
    KHORASAN_MIXING = Coefficient::house("khorasan_mixing", "mixing of khorasan, beside white wheat", (0.8, 0.65, 0.95), "times", BESIDE);
    KHORASAN_FERMENTS = Coefficient::house("khorasan_ferments", "fermentation of khorasan, beside white wheat", (1.05, 0.95, 1.15), "times", BESIDE);
    RYE_MIXING = Coefficient::house("rye_mixing", "mixing of rye, beside white wheat", (0.5, 0.35, 0.7), "times", BESIDE);
    RYE_FERMENTS = Coefficient::house("rye_ferments", "fermentation of rye, beside white wheat", (1.3, 1.1, 1.5), "times", BESIDE);
    GLUTEN_FREE_MIXING = Coefficient::house("gluten_free_mixing", "mixing of a gluten-free blend, beside white wheat", (0.4, 0.3, 0.5), "times", BESIDE);
    GLUTEN_FREE_FERMENTS = Coefficient::house("gluten_free_ferments", "fermentation of a gluten-free blend, beside white wheat", (1.0, 0.8, 1.3), "times", BESIDE);
    LOW_STARCH_MIXING = Coefficient::house("low_starch_mixing", "mixing of a low-starch mix, beside white wheat", (0.5, 0.4, 0.7), "times", BESIDE);
    LOW_STARCH_FERMENTS = Coefficient::house("low_starch_ferments", "fermentation of a low-starch mix, beside white wheat", (0.8, 0.6, 1.0), "times", BESIDE);
    /// Bran quickens fermentation and shortens mixing, for 100 % whole grain.
    BRAN_FERMENTS = Coefficient::house("bran_ferments", "fermentation quickened by whole grain",
        (0.25, 0.10, 0.40), "", "minerals and enzymes feed it");
    BRAN_MIXING = Coefficient::house("bran_mixing", "mixing shortened by whole grain",
        (-0.15, -0.25, 0.0), "", "it bears less mixing");
}

/// What each process does to the water.
pub static PROCESSES: [&Coefficient; 5] =
    [&NO_TIME, &STRAIGHT_BULK, &SPONGE_DOUGH, &LONG_COLD, &FROZEN];

/// A step of the build-up, in points of water.
const fn step(
    key: &'static str,
    name: &'static str,
    band: (f64, f64, f64),
    source: &'static str,
) -> Coefficient {
    correction(key, name, band, "points", source)
}

/// A correction that a plant may put by its own, of either sign, or leave out.
const fn correction(
    key: &'static str,
    name: &'static str,
    band: (f64, f64, f64),
    unit: &'static str,
    source: &'static str,
) -> Coefficient {
    let (least, most) = (-50.0, 100.0);
    Coefficient::house(key, name, band, unit, source).within(least, most).optional()
}

/// What a grain takes more or less than common wheat of its composition.
pub(super) const fn offset_of(species: Species) -> Option<&'static Coefficient> {
    match species {
        Species::Spelt => Some(&SPELT_OFFSET),
        Species::Emmer => Some(&EMMER_OFFSET),
        Species::Einkorn => Some(&EINKORN_OFFSET),
        Species::Khorasan => Some(&KHORASAN_OFFSET),
        Species::Durum => Some(&DURUM_OFFSET),
        Species::Rye => Some(&RYE_OFFSET),
        Species::Wheat | Species::GlutenFree | Species::LowStarch => None,
    }
}

/// What is held back from a weak film.
pub(super) const fn held_back_of(species: Species) -> Option<&'static Coefficient> {
    match species {
        Species::Spelt => Some(&SPELT_HELD_BACK),
        Species::Emmer => Some(&EMMER_HELD_BACK),
        Species::Einkorn => Some(&EINKORN_HELD_BACK),
        _ => None,
    }
}

/// Mixing time of a grain beside white common wheat.
pub(super) const fn mixing_of(species: Species) -> &'static Coefficient {
    match species {
        Species::Wheat => &WHEAT_MIXING,
        Species::Durum => &DURUM_MIXING,
        Species::Spelt => &SPELT_MIXING,
        Species::Emmer => &EMMER_MIXING,
        Species::Einkorn => &EINKORN_MIXING,
        Species::Khorasan => &KHORASAN_MIXING,
        Species::Rye => &RYE_MIXING,
        Species::GlutenFree => &GLUTEN_FREE_MIXING,
        Species::LowStarch => &LOW_STARCH_MIXING,
    }
}

/// Speed of fermentation of a grain beside white common wheat.
pub(super) const fn fermentation_of(species: Species) -> &'static Coefficient {
    match species {
        Species::Wheat => &WHEAT_FERMENTS,
        Species::Durum => &DURUM_FERMENTS,
        Species::Spelt => &SPELT_FERMENTS,
        Species::Emmer => &EMMER_FERMENTS,
        Species::Einkorn => &EINKORN_FERMENTS,
        Species::Khorasan => &KHORASAN_FERMENTS,
        Species::Rye => &RYE_FERMENTS,
        Species::GlutenFree => &GLUTEN_FREE_FERMENTS,
        Species::LowStarch => &LOW_STARCH_FERMENTS,
    }
}
