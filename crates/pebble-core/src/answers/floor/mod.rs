//! The set from above and from the side: where lights stand by tape and by clock, how even the area is lit, what the lens
//! sees that it must not, whether the sheet is large enough, and what a stand needs in a gust.

mod moves;
mod seen;

use crate::answers::strips;
use crate::file::floor::Area;
use crate::file::shot::{Role, Shot};
use crate::outlook::{Outlook, outlook};
use crate::physics::exposure::metered_tenths;
use crate::plan::Plan;
use crate::quantity::Metres;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::scale::meter_words;
use crate::stage::field::{CHEST, Evenness, Lamp, Region, clock, edge_of, placed};
use crate::stage::space::{Spot, spot};
use crate::stage::tape::{Ballast, MOST_BALLAST_KG, ballast, tape};
use crate::wire::{report, wire};
use moves::{Moves, carried, no_such_light};
use seen::{Seen, covers};

/// Contours are told in thirds of a stop, to both sides of the value at the mark.
const LEVELS: [f64; 11] =
    [-5.0 / 3.0, -4.0 / 3.0, -1.0, -2.0 / 3.0, -1.0 / 3.0, 0.0, 1.0 / 3.0, 2.0 / 3.0, 1.0, 4.0 / 3.0, 5.0 / 3.0];
/// A flat face drags so much, a stand with a head weighs so much, and its feet stand on a circle of this radius, where
/// nobody says.
const DRAG: f64 = 1.2;
const STAND_KG: f64 = 4.0;
const FEET_M: f64 = 0.55;

wire! {
    /// A light that is carried to a place.
    pub struct CarriedTo {
        /// Which.
        pub light: usize,
        /// To the right of the mark.
        pub x_m: f64,
        /// Away from the camera, from the mark.
        pub y_m: f64,
        /// Height of its head over the floor.
        pub z_m: f64,
        /// With another power, where that goes with it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub power: Option<f64>,
    }
}

report! {
    /// A place of the set.
    pub struct Place3 {
        /// To the right.
        pub x_m: f64,
        /// Away from the camera.
        pub y_m: f64,
        /// Up.
        pub z_m: f64,
    }

    /// How even something lights the area, against its value at the mark.
    pub struct EvennessSaid {
        /// The highest less the lowest, in stops.
        pub spread_stops: f64,
        /// The lowest.
        pub low_stops: f64,
        /// The highest.
        pub high_stops: f64,
        /// Share of the area within a third of a stop.
        pub within_third: f64,
        /// Within a half.
        pub within_half: f64,
    }

    /// Lines of equal light.
    pub struct Contour {
        /// Against the mark.
        pub stops: f64,
        /// Stretches: from and to, right and away.
        pub stretches: Vec<[f64; 4]>,
    }

    /// A move that clears the picture, the light at the mark kept as it is.
    pub struct Clearing {
        /// In words: `0.4 m left, 1/8`.
        pub says: String,
        /// Where it then is.
        pub to: Place3,
        /// Its power there, where another one is as bright at the mark.
        pub power: Option<f64>,
        /// What else of the picture it makes worse, in words; nothing when it harms nothing.
        pub spoils: Option<String>,
    }

    /// A place and a power from which a light is as bright at the mark and more even over the area.
    pub struct Evened {
        /// In words: `0.9 m back, 1/4`.
        pub says: String,
        /// Where it then is.
        pub to: Place3,
        /// Its power there.
        pub power: f64,
        /// The spread now, in stops.
        pub from_stops: f64,
        /// The spread then.
        pub to_stops: f64,
    }

    /// A light on the floor.
    pub struct FloorLight {
        /// Group and role.
        pub label: String,
        /// What it is there for.
        pub role: Role,
        /// Unit and what is in front of it.
        pub unit: String,
        /// Whether it is on.
        pub on: bool,
        /// Where its face is.
        pub at: Place3,
        /// Radius of the face.
        pub radius_m: f64,
        /// Half-angle at which it has lost a stop.
        pub half_deg: f64,
        /// Radius around its aim within which it loses less than a stop.
        pub circle_m: f64,
        /// To the chest on the mark.
        pub distance_m: f64,
        /// Foot to the mark, on the floor.
        pub to_mark_m: f64,
        /// Foot to the camera's foot.
        pub to_camera_m: f64,
        /// Which side it is on, from the camera.
        pub right: bool,
        /// Around the subject.
        pub bearing_deg: f64,
        /// The same as a clock: `7:44`.
        pub clock: String,
        /// How far it looks down.
        pub tilt_down_deg: f64,
        /// What a meter at the mark reads of it.
        pub reads: Option<String>,
        /// Over the area.
        pub evenness: Option<EvennessSaid>,
        /// What would even it out, where anything would.
        pub evens: Option<Evened>,
        /// What of it the lens sees: `face`, `stand`.
        pub in_picture: Vec<String>,
        /// Moves that clear it, the smallest first.
        pub clears: Vec<Clearing>,
        /// Whether it shines into the lens.
        pub flares: bool,
        /// Ballast in the gust that was entered.
        pub ballast_kg: Option<f64>,
        /// Whether it is to be taken down instead.
        pub take_down: bool,
    }

    /// The sheet behind.
    pub struct SheetSaid {
        /// Whether it fills the frame.
        pub covers: bool,
        /// How much wider it would have to be.
        pub missing_width_m: f64,
        /// How much higher.
        pub missing_height_m: f64,
        /// Whether the floor shows below it.
        pub floor_shows: bool,
        /// In a sentence.
        pub says: String,
    }

    /// Something to see to.
    pub struct FloorNote {
        /// In a few words.
        pub title: String,
        /// What and why.
        pub says: String,
        /// Which light it is about.
        pub light: Option<usize>,
        /// What clears it.
        pub clears: Vec<Clearing>,
    }

    /// The set.
    pub struct FloorAnswer {
        /// The shot, with what was carried where it now is.
        pub shot: Shot,
        /// The lens.
        pub camera: Place3,
        /// What stands in the middle of the frame.
        pub aim: Place3,
        /// Where the left and right edges of the frame are on the floor's plan at the back of the set: two places each.
        pub field: [[f64; 2]; 2],
        /// The upper and lower edges from the side: away and up at the back of the set.
        pub field_side: [[f64; 2]; 2],
        /// Focal length, height and distance, in words.
        pub camera_says: String,
        /// Behind the subject.
        pub behind_m: f64,
        /// The area.
        pub area: Area,
        /// Whether somebody said where it is.
        pub area_own: bool,
        /// The lights.
        pub lights: Vec<FloorLight>,
        /// All that are meant for the subject together, by the dome.
        pub together: Option<EvennessSaid>,
        /// Lines of equal light of what was asked for.
        pub contours: Vec<Contour>,
        /// The sheet, where one is said.
        pub sheet: Option<SheetSaid>,
        /// What to see to.
        pub notes: Vec<FloorNote>,
    }
}

/// What of the set is asked for.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct FloorAsk {
    /// Contours of one light; of all together where none is named.
    pub light: Option<usize>,
    /// At this height.
    pub height_m: f64,
    /// In such a gust, in m/s.
    pub gust_m_s: Option<f64>,
}

fn place(spot: Spot) -> Place3 {
    Place3 { x_m: spot.x, y_m: spot.y, z_m: spot.z }
}

fn evenness_said(found: Evenness) -> EvennessSaid {
    // No light somewhere in it is as uneven as can be.
    let told = |stops: f64| stops.clamp(-20.0, 20.0);
    EvennessSaid {
        spread_stops: told(found.spread),
        low_stops: told(found.ends.0),
        high_stops: told(found.ends.1),
        within_third: found.within_third,
        within_half: found.within_half,
    }
}

/// A light of the plan in space.
fn lamp(plan: &Plan, seen: &Outlook, index: usize) -> Lamp {
    let (light, dial) = (&plan.lights[index], &plan.settings.lights[index]);
    let at = placed(light.bearing, light.height, dial.distance);
    Lamp {
        strength: light.throw.strength(seen.lights[index].power) * f64::from(dial.heads),
        face: light.throw.face,
        beam: light.beam(),
        at,
        aim: CHEST,
    }
}

/// The set of a shot, with a light carried first where one is.
///
/// # Errors
/// [`Invalid`] for a place or a shot that cannot be.
pub fn floor(shot: &Shot, to: Option<&CarriedTo>, ask: FloorAsk) -> Result<FloorAnswer, Invalid> {
    let shot = match to {
        Some(to) => carried(shot, to)?,
        None => shot.clone(),
    };
    let plan = Plan::try_from(&shot)?;
    let seen = outlook(&plan);
    let view = plan.stage.view(plan.subject_distance);
    let area = plan.area.unwrap_or(USUAL_AREA);
    let [x, y, z] = area;
    let region = Region { x, y, z };
    let lamps: Vec<Lamp> = (0..plan.lights.len()).map(|index| lamp(&plan, &seen, index)).collect();
    // Meant for the subject: on, not behind a surface, and not for the backdrop alone.
    let meant = |index: &usize| {
        let light = &plan.lights[*index];
        seen.lights[*index].fires && light.role != Role::Backdrop && light.bounce.is_none()
    };
    let all: Vec<usize> = (0..lamps.len()).filter(meant).collect();
    let eye = view.eye;
    let together = |place: Spot| all.iter().map(|index| lamps[*index].on_dome(place, eye)).sum::<f64>();
    let height = bounds::LIFTED.check("height_m", ask.height_m)?;
    let contours = match ask.light {
        Some(light) if light >= lamps.len() => return Err(no_such_light("light", light, lamps.len())),
        Some(light) => region.contours(height, &LEVELS, |place| lamps[light].on(place)),
        None if all.is_empty() => Vec::new(),
        None => region.contours(height, &LEVELS, together),
    };
    let gust = ask.gust_m_s.map(|gust| bounds::GUST.check("gust_m_s", gust)).transpose()?;
    let in_frame = Seen::of(&plan, &seen);
    let moves = Moves::of(&shot, &plan, &seen, &in_frame);
    let lights: Vec<FloorLight> =
        lamps.iter().enumerate().map(|(index, lamp)| told(&moves, (index, lamp), &region, gust)).collect();
    let sheet = plan.sheet.map(|size| covers(&in_frame, plan.background_behind.as_metres(), size));
    let notes = notes(&lights, sheet.as_ref());
    let behind = plan.background_behind.as_metres();
    let (field, field_side) = in_frame.edges(behind);
    let contour = |(stops, stretches): (&f64, Vec<[f64; 4]>)| Contour { stops: *stops, stretches };
    Ok(FloorAnswer {
        camera: place(eye),
        aim: place(eye + view.forward * view.distance),
        field,
        field_side,
        camera_says: format!(
            "{:.0} mm · {} high · {} away",
            shot.camera.focal_mm,
            metres(&plan, eye.z),
            metres(&plan, plan.subject_distance.as_metres())
        ),
        behind_m: behind,
        area: Area { left_m: x.0, right_m: x.1, near_m: y.0, far_m: y.1, low_m: z.0, high_m: z.1 },
        area_own: plan.area.is_some(),
        together: (!all.is_empty()).then(|| evenness_said(region.evenness(together))),
        lights,
        contours: LEVELS.iter().zip(contours).map(contour).collect(),
        sheet,
        notes,
        shot,
    })
}

/// Two metres wide and one deep, from the knees to the raised hand: where most of a jump happens.
const USUAL_AREA: [(f64, f64); 3] = [(-1.0, 1.0), (-0.5, 0.5), (0.6, 1.9)];

fn metres(plan: &Plan, value: f64) -> String {
    strips::distance_label(plan.lengths, Metres::from_metres(value))
}

/// Hours and minutes on the floor.
fn clock_words(bearing: f64) -> String {
    let minutes = (clock(bearing) * 60.0).round() as u32 % 720;
    let hours = if minutes < 60 { 12 } else { minutes / 60 };
    format!("{hours}:{:02}", minutes % 60)
}

fn told(moves: &Moves, (index, lamp): (usize, &Lamp), region: &Region, gust: Option<f64>) -> FloorLight {
    let Moves { plan, seen, in_frame, .. } = moves;
    let (light, dial) = (&plan.lights[index], &plan.settings.lights[index]);
    let radius = light.throw.face.radius.as_metres();
    let by_tape = tape(lamp.at, lamp.aim, spot(0.0, 0.0, 0.0), spot(in_frame.eye.x, in_frame.eye.y, 0.0));
    // Bounced light comes from elsewhere, and what is off lights nothing.
    let straight = light.bounce.is_none();
    let meant = light.role == Role::InSet;
    let what = if straight { in_frame.of_light(lamp.at, radius) } else { Vec::new() };
    let clears = if what.is_empty() || meant { Vec::new() } else { moves.clearing((index, lamp)) };
    let hung: Option<Ballast> = gust.map(|gust| {
        let area = std::f64::consts::PI * radius * radius;
        ballast(area, DRAG, gust, lamp.at.z, STAND_KG, FEET_M)
    });
    FloorLight {
        label: light.label.clone(),
        role: light.role,
        unit: light.name.clone(),
        on: light.on,
        at: place(lamp.at),
        radius_m: radius,
        half_deg: edge_of(&lamp.beam, 1.0).as_radians().to_degrees(),
        circle_m: lamp.circle(1.0),
        distance_m: dial.distance.as_metres(),
        to_mark_m: by_tape.to_mark,
        to_camera_m: by_tape.to_camera,
        right: by_tape.right,
        bearing_deg: light.bearing.as_radians().to_degrees(),
        clock: clock_words(light.bearing.as_radians().to_degrees()),
        tilt_down_deg: by_tape.tilt_down,
        reads: metered_tenths(seen.lights[index].on_set.exposure, plan.settings.iso).map(meter_words),
        evenness: straight.then(|| evenness_said(region.evenness(|place| lamp.on(place)))),
        evens: if straight && light.on { moves.evening((index, lamp), region) } else { None },
        flares: straight && !meant && light.on && lamp.shines_at(in_frame.eye) && in_frame.is_free(lamp.at),
        in_picture: what,
        clears,
        ballast_kg: hung.map(|hung| hung.ballast),
        take_down: hung.is_some_and(|hung| hung.ballast > MOST_BALLAST_KG),
    }
}

fn notes(lights: &[FloorLight], sheet: Option<&SheetSaid>) -> Vec<FloorNote> {
    let mut notes = Vec::new();
    for (index, light) in lights.iter().enumerate().filter(|(_, light)| light.on) {
        if !light.in_picture.is_empty() && light.role != Role::InSet {
            notes.push(FloorNote {
                title: format!("{}: {} in the picture", light.label, light.in_picture.join(" and ")),
                says: "The smallest moves that clear it by a hand's breadth, as bright at the mark.".to_owned(),
                light: Some(index),
                clears: light.clears.clone(),
            });
        }
        if light.flares {
            notes.push(FloorNote {
                title: format!("{} shines into the lens", light.label),
                says: "The lens stands inside its beam: a flag between them, a grid, or turn it away.".to_owned(),
                light: Some(index),
                clears: Vec::new(),
            });
        }
        if light.take_down {
            notes.push(FloorNote {
                title: format!("{}: take it down in that gust", light.label),
                says: format!(
                    "An estimate: {:.0} kg of ballast would be needed. The stand's manual, the venue's wind limit and whoever rigs decide.",
                    light.ballast_kg.unwrap_or_default()
                ),
                light: Some(index),
                clears: Vec::new(),
            });
        }
    }
    if let Some(sheet) = sheet.filter(|sheet| !sheet.covers) {
        notes.push(FloorNote {
            title: "The sheet does not fill the frame".to_owned(),
            says: sheet.says.clone(),
            light: None,
            clears: Vec::new(),
        });
    }
    notes
}
