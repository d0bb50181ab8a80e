use chrono::{DateTime, Utc};

use super::{Chain, Scenario};
use crate::dough::{FLOUR_PCT, PreparationKind};
use crate::schedule::{FeedAt, ScheduleRequest, StarterWanted, feed_before};
use crate::units::G_PER_KG;

/// The feed of the product's starter for the whole run, ripe when it is mixed; none where it has no
/// starter, or where none fits.
pub fn starter_feed(
    scenario: &Scenario<'_>,
    chain: &Chain,
    mixes_at: DateTime<Utc>,
    wanted: &ScheduleRequest,
) -> Option<FeedAt> {
    let (dough, heat) = (chain.dough.as_ref()?, chain.heat.as_ref()?);
    let parts = scenario.formula.formula.parts();
    let starter = parts.iter().find(|part| part.kind == PreparationKind::Starter)?;
    let kg = dough.flour_kg * starter.total_pct() / FLOUR_PCT * f64::from(dough.scaled.doughs);
    let starter = StarterWanted {
        mixes_at,
        grams: kg * G_PER_KG,
        hydration_pct: starter.hydration_pct().unwrap_or(FLOUR_PCT),
        room_c: heat.room_c,
    };
    feed_before(starter, wanted, scenario.coefficients())
}
