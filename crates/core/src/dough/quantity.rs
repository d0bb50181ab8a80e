use thiserror::Error;

use super::{Ingredient, IngredientProperties};
use crate::units::{DecimalMark, Estimate, NumberError, groups, is_range, parse_number, quoted};

const G: f64 = 0.001;
const OZ: f64 = 0.028_349_523_125;
const ML: f64 = 0.001;
/// Longest text read.
const MOST_LETTERS: usize = 60;

/// Names of units of mass, with kilos in one.
const MASSES: [(&[&str], f64); 5] = [
    (&["g", "gram", "grams", "gr"], G),
    (&["kg", "kilo", "kilos", "kilogram", "kilograms"], 1.0),
    (&["mg"], 1e-6),
    (&["oz", "ounce", "ounces"], OZ),
    (&["lb", "lbs", "pound", "pounds"], 16.0 * OZ),
];
/// Names of units of volume, with litres in one; cups and spoons are the US ones.
const VOLUMES: [(&[&str], f64); 8] = [
    (&["ml", "millilitre", "millilitres"], ML),
    (&["cl"], 10.0 * ML),
    (&["dl"], 100.0 * ML),
    (&["l", "litre", "litres", "liter", "liters"], 1.0),
    (&["tsp", "tsps", "teaspoon", "teaspoons"], 4.928_92 * ML),
    (&["tbsp", "tbsps", "tablespoon", "tablespoons"], 14.786_8 * ML),
    (&["cup", "cups"], 236.588 * ML),
    (&["floz"], 29.573_5 * ML),
];
const FRACTIONS: [(char, f64); 15] = [
    ('½', 1.0 / 2.0),
    ('⅓', 1.0 / 3.0),
    ('⅔', 2.0 / 3.0),
    ('¼', 1.0 / 4.0),
    ('¾', 3.0 / 4.0),
    ('⅕', 1.0 / 5.0),
    ('⅖', 2.0 / 5.0),
    ('⅗', 3.0 / 5.0),
    ('⅘', 4.0 / 5.0),
    ('⅙', 1.0 / 6.0),
    ('⅚', 5.0 / 6.0),
    ('⅛', 1.0 / 8.0),
    ('⅜', 3.0 / 8.0),
    ('⅝', 5.0 / 8.0),
    ('⅞', 7.0 / 8.0),
];

/// What is taken up by fingers and drops, in ml with what it may be.
const SMALL: [(&[&str], Estimate); 3] = [
    (&["pinch", "pinches"], Estimate::new(0.31, 0.15, 0.6)),
    (&["dash", "dashes"], Estimate::new(0.62, 0.3, 1.2)),
    (&["drop", "drops"], Estimate::new(0.05, 0.03, 0.07)),
];
/// What is bought by the piece, in g with what it may be.
const PIECES: [(&[&str], &[Ingredient], Estimate); 4] = [
    (
        &["packet", "packets", "sachet", "sachets", "envelope", "envelopes"],
        &[Ingredient::InstantYeast, Ingredient::ActiveDryYeast],
        Estimate::new(7.0, 7.0, 8.0),
    ),
    (&["cube", "cubes"], &[Ingredient::FreshYeast], Estimate::new(42.0, 40.0, 42.0)),
    (
        &["stick", "sticks"],
        &[Ingredient::Butter, Ingredient::Fat],
        Estimate::new(113.4, 110.0, 115.0),
    ),
    (&["egg", "eggs", "piece", "pieces"], &[Ingredient::Egg], Estimate::new(50.0, 43.0, 60.0)),
];
/// Words that say nothing of how much.
const FILLERS: [&str; 6] = ["and", "of", "about", "large", "medium", "small"];
/// Words that are one.
const ONE: [&str; 3] = ["a", "an", "one"];

/// Why a text is no quantity.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum QuantityError {
    #[error("{0}")]
    Number(#[from] NumberError),
    #[error("there is no quantity; write it like 500 g, 2 1/3 cup or 3 lb 4 oz")]
    Empty,
    #[error("“{0}” is no quantity; write it like 500 g, 2 1/3 cup or 3 lb 4 oz")]
    NotOne(String),
    #[error("“{0}” is a range; write it with “to”, like 450 to 500 g, the smaller first")]
    Range(String),
    #[error("“{0}” has no unit; is it g, kg, oz, lb, cup, tbsp or tsp?")]
    NoUnit(String),
    #[error("“{0}” is no unit known here; use g, kg, oz, lb, ml, l, cup, tbsp or tsp")]
    UnknownUnit(String),
    #[error("a {unit} says nothing of the mass of {of}: weigh it, or use a unit it comes in")]
    NotByPiece { unit: String, of: String },
    #[error("a volume of {0} says nothing certain of its mass: weigh it, or give its density")]
    NoDensity(String),
}

/// Reads a quantity of an ingredient as people write it, as kilos with what they may be.
///
/// Numbers are read by [`parse_number`], a fraction after them counted in; what is written `450 to
/// 500 g` lies between. A mass is what it says. A volume becomes a mass by how a cup or spoon takes the ingredient up,
/// with the range that has: a cup of flour is 85 to 170 g, usually 125 (H). So do a pinch, a dash and a
/// drop; a packet of yeast, a stick of butter and an egg are what they are sold as.
///
/// ```
/// use ironpeel_core::dough::{Ingredient, Library, read_quantity};
/// let library = Library::default();
/// let flour = read_quantity("2 1/3 cup", library.properties(Ingredient::Flour), None)?;
/// assert!((flour.typical - 0.2917).abs() < 0.0005 && flour.high > 0.39);
/// let bread = read_quantity("3 lb 4 oz", library.properties(Ingredient::Flour), None)?;
/// assert!((bread.typical - 1.474).abs() < 0.001 && bread.low == bread.high);
/// # Ok::<(), ironpeel_core::dough::QuantityError>(())
/// ```
pub fn read_quantity(
    text: &str,
    of: &IngredientProperties,
    mark: Option<DecimalMark>,
) -> Result<Estimate, QuantityError> {
    let quoted = || quoted(text);
    if text.chars().count() > MOST_LETTERS {
        return Err(QuantityError::NotOne(quoted()));
    }
    if text.trim().is_empty() {
        return Err(QuantityError::Empty);
    }
    let lower = text.to_lowercase().replace("fl oz", "floz").replace("fl. oz", "floz");
    let Some((from, to)) = lower.split_once(" to ") else {
        if is_range(&lower) {
            return Err(QuantityError::Range(quoted()));
        }
        return sum(&words(&lower, mark)?, of, &quoted);
    };
    let (mut from, to) = (words(from, mark)?, words(to, mark)?);
    // The unit may stand once, at the end: 450 to 500 g.
    if let (Some(Word::Number(_)), Some(unit @ Word::Unit(_))) = (from.last(), to.last()) {
        from.push(unit.clone());
    }
    let (low, high) = (sum(&from, of, &quoted)?, sum(&to, of, &quoted)?);
    if low.typical > high.typical {
        return Err(QuantityError::Range(quoted()));
    }
    Ok(Estimate::new(f64::midpoint(low.typical, high.typical), low.low, high.high))
}

/// Amounts with their units, added up.
fn sum(
    words: &[Word],
    of: &IngredientProperties,
    quoted: &dyn Fn() -> String,
) -> Result<Estimate, QuantityError> {
    let mut sum = Estimate::new(0.0, 0.0, 0.0);
    let mut number: Option<f64> = None;
    for word in words {
        match word {
            Word::Number(value) => {
                // Only a fraction follows a whole number: 2 1/3.
                if number.is_some_and(|whole| whole.fract() != 0.0 || *value >= 1.0) {
                    return Err(QuantityError::NotOne(quoted()));
                }
                number = Some(number.unwrap_or(0.0) + value);
            }
            Word::Unit(unit) => {
                let amount = number.take().ok_or_else(|| QuantityError::NotOne(quoted()))?;
                let one = kilos_in(unit, of)?.times(amount);
                sum.typical += one.typical;
                sum.low += one.low;
                sum.high += one.high;
            }
        }
    }
    match number {
        Some(_) => Err(QuantityError::NoUnit(quoted())),
        None if words.is_empty() => Err(QuantityError::Empty),
        None => Ok(sum),
    }
}

/// Kilos of an ingredient in one of a unit.
fn kilos_in(unit: &str, of: &IngredientProperties) -> Result<Estimate, QuantityError> {
    let named = |units: &[(&[&str], f64)]| {
        units.iter().find(|(names, _)| names.contains(&unit)).map(|(_, size)| *size)
    };
    if let Some(kg) = named(&MASSES) {
        return Ok(Estimate::new(kg, kg, kg));
    }
    let is = |names: &&[&str]| names.contains(&unit);
    let by_piece = PIECES.iter().filter(|(names, _, _)| is(names));
    let mut pieces = by_piece.peekable();
    if pieces.peek().is_some() {
        let grams = pieces.find(|(_, all, _)| all.contains(&of.ingredient)).map(|one| one.2);
        let not = || QuantityError::NotByPiece { unit: unit.into(), of: of.label.to_string() };
        return grams.map(|grams| grams.times(G)).ok_or_else(not);
    }
    let no_density = || QuantityError::NoDensity(of.label.to_string());
    if let Some((_, ml)) = SMALL.iter().find(|(names, _)| is(names)) {
        let kg_per_l = of.kg_per_l.ok_or_else(no_density)?;
        return Ok(Estimate::new(
            kg_per_l.typical * ml.typical * ML,
            kg_per_l.low * ml.low * ML,
            kg_per_l.high * ml.high * ML,
        ));
    }
    let litres = named(&VOLUMES).ok_or_else(|| QuantityError::UnknownUnit(unit.into()))?;
    Ok(of.kg_per_l.ok_or_else(no_density)?.times(litres))
}

#[derive(Debug, Clone)]
enum Word {
    Number(f64),
    Unit(String),
}

/// Splits `2 1/3 cup` into numbers and units.
fn words(text: &str, mark: Option<DecimalMark>) -> Result<Vec<Word>, QuantityError> {
    let mut words = Vec::new();
    let mut rest = text.trim();
    while let Some(first) = rest.chars().next() {
        if let Some((_, value)) = FRACTIONS.iter().find(|(sign, _)| *sign == first) {
            words.push(Word::Number(*value));
            rest = &rest[first.len_utf8()..];
        } else if first.is_ascii_digit() || matches!(first, '.' | ',') {
            let end = number_end(rest);
            let over = parse_number(&rest[..end], mark)?;
            rest = &rest[end..];
            if let Some(under) = rest.strip_prefix('/') {
                let end = number_end(under);
                let under_value = parse_number(&under[..end], mark)?;
                if under_value <= 0.0 {
                    return Err(QuantityError::NotOne(quoted(text)));
                }
                words.push(Word::Number(over / under_value));
                rest = &under[end..];
            } else {
                words.push(Word::Number(over));
            }
        } else if first.is_alphabetic() {
            let end = rest.find(|c: char| !c.is_alphabetic() && c != '.').unwrap_or(rest.len());
            let unit = rest[..end].trim_end_matches('.');
            if ONE.contains(&unit) {
                words.push(Word::Number(1.0));
            } else if !FILLERS.contains(&unit) {
                words.push(Word::Unit(unit.to_owned()));
            }
            rest = &rest[end..];
        } else if first.is_whitespace() || first == '+' {
            rest = &rest[first.len_utf8()..];
        } else {
            return Err(QuantityError::NotOne(quoted(text)));
        }
    }
    Ok(words)
}

/// Where a number ends: a space belongs to it only before a group of three digits.
fn number_end(text: &str) -> usize {
    let mut end = 0;
    loop {
        let rest = &text[end..];
        let run = rest.find(|c: char| !c.is_ascii_digit() && !matches!(c, '.' | ','));
        end += run.unwrap_or(rest.len());
        let Some(gap) = text[end..].chars().next().filter(|c| groups(*c)) else { return end };
        let after = &text[end + gap.len_utf8()..];
        let digits = after.find(|c: char| !c.is_ascii_digit()).unwrap_or(after.len());
        if digits != 3 || after[digits..].starts_with('/') {
            return end;
        }
        end += gap.len_utf8();
    }
}
