//! The demo plant's flours: eighteen months of lots from the stand-ins, with curves and decisions.

use chrono::{Days, Duration, NaiveDate, Utc};
use ironpeel_core::dough::AllergenStatement;
use ironpeel_core::flour::{
    Decision, Hardness, IntendedUse, Limit, Readings, Row, Species, Treatment, read_rows,
};
use ironpeel_instruments::{Sample, certificate, lots_over_years, run_alveograph, run_farinograph};
use ironpeel_store::{
    Flour, LotDisposition, LotStock, NewLotRevision, Signed, Stated, Store, Trace, TraceKind,
    TraceSource, Word,
};
use serde::Deserialize;
use serde_json::json;
use uuid::Uuid;

use super::CLOCK;

/// Newest lots of a flour that have curves on record.
const WITH_CURVES: usize = 8;
/// Seeds of the demo plant; the same plant at every start.
const SEED: u64 = 1_926;
/// The lot whose titration missed 500 FU, and by how many ml.
const MISSED: (&str, f64) = ("VR-26-1063", -5.6);
/// The lot whose certificate says another absorption than its curve, and by how much.
const DISAGREES: (&str, f64) = ("VR-26-1028", 2.1);

#[derive(Deserialize)]
pub struct DemoFlour {
    mill: String,
    pub name: String,
    species: Species,
    note: String,
    hardness: Option<Hardness>,
    extraction_pct: Option<f64>,
    intended_use: IntendedUse,
    price_per_t: f64,
    allergens: Option<AllergenStatement>,
    limits: Vec<Limit>,
    lots: Vec<DemoLot>,
    history: DemoHistory,
}

#[derive(Deserialize)]
struct DemoLot {
    code: String,
    milled_days_ago: u64,
    delivered_days_ago: u64,
    tonnes: f64,
    /// Property, value, unit, basis, method.
    rows: Vec<[String; 5]>,
}

/// Lots to be made by the stand-ins.
#[derive(Deserialize)]
struct DemoHistory {
    code: String,
    lots: u64,
    from_days: u64,
    to_days: u64,
    tonnes: f64,
    sample: DemoSample,
    /// What its certificates state; `all` for everything.
    states: Vec<String>,
}

#[derive(Deserialize)]
struct DemoSample {
    m: f64,
    p: f64,
    a: f64,
    ds: f64,
    #[serde(rename = "fn")]
    falling: f64,
    wa: f64,
    dev: f64,
    st: f64,
    so: f64,
    #[serde(rename = "P")]
    height: f64,
    #[serde(rename = "L")]
    length: f64,
    #[serde(rename = "W")]
    work: f64,
}

impl DemoFlour {
    /// Records the flour with everything that happened to it.
    pub async fn load(self, store: &Store, signed: &Signed) -> anyhow::Result<Uuid> {
        let id = Uuid::now_v7();
        let flour = Flour {
            id,
            mill: self.mill,
            name: self.name,
            species: self.species,
            note: self.note,
            hardness: self.hardness,
            extraction_pct: self.extraction_pct,
            treatment: Treatment::None,
            intended_use: self.intended_use,
            price_per_t: Some(self.price_per_t),
            allergens: self.allergens,
        };
        store.add_flour(&flour, Uuid::now_v7(), 1, signed).await?;
        for limit in &self.limits {
            limit.check()?;
        }
        let specification_id = Uuid::now_v7();
        store.add_specification(id, specification_id, 1, &self.limits, signed).await?;
        let today = Utc::now().with_timezone(&CLOCK).date_naive();
        let mut lots = self.history.lots(id, today, signed)?;
        for lot in self.lots {
            lots.push(lot.of(id, today, signed)?);
        }
        lots.sort_by_key(NewLotRevision::received_at);
        store.import_lots(&lots).await?;
        decide(store, &lots, specification_id).await?;
        if self.history.states == ["all"] {
            for (seed, lot) in (SEED..).zip(lots.iter().rev().take(WITH_CURVES)) {
                record_curves(store, lot, seed).await?;
            }
        }
        Ok(id)
    }
}

impl DemoHistory {
    fn lots(
        &self,
        flour_id: Uuid,
        today: NaiveDate,
        signed: &Signed,
    ) -> anyhow::Result<Vec<NewLotRevision>> {
        let seed = SEED + self.code.bytes().map(u64::from).sum::<u64>();
        let samples = lots_over_years(&self.sample.sample(), self.lots as usize, seed);
        let step = (self.from_days - self.to_days) / self.lots.max(1);
        let made = (0..self.lots).zip(samples).map(|(at, sample)| {
            let days_ago = self.from_days - at * step;
            let delivered_on = today.checked_sub_days(Days::new(days_ago));
            let year = delivered_on.map_or(0, |day| chrono::Datelike::year(&day) % 100);
            let mut rows = certificate(&sample, seed * 1000 + at);
            rows.retain(|row| self.states[0] == "all" || self.states.contains(&row.property));
            let milled_on = today.checked_sub_days(Days::new(days_ago + 2 + at % 3));
            let tonnes = self.tonnes + (at % 5) as f64 / 10.0;
            let code = format!("{}-{year}-{:04}", self.code, 401 + 13 * at);
            lot(flour_id, code, (milled_on, delivered_on), tonnes, rows, signed)
        });
        made.collect()
    }
}

impl DemoSample {
    const fn sample(&self) -> Sample {
        Sample {
            moisture_pct: self.m,
            protein_14_pct: self.p,
            ash_dm_pct: self.a,
            damaged_starch_pct: self.ds,
            falling_number_s: self.falling,
            absorption_14_pct: self.wa,
            development_min: self.dev,
            stability_min: self.st,
            softening_fu: self.so,
            p_mmh2o: self.height,
            l_mm: self.length,
            w: self.work,
        }
    }
}

impl DemoLot {
    fn of(
        self,
        flour_id: Uuid,
        today: NaiveDate,
        signed: &Signed,
    ) -> anyhow::Result<NewLotRevision> {
        let ago = |days| today.checked_sub_days(Days::new(days));
        let dates = (ago(self.milled_days_ago), ago(self.delivered_days_ago));
        let rows = self.rows.into_iter().map(|[property, value, unit, basis, method]| Row {
            property,
            value,
            unit,
            basis,
            method,
        });
        lot(flour_id, self.code, dates, self.tonnes, rows.collect(), signed)
    }
}

fn lot(
    flour_id: Uuid,
    code: String,
    (milled_on, delivered_on): (Option<NaiveDate>, Option<NaiveDate>),
    tonnes: f64,
    rows: Vec<Row>,
    signed: &Signed,
) -> anyhow::Result<NewLotRevision> {
    let readings = read_rows(&rows, None)
        .into_iter()
        .map(|read| read.map_err(|fault| anyhow::anyhow!("{code}: {}", fault.message)))
        .collect::<anyhow::Result<_>>()?;
    Ok(NewLotRevision {
        lot_id: Uuid::now_v7(),
        flour_id,
        code,
        revision_id: Uuid::now_v7(),
        number: 1,
        milled_on,
        delivered_on,
        tonnes: Some(tonnes),
        readings: Readings(readings),
        stated: rows.into_iter().map(|Row { value, unit, .. }| Stated { value, unit }).collect(),
        signed: signed.clone(),
    })
}

/// How long the lot with high damaged starch was used, days.
const HELD_AFTER_DAYS: i64 = 7;

/// All but the newest lots were decided on and used up; the newest few lie somewhere.
async fn decide(
    store: &Store,
    lots: &[NewLotRevision],
    specification_id: Uuid,
) -> anyhow::Result<()> {
    let decided = lots.iter().rev().skip(2).flat_map(|lot| {
        let at_once = |decision, reason| vec![(Duration::zero(), decision, reason)];
        let decisions = match lot.code.as_str() {
            // Made into bread until the slicer told.
            "VR-26-1033" => vec![
                (
                    Duration::zero(),
                    Decision::ReleaseWithNote,
                    "damaged starch out; watch the water",
                ),
                (
                    Duration::days(HELD_AFTER_DAYS),
                    Decision::Hold,
                    "damaged starch out; asked the mill, rolls only meanwhile",
                ),
            ],
            "VR-26-1040" => at_once(Decision::ReleaseWithNote, "ash borderline; for rolls"),
            _ => at_once(Decision::Release, ""),
        };
        decisions.into_iter().map(|(after, decision, reason)| LotDisposition {
            id: Uuid::now_v7(),
            lot_id: lot.lot_id,
            decision: Word(decision),
            reason: reason.into(),
            made_by: "technologist".into(),
            made_at: lot.received_at() + after,
            lot_revision_id: Some(lot.revision_id),
            specification_revision_id: (decision == Decision::ReleaseWithNote)
                .then_some(specification_id),
        })
    });
    store.add_dispositions(&decided.collect::<Vec<_>>()).await?;
    for (at, lot) in (0u8..4).zip(lots.iter().rev()) {
        let stock = LotStock {
            id: Uuid::now_v7(),
            lot_id: lot.lot_id,
            place: format!("silo {}-{}", lot.code.split('-').next().unwrap_or_default(), at + 1),
            tonnes_left: lot.tonnes.unwrap_or_default() * (1.0 - 0.3 * f64::from(at)),
            made_by: "floor".into(),
            made_at: Utc::now(),
        };
        store.add_stock(&stock).await?;
    }
    Ok(())
}

/// The laboratory's own curves of a lot.
async fn record_curves(store: &Store, lot: &NewLotRevision, seed: u64) -> anyhow::Result<()> {
    let mut sample = Sample::behind(&lot.readings, seed);
    let missed_ml = if lot.code == MISSED.0 { MISSED.1 } else { 0.0 };
    if lot.code == DISAGREES.0 {
        sample.absorption_14_pct += DISAGREES.1;
    }
    let run = run_farinograph(&sample, missed_ml, seed);
    let mixing = json!({
        "mixer_g": run.mixer_g, "flour_moisture_pct": run.flour_moisture_pct,
        "flour_g": run.flour_g, "water_ml": run.water_ml,
        "t_s": run.t_s, "fu": run.fu, "band_fu": run.band_fu,
    });
    let bubbles = run_alveograph(&sample, seed).0;
    let bubble = |(l, p): &(Vec<f64>, Vec<f64>)| json!({"l_mm": l, "p_mmh2o": p});
    let drawn = json!({"curves": bubbles.iter().map(bubble).collect::<Vec<_>>()});
    for (kind, input) in [(TraceKind::Alveograph, drawn), (TraceKind::Farinograph, mixing)] {
        let trace = Trace {
            id: Uuid::now_v7(),
            lot_id: lot.lot_id,
            kind: Word(kind),
            source: Word(TraceSource::Instrument),
            input,
            made_by: "laboratory".into(),
            made_at: lot.received_at(),
        };
        store.add_trace(&trace).await?;
    }
    Ok(())
}
