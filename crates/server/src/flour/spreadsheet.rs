//! Spreadsheets as rows of text.

use std::io::{Cursor, Read};

use calamine::{Data, Reader, open_workbook_auto_from_rs};
use thiserror::Error;
use zip::ZipArchive;

/// Rows and columns looked at of a sheet.
const MOST_ROWS: usize = 2000;
const MOST_COLUMNS: usize = 60;
/// What all parts of a workbook may unpack to, bytes.
const MOST_UNPACKED: u64 = 64 * 1024 * 1024;
/// How a zip begins, and a compound file: an old workbook, or one with a password.
pub const ZIP: &[u8] = b"PK\x03\x04";
pub const COMPOUND: &[u8] = b"\xd0\xcf\x11\xe0";
/// Parts of a workbook that are macros.
const MACROS: [&str; 3] = ["vbaproject.bin", "macrosheets/", "basic/"];

/// Where an open document says how its parts are kept.
const MANIFEST: &str = "meta-inf/manifest.xml";

/// Why a spreadsheet cannot be read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum SpreadsheetFault {
    #[error(
        "this workbook is locked with a password or of an old kind (XLS): save it as XLSX or CSV \
         without a password"
    )]
    Locked,
    #[error("this workbook has macros, and none is opened here: save it as XLSX without macros")]
    Macros,
    #[error("this spreadsheet is damaged or not one: save it anew as XLSX, ODS or CSV")]
    Broken,
    #[error("this spreadsheet is far larger than a certificate")]
    TooLarge,
}

/// The filled rows of the first sheet that has any, each cell as text.
pub fn rows(bytes: &[u8]) -> Result<Vec<Vec<String>>, SpreadsheetFault> {
    if bytes.starts_with(COMPOUND) {
        return Err(SpreadsheetFault::Locked);
    }
    check_parts(bytes)?;
    let mut book =
        open_workbook_auto_from_rs(Cursor::new(bytes)).map_err(|_| SpreadsheetFault::Broken)?;
    for name in book.sheet_names() {
        let Ok(sheet) = book.worksheet_range(&name) else { continue };
        let rows: Vec<Vec<String>> = sheet
            .rows()
            .take(MOST_ROWS)
            .map(|row| row.iter().take(MOST_COLUMNS).map(text).collect())
            .filter(|row: &Vec<String>| row.iter().any(|cell| !cell.is_empty()))
            .collect();
        if !rows.is_empty() {
            return Ok(rows);
        }
    }
    Ok(Vec::new())
}

/// Refuses what has macros, a password, or unpacks to too much.
fn check_parts(bytes: &[u8]) -> Result<(), SpreadsheetFault> {
    let mut parts = ZipArchive::new(Cursor::new(bytes)).map_err(|_| SpreadsheetFault::Broken)?;
    let mut left = MOST_UNPACKED;
    for at in 0..parts.len() {
        let part = parts.by_index(at).map_err(|_| SpreadsheetFault::Broken)?;
        let name = part.name().map_err(|_| SpreadsheetFault::Broken)?.to_lowercase();
        if MACROS.iter().any(|macros| name.contains(macros)) {
            return Err(SpreadsheetFault::Macros);
        }
        // What a part says of its size is not believed.
        let mut unpacked = Vec::new();
        part.take(left + 1).read_to_end(&mut unpacked).map_err(|_| SpreadsheetFault::Broken)?;
        if name == MANIFEST && contains(&unpacked, b"encryption-data") {
            return Err(SpreadsheetFault::Locked);
        }
        left = left.checked_sub(unpacked.len() as u64).ok_or(SpreadsheetFault::TooLarge)?;
    }
    Ok(())
}

fn contains(text: &[u8], word: &[u8]) -> bool {
    text.windows(word.len()).any(|part| part == word)
}

fn text(cell: &Data) -> String {
    match cell {
        Data::DateTime(moment) => {
            let (year, month, day, ..) = moment.to_ymd_hms_milli();
            format!("{year}-{month:02}-{day:02}")
        }
        Data::DateTimeIso(moment) => moment.split('T').next().unwrap_or_default().into(),
        Data::Error(_) => String::new(),
        other => other.to_string().trim().into(),
    }
}

#[cfg(test)]
mod tests {
    use std::io::Write;

    use zip::ZipWriter;
    use zip::write::SimpleFileOptions;

    use super::*;

    fn packed(parts: &[(&str, &str)]) -> Vec<u8> {
        let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
        for (name, text) in parts {
            zip.start_file(*name, SimpleFileOptions::default()).expect("a part");
            zip.write_all(text.as_bytes()).expect("its text");
        }
        zip.finish().expect("a zip").into_inner()
    }

    fn xlsx(more: &[(&str, &str)]) -> Vec<u8> {
        let relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
        let main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
        let packages = "http://schemas.openxmlformats.org/package/2006/relationships";
        let book = format!(
            r#"<workbook xmlns="{main}" xmlns:r="{relations}"><sheets><sheet name="One" sheetId="1" r:id="rId1"/></sheets></workbook>"#
        );
        let links = format!(
            r#"<Relationships xmlns="{packages}"><Relationship Id="rId1" Type="{relations}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>"#
        );
        let sheet = format!(
            r#"<worksheet xmlns="{main}"><sheetData>
            <row r="1"><c r="A1" t="inlineStr"><is><t>property</t></is></c><c r="B1" t="inlineStr"><is><t>value</t></is></c><c r="C1" t="inlineStr"><is><t>unit</t></is></c></row>
            <row r="3"><c r="A3" t="inlineStr"><is><t>Moisture</t></is></c><c r="B3"><v>14.1</v></c><c r="C3" t="inlineStr"><is><t>%</t></is></c></row>
            </sheetData></worksheet>"#
        );
        let root = format!(
            r#"<Relationships xmlns="{packages}"><Relationship Id="rId1" Type="{relations}/officeDocument" Target="xl/workbook.xml"/></Relationships>"#
        );
        let parts = [
            ("[Content_Types].xml", "<Types/>"),
            ("_rels/.rels", root.as_str()),
            ("xl/workbook.xml", book.as_str()),
            ("xl/_rels/workbook.xml.rels", links.as_str()),
            ("xl/worksheets/sheet1.xml", sheet.as_str()),
        ];
        packed(&[parts.as_slice(), more].concat())
    }

    fn ods(manifest: &str) -> Vec<u8> {
        let office = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";
        let table = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";
        let content = format!(
            r#"<office:document-content xmlns:office="{office}" xmlns:table="{table}" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><office:body><office:spreadsheet><table:table table:name="One"><table:table-row><table:table-cell office:value-type="string"><text:p>Ash (d.m.)</text:p></table:table-cell><table:table-cell office:value-type="float" office:value="0.61"><text:p>0.61</text:p></table:table-cell></table:table-row></table:table></office:spreadsheet></office:body></office:document-content>"#
        );
        packed(&[
            ("mimetype", "application/vnd.oasis.opendocument.spreadsheet"),
            ("META-INF/manifest.xml", manifest),
            ("content.xml", content.as_str()),
        ])
    }

    #[test]
    fn workbooks_of_both_kinds_are_rows_of_text() {
        let row = |cells: &[&str]| cells.iter().map(|cell| (*cell).to_owned()).collect::<Vec<_>>();
        let read = [row(&["property", "value", "unit"]), row(&["Moisture", "14.1", "%"])];
        assert_eq!(rows(&xlsx(&[])), Ok(read.to_vec()));
        assert_eq!(rows(&ods("<manifest/>")), Ok(vec![row(&["Ash (d.m.)", "0.61"])]));
    }

    #[test]
    fn what_is_locked_damaged_or_has_macros_is_refused() {
        assert_eq!(rows(&xlsx(&[("xl/vbaProject.bin", "")])), Err(SpreadsheetFault::Macros));
        assert_eq!(
            rows(&xlsx(&[("xl/macrosheets/sheet1.xml", "")])),
            Err(SpreadsheetFault::Macros)
        );
        assert_eq!(rows(COMPOUND), Err(SpreadsheetFault::Locked));
        let locked = ods("<manifest><encryption-data/></manifest>");
        assert_eq!(rows(&locked), Err(SpreadsheetFault::Locked));
        let whole = xlsx(&[]);
        assert_eq!(rows(&whole[..whole.len() / 2]), Err(SpreadsheetFault::Broken));
        assert_eq!(rows(&packed(&[("a.txt", "b")])), Err(SpreadsheetFault::Broken));
        let empty = "0".repeat(70 * 1024 * 1024);
        assert_eq!(rows(&xlsx(&[("a", &empty)])), Err(SpreadsheetFault::TooLarge));
    }

    proptest::proptest! {
        #[test]
        fn no_bytes_make_it_panic(at in 0..2000_usize, byte: u8) {
            let mut bytes = xlsx(&[]);
            let at = at % bytes.len();
            bytes[at] = byte;
            let _ = rows(&bytes);
        }
    }
}
