use std::fmt::Write;
use std::path::Path;

use anyhow::Result;

use crate::{Arrows, CORE, CRATES, module_arrows, read};

/// The house in one picture: its crates, and in the core its modules, each with an arrow to what it
/// uses. An arrow that follows from others is left out. In the text that forges draw.
pub fn picture(crates: &Path) -> Result<String> {
    let mut drawn = String::from("```mermaid\nflowchart TB\n");
    let _ = writeln!(drawn, "    web[\"web: React, asks the server\"] --> server");
    for (name, uses) in CRATES {
        for used in uses {
            let _ = writeln!(drawn, "    {name} --> {used}");
        }
    }
    let core = module_arrows(&read(&crates.join("core/src"))?);
    drawn.push_str("    subgraph core[\"core: the computation\"]\n");
    for module in CORE {
        let used = core.get(module).into_iter().flatten();
        let used: Vec<&String> = used.filter(|used| !follows(module, used, &core)).collect();
        if used.is_empty() {
            let _ = writeln!(drawn, "        {module}");
        }
        for used in used {
            let _ = writeln!(drawn, "        {module} --> {used}");
        }
    }
    drawn.push_str("    end\n```\n");
    Ok(drawn)
}

/// Whether a module reaches another through a third as well.
fn follows(from: &str, to: &str, arrows: &Arrows) -> bool {
    let next = arrows.get(from).into_iter().flatten();
    next.into_iter().any(|third| third != to && reaches(third, to, arrows))
}

fn reaches(from: &str, to: &str, arrows: &Arrows) -> bool {
    let next = arrows.get(from).into_iter().flatten();
    next.into_iter().any(|third| third == to || reaches(third, to, arrows))
}
