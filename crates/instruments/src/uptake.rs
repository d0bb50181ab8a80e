//! The water a mill's flour takes up by what it is made of: this stand-in's own truth, near to what
//! a house would expect and not the same, as a plant's flour is.

/// Points of absorption for each point of protein on 14 %, of damaged starch, and of ash on dry
/// matter.
const PER_POINT: [f64; 3] = [1.25, 1.3, 3.4];
/// Damaged starch takes up a little more than its share where there is much of it.
const SWELLS: f64 = 0.02;

/// How far off the usual absorption a flour is that is so far off in protein, damaged starch and ash.
pub(crate) fn uptake([protein, damaged, ash]: [f64; 3]) -> f64 {
    let [per_protein, per_damaged, per_ash] = PER_POINT;
    per_protein * protein + per_damaged * damaged + SWELLS * damaged * damaged.abs() + per_ash * ash
}
