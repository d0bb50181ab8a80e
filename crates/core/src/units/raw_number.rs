use std::fmt;

use serde::de::{Deserialize, Deserializer, IgnoredAny, MapAccess, SeqAccess, Visitor};
use serde::{Serialize, Serializer};

/// A number as a caller gave it: perhaps missing, perhaps not a number at all.
///
/// Reading never fails; [`super::NumberRange::check`] decides, so that a wrong type, a missing value
/// and a value out of range are all answered with the same words: the field, its unit, its range
/// and what was given.
#[derive(Debug, Clone, PartialEq, Default)]
pub enum RawNumber {
    #[default]
    Missing,
    Number(f64),
    Other(String),
}

impl RawNumber {
    /// Whether nothing, or null, was given.
    pub const fn is_missing(&self) -> bool {
        matches!(self, Self::Missing)
    }
}

impl From<f64> for RawNumber {
    fn from(value: f64) -> Self {
        Self::Number(value)
    }
}

impl From<Option<f64>> for RawNumber {
    fn from(value: Option<f64>) -> Self {
        value.map_or(Self::Missing, Self::Number)
    }
}

impl fmt::Display for RawNumber {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Missing => f.write_str("nothing"),
            Self::Number(value) => write!(f, "{value}"),
            Self::Other(text) => f.write_str(text),
        }
    }
}

impl Serialize for RawNumber {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        match self {
            Self::Missing => serializer.serialize_unit(),
            Self::Number(value) => serializer.serialize_f64(*value),
            Self::Other(text) => serializer.serialize_str(text),
        }
    }
}

impl<'de> Deserialize<'de> for RawNumber {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        deserializer.deserialize_any(GivenVisitor)
    }
}

struct GivenVisitor;

impl<'de> Visitor<'de> for GivenVisitor {
    type Value = RawNumber;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("a number")
    }

    fn visit_f64<E>(self, value: f64) -> Result<RawNumber, E> {
        Ok(RawNumber::Number(value))
    }

    fn visit_i64<E>(self, value: i64) -> Result<RawNumber, E> {
        Ok(RawNumber::Number(value as f64))
    }

    fn visit_u64<E>(self, value: u64) -> Result<RawNumber, E> {
        Ok(RawNumber::Number(value as f64))
    }

    fn visit_bool<E>(self, value: bool) -> Result<RawNumber, E> {
        Ok(RawNumber::Other(value.to_string()))
    }

    fn visit_str<E>(self, value: &str) -> Result<RawNumber, E> {
        let short = super::quoted(value);
        Ok(RawNumber::Other(format!("“{short}”")))
    }

    fn visit_unit<E>(self) -> Result<RawNumber, E> {
        Ok(RawNumber::Missing)
    }

    fn visit_seq<A: SeqAccess<'de>>(self, mut seq: A) -> Result<RawNumber, A::Error> {
        while seq.next_element::<IgnoredAny>()?.is_some() {}
        Ok(RawNumber::Other("a list".into()))
    }

    fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<RawNumber, A::Error> {
        while map.next_entry::<IgnoredAny, IgnoredAny>()?.is_some() {}
        Ok(RawNumber::Other("an object".into()))
    }
}

#[cfg(feature = "openapi")]
mod openapi {
    use utoipa::openapi::{RefOr, Schema, schema};

    impl utoipa::PartialSchema for super::RawNumber {
        fn schema() -> RefOr<Schema> {
            schema::Object::with_type(schema::Type::Number).into()
        }
    }

    impl utoipa::ToSchema for super::RawNumber {}
}
