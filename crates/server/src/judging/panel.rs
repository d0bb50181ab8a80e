use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::judging::{Panel, ProductStandard, Sheet, panel};
use ironpeel_store::{BatchSeen, Score};

/// Sheets of a product that say how its judges mark.
pub const EARLIER_SHEETS: i64 = 240;

/// A batch's judges together; none where nobody judged.
pub fn judged(
    scores: &[Score],
    earlier: &[Score],
    standard: &ProductStandard,
    coefficients: &Coefficients,
) -> Option<Panel> {
    let sheets = |scores: &[Score]| scores.iter().map(Score::sheet).collect::<Vec<Sheet>>();
    panel(&sheets(scores), &sheets(earlier), standard, coefficients)
}

/// What of them lists and learning ask for.
pub fn seen_by_judges(panel: Option<&Panel>, before: BatchSeen) -> BatchSeen {
    BatchSeen {
        score: panel.and_then(|panel| panel.total.total),
        crumb_is_low: panel.is_some_and(|panel| panel.crumb_is_low),
        ..before
    }
}
