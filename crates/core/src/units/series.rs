use serde::de::{Deserialize, Deserializer, SeqAccess, Visitor};

use super::{NumberRange, RawNumber, ValidationErrors};

/// A list of numbers as a caller gave it: perhaps missing, no list, or with something else among
/// its numbers. Reading never fails; [`NumberRange::check_all`] decides.
#[derive(Debug, Clone, PartialEq, Default)]
pub enum Series {
    #[default]
    Missing,
    NotAList(RawNumber),
    Numbers(Vec<f64>),
    /// The first thing in it that is not a number.
    Broken {
        at: usize,
        given: RawNumber,
    },
}

impl From<Vec<f64>> for Series {
    fn from(numbers: Vec<f64>) -> Self {
        Self::Numbers(numbers)
    }
}

impl<'de> Deserialize<'de> for Series {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        struct List;
        impl<'de> Visitor<'de> for List {
            type Value = Series;

            fn expecting(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                f.write_str("a list of numbers")
            }

            fn visit_seq<A: SeqAccess<'de>>(self, mut seq: A) -> Result<Series, A::Error> {
                let mut numbers = Vec::with_capacity(seq.size_hint().unwrap_or(1024).min(1 << 18));
                let mut broken = None;
                while let Some(given) = seq.next_element::<RawNumber>()? {
                    match given {
                        RawNumber::Number(number) => numbers.push(number),
                        other => broken = broken.or(Some((numbers.len(), other))),
                    }
                }
                Ok(broken
                    .map_or(Series::Numbers(numbers), |(at, given)| Series::Broken { at, given }))
            }

            fn visit_unit<E>(self) -> Result<Series, E> {
                Ok(Series::Missing)
            }

            fn visit_f64<E>(self, value: f64) -> Result<Series, E> {
                Ok(Series::NotAList(RawNumber::Number(value)))
            }

            fn visit_i64<E>(self, value: i64) -> Result<Series, E> {
                Ok(Series::NotAList(RawNumber::Number(value as f64)))
            }

            fn visit_u64<E>(self, value: u64) -> Result<Series, E> {
                Ok(Series::NotAList(RawNumber::Number(value as f64)))
            }

            fn visit_bool<E>(self, value: bool) -> Result<Series, E> {
                Ok(Series::NotAList(RawNumber::Other(value.to_string())))
            }

            fn visit_str<E>(self, value: &str) -> Result<Series, E> {
                let short = super::quoted(value);
                Ok(Series::NotAList(RawNumber::Other(format!("“{short}”"))))
            }

            fn visit_map<A: serde::de::MapAccess<'de>>(
                self,
                mut map: A,
            ) -> Result<Series, A::Error> {
                use serde::de::IgnoredAny;
                while map.next_entry::<IgnoredAny, IgnoredAny>()?.is_some() {}
                Ok(Series::NotAList(RawNumber::Other("an object".into())))
            }
        }
        deserializer.deserialize_any(List)
    }
}

impl NumberRange {
    /// The numbers of a series, each within this bound and between `least` and `most` of them;
    /// empty beside a fault.
    ///
    /// ```
    /// use ironpeel_core::units::{NumberRange, ValidationErrors, Series};
    /// const HEIGHT: NumberRange = NumberRange::new("fu", "consistency", "FU", 0.0, 2000.0);
    /// let mut faults = ValidationErrors::default();
    /// HEIGHT.check_all(&Series::from(vec![480.0]), 60..=200_000, "", &mut faults);
    /// assert_eq!(faults.0[0].message, "consistency needs from 60 to 200000 values; 1 was given");
    /// ```
    pub fn check_all<'a>(
        &self,
        series: &'a Series,
        count: std::ops::RangeInclusive<usize>,
        at: &str,
        faults: &mut ValidationErrors,
    ) -> &'a [f64] {
        let field = format!("{at}{}", self.field);
        let (words, range) = (self.words, self.range());
        let wanted = || format!("a list of numbers {range}");
        match series {
            Series::Missing => faults.push(field, format!("{words} is missing; {}", wanted())),
            Series::NotAList(given) => {
                faults.push(field, format!("{words} must be {}; {given} was given", wanted()));
            }
            Series::Broken { at, given } => faults.push(
                format!("{field}[{at}]"),
                format!("{words} must be {}; value {} is {given}", wanted(), at + 1),
            ),
            Series::Numbers(numbers) => {
                let within =
                    |value: &f64| value.is_finite() && (self.min..=self.max).contains(value);
                if !count.contains(&numbers.len()) {
                    let (least, most) = (count.start(), count.end());
                    let was = if numbers.len() == 1 { "was" } else { "were" };
                    faults.push(
                        field,
                        format!(
                            "{words} needs from {least} to {most} values; {} {was} given",
                            numbers.len()
                        ),
                    );
                } else if let Some(bad) = numbers.iter().position(|value| !within(value)) {
                    faults.push(
                        format!("{field}[{bad}]"),
                        format!("{words} must be {range}; value {} is {}", bad + 1, numbers[bad]),
                    );
                } else {
                    return numbers;
                }
            }
        }
        &[]
    }
}

/// Notes a series that does not rise from each value to the next.
pub fn check_rising(
    values: &[f64],
    field: &str,
    words: &str,
    unit: &str,
    faults: &mut ValidationErrors,
) {
    if let Some(at) = values.windows(2).position(|pair| pair[1] <= pair[0]) {
        faults.push(
            format!("{field}[{}]", at + 1),
            format!(
                "{words} must rise from each value to the next; {} {unit} comes after {} {unit}",
                values[at + 1],
                values[at]
            ),
        );
    }
}

/// Notes two series that should be equally long and are not; empty ones have faults of their own.
pub fn check_equal(one: (&str, &[f64]), other: (&str, &[f64]), faults: &mut ValidationErrors) {
    let ((field, values), (other_field, others)) = (one, other);
    if !values.is_empty() && !others.is_empty() && values.len() != others.len() {
        faults.push(
            field,
            format!(
                "must have a value for each of {other_field}; {} for {} were given",
                values.len(),
                others.len()
            ),
        );
    }
}

#[cfg(feature = "openapi")]
mod openapi {
    use utoipa::openapi::{RefOr, Schema, schema};

    impl utoipa::PartialSchema for super::Series {
        fn schema() -> RefOr<Schema> {
            let number = schema::Object::with_type(schema::Type::Number);
            schema::Array::new(number).into()
        }
    }

    impl utoipa::ToSchema for super::Series {}
}
