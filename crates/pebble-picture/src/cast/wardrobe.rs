//! Skin, hair and cloth of a person: which stuff covers what, and how loosely.

use super::stuff::{Stuff, Tint};
use pebble_core::file::stage::{Finish, Outfit, Person};

pub(super) const SKIN: u8 = 0;
pub(super) const HAIR: u8 = 1;
pub(super) const TOP: u8 = 2;
pub(super) const BOTTOM: u8 = 3;
pub(super) const SHOE: u8 = 4;
pub(super) const SOLE: u8 = 5;
pub(super) const SOCK: u8 = 6;
pub(super) const EYE_WHITE: u8 = 7;
pub(super) const EYE: u8 = 8;
pub(super) const LIPS: u8 = 9;
pub(super) const TRIM: u8 = 10;
pub(super) const MESH: u8 = 11;

/// A stretch of a limb that cloth covers, with how far it stands off, as a share of the height.
#[derive(Clone, Copy, Debug)]
pub(super) struct Cover {
    /// From here along the limb: 0 at the trunk, 1 at the joint, 2 at the end.
    pub from: f32,
    pub to: f32,
    pub stuff: u8,
    pub loose: f32,
    /// How deep its folds are.
    pub folds: f32,
}

const fn cover(to: f32, stuff: u8, loose: f32, folds: f32) -> Cover {
    Cover { from: -1.0, to, stuff, loose, folds }
}

/// What an outfit covers.
pub(super) struct Clothes {
    pub arms: &'static [Cover],
    pub legs: &'static [Cover],
    /// How far up the trunk the lower piece reaches: 0 at the crotch, 1 at the collar.
    pub waistline: f32,
    /// How far down the trunk the upper piece reaches, and how loosely it hangs.
    pub hem: f32,
    pub loose: f32,
    pub folds: f32,
    /// A skirt, with its length as a share of the thigh.
    pub skirt: Option<f32>,
    /// Bare above, but for a band.
    pub bare: bool,
    pub shoes: bool,
}

const SHORTS: &[Cover] =
    &[cover(0.56, BOTTOM, 0.011, 0.05), Cover { from: 1.62, to: 1.96, stuff: SOCK, loose: 0.002, folds: 0.0 }];
const TROUSERS: &[Cover] = &[cover(1.93, BOTTOM, 0.011, 0.07)];

/// The clothes of an outfit.
pub(super) const fn clothes(outfit: Outfit) -> Clothes {
    let sport = Clothes {
        arms: const { &[cover(0.05, TOP, 0.003, 0.0)] },
        legs: SHORTS,
        waistline: 0.3,
        hem: 0.24,
        loose: 0.003,
        folds: 0.025,
        skirt: None,
        bare: false,
        shoes: true,
    };
    match outfit {
        Outfit::Sport => sport,
        Outfit::Casual => Clothes {
            arms: const { &[cover(0.52, TOP, 0.009, 0.05)] },
            legs: TROUSERS,
            hem: 0.05,
            loose: 0.007,
            folds: 0.04,
            ..sport
        },
        Outfit::Leotard => Clothes {
            arms: const { &[cover(1.9, TOP, 0.0008, 0.0)] },
            legs: const { &[cover(0.1, TOP, 0.001, 0.0)] },
            waistline: 0.0,
            hem: -0.2,
            loose: 0.0008,
            folds: 0.0,
            shoes: false,
            ..sport
        },
        Outfit::TrackSuit => Clothes {
            arms: const { &[cover(1.88, TOP, 0.009, 0.07)] },
            legs: TROUSERS,
            hem: 0.06,
            loose: 0.009,
            folds: 0.05,
            ..sport
        },
        Outfit::Suit => Clothes {
            arms: const {
                &[cover(1.84, TOP, 0.008, 0.05), Cover { from: 1.84, to: 1.93, stuff: TRIM, loose: 0.004, folds: 0.0 }]
            },
            legs: TROUSERS,
            hem: -0.03,
            loose: 0.01,
            folds: 0.02,
            ..sport
        },
        Outfit::Dress => Clothes {
            arms: const { &[cover(0.03, TOP, 0.002, 0.0)] },
            legs: const { &[cover(0.2, TOP, 0.004, 0.0)] },
            waistline: 0.0,
            hem: -0.2,
            loose: 0.002,
            folds: 0.0,
            skirt: Some(0.95),
            ..sport
        },
        Outfit::Whites => Clothes {
            arms: const { &[cover(1.55, TOP, 0.016, 0.09)] },
            legs: const { &[cover(1.75, TOP, 0.017, 0.09)] },
            waistline: 0.0,
            hem: 0.02,
            loose: 0.012,
            folds: 0.06,
            shoes: false,
            ..sport
        },
        Outfit::Fencing => Clothes {
            arms: const { &[cover(1.9, TOP, 0.006, 0.035)] },
            legs: const {
                &[cover(1.2, TOP, 0.008, 0.04), Cover { from: 1.2, to: 1.96, stuff: SOCK, loose: 0.002, folds: 0.0 }]
            },
            waistline: 0.0,
            hem: 0.1,
            loose: 0.006,
            folds: 0.025,
            ..sport
        },
        Outfit::Swim => Clothes {
            arms: &[],
            legs: const { &[cover(0.14, BOTTOM, 0.001, 0.0)] },
            waistline: 0.26,
            hem: 2.0,
            bare: true,
            shoes: false,
            ..sport
        },
        Outfit::Rider => Clothes {
            arms: const { &[cover(1.9, TOP, 0.007, 0.05)] },
            legs: const {
                &[cover(1.1, BOTTOM, 0.01, 0.06), Cover { from: 1.5, to: 1.96, stuff: SOCK, loose: 0.002, folds: 0.0 }]
            },
            hem: 0.05,
            loose: 0.008,
            folds: 0.04,
            ..sport
        },
    }
}

/// Colour of skin by its reflectance: paler skin lets more of the blood show, darker skin is browner (melanin takes blue
/// most).
fn skin(reflectance: f32) -> Tint {
    let dark = (1.0 - reflectance / 0.55).clamp(0.0, 1.0);
    Tint::of(1.0, 0.62 - 0.1 * dark, 0.47 - 0.2 * dark)
}

/// The stuffs of a person, in the order of the numbers above.
pub(super) fn stuffs(person: &Person) -> Vec<Stuff> {
    let cloth = person.cloth as f32;
    let dye = person.cloth_hue_deg.map_or(Tint::of(0.96, 1.0, 1.05), Tint::hue);
    let (shine, narrow, through) = match person.finish {
        Finish::Matt => (0.0, 16.0, 0.06),
        Finish::Satin => (0.22, 14.0, 0.08),
        Finish::Wet => (0.5, 60.0, 0.04),
        Finish::Sequins => (1.6, 90.0, 0.0),
    };
    let wet = if matches!(person.finish, Finish::Wet) { 0.55 } else { 0.09 };
    let of_skin =
        Stuff::matt(person.skin as f32, skin(person.skin as f32)).glossy(wet, if wet > 0.3 { 70.0 } else { 12.0 });
    let top = Stuff::matt(cloth, dye).glossy(shine, narrow).thin(through);
    let other = match person.outfit {
        Outfit::Sport | Outfit::Swim => Stuff::matt(0.09, Tint::of(0.55, 0.75, 1.6)).glossy(shine, narrow),
        Outfit::Suit => Stuff::matt(cloth * 0.9, dye),
        _ => Stuff::matt(0.07, Tint::of(0.75, 0.9, 1.35)),
    };
    let grey = Tint::NEUTRAL;
    let hair_tone = person.hair_tone as f32;
    let warm = if hair_tone > 0.4 { Tint::of(1.0, 0.98, 0.95) } else { Tint::of(1.0, 0.72, 0.5) };
    vec![
        of_skin,
        Stuff::matt(hair_tone, warm).glossy(0.12, 18.0).thin(0.12),
        top,
        other,
        Stuff::matt(0.55, Tint::of(1.0, 1.0, 1.0)).glossy(0.1, 20.0),
        Stuff::matt(0.3, Tint::of(1.0, 0.62, 0.2)),
        Stuff::matt(0.6, grey),
        Stuff::matt((0.35 + 0.9 * person.skin as f32).min(0.75), grey),
        Stuff::matt(0.03, Tint::of(0.9, 0.8, 0.7)).glossy(0.5, 60.0),
        Stuff::matt(person.skin as f32 * 0.62, Tint::of(1.0, 0.42, 0.38)),
        Stuff::matt(0.7, Tint::of(1.0, 1.0, 1.0)),
        Stuff::matt(0.08, Tint::of(0.8, 0.95, 1.15)).glossy(0.5, 10.0),
    ]
}
