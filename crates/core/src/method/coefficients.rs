//! What methods rest on: work, ranges usual of stages, and what dough conditioning goes by.

use crate::coefficient::{Coefficient, coefficients};

const STAGE: &str = "of the trade; a method states its own";

coefficients! {
    /// Hands for a set of folds, and to bring a dough to where it lies, minutes.
    FOLD_MIN = Coefficient::reference("fold_min", "hands for a set of folds", 2.0, "min",
        "folded by one, in its tub");
    BRING_MIN = Coefficient::reference("bring_min", "hands to bring a dough to where it lies", 1.0,
        "min", "a trough on wheels");
    /// Yeast that is stirred into water and what is taken of that, in divisions of the scale.
    DILUTED = Coefficient::house("diluted_yeast", "yeast of a dilution", (10.0, 5.0, 20.0),
        "divisions of the scale", "within a twentieth").within(2.0, 100.0);
    TAKEN = Coefficient::house("taken_dilution", "least taken of a dilution", (20.0, 10.0, 50.0),
        "divisions of the scale", "within a fortieth").within(5.0, 200.0);
    /// A loaf's core when it leaves the oven, where its bake states none.
    CORE_OUT = Coefficient::house("core_out", "core of a loaf out of the oven", (96.0, 93.0, 98.0), "°C",
        "crumb is set; a bake states its own");
    /// How warm the core of a piece out of the cold is before it is worked, °C.
    WARM_CORE_C = Coefficient::house("warm_core_c", "core of a piece that is worked", (17.0, 15.0, 20.0), "°C",
        "colder it tears and springs back");
    /// Water is said to boil from here on.
    BOILS_C = Coefficient::reference("boils_c", "water is said to boil from", 95.0, "°C",
        "off the kettle, and high above the sea");
    /// From here up what goes in scalds skin.
    SCALDS_C = Coefficient::reference("scalds_c", "what goes in scalds from", 55.0, "°C",
        "seconds of contact burn");
    /// At or below this a stage is a refrigerator's, and a freezer's, °C.
    COLD_C = Coefficient::reference("cold_stage_c", "a stage is in the cold up to", 12.0, "°C",
        "warmer is no refrigerator");
    FROZEN_C = Coefficient::reference("frozen_stage_c", "a stage is a freezer's up to", -10.0, "°C",
        "warmer is no freezer");
    /// Humidity from which on the floor by a proofer is wet, %.
    WET_FLOOR = Coefficient::reference("wet_floor", "floor wet by the proofer from", 80.0, "% humidity",
        "water settles on it");
    /// Energy to full development by class of mixing, kJ/kg.
    HAND_FOLDS = Coefficient::house("hand_folds_energy", "energy of hand folds", (1.0, 0.2, 2.0),
        "kJ/kg", "folds, no mixer");
    SHORT_MIX = Coefficient::house("short_mix_energy", "energy of a short mix", (12.0, 10.0, 14.0),
        "kJ/kg", "for long bulk");
    IMPROVED_MIX = Coefficient::house("improved_mix_energy", "energy of an improved mix",
        (22.0, 18.0, 26.0), "kJ/kg", "for some bulk");
    INTENSIVE_MIX = Coefficient::house("intensive_mix_energy", "energy of an intensive mix",
        (36.0, 30.0, 43.0), "kJ/kg", "for no time");
    /// Optional steps: a head start of yeast, min and °C; an autolyse, min; its first mixing, min;
    /// salt late, % of the mixing; nothing is split off shorter than so many minutes.
    PROOFED_MIN = Coefficient::house("head_start_min", "head start of yeast", (10.0, 5.0, 15.0), "min",
        "it foams");
    PROOFED_C = Coefficient::house("head_start_c", "water of the head start", (35.0, 30.0, 40.0), "°C",
        "yeast wants lukewarm water").within(20.0, 43.0);
    PROOFED_WATER = Coefficient::house("head_start_water", "water the yeast is dissolved in", (10.0, 5.0, 15.0),
        "% of the water", "enough to float it").within(1.0, 50.0);
    AUTOLYSE_MIN = Coefficient::house("autolyse_min", "an autolyse", (20.0, 15.0, 30.0), "min",
        "the classic range");
    WET_MIX_MIN = Coefficient::house("wet_mix_min", "mixing before an autolyse", (3.0, 2.0, 4.0), "min",
        "wet through, no more");
    SALT_LATE_AT = Coefficient::house("salt_late_at", "salt held back goes in at", (75.0, 66.0, 85.0),
        "% of the mixing", "the dough has developed by then").within(30.0, 95.0);
    SHORTEST_MIX = Coefficient::house("shortest_mix", "shortest mixing split off", (0.5, 0.3, 1.0),
        "min", "nobody stops a mixer for less");
    /// The other process: a sponge's hours and room, floor times, and the dough off the mixer each way.
    SPONGE_MIN = Coefficient::house("other_sponge_min", "time of a sponge", (210.0, 150.0, 270.0), "min",
        "usual of a plant");
    SPONGE_ROOM_C = Coefficient::house("sponge_room_c", "sponge room", (27.0, 24.0, 30.0), "°C",
        "usual of a plant");
    SPONGE_ROOM_PCT = Coefficient::house("sponge_room_humidity", "humidity of a sponge room",
        (65.0, 60.0, 75.0), "%", "so that no skin forms");
    SPONGE_DOUGH_C = Coefficient::house("sponge_dough_c", "a sponge dough off the mixer",
        (26.5, 25.0, 28.0), "°C", "usual of a plant");
    NO_TIME_DOUGH_C = Coefficient::house("no_time_dough_c", "a no-time dough off the mixer",
        (27.5, 26.0, 29.0), "°C", "usual of a plant");
    SPONGE_FLOOR_MIN = Coefficient::house("sponge_floor_min", "floor time of a sponge dough",
        (15.0, 10.0, 25.0), "min", "it relaxes from the mixer");
    NO_TIME_FLOOR_MIN = Coefficient::house("no_time_floor_min", "floor time of a no-time dough",
        (5.0, 0.0, 15.0), "min", "a no-time dough has no time to lose before the divider");
    PICK_UP_MIN = Coefficient::house("pick_up_min", "pick-up", (2.0, 1.0, 3.0), "min", "wet through");
    SPONGE_DEVELOP_MIN = Coefficient::house("sponge_develop_min", "development of a sponge dough",
        (5.0, 4.0, 7.0), "min", "the sponge is developed already");
    SPONGE_SALT_MIN = Coefficient::house("sponge_salt_min", "mixing of a sponge dough after salt",
        (2.0, 1.0, 3.0), "min", "to a windowpane");
    NO_TIME_DEVELOP_MIN = Coefficient::house("no_time_develop_min", "development of a no-time dough",
        (7.0, 5.0, 9.0), "min", "all the development is the mixer's");
    NO_TIME_SALT_MIN = Coefficient::house("no_time_salt_min", "mixing of a no-time dough after salt",
        (3.0, 2.0, 4.0), "min", "to a windowpane");
    /// What a process asks of its flour at least.
    SPONGE_ASKS_PROTEIN = Coefficient::house("sponge_asks_protein", "protein a sponge dough asks",
        (11.5, 11.0, 12.5), "% on 14 %", "gluten must last the sponge's hours");
    SPONGE_ASKS_FALLING_NUMBER = Coefficient::house("sponge_asks_falling_number",
        "falling number a sponge dough asks", (250.0, 230.0, 280.0), "s",
        "hours of amylase must not make it sticky");
    STRAIGHT_ASKS_W = Coefficient::house("straight_asks_w", "W a straight dough asks",
        (260.0, 240.0, 300.0), "10⁻⁴ J", "only strength and the mixer hold it up");
    STRAIGHT_ASKS_STABILITY = Coefficient::house("straight_asks_stability",
        "stability a straight dough asks", (9.0, 7.0, 12.0), "min", "it must stand intensive mixing");
    /// A minute of sponge mixing past clean-up brings it forward so much, %.
    MINUTE_BRINGS = Coefficient::house("sponge_mixing_brings",
        "a minute of sponge mixing brings it forward", (6.0, 0.0, 10.0), "%",
        "from nothing to a tenth, by plant").within(0.0, 20.0);
    /// A hold in the cold, °C; cooled by less than this it was hardly felt, °C.
    HOLD_C = Coefficient::house("hold_c", "a dough is held at", (4.0, 2.0, 6.0), "°C", "a refrigerator's")
        .within(0.0, 12.0);
    HARDLY_COOLED = Coefficient::house("hardly_cooled", "a hold is hardly felt below", (3.0, 2.0, 5.0),
        "°C", "a big mass keeps its heat");
    /// How much of a sponge's flour and yeast brings an old one back, %.
    REVIVE_FLOUR = Coefficient::house("revive_flour", "fresh flour that revives a sponge",
        (10.0, 5.0, 15.0), "% of its flour", "for skilled hands");
    REVIVE_YEAST = Coefficient::house("revive_yeast", "fresh yeast that revives a sponge",
        (15.0, 10.0, 25.0), "% of its yeast", "for skilled hands");
    /// How far a stage may be off its planned minutes where the method does not say, as shares of them.
    SPONGE_TOLERANCE = tolerance("sponge_tolerance", "time tolerance of a sponge", (0.8, 1.25));
    BEFORE_TOLERANCE = tolerance("preparation_tolerance", "time tolerance of an autolyse or another preparation", (0.5, 2.0));
    MIXING_TOLERANCE = tolerance("mixing_tolerance", "time tolerance of mixing", (0.7, 1.5));
    FLOOR_TOLERANCE = tolerance("floor_tolerance", "time tolerance of folds, floor time and intermediate proof", (0.6, 1.5));
    COLD_TOLERANCE = tolerance("cold_tolerance", "time tolerance of a time in the cold", (0.7, 1.7));
    DIVIDING_TOLERANCE = tolerance("dividing_tolerance", "time tolerance of dividing", (0.3, 1.4));
    PROOF_TOLERANCE = tolerance("proof_tolerance", "time tolerance of a proof", (0.8, 1.2));
    BAKE_TOLERANCE = tolerance("bake_tolerance", "time tolerance of a bake", (0.9, 1.15));
    COOL_TOLERANCE = tolerance("cooling_tolerance", "time tolerance of cooling", (0.7, 4.0));
    /// How warm a core may come to the slicer, °C.
    SLICER_CORE_C = Coefficient::house("slicer_core", "a core comes to the slicer at most at",
        (38.0, 32.0, 40.0), "°C", "a warmer starch gel is not set: it smears and tears");
    /// What is usual of stages: typical, least and most.
    USUAL_SPONGE_MIN = Coefficient::house("usual_sponge_min", "minutes of a sponge, usual", (210.0, 150.0, 270.0), "min", STAGE);
    USUAL_SPONGE_C = Coefficient::house("usual_sponge_c", "room of a sponge, usual", (27.0, 24.0, 30.0), "°C", STAGE);
    USUAL_SPONGE_HUMIDITY = Coefficient::house("usual_sponge_humidity", "humidity of a sponge room, usual", (65.0, 60.0, 75.0), "%", STAGE);
    USUAL_ROOM_C = Coefficient::house("usual_room_c", "room of a dough, usual", (25.0, 20.0, 28.0), "°C", STAGE);
    USUAL_NO_TIME_MIX_MIN = Coefficient::house("usual_no_time_mix_min", "mixing of a no-time dough, usual", (10.0, 7.0, 15.0), "min", STAGE);
    USUAL_MIX_MIN = Coefficient::house("usual_mix_min", "mixing, usual", (4.0, 2.0, 10.0), "min", STAGE);
    USUAL_AUTOLYSE_MIN = Coefficient::house("usual_autolyse_range_min", "minutes of an autolyse, usual", (20.0, 10.0, 60.0), "min", STAGE);
    USUAL_NO_TIME_FLOOR_MIN = Coefficient::house("usual_no_time_floor_range_min", "floor time of a no-time or frozen dough, usual", (5.0, 0.0, 15.0), "min", STAGE);
    USUAL_SPONGE_FLOOR_MIN = Coefficient::house("usual_sponge_floor_range_min", "floor time of a sponge dough, usual", (15.0, 10.0, 25.0), "min", STAGE);
    USUAL_BULK_MIN = Coefficient::house("usual_bulk_range_min", "bulk, usual", (120.0, 20.0, 720.0), "min", STAGE);
    USUAL_BULK_C = Coefficient::house("usual_bulk_c", "temperature of bulk, usual", (25.0, 16.0, 30.0), "°C", STAGE);
    USUAL_COLD_MIN = Coefficient::house("usual_cold_min", "minutes in the cold, usual", (900.0, 480.0, 4320.0), "min", STAGE);
    USUAL_COLD_C = Coefficient::house("usual_cold_c", "temperature in the cold, usual", (4.0, 2.0, 8.0), "°C", STAGE);
    USUAL_DIVIDING_MIN = Coefficient::house("usual_dividing_min", "dividing, usual", (12.0, 2.0, 20.0), "min", STAGE);
    USUAL_INTERMEDIATE_MIN = Coefficient::house("usual_intermediate_min", "intermediate proof, usual", (8.0, 4.0, 120.0), "min", STAGE);
    USUAL_PROOF_MIN = Coefficient::house("usual_proof_min", "minutes of proof, usual", (58.0, 40.0, 120.0), "min", STAGE);
    USUAL_PROOF_C = Coefficient::house("usual_proof_c", "temperature of proof, usual", (33.0, 24.0, 38.0), "°C", STAGE);
    USUAL_PROOF_HUMIDITY = Coefficient::house("usual_proof_humidity", "humidity of proof, usual", (85.0, 70.0, 92.0), "%", STAGE);
    USUAL_BAKE_MIN = Coefficient::house("usual_bake_min", "minutes of baking, usual", (25.0, 3.0, 75.0), "min", STAGE);
    USUAL_BAKE_C = Coefficient::house("usual_bake_c", "oven, usual", (230.0, 180.0, 400.0), "°C", STAGE);
    USUAL_COOL_MIN = Coefficient::house("usual_cool_min", "minutes of cooling, usual", (90.0, 20.0, 720.0), "min", STAGE);
}

/// Shares of a stage's planned minutes within which it may stay.
const fn tolerance(
    key: &'static str,
    name: &'static str,
    (least, most): (f64, f64),
) -> Coefficient {
    let source = "as far as a dough of the kind bears it; a method states its own";
    Coefficient::house(key, name, (1.0, least, most), "of its minutes", source).within(0.1, 10.0)
}
