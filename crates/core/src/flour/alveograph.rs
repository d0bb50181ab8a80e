use serde::{Deserialize, Serialize};

use crate::units::{NumberRange, Series, ValidationErrors, check_equal, check_rising};

const MOST_CURVES: usize = 10;
const LEAST_POINTS: usize = 20;
const MOST_POINTS: usize = 200_000;
/// The pressure falls by more than this share within [`FALL_MM`] when the bubble bursts.
const FALL: f64 = 0.30;
const FALL_MM: f64 = 1.0;
/// Until it falls by more than this it has not begun to.
const BEGUN: f64 = 0.10;
/// A curve whose length is further than this from the median is left out.
pub(super) const STRAY: f64 = 0.25;
/// Where the elasticity index is read, mm.
const ELASTIC_MM: f64 = 40.0;

const LENGTH: NumberRange = NumberRange::new("l_mm", "length", "mm", 0.0, 1000.0);
const PRESSURE: NumberRange = NumberRange::new("p_mmh2o", "pressure", "mmH2O", -50.0, 1000.0);

/// One bubble, as a caller gave it.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AlveogramCurveInput {
    /// Rising from 0, 20 or more values.
    #[serde(default)]
    pub l_mm: Series,
    /// A value for each length.
    #[serde(default)]
    pub p_mmh2o: Series,
}

/// What the `alveograph` calculator is asked.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AlveographInput {
    /// 1 to 10 curves of one sample.
    #[serde(default)]
    pub curves: Option<Vec<AlveogramCurveInput>>,
}

/// What one bubble says.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AlveogramCurve {
    /// Counted from 1, as on the sheet.
    pub curve: usize,
    pub p_mmh2o: f64,
    pub l_mm: f64,
    pub g: f64,
    pub w: f64,
    /// None where the bubble burst as it began.
    pub p_over_l: Option<f64>,
    /// None where the bubble burst before 40 mm.
    pub ie_pct: Option<f64>,
    /// The pressure just before it burst.
    pub rupture_mmh2o: f64,
    pub left_out: bool,
}

/// What an alveogram says: the means of the curves kept, and each curve's own.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AlveographAnswer {
    pub p_mmh2o: f64,
    pub l_mm: f64,
    pub g: f64,
    pub w: f64,
    pub p_over_l: Option<f64>,
    pub ie_pct: Option<f64>,
    pub curves: Vec<AlveogramCurve>,
    /// Curves left out of the means, counted from 1.
    pub left_out: Vec<usize>,
    pub notes: Vec<AlveogramNote>,
}

/// What a reader of the curves has to know; curves are counted from 1.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum AlveogramNote {
    NoRupture {
        curve: usize,
    },
    LeftOut {
        curve: usize,
        l_mm: f64,
        median_mm: f64,
    },
    /// None is left to trust.
    CurvesDisagree,
}

/// One bubble, checked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Curve<'a> {
    l_mm: &'a [f64],
    p_mmh2o: &'a [f64],
}

impl AlveographInput {
    /// Checks every curve, then reads them.
    pub fn compute(&self) -> Result<AlveographAnswer, ValidationErrors> {
        Ok(read_curves(&self.check()?))
    }

    /// The curves, if every one can be used.
    pub fn check(&self) -> Result<Vec<Curve<'_>>, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let given = self.curves.as_deref().unwrap_or_default();
        if given.is_empty() || given.len() > MOST_CURVES {
            faults.push(
                "curves",
                format!(
                    "an alveogram has from 1 to {MOST_CURVES} curves; {} were given",
                    given.len()
                ),
            );
        }
        let curves = given.iter().take(MOST_CURVES).enumerate().map(|(number, curve)| {
            let at = format!("curves[{number}].");
            let count = LEAST_POINTS..=MOST_POINTS;
            let l_mm = LENGTH.check_all(&curve.l_mm, count.clone(), &at, &mut faults);
            let p_mmh2o = PRESSURE.check_all(&curve.p_mmh2o, count, &at, &mut faults);
            let field = format!("{at}l_mm");
            if l_mm.first().is_some_and(|first| *first != 0.0) {
                faults
                    .push(&field, format!("length must rise from 0 mm; it starts at {}", l_mm[0]));
            }
            check_rising(l_mm, &field, "length", "mm", &mut faults);
            check_equal((&format!("{at}p_mmh2o"), p_mmh2o), ("l_mm", l_mm), &mut faults);
            if p_mmh2o.iter().all(|p| *p <= 0.0) && !p_mmh2o.is_empty() {
                faults.push(format!("{at}p_mmh2o"), "pressure never rises above 0 mmH2O");
            }
            Curve { l_mm, p_mmh2o }
        });
        let curves = curves.collect();
        faults.or(curves)
    }
}

/// Reads an alveogram (ISO 27971).
///
/// The bubble bursts at the last sample before the pressure falls by more than 30 % within 1 mm.
/// P is the highest pressure, L the length at rupture, `G = 2.226 √L`, `W = 6.54 · S` with S in cm²
/// under the curve to rupture drawn with heights of `p/1.1` mm, `Ie = 100 · P(40 mm)/P`. A curve
/// whose L is more than 25 % from the median is left out and named. W is in 10⁻⁴ J.
///
/// ```
/// use ironpeel_core::flour::{AlveogramCurveInput, AlveographInput, read_curves};
/// let l: Vec<f64> = (0..=110).map(f64::from).collect();
/// let p: Vec<f64> = l.iter().map(|l| if *l <= 100.0 { 11.0 * l.min(5.0) } else { 0.0 }).collect();
/// let curve = AlveogramCurveInput { l_mm: l.into(), p_mmh2o: p.into() };
/// let read = read_curves(&AlveographInput { curves: Some(vec![curve]) }.check()?);
/// assert_eq!((read.p_mmh2o, read.l_mm), (55.0, 100.0));
/// // 50 mm high over 95 mm, and the wedge before: 48.75 cm².
/// assert!((read.w - 6.54 * 48.75).abs() < 1e-9);
/// # Ok::<(), ironpeel_core::units::ValidationErrors>(())
/// ```
pub fn read_curves(curves: &[Curve<'_>]) -> AlveographAnswer {
    let mut notes = Vec::new();
    let mut bubbles: Vec<AlveogramCurve> = (1..)
        .zip(curves)
        .map(|(number, curve)| {
            let (bubble, burst) = curve.read(number);
            if !burst {
                notes.push(AlveogramNote::NoRupture { curve: number });
            }
            bubble
        })
        .collect();
    let median = median(bubbles.iter().map(|bubble| bubble.l_mm).collect());
    for bubble in &mut bubbles {
        bubble.left_out = (bubble.l_mm - median).abs() > STRAY * median;
        if bubble.left_out {
            let (curve, l_mm) = (bubble.curve, bubble.l_mm);
            notes.push(AlveogramNote::LeftOut { curve, l_mm, median_mm: median });
        }
    }
    // Two curves that disagree are both as far from their median; none is left to trust.
    if bubbles.iter().all(|bubble| bubble.left_out) {
        notes = vec![AlveogramNote::CurvesDisagree];
        for bubble in &mut bubbles {
            bubble.left_out = false;
        }
    }
    let mean = |of: fn(&AlveogramCurve) -> Option<f64>| {
        let kept = bubbles.iter().filter(|bubble| !bubble.left_out).filter_map(of);
        let (sum, count) = kept.fold((0.0, 0.0), |(sum, count), value| (sum + value, count + 1.0));
        (count > 0.0).then(|| sum / count)
    };
    let known = |of| mean(of).unwrap_or_default();
    AlveographAnswer {
        p_mmh2o: known(|bubble| Some(bubble.p_mmh2o)),
        l_mm: known(|bubble| Some(bubble.l_mm)),
        g: known(|bubble| Some(bubble.g)),
        w: known(|bubble| Some(bubble.w)),
        p_over_l: mean(|bubble| bubble.p_over_l),
        ie_pct: mean(|bubble| bubble.ie_pct),
        left_out: bubbles.iter().filter(|one| one.left_out).map(|one| one.curve).collect(),
        curves: bubbles,
        notes,
    }
}

impl Curve<'_> {
    /// The bubble, and whether it was seen to burst.
    fn read(&self, curve: usize) -> (AlveogramCurve, bool) {
        let (l, p) = (self.l_mm, self.p_mmh2o);
        let top = (0..p.len()).max_by(|a, b| p[*a].total_cmp(&p[*b])).unwrap_or(0);
        let rupture = self.rupture_after(top);
        let end = rupture.unwrap_or(l.len() - 1);
        let area_mm2: f64 = l[..=end]
            .windows(2)
            .zip(p[..=end].windows(2))
            .map(|(l, p)| (l[1] - l[0]) * (p[0] + p[1]) / 2.0 / 1.1)
            .sum();
        let (p_mmh2o, l_mm) = (p[top], l[end]);
        let bubble = AlveogramCurve {
            curve,
            p_mmh2o,
            l_mm,
            g: 2.226 * l_mm.sqrt(),
            w: 6.54 * area_mm2 / 100.0,
            p_over_l: (l_mm > 0.0).then(|| p_mmh2o / l_mm),
            ie_pct: self.pressure_at(ELASTIC_MM, end).map(|p40| 100.0 * p40 / p_mmh2o),
            rupture_mmh2o: p[end],
            left_out: false,
        };
        (bubble, rupture.is_some())
    }

    /// The last sample before the fall, at or after the highest pressure.
    fn rupture_after(&self, top: usize) -> Option<usize> {
        let (l, p) = (self.l_mm, self.p_mmh2o);
        let mut reach = top;
        for from in top..p.len() {
            while reach + 1 < l.len() && l[reach + 1] <= l[from] + FALL_MM {
                reach += 1;
            }
            let after = &p[from..=reach.max(from)];
            let lowest = after.iter().copied().fold(f64::MAX, f64::min);
            if lowest < (1.0 - FALL) * p[from] {
                let held = after.iter().take_while(|one| **one >= (1.0 - BEGUN) * p[from]);
                return Some(from + held.count() - 1);
            }
            // Samples wider apart than a millimetre still show the fall from one to the next.
            if p.get(from + 1).is_some_and(|next| reach == from && *next < (1.0 - FALL) * p[from]) {
                return Some(from);
            }
        }
        None
    }

    fn pressure_at(&self, place_mm: f64, end: usize) -> Option<f64> {
        let (l, p) = (&self.l_mm[..=end], &self.p_mmh2o[..=end]);
        let after = l.iter().position(|one| *one >= place_mm)?;
        let before = after.checked_sub(1)?;
        let share = (place_mm - l[before]) / (l[after] - l[before]);
        Some(p[before] + share * (p[after] - p[before]))
    }
}

fn median(mut values: Vec<f64>) -> f64 {
    values.sort_by(f64::total_cmp);
    let middle = values.len() / 2;
    if values.len() % 2 == 1 {
        values[middle]
    } else {
        f64::midpoint(values[middle - 1], values[middle])
    }
}
