use axum::body::Bytes;
use axum::extract::{DefaultBodyLimit, State};
use ironpeel_core::flour::{
    Assessment, Moisture, MoistureBasis, Property, Reading, Readings, Row, RowFault, ValuesByBasis,
    assess, read_rows,
};
use ironpeel_core::units::{DecimalMark, ValidationErrors};
use ironpeel_store::{Revision, SpecificationRevision};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::CertificateFile;
use super::date::date;
use crate::heavy::heavy;
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

/// Largest certificate file taken.
pub const MOST_BYTES: usize = 1024 * 1024;
/// Earlier lots shown beside a reading.
const EARLIER: i64 = 16;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(read))
        .routes(routes!(judge))
        .layer(DefaultBodyLimit::max(MOST_BYTES))
}

/// A certificate's rows with what they say, or what is wrong with them, and how the lot stands to
/// its flour's specification.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Certificate {
    pub rows: Vec<ReadRow>,
    pub moisture_pct: Option<f64>,
    /// None until the flour is known.
    pub assessment: Option<Assessment>,
    pub specification: Option<Revision>,
    pub earlier: Vec<EarlierReadings>,
}

/// One row: a reading, or a fault.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ReadRow {
    pub written: Row,
    /// The property it is of, even where the rest cannot be used.
    pub property: Option<Property>,
    pub reading: Option<ReadingView>,
    pub fault: Option<RowFault>,
}

/// A reading with its names and its value on each basis.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ReadingView {
    #[serde(flatten)]
    pub reading: Reading,
    pub label: &'static str,
    pub unit: &'static str,
    pub on: ValuesByBasis,
}

/// What earlier lots of the flour had of one property, newest first, on the specification's basis.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct EarlierReadings {
    pub property: Property,
    pub basis: Option<MoistureBasis>,
    pub values: Vec<f64>,
}

/// Rows to be judged.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct AssessInput {
    pub flour_id: Option<Uuid>,
    /// A lot not to be counted among the earlier ones.
    pub lot_id: Option<Uuid>,
    /// As typed, for the days between them.
    #[serde(default)]
    pub milled: String,
    #[serde(default)]
    pub delivered: String,
    /// What a mark that could be either is, where the rows leave it open; refused if left out.
    #[serde(default)]
    pub decimal_mark: Option<DecimalMark>,
    pub rows: Vec<Row>,
}

/// Takes a certificate file apart into its head and rows
#[utoipa::path(post, path = "/api/v1/certificates/read", security(("session" = ["read"])), tag = "flour",
    request_body(content(
        (String = "text/csv"),
        (String = "application/pdf"),
        (String = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
        (String = "application/vnd.oasis.opendocument.spreadsheet"))),
    responses((status = 200, body = CertificateFile), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn read(
    bytes: std::result::Result<Bytes, axum::extract::rejection::BytesRejection>,
) -> Result<Json<CertificateFile>> {
    let bytes = bytes?;
    let file = heavy(move || CertificateFile::read(&bytes)).await;
    Ok(Json(file.map_err(|fault| Problem::unusable(fault.to_string()))?))
}

/// Reads each row, moves it to each basis, and holds it against the flour's specification
#[utoipa::path(post, path = "/api/v1/certificates/assessment", security(("session" = ["read"])), tag = "flour", request_body = AssessInput,
    responses((status = 200, body = Certificate), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn judge(
    State(app): State<App>,
    Json(asked): Json<AssessInput>,
) -> Result<Json<Certificate>> {
    let specification = match asked.flour_id {
        Some(flour_id) => app.specification_of(flour_id).await?,
        None => None,
    };
    let mut unread = ValidationErrors::default();
    let [milled, delivered] =
        [&asked.milled, &asked.delivered].map(|text| date("", text, &mut unread));
    let age_days = delivered.zip(milled).map(|(to, from)| (to - from).num_days() as f64);
    let specification = specification.as_ref();
    let read = read_rows(&asked.rows, asked.decimal_mark);
    let rows = asked.rows.into_iter().zip(read).collect();
    Ok(Json(Certificate::judged(&app, rows, specification, asked.lot_id, age_days).await?))
}

impl Certificate {
    pub async fn judged(
        app: &App,
        rows: Vec<(Row, std::result::Result<Reading, RowFault>)>,
        specification: Option<&SpecificationRevision>,
        except: Option<Uuid>,
        age_days: Option<f64>,
    ) -> Result<Self> {
        let readings = rows.iter().filter_map(|(_, read)| read.as_ref().ok()).cloned();
        let readings = Readings(readings.collect());
        let moisture = readings.moisture();
        let plant = app.parameters().await?;
        let earlier = match specification {
            Some(specification) => earlier(app, specification, except).await?,
            None => Vec::new(),
        };
        Ok(Self {
            rows: rows
                .into_iter()
                .map(|(written, read)| {
                    let property = Property::named(&written.property);
                    let (reading, fault) = match read {
                        Ok(reading) => (Some(ReadingView::new(reading, moisture)), None),
                        Err(fault) => (None, Some(fault)),
                    };
                    ReadRow { written, property, reading, fault }
                })
                .collect(),
            moisture_pct: moisture.map(Moisture::percent),
            assessment: specification.map(|specification| {
                let readings = readings.with_age(age_days);
                assess(&specification.limits, &readings, &plant.coefficients)
            }),
            specification: specification.map(|specification| specification.revision.clone()),
            earlier,
        })
    }
}

impl ReadingView {
    fn new(reading: Reading, moisture: Option<Moisture>) -> Self {
        Self {
            label: reading.property.label(),
            unit: reading.property.unit(),
            on: reading.on_bases(moisture),
            reading,
        }
    }
}

async fn earlier(
    app: &App,
    specification: &SpecificationRevision,
    except: Option<Uuid>,
) -> Result<Vec<EarlierReadings>> {
    let lots = app.store.lots(Some(specification.flour_id), None, EARLIER).await?;
    let lots = lots.into_iter().filter(|lot| Some(lot.id) != except);
    let lots: Vec<Readings> = lots.map(|lot| lot.current.judged()).collect();
    Ok(specification
        .limits
        .iter()
        .map(|limit| EarlierReadings {
            property: limit.property,
            basis: limit.basis,
            values: lots.iter().filter_map(|lot| lot.value(limit.property, limit.basis)).collect(),
        })
        .collect())
}
