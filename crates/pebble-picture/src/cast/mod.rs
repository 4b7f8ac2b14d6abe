//! Everybody and everything on the stage as surfaces, in groups that move together.

mod head;
mod limbs;
mod props;
mod stuff;
mod trunk;
mod wardrobe;

pub(crate) use stuff::{Stuff, Tint};

use crate::mesh::Mesh;
use crate::space::{V3, v3};
use pebble_core::file::stage::{Outfit, Person};
use pebble_core::shot::DrawnAs;
use pebble_core::stage::Stage;
use pebble_core::stage::body::Skeleton;
use pebble_core::stage::poses::Posture;
use stuff::Fineness;

/// Surfaces that move together.
#[derive(Clone, Debug)]
pub(crate) struct Figure {
    /// The part of the subject that it stands for.
    pub part: Option<DrawnAs>,
    pub mesh: Mesh,
    pub stuffs: Vec<Stuff>,
    /// Which of them most of it is made of.
    pub principal: u8,
    /// Where it stands, for light that falls off.
    pub at: V3,
    /// Goes the other way: the second of two ropes.
    pub reverse: bool,
    /// Turns about an axis between two points across its movement.
    pub swing: Option<[f32; 2]>,
    /// Shines in its own colour.
    pub own_light: bool,
    /// A flat card of a part that the stage has no body for: it always faces what lights it.
    pub card: bool,
}

impl Default for Figure {
    fn default() -> Self {
        Self {
            part: None,
            mesh: Mesh::default(),
            stuffs: Vec::new(),
            principal: 0,
            at: [0.0; 3],
            reverse: false,
            swing: None,
            own_light: false,
            card: false,
        }
    }
}

/// A part that the shot has, with its reflectance.
pub(crate) type Known = (DrawnAs, f32);

/// Everybody and everything on a stage. `pixels_per_metre` says how finely; `known` are the parts that the shot has, whose
/// tones the first person's skin, cloth and shoes take, and what is held.
pub(crate) fn on_stage(stage: &Stage, known: &[Known], pixels_per_metre: f32) -> Vec<Figure> {
    let mut cast: Vec<Figure> = Vec::new();
    for (index, (person, posture, body)) in stage.skeletons().enumerate() {
        let fine = Fineness::of(pixels_per_metre * body.bones.height as f32);
        people(&mut cast, person, &posture, &body, (if index == 0 { known } else { &[] }, fine));
        for prop in &person.with {
            let at = v3(body.waist);
            let things = props::of_person(*prop, (person.pose, known), &body);
            cast.extend(things.into_iter().map(|figure| {
                let part = if person.stands_by { None } else { figure.part };
                Figure { at, part, ..figure }
            }));
        }
    }
    for thing in &stage.composition.things {
        let at = [thing.right_m as f32, thing.away_m as f32, thing.up_m as f32 + 0.5];
        cast.extend(props::of_thing(thing, known).into_iter().map(|figure| Figure { at, ..figure }));
    }
    // What belongs to no part of the shot goes with the part it hangs on.
    cast.retain(|figure| !figure.mesh.facets.is_empty());
    for figure in &mut cast {
        while let Some(one) = figure.part.filter(|one| !known.iter().any(|(part, _)| part == one)) {
            figure.part = one.goes_with();
        }
    }
    cast
}

/// A light that stands in the frame.
pub(crate) fn light(at: V3, aim: V3, radius: f32, boom: f32) -> Figure {
    props::light(at, aim, radius, boom)
}

/// The tone of a part that the shot has.
fn tone_of(known: &[Known], part: DrawnAs) -> Option<f32> {
    known.iter().find(|(one, _)| *one == part).map(|(_, tone)| *tone)
}

/// The figures of a person: what the shot may name as parts, each by itself.
fn people(
    cast: &mut Vec<Figure>,
    person: &Person,
    posture: &Posture,
    body: &Skeleton,
    (known, fine): (&[Known], Fineness),
) {
    let clothes = wardrobe::clothes(person.outfit);
    let mut stuffs = wardrobe::stuffs(person);
    let masked = person.outfit == Outfit::Fencing;
    for (part, stuff) in [
        (DrawnAs::Face, if masked { wardrobe::MESH } else { wardrobe::SKIN }),
        (DrawnAs::Body, wardrobe::TOP),
        (DrawnAs::Hair, wardrobe::HAIR),
    ] {
        if let Some(tone) = tone_of(known, part) {
            stuffs[usize::from(stuff)].tone = tone;
        }
    }
    let mut meshes: [(DrawnAs, Mesh); 6] =
        [DrawnAs::Feet, DrawnAs::Body, DrawnAs::Cloth, DrawnAs::Hand, DrawnAs::Face, DrawnAs::Hair]
            .map(|part| (part, Mesh::default()));
    let [feet, trunk, cloth, hand, face, hair] = &mut meshes;
    for side in [0, 1] {
        limbs::leg(&mut feet.1, body, side, (&clothes, fine));
        let mut fingers = Mesh::default();
        limbs::arm(&mut trunk.1, &mut fingers, body, side, (&clothes, posture.hands[side], fine));
        if side == 1 { hand.1.append(fingers) } else { trunk.1.append(fingers) }
    }
    trunk::build(&mut trunk.1, &mut cloth.1, person, body, (&clothes, fine));
    head::build(&mut face.1, &mut hair.1, person, body, fine);
    let at = v3(body.waist);
    for (part, mesh) in meshes {
        let mut stuffs = stuffs.clone();
        let own = match part {
            DrawnAs::Hand => Some(wardrobe::SKIN),
            DrawnAs::Feet if clothes.shoes => Some(wardrobe::SHOE),
            DrawnAs::Feet => Some(wardrobe::SKIN),
            DrawnAs::Cloth => Some(wardrobe::TOP),
            _ => None,
        };
        if let (Some(stuff), Some(tone)) = (own, tone_of(known, part)) {
            stuffs[usize::from(stuff)].tone = tone;
        }
        let part = (!person.stands_by).then_some(part);
        cast.push(Figure { part, mesh, stuffs, at, ..Figure::default() });
    }
}
