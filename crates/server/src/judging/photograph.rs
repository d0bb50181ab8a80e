//! Photographs of samples: taken in by what they are, never by what they call themselves.

use std::io::Cursor;

use axum::extract::{DefaultBodyLimit, State};
use axum::http::header;
use axum::response::IntoResponse;
use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use chrono::Utc;
use image::{ImageFormat, ImageReader, Limits};
use ironpeel_core::judging::PhotographView;
use ironpeel_store::{Photograph, Sample, SamplePhotograph, Word};
use serde::Deserialize;
use sha2::{Digest, Sha256};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::heavy::heavy;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(add))
        .layer(DefaultBodyLimit::max(MOST_BODY))
        .routes(routes!(content))
}

const MB: usize = 1024 * 1024;
/// The most a photograph holds; the interface makes a larger one smaller before it sends it.
const MOST_BYTES: usize = 2 * MB;
/// A larger one is read so far that its sender can be told.
const MOST_BODY: usize = 24 * MB;
/// The most along a side, and for a picture taken apart.
const MOST_PIXELS: u32 = 4096;
const MOST_DECODED: u64 = 64 * MB as u64;
/// Kinds that every browser shows.
const KINDS: [ImageFormat; 3] = [ImageFormat::Jpeg, ImageFormat::Png, ImageFormat::WebP];

/// A photograph of a sample.
#[derive(Debug, Deserialize, ToSchema)]
struct PhotographInput {
    shows: PhotographView,
    /// JPEG, PNG or WebP in base64, up to 2 MB and 4096 pixels along a side.
    content: String,
}

/// Puts a photograph with a sample; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/samples/{code}/photographs/{id}", security(("session" = ["record"])), tag = "judging",
    params(("code" = String, Path), ("id" = Uuid, Path)), request_body = PhotographInput,
    responses((status = 200, body = Vec<SamplePhotograph>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn add(
    State(app): State<App>,
    Path((code, id)): Path<(String, Uuid)>,
    Recorded { input, write }: Recorded<PhotographInput>,
) -> Result<Json<Vec<SamplePhotograph>>> {
    let sample = app.store.coded_sample(&code).await?;
    let records = write.of(&app, id);
    if !records.was_written().await? {
        let PhotographInput { shows, content } = input;
        let read = heavy(move || read(&content)).await;
        let taken = read.map_err(|why| Problem::field("content", why))?;
        let of = SamplePhotograph {
            id,
            sample_id: sample.id,
            hash: taken.hash.clone(),
            shows: Word(shows),
            taken_by: write.author.name.clone(),
            taken_at: Utc::now(),
        };
        records.add_photograph(&of, &taken).await?;
    }
    Ok(Json(app.store.photographs(&[sample.id]).await?))
}

/// A photograph, by the hash of its content
#[utoipa::path(get, path = "/api/v1/photographs/{hash}", security(("session" = ["read"])), tag = "judging", params(("hash" = String, Path)),
    responses((status = 200, content_type = "image/jpeg"), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn content(
    State(app): State<App>,
    Path(hash): Path<String>,
) -> Result<impl IntoResponse + use<>> {
    let (media_type, content) = app.store.photograph_content(&hash).await?;
    Ok(([(header::CONTENT_TYPE, media_type)], content))
}

/// The photographs of samples, the newest of each view.
pub async fn photographs_of(app: &App, samples: &[Sample]) -> Result<Vec<SamplePhotograph>> {
    let ids: Vec<Uuid> = samples.iter().map(|sample| sample.id).collect();
    Ok(app.store.photographs(&ids).await?)
}

/// A photograph as it was sent, or why it is none.
fn read(sent: &str) -> std::result::Result<Photograph, String> {
    let content = STANDARD.decode(sent).map_err(|_| "this is not base64".to_owned())?;
    if content.len() > MOST_BYTES {
        let mb = content.len() as f64 / MB as f64;
        return Err(format!(
            "a photograph of up to 2 MB is taken, this one has {mb:.1} MB: make it smaller, 1600 pixels along its longer side show every cell"
        ));
    }
    taken(content)
}

/// A photograph by its content, or why it is none.
pub fn taken(content: Vec<u8>) -> std::result::Result<Photograph, String> {
    let format = image::guess_format(&content).ok().filter(|format| KINDS.contains(format));
    let Some(format) = format else {
        return Err(if content.windows(4).any(|some| some.eq_ignore_ascii_case(b"<svg")) {
            "an SVG is a drawing that may carry a script, not a photograph: JPEG, PNG or WebP is taken".into()
        } else {
            "this is not a photograph, whatever it is called: JPEG, PNG or WebP is taken".into()
        });
    };
    let mut reader = ImageReader::with_format(Cursor::new(&content), format);
    let mut limits = Limits::default();
    limits.max_image_width = Some(MOST_PIXELS);
    limits.max_image_height = Some(MOST_PIXELS);
    limits.max_alloc = Some(MOST_DECODED);
    reader.limits(limits);
    let picture = reader.decode().map_err(|error| match error {
        image::ImageError::Limits(_) => {
            format!("a photograph of up to {MOST_PIXELS} pixels along a side is taken")
        }
        error => format!("this photograph is broken: {error}"),
    })?;
    Ok(Photograph {
        hash: hex::encode(Sha256::digest(&content)),
        media_type: format.to_mime_type().into(),
        width: picture.width().cast_signed(),
        height: picture.height().cast_signed(),
        content,
    })
}
