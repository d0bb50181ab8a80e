use serde::Serialize;

use super::{FLOUR_PCT, Formula, Ingredient, Library, Scaled};

/// What the ingredients of a run cost, and what water is worth.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Cost {
    /// For a kilo of dough.
    pub per_kg: f64,
    /// For a piece, with what scaling loses.
    pub per_piece: f64,
    pub run: f64,
    /// Ingredients whose price is not on record, counted as nothing.
    pub unpriced: Vec<String>,
    /// Dough from 100 kg of flour, kg.
    pub dough_yield: f64,
    pub point_of_water: PointOfWater,
}

/// What one point more of water on flour would give this run.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PointOfWater {
    /// More pieces from the same flour.
    pub more_pieces: f64,
    /// Flour left over from the same dough, kg.
    pub flour_saved_kg: f64,
    /// What the same dough would cost less.
    pub saved: f64,
}

/// Costs a run: `Σ pct · price / total` for a kilo of dough. One point of water more makes
/// `100/(total + 1)` of flour do for the same dough.
///
/// `flours` are the prices of a kilo of each flour with its share; the library's own price of flour
/// counts where one is not on record.
///
/// ```
/// use ironpeel_core::dough::*;
/// let line = |ingredient, pct: f64| LineInput { ingredient, pct: pct.into() };
/// let formula = Formula::new(&[line(Ingredient::Flour, 100.0), line(Ingredient::Salt, 2.0)])?;
/// let run = ScaleRequest { amount: Amount::Dough { kg: 162.0 }, piece_kg: 0.5, mixer_max_kg: 200.0, losses: Losses::house(), total_pct: 162.0 }.scale();
/// let found = cost(&formula, 60.0, &run, &[(100.0, Some(0.5))], &Library::default());
/// assert!((found.per_kg - 50.0 / 162.0).abs() < 1e-9);
/// assert_eq!(found.unpriced, ["water", "salt"]);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub fn cost(
    formula: &Formula,
    added_water_pct: f64,
    run: &Scaled,
    flours: &[(f64, Option<f64>)],
    library: &Library,
) -> Cost {
    let mut unpriced = Vec::new();
    let mut price = |ingredient: Ingredient| {
        let properties = library.properties(ingredient);
        properties.price_per_kg.unwrap_or_else(|| {
            unpriced.push(properties.label.to_string());
            0.0
        })
    };
    let flour_price: f64 = flours
        .iter()
        .map(|(share, own)| share / 100.0 * own.unwrap_or_else(|| price(Ingredient::Flour)))
        .sum();
    let water_price = price(Ingredient::Water);
    let others: f64 = formula.additions().map(|line| line.pct * price(line.ingredient)).sum();
    let total_pct = formula.total_pct(added_water_pct);
    let of_flour = FLOUR_PCT * flour_price + others;
    let per_kg = (of_flour + added_water_pct * water_price) / total_pct;
    let flour_kg = run.total_kg / total_pct * FLOUR_PCT;
    let flour_then = run.total_kg / (total_pct + 1.0) * FLOUR_PCT;
    let per_kg_then = (of_flour + (added_water_pct + 1.0) * water_price) / (total_pct + 1.0);
    Cost {
        per_kg,
        per_piece: per_kg * run.total_kg / f64::from(run.pieces.max(1)),
        run: per_kg * run.total_kg,
        unpriced,
        dough_yield: total_pct,
        point_of_water: PointOfWater {
            more_pieces: flour_kg / 100.0 / run.piece_kg,
            flour_saved_kg: flour_kg - flour_then,
            saved: (per_kg - per_kg_then) * run.total_kg,
        },
    }
}
