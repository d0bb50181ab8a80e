use serde::Serialize;

/// What a line has besides its mixer, as far as a run of doughs cares.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Equipment {
    /// From one dough to the next: emptying and scraping down, minutes.
    pub turn_min: f64,
    pub troughs: u32,
    /// Dough a trough holds.
    pub trough_kg: f64,
    /// Floor a trough stands on.
    pub trough_m2: f64,
    /// Pieces a minute.
    pub divider_per_min: f64,
    /// Pieces that proof at once.
    pub proofer_pieces: f64,
    /// Pieces that bake at once.
    pub oven_pieces: f64,
}
