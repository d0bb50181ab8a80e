//! Keys machines come with: a laboratory's system, a logger.

use axum::extract::State;
use axum::http::StatusCode;
use chrono::Utc;
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{ApiKey, AuditedAct, PersonRole, Word};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::caller::Caller;
use crate::password;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(keys)).routes(routes!(make, revoke))
}

const NAME_MAX: usize = 80;

/// A key to be made.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct KeyInput {
    /// What comes with it.
    #[serde(default)]
    name: String,
    role: PersonRole,
}

/// A key just made, shown this once.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct MadeKey {
    #[serde(flatten)]
    key: ApiKey,
    /// For `Authorization: Bearer`.
    secret: String,
}

fn act(action: &str, id: Uuid) -> AuditedAct {
    AuditedAct { record_id: Some(id), ..AuditedAct::new(action, format!("/api/v1/keys/{id}")) }
}

/// Every key, newest first
#[utoipa::path(get, path = "/api/v1/keys", tag = "people", security(("session" = ["administer"])),
    responses((status = 200, body = Vec<ApiKey>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn keys(State(app): State<App>) -> Result<Json<Vec<ApiKey>>> {
    Ok(Json(app.store.api_keys().await?))
}

/// Makes a key; it is shown in this answer and never again
#[utoipa::path(put, path = "/api/v1/keys/{key_id}", tag = "people", security(("session" = ["administer", "confirmed"])),
    params(("key_id" = Uuid, Path)), request_body = KeyInput,
    responses((status = 200, body = MadeKey), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn make(
    State(app): State<App>,
    caller: Caller,
    Path(id): Path<Uuid>,
    Json(KeyInput { name, role }): Json<KeyInput>,
) -> Result<Json<MadeKey>> {
    let name = name.trim();
    let mut faults = ValidationErrors::default();
    if name.is_empty() || name.chars().count() > NAME_MAX {
        faults.push("name", format!("what comes with this key? up to {NAME_MAX} letters"));
    }
    faults.or(())?;
    let secret = password::secret();
    let key = ApiKey {
        id,
        name: name.into(),
        role: Word(role),
        made_by: caller.author.name.clone(),
        made_at: Utc::now(),
        revoked_at: None,
    };
    let store = app.store.audited(&caller.author, act("key made", id));
    store.add_api_key(&key, &password::hash_of_secret(&secret)).await?;
    Ok(Json(MadeKey { key, secret }))
}

/// Lets a key open nothing any more
#[utoipa::path(delete, path = "/api/v1/keys/{key_id}", tag = "people", security(("session" = ["administer"])),
    params(("key_id" = Uuid, Path)),
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn revoke(
    State(app): State<App>,
    caller: Caller,
    Path(id): Path<Uuid>,
) -> Result<StatusCode> {
    app.store.audited(&caller.author, act("key revoked", id)).revoke_api_key(id).await?;
    Ok(StatusCode::NO_CONTENT)
}
