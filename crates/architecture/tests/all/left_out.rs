//! What Cargo is told not to test holds no test.

use cargo_metadata::MetadataCommand;
use walkdir::WalkDir;

/// What is written in the sources beside a target's root file.
fn sources(root: &str) -> String {
    let src = std::path::Path::new(root).parent().expect("a folder");
    let files = WalkDir::new(src).into_iter().map(|entry| entry.expect("it can be read"));
    let rust = files.filter(|file| file.path().extension().is_some_and(|ending| ending == "rs"));
    rust.map(|file| std::fs::read_to_string(file.path()).expect("a source")).collect()
}

#[test]
fn a_crate_without_tests_of_its_own_has_none_that_nobody_runs() {
    let manifest = concat!(env!("CARGO_MANIFEST_DIR"), "/../../Cargo.toml");
    let metadata = MetadataCommand::new().manifest_path(manifest).no_deps().exec();
    let packages = metadata.expect("the workspace").packages;
    let (mut untested, mut without_examples) = (0, 0);
    for target in packages.iter().flat_map(|package| &package.targets) {
        let text = || sources(target.src_path.as_str());
        let is_library = target.is_lib();
        if is_library && !target.test {
            untested += 1;
            assert!(!text().contains("[test]"), "{} has a test that is not run", target.name);
        }
        if is_library && !target.doctest {
            without_examples += 1;
            assert!(!text().contains("/// ```"), "{} has an example that is not run", target.name);
        }
        if target.is_bin() && !target.test {
            let text = std::fs::read_to_string(&target.src_path).expect("a source");
            assert!(!text.contains("[test]"), "{} has a test that is not run", target.name);
        }
    }
    assert_eq!((untested, without_examples), (3, 4), "they are looked at");
}
