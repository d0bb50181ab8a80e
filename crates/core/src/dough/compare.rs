use std::borrow::Cow;

use serde::Serialize;

use super::{Formula, Ingredient, Library};

/// One thing that differs, or not, between two formulas.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ComparedLine {
    pub label: String,
    pub unit: &'static str,
    /// None where it was not in it.
    pub was: Option<f64>,
    pub is: Option<f64>,
    /// What changed; none where nothing did.
    pub delta: Option<f64>,
}

/// Compares two formulas line by line, flour by flour and part by part: what differs first, by how
/// much of what it was, then what does not.
pub fn compare(was: &Formula, is: &Formula, library: &Library) -> Vec<ComparedLine> {
    let (before, after) = (figures(was, library), figures(is, library));
    let mut keys: Vec<&Cow<'static, str>> = after.iter().map(|(key, ..)| key).collect();
    for (key, ..) in &before {
        if !keys.contains(&key) {
            keys.push(key);
        }
    }
    let find = |figures: &[Figure], key: &str| -> Option<f64> {
        figures.iter().find(|(one, ..)| one == key).map(|(.., value)| *value)
    };
    let mut rows: Vec<ComparedLine> = keys
        .into_iter()
        .map(|key| {
            let known = after.iter().chain(&before).find(|(one, ..)| one == key);
            let (label, unit) =
                known.map_or((String::new(), ""), |(_, label, unit, _)| (label.clone(), *unit));
            let (was, is) = (find(&before, key), find(&after, key));
            let delta = is.unwrap_or(0.0) - was.unwrap_or(0.0);
            let differs = was.is_some() != is.is_some() || delta.abs() > 1e-9;
            ComparedLine { label, unit, was, is, delta: differs.then_some(delta) }
        })
        .collect();
    let weight = |row: &ComparedLine| {
        row.delta.map_or(0.0, |delta| {
            let size = row.was.unwrap_or(0.0).abs().max(row.is.unwrap_or(0.0).abs());
            1.0 + (delta.abs() / size.max(f64::MIN_POSITIVE))
        })
    };
    rows.sort_by(|a, b| weight(b).total_cmp(&weight(a)));
    rows
}

type Figure = (Cow<'static, str>, String, &'static str, f64);

fn figures(formula: &Formula, library: &Library) -> Vec<Figure> {
    let label = |ingredient: Ingredient| library.properties(ingredient).label.to_string();
    let mut figures: Vec<Figure> = formula
        .additions()
        .map(|line| (line.ingredient.key(), label(line.ingredient), "%", line.pct))
        .collect();
    figures.extend(formula.flours().iter().map(|flour| {
        let key = Cow::Owned(format!("flour {}", flour.name));
        (key, flour.name.clone(), "% of the flour", flour.share_pct)
    }));
    for part in formula.parts() {
        let mut of = |what: &str, unit, value| {
            let name = format!("{what} in {}", part.name);
            figures.push((Cow::Owned(name.clone()), name, unit, value));
        };
        of("flour", "% of all flour", part.flour_pct);
        of("water", "% on all flour", part.water_pct);
        if let Some(rate) = part.rate {
            of("speed", "times the model's", rate);
        }
        for line in &part.lines {
            of(&label(line.ingredient), "%", line.pct);
        }
    }
    figures
}
