//! Every schema of the OpenAPI document has a name of its own: two types of one name would be one
//! schema, silently.

use std::collections::HashMap;
use std::fs;
use std::path::{Path, PathBuf};

fn sources(folder: &Path, found: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(folder).expect("a folder") {
        let path = entry.expect("an entry").path();
        if path.is_dir() {
            sources(&path, found);
        } else if path.extension().is_some_and(|extension| extension == "rs") {
            found.push(path);
        }
    }
}

/// The names under which a file's types stand in the document.
fn names(text: &str) -> Vec<String> {
    let mut found = Vec::new();
    let mut derives = false;
    let mut renamed = None;
    for line in text.lines().map(str::trim) {
        if line.starts_with("#[") {
            derives |= line.contains("ToSchema)");
            if let Some((_, rest)) = line.split_once("schema(as = ") {
                renamed = rest.split(')').next().map(str::to_owned);
            }
        } else if !line.starts_with("//") {
            let mut words = line.split_whitespace().skip_while(|word| word.starts_with("pub"));
            if derives && matches!(words.next(), Some("struct" | "enum")) {
                let name = words.next().expect("a type has a name");
                let name = name.trim_end_matches(['{', ';', ' ']);
                found.push(renamed.take().unwrap_or_else(|| name.to_owned()));
            }
            derives = false;
            renamed = None;
        }
    }
    found
}

#[test]
fn no_two_types_stand_in_the_document_under_one_name() {
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).join("..");
    let mut files = Vec::new();
    for each in ["core/src", "server/src", "store/src"] {
        sources(&crates.join(each), &mut files);
    }
    let mut seen: HashMap<String, PathBuf> = HashMap::new();
    for file in files {
        for name in names(&fs::read_to_string(&file).expect("text")) {
            if let Some(other) = seen.insert(name.clone(), file.clone()) {
                panic!("{name} stands in {} and in {}", other.display(), file.display());
            }
        }
    }
    assert!(seen.len() > 150, "only {} were found", seen.len());
    assert!(seen.contains_key("Chain") && seen.contains_key("DelayedAmount"));
}
