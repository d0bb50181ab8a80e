use super::property::folded;
use super::{BasisConversion, Property, Row};

/// A row of a certificate as a line of running text has it, beside that line.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RowInText {
    pub row: Row,
    pub excerpt: String,
}

/// Words of a property's name, at most.
const MOST_WORDS: usize = 5;
/// How standards' names begin.
const STANDARDS: [&str; 7] = ["ISO", "EN", "DIN", "AACC", "AACCI", "ICC", "NF"];

/// The rows of a certificate that is text without columns: each line that begins with a property's
/// name and states a number. Unit, basis and method are taken where the line says them; what it does
/// not say stays empty, for a reader to put in.
///
/// ```
/// use ironpeel_core::flour::rows_in_text;
/// let found = rows_in_text("Certificate of analysis\nProtein (N x 5.7)  13,0 % 14 % m.b. ISO 16634-2\n");
/// let row = &found[0].row;
/// assert_eq!((&*row.property, &*row.value, &*row.unit), ("protein", "13,0", "%"));
/// assert_eq!((&*row.basis, &*row.method), ("14 %", "ISO 16634-2"));
/// ```
pub fn rows_in_text(text: &str) -> Vec<RowInText> {
    text.lines().filter_map(row_in_line).collect()
}

fn row_in_line(line: &str) -> Option<RowInText> {
    let words: Vec<&str> = line.split_whitespace().collect();
    let (property, named) = (1..=MOST_WORDS.min(words.len())).rev().find_map(|many| {
        let name = words[..many].join(" ");
        Property::named(name.trim_end_matches([':', ',', ';'])).map(|property| (property, many))
    })?;
    let is_value = |word: &str| {
        word.trim_start_matches(['<', '>', '≤', '≥', '='])
            .starts_with(|one: char| one.is_ascii_digit())
    };
    // What stands in brackets before the value says more of the name: N x 5.7.
    let mut depth = 0_usize;
    let value_at = (named..words.len()).find(|at| {
        let word = words[*at];
        let outside = depth == 0 && !word.starts_with(['(', '[']);
        let (opened, closed) = (word.matches(['(', '[']).count(), word.matches([')', ']']).count());
        depth = (depth + opened).saturating_sub(closed);
        outside && is_value(word)
    })?;
    let value = words[value_at];
    let split = value.find('%').unwrap_or(value.len());
    let (value, glued) = value.split_at(split);
    let rest = &words[value_at + 1..];
    let (unit, after) = if glued.is_empty() { unit(property, rest) } else { ("%".into(), rest) };
    let before = || {
        let told =
            words[named..value_at].iter().map(|word| word.trim_matches(['(', ')', '[', ']', ',']));
        told.filter(|word| !word.is_empty()).find(|word| property.factor_from(word).is_some())
    };
    let unit = if unit.is_empty() { before().unwrap_or_default().into() } else { unit };
    Some(RowInText {
        row: Row {
            property: property.label().into(),
            value: value.trim_start_matches('=').trim_end_matches([',', ';']).into(),
            unit,
            basis: basis(property, &words[named..value_at], after).into(),
            method: method(after),
        },
        excerpt: words.join(" "),
    })
}

/// The unit that the first words are, one or two of them, and what follows it.
fn unit<'a>(property: Property, words: &'a [&'a str]) -> (String, &'a [&'a str]) {
    for many in (1..=2.min(words.len())).rev() {
        let unit = words[..many].join(" ");
        let bare = unit.trim_matches(['(', ')', '[', ']', ',', ';']);
        if !bare.is_empty() && property.factor_from(bare).is_some() {
            return (bare.into(), &words[many..]);
        }
    }
    (String::new(), words)
}

/// The basis a line says, in the words of a certificate.
fn basis(property: Property, before: &[&str], after: &[&str]) -> &'static str {
    if property.basis_conversion() == BasisConversion::None {
        return "";
    }
    let said = |words: &[&str]| {
        let places = 0..words.len();
        places.into_iter().find_map(|at| {
            let two = words[at..(at + 2).min(words.len())].concat();
            match (folded(words[at]).as_str(), folded(&two).as_str()) {
                ("dm" | "db" | "drymatter" | "dry", _) | (_, "drymatter" | "drybasis" | "dm") => {
                    Some("dry matter")
                }
                ("asis" | "asreceived", _) | (_, "asis" | "asreceived") => Some("as is"),
                ("14" | "14mb", _) => Some("14 %"),
                _ => None,
            }
        })
    };
    said(after).or_else(|| said(before)).unwrap_or_default()
}

/// The standard a line names, to its end.
fn method(words: &[&str]) -> String {
    let starts = |word: &&str| STANDARDS.contains(&word.trim_start_matches(['(', '[']));
    let at = words.iter().position(starts);
    at.map_or_else(String::new, |at| {
        words[at..].join(" ").trim_matches(['(', ')', '[', ']', ',', ';']).into()
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn one(line: &str) -> [String; 5] {
        let Row { property, value, unit, basis, method } =
            rows_in_text(line).pop().expect("a row").row;
        [property, value, unit, basis, method]
    }

    #[test]
    fn lines_as_mills_write_them_are_read() {
        assert_eq!(one("Moisture: 14.1% ISO 712"), ["moisture", "14.1", "%", "", "ISO 712"]);
        assert_eq!(one("Ash (d.m.) [%] 0,61"), ["ash", "0,61", "%", "dry matter", ""]);
        assert_eq!(
            one("Falling number  342 s ICC 107/1"),
            ["falling number", "342", "s", "", "ICC 107/1"]
        );
        assert_eq!(one("Damaged starch 8.4 % as is"), ["damaged starch", "8.4", "%", "as is", ""]);
        assert_eq!(one("Water absorption <63.3 % 14 % mb")[1], "<63.3");
    }

    #[test]
    fn what_is_no_reading_is_none() {
        for line in ["", "Dear miller,", "Protein", "Lot VR-26-1107", "14.1 % moisture", "ash d.m."]
        {
            assert_eq!(rows_in_text(line), [], "{line}");
        }
    }

    proptest::proptest! {
        #[test]
        fn no_text_makes_it_panic(text in "(protein|ash|W|moisture|[ -~]|µ|\n){0,60}") {
            for found in rows_in_text(&text) {
                proptest::prop_assert!(Property::named(&found.row.property).is_some());
            }
        }
    }
}
