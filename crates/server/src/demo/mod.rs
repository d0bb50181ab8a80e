//! The demo plant: Skerrow Bakehouse, invented from end to end.

mod batches;
mod flour;
mod people;

pub use batches::{JUDGES, SEED, Truth, judge_level, load as load_batches, truths};
pub use people::{DemoPerson, PASSWORD, PEOPLE};

use std::collections::HashMap;

use anyhow::Context;
use chrono::{Duration, Utc};
use chrono_tz::Tz;
use ironpeel_core::chain::{ScenarioFormula, ScenarioLine};
use ironpeel_core::dough::{Formula, IngredientPrice, LineInput, Losses};
use ironpeel_core::heat::{MixedDough, WaterSources};
use ironpeel_core::method::{Equipment, Method, Mixer, Process, Stage};
use ironpeel_store::{
    DoughTemperature, NewFormula, NewLine, NewMethod, PlantSettings, Product, Signed, Store,
};
use serde::Deserialize;
use serde_json::json;
use uuid::Uuid;

use crate::dough::template;
use flour::DemoFlour;

const PLANT: &str = include_str!("../../demo/plant.json");
/// The clock on the wall of the demo plant.
const CLOCK: Tz = Tz::Europe__London;
/// What its prices are in.
const CURRENCY: &str = "EUR";

#[derive(Deserialize)]
struct DemoPlant {
    flours: Vec<DemoFlour>,
    formulas: Vec<DemoFormula>,
    methods: Vec<DemoMethod>,
    lines: Vec<DemoLine>,
    products: Vec<DemoProduct>,
    from_templates: Vec<FromTemplate>,
    dough_temperatures: Vec<DemoTemperature>,
    /// What went into the doughs measured, by product.
    mixed: HashMap<String, MixedDough>,
    prices: Vec<IngredientPrice>,
}

#[derive(Deserialize)]
struct DemoFormula {
    name: String,
    piece_kg: f64,
    style_points: f64,
    bake_loss_pct: f64,
    lines: Vec<LineInput>,
}

#[derive(Deserialize)]
struct DemoMethod {
    name: String,
    process: Process,
    target_c: f64,
    machine_divided: bool,
    stages: Vec<Stage>,
}

#[derive(Deserialize)]
struct DemoLine {
    name: String,
    mixer_name: String,
    mixer_kind: String,
    min_kg: f64,
    max_kg: f64,
    slow: f64,
    fast: f64,
    division_kg: f64,
    tap_c: f64,
    flour_c: f64,
    room_c: f64,
    jacket: Option<f64>,
    turn_min: f64,
    troughs: u32,
    trough_kg: f64,
    trough_m2: f64,
    divider_per_min: f64,
    proofer_pieces: f64,
    oven_pieces: f64,
    water: WaterSources,
}

#[derive(Deserialize)]
struct DemoProduct {
    slug: String,
    name: String,
    flour: String,
    formula: String,
    method: String,
    line: String,
}

/// A product made from one of the templates.
#[derive(Deserialize)]
struct FromTemplate {
    slug: String,
    name: String,
    template: String,
    flours: Vec<String>,
    line: String,
}

/// A dough as it came off the mixer.
#[derive(Deserialize)]
struct DemoTemperature {
    product: String,
    days_ago: i64,
    flour_c: f64,
    room_c: f64,
    water_c: f64,
    dough_c: f64,
}

impl DemoFormula {
    fn recorded(self, formula_id: Uuid, signed: &Signed) -> anyhow::Result<NewFormula> {
        let losses = Losses { bake_pct: self.bake_loss_pct, ..Losses::house() };
        Ok(NewFormula {
            formula_id,
            name: self.name,
            revision_id: Uuid::now_v7(),
            number: 1,
            formula: ScenarioFormula {
                formula: Formula::new(&self.lines)?,
                style_points: self.style_points,
                piece_kg: self.piece_kg,
                losses,
                hydration_pct: None,
                batch_kg: None,
            },
            signed: signed.clone(),
        })
    }
}

impl DemoMethod {
    fn recorded(self, method_id: Uuid, signed: &Signed) -> NewMethod {
        let Self { name, process, target_c, machine_divided, stages } = self;
        let method = Method { process, target_c, sponge_c: None, machine_divided, stages };
        let (revision_id, signed) = (Uuid::now_v7(), signed.clone());
        NewMethod { method_id, name, revision_id, number: 1, method, signed }
    }
}

/// Loads the demo plant, unless there is a flour on record already, and whoever of its people has
/// no account yet. True if the plant was loaded.
pub async fn load(store: &Store) -> anyhow::Result<bool> {
    people::load(store).await?;
    if !store.flours().await?.is_empty() {
        return Ok(false);
    }
    let plant: DemoPlant = serde_json::from_str(PLANT).context("the demo plant's file")?;
    let signed = Signed { by: "demo".into(), reason: "first state".into() };
    let mut ids: HashMap<String, Uuid> = HashMap::new();
    for demo in plant.flours {
        let name = demo.name.clone();
        ids.insert(name, demo.load(store, &signed).await?);
    }
    for demo in plant.formulas {
        let id = Uuid::now_v7();
        ids.insert(demo.name.clone(), id);
        store.add_formula(&demo.recorded(id, &signed)?).await?;
    }
    for demo in plant.methods {
        let id = Uuid::now_v7();
        ids.insert(demo.name.clone(), id);
        store.add_method(&demo.recorded(id, &signed)).await?;
    }
    for demo in plant.lines {
        let id = Uuid::now_v7();
        ids.insert(demo.name.clone(), id);
        let (name, line) = (demo.name.clone(), demo.line());
        let (revision_id, signed) = (Uuid::now_v7(), signed.clone());
        let new = NewLine { line_id: id, name, revision_id, number: 1, line, signed };
        store.add_line(&new).await?;
    }
    let id_of = |name: &str| {
        ids.get(name).copied().with_context(|| format!("{name} is not in the demo plant"))
    };
    for DemoProduct { slug, name, flour, formula, method, line } in plant.products {
        let product = Product {
            id: Uuid::now_v7(),
            slug,
            name,
            flour_id: id_of(&flour)?,
            flour,
            formula_id: id_of(&formula)?,
            method_id: id_of(&method)?,
            line_id: id_of(&line)?,
            line,
        };
        store.add_product(&product).await?;
    }
    for FromTemplate { slug, name, template: key, flours, line } in plant.from_templates {
        let template = template(&key).with_context(|| format!("{key} is no template"))?;
        let product = Product {
            id: Uuid::now_v7(),
            slug,
            flour_id: id_of(&flours[0])?,
            flour: flours[0].clone(),
            formula_id: Uuid::now_v7(),
            method_id: Uuid::now_v7(),
            line_id: id_of(&line)?,
            line,
            name,
        };
        let formula = template.formula(&flours)?;
        store.make_product(&product, &formula, &template.method(), &signed).await?;
    }
    measure(store, &plant.dough_temperatures, &plant.mixed).await?;
    store.set_prices(&plant.prices).await?;
    let settings = store.plant().await?.settings;
    let (time_zone, currency) = (CLOCK.name().into(), CURRENCY.into());
    store.set_settings(&PlantSettings { time_zone, currency, ..settings }).await?;
    Ok(true)
}

/// Puts the measured doughs on record.
async fn measure(
    store: &Store,
    measured: &[DemoTemperature],
    mixed: &HashMap<String, MixedDough>,
) -> anyhow::Result<()> {
    let products = store.products().await?;
    let found = measured.iter().map(|demo| {
        let product = products.iter().find(|product| product.slug == demo.product);
        let product = product.with_context(|| format!("{} is no product", demo.product))?;
        Ok(DoughTemperature {
            id: Uuid::now_v7(),
            method_id: product.method_id,
            line_id: product.line_id,
            taken_at: Utc::now() - Duration::days(demo.days_ago),
            taken_by: "demo".into(),
            flour_c: demo.flour_c,
            room_c: demo.room_c,
            water_c: demo.water_c,
            preferment_c: None,
            dough_c: demo.dough_c,
            ice_share_pct: 0.0,
            ice_c: 0.0,
            mixed: mixed.get(&demo.product).map(|mixed| json!(mixed)),
        })
    });
    let found: Vec<DoughTemperature> = found.collect::<anyhow::Result<_>>()?;
    store.add_dough_temperatures(&found).await?;
    Ok(())
}

impl DemoLine {
    fn line(self) -> ScenarioLine {
        ScenarioLine {
            mixer: Mixer {
                name: self.mixer_name,
                kind: self.mixer_kind,
                min_kg: self.min_kg,
                max_kg: self.max_kg,
                slow_kj_per_kg_min: self.slow,
                fast_kj_per_kg_min: self.fast,
                jacket_kj_per_kg_min: self.jacket,
            },
            equipment: Equipment {
                turn_min: self.turn_min,
                troughs: self.troughs,
                trough_kg: self.trough_kg,
                trough_m2: self.trough_m2,
                divider_per_min: self.divider_per_min,
                proofer_pieces: self.proofer_pieces,
                oven_pieces: self.oven_pieces,
            },
            division_kg: self.division_kg,
            tap_c: self.tap_c,
            flour_c: self.flour_c,
            room_c: self.room_c,
            water: self.water,
        }
    }
}
