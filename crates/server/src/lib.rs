//! Ironpeel over HTTP.
//!
//! One file or folder per subject holds its routes; handlers parse, call and answer. [`app`] puts
//! them together with the layers every request passes; [`serve`] runs it until told to stop.

mod batches;
mod calc;
mod caller;
mod chain;
mod coefficient_list;
mod config;
mod curve;
pub mod demo;
mod dough;
mod download;
mod find;
mod flour;
mod flour_names;
mod gauge;
mod health;
mod heavy;
mod judging;
mod live;
mod method;
mod metrics;
mod moved;
mod opening;
mod oven;
mod page;
mod password;
mod people;
mod planned_batch;
mod plant;
mod problem;
mod products;
mod request;
mod request_id;
mod results;
mod revision;
mod revision_refs;
mod state;
mod text_file;
mod water;
mod web;

pub use coefficient_list::coefficient_list;
pub use config::{Config, Flags, effective};
pub use people::setup_code;

use std::net::SocketAddr;
use std::pin::Pin;
use std::time::Duration;

use axum::Router;
use axum::extract::{Request, State};
use axum::http::{HeaderValue, StatusCode, header};
use axum::middleware::{Next, from_fn, from_fn_with_state};
use axum::response::Response;
use ironpeel_store::Store;
use tokio::net::TcpListener;
use tower::ServiceBuilder;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::compression::predicate::SizeAbove;
use tower_http::trace::{DefaultOnResponse, TraceLayer};
use tracing::Level;
use utoipa::OpenApi;
use utoipa::openapi::OpenApi as Document;
use utoipa::openapi::security::{ApiKey, ApiKeyValue, Http, HttpAuthScheme, SecurityScheme};
use utoipa_axum::router::OpenApiRouter;

use crate::request::Json;
use live::told::Live;
use people::{Guard, Rules};
use problem::Problem;
use state::App;

/// Answers are many small texts; this allocator hands them out several times quicker.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

/// Answers below this are sent as they are: packing them costs more than a plant's network.
const MIN_COMPRESS_SIZE: u16 = 32 * 1024;

#[derive(OpenApi)]
#[openapi(info(
    title = "Ironpeel",
    description = "From a flour's lab sheet to a good loaf. Errors are RFC 9457 problem details."
))]
struct Api;

fn api() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Api::openapi())
        .merge(health::routes())
        .merge(calc::routes())
        .merge(flour::routes())
        .merge(curve::routes())
        .merge(products::routes())
        .merge(opening::routes())
        .merge(dough::routes())
        .merge(plant::routes())
        .merge(method::routes())
        .merge(water::routes())
        .merge(chain::routes())
        .merge(batches::routes())
        .merge(oven::routes())
        .merge(judging::routes())
        .merge(results::routes())
        .merge(find::routes())
        .merge(people::routes())
        .merge(live::routes())
        .merge(metrics::routes())
}

/// The OpenAPI document of every route.
pub fn document() -> Document {
    named(api().split_for_parts().1)
}

/// Gives every operation a name of its own, from its method and path: handlers of different
/// subjects share plain names. What opens it with a session opens it with a key as well.
fn named(mut document: Document) -> Document {
    for (path, item) in &mut document.paths.paths {
        let words = path.trim_start_matches("/api/v1/").replace(['/', '-', '.'], "_");
        let words = words.replace(['{', '}'], "");
        let operations = [
            ("get", &mut item.get),
            ("put", &mut item.put),
            ("post", &mut item.post),
            ("delete", &mut item.delete),
        ];
        for (method, operation) in operations {
            if let Some(operation) = operation {
                operation.operation_id = Some(format!("{method}_{words}"));
                people::open_to_keys(operation);
            }
        }
    }
    let components = document.components.get_or_insert_default();
    let session = SecurityScheme::ApiKey(ApiKey::Cookie(ApiKeyValue::new("ironpeel")));
    components.add_security_scheme(people::SESSION, session);
    let key = SecurityScheme::Http(Http::new(HttpAuthScheme::Bearer));
    components.add_security_scheme(people::KEY, key);
    document
}

/// The application: every route and the layers all requests pass.
#[derive(Debug)]
pub struct Application {
    router: Router,
    live: Live,
}

/// Puts the application together, and begins to listen for what other servers write.
pub fn app(store: Store, config: Config) -> Application {
    let (routes, document) = api().split_for_parts();
    let document = named(document);
    let app = App::new(store, config);
    tokio::spawn(live::listen(app.clone()));
    tokio::spawn(results::watch(app.clone()));
    let live = app.live.clone();
    let guard = Guard { app: app.clone(), rules: Rules::of(&document) };
    let mut routes = routes
        .route("/api/openapi.json", axum::routing::get(|| async { Json(document) }))
        .route("/api/{*rest}", axum::routing::any(moved::moved))
        .method_not_allowed_fallback(|| async {
            let detail = "this address does not take that method";
            Problem::new(StatusCode::METHOD_NOT_ALLOWED, "Not that way", detail)
        });
    if let Some(web) = web::routes(app.config.web.as_deref()) {
        routes = routes.merge(web);
    }
    let layers = ServiceBuilder::new()
        .layer(from_fn(request_id::identify))
        .layer(
            TraceLayer::new_for_http()
                .make_span_with(request_id::span)
                .on_response(DefaultOnResponse::new().level(Level::INFO)),
        )
        .layer(from_fn(metrics::count))
        .layer(CatchPanicLayer::custom(|_| {
            axum::response::IntoResponse::into_response(Problem::fault("a request broke off"))
        }))
        .layer(CompressionLayer::new().compress_when(SizeAbove::new(MIN_COMPRESS_SIZE.into())))
        .layer(from_fn(api_headers))
        .layer(from_fn_with_state(app.config.request_limit(), deadline))
        .layer(from_fn_with_state(guard, people::enforce))
        .layer(from_fn(request::reject_nul));
    Application { router: routes.layer(layers).with_state(app), live }
}

/// Answers of the API are never kept and never guessed at; a fault of ours names its request.
async fn api_headers(request: Request, next: Next) -> Response {
    let api = request.uri().path().starts_with("/api/");
    let mut response = next.run(request).await;
    if api {
        let headers = response.headers_mut();
        headers.insert(header::CACHE_CONTROL, HeaderValue::from_static("no-store"));
        headers.insert(header::X_CONTENT_TYPE_OPTIONS, HeaderValue::from_static("nosniff"));
    }
    response
}

async fn deadline(
    State(limit): State<Duration>,
    request: Request,
    next: Next,
) -> Result<Response, Problem> {
    tokio::time::timeout(limit, next.run(request)).await.map_err(|_| {
        let detail = "this took too long and was given up; it can be sent again, and what carries an \
                      id of its own is stored once";
        Problem::new(StatusCode::SERVICE_UNAVAILABLE, "Too slow", detail)
    })
}

/// What tells a server to stop. Boxed, so that the server is compiled once, here, and not again in
/// every program that starts one.
pub type Stop = Pin<Box<dyn Future<Output = ()> + Send>>;

/// How long what is under way may take to finish once the server is told to stop.
const GRACE: Duration = Duration::from_secs(10);

/// Serves until `stop` resolves, then finishes what is under way; a stream that stays open is cut.
pub async fn serve(listener: TcpListener, app: Application, stop: Stop) -> std::io::Result<()> {
    let (tell, told) = tokio::sync::oneshot::channel();
    let Application { router, live } = app;
    let app = router.into_make_service_with_connect_info::<SocketAddr>();
    let server = axum::serve(listener, app).with_graceful_shutdown(async {
        // Told, or nobody is left to tell.
        let _ = told.await;
    });
    let bounded = async {
        stop.await;
        live.close();
        let _ = tell.send(());
        tokio::time::sleep(GRACE).await;
    };
    tokio::select! {
        done = server => done,
        () = bounded => Ok(()),
    }
}
