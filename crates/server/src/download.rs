//! Files to be saved: one rule for their names, one writer for tables.

use axum::http::header;
use axum::response::{IntoResponse, Response};
use serde::Deserialize;
use utoipa::ToSchema;

/// How a list is saved.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FileFormat {
    Csv,
    Json,
}

impl FileFormat {
    /// A stream saved under a name in this format.
    pub fn attachment(self, title: &str, body: impl IntoResponse) -> Response {
        let (ending, mime) = match self {
            Self::Csv => ("csv", CSV),
            Self::Json => ("json", "application/json"),
        };
        attachment(title, ending, mime, body)
    }
}

/// A file to be saved under a name, made of a title.
pub fn attachment(
    title: &str,
    ending: &str,
    mime: &'static str,
    body: impl IntoResponse,
) -> Response {
    let disposition = format!("attachment; filename=\"{}.{ending}\"", plain(title));
    let headers =
        [(header::CONTENT_TYPE, mime.to_owned()), (header::CONTENT_DISPOSITION, disposition)];
    (headers, body).into_response()
}

/// A name that any program takes: letters and digits in lower case, a hyphen for all between.
fn plain(title: &str) -> String {
    let words = title.split(|c: char| !c.is_ascii_alphanumeric()).filter(|word| !word.is_empty());
    let words: Vec<String> = words.map(str::to_ascii_lowercase).collect();
    if words.is_empty() { "file".into() } else { words.join("-") }
}

pub const CSV: &str = "text/csv; charset=utf-8";

/// Rows as CSV.
pub fn csv_of<Row>(rows: impl IntoIterator<Item = Row>) -> String
where
    Row: IntoIterator,
    Row::Item: AsRef<[u8]>,
{
    let mut writer = csv::WriterBuilder::new().flexible(true).from_writer(Vec::new());
    // Writing text into memory does not fail.
    let written = rows.into_iter().try_for_each(|row| writer.write_record(row));
    let bytes = written.ok().and_then(|()| writer.into_inner().ok()).unwrap_or_default();
    String::from_utf8(bytes).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_file_is_named_by_its_words() {
        assert_eq!(plain("Tarn Strong specification 3"), "tarn-strong-specification-3");
        assert_eq!(plain("“é/..”"), "file");
    }

    #[test]
    fn cells_with_commas_and_quotes_stay_one_cell() {
        assert_eq!(csv_of([["a,b", "say \"c\""]]), "\"a,b\",\"say \"\"c\"\"\"\n");
    }
}
