//! Formulas and methods to begin with, a family each.

use std::sync::LazyLock;

use ironpeel_core::chain::ScenarioFormula;
use ironpeel_core::dough::{Formula, FormulaDraft, Losses};
use ironpeel_core::flour::{Hardness, Species};
use ironpeel_core::method::{Method, Process, Stage};
use ironpeel_core::units::ValidationErrors;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(all))
}

/// A formula and a method of a family. Its flours are words for what is wanted, to be replaced by
/// flours on record.
#[derive(Debug, Clone, Deserialize)]
pub struct Template {
    pub key: String,
    pub name: String,
    /// What it is good for.
    pub message: String,
    /// Each flour wanted: what it is called here, and its grain.
    pub wants: Vec<FlourWanted>,
    #[serde(flatten)]
    pub draft: FormulaDraft,
    pub style_points: f64,
    pub piece_kg: f64,
    pub bake_loss_pct: f64,
    pub process: Process,
    pub target_c: f64,
    pub machine_divided: bool,
    pub stages: Vec<Stage>,
}

/// A flour a template wants.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub struct FlourWanted {
    pub name: String,
    pub species: Species,
    /// Whether whole grain is meant.
    pub whole: bool,
    /// What its strength asks of the kernel; any if left out.
    pub hardness: Option<Hardness>,
}

static TEMPLATES: LazyLock<Vec<Template>> = LazyLock::new(|| {
    serde_json::from_str(include_str!("../../templates.json")).expect("checked by a test")
});

/// Every template.
pub fn templates() -> &'static [Template] {
    &TEMPLATES
}

/// The template of this word.
pub fn template(key: &str) -> Option<&'static Template> {
    TEMPLATES.iter().find(|template| template.key == key)
}

impl Template {
    /// The formula with flours on record in the places of those wanted, one for each.
    pub fn formula(&self, flours: &[String]) -> Result<ScenarioFormula, ValidationErrors> {
        let mut draft = self.draft.clone();
        let named = |name: &str| {
            let at = self.wants.iter().position(|wanted| wanted.name == name);
            at.and_then(|at| flours.get(at)).cloned().unwrap_or_else(|| name.to_owned())
        };
        for share in &mut draft.flours {
            share.name = named(&share.name);
        }
        for part in &mut draft.parts {
            part.flour = part.flour.as_deref().map(named);
        }
        Ok(ScenarioFormula {
            formula: Formula::check(&draft)?,
            style_points: self.style_points,
            piece_kg: self.piece_kg,
            losses: Losses { bake_pct: self.bake_loss_pct, ..Losses::house() },
            hydration_pct: None,
            batch_kg: None,
        })
    }

    pub fn method(&self) -> Method {
        Method {
            process: self.process,
            target_c: self.target_c,
            sponge_c: None,
            machine_divided: self.machine_divided,
            stages: self.stages.clone(),
        }
    }
}

/// A template as it is offered.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct TemplateView {
    key: &'static str,
    name: &'static str,
    message: &'static str,
    wants: &'static [FlourWanted],
    process_label: &'static str,
    piece_kg: f64,
    /// From the first water to the end.
    total_min: f64,
}

/// Formulas and methods to begin with
#[utoipa::path(get, path = "/api/v1/templates", security(("session" = ["read"])), tag = "formula", responses((status = 200, body = Vec<TemplateView>)))]
async fn all() -> Json<Vec<TemplateView>> {
    let view = |template: &'static Template| TemplateView {
        key: &template.key,
        name: &template.name,
        message: &template.message,
        wants: &template.wants,
        process_label: template.process.label(),
        piece_kg: template.piece_kg,
        total_min: template.method().total_min(),
    };
    Json(templates().iter().map(view).collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_template_makes_a_dough_by_its_method() {
        let mut seen = Vec::new();
        for template in templates() {
            assert!(!seen.contains(&&template.key), "{} stands twice", template.key);
            seen.push(&template.key);
            let flours: Vec<String> =
                (0..template.wants.len()).map(|at| format!("flour {at}")).collect();
            let formula = template.formula(&flours).expect(&template.key).formula;
            assert_eq!(formula.flours().len(), if flours.len() > 1 { flours.len() } else { 0 });
            assert!(
                formula.flours().iter().all(|flour| flours.contains(&flour.name)),
                "{formula:?}"
            );
            for stage in &template.stages {
                assert!(!stage.ends_when.is_empty(), "{}: {}", template.key, stage.label);
            }
        }
        assert_eq!(seen.len(), 9);
    }
}
