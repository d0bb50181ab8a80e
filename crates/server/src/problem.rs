use axum::extract::rejection::{BytesRejection, PathRejection, QueryRejection};
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use ironpeel_core::units::{FieldError, ValidationErrors};
use ironpeel_store::StoreError;
use serde::Serialize;
use utoipa::ToSchema;

use crate::request_id;

/// What went wrong, as RFC 9457 problem details.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Problem {
    status: u16,
    title: &'static str,
    /// What happened and what to do, in the words of the job.
    detail: String,
    /// Each field that cannot be used.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    errors: Vec<FieldError>,
    /// Seconds until the same may be asked again, where that is known.
    #[serde(skip)]
    retry_after: Option<i64>,
}

pub type Result<T> = std::result::Result<T, Problem>;

impl Problem {
    pub fn new(status: StatusCode, title: &'static str, detail: impl Into<String>) -> Self {
        Self {
            status: status.as_u16(),
            title,
            detail: detail.into(),
            errors: Vec::new(),
            retry_after: None,
        }
    }

    /// The same may be asked again after so many seconds.
    #[must_use]
    pub fn retry_after(self, seconds: i64) -> Self {
        Self { retry_after: Some(seconds), ..self }
    }

    /// What happened is about this field.
    #[must_use]
    pub fn at(self, field: &str) -> Self {
        let fault = FieldError { field: field.into(), message: self.detail.clone() };
        Self { errors: vec![fault], ..self }
    }

    /// Whether what was sent is to blame, and not the server.
    pub const fn is_refusal(&self) -> bool {
        self.status < 500
    }

    pub fn malformed(detail: impl Into<String>) -> Self {
        Self::new(StatusCode::BAD_REQUEST, "The request cannot be read", detail)
    }

    pub fn unusable(detail: impl Into<String>) -> Self {
        Self::new(StatusCode::UNPROCESSABLE_ENTITY, "Some of it cannot be used", detail)
    }

    /// One field that cannot be used.
    pub fn field(field: impl Into<String>, message: impl Into<String>) -> Self {
        let mut faults = ValidationErrors::default();
        faults.push(field, message);
        faults.into()
    }

    /// A fault of ours: logged here, once, under the request's id, which the answer tells.
    pub fn fault(error: impl std::fmt::Display) -> Self {
        let id = request_id::current();
        tracing::error!(%error, %id, "a fault of ours");
        let detail = format!("a fault of ours, logged as {id}: the same again will not go through");
        Self::new(StatusCode::INTERNAL_SERVER_ERROR, "Something broke", detail)
    }

    pub fn not_found(detail: impl Into<String>) -> Self {
        Self::new(StatusCode::NOT_FOUND, "Not found", detail)
    }
}

impl IntoResponse for Problem {
    fn into_response(self) -> Response {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::SERVICE_UNAVAILABLE);
        let unavailable = (status == StatusCode::SERVICE_UNAVAILABLE).then_some(2);
        let retry_after = self.retry_after.or(unavailable);
        let mut response = (status, axum::Json(self)).into_response();
        let kind = HeaderValue::from_static("application/problem+json");
        response.headers_mut().insert(header::CONTENT_TYPE, kind);
        if let Some(seconds) = retry_after {
            response.headers_mut().insert(header::RETRY_AFTER, seconds.into());
        }
        response
    }
}

impl From<ValidationErrors> for Problem {
    fn from(ValidationErrors(errors): ValidationErrors) -> Self {
        let detail = match errors.as_slice() {
            [only] => only.message.clone(),
            many => format!("{} fields cannot be used; each says why", many.len()),
        };
        Self { errors, ..Self::unusable(detail) }
    }
}

impl From<StoreError> for Problem {
    fn from(error: StoreError) -> Self {
        Self::from(&error)
    }
}

impl From<&StoreError> for Problem {
    fn from(error: &StoreError) -> Self {
        match error {
            StoreError::NotFound(what) => Self::not_found(format!("{what} is not on record")),
            StoreError::Conflict(message) => {
                Self::new(StatusCode::CONFLICT, "Somebody was there before", message.clone())
            }
            StoreError::Unavailable(source) => {
                tracing::warn!(error = %source, "the records cannot be reached");
                Self::new(
                    StatusCode::SERVICE_UNAVAILABLE,
                    "The records cannot be reached",
                    "the same can be sent again: what carries an id of its own is stored once",
                )
            }
            StoreError::Fault(source) => Self::fault(source),
        }
    }
}

impl From<PathRejection> for Problem {
    fn from(_: PathRejection) -> Self {
        Self::not_found("this address leads nowhere")
    }
}

impl From<QueryRejection> for Problem {
    fn from(rejection: QueryRejection) -> Self {
        Self::malformed(rejection.body_text())
    }
}

impl From<BytesRejection> for Problem {
    fn from(rejection: BytesRejection) -> Self {
        if rejection.status() == StatusCode::PAYLOAD_TOO_LARGE {
            Self::new(
                StatusCode::PAYLOAD_TOO_LARGE,
                "Too large",
                "this is larger than is taken here at once",
            )
        } else {
            Self::malformed(rejection.body_text())
        }
    }
}
