//! What reading a bake rests on.

use crate::coefficient::{Coefficient, coefficients};

coefficients! {
    /// Core temperatures a bake is read by, °C.
    YEAST_KILL_C = Coefficient::house("yeast_kill", "yeast is killed at a core of", (56.0, 54.0, 60.0),
        "°C", "usual of thermal profiling; the crumb is set by what follows").within(40.0, 70.0);
    GELATINISED_C = Coefficient::house("gelatinised", "starch is gelatinised at a core of",
        (82.0, 78.0, 85.0), "°C", "wheat starch in a dough's water").within(60.0, 95.0);
    ARRIVAL_C = Coefficient::house("arrival_core", "the crumb arrives at a core of", (93.0, 91.0, 95.0),
        "°C", "from there on it is set, and water leaves").within(80.0, 99.0);
    STEAM_UNTIL_C = Coefficient::house("steam_until", "steam goes off at a core of",
        (80.0, 75.0, 85.0), "°C", "the crust has opened by then").within(40.0, 95.0);
    /// A logger whose samples stray further than this from those beside them is read through its
    /// noise, 1 σ in °C, and over so many minutes either way.
    NOISY_C = Coefficient::house("bake_trace_noise", "a bake trace is noisy from", (0.2, 0.15, 0.3),
        "°C", "more than a logger's own steps").within(0.05, 2.0);
    SMOOTHED_MIN = Coefficient::house("bake_trace_smoothed", "noise of a bake trace is read through over",
        (3.0, 2.0, 4.0), "min", "shorter than anything the core does").within(0.5, 10.0);
    /// Bake time goes with the piece's mass to this power.
    BAKE_MASS_POWER = Coefficient::house("bake_mass_power", "bake time goes with mass to the power of",
        (2.0 / 3.0, 0.5, 0.75), "", "heat goes through a piece of one shape with its thickness squared");
    /// Nothing of a loaf is hotter inside; a probe that is fell out of it.
    HOTTEST_CORE_C = Coefficient::house("hottest_core", "no core is hotter than", (110.0, 105.0, 115.0),
        "°C", "water leaves at 100 °C, salt and sugar raise it little");
    LOSS_PER_PCT = Coefficient::house("loss_per_bake_pct", "loss of weight for each per cent of bake time",
        (0.067, 0.05, 0.083), "points", "6 % longer lose 0.3 to 0.5 point more");
}
