//! A flash of the plan: its unit, what is in front of it, where it stands and what it reaches.

use super::Part;
use super::dials::Dial;
use super::floor;
use super::front::{dye_of, tinted_by};
use super::meter::Meter;
use super::source;
use super::target::Target;
use super::unit::Unit;
use crate::file::shot::{self, Role};
use crate::physics::output::colour::{self, Dye};
use crate::physics::output::{Beam, Bounce, Throw};
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::{Angle, LuxSeconds, Metres, Seconds, Stops};
use crate::stage::field::Turned;
use crate::stage::flag::Flag;

/// A flash unit with its modifier and trigger.
#[derive(Clone, Debug, PartialEq)]
pub struct Light {
    /// Name of the unit, for sentences.
    pub name: String,
    /// Group and role: `B rim`.
    pub label: String,
    /// What it is called in a sentence about several: the label and the unit.
    pub spoken: String,
    /// What it is there for.
    pub role: Role,
    /// Letter of its group.
    pub group: String,
    /// The unit.
    pub unit: Unit,
    /// The way to the subject: modifier, gel and feathering in it.
    pub throw: Throw,
    /// How far it was off when it was metered as it stands.
    pub metered: Option<Stops>,
    /// Loss of the gel.
    pub gel: Stops,
    /// Change by what is in front of it, on its axis.
    pub in_front: Stops,
    /// Change by turning its axis away.
    pub feathered: Stops,
    /// Which way that is, where somebody said.
    pub turned: Option<Turned>,
    /// Trigger and unit together.
    pub lag: Seconds,
    /// Channels of its trigger; a cord has none.
    pub channels: Option<u32>,
    /// Groups that its trigger tells apart, where known.
    pub groups: Option<u32>,
    /// How far its trigger reaches, or how long its cord is, where known.
    pub range: Option<Metres>,
    /// Identity of its unit in the kit.
    pub unit_id: String,
    /// How many of its unit are owned, where a kit says so.
    pub owned: Option<u32>,
    /// Whether it is switched on.
    pub on: bool,
    /// Where it stands around the subject.
    pub bearing: Angle,
    /// How high.
    pub height: Angle,
    /// Whether it sits on the camera.
    pub on_camera: bool,
    /// The surface it is bounced off.
    pub bounce: Option<Surface>,
    /// How much brighter its edge looks, where that was seen.
    pub grazing: Option<Stops>,
    /// Its modelling lamp, where it burns.
    pub modelling: Option<Glow>,
    /// Where it shall fall.
    pub target: Option<Target>,
    /// How far back from its head its stand is, on a boom.
    pub boom: Option<f64>,
    /// What its stand weighs with all that is on it, in kilograms, where somebody weighed it.
    pub stand_kg: Option<f64>,
    /// How far its feet stand from the column, in metres, where somebody measured it.
    pub feet: Option<f64>,
    /// What keeps it out of the lens.
    pub flag: Option<Flag>,
    beam: Beam,
    colour: Colour,
    misses: u32,
}

/// A surface that light is bounced off.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Surface {
    /// Flash straight to it.
    pub away: Metres,
    /// How the head is turned towards it.
    pub tilt: Angle,
    /// Its reflectance.
    pub reflectance: f64,
    /// Whether it has a colour.
    pub coloured: bool,
}

/// A modelling lamp that burns in a flash.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Glow {
    /// Illuminance at one metre through what is in front of the flash.
    pub lux_at_1m: f64,
    /// Whether it follows the power.
    pub proportional: bool,
    /// Its colour through the gel, in kelvin.
    pub kelvin: f64,
    /// What its own hue and that of the gel leave.
    pub dye: Dye,
}

impl Glow {
    /// Illuminance at a metre while the flash is set to a power.
    pub fn at(&self, power: f64) -> f64 {
        self.lux_at_1m * if self.proportional { power } else { 1.0 }
    }
}

/// Colour over power.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Colour {
    full_k: f64,
    lowest_mired: f64,
    gel_mired: f64,
    dye: Dye,
}

/// Colour of a unit whose maker says nothing about it.
const USUAL_FLASH_K: f64 = 5500.0;

impl Light {
    pub(super) fn of(at: &At, wire: &shot::Flash, parts: &[Part], meter: Meter) -> Result<Self, Invalid> {
        Self::with_unit(at, wire, wire.unit.check(&at.inside("unit"))?, (parts, meter))
    }

    /// The same with another unit than the one that is written down, checked before.
    pub(crate) fn with_unit(
        at: &At,
        wire: &shot::Flash,
        unit: Unit,
        (parts, meter): (&[Part], Meter),
    ) -> Result<Self, Invalid> {
        let front = wire.modifier.check(&at.inside("modifier"))?;
        let gel = wire.gel.as_ref().map_or(Ok(Stops::ZERO), |gel| gel.check(&at.inside("gel")))?;
        let (gel_mired, dye) = tinted_by(wire.gel.as_ref());
        let trigger = wire.trigger.check(&at.inside("trigger"))?;
        if !matches!(wire.group.as_bytes(), [b'A'..=b'Z']) {
            return Err(at.not_allowed("group", &wire.group, "one letter from A to Z"));
        }
        let off_axis = at.degrees("off_axis_deg", wire.off_axis_deg, &bounds::OFF_AXIS)?;
        let towards = at.maybe("off_axis_towards_deg", wire.off_axis_towards_deg, &bounds::DIRECTION)?;
        let towards = towards.map(Angle::from_degrees).filter(|_| off_axis > Angle::ZERO);
        let beam = front.beam.unwrap_or_else(|| Beam::new(None, None));
        let feathered = beam.at(off_axis);
        let modelling = wire
            .modelling
            .as_ref()
            .map(|modelling| {
                modelling.lamp.check(&at.inside("modelling").inside("lamp"))?;
                Ok(Glow {
                    lux_at_1m: meter.counted(modelling.lamp.lux_at_1m) * (front.change - gel + feathered).as_ratio(),
                    proportional: modelling.mode == shot::ModellingMode::Proportional,
                    kelvin: colour::shifted(modelling.lamp.colour_k, gel_mired),
                    dye: colour::stacked(dye_of(modelling.lamp.hue.as_ref()), dye),
                })
            })
            .transpose()?;
        let metered = metered(&at.inside("metered"), wire)?;
        Ok(Self {
            metered,
            name: wire.unit.name.clone(),
            label: format!("{} {}", wire.group, wire.role.word()),
            spoken: wire.unit.name.clone(),
            role: wire.role,
            group: wire.group.clone(),
            throw: Throw {
                output: match metered {
                    Some(by) => unit.output(meter) * by.as_ratio(),
                    None => unit.output_behind(&wire.modifier.id, meter),
                },
                modifier: front.change - gel + feathered,
                face: front.face,
            },
            gel,
            in_front: front.change - gel,
            feathered,
            turned: towards.map(|towards| Turned { by: off_axis, towards }),
            lag: unit.lag + trigger,
            channels: wire.trigger.channels,
            groups: wire.trigger.groups,
            range: wire.trigger.range_m.map(Metres::from_metres),
            unit_id: wire.unit.id.clone(),
            owned: wire.unit.owned,
            on: wire.on,
            bearing: at.degrees("bearing_deg", wire.bearing_deg, &bounds::BEARING)?,
            height: at.degrees("height_deg", wire.height_deg, &bounds::HEIGHT)?,
            on_camera: on_camera(at, wire)?,
            bounce: wire.bounce.as_ref().map(|bounce| surface(&at.inside("bounce"), bounce)).transpose()?,
            grazing: at.maybe("grazing_stops", wire.grazing_stops, &bounds::GRAZING)?.map(Stops::from_stops),
            modelling,
            target: Target::of(at, wire)?,
            boom: at.maybe("boom_m", wire.boom_m, &bounds::BOOM)?,
            stand_kg: at.maybe("stand_kg", wire.stand_kg, &bounds::STAND)?,
            feet: at.maybe("feet_m", wire.feet_m, &bounds::FEET)?,
            flag: wire.flag.as_ref().map(|flag| floor::flag(&at.inside("flag"), flag)).transpose()?,
            beam,
            colour: Colour {
                full_k: wire.unit.colour_k.unwrap_or(USUAL_FLASH_K),
                lowest_mired: wire.unit.lowest_power_mired.unwrap_or(0.0),
                gel_mired,
                dye,
            },
            misses: missed(at, &wire.misses, parts)?,
            unit,
        })
    }

    /// Its beam.
    pub const fn beam(&self) -> Beam {
        self.beam
    }

    /// Whether it reaches a part.
    pub const fn reaches(&self, part: usize) -> bool {
        self.misses & (1 << part) == 0 && !matches!(self.role, Role::Backdrop)
    }

    /// Whether its light counts where the subject is metered: rims graze it from behind, a backdrop's light passes it by.
    pub const fn is_frontal(&self) -> bool {
        matches!(self.role, Role::Key | Role::Fill | Role::InSet)
    }

    /// Whether it stands behind the subject.
    pub fn is_behind(&self) -> bool {
        self.bearing.as_radians().abs() > std::f64::consts::FRAC_PI_2
    }

    /// Whether it can be carried to make it brighter or fainter: a surface is not walked to, and what sits on the camera stays
    /// there.
    pub const fn walks(&self) -> bool {
        self.bounce.is_none() && !self.on_camera
    }

    /// The same standing where another does.
    pub(crate) fn in_place_of(self, other: &Self) -> Self {
        Self { bearing: other.bearing, height: other.height, ..self }
    }

    /// Exposure at a distance, a full share of it.
    pub fn exposure(&self, power: f64, heads: u32, distance: Metres) -> LuxSeconds {
        let one = match self.bounce {
            None => self.throw.exposure(power, distance),
            Some(surface) => surface.towards(distance).exposure(&self.throw, power, self.beam.exponent()),
        };
        one * f64::from(heads)
    }

    /// The same as set.
    pub fn thrown(&self, dial: &Dial, power: f64) -> LuxSeconds {
        self.exposure(power, dial.heads, dial.distance)
    }

    /// Where some power gives an exposure; nowhere for one that does not walk.
    pub fn distance_for(&self, power: f64, heads: u32, exposure: LuxSeconds) -> Option<Metres> {
        if !self.walks() {
            return None;
        }
        self.throw.distance_for(power * f64::from(heads), exposure)
    }

    /// Where its light comes from, as bearing and height at the subject: bounced, it is the lit spot that shines.
    pub fn comes_from(&self, distance: Metres) -> (Angle, Angle) {
        self.bounce.map_or((self.bearing, self.height), |surface| {
            let forward = surface.away.as_metres() / surface.tilt.as_radians().tan();
            let height = surface.away.as_metres().atan2(distance.as_metres() - forward);
            (self.bearing, Angle::from_radians(height))
        })
    }

    /// Loss by way of the surface against straight light from the same place, negative; nothing when not bounced.
    pub fn bounce_loss(&self, distance: Metres) -> Option<Stops> {
        self.bounce?;
        Some(Stops::from_ratio(self.exposure(1.0, 1, distance) / self.throw.exposure(1.0, distance)))
    }

    /// What the gel leaves of red, green and blue.
    pub const fn dye(&self) -> Dye {
        self.colour.dye
    }

    /// Colour at a power, through the gel.
    pub fn kelvin(&self, power: f64) -> f64 {
        let lowest = self.unit.lowest.as_stops();
        let down = if lowest > 0.0 { (-power.log2() / lowest).clamp(0.0, 1.0) } else { 0.0 };
        colour::shifted(self.colour.full_k, self.colour.lowest_mired * down + self.colour.gel_mired)
    }
}

/// Whether a light sits on the camera, where nothing else holds it.
fn on_camera(at: &At, wire: &shot::Flash) -> Result<bool, Invalid> {
    let elsewhere = match (wire.boom_m, wire.role) {
        (Some(_), _) => Some("it hangs on a boom"),
        (None, Role::Backdrop | Role::InSet) => Some("it stands in the set"),
        _ => None,
    };
    match elsewhere.filter(|_| wire.on_camera) {
        Some(reason) => Err(at.contradiction("on_camera", "true".to_owned(), reason)),
        None => Ok(wire.on_camera),
    }
}

impl Surface {
    /// The way to a subject as high as the flash, the head turned towards its side.
    fn towards(self, distance: Metres) -> Bounce {
        let tilt = self.tilt.as_radians();
        Bounce {
            reflectance: self.reflectance,
            away: self.away,
            subject: [distance.as_metres(), 0.0, 0.0],
            axis: [tilt.cos(), 0.0, tilt.sin()],
        }
    }
}

/// The light's own reading, where it was taken of this unit behind this.
fn metered(at: &At, wire: &shot::Flash) -> Result<Option<Stops>, Invalid> {
    let Some(read) = &wire.metered else { return Ok(None) };
    let stops = at.stops("stops", read.stops, &bounds::METERED)?;
    at.text("read", &read.read)?;
    if let Some(on) = &read.on {
        source::date(at, on)?;
    }
    if let Some(because) = &read.because {
        at.text("because", because)?;
    }
    Ok((read.unit == wire.unit.id && read.modifier == wire.modifier.id).then_some(stops))
}

fn surface(at: &At, wire: &shot::BouncedOff) -> Result<Surface, Invalid> {
    Ok(Surface {
        away: at.metres("surface_m", wire.surface_m, &bounds::SURFACE)?,
        tilt: at.degrees("tilt_deg", wire.tilt_deg, &bounds::TILT)?,
        reflectance: at.figure("reflectance", wire.reflectance, &bounds::REFLECTANCE)?,
        coloured: wire.coloured,
    })
}

/// The parts of a list of names, as bits.
pub(super) fn missed(at: &At, names: &[String], parts: &[Part]) -> Result<u32, Invalid> {
    names.iter().try_fold(0, |bits, name| {
        let part = parts.iter().position(|part| part.name == *name);
        part.map(|part| bits | 1 << part)
            .ok_or_else(|| at.not_allowed("misses", name, "the name of a part of this shot"))
    })
}

/// Names every light so that a sentence can tell it from the others.
pub(super) fn introduce(lights: &mut [Light]) {
    if lights.len() == 1 {
        return;
    }
    for index in 0..lights.len() {
        let same = |other: &Light| other.group == lights[index].group && other.role == lights[index].role;
        let before = lights[..index].iter().filter(|other| same(other)).count();
        let number = if lights.iter().filter(|other| same(other)).count() > 1 {
            format!(" {}", before + 1)
        } else {
            String::new()
        };
        let light = &mut lights[index];
        light.spoken = format!("{} {}{number} ({})", light.group, light.role.word(), light.name);
    }
    for light in lights {
        // The same without the unit, for chips and rungs.
        light.label = light.spoken.split(" (").next().unwrap_or_default().to_owned();
    }
}
