//! What the heat balance rests on, beside the specific heats of doughs.

use crate::coefficient::{Coefficient, coefficients};

coefficients! {
    /// Heat to melt ice, kJ/kg, and its specific heat, kJ/kg·K.
    MELTING = Coefficient::physics("melting_of_ice", "melting of ice", 334.0, "kJ/kg", "physics");
    ICE = Coefficient::physics("ice_specific_heat", "specific heat of ice", 2.05, "kJ/kg·K", "physics");
    /// Heat flour gives when water first wets it, kJ/kg.
    WETTING = Coefficient::physics("heat_of_wetting", "heat of wetting flour", 15.1, "kJ/kg",
        "calorimetry of flour");
    /// The hottest water a dough may meet, and yeast, °C: limits of care.
    HOTTEST_WATER = Coefficient::reference("hottest_water", "hottest water a dough may meet",
        60.0, "°C", "starch gels and hands scald");
    YEAST_WATER = Coefficient::reference("yeast_water", "hottest water yeast may meet",
        43.0, "°C", "it dies above");
    /// Most of the water that may be ice, %.
    MOST_ICE = Coefficient::house("most_ice", "most ice", (60.0, 40.0, 70.0), "% of the water",
        "ice must melt before the dough develops; a line states its own").within(0.0, 100.0);
    /// Friction on the friction factor method before anything was observed, and how far it may lie, °C.
    FRICTION = Coefficient::house("friction_prior", "friction before anything was measured",
        (14.0, 8.0, 20.0), "°C", "usual of a spiral or horizontal mixer");
    FRICTION_SD = Coefficient::house("friction_prior_sd", "how far it may lie, 1 σ",
        (6.0, 4.0, 8.0), "°C", "from one mixer to another");
    /// How well one dough's temperatures tell it, and how far it wanders between batches, °C.
    FRICTION_MEASURED_SD = Coefficient::house("friction_measured_sd",
        "how well one dough tells friction, 1 σ", (1.5, 1.0, 2.5), "°C", "of three thermometers");
    FRICTION_WALK_SD = Coefficient::house("friction_walk_sd",
        "how far friction wanders between batches, 1 σ", (0.4, 0.2, 0.8), "°C", "of one mixer");
    /// Heat balance and friction factor method further apart than this disagree, °C.
    METHODS_DISAGREE = Coefficient::house("methods_disagree",
        "heat balance and friction factor disagree from", (2.0, 1.0, 3.0), "°C",
        "less is within what thermometers tell");
    /// Measured mixing energy further from the line's figures than this disagrees with them, %.
    ENERGIES_DISAGREE = Coefficient::house("energies_disagree",
        "measured mixing energy and the line's figures disagree from", (5.0, 3.0, 10.0), "%",
        "less is within what a few doughs tell");
    /// Degrees a kilo of melting ice is worth on the trade's own rule.
    ICE_RULE = Coefficient::reference("ice_rule", "degrees of water that melting ice is worth",
        80.0, "°C", "the trade's own rule: 334 over 4.186");
}
