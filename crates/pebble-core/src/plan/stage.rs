//! What stands in the frame, checked: nobody in the lens, nobody behind the wall.

use crate::file::gear::FirstRow;
use crate::file::stage::{Composition, Grip};
use crate::physics::motion::magnification;
use crate::plan::check::At;
use crate::plan::{Part, Plan, WHOLE_FRAME};
use crate::quantity::Metres;
use crate::quantity::bounds::{self, Invalid};
use crate::stage::Stage;
use std::sync::Arc;

/// Most people in one picture.
const MAX_PEOPLE: usize = 12;
/// Most things that nobody holds.
const MAX_THINGS: usize = 24;
/// Most things that one person has.
const MAX_HELD: usize = 6;
/// Nobody stands nearer to the lens.
const NEAREST_TO_LENS_M: f64 = 0.3;

impl Stage {
    /// Checks a composition. `distance` is from the lens to the mark, `behind` from the mark to what is behind it.
    ///
    /// # Errors
    /// [`Invalid`] names the field, the value and its range.
    pub(super) fn checked(
        at: &At,
        composition: &Composition,
        distance: Metres,
        behind: Metres,
    ) -> Result<Self, Invalid> {
        at.figure("camera_height_m", composition.camera_height_m, &bounds::LENS_HEIGHT)?;
        at.figure("aim_height_m", composition.aim_height_m, &bounds::AIM_HEIGHT)?;
        let many = |name: &str, count: usize, most: usize, what: &str| {
            let given = format!("a list of {count}");
            if count > most {
                Err(at.not_allowed(name, &given, &format!("a list of at most {most} {what}")))
            } else {
                Ok(())
            }
        };
        many("people", composition.people.len(), MAX_PEOPLE, "people")?;
        many("things", composition.things.len(), MAX_THINGS, "things")?;
        let stands = |at: &At, right: f64, away: f64, up: f64| {
            at.figure("right_m", right, &bounds::STANDS)?;
            // In front of the lens and before what is behind.
            let nearest = NEAREST_TO_LENS_M - distance.as_metres();
            let room = bounds::STANDS.within(nearest.min(behind.as_metres()), behind.as_metres());
            room.check(&at.of("away_m"), away)?;
            at.figure("up_m", up, &bounds::LIFTED)
        };
        for (index, person) in composition.people.iter().enumerate() {
            let at = at.row("people", index);
            stands(&at, person.right_m, person.away_m, person.up_m)?;
            at.figure("turned_deg", person.turned_deg, &bounds::TURNED)?;
            at.figure("height_m", person.height_m, &bounds::PERSON_HEIGHT)?;
            for (name, tone) in [("skin", person.skin), ("hair_tone", person.hair_tone), ("cloth", person.cloth)] {
                at.figure(name, tone, &bounds::REFLECTANCE)?;
            }
            at.maybe("cloth_hue_deg", person.cloth_hue_deg, &bounds::HUE)?;
            if person.with.len() > MAX_HELD {
                let given = format!("a list of {}", person.with.len());
                return Err(at.not_allowed("with", &given, "a list of at most 6 things"));
            }
        }
        for (index, thing) in composition.things.iter().enumerate() {
            let at = at.row("things", index);
            stands(&at, thing.right_m, thing.away_m, thing.up_m)?;
            at.figure("turned_deg", thing.turned_deg, &bounds::TURNED)?;
            at.figure("size", thing.size, &bounds::THING_SIZE)?;
        }
        if let Some(picture) = &composition.picture {
            let at = at.inside("picture");
            at.figure("horizon_share", picture.horizon_share, &bounds::HORIZON)?;
            if picture.id.len() != 64 || !picture.id.bytes().all(|byte| byte.is_ascii_hexdigit()) {
                return Err(at.not_allowed("id", &picture.id, "the SHA-256 of a picture, 64 hexadecimal digits"));
            }
        }
        Ok(Self { composition: composition.clone() })
    }
}

impl Composition {
    /// With everybody before what is behind and not in the lens: a shot that says nothing of its stage has one, however near
    /// it is taken.
    pub(super) fn between(mut self, distance: Metres, behind: Metres) -> Self {
        let farthest = behind.as_metres();
        let nearest = (NEAREST_TO_LENS_M - distance.as_metres()).min(farthest);
        for person in &mut self.people {
            person.away_m = person.away_m.clamp(nearest, farthest);
        }
        for thing in &mut self.things {
            thing.away_m = thing.away_m.clamp(nearest, farthest);
        }
        self
    }
}

impl Plan {
    /// The rows that the parts stand in: of all people who have the part, cut to the frame.
    pub(super) fn rows_of_parts(&self) -> Arc<[(f64, f64)]> {
        let magnification = magnification(self.body.focal, self.subject_distance);
        let sensor = self.body.sensor;
        let places = self
            .stage
            .part_places(self.subject_distance, (sensor.width / magnification, sensor.height / magnification));
        let rows = |part: &Part| {
            let own = places.iter().filter(|place| place.part == part.drawn_as);
            let (first, last) = own.fold((f64::INFINITY, f64::NEG_INFINITY), |(first, last), place| {
                // Across the curtains from the sensor's top edge.
                let (top, bottom) = match self.stage.upright() {
                    None => (place.top, place.bottom),
                    Some(Grip::Up) => (place.left, place.right),
                    Some(Grip::Down) => (1.0 - place.right, 1.0 - place.left),
                };
                let (low, high) = match self.body.first_row {
                    FirstRow::Top => (top, bottom),
                    FirstRow::Bottom => (1.0 - bottom, 1.0 - top),
                };
                (first.min(low.clamp(0.0, 1.0)), last.max(high.clamp(0.0, 1.0)))
            });
            if first < last { (first, last) } else { WHOLE_FRAME }
        };
        self.parts.iter().map(rows).collect()
    }
}
