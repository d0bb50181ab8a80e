//! A formula as a file: our documented JSON, and CSV for spreadsheets.

use axum::body::Bytes;
use axum::extract::State;
use axum::response::Response;
use ironpeel_core::chain::ScenarioFormula;
use ironpeel_core::dough::{
    FlourShareInput, Formula, FormulaDraft, Ingredient, LineInput, Losses, PreparationInput,
    PreparationKind, Vessel,
};
use ironpeel_core::units::{
    DecimalMark, RawNumber, ValidationErrors, decimal_mark_of, parse_number, spelt_out,
};
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::download::{CSV, attachment, csv_of};
use crate::flour_names::current_names;
use crate::problem::{Problem, Result};
use crate::request::{Json, Marks, Path, Query};
use crate::state::App;
use crate::text_file::{FileKind, decode, table};

const FORMAT: &str = "ironpeel formula";
const COLUMNS: [&str; 4] = ["stage", "item", "value", "unit"];

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(export)).routes(routes!(read))
}

/// A formula read from a file, to be looked at and taken over.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct FormulaRead {
    pub name: String,
    #[schema(value_type = Object)]
    pub draft: Value,
    pub style_points: f64,
    pub piece_kg: f64,
    pub losses: Losses,
    #[serde(skip_serializing_if = "Option::is_none")]
    pub hydration_pct: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    pub batch_kg: Option<f64>,
}

#[derive(Debug, Clone, Serialize, Deserialize)]
struct FormulaFile {
    format: String,
    version: u32,
    name: String,
    style_points: f64,
    piece_kg: f64,
    losses: Losses,
    /// Its own water, where it does not take what the flour takes.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    hydration_pct: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    batch_kg: Option<f64>,
    #[serde(flatten)]
    draft: Value,
}

/// One revision of a formula as a file; `kind` is `json` or `csv`
#[utoipa::path(get, path = "/api/v1/formula-revisions/{revision_id}/file/{kind}", security(("session" = ["read"])), tag = "formula",
    params(("revision_id" = Uuid, Path), ("kind" = String, Path)),
    responses((status = 200, body = String), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn export(
    State(app): State<App>,
    Path((revision_id, kind)): Path<(Uuid, String)>,
) -> Result<Response> {
    let found = app.revisions.formula(revision_id).await?;
    let (ending, body, mime) = match &*kind {
        "json" => ("json", json_file(&found.name, &found.formula).to_string(), "application/json"),
        "csv" => ("csv", csv_file(&found.name, &found.formula), CSV),
        _ => return Err(Problem::not_found("a formula is saved as json or csv")),
    };
    Ok(attachment(&found.name, ending, mime, body))
}

/// Reads a formula's file, JSON or CSV, without recording it
#[utoipa::path(post, path = "/api/v1/formula-file", security(("session" = ["read"])), tag = "formula", params(Marks), request_body = String,
    responses((status = 200, body = FormulaRead), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn read(
    State(app): State<App>,
    Query(marks): Query<Marks>,
    body: Bytes,
) -> Result<Json<FormulaRead>> {
    let text = decode(&body, FileKind::Formula)
        .map_err(|fault| Problem::field("file", fault.to_string()))?;
    let file = if text.trim_start().starts_with('{') {
        of_json(&text)?
    } else {
        of_csv(&text, marks.decimal_mark)?
    };
    let mut draft: FormulaDraft = crate::request::from_value(file.draft)?;
    draft.parts.iter_mut().for_each(|part| part.id = None);
    let formula = Formula::check(&current_names(&app, &draft).await?)?;
    Ok(Json(FormulaRead {
        name: file.name,
        draft: shape_of(&formula),
        style_points: file.style_points,
        piece_kg: file.piece_kg,
        losses: file.losses,
        hydration_pct: file.hydration_pct,
        batch_kg: file.batch_kg,
    }))
}

/// A formula in the shape of the contract. What is its own here is nobody's elsewhere: its parts go
/// without their ids.
fn shape_of(formula: &Formula) -> Value {
    let mut parts = json!(formula.parts());
    for part in parts.as_array_mut().into_iter().flatten().filter_map(Value::as_object_mut) {
        part.remove("id");
    }
    json!({"lines": formula.lines(), "flours": formula.flours(), "parts": parts})
}

fn json_file(name: &str, formula: &ScenarioFormula) -> Value {
    json!(FormulaFile {
        format: FORMAT.into(),
        version: 1,
        name: name.into(),
        style_points: formula.style_points,
        piece_kg: formula.piece_kg,
        losses: formula.losses,
        hydration_pct: formula.hydration_pct,
        batch_kg: formula.batch_kg,
        draft: shape_of(&formula.formula),
    })
}

fn of_json(text: &str) -> Result<FormulaFile> {
    let value: Value = serde_json::from_str(text)
        .map_err(|error| Problem::field("file", format!("this is not JSON: {error}")))?;
    if value["format"] != FORMAT {
        let message = format!("this JSON is no formula; its format must say “{FORMAT}”");
        return Err(Problem::field("file", message));
    }
    crate::request::from_value(value)
}

fn csv_file(name: &str, formula: &ScenarioFormula) -> String {
    let mut rows: Vec<[String; 4]> = Vec::new();
    let mut row = |stage: &str, item: &str, value: String, unit: &str| {
        rows.push([stage.into(), item.into(), value, unit.into()]);
    };
    row("about", "name", name.into(), "");
    row("about", "piece", spelt_out(formula.piece_kg), "kg");
    row("about", "style", spelt_out(formula.style_points), "points");
    if let Some(pct) = formula.hydration_pct {
        row("about", "own water", spelt_out(pct), "% on flour");
    }
    if let Some(kg) = formula.batch_kg {
        row("about", "usual batch", spelt_out(kg), "kg");
    }
    for (item, value) in losses(&formula.losses) {
        row("about", item, spelt_out(value), "%");
    }
    for flour in formula.formula.flours() {
        row("flours", &flour.name, spelt_out(flour.share_pct), "% of the flour");
    }
    for line in formula.formula.lines() {
        row("whole", &line.ingredient.key(), spelt_out(line.pct), "% on flour");
    }
    for (number, part) in (1..).zip(formula.formula.parts()) {
        let stage = format!("{number} {}: {}", part.kind.key(), part.name);
        if let Some(flour) = &part.flour {
            row(&stage, "made from", flour.clone(), "");
        }
        row(&stage, "flour", spelt_out(part.flour_pct), "% of all flour");
        row(&stage, "water", spelt_out(part.water_pct), "% on all flour");
        if let Some(temperature) = part.temperature_c {
            row(&stage, "temperature", spelt_out(temperature), "°C");
        }
        if let Some(rate) = part.rate {
            row(&stage, "speed", spelt_out(rate), "times the model's");
        }
        if let Some(vessel) = part.vessel {
            row(&stage, "vessel", vessel.key().replace('_', " "), "");
        }
        for (item, celsius) in [("water temperature", part.water_c), ("made at", part.set_c)] {
            if let Some(celsius) = celsius {
                row(&stage, item, spelt_out(celsius), "°C");
            }
        }
        for line in &part.lines {
            row(&stage, &line.ingredient.key(), spelt_out(line.pct), "% on all flour");
        }
    }
    let head = COLUMNS.map(str::to_owned);
    csv_of(std::iter::once(head).chain(rows))
}

fn losses(losses: &Losses) -> [(&'static str, f64); 4] {
    [
        ("scaling loss", losses.scaling_pct),
        ("fermentation loss", losses.fermentation_pct),
        ("bake loss", losses.bake_pct),
        ("cooling loss", losses.cooling_pct),
    ]
}

fn of_csv(text: &str, mark: Option<DecimalMark>) -> Result<FormulaFile> {
    let (headers, rows) = table(text);
    let words: Vec<String> = headers.iter().map(|header| header.to_lowercase()).collect();
    if words.get(..3).is_none_or(|first| first != &COLUMNS[..3]) {
        let message =
            "the first line of a formula's CSV names its columns: stage, item, value, unit";
        return Err(Problem::field("file", message));
    }
    let mut faults = ValidationErrors::default();
    let values = rows.iter().filter_map(|cells| cells.get(2)).map(String::as_str);
    let mut read = CsvFormula { mark: decimal_mark_of(values).or(mark), ..CsvFormula::default() };
    for (at, cells) in rows.iter().enumerate() {
        let cell = |column: usize| cells.get(column).map_or("", |cell| cell.trim());
        if let Err(message) = read.take(cell(0), cell(1), cell(2)) {
            faults.push(format!("line {}", at + 2), message);
        }
    }
    faults.or(())?;
    let draft = Formula::check(&read.draft)?;
    Ok(FormulaFile {
        format: FORMAT.into(),
        version: 1,
        name: read.name,
        style_points: read.style_points,
        piece_kg: read.piece_kg.unwrap_or(0.5),
        losses: read.losses,
        hydration_pct: read.hydration_pct,
        batch_kg: read.batch_kg,
        draft: shape_of(&draft),
    })
}

struct CsvFormula {
    /// How its numbers are written, as far as they say.
    mark: Option<DecimalMark>,
    name: String,
    style_points: f64,
    piece_kg: Option<f64>,
    hydration_pct: Option<f64>,
    batch_kg: Option<f64>,
    losses: Losses,
    draft: FormulaDraft,
    /// The stage that the last part was of.
    stage: String,
}

impl Default for CsvFormula {
    fn default() -> Self {
        Self {
            mark: None,
            name: String::new(),
            style_points: 0.0,
            piece_kg: None,
            hydration_pct: None,
            batch_kg: None,
            losses: Losses::house(),
            draft: FormulaDraft::default(),
            stage: String::new(),
        }
    }
}

impl CsvFormula {
    fn take(&mut self, stage: &str, item: &str, value: &str) -> std::result::Result<(), String> {
        let mark = self.mark;
        let number = || parse_number(value, mark).map_err(|error| format!("{item}: {error}"));
        match (stage, item) {
            ("about", "name") => self.name = value.into(),
            ("about", "piece") => self.piece_kg = Some(number()?),
            ("about", "own water") => self.hydration_pct = Some(number()?),
            ("about", "usual batch") => self.batch_kg = Some(number()?),
            ("about", "style") => self.style_points = number()?,
            ("about", "scaling loss") => self.losses.scaling_pct = number()?,
            ("about", "fermentation loss") => self.losses.fermentation_pct = number()?,
            ("about", "bake loss") => self.losses.bake_pct = number()?,
            ("about", "cooling loss") => self.losses.cooling_pct = number()?,
            ("about", _) => return Err(format!("“{item}” is nothing a formula says of itself")),
            ("flours", name) => {
                let share_pct = number()?.into();
                self.draft.flours.push(FlourShareInput { name: name.into(), share_pct });
            }
            ("whole", word) => self.draft.lines.push(line(word, number()?)?),
            _ => self.take_part(stage, item, value, number)?,
        }
        Ok(())
    }

    fn take_part(
        &mut self,
        stage: &str,
        item: &str,
        value: &str,
        number: impl Fn() -> std::result::Result<f64, String>,
    ) -> std::result::Result<(), String> {
        if self.stage != stage {
            self.draft.parts.push(part(stage)?);
            stage.clone_into(&mut self.stage);
        }
        let Some(part) = self.draft.parts.last_mut() else { return Ok(()) };
        match item {
            "made from" => part.flour = Some(value.into()),
            "flour" => part.flour_pct = number()?.into(),
            "water" => part.water_pct = number()?.into(),
            "temperature" => part.temperature_c = number()?.into(),
            "speed" => part.rate = number()?.into(),
            "vessel" => part.vessel = Some(vessel(value)?),
            "water temperature" => part.water_c = number()?.into(),
            "made at" => part.set_c = number()?.into(),
            word => part.lines.push(line(word, number()?)?),
        }
        Ok(())
    }
}

fn line(word: &str, pct: f64) -> std::result::Result<LineInput, String> {
    let ingredient = Ingredient::from_key(&word.to_lowercase().replace(' ', "_"));
    let ingredient = ingredient.ok_or_else(|| format!("“{word}” is no ingredient known here"))?;
    Ok(LineInput { ingredient, pct: pct.into() })
}

fn vessel(word: &str) -> std::result::Result<Vessel, String> {
    Vessel::from_key(&word.to_lowercase().replace(' ', "_")).ok_or_else(|| {
        let words = Vessel::ALL.map(|vessel| vessel.key().replace('_', " ")).join(", ");
        format!("“{word}” is no vessel; one of {words}")
    })
}

/// `2 starter: rye sour`; number and name may be left out.
fn part(stage: &str) -> std::result::Result<PreparationInput, String> {
    let unnumbered = stage.trim_start_matches(|c: char| c.is_ascii_digit() || c == ' ');
    let (kind, name) = unnumbered.split_once(':').unwrap_or((unnumbered, ""));
    let kind = PreparationKind::from_key(kind.trim()).ok_or_else(|| {
        let words = PreparationKind::ALL.map(PreparationKind::key).join(", ");
        format!("“{stage}” is no stage; use about, flours, whole, or one of {words}")
    })?;
    Ok(PreparationInput {
        name: name.trim().into(),
        flour_pct: RawNumber::from(0.0),
        ..PreparationInput::of(kind)
    })
}
