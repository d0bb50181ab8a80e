//! A dough that interventions are applied to.

use super::Intervention;
use crate::chain::{
    Chain, RunSettings, Scenario, ScenarioFlour, ScenarioFormula, ScenarioLine, chain, gas_at_oven,
    maturity_at_oven, stretch_for_gas,
};
use crate::coefficient::Coefficients;
use crate::dough::{
    AllergenStatement, Amount, FLOUR_PCT, FlourShareInput, Formula, FormulaDraft, Ingredient,
    LineInput, PreparationInput, PreparationKind,
};
use crate::ferment::Maturity;
use crate::flour::{MoistureBasis, Property, Reading, Readings, Sift, SiftTarget, Species};
use crate::method::{Addition, Method, OptionalStep, Process, Stage, StageKind, StageRole};
use crate::plant::PlantParameters;
use crate::units::{Estimate, RawNumber, ValidationErrors};

/// Taken off by one pass of a 30-mesh sieve, % (H).
const SIEVED_PCT: f64 = 14.0;
/// Of the water, so much goes in last where it goes in twice, % (H).
const LAST_WATER_PCT: f64 = 10.0;
const AUTOLYSE_MIN: f64 = 30.0;
const WHITE_SHARE: f64 = 30.0;
/// A white flour where the plant names none (H).
const WHITE: &str = "white flour";

/// A flour with readings of its own, that may have been sieved.
struct TrialFlour {
    name: String,
    species: Species,
    extraction_pct: Option<f64>,
    readings: Readings,
    age_days: Option<f64>,
    share_pct: f64,
    price_per_kg: Option<f64>,
    allergens: Option<AllergenStatement>,
}

/// A dough taken apart, so that one thing or another can be changed.
pub(super) struct TrialDough<'a> {
    flours: Vec<TrialFlour>,
    draft: FormulaDraft,
    formula: ScenarioFormula,
    method: Method,
    line: &'a ScenarioLine,
    plant: &'a PlantParameters,
    run_settings: RunSettings<'a>,
    water_correction: Option<Estimate>,
    target_c: f64,
}

impl<'a> TrialDough<'a> {
    /// The selected product, so many kilos of it on the bench's scale.
    pub fn of(scenario: &Scenario<'a>, kg: f64) -> Self {
        let flours = scenario.flours.iter().map(|flour| TrialFlour {
            name: flour.name.into(),
            species: flour.species,
            extraction_pct: flour.extraction_pct,
            readings: flour.readings.clone(),
            age_days: flour.age_days,
            share_pct: flour.share_pct,
            price_per_kg: flour.price_per_kg,
            allergens: flour.allergens.cloned(),
        });
        let mut run_settings = scenario.run_settings;
        run_settings.amount = Some(Amount::Dough { kg });
        run_settings.division_kg = Some(scenario.division_kg().min(0.001));
        Self {
            flours: flours.collect(),
            draft: scenario.formula.formula.draft(),
            formula: scenario.formula.clone(),
            method: scenario.method.clone(),
            line: scenario.line,
            plant: scenario.plant,
            target_c: scenario.run_settings.target_c.unwrap_or(scenario.method.target_c),
            run_settings,
            water_correction: scenario.water_correction,
        }
    }

    /// The whole chain of the dough as it stands now, and how ripe it meets the oven.
    pub fn chain(&self) -> Result<(Chain, Option<Maturity>), ValidationErrors> {
        Formula::check(&self.draft)?;
        let found = self
            .with_hand(|scenario, chain| Some((chain.clone(), maturity_at_oven(scenario, chain))));
        Ok(found.unwrap_or_else(|| (Chain::empty(), None)))
    }

    fn flours(&self) -> Vec<ScenarioFlour<'_>> {
        let flours = self.flours.iter();
        flours
            .map(|flour| ScenarioFlour {
                name: &flour.name,
                species: flour.species,
                extraction_pct: flour.extraction_pct,
                readings: &flour.readings,
                limits: &[],
                age_days: flour.age_days,
                share_pct: flour.share_pct,
                price_per_kg: flour.price_per_kg,
                allergens: flour.allergens.as_ref(),
            })
            .collect()
    }

    /// Whether the intervention changes anything in this dough.
    pub fn takes(&self, intervention: Intervention) -> bool {
        let gluten_network = self.flours.iter().any(|flour| flour.species.has_gluten());
        if intervention.needs_gluten() && !gluten_network {
            return false;
        }
        let bran =
            self.flours.iter().any(|flour| flour.extraction_pct.is_some_and(|pct| pct > 85.0));
        let yeast =
            self.draft.lines.iter().any(|line| line.ingredient.is_yeast() && pct(line) > 0.0);
        let has = |kind| self.draft.parts.iter().any(|part| part.kind == kind);
        match intervention {
            Intervention::Sieve | Intervention::PartWhite => bran,
            Intervention::VitalGluten => self.pct_of(Ingredient::VitalGluten) < 4.0,
            Intervention::YeastTrace => !yeast,
            Intervention::MoreYeast | Intervention::LessYeast => yeast,
            Intervention::NoAscorbicAcid => self.pct_of(Ingredient::AscorbicAcid) > 0.0,
            Intervention::Scald => !has(PreparationKind::Scald) && self.draft.parts.is_empty(),
            Intervention::Sponge => self.draft.parts.is_empty() && yeast,
            Intervention::Psyllium => !gluten_network,
            Intervention::ColdNight => self.method.process != Process::Frozen,
            Intervention::MoreSalt => self.pct_of(Ingredient::Salt) <= 2.2,
            _ => true,
        }
    }

    /// Applies an intervention.
    pub fn apply(&mut self, intervention: Intervention) {
        match intervention {
            Intervention::MoreWater => self.wetter(3.0),
            Intervention::LessWater => self.wetter(-2.0),
            Intervention::Autolyse => {
                self.method =
                    self.method.with(OptionalStep::Autolyse, true, &self.plant.coefficients);
                let roles = self.method.roles();
                if let Some(at) = roles.iter().position(|role| *role == StageRole::Autolyse) {
                    self.method.stages[at].minutes = AUTOLYSE_MIN;
                    self.method.stages[at].ends_when = "it stretches without tearing".into();
                }
                if self.method.process == Process::StraightBulk {
                    self.method.process = Process::LongCold;
                }
            }
            Intervention::AnotherFold => {
                let when = "it holds its shape and domes";
                self.after_mixing(stage(StageKind::Fold, "One more set of folds", 30.0, when));
            }
            Intervention::Sieve => {
                let coefficients = &self.plant.coefficients;
                let per_ash = self.plant.model.per_ash().value;
                self.flours.iter_mut().for_each(|flour| sieve(flour, per_ash, coefficients));
            }
            Intervention::PartWhite => self.part_white(),
            Intervention::VitalGluten => self.add(Ingredient::VitalGluten, 2.0),
            Intervention::YeastTrace => self.add(Ingredient::InstantYeast, 0.1),
            Intervention::MoreYeast => self.keeping_rise(|dough| dough.yeast(1.5)),
            Intervention::LessYeast => self.keeping_rise(|dough| dough.yeast(0.5)),
            Intervention::WarmerDough => self.keeping_rise(|dough| dough.target_c += 2.0),
            Intervention::ColderDough => self.keeping_rise(|dough| dough.target_c -= 3.0),
            Intervention::ColdNight => {
                let mut night =
                    stage(StageKind::Rest, "A night in the cold", 720.0, "next morning");
                night.temperature_c = Some(4.0);
                self.before_proof(night);
                if matches!(self.method.process, Process::NoTime | Process::StraightBulk) {
                    self.method.process = Process::LongCold;
                }
            }
            Intervention::MoreFat => self.add(Ingredient::Fat, 2.0),
            Intervention::Scald => self.early(PreparationKind::Scald, 8.0, 16.0, 60.0, Vec::new()),
            Intervention::Sponge => {
                let yeast = self.draft.lines.iter().filter(|line| line.ingredient.is_yeast());
                let yeast = yeast.cloned().collect();
                self.early(PreparationKind::Sponge, 50.0, 31.0, 210.0, yeast);
                self.method.process = Process::SpongeDough;
            }
            Intervention::NoAscorbicAcid => {
                self.draft.lines.retain(|line| line.ingredient != Ingredient::AscorbicAcid);
            }
            Intervention::MoreSalt => self.add(Ingredient::Salt, 0.2),
            Intervention::WaterInTwo => {
                let when =
                    "it takes up the last of the water, a little at a time, and clears the bowl";
                let mut last = stage(StageKind::Mix, "The last of the water", 10.0, when);
                last.adds.push(Addition {
                    share_pct: Some(LAST_WATER_PCT),
                    ..Addition::rest_of(Ingredient::Water)
                });
                self.after_mixing(last);
            }
            Intervention::Psyllium => self.add(Ingredient::Psyllium, 1.0),
        }
    }

    /// The formula and the method it is made by, with what was set for it in hand.
    pub fn documents(self) -> Result<(ScenarioFormula, Method), ValidationErrors> {
        let formula = ScenarioFormula {
            formula: Formula::check(&self.draft)?,
            hydration_pct: self.run_settings.hydration_pct.or(self.formula.hydration_pct),
            ..self.formula
        };
        Ok((formula, Method { target_c: self.target_c, ..self.method }))
    }

    fn wetter(&mut self, points: f64) {
        let set = self.run_settings.hydration_pct.as_mut().or(self.formula.hydration_pct.as_mut());
        *set.unwrap_or(&mut self.formula.style_points) += points;
    }

    fn pct_of(&self, ingredient: Ingredient) -> f64 {
        self.draft.lines.iter().find(|line| line.ingredient == ingredient).map_or(0.0, pct)
    }

    fn add(&mut self, ingredient: Ingredient, more: f64) {
        match self.draft.lines.iter_mut().find(|line| line.ingredient == ingredient) {
            Some(line) => line.pct = (pct(line) + more).into(),
            None => self.draft.lines.push(LineInput { ingredient, pct: more.into() }),
        }
    }

    fn yeast(&mut self, times: f64) {
        let parts = self.draft.parts.iter_mut().flat_map(|part| &mut part.lines);
        for line in self.draft.lines.iter_mut().chain(parts) {
            if line.ingredient.is_yeast() {
                line.pct = (pct(line) * times).into();
            }
        }
    }

    /// Changes something, and lets the stages at room temperature take as long as the model says for
    /// the rise the dough had at the oven; what lies in the cold stays as it is.
    fn keeping_rise(&mut self, change: impl FnOnce(&mut Self)) {
        let had = self.with_hand(gas_at_oven);
        change(self);
        let times = had.and_then(|had| {
            self.with_hand(|scenario, chain| stretch_for_gas(scenario, chain, had))
        });
        let first = self.method.first_mix();
        for stage in self.method.stages.iter_mut().skip(first).filter(|stage| stage.can_stretch()) {
            stage.minutes = (stage.minutes * times.unwrap_or(1.0)).round();
            stage.tolerance = None;
        }
    }

    /// Asks something of the dough as it stands now.
    fn with_hand<T>(&self, ask: impl FnOnce(&Scenario<'_>, &Chain) -> Option<T>) -> Option<T> {
        let mut formula = self.formula.clone();
        formula.formula = Formula::check(&self.draft).ok()?;
        let flours = self.flours();
        let scenario = Scenario {
            flours: &flours,
            formula: &formula,
            method: &self.method,
            line: self.line,
            plant: self.plant,
            run_settings: RunSettings { target_c: Some(self.target_c), ..self.run_settings },
            water_correction: self.water_correction,
        };
        ask(&scenario, &chain(&scenario))
    }

    fn part_white(&mut self) {
        let keep = (FLOUR_PCT - WHITE_SHARE) / FLOUR_PCT;
        if self.draft.flours.is_empty() {
            let names = self.flours.iter();
            self.draft.flours = names
                .map(|flour| FlourShareInput {
                    name: flour.name.clone(),
                    share_pct: FLOUR_PCT.into(),
                })
                .collect();
        }
        for flour in &mut self.flours {
            flour.share_pct *= keep;
        }
        for share in &mut self.draft.flours {
            if let RawNumber::Number(pct) = &mut share.share_pct {
                *pct *= keep;
            }
        }
        let reading = |property, value, basis| Reading {
            property,
            value,
            basis,
            method: None,
            censored: None,
        };
        self.draft
            .flours
            .push(FlourShareInput { name: WHITE.into(), share_pct: WHITE_SHARE.into() });
        self.flours.push(TrialFlour {
            name: WHITE.into(),
            species: Species::Wheat,
            extraction_pct: Some(76.0),
            readings: Readings(vec![
                reading(Property::Moisture, 14.0, None),
                reading(Property::Protein, 12.0, Some(MoistureBasis::Fourteen)),
                reading(Property::Ash, 0.55, Some(MoistureBasis::DryMatter)),
                reading(Property::Absorption, 60.0, Some(MoistureBasis::Fourteen)),
                reading(Property::W, 260.0, None),
            ]),
            age_days: None,
            share_pct: WHITE_SHARE,
            price_per_kg: None,
            allergens: None,
        });
    }

    fn early(
        &mut self,
        kind: PreparationKind,
        flour_pct: f64,
        water_pct: f64,
        minutes: f64,
        lines: Vec<LineInput>,
    ) {
        self.draft.parts.push(PreparationInput {
            name: kind.key().into(),
            flour_pct: flour_pct.into(),
            water_pct: water_pct.into(),
            lines,
            ..PreparationInput::of(kind)
        });
        let label = format!("The {} before", kind.key());
        let rest = stage(StageKind::Rest, &label, minutes, "it is ripe, or cool");
        self.method.stages.insert(0, Stage { makes: Some(kind), ..rest });
    }

    fn after_mixing(&mut self, new: Stage) {
        let last = self.method.stages.iter().rposition(|stage| stage.kind == StageKind::Mix);
        self.method.stages.insert(last.map_or(0, |at| at + 1), new);
    }

    fn before_proof(&mut self, new: Stage) {
        let stages = &mut self.method.stages;
        let of = |kind| stages.iter().position(|stage| stage.kind == kind);
        let at = of(StageKind::Proof).or(of(StageKind::Bake)).unwrap_or(stages.len());
        stages.insert(at, new);
    }
}

pub(super) fn pct(line: &LineInput) -> f64 {
    if let RawNumber::Number(pct) = line.pct { pct } else { 0.0 }
}

/// Bran off: the ash by mass balance, the absorption by what ash explains of it.
fn sieve(flour: &mut TrialFlour, per_ash: f64, coefficients: &Coefficients) {
    if flour.extraction_pct.is_none_or(|extraction| extraction <= 85.0) {
        return;
    }
    let Some(ash) = flour.readings.value(Property::Ash, Some(MoistureBasis::DryMatter)) else {
        return;
    };
    let wanted = SiftTarget::RemovedPct(SIEVED_PCT);
    let sifted = Sift { ash_dm_pct: ash, bran_ash_dm_pct: None, wanted }.balance(coefficients);
    let (sieved, left) = (sifted.ash_dm_pct, sifted.extraction_pct / 100.0);
    for reading in &mut flour.readings.0 {
        match reading.property {
            Property::Ash => {
                reading.value = sieved;
                reading.basis = Some(MoistureBasis::DryMatter);
            }
            Property::Absorption => reading.value += per_ash * (sieved - ash),
            _ => {}
        }
    }
    flour.name = format!("{}, sieved", flour.name);
    flour.extraction_pct = flour.extraction_pct.map(|extraction| extraction * left);
    flour.price_per_kg = flour.price_per_kg.map(|price| price / left);
}

fn stage(kind: StageKind, label: &str, minutes: f64, ends_when: &str) -> Stage {
    Stage { ends_when: ends_when.into(), ..Stage::new(kind, label, minutes) }
}
