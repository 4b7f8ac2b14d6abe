//! What a flash meter has read, taken into the plan: how far a light is off its figures, kept with it from then on.
//!
//! A reading of one light alone gives `c = log2(H_read / H_computed)`, the meter turned to the light and the computed one
//! without an earlier correction; one of all lights together, the dome to the camera, moves them all by the same.

use crate::file::gear::UnitReading;
use crate::file::shot::{Flash, Metered, Reading, Shot};
use crate::outlook::outlook;
use crate::physics::exposure::{INCIDENT_C, exposure_of_reading};
use crate::plan::Plan;
use crate::quantity::bounds::{self, Invalid, METERED};
use crate::quantity::said::{self, Unclear};
use crate::quantity::scale::{Grid, Iso, ShutterTime, meter_words};
use crate::quantity::words::signed;
use crate::quantity::{LuxSeconds, Seconds, Stops};
use crate::wire::{report, wire, word};

/// Farther off than this there is another reason than the figures of the unit.
const FAR: f64 = 1.5;

word! {
    /// What a meter stood in.
    pub enum MeterAt {
        /// One light alone, the meter turned to it.
        Light,
        /// All lights together, the dome to the camera.
        All,
        /// The steady light at the subject.
        Subject,
        /// The steady light at the background.
        Background,
    }
}

word! {
    /// Why a light is far from what is computed.
    pub enum FarBecause {
        /// It was fired at another power.
        Power,
        /// It stands elsewhere.
        Distance,
        /// Its head is zoomed or turned.
        Zoom,
        /// Something else is in front of it.
        Modifier,
        /// A second light was on.
        SecondLight,
        /// None of these: it is so.
        Itself,
    }
}

wire! {
    /// What a meter has read.
    pub struct MeterReading {
        /// Of what.
        pub at: MeterAt,
        /// The light, by its place in the list, where it is of one.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub light: Option<usize>,
        /// As the meter shows it: `6.3`, `f/5.6 and 3 tenths`.
        pub read: String,
        /// The meter's ISO; the camera's when not said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub iso: Option<f64>,
        /// The meter's time, where it lets steady light in with the flash; for steady light, the camera's when not said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub time: Option<String>,
        /// The day it was read.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub on: Option<String>,
        /// Why it is far off, asked for where it is.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub because: Option<FarBecause>,
    }
}

report! {
    /// A reading, taken.
    pub struct MeterTaken {
        /// The shot with it.
        pub shot: Shot,
        /// What it says, in a sentence.
        pub said: String,
        /// How far from what was computed, in stops; nothing for steady light, which is what is read.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub stops: Option<f64>,
        /// The same for the kit, one a unit that was metered.
        pub of_units: Vec<OfUnit>,
    }
    /// A reading as a unit of the kit keeps it.
    pub struct OfUnit {
        /// Identity of the unit.
        pub unit: String,
        /// The reading.
        pub reading: UnitReading,
    }
}

/// Why a reading cannot be taken.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum NotMetered {
    /// It is no figure of a meter.
    #[error(transparent)]
    Unclear(#[from] Unclear),
    /// A figure beside it cannot be.
    #[error(transparent)]
    Invalid(#[from] Invalid),
    /// There is no such light.
    #[error("There is no such light in this shot.")]
    NoLight,
    /// It does not fire.
    #[error("{light} does not fire: there is nothing to read of it. Switch it on first.")]
    Off {
        /// The light.
        light: String,
    },
    /// Its power follows.
    #[error("{light} is on automatic: its power follows what it meters itself. Set it by hand to read it.")]
    Automatic {
        /// The light.
        light: String,
    },
    /// Without flash it would be as much.
    #[error("The steady light alone gives as much at {time}: there is no flash in this reading.")]
    RoomAlone {
        /// The meter's time.
        time: String,
    },
    /// Another reason than the unit.
    #[error(
        "That is {stops} stops from what is computed ({computed}): was it another power, distance, zoom or modifier, or was \
         a second light on? Say which, and it is kept."
    )]
    Far {
        /// How far, with its sign.
        stops: String,
        /// What a meter would read by the figures.
        computed: String,
    },
    /// Nothing is so far off.
    #[error("That is {stops} stops from what is computed ({computed}), more than any light is off. Nothing was kept.")]
    TooFar {
        /// How far, with its sign.
        stops: String,
        /// What a meter would read by the figures.
        computed: String,
    },
}

/// Takes a reading into a shot.
///
/// # Errors
/// [`NotMetered`], a sentence for the place where it was typed.
pub fn metered(shot: &Shot, asked: &MeterReading) -> Result<MeterTaken, NotMetered> {
    let plan = Plan::try_from(shot)?;
    let av = said::meter(&asked.read)?;
    let grid = plan.body.grid;
    let iso = asked.iso.map_or(Ok(plan.settings.iso), |iso| Iso::read("iso", iso, Grid::Thirds))?;
    let time = asked.time.as_ref().map(|time| read_time(time, grid)).transpose()?;
    let taken = match asked.at {
        MeterAt::Light => of_light(shot, &plan, asked, (av, iso, time))?,
        MeterAt::All => of_all(shot, &plan, asked, (av, iso, time))?,
        MeterAt::Subject | MeterAt::Background => of_steady(shot, &plan, asked.at, (av, iso, time)),
    };
    // What comes of it is a shot that can be kept.
    Plan::try_from(&taken.shot)?;
    Ok(taken)
}

fn read_time(text: &str, grid: Grid) -> Result<ShutterTime, NotMetered> {
    Ok(ShutterTime::read("time", &said::dial_time(text)?, grid)?)
}

word! {
    /// Ways of reading steady light.
    pub enum ReadAs {
        /// f-number, time and ISO.
        Exposure,
        /// Exposure value at ISO 100.
        Ev100,
        /// Illuminance.
        Lux,
        /// A frame that showed nothing.
        Black,
    }
}

/// The room's light on the subject, or on the background, in another way of reading: the same light, as near as that way can
/// say it. A black frame is of the settings of the shot, for it says something else.
///
/// # Errors
/// [`Invalid`] for a shot that cannot be.
pub fn reread(shot: &Shot, background: bool, form: ReadAs) -> Result<Reading, Invalid> {
    let plan = Plan::try_from(shot)?;
    let lux = if background { plan.background_light } else { plan.subject_light }.as_lux();
    let (set, camera) = (&plan.settings, &shot.camera);
    let short = |value: f64| (value * 1e4).round() / 1e4;
    Ok(match form {
        ReadAs::Lux => Reading::Lux { lux: short(plan.meter.said(lux)) },
        ReadAs::Ev100 => {
            let ev = (lux * 100.0 / INCIDENT_C).log2().clamp(bounds::EV.min, bounds::EV.max);
            Reading::Ev100 { ev: short(ev) }
        }
        ReadAs::Exposure => {
            let square = lux * set.shutter.time().as_secs() * set.iso.number() / INCIDENT_C;
            let aperture_f = short(square.sqrt().clamp(bounds::APERTURE.min, bounds::APERTURE.max));
            Reading::Exposure { aperture_f, shutter: camera.shutter.clone(), iso: camera.iso }
        }
        ReadAs::Black => {
            Reading::Black { aperture_f: camera.aperture_f, shutter: camera.shutter.clone(), iso: camera.iso }
        }
    })
}

type Read = (f64, Iso, Option<ShutterTime>);

fn of_light(shot: &Shot, plan: &Plan, asked: &MeterReading, (av, iso, time): Read) -> Result<MeterTaken, NotMetered> {
    let index = asked.light.filter(|index| *index < plan.lights.len()).ok_or(NotMetered::NoLight)?;
    let light = &plan.lights[index];
    let seen = &outlook(plan).lights[index];
    fired(plan, index)?;
    let correction = corrected(plan, index);
    let computed = seen.on_set.exposure * (-correction).as_ratio();
    let read = flash_alone(plan, exposure_of_reading(av, iso), time)?;
    let stops = off(Stops::from_ratio(read / computed), computed, iso, asked)?;
    let mut to = shot.clone();
    let of_unit = keep(&mut to.lights[index], plan, index, stops, (av, iso), asked);
    Ok(MeterTaken {
        shot: to,
        said: format!(
            "{}: {} where its figures give {}. It counts from now on.",
            light.label,
            meter_words(tenths(av)),
            written(computed, iso)
        ),
        stops: Some(stops.as_stops()),
        // A unit's history has days.
        of_units: asked.on.is_some().then_some(of_unit).into_iter().collect(),
    })
}

fn of_all(shot: &Shot, plan: &Plan, asked: &MeterReading, (av, iso, time): Read) -> Result<MeterTaken, NotMetered> {
    let seen = outlook(plan);
    let lit: Vec<usize> =
        seen.firing().filter(|(_, light)| light.on_set.placement > Stops::DARK).map(|(index, _)| index).collect();
    if lit.is_empty() {
        return Err(NotMetered::Off { light: "No light".to_owned() });
    }
    for index in &lit {
        fired(plan, *index)?;
    }
    let computed = seen.dome_on_set(plan);
    let read = flash_alone(plan, exposure_of_reading(av, iso), time)?;
    let stops = off(Stops::from_ratio(read / computed), computed, iso, asked)?;
    let mut to = shot.clone();
    let mut of_units = Vec::with_capacity(lit.len());
    for index in lit {
        let whole = corrected(plan, index) + stops;
        METERED.check("metered", whole.as_stops())?;
        of_units.push(keep(&mut to.lights[index], plan, index, whole, (av, iso), asked));
    }
    let said = format!(
        "All together: {} where {} was computed. Every light moved by {}.",
        meter_words(tenths(av)),
        written(computed, iso),
        signed(stops.as_stops())
    );
    // Which of them is off, one reading of all does not say: it is not a unit's to keep.
    Ok(MeterTaken { shot: to, said, stops: Some(stops.as_stops()), of_units: Vec::new() })
}

fn of_steady(shot: &Shot, plan: &Plan, at: MeterAt, (av, iso, time): Read) -> MeterTaken {
    let grid = plan.body.grid;
    let time = time.unwrap_or(plan.settings.shutter);
    let aperture_f = ((av / 2.0).exp2() * 1e4).round() / 1e4;
    let number = iso.label(grid).parse().unwrap_or(iso.number());
    let reading = Reading::Exposure { aperture_f, shutter: time.label(grid), iso: number };
    let mut to = shot.clone();
    let place = if at == MeterAt::Subject { "subject" } else { "background" };
    *(if at == MeterAt::Subject { &mut to.ambient.subject } else { &mut to.ambient.background }) = reading;
    let said = format!("Steady light at the {place}: {} at {}.", meter_words(tenths(av)), time.label(grid));
    MeterTaken { shot: to, said, stops: None, of_units: Vec::new() }
}

fn fired(plan: &Plan, index: usize) -> Result<(), NotMetered> {
    let light = || plan.lights[index].label.clone();
    if !plan.fires(index) {
        return Err(NotMetered::Off { light: light() });
    }
    if plan.settings.lights[index].bias.is_some() {
        return Err(NotMetered::Automatic { light: light() });
    }
    Ok(())
}

/// What is in a light of earlier readings.
fn corrected(plan: &Plan, index: usize) -> Stops {
    let light = &plan.lights[index];
    Stops::from_ratio(light.throw.output / (light.unit.entry.output() * light.unit.share))
}

/// Without the steady light that the meter's own time lets in.
fn flash_alone(plan: &Plan, read: LuxSeconds, time: Option<ShutterTime>) -> Result<LuxSeconds, NotMetered> {
    let Some(time) = time else { return Ok(read) };
    let seconds: Seconds = time.time();
    let room = plan.subject_light.as_lux() * seconds.as_secs();
    let alone = read.as_lux_seconds() - room;
    if alone <= read.as_lux_seconds() * 0.02 {
        return Err(NotMetered::RoomAlone { time: time.label(plan.body.grid) });
    }
    Ok(LuxSeconds::from_lux_seconds(alone))
}

/// How far off, where that can be of the light itself.
fn off(by: Stops, computed: LuxSeconds, iso: Iso, asked: &MeterReading) -> Result<Stops, NotMetered> {
    let said = || (signed(by.as_stops()), written(computed, iso));
    if METERED.check("metered", by.as_stops()).is_err() {
        let (stops, computed) = said();
        return Err(NotMetered::TooFar { stops, computed });
    }
    if by.as_stops().abs() > FAR && asked.because.is_none() {
        let (stops, computed) = said();
        return Err(NotMetered::Far { stops, computed });
    }
    Ok(by)
}

fn keep(
    light: &mut Flash,
    plan: &Plan,
    index: usize,
    by: Stops,
    (av, iso): (f64, Iso),
    asked: &MeterReading,
) -> OfUnit {
    let stops = (by.as_stops() * 1000.0).round() / 1000.0;
    let dial = &plan.settings.lights[index];
    let power = plan.lights[index].unit.dial.label(dial.power);
    let alone = if asked.at == MeterAt::All { ", all lights together" } else { "" };
    let read = format!(
        "{} at {}, {power}, ISO {}{alone}",
        meter_words(tenths(av)),
        plan.lengths.say(dial.distance.as_metres(), 1),
        iso.label(plan.body.grid)
    );
    light.metered = Some(Metered {
        stops,
        unit: light.unit.id.clone(),
        modifier: light.modifier.id.clone(),
        read: read.clone(),
        on: asked.on.clone(),
        because: asked.because.map(|because| because_word(because).to_owned()),
    });
    let reading = UnitReading {
        on: asked.on.clone().unwrap_or_default(),
        modifier: light.modifier.id.clone(),
        through: light.modifier.name.clone(),
        read,
        stops,
        counts: true,
    };
    OfUnit { unit: light.unit.id.clone(), reading }
}

const fn because_word(because: FarBecause) -> &'static str {
    match because {
        FarBecause::Power => "another power",
        FarBecause::Distance => "another distance",
        FarBecause::Zoom => "the head zoomed or turned",
        FarBecause::Modifier => "another modifier",
        FarBecause::SecondLight => "a second light",
        FarBecause::Itself => "none found: it is so",
    }
}

fn tenths(av: f64) -> i32 {
    (av * 10.0).round() as i32
}

fn written(exposure: LuxSeconds, iso: Iso) -> String {
    crate::physics::exposure::metered_tenths(exposure, iso).map_or_else(|| "nothing".to_owned(), meter_words)
}
