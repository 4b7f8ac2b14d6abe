//! The set from above and from the side: where lights stand by tape and by clock, how even the area is lit, what the lens
//! sees that it must not, what the lights do to the background and along a way, where the sun is, and what a stand needs in a
//! gust.

mod around;
mod arrange;
mod even;
mod lamps;
mod light;
mod moves;
mod notes;
mod people;
mod said;
mod sun;
mod tapes;

use crate::answers::standing::sheet_says;
use crate::answers::strips;
use crate::file::floor::Area;
use crate::file::shot::{Role, Shot};
use crate::outlook::{Outlook, outlook};
use crate::physics::exposure::metered_tenths;
use crate::plan::Plan;
use crate::quantity::Metres;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::scale::meter_words;
use crate::quantity::words::signed;
use crate::stage::field::{CHEST, Lamp, Shining, clock};
use crate::stage::lens::Lens;
use crate::stage::region::{Evenness, Region};
use crate::stage::sheet::Sheet;
use crate::stage::space::Spot;
pub use arrange::arranged;
use moves::{Moves, carried, no_such_light};
pub use said::{
    AlongSaid, ArrangedAnswer, BehindSaid, CarriedTo, Clearing, Contour, EvenAnswer, EvenWay, Evened, EvennessSaid,
    FloorAnswer, FloorLamp, FloorLight, FloorNote, LampOnFloor, LampTo, NoteSeverity, PersonOnFloor, Place3, SheetSaid,
    SunHour, SunSaid, TapedSaid, TapedStand,
};

/// Contours are told in thirds of a stop, to both sides of the value at the mark.
const LEVELS: [f64; 11] =
    [-5.0 / 3.0, -4.0 / 3.0, -1.0, -2.0 / 3.0, -1.0 / 3.0, 0.0, 1.0 / 3.0, 2.0 / 3.0, 1.0, 4.0 / 3.0, 5.0 / 3.0];
/// Two metres wide and one deep, from the knees to the raised hand: where most of a jump happens.
const USUAL_AREA: Region = Region::between((-1.0, 1.0), (-0.5, 0.5), (0.6, 1.9));

/// Which light is told over the area.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum LightOf {
    /// All flashes that are meant for the subject, together.
    All,
    /// One of them.
    One(usize),
    /// The steady light.
    Ambient,
}

/// What of the set is asked for.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct FloorAsk {
    /// A steady lamp that is carried somewhere first.
    pub lamp: Option<LampTo>,
    /// Contours of this.
    pub of: LightOf,
    /// The light in hand, whose evenness is told, and what may be done about it.
    pub in_hand: usize,
    /// At this height.
    pub height_m: f64,
    /// In such a gust, in m/s.
    pub gust_m_s: Option<f64>,
    /// How far it is between two places: right, away, up.
    pub measure: Option<[[f64; 3]; 2]>,
    /// A stand as it was taped.
    pub taped: Option<TapedStand>,
}

impl Default for FloorAsk {
    /// All lights together, at the height of a chest.
    fn default() -> Self {
        Self { lamp: None, of: LightOf::All, in_hand: 0, height_m: CHEST.z, gust_m_s: None, measure: None, taped: None }
    }
}

/// The set of a shot, with a light or a lamp carried first where one is.
///
/// # Errors
/// [`Invalid`] for a place or a shot that cannot be.
pub fn floor(shot: &Shot, to: Option<&CarriedTo>, ask: FloorAsk) -> Result<FloorAnswer, Invalid> {
    let shot = match to {
        Some(to) => carried(shot, to)?,
        None => shot.clone(),
    };
    let shot = match &ask.lamp {
        Some(to) => lamps::carried(&shot, to)?,
        None => shot,
    };
    let plan = Plan::try_from(&shot)?;
    let seen = outlook(&plan);
    let lens = plan.lens();
    let region = region_of(&plan);
    let lamps: Vec<Lamp> = (0..plan.lights.len()).map(|index| seen.lamp(&plan, index)).collect();
    let all = meant_for_it(&plan, &seen);
    let eye = lens.view.eye;
    let shining: Vec<Shining> = all.iter().map(|index| lamps[*index].shining()).collect();
    let together = |place: Spot| shining.iter().map(|lamp| lamp.on_dome(place, eye)).sum::<f64>();
    let height = bounds::LIFTED.check("height_m", ask.height_m)?;
    let over_area = match ask.of {
        LightOf::One(light) if light >= lamps.len() => return Err(no_such_light("light", light, lamps.len())),
        LightOf::One(light) => {
            let lamp = lamps[light].shining();
            match &plan.lights[light] {
                of if of.bounce.is_some() => {
                    OverArea::none("It comes from all over a surface: even, as far as is known")
                }
                of if of.role == Role::Backdrop => OverArea::none("It is for the backdrop: none of it over the area"),
                _ if lamp.on(CHEST) <= 0.0 => OverArea::none("None of it at the mark"),
                _ => OverArea::of(&region, height, |place| lamp.on(place)),
            }
        }
        LightOf::All if all.is_empty() => OverArea::none("No flash on the area"),
        LightOf::All => OverArea::of(&region, height, together),
        LightOf::Ambient => {
            let steady = seen.steady_field(&plan, eye);
            match steady.on_dome(CHEST) > 0.0 {
                false => OverArea::none("No steady light is known"),
                true if !steady.has_lamps() => OverArea::none("Taken as even: no lamp is said to stand anywhere"),
                true => OverArea::of(&region, height, |place| steady.on_dome(place)),
            }
        }
    };
    if ask.in_hand >= lamps.len() {
        return Err(no_such_light("in_hand", ask.in_hand, lamps.len()));
    }
    let gust = ask.gust_m_s.map(|gust| bounds::GUST.check("gust_m_s", gust)).transpose()?;
    let moves = Moves::of(&shot, &plan, &seen, lens);
    let shadows = around::shadows(&plan, &seen, &lens, &lamps);
    let lights: Vec<FloorLight> = { lamps.iter().enumerate() }
        .map(|(index, lamp)| {
            let region = (index == ask.in_hand).then_some(&region);
            light::told(&moves, (index, lamp), (region, gust), &shadows[index])
        })
        .collect();
    let steady_lamps = lamps::told(&moves);
    let sheet = plan.sheet.map(|(wide, high)| {
        let sheet = Sheet { behind: lens.behind, wide, high };
        let lacks = sheet.lacks(&lens);
        SheetSaid {
            covers: lacks.nothing(),
            missing_width_m: lacks.width,
            missing_height_m: lacks.height,
            floor_shows: lacks.floor_shows,
            says: sheet_says(&plan, &lens, &sheet) + &followed_says(&plan, &lens, &sheet),
        }
    });
    let (field, field_side) = lens.edges(lens.behind);
    let contour = |(stops, stretches): (&f64, Vec<[f64; 4]>)| Contour { stops: *stops, stretches };
    let view = lens.view;
    Ok(FloorAnswer {
        camera: place(eye),
        aim: place(eye + view.forward * view.distance),
        chest_m: [CHEST.x, CHEST.y, CHEST.z],
        field,
        field_side,
        camera_says: format!(
            "{:.0} mm · {} high · {} away",
            shot.camera.focal_mm,
            metres(&plan, eye.z),
            metres(&plan, plan.subject_distance.as_metres())
        ),
        behind_m: lens.behind,
        area: shot.area.clone().unwrap_or_else(usual_area),
        area_corners: region.corners().into_iter().map(|(right, away)| [right, away]).collect(),
        area_own: plan.area.is_some(),
        even: over_area.even,
        even_says: over_area.says,
        ends: over_area.ends,
        notes: notes::notes(&plan, &moves, (&lights, &steady_lamps), sheet.as_ref()),
        people: people::told(&moves, &lamps),
        lights,
        lamps: steady_lamps,
        contours: LEVELS.iter().zip(over_area.contours).map(contour).collect(),
        sheet,
        behind: around::behind(&plan, &seen, &lens, &lamps),
        taped: ask.taped.map(|stand| tapes::taped(&plan, &lens, &lamps, stand)).transpose()?,
        measured: ask.measure.map(|ends| tapes::measured(&plan, ends)).transpose()?,
        along: plan.way.filter(|_| !all.is_empty()).map(|way| around::along(&plan, &way, (&all, &lamps))),
        sun: shot.sky.as_ref().and_then(|sky| sun::sun(sky, &lens, &plan)),
        reads: metered_tenths(seen.dome_on_set(&plan), plan.settings.iso).map(meter_words),
        settings_says: format!(
            "f/{} · {} · ISO {}",
            plan.settings.aperture.label(plan.body.grid),
            plan.settings.shutter.label(plan.body.grid),
            plan.settings.iso.label(plan.body.grid)
        ),
        shot,
    })
}

/// What is told of some light over the area.
struct OverArea {
    contours: Vec<Vec<[f64; 4]>>,
    even: Option<EvennessSaid>,
    says: String,
    ends: Option<String>,
}

impl OverArea {
    fn of(region: &Region, height: f64, light: impl Fn(Spot) -> f64) -> Self {
        let even = evenness_said(region.evenness(&light));
        Self {
            contours: region.contours(height, &LEVELS, &light),
            says: format!(
                "{} … {} over the area, {:.0} % within a third",
                signed(even.high_stops),
                signed(even.low_stops),
                even.within_third * 100.0
            ),
            ends: Some(around::ends(region, light)),
            even: Some(even),
        }
    }

    fn none(why: &str) -> Self {
        Self { contours: Vec::new(), even: None, says: why.to_owned(), ends: None }
    }
}

/// Ways to light the area of a shot by all lights together, side by side: as it stands, each light carried on its own line,
/// in the corners, one in the middle; as far as the set has lights for them.
///
/// # Errors
/// [`Invalid`] for a shot that cannot be.
pub fn evened(shot: &Shot) -> Result<EvenAnswer, Invalid> {
    let plan = Plan::try_from(shot)?;
    let seen = outlook(&plan);
    let moves = Moves::of(shot, &plan, &seen, plan.lens());
    Ok(even::ways(moves, region_of(&plan), meant_for_it(&plan, &seen)))
}

/// What a sheet lacks for a camera that follows somebody to the ends of the area; nothing more than for one that stands still
/// is not said.
fn followed_says(plan: &Plan, lens: &Lens, sheet: &Sheet) -> String {
    let Some(area) = plan.area else { return String::new() };
    let wider = sheet.lacks_followed(lens, &area.corners());
    if wider <= sheet.lacks(lens).width + 0.05 {
        return String::new();
    }
    match wider.is_finite() {
        true => format!(" For a camera that follows to the ends of the area: {} wider.", plan.lengths.say(wider, 1)),
        false => " A camera that follows to the ends of the area looks past any sheet there.".to_owned(),
    }
}

fn region_of(plan: &Plan) -> Region {
    plan.area.unwrap_or(USUAL_AREA)
}

fn usual_area() -> Area {
    let Region { x, y, z, .. } = USUAL_AREA;
    Area { left_m: x.0, right_m: x.1, near_m: y.0, far_m: y.1, low_m: z.0, high_m: z.1, corners: Vec::new() }
}

/// Lights for the subject: on, not behind a surface, and not for the backdrop alone.
fn meant_for_it(plan: &Plan, seen: &Outlook) -> Vec<usize> {
    let meant = |index: &usize| {
        let light = &plan.lights[*index];
        seen.lights[*index].fires && light.role != Role::Backdrop && light.bounce.is_none()
    };
    (0..plan.lights.len()).filter(meant).collect()
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

fn metres(plan: &Plan, value: f64) -> String {
    strips::distance_label(plan.lengths, Metres::from_metres(value))
}

/// Hours and minutes on the floor.
fn clock_words(bearing: f64) -> String {
    let minutes = (clock(bearing) * 60.0).round() as u32 % 720;
    let hours = if minutes < 60 { 12 } else { minutes / 60 };
    format!("{hours}:{:02}", minutes % 60)
}
