//! A flash unit, checked: every figure in range, nothing that contradicts itself.

use super::check::At;
use super::meter::Meter;
use super::readiness::{Readiness, Supply};
use super::source;
use crate::file::gear::{self, Discharge, FlashUnit, Origin, Output, TableRow, UnitKind, WhenEarly};
use crate::physics::output::Entry;
use crate::physics::power::{Habit, HeatStore, Store};
use crate::physics::pulse::table::{TimedPower, decay_of, fit_other};
use crate::physics::pulse::{self, Basis, DurationTable, Recordings, Sample};
use crate::physics::shutter::high_speed;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::dial::{DialStyle, PowerDial};
use crate::quantity::scale::{Aperture, Grid, Iso, power_label};
use crate::quantity::{FlashOutput, Joules, LuxSeconds, Seconds, Stops};
use std::cmp::Ordering;

/// Rows of a duration table, recordings of a unit.
const MAX_ROWS: usize = 200;
/// Pulses of a train: more are a glow.
const MAX_PULSES: u32 = 16;
/// Points of a recorded curve.
const MAX_CURVE: usize = 400;
/// Fraction of its peak at which a pulse of a train is over.
const ONE_IS_OVER: f64 = 0.01;
/// Nobody corrects more often.
const MAX_CORRECTIONS: usize = 8;
/// A power may lie this much outside the dial and still be its end, for labels are roundings.
pub(crate) const END_TOLERANCE: f64 = 1.005;

/// A unit as far as computation needs it.
#[derive(Clone, Debug, PartialEq)]
pub struct Unit {
    /// Output as it was entered.
    pub entry: Entry,
    /// Share of that which comes out of one head.
    pub share: f64,
    /// Whether the output is a guess.
    pub output_estimated: bool,
    /// How it makes less light, recordings and second head in it.
    pub control: pulse::Control,
    /// Where the durations of `control` come from, where they are not recorded.
    pub durations_from: Origin,
    /// How its power is written.
    pub dial: PowerDial,
    /// One step of the dial.
    pub step: Stops,
    /// Lowest power, as stops below full.
    pub lowest: Stops,
    /// Delay of its own.
    pub lag: Seconds,
    /// Whether steps or lowest power are not known, but assumed.
    pub dial_assumed: bool,
    /// Whether the delay is not known, and taken for none.
    pub lag_assumed: bool,
    /// Whether it can glow.
    pub high_speed: bool,
    /// `η`.
    pub efficiency: f64,
    /// When it is ready again.
    pub readiness: Readiness,
    /// How far it is off behind what was in front of it when it was metered, the last reading of each that counts.
    pub metered: Vec<(String, Stops)>,
}

impl Unit {
    /// Power fractions of the dial, low to full.
    pub fn powers(&self) -> impl DoubleEndedIterator<Item = f64> + use<> {
        let (step, lowest) = (self.step.as_stops(), self.lowest.as_stops());
        // A dial of thirds from full down to 1/128: the last step may fall short of the end by rounding.
        let count = (lowest / step + 1e-6).floor() as i32;
        (0..=count).rev().map(move |k| (-f64::from(k) * step).exp2())
    }

    /// The power of the dial that is nearest to one.
    pub fn nearest_power(&self, power: f64) -> f64 {
        let (step, lowest) = (self.step.as_stops(), self.lowest.as_stops());
        let down = (-power.log2() / step).round().clamp(0.0, (lowest / step + 1e-6).floor());
        (-down * step).exp2()
    }

    /// `H1` of one head by its figures.
    pub fn output(&self, meter: Meter) -> FlashOutput {
        let by = if self.entry.is_photometric() { meter.counted(1.0) } else { 1.0 };
        self.entry.output() * self.share * by
    }

    /// `H1` of one head behind something, what was metered of it in it.
    pub fn output_behind(&self, modifier: &str, meter: Meter) -> FlashOutput {
        let metered = self.metered.iter().rfind(|(behind, _)| behind == modifier);
        self.output(meter) * metered.map_or(1.0, |(_, by)| by.as_ratio())
    }

    /// Where the durations at a power come from.
    pub fn origin_of(&self, at: &pulse::PulseAt) -> Origin {
        match at.basis {
            Basis::Entered => self.durations_from,
            Basis::Recorded => Origin::Measured,
            Basis::Beyond => Origin::Estimated,
        }
    }
}

/// Of a dial that is not known: every unit has whole stops.
const WHOLE_STOPS: f64 = 1.0;
/// Of a dial that is not known: hardly a unit has less than these.
const ASSUMED_LOWEST: f64 = 5.0;

impl FlashUnit {
    /// How far its dial goes down where nobody says: to where nearly all go, and to where its durations are known.
    fn reaches_down_to(&self) -> Stops {
        let of_table = match &self.control {
            gear::Control::Table { rows, .. } => rows.iter().map(|row| row.power).collect(),
            _ => Vec::new(),
        };
        let known = of_table.into_iter().chain(self.recordings.iter().map(|one| one.power));
        let below = known.filter(|power| *power > 0.0 && *power <= 1.0).map(|power| -power.log2());
        Stops::from_stops(below.fold(ASSUMED_LOWEST, f64::max).min(bounds::LOWEST_POWER.max))
    }

    pub(crate) fn check(&self, at: &At) -> Result<Unit, Invalid> {
        at.name("name", &self.name, "a name")?;
        self.output_from.check(&at.inside("output_from"))?;
        self.durations_from.check(&at.inside("durations_from"))?;
        if let Some(leaflet) = &self.leaflet_output {
            entry(&at.inside("leaflet_output"), leaflet)?;
        }
        let lowest = match self.lowest_stops {
            Some(stops) => at.stops("lowest_stops", stops, &bounds::LOWEST_POWER)?,
            None => self.reaches_down_to(),
        };
        let heads = at.figure("heads", f64::from(self.heads.unwrap_or(1)), &bounds::HEADS)?;
        let two_heads = at.maybe("two_heads_time", self.two_heads_time, &bounds::STRETCH)?;
        let mut control = control(&at.inside("control"), &self.control, lowest)?;
        if heads > 1.0 {
            control = pulse::Control::Stretched(Box::new(control), two_heads.unwrap_or(1.0));
        }
        let corrections = corrected(at, &self.corrections)?;
        if corrections != 1.0 {
            control = pulse::Control::Stretched(Box::new(control), corrections);
        }
        let samples = recordings(at, &self.recordings, lowest)?;
        if !samples.is_empty() && !self.ignore_recordings {
            control = pulse::Control::Recorded(Box::new(Recordings::new(control, &samples)));
        }
        let energy = at.maybe("energy_j", self.energy_j, &bounds::ENERGY)?;
        let recycle = at.maybe("recycle_s", self.recycle_s, &bounds::RECYCLE)?;
        if let Some(heat) = &self.heat {
            let at = at.inside("heat");
            at.figure("capacity_j", heat.capacity_j, &bounds::HEAT)?;
            at.figure("drain_w", heat.drain_w, &bounds::DRAIN)?;
        }
        if let Some(battery) = &self.battery {
            battery.check(&at.inside("battery"))?;
        }
        at.maybe("colour_k", self.colour_k, &bounds::KELVIN)?;
        at.maybe("lowest_power_mired", self.lowest_power_mired, &bounds::MIRED)?;
        at.maybe("mass_kg", self.mass_kg, &bounds::MASS)?;
        at.maybe("owned", self.owned.map(f64::from), &bounds::OWNED)?;
        if self.dial == Some(DialStyle::Joules) && energy.is_none() {
            return Err(at.contradiction("dial", "joules".to_owned(), "its energy at full power is not given"));
        }
        Ok(Unit {
            metered: read(at, &self.readings)?,
            dial: PowerDial { style: self.dial.unwrap_or_default(), full: energy.map(Joules::from_joules) },
            entry: entry(&at.inside("output"), &self.output)?,
            share: 1.0 / heads,
            output_estimated: self.is_estimate(),
            control,
            durations_from: if heads > 1.0 && two_heads.is_none()
                || self.corrections.iter().any(|one| one.from.origin == Origin::Estimated)
            {
                // A second head changes the pulse, and nobody has said how; or somebody guessed.
                Origin::Estimated
            } else {
                self.durations_from.origin
            },
            step: at.stops("step_stops", self.step_stops.unwrap_or(WHOLE_STOPS), &bounds::POWER_STEP)?,
            lowest,
            lag: at.millis("lag_ms", self.lag_ms.unwrap_or(0.0), &bounds::LAG)?,
            dial_assumed: self.lowest_stops.is_none() || self.step_stops.is_none(),
            lag_assumed: self.lag_ms.is_none(),
            high_speed: self.high_speed_sync,
            efficiency: at
                .maybe("high_speed_efficiency", self.high_speed_efficiency, &bounds::EFFICIENCY)?
                .unwrap_or(high_speed::DEFAULT_EFFICIENCY),
            readiness: Readiness {
                store: energy.zip(recycle).map(|(energy, recycle)| Store {
                    full: Joules::from_joules(energy),
                    recycle: Seconds::from_secs(recycle),
                    borrows: borrows(&self.control),
                    habit: match self.when_early {
                        Some(WhenEarly::Missing) => Habit::Missing,
                        Some(WhenEarly::Dim) | None => Habit::Dim,
                    },
                }),
                full: energy.map(Joules::from_joules),
                min_interval: at.millis("min_interval_ms", self.min_interval_ms.unwrap_or(0.0), &bounds::INTERVAL)?,
                heat: self
                    .heat
                    .as_ref()
                    .map(|heat| HeatStore { capacity: Joules::from_joules(heat.capacity_j), drain_w: heat.drain_w }),
                supply: supply(self),
            },
        })
    }
}

/// Readings that count.
fn read(at: &At, readings: &[gear::UnitReading]) -> Result<Vec<(String, Stops)>, Invalid> {
    if readings.len() > MAX_ROWS {
        return Err(at.not_allowed("readings", &format!("a list of {}", readings.len()), "at most 200 readings"));
    }
    let mut counting = Vec::new();
    for (index, one) in readings.iter().enumerate() {
        let at = at.row("readings", index);
        source::date(&at, &one.on)?;
        at.text("read", &one.read)?;
        at.text("through", &one.through)?;
        at.text("modifier", &one.modifier)?;
        let stops = at.stops("stops", one.stops, &bounds::METERED)?;
        if one.counts {
            counting.push((one.modifier.clone(), stops));
        }
    }
    Ok(counting)
}

/// What all pulse times are multiplied by.
fn corrected(at: &At, corrections: &[gear::Correction]) -> Result<f64, Invalid> {
    if corrections.len() > MAX_CORRECTIONS {
        return Err(at.not_allowed(
            "corrections",
            &format!("a list of {}", corrections.len()),
            "at most 8 corrections",
        ));
    }
    let mut factor = 1.0;
    for (index, one) in corrections.iter().enumerate() {
        let at = at.row("corrections", index);
        one.from.check(&at.inside("from"))?;
        factor *= 1.0 + at.figure("percent", one.percent, &bounds::CORRECTION)? / 100.0;
    }
    Ok(factor)
}

/// A unit with a battery runs on it, whatever its kind; a mains head or a pack without one has no end.
fn supply(unit: &FlashUnit) -> Supply {
    match (&unit.battery, unit.kind) {
        (Some(battery), _) => Supply::Battery { usable_wh: battery.usable_wh, efficiency: battery.efficiency },
        (None, UnitKind::MainsHead | UnitKind::Generator) => Supply::Mains,
        (None, UnitKind::CameraTop | UnitKind::BatteryHead) => Supply::NotKnown,
    }
}

/// Quenched units and trains fire a part of a full store; the others hold the store itself at the lower charge.
fn borrows(control: &gear::Control) -> bool {
    match control {
        gear::Control::Quenched { .. } | gear::Control::Train { .. } => true,
        gear::Control::ChargeVoltage { .. } | gear::Control::SwitchedBanks { .. } => false,
        gear::Control::Table { discharge, .. } => *discharge != Some(Discharge::Whole),
    }
}

fn entry(at: &At, wire: &Output) -> Result<Entry, Invalid> {
    Ok(match wire {
        Output::GuideNumber { metres } => Entry::GuideNumber(at.metres("metres", *metres, &bounds::GUIDE_NUMBER)?),
        Output::Reading { aperture_f, iso, power, distance_m, modifier } => {
            let front = modifier.check(&at.inside("modifier"))?;
            Entry::Reading {
                aperture: Aperture::read(&at.of("aperture_f"), *aperture_f, Grid::Thirds)?,
                iso: Iso::read(&at.of("iso"), *iso, Grid::Thirds)?,
                power: at.figure("power", *power, &bounds::POWER)?,
                distance: at.metres("distance_m", *distance_m, &bounds::FLASH_DISTANCE)?,
                face: front.face,
                modifier: front.change,
            }
        }
        Output::Exposure { exposure_lxs, distance_m } => Entry::Exposure {
            exposure: LuxSeconds::from_lux_seconds(at.figure(
                "exposure_lxs",
                *exposure_lxs,
                &bounds::FLASH_EXPOSURE,
            )?),
            distance: at.metres("distance_m", *distance_m, &bounds::FLASH_DISTANCE)?,
        },
        Output::Energy { joules, half_angle_deg } => Entry::Energy {
            energy: Joules::from_joules(at.figure("joules", *joules, &bounds::ENERGY)?),
            half_angle: half_angle_deg.map(|angle| at.degrees("half_angle_deg", angle, &bounds::BEAM)).transpose()?,
        },
    })
}

/// The entry of a leaflet that was checked with its unit.
pub(crate) fn leaflet(unit: &FlashUnit) -> Option<Entry> {
    unit.leaflet_output.as_ref().and_then(|wire| entry(&At::default(), wire).ok())
}

fn control(at: &At, wire: &gear::Control, lowest: Stops) -> Result<pulse::Control, Invalid> {
    let time = |name: &str, value: f64| at.millis(name, value, &bounds::PULSE_TIME);
    let shorter = |name: &str, value: Option<f64>, default: Seconds, decay: Seconds| {
        let Some(given) = value else { return Ok(default.min(decay * 0.5)) };
        let constant = time(name, given)?;
        if constant < decay {
            Ok(constant)
        } else {
            Err(at.contradiction(name, format!("{given} ms"), "it must be shorter than decay_ms"))
        }
    };
    let gamma = |value: f64| at.figure("gamma", value, &bounds::GAMMA);
    Ok(match wire {
        gear::Control::Quenched { decay_ms, t05_ms, t01_ms, rise_ms, fall_ms } => {
            let decay = full_decay(at, [*decay_ms, *t05_ms, *t01_ms], *rise_ms)?;
            pulse::Control::Quenched(pulse::Quenched {
                rise: shorter("rise_ms", *rise_ms, pulse::DEFAULT_RISE, decay)?,
                fall: shorter("fall_ms", *fall_ms, pulse::DEFAULT_FALL, decay)?,
                decay,
            })
        }
        gear::Control::ChargeVoltage { decay_ms, t05_ms, t01_ms, rise_ms, gamma: exponent } => {
            let decay = full_decay(at, [*decay_ms, *t05_ms, *t01_ms], *rise_ms)?;
            let rise = shorter("rise_ms", *rise_ms, pulse::DEFAULT_RISE, decay)?;
            pulse::Control::ChargeVoltage(pulse::ChargeVoltage { rise, decay, gamma: gamma(*exponent)? })
        }
        gear::Control::SwitchedBanks { decay_ms, t05_ms, t01_ms, rise_ms, gamma: exponent, banks } => {
            let decay = full_decay(at, [*decay_ms, *t05_ms, *t01_ms], *rise_ms)?;
            at.figure("banks", f64::from(*banks), &bounds::BANKS)?;
            let rise = shorter("rise_ms", *rise_ms, pulse::DEFAULT_RISE, decay / f64::from(*banks))?;
            pulse::Control::SwitchedBanks(pulse::SwitchedBanks { rise, decay, gamma: gamma(*exponent)?, banks: *banks })
        }
        gear::Control::Train { decay_ms, rise_ms, period_ms, pulses } => {
            let (decay, period) = (time("decay_ms", *decay_ms)?, time("period_ms", *period_ms)?);
            if !(2..=MAX_PULSES).contains(pulses) {
                return Err(at.not_allowed("pulses", &pulses.to_string(), "a train of 2 to 16 pulses"));
            }
            let rise = shorter("rise_ms", *rise_ms, pulse::DEFAULT_RISE, decay)?;
            let each = pulse::Quenched { rise, decay, fall: pulse::DEFAULT_FALL.min(decay * 0.5) };
            // Pulses that run into each other are one.
            let lasts = each.pulse(1.0).interval_above(ONE_IS_OVER).1;
            if period < lasts {
                let reason = format!("a pulse lasts {:.2} ms: the next begins later", lasts.as_millis());
                return Err(at.contradiction("period_ms", format!("{period_ms} ms"), reason));
            }
            pulse::Control::Train(pulse::PulseTrain { each, period, pulses: *pulses })
        }
        gear::Control::Table { rows, discharge } => {
            pulse::Control::Table(table(at, rows, discharge.unwrap_or(Discharge::Cut), lowest)?)
        }
    })
}

/// The decay of a full flash, from itself or from one of its durations: leaflets print t0.5, some t0.1, none a decay.
fn full_decay(at: &At, [decay, t05, t01]: [Option<f64>; 3], rise: Option<f64>) -> Result<Seconds, Invalid> {
    let (name, given) = match (decay, t05, t01) {
        (Some(decay), None, None) => return at.millis("decay_ms", decay, &bounds::PULSE_TIME),
        (None, Some(t05), None) => ("t05_ms", t05),
        (None, None, Some(t01)) => ("t01_ms", t01),
        (None, None, None) => {
            return Err(at.not_allowed("t05_ms", "missing", "given: t0.5 or t0.1 of the full flash, or its decay"));
        }
        _ => {
            let reason = "one of t0.5, t0.1 and decay is enough, and they could disagree; a table takes both times";
            return Err(at.contradiction("t01_ms", "a second time".to_owned(), reason));
        }
    };
    let known = at.millis(name, given, &bounds::PULSE_TIME)?;
    let rise = rise.map_or(Ok(pulse::DEFAULT_RISE), |rise| at.millis("rise_ms", rise, &bounds::PULSE_TIME))?;
    let full = |decay: Seconds| pulse::Pulse::full(rise.min(decay * 0.5), decay);
    let of = |(t05, t01): (Seconds, Seconds)| if name == "t05_ms" { t05 } else { t01 };
    Ok(decay_of(known, of, full))
}

fn table(at: &At, wire: &[TableRow], discharge: Discharge, lowest: Stops) -> Result<DurationTable, Invalid> {
    if wire.is_empty() || wire.len() > MAX_ROWS {
        return Err(at.not_allowed("rows", &format!("a table of {} rows", wire.len()), "a table of 1 to 200 rows"));
    }
    let mut rows: Vec<TimedPower> = Vec::with_capacity(wire.len());
    for (index, given) in wire.iter().enumerate() {
        let at = at.row("rows", index);
        let power = on_the_dial(&at, given.power, lowest)?;
        let time =
            |name: &str, value: Option<f64>| value.map(|value| at.millis(name, value, &bounds::PULSE_TIME)).transpose();
        // Where a leaflet gives one of the two, the unit's own shape gives the other.
        let shape = |decay: Seconds| {
            let short = |constant: Seconds| constant.min(decay * 0.5);
            let (rise, fall) = (short(pulse::DEFAULT_RISE), short(pulse::DEFAULT_FALL));
            match discharge {
                Discharge::Cut => pulse::Quenched { rise, decay, fall }.pulse(power),
                Discharge::Whole => pulse::Pulse::full(rise, decay),
            }
        };
        let (t05_given, t01_given) = (time("t05_ms", given.t05_ms)?, time("t01_ms", given.t01_ms)?);
        let (t05, t01) = match (t05_given, t01_given) {
            (Some(t05), Some(t01)) => (t05, t01),
            (Some(t05), None) => fit_other(t05, |(t05, _)| t05, shape),
            (None, Some(t01)) => fit_other(t01, |(_, t01)| t01, shape),
            (None, None) => return Err(at.not_allowed("t01_ms", "missing", "given, or t05_ms is")),
        };
        // What was given stays as given.
        let (t05, t01) = (t05_given.unwrap_or(t05), t01_given.unwrap_or(t01));
        let estimated = t05_given.is_none() || t01_given.is_none();
        not_shorter(&at, t05, t01)?;
        rows.push(TimedPower { power, t05, t01, estimated, t01_fitted: t01_given.is_none() });
    }
    // The first two rows say whether powers rise or fall; the rest follows.
    let way = |pair: &[TimedPower]| pair[1].power.total_cmp(&pair[0].power);
    let first = rows.windows(2).next().map(way);
    let broken = |pair: &[TimedPower]| way(pair) == Ordering::Equal || Some(way(pair)) != first;
    if let Some(index) = rows.windows(2).position(broken) {
        let given = power_label(-Stops::from_ratio(rows[index + 1].power));
        let at = at.row("rows", index + 1);
        return Err(at.not_allowed("power", &given, "a power beyond the one before it: rows rise or fall"));
    }
    if first == Some(Ordering::Greater) {
        rows.reverse();
    }
    Ok(DurationTable(rows))
}

fn on_the_dial(at: &At, power: f64, lowest: Stops) -> Result<f64, Invalid> {
    let power = at.figure("power", power, &bounds::POWER)?;
    let least = (-lowest).as_ratio();
    if power * END_TOLERANCE < least {
        return Err(bounds::POWER.within(least, 1.0).refuse(&at.of("power"), power));
    }
    Ok(power)
}

fn not_shorter(at: &At, t05: Seconds, t01: Seconds) -> Result<(), Invalid> {
    if t01 < t05 {
        let reason = format!("it cannot be shorter than t0.5 ({} ms)", t05.as_millis());
        return Err(at.contradiction("t01_ms", format!("{} ms", t01.as_millis()), reason));
    }
    Ok(())
}

fn recordings(at: &At, wire: &[gear::Recording], lowest: Stops) -> Result<Vec<Sample>, Invalid> {
    if wire.len() > MAX_ROWS {
        return Err(at.not_allowed("recordings", &format!("a list of {}", wire.len()), "at most 200 recordings"));
    }
    let mut samples = Vec::with_capacity(wire.len());
    for (index, given) in wire.iter().enumerate() {
        let at = at.row("recordings", index);
        let power = on_the_dial(&at, given.power, lowest)?;
        let t05 = at.millis("t05_ms", given.t05_ms, &bounds::PULSE_TIME)?;
        let t01 = at.millis("t01_ms", given.t01_ms, &bounds::PULSE_TIME)?;
        not_shorter(&at, t05, t01)?;
        if let Some(t90) = given.t90_ms {
            at.millis("t90_ms", t90, &bounds::PULSE_TIME)?;
        }
        if let Some(on) = &given.on {
            source::date(&at, on)?;
        }
        given.with.as_ref().map_or(Ok(()), |with| at.text("with", with))?;
        if let Some(curve) = &given.curve {
            let fits = curve.level.len() <= MAX_CURVE && curve.level.iter().all(|level| level.is_finite());
            let advances = curve.step_us > 0.0 && curve.step_us.is_finite();
            if !(fits && advances) {
                return Err(at.not_allowed("curve", "a curve", "at most 400 finite levels, a step above zero"));
            }
        }
        samples.push(Sample { power, t05, t01 });
    }
    Ok(samples)
}
