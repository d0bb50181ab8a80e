//! What is written anywhere, told as it happens: one listener a server, as many readers as ask.

pub mod told;

use std::convert::Infallible;
use std::time::Duration;

use axum::extract::State;
use axum::http::HeaderMap;
use axum::response::sse::{Event, KeepAlive, Sse};
use futures_util::Stream;
use ironpeel_store::{Listener, Word};
use serde_json::json;
use tokio::sync::broadcast::error::RecvError;
use tokio::sync::watch;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::state::App;
use told::{BatchChange, Told};

/// How long until the database is asked again, once the connection was lost.
const AGAIN: Duration = Duration::from_secs(1);
/// Whoever missed more batches than this looks at all of them anew.
const MOST_CHANGED: usize = 500;
/// A reader asks anew after so long, and its session is looked at anew.
const LASTS: Duration = Duration::from_mins(10);

/// Listens until the server closes, and lets go of what was remembered and is no longer so.
pub async fn listen(app: App) {
    let mut closing = app.live.closing.subscribe();
    tokio::select! {
        () = listen_on(&app) => {}
        () = turned(&mut closing) => {}
    }
}

/// Once it is so, or nobody is left to say.
async fn turned(now: &mut watch::Receiver<bool>) {
    let _ = now.wait_for(|now| *now).await;
}

async fn listen_on(app: &App) {
    loop {
        match app.store.listener().await {
            Ok(listener) => hear(app, listener).await,
            Err(error) => tracing::warn!(%error, "nothing is heard of what others write"),
        }
        tokio::time::sleep(AGAIN).await;
    }
}

async fn hear(app: &App, mut listener: Listener) {
    app.revisions.forget_changeable();
    // Nobody may be there to hear it.
    let _ = app.live.told.send(Told::Missed);
    app.live.listening.send_replace(true);
    while let Some(subject) = listener.next().await {
        let told = if let Some(change) = BatchChange::read(&subject) {
            Told::Batch(change)
        } else {
            app.revisions.forget_changeable();
            Told::Written(subject)
        };
        let _ = app.live.told.send(told);
    }
    app.live.listening.send_replace(false);
}

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(live))
}

/// What is written, as it happens
///
/// `listening` says that from now on nothing is missed; `batch` tells a batch that changed, its id and
/// its state; `written` the address something else was written at; `missed` that something may have
/// been, unheard: whoever shows records looks at all of them anew. Asked again with the last id that
/// was heard (`Last-Event-ID`), it begins with the batches that changed since. It ends after ten
/// minutes, to be asked again.
#[utoipa::path(get, path = "/api/v1/live", tag = "live", security(("session" = ["read"])),
    params(("last-event-id" = Option<String>, Header, description = "the last id that was heard")),
    responses((status = 200, body = BatchChange, content_type = "text/event-stream")))]
async fn live(
    State(app): State<App>,
    headers: HeaderMap,
) -> Sse<impl Stream<Item = Result<Event, Infallible>>> {
    let mut told = app.live.told.subscribe();
    let mut closing = app.live.closing.subscribe();
    let mut listening = app.live.listening.subscribe();
    let heard = headers.get("last-event-id").and_then(|id| id.to_str().ok()?.parse().ok());
    let until = tokio::time::Instant::now() + LASTS;
    let events = async_stream::stream! {
        let mut began = false;
        loop {
            let next = tokio::select! {
                () = turned(&mut listening), if !began => {
                    began = true;
                    for event in since(&app, heard).await {
                        yield Ok(event);
                    }
                    continue;
                }
                next = told.recv() => next,
                () = tokio::time::sleep_until(until) => break,
                () = turned(&mut closing) => break,
            };
            match next {
                Ok(Told::Batch(change)) => yield Ok(changed(change)),
                Ok(Told::Written(subject)) => {
                    yield Ok(Event::default().event("written").data(subject));
                }
                Ok(Told::Missed) | Err(RecvError::Lagged(_)) => yield Ok(missed()),
                Err(RecvError::Closed) => break,
            }
        }
    };
    Sse::new(events).keep_alive(KeepAlive::default())
}

fn missed() -> Event {
    Event::default().event("missed").data("all")
}

fn changed(change: BatchChange) -> Event {
    let data = json!(change).to_string();
    Event::default().event("batch").id(change.place.to_string()).data(data)
}

/// What a reader is told as it begins to listen: the batches that changed since what it heard last,
/// and the place from which nothing is missed. A place that cannot be gone on from is a miss.
async fn since(app: &App, heard: Option<i64>) -> Vec<Event> {
    let listening =
        |place: i64| Event::default().event("listening").id(place.to_string()).data("all");
    let Ok((oldest, next)) = app.store.transactions().await else { return vec![missed()] };
    let Some(heard) = heard else { return vec![listening(oldest)] };
    let most = i64::try_from(MOST_CHANGED).unwrap_or(i64::MAX);
    let found = app.store.batches_changed_since(heard, most.saturating_add(1)).await;
    match found {
        Ok(found) if heard <= next && found.len() <= MOST_CHANGED => {
            let told = found
                .into_iter()
                .map(|(id, Word(state))| changed(BatchChange { id, state, place: oldest }));
            told.chain([listening(oldest)]).collect()
        }
        _ => vec![missed(), listening(oldest)],
    }
}
