//! What is written anywhere, told as it happens: one listener a server, as many readers as ask.

pub mod told;

use std::convert::Infallible;
use std::time::Duration;

use axum::extract::State;
use axum::response::sse::{Event, KeepAlive, Sse};
use futures_util::Stream;
use ironpeel_store::Listener;
use tokio::sync::broadcast::error::RecvError;
use tokio::sync::watch;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::state::App;
use told::Told;

/// How long until the database is asked again, once the connection was lost.
const AGAIN: Duration = Duration::from_secs(1);
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
        app.revisions.forget_changeable();
        let _ = app.live.told.send(Told::Written(subject));
    }
    app.live.listening.send_replace(false);
}

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(live))
}

/// What is written, as it happens
///
/// `listening` says that from now on nothing is missed; `written` tells the address something was
/// written at; `missed` that something may have been, unheard: whoever shows records looks at all of
/// them anew. It ends after ten minutes, to be asked again.
#[utoipa::path(get, path = "/api/v1/live", tag = "live", security(("session" = ["read"])),
    responses((status = 200, body = str, content_type = "text/event-stream")))]
async fn live(State(app): State<App>) -> Sse<impl Stream<Item = Result<Event, Infallible>>> {
    let mut told = app.live.told.subscribe();
    let mut closing = app.live.closing.subscribe();
    let mut listening = app.live.listening.subscribe();
    let until = tokio::time::Instant::now() + LASTS;
    let events = async_stream::stream! {
        let mut began = false;
        loop {
            let next = tokio::select! {
                () = turned(&mut listening), if !began => {
                    began = true;
                    yield Ok(Event::default().event("listening").data("all"));
                    continue;
                }
                next = told.recv() => next,
                () = tokio::time::sleep_until(until) => break,
                () = turned(&mut closing) => break,
            };
            match next {
                Ok(Told::Written(subject)) => {
                    yield Ok(Event::default().event("written").data(subject));
                }
                Ok(Told::Missed) | Err(RecvError::Lagged(_)) => {
                    yield Ok(Event::default().event("missed").data("all"));
                }
                Err(RecvError::Closed) => break,
            }
        }
    };
    Sse::new(events).keep_alive(KeepAlive::default())
}
