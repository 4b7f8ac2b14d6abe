//! Sizes of things, in metres, and where they reach from a body.

use super::body::Skeleton;
use super::space::{Spot, spot};
use crate::file::stage::Prop;

/// How large a thing is, and how high its middle stands over where it is put.
pub(super) const fn size(prop: Prop) -> (f64, f64) {
    match prop {
        Prop::Ball => (0.22, 0.11),
        Prop::SmallBall => (0.07, 0.035),
        Prop::Racket => (0.7, 0.35),
        Prop::Bat => (0.85, 0.42),
        Prop::Blade => (0.9, 0.45),
        Prop::Bar => (1.7, 0.2),
        Prop::Rope => (2.2, 1.1),
        Prop::LongRopes => (3.9, 1.1),
        Prop::Hoop => (0.85, 0.42),
        Prop::Ribbon => (2.0, 1.0),
        Prop::Board => (0.8, 0.06),
        Prop::Inlines | Prop::Rollers => (0.35, 0.08),
        Prop::Bicycle => (1.75, 0.52),
        Prop::SmallBicycle => (1.5, 0.45),
        Prop::Wheelchair => (1.6, 0.36),
        Prop::Lantern => (0.24, 0.12),
        Prop::Umbrella => (1.0, 0.5),
        Prop::Microphone => (0.2, 0.1),
        Prop::Medal => (0.1, 0.05),
        Prop::Scarf => (0.9, 0.45),
        Prop::Silks => (4.0, 2.0),
        Prop::Chair => (0.9, 0.45),
        Prop::Oars => (2.6, 0.3),
        Prop::Holds => (3.0, 1.5),
        Prop::Gloves => (0.16, 0.08),
        Prop::Water => (1.4, 0.5),
        Prop::Drops => (1.6, 0.8),
        Prop::Powder => (1.2, 0.6),
        Prop::Confetti => (2.6, 1.3),
        Prop::Net => (6.0, 0.5),
        Prop::Lectern => (1.1, 0.55),
        Prop::Card => (0.3, 0.15),
        Prop::Sphere => (0.3, 0.15),
    }
}

/// Balls around what a person has, for where it stands in the frame.
pub(super) fn extent(prop: Prop, body: &Skeleton) -> Vec<(Spot, f64)> {
    let (size, _) = size(prop);
    let hand = body.palm(1);
    let along = (body.arms[1].tip - body.arms[1].end).unit();
    match prop {
        Prop::Racket | Prop::Bat | Prop::Blade => vec![(hand, 0.05), (hand + along * size, 0.05)],
        Prop::Bicycle | Prop::SmallBicycle | Prop::Wheelchair => {
            let under = body.pelvis - spot(0.0, 0.0, body.pelvis.z * 0.5);
            vec![(under, 0.5 * size)]
        }
        Prop::Inlines | Prop::Rollers | Prop::Board => body.legs.iter().map(|leg| (leg.end, 0.18)).collect(),
        Prop::Medal => vec![(body.collar - Spot::UP * 0.3, 0.06)],
        Prop::Rope => vec![(body.pelvis, 0.6 * size)],
        Prop::Gloves => vec![(body.palm(0), 0.1), (hand, 0.1)],
        _ => vec![(hand, 0.5 * size)],
    }
}
