//! Arrows point one way, between crates, modules and files, and the picture shows them as they are.

use std::path::PathBuf;

use ironpeel_architecture::{
    Arrows, CORE, CRATES, Source, circle, file_arrows, module_arrows, picture, read,
};

fn crates() -> PathBuf {
    PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("..")
}

fn sources(name: &str) -> Vec<Source> {
    let sources = read(&crates().join(name).join("src")).expect("the crate's sources");
    assert!(sources.len() > 2, "{name} is read");
    sources
}

#[test]
fn crates_use_only_what_lies_below_them() {
    for (name, allowed) in CRATES {
        for source in sources(name) {
            for used in source.uses.iter().filter_map(|path| path[0].strip_prefix("ironpeel_")) {
                assert!(
                    used == name || allowed.contains(&used),
                    "{name}/{} uses {used}",
                    source.file
                );
            }
        }
    }
}

#[test]
fn modules_of_the_core_use_only_lower_ones() {
    let arrows = module_arrows(&sources("core"));
    let level = |name: &str| CORE.iter().position(|one| *one == name).expect(name);
    assert_eq!(arrows.len(), CORE.len(), "every module has its place: {:?}", arrows.keys());
    for (module, used) in &arrows {
        for used in used {
            assert!(level(used) < level(module), "{module} uses {used}, which lies above it");
        }
    }
}

#[test]
fn no_files_use_one_another_in_a_circle() {
    for (name, _) in CRATES {
        let found = circle(&file_arrows(&sources(name)));
        assert_eq!(found, None, "in {name}");
    }
}

#[test]
fn a_circle_is_found_and_a_file_behind_its_module_seen() {
    let arrows: Arrows = [("a", "b"), ("b", "c"), ("c", "b")]
        .map(|(from, to)| (from.to_owned(), [to.to_owned()].into()))
        .into();
    assert_eq!(circle(&arrows).expect("a circle"), ["b", "c", "b"]);
    let files = file_arrows(&sources("core"));
    let build_up = &files["water/build_up.rs"];
    assert!(build_up.contains("water/hold_back.rs"), "{build_up:?}");
    let base = &files["water/base_absorption.rs"];
    assert!(base.contains("flour/moisture.rs"), "{base:?}");
}

#[test]
fn the_picture_in_the_guide_is_of_today() {
    let guide = std::fs::read_to_string(crates().join("../CONTRIBUTING.md")).expect("the guide");
    let drawn = picture(&crates()).expect("it is drawn");
    assert!(guide.contains(&drawn), "run `make generate`; it is:\n{drawn}");
}
