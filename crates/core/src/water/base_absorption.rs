use std::borrow::Cow;

use super::coefficients as c;
use super::{AbsorptionRequest, AbsorptionUnknown, Adjustment, Flour, FlourPart};
use crate::coefficient::Origin;
use crate::flour::{Moisture, absorption_at_moisture};

/// Less than this, in points, the lot's own moisture does not move the figure.
const NO_DRIER: f64 = 0.005;
const NO_DAMPER: f64 = -NO_DRIER;

/// Where the build-up starts: the mix's absorption on 14 %, and moved to its parts' own moisture.
pub(super) struct BaseAbsorption {
    on_14: f64,
    own: f64,
    /// As above, were flours whose moisture is not stated as damp and as dry as they may be.
    own_low: f64,
    own_high: f64,
    sd: f64,
}

impl BaseAbsorption {
    pub(super) fn of(
        flours: &[FlourPart<'_>],
        wanted: &AbsorptionRequest<'_>,
    ) -> Result<Self, AbsorptionUnknown> {
        if flours.is_empty() {
            return Err(AbsorptionUnknown::NoFlour);
        }
        let mut base = Self { on_14: 0.0, own: 0.0, own_low: 0.0, own_high: 0.0, sd: 0.0 };
        let mut variance = 0.0;
        for FlourPart { name, flour, share_pct } in flours {
            let share = share_pct / 100.0;
            let (on_14, sd) = absorption(name, flour, wanted)?;
            base.on_14 += share * on_14;
            let at = |moisture: Moisture| {
                let own = absorption_at_moisture(on_14, Moisture::FOURTEEN, moisture);
                share * if flour.species.has_gluten() { own } else { on_14 }
            };
            base.own += at(flour.moisture);
            let [driest, dampest] = flour.usual_moisture.map_or([flour.moisture; 2], |usual| {
                usual.map(|percent| Moisture::new(percent).unwrap_or(flour.moisture))
            });
            base.own_low += at(dampest);
            base.own_high += at(driest);
            variance += (share * sd).powi(2);
        }
        base.sd = variance.sqrt();
        Ok(base)
    }

    pub(super) fn adjustment(&self, flours: &[FlourPart<'_>]) -> Adjustment {
        let measured = |part: &FlourPart<'_>| part.flour.absorption_14_pct.is_some();
        let (label, origin, reason) = if flours.iter().all(|part| !part.flour.species.has_gluten())
        {
            (
                "water by the blend's own sheet",
                Origin::House,
                "no gluten model holds here: the blend's sheet is the figure to start from",
            )
        } else if flours.iter().all(measured) {
            (
                "farinograph absorption on 14 %",
                Origin::Standard,
                "ISO 5530-1: water to 500 FU; the band is half the method's repeatability",
            )
        } else {
            (
                "estimated absorption on 14 %",
                Origin::House,
                "no curve came with it: from protein, damaged starch and ash by the absorption model, \
                 what is not stated as usual and with a wider band",
            )
        };
        let (label, reason) = if let [_] = flours {
            (label.to_owned(), reason.to_owned())
        } else {
            let parts: Vec<String> = flours
                .iter()
                .map(|part| format!("{} {:.0} %", part.name, part.share_pct))
                .collect();
            (format!("{label}, of the mix"), format!("{}; {reason}", parts.join(", ")))
        };
        Adjustment {
            key: Cow::Borrowed("absorption"),
            label,
            points: self.on_14,
            low: self.on_14 - self.sd,
            high: self.on_14 + self.sd,
            origin,
            reason,
            coefficient: None,
        }
    }

    pub(super) fn moisture_step(&self, flours: &[FlourPart<'_>]) -> Adjustment {
        let moved = self.own - self.on_14;
        let usual = flours.iter().any(|part| part.flour.usual_moisture.is_some());
        let mean: f64 =
            flours.iter().map(|part| part.flour.moisture.percent() * part.share_pct / 100.0).sum();
        Adjustment {
            key: Cow::Borrowed("moisture"),
            label: format!("the lot's own moisture, {mean:.1} %"),
            points: moved,
            low: self.own_low - self.on_14,
            high: self.own_high - self.on_14,
            origin: if usual { Origin::House } else { Origin::Physics },
            reason: match moved {
                _ if usual => "not stated: as damp as flour usually is",
                ..NO_DAMPER => "damper than 14 %: the flour brings water of its own",
                NO_DRIER.. => "drier than 14 %: the flour brings less water of its own",
                _ => "as moist as its figure is stated for",
            }
            .into(),
            coefficient: None,
        }
    }
}

/// Absorption on 14 % and its standard deviation, measured or estimated.
fn absorption(
    name: &str,
    flour: &Flour,
    wanted: &AbsorptionRequest<'_>,
) -> Result<(f64, f64), AbsorptionUnknown> {
    let gluten_network = flour.species.has_gluten();
    if let Some(absorption) = flour.absorption_14_pct {
        let sd = if gluten_network { &c::MEASURED_SD } else { &c::SHEET_SD };
        return Ok((absorption, wanted.coefficients.value(sd)));
    }
    if !gluten_network {
        return Err(AbsorptionUnknown::NeedsItsSheet(name.into()));
    }
    let predicted = wanted.model.predict(flour.composition);
    Ok((predicted.mean_pct, predicted.sd_pct))
}
