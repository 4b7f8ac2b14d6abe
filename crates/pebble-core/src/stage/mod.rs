//! The stage: figures, poses, places and framing, as tables and geometry; no pixels.
//!
//! Coordinates are those of model.md §12: metres, origin on the floor under the subject's mark, `x` to the right as the
//! camera sees it, `y` away from it, `z` up.

pub mod body;
pub mod evening;
pub mod field;
pub mod flag;
pub mod framing;
pub mod lens;
pub mod outline;
pub mod path;
mod places;
pub mod poses;
mod props;
pub mod region;
mod scenes;
pub mod shadow;
pub mod sheet;
pub mod space;
pub mod tape;

use crate::file::shot::{DrawnAs, Scene};
use crate::file::stage::{Composition, Grip, Person, Prop};
use crate::quantity::Metres;
use body::Skeleton;
use framing::View;
use poses::{Posture, posture};
use space::{Spot, spot};

pub use places::{Comes, Surroundings};

/// The subject's chest over the floor, which lights are aimed at and measured to.
pub const CHEST_M: f64 = 1.3;

/// What stands in the frame: a composition that was checked.
#[derive(Clone, Debug, PartialEq)]
pub struct Stage {
    /// As it is written.
    pub composition: Composition,
}

/// Where a part of the subject stands in the frame, as shares of the picture from its top left corner.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PartPlace {
    /// What it is.
    pub part: DrawnAs,
    /// Left edge.
    pub left: f64,
    /// Top edge.
    pub top: f64,
    /// Right edge.
    pub right: f64,
    /// Bottom edge.
    pub bottom: f64,
}

impl Stage {
    /// The nearest composition to a scene that was drawn before there were any.
    pub fn of_scene(scene: Scene) -> Composition {
        scenes::of(scene)
    }

    /// Where the place's own light comes from, and what is around.
    pub fn surroundings(&self) -> Surroundings {
        places::of(self.composition.place)
    }

    /// The camera.
    pub fn view(&self, distance: Metres) -> View {
        let height = |metres| Metres::from_metres(metres);
        let composition = &self.composition;
        View::of(distance, height(composition.camera_height_m), height(composition.aim_height_m), composition.upright)
    }

    /// How the camera is held.
    pub fn upright(&self) -> Option<Grip> {
        self.composition.upright
    }

    /// Whether it has the sky over it.
    pub fn is_outdoors(&self) -> bool {
        self.composition.place.is_outdoors()
    }

    /// The people as bones.
    pub fn skeletons(&self) -> impl Iterator<Item = (&Person, Posture, Skeleton)> {
        self.composition.people.iter().map(|person| {
            let posture = posture(person.pose);
            (person, posture, Skeleton::of(person, &posture))
        })
    }

    /// Where a whole body stands in the frame, as shares from its top left corner.
    pub fn place_of(&self, view: &View, field: (Metres, Metres), body: &Skeleton) -> Option<[f64; 4]> {
        let limbs = body.arms.iter().chain(&body.legs);
        let mut places: Vec<(Spot, f64)> = limbs.flat_map(|limb| [(limb.joint, 0.04), (limb.tip, 0.03)]).collect();
        places.extend([(body.head, body.bones.head), (body.pelvis, 0.12)]);
        shares(view, field, &places)
    }

    /// Where the parts of the subject stand in the frame: those of all people who do not just stand by, and of what they
    /// have with them. `field` is what the frame covers at the subject, in metres, as the sensor lies.
    pub fn part_places(&self, distance: Metres, field: (Metres, Metres)) -> Vec<PartPlace> {
        let view = self.view(distance);
        let mut found: Vec<PartPlace> = Vec::new();
        let mut add = |part: DrawnAs, places: &[(Spot, f64)]| {
            let Some([left, top, right, bottom]) = shares(&view, field, places) else { return };
            found.push(PartPlace { part, left, top, right, bottom });
        };
        for (person, _, body) in self.skeletons().filter(|(person, ..)| !person.stands_by) {
            let height = body.bones.height;
            add(DrawnAs::Face, &[(body.head, body.bones.head * 1.05)]);
            let mut trunk =
                vec![(body.pelvis, 0.085 * height), (body.waist, 0.08 * height), (body.collar, 0.06 * height)];
            trunk.extend(
                body.arms.iter().flat_map(|arm| {
                    [(arm.root, 0.03 * height), (arm.joint, 0.022 * height), (arm.tip, 0.015 * height)]
                }),
            );
            add(DrawnAs::Body, &trunk);
            let legs = body.legs.iter();
            let legs: Vec<_> = legs
                .flat_map(|leg| [(leg.joint, 0.035 * height), (leg.end, 0.045 * height), (leg.tip, 0.03 * height)])
                .collect();
            add(DrawnAs::Feet, &legs);
            let hand = usize::from(!person.mirrored);
            add(DrawnAs::Hand, &[(body.palm(hand), 0.06 * height)]);
            for prop in &person.with {
                if let (Some(part), places) = (prop.drawn_as(), props::extent(*prop, &body)) {
                    add(part, &places);
                }
            }
        }
        for thing in &self.composition.things {
            if let Some(part) = thing.what.drawn_as() {
                let (size, raised) = props::size(thing.what);
                let at = spot(thing.right_m, thing.away_m, thing.up_m + raised * thing.size);
                add(part, &[(at, 0.5 * size * thing.size)]);
            }
        }
        found
    }
}

/// The part of the frame that some balls cover, as shares from the top left; nothing when they are behind the lens.
fn shares(view: &View, (wide, high): (Metres, Metres), places: &[(Spot, f64)]) -> Option<[f64; 4]> {
    let mut bounds: Option<[f64; 4]> = None;
    for (place, radius) in places {
        let Some(seen) = view.seen(*place) else { continue };
        let radius = radius * view.distance / seen.depth;
        let [x, y] = [0.5 + seen.along / wide.as_metres(), 0.5 - seen.across / high.as_metres()];
        let [rx, ry] = [radius / wide.as_metres(), radius / high.as_metres()];
        // From the sensor's shares to the picture's.
        let [x, y, rx, ry] = match view.upright {
            None => [x, y, rx, ry],
            Some(Grip::Up) => [y, 1.0 - x, ry, rx],
            Some(Grip::Down) => [1.0 - y, x, ry, rx],
        };
        let b = bounds.get_or_insert([f64::INFINITY, f64::INFINITY, f64::NEG_INFINITY, f64::NEG_INFINITY]);
        *b = [b[0].min(x - rx), b[1].min(y - ry), b[2].max(x + rx), b[3].max(y + ry)];
    }
    bounds
}

impl Prop {
    /// The part that it is when the shot has one of that kind.
    pub const fn drawn_as(self) -> Option<DrawnAs> {
        match self {
            Self::Ball | Self::SmallBall => Some(DrawnAs::Ball),
            Self::Racket
            | Self::Bat
            | Self::Bar
            | Self::Hoop
            | Self::Ribbon
            | Self::Umbrella
            | Self::Microphone
            | Self::Oars => Some(DrawnAs::Held),
            Self::Blade => Some(DrawnAs::Blade),
            Self::Rope | Self::LongRopes => Some(DrawnAs::Ropes),
            Self::Board | Self::Inlines | Self::Rollers | Self::Wheelchair => Some(DrawnAs::Wheels),
            Self::Bicycle | Self::SmallBicycle => Some(DrawnAs::Bicycle),
            Self::Lantern => Some(DrawnAs::Lantern),
            Self::Medal => Some(DrawnAs::Medal),
            Self::Scarf => Some(DrawnAs::Scarf),
            Self::Silks => Some(DrawnAs::Silks),
            Self::Gloves => Some(DrawnAs::Hand),
            Self::Water | Self::Drops | Self::Powder | Self::Confetti => Some(DrawnAs::Spray),
            Self::Card | Self::Sphere => Some(DrawnAs::Card),
            Self::Chair | Self::Holds | Self::Net | Self::Lectern => None,
        }
    }
}

impl DrawnAs {
    /// The part that it goes with while the shot has none of its kind: a hand goes with the body.
    pub const fn goes_with(self) -> Option<Self> {
        match self {
            Self::Hair => Some(Self::Face),
            Self::Hand | Self::Cloth | Self::Medal | Self::Scarf => Some(Self::Body),
            Self::Blade | Self::Held | Self::Lantern => Some(Self::Hand),
            Self::Wheels => Some(Self::Feet),
            Self::Bicycle => Some(Self::Body),
            Self::Face
            | Self::Body
            | Self::Feet
            | Self::Ropes
            | Self::Silks
            | Self::Card
            | Self::Ball
            | Self::Spray => None,
        }
    }
}
