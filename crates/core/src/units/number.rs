use serde::{Deserialize, Serialize};
use thiserror::Error;

/// The mark before the decimals, as a person or a file writes it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub enum DecimalMark {
    #[serde(rename = ".")]
    Point,
    #[serde(rename = ",")]
    Comma,
}

/// Why a text is not a number.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum NumberError {
    #[error("there is no value")]
    Empty,
    #[error(
        "“{0}” is not a number; write it like 1250, 1 250 or 12.5, with thousands in groups of three"
    )]
    NotANumber(String),
    #[error("“{0}” is a limit of the method, not a measured value")]
    BelowLimit(String),
    #[error("“{0}” is a range; one number is wanted here (a range is written with “to”, 24 to 26)")]
    Range(String),
    #[error("“{text}” can be {decimal} or {thousands}; write it as one of these")]
    Ambiguous { text: String, decimal: String, thousands: String },
}

/// Reads a number as people write it: `24.6`, `24,6`, `1 250`, `1’250.5`, `1.250,5`, with or
/// without a sign.
///
/// Spaces, thin and no-break spaces and apostrophes group thousands, three digits to a group. Of
/// two different marks the last is decimal and the others group; the same mark twice groups. One
/// mark with three digits after it (`1,250`) could be either: `mark` decides, and without it the
/// number is refused. A hyphen between numbers is a range, and `<62` a limit of the method; both
/// are said so.
///
/// ```
/// use ironpeel_core::units::{DecimalMark, parse_number};
/// assert_eq!(parse_number("24,6", None), Ok(24.6));
/// assert_eq!(parse_number(" 1.250,5 ", None), Ok(1250.5));
/// assert_eq!(parse_number("1,250", Some(DecimalMark::Comma)), Ok(1.25));
/// assert_eq!(parse_number("1,250", Some(DecimalMark::Point)), Ok(1250.0));
/// assert!(parse_number("1,250", None).is_err() && parse_number("24-26", None).is_err());
/// ```
pub fn parse_number(text: &str, mark: Option<DecimalMark>) -> Result<f64, NumberError> {
    let text = text.trim();
    let quoted = || super::quoted(text);
    let not_one = || NumberError::NotANumber(quoted());
    if text.is_empty() {
        return Err(NumberError::Empty);
    }
    if text.starts_with(['<', '>', '≤', '≥']) {
        return Err(NumberError::BelowLimit(quoted()));
    }
    if is_range(text) {
        return Err(NumberError::Range(quoted()));
    }
    let unsigned = text.strip_prefix(['-', '−', '+']).unwrap_or(text);
    let value = match spelt(unsigned).ok_or_else(not_one)? {
        Spelt::Plain(digits) => digits,
        Spelt::Either { mark: written, decimal, thousands } => match mark {
            Some(mark) if mark == written => decimal,
            Some(_) => thousands,
            None => return Err(NumberError::Ambiguous { text: quoted(), decimal, thousands }),
        },
    };
    let value = value.parse::<f64>().ok().filter(|value| value.is_finite()).ok_or_else(not_one)?;
    Ok(if text.starts_with(['-', '−']) { -value } else { value })
}

/// The decimal mark that the numbers among these texts are written with; none where they leave it
/// open, or disagree.
///
/// ```
/// use ironpeel_core::units::{DecimalMark, decimal_mark_of};
/// assert_eq!(decimal_mark_of(["13,2", "1,250", "n/a"]), Some(DecimalMark::Comma));
/// assert_eq!(decimal_mark_of(["1,250", "340"]), None);
/// ```
pub fn decimal_mark_of<'a>(texts: impl IntoIterator<Item = &'a str>) -> Option<DecimalMark> {
    let mut found = None;
    for text in texts {
        let number = text.trim().trim_start_matches(['<', '>', '≤', '≥', '-', '−', '+']).trim();
        let Some(Spelt::Plain(_)) = spelt(number) else { continue };
        let last = number.rfind(['.', ',']);
        let Some(at) = last.filter(|at| number.matches(&number[*at..=*at]).count() == 1) else {
            continue;
        };
        let mark =
            if number[at..].starts_with('.') { DecimalMark::Point } else { DecimalMark::Comma };
        if found.is_some_and(|other| other != mark) {
            return None;
        }
        found = Some(mark);
    }
    found
}

/// A number as text that reads back as itself, whatever mark the reader's file is written with.
///
/// ```
/// use ironpeel_core::units::{parse_number, spelt_out};
/// assert_eq!(spelt_out(1.125), "1.1250");
/// assert_eq!(parse_number(&spelt_out(1.125), None), Ok(1.125));
/// ```
pub fn spelt_out(value: f64) -> String {
    let text = value.to_string();
    match spelt(text.trim_start_matches('-')) {
        Some(Spelt::Either { .. }) => text + "0",
        _ => text,
    }
}

/// Whether a character groups thousands and does nothing else.
pub(crate) const fn groups(c: char) -> bool {
    matches!(c, ' ' | '\u{a0}' | '\u{2009}' | '\u{202f}' | '\'' | '’')
}

/// Whether a hyphen or “to” stands between two numbers.
pub(crate) fn is_range(text: &str) -> bool {
    let digit = |c: char| c.is_ascii_digit();
    let between = |at: usize, length: usize| {
        let before = text[..at].trim_end().ends_with(digit);
        let after = text[at + length..].trim_start().trim_start_matches(['.', ',']);
        before && after.starts_with(digit)
    };
    let dash = |c: char| matches!(c, '-' | '−' | '‐' | '‑' | '–' | '—');
    text.match_indices(dash).any(|(at, mark)| between(at, mark.len()))
        || text.match_indices("to").any(|(at, word)| between(at, word.len()))
}

/// A number without its sign, as digits a program reads.
enum Spelt {
    Plain(String),
    /// One mark and three digits after it.
    Either {
        mark: DecimalMark,
        decimal: String,
        thousands: String,
    },
}

fn spelt(text: &str) -> Option<Spelt> {
    let mut runs = vec![String::new()];
    let mut marks: Vec<char> = Vec::new();
    for c in text.chars() {
        match c {
            '0'..='9' => runs.last_mut()?.push(c),
            '.' | ',' => marks.push(c),
            // Whatever groups, groups alike.
            c if groups(c) => marks.push(' '),
            _ => return None,
        }
        if marks.len() == runs.len() {
            runs.push(String::new());
        }
    }
    // Nothing may stand empty but the whole before a decimal mark.
    if runs.iter().skip(1).any(String::is_empty) {
        return None;
    }
    let grouped = |runs: &[String]| -> Option<String> {
        let (first, rest) = runs.split_first()?;
        let thousands = (1..=3).contains(&first.len())
            && !first.starts_with('0')
            && rest.iter().all(|run| run.len() == 3);
        (rest.is_empty() || thousands).then(|| runs.concat())
    };
    let Some((last, earlier)) = marks.split_last() else {
        return (!runs[0].is_empty()).then(|| Spelt::Plain(runs.concat()));
    };
    let alike = earlier.windows(2).all(|pair| pair[0] == pair[1]);
    let decimal = |runs: &[String]| -> Option<String> {
        let (fraction, whole) = runs.split_last()?;
        let whole = if whole == [String::new()] { "0".into() } else { grouped(whole)? };
        Some(format!("{whole}.{fraction}"))
    };
    match (last, earlier) {
        (' ', _) => (alike && earlier.iter().all(|mark| *mark == ' '))
            .then(|| grouped(&runs).map(Spelt::Plain))?,
        (_, []) => match (grouped(&runs), decimal(&runs)?) {
            (Some(thousands), decimal) => {
                let mark = if *last == '.' { DecimalMark::Point } else { DecimalMark::Comma };
                Some(Spelt::Either { mark, decimal, thousands })
            }
            (None, decimal) => Some(Spelt::Plain(decimal)),
        },
        (_, [first, ..]) if first == last => alike.then(|| grouped(&runs).map(Spelt::Plain))?,
        _ => alike.then(|| decimal(&runs).map(Spelt::Plain))?,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    proptest::proptest! {
        #[test]
        fn a_decimal_comma_reads_as_a_point(value in -1e6..1e6f64) {
            let text = format!("{value:.2}");
            proptest::prop_assert_eq!(
                parse_number(&text.replace('.', ","), None),
                parse_number(&text, None)
            );
        }

        #[test]
        fn what_is_grouped_reads_as_if_it_were_not(value in 0u32..1_000_000_000, mark in "[ \u{a0}\u{2009}\u{202f}'’]") {
            let digits = value.to_string();
            let mut grouped = String::new();
            for (at, digit) in digits.chars().enumerate() {
                if at > 0 && (digits.len() - at).is_multiple_of(3) {
                    grouped.push_str(&mark);
                }
                grouped.push(digit);
            }
            proptest::prop_assert_eq!(parse_number(&grouped, None), Ok(f64::from(value)));
        }

        #[test]
        fn no_text_makes_it_panic(text in ".*", numeric in "[-−+<]?[0-9., '’-]{0,12}") {
            for text in [text, numeric] {
                let _ = decimal_mark_of([text.as_str()]);
                if let Ok(value) = parse_number(&text, None) {
                    proptest::prop_assert!(value.is_finite());
                }
            }
        }
    }
}
