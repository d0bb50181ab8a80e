//! Bulk import, from a mill's own table or from our own JSON.

use std::collections::HashMap;

use axum::body::Bytes;
use axum::extract::{DefaultBodyLimit, State};
use chrono::Utc;
use ironpeel_core::flour::{Mapping, Row, date_parts, read_rows, suggest_mapping};
use ironpeel_core::units::{DecimalMark, ValidationErrors, decimal_mark_of};
use ironpeel_store::{AuditedAct, Author, Flour, Imported, MillMapping, NewLotRevision};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::certificate::MOST_BYTES as MOST_PREVIEW_BYTES;
use super::file::FileFault;
use super::lots::LotInput;
use crate::caller::Caller;
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::revision::SignedInput;
use crate::state::App;
use crate::text_file::{FileKind, decode, table};

/// Largest part of an import taken at once; a longer file is sent in parts.
const MOST_BYTES: usize = 16 * 1024 * 1024;
/// Rows shown of a table before it is imported.
const SAMPLE: usize = 12;
/// Lots recorded in one transaction.
const AT_ONCE: usize = 1000;

pub fn routes() -> OpenApiRouter<App> {
    let preview = OpenApiRouter::new()
        .routes(routes!(preview))
        .layer(DefaultBodyLimit::max(MOST_PREVIEW_BYTES));
    OpenApiRouter::new()
        .routes(routes!(import))
        .layer(DefaultBodyLimit::max(MOST_BYTES))
        .merge(preview)
}

/// A mill's table before it is imported: what its columns are taken to mean, and what that makes of
/// its first rows.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct TablePreview {
    pub headers: Vec<String>,
    pub mapping: Mapping,
    /// Who corrected the mapping when such a table came before.
    pub remembered_by: Option<String>,
    pub mill: String,
    /// How its numbers are written; none where they leave it open.
    pub decimal_mark: Option<DecimalMark>,
    pub sample: Vec<PreviewRow>,
}

/// One row of a table, and what it would be.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct PreviewRow {
    pub cells: Vec<String>,
    pub code: String,
    pub flour: String,
    pub milled: String,
    /// Readings that were understood, as `protein 13.0 %`.
    pub readings: Vec<String>,
    pub faults: Vec<String>,
}

/// A table to be looked at again under another mapping.
#[derive(Debug, Clone, Default, Deserialize, ToSchema)]
pub struct PreviewInput {
    /// The beginning of the file.
    pub table: String,
    /// As corrected; proposed if left out.
    pub mapping: Option<Mapping>,
    #[serde(default)]
    pub mill: String,
    /// What a mark that could be either is, where the table leaves it open.
    #[serde(default)]
    pub decimal_mark: Option<DecimalMark>,
}

/// A lot in our own JSON.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub struct LotJson {
    #[serde(default)]
    pub lot: String,
    #[serde(default)]
    pub flour: String,
    #[serde(default)]
    pub mill: String,
    #[serde(default)]
    pub milled: String,
    #[serde(default)]
    pub delivered: String,
    #[serde(default)]
    pub tonnes: String,
    #[serde(default)]
    pub readings: Vec<Row>,
}

/// A part of an import: a table with its header, or lots.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct ImportInput {
    /// Rows under their header.
    #[serde(default)]
    pub table: String,
    /// As corrected; remembered or proposed if left out.
    pub mapping: Option<Mapping>,
    /// Instead of a table.
    #[serde(default)]
    pub lots: Vec<LotJson>,
    /// Whose table it is; the mapping is remembered for it.
    #[serde(default)]
    pub mill: String,
    /// The number of the part's first row in the whole file, counted from 1.
    #[serde(default)]
    pub first_row: usize,
    /// What a mark that could be either is, where the table leaves it open.
    #[serde(default)]
    pub decimal_mark: Option<DecimalMark>,
}

/// What became of a part of an import.
#[derive(Debug, Clone, Default, Serialize, ToSchema)]
pub struct ImportReport {
    pub rows: usize,
    pub added: usize,
    /// On record already, the same.
    pub same: usize,
    pub faults: Vec<ImportFault>,
}

/// A row that was not recorded, and why.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ImportFault {
    /// Counted from 1, the header left out.
    pub row: usize,
    pub lot: String,
    pub message: String,
}

/// Shows what a mill's table would become
#[utoipa::path(post, path = "/api/v1/imports/preview", security(("session" = ["read"])), tag = "flour", request_body = PreviewInput,
    responses((status = 200, body = TablePreview), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn preview(
    State(app): State<App>,
    bytes: std::result::Result<Bytes, axum::extract::rejection::BytesRejection>,
) -> Result<Json<TablePreview>> {
    // A file may be sent as it is, or its beginning with a corrected mapping.
    let bytes = bytes?;
    let asked: PreviewInput = match serde_json::from_slice(&bytes) {
        Ok(asked) => asked,
        Err(_) => PreviewInput { table: text(&bytes)?, ..PreviewInput::default() },
    };
    let (headers, rows) = table(&asked.table);
    if headers.len() < 2 || rows.is_empty() {
        return Err(Problem::unusable(FileFault::NoReadings.to_string()));
    }
    let remembered = match asked.mapping {
        None => app.store.mapping_for(&headers).await?,
        Some(_) => None,
    };
    let (remembered_by, known_mill) =
        remembered.as_ref().map(|one| (one.made_by.clone(), one.mill.clone())).unzip();
    let mapping = asked
        .mapping
        .or_else(|| remembered.and_then(|one| serde_json::from_value(one.mapping).ok()))
        .unwrap_or_else(|| suggest_mapping(&headers, &rows));
    let mill = known_mill.unwrap_or(asked.mill);
    let flours = FloursByName::load(&app).await?;
    let lots = rows.iter().map(|cells| mapped(&mapping, cells, &mill)).collect::<Vec<_>>();
    let decimal_mark = mark_of(&lots);
    let mark = decimal_mark.or(asked.decimal_mark);
    let sample = rows
        .into_iter()
        .zip(lots)
        .take(SAMPLE)
        .map(|(cells, lot)| {
            let read: Vec<_> = read_rows(&lot.readings, mark);
            let readings = read.iter().flatten().map(|reading| {
                let (label, unit) = (reading.property.label(), reading.property.unit());
                let basis = reading.basis.map(|basis| format!(", {}", basis.label()));
                format!("{label} {} {unit}{}", reading.value, basis.unwrap_or_default())
            });
            let readings = readings.collect();
            let (code, flour, milled) = (lot.lot.clone(), lot.flour.clone(), lot.milled.clone());
            let faults = match flours.lot(lot, mark, &nobody()) {
                Ok(_) => Vec::new(),
                Err(ValidationErrors(faults)) => {
                    faults.into_iter().map(|fault| fault.message).collect()
                }
            };
            PreviewRow { cells, code, flour, milled, readings, faults }
        })
        .collect();
    Ok(Json(TablePreview { headers, mapping, remembered_by, mill, decimal_mark, sample }))
}

/// A preview records nothing: whose it would be does not matter.
fn nobody() -> Author {
    Author::called("", "")
}

fn text(bytes: &[u8]) -> Result<String> {
    decode(bytes, FileKind::Lots).map_err(|fault| Problem::unusable(fault.to_string()))
}

/// Records the lots of a table or of our own JSON; sent twice, each is stored once
#[utoipa::path(post, path = "/api/v1/imports/lots", security(("session" = ["change"])), tag = "flour", request_body = ImportInput,
    responses((status = 200, body = ImportReport), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn import(
    State(app): State<App>,
    Caller { author, .. }: Caller,
    Json(input): Json<ImportInput>,
) -> Result<Json<ImportReport>> {
    let lots = lots_of(&app, &input, &author).await?;
    let mark = mark_of(&lots).or(input.decimal_mark);
    let flours = FloursByName::load(&app).await?;
    let mut report = ImportReport { rows: lots.len(), ..ImportReport::default() };
    let first = input.first_row.max(1);
    for (part, lots) in lots.chunks(AT_ONCE).enumerate() {
        let first = first + part * AT_ONCE;
        let mut good: Vec<(usize, NewLotRevision)> = Vec::with_capacity(lots.len());
        for (at, lot) in lots.iter().enumerate() {
            let (row, code) = (first + at, lot.lot.clone());
            match flours.lot(lot.clone(), mark, &author) {
                Ok(new) => good.push((row, new)),
                Err(ValidationErrors(faults)) => {
                    let told = |message| ImportFault { row, lot: code.clone(), message };
                    report.faults.extend(faults.into_iter().map(|fault| told(fault.message)));
                }
            }
        }
        let (numbers, new): (Vec<usize>, Vec<NewLotRevision>) = good.into_iter().unzip();
        for ((row, new), outcome) in
            numbers.iter().zip(&new).zip(app.store.import_lots(&new).await?)
        {
            match outcome {
                Imported::Added => report.added += 1,
                Imported::Same => report.same += 1,
                Imported::Differs => report.faults.push(ImportFault {
                    row: *row,
                    lot: new.code.clone(),
                    message: "on record with another certificate; open it to correct it".into(),
                }),
            }
        }
    }
    let details = Some(serde_json::json!({"rows": report.rows, "added": report.added}));
    let act = AuditedAct::new("POST /api/v1/imports/lots", "/api/v1/imports/lots");
    let act = AuditedAct { details, ..act };
    app.store.audit(&author, &act).await?;
    Ok(Json(report))
}

/// The lots of a part of an import; a table's mapping is remembered.
async fn lots_of(app: &App, input: &ImportInput, author: &Author) -> Result<Vec<LotJson>> {
    if input.table.trim().is_empty() {
        return Ok(input.lots.clone());
    }
    let (headers, rows) = table(&input.table);
    let remembered = app.store.mapping_for(&headers).await?;
    let known = remembered.and_then(|one| serde_json::from_value::<Mapping>(one.mapping).ok());
    let mapping = match (&input.mapping, &known) {
        (Some(given), _) => given.clone(),
        (None, Some(known)) => known.clone(),
        (None, None) => suggest_mapping(&headers, &rows),
    };
    if mapping.columns.len() != headers.len() {
        let message = format!(
            "{} columns are mapped, the table has {}",
            mapping.columns.len(),
            headers.len()
        );
        return Err(Problem::field("mapping.columns", message));
    }
    if input.mapping.is_some() && known.as_ref() != Some(&mapping) {
        let remembered = MillMapping {
            id: Uuid::now_v7(),
            mill: input.mill.clone(),
            headers,
            mapping: serde_json::json!(mapping),
            made_by: author.name.clone(),
            made_at: Utc::now(),
        };
        app.store.add_mapping(&remembered).await?;
    }
    Ok(rows.iter().map(|cells| mapped(&mapping, cells, &input.mill)).collect())
}

/// A row of a table as a lot, its dates as we write them.
fn mapped(mapping: &Mapping, cells: &[String], mill: &str) -> LotJson {
    let lot = mapping.lot(cells);
    let date = |text: String| match date_parts(&text, mapping.dates) {
        Some((year, month, day)) => format!("{year:04}-{month:02}-{day:02}"),
        None => text,
    };
    LotJson {
        lot: lot.lot,
        flour: lot.flour,
        mill: if lot.mill.is_empty() { mill.to_owned() } else { lot.mill },
        milled: date(lot.milled),
        delivered: date(lot.delivered),
        tonnes: lot.tonnes,
        readings: lot.rows,
    }
}

/// How the numbers of a table are written, as far as they say.
fn mark_of(lots: &[LotJson]) -> Option<DecimalMark> {
    decimal_mark_of(lots.iter().flat_map(|lot| {
        let values = lot.readings.iter().map(|row| row.value.as_str());
        values.chain([lot.tonnes.as_str()])
    }))
}

/// The flours on record, by their name in lower case.
struct FloursByName(HashMap<String, Flour>);

impl FloursByName {
    async fn load(app: &App) -> Result<Self> {
        let flours = app.store.flours().await?;
        Ok(Self(flours.into_iter().map(|flour| (flour.name.to_lowercase(), flour)).collect()))
    }

    fn lot(
        &self,
        lot: LotJson,
        decimal_mark: Option<DecimalMark>,
        author: &Author,
    ) -> std::result::Result<NewLotRevision, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let flour = self.0.get(&lot.flour.trim().to_lowercase());
        if flour.is_none() {
            let known: Vec<&str> = self.0.values().map(|flour| flour.name.as_str()).collect();
            let message = match lot.flour.trim() {
                "" => "the row names no flour".to_owned(),
                name if known.len() > 12 => format!("no flour called {name} is on record"),
                name => {
                    format!("no flour called {name} is on record; there are {}", known.join(", "))
                }
            };
            faults.push("flour", message);
        }
        let input = LotInput {
            flour_id: flour.map_or(Uuid::nil(), |flour| flour.id),
            code: lot.lot,
            milled: lot.milled,
            delivered: lot.delivered,
            tonnes: lot.tonnes,
            number: 1,
            decimal_mark,
            rows: lot.readings,
            signed: SignedInput::default(),
        };
        match input.check(Uuid::now_v7(), Uuid::now_v7(), author) {
            Ok(new) => faults.or(new),
            Err(ValidationErrors(more)) => {
                faults.0.extend(more);
                Err(faults)
            }
        }
    }
}
