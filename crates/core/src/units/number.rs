use thiserror::Error;

/// Why a text is not a number.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum NumberError {
    #[error("there is no value")]
    Empty,
    #[error("“{0}” is not a number")]
    NotANumber(String),
    #[error("“{0}” is a limit of the method, not a measured value")]
    BelowLimit(String),
    #[error("“{0}” can be read two ways; write it without a thousands mark")]
    Ambiguous(String),
}

/// Reads a number as people write it: `24.6`, `24,6`, `1 250`, `1.250,5`, with or without a sign.
///
/// A single comma or point is the decimal mark. Two different marks: the last one is decimal.
/// The same mark twice is a thousands mark. `<62` is not a number but a limit of the method, and
/// said so.
///
/// ```
/// use ironpeel_core::units::parse_number;
/// assert_eq!(parse_number("24,6"), Ok(24.6));
/// assert_eq!(parse_number(" 1.250,5 "), Ok(1250.5));
/// assert!(parse_number("thirteen").is_err());
/// ```
pub fn parse_number(text: &str) -> Result<f64, NumberError> {
    let trimmed = text.trim();
    if trimmed.is_empty() {
        return Err(NumberError::Empty);
    }
    let quoted = || trimmed.chars().take(40).collect::<String>();
    if trimmed.starts_with(['<', '>', '≤', '≥']) {
        return Err(NumberError::BelowLimit(quoted()));
    }
    let compact: String =
        trimmed.chars().filter(|c| !matches!(c, ' ' | '\u{a0}' | '\u{202f}' | '\'')).collect();
    let plain = compact.replace('−', "-");
    let allowed = |(at, c): (usize, char)| {
        c.is_ascii_digit() || matches!(c, '.' | ',') || (at == 0 && matches!(c, '-' | '+'))
    };
    if !plain.char_indices().all(allowed) {
        return Err(NumberError::NotANumber(quoted()));
    }
    let points = plain.matches('.').count();
    let commas = plain.matches(',').count();
    let text = match (points, commas) {
        (_, 0) if points <= 1 => plain,
        (0, 1) => plain.replace(',', "."),
        (_, 1) if plain.rfind(',') > plain.rfind('.') => plain.replace('.', "").replace(',', "."),
        (1, _) if plain.rfind('.') > plain.rfind(',') => plain.replace(',', ""),
        (0, _) | (_, 0) => plain.replace([',', '.'], ""),
        _ => return Err(NumberError::Ambiguous(quoted())),
    };
    match text.parse::<f64>() {
        Ok(value) if value.is_finite() => Ok(value),
        _ => Err(NumberError::NotANumber(quoted())),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn reads_what_people_write() {
        for (text, value) in [
            ("0", 0.0),
            ("13", 13.0),
            ("13,2", 13.2),
            ("13.2", 13.2),
            ("-3,5", -3.5),
            ("−3.5", -3.5),
            ("1 250", 1250.0),
            ("1'250.5", 1250.5),
            ("1,250.5", 1250.5),
            ("1.250.000", 1_250_000.0),
        ] {
            assert_eq!(parse_number(text), Ok(value), "{text}");
        }
    }

    #[test]
    fn says_why_a_text_is_not_a_number() {
        assert_eq!(parse_number("  "), Err(NumberError::Empty));
        assert_eq!(parse_number("n/a"), Err(NumberError::NotANumber("n/a".into())));
        assert_eq!(parse_number("<62"), Err(NumberError::BelowLimit("<62".into())));
        assert_eq!(parse_number("1.2,3.4,5"), Err(NumberError::Ambiguous("1.2,3.4,5".into())));
        for text in ["-", ".", "1e5", "NaN", "inf", "1-2", "٣"] {
            assert!(parse_number(text).is_err(), "{text}");
        }
    }

    proptest::proptest! {
        #[test]
        fn a_decimal_comma_reads_as_a_point(value in -1e6..1e6f64) {
            let text = format!("{value:.3}");
            proptest::prop_assert_eq!(parse_number(&text.replace('.', ",")), parse_number(&text));
        }

        #[test]
        fn no_text_makes_it_panic(text in ".*") {
            if let Ok(value) = parse_number(&text) {
                proptest::prop_assert!(value.is_finite());
            }
        }
    }
}
