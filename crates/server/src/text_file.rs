//! Text files as people's programs write them.

use thiserror::Error;

/// What a text file is taken for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum FileKind {
    BakeTrace,
    Certificate,
    Curve,
    Formula,
    Lots,
}

impl FileKind {
    const fn name(self) -> &'static str {
        match self {
            Self::BakeTrace => "a bake trace",
            Self::Certificate => "a certificate",
            Self::Curve => "a curve",
            Self::Formula => "a formula",
            Self::Lots => "a table of lots",
        }
    }
}

/// Why bytes are no text to read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum TextFault {
    #[error("the file is empty; {} was expected", .0.name())]
    Empty(FileKind),
    #[error("this is not a text file; {} was expected", .0.name())]
    NotText(FileKind),
}

/// Bytes as text: UTF-8 with or without a byte-order mark, or Windows-1252.
pub fn decode(bytes: &[u8], kind: FileKind) -> Result<String, TextFault> {
    if bytes.is_empty() {
        return Err(TextFault::Empty(kind));
    }
    let text = match std::str::from_utf8(bytes) {
        Ok(text) => text.strip_prefix('\u{feff}').unwrap_or(text).to_owned(),
        Err(_) => encoding_rs::WINDOWS_1252.decode(bytes).0.into_owned(),
    };
    if text.chars().any(|c| c.is_control() && !matches!(c, '\n' | '\r' | '\t')) {
        return Err(TextFault::NotText(kind));
    }
    if text.trim().is_empty() { Err(TextFault::Empty(kind)) } else { Ok(text) }
}

/// The cells of each line, trimmed; lines may be of different lengths.
pub fn records(text: &str, delimiter: u8) -> impl Iterator<Item = Vec<String>> {
    csv::ReaderBuilder::new()
        .delimiter(delimiter)
        .has_headers(false)
        .flexible(true)
        .trim(csv::Trim::All)
        .from_reader(text.as_bytes())
        .into_records()
        .filter_map(Result::ok)
        .map(|record| record.iter().map(str::to_owned).collect())
}

/// A table with a header. Its delimiter is the one that makes the most cells of its header and of
/// its first row alike; a mark inside a header's words does neither.
pub fn table(text: &str) -> (Vec<String>, Vec<Vec<String>>) {
    let cells = |delimiter| {
        let mut lines = filled(text, delimiter).map(|cells| cells.len());
        let header = lines.next().unwrap_or_default();
        header.min(lines.next().unwrap_or(header))
    };
    let delimiter = [b'\t', b',', b';'].into_iter().max_by_key(|one| cells(*one)).unwrap_or(b';');
    let mut lines = filled(text, delimiter);
    let headers = lines.next().unwrap_or_default();
    (headers, lines.collect())
}

fn filled(text: &str, delimiter: u8) -> impl Iterator<Item = Vec<String>> {
    records(text, delimiter).filter(|cells| cells.iter().any(|cell| !cell.is_empty()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_delimiter_is_the_one_that_makes_cells() {
        for text in [
            "Lot,Flour,Ash\nA,B,0.6",
            "Lot;Flour;Ash\nA;B;0,6",
            "Lot\tFlour\tAsh\n\nA\tB\t0,6",
            "Lot,ash [%; dry matter; ISO 2171],Flour\nA,0.6,B",
        ] {
            let (headers, rows) = table(text);
            assert_eq!((headers.len(), rows.len(), rows[0].len()), (3, 1, 3), "{text}");
        }
    }

    proptest::proptest! {
        #[test]
        fn no_table_makes_it_panic(bytes in proptest::collection::vec(proptest::prelude::any::<u8>(), 0..400)) {
            if let Ok(text) = decode(&bytes, FileKind::Lots) {
                let (headers, rows) = table(&text);
                let mapping = ironpeel_core::flour::suggest_mapping(&headers, &rows);
                for row in &rows {
                    let lot = mapping.lot(row);
                    let _ = ironpeel_core::flour::read_rows(&lot.rows, None);
                }
            }
        }
    }
}
