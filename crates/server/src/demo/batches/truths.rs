//! What the demo plant's batches hide: a test holds what is learned against it.

use ironpeel_instruments::Noise;

/// What is true of a product on its line, and nobody at the plant knows.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Truth {
    /// Water its flour takes beyond the plan, points.
    pub water_pts: f64,
    /// Lost from dough piece to bread, %, beyond the formula's.
    pub loss_pts: f64,
    /// When its slowest core is set, % of the bake.
    pub arrival_pct: f64,
    /// How dark its crumb is, white 0, dark rye 1.
    pub dark: f64,
    /// How wide its cells are, mm.
    pub cell_mm: f64,
}

/// Who judges.
pub const JUDGES: [&str; 2] = ["Runa Kell", "Odd Marren"];

/// The truths of a seed, by the product's word.
pub fn truths(seed: u64, product: &str) -> Truth {
    let mut noise = own(seed, product);
    let (dark, cell_mm) = crumb(product);
    Truth {
        water_pts: noise.of(0.7).clamp(-1.4, 1.4),
        loss_pts: noise.of(0.6).clamp(-1.2, 1.2),
        arrival_pct: 84.0 + noise.of(2.0).clamp(-3.0, 3.0),
        dark,
        cell_mm,
    }
}

/// A product's crumb: how dark, and how wide its cells, mm.
fn crumb(product: &str) -> (f64, f64) {
    match product {
        "kesh-dark" => (0.9, 1.0),
        "rigg-spelt-500" => (0.4, 2.0),
        "causeway-stick" => (0.08, 3.6),
        "deck-roll-60" => (0.05, 1.2),
        _ => (0.1, 1.4),
    }
}

/// How much too high a judge marks.
pub fn judge_level(seed: u64, judge: &str) -> f64 {
    own(seed, judge).of(0.4).clamp(-0.5, 0.5)
}

fn own(seed: u64, name: &str) -> Noise {
    let own = name.bytes().fold(seed, |sum, byte| sum.wrapping_mul(31) + u64::from(byte));
    Noise::seeded(own)
}
