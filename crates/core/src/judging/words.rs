//! The sheet in words: what each characteristic is called, and what its marks of 1, 3 and 5 are.

use super::Characteristic;

impl Characteristic {
    /// What it is called.
    pub const fn label(self) -> &'static str {
        match self {
            Self::Volume => "Volume",
            Self::Shape => "Shape and symmetry",
            Self::CrustColour => "Crust colour",
            Self::CrustCharacter => "Crust character",
            Self::Break => "Break and shred, or cut opening",
            Self::Openness => "Crumb openness",
            Self::Evenness => "Evenness and holes",
            Self::CrumbColour => "Crumb colour",
            Self::Texture => "Crumb texture",
            Self::Stickiness => "Stickiness",
            Self::Slicing => "Slicing and buttering",
            Self::Flavour => "Smell and flavour",
        }
    }

    /// What marks of 1, 3 and 5 are.
    pub const fn anchors(self) -> [&'static str; 3] {
        match self {
            Self::Volume => [
                "hand-heavy brick, or over its bag",
                "clearly small or large beside the standard",
                "as the standard",
            ],
            Self::Shape => [
                "collapsed, cap off, or flat",
                "leaning, one shoulder low",
                "even, flat base, ends alike",
            ],
            Self::CrustColour => [
                "burnt or dough-white; foxy red",
                "a shade off, or patchy",
                "even, the sample chip",
            ],
            Self::CrustCharacter => [
                "blistered, cracked or leathery",
                "some blisters, dull, or thick",
                "smooth or crisp as agreed, bloom",
            ],
            Self::Break => ["none, or wild", "uneven, one side", "even band or clean open cut"],
            Self::Openness => [
                "tight as cake, or caves",
                "closer or opener than the style",
                "the style's own openness",
            ],
            Self::Evenness => [
                "tunnels, streak, holes over 15 mm",
                "a few holes of 8–15 mm, a faint streak",
                "even from edge to edge, walls thin",
            ],
            Self::CrumbColour => {
                ["grey, streaked", "slightly dull", "bright, as the flour promises"]
            }
            Self::Texture => [
                "crumbles, or rubber",
                "recovers half, a little dry or doughy",
                "soft, springs back at once",
            ],
            Self::Stickiness => [
                "paste on the knife, balls between the fingers",
                "knife hazed, slight cling",
                "knife clean, thumb slides",
            ],
            Self::Slicing => [
                "tears, smears or falls apart",
                "some crumbs or drag",
                "clean cut, holds a cold spread",
            ],
            Self::Flavour => [
                "sour-sharp, alcoholic, rancid, or raw",
                "flat, or one note too loud",
                "full, clean, of its kind",
            ],
        }
    }
}
