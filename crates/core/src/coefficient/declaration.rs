use std::borrow::Cow;

use serde::{Deserialize, Serialize};

use crate::units::Estimate;

/// Where a coefficient comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Origin {
    /// A published standard method or national regulation.
    Standard,
    /// A physical constant or a balance of mass or heat.
    Physics,
    /// A house default: plausible, to be calibrated by the plant, shown with its low and high.
    House,
    /// The plant's own, in place of a house default, with its reason on record.
    Plant,
    /// Learned from the plant's batches, and taken over by a person.
    Learned,
    /// Somebody's choice for this dough, not a finding.
    Choice,
}

/// A number a computation rests on, with its band and origin, so that the screen can say why.
///
/// Each is declared once, by its subject, and found by its key. What is a house default may be
/// replaced by a plant: see [`super::Coefficients`].
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Coefficient {
    /// The word it is found by; the same for ever.
    pub key: &'static str,
    pub name: &'static str,
    pub value: f64,
    pub low: f64,
    pub high: f64,
    pub unit: &'static str,
    pub origin: Origin,
    /// The standard, paper or reasoning it was taken from; of a plant's own, its reason.
    #[cfg_attr(feature = "openapi", schema(value_type = String))]
    pub source: Cow<'static, str>,
    /// What a plant's own may be; none where the house's band says it.
    #[serde(skip)]
    within: Option<(f64, f64)>,
    /// Whether a plant may leave its effect out.
    #[serde(skip)]
    optional: bool,
}

impl Coefficient {
    /// A constant of physics: its band is itself.
    pub const fn physics(
        key: &'static str,
        name: &'static str,
        value: f64,
        unit: &'static str,
        source: &'static str,
    ) -> Self {
        Self::of(Origin::Physics, key, name, Estimate::new(value, value, value), unit, source)
    }

    /// A number of a published standard: its band is itself.
    pub const fn standard(
        key: &'static str,
        name: &'static str,
        value: f64,
        unit: &'static str,
        source: &'static str,
    ) -> Self {
        Self::of(Origin::Standard, key, name, Estimate::new(value, value, value), unit, source)
    }

    /// The point that a house default is counted from: another would say the same in other numbers.
    pub const fn reference(
        key: &'static str,
        name: &'static str,
        value: f64,
        unit: &'static str,
        source: &'static str,
    ) -> Self {
        Self::of(Origin::House, key, name, Estimate::new(value, value, value), unit, source)
    }

    /// A house default with the band it is believed to lie in: typical, low, high.
    pub const fn house(
        key: &'static str,
        name: &'static str,
        (value, low, high): (f64, f64, f64),
        unit: &'static str,
        source: &'static str,
    ) -> Self {
        Self::of(Origin::House, key, name, Estimate::new(value, low, high), unit, source)
    }

    const fn of(
        origin: Origin,
        key: &'static str,
        name: &'static str,
        band: Estimate,
        unit: &'static str,
        source: &'static str,
    ) -> Self {
        Self {
            key,
            name,
            value: band.typical,
            low: band.low,
            high: band.high,
            unit,
            origin,
            source: Cow::Borrowed(source),
            within: None,
            optional: false,
        }
    }

    /// What a plant's own may be, where the house's band does not say it.
    #[must_use]
    pub const fn within(mut self, least: f64, most: f64) -> Self {
        self.within = Some((least, most));
        self
    }

    /// Its effect may be left out.
    #[must_use]
    pub const fn optional(mut self) -> Self {
        self.optional = true;
        self
    }

    /// The same with a value that a product, a line or a mix of flours has; its band moves with it.
    #[must_use]
    pub fn valued(&self, value: f64) -> Self {
        let moved = value - self.value;
        Self { value, low: self.low + moved, high: self.high + moved, ..self.clone() }
    }

    /// The same with another value and band, of another origin.
    #[must_use]
    pub fn as_found(
        &self,
        band: Estimate,
        origin: Origin,
        source: impl Into<Cow<'static, str>>,
    ) -> Self {
        let Estimate { typical: value, low, high } = band;
        Self { value, low, high, origin, source: source.into(), ..self.clone() }
    }

    /// Whether a plant may have its own.
    pub fn is_replaceable(&self) -> bool {
        self.origin == Origin::House && (self.low < self.high || self.within.is_some())
    }

    /// Whether a plant may leave its effect out.
    pub const fn is_optional(&self) -> bool {
        self.optional
    }

    /// The value with its band.
    pub const fn band(&self) -> Estimate {
        Estimate::new(self.value, self.low, self.high)
    }

    /// What a plant's own may be: as declared, or two widths of the band beyond it, of the same sign.
    pub fn limits(&self) -> (f64, f64) {
        self.within.unwrap_or_else(|| {
            let width = 2.0 * (self.high - self.low);
            let least = if self.low >= 0.0 {
                (self.low - width).max(self.low / 2.0 / 2.0)
            } else {
                self.low - width
            };
            let most = if self.high <= 0.0 {
                (self.high + width).min(self.high / 2.0 / 2.0)
            } else {
                self.high + width
            };
            (least, most)
        })
    }
}

/// Declares the coefficients of a subject, and lists them.
macro_rules! coefficients {
    ($($(#[$doc:meta])* $name:ident = $declared:expr;)*) => {
        $($(#[$doc])* pub static $name: crate::coefficient::Coefficient = $declared;)*

        /// Every coefficient of this subject.
        pub static ALL: &[&crate::coefficient::Coefficient] = &[$(&$name),*];
    };
}
pub(crate) use coefficients;
