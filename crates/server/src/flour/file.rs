use ironpeel_core::flour::{Property, Row, rows_in_text};
use serde::Serialize;
use thiserror::Error;
use utoipa::ToSchema;

use super::pdf::{self, PdfFault};
use super::spreadsheet::{self, SpreadsheetFault};
use crate::text_file::{FileKind, TextFault, decode, records};

/// Rows kept of one certificate; no laboratory states as many.
pub const MOST_ROWS: usize = 200;

/// The head of a certificate, as it was written.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, ToSchema)]
pub struct Head {
    pub mill: String,
    pub product: String,
    pub lot: String,
    pub milled: String,
    pub delivered: String,
    pub tonnes: String,
}

/// A certificate file taken apart into text, not yet judged.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct CertificateFile {
    pub head: Head,
    pub rows: Vec<Row>,
    /// The line each row was read from, where the file has no columns; empty where it has.
    pub excerpts: Vec<String>,
    /// What was noticed and left to the reader.
    pub notes: Vec<String>,
}

/// Why a file is not a certificate.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum FileFault {
    #[error("{0}")]
    Spreadsheet(#[from] SpreadsheetFault),
    #[error("{0}")]
    Pdf(#[from] PdfFault),
    #[error(
        "no line of it begins with a property and states its value, such as: Moisture 14.1 % ISO 712"
    )]
    NoLines,
    #[error("{0}. A certificate is CSV, with rows of property, value, unit, basis, method")]
    Text(#[from] TextFault),
    #[error("this file has a lot in each row: take it in under Flour, Bulk import")]
    LotPerRow,
    #[error(
        "no row begins with property and value; a certificate has a line property;value;unit;basis;method and its readings below"
    )]
    NoReadings,
}

impl CertificateFile {
    /// Takes a certificate apart: a spreadsheet, a PDF that holds text, or a text with comma,
    /// semicolon or tab, with or without a byte-order mark, UTF-8 or Windows-1252.
    pub fn read(bytes: &[u8]) -> Result<Self, FileFault> {
        if bytes.starts_with(spreadsheet::ZIP) || bytes.starts_with(spreadsheet::COMPOUND) {
            let rows = spreadsheet::rows(bytes)?;
            return match with_columns(rows.iter().cloned()) {
                Some(file) => Ok(file),
                None => in_lines(rows.into_iter().map(|cells| cells.join(" "))),
            };
        }
        if bytes.starts_with(pdf::PDF) {
            return in_lines(pdf::text(bytes)?.lines().map(str::to_owned));
        }
        let text = decode(bytes, FileKind::Certificate)?;
        [b';', b',', b'\t']
            .into_iter()
            .find_map(|delimiter| with_delimiter(&text, delimiter))
            .ok_or_else(|| fault_of(&text))
    }
}

fn is_readings_header(cells: &[String]) -> bool {
    let is =
        |at: usize, word: &str| cells.get(at).is_some_and(|cell| cell.eq_ignore_ascii_case(word));
    is(0, "property") && is(1, "value")
}

fn with_delimiter(text: &str, delimiter: u8) -> Option<CertificateFile> {
    with_columns(records(text, delimiter))
}

/// A certificate without columns: what is no reading may be of its head.
fn in_lines(lines: impl Iterator<Item = String>) -> Result<CertificateFile, FileFault> {
    let text: Vec<String> = lines.collect();
    let found = rows_in_text(&text.join("\n"));
    if found.is_empty() {
        return Err(FileFault::NoLines);
    }
    let mut head = Head::default();
    for line in &text {
        let key = line.split([':', ' ']).next().unwrap_or_default();
        let value = line[key.len()..].trim_start_matches([':', ' ']).trim();
        if let Some(field) = head.field(key).filter(|field| field.is_empty()) {
            value.clone_into(field);
        }
    }
    let (rows, excerpts): (Vec<Row>, Vec<String>) =
        found.into_iter().take(MOST_ROWS).map(|one| (one.row, one.excerpt)).unzip();
    let notes =
        vec!["each row stands beside the line it was read from: compare before saving".into()];
    Ok(CertificateFile { head, rows, excerpts, notes })
}

fn with_columns(mut records: impl Iterator<Item = Vec<String>>) -> Option<CertificateFile> {
    let mut head = Head::default();
    let mut notes = Vec::new();
    let columns = loop {
        let cells = records.next()?;
        if is_readings_header(&cells) {
            break cells;
        }
        if let [key, rest @ ..] = cells.as_slice() {
            // A decimal comma splits the value of a comma-separated head: 24,6 t.
            let value = rest.join(",");
            match head.field(key) {
                Some(field) => value.trim_end_matches(',').clone_into(field),
                None if key.is_empty() => {}
                None => notes.push(format!("“{}” is not part of a certificate's head", short(key))),
            }
        }
    };
    let at = |word: &str| columns.iter().position(|cell| cell.eq_ignore_ascii_case(word));
    let (unit, basis, method) = (at("unit"), at("basis"), at("method"));
    let mut rows = Vec::new();
    for cells in records.filter(|cells| cells.iter().any(|cell| !cell.is_empty())) {
        if rows.len() == MOST_ROWS {
            notes.push(format!("only the first {MOST_ROWS} rows were kept"));
            break;
        }
        let cell = |at: Option<usize>| at.and_then(|at| cells.get(at)).cloned().unwrap_or_default();
        if cells.len() > columns.len() {
            notes.push(format!(
                "row {} has more cells than the header: put a decimal comma in quotes, or use semicolons",
                rows.len() + 1
            ));
        }
        rows.push(Row {
            property: cell(Some(0)),
            value: cell(Some(1)),
            unit: cell(unit),
            basis: cell(basis),
            method: cell(method),
        });
    }
    Some(CertificateFile { head, rows, excerpts: Vec::new(), notes })
}

impl Head {
    fn field(&mut self, key: &str) -> Option<&mut String> {
        match key.to_lowercase().as_str() {
            "mill" => Some(&mut self.mill),
            "product" | "flour" => Some(&mut self.product),
            "lot" | "batch" => Some(&mut self.lot),
            "milled" => Some(&mut self.milled),
            "delivered" => Some(&mut self.delivered),
            "tonnes" => Some(&mut self.tonnes),
            _ => None,
        }
    }
}

fn fault_of(text: &str) -> FileFault {
    let first = text.lines().next().unwrap_or_default();
    let named = first
        .split([';', ',', '\t'])
        .filter_map(|cell| cell.trim_matches(['"', ' ']).split_whitespace().next())
        .filter(|word| Property::named(word).is_some())
        .count();
    if named >= 2 { FileFault::LotPerRow } else { FileFault::NoReadings }
}

fn short(text: &str) -> String {
    text.chars().take(40).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    const VENNICK: &[u8] = include_bytes!("../../demo/certificate-example.csv");

    #[test]
    fn takes_a_certificate_apart() {
        let file = CertificateFile::read(VENNICK).expect("a certificate");
        assert_eq!(file.head.lot, "VR-26-1107");
        assert_eq!(file.head.tonnes, "24,6");
        assert_eq!(file.rows.len(), 13);
        assert_eq!(file.rows[1].basis, "14 %");
        assert!(file.notes.is_empty());
    }

    #[test]
    fn delimiter_mark_and_encoding_do_not_matter() {
        let plain = CertificateFile::read(VENNICK).expect("a certificate");
        let text = String::from_utf8(VENNICK.to_vec()).expect("UTF-8");
        let quoted: String = text
            .lines()
            .map(|line| {
                line.split(';').map(|cell| format!("\"{cell}\"")).collect::<Vec<_>>().join(",")
                    + "\r\n"
            })
            .collect();
        for variant in [format!("\u{feff}{text}"), quoted, text.replace(';', "\t")] {
            assert_eq!(CertificateFile::read(variant.as_bytes()).as_ref(), Ok(&plain));
        }
        let latin = b"mill;M\xfchle\nproperty;value\nash;0,6\n";
        assert_eq!(CertificateFile::read(latin).expect("Windows-1252").head.mill, "Mühle");
    }

    #[test]
    fn what_is_not_a_certificate_says_what_one_is() {
        for (bytes, fault) in [
            (&b""[..], FileFault::Text(TextFault::Empty(FileKind::Certificate))),
            (
                b"\x89PNG\r\n\x1a\n\0\0\0",
                FileFault::Text(TextFault::NotText(FileKind::Certificate)),
            ),
            (b"dear miller\nplease find enclosed", FileFault::NoReadings),
            (b"Lot,Flour,\"Protein, % d.m.\",Moisture %,W\nBS-1,x,1,2,3", FileFault::LotPerRow),
        ] {
            assert_eq!(CertificateFile::read(bytes), Err(fault));
        }
    }

    proptest::proptest! {
        #[test]
        fn no_file_makes_it_panic(bytes in proptest::collection::vec(proptest::prelude::any::<u8>(), 0..400)) {
            let _ = CertificateFile::read(&bytes);
            let with_header = [b"property;value\n".as_slice(), &bytes].concat();
            if let Ok(file) = CertificateFile::read(&with_header) {
                proptest::prop_assert!(file.rows.len() <= MOST_ROWS);
            }
        }
    }
}
