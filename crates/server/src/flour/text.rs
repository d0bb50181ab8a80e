//! Text files as people's programs write them.

use super::file::FileFault;

/// Bytes as text: UTF-8 with or without a byte-order mark, or Windows-1252.
pub fn decode(bytes: &[u8]) -> Result<String, FileFault> {
    if bytes.is_empty() {
        return Err(FileFault::Empty);
    }
    let text = match std::str::from_utf8(bytes) {
        Ok(text) => text.strip_prefix('\u{feff}').unwrap_or(text).to_owned(),
        Err(_) => encoding_rs::WINDOWS_1252.decode(bytes).0.into_owned(),
    };
    if text.chars().any(|c| c.is_control() && !matches!(c, '\n' | '\r' | '\t')) {
        return Err(FileFault::NotText);
    }
    if text.trim().is_empty() { Err(FileFault::Empty) } else { Ok(text) }
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
