//! The demo plant's past and present: eighteen months of batches, and what runs now.

mod judged;
mod simulated;
mod truths;

pub use truths::{JUDGES, Truth, judge_level, truths};

use std::collections::HashMap;
use std::f64::consts::TAU;

use anyhow::Context;
use chrono::{DateTime, Datelike, NaiveDate, NaiveTime, TimeDelta, Timelike, Utc};
use ironpeel_core::batch::BatchState;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::judging::Sheet;
use ironpeel_store::{
    Author, BatchFilter, EventAuthor, LotSummary, NewBatchEvent, Product, RunBatch, Store,
};
use serde_json::{Value, json};
use uuid::Uuid;

use super::{CLOCK, PEOPLE};
use crate::batches::{BatchInput, plan};
use crate::config::Config;
use crate::planned_batch::PlannedBatch;
use crate::request::from_value;
use crate::state::App;
use judged::{Over, Seen};
use simulated::{Simulation, Story};

/// Of the generator, for tests that know the truths.
pub const SEED: u64 = 19;
/// Days the past goes back.
const DAYS: i64 = 540;
/// Of batches that ended since, cut faces were photographed.
const PHOTOGRAPHED: TimeDelta = TimeDelta::days(60);
/// Lots read of a flour.
const LOTS: i64 = 500;

/// A product with how often it is made.
struct Made {
    slug: &'static str,
    /// Every so many days.
    every_days: i64,
    /// At this hour.
    hour: u32,
}

const MADE: [Made; 7] = [
    Made { slug: "ferry-tin-800", every_days: 3, hour: 1 },
    Made { slug: "ferry-tin-short", every_days: 7, hour: 9 },
    Made { slug: "deck-roll-60", every_days: 3, hour: 3 },
    Made { slug: "causeway-stick", every_days: 11, hour: 6 },
    Made { slug: "holm-tin", every_days: 9, hour: 5 },
    Made { slug: "rigg-spelt-500", every_days: 14, hour: 7 },
    Made { slug: "kesh-dark", every_days: 16, hour: 8 },
];

/// A batch to be planned for a time, and run until another if it starts.
struct Wanted<'a> {
    slug: &'a str,
    id: Uuid,
    planned_for: DateTime<Utc>,
    until: DateTime<Utc>,
    starts: bool,
}

/// What the generator reads of the plant.
struct Plant {
    app: App,
    products: HashMap<String, Product>,
    lots: HashMap<String, Vec<LotSummary>>,
    author: Author,
    event_author: EventAuthor,
}

/// Adds the past where there is none, and today's present unless it stands. How many batches were
/// added.
pub async fn load(store: &Store) -> anyhow::Result<usize> {
    let now = Utc::now();
    let day = now.with_timezone(&CLOCK).date_naive();
    let today: Vec<Uuid> = SLOTS.iter().map(|slot| slot.id(day)).collect();
    if !store.known_batches(&today).await?.is_empty() {
        return Ok(0);
    }
    let plant = Plant::read(store).await?;
    let mut run = Vec::new();
    if store.batches(&BatchFilter::default(), None, 1).await?.is_empty() {
        run.extend(plant.past(now).await?);
    }
    plant.finish_earlier(now).await?;
    run.extend(plant.present(now).await?);
    store.add_run_batches(&run).await?;
    Ok(run.len())
}

impl Plant {
    async fn read(store: &Store) -> anyhow::Result<Self> {
        let products: HashMap<String, Product> = store
            .products()
            .await?
            .into_iter()
            .map(|product| (product.slug.clone(), product))
            .collect();
        let mut lots: HashMap<String, Vec<LotSummary>> = HashMap::new();
        for lot in store.lots_onward(None, None, LOTS).await? {
            lots.entry(lot.flour.clone()).or_default().push(lot);
        }
        let floor = PEOPLE.iter().find(|one| one.email.starts_with("floor")).context("no floor")?;
        let person_id = store.account(floor.email).await?.map(|account| account.person.id);
        Ok(Self {
            app: App::new(store.clone(), Config { demo: true, ..Config::default() }),
            products,
            lots,
            author: Author { person_id, ..Author::called(floor.name, "demo") },
            event_author: EventAuthor {
                person_id,
                who: floor.name.into(),
                station_id: None,
                api_key_id: None,
                verified: true,
            },
        })
    }

    /// The lots of a product's flours that were there at a time, the main flour's first.
    async fn lots_at(
        &self,
        product: &Product,
        at: DateTime<Utc>,
    ) -> anyhow::Result<Option<Vec<&LotSummary>>> {
        let formula = self.app.store.current_formula(product.formula_id).await?;
        let names = formula.formula.formula.flours();
        let others = names.iter().skip(1).map(|share| &*share.name);
        let newest = |name: &str| {
            let lots = self.lots.get(name)?;
            let day = at.date_naive();
            let there = lots.iter().filter(|lot| delivered_on(lot) < day);
            there.max_by_key(|lot| delivered_on(lot)).or_else(|| lots.first())
        };
        Ok(std::iter::once(&*product.flour).chain(others).map(newest).collect())
    }

    /// A batch as it was planned and run.
    async fn batch(
        &self,
        Wanted { slug, id, planned_for, until, starts }: Wanted<'_>,
        story: impl Fn(&PlannedBatch) -> Story,
        earlier: &mut Vec<Sheet>,
    ) -> anyhow::Result<Option<RunBatch>> {
        let Some(product) = self.products.get(slug) else { return Ok(None) };
        let Some(lots) = self.lots_at(product, planned_for).await? else { return Ok(None) };
        let input = self.input(product, &lots, planned_for).await?;
        let run_settings = input["scenario"]["run_settings"].clone();
        let input: BatchInput =
            from_value(input).map_err(|problem| anyhow::anyhow!("{problem:?}"))?;
        let Ok((batch, others, state)) =
            Box::pin(plan(&self.app, (id, planned_for), input, run_settings, &self.author)).await
        else {
            // A lot that was held or rejected is made into nothing.
            return Ok(None);
        };
        let method = self.app.revisions.method(batch.method_revision_id).await;
        let line = self.app.revisions.line(batch.line_revision_id).await;
        let (Ok(method), Ok(line)) = (method, line) else { return Ok(None) };
        let saved_at = planned_for - TimeDelta::hours(9);
        let planned = PlannedBatch::of_new(&batch, saved_at, slug.into(), &method, &line);
        let story = story(&planned);
        let events = if starts { self.events(&planned, story, until) } else { Vec::new() };
        let projection = planned.project_new(&events);
        let seen = match projection.ended_at.filter(|_| projection.state == BatchState::Finished) {
            Some(ended_at) => {
                let truth = truths(SEED, slug);
                let seed = planned.id.as_u64_pair().1 ^ SEED;
                let product_id = product.id;
                let over = Over {
                    batch: &planned,
                    product_id,
                    truth,
                    story,
                    ended_at,
                    seed,
                    photographed: until - ended_at < PHOTOGRAPHED || story.smearing_pct > 0.0,
                };
                over.seen(earlier, &Coefficients::default())
            }
            None => Seen::default(),
        };
        let Seen { trace, samples, scores, photographs, figures: seen } = seen;
        Ok(Some(RunBatch {
            batch,
            others,
            state,
            saved_at,
            events,
            projection,
            trace,
            samples,
            scores,
            photographs,
            seen,
        }))
    }

    /// What happened to a batch until a time.
    fn events(
        &self,
        batch: &PlannedBatch,
        story: Story,
        until: DateTime<Utc>,
    ) -> Vec<NewBatchEvent> {
        let seed = batch.id.as_u64_pair().0 ^ SEED;
        let planned_for = batch.plan.planned_for;
        let late = ironpeel_instruments::Noise::seeded(seed).of(240.0);
        let (flour_c, room_c) = season(planned_for);
        let simulation = Simulation {
            batch,
            truth: truths(SEED, &batch.slug),
            story,
            start: planned_for + TimeDelta::seconds(late as i64),
            until,
            author: &self.event_author,
            flour_c,
            room_c,
            seed,
        };
        simulation.run()
    }

    /// Runs what an earlier day left open to its end.
    async fn finish_earlier(&self, now: DateTime<Utc>) -> anyhow::Result<()> {
        let filter = BatchFilter {
            states: vec![BatchState::Planned, BatchState::Running, BatchState::Held],
            to: Some(now - TimeDelta::hours(12)),
            ..BatchFilter::default()
        };
        let store = &self.app.store;
        for open in store.batches(&filter, None, LOTS).await? {
            let days = (-1..=1).map(|days| (open.planned_for + TimeDelta::days(days)).date_naive());
            let mut slots = days.flat_map(|day| SLOTS.iter().map(move |slot| (slot, slot.id(day))));
            let Some((slot, id)) = slots.find(|(_, id)| *id == open.id) else { continue };
            let batch = self.app.revisions.batch(id).await;
            let batch = batch.map_err(|problem| anyhow::anyhow!("{problem:?}"))?;
            let events = self.events(&batch, slot.story(), now);
            store.add_batch_events(id, &events, |events| batch.project(events)).await?;
        }
        Ok(())
    }

    async fn input(
        &self,
        product: &Product,
        lots: &[&LotSummary],
        planned_for: DateTime<Utc>,
    ) -> anyhow::Result<Value> {
        let store = &self.app.store;
        let (flour_c, room_c) = season(planned_for);
        let mut refs = Vec::new();
        for lot in lots {
            let specification = match self.app.specification_of(lot.flour_id).await {
                Ok(specification) => specification.map(|one| one.revision.id),
                Err(problem) => anyhow::bail!("{problem:?}"),
            };
            refs.push(json!({
                "lot_revision_id": lot.current.revision.id,
                "specification_revision_id": specification,
            }));
        }
        let main = refs.remove(0);
        Ok(json!({
            "slug": product.slug,
            "planned_for": planned_for,
            "scenario": {
                "revision_refs": {
                    "lot_revision_id": main["lot_revision_id"],
                    "specification_revision_id": main["specification_revision_id"],
                    "formula_revision_id": store.current_formula(product.formula_id).await?.revision.id,
                    "method_revision_id": store.current_method(product.method_id).await?.revision.id,
                    "line_revision_id": store.current_line(product.line_id).await?.revision.id,
                    "other_lots": refs,
                },
                "run_settings": {"flour_c": flour_c, "room_c": room_c},
            },
        }))
    }

    async fn past(&self, now: DateTime<Utc>) -> anyhow::Result<Vec<RunBatch>> {
        let mut run = Vec::new();
        for Made { slug, every_days, hour } in MADE {
            let mut earlier = Vec::new();
            let mut days_ago = DAYS;
            while days_ago > 0 {
                let at = on_the_clock(now - TimeDelta::days(days_ago), hour);
                let wanted = Wanted {
                    slug,
                    id: name(&format!("past {slug} {days_ago}")),
                    planned_for: at,
                    until: now,
                    starts: true,
                };
                let story = |batch: &PlannedBatch| story_of(slug, days_ago, at, batch);
                run.extend(self.batch(wanted, story, &mut earlier).await?);
                days_ago -= every_days;
            }
        }
        Ok(run)
    }

    /// What runs now and is planned for tonight.
    async fn present(&self, now: DateTime<Utc>) -> anyhow::Result<Vec<RunBatch>> {
        let day = now.with_timezone(&CLOCK).date_naive();
        let mut run = Vec::new();
        for slot in SLOTS {
            let story = |_: &PlannedBatch| slot.story();
            let wanted = Wanted {
                slug: slot.slug,
                id: slot.id(day),
                planned_for: now + TimeDelta::minutes(slot.minutes),
                until: now,
                starts: slot.minutes < 0,
            };
            run.extend(self.batch(wanted, story, &mut Vec::new()).await?);
        }
        Ok(run)
    }
}

/// A batch of today: begun so many minutes ago, or planned for later.
struct Slot {
    name: &'static str,
    slug: &'static str,
    minutes: i64,
    held: bool,
}

const fn slot(name: &'static str, slug: &'static str, minutes: i64) -> Slot {
    Slot { name, slug, minutes, held: false }
}

/// In the oven, in proof and in the sponge on line 1; held on line 2; a jar and a cold dough on the
/// bench; and what is planned for later.
const SLOTS: [Slot; 9] = [
    slot("oven", "ferry-tin-800", -330),
    slot("proof", "ferry-tin-800", -285),
    slot("sponge", "ferry-tin-800", -100),
    Slot { held: true, ..slot("held", "deck-roll-60", -75) },
    slot("jar", "holm-tin", -190),
    slot("cold", "ebb-flats-240", -600),
    slot("tonight 1", "ferry-tin-800", 120),
    slot("tonight 2", "deck-roll-60", 240),
    slot("tonight 3", "holm-tin", 420),
];

impl Slot {
    fn story(&self) -> Story {
        Story { held_in_proof: self.held, ..Story::default() }
    }

    fn id(&self, day: NaiveDate) -> Uuid {
        name(&format!("present {day} {}", self.name))
    }
}

fn delivered_on(lot: &LotSummary) -> NaiveDate {
    lot.current.delivered_on.unwrap_or_else(|| lot.received_at.date_naive())
}

/// The same id for the same batch at every plant.
fn name(of: &str) -> Uuid {
    Uuid::new_v5(&Uuid::NAMESPACE_URL, format!("skerrow.example/batches/{of}").as_bytes())
}

/// A day at an hour of the plant's clock.
fn on_the_clock(day: DateTime<Utc>, hour: u32) -> DateTime<Utc> {
    let local = day.with_timezone(&CLOCK);
    let time = NaiveTime::from_hms_opt(hour, 0, 0).unwrap_or_default();
    let at = local.date_naive().and_time(time).and_local_timezone(CLOCK).earliest();
    at.map_or(day, |at| at.with_timezone(&Utc))
}

/// How warm flour and room are at that time of the year and day, °C.
fn season(at: DateTime<Utc>) -> (f64, f64) {
    let year = (TAU * (f64::from(at.ordinal()) - 110.0) / 365.0).sin();
    let day = (TAU * (f64::from(at.hour()) - 9.0) / 24.0).sin();
    let tenth = |value: f64| (value * 10.0).round() / 10.0;
    (tenth(20.0 + 3.0 * year), tenth(22.5 + 3.0 * year + day))
}

/// The stories to be found.
fn story_of(slug: &str, days_ago: i64, at: DateTime<Utc>, batch: &PlannedBatch) -> Story {
    let mut story = Story::default();
    let month = at.month();
    // Line 2 has no jacket, and summer is warm.
    if slug == "deck-roll-60" && (6..=8).contains(&month) {
        story.warm_c = 2.2;
    }
    // Thirsty at once, and dry to the hand: water is added, and the slicer smears.
    if batch.damaged_starch.is_some() {
        story.by_feel_pts = 1.6;
        story.smearing_pct = if slug.starts_with("ferry-tin") { 4.0 } else { 0.0 };
    }
    // A line that stood for two hours.
    story.lost_after_stop_min =
        (slug == "ferry-tin-800" && (145..148).contains(&days_ago)).then_some(120.0);
    // A sour that slowed over a fortnight.
    if slug == "holm-tin" && (60..=85).contains(&days_ago) {
        story.rest = 1.0 + 0.018 * (85 - days_ago) as f64;
    }
    // A proofer that reads two degrees high since it was repaired is two degrees cold.
    if slug.starts_with("ferry-tin") && days_ago < 118 {
        story.proof = 1.14;
    }
    story
}
