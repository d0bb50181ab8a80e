//! What was weighed, how warm things came and how long they stood, against what was calculated with.

use super::BatchEvidence;
use super::features::Figures;
use crate::batch::{Quantity, minutes};
use crate::method::StageRole;

const YEASTS: [&str; 3] = ["instant_yeast", "active_dry_yeast", "fresh_yeast"];
const SUGARS: [&str; 4] = ["sugar", "honey", "molasses", "malt_syrup"];
/// What a no-time dough counts as older at the divider, min.
const NO_TIME_OLDER_MIN: f64 = 5.0;
/// A rye loaf is cut after so many times the hours of a wheat loaf.
const RYE_CUT_LATER: f64 = 12.0;

impl BatchEvidence<'_> {
    /// Weighed against planned: all lines of a kind, where each was ticked.
    pub(super) fn of_lines(&self) -> Figures {
        let sums = |words: &[&str]| {
            let lines = self.report.lines.iter();
            let mut lines =
                lines.filter(|one| words.contains(&&*one.planned.ingredient)).peekable();
            lines.peek()?;
            lines.try_fold((0.0, 0.0), |(planned, weighed), one| {
                Some((planned + one.planned.kg, weighed + one.weighed_kg?))
            })
        };
        let pct = |(planned, weighed): (f64, f64)| {
            (planned > 0.0).then(|| 100.0 * (weighed - planned) / planned)
        };
        let flour = self.plan.figures.flour_kg;
        let points = |(planned, weighed): (f64, f64)| {
            (flour > 0.0).then(|| 100.0 * (weighed - planned) / flour)
        };
        vec![
            ("yeast_d_pct", sums(&YEASTS).and_then(pct)),
            ("salt_d_pts", sums(&["salt"]).and_then(points)),
            ("sugar_d_pts", sums(&SUGARS).and_then(points)),
            ("improver_d_pct", sums(&["ascorbic_acid"]).and_then(pct)),
        ]
    }

    /// How warm flour, room and sponge came against what was calculated with; how sour the dough left
    /// the mixer.
    pub(super) fn of_surroundings(&self) -> Figures {
        let apart = |quantity, from: Option<f64>| Some(self.first(quantity)? - from?);
        let sponge = self.over(StageRole::Sponge).and_then(|(stage, times)| {
            let begun = times.begun_at?;
            let (at, read, _) = self.record.readings(Quantity::SpongeC).next()?;
            // One of its first half tells how it was set; a later one how it ended.
            (2.0 * minutes(begun, at) <= stage.minutes).then_some(read)
        });
        let mixed = self.over(StageRole::Mixing).and_then(|(_, times)| times.begun_at);
        let ph = mixed.and_then(|from| {
            self.record.readings(Quantity::Ph).find(|(at, ..)| *at >= from).map(|(_, read, _)| read)
        });
        vec![
            ("flour_c_d", apart(Quantity::FlourC, self.planned.flour_c)),
            ("room_c_d", apart(Quantity::RoomC, self.planned.room_c)),
            ("sponge_set_c_d", sponge.zip(self.planned.sponge_c).map(|(read, set)| read - set)),
            ("dough_ph", ph),
        ]
    }

    /// How long it was mixed, and how old it came to divider, slicer and oven.
    pub(super) fn of_ages(&self) -> Figures {
        let mixing = || self.stages().filter(|(stage, _)| stage.role == StageRole::Mixing);
        let all_over = mixing().all(|(_, times)| times.ended_at.is_some());
        let planned: f64 = mixing().map(|(stage, _)| stage.minutes).sum();
        let lasted: f64 = mixing().filter_map(|(_, times)| times.lasted_min).sum();
        let longer = (all_over && planned > 0.0).then(|| 100.0 * (lasted - planned) / planned);
        let end = |role| self.over(role).and_then(|(_, times)| times.ended_at);
        let older = if self.planned.no_time { NO_TIME_OLDER_MIN } else { 0.0 };
        let age = end(StageRole::Mixing).zip(end(StageRole::Dividing));
        let proofed = end(StageRole::Proof);
        let in_oven = self.over(StageRole::Bake).and_then(|(_, times)| times.begun_at);
        let waited = proofed.zip(in_oven).map(|(from, to)| minutes(from, to));
        vec![
            ("mix_time_d_pct", longer),
            ("divider_age_min", age.map(|(from, to)| minutes(from, to) + older)),
            ("wait_oven_min", waited),
        ]
    }

    /// Hours from the oven to the slicer, as they count.
    pub(super) fn slicing_age_h(&self, hours: f64) -> f64 {
        if self.planned.rye { hours / RYE_CUT_LATER } else { hours }
    }
}
