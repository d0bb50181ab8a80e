//! What the columns of a mill's own table mean: proposed from its headers, corrected by a person.

mod words;

use serde::{Deserialize, Serialize};

use super::{BasisConversion, MoistureBasis, Property, Row};
use words::{BASES, LOT_FIELDS, PROPERTIES, UNITS};

/// What is known of a lot besides its readings.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LotField {
    Lot,
    Flour,
    Mill,
    Milled,
    Delivered,
    Tonnes,
}

/// What a column holds.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "means", rename_all = "snake_case")]
pub enum ColumnMeaning {
    Ignored,
    Head { field: LotField },
    Reading { property: Property, unit: String, basis: Option<MoistureBasis>, method: String },
}

/// Which part of `03/11/2026` is the day.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum DateOrder {
    DayFirst,
    MonthFirst,
}

/// What a table's columns mean, in their order, and how its dates are written.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Mapping {
    pub columns: Vec<ColumnMeaning>,
    pub dates: DateOrder,
}

/// One row of a table, by meaning; readings are still as written.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct MappedLot {
    pub lot: String,
    pub flour: String,
    pub mill: String,
    pub milled: String,
    pub delivered: String,
    pub tonnes: String,
    pub rows: Vec<Row>,
}

impl Mapping {
    /// A row of cells by meaning. Cells that say nothing (`n/a`, `-`, empty) give no reading.
    pub fn lot(&self, cells: &[String]) -> MappedLot {
        let mut lot = MappedLot::default();
        for (meaning, cell) in self.columns.iter().zip(cells) {
            let text = if is_blank(cell) { "" } else { cell.trim() };
            match meaning {
                ColumnMeaning::Ignored => {}
                ColumnMeaning::Head { field } => text.clone_into(match field {
                    LotField::Lot => &mut lot.lot,
                    LotField::Flour => &mut lot.flour,
                    LotField::Mill => &mut lot.mill,
                    LotField::Milled => &mut lot.milled,
                    LotField::Delivered => &mut lot.delivered,
                    LotField::Tonnes => &mut lot.tonnes,
                }),
                ColumnMeaning::Reading { .. } if text.is_empty() => {}
                ColumnMeaning::Reading { property, unit, basis, method } => lot.rows.push(Row {
                    property: property.label().into(),
                    value: text.into(),
                    unit: unit.clone(),
                    basis: basis.map(|basis| basis.label().into()).unwrap_or_default(),
                    method: method.clone(),
                }),
            }
        }
        lot
    }
}

/// Whether a cell is a laboratory's way of saying that nothing was measured.
pub fn is_blank(cell: &str) -> bool {
    matches!(
        folded(cell).as_str(),
        "" | "na"
            | "nd"
            | "ka"
            | "so"
            | "none"
            | "null"
            | "notmeasured"
            | "nichtbestimmt"
            | "nonmesure"
    ) && !cell.contains(|c: char| c.is_ascii_digit())
}

/// Proposes what a table's columns mean from its headers, and the order of its dates from its rows.
///
/// English, French, German, Italian and Spanish words are known, in any case and spacing; what
/// follows the word is its unit and basis. Our own headers, `protein [%; 14 %; ISO 16634-2]`, are
/// read exactly.
///
/// ```
/// use ironpeel_core::flour::{ColumnMeaning, MoistureBasis, Property, suggest_mapping};
/// let headers = ["Lot".into(), "Protein, % d.m.".into(), "Fallzahl (s)".into()];
/// let mapping = suggest_mapping(&headers, &[]);
/// let ColumnMeaning::Reading { property, basis, .. } = &mapping.columns[1] else { panic!() };
/// assert_eq!((*property, *basis), (Property::Protein, Some(MoistureBasis::DryMatter)));
/// ```
pub fn suggest_mapping(headers: &[String], rows: &[Vec<String>]) -> Mapping {
    let mut columns: Vec<ColumnMeaning> = Vec::with_capacity(headers.len());
    for header in headers {
        let meaning = meaning_of(header);
        // A second column of the same meaning is left for the person to decide, unless it is of
        // another basis or method.
        let taken = meaning != ColumnMeaning::Ignored && columns.contains(&meaning);
        columns.push(if taken { ColumnMeaning::Ignored } else { meaning });
    }
    let is_date = |column: &ColumnMeaning| {
        matches!(column, ColumnMeaning::Head { field: LotField::Milled | LotField::Delivered })
    };
    let dates = columns.iter().enumerate().filter(|(_, column)| is_date(column));
    let month_first = dates.flat_map(|(at, _)| rows.iter().filter_map(move |row| row.get(at))).any(
        |cell| matches!(number_parts(cell), Some([first, second, _]) if first <= 12 && second > 12),
    );
    let dates = if month_first { DateOrder::MonthFirst } else { DateOrder::DayFirst };
    Mapping { columns, dates }
}

/// Year, month and day of a date as written: `2026-11-05`, `5.11.2026`, `05/11/26`.
///
/// ```
/// use ironpeel_core::flour::{DateOrder, date_parts};
/// assert_eq!(date_parts("03/11/2026", DateOrder::DayFirst), Some((2026, 11, 3)));
/// assert_eq!(date_parts("2026-11-03", DateOrder::MonthFirst), Some((2026, 11, 3)));
/// assert_eq!(date_parts("soon", DateOrder::DayFirst), None);
/// ```
pub fn date_parts(text: &str, order: DateOrder) -> Option<(i32, u32, u32)> {
    let [a, b, c] = number_parts(text)?;
    let (year, month, day) = match order {
        _ if a > 31 => (a, b, c),
        DateOrder::DayFirst => (c, b, a),
        DateOrder::MonthFirst => (c, a, b),
    };
    let year = if year < 100 { 2000 + year } else { year };
    let sane = (2000..2100).contains(&year) && (1..=12).contains(&month) && (1..=31).contains(&day);
    sane.then_some((year.cast_signed(), month, day))
}

fn number_parts(text: &str) -> Option<[u32; 3]> {
    // A time after the date is nobody's concern here.
    let date = text.trim().split([' ', 'T']).next()?;
    let mut parts = date.split(['/', '.', '-']).map(|part| part.parse::<u32>().ok());
    let found = [parts.next()??, parts.next()??, parts.next()??];
    parts.next().is_none().then_some(found)
}

fn meaning_of(header: &str) -> ColumnMeaning {
    if let Some(own) = own_header(header) {
        return own;
    }
    let whole = folded(header);
    if let Some((field, _)) = LOT_FIELDS.iter().find(|(_, words)| words.contains(&whole.as_str())) {
        return ColumnMeaning::Head { field: *field };
    }
    let longest = PROPERTIES
        .iter()
        .flat_map(|(property, words)| words.iter().map(move |word| (*property, *word)))
        .filter_map(|(property, word)| {
            Some((property, word.len(), after(whole.strip_prefix(word)?)))
        })
        // A short word followed by something unknown is the start of some other word.
        .filter(|(_, length, rest)| *length > 3 || rest.is_some())
        .max_by_key(|(_, length, _)| *length);
    match longest {
        None => ColumnMeaning::Ignored,
        Some((property, _, rest)) => {
            let (basis, unit) = rest.unwrap_or_default();
            ColumnMeaning::Reading {
                property,
                unit: unit.unwrap_or(property.unit()).into(),
                basis: basis
                    .or(usual(property))
                    .filter(|_| property.basis_conversion() != BasisConversion::None),
                method: String::new(),
            }
        }
    }
}

/// The basis a figure is on where a header does not say.
const fn usual(property: Property) -> Option<MoistureBasis> {
    match property.basis_conversion() {
        BasisConversion::None => None,
        BasisConversion::BlendShare => Some(MoistureBasis::AsIs),
        BasisConversion::AddedWater => Some(MoistureBasis::Fourteen),
    }
}

/// Basis and unit in what follows a property's word; none if there is anything else in it.
fn after(mut rest: &str) -> Option<(Option<MoistureBasis>, Option<&'static str>)> {
    let (mut basis, mut unit) = (None, None);
    while !rest.is_empty() {
        let known_basis = BASES.iter().filter(|(word, _)| rest.starts_with(word));
        let known_unit = UNITS.iter().filter(|(word, _)| rest.starts_with(word));
        let one = known_basis.max_by_key(|(word, _)| word.len());
        let other = known_unit.max_by_key(|(word, _)| word.len());
        match (one, other) {
            (Some((word, means)), other)
                if other.is_none_or(|(unit, _)| word.len() >= unit.len()) =>
            {
                basis = basis.or(Some(*means));
                rest = &rest[word.len()..];
            }
            (_, Some((word, means))) => {
                unit = unit.or(Some(*means));
                rest = &rest[word.len()..];
            }
            _ => return None,
        }
    }
    Some((basis, unit))
}

/// The header our own export writes for a reading.
pub fn own_header_of(
    property: Property,
    unit: &str,
    basis: Option<MoistureBasis>,
    method: &str,
) -> String {
    let basis = basis.map_or("", MoistureBasis::label);
    format!("{} [{unit}; {basis}; {method}]", property.label())
}

fn own_header(header: &str) -> Option<ColumnMeaning> {
    let (name, rest) = header.split_once(" [")?;
    let property = Property::named(name)?;
    let mut parts = rest.strip_suffix(']')?.splitn(3, "; ");
    let unit = parts.next()?.to_owned();
    let basis = match parts.next()? {
        "" => None,
        word => Some(MoistureBasis::from_label(word)?),
    };
    Some(ColumnMeaning::Reading { property, unit, basis, method: parts.next()?.to_owned() })
}

/// Lower case without accents, letters and digits only.
fn folded(text: &str) -> String {
    let plain = |c: char| match c {
        'à' | 'á' | 'â' | 'ä' | 'ã' => 'a',
        'è' | 'é' | 'ê' | 'ë' => 'e',
        'ì' | 'í' | 'î' | 'ï' => 'i',
        'ò' | 'ó' | 'ô' | 'ö' => 'o',
        'ù' | 'ú' | 'û' | 'ü' | 'μ' | 'µ' => 'u',
        'ñ' => 'n',
        'ç' => 'c',
        '⁻' => '-',
        '⁴' => '4',
        '₂' => '2',
        other => other,
    };
    let lower = text.chars().flat_map(char::to_lowercase).map(plain);
    lower
        .filter(|c| c.is_alphanumeric())
        .flat_map(|c| if c == 'ß' { vec!['s', 's'] } else { vec![c] })
        .collect()
}
