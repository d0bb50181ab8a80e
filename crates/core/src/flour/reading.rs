use serde::{Deserialize, Serialize};

use super::{
    BasisConversion, Moisture, MoistureBasis, Property, absorption_at_moisture, at_moisture,
};

/// One value of a property, as the laboratory stated it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Reading {
    pub property: Property,
    /// In the property's own unit.
    pub value: f64,
    /// None where moisture plays no part.
    pub basis: Option<MoistureBasis>,
    pub method: Option<String>,
    /// Where the method could only say “below” or “above” the value.
    pub censored: Option<Censored>,
}

/// On which side of the stated value the true one lies, beyond the method's reach.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Censored {
    Below,
    Above,
}

/// What is known of one sample, a reading for each property.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Readings(pub Vec<Reading>);

impl Readings {
    /// These readings with the days from milling to delivery, where they are known.
    #[must_use]
    pub fn with_age(mut self, days: Option<f64>) -> Self {
        self.0.extend(days.map(|value| Reading {
            property: Property::Age,
            value,
            basis: None,
            method: None,
            censored: None,
        }));
        self
    }

    /// The flour's own moisture, where it was measured.
    pub fn moisture(&self) -> Option<Moisture> {
        self.get(Property::Moisture).and_then(|reading| Moisture::new(reading.value).ok())
    }

    /// The reading of one property, where there is one.
    pub fn get(&self, property: Property) -> Option<&Reading> {
        self.0.iter().find(|reading| reading.property == property)
    }

    /// The value of a property on a basis, where it was measured and can be moved there.
    pub fn value(&self, property: Property, basis: Option<MoistureBasis>) -> Option<f64> {
        self.get(property)?.on(basis, self.moisture())
    }
}

/// A reading on the three bases, where it can be had.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ValuesByBasis {
    pub as_is: Option<f64>,
    pub fourteen: Option<f64>,
    /// Never for absorption: water added to bone-dry flour is nobody's figure.
    pub dry_matter: Option<f64>,
}

impl Reading {
    /// The value on another basis; none where the flour's own moisture is needed and not known, or
    /// where the reading does not say which basis it is on.
    ///
    /// A property that does not move with moisture has one value, whatever is asked; asked without
    /// a basis, any has the value that was stated.
    ///
    /// ```
    /// use ironpeel_core::flour::{MoistureBasis, Property, Reading};
    /// let ash = Reading {
    ///     property: Property::Ash, value: 0.62, basis: None, method: None, censored: None,
    /// };
    /// assert_eq!(ash.on(Some(MoistureBasis::DryMatter), None), None, "of what is it 0.62 %?");
    /// ```
    pub fn on(&self, basis: Option<MoistureBasis>, own: Option<Moisture>) -> Option<f64> {
        let conversion = self.property.basis_conversion();
        let Some(to) = basis.filter(|_| conversion != BasisConversion::None) else {
            return Some(self.value);
        };
        let from = self.basis?;
        if from == to {
            return Some(self.value);
        }
        let (from, to) = (from.moisture(own)?, to.moisture(own)?);
        match conversion {
            BasisConversion::None => Some(self.value),
            BasisConversion::BlendShare => Some(at_moisture(self.value, from, to)),
            BasisConversion::AddedWater => Some(absorption_at_moisture(self.value, from, to)),
        }
    }

    /// The value on each basis; all none for what does not move with moisture.
    pub fn on_bases(&self, own: Option<Moisture>) -> ValuesByBasis {
        let at = |basis| self.basis.and_then(|_| self.on(Some(basis), own));
        let dry = at(MoistureBasis::DryMatter);
        ValuesByBasis {
            as_is: at(MoistureBasis::AsIs),
            fourteen: at(MoistureBasis::Fourteen),
            dry_matter: dry
                .filter(|_| self.property.basis_conversion() == BasisConversion::BlendShare),
        }
    }
}
