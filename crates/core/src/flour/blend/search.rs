use good_lp::{
    Constraint, Expression, ProblemVariables, Solution, SolverModel, Variable, microlp, variable,
};

use super::{BlendFlour, BlendProperty, Conflict, ConflictOf, Side, Target};

/// What is left over when a solver's answer is rounded, in the property's own unit.
const SLACK: f64 = 1e-6;
/// A target near nothing is missed by shares of this.
const LEAST_SCALE: f64 = 1e-3;

/// The linear programs over one set of flours.
///
/// The unknowns are as-is masses. Every rule about them is homogeneous (twice the masses meet it
/// as well), so the scale is free: masses that sum to one make the price linear, masses whose dry
/// matter sums to one make a property linear (Charnes & Cooper 1962).
pub struct BlendSearch<'a> {
    flours: &'a [BlendFlour],
}

/// A program being written: its unknowns and the rules they keep.
struct Program {
    unknowns: ProblemVariables,
    masses: Vec<Variable>,
    checks: Vec<Constraint>,
}

impl<'a> BlendSearch<'a> {
    pub const fn new(flours: &'a [BlendFlour]) -> Self {
        Self { flours }
    }

    /// The cheapest shares within every target, in percent.
    pub fn cheapest(&self, targets: &[Target]) -> Option<Vec<f64>> {
        let mut program = self.by_mass();
        program
            .checks
            .extend(targets.iter().map(|target| self.rule(&program.masses, target).geq(0.0)));
        let prices = self.flours.iter().map(|flour| flour.price_per_t);
        let price = sum(&program.masses, prices);
        Self::shares(program, price)
    }

    /// The shares that come nearest to every target: least sum of misses, each in proportion to
    /// what was wanted.
    pub fn nearest(&self, targets: &[Target]) -> Vec<f64> {
        let mut program = self.by_mass();
        let mut missed = Expression::with_capacity(targets.len());
        for target in targets {
            let miss = program.unknowns.add(variable().min(0.0));
            let scale = target.property.to_mixing(target.wanted).abs().max(LEAST_SCALE);
            program.checks.push((self.rule(&program.masses, target) + scale * miss).geq(0.0));
            missed += miss;
        }
        Self::shares(program, missed).unwrap_or_else(|| self.even())
    }

    /// The targets that cannot be met, or not together, each with the nearest that can be had
    /// while the ones it conflicts with are kept.
    pub fn conflicts(&self, targets: &[Target]) -> Vec<Conflict> {
        if let Some(conflict) = self.shares_conflict() {
            return vec![conflict];
        }
        let (hopeless, possible): (Vec<Target>, Vec<Target>) =
            targets.iter().copied().partition(|target| self.cheapest(&[*target]).is_none());
        let mut conflicts: Vec<Conflict> =
            hopeless.iter().map(|target| self.conflict(target, &[])).collect();
        // Of the rest, the smallest set that cannot be met together: whatever can be dropped while
        // there is still no solution has no part in it.
        let mut set = possible;
        if self.cheapest(&set).is_none() {
            let mut at = 0;
            while at < set.len() {
                let target = set.remove(at);
                if self.cheapest(&set).is_some() {
                    set.insert(at, target);
                    at += 1;
                }
            }
            for (at, target) in set.iter().enumerate() {
                let mut others = set.clone();
                others.remove(at);
                conflicts.push(self.conflict(target, &others));
            }
        }
        conflicts
    }

    fn conflict(&self, target: &Target, others: &[Target]) -> Conflict {
        let Target { property, side, wanted } = *target;
        let best_reachable = self.best(property, side, others).unwrap_or(wanted);
        let kept = others.iter().map(|other| other.property).collect();
        Conflict { of: ConflictOf::Property(property), side, wanted, best_reachable, kept }
    }

    /// The highest or lowest a property can be within the other targets.
    fn best(&self, property: BlendProperty, side: Side, others: &[Target]) -> Option<f64> {
        let mut program = self.by_weight(property);
        program
            .checks
            .extend(others.iter().map(|other| self.rule(&program.masses, other).geq(0.0)));
        let mixing = self.flours.iter().map(|flour| {
            flour.properties.weight(property) * property.to_mixing(flour.properties.get(property))
        });
        let highest = (side == Side::Min) != property.turns();
        let sign = if highest { -1.0 } else { 1.0 };
        let value = sum(&program.masses, mixing.map(|weighed| sign * weighed));
        let shares = Self::shares(program, value)?;
        let parts = self.flours.iter().map(|flour| flour.properties).zip(shares);
        Some(super::Mixture::of(parts).get(property))
    }

    /// Smallest shares above 100 % together, or largest below it.
    fn shares_conflict(&self) -> Option<Conflict> {
        let total = |of: fn(&BlendFlour) -> f64| self.flours.iter().map(of).sum::<f64>();
        let least = total(|flour| flour.min_share_pct);
        let most = total(|flour| flour.max_share_pct);
        let (side, best_reachable) = if least > 100.0 + SLACK {
            (Side::Max, least)
        } else if most < 100.0 - SLACK {
            (Side::Min, most)
        } else {
            return None;
        };
        let (of, kept) = (ConflictOf::Shares, Vec::new());
        Some(Conflict { of, side, wanted: 100.0, best_reachable, kept })
    }

    /// Masses that sum to one: each flour's shares are then plain bounds.
    fn by_mass(&self) -> Program {
        let mut unknowns = ProblemVariables::new();
        let bounded = |flour: &BlendFlour| {
            variable().min(flour.min_share_pct / 100.0).max(flour.max_share_pct / 100.0)
        };
        let masses: Vec<Variable> =
            self.flours.iter().map(|flour| unknowns.add(bounded(flour))).collect();
        let checks = vec![sum(&masses, self.flours.iter().map(|_| 1.0)).eq(1.0)];
        Program { unknowns, masses, checks }
    }

    /// Masses whose sum, weighed as the property weighs them, is one.
    fn by_weight(&self, property: BlendProperty) -> Program {
        let mut unknowns = ProblemVariables::new();
        let masses: Vec<Variable> =
            self.flours.iter().map(|_| unknowns.add(variable().min(0.0))).collect();
        let total = || sum(&masses, self.flours.iter().map(|_| 1.0));
        let weights = self.flours.iter().map(|flour| flour.properties.weight(property));
        let mut checks = vec![sum(&masses, weights).eq(1.0)];
        for (flour, mass) in self.flours.iter().zip(&masses) {
            if flour.min_share_pct > 0.0 {
                checks.push((*mass - total() * (flour.min_share_pct / 100.0)).geq(0.0));
            }
            if flour.max_share_pct < 100.0 {
                checks.push((total() * (flour.max_share_pct / 100.0) - *mass).geq(0.0));
            }
        }
        Program { unknowns, masses, checks }
    }

    /// What must not be negative for a target to be met.
    fn rule(&self, masses: &[Variable], target: &Target) -> Expression {
        let Target { property, side, wanted } = *target;
        let sign = if (side == Side::Min) == property.turns() { -1.0 } else { 1.0 };
        let wanted = property.to_mixing(wanted);
        let above = self.flours.iter().map(|flour| {
            let has = property.to_mixing(flour.properties.get(property));
            sign * flour.properties.weight(property) * (has - wanted)
        });
        sum(masses, above)
    }

    /// Solves a program; the masses as shares in percent.
    fn shares(program: Program, least: Expression) -> Option<Vec<f64>> {
        let Program { unknowns, masses, checks } = program;
        let model = unknowns.minimise(least).using(microlp).with_all(checks);
        let solved = model.solve().ok()?;
        let found: Vec<f64> = masses.iter().map(|mass| solved.value(*mass).max(0.0)).collect();
        let total: f64 = found.iter().sum();
        (total > 0.0).then(|| found.into_iter().map(|mass| 100.0 * mass / total).collect())
    }

    /// Where not even the shares can be kept.
    fn even(&self) -> Vec<f64> {
        vec![100.0 / self.flours.len() as f64; self.flours.len()]
    }
}

fn sum(masses: &[Variable], factors: impl Iterator<Item = f64>) -> Expression {
    masses.iter().zip(factors).map(|(mass, factor)| factor * *mass).sum()
}
