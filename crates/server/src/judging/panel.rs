use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::judging::{Panel, ProductStandard, Sheet, panel};
use ironpeel_store::{BatchSeen, Score};
use uuid::Uuid;

use super::standard::newest_standard;
use crate::problem::Result;
use crate::state::App;

/// Sheets of a product that say how its judges mark.
pub const EARLIER_SHEETS: u8 = 240;

/// What a product's sheets are put together by.
pub struct JudgedBy {
    pub standard: ProductStandard,
    /// Of the product's other batches.
    pub earlier: Vec<Sheet>,
    pub coefficients: Coefficients,
}

impl JudgedBy {
    pub async fn load(app: &App, product_id: Uuid, batch_id: Option<Uuid>) -> Result<Self> {
        let most = EARLIER_SHEETS.into();
        let earlier = app.store.earlier_scores(product_id, batch_id, most).await?;
        Ok(Self {
            standard: newest_standard(app, product_id).await?,
            earlier: earlier.iter().map(Score::sheet).collect(),
            coefficients: app.parameters().await?.coefficients,
        })
    }

    /// The judges together; none where nobody judged.
    pub fn panel(&self, scores: &[Score]) -> Option<Panel> {
        let sheets: Vec<Sheet> = scores.iter().map(Score::sheet).collect();
        panel(&sheets, &self.earlier, &self.standard, &self.coefficients)
    }
}

/// What of them lists and learning ask for.
pub fn seen_by_judges(panel: Option<&Panel>, before: BatchSeen) -> BatchSeen {
    BatchSeen {
        score: panel.and_then(|panel| panel.total.total),
        crumb_is_low: panel.is_some_and(|panel| panel.crumb_is_low),
        ..before
    }
}
