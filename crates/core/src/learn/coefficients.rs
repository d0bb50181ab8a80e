//! What learning rests on: how far each number is believed before, how well a batch tells it, and
//! how far it wanders. Friction's stand with its own rule.

use crate::coefficient::{Coefficient, coefficients};

coefficients! {
    WATER_PRIOR_SD = Coefficient::house("learned_water_prior_sd",
        "how far a line's water correction may lie, 1 σ", (1.5, 1.0, 2.5), "points",
        "from one line to another");
    WATER_SD = Coefficient::house("learned_water_sd",
        "how well one batch tells the water correction, 1 σ", (0.5, 0.3, 1.0), "points",
        "of scales, and of hands that judge");
    WATER_WALK_SD = Coefficient::house("learned_water_walk_sd",
        "how far the water correction wanders between batches, 1 σ", (0.15, 0.05, 0.3), "points",
        "of one flour on one line");
    CONSISTENCY_POINTS = Coefficient::house("consistency_points",
        "water that one step of consistency is worth", (0.8, 0.5, 1.2), "points",
        "what an operator adds for a dough judged one step too stiff");
    CONSISTENCY_SD = Coefficient::house("consistency_sd",
        "how well a step of consistency tells it, 1 σ", (0.4, 0.2, 0.8), "points",
        "hands differ");
    LOSS_PRIOR_SD = Coefficient::house("learned_loss_prior_sd",
        "how far a bake loss may lie from the formula's, 1 σ", (1.5, 1.0, 2.5), "points",
        "from one oven to another");
    LOSS_SD = Coefficient::house("learned_loss_sd",
        "how well one batch tells its bake loss, 1 σ", (0.4, 0.2, 0.8), "points",
        "of the pieces weighed");
    LOSS_WALK_SD = Coefficient::house("learned_loss_walk_sd",
        "how far the bake loss wanders between batches, 1 σ", (0.1, 0.05, 0.2), "points",
        "of one oven");
    ARRIVAL_PRIOR_SD = Coefficient::house("learned_arrival_prior_sd",
        "how far a product's arrival may lie, 1 σ", (6.0, 4.0, 8.0), "% of the bake",
        "from one oven and piece to another");
    ARRIVAL_SD = Coefficient::house("learned_arrival_sd",
        "how well one bake tells its arrival, 1 σ", (2.0, 1.0, 3.0), "% of the bake",
        "of the slowest probe and where it sat");
    ARRIVAL_WALK_SD = Coefficient::house("learned_arrival_walk_sd",
        "how far the arrival wanders between bakes, 1 σ", (0.5, 0.2, 1.0), "% of the bake",
        "of one oven");
    GATE_SIGMA = Coefficient::house("learned_gate", "an observation is left out beyond",
        (3.0, 2.5, 4.0), "σ", "one in four hundred would be by chance").within(0.0, 10.0);
}
