//! No number of the job stands in a computation by itself: each is a declared coefficient, with its
//! band and origin, or stands in the table below with the reason why it is none.

use std::path::{Path, PathBuf};

use ironpeel_core::plant::COEFFICIENTS;
use proc_macro2::{Span, TokenStream, TokenTree};
use syn::visit::{self, Visit};

/// Files, or constants in them, whose numbers are no coefficients.
const NO_COEFFICIENTS: [(&str, &[&str], &str); 75] = [
    ("units/", &[], "reading numbers and times, and bisecting: nothing of a dough"),
    (
        "flour/names.rs",
        &[
            "FR_WHEAT",
            "DE_WHEAT",
            "DE_RYE",
            "DE_SPELT",
            "IT_WHEAT",
            "IT_PROTEIN",
            "US_WHEAT",
            "US_PATENT",
            "US_BREAD",
            "standing",
        ],
        "classes of national standards, by ash to two decimals",
    ),
    ("flour/property.rs", &[], "ranges a property can have, and the step it is stated to"),
    ("flour/farinograph.rs", &[], "ISO 5530-1"),
    ("flour/alveograph.rs", &[], "ISO 27971"),
    ("flour/falling_number.rs", &[], "ISO 3093"),
    ("flour/moisture.rs", &["FOURTEEN", "MOST_PCT"], "the basis of the standards"),
    ("flour/drift.rs", &["LAMBDA", "SIGMAS", "D2", "RUN"], "control charts of ISO 7870"),
    ("flour/smooth.rs", &[], "a spline through a trace"),
    ("flour/mapping.rs", &[], "dates and columns of a file"),
    ("flour/blend/mixture.rs", &["words"], "ranges of a property"),
    ("flour/blend/search.rs", &["LEAST_SCALE"], "a linear programme"),
    ("flour/blend.rs", &["NAME_MAX"], "length of a name"),
    ("flour/certificate.rs", &["METHOD_MAX"], "length of a method's name"),
    (
        "flour/suggest_limits.rs",
        &["usual", "MILLIONTHS"],
        "limits a specification starts from and states itself",
    ),
    ("flour/specification.rs", &["THOUSANDTHS"], "how finely a figure is said"),
    ("flour/sift.rs", &["SIEVE_PASSES"], "meshes, and what they hold back as a range"),
    ("dough/quantity.rs", &[], "units of mass and volume, and fractions as they are written"),
    ("dough/house_ingredients.rs", &[], "a plant has its own in the library"),
    ("dough/ingredient_properties.rs", &["DRY"], "of any dry ingredient, where none is stated"),
    ("dough/library.rs", &["HEAT", "PRICE", "check"], "ranges of what may be typed"),
    (
        "dough/round_to_resolution.rs",
        &["TEN_TIMES", "PARTS_OF_KG", "FINEST"],
        "divisions of scales",
    ),
    ("chain/line_template.rs", &[], "what a line starts from and states itself"),
    ("method/mixer.rs", &["MIXER_KINDS"], "what a line's mixer starts from and states itself"),
    ("trial/dough.rs", &[], "an intervention is what its name says; another size is another one"),
    (
        "ferment/curve.rs",
        &["EVERY_H", "STEP", "runge_kutta", "between"],
        "integration and interpolation",
    ),
    ("ferment/dough.rs", &["FASTEST", "SURFACE"], "a bound on speed, and geometry"),
    ("ferment/maturity.rs", &["WHOLE_WITHIN"], "what is called a whole"),
    (
        "ferment/fit.rs",
        &["RATES", "SECTIONS", "STEP", "GOLDEN", "LOOKS"],
        "a search by golden sections",
    ),
    ("ferment/rate_fit.rs", &["MOST_HOURS", "SLOWEST"], "bounds"),
    ("ferment/refreshment.rs", &["SHOWN", "DAYS_H", "FED"], "where a feed is sought"),
    ("ferment/solve.rs", &["YEAST"], "where a dose is sought"),
    ("method/dilution.rs", &["BENCH_SCALE_KG", "LEAST_WEIGHED"], "when a dilution is told"),
    ("flour/bag.rs", &["NAME_MAX"], "how long a name may be"),
    ("batch/comparison.rs", &["FIGURES"], "what is noticed where batches are compared"),
    ("batch/quantity.rs", &[], "what a reading can be, and degrees Fahrenheit"),
    ("batch/observation.rs", &[], "what an observation can be"),
    (
        "judging/variants.rs",
        &["CHANCE"],
        "the level of significance, as tables of the tests have it",
    ),
    ("judging/standard.rs", &["SUM"], "what typed figures may be off by rounding"),
    ("learn/learned_number.rs", &["HUGE", "TINY", "MOST", "GATE"], "what a request may hold"),
    (
        "learn/offer.rs",
        &["NINE_TENTHS", "CHANGE", "COUNTED"],
        "a band of 90 %, and what is called a change",
    ),
    (
        "chain/batch_fermentation.rs",
        &["AFTER_H", "COLD_H", "OUT_H", "NIGHTS_H", "REFRIGERATOR_C", "POINTS"],
        "how far a batch is looked ahead, and a refrigerator",
    ),
    ("chain/follow.rs", &["SLOWEST"], "where a speed is sought"),
    ("chain/rise.rs", &["ROOMS", "STRETCH"], "where a room and a time are sought"),
    ("chain/rise.rs", &["JAR_MARKS"], "what the jar is looked at for"),
    ("chain/stage_ends.rs", &["LOOKED_AT_H"], "how far a stage is looked ahead"),
    (
        "chain/target_rise.rs",
        &["ROOMS", "DOUGHS", "STARTERS", "SAME_C"],
        "where a room, a dough and a starter are sought",
    ),
    ("chain/mixing_rest.rs", &["ROUNDS"], "how often a balance is closed at most"),
    ("chain/way.rs", &["JAR_KG", "LOOKED_AT_H"], "the jar, and how far a sponge is looked ahead"),
    ("dough/by_amount.rs", &["CUP_ML"], "a unit of volume"),
    ("dough/piece_form.rs", &["CM3_PER_L", "MM_PER_CM"], "units of length and volume"),
    ("chain/sponge.rs", &["SAME_C"], "what is called the same temperature"),
    ("dough/edit.rs", &["PARTS_OF_PCT"], "how finely a percentage is kept"),
    ("flour/blend/lots.rs", &["WHOLE_WITHIN"], "what is called a whole"),
    ("lot/correction.rs", &["TENTHS", "HUNDREDTHS"], "how finely a target is begun"),
    ("chain/sponge.rs", &["range"], "where a sponge's number is sought"),
    ("chain/stoppage.rs", &["THIRDS"], "sponges an old one is spread over: the way's name"),
    ("chain/changes.rs", &["NOTHING"], "what is shown as no change"),
    ("chain/friction_factor.rs", &["MEASURED"], "temperatures the method counts"),
    (
        "chain/process_comparison.rs",
        &["CLOSE", "LOOKS", "THOUSAND"],
        "a search, and a unit of cost",
    ),
    ("chain/line.rs", &["HOT_AT_LEAST_C"], "what is called a hot tap"),
    ("heat/balance.rs", &["CLOSE_C"], "what is called on target"),
    (
        "schedule/",
        &["FEED_H", "RETARD_H", "COLD_STRETCH", "STEP_MIN", "FARTHEST_MIN", "CLOSE_MIN", "TRIES"],
        "what a plan tries",
    ),
    ("schedule/", &["DAY_MIN", "AROUND", "LEAST_MIN", "MOST_MIN", "minutes", "of"], "the clock"),
    ("fault/answer.rs", &["SHOWN"], "how many measurements are shown"),
    ("batch/report.rs", &["AFTER_A_STAGE"], "how long after a stage a reading is still of it"),
    (
        "fault/against_plan.rs",
        &["NO_TIME_OLDER_MIN", "RYE_CUT_LATER"],
        "how a figure is counted so that one threshold serves every dough: the catalogue's own",
    ),
    (
        "fault/own.rs",
        &["WEIGHTS", "RATIOS", "WEIGHT_WITHIN", "RATIO_WITHIN", "RAMPS", "HUNDREDTHS"],
        "how far a plant's own may lie from the house's judgement",
    ),
    ("fault/input.rs", &["MOST"], "what a request may hold"),
    (
        "judging/mod.rs",
        &["NINETEEN_IN_TWENTY", "MARKS"],
        "a normal distribution, and the sheet's scale",
    ),
    ("judging/judges.rs", &["LAST"], "loaves the sheet counts"),
    ("oven/bake_trace.rs", &["SAMPLES"], "what a request may hold"),
    (
        "oven/crossing.rs",
        &["MEDIAN_TO_SD", "BESIDE_TWO", "AVERAGES", "noise_c", "parabolas"],
        "a normal distribution, three neighbours, and how finely noise is averaged",
    ),
    ("water/base_absorption.rs", &["NO_DRIER"], "how finely a figure is said"),
    ("water/build_up.rs", &["THOUSANDTHS"], "how finely a figure is said"),
];

/// Numbers of a replaceable coefficient taken as the house has them: where no plant is asked.
const OF_THE_HOUSE: [&str; 4] = [
    "ferment/fermentation.rs",
    "flour/sift.rs",
    "heat/dough_temperature.rs",
    "water/absorption_model.rs",
];

struct Found {
    line: usize,
    number: String,
    /// The constants and functions it stands in, the innermost last.
    within: Vec<String>,
}

#[derive(Default)]
struct Literals {
    within: Vec<String>,
    found: Vec<Found>,
}

/// Counts and halves of any arithmetic, and what rounding may tear apart.
fn is_neutral(value: f64) -> bool {
    [0.0, 1.0, 2.0, 100.0].contains(&value) || (value > 0.0 && value <= 1e-6)
}

impl Literals {
    fn number(&mut self, digits: &str, span: Span) {
        let value: f64 = digits.parse().expect("a number");
        if !is_neutral(value) {
            let (line, number) = (span.start().line, digits.to_owned());
            self.found.push(Found { line, number, within: self.within.clone() });
        }
    }

    fn tokens(&mut self, tokens: TokenStream) {
        for token in tokens {
            match token {
                TokenTree::Group(group) => self.tokens(group.stream()),
                TokenTree::Literal(literal) => match syn::Lit::new(literal) {
                    syn::Lit::Int(lit) => self.number(lit.base10_digits(), lit.span()),
                    syn::Lit::Float(lit) => self.number(lit.base10_digits(), lit.span()),
                    _ => {}
                },
                _ => {}
            }
        }
    }

    fn inside(&mut self, name: &syn::Ident, walk: impl FnOnce(&mut Self)) {
        self.within.push(name.to_string());
        walk(self);
        self.within.pop();
    }
}

fn is_test(attributes: &[syn::Attribute]) -> bool {
    attributes.iter().any(|attribute| match &attribute.meta {
        syn::Meta::List(list) => list.path.is_ident("cfg") && list.tokens.to_string() == "test",
        _ => false,
    })
}

impl<'ast> Visit<'ast> for Literals {
    fn visit_lit_float(&mut self, lit: &'ast syn::LitFloat) {
        self.number(lit.base10_digits(), lit.span());
    }

    fn visit_lit_int(&mut self, lit: &'ast syn::LitInt) {
        self.number(lit.base10_digits(), lit.span());
    }

    fn visit_macro(&mut self, called: &'ast syn::Macro) {
        if !called.path.is_ident("coefficients") {
            self.tokens(called.tokens.clone());
        }
    }

    fn visit_expr_call(&mut self, call: &'ast syn::ExprCall) {
        let syn::Expr::Path(path) = &*call.func else { return visit::visit_expr_call(self, call) };
        let kinds = ["NumberRange", "Coefficient"];
        if !path
            .path
            .segments
            .first()
            .is_some_and(|first| kinds.iter().any(|kind| first.ident == kind))
        {
            visit::visit_expr_call(self, call);
        }
    }

    fn visit_item_const(&mut self, item: &'ast syn::ItemConst) {
        // How many or how long something typed may be.
        let limits = ["MOST", "LEAST", "LONGEST"];
        let name = item.ident.to_string();
        let whole = matches!(&*item.ty, syn::Type::Path(path) if path.path.is_ident("usize") || name == "MOST_DAYS" || name == "MOST_PIECES");
        if !(whole && limits.iter().any(|limit| name.starts_with(limit))) {
            self.inside(&item.ident, |within| visit::visit_item_const(within, item));
        }
    }

    fn visit_item_static(&mut self, item: &'ast syn::ItemStatic) {
        self.inside(&item.ident, |within| visit::visit_item_static(within, item));
    }

    fn visit_item_fn(&mut self, item: &'ast syn::ItemFn) {
        self.inside(&item.sig.ident, |within| visit::visit_item_fn(within, item));
    }

    fn visit_impl_item_fn(&mut self, item: &'ast syn::ImplItemFn) {
        self.inside(&item.sig.ident, |within| visit::visit_impl_item_fn(within, item));
    }

    fn visit_impl_item_const(&mut self, item: &'ast syn::ImplItemConst) {
        self.inside(&item.ident, |within| visit::visit_impl_item_const(within, item));
    }

    fn visit_item_mod(&mut self, item: &'ast syn::ItemMod) {
        if !is_test(&item.attrs) {
            visit::visit_item_mod(self, item);
        }
    }

    fn visit_expr_repeat(&mut self, repeat: &'ast syn::ExprRepeat) {
        self.visit_expr(&repeat.expr);
    }

    fn visit_type_array(&mut self, _: &'ast syn::TypeArray) {}

    fn visit_attribute(&mut self, _: &'ast syn::Attribute) {}
}

/// Each source file by its path under `src`, with its text.
fn sources() -> Vec<(String, String)> {
    let source: PathBuf = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let files = walkdir::WalkDir::new(&source).sort_by_file_name().into_iter();
    files
        .map(|entry| entry.expect("a readable folder").into_path())
        .filter(|path| path.extension().is_some_and(|kind| kind == "rs"))
        .map(|path| {
            let text = std::fs::read_to_string(&path).expect("a readable file");
            (path.strip_prefix(&source).expect("under it").display().to_string(), text)
        })
        .collect()
}

fn is_declaration(name: &str) -> bool {
    name.ends_with("coefficients.rs")
}

#[test]
fn every_number_of_the_job_is_a_declared_coefficient() {
    let mut bare = Vec::new();
    let mut used = [false; NO_COEFFICIENTS.len()];
    for (name, text) in sources().iter().filter(|(name, _)| !is_declaration(name)) {
        let mut literals = Literals::default();
        literals.visit_file(&syn::parse_file(text).expect("Rust"));
        for Found { line, number, within } in literals.found {
            let allowed = NO_COEFFICIENTS.iter().position(|(path, names, _)| {
                name.starts_with(path)
                    && (names.is_empty() || within.iter().any(|one| names.contains(&one.as_str())))
            });
            match allowed {
                Some(at) => used[at] = true,
                None => bare.push(format!("{name}:{line}: {number} in {within:?}")),
            }
        }
    }
    assert!(
        bare.is_empty(),
        "declare them in their subject's coefficients.rs:\n{}",
        bare.join("\n")
    );
    let idle: Vec<_> =
        NO_COEFFICIENTS.iter().zip(used).filter(|(_, used)| !used).map(|(one, _)| one).collect();
    assert!(idle.is_empty(), "nothing is left of these: {idle:?}");
}

/// Names of the statics a subject declares, beside their keys.
fn declared() -> Vec<(String, String)> {
    let files = sources();
    let mut found = Vec::new();
    for (_, text) in files.iter().filter(|(name, _)| is_declaration(name)) {
        let tokens = text.parse::<TokenStream>().expect("Rust");
        declared_in(tokens, &mut found);
    }
    found
}

/// `NAME = … "key" …;`, wherever it stands.
fn declared_in(tokens: TokenStream, found: &mut Vec<(String, String)>) {
    let tokens: Vec<TokenTree> = tokens.into_iter().collect();
    for (at, pair) in tokens.windows(2).enumerate() {
        if let [TokenTree::Ident(name), TokenTree::Punct(equals)] = pair
            && equals.as_char() == '='
            && name != "_"
            && name.to_string().chars().all(|letter| !letter.is_lowercase())
        {
            let call = tokens[at..].iter().find_map(|token| match token {
                TokenTree::Group(group) => group.stream().into_iter().next(),
                _ => None,
            });
            let key = call.map(|key| key.to_string().trim_matches('"').to_owned());
            found.push((name.to_string(), key.unwrap_or_default()));
        }
    }
    for token in tokens {
        if let TokenTree::Group(group) = token {
            declared_in(group.stream(), found);
        }
    }
}

/// Whether a text says something as words of its own, not as part of longer ones.
fn says(text: &str, wanted: &str) -> bool {
    let is_part = |one: char| one.is_alphanumeric() || one == '_';
    text.match_indices(wanted).any(|(at, _)| {
        let (before, after) = (&text[..at], &text[at + wanted.len()..]);
        !before.chars().next_back().is_some_and(is_part)
            && (wanted.ends_with('.') || !after.chars().next().is_some_and(is_part))
    })
}

#[test]
fn every_coefficient_is_listed_and_used_as_the_plant_has_it() {
    let listed: Vec<_> = COEFFICIENTS.iter().flat_map(|(_, of)| of.iter()).collect();
    let (declared, files) = (declared(), sources());
    let unlisted: Vec<_> =
        declared.iter().filter(|(_, key)| !listed.iter().any(|one| one.key == *key)).collect();
    assert!(unlisted.is_empty() && declared.len() == listed.len(), "not listed: {unlisted:?}");
    for (name, key) in &declared {
        let times = declared.iter().filter(|(other, _)| other == name).count();
        assert_eq!(times, 1, "{name} is declared by two subjects");
        let one =
            listed.iter().find(|one| one.key == *key).unwrap_or_else(|| panic!("{name}: {key}"));
        let somewhere = files.iter().any(|(_, text)| {
            let uses = [format!("&{name}"), format!("&c::{name}"), format!("{name}.")];
            uses.iter().any(|wanted| says(text, wanted))
        });
        assert!(somewhere, "{name} is used by nothing");
        if one.is_replaceable() {
            let past: Vec<_> = files
                .iter()
                .filter(|(file, text)| {
                    !is_declaration(file)
                        && !OF_THE_HOUSE.contains(&file.as_str())
                        && says(text, &format!("{name}.value"))
                })
                .map(|(file, _)| file)
                .collect();
            assert!(past.is_empty(), "{name} is read past the plant's own in {past:?}");
        }
    }
}
