use std::collections::BTreeSet;
use std::path::Path;

use anyhow::{Context, Result};
use syn::visit::{self, Visit};

/// A path of names, from the crate's root or from another crate's name.
pub type Names = Vec<String>;

/// One file of a crate and what it uses.
#[derive(Debug, Clone)]
pub struct Source {
    /// Under `src`, with its ending.
    pub file: String,
    /// Its place among the modules.
    pub path: Names,
    /// Everything it names of its own crate, from the root, and of the house's other crates.
    pub uses: BTreeSet<Names>,
    /// What a module's own file names of its files: each name, and the file's.
    named: Vec<(String, String)>,
}

impl Source {
    /// The module of the first level it belongs to; none of the crate's own root.
    pub fn module(&self) -> Option<&String> {
        self.path.first()
    }
}

/// Reads every file of a crate, its tests inside the files left out.
pub fn read(src: &Path) -> Result<Vec<Source>> {
    let files = walkdir::WalkDir::new(src).sort_by_file_name().into_iter();
    let mut sources = Vec::new();
    for entry in files {
        let entry = entry.context("a folder that cannot be read")?;
        if entry.path().extension().is_none_or(|kind| kind != "rs") {
            continue;
        }
        let file = entry.path().strip_prefix(src)?.display().to_string();
        let text = std::fs::read_to_string(entry.path())?;
        let parsed = syn::parse_file(&text).with_context(|| file.clone())?;
        let path = module_path(&file);
        let mut seen = Seen { path: path.clone(), uses: BTreeSet::new(), named: Vec::new() };
        seen.visit_file(&parsed);
        sources.push(Source { file, path, uses: seen.uses, named: seen.named });
    }
    Ok(sources)
}

/// `water/build_up.rs` is `water::build_up`, `water/mod.rs` is `water`, `lib.rs` the root.
fn module_path(file: &str) -> Names {
    let stem = file.trim_end_matches(".rs");
    let names = stem.split('/').filter(|name| !matches!(*name, "mod" | "lib" | "main"));
    names.map(str::to_owned).collect()
}

struct Seen {
    path: Names,
    uses: BTreeSet<Names>,
    named: Vec<(String, String)>,
}

impl Seen {
    /// A path as it is from the crate's root; none where it leads out of the house.
    fn absolute(&self, names: &[String]) -> Option<Names> {
        let mut rest = names;
        let mut from = match rest.first()?.as_str() {
            "crate" => Vec::new(),
            "self" | "super" => self.path.clone(),
            other if other.starts_with("ironpeel_") => return Some(names.to_vec()),
            _ => return None,
        };
        while let Some(first) =
            rest.first().filter(|name| matches!(name.as_str(), "crate" | "self" | "super"))
        {
            if first == "super" {
                from.pop();
            }
            rest = &rest[1..];
        }
        from.extend(rest.iter().cloned());
        Some(from)
    }

    fn tree(&mut self, tree: &syn::UseTree, before: &mut Names) {
        match tree {
            syn::UseTree::Path(path) => {
                before.push(path.ident.to_string());
                self.tree(&path.tree, before);
                before.pop();
            }
            syn::UseTree::Group(group) => {
                for tree in &group.items {
                    self.tree(tree, before);
                }
            }
            syn::UseTree::Name(name) => self.used(before, Some(name.ident.to_string())),
            syn::UseTree::Rename(name) => self.used(before, Some(name.ident.to_string())),
            syn::UseTree::Glob(_) => self.used(before, None),
        }
    }

    fn used(&mut self, before: &[String], last: Option<String>) {
        let names: Names = before.iter().cloned().chain(last.clone()).collect();
        if let Some(path) = self.absolute(&names) {
            self.uses.insert(path);
        } else if let ([file], Some(name)) = (before, last) {
            // `use build_up::AbsorptionBuildUp` in the module's own file.
            self.named.push((name, file.clone()));
        }
    }
}

impl<'ast> Visit<'ast> for Seen {
    fn visit_item_use(&mut self, item: &'ast syn::ItemUse) {
        self.tree(&item.tree, &mut Vec::new());
    }

    fn visit_path(&mut self, path: &'ast syn::Path) {
        let names: Names = path.segments.iter().map(|one| one.ident.to_string()).collect();
        if names.len() > 1
            && let Some(path) = self.absolute(&names)
        {
            self.uses.insert(path);
        }
        visit::visit_path(self, path);
    }

    fn visit_item_mod(&mut self, item: &'ast syn::ItemMod) {
        let is_test = item.attrs.iter().any(|attribute| match &attribute.meta {
            syn::Meta::List(list) => {
                list.path.is_ident("cfg") && list.tokens.to_string().contains("test")
            }
            _ => false,
        });
        if !is_test {
            visit::visit_item_mod(self, item);
        }
    }
}

/// The file in which a path's name is defined, as far as modules' own files say.
pub(crate) fn defined_in<'a>(sources: &'a [Source], path: &[String]) -> Option<&'a str> {
    // The longest part of it that is a file.
    let at = (1..=path.len()).rev().find_map(|length| {
        let found = sources.iter().find(|source| source.path == path[..length])?;
        Some((found, length))
    });
    let (source, length) = at?;
    let Some(name) = path.get(length) else { return Some(&source.file) };
    let inside = source.named.iter().find(|(named, _)| named == name);
    let Some((_, file)) = inside else { return Some(&source.file) };
    let deeper: Names = source.path.iter().chain([file]).cloned().collect();
    let whole: Names = deeper.iter().chain(&path[length..]).cloned().collect();
    defined_in(sources, &whole)
}
