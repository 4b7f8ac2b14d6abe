//! The three ways to bring a bright sky down to where it is wanted and light the subject over it: lowest ISO at the sync
//! speed and a smaller aperture; high-speed sync; a grey filter. Each is solved on the dials and put together in full.

use crate::answers::findings::Severity;
use crate::answers::hold::{Followed, written_depth, written_exposure, written_moves};
use crate::answers::strips;
use crate::file::shot::Intent;
use crate::outlook::{Outlook, key_wanted, outlook};
use crate::physics::motion::Sharpness;
use crate::physics::shutter::SyncMode;
use crate::plan::{Dials, Plan, Settings};
use crate::quantity::scale::{ShutterTime, duration_label};
use crate::quantity::{Metres, Seconds, Stops};
use crate::wire::word;
use serde::Serialize;

/// The steady light may be off by this much: half a third, as near as a dial comes.
const NEAR: f64 = 0.17 + 1e-6;
/// More units than this are not carried for one light.
const MOST_UNITS: u32 = 16;
/// Shutter and pulse settle on each other in two or three rounds.
const ROUNDS: usize = 12;

word! {
    /// One of the three.
    pub enum Road {
        /// Lowest ISO, sync speed, smaller aperture.
        SyncSpeed,
        /// High-speed sync.
        HighSpeed,
        /// A grey filter.
        Filter,
    }
}

/// One way, worked out.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Way {
    /// Which.
    pub road: Road,
    /// Why it cannot be gone; nothing when it can.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub not: Option<String>,
    /// Aperture, shutter, ISO, filter as written.
    pub exposure: String,
    /// What has to be turned to get there.
    pub changes: Vec<Followed>,
    /// Where the steady light falls on the subject.
    pub ambient_stops: Option<f64>,
    /// Power needed for the key, against one unit's full power; above 1 one unit is not enough. `null` where no power would
    /// do: none of its light comes through.
    pub power_needed: Option<f64>,
    /// Units needed.
    pub units: u32,
    /// Power each of them is set to, as written.
    pub power: String,
    /// Light lost to high-speed sync, in stops.
    pub lost_stops: f64,
    /// What freezes: t0.1, or the shutter where the flash glows.
    pub freeze: String,
    /// The longest blur of a part that shall be still, in pixels of the camera.
    pub blur_px: f64,
    /// How well it does.
    pub severity: Severity,
    /// The same in a few words.
    pub verdict: String,
    /// From where to where it is sharp.
    pub depth: String,
    /// Time to be ready again, where known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub recycle_s: Option<f64>,
    /// Frames on one charge of each unit, where known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub frames_per_charge: Option<u64>,
}

/// The three ways to the wanted key and steady light of a shot; the steady light stays where it is when no target says
/// otherwise.
pub fn ways(plan: &Plan) -> Vec<Way> {
    [Road::SyncSpeed, Road::HighSpeed, Road::Filter].into_iter().map(|road| way(plan, road)).collect()
}

fn way(plan: &Plan, road: Road) -> Way {
    let wanted = plan.targets.ambient.unwrap_or_else(|| outlook(plan).ambient.placement);
    let mut settings = start(plan, road);
    // A brighter pulse is longer and asks for a slower shutter, which asks for another power: slower only, so it settles.
    let mut safe = plan.body.times.1;
    for _ in 0..ROUNDS {
        let seen = outlook(&plan.with(settings));
        for (_, light) in seen.firing() {
            let usable = light.usable_sync.unwrap_or(plan.body.rated_sync);
            safe = if usable.time() > safe.time() { usable } else { safe };
        }
        settings = solved(plan, road, settings, wanted, safe);
        let lights = lights_for(plan, &settings);
        if lights == settings.lights {
            break;
        }
        settings.lights = lights;
    }
    let seen = outlook(&plan.with(settings));
    let needed = power_needed(plan, &settings);
    let units = units_for(needed);
    let not = obstacle(plan, road, wanted, &seen, units);
    let still = plan.parts.iter().zip(&seen.parts).filter(|(part, _)| part.intent == Intent::Pebble);
    let worst = still.map(|(_, part)| part.blur.as_metres().abs()).fold(0.0, f64::max);
    let pitch = plan.body.sensor.width.as_metres() / plan.body.sensor.pixels;
    let (key, dial) = (seen.key(), settings.key());
    let glow = dial.sync == SyncMode::HighSpeed;
    let readiness = &plan.key_light().unit.readiness;
    let crisp = Sharpness::of(Metres::from_metres(worst), seen.allowed) == Sharpness::Crisp;
    let (severity, verdict) = verdict(not.as_deref(), units, crisp);
    Way {
        road,
        not,
        exposure: written_exposure(plan, &settings),
        changes: written_moves(plan, &settings),
        ambient_stops: seen.ambient.placement.to_wire(),
        power_needed: needed.is_finite().then_some(needed),
        units,
        power: plan.key_light().unit.dial.label(key.power),
        lost_stops: key.high_speed.map_or(0.0, |loss| -loss.as_stops()),
        freeze: if glow { settings.shutter.label(plan.body.grid) } else { duration_label(key.pulse.times.1) },
        blur_px: worst / pitch,
        severity,
        verdict,
        depth: written_depth(plan.lengths, &seen.depth),
        recycle_s: readiness.ready(key.power).map(Seconds::as_secs),
        frames_per_charge: readiness.on_one_charge(key.power).count(),
    }
}

/// What each way begins with: the lowest ISO, no filter, its own kind of sync.
fn start(plan: &Plan, road: Road) -> Settings {
    let glow = road == Road::HighSpeed;
    Settings {
        iso: strips::isos(&plan.body).next().unwrap_or(plan.settings.iso),
        filter: Stops::ZERO,
        shutter: plan.body.rated_sync,
        lights: mode(plan, glow),
        ..plan.settings
    }
}

/// All lights glowing or none: a pulse would be cut at the times that a glow is for.
fn mode(plan: &Plan, glow: bool) -> Dials {
    let mut lights = plan.settings.lights;
    for light in 0..plan.lights.len() {
        let can = strips::syncs(plan, light).any(|mode| mode == SyncMode::HighSpeed);
        lights[light].sync = if glow && can { SyncMode::HighSpeed } else { SyncMode::Front };
    }
    lights
}

/// Units that a power asks for, the ones that stand there among them.
fn units_for(needed: f64) -> u32 {
    ((needed - 1e-9).ceil() as u32).max(1)
}

/// The key on its target with as many units as it takes, and the other lights as far from it as they were.
fn lights_for(plan: &Plan, to: &Settings) -> Dials {
    let (was, full) = (outlook(plan), outlook(&plan.with(at_full_power(plan, to))));
    let key = wanted_key(plan, &was, &full);
    let mut lights = to.lights;
    for (index, seen) in full.firing() {
        if to.lights[index].bias.is_some() {
            continue;
        }
        let against = was.lights[index].in_a_whole_row() - was.key().in_a_whole_row();
        let wanted = if index == plan.key || !against.as_stops().is_finite() { key } else { key + against };
        let needed = wanted - seen.in_a_whole_row();
        let needed = needed.as_ratio();
        if index == plan.key {
            lights[index].heads = units_for(needed).min(MOST_UNITS);
        }
        let each = needed / f64::from(lights[index].heads);
        let away = |power: &f64| (power / each).log2().abs();
        let power = strips::powers(&plan.lights[index]).min_by(|a, b| away(a).total_cmp(&away(b)));
        lights[index].power = power.unwrap_or(to.lights[index].power);
    }
    lights
}

/// One unit a light, all of it.
fn at_full_power(plan: &Plan, to: &Settings) -> Settings {
    let lights = to.lights.with_each(|dial| dial.power = 1.0).with(plan.key, |dial| dial.heads = 1);
    Settings { lights, ..*to }
}

/// The steady light brought to where it is wanted by the means of this way; `safe` is the fastest time that leaves no row
/// dark.
fn solved(plan: &Plan, road: Road, mut to: Settings, wanted: Stops, safe: ShutterTime) -> Settings {
    let seen = outlook(&plan.with(to));
    if !wanted.as_stops().is_finite() || !seen.ambient.placement.as_stops().is_finite() {
        return to;
    }
    let off = |to: &Settings| (outlook(&plan.with(*to)).ambient.placement - wanted).as_stops();
    // The time that makes so many stops of light, not faster than `from`.
    let time_for = |to: &Settings, stops: f64, from: Option<ShutterTime>| {
        let time = to.shutter.time() * Stops::from_stops(stops).as_ratio();
        let fits = |one: &ShutterTime| from.is_none_or(|from| one.time() >= from.time() * (1.0 - 1e-9));
        let away = |one: &ShutterTime| (one.time() / time).log2().abs();
        strips::shutters(&plan.body).filter(fits).min_by(|a, b| away(a).total_cmp(&away(b))).unwrap_or(to.shutter)
    };
    match road {
        Road::SyncSpeed => {
            to.shutter = safe;
            let stops = off(&to);
            let away = |one: &crate::quantity::scale::Aperture| {
                (stops - 2.0 * (one.number() / to.aperture.number()).log2()).abs()
            };
            let best = strips::apertures(&plan.body).min_by(|a, b| away(a).total_cmp(&away(b)));
            to.aperture = best.unwrap_or(to.aperture);
        }
        Road::HighSpeed => to.shutter = time_for(&to, -off(&to), None),
        Road::Filter => {
            to.shutter = safe;
            to.filter = Stops::ZERO;
            let stops = off(&to);
            // A filter too much, and the rest back by the shutter: it may be slower, not faster.
            to.filter = strips::filters(plan).find(|one| one.as_stops() >= stops - NEAR).unwrap_or(to.filter);
            to.shutter = time_for(&to, -off(&to), Some(safe));
        }
    }
    to
}

/// Power that puts the key where it is wanted, against full.
fn power_needed(plan: &Plan, to: &Settings) -> f64 {
    let full = outlook(&plan.with(at_full_power(plan, to)));
    (wanted_key(plan, &outlook(plan), &full) - full.key().in_a_whole_row()).as_ratio()
}

/// Where the key has to fall in settings whose steady light is that of `then`, the lights as far from it as they were.
fn wanted_key(plan: &Plan, was: &Outlook, then: &Outlook) -> Stops {
    let mut seen = was.clone();
    seen.subject = seen.subject.with_steady(was.ambient.placement, then.ambient.placement);
    seen.ambient = then.ambient;
    key_wanted(plan, &seen)
}

fn verdict(not: Option<&str>, units: u32, crisp: bool) -> (Severity, String) {
    match (not, units, crisp) {
        (Some(not), ..) => (Severity::Trouble, not.to_owned()),
        (None, 1, true) => (Severity::Fine, "works".to_owned()),
        (None, 1, false) => (Severity::Watch, "pebbles get soft".to_owned()),
        (None, units, true) => (Severity::Watch, format!("takes {units} units")),
        (None, units, false) => (Severity::Watch, format!("takes {units} units, pebbles get soft")),
    }
}

fn obstacle(plan: &Plan, road: Road, wanted: Stops, seen: &Outlook, units: u32) -> Option<String> {
    if !plan.fires(plan.key) {
        return Some("The flash is off.".to_owned());
    }
    if road == Road::HighSpeed && !strips::syncs(plan, plan.key).any(|mode| mode == SyncMode::HighSpeed) {
        return Some("Camera, lens and unit do not do high-speed sync together.".to_owned());
    }
    let off = (seen.ambient.placement - wanted).as_stops();
    if off.is_finite() && off.abs() > NEAR {
        let side = if off > 0.0 { "bright" } else { "dark" };
        let end = match road {
            Road::SyncSpeed => "the aperture is at its end",
            Road::HighSpeed => "the shutter is at its end",
            Road::Filter if off > 0.0 => "no filter is dense enough",
            Road::Filter => "the shutter is at its end",
        };
        return Some(format!("The steady light stays {:.1} stops too {side}: {end}.", off.abs()));
    }
    if units > MOST_UNITS {
        return Some(format!("It would take {units} such units. Bring the light nearer, or wait for less sun."));
    }
    None
}
