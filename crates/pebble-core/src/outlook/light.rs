//! One flash: what it puts on the subject, when, and for how long.

use super::Incident;
use super::Outlook;
use super::pulses::{Arrival, Pulses, RowsOf, Solved, timing};
use crate::file::shot::Role;
use crate::physics::output::Throw;
use crate::physics::output::grazing;
use crate::physics::pulse::PulseAt;
use crate::physics::shutter::sync::ignition;
use crate::physics::shutter::{Ignition, RowReport, Run, SyncMode, high_speed, rows};
use crate::physics::subject::direction;
use crate::plan::{Dial, Light, Plan, WHOLE_FRAME};
use crate::quantity::scale::ShutterTime;
use crate::quantity::{LuxSeconds, Seconds, Stops};
use crate::stage::field::{Lamp, placed_around};

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

/// What falls on a part of one flash, in the rows that it stands in.
#[derive(Clone, Copy, Debug)]
pub(super) struct Falls {
    pub exposure: LuxSeconds,
    /// `None` where no row gets any.
    pub freeze: Option<Seconds>,
}

impl Outlook {
    /// A light in space, at the power it fires with; of one by way of a surface, as it would shine straight.
    pub fn lamp(&self, plan: &Plan, index: usize) -> Lamp {
        let (light, dial) = (&plan.lights[index], &plan.settings.lights[index]);
        // What it loses by being turned is lost in space, where it is known which way; else wherever it shines.
        let in_space = light.turned.is_some() && light.role != Role::Backdrop;
        let modifier = if in_space { light.in_front } else { light.throw.modifier };
        let at = placed_around(plan.measured_to(index), light.bearing, light.height, dial.distance);
        let throw = Throw { modifier, ..light.throw };
        Lamp {
            strength: throw.strength(self.lights[index].power) * f64::from(dial.heads),
            face: light.throw.face,
            beam: light.beam(),
            at,
            turned: plan.turned(index, at),
        }
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
        let solved = pulses.of(plan, index, power);
        let Solved { pulse, length, usable_sync } = solved;
        let Arrival { ignition, rows, share, freeze } = match high_speed {
            None => pulses.arrival(plan, index, power, &solved, run),
            // Every row gets the same slice.
            Some(_) => Arrival {
                ignition: ignition(run, dial.sync, timing(plan, index, length)),
                rows: whole_rows(),
                share: gain,
                freeze: Some(run.time),
            },
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

    /// What some rows of the frame get of it: as their mean, less than the frame's where they are the ones that it is cut
    /// in, more where it is cut in others; and how long it lasts for the one of them that sees most of it.
    pub(super) fn in_rows(&self, plan: &Plan, index: usize, run: Run, of: (f64, f64), pulses: &mut Pulses) -> Falls {
        // A glow, and a flash that falls on every row, are the same in all of them.
        if of == WHOLE_FRAME || self.high_speed.is_some() || self.rows.touched == 0.0 {
            return Falls { exposure: self.in_frame.exposure, freeze: self.freeze };
        }
        let RowsOf { share, freeze } =
            pulses.rows_of(plan, index, (self.power, &self.pulse, self.ignition.at), run, of);
        Falls { exposure: self.on_set.exposure * share, freeze }
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
