use serde::{Deserialize, Serialize};

use super::line::check_lines;
use super::{Ingredient, Line, LineInput, Preparation, PreparationInput};
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// All flour together, in baker's percent.
pub const FLOUR_PCT: f64 = 100.0;
/// How far sums of percentages may be off.
const SLACK: f64 = 1e-6;
/// Most lines, flours or parts.
const MOST: usize = 60;

/// One of several flours of a formula.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FlourShare {
    pub name: String,
    /// In percent of all flour.
    pub share_pct: f64,
}

/// A formula in baker's percent: everything but the water of the whole dough, which the flour
/// decides. Its lines are of the whole dough; its parts say how much of that is made before.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct Formula {
    lines: Vec<Line>,
    /// Empty where the product's own flour is all of it.
    flours: Vec<FlourShare>,
    parts: Vec<Preparation>,
}

/// One of several flours as it was typed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FlourShareInput {
    #[serde(default)]
    pub name: String,
    /// 0 to 100 % of all flour.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub share_pct: RawNumber,
}

/// A formula as it was typed.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FormulaDraft {
    /// Of the whole dough; flour is 100, water is left to the flour.
    #[serde(default)]
    pub lines: Vec<LineInput>,
    /// Where there are several: the main one first, together 100.
    #[serde(default)]
    pub flours: Vec<FlourShareInput>,
    /// What is made before the final dough.
    #[serde(default)]
    pub parts: Vec<PreparationInput>,
}

impl FormulaDraft {
    /// Puts other names on its flours, those of its parts too, where `now` knows one: a flour that
    /// was renamed since the draft was written is still the same flour.
    ///
    /// ```
    /// use ironpeel_core::dough::{FlourShareInput, FormulaDraft};
    /// let share = |name: &str| FlourShareInput { name: name.into(), share_pct: 50.0.into() };
    /// let flours = vec![share("Tarn Plain"), share("Kesh Rye")];
    /// let mut draft = FormulaDraft { flours, ..FormulaDraft::default() };
    /// draft.rename_flours(|name| (name == "Kesh Rye").then(|| "Kesh Dark Rye".into()));
    /// assert_eq!([&*draft.flours[0].name, &draft.flours[1].name], ["Tarn Plain", "Kesh Dark Rye"]);
    /// ```
    pub fn rename_flours(&mut self, now: impl Fn(&str) -> Option<String>) {
        let in_parts = self.parts.iter_mut().filter_map(|part| part.flour.as_mut());
        for name in self.flours.iter_mut().map(|flour| &mut flour.name).chain(in_parts) {
            if let Some(new) = now(name) {
                *name = new;
            }
        }
    }
}

const SHARE: NumberRange = NumberRange::new("share_pct", "share of the flour", "%", 0.0, 100.0);

impl Formula {
    /// A formula of lines alone: one flour, nothing made before.
    ///
    /// ```
    /// use ironpeel_core::dough::{Formula, Ingredient, LineInput};
    /// let line = |ingredient, pct: f64| LineInput { ingredient, pct: pct.into() };
    /// assert!(Formula::new(&[line(Ingredient::Flour, 100.0), line(Ingredient::Salt, 2.0)]).is_ok());
    /// let faults = Formula::new(&[line(Ingredient::Salt, -2.0)]).unwrap_err();
    /// assert_eq!(faults.0[0].field, "lines[0].pct");
    /// ```
    pub fn new(lines: &[LineInput]) -> Result<Self, ValidationErrors> {
        Self::check(&FormulaDraft { lines: lines.to_vec(), ..FormulaDraft::default() })
    }

    /// Checks that a draft makes a dough: flour adds to 100, nothing negative, nothing twice, water
    /// left to the flour, and no part takes more than the whole dough has.
    pub fn check(draft: &FormulaDraft) -> Result<Self, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        for (list, count) in [
            ("lines", draft.lines.len()),
            ("flours", draft.flours.len()),
            ("parts", draft.parts.len()),
        ] {
            if count > MOST {
                faults.push(list, format!("up to {MOST}; {count} were given"));
                return Err(faults);
            }
        }
        let lines = check_lines(&draft.lines, "", &mut faults);
        let flours = check_flours(&draft.flours, &mut faults);
        let parts: Vec<Preparation> = (0..)
            .zip(&draft.parts)
            .map(|(at, part)| part.check(&format!("parts[{at}]."), &mut faults))
            .collect();
        let formula = Self { lines, flours, parts };
        if faults.0.is_empty() {
            formula.check_sums(&mut faults);
        }
        faults.or(formula)
    }

    fn check_sums(&self, faults: &mut ValidationErrors) {
        let flour_pct = self.pct_of(Ingredient::Flour);
        if (flour_pct - FLOUR_PCT).abs() > SLACK {
            let message = format!(
                "flour adds to {flour_pct} %; baker's percent is on total flour, so it must be 100: \
                 these percentages make no dough"
            );
            faults.push("lines", message);
        }
        for (at, part) in self.parts.iter().enumerate() {
            for (line_at, Line { ingredient, .. }) in part.lines.iter().enumerate() {
                let field = format!("parts[{at}].lines[{line_at}]");
                if *ingredient == Ingredient::Flour {
                    faults.push(field, "the part's flour has a place of its own");
                    continue;
                }
                let (whole, used) = (self.pct_of(*ingredient), self.in_parts(*ingredient));
                if used > whole + SLACK {
                    let message = format!(
                        "the parts take {used} % of {ingredient}, the whole dough has {whole} %: \
                         raise it in the whole dough first"
                    );
                    faults.push(field, message);
                }
            }
            let known = |name: &&String| self.flours.iter().any(|flour| flour.name == **name);
            if let Some(name) = part.flour.as_ref().filter(|name| !known(name)) {
                let message = format!("{name} is none of the formula's flours");
                faults.push(format!("parts[{at}].flour"), message);
            }
        }
        let early: f64 = self.parts.iter().map(|part| part.flour_pct).sum();
        if early > FLOUR_PCT + SLACK {
            faults.push("parts", format!("the parts take {early} % of the flour; there is 100"));
        } else if let Some(short) =
            self.final_flours().iter().find(|flour| flour.share_pct < -SLACK)
        {
            let message = format!("the parts take more {} than the dough has", short.name);
            faults.push("parts", message);
        }
    }

    /// The formula as somebody would type it, to change something of it and check it again.
    pub fn draft(&self) -> FormulaDraft {
        let line = |line: &Line| LineInput { ingredient: line.ingredient, pct: line.pct.into() };
        let parts = self.parts.iter().map(|part| PreparationInput {
            id: part.id,
            kind: part.kind,
            name: part.name.clone(),
            flour: part.flour.clone(),
            flour_pct: part.flour_pct.into(),
            water_pct: part.water_pct.into(),
            temperature_c: part.temperature_c.into(),
            rate: part.rate.into(),
            vessel: part.vessel,
            water_c: part.water_c.into(),
            set_c: part.set_c.into(),
            lines: part.lines.iter().map(line).collect(),
        });
        let flours = self.flours.iter().map(|flour| FlourShareInput {
            name: flour.name.clone(),
            share_pct: flour.share_pct.into(),
        });
        FormulaDraft {
            lines: self.lines.iter().map(line).collect(),
            flours: flours.collect(),
            parts: parts.collect(),
        }
    }

    /// The lines of the whole dough, in the order they go in.
    pub fn lines(&self) -> &[Line] {
        &self.lines
    }

    /// Several flours with their shares, the main one first; empty where there is one.
    pub fn flours(&self) -> &[FlourShare] {
        &self.flours
    }

    /// What is made before the final dough.
    pub fn parts(&self) -> &[Preparation] {
        &self.parts
    }

    /// Everything but flour, of the whole dough.
    pub fn additions(&self) -> impl Iterator<Item = &Line> {
        self.lines.iter().filter(|line| line.ingredient != Ingredient::Flour)
    }

    /// How much of an ingredient the whole dough has, in baker's percent.
    pub fn pct_of(&self, ingredient: Ingredient) -> f64 {
        self.lines.iter().find(|line| line.ingredient == ingredient).map_or(0.0, |line| line.pct)
    }

    /// Dough made from 100 of flour with so much water weighed, in baker's percent.
    pub fn total_pct(&self, added_water_pct: f64) -> f64 {
        self.lines.iter().map(|line| line.pct).sum::<f64>() + added_water_pct
    }

    /// Water the parts take, in percent on all flour.
    pub fn preferment_water_pct(&self) -> f64 {
        self.parts.iter().map(|part| part.water_pct).sum()
    }

    /// How much of an ingredient goes into parts.
    fn in_parts(&self, ingredient: Ingredient) -> f64 {
        let lines = self.parts.iter().flat_map(|part| &part.lines);
        lines.filter(|line| line.ingredient == ingredient).map(|line| line.pct).sum()
    }

    /// How much of a line is left for the final dough.
    pub fn in_final(&self, line: &Line) -> f64 {
        (line.pct - self.in_parts(line.ingredient)).max(0.0)
    }

    /// The flours of a part, in percent of all flour.
    pub(super) fn flours_of(&self, part: &Preparation) -> Vec<FlourShare> {
        match &part.flour {
            Some(name) => vec![FlourShare { name: name.clone(), share_pct: part.flour_pct }],
            None => self
                .flours
                .iter()
                .map(|flour| FlourShare {
                    name: flour.name.clone(),
                    share_pct: flour.share_pct * part.flour_pct / FLOUR_PCT,
                })
                .collect(),
        }
    }

    /// What is left of each flour for the final dough, in percent of all flour.
    pub(super) fn final_flours(&self) -> Vec<FlourShare> {
        let mut left = self.flours.clone();
        for taken in self.parts.iter().flat_map(|part| self.flours_of(part)) {
            if let Some(flour) = left.iter_mut().find(|flour| flour.name == taken.name) {
                flour.share_pct -= taken.share_pct;
            }
        }
        left
    }
}

fn check_flours(flours: &[FlourShareInput], faults: &mut ValidationErrors) -> Vec<FlourShare> {
    let mut checked: Vec<FlourShare> = Vec::with_capacity(flours.len());
    for (at, FlourShareInput { name, share_pct }) in flours.iter().enumerate() {
        let field = format!("flours[{at}].");
        let name = name.trim();
        let share_pct = SHARE.check(share_pct, &field, faults);
        if name.is_empty() {
            faults.push(format!("{field}name"), "which flour?");
        } else if checked.iter().any(|flour| flour.name == name) {
            faults.push(format!("{field}name"), format!("{name} stands twice; keep one line"));
        }
        checked.push(FlourShare { name: name.into(), share_pct });
    }
    let sum: f64 = checked.iter().map(|flour| flour.share_pct).sum();
    if !checked.is_empty() && faults.0.is_empty() && (sum - FLOUR_PCT).abs() > SLACK {
        faults.push("flours", format!("the flours' shares add to {sum} %; they must add to 100"));
    }
    checked
}
