use serde::Serialize;

/// When steam is to go off, as a product's own bakes say.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SteamPrediction {
    pub steam_until_min: f64,
    /// By the earliest and the latest of those bakes.
    pub earliest_min: f64,
    pub latest_min: f64,
    /// How many bakes say so.
    pub traces: usize,
}

/// An earlier bake: when its slowest core was where steam goes off, and how long it was baked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SteamedBake {
    pub steam_until_min: f64,
    pub bake_min: f64,
}

impl SteamPrediction {
    /// In a bake of so many minutes: the mean share of the bake at which the slowest core of earlier
    /// ones was where steam goes off, times these minutes. None without an earlier bake.
    ///
    /// ```
    /// use ironpeel_core::oven::{SteamPrediction, SteamedBake};
    /// let seen = [SteamedBake { steam_until_min: 14.0, bake_min: 20.0 },
    ///     SteamedBake { steam_until_min: 16.0, bake_min: 20.0 }];
    /// let steam = SteamPrediction::of(&seen, 24.0).unwrap();
    /// assert!((steam.steam_until_min - 18.0).abs() < 1e-9);
    /// ```
    pub fn of(bakes: &[SteamedBake], bake_min: f64) -> Option<Self> {
        let shares = bakes.iter().map(|bake| bake.steam_until_min / bake.bake_min);
        let earliest = shares.clone().reduce(f64::min)?;
        let latest = shares.clone().reduce(f64::max)?;
        let mean = shares.sum::<f64>() / bakes.len() as f64;
        Some(Self {
            steam_until_min: mean * bake_min,
            earliest_min: earliest * bake_min,
            latest_min: latest * bake_min,
            traces: bakes.len(),
        })
    }
}
