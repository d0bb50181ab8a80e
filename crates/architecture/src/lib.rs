//! The arrows of the house, read off its sources.
//!
//! A crate is read file by file: what each uses of its own crate and of the others. Modules are a
//! crate's first level; an arrow goes from who uses to what is used. A module's `mod.rs` that only
//! names what its files have is looked through, so that a circle of files is seen behind it.

mod picture;
mod source;

pub use picture::picture;
pub use source::{Source, read};

use std::collections::{BTreeMap, BTreeSet};

/// The modules of the core, lowest first: each uses only those before it.
pub const CORE: [&str; 18] = [
    "units",
    "coefficient",
    "flour",
    "dough",
    "water",
    "heat",
    "ferment",
    "method",
    "schedule",
    "batch",
    "learn",
    "oven",
    "judging",
    "fault",
    "plant",
    "lot",
    "chain",
    "trial",
];

/// Each crate with the crates of the house it may use.
pub const CRATES: [(&str, &[&str]); 4] = [
    ("core", &[]),
    ("store", &["core"]),
    ("instruments", &["core"]),
    ("server", &["core", "store", "instruments"]),
];

/// Who uses whom.
pub type Arrows = BTreeMap<String, BTreeSet<String>>;

/// The arrows between modules of a crate.
pub fn module_arrows(sources: &[Source]) -> Arrows {
    let mut arrows = Arrows::new();
    for source in sources {
        let used = source.uses.iter().filter_map(|path| path.first());
        let known = used.filter(|name| sources.iter().any(|other| other.module() == Some(name)));
        let Some(module) = source.module() else { continue };
        let others = known.filter(|name| *name != module).cloned();
        arrows.entry(module.to_owned()).or_default().extend(others);
    }
    arrows
}

/// The arrows between files of a crate. What a module's own file defines is the vocabulary of the
/// files under it, so that no arrow goes there.
pub fn file_arrows(sources: &[Source]) -> Arrows {
    sources
        .iter()
        .map(|source| {
            let used = source.uses.iter().filter_map(|path| source::defined_in(sources, path));
            let used = used.filter(|file| *file != source.file && !file.ends_with("mod.rs"));
            (source.file.clone(), used.map(str::to_owned).collect())
        })
        .collect()
}

/// A circle of arrows, where there is one: who uses whom, back to the first.
pub fn circle(arrows: &Arrows) -> Option<Vec<String>> {
    let mut done = BTreeSet::new();
    arrows.keys().find_map(|start| walk(start, arrows, &mut Vec::new(), &mut done))
}

fn walk(
    at: &str,
    arrows: &Arrows,
    way: &mut Vec<String>,
    done: &mut BTreeSet<String>,
) -> Option<Vec<String>> {
    if let Some(first) = way.iter().position(|one| one == at) {
        return Some(way[first..].iter().cloned().chain([at.to_owned()]).collect());
    }
    if done.contains(at) {
        return None;
    }
    way.push(at.to_owned());
    let next = arrows.get(at).into_iter().flatten();
    let found = next.into_iter().find_map(|next| walk(next, arrows, way, done));
    way.pop();
    done.insert(at.to_owned());
    found
}
