//! The text of a PDF, in lines as they stand on its pages.

use std::collections::BTreeMap;

use lopdf::content::{Content, Operation};
use lopdf::{Document, Encoding, Object, ObjectId};
use thiserror::Error;

/// How a PDF begins.
pub const PDF: &[u8] = b"%PDF-";
/// Pages of a certificate, at most.
const MOST_PAGES: usize = 20;
/// What a page or a font may unpack to, bytes.
const MOST_UNPACKED: usize = 8 * 1024 * 1024;
/// Pieces of text nearer than this are on one line, points.
const SAME_LINE: f64 = 2.5;
/// A move to the left inside a string, in thousandths of its size, from which it is a space.
const SPACE: f32 = -180.0;

/// Why a PDF cannot be read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum PdfFault {
    #[error("this PDF is locked with a password: ask the mill for one that is not")]
    Locked,
    #[error(
        "this PDF holds no text, only a picture of a page: type its figures in, or ask the mill for \
         the file it was made from"
    )]
    NoText,
    #[error("this PDF has {0} pages, and a certificate has up to {MOST_PAGES}")]
    TooLong(usize),
    #[error("this PDF is damaged: ask the mill for it again")]
    Broken,
}

/// The text of a PDF, line by line.
pub fn text(bytes: &[u8]) -> Result<String, PdfFault> {
    let document = Document::load_mem(bytes).map_err(|_| PdfFault::Broken)?;
    if document.is_encrypted() || document.was_encrypted() {
        return Err(PdfFault::Locked);
    }
    let pages = document.get_pages();
    if pages.len() > MOST_PAGES {
        return Err(PdfFault::TooLong(pages.len()));
    }
    let mut text = String::new();
    for page in pages.into_values() {
        for line in lines(pieces(&document, page).ok_or(PdfFault::Broken)?) {
            text.push_str(&line);
            text.push('\n');
        }
    }
    if text.trim().is_empty() { Err(PdfFault::NoText) } else { Ok(text) }
}

/// A piece of text and where it begins on its page.
struct Piece {
    x: f64,
    y: f64,
    text: String,
}

/// Pieces in lines from the top, each from the left.
fn lines(mut pieces: Vec<Piece>) -> Vec<String> {
    pieces.sort_by(|one, other| other.y.total_cmp(&one.y));
    let on_one_line = |one: &Piece, next: &Piece| one.y - next.y < SAME_LINE;
    let lines = pieces.chunk_by_mut(on_one_line);
    lines
        .map(|line| {
            line.sort_by(|one, other| one.x.total_cmp(&other.x));
            let texts: Vec<&str> = line.iter().map(|piece| piece.text.trim()).collect();
            texts.join(" ")
        })
        .collect()
}

/// A move and turn of the plane, as PDF writes it.
#[derive(Clone, Copy)]
struct Matrix([f64; 6]);

impl Matrix {
    const SAME: Self = Self([1.0, 0.0, 0.0, 1.0, 0.0, 0.0]);

    const fn moved(x: f64, y: f64) -> Self {
        Self([1.0, 0.0, 0.0, 1.0, x, y])
    }

    fn of(operands: &[Object]) -> Option<Self> {
        let numbers: Vec<f64> = operands.iter().filter_map(number).collect();
        Some(Self(numbers.try_into().ok()?))
    }

    /// First this, then `next`.
    fn then(self, next: Self) -> Self {
        let (Self(here), Self(next)) = (self, next);
        let moved = |x: f64, y: f64, one: f64| {
            [0, 1].map(|side| x * next[side] + y * next[2 + side] + one * next[4 + side])
        };
        let [first, second, origin] = [
            moved(here[0], here[1], 0.0),
            moved(here[2], here[3], 0.0),
            moved(here[4], here[5], 1.0),
        ];
        Self([first[0], first[1], second[0], second[1], origin[0], origin[1]])
    }
}

fn number(object: &Object) -> Option<f64> {
    object.as_float().ok().map(f64::from)
}

/// Where text is written on a page.
struct Pen<'a> {
    encodings: BTreeMap<Vec<u8>, Encoding<'a>>,
    font: Vec<u8>,
    page: Matrix,
    kept: Vec<Matrix>,
    line: Matrix,
    leading: f64,
    pieces: Vec<Piece>,
}

/// The pieces of text of a page; none where it cannot be unpacked.
fn pieces(document: &Document, page: ObjectId) -> Option<Vec<Piece>> {
    let content = document.get_page_content_with_limit(page, MOST_UNPACKED).ok()?;
    let content = Content::decode(&content).ok()?;
    let fonts = document.get_page_fonts(page).ok()?;
    let encodings = fonts.into_iter().filter_map(|(name, font)| {
        Some((name, font.get_font_encoding_with_limit(document, MOST_UNPACKED).ok()?))
    });
    let mut pen = Pen {
        encodings: encodings.collect(),
        font: Vec::new(),
        page: Matrix::SAME,
        kept: Vec::new(),
        line: Matrix::SAME,
        leading: 0.0,
        pieces: Vec::new(),
    };
    for operation in &content.operations {
        pen.take(operation);
    }
    Some(pen.pieces)
}

impl Pen<'_> {
    fn take(&mut self, Operation { operator, operands }: &Operation) {
        let numbers: Vec<f64> = operands.iter().filter_map(number).collect();
        match (operator.as_str(), &*numbers) {
            ("q", _) => self.kept.push(self.page),
            ("Q", _) => self.page = self.kept.pop().unwrap_or(self.page),
            ("cm", _) => {
                self.page = Matrix::of(operands).unwrap_or(Matrix::SAME).then(self.page);
            }
            ("BT", _) => self.line = Matrix::SAME,
            ("Tm", _) => self.line = Matrix::of(operands).unwrap_or(self.line),
            ("Tf", _) => {
                let name = operands.first().and_then(|name| name.as_name().ok());
                self.font = name.unwrap_or_default().to_vec();
            }
            ("TL", [leading, ..]) => self.leading = *leading,
            ("Td", [x, y, ..]) => self.step(*x, *y),
            ("TD", [x, y, ..]) => {
                self.leading = -y;
                self.step(*x, *y);
            }
            ("T*", _) => self.step(0.0, -self.leading),
            ("Tj" | "TJ", _) => self.write(operands),
            ("'" | "\"", _) => {
                self.step(0.0, -self.leading);
                self.write(operands);
            }
            _ => {}
        }
    }

    fn step(&mut self, x: f64, y: f64) {
        self.line = Matrix::moved(x, y).then(self.line);
    }

    fn write(&mut self, operands: &[Object]) {
        let mut text = String::new();
        // A string, or a list of strings with moves between them.
        for operand in operands {
            match operand {
                Object::Array(parts) => parts.iter().for_each(|part| self.decode(part, &mut text)),
                string => self.decode(string, &mut text),
            }
        }
        let Matrix([.., x, y]) = self.line.then(self.page);
        if !text.trim().is_empty() {
            self.pieces.push(Piece { x, y, text });
        }
    }

    fn decode(&self, operand: &Object, text: &mut String) {
        match operand {
            Object::String(bytes, _) => {
                let encoding = self.encodings.get(&self.font);
                let read = encoding.and_then(|one| Document::decode_text(one, bytes).ok());
                text.push_str(&read.unwrap_or_default());
            }
            _ if operand.as_float().is_ok_and(|moved| moved < SPACE) => text.push(' '),
            _ => {}
        }
    }
}

#[cfg(test)]
mod tests {
    use lopdf::dictionary;
    use lopdf::{Stream, StringFormat};

    use super::*;

    /// A page with each text where it says, written as a table's cells are.
    fn page_with(texts: &[(i64, i64, &str)]) -> Vec<u8> {
        let mut document = Document::with_version("1.5");
        let pages = document.new_object_id();
        let font = document.add_object(dictionary! {
            "Type" => "Font", "Subtype" => "Type1", "BaseFont" => "Helvetica",
            "Encoding" => "WinAnsiEncoding",
        });
        let written = texts.iter().flat_map(|(x, y, text)| {
            let string = Object::String(text.as_bytes().to_vec(), StringFormat::Literal);
            [
                Operation::new("BT", vec![]),
                Operation::new("Tf", vec!["F1".into(), 10.into()]),
                Operation::new("Td", vec![(*x).into(), (*y).into()]),
                Operation::new("Tj", vec![string]),
                Operation::new("ET", vec![]),
            ]
        });
        let content = Content { operations: written.collect::<Vec<_>>() };
        let content = Stream::new(dictionary! {}, content.encode().expect("a page"));
        let content = document.add_object(content);
        let page = document.add_object(dictionary! {
            "Type" => "Page", "Parent" => pages, "Contents" => content,
            "Resources" => dictionary! { "Font" => dictionary! { "F1" => font } },
        });
        document.objects.insert(
            pages,
            Object::Dictionary(dictionary! {
                "Type" => "Pages", "Kids" => vec![page.into()], "Count" => 1,
            }),
        );
        let catalog = document.add_object(dictionary! { "Type" => "Catalog", "Pages" => pages });
        document.trailer.set("Root", catalog);
        let mut bytes = Vec::new();
        document.save_to(&mut bytes).expect("a file");
        bytes
    }

    #[test]
    fn cells_of_one_height_are_one_line_from_the_left() {
        let bytes = page_with(&[
            (50, 700, "Moisture"),
            (200, 680, "0.61"),
            (200, 700, "14.1"),
            (260, 701, "%"),
            (50, 680, "Ash d.m."),
        ]);
        assert_eq!(text(&bytes).as_deref(), Ok("Moisture 14.1 %\nAsh d.m. 0.61\n"));
    }

    #[test]
    fn a_picture_a_torn_file_and_no_file_are_refused_in_words() {
        assert_eq!(text(&page_with(&[])), Err(PdfFault::NoText));
        assert_eq!(text(PDF), Err(PdfFault::Broken));
        assert!(PdfFault::NoText.to_string().contains("type its figures in"));
    }

    proptest::proptest! {
        #[test]
        fn no_bytes_make_it_panic(at in 0..1000_usize, byte: u8) {
            let mut bytes = page_with(&[(50, 700, "Moisture 14.1 %")]);
            let at = at % bytes.len();
            bytes[at] = byte;
            let _ = text(&bytes);
        }
    }
}
