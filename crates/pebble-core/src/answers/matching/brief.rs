//! What is asked of a set-up, worked out once: the conditions, and how one set-up fares under each of them.
//!
//! [`Brief::judge`] is the definition: it puts one set-up into the plan, lets the forecast work it out, and reads every
//! condition off it. [`super::seek`] finds the same without going through all set-ups.

use super::stock::Offered;
use super::window::fill;
use crate::answers::conditions;
use crate::answers::standing::{held, uneven};
use crate::file::gear::Modifier;
use crate::file::look::Held;
use crate::file::shot::{Intent, Role, Shot};
use crate::outlook::{Outlook, counts, flash_in_whole_rows, key_wanted, outlook, steady_share};
use crate::physics::depth::depth;
use crate::physics::exposure::Level;
use crate::physics::ghost::{STRONG_FROM, Tones, ghost, ramp};
use crate::physics::motion::ImageMotion;
use crate::physics::shutter::SyncMode;
use crate::plan::check::At;
use crate::plan::{ANYWHERE, Bounds, Flashes, Light, Plan, Settings, measured_to};
use crate::quantity::bounds::Invalid;
use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::quantity::{FlashOutput, LuxSeconds, Metres, MetresPerSecond, Seconds, Stops};
use crate::stage::field::placed_around;
use crate::stage::lens::Lens;
use crate::wire::report_word;

/// Settings closer than this are one position of a dial, in stops.
const SAME_CLICK: f64 = 0.05;
/// Rounding that no condition is broken by, in stops.
pub(super) const EDGE: f64 = 1e-9;
report_word! {
    /// What a set-up has to meet; where two relaxations cost the same, the earlier one is named first.
    #[derive(Hash, PartialOrd, Ord)]
    pub enum Demand {
        /// Not more noise, not less than the camera's lowest.
        Iso,
        /// Apertures the photographer allows.
        Aperture,
        /// Times the photographer allows.
        Shutter,
        /// Grey in front of the lens.
        Filter,
        /// The key on its target.
        Key,
        /// Steady light on the subject.
        Ambient,
        /// Steady light on the background.
        Background,
        /// Steady light as it was read.
        Darker,
        /// Not too near, not in the frame.
        Near,
        /// Not too far.
        Far,
        /// Lights that stay where they stand.
        Place,
        /// What is in front of the light.
        Modifier,
        /// No glow where it was not allowed.
        HighSpeed,
        /// A flash no longer than wanted.
        Freeze,
        /// The key's light even over the area.
        Even,
        /// A part as still in the flash as wanted.
        Blur,
        /// A part as still in the steady light, as far as that makes its picture.
        Drawn,
        /// The subject within the zone of sharpness.
        Depth,
        /// Frames in a row.
        Frames,
        /// Frames a second.
        Rate,
        /// Flashes on one charge.
        Charge,
        /// Heads side by side.
        Heads,
        /// As many as are owned.
        Owned,
        /// Weight.
        Weight,
        /// All rows of the frame lit.
        Sync,
        /// A streak as long as wanted.
        Streak,
        /// No trail of a part that shall be still.
        Ghost,
        /// A trail of a part that shall streak.
        Trail,
    }
}

/// How a set-up fares under one condition.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Fares {
    /// The condition.
    pub condition: Demand,
    /// The part it is about.
    pub part: Option<usize>,
    /// Stops to spare; negative is missing, infinite where there is no end.
    pub room: f64,
}

/// One set-up for the key.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Candidate<'a> {
    /// The unit.
    pub unit: &'a Offered,
    /// What is in front of it.
    pub modifier: &'a Modifier,
    /// Side by side.
    pub heads: u32,
    /// Power fraction.
    pub power: f64,
    /// To the subject.
    pub distance: Metres,
    /// Whether it glows.
    pub glow: bool,
    /// f-number.
    pub aperture: Aperture,
    /// Time.
    pub shutter: ShutterTime,
    /// ISO.
    pub iso: Iso,
    /// Grey.
    pub filter: Stops,
}

impl PartialEq for Offered {
    fn eq(&self, other: &Self) -> bool {
        std::ptr::eq(self, other)
    }
}

/// A part of the subject as far as matching needs it.
pub(super) struct Need {
    pub intent: Intent,
    /// Of its image, an unsteady hand in it, as far as the flash makes its picture at the least steady light that is asked.
    pub speed: MetresPerSecond,
    /// How its image moves in a time.
    motion: ImageMotion,
    size: Metres,
    /// Of what the key draws.
    pub limit: Option<Metres>,
    /// Of what steady light draws.
    pub steady_limit: Option<Metres>,
    pub wanted_streak: Option<f64>,
    /// In steady light, against the exposure of the present settings.
    ambient: Level,
    /// In flash, all rows lit and the key on its target: the lights follow the camera.
    flash: Level,
}

/// A shot and what is asked of it.
pub struct Brief<'a> {
    /// The shot.
    pub shot: &'a Shot,
    /// The same, checked.
    pub plan: &'a Plan,
    /// What it asks.
    pub bounds: Bounds,
    pub(super) seen: Outlook,
    lens: Lens,
    pub(super) needs: Vec<Need>,
    /// Flash on the background by all lights but the key, against the metered tone: they follow the camera.
    pub(super) other_spill: f64,
    /// Where the key has to fall, the other lights staying to it as they are.
    pub key_wanted: Stops,
    /// Whether no light may last longer than it does now.
    blur_held: bool,
}

impl<'a> Brief<'a> {
    /// Of a shot that was checked.
    ///
    /// # Errors
    /// [`Invalid`] for a wish that cannot be.
    pub fn new(shot: &'a Shot, plan: &'a Plan) -> Result<Self, Invalid> {
        let seen = outlook(plan);
        let mut bounds = Bounds::of(shot, plan)?;
        let blur_held = fill(&mut bounds, shot, plan, &seen);
        let key = plan.key_light();
        let now = seen.key().in_frame.placement;
        let held = shot.hold.contains(&Held::Key) && now > Stops::DARK;
        let key_wanted = if held { now } else { key_wanted(plan, &seen) };
        // Where there is no steady light now, no setting brings any.
        let least_steady = match bounds.ambient {
            Some((low, _)) if seen.ambient.placement > Stops::DARK => low - seen.ambient.placement,
            _ => Stops::DARK,
        };
        let need = |(index, part): (usize, &crate::plan::Part)| {
            let motion = seen.parts[index].motion;
            let ambient = seen.parts[index].tones.part_ambient;
            let flash = flash_on_target(plan, &seen, index, key_wanted);
            let (flash_counts, _) = counts(steady_share(ambient.times(least_steady.as_ratio()), flash));
            Need {
                intent: part.intent,
                speed: motion.blurs_by(seen.run.time) * flash_counts,
                motion,
                size: part.size * seen.magnification,
                // What the key does not reach is not frozen by it.
                limit: bounds.blur[index].filter(|_| key.reaches(index)),
                steady_limit: bounds.blur[index],
                wanted_streak: plan.wanted_streak(part).filter(|_| part.intent == Intent::Dash),
                ambient,
                flash,
            }
        };
        let others = seen.lights.iter().enumerate().filter(|(index, _)| *index != plan.key);
        let others = others.fold(LuxSeconds::ZERO, |sum, (_, light)| sum + light.background_in_frame());
        Ok(Self {
            needs: plan.parts.iter().enumerate().map(need).collect(),
            other_spill: others / seen.reference,
            key_wanted,
            blur_held,
            shot,
            plan,
            bounds,
            seen,
            lens: plan.lens(),
        })
    }

    /// Where steady light may fall on the subject.
    pub(super) fn ambient(&self) -> (Stops, Stops) {
        self.bounds.ambient.unwrap_or(ANYWHERE)
    }

    /// Steady light in an exposure time against that of the present settings, in stops, at a reference exposure as log2.
    pub(super) fn steady_change(&self, shutter: ShutterTime, log_reference: f64) -> f64 {
        let time = (shutter.time() / self.seen.run.time).log2();
        time + self.seen.reference.as_lux_seconds().log2() - log_reference + self.bounds.darker.as_stops()
    }

    /// Stops to spare of a placement in a window.
    pub(super) fn within(placement: f64, (low, high): (Stops, Stops)) -> f64 {
        // No light at all is within a window that is open downwards.
        let above = if placement == low.as_stops() { 0.0 } else { placement - low.as_stops() };
        above.min(high.as_stops() - placement)
    }

    /// Stops below the ceiling of noise; negative below the lowest, too.
    pub(super) fn iso_room(&self, iso: Iso) -> f64 {
        let (low, high) = self.bounds.iso;
        let over_low = (iso.number() / low.number()).log2();
        if over_low < -EDGE { over_low } else { (high.number() / iso.number()).log2() }
    }

    /// Stops between an aperture and the nearer end of what is allowed.
    pub(super) fn aperture_room(&self, aperture: Aperture) -> f64 {
        let (wide, small) = self.bounds.aperture;
        let stops = |from: Aperture, to: Aperture| 2.0 * (to.number() / from.number()).log2();
        stops(wide, aperture).min(stops(aperture, small))
    }

    /// The longest that a light may last.
    pub(super) fn lasts_at_most(&self, light: usize) -> Option<Seconds> {
        if self.blur_held { self.seen.lights[light].freeze } else { self.bounds.freeze }
    }

    /// Stops of freezing time to spare.
    pub(super) fn freeze_room(&self, freeze_s: f64) -> f64 {
        self.bounds.freeze.map_or(f64::INFINITY, |most| (most.as_secs() / freeze_s).log2())
    }

    /// Stops by which the key is more even over the area than it has to be, from a place on its line.
    pub(super) fn even_room(&self, light: &Light, distance: Metres) -> f64 {
        let uneven = self.plan.area.and_then(|area| uneven(light, distance, area));
        self.bounds.even.zip(uneven).map_or(f64::INFINITY, |(most, uneven)| most.as_stops() - uneven)
    }

    /// How far a light would be carried that is to stay, in stops, negative.
    pub(super) fn place_room(&self, light: usize, distance: Metres) -> f64 {
        if !self.bounds.places_stay {
            return f64::INFINITY;
        }
        -2.0 * (distance / self.plan.settings.lights[light].distance).log2().abs()
    }

    /// Stops between a time and the nearer end of what is allowed.
    pub(super) fn shutter_room(&self, shutter: ShutterTime) -> f64 {
        let (slow, fast) = self.bounds.shutter;
        (slow.time() / shutter.time()).log2().min((shutter.time() / fast.time()).log2())
    }

    /// Whether a power may be set on a light; locked on the Bench, it stays where it is.
    pub(super) fn power_open(&self, light: usize, power: f64) -> bool {
        !self.bounds.power_stays || (power / self.plan.settings.lights[light].power).log2().abs() < SAME_CLICK
    }

    /// Whether grey may be put before the lens; locked on the Bench, it stays as it is.
    pub(super) fn filter_open(&self, grey: Stops) -> bool {
        !self.bounds.filter_stays || (grey - self.plan.settings.filter).as_stops().abs() < SAME_CLICK
    }

    /// Whether more is sharp than may be.
    pub(super) fn too_deep(&self, aperture: Aperture) -> bool {
        let Some(most) = self.plan.depth_at_most else { return false };
        let zone = depth(self.plan.body.focal, aperture, self.plan.subject_distance, self.seen.allowed);
        zone.far.is_none_or(|far| far - zone.near > most)
    }

    /// Depth that is sharp over the wanted half on the worse side, in stops; nothing where more is sharp than may be.
    pub(super) fn depth_room(&self, aperture: Aperture) -> f64 {
        if self.too_deep(aperture) {
            return f64::NEG_INFINITY;
        }
        let distance = self.plan.subject_distance;
        let zone = depth(self.plan.body.focal, aperture, distance, self.seen.allowed);
        conditions::depth(&zone, distance, self.bounds.depth).log2()
    }

    /// Length of a part's streak on the sensor and its dwell.
    fn streak(&self, need: &Need, shutter: ShutterTime) -> (Metres, f64) {
        need.motion.draws(need.size, shutter.time())
    }

    /// Stops by which a streak is within the wanted length.
    pub(super) fn streak_room(&self, need: &Need, shutter: ShutterTime) -> f64 {
        let Some(wanted) = need.wanted_streak else { return f64::INFINITY };
        let share = self.streak(need, shutter).0 / self.plan.frame().0;
        conditions::streak(share, wanted)
    }

    /// What steady light draws of a part, as far as it makes its picture; `steady` is its change in stops.
    pub(super) fn drawn(&self, need: &Need, shutter: ShutterTime, steady: f64) -> Metres {
        let level = need.ambient.times(steady.exp2());
        // What nothing draws has no edge.
        if need.flash == Level::BLACK && level.reads_as_black() {
            return Metres::ZERO;
        }
        need.motion.moved(shutter.time()) * counts(steady_share(level, need.flash)).1
    }

    /// Stops by which that is within what is allowed.
    pub(super) fn drawn_room(&self, need: &Need, shutter: ShutterTime, steady: f64) -> f64 {
        need.steady_limit.map_or(f64::INFINITY, |limit| conditions::still(self.drawn(need, shutter, steady), limit))
    }

    /// How visible a trail of a part that shall not streak may be.
    pub(super) fn trail_limit(&self, need: &Need) -> f64 {
        if need.intent == Intent::Skim { self.bounds.trail.max(STRONG_FROM) } else { self.bounds.trail }
    }

    /// How visible the trail of a part is over a background that flash lifts to a level: the difference of L*, nothing for a
    /// path that is too short to count.
    pub(super) fn trail(&self, need: &Need, shutter: ShutterTime, steady: f64, lifted: f64) -> f64 {
        let (length, dwell) = self.streak(need, shutter);
        let shows = ramp(length, self.seen.allowed);
        if shows <= 0.0 {
            return 0.0;
        }
        let background = Level::of_surface(
            self.plan.background_reflectance,
            self.seen.background.placement + Stops::from_stops(steady),
        );
        let tones = Tones {
            part_ambient: need.ambient.times(steady.exp2()),
            part_flash: Level::BLACK,
            background_ambient: background,
            background_flash: Level::of_surface(self.plan.background_reflectance, Stops::from_ratio(lifted)),
        };
        let seen = ghost(dwell, shows, tones);
        if need.intent == Intent::Dash { seen.delta_lightness.abs() } else { seen.noticed() }
    }

    /// The key as another unit behind another modifier.
    pub(super) fn light(&self, unit: &Offered, modifier: &Modifier) -> Result<Light, Invalid> {
        let mut wire = crate::file::shot::Flash {
            modifier: modifier.clone(),
            on: true,
            automatic: None,
            modelling: None,
            ..self.shot.lights[self.plan.key].clone()
        };
        // What was metered was metered of one unit.
        wire.unit.id.clone_from(&unit.wire.id);
        let light = Light::with_unit(&At::default(), &wire, unit.unit.clone(), (&self.plan.parts, self.plan.meter))?;
        Ok(light.in_place_of(self.plan.key_light()))
    }

    /// `H1` of one head of a unit at a light behind something, what was metered in it.
    pub(super) fn output(&self, light: usize, unit: &Offered, front: &Modifier) -> FlashOutput {
        let read = self.shot.lights[light].metered.as_ref();
        match read.filter(|read| read.unit == unit.wire.id && read.modifier == front.id) {
            Some(read) => unit.unit.output(self.plan.meter) * Stops::from_stops(read.stops).as_ratio(),
            None => unit.unit.output_behind(&front.id, self.plan.meter),
        }
    }

    /// No nearer than this with a modifier: as said, or out of the frame.
    pub(super) fn nearest(&self, light: &Light) -> Metres {
        let out_of_frame = || {
            if light.role == Role::InSet || !light.walks() {
                return Metres::ZERO;
            }
            let middle = measured_to(light.role, self.lens.behind);
            let at = placed_around(middle, light.bearing, light.height, Metres::from_metres(1.0));
            let nearest = self.lens.nearest(middle, at, held(light));
            // A light that is seen however far it is carried is not carried for it.
            nearest.map_or(Metres::ZERO, Metres::from_metres)
        };
        self.bounds.nearest.unwrap_or_else(out_of_frame)
    }

    /// How a pulsing light is tied to the shutter: as the key is now.
    pub(super) fn pulsed(&self) -> SyncMode {
        match self.plan.settings.key().sync {
            SyncMode::HighSpeed => SyncMode::Front,
            other => other,
        }
    }

    /// The modifier of the key now.
    pub(super) fn present_modifier(&self) -> &Modifier {
        &self.shot.lights[self.plan.key].modifier
    }

    /// How many of a unit there are.
    pub(super) fn at_hand(&self, unit: &Offered) -> u32 {
        let more = self.bounds.borrowed.iter().filter(|more| more.unit == unit.wire.id).map(|more| more.count);
        unit.owned + more.sum::<u32>()
    }

    /// How many of a unit are left for the key while the other lights of the shot stay as they are.
    pub(super) fn left_for_key(&self, unit: &Offered) -> u32 {
        let others = self
            .shot
            .lights
            .iter()
            .enumerate()
            .filter(|(index, light)| *index != self.plan.key && light.on && light.unit.id == unit.wire.id);
        self.at_hand(unit).saturating_sub(others.map(|(_, light)| light.heads).sum())
    }

    /// How one set-up fares under every condition, worked out by the forecast.
    ///
    /// # Errors
    /// [`Invalid`] for a thing that cannot be.
    pub fn judge(&self, candidate: &Candidate) -> Result<Vec<Fares>, Invalid> {
        let (plan, bounds) = (self.plan, &self.bounds);
        let light = self.light(candidate.unit, candidate.modifier)?;
        let nearest = self.nearest(&light);
        let mut lights = plan.lights.to_vec();
        lights[plan.key] = light;
        let settings = Settings {
            aperture: candidate.aperture,
            shutter: candidate.shutter,
            iso: candidate.iso,
            filter: candidate.filter,
            lights: plan.settings.lights.with(plan.key, |dial| {
                (dial.power, dial.bias, dial.distance) = (candidate.power, None, candidate.distance);
                dial.heads = candidate.heads;
                dial.sync = if candidate.glow { SyncMode::HighSpeed } else { self.pulsed() };
            }),
            lamps: self.plan.settings.lamps,
        };
        let plan_then = Plan { lights: lights.into(), settings, ..plan.clone() };
        let seen = outlook(&plan_then);
        let key = seen.key();
        let log_reference = seen.reference.as_lux_seconds().log2();
        let steady = self.steady_change(candidate.shutter, log_reference);
        let mut fares = Vec::with_capacity(24);
        let mut say = |condition, part, room| fares.push(Fares { condition, part, room });

        say(Demand::Iso, None, self.iso_room(candidate.iso));
        say(Demand::Aperture, None, self.aperture_room(candidate.aperture));
        let time = candidate.shutter.time();
        say(Demand::Shutter, None, self.shutter_room(candidate.shutter));
        say(Demand::Filter, None, (bounds.filter_max - candidate.filter).as_stops());
        // With all rows lit, as below, the frame gets what the set shows; of a glow, what the slit lets through.
        let off = (key.in_a_whole_row() - self.key_wanted).as_stops().abs();
        say(Demand::Key, None, bounds.key_within.as_stops() - off);
        say(Demand::Ambient, None, Self::within(self.seen.ambient.placement.as_stops() + steady, self.ambient()));
        say(
            Demand::Background,
            None,
            Self::within(self.seen.background.placement.as_stops() + steady, bounds.background),
        );
        say(Demand::Near, None, 2.0 * (candidate.distance / nearest).log2());
        say(Demand::Far, None, 2.0 * (bounds.farthest / candidate.distance).log2());
        say(Demand::Place, None, self.place_room(plan.key, candidate.distance));
        let as_now = bounds.any_modifier || *candidate.modifier == *self.present_modifier();
        let change = (plan_then.lights[plan.key].throw.modifier - plan.key_light().throw.modifier).as_stops();
        say(Demand::Modifier, None, if as_now { f64::INFINITY } else { -modifier_price(change) });
        let glows = !candidate.glow || bounds.high_speed;
        say(Demand::HighSpeed, None, if glows { f64::INFINITY } else { key.high_speed.map_or(0.0, Stops::as_stops) });
        let lasts = if candidate.glow { time } else { key.pulse.by(plan.school) };
        say(Demand::Freeze, None, self.freeze_room(lasts.as_secs()));
        say(Demand::Even, None, self.even_room(&plan_then.lights[plan.key], candidate.distance));
        for (index, need) in self.needs.iter().enumerate() {
            if let Some(limit) = need.limit {
                say(Demand::Blur, Some(index), conditions::still(need.speed * lasts, limit));
            }
            if need.steady_limit.is_some() {
                say(Demand::Drawn, Some(index), self.drawn_room(need, candidate.shutter, steady));
            }
        }
        say(Demand::Depth, None, self.depth_room(candidate.aperture));
        say(Demand::Frames, None, candidate.unit.unit.readiness.in_a_row(key.power, bounds.rate).room(bounds.frames));
        say(Demand::Charge, None, candidate.unit.unit.readiness.on_one_charge(key.power).room(bounds.flashes));
        say(Demand::Heads, None, (f64::from(bounds.heads.min(bounds.stands)) / f64::from(candidate.heads)).log2());
        say(Demand::Owned, None, (f64::from(self.left_for_key(candidate.unit)) / f64::from(candidate.heads)).log2());
        say(
            Demand::Weight,
            None,
            weight_room(bounds.weight_kg, weight(candidate.unit, candidate.modifier, candidate.heads)),
        );
        let dark = key.rows.touched > 0.0 || key.ignition.rear_acts_as_front;
        let spare = key.usable_sync.map_or(f64::NEG_INFINITY, |usable| (time / usable.time()).log2());
        say(
            Demand::Sync,
            None,
            match (candidate.glow, dark) {
                (true, _) => f64::INFINITY,
                (false, true) => spare.min(-EDGE * 10.0),
                (false, false) => spare.max(0.0),
            },
        );
        let lifted = self.other_spill + key.background_in_a_whole_row().as_ratio();
        for (index, need) in self.needs.iter().enumerate() {
            if need.wanted_streak.is_some() {
                say(Demand::Streak, Some(index), self.streak_room(need, candidate.shutter));
            }
            let trail = self.trail(need, candidate.shutter, steady, lifted);
            if need.intent == Intent::Dash {
                say(Demand::Trail, Some(index), conditions::shows(trail));
            } else {
                say(Demand::Ghost, Some(index), conditions::trail(trail, self.trail_limit(need)));
            }
        }
        Ok(fares)
    }
}

/// All flash on a part with the key where it has to fall, the other lights staying to it; of a dark key that alone.
fn flash_on_target(plan: &Plan, seen: &Outlook, part: usize, key_wanted: Stops) -> Level {
    let key = seen.key().in_a_whole_row() - seen.key().grazing;
    if key > Stops::DARK {
        return flash_in_whole_rows(plan, seen, part).times((key_wanted - key).as_ratio());
    }
    let of_part = &plan.parts[part];
    let reached = if plan.key_light().reaches(part) { key_wanted } else { Stops::DARK };
    Level::of_surface(of_part.reflectance, reached + of_part.flash_offset)
}

/// Another modifier counts with the change of light it brings, and a tenth for the change of softness.
pub(super) fn modifier_price(change: f64) -> f64 {
    change.abs() + 0.1
}

/// Weight of a light, where all of it is known.
pub(super) fn weight(unit: &Offered, modifier: &Modifier, heads: u32) -> Option<f64> {
    let one = unit.mass_kg()? + modifier.mass_kg.unwrap_or(0.0);
    Some(one * f64::from(heads))
}

/// Stops to spare under a weight; what nobody has weighed has none where weight matters.
pub(super) fn weight_room(limit: f64, weight: Option<f64>) -> f64 {
    match weight {
        _ if limit.is_infinite() => f64::INFINITY,
        Some(weight) => (limit / weight.max(1e-3)).log2(),
        None => f64::NEG_INFINITY,
    }
}

pub(super) const fn strongest(row: Flashes) -> f64 {
    match row {
        Flashes::Whole(count) => count,
        Flashes::NotKnown => 0.0,
    }
}
