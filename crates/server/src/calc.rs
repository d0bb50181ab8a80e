//! The calculators: stateless, nothing stored.

use axum::extract::DefaultBodyLimit;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::dough::{StarterAnswer, StarterInput};
use ironpeel_core::fault::{DiagnoseInput, Diagnosis, diagnose};
use ironpeel_core::ferment::{
    FermentationAnswer, FermentationInput, Maturity, MaturityInput, RateFit, RateFitInput,
    Refreshment, RefreshmentInput,
};
use ironpeel_core::flour::{
    AlveographAnswer, AlveographInput, BlendAnswer, BlendInput, FarinographAnswer,
    FarinographInput, MoistureBasisAnswer, MoistureBasisInput, SiftAnswer, SiftInput,
};
use ironpeel_core::heat::{DoughTemperatureInput, Friction, FrictionInput, HeatSolution};
use ironpeel_core::judging::{Judges, JudgesInput, ScoreDifference, ScoreDifferenceInput};
use ironpeel_core::learn::{LearnedNumber, LearnedNumberInput};
use ironpeel_core::oven::{BakeTrace, BakeTraceInput};
use ironpeel_core::water::{
    AbsorptionBuildUp, AbsorptionInput, AbsorptionModelAnswer, AbsorptionModelInput,
};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::heavy::heavy;
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

const MOST_BYTES: usize = 16 * 1024 * 1024;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(moisture_basis))
        .routes(routes!(farinograph))
        .routes(routes!(alveograph))
        .routes(routes!(blend))
        .routes(routes!(sift))
        .routes(routes!(absorption_model))
        .routes(routes!(absorption))
        .routes(routes!(starter))
        .routes(routes!(dough_temperature))
        .routes(routes!(friction))
        .routes(routes!(fermentation))
        .routes(routes!(maturity))
        .routes(routes!(rate_fit))
        .routes(routes!(learned_number))
        .routes(routes!(starter_feed))
        .routes(routes!(bake_trace))
        .routes(routes!(score_difference))
        .routes(routes!(judges))
        .routes(routes!(diagnosis))
        .layer(DefaultBodyLimit::max(MOST_BYTES))
}

/// One number learned from observations, one after another
#[utoipa::path(post, path = "/api/v1/calc/learned-number", security(()), tag = "calculators",
    request_body = LearnedNumberInput,
    responses((status = 200, body = LearnedNumber), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn learned_number(Json(input): Json<LearnedNumberInput>) -> Result<Json<LearnedNumber>> {
    Ok(Json(heavy(move || input.compute()).await?))
}

/// A share of the flour moved from one moisture to another
#[utoipa::path(post, path = "/api/v1/calc/moisture-basis", security(()), tag = "calculators",
    request_body = MoistureBasisInput,
    responses((status = 200, body = MoistureBasisAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn moisture_basis(
    Json(input): Json<MoistureBasisInput>,
) -> Result<Json<MoistureBasisAnswer>> {
    Ok(Json(input.compute()?))
}

/// A farinogram read by the standard
#[utoipa::path(post, path = "/api/v1/calc/farinograph", security(()), tag = "calculators",
    request_body = FarinographInput,
    responses((status = 200, body = FarinographAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn farinograph(Json(input): Json<FarinographInput>) -> Result<Json<FarinographAnswer>> {
    Ok(Json(heavy(move || input.compute()).await?))
}

/// An alveogram read by the standard
#[utoipa::path(post, path = "/api/v1/calc/alveograph", security(()), tag = "calculators",
    request_body = AlveographInput,
    responses((status = 200, body = AlveographAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn alveograph(Json(input): Json<AlveographInput>) -> Result<Json<AlveographAnswer>> {
    Ok(Json(heavy(move || input.compute()).await?))
}

/// The cheapest blend within targets
#[utoipa::path(post, path = "/api/v1/calc/blend", security(()), tag = "calculators",
    request_body = BlendInput,
    responses((status = 200, body = BlendAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn blend(Json(input): Json<BlendInput>) -> Result<Json<BlendAnswer>> {
    Ok(Json(heavy(move || input.compute()).await?))
}

/// What sieving bran out of a flour leaves
#[utoipa::path(post, path = "/api/v1/calc/sift", security(()), tag = "calculators",
    request_body = SiftInput,
    responses((status = 200, body = SiftAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn sift(Json(input): Json<SiftInput>) -> Result<Json<SiftAnswer>> {
    Ok(Json(input.compute()?))
}

/// Absorption of a flour without a curve, learned from measured lots
#[utoipa::path(post, path = "/api/v1/calc/absorption-model", security(()), tag = "calculators",
    request_body = AbsorptionModelInput,
    responses((status = 200, body = AbsorptionModelAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn absorption_model(
    Json(input): Json<AbsorptionModelInput>,
) -> Result<Json<AbsorptionModelAnswer>> {
    Ok(Json(heavy(move || input.compute()).await?))
}

/// From the flour to the floor: how much water the dough wants
#[utoipa::path(post, path = "/api/v1/calc/absorption", security(()), tag = "calculators",
    request_body = AbsorptionInput,
    responses((status = 200, body = AbsorptionBuildUp), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn absorption(Json(input): Json<AbsorptionInput>) -> Result<Json<AbsorptionBuildUp>> {
    Ok(Json(input.compute()?))
}

/// A starter counted into flour and water
#[utoipa::path(post, path = "/api/v1/calc/starter", security(()), tag = "calculators",
    request_body = StarterInput,
    responses((status = 200, body = StarterAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn starter(Json(input): Json<StarterInput>) -> Result<Json<StarterAnswer>> {
    Ok(Json(input.compute()?))
}

/// Water temperature, or ice, by heat balance
#[utoipa::path(post, path = "/api/v1/calc/dough-temperature", security(()), tag = "calculators",
    request_body = DoughTemperatureInput,
    responses((status = 200, body = HeatSolution), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn dough_temperature(Json(input): Json<DoughTemperatureInput>) -> Result<Json<HeatSolution>> {
    Ok(Json(input.compute()?))
}

/// Friction of a mixer learned from measured doughs
#[utoipa::path(post, path = "/api/v1/calc/friction", security(()), tag = "calculators",
    request_body = FrictionInput,
    responses((status = 200, body = Friction), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn friction(Json(input): Json<FrictionInput>) -> Result<Json<Friction>> {
    Ok(Json(heavy(move || input.compute()).await?))
}

/// How a dough rises, cools and warms through its phases
#[utoipa::path(post, path = "/api/v1/calc/fermentation", security(()), tag = "calculators",
    request_body = FermentationInput,
    responses((status = 200, body = FermentationAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn fermentation(Json(input): Json<FermentationInput>) -> Result<Json<FermentationAnswer>> {
    Ok(Json(heavy(move || input.compute()).await?))
}

/// How fast a dough goes by readings of its rise, and when it will stand where
#[utoipa::path(post, path = "/api/v1/calc/rate-fit", security(()), tag = "calculators",
    request_body = RateFitInput,
    responses((status = 200, body = RateFit), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn rate_fit(Json(input): Json<RateFitInput>) -> Result<Json<RateFit>> {
    Ok(Json(heavy(move || input.compute()).await?))
}

/// How ripe a dough is, by a house index
#[utoipa::path(post, path = "/api/v1/calc/maturity", security(()), tag = "calculators",
    request_body = MaturityInput,
    responses((status = 200, body = Maturity), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn maturity(Json(input): Json<MaturityInput>) -> Result<Json<Maturity>> {
    Ok(Json(input.compute()?))
}

/// A starter's feed: when it is ripe, or the feed that is ripe at an hour
#[utoipa::path(post, path = "/api/v1/calc/starter-feed", security(()), tag = "calculators",
    request_body = RefreshmentInput,
    responses((status = 200, body = Refreshment), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn starter_feed(Json(input): Json<RefreshmentInput>) -> Result<Json<Refreshment>> {
    Ok(Json(heavy(move || input.compute(&Coefficients::default())).await?))
}

/// A bake's core temperatures read: crossings, arrival, the bake that meets the target
#[utoipa::path(post, path = "/api/v1/calc/bake-trace", security(()), tag = "calculators",
    request_body = BakeTraceInput,
    responses((status = 200, body = BakeTrace), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn bake_trace(Json(input): Json<BakeTraceInput>) -> Result<Json<BakeTrace>> {
    Ok(Json(heavy(move || input.compute(&Coefficients::default())).await?))
}

/// Whether a difference of marks is real
#[utoipa::path(post, path = "/api/v1/calc/score-difference", security(()), tag = "calculators",
    request_body = ScoreDifferenceInput,
    responses((status = 200, body = ScoreDifference), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn score_difference(
    Json(input): Json<ScoreDifferenceInput>,
) -> Result<Json<ScoreDifference>> {
    Ok(Json(input.compute()?))
}

/// Two judges beside one another, and their joint mark
#[utoipa::path(post, path = "/api/v1/calc/judges", security(()), tag = "calculators",
    request_body = JudgesInput,
    responses((status = 200, body = Judges), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn judges(Json(input): Json<JudgesInput>) -> Result<Json<Judges>> {
    Ok(Json(input.compute(&Coefficients::default())?))
}

/// The causes of a fault in order, with what speaks for and against each; house judgement
#[utoipa::path(post, path = "/api/v1/calc/diagnose", security(()), tag = "calculators",
    request_body = DiagnoseInput,
    responses((status = 200, body = Diagnosis), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn diagnosis(Json(input): Json<DiagnoseInput>) -> Result<Json<Diagnosis>> {
    Ok(Json(diagnose(&input.check()?, &Coefficients::default())))
}
