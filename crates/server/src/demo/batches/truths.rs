//! What the demo plant's batches hide: a test holds what is learned against it.

use ironpeel_instruments::Noise;

/// What is true of a product on its line, and nobody at the plant knows.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Truth {
    /// Water its flour takes beyond the plan, points.
    pub water_pts: f64,
    /// Lost from dough piece to bread, %, beyond the formula's.
    pub loss_pts: f64,
}

/// The truths of a seed, by the product's word.
pub fn truths(seed: u64, product: &str) -> Truth {
    let own = product.bytes().fold(seed, |sum, byte| sum.wrapping_mul(31) + u64::from(byte));
    let mut noise = Noise::seeded(own);
    Truth { water_pts: noise.of(0.7).clamp(-1.4, 1.4), loss_pts: noise.of(0.6).clamp(-1.2, 1.2) }
}
