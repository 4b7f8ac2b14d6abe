//! What stands in the frame, and where: what a photographer presses on, and moves.

use crate::file::stage::{Composition, Person};
use crate::outlook::outlook;
use crate::plan::Plan;
use crate::stage::space::spot;
use crate::wire::report;

report! {
    /// A part of the frame, as shares from its top left corner.
    pub struct FrameBox {
        /// Left edge.
        pub left: f64,
        /// Top edge.
        pub top: f64,
        /// Right edge.
        pub right: f64,
        /// Bottom edge.
        pub bottom: f64,
    }

    /// A part of the subject in the frame.
    pub struct StagedPart {
        /// Its place in the shot's list.
        pub part: usize,
        /// Where it stands; as often as there are people.
        pub at: FrameBox,
    }

    /// A person in the frame.
    pub struct StagedPerson {
        /// Where the body stands.
        pub at: FrameBox,
        /// How many metres the frame's width is there.
        pub frame_width_m: f64,
        /// How many metres of the floor the frame's height is there, away from the camera.
        pub frame_deep_m: f64,
    }

    /// What stands in the frame.
    pub struct StageAnswer {
        /// The composition: the shot's own, or the one that stands for its scene.
        pub composition: Composition,
        /// Whether it is the shot's own.
        pub own: bool,
        /// Somebody as they are before anything is said of them.
        pub newcomer: Person,
        /// The people, in the composition's order; nothing for who is behind the lens.
        pub people: Vec<Option<StagedPerson>>,
        /// The parts.
        pub parts: Vec<StagedPart>,
        /// How far somebody may stand in front of the mark, and behind it.
        pub nearest_m: f64,
        /// Behind it.
        pub farthest_m: f64,
    }
}

/// What stands in the frame of a shot, and where.
pub fn staging(plan: &Plan, own: bool) -> StageAnswer {
    let seen = outlook(plan);
    let (stage, distance) = (&plan.stage, plan.subject_distance);
    let field = seen.field(plan);
    let (across, high) =
        (plan.frame().0.as_metres() / seen.magnification, plan.frame().1.as_metres() / seen.magnification);
    let places = stage.part_places(distance, field);
    let view = stage.view(distance);
    let box_of = |[left, top, right, bottom]: [f64; 4]| FrameBox { left, top, right, bottom };
    let people = stage.skeletons().map(|(person, _, body)| {
        let depth = view.seen(spot(person.right_m, person.away_m, body.waist.z))?.depth;
        let at = stage.place_of(&view, field, &body)?;
        // On the plane in focus the floor at a distance `p` stands `D·h/p` under the lens's own height.
        let (lens, along) = (stage.composition.camera_height_m, distance.as_metres() + person.away_m);
        let deep = high * along * along / (distance.as_metres() * lens);
        let room = plan.background_behind.as_metres() + distance.as_metres();
        Some(StagedPerson {
            at: box_of(at),
            frame_width_m: across * depth / distance.as_metres(),
            frame_deep_m: deep.min(room),
        })
    });
    let parts = places.into_iter().filter_map(|place| {
        let part = plan.parts.iter().position(|part| part.drawn_as == place.part)?;
        Some(StagedPart { part, at: box_of([place.left, place.top, place.right, place.bottom]) })
    });
    StageAnswer {
        composition: stage.composition.clone(),
        own,
        newcomer: Person::new(crate::file::stage::Pose::Stand),
        people: people.collect(),
        parts: parts.collect(),
        nearest_m: 0.3 - distance.as_metres(),
        farthest_m: plan.background_behind.as_metres(),
    }
}
