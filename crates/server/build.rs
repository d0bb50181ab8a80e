//! What is embedded is found by its folder's own path, so that has to be there when it is compiled.

fn main() {
    let dist = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/dist");
    std::fs::create_dir_all(dist).expect("the front end's folder can be made");
    // A debug build reads it as it is.
    let release = std::env::var("PROFILE").is_ok_and(|profile| profile == "release");
    println!("cargo::rerun-if-changed={}", if release { dist } else { "build.rs" });
}
