//! What may be turned, and how it is written into the shot.

use super::Change;
use crate::answers::standing::{flagged, lamp_stood, spot_of, stood};
use crate::answers::strips::{self, Value};
use crate::file;
use crate::file::shot::Reading;
use crate::plan::{Plan, Settings};
use crate::quantity::{Lux, Metres};
use crate::stage::field::{noted, noted_around};
use crate::stage::flag::Flag;
use crate::stage::lens::Move;
use foldhash::fast::FixedState;
use std::hash::{BuildHasher, Hash, Hasher};

/// Something that is turned.
#[allow(
    clippy::large_enum_variant,
    reason = "nearly all of them are dials, and a box each would cost more than the room"
)]
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Turn {
    /// Camera and lights.
    Dials(Settings),
    /// A source of steady light.
    Source(Source),
    /// A light stands elsewhere.
    Stands(Stands),
    /// A steady lamp stands elsewhere.
    LampStands(LampStands),
    /// A flag before a light.
    Flagged(usize, Flag),
    /// The background nearer, in metres behind the mark.
    Behind(f64),
}

/// A light that is carried, and its power there, where another one is as bright.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Stands {
    pub light: usize,
    pub way: Move,
    pub power: Option<f64>,
}

/// A lamp that is carried, and how far it is turned up there.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct LampStands {
    pub lamp: usize,
    pub way: Move,
    pub level: f64,
}

/// Something done to a source of steady light.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Source {
    /// The modelling lamp of a light goes out.
    ModellingOff(usize),
    /// A lamp is turned down by so many stops.
    LampDimmer(usize, f64),
    /// A lamp goes out.
    LampOff(usize),
    /// The light of the room goes out.
    RoomOut,
}

impl Turn {
    /// Tells it from others, nearly always.
    pub fn key(&self) -> u64 {
        let mut hasher = FixedState::default().build_hasher();
        match self {
            Self::Dials(set) => {
                (set.aperture.number().to_bits(), set.shutter.time().as_secs().to_bits()).hash(&mut hasher);
                (set.iso.number().to_bits(), set.filter.as_stops().to_bits()).hash(&mut hasher);
                set.lamps.as_stops().to_bits().hash(&mut hasher);
                for dial in set.lights.iter() {
                    (dial.power.to_bits(), dial.distance.as_metres().to_bits(), dial.channel).hash(&mut hasher);
                    dial.bias.map(|bias| bias.as_stops().to_bits()).hash(&mut hasher);
                }
            }
            Self::Source(_) => format!("{self:?}").hash(&mut hasher),
            Self::Stands(Stands { light, way, power }) => {
                (1, light, [way.to.x, way.to.y, way.to.z].map(f64::to_bits), power.map(f64::to_bits)).hash(&mut hasher);
            }
            Self::LampStands(LampStands { lamp, way, level }) => {
                (4, lamp, [way.to.x, way.to.y, way.to.z, *level].map(f64::to_bits)).hash(&mut hasher);
            }
            Self::Flagged(light, flag) => {
                let figures = [flag.at.x, flag.at.y, flag.at.z, flag.wide, flag.high];
                (2, light, figures.map(f64::to_bits)).hash(&mut hasher);
            }
            Self::Behind(behind) => (3, behind.to_bits()).hash(&mut hasher),
        }
        hasher.finish()
    }

    /// Whether lights, flags and background are in the same directions after it.
    pub const fn leaves_the_set(&self) -> bool {
        matches!(self, Self::Dials(_) | Self::Source(_))
    }

    pub fn applied(&self, plan: &Plan) -> Plan {
        match *self {
            Self::Dials(settings) => plan.with(settings),
            Self::Source(source) => source.applied(plan),
            Self::Stands(Stands { light, way, power }) => stood(plan, light, way.to, power),
            Self::LampStands(LampStands { lamp, way, level }) => lamp_stood(plan, lamp, way.to, level),
            Self::Flagged(light, flag) => flagged(plan, light, flag),
            Self::Behind(behind) => Plan {
                background_behind: Metres::from_metres(behind),
                lamps: plan.lamps.iter().map(|lamp| lamp.clone().before(behind)).collect(),
                ..plan.clone()
            },
        }
    }

    pub fn written(&self, plan: &Plan) -> (String, Vec<Change>) {
        match self {
            Self::Dials(to) => {
                let changes = strips::written_changes(plan, to);
                let changes = changes.into_iter().map(|(pointer, value, _)| Change { pointer, value }).collect();
                (strips::said(plan, to), changes)
            }
            Self::Source(source) => source.written(plan),
            Self::Stands(Stands { light, way, power }) => {
                let (bearing, height, distance) = noted_around(plan.measured_to(*light), way.to);
                let figures = [("bearing_deg", bearing), ("height_deg", height), ("distance_m", distance)];
                let figures = figures.into_iter().chain(power.map(|power| ("power", power)));
                let change = |(name, value): (&str, f64)| Change {
                    pointer: format!("/lights/{light}/{name}"),
                    value: Value::Number(value),
                };
                let of = &plan.lights[*light];
                let at = power.map_or_else(String::new, |power| format!(", {}", of.unit.dial.label(power)));
                let by = plan.lengths.say(way.by, 1);
                (format!("{} {by} {}{at}", of.label, way.way.word()), figures.map(change).collect())
            }
            Self::LampStands(LampStands { lamp, way, level }) => {
                let of = &plan.lamps[*lamp];
                let (bearing, height, distance) = noted(way.to);
                let turned = (*level != of.level).then_some(("level_share", *level));
                let figures =
                    [("stands/bearing_deg", bearing), ("stands/height_deg", height), ("distance_m", distance)];
                let change = |(name, value): (&str, f64)| Change {
                    pointer: format!("/lamps/{}/{name}", of.place),
                    value: Value::Number(value),
                };
                let at = turned.map_or_else(String::new, |(_, level)| format!(", {:.0} %", level * 100.0));
                let by = plan.lengths.say(way.by, 1);
                let changes = figures.into_iter().chain(turned).map(change).collect();
                (format!("{} {by} {}{at}", of.name, way.way.word()), changes)
            }
            Self::Flagged(light, flag) => {
                let (wide, high) = (plan.lengths.say(flag.wide, 2), plan.lengths.say(flag.high, 2));
                let away = (flag.at - spot_of(plan, *light)).length();
                let change = Change {
                    pointer: format!("/lights/{light}/flag"),
                    value: Value::Flag(file::floor::Flag {
                        x_m: flag.at.x,
                        y_m: flag.at.y,
                        z_m: flag.at.z,
                        width_m: flag.wide,
                        height_m: flag.high,
                    }),
                };
                let label = &plan.lights[*light].label;
                (format!("{label}: flag of {wide} × {high}, {} before it", plan.lengths.say(away, 1)), vec![change])
            }
            Self::Behind(behind) => {
                let change = Change { pointer: "/background/behind_m".to_owned(), value: Value::Number(*behind) };
                (format!("sheet {} behind the mark", plan.lengths.say(*behind, 1)), vec![change])
            }
        }
    }
}

impl Source {
    fn applied(self, plan: &Plan) -> Plan {
        let mut plan = plan.clone();
        let dimmed = |plan: &mut Plan, lamp: usize, times: f64| {
            let mut lamps = plan.lamps.to_vec();
            lamps[lamp].on_subject = lamps[lamp].on_subject * times;
            lamps[lamp].on_background = lamps[lamp].on_background * times;
            plan.lamps = lamps.into();
        };
        match self {
            Self::ModellingOff(light) => {
                let mut lights = plan.lights.to_vec();
                lights[light].modelling = None;
                plan.lights = lights.into();
            }
            Self::LampDimmer(lamp, stops) => dimmed(&mut plan, lamp, (-stops).exp2()),
            Self::LampOff(lamp) => dimmed(&mut plan, lamp, 0.0),
            Self::RoomOut => (plan.subject_light, plan.background_light) = (Lux::ZERO, Lux::ZERO),
        }
        plan
    }

    fn written(self, plan: &Plan) -> (String, Vec<Change>) {
        let change = |pointer: String, value| Change { pointer, value };
        match self {
            Self::ModellingOff(light) => (
                format!("modelling lamp of {} off", plan.lights[light].label),
                vec![change(format!("/lights/{light}/modelling"), Value::Nothing)],
            ),
            Self::LampDimmer(lamp, stops) => {
                let of = &plan.lamps[lamp];
                let level = Value::Number(of.level * (-stops).exp2());
                let pointer = format!("/lamps/{}/level_share", of.place);
                (format!("{} dimmer by {stops:.0}", of.name), vec![change(pointer, level)])
            }
            Self::LampOff(lamp) => {
                let of = &plan.lamps[lamp];
                (format!("{} off", of.name), vec![change(format!("/lamps/{}/on", of.place), Value::Switch(false))])
            }
            Self::RoomOut => {
                let dark = || Value::Reading(Reading::Lux { lux: 0.0 });
                let places = ["/ambient/subject", "/ambient/background"];
                ("room light out".to_owned(), places.map(|place| change(place.to_owned(), dark())).into())
            }
        }
    }
}
