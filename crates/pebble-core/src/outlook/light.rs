//! One flash: what it puts on the subject, when, and for how long.

use super::Incident;
use crate::file::shot::Role;
use crate::physics::output::grazing;
use crate::physics::pulse::{Pulse, PulseAt};
use crate::physics::shutter::sync::{OVER_SHARE, Timing, ignition, usable_sync};
use crate::physics::shutter::{Ignition, RowReport, Run, SyncMode, high_speed, rows};
use crate::physics::subject::direction;
use crate::plan::{Dial, Light, Plan};
use crate::quantity::scale::ShutterTime;
use crate::quantity::{LuxSeconds, Seconds, Stops};

/// Parts have no place of their own yet: each stands in all rows of the frame.
const WHOLE_FRAME: (f64, f64) = (0.0, 1.0);
/// When the first and the last row get this much of a flash, all of them get all of it.
const UNCUT: f64 = 1.0 - 1e-6;

/// What one flash will do.
#[derive(Clone, Debug, PartialEq)]
pub struct LightOutlook {
    /// It is on and listens to the trigger.
    pub fires: bool,
    /// Power it fires with: as set, or as its automatic finds it.
    pub power: f64,
    /// What its automatic asks for and the unit does not have: positive is light that is missing.
    pub automatic_short: Stops,
    /// On the set: what a meter held at the subject reads of it, with no shutter in between. A backdrop's light is read at
    /// the backdrop.
    pub on_set: Incident,
    /// `s̄`: how much of it the sensor gets, as the mean over the rows; in high-speed sync what the slit lets through.
    pub share: f64,
    /// In the frame: what the sensor gets of it, `s̄` of what is on the set.
    pub in_frame: Incident,
    /// On the background, on the set.
    pub on_background: Incident,
    /// Where its light comes from: right, to the camera, up.
    pub from: [f64; 3],
    /// How much brighter than metered the edge looks that it draws; nothing but for rims.
    pub grazing: Stops,
    /// The pulse at this power.
    pub pulse: PulseAt,
    /// `L`, ignition to 99 % of the light.
    pub length: Seconds,
    /// When it ignites.
    pub ignition: Ignition,
    /// What the rows get; all of it in high-speed sync.
    pub rows: RowReport,
    /// Change by high-speed sync, `None` when it is not used.
    pub high_speed: Option<Stops>,
    /// Fastest time that leaves no row dark, for this unit, power and trigger.
    pub usable_sync: Option<ShutterTime>,
    /// Freezing time of what it draws, as the rows see it: never longer than they are open, `None` where none gets any.
    pub freeze: Option<Seconds>,
}

/// What decides the ignition of a light, for a pulse of a given length.
pub(crate) fn timing(plan: &Plan, light: usize, length: Seconds) -> Timing {
    Timing { lag: plan.lights[light].lag, guard: plan.body.guard, length }
}

/// Pulses that were solved before: of one camera and its lights, whatever is set on them.
#[derive(Clone, Debug, Default)]
pub struct Pulses {
    kept: Vec<Solved>,
    keeps: bool,
}

/// What a light does at a power, whenever the shutter runs.
#[derive(Clone, Copy, Debug)]
struct Solved {
    light: usize,
    power: f64,
    sync: SyncMode,
    pulse: PulseAt,
    length: Seconds,
    usable_sync: Option<ShutterTime>,
}

impl Pulses {
    /// An empty memory, for who tries many settings of one shot.
    pub fn kept() -> Self {
        Self { kept: Vec::with_capacity(64), keeps: true }
    }

    /// How long the pulse of a power lasts.
    pub(crate) fn lasts(&mut self, plan: &Plan, light: usize, power: f64) -> Seconds {
        self.of(plan, light, power).pulse.by(plan.school)
    }

    /// The fastest time that leaves no row dark at a power.
    pub(crate) fn usable_sync(&mut self, plan: &Plan, light: usize, power: f64) -> Option<ShutterTime> {
        self.of(plan, light, power).usable_sync
    }

    fn of(&mut self, plan: &Plan, light: usize, power: f64) -> Solved {
        let sync = plan.settings.lights[light].sync;
        let known = |one: &&Solved| (one.light, one.sync) == (light, sync) && one.power == power;
        if let Some(known) = self.kept.iter().find(known) {
            return *known;
        }
        let pulse = plan.lights[light].unit.control.at(power);
        let length = pulse.pulse.time_of_share(OVER_SHARE);
        let usable_sync = usable(plan, &plan.settings.lights[light], &pulse.pulse, timing(plan, light, length));
        let solved = Solved { light, power, sync, pulse, length, usable_sync };
        if self.keeps {
            self.kept.push(solved);
        }
        solved
    }
}

impl LightOutlook {
    pub(super) fn of(plan: &Plan, index: usize, run: Run, reference: LuxSeconds, pulses: &mut Pulses) -> Self {
        let (light, dial) = (&plan.lights[index], &plan.settings.lights[index]);
        let high_speed = (dial.sync == SyncMode::HighSpeed).then(|| high_speed::loss(run, light.unit.efficiency));
        let gain = high_speed.map_or(1.0, Stops::as_ratio);
        let (power, automatic_short) = power(plan, light, dial, reference, gain);
        let fires = plan.fires(index);
        let shines = f64::from(u8::from(fires));
        let thrown = |distance| light.exposure(power, dial.heads, distance) * shines;

        let on_set = Incident::of(thrown(dial.distance), reference);
        let on_background = match light.role {
            Role::Backdrop => on_set,
            // What comes from behind shines away from the background.
            _ if light.is_behind() => Incident::of(LuxSeconds::ZERO, reference),
            _ => Incident::of(thrown(dial.distance + plan.background_behind) * plan.spill.as_ratio(), reference),
        };

        let (bearing, height) = light.comes_from(dial.distance);
        let Solved { pulse, length, usable_sync, .. } = pulses.of(plan, index, power);
        let timing = timing(plan, index, length);
        let ignition = ignition(run, dial.sync, timing);
        let rows = match high_speed {
            None => rows::report(run, &pulse.pulse, ignition.at),
            Some(_) => whole_rows(),
        };
        let whole = pulse.by(plan.school);
        let (share, freeze) = if high_speed.is_some() {
            (gain, Some(run.time))
        } else if rows.first.min(rows.last) > UNCUT {
            (1.0, Some(whole.min(run.time)))
        } else {
            let times = (plan.school, whole);
            (
                rows::mean_share(run, &pulse.pulse, ignition.at, WHOLE_FRAME),
                rows::freezing(run, &pulse.pulse, ignition.at, WHOLE_FRAME, times),
            )
        };
        Self {
            fires,
            power,
            automatic_short,
            on_set,
            share,
            in_frame: Incident::of(on_set.exposure * share, reference),
            on_background,
            from: direction(bearing, height),
            grazing: grazing(plan, light),
            usable_sync,
            freeze,
            length,
            ignition,
            rows,
            high_speed,
            pulse,
        }
    }

    /// How strong it is in a row that gets all of it: on the set, through a slit that passes, with what a rim looks brighter.
    pub fn in_a_whole_row(&self) -> Stops {
        self.on_set.placement + self.high_speed.unwrap_or(Stops::ZERO) + self.grazing
    }

    /// The same on the background.
    pub fn background_in_a_whole_row(&self) -> Stops {
        self.on_background.placement + self.high_speed.unwrap_or(Stops::ZERO)
    }

    /// Its strength in the picture: in the frame, with what a rim looks brighter.
    pub fn seen(&self) -> Stops {
        self.in_frame.placement + self.grazing
    }

    /// What the sensor gets of it from the background.
    pub fn background_in_frame(&self) -> LuxSeconds {
        self.on_background.exposure * self.share
    }
}

/// What the flash can do as a pulse is worth knowing even while it glows.
fn usable(plan: &Plan, dial: &Dial, pulse: &Pulse, timing: Timing) -> Option<ShutterTime> {
    let mode = if dial.sync == SyncMode::HighSpeed { SyncMode::Front } else { dial.sync };
    usable_sync(plan.body.travel, mode, timing, pulse, plan.body.grid, plan.body.times)
}

/// Power as set, or the one with which an automatic puts a scene of the metered tones at middle grey, by its bias.
fn power(plan: &Plan, light: &Light, dial: &Dial, reference: LuxSeconds, gain: f64) -> (f64, Stops) {
    let Some(bias) = dial.bias else { return (dial.power, Stops::ZERO) };
    let wanted = reference * (bias - plan.metered_bias).as_ratio();
    let full = light.thrown(dial, 1.0) * gain;
    let needed = wanted / full;
    let lowest = (-light.unit.lowest).as_ratio();
    // No light at all asks for endless power; the unit gives what it has.
    let power = if needed.is_finite() { needed.clamp(lowest, 1.0) } else { 1.0 };
    (power, Stops::from_ratio(needed / power))
}

fn grazing(plan: &Plan, light: &Light) -> Stops {
    if light.role != Role::Rim {
        return Stops::ZERO;
    }
    light.grazing.unwrap_or_else(|| {
        let reached = plan.parts.iter().enumerate().filter(|(part, _)| light.reaches(*part));
        let (sum, count) = reached.fold((0.0, 0.0), |(sum, count), (_, part)| (sum + part.reflectance, count + 1.0));
        grazing::allowance(light.bearing, light.height, if count > 0.0 { sum / count } else { grazing::USUAL_TONE })
    })
}

/// In high-speed sync every row gets the same slice.
fn whole_rows() -> RowReport {
    RowReport {
        first: 1.0,
        middle: 1.0,
        last: 1.0,
        worst: Stops::ZERO,
        edge: rows::Edge::First,
        touched: 0.0,
        black: 0.0,
    }
}
