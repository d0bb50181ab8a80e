use std::collections::HashMap;

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::chain::ScenarioFormula;
use ironpeel_core::dough::{
    FlourShareInput, Formula, FormulaDraft, Ingredient, LineInput, Losses, PreparationInput,
    PreparationKind, Vessel,
};
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed, add_revision, all_revisions, newest_revision};
use crate::schema::{
    flour, formula, formula_flour, formula_line, formula_part, formula_part_line, formula_revision,
};
use crate::store::{Store, WriteError, write_once};
use crate::word::Word;

/// One state of a formula.
#[derive(Debug, Clone, PartialEq)]
pub struct FormulaRevision {
    pub revision: Revision,
    pub formula_id: Uuid,
    pub name: String,
    pub formula: ScenarioFormula,
}

/// A formula, or the next state of one, to be recorded.
#[derive(Debug, Clone, PartialEq)]
pub struct NewFormula {
    pub formula_id: Uuid,
    pub name: String,
    pub revision_id: Uuid,
    pub number: i32,
    pub formula: ScenarioFormula,
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
    hydration_pct: Option<f64>,
    batch_kg: Option<f64>,
}

#[derive(Queryable)]
struct PartRow {
    position: i16,
    kind: Word<PreparationKind>,
    name: String,
    flour: Option<String>,
    flour_pct: f64,
    water_pct: f64,
    temperature_c: Option<f64>,
    rate: Option<f64>,
    preparation_id: Uuid,
    vessel: Option<Word<Vessel>>,
    water_c: Option<f64>,
    set_c: Option<f64>,
}

impl Store {
    /// The newest state of a formula.
    pub async fn current_formula(&self, formula_id: Uuid) -> Result<FormulaRevision> {
        let id = newest_revision!(self, formula_revision, formula_id = formula_id, "this formula")?;
        self.formula(id).await
    }

    /// Every revision of a formula, newest first.
    pub async fn formula_revisions(&self, formula_id: Uuid) -> Result<Vec<Revision>> {
        Ok(all_revisions!(self, formula_revision, formula_id = formula_id)?)
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
        let draft = draft(connection, revision_id).await?;
        let formula = Formula::check(&draft).map_err(|error| StoreError::Fault(error.into()))?;
        let losses = Losses {
            scaling_pct: row.scaling_loss_pct,
            fermentation_pct: row.fermentation_loss_pct,
            bake_pct: row.bake_loss_pct,
            cooling_pct: row.cooling_loss_pct,
        };
        let Row {
            id,
            formula_id,
            number,
            made_at,
            made_by,
            reason,
            style_points,
            piece_kg,
            hydration_pct,
            batch_kg,
            ..
        } = row;
        Ok(FormulaRevision {
            revision: Revision { id, number, made_at, made_by, reason },
            formula_id,
            name,
            formula: ScenarioFormula {
                formula,
                style_points,
                piece_kg,
                losses,
                hydration_pct,
                batch_kg,
            },
        })
    }

    /// Records a formula or its next state. Sent twice, it is stored once.
    pub async fn add_formula(&self, new: &NewFormula) -> Result<()> {
        let mut connection = self.connection().await?;
        let flours = flour_ids(&mut connection, &new.formula.formula).await?;
        drop(connection);
        write_once!(self, |connection| { record(connection, new, &flours).await? }, |error| {
            StoreError::or_overtaken(error, &new.name)
        })
    }
}

/// Records a formula's state inside a transaction.
pub(crate) async fn record(
    connection: &mut AsyncPgConnection,
    new: &NewFormula,
    flours: &HashMap<String, Uuid>,
) -> std::result::Result<bool, WriteError> {
    diesel::insert_into(formula::table)
        .values((formula::id.eq(new.formula_id), formula::name.eq(&new.name)))
        .on_conflict(formula::id)
        .do_nothing()
        .execute(connection)
        .await?;
    let (id, owner) = (new.revision_id, new.formula_id);
    let row = Row::of(new);
    let added = add_revision!(
        connection,
        formula_revision,
        [formula_id = owner],
        id,
        new.number,
        &new.name,
        row,
        { insert(connection, new, flours).await? }
    );
    Ok(added)
}

/// What a revision's rows say, as it was drafted.
async fn draft(connection: &mut AsyncPgConnection, revision_id: Uuid) -> Result<FormulaDraft> {
    let lines: Vec<(Word<Ingredient>, f64)> = formula_line::table
        .filter(formula_line::revision_id.eq(revision_id))
        .order(formula_line::position)
        .select((formula_line::ingredient, formula_line::pct))
        .load(connection)
        .await?;
    let flours: Vec<(String, f64)> = formula_flour::table
        .inner_join(flour::table)
        .filter(formula_flour::revision_id.eq(revision_id))
        .order(formula_flour::position)
        .select((flour::name, formula_flour::share_pct))
        .load(connection)
        .await?;
    let parts: Vec<PartRow> = formula_part::table
        .left_join(flour::table)
        .filter(formula_part::revision_id.eq(revision_id))
        .order(formula_part::position)
        .select((
            formula_part::position,
            formula_part::kind,
            formula_part::name,
            flour::name.nullable(),
            formula_part::flour_pct,
            formula_part::water_pct,
            formula_part::temperature_c,
            formula_part::rate,
            formula_part::preparation_id,
            formula_part::vessel,
            formula_part::water_c,
            formula_part::set_c,
        ))
        .load(connection)
        .await?;
    let part_lines: Vec<(i16, Word<Ingredient>, f64)> = formula_part_line::table
        .filter(formula_part_line::revision_id.eq(revision_id))
        .order((formula_part_line::part, formula_part_line::position))
        .select((formula_part_line::part, formula_part_line::ingredient, formula_part_line::pct))
        .load(connection)
        .await?;
    let flours = flours
        .into_iter()
        .map(|(name, share_pct)| FlourShareInput { name, share_pct: share_pct.into() });
    let parts = parts.into_iter().map(|part| {
        let own = part_lines.iter().filter(|(of, ..)| *of == part.position);
        PreparationInput {
            id: Some(part.preparation_id),
            kind: part.kind.0,
            name: part.name,
            flour: part.flour,
            flour_pct: part.flour_pct.into(),
            water_pct: part.water_pct.into(),
            temperature_c: part.temperature_c.into(),
            rate: part.rate.into(),
            vessel: part.vessel.map(|Word(vessel)| vessel),
            water_c: part.water_c.into(),
            set_c: part.set_c.into(),
            lines: own.map(|(_, word, pct)| line(*word, *pct)).collect(),
        }
    });
    Ok(FormulaDraft {
        lines: lines.into_iter().map(|(word, pct)| line(word, pct)).collect(),
        flours: flours.collect(),
        parts: parts.collect(),
    })
}

fn line(Word(ingredient): Word<Ingredient>, pct: f64) -> LineInput {
    LineInput { ingredient, pct: pct.into() }
}

/// The ids of a formula's flours by their names; all of them are on record.
pub(crate) async fn flour_ids(
    connection: &mut AsyncPgConnection,
    formula: &Formula,
) -> Result<HashMap<String, Uuid>> {
    let names: Vec<&str> = formula.flours().iter().map(|flour| &*flour.name).collect();
    let found: Vec<(String, Uuid)> = flour::table
        .filter(flour::name.eq_any(&names))
        .select((flour::name, flour::id))
        .load(connection)
        .await?;
    let ids: HashMap<String, Uuid> = found.into_iter().collect();
    if names.iter().all(|name| ids.contains_key(*name)) {
        Ok(ids)
    } else {
        Err(StoreError::NotFound("a flour of this formula"))
    }
}

async fn insert(
    connection: &mut AsyncPgConnection,
    new: &NewFormula,
    flours: &HashMap<String, Uuid>,
) -> diesel::QueryResult<()> {
    let id = new.revision_id;
    let formula = &new.formula.formula;
    let lines: Vec<_> = (0i16..)
        .zip(formula.lines())
        .map(|(position, line)| {
            (
                formula_line::revision_id.eq(id),
                formula_line::position.eq(position),
                formula_line::ingredient.eq(Word(line.ingredient)),
                formula_line::pct.eq(line.pct),
            )
        })
        .collect();
    let shares: Vec<_> = (0i16..)
        .zip(formula.flours())
        .map(|(position, one)| {
            (
                formula_flour::revision_id.eq(id),
                formula_flour::position.eq(position),
                formula_flour::flour_id.eq(flours[&one.name]),
                formula_flour::share_pct.eq(one.share_pct),
            )
        })
        .collect();
    let parts: Vec<_> = (0i16..)
        .zip(formula.parts())
        .map(|(position, part)| {
            (
                formula_part::revision_id.eq(id),
                formula_part::position.eq(position),
                formula_part::kind.eq(Word(part.kind)),
                formula_part::name.eq(&part.name),
                formula_part::flour_id.eq(part.flour.as_ref().map(|name| flours[name])),
                formula_part::flour_pct.eq(part.flour_pct),
                formula_part::water_pct.eq(part.water_pct),
                formula_part::temperature_c.eq(part.temperature_c),
                formula_part::rate.eq(part.rate),
                formula_part::preparation_id.eq(part.id.unwrap_or_else(Uuid::now_v7)),
                formula_part::vessel.eq(part.vessel.map(Word)),
                formula_part::water_c.eq(part.water_c),
                formula_part::set_c.eq(part.set_c),
            )
        })
        .collect();
    let part_lines: Vec<_> = (0i16..)
        .zip(formula.parts())
        .flat_map(|(part, of)| {
            (0i16..).zip(&of.lines).map(move |(position, line)| {
                (
                    formula_part_line::revision_id.eq(id),
                    formula_part_line::part.eq(part),
                    formula_part_line::position.eq(position),
                    formula_part_line::ingredient.eq(Word(line.ingredient)),
                    formula_part_line::pct.eq(line.pct),
                )
            })
        })
        .collect();
    diesel::insert_into(formula_line::table).values(lines).execute(connection).await?;
    diesel::insert_into(formula_flour::table).values(shares).execute(connection).await?;
    diesel::insert_into(formula_part::table).values(parts).execute(connection).await?;
    diesel::insert_into(formula_part_line::table).values(part_lines).execute(connection).await?;
    Ok(())
}

impl Row {
    fn of(new: &NewFormula) -> Self {
        let losses = new.formula.losses;
        Self {
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
            hydration_pct: new.formula.hydration_pct,
            batch_kg: new.formula.batch_kg,
        }
    }
}
