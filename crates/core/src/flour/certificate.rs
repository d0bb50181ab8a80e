use serde::{Deserialize, Serialize};

use super::property::folded;
use super::{BasisConversion, Censored, MoistureBasis, Property, Reading};
use crate::units::{DecimalMark, decimal_mark_of, parse_number, quoted};

/// One line of a certificate of analysis, as it was written or typed.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default)]
pub struct Row {
    pub property: String,
    pub value: String,
    pub unit: String,
    pub basis: String,
    pub method: String,
}

/// The column of a [`Row`] a fault is in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CertificateColumn {
    Property,
    Value,
    Unit,
    Basis,
    Method,
}

/// What is wrong with a row and what would be right.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RowFault {
    pub column: CertificateColumn,
    pub message: String,
}

/// Longest method name kept.
const METHOD_MAX: usize = 80;

/// Reads the rows of a certificate. Each row is a reading or says what is wrong with it; a bad row
/// never spoils another. What a mark is that could be either, the other rows decide, or else `mark`.
///
/// ```
/// use ironpeel_core::flour::{Row, read_rows};
/// let row = |property: &str, value: &str, unit: &str, basis: &str| Row {
///     property: property.into(), value: value.into(), unit: unit.into(), basis: basis.into(),
///     ..Row::default()
/// };
/// let read = read_rows(&[row("protein", "13,0", "%", "14 %"), row("ash", "0.61", "%", "")], None);
/// assert_eq!(read[0].as_ref().unwrap().value, 13.0);
/// assert!(read[1].as_ref().unwrap_err().message.contains("dry matter"));
/// ```
pub fn read_rows(rows: &[Row], mark: Option<DecimalMark>) -> Vec<Result<Reading, RowFault>> {
    let mark = decimal_mark_of(rows.iter().map(|row| row.value.as_str())).or(mark);
    let mut first_at: [Option<usize>; Property::ALL.len()] = [None; Property::ALL.len()];
    rows.iter()
        .enumerate()
        .map(|(at, row)| {
            let reading = read_row(row, mark)?;
            match &mut first_at[reading.property as usize] {
                Some(earlier) => Err(fault(
                    CertificateColumn::Property,
                    format!(
                        "{} stands twice, here and in row {}; keep the one that holds",
                        reading.property.label(),
                        *earlier + 1
                    ),
                )),
                none => {
                    *none = Some(at);
                    Ok(reading)
                }
            }
        })
        .collect()
}

fn read_row(row: &Row, mark: Option<DecimalMark>) -> Result<Reading, RowFault> {
    let property = read_property(&row.property)?;
    let (value, censored) = read_value(property, row, mark)?;
    let basis = read_basis(property, &row.basis)?;
    let method = row.method.trim();
    if method.chars().count() > METHOD_MAX {
        return Err(fault(
            CertificateColumn::Method,
            format!("the method is too long; up to {METHOD_MAX} letters, such as ISO 712"),
        ));
    }
    let method = (!method.is_empty()).then(|| method.to_owned());
    Ok(Reading { property, value, basis, method, censored })
}

fn read_property(text: &str) -> Result<Property, RowFault> {
    Property::named(text).ok_or_else(|| {
        let known: Vec<_> = Property::ALL.iter().map(|property| property.label()).collect();
        let given = quoted(text);
        let start = if given.is_empty() {
            "the property is missing".to_owned()
        } else {
            format!("“{given}” is not a property we know")
        };
        fault(CertificateColumn::Property, format!("{start}; one of {}", known.join(", ")))
    })
}

fn read_value(
    property: Property,
    row: &Row,
    mark: Option<DecimalMark>,
) -> Result<(f64, Option<Censored>), RowFault> {
    let label = property.label();
    let text = row.value.trim();
    let (censored, text) = if let Some(rest) = text.strip_prefix(['<', '≤']) {
        (Some(Censored::Below), rest)
    } else if let Some(rest) = text.strip_prefix(['>', '≥']) {
        (Some(Censored::Above), rest)
    } else {
        (None, text)
    };
    let number = parse_number(text, mark).map_err(|error| {
        fault(
            CertificateColumn::Value,
            format!("{error}; {label} is a number {}", range_of(property)),
        )
    })?;
    let factor = property.factor_from(&row.unit).ok_or_else(|| {
        let unit = row.unit.trim();
        let message = match (unit.is_empty(), property.unit()) {
            (true, wanted) => format!("the unit is missing; {label} is in {wanted}"),
            (false, "") => format!("{label} has no unit; leave it empty"),
            (false, wanted) => format!("{label} cannot be in “{unit}”; write it in {wanted}"),
        };
        fault(CertificateColumn::Unit, message)
    })?;
    let value = number * factor;
    let (min, max) = property.range();
    if (min..=max).contains(&value) {
        Ok((value, censored))
    } else {
        let message =
            format!("{label} of {} cannot be; it is {}", row.value.trim(), range_of(property));
        Err(fault(CertificateColumn::Value, message))
    }
}

fn read_basis(property: Property, text: &str) -> Result<Option<MoistureBasis>, RowFault> {
    let basis = match folded(text).as_str() {
        "" => None,
        "asis" | "asreceived" => Some(MoistureBasis::AsIs),
        "14" | "14mb" | "14moisture" | "14moisturebasis" => Some(MoistureBasis::Fourteen),
        "drymatter" | "dm" | "drybasis" | "db" | "dry" => Some(MoistureBasis::DryMatter),
        _ => {
            return Err(fault(
                CertificateColumn::Basis,
                format!("“{}” is not a basis; as is, 14 % or dry matter", text.trim()),
            ));
        }
    };
    match (property, property.basis_conversion(), basis) {
        (Property::Moisture, _, None | Some(MoistureBasis::AsIs)) => Ok(None),
        (Property::Moisture, ..) => {
            Err(fault(CertificateColumn::Basis, "moisture is always as is".into()))
        }
        (_, BasisConversion::None, _) => Ok(None),
        (_, _, None) => Err(fault(
            CertificateColumn::Basis,
            format!("{} needs its basis: as is, 14 % or dry matter", property.label()),
        )),
        (_, BasisConversion::AddedWater, Some(MoistureBasis::DryMatter)) => Err(fault(
            CertificateColumn::Basis,
            "absorption is stated on 14 % or as is, never on dry matter".into(),
        )),
        (_, _, basis) => Ok(basis),
    }
}

fn range_of(property: Property) -> String {
    let (min, max) = property.range();
    format!("from {min} to {max} {}", property.unit()).trim_end().to_owned()
}

const fn fault(column: CertificateColumn, message: String) -> RowFault {
    RowFault { column, message }
}
