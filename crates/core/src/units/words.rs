//! Verdicts are types with their figures; they travel as the words their subject's `words` module
//! gives them (their [`Display`](std::fmt::Display)), so that no rule has to read prose.

/// What a keyed verdict is on the wire.
#[cfg(feature = "openapi")]
#[derive(utoipa::ToSchema)]
pub(crate) struct KeyedWords {
    #[expect(dead_code, reason = "describes the wire only")]
    key: String,
    #[expect(dead_code, reason = "describes the wire only")]
    says: String,
}

/// Serialises each verdict as its words; `keyed` ones as `{key, says}`.
macro_rules! serialize_in_words {
    (keyed $($verdict:ty),+) => {$(
        impl serde::Serialize for $verdict {
            fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
                use serde::ser::SerializeStruct;
                let mut keyed = serializer.serialize_struct(stringify!($verdict), 2)?;
                keyed.serialize_field("key", self.key())?;
                keyed.serialize_field("says", &self.to_string())?;
                keyed.end()
            }
        }
        $crate::units::words::describe!($verdict as $crate::units::words::KeyedWords);
    )+};
    ($($verdict:ty),+) => {$(
        impl serde::Serialize for $verdict {
            fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
                serializer.collect_str(self)
            }
        }
        $crate::units::words::describe!($verdict as String);
    )+};
}

macro_rules! describe {
    ($verdict:ty as $wire:ty) => {
        #[cfg(feature = "openapi")]
        impl utoipa::PartialSchema for $verdict {
            fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
                <$wire as utoipa::PartialSchema>::schema()
            }
        }

        #[cfg(feature = "openapi")]
        impl utoipa::ToSchema for $verdict {
            fn name() -> std::borrow::Cow<'static, str> {
                stringify!($verdict).into()
            }

            fn schemas(
                schemas: &mut Vec<(
                    String,
                    utoipa::openapi::RefOr<utoipa::openapi::schema::Schema>,
                )>,
            ) {
                <$wire as utoipa::ToSchema>::schemas(schemas);
            }
        }
    };
}

pub(crate) use {describe, serialize_in_words};
