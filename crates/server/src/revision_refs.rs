use ironpeel_store::BatchFlour;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

use crate::flour::LotView;
use crate::products::ProductView;

/// The revisions a dough is made from.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct RevisionRefs {
    pub lot_revision_id: Uuid,
    pub specification_revision_id: Uuid,
    pub formula_revision_id: Uuid,
    pub method_revision_id: Uuid,
    pub line_revision_id: Uuid,
    /// The plant's own parameters; the house's if left out.
    #[serde(default, alias = "numbers_revision_id")]
    pub parameters_revision_id: Option<Uuid>,
    /// A lot of each other flour of the formula, in any order.
    #[serde(default)]
    pub other_lots: Vec<BatchFlour>,
}

impl RevisionRefs {
    /// A product as it is now, made of these lots, the main flour's first; none where a flour has
    /// no lot or no specification.
    pub fn of(product: &ProductView, lots: &[Option<LotView>]) -> Option<Self> {
        let mut flours = lots.iter().map(|lot| {
            let lot = lot.as_ref()?;
            let specification = lot.certificate.specification.as_ref()?;
            Some(BatchFlour {
                lot_revision_id: lot.revision.id,
                specification_revision_id: specification.id,
            })
        });
        let main = flours.next()??;
        Some(Self {
            lot_revision_id: main.lot_revision_id,
            specification_revision_id: main.specification_revision_id,
            formula_revision_id: product.formula.revision.id,
            method_revision_id: product.method.revision.id,
            line_revision_id: product.line.revision.id,
            parameters_revision_id: product.parameters.as_ref().map(|own| own.id),
            other_lots: flours.collect::<Option<_>>()?,
        })
    }
}
