//! Lots as a table or as JSON, streamed, in the formats that are taken in.

use axum::body::Body;
use axum::extract::State;
use axum::response::Response;
use futures_util::Stream;
use ironpeel_core::flour::own_header_of;
use ironpeel_store::{LotSummary, ReadingColumn, StoreError};
use serde::Deserialize;
use utoipa::IntoParams;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::import::LotJson;
use super::lots::written;
use crate::download::{FileFormat, csv_of};
use crate::problem::{Problem, Result};
use crate::request::Query;
use crate::state::App;

/// Lots read at once.
const PART: i64 = 500;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(export))
}

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct ExportQuery {
    #[param(inline)]
    format: FileFormat,
    flour_id: Option<Uuid>,
}

/// Every lot, oldest first, as it is taken in: a lot a row, or our own JSON
#[utoipa::path(get, path = "/api/v1/lots/export", security(("session" = ["read"])), tag = "flour", params(ExportQuery),
    responses((status = 200, content((String = "text/csv"), (Vec<serde_json::Value> = "application/json"))), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn export(State(app): State<App>, Query(wanted): Query<ExportQuery>) -> Result<Response> {
    let columns = match wanted.format {
        FileFormat::Csv => app.store.reading_columns(wanted.flour_id).await?,
        FileFormat::Json => Vec::new(),
    };
    Ok(wanted.format.attachment("lots", Body::from_stream(parts(app, wanted, columns))))
}

/// The file, a page of lots at a time. A fault of the records breaks the stream off, so that a
/// half file is not taken for a whole one.
fn parts(
    app: App,
    ExportQuery { format, flour_id }: ExportQuery,
    columns: Vec<ReadingColumn>,
) -> impl Stream<Item = std::result::Result<String, StoreError>> {
    async_stream::try_stream! {
        let mut after = None;
        yield match format {
            FileFormat::Csv => head(&columns),
            FileFormat::Json => "[".to_owned(),
        };
        let mut first = true;
        loop {
            let lots = app.store.lots_onward(flour_id, after, PART).await?;
            let Some(last) = lots.last() else { break };
            after = Some((last.received_at, last.id));
            let mut part = String::new();
            for lot in lots {
                let lot = json_of(lot);
                match format {
                    FileFormat::Csv => part += &row(&lot, &columns),
                    FileFormat::Json => {
                        part += if first { "\n" } else { ",\n" };
                        part += &serde_json::to_string(&lot).unwrap_or_default();
                        first = false;
                    }
                }
            }
            yield part;
        }
        if format == FileFormat::Json {
            yield "\n]\n".to_owned();
        }
    }
}

fn json_of(lot: LotSummary) -> LotJson {
    let date =
        |date: Option<chrono::NaiveDate>| date.map(|date| date.to_string()).unwrap_or_default();
    LotJson {
        readings: written(&lot.current),
        lot: lot.code,
        flour: lot.flour,
        mill: lot.mill,
        milled: date(lot.current.milled_on),
        delivered: date(lot.current.delivered_on),
        tonnes: lot.current.tonnes.map(|tonnes| tonnes.to_string()).unwrap_or_default(),
    }
}

fn head(columns: &[ReadingColumn]) -> String {
    let own = ["lot", "flour", "mill", "milled", "delivered", "tonnes"].map(str::to_owned);
    let readings = columns
        .iter()
        .map(|column| own_header_of(column.property, &column.unit, column.basis, &column.method));
    csv_of([own.into_iter().chain(readings)])
}

fn row(lot: &LotJson, columns: &[ReadingColumn]) -> String {
    let own = [&lot.lot, &lot.flour, &lot.mill, &lot.milled, &lot.delivered, &lot.tonnes];
    let readings = columns.iter().map(|column| {
        let basis = column.basis.map_or("", |basis| basis.label());
        let is_of = |row: &&ironpeel_core::flour::Row| {
            row.property == column.property.label()
                && row.unit == column.unit
                && row.basis == basis
                && row.method == column.method
        };
        lot.readings.iter().find(is_of).map(|row| row.value.clone()).unwrap_or_default()
    });
    csv_of([own.into_iter().cloned().chain(readings)])
}
