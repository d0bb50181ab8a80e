use diesel::result::{DatabaseErrorKind, Error as DieselError};
use thiserror::Error;

/// Why the records could not answer.
#[derive(Debug, Error)]
pub enum StoreError {
    #[error("{0} is not on record")]
    NotFound(&'static str),
    /// Somebody else's record stands where this one wanted to.
    #[error("{0}")]
    Conflict(String),
    /// The database cannot be reached, or not in time: the same may go through later.
    #[error("the records cannot be reached")]
    Unavailable(#[source] Box<dyn std::error::Error + Send + Sync>),
    /// Something that is a fault of ours: the same will not go through.
    #[error("the records hold or were asked something they never should")]
    Fault(#[source] Box<dyn std::error::Error + Send + Sync>),
}

pub type Result<T> = std::result::Result<T, StoreError>;

impl From<DieselError> for StoreError {
    fn from(error: DieselError) -> Self {
        use DatabaseErrorKind::{ClosedConnection, SerializationFailure, UnableToSendCommand};
        let away = match &error {
            DieselError::DatabaseError(
                ClosedConnection | SerializationFailure | UnableToSendCommand,
                _,
            )
            | DieselError::BrokenTransactionManager => true,
            // A server that shuts down or starts up, or ended the query for taking too long.
            DieselError::DatabaseError(_, information) => {
                let message = information.message();
                [
                    "terminating connection",
                    "shutting down",
                    "starting up",
                    "statement timeout",
                    "connection closed",
                    "too many clients",
                ]
                .iter()
                .any(|words| message.contains(words))
            }
            _ => false,
        };
        if away { Self::Unavailable(error.into()) } else { Self::Fault(error.into()) }
    }
}

impl StoreError {
    /// A unique key already taken, in words, and a revision below the first; any other error as it
    /// is.
    pub(crate) fn or_conflict(error: DieselError, message: impl FnOnce() -> String) -> Self {
        match error {
            DieselError::DatabaseError(DatabaseErrorKind::UniqueViolation, _) => {
                Self::Conflict(message())
            }
            DieselError::DatabaseError(DatabaseErrorKind::CheckViolation, broken)
                if broken
                    .constraint_name()
                    .is_some_and(|check| check.ends_with("_number_check")) =>
            {
                Self::Conflict("revisions count from 1".into())
            }
            other => other.into(),
        }
    }

    /// A revision somebody else has made meanwhile, in words; any other error as it is.
    pub(crate) fn or_overtaken(error: DieselError, name: &str) -> Self {
        Self::or_conflict(error, || {
            format!("{name} was changed by somebody else meanwhile; look at theirs first")
        })
    }

    /// A reference to a record that is not there, in words; any other error as it is.
    pub(crate) fn or_missing(error: DieselError, what: &'static str) -> Self {
        match error {
            DieselError::DatabaseError(DatabaseErrorKind::ForeignKeyViolation, _) => {
                Self::NotFound(what)
            }
            other => other.into(),
        }
    }
}
