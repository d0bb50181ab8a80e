use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::chain::FormulaInHand;
use ironpeel_core::dough::{Formula, Ingredient, LineInput, Losses};
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed};
use crate::schema::{formula, formula_line, formula_revision};
use crate::store::Store;

/// One state of a formula.
#[derive(Debug, Clone, PartialEq)]
pub struct FormulaRevision {
    pub revision: Revision,
    pub formula_id: Uuid,
    pub name: String,
    pub formula: FormulaInHand,
}

/// A formula, or the next state of one, to be recorded.
#[derive(Debug, Clone, PartialEq)]
pub struct NewFormula {
    pub formula_id: Uuid,
    pub name: String,
    pub revision_id: Uuid,
    pub number: i32,
    pub formula: FormulaInHand,
    pub signed: Signed,
}

#[derive(Queryable, Selectable, Insertable)]
#[diesel(table_name = formula_revision)]
struct Row {
    id: Uuid,
    formula_id: Uuid,
    number: i32,
    #[diesel(skip_insertion)]
    made_at: DateTime<Utc>,
    made_by: String,
    reason: String,
    style_points: f64,
    piece_kg: f64,
    scaling_loss_pct: f64,
    fermentation_loss_pct: f64,
    bake_loss_pct: f64,
    cooling_loss_pct: f64,
}

impl Store {
    /// The newest state of a formula.
    pub async fn current_formula(&self, formula_id: Uuid) -> Result<FormulaRevision> {
        let id: Option<Uuid> = formula_revision::table
            .filter(formula_revision::formula_id.eq(formula_id))
            .order(formula_revision::number.desc())
            .select(formula_revision::id)
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        self.formula(id.ok_or(StoreError::NotFound("this formula"))?).await
    }

    pub async fn formula(&self, revision_id: Uuid) -> Result<FormulaRevision> {
        let connection = &mut self.connection().await?;
        let found: Option<(Row, String)> = formula_revision::table
            .inner_join(formula::table)
            .filter(formula_revision::id.eq(revision_id))
            .select((Row::as_select(), formula::name))
            .first(connection)
            .await
            .optional()?;
        let (row, name) = found.ok_or(StoreError::NotFound("this revision of a formula"))?;
        let lines: Vec<(String, f64)> = formula_line::table
            .filter(formula_line::revision_id.eq(revision_id))
            .order(formula_line::position)
            .select((formula_line::ingredient, formula_line::pct))
            .load(connection)
            .await?;
        row.with(name, &lines)
    }

    /// Records a formula or its next state. Sent twice, it is stored once.
    pub async fn add_formula(&self, new: &NewFormula) -> Result<()> {
        let losses = new.formula.losses;
        let row = Row {
            id: new.revision_id,
            formula_id: new.formula_id,
            number: new.number,
            made_at: DateTime::UNIX_EPOCH,
            made_by: new.signed.by.clone(),
            reason: new.signed.reason.clone(),
            style_points: new.formula.style_points,
            piece_kg: new.formula.piece_kg,
            scaling_loss_pct: losses.scaling_pct,
            fermentation_loss_pct: losses.fermentation_pct,
            bake_loss_pct: losses.bake_pct,
            cooling_loss_pct: losses.cooling_pct,
        };
        let lines: Vec<_> = (0i16..)
            .zip(new.formula.formula.lines())
            .map(|(position, line)| {
                (
                    formula_line::revision_id.eq(new.revision_id),
                    formula_line::position.eq(position),
                    formula_line::ingredient.eq(line.ingredient.key()),
                    formula_line::pct.eq(line.pct),
                )
            })
            .collect();
        let mut connection = self.connection().await?;
        connection
            .transaction(async |connection| {
                diesel::insert_into(formula::table)
                    .values((formula::id.eq(new.formula_id), formula::name.eq(&new.name)))
                    .on_conflict(formula::id)
                    .do_nothing()
                    .execute(connection)
                    .await?;
                let added = diesel::insert_into(formula_revision::table)
                    .values(row)
                    .on_conflict(formula_revision::id)
                    .do_nothing()
                    .execute(connection)
                    .await?;
                if added == 1 {
                    diesel::insert_into(formula_line::table)
                        .values(lines)
                        .execute(connection)
                        .await?;
                }
                Ok(())
            })
            .await
            .map_err(|error| {
                StoreError::or_conflict(error, || {
                    format!(
                        "{} was changed by somebody else meanwhile; look at theirs first",
                        new.name
                    )
                })
            })
    }
}

impl Row {
    fn with(self, name: String, lines: &[(String, f64)]) -> Result<FormulaRevision> {
        let lines: Vec<LineInput> = lines
            .iter()
            .map(|(word, pct)| {
                let ingredient = Ingredient::from_key(word)
                    .ok_or_else(|| StoreError::unknown_word("ingredient", word))?;
                Ok(LineInput { ingredient, pct: (*pct).into() })
            })
            .collect::<Result<_>>()?;
        let formula =
            Formula::new(&lines).map_err(|error| StoreError::Unavailable(error.into()))?;
        let losses = Losses {
            scaling_pct: self.scaling_loss_pct,
            fermentation_pct: self.fermentation_loss_pct,
            bake_pct: self.bake_loss_pct,
            cooling_pct: self.cooling_loss_pct,
        };
        let Self {
            id, formula_id, number, made_at, made_by, reason, style_points, piece_kg, ..
        } = self;
        Ok(FormulaRevision {
            revision: Revision { id, number, made_at, made_by, reason },
            formula_id,
            name,
            formula: FormulaInHand::new(formula, style_points, piece_kg, losses),
        })
    }
}
