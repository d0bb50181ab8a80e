use std::fmt::Debug;
use std::io::Write;

use diesel::deserialize::{self, FromSql, FromSqlRow};
use diesel::expression::AsExpression;
use diesel::pg::{Pg, PgValue};
use diesel::serialize::{self, IsNull, Output, ToSql};
use diesel::sql_types::Text;
use serde::de::value::Error;
use serde::de::{DeserializeOwned, IntoDeserializer};
use serde::{Deserialize, Serialize};
use serde_json::Value;

/// One of a fixed set in a text column, by the word it has on the wire too. The column's check holds
/// the same words.
#[derive(Debug, Clone, Copy, PartialEq, Eq, AsExpression, FromSqlRow, Serialize, Deserialize)]
#[diesel(sql_type = Text)]
#[serde(transparent)]
pub struct Word<T>(pub T);

impl<T: DeserializeOwned> Word<T> {
    /// What a word stands for, if for anything.
    pub fn named(word: &str) -> Option<T> {
        Self::read(word).ok()
    }

    fn read(word: &str) -> Result<T, Error> {
        T::deserialize(word.into_deserializer())
    }
}

impl<T: DeserializeOwned> FromSql<Text, Pg> for Word<T> {
    fn from_sql(value: PgValue<'_>) -> deserialize::Result<Self> {
        let word = <String as FromSql<Text, Pg>>::from_sql(value)?;
        Self::read(&word)
            .map(Self)
            .map_err(|error| format!("“{word}”, which no version wrote: {error}").into())
    }
}

impl<T: Serialize + Debug> ToSql<Text, Pg> for Word<T> {
    fn to_sql<'b>(&'b self, out: &mut Output<'b, '_, Pg>) -> serialize::Result {
        let Value::String(word) = serde_json::to_value(&self.0)? else {
            return Err("only what is a word goes into a column of words".into());
        };
        out.write_all(word.as_bytes())?;
        Ok(IsNull::No)
    }
}
