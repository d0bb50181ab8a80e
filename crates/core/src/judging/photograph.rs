use serde::{Deserialize, Serialize};

/// What a photograph of a sample shows.
///
/// ```
/// use ironpeel_core::judging::PhotographView;
/// assert_eq!(serde_json::to_string(&PhotographView::CutFace).unwrap(), "\"cut_face\"");
/// ```
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PhotographView {
    /// Cut through the middle, the crumb towards the camera.
    CutFace,
    /// As it came from the oven, from the side.
    WholeLoaf,
}
