//! Draws the house's arrows into CONTRIBUTING.md.

use std::path::Path;

use anyhow::{Context, Result};
use ironpeel_architecture::picture;

fn main() -> Result<()> {
    let house = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    let guide = house.join("CONTRIBUTING.md");
    let text = std::fs::read_to_string(&guide)?;
    let (before, rest) = text.split_once("```mermaid\n").context("the picture has no place")?;
    let (_, after) = rest.split_once("```\n").context("the picture has no end")?;
    std::fs::write(guide, format!("{before}{}{after}", picture(&house.join("crates"))?))?;
    Ok(())
}
