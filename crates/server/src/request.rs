//! What handlers take from a request, with every refusal told as a [`Problem`].

use axum::body::Bytes;
use axum::extract::{FromRequest, FromRequestParts, MatchedPath, Request};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use ironpeel_core::units::DecimalMark;
use ironpeel_store::{AuditedAct, Author, ClientWrite, Store};
use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::Value;
use serde_json::error::Category;
use sha2::{Digest, Sha256};
use uuid::Uuid;

use crate::caller::Caller;
use crate::heavy::heavy;
use crate::problem::Problem;
use crate::state::App;

/// The path's parts.
#[derive(Debug, FromRequestParts)]
#[from_request(via(axum::extract::Path), rejection(Problem))]
pub struct Path<T>(pub T);

/// The query's parts.
#[derive(Debug, FromRequestParts)]
#[from_request(via(axum::extract::Query), rejection(Problem))]
pub struct Query<T>(pub T);

/// How the sender of a file writes numbers that the file leaves open.
#[derive(Debug, Clone, Copy, serde::Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Marks {
    pub decimal_mark: Option<DecimalMark>,
}

/// A JSON body, whatever the content type says; and a JSON answer.
#[derive(Debug)]
pub struct Json<T>(pub T);

impl<T: DeserializeOwned + Send + 'static, S: Send + Sync> FromRequest<S> for Json<T> {
    type Rejection = Problem;

    async fn from_request(request: Request, state: &S) -> Result<Self, Problem> {
        read_body(Bytes::from_request(request, state).await?).await.map(Self)
    }
}

impl<T: Serialize> IntoResponse for Json<T> {
    fn into_response(self) -> Response {
        axum::Json(self.0).into_response()
    }
}

/// A JSON body that is to be recorded once: what was sent, and the write it makes.
#[derive(Debug)]
pub struct Recorded<T> {
    pub input: T,
    pub write: Write,
}

/// A client's write as it is told from another under the same id.
#[derive(Debug)]
pub struct Write {
    body_hash: Vec<u8>,
    pub author: Author,
    act: AuditedAct,
}

impl Write {
    /// The records for this write under the id the client made for it.
    pub fn of(&self, app: &App, id: Uuid) -> Store {
        app.store.once(ClientWrite {
            id,
            body_hash: self.body_hash.clone(),
            author: self.author.clone(),
            act: AuditedAct { record_id: Some(id), ..self.act.clone() },
        })
    }
}

impl<T: DeserializeOwned, S: Send + Sync> FromRequest<S> for Recorded<T> {
    type Rejection = Problem;

    async fn from_request(request: Request, state: &S) -> Result<Self, Problem> {
        let subject = request.uri().path().to_owned();
        let extensions = request.extensions();
        let caller = extensions.get::<Caller>().cloned();
        let author = caller.ok_or_else(|| Problem::fault("nobody's write was let in"))?.author;
        let matched = extensions.get::<MatchedPath>().map_or(&*subject, MatchedPath::as_str);
        let act = AuditedAct::new(format!("{} {matched}", request.method()), &*subject);
        let bytes = Bytes::from_request(request, state).await?;
        // Sameness is of what was said of what, not of its spaces or the order of its fields.
        let value: Value = read_body(bytes).await?;
        let number = value.get("number").and_then(Value::as_i64);
        let revision_after = number.and_then(|number| i32::try_from(number).ok());
        let revision_before = revision_after.filter(|number| *number > 1).map(|number| number - 1);
        let act = AuditedAct { revision_before, revision_after, ..act };
        let body_hash = Sha256::digest(format!("{subject} {value}")).to_vec();
        let write = Write { body_hash, author, act };
        Ok(Self { input: from_value(value)?, write })
    }
}

/// A character zero, which the database keeps in no text.
const ZERO: &str = "a text holds the character zero, which is no letter; take it out";

/// Refuses an address with a character zero in it.
pub async fn reject_nul(request: Request, next: Next) -> Result<Response, Problem> {
    if request.uri().to_string().contains("%00") {
        return Err(Problem::unusable(ZERO));
    }
    Ok(next.run(request).await)
}

/// A body larger than this is read off the threads that answer others.
const LARGE: usize = 256 * 1024;

async fn read_body<T: DeserializeOwned + Send + 'static>(bytes: Bytes) -> Result<T, Problem> {
    if bytes.len() > LARGE { heavy(move || read(&bytes)).await } else { read(&bytes) }
}

/// Malformed JSON is a bad request; JSON of another shape is a field that cannot be used.
fn read<T: DeserializeOwned>(bytes: &[u8]) -> Result<T, Problem> {
    if bytes.contains(&b'\\') && bytes.windows(6).any(|tolerance| tolerance == br"\u0000") {
        return Err(Problem::unusable(ZERO));
    }
    // Keeping track of the path to every field costs more than reading it; only a body that cannot
    // be used is read a second time, to say where.
    if let Ok(value) = serde_json::from_slice(bytes) {
        return Ok(value);
    }
    let deserializer = &mut serde_json::Deserializer::from_slice(bytes);
    let value = serde_path_to_error::deserialize(&mut *deserializer).map_err(|error| {
        let path = error.path().to_string();
        let error = error.into_inner();
        let message = error.to_string();
        // A number such as 1e999 is well-formed JSON that no number can hold.
        let endless = message.starts_with("number out of range");
        match error.classify() {
            Category::Syntax | Category::Eof | Category::Io if !endless => {
                Problem::malformed(format!("this is not JSON: {message}"))
            }
            _ if endless => Problem::field(path, "the number is too large for anything real"),
            _ => Problem::field(field_of(path, &message), message),
        }
    })?;
    deserializer.end().map_err(|error| Problem::malformed(format!("this is not JSON: {error}")))?;
    Ok(value)
}

/// The path to the field, to the missing one itself where serde only names its parent.
fn field_of(path: String, message: &str) -> String {
    let missing = message.strip_prefix("missing field `").and_then(|rest| rest.split('`').next());
    match missing {
        Some(name) if path == "." => name.to_owned(),
        Some(name) => format!("{path}.{name}"),
        None => path,
    }
}

/// A body already read as JSON, in the shape that is wanted.
pub fn from_value<T: DeserializeOwned>(value: serde_json::Value) -> Result<T, Problem> {
    serde_path_to_error::deserialize(value).map_err(|error| {
        let path = error.path().to_string();
        let message = error.into_inner().to_string();
        Problem::field(field_of(path, &message), message)
    })
}
