use ironpeel_core::dough::FormulaDraft;

use crate::problem::Result;
use crate::state::App;

/// A draft with the names its flours have now: they may have been renamed since it was written.
pub async fn current_names(app: &App, draft: &FormulaDraft) -> Result<FormulaDraft> {
    let mut draft = draft.clone();
    if !draft.flours.is_empty() {
        let earlier = app.store.earlier_flour_names().await?;
        draft.rename_flours(|name| earlier.get(name.trim()).cloned());
    }
    Ok(draft)
}
