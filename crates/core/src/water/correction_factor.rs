use std::borrow::Cow;

use serde::{Deserialize, Serialize};

use super::{CRITICAL_DAMAGED_STARCH, Process};
use crate::flour::Species;
use crate::units::{Coefficient, Estimate, NumberRange, Origin, RawNumber, ValidationErrors};

/// A house default of the absorption build-up that a plant may switch off or replace by its own.
/// What 1 % of an ingredient does is kept with the ingredient.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CorrectionFactor {
    NoTime,
    StraightBulk,
    SpongeDough,
    LongCold,
    Frozen,
    SpeltOffset,
    EmmerOffset,
    EinkornOffset,
    KhorasanOffset,
    DurumOffset,
    RyeOffset,
    SpeltHeldBack,
    EmmerHeldBack,
    EinkornHeldBack,
    WholeGrain,
    WholeGrainUnknown,
    Green,
    Aged,
    CriticalDamagedStarch,
    CeilingBase,
    CeilingPerW,
    MachineDivided,
}

impl CorrectionFactor {
    /// Every rule, in the order of the build-up.
    pub const ALL: [Self; 22] = [
        Self::NoTime,
        Self::StraightBulk,
        Self::SpongeDough,
        Self::LongCold,
        Self::Frozen,
        Self::SpeltOffset,
        Self::EmmerOffset,
        Self::EinkornOffset,
        Self::KhorasanOffset,
        Self::DurumOffset,
        Self::RyeOffset,
        Self::SpeltHeldBack,
        Self::EmmerHeldBack,
        Self::EinkornHeldBack,
        Self::WholeGrain,
        Self::WholeGrainUnknown,
        Self::Green,
        Self::Aged,
        Self::CriticalDamagedStarch,
        Self::CeilingBase,
        Self::CeilingPerW,
        Self::MachineDivided,
    ];

    /// The house default with its band.
    pub const fn house(self) -> Estimate {
        match self {
            Self::NoTime => Estimate::new(-1.0, -2.0, 0.0),
            Self::StraightBulk => Estimate::new(0.0, 0.0, 0.0),
            Self::SpongeDough => Estimate::new(3.0, 2.0, 4.0),
            Self::LongCold => Estimate::new(1.0, 0.0, 2.0),
            Self::Frozen => Estimate::new(-3.0, -4.0, -2.0),
            Self::SpeltOffset => Estimate::new(-3.0, -5.0, -1.0),
            Self::EmmerOffset => Estimate::new(-4.0, -7.0, -1.0),
            Self::EinkornOffset => Estimate::new(-8.0, -12.0, -4.0),
            Self::KhorasanOffset | Self::DurumOffset => Estimate::new(2.0, 0.0, 4.0),
            Self::RyeOffset => Estimate::new(8.0, 4.0, 12.0),
            Self::SpeltHeldBack => Estimate::new(-1.5, -3.0, 0.0),
            Self::EmmerHeldBack => Estimate::new(-2.0, -4.0, 0.0),
            Self::EinkornHeldBack => Estimate::new(-3.0, -5.0, 0.0),
            Self::WholeGrain => Estimate::new(3.0, 1.0, 5.0),
            Self::WholeGrainUnknown => Estimate::new(8.0, 6.0, 10.0),
            Self::Green => Estimate::new(-0.5, -1.0, 0.0),
            Self::Aged => Estimate::new(0.5, 0.0, 1.0),
            Self::CriticalDamagedStarch => Estimate::new(CRITICAL_DAMAGED_STARCH, 8.0, 12.0),
            Self::CeilingBase => Estimate::new(50.0, 45.0, 55.0),
            Self::CeilingPerW => Estimate::new(0.13, 0.11, 0.15),
            Self::MachineDivided => Estimate::new(8.0, 5.0, 11.0),
        }
    }

    /// The words on screen.
    pub const fn label(self) -> &'static str {
        match self {
            Self::NoTime => Process::NoTime.label(),
            Self::StraightBulk => Process::StraightBulk.label(),
            Self::SpongeDough => Process::SpongeDough.label(),
            Self::LongCold => Process::LongCold.label(),
            Self::Frozen => Process::Frozen.label(),
            Self::SpeltOffset => "spelt, not measured",
            Self::EmmerOffset => "emmer, not measured",
            Self::EinkornOffset => "einkorn, not measured",
            Self::KhorasanOffset => "khorasan, not measured",
            Self::DurumOffset => "durum, not measured",
            Self::RyeOffset => "rye, not measured",
            Self::SpeltHeldBack => "spelt, held back",
            Self::EmmerHeldBack => "emmer, held back",
            Self::EinkornHeldBack => "einkorn, held back",
            Self::WholeGrain => "whole grain, absorption estimated",
            Self::WholeGrainUnknown => "whole grain, neither curve nor ash known",
            Self::Green => "green flour, under 2 days",
            Self::Aged => "aged flour, over 14 days",
            Self::CriticalDamagedStarch => "critical damaged starch",
            Self::CeilingBase => "water that strength carries at W 0",
            Self::CeilingPerW => "water that strength carries, per W",
            Self::MachineDivided => "less where a machine divides",
        }
    }

    /// The unit of its value.
    pub const fn unit(self) -> &'static str {
        match self {
            Self::WholeGrain | Self::WholeGrainUnknown => "points for 100 % whole grain",
            Self::CriticalDamagedStarch | Self::CeilingBase => "%",
            Self::CeilingPerW => "% per W",
            _ => "points",
        }
    }

    /// Why the house believes it.
    pub const fn reason(self) -> &'static str {
        match self {
            Self::NoTime => "no hours to hydrate: what is not taken up at the mixer stays sticky",
            Self::StraightBulk => "the flour's own figure holds for a dough with bulk time",
            Self::SpongeDough => "the sponge's hours hydrate flour that a mixer cannot",
            Self::LongCold => "a long rest takes up more water",
            Self::Frozen => "free water makes ice that tears the film",
            Self::SpeltOffset | Self::EmmerOffset | Self::EinkornOffset => {
                "its gluten takes up less than common wheat's; measure a lot and this step goes"
            }
            Self::KhorasanOffset | Self::DurumOffset => {
                "a hard, vitreous grain: more damaged starch than its figure says"
            }
            Self::RyeOffset => "pentosans drink; measure a lot and this step goes",
            Self::SpeltHeldBack | Self::EmmerHeldBack | Self::EinkornHeldBack => {
                "a weak film: hold water back, let it rest, and add by the dough"
            }
            Self::WholeGrain => "bran drinks more than its ash says",
            Self::WholeGrainUnknown => "bran drinks, and nothing on the certificate counts it",
            Self::Green => "green flour: not yet at its full strength or absorption",
            Self::Aged => "aged flour takes more and acts stronger",
            Self::CriticalDamagedStarch => "above it the dough feels dry early and sticks late",
            Self::CeilingBase | Self::CeilingPerW => {
                "what a folded or long-rested dough of that strength carries"
            }
            Self::MachineDivided => "a divider and moulder forgive less than hands do",
        }
    }

    pub(super) const fn of_process(process: Process) -> Self {
        match process {
            Process::NoTime => Self::NoTime,
            Process::StraightBulk => Self::StraightBulk,
            Process::SpongeDough => Self::SpongeDough,
            Process::LongCold => Self::LongCold,
            Process::Frozen => Self::Frozen,
        }
    }

    /// What a grain takes more or less than common wheat of its composition.
    pub(super) const fn offset_of(species: Species) -> Option<Self> {
        match species {
            Species::Spelt => Some(Self::SpeltOffset),
            Species::Emmer => Some(Self::EmmerOffset),
            Species::Einkorn => Some(Self::EinkornOffset),
            Species::Khorasan => Some(Self::KhorasanOffset),
            Species::Durum => Some(Self::DurumOffset),
            Species::Rye => Some(Self::RyeOffset),
            Species::Wheat | Species::GlutenFree | Species::LowStarch => None,
        }
    }

    /// What is held back from a weak film.
    pub(super) const fn held_back_of(species: Species) -> Option<Self> {
        match species {
            Species::Spelt => Some(Self::SpeltHeldBack),
            Species::Emmer => Some(Self::EmmerHeldBack),
            Species::Einkorn => Some(Self::EinkornHeldBack),
            _ => None,
        }
    }
}

/// A plant's own value for a rule, or its decision to leave the step out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Override {
    pub rule: CorrectionFactor,
    /// The step is left out.
    pub off: bool,
    pub value: Estimate,
    pub reason: String,
}

/// A plant's own value as it was typed.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OverrideInput {
    pub rule: CorrectionFactor,
    #[serde(default)]
    pub off: bool,
    /// −50 to 100; the house's if left out.
    #[serde(default)]
    pub typical: RawNumber,
    #[serde(default)]
    pub low: RawNumber,
    #[serde(default)]
    pub high: RawNumber,
    #[serde(default)]
    pub reason: String,
}

const TYPICAL: NumberRange = NumberRange::new("typical", "the plant's own value", "", -50.0, 100.0);
const LOW: NumberRange = NumberRange::new("low", "the least it may be", "", -50.0, 100.0);
const HIGH: NumberRange = NumberRange::new("high", "the most it may be", "", -50.0, 100.0);
/// Longest reason kept.
const MOST_LETTERS: usize = 400;

impl OverrideInput {
    /// The override, if its band holds its value and it says why.
    pub fn check(&self, at: &str, faults: &mut ValidationErrors) -> Override {
        let house = self.rule.house();
        let typical = TYPICAL.check_or(&self.typical, house.typical, at, faults);
        let low = LOW.check_or(&self.low, typical.min(house.low), at, faults);
        let high = HIGH.check_or(&self.high, typical.max(house.high), at, faults);
        if !(low..=high).contains(&typical) {
            faults.push(
                format!("{at}typical"),
                format!("{typical} does not lie between its low {low} and its high {high}"),
            );
        }
        let reason = self.reason.trim();
        if reason.is_empty() || reason.chars().count() > MOST_LETTERS {
            faults.push(
                format!("{at}reason"),
                format!(
                    "why does the plant's own differ? a few words, up to {MOST_LETTERS} letters"
                ),
            );
        }
        let value = Estimate { typical, low, high };
        Override { rule: self.rule, off: self.off, value, reason: reason.into() }
    }
}

/// The rules of the build-up as a plant has them: the house's, but where it has its own.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
pub struct CorrectionFactors(pub Vec<Override>);

/// A rule as it holds here.
#[derive(Debug, Clone, PartialEq)]
pub struct EffectiveCoefficient<'a> {
    pub value: Estimate,
    pub origin: Origin,
    pub reason: Cow<'a, str>,
    pub off: bool,
}

impl CorrectionFactors {
    /// The rule as it holds here.
    pub fn get(&self, rule: CorrectionFactor) -> EffectiveCoefficient<'_> {
        match self.0.iter().find(|own| own.rule == rule) {
            Some(own) => EffectiveCoefficient {
                value: own.value,
                origin: Origin::Plant,
                reason: Cow::Borrowed(&own.reason),
                off: own.off,
            },
            None => EffectiveCoefficient {
                value: rule.house(),
                origin: Origin::House,
                reason: Cow::Borrowed(rule.reason()),
                off: false,
            },
        }
    }

    /// The rule's typical value; none where it is switched off, so that its effect is left out and
    /// nothing else.
    pub fn active(&self, rule: CorrectionFactor) -> Option<f64> {
        let ruling = self.get(rule);
        (!ruling.off).then_some(ruling.value.typical)
    }

    /// The rule as a coefficient, to answer “why?” with.
    pub fn coefficient(&self, rule: CorrectionFactor) -> Coefficient {
        let EffectiveCoefficient { value, origin, .. } = self.get(rule);
        Coefficient {
            name: rule.label(),
            value: value.typical,
            low: value.low,
            high: value.high,
            unit: rule.unit(),
            origin,
            source: rule.reason(),
        }
    }
}
