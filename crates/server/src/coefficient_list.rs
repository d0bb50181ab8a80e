use std::fmt::Write;

use ironpeel_core::coefficient::{Coefficient, Origin};
use ironpeel_core::plant::COEFFICIENTS;

/// Every coefficient as a document: by subject, with its band, unit, origin and reason.
pub fn coefficient_list() -> String {
    let mut list = String::from(
        "# Coefficients\n\nEvery number the computation rests on, as declared in \
         `crates/core/src/<subject>/coefficients.rs`; made by `make generate`. S a published standard, P \
         physics, H a house default. What a house default may be at a plant is under *Plant › \
         Coefficients*.\n",
    );
    for (subject, declared) in COEFFICIENTS {
        let _ = write!(
            list,
            "\n## {subject}\n\n| key | what | value | low to high | unit | origin | why |\n\
             |---|---|---|---|---|---|---|\n"
        );
        for one in declared {
            let _ = writeln!(list, "{}", row(one));
        }
    }
    list
}

fn row(one: &Coefficient) -> String {
    let Coefficient { key, name, value, low, high, unit, origin, source, .. } = one;
    let band = if low < high { format!("{low} to {high}") } else { String::new() };
    let origin = match origin {
        Origin::Standard => "S",
        Origin::Physics => "P",
        Origin::House | Origin::Plant | Origin::Learned | Origin::Choice => "H",
    };
    format!("| `{key}` | {name} | {value} | {band} | {unit} | {origin} | {source} |")
}
