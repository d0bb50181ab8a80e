//! What the product is made of: licences it may be shipped with, and no part twice without need.

use std::collections::{BTreeMap, BTreeSet};
use std::path::Path;

use cargo_metadata::MetadataCommand;
use serde_json::Value;
use spdx::{Expression, LicenseItem};

/// Licences that ask no more than to be named.
const LICENCES: [&str; 12] = [
    "0BSD",
    "Apache-2.0",
    "BSD-2-Clause",
    "BSD-3-Clause",
    "BSL-1.0",
    "CC0-1.0",
    "ISC",
    "MIT",
    "OFL-1.1",
    "Unicode-3.0",
    "Unlicense",
    "Zlib",
];

fn is_allowed(expression: &str) -> bool {
    let parsed = Expression::parse_mode(expression, spdx::ParseMode::LAX);
    parsed.is_ok_and(|parsed| {
        parsed.evaluate(|asked| match &asked.license {
            LicenseItem::Spdx { id, .. } => LICENCES.contains(&id.name),
            LicenseItem::Other { .. } => false,
        })
    })
}

fn house() -> std::path::PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..")
}

fn crates() -> cargo_metadata::Metadata {
    let manifest = house().join("Cargo.toml");
    // What other machines would compile in is nobody's here.
    let here = format!("{}-unknown-linux-gnu", std::env::consts::ARCH);
    let here = ["--filter-platform".to_owned(), here];
    let metadata = MetadataCommand::new().manifest_path(manifest).other_options(here).exec();
    metadata.expect("cargo knows the workspace")
}

#[test]
fn a_licence_that_asks_for_more_is_not_allowed() {
    assert!(is_allowed("MIT OR Apache-2.0") && is_allowed("MIT/Apache-2.0"));
    assert!(!is_allowed("GPL-3.0-only") && !is_allowed("MIT AND AGPL-3.0-only"));
    assert!(!is_allowed(""));
}

#[test]
fn every_crate_may_be_shipped() {
    let metadata = crates();
    assert!(metadata.packages.len() > 100, "the whole tree is looked at");
    let mut odd = Vec::new();
    for package in metadata.packages.iter().filter(|package| package.source.is_some()) {
        let licence = package.license.as_deref().unwrap_or_default();
        if !is_allowed(licence) {
            odd.push(format!("{} {}: {licence:?}", package.name, package.version));
        }
    }
    assert!(odd.is_empty(), "{odd:#?}");
}

#[test]
fn every_package_of_the_interface_may_be_shipped() {
    let lock = std::fs::read_to_string(house().join("web/package-lock.json")).expect("the lock");
    let lock: Value = serde_json::from_str(&lock).expect("JSON");
    let packages = lock["packages"].as_object().expect("packages");
    let shipped =
        packages.iter().filter(|(path, package)| !path.is_empty() && package["dev"] != true);
    let shipped: Vec<_> = shipped.collect();
    assert!(shipped.len() > 20, "{}", shipped.len());
    for (path, package) in shipped {
        let licence = package["license"].as_str().unwrap_or_default();
        assert!(is_allowed(licence), "{path}: {licence:?}");
    }
}

/// Crates of which two versions are compiled in because others ask for them.
const TWICE: usize = 22;

#[test]
fn hardly_a_crate_is_compiled_in_twice() {
    let mut versions: BTreeMap<String, BTreeSet<String>> = BTreeMap::new();
    for package in crates().packages {
        versions.entry(package.name.to_string()).or_default().insert(package.version.to_string());
    }
    let twice: Vec<_> = versions.iter().filter(|(_, versions)| versions.len() > 1).collect();
    assert!(twice.len() <= TWICE, "{} crates more than once: {twice:#?}", twice.len());
}
