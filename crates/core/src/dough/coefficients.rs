//! What scaling a dough rests on. What ingredients are and do is the library's.

use crate::coefficient::{Coefficient, coefficients};

const LOSS: &str = "usual for a plant; weigh and set your own";
const FILLED: &str = "so that it stands a little above the edge; bake one and weigh";
const CUP: &str = "spooned or scooped; weigh it once and know";
const BEGUN: &str = "usual of a plant; to be set";
const WALLS: &str = "of usual walls; it warms with what it holds";
const MEETS: &str = "as it usually meets the final dough";

coefficients! {
    /// Lost between mixer and cooled loaf, % of what goes in.
    SCALING_LOSS = Coefficient::house("scaling_loss", "scaling loss", (0.5, 0.3, 1.0), "%", LOSS)
        .within(0.0, 20.0);
    FERMENTATION_LOSS = Coefficient::house("fermentation_loss", "fermentation loss",
        (1.0, 0.5, 2.0), "%", LOSS).within(0.0, 20.0);
    BAKE_LOSS = Coefficient::house("bake_loss", "bake loss", (12.0, 8.0, 20.0), "%", LOSS)
        .within(0.0, 40.0);
    COOLING_LOSS = Coefficient::house("cooling_loss", "cooling loss", (1.5, 1.0, 2.0), "%", LOSS)
        .within(0.0, 20.0);
    /// Specific heats, kJ/kg·K: of water, of the dry matter of flour, of a dough, a sponge, a starter
    /// or a scald.
    WATER_SPECIFIC_HEAT = Coefficient::physics("water_specific_heat", "specific heat of water",
        4.186, "kJ/kg·K", "physics");
    DRY_SPECIFIC_HEAT = Coefficient::physics("dry_specific_heat", "specific heat of dry matter",
        1.45, "kJ/kg·K", "calorimetry of flour");
    DOUGH_SPECIFIC_HEAT = Coefficient::physics("dough_specific_heat", "specific heat of dough",
        2.8, "kJ/kg·K", "calorimetry of doughs");
    /// A litre of ripe starter as a cup takes it up, kg.
    STARTER_KG_PER_L = Coefficient::house("starter_kg_per_l", "mass of a litre of ripe starter",
        (0.95, 0.60, 1.10), "kg", "from fallen to just stirred");
    /// Dough that a litre of a tin takes, kg, and the mass of a litre of a rolled disc.
    TIN_WHITE = Coefficient::house("tin_white", "white dough for a litre of tin", (0.42, 0.36, 0.50), "kg/l", FILLED);
    TIN_WHOLE = Coefficient::house("tin_whole", "whole grain dough for a litre of tin", (0.48, 0.42, 0.56), "kg/l", FILLED);
    TIN_RYE = Coefficient::house("tin_rye", "rye dough for a litre of tin", (0.75, 0.65, 0.85), "kg/l", FILLED);
    DISC_DENSITY = Coefficient::house("disc_density", "mass of a litre of rolled dough", (1.10, 1.00, 1.15), "kg/l",
        "little gas is left in it");
    /// A flour is whole from this extraction on.
    WHOLE_FROM = Coefficient::reference("whole_from", "a flour is whole from", 95.0, "% extraction",
        "little but chaff is missing");
    /// What a cup of 236.6 ml takes up of a flour that is not white wheat, g.
    CUP_WHOLE_WHEAT = Coefficient::house("cup_whole_wheat", "a cup of whole wheat flour", (120.0, 95.0, 155.0), "g", CUP);
    CUP_RYE = Coefficient::house("cup_rye", "a cup of rye flour", (105.0, 85.0, 135.0), "g", CUP);
    CUP_SPELT = Coefficient::house("cup_spelt", "a cup of spelt flour", (110.0, 85.0, 145.0), "g", CUP);
    CUP_DURUM = Coefficient::house("cup_durum", "a cup of durum or khorasan flour", (160.0, 130.0, 185.0), "g", CUP);
    CUP_OLD_WHEAT = Coefficient::house("cup_old_wheat", "a cup of emmer or einkorn flour", (100.0, 80.0, 130.0), "g", CUP);
    CUP_GLUTEN_FREE = Coefficient::house("cup_gluten_free", "a cup of a flour without gluten", (140.0, 105.0, 175.0), "g", CUP);
    /// How warm preparations are when they meet the final dough, °C.
    SPONGE_C = Coefficient::house("sponge_meets_c", "sponge at the mixer", (29.5, 27.0, 31.0), "°C", MEETS);
    STARTER_C = Coefficient::house("starter_meets_c", "starter at the mixer", (24.0, 18.0, 28.0), "°C", MEETS);
    AUTOLYSE_C = Coefficient::house("autolyse_meets_c", "autolyse at the mixer", (23.0, 18.0, 27.0), "°C", MEETS);
    SCALD_C = Coefficient::house("scald_meets_c", "scald at the mixer", (30.0, 25.0, 35.0), "°C", MEETS)
        .within(10.0, 40.0);
    SOAKER_C = Coefficient::house("soaker_meets_c", "soaker at the mixer", (20.0, 15.0, 25.0), "°C", MEETS);
    /// Heat that warms a vessel by 1 K where it holds 1 kg, kJ/K; it grows as the surface.
    TROUGH_HEAT = Coefficient::house("trough_heat", "heat of a trough that holds 1 kg", (0.3, 0.2, 0.5), "kJ/K", WALLS);
    BOWL_HEAT = Coefficient::house("bowl_heat", "heat of a bowl that holds 1 kg", (0.35, 0.2, 0.6), "kJ/K", WALLS);
    TUB_HEAT = Coefficient::house("tub_heat", "heat of a tub that holds 1 kg", (0.2, 0.1, 0.3), "kJ/K", WALLS);
    POT_HEAT = Coefficient::house("pot_heat", "heat of a pot that holds 1 kg", (0.6, 0.4, 1.0), "kJ/K", WALLS);
    /// What a room takes from 1 kg in an open vessel, for each degree and minute.
    ROOM_TAKES = Coefficient::house("room_takes", "loss to the room of 1 kg in a bowl", (0.04, 0.02, 0.07), "kJ/K·min",
        "still air over and around it");
    /// Boiling water when it meets the flour, °C.
    BOILING_MEETS = Coefficient::house("boiling_meets_c", "boiling water when it meets the flour", (90.0, 85.0, 95.0),
        "°C", "its steam takes the rest").within(80.0, 100.0);
    /// A scald is cool enough for yeast at so many °C.
    COOL_ENOUGH = Coefficient::reference("cool_enough_c", "cool enough for yeast", 35.0, "°C", "it suffers above");
    /// How slowly a preparation cools beside a dough of its mass.
    COOLS_AS_DOUGH = Coefficient::house("preparation_cools", "how slowly a preparation cools beside a dough of its mass",
        (1.0, 0.7, 1.5), "", "sooner when spread out, later under a lid");
    /// Mixing of a sponge or an autolyse, minutes at slow speed, and the work of what is only stirred.
    PREPARATION_MIN = Coefficient::house("preparation_min", "mixing of a sponge or an autolyse", (4.0, 3.0, 5.0), "min",
        "wet through, no more");
    STIRRED = Coefficient::house("stirred_energy", "work of what is stirred by hand", (0.5, 0.2, 1.0), "kJ/kg",
        "wet through, no more");
    /// How warm a starter is fed, and the water of a scald, °C.
    STARTER_SET = Coefficient::house("preparation_starter_c", "a starter when it is fed", (26.0, 24.0, 28.0), "°C", "usual of the trade; it states its own");
    SCALD_WATER_C = Coefficient::reference("scald_water_c", "temperature of the water of a scald", 100.0, "°C", "it boils");
    /// What a preparation is begun with.
    SPONGE_FLOUR = Coefficient::house("sponge_flour", "flour of a sponge", (65.0, 50.0, 70.0),
        "% of all flour", BEGUN);
    SPONGE_WATER = Coefficient::house("sponge_water", "water of a sponge", (40.0, 35.0, 45.0),
        "% on all flour", BEGUN);
    STARTER_FLOUR = Coefficient::house("starter_flour", "flour of a starter", (10.0, 5.0, 25.0),
        "% of all flour", BEGUN);
    STARTER_WATER = Coefficient::house("starter_water", "water of a starter", (10.0, 5.0, 25.0),
        "% on all flour", BEGUN);
    AUTOLYSE_FLOUR = Coefficient::house("autolyse_flour", "flour of an autolyse", (80.0, 50.0, 100.0),
        "% of all flour", BEGUN);
    AUTOLYSE_WATER = Coefficient::house("autolyse_water", "water of an autolyse", (50.0, 30.0, 60.0),
        "% on all flour", BEGUN);
    SCALD_FLOUR = Coefficient::house("scald_flour", "flour of a scald", (6.0, 3.0, 10.0),
        "% of all flour", BEGUN);
    SCALD_WATER = Coefficient::house("scald_water", "water of a scald", (27.0, 12.0, 40.0),
        "% on all flour", BEGUN);
    SOAKER_WATER = Coefficient::house("soaker_water", "water of a soaker", (5.0, 2.0, 15.0),
        "% on all flour", BEGUN);
    /// What another flour takes over of the main one when it comes into a formula.
    NEW_FLOUR_SHARE = Coefficient::house("new_flour_share", "share of a flour that is added",
        (10.0, 5.0, 20.0), "% of all flour", "enough to be tasted; to be set");
    /// How cold it is where ingredients are kept, °C.
    REFRIGERATOR_C = Coefficient::house("refrigerator_c", "refrigerator", (4.0, 2.0, 7.0), "°C",
        "usual of a plant; a line states its own").within(-2.0, 12.0);
    FREEZER_C = Coefficient::house("freezer_c", "freezer", (-18.0, -25.0, -12.0), "°C", "usual of a plant");
    /// A scale that shows less finely than this share of a mass weighs it too coarsely, %.
    COARSEST_WEIGHING = Coefficient::house("coarsest_weighing", "coarsest weighing",
        (2.0, 1.0, 3.0), "% of the mass", "beyond it a recipe is no longer the recipe");
}
