//! The positions of every control that may move, with what each does to the light.

use super::{Held, Look, Turned, nearness};
use crate::answers::{conditions, strips};
use crate::outlook::{Burns, Outlook, Pulses, timing};
use crate::physics::depth::depth;
use crate::physics::shutter::rows::mean_share;
use crate::physics::shutter::sync::{OVER_SHARE, ignition};
use crate::physics::shutter::{Run, high_speed};
use crate::plan::{Light, Plan, Settings};
use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::quantity::{LuxSeconds, Metres, Stops};

/// One position of a control: its value, and stops of light against what is set.
#[derive(Clone, Copy, Debug)]
pub(super) struct Place<T> {
    pub value: T,
    pub stops: f64,
}

/// All lamps turned together, and what that does to the steady light they are a part of.
#[derive(Clone, Copy, Debug)]
pub(super) struct LampPlace {
    pub value: Stops,
    pub on_subject: f64,
    pub on_background: f64,
}

impl LampPlace {
    /// As far as a dimmer goes down, in stops.
    const DIMMEST: f64 = 5.0;

    /// What is set first, then the smallest moves.
    fn all(plan: &Plan, seen: &Outlook) -> Vec<Self> {
        let lamps = || seen.steady.iter().filter(|one| matches!(one.of, Burns::Lamp(_)));
        let share = |lamps: LuxSeconds, all: LuxSeconds| if all > LuxSeconds::ZERO { lamps / all } else { 0.0 };
        let (subject, background) = lamps().fold((LuxSeconds::ZERO, LuxSeconds::ZERO), |(subject, background), one| {
            (subject + one.on_subject.exposure, background + one.on_background.exposure)
        });
        let of_subject = share(subject, seen.ambient.exposure);
        let of_background = share(background, seen.background.exposure);
        let place = |stops: f64| Self {
            value: Stops::from_stops(stops),
            on_subject: (1.0 + of_subject * (stops.exp2() - 1.0)).log2(),
            on_background: (1.0 + of_background * (stops.exp2() - 1.0)).log2(),
        };
        let brightest = plan.lamps.iter().map(|lamp| lamp.level).fold(0.0, f64::max);
        let room = if brightest > 0.0 { -brightest.log2() } else { 0.0 };
        let thirds = |stops: f64| (stops * 3.0 + 1e-6).floor() as i32;
        let burn = subject > LuxSeconds::ZERO || background > LuxSeconds::ZERO;
        let dimmest = if burn { thirds(Self::DIMMEST) } else { 0 };
        let steps = (1..=dimmest).flat_map(|step| {
            let up = (step <= thirds(room)).then_some(step);
            [Some(-step), up].into_iter().flatten().map(|step| place(f64::from(step) / 3.0))
        });
        std::iter::once(place(0.0)).chain(steps).collect()
    }
}

/// An aperture, with the depth it gives.
#[derive(Clone, Copy, Debug)]
pub(super) struct AperturePlace {
    pub value: Aperture,
    pub stops: f64,
    pub depth_off: f64,
}

/// A power, with how much longer its pulse is than what is held; in stops, never below zero.
#[derive(Clone, Copy, Debug)]
pub(super) struct PowerPlace {
    pub value: f64,
    pub stops: f64,
    pub longer: f64,
    /// The fastest time that leaves no row dark at it.
    pub usable_s: f64,
}

/// One flash: what of it may be turned.
#[derive(Clone, Debug)]
pub(super) struct LightBoard {
    /// Its place in the plan.
    pub index: usize,
    /// How far it is from what is held; `None` where it is not, or is dark.
    pub off: Option<f64>,
    /// Whether it stays where it is, so that it moves against the camera; else it stands against another light, which the
    /// camera moves as much.
    pub against_camera: bool,
    /// Powers by the light they give, those with a pulse no longer than what is held; all of them where none is.
    pub powers: Vec<PowerPlace>,
    /// The power that is set.
    pub set: PowerPlace,
    /// Light at a distance against what is set; `None` when the distance may not move.
    pub distances: Option<Distances>,
    /// In high-speed sync: light and blur at each shutter time, in the order of the board's.
    glow: Option<Vec<(f64, f64)>>,
    /// Where the shutter cuts it now: what each power gets through it at each time, in stops against what is set.
    through: Option<Vec<Vec<f64>>>,
}

/// Everything that may be turned, and where the light stands before it is.
#[derive(Clone, Debug)]
pub(super) struct Board {
    pub now: Settings,
    pub apertures: Vec<AperturePlace>,
    /// Slow to fast or as set alone; what is set is at `shutter_set`.
    pub shutters: Vec<Place<ShutterTime>>,
    pub shutter_set: usize,
    /// The fastest of them at which every flash has a power that leaves no row dark.
    pub shutter_safe: usize,
    pub isos: Vec<Place<Iso>>,
    pub filters: Vec<Place<Stops>>,
    pub lamps: Vec<LampPlace>,
    /// The flashes that fire.
    pub lights: Vec<LightBoard>,
    /// How far ambient and background are from what is held; `None` where it is not, or is dark.
    pub ambient_off: Option<f64>,
    pub background_off: Option<f64>,
    /// Stops by which filter, shutter and lamps together can change ambient and background, down and up.
    pub reach: ((f64, f64), (f64, f64)),
    fixed: Vec<Held>,
    turned: Option<Turned>,
}

/// The way of a flash to the subject.
#[derive(Clone, Debug)]
pub(super) struct Distances {
    light: Light,
    /// Light where it stands.
    here: LuxSeconds,
}

impl Distances {
    const NEAREST: f64 = 0.3;
    const FARTHEST: f64 = 30.0;

    /// The distance that gives so many stops more, to the centimetre, and what it gives.
    pub fn with(&self, stops: f64) -> (Metres, f64) {
        let wanted = self.light.distance_for(1.0, 1, self.here * Stops::from_stops(stops).as_ratio());
        let metres = wanted.map_or(Self::NEAREST, |distance| distance.as_metres()).clamp(Self::NEAREST, Self::FARTHEST);
        let found = Metres::from_metres((metres * 100.0).round() / 100.0);
        (found, Stops::from_ratio(self.light.exposure(1.0, 1, found) / self.here).as_stops())
    }
}

impl LightBoard {
    fn of(plan: &Plan, whole: &Outlook, look: &Look, index: usize, board: &Board, pulses: &mut Pulses) -> Self {
        let (seen, run) = (&whole.lights[index], whole.run);
        let (light, dial) = (&plan.lights[index], &plan.settings.lights[index]);
        let glows = seen.high_speed.is_some();
        let freeze = look.lights.get(index).and_then(|light| light.freeze);
        // Where rows are dark already, more of them are looked for when all is put together.
        let cut = seen.rows.touched > 0.0;
        let mut power = |value: f64| PowerPlace {
            usable_s: if glows || cut {
                0.0
            } else {
                let usable = pulses.usable_sync(plan, index, value);
                usable.map_or(f64::INFINITY, |time| time.time().as_secs() * (1.0 - 1e-9))
            },
            value,
            stops: (value / dial.power).log2(),
            longer: freeze.filter(|_| !glows).map_or(0.0, |was| {
                let time = pulses.lasts(plan, index, value);
                (time.as_secs() / was).log2().max(0.0)
            }),
        };
        let set = power(dial.power);
        let mut powers = vec![set];
        if board.may_turn(Held::Power, index) && dial.bias.is_none() {
            powers.extend(strips::powers(light).map(&mut power).filter(|place| place.stops.abs() >= 1e-9));
        }
        if powers.iter().any(|place| place.longer <= super::TOLERANCE) {
            powers.retain(|place| place.longer <= super::TOLERANCE);
        }
        powers.sort_by(|a, b| a.stops.total_cmp(&b.stops));
        let may_walk = board.may_turn(Held::FlashDistance, index) && dial.bias.is_none() && light.walks();
        let at = |time: ShutterTime| {
            let change = high_speed::loss(Run { time: time.time(), ..run }, light.unit.efficiency)
                - high_speed::loss(run, light.unit.efficiency);
            let longer = freeze.map_or(0.0, |was| (time.time().as_secs() / was).log2().max(0.0));
            (change.as_stops(), longer)
        };
        Self {
            index,
            // An automatic keeps its own light.
            off: look.off(plan, whole, index).flatten().filter(|_| dial.bias.is_none()),
            against_camera: look.stays(plan, index),
            set,
            distances: may_walk
                .then(|| Distances { light: light.clone(), here: light.exposure(1.0, 1, dial.distance) }),
            through: (cut && !glows).then(|| through(plan, whole, index, &powers, &board.shutters)),
            glow: glows.then(|| board.shutters.iter().map(|place| at(place.value)).collect()),
            powers,
        }
    }

    /// Whether the shutter's time changes nothing of it.
    pub fn keeps_its_light(&self) -> bool {
        self.through.is_none() && self.glow.is_none()
    }

    /// Change of its light by what a shutter time of the board lets through of a power.
    pub fn through(&self, power: usize, shutter: usize) -> f64 {
        self.through.as_ref().map_or(0.0, |through| through[power][shutter])
    }

    /// Whether the shutter cuts it now.
    pub fn is_cut(&self) -> bool {
        self.through.is_some()
    }

    /// Change of its light and lengthening of its blur at a shutter time of the board.
    pub fn glow_at(&self, shutter: usize) -> (f64, f64) {
        self.glow.as_ref().map_or((0.0, 0.0), |glow| glow[shutter])
    }
}

/// What a shutter lets through of each power, against what it lets through of the one that is set.
fn through(
    plan: &Plan,
    whole: &Outlook,
    light: usize,
    powers: &[PowerPlace],
    shutters: &[Place<ShutterTime>],
) -> Vec<Vec<f64>> {
    let (of, seen, sync) = (&plan.lights[light], &whole.lights[light], plan.settings.lights[light].sync);
    let of_power = |place: &PowerPlace| {
        let pulse = of.unit.control.at(place.value).pulse;
        let timing = timing(plan, light, pulse.time_of_share(OVER_SHARE));
        let gets = |time: &Place<ShutterTime>| {
            let run = Run { time: time.value.time(), ..whole.run };
            let share = mean_share(run, &pulse, ignition(run, sync, timing).at, (0.0, 1.0));
            (share / seen.share).log2().max(conditions::NO_LIGHT)
        };
        shutters.iter().map(gets).collect()
    };
    powers.iter().map(of_power).collect()
}

impl Board {
    /// Lays out what may move.
    pub fn of(
        plan: &Plan,
        seen: &Outlook,
        look: &Look,
        fixed: &[Held],
        turned: Option<Turned>,
        pulses: &mut Pulses,
    ) -> Self {
        let now = plan.settings;
        let stays = |stops: f64| stops.abs() < 1e-9;
        let confusion = plan.usage.allowed_blur(&plan.body.sensor);
        let aperture = |value: Aperture| AperturePlace {
            value,
            stops: -2.0 * (value.number() / now.aperture.number()).log2(),
            depth_off: look.depth.map_or(0.0, |was| {
                (was / nearness(&depth(plan.body.focal, value, plan.subject_distance, confusion))).log2()
            }),
        };
        let shutter = |value: ShutterTime| Place { value, stops: (value.time() / now.shutter.time()).log2() };
        let away = |was: Option<Stops>, is: Stops| {
            was.filter(|was| was.as_stops().is_finite() && is.as_stops().is_finite()).map(|was| (is - was).as_stops())
        };
        let mut board = Self {
            now,
            // What is set stands first, on the dial or between two of its positions.
            apertures: vec![aperture(now.aperture)],
            shutters: vec![shutter(now.shutter)],
            shutter_set: 0,
            shutter_safe: 0,
            isos: vec![Place { value: now.iso, stops: 0.0 }],
            filters: vec![Place { value: now.filter, stops: 0.0 }],
            lamps: LampPlace::all(plan, seen),
            lights: Vec::new(),
            ambient_off: away(look.ambient, seen.ambient.placement),
            background_off: away(look.background, seen.background.placement),
            reach: ((0.0, 0.0), (0.0, 0.0)),
            fixed: fixed.to_vec(),
            turned,
        };
        if board.may(Held::Aperture) {
            board.apertures.extend(strips::apertures(&plan.body).map(aperture).filter(|place| !stays(place.stops)));
        }
        if board.may(Held::Shutter) {
            board.shutters.extend(strips::shutters(&plan.body).map(shutter).filter(|place| !stays(place.stops)));
        }
        board.shutters.sort_by(|a, b| a.stops.total_cmp(&b.stops));
        board.shutter_set = board.shutters.iter().position(|place| stays(place.stops)).unwrap_or(0);
        if board.may(Held::Iso) {
            let place = |value: Iso| Place { value, stops: (value.number() / now.iso.number()).log2() };
            board.isos.extend(strips::isos(&plan.body).map(place).filter(|place| !stays(place.stops)));
        }
        if board.may(Held::Filter) {
            let place = |value: Stops| Place { value, stops: (now.filter - value).as_stops() };
            board.filters.extend(strips::filters(plan).map(place).filter(|place| !stays(place.stops)));
        }
        if !board.may(Held::Lamps) {
            board.lamps.truncate(1);
        }
        board.reach = board.reaches();
        // The smallest moves first: what costs more than all that was found is not gone through.
        board.apertures.sort_by(|a, b| a.stops.abs().total_cmp(&b.stops.abs()));
        board.isos.sort_by(|a, b| a.stops.abs().total_cmp(&b.stops.abs()));
        board.filters.sort_by(|a, b| a.stops.abs().total_cmp(&b.stops.abs()));
        board.lights =
            seen.firing().map(|(index, _)| LightBoard::of(plan, seen, look, index, &board, pulses)).collect();
        let whole = |light: &LightBoard| light.powers.iter().map(|place| place.usable_s).fold(f64::INFINITY, f64::min);
        let slowest = board.lights.iter().map(whole).fold(0.0, f64::max);
        board.shutter_safe = board
            .shutters
            .iter()
            .position(|place| place.value.time().as_secs() >= slowest)
            .unwrap_or(board.shutters.len() - 1);
        board
    }

    fn reaches(&self) -> ((f64, f64), (f64, f64)) {
        let ends = |stops: &mut dyn Iterator<Item = f64>| {
            stops.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), stops| (low.min(stops), high.max(stops)))
        };
        let filters = ends(&mut self.filters.iter().map(|place| place.stops));
        let shutters = ends(&mut self.shutters.iter().map(|place| place.stops));
        let with = |lamps: (f64, f64)| (filters.0 + shutters.0 + lamps.0, filters.1 + shutters.1 + lamps.1);
        (
            with(ends(&mut self.lamps.iter().map(|place| place.on_subject))),
            with(ends(&mut self.lamps.iter().map(|place| place.on_background))),
        )
    }

    /// Whether a control of the camera may move.
    fn may(&self, control: Held) -> bool {
        !self.fixed.contains(&control) && self.turned.is_none_or(|turned| turned.control != control)
    }

    /// Whether a control of a light may move: on the one that was turned it stays, on the others it follows.
    fn may_turn(&self, control: Held, light: usize) -> bool {
        let stays = |turned: Turned| turned.control == control && turned.light == light;
        !self.fixed.contains(&control) && !self.turned.is_some_and(stays)
    }

    /// What stands at the end of its range, as said: each control of the camera, and each light by name.
    pub fn at_their_ends(&self, plan: &Plan, to: &Settings) -> Vec<String> {
        let end = |what: &str, values: &mut dyn Iterator<Item = f64>, set: f64, sides: (&str, &str)| {
            let (low, high) = values.fold((f64::MAX, f64::MIN), |(low, high), value| (low.min(value), high.max(value)));
            // A control with a single place has no end to be at.
            match low < high {
                true if set <= low * (1.0 + 1e-9) => Some(format!("{what} {}", sides.0)),
                true if set >= high * (1.0 - 1e-9) => Some(format!("{what} {}", sides.1)),
                _ => None,
            }
        };
        let mut ends = Vec::new();
        let seconds = |place: &Place<ShutterTime>| place.value.time().as_secs();
        if self.may(Held::Aperture) {
            let mut all = self.apertures.iter().map(|place| place.value.number());
            ends.extend(end("the aperture is", &mut all, to.aperture.number(), ("fully open", "at its smallest")));
        }
        if self.may(Held::Shutter) {
            let mut all = self.shutters.iter().map(seconds);
            ends.extend(end(
                "the shutter is",
                &mut all,
                to.shutter.time().as_secs(),
                ("at its fastest", "at its slowest"),
            ));
        }
        if self.may(Held::Iso) {
            let mut all = self.isos.iter().map(|place| place.value.number());
            ends.extend(end("the ISO is", &mut all, to.iso.number(), ("at its lowest", "at its highest")));
        }
        let mut lamps = self.lamps.iter().map(|place| place.value.as_stops());
        ends.extend(end("the dimmers are", &mut lamps, to.lamps.as_stops(), ("at their end", "full")));
        for light in self.lights.iter().filter(|light| self.may_turn(Held::Power, light.index)) {
            let what = format!("power of {} is", plan.lights[light.index].label);
            let mut all = light.powers.iter().map(|place| place.value);
            ends.extend(end(&what, &mut all, to.lights[light.index].power, ("at its lowest", "full")));
        }
        ends
    }
}
