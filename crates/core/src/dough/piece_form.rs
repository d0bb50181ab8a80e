use serde::{Deserialize, Serialize};

use super::coefficients as c;
use crate::coefficient::{Coefficient, Coefficients};
use crate::units::{Estimate, NumberRange, RawNumber, ValidationErrors};

/// What a piece is baked in or rolled to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PieceForm {
    /// A tin by its volume, measured by filling it with water.
    #[default]
    TinVolume,
    /// A tin by its sides.
    TinSides,
    /// A disc by its diameter and thickness.
    Disc,
}

/// How densely a tin is filled: the more a dough rises, the less of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TinDough {
    #[default]
    White,
    Whole,
    Rye,
}

impl TinDough {
    const fn kg_per_l(self) -> &'static Coefficient {
        match self {
            Self::White => &c::TIN_WHITE,
            Self::Whole => &c::TIN_WHOLE,
            Self::Rye => &c::TIN_RYE,
        }
    }
}

/// A form whose piece is asked for, or a piece whose form is.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PieceFormInput {
    #[serde(default)]
    pub form: PieceForm,
    #[serde(default)]
    pub dough: TinDough,
    /// Of a tin, 0.05 to 100 l.
    #[serde(default)]
    pub volume_l: RawNumber,
    /// Inner sides of a tin, each 1 to 200 cm.
    #[serde(default)]
    pub length_cm: RawNumber,
    #[serde(default)]
    pub width_cm: RawNumber,
    #[serde(default)]
    pub height_cm: RawNumber,
    /// Of a disc, 2 to 200 cm.
    #[serde(default)]
    pub diameter_cm: RawNumber,
    /// Of a disc as it is rolled, 0.5 to 100 mm.
    #[serde(default)]
    pub thickness_mm: RawNumber,
    /// A piece that is to fit, 0.005 to 50 kg; then the tin's volume or the disc's diameter may be
    /// left out.
    #[serde(default)]
    pub piece_kg: RawNumber,
}

/// A piece and the form it fills.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PieceFormAnswer {
    /// Dough as it is scaled, with what usage differs by.
    pub piece_kg: Estimate,
    /// Of the tin, or of the dough of the disc.
    pub volume_l: f64,
    /// Of a disc.
    pub diameter_cm: Option<f64>,
}

const VOLUME: NumberRange = NumberRange::new("volume_l", "volume of the tin", "l", 0.05, 100.0);
const LENGTH: NumberRange = NumberRange::new("length_cm", "length of the tin", "cm", 1.0, 200.0);
const WIDTH: NumberRange = NumberRange::new("width_cm", "width of the tin", "cm", 1.0, 200.0);
const HEIGHT: NumberRange = NumberRange::new("height_cm", "height of the tin", "cm", 1.0, 200.0);
const DIAMETER: NumberRange =
    NumberRange::new("diameter_cm", "diameter of the disc", "cm", 2.0, 200.0);
const THICKNESS: NumberRange =
    NumberRange::new("thickness_mm", "thickness of the disc", "mm", 0.5, 100.0);
const PIECE: NumberRange = NumberRange::new("piece_kg", "the piece", "kg", 0.005, 50.0);
/// Cubic centimetres in a litre.
const CM3_PER_L: f64 = 1000.0;
const MM_PER_CM: f64 = 10.0;

impl PieceFormInput {
    /// The piece that fills a form, or the form that a piece fills.
    ///
    /// A tin takes so much dough for each litre of it: white 0.42 kg (0.36 to 0.50), whole 0.48, rye
    /// 0.75 (H). A disc of diameter d and thickness t is `π/4·d²·t` of dough of 1.1 kg/l (H).
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, dough::PieceFormInput};
    /// let tin: PieceFormInput = serde_json::from_str(
    ///     r#"{"form": "tin_sides", "length_cm": 22, "width_cm": 11, "height_cm": 9}"#)?;
    /// let found = tin.compute(&Coefficients::default())?;
    /// assert!((found.volume_l - 2.178).abs() < 1e-9 && (found.piece_kg.typical - 0.915).abs() < 0.001);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self, house: &Coefficients) -> Result<PieceFormAnswer, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let piece_kg = PIECE.check_opt(&self.piece_kg, "", &mut faults);
        let density = house.band(match self.form {
            PieceForm::Disc => &c::DISC_DENSITY,
            PieceForm::TinVolume | PieceForm::TinSides => self.dough.kg_per_l(),
        });
        let (volume_l, diameter_cm) = match self.form {
            PieceForm::TinVolume => match piece_kg {
                Some(kg) => (kg / density.typical, None),
                None => (VOLUME.check(&self.volume_l, "", &mut faults), None),
            },
            PieceForm::TinSides => {
                let sides = [
                    LENGTH.check(&self.length_cm, "", &mut faults),
                    WIDTH.check(&self.width_cm, "", &mut faults),
                    HEIGHT.check(&self.height_cm, "", &mut faults),
                ];
                (sides.iter().product::<f64>() / CM3_PER_L, None)
            }
            PieceForm::Disc => {
                let thick_cm = THICKNESS.check(&self.thickness_mm, "", &mut faults) / MM_PER_CM;
                let quarter = std::f64::consts::FRAC_PI_4;
                if let Some(kg) = piece_kg {
                    let volume_l = kg / density.typical;
                    (volume_l, Some((volume_l * CM3_PER_L / thick_cm / quarter).sqrt()))
                } else {
                    let across = DIAMETER.check(&self.diameter_cm, "", &mut faults);
                    (quarter * across * across * thick_cm / CM3_PER_L, Some(across))
                }
            }
        };
        faults.or(())?;
        Ok(PieceFormAnswer { piece_kg: density.times(volume_l), volume_l, diameter_cm })
    }
}

#[cfg(test)]
mod tests {
    use serde_json::{Value, json};

    use super::*;

    fn found(input: Value) -> Result<PieceFormAnswer, Vec<String>> {
        let input: PieceFormInput = serde_json::from_value(input).expect("the contract's shape");
        let found = input.compute(&Coefficients::default());
        found.map_err(|ValidationErrors(faults)| {
            faults.into_iter().map(|fault| fault.field).collect()
        })
    }

    #[test]
    fn a_form_and_its_piece_are_found_from_each_other() {
        let disc =
            found(json!({"form": "disc", "diameter_cm": 30, "thickness_mm": 4})).expect("a disc");
        assert!((disc.piece_kg.typical - 0.311).abs() < 0.001, "{disc:?}");
        let kg = disc.piece_kg.typical;
        let back =
            found(json!({"form": "disc", "piece_kg": kg, "thickness_mm": 4})).expect("a disc");
        assert!((back.diameter_cm.expect("of a disc") - 30.0).abs() < 1e-9);
        let tin =
            found(json!({"form": "tin_volume", "volume_l": 2.2, "dough": "rye"})).expect("a tin");
        let back =
            found(json!({"form": "tin_volume", "piece_kg": tin.piece_kg.typical, "dough": "rye"}));
        assert!((back.expect("a tin").volume_l - 2.2).abs() < 1e-9);
        let white = found(json!({"volume_l": 2.2})).expect("a tin");
        assert!(white.piece_kg.typical < tin.piece_kg.low, "rye rises least");
    }

    #[test]
    fn what_is_missing_is_asked_for() {
        assert_eq!(found(json!({})), Err(vec!["volume_l".into()]));
        assert_eq!(
            found(json!({"form": "tin_sides", "length_cm": 900})),
            Err(vec!["length_cm".into(), "width_cm".into(), "height_cm".into()])
        );
        assert_eq!(
            found(json!({"form": "disc", "piece_kg": -1})),
            Err(vec!["piece_kg".into(), "thickness_mm".into()])
        );
    }
}
