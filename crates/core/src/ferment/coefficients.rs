//! What fermentation rests on.

use crate::coefficient::{Coefficient, coefficients};
use crate::flour::Species;

const SOURS: &str = "pH falls with the logarithm of the acid, and the acid grows with the culture";
const KINETICS: &str = "shaped by published kinetics; your jar corrects it";
const CARDINAL: &str = "for the cardinal temperature model, Rosso 1993";
const INDEX: &str = "a house index; your pull test corrects it";
const FILM: &str = "by the grain where its strength is not stated";

coefficients! {
    /// Gas an instant yeast of 1 % gives at 28.5 °C, ml per g of flour and hour.
    GAS = Coefficient::house("gas_per_yeast", "gas of 1 % instant yeast at 28.5 °C",
        (2.22, 1.8, 2.7), "ml/g·h", KINETICS);
    /// Damaged starch turned to sugar, per hour.
    STARCH = Coefficient::house("starch_to_sugar", "damaged starch to sugar",
        (0.10, 0.05, 0.2), "1/h", KINETICS);
    /// Growth of a sour at its best temperature, per hour.
    SOUR_GROWTH = Coefficient::house("sour_growth", "growth of a sour at its best",
        (0.42, 0.3, 0.55), "1/h", KINETICS);
    /// Flour's own sugar, g per g.
    OWN_SUGAR = Coefficient::house("flour_sugar", "sugar of the flour itself",
        (0.012, 0.008, 0.018), "g/g", "usual of sound flour");
    /// Gas one gram of sugar gives, ml.
    GAS_OF_SUGAR = Coefficient::physics("gas_of_sugar", "gas of a gram of sugar",
        272.0, "ml", "stoichiometry at room temperature");
    /// Half-saturation of sugar, g per g flour.
    HALF_SUGAR = Coefficient::house("sugar_half_saturation", "sugar at which yeast goes half as fast",
        (0.004, 0.002, 0.008), "g/g", KINETICS);
    /// Culture in a dough for each percent of prefermented flour: doughs timed by bakers were ready
    /// in half to two thirds of the hours that 0.002 gave.
    CULTURE_PER_SOUR = Coefficient::house("culture_per_sour", "culture for each % of sour",
        (0.004, 0.002, 0.006), "", "three sour doughs timed by bakers");
    /// pH of flour and water, of a ripe sour, and how early it falls from one to the other.
    FLOUR_PH = Coefficient::house("flour_ph", "pH of flour and water",
        (6.1, 5.8, 6.4), "", SOURS).within(5.0, 7.0);
    RIPE_PH = Coefficient::house("ripe_ph", "pH of a ripe sour",
        (3.7, 3.5, 4.0), "", SOURS).within(3.0, 4.8);
    SOURS_EARLY = Coefficient::house("sours_early", "how early its pH falls",
        (20.0, 10.0, 40.0), "", SOURS).within(1.0, 1000.0);
    /// What a point of salt above or below its usual takes from the speed, as a share.
    SALT_SLOWS = Coefficient::house("salt_slows", "speed lost for each point of salt",
        (0.09, 0.06, 0.12), "", KINETICS);
    /// Salt at which the speed is the house's, %.
    SALT_AT = Coefficient::reference("salt_reference", "salt the speed is stated at",
        2.0, "% of flour", "usual of bread");
    /// What a point of sugar beyond what yeast bears takes from the speed, as a share.
    SUGAR_SLOWS = Coefficient::house("sugar_slows", "speed lost for each point of sugar beyond",
        (0.04, 0.02, 0.06), "", KINETICS);
    /// Sugar from which on it slows yeast, %.
    SUGAR_FROM = Coefficient::house("sugar_slows_from", "sugar from which on it slows",
        (5.0, 3.0, 8.0), "% of flour", KINETICS);
    /// The least that salt or sugar leave of the speed.
    SLOWEST = Coefficient::house("slowest_speed", "least that salt or sugar leave of the speed",
        (0.3, 0.2, 0.5), "", "no dough is believed to stand still for them");
    /// What a point of water adds to the speed, as a share.
    WATER_QUICKENS = Coefficient::house("water_quickens", "speed gained for each point of water",
        (0.01, 0.005, 0.015), "", KINETICS);
    /// Water at which the speed is the house's, %.
    WATER_AT = Coefficient::reference("water_reference", "water the speed is stated at",
        62.0, "% of flour", "usual of bread");
    /// The least and the most that water makes of the speed.
    WATER_LEAST = Coefficient::house("water_slowest", "least that water makes of the speed",
        (0.8, 0.7, 0.9), "", "a stiff dough still ferments");
    WATER_MOST = Coefficient::house("water_quickest", "most that water makes of the speed",
        (1.25, 1.1, 1.4), "", "a batter ferments no quicker than that");
    /// Liquefaction number at which damaged starch turns to sugar as the house says.
    AMYLASE_AT = Coefficient::reference("amylase_reference", "liquefaction number sugar is stated at",
        24.0, "", "a falling number of 300 s");
    /// The least and the most that amylase makes of it.
    AMYLASE_LEAST = Coefficient::house("amylase_slowest", "least that amylase makes of it",
        (0.3, 0.2, 0.5), "", "no flour is without any");
    AMYLASE_MOST = Coefficient::house("amylase_quickest", "most that amylase makes of it",
        (3.0, 2.0, 4.0), "", "beyond it starch, not amylase, is short");
    /// Heat for each ml of gas, kJ.
    HEAT_OF_GAS = Coefficient::physics("heat_of_gas", "heat for each ml of gas",
        0.002_39, "kJ", "heat of fermentation over its gas");
    /// Mass of a ml of dough without gas, g.
    DENSITY = Coefficient::house("dough_density", "density of a dough without gas",
        (1.15, 1.10, 1.20), "g/ml", "0.87 ml/g as it comes off the mixer");
    /// What a dough keeps of its rise after its film gave way, as a share, and how fast it falls there.
    FILM_KEEPS = Coefficient::house("film_keeps", "rise kept after the film gave way",
        (0.6, 0.5, 0.7), "", "seen in jars");
    FILM_FALLS_H = Coefficient::house("film_falls_h", "time in which it falls there",
        (0.25, 0.15, 0.4), "h", "seen in jars");
    /// Hours in which yeast wakes by two thirds: fresh in the final dough, given a head start in
    /// water, set into a sponge, and carried in by one.
    LAG_FRESH = Coefficient::house("lag_fresh", "lag of yeast fresh in the dough",
        (0.5, 0.3, 0.8), "h", KINETICS);
    LAG_HEAD_START = Coefficient::house("lag_head_start", "lag of yeast with a head start in water",
        (0.35, 0.2, 0.5), "h", KINETICS);
    LAG_SPONGE = Coefficient::house("lag_sponge", "lag of yeast set into a sponge",
        (0.25, 0.15, 0.4), "h", KINETICS);
    LAG_CARRIED = Coefficient::house("lag_carried", "lag of yeast carried in by a sponge",
        (0.05, 0.02, 0.1), "h", KINETICS);
    /// Share of the gas a dough of one grain keeps.
    RETENTION_WHEAT = retention("retention_wheat", "gas retention, wheat", 0.85);
    RETENTION_DURUM = retention("retention_durum", "gas retention, durum and khorasan", 0.80);
    RETENTION_SPELT = retention("retention_spelt", "gas retention, spelt", 0.75);
    RETENTION_EMMER = retention("retention_emmer", "gas retention, emmer", 0.70);
    RETENTION_EINKORN = retention("retention_einkorn", "gas retention, einkorn", 0.65);
    RETENTION_RYE = retention("retention_rye", "gas retention, rye", 0.70);
    RETENTION_GLUTEN_FREE = retention("retention_gluten_free", "gas kept without gluten", 0.60);
    /// What the film of a grain holds where its strength is not stated, % of rise.
    LIMIT_WHEAT = Coefficient::house("rise_limit_wheat", "rise the film of wheat holds",
        (340.0, 280.0, 400.0), "%", FILM);
    LIMIT_DURUM = Coefficient::house("rise_limit_durum", "rise the film of durum and khorasan holds",
        (250.0, 200.0, 300.0), "%", FILM);
    LIMIT_SPELT = Coefficient::house("rise_limit_spelt", "rise the film of spelt holds",
        (150.0, 110.0, 190.0), "%", FILM);
    LIMIT_EMMER = Coefficient::house("rise_limit_emmer", "rise the film of emmer holds",
        (120.0, 90.0, 150.0), "%", FILM);
    LIMIT_EINKORN = Coefficient::house("rise_limit_einkorn", "rise the film of einkorn holds",
        (100.0, 70.0, 130.0), "%", FILM);
    LIMIT_RYE = Coefficient::house("rise_limit_rye", "rise a rye dough holds",
        (80.0, 60.0, 100.0), "%", FILM);
    LIMIT_GLUTEN_FREE = Coefficient::house("rise_limit_gluten_free", "rise held without gluten",
        (60.0, 40.0, 80.0), "%", FILM);
    /// What the film holds where W is stated: so much at W 0, and for each of W.
    LIMIT_AT_W0 = Coefficient::house("rise_limit_at_w0", "rise the film holds at W 0",
        (100.0, 60.0, 140.0), "%", "by the strength where it is stated");
    LIMIT_PER_W = Coefficient::house("rise_limit_per_w", "rise the film holds more for each of W",
        (0.8, 0.6, 1.0), "% per W", "by the strength where it is stated");
    /// What 100 % whole grain takes from it, as a share.
    LIMIT_BRAN = Coefficient::house("rise_limit_bran", "share of it that bran takes",
        (0.25, 0.15, 0.35), "for 100 % whole grain", "bran cuts the film");
    /// What each point of water beyond takes from it, as a share, and no less than it leaves.
    LIMIT_WET = Coefficient::house("rise_limit_wet", "share of it that each point of water beyond takes",
        (0.01, 0.005, 0.015), "", "a wet film flows");
    LIMIT_WET_FROM = Coefficient::house("rise_limit_wet_from", "water from which on it takes some",
        (65.0, 60.0, 70.0), "% of flour", "a wet film flows");
    LIMIT_WET_LEAST = Coefficient::house("rise_limit_wet_least", "least that water leaves of it",
        (0.5, 0.4, 0.6), "", "a wet film flows");
    /// Mixing that a flour of W 0 wants to be ripe, for each of W more, where W is not stated, and
    /// the most that counts.
    MATURITY_WORK_AT_W0 = Coefficient::house("maturity_work_at_w0", "maturity: mixing a flour of W 0 wants",
        (8.0, 6.0, 10.0), "kJ/kg", INDEX);
    MATURITY_WORK_PER_W = Coefficient::house("maturity_work_per_w", "maturity: mixing wanted more for each of W",
        (0.06, 0.04, 0.08), "kJ/kg per W", INDEX);
    MATURITY_USUAL_W = Coefficient::house("maturity_usual_w", "maturity: strength where none is stated",
        (300.0, 250.0, 350.0), "W", INDEX);
    MATURITY_WORK_MOST = Coefficient::house("maturity_work_most", "maturity: most mixing that counts, of that wanted",
        (1.25, 1.1, 1.4), "", INDEX);
    /// What a set of folds is worth.
    MATURITY_FOLD_KJ = Coefficient::house("maturity_fold_kj", "maturity: mixing a set of folds is worth",
        (3.5, 2.0, 5.0), "kJ/kg", INDEX);
    /// Hours in which flour takes up its water by two thirds, at which temperature, and in how many
    /// degrees it goes twice as fast.
    MATURITY_HYDRATION_H = Coefficient::house("maturity_hydration_h", "maturity: time in which flour is hydrated by two thirds",
        (1.2, 0.8, 1.6), "h", INDEX);
    MATURITY_AT_C = Coefficient::reference("maturity_at_c", "maturity: temperature that time is stated at",
        27.0, "°C", "usual of a dough");
    MATURITY_DOUBLES_C = Coefficient::house("maturity_doubles_c", "degrees in which maturing doubles its speed",
        (10.0, 8.0, 12.0), "K", INDEX);
    /// Gas of a ripe dough, and the hours it takes whatever the yeast.
    MATURITY_GAS_ML = Coefficient::house("maturity_gas_ml", "maturity: gas of a ripe dough",
        (6.0, 5.0, 7.0), "ml/g", INDEX);
    MATURITY_GAS_H = Coefficient::house("maturity_gas_h", "maturity: hours its gas takes whatever the yeast",
        (3.7, 3.0, 4.5), "h", INDEX);
    /// What mixing, hydration and gas count for.
    MATURITY_OF_WORK = Coefficient::house("maturity_of_work", "weight of mixing in maturity",
        (0.35, 0.25, 0.45), "", INDEX);
    MATURITY_OF_HYDRATION = Coefficient::house("maturity_of_hydration", "weight of hydration in maturity",
        (0.35, 0.25, 0.45), "", INDEX);
    MATURITY_OF_GAS = Coefficient::house("maturity_of_gas", "weight of gas in maturity",
        (0.30, 0.2, 0.4), "", INDEX);
    /// Young, ripe and past from here on.
    MATURITY_YOUNG = Coefficient::house("maturity_young", "maturity: a dough is young from",
        (0.7, 0.6, 0.8), "maturity", INDEX).within(0.4, 0.85);
    MATURITY_RIPE = Coefficient::house("maturity_ripe", "maturity: a dough is ripe from",
        (0.9, 0.85, 1.0), "maturity", INDEX).within(0.85, 1.15);
    MATURITY_PAST = Coefficient::house("maturity_past", "maturity: a dough is past ripe from",
        (1.35, 1.2, 1.5), "maturity", INDEX).within(1.15, 2.0);
    /// What a green dough and one past its ripeness lose of the gas they would keep, and the least
    /// that is kept of it.
    MATURITY_GREEN_LOSES = Coefficient::house("maturity_green_loses", "maturity: share of its retention a green dough loses",
        (0.35, 0.2, 0.5), "at a maturity of 0", INDEX);
    MATURITY_PAST_LOSES = Coefficient::house("maturity_past_loses", "maturity: share of its retention lost past ripeness",
        (0.8, 0.5, 1.1), "for each 1 of maturity", INDEX);
    MATURITY_KEEPS_LEAST = Coefficient::house("maturity_keeps_least", "maturity: least share of its retention that is left",
        (0.3, 0.2, 0.4), "", INDEX);
    /// Share of a sponge's time at which it drops.
    DROPS_AT = Coefficient::house("sponge_drops_at", "share of its time at which a sponge drops",
        (0.66, 0.60, 0.72), "", "the trade's rule").within(0.3, 1.0);
    /// What freezing leaves of the yeast's vigour, as a share, and from how cold on.
    FREEZING_KEEPS = Coefficient::house("freezing_keeps", "vigour of the yeast after freezing",
        (0.7, 0.55, 0.85), "", "part of the cells die").within(0.1, 1.0);
    FREEZES_AT = Coefficient::house("freezes_at", "temperature at which a dough freezes",
        (-5.0, -8.0, -3.0), "°C", "salt and sugar lower it");
    /// How well a rise is read from a jar or a tub, points of rise.
    RISE_READ_SD = Coefficient::house("rise_read_sd", "how well a rise is read, 1 σ",
        (6.0, 4.0, 10.0), "points", "of a jar with a ring and a rule");
    /// A reading this many of its σ off the fit of the others is not counted.
    RISE_STRAY = Coefficient::house("rise_stray", "σ from which on a reading of a rise is a stray",
        (4.0, 3.0, 6.0), "σ", "a slip of the eye or the pen");
    /// How far doughs of one formula differ in speed before anything is read.
    RATE_SD = Coefficient::house("rate_sd", "how far doughs of one formula differ in speed, 1 σ",
        (0.25, 0.15, 0.4), "", "before anything was read of this one");
    /// A fed starter is at its best from and until these shares of the time at which its film gives way.
    STARTER_BEST_FROM = Coefficient::house("starter_best_from", "a starter is at its best from",
        (0.8, 0.7, 0.9), "of its time to the drop", "domed, and just before it falls").within(0.4, 1.0);
    STARTER_BEST_UNTIL = Coefficient::house("starter_best_until", "a starter is at its best until",
        (1.05, 1.0, 1.15), "of its time to the drop", "as it begins to fall").within(1.0, 1.5);
    /// Share of the gas that a set of folds, hands and a machine let go, %.
    FOLDS_LET_GO = Coefficient::house("folds_let_go", "gas a set of folds lets go",
        (25.0, 15.0, 40.0), "%", "seen in tubs").within(0.0, 100.0);
    HANDS_LET_GO = Coefficient::house("hands_let_go", "gas dividing by hand lets go",
        (60.0, 45.0, 75.0), "%", "seen at the table").within(0.0, 100.0);
    MACHINE_LETS_GO = Coefficient::house("machine_lets_go", "gas a divider lets go",
        (100.0, 90.0, 100.0), "%", "a piston leaves none").within(0.0, 100.0);
    /// A sponge's hours and its temperature at setting where the method states none.
    SPONGE_H = Coefficient::house("sponge_hours", "hours of a sponge where no stage states them",
        (3.5, 2.5, 4.5), "h", "usual of a plant");
    SPONGE_SET_C = Coefficient::house("sponge_set_c", "temperature a sponge is set at",
        (24.0, 22.0, 26.0), "°C", "usual of a plant");
    /// Instant yeast: what a gram of it is worth of another form, g.
    ACTIVE_DRY_YEAST = Coefficient::house("active_dry_yeast", "active dry yeast worth 1 of instant",
        (1.25, 1.2, 1.4), "g/g", "part of its cells do not wake");
    FRESH_YEAST = Coefficient::house("fresh_yeast", "fresh yeast worth 1 of instant",
        (3.0, 2.5, 3.5), "g/g", "its water");
    /// Lowest, best and highest temperature of yeast and of a sour, °C.
    YEAST_LOWEST_C = Coefficient::house("yeast_lowest_c", "lowest temperature of yeast",
        (-2.0, -4.0, 0.0), "°C", CARDINAL);
    YEAST_BEST_C = Coefficient::house("yeast_best_c", "best temperature of yeast",
        (36.0, 34.0, 38.0), "°C", CARDINAL).within(31.0, 41.0);
    YEAST_HIGHEST_C = Coefficient::house("yeast_highest_c", "highest temperature of yeast",
        (46.0, 44.0, 48.0), "°C", CARDINAL).within(42.0, 55.0);
    SOUR_LOWEST_C = Coefficient::house("sour_lowest_c", "lowest temperature of a sour",
        (2.0, 0.0, 4.0), "°C", CARDINAL).within(-2.0, 8.0);
    SOUR_BEST_C = Coefficient::house("sour_best_c", "best temperature of a sour",
        (31.0, 29.0, 33.0), "°C", CARDINAL).within(29.0, 36.0);
    SOUR_HIGHEST_C = Coefficient::house("sour_highest_c", "highest temperature of a sour",
        (40.0, 38.0, 42.0), "°C", CARDINAL).within(37.0, 48.0);
    /// What both are held against, °C.
    SPEED_AT_C = Coefficient::reference("speed_reference_c", "temperature the speed is stated at",
        28.5, "°C", "usual of a proof");
    /// A prediction outside these shares of the rise a stage ends at misses it.
    HITS_FROM = Coefficient::house("rise_hits_from", "least share of its rise that still hits",
        (0.6, 0.5, 0.8), "", "what a baker would call the same");
    HITS_UNTIL = Coefficient::house("rise_hits_until", "most of its rise that still hits",
        (1.6, 1.3, 2.0), "", "what a baker would call the same");
}

const fn retention(key: &'static str, name: &'static str, typical: f64) -> Coefficient {
    let about = 0.1;
    let source = "seen in doughs of the grain; by flour share in a mix";
    let low = ((typical - about) * 100.0).round() / 100.0;
    let high = ((typical + about) * 100.0).round() / 100.0;
    Coefficient::house(key, name, (typical, low, high), "", source).within(0.2, 1.0)
}

/// Share of the gas a dough of one grain keeps.
pub(super) const fn retention_of(species: Species) -> &'static Coefficient {
    match species {
        Species::Wheat => &RETENTION_WHEAT,
        Species::Durum | Species::Khorasan => &RETENTION_DURUM,
        Species::Spelt => &RETENTION_SPELT,
        Species::Emmer => &RETENTION_EMMER,
        Species::Einkorn => &RETENTION_EINKORN,
        Species::Rye => &RETENTION_RYE,
        Species::GlutenFree | Species::LowStarch => &RETENTION_GLUTEN_FREE,
    }
}

/// What the film of a grain holds where its strength is not stated, % of rise.
pub(super) const fn rise_limit_of(species: Species) -> &'static Coefficient {
    match species {
        Species::Wheat => &LIMIT_WHEAT,
        Species::Durum | Species::Khorasan => &LIMIT_DURUM,
        Species::Spelt => &LIMIT_SPELT,
        Species::Emmer => &LIMIT_EMMER,
        Species::Einkorn => &LIMIT_EINKORN,
        Species::Rye => &LIMIT_RYE,
        Species::GlutenFree | Species::LowStarch => &LIMIT_GLUTEN_FREE,
    }
}
