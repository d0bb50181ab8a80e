//! Edits of a formula that move several of its numbers at once.

use serde::Deserialize;

use super::coefficients::NEW_FLOUR_SHARE;
use super::{FLOUR_PCT, FlourShareInput, FormulaDraft, LineInput, PreparationKind};
use crate::coefficient::Coefficients;
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// One edit.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "edit", rename_all = "snake_case")]
pub enum FormulaEdit {
    /// Another flour, which takes its share from the main one.
    AddFlour { name: String },
    /// A flour's share, the main one taking up the rest; the next where it is the main one's.
    FlourShare {
        at: usize,
        /// 0 to 100 % of all flour.
        #[serde(default)]
        share_pct: RawNumber,
    },
    /// A flour is left out, its share the main one's; preparations of it are of the main one.
    RemoveFlour { at: usize },
    /// A preparation as it is usually begun, of no more flour than the others leave.
    AddPreparation { kind: PreparationKind },
    /// All yeast, in the final dough and in preparations, from one dose as instant to another.
    YeastDose {
        /// 0.0001 to 20 % of all flour.
        #[serde(default)]
        from_pct: RawNumber,
        /// 0 to 20 % of all flour.
        #[serde(default)]
        to_pct: RawNumber,
    },
}

const SHARE: NumberRange = NumberRange::new("share_pct", "share of the flour", "%", 0.0, 100.0);
const FROM: NumberRange = NumberRange::new("from_pct", "yeast until now", "%", 0.0001, 20.0);
const TO: NumberRange = NumberRange::new("to_pct", "yeast wanted", "%", 0.0, 20.0);
/// Percentages are kept to this.
const PARTS_OF_PCT: f64 = 10_000.0;

fn kept(pct: f64) -> RawNumber {
    ((pct * PARTS_OF_PCT).round() / PARTS_OF_PCT).into()
}

fn number(given: &RawNumber) -> f64 {
    if let RawNumber::Number(value) = given { *value } else { 0.0 }
}

impl FormulaDraft {
    /// The draft with one edit made; the product's own flour is the main one where no flours stand.
    ///
    /// ```
    /// use ironpeel_core::coefficient::Coefficients;
    /// use ironpeel_core::dough::{FormulaDraft, FormulaEdit};
    /// let mut draft = FormulaDraft::default();
    /// let rye = FormulaEdit::AddFlour { name: "Kesh Rye".into() };
    /// draft.edit(&rye, "Tarn Plain", &Coefficients::default())?;
    /// assert_eq!(draft.flours[0].share_pct, 90.0.into());
    /// # Ok::<(), ironpeel_core::units::ValidationErrors>(())
    /// ```
    pub fn edit(
        &mut self,
        edit: &FormulaEdit,
        main_flour: &str,
        coefficients: &Coefficients,
    ) -> Result<(), ValidationErrors> {
        let mut faults = ValidationErrors::default();
        match edit {
            FormulaEdit::AddFlour { name } => {
                self.add_flour(name, main_flour, coefficients, &mut faults);
            }
            FormulaEdit::FlourShare { at, share_pct } => {
                let share = SHARE.check(share_pct, "", &mut faults);
                if faults.0.is_empty() {
                    self.set_share(*at, share, &mut faults);
                }
            }
            FormulaEdit::RemoveFlour { at } => self.remove_flour(*at, &mut faults),
            FormulaEdit::AddPreparation { kind } => self.add_preparation(*kind, coefficients),
            FormulaEdit::YeastDose { from_pct, to_pct } => {
                let from = FROM.check(from_pct, "", &mut faults);
                let to = TO.check(to_pct, "", &mut faults);
                if faults.0.is_empty() {
                    self.scale_yeast(to / from);
                }
            }
        }
        faults.or(())
    }

    fn add_flour(
        &mut self,
        name: &str,
        main_flour: &str,
        coefficients: &Coefficients,
        faults: &mut ValidationErrors,
    ) {
        if self.flours.iter().any(|flour| flour.name == name) {
            faults.push("name", format!("{name} is in the formula already"));
            return;
        }
        if self.flours.is_empty() {
            let (name, share_pct) = (main_flour.to_owned(), FLOUR_PCT.into());
            self.flours.push(FlourShareInput { name, share_pct });
        }
        let share = coefficients.value(&NEW_FLOUR_SHARE).min(number(&self.flours[0].share_pct));
        self.flours.push(FlourShareInput { name: name.into(), share_pct: kept(share) });
        self.settle(0);
    }

    fn set_share(&mut self, at: usize, share: f64, faults: &mut ValidationErrors) {
        match self.flours.get_mut(at) {
            Some(flour) => flour.share_pct = kept(share),
            None => return faults.push("at", "this formula has no such flour"),
        }
        self.settle(usize::from(at == 0));
    }

    fn remove_flour(&mut self, at: usize, faults: &mut ValidationErrors) {
        if at == 0 || at >= self.flours.len() {
            return faults.push("at", "the main flour stays; this formula has no such other flour");
        }
        let gone = self.flours.remove(at).name;
        for part in self.parts.iter_mut().filter(|part| part.flour.as_ref() == Some(&gone)) {
            part.flour = None;
        }
        if self.flours.len() == 1 {
            self.flours.clear();
        }
        self.settle(0);
    }

    /// One flour takes up what the others leave of all flour.
    fn settle(&mut self, rest: usize) {
        let others = self.flours.iter().enumerate().filter(|(at, _)| *at != rest);
        let left = FLOUR_PCT - others.map(|(_, flour)| number(&flour.share_pct)).sum::<f64>();
        if let Some(flour) = self.flours.get_mut(rest) {
            flour.share_pct = kept(left);
        }
    }

    fn add_preparation(&mut self, kind: PreparationKind, coefficients: &Coefficients) {
        let mut begun = kind.begun(coefficients);
        let taken: f64 = self.parts.iter().map(|part| number(&part.flour_pct)).sum();
        begun.flour_pct = kept(number(&begun.flour_pct).min((FLOUR_PCT - taken).max(0.0)));
        let twice = self.parts.iter().filter(|part| part.kind == kind).count();
        if twice > 0 {
            begun.name = format!("{} {}", begun.name, twice + 1);
        }
        self.parts.push(begun);
    }

    fn scale_yeast(&mut self, times: f64) {
        let scale = |line: &mut LineInput| {
            if line.ingredient.is_yeast()
                && let RawNumber::Number(pct) = line.pct
            {
                line.pct = kept(pct * times);
            }
        };
        self.lines.iter_mut().for_each(scale);
        self.parts.iter_mut().flat_map(|part| &mut part.lines).for_each(scale);
    }
}
