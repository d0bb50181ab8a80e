use ironpeel_store::BatchFlour;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// The revisions a dough is made from.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct RevisionRefs {
    pub lot_revision_id: Uuid,
    /// Nothing is asked of the flour if left out.
    #[serde(default)]
    pub specification_revision_id: Option<Uuid>,
    pub formula_revision_id: Uuid,
    pub method_revision_id: Uuid,
    pub line_revision_id: Uuid,
    /// The plant's own parameters; the house's if left out.
    #[serde(default, alias = "numbers_revision_id")]
    pub parameters_revision_id: Option<Uuid>,
    /// The water correction of the line that was taken over; none if left out.
    #[serde(default)]
    pub water_correction_id: Option<Uuid>,
    /// A lot of each other flour of the formula, in any order.
    #[serde(default)]
    pub other_lots: Vec<BatchFlour>,
}
