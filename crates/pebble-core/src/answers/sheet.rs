//! What a unit does at each power, written down: durations, pulse, energy, recycling, output in every form, and how far
//! each figure can be trusted.

use crate::file::gear::{Because, FlashUnit, Item, Origin, UnitKind};
use crate::physics::exposure::INCIDENT_C;
use crate::physics::output::{ESTIMATE_SPAN, OUTPUT_PER_JOULE, colour};
use crate::physics::pulse::fit::{self, Way};
use crate::physics::pulse::recordings::{ENOUGH_POWERS, verdict};
use crate::physics::pulse::{Basis, Control, Pulse, PulseAt, Sample};
use crate::plan::check::At;
use crate::plan::{Meter, Supply, Unit, leaflet};
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::scale::duration_label;
use crate::quantity::words::signed;
use crate::quantity::{Seconds, Stops};
use crate::wire::{report, report_word};

/// Points of a duration curve between its jumps.
const CURVE_STEP_STOPS: f64 = 0.125;
/// Distances at which the f-number is said.
const DISTANCES_M: [f64; 3] = [1.0, 2.0, 4.0];
/// A unit slower than this at full power surprises people who trust in flash.
const SLOW: Seconds = Seconds::from_secs(1.0 / 125.0);

report! {
    /// What a unit does at each power.
    pub struct Sheet {
        /// Output at full power.
        pub output: OutputForms,
        /// Every step of the dial, full first.
        pub powers: Vec<AtPower>,
        /// t0.1 and t0.5 against power, one piece between jumps.
        pub curve: Vec<CurvePiece>,
        /// The same as entered, where recordings are used instead.
        #[serde(skip_serializing_if = "Vec::is_empty")]
        pub entered_curve: Vec<CurvePiece>,
        /// Position in `powers` of the shortest t0.1.
        pub shortest: usize,
        /// What its recordings say of it, where it has any.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub recordings: Option<RecordingsVerdict>,
        /// Whether its flashes have no end, as on the mains.
        pub endless: bool,
        /// What one should know of it, in sentences.
        pub remarks: Vec<String>,
    }
    /// Output of one head, bare, in every form.
    pub struct OutputForms {
        /// `H1`.
        pub lxs_m2: f64,
        /// Guide number in metres at ISO 100.
        pub guide_number_m: f64,
        /// f-number at ISO 100.
        pub apertures: Vec<ApertureAt>,
        /// Exposure at one metre.
        pub exposure_1m_lxs: f64,
        /// Joules that usually give this much.
        pub usual_joules: f64,
        /// Joules stored.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub stored_joules: Option<f64>,
        /// Whether it is a guess.
        pub estimated: bool,
        /// How far it may be off when it comes from joules alone, in stops.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub span_stops: Option<[f64; 2]>,
        /// Guide number at the ends of that span.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub guide_number_span_m: Option<[f64; 2]>,
        /// Measured output against the leaflet's.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub against_leaflet_stops: Option<f64>,
    }
    /// An f-number at a distance.
    pub struct ApertureAt {
        /// The distance.
        pub distance_m: f64,
        /// f-number at ISO 100, full power, bare.
        pub aperture_f: f64,
    }
    /// One step of the dial.
    pub struct AtPower {
        /// Power fraction.
        pub power: f64,
        /// As written.
        pub power_label: String,
        /// t0.5.
        pub t05_s: f64,
        /// t0.1.
        pub t01_s: f64,
        /// t90.
        pub t90_s: f64,
        /// As written.
        pub t05_label: String,
        /// As written.
        pub t01_label: String,
        /// Where t0.1 may lie, as written, where only t0.5 is known: the shortest and the longest.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub t01_range: Option<[String; 2]>,
        /// As written.
        pub t90_label: String,
        /// Where these come from.
        pub origin: Origin,
        /// What makes them doubtful, where something does.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub doubt: Option<Doubt>,
        /// Guide number.
        pub guide_number_m: f64,
        /// Energy of one flash.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub energy_j: Option<f64>,
        /// Time to be ready again.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub recycle_s: Option<f64>,
        /// How long a burst holds at the rate asked for.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub burst: Option<Burst>,
        /// Flashes on one charge.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub flashes_per_charge: Option<u64>,
        /// Flashes from cold at the rate asked for until it acts on its heat; `null` inside when never.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub until_hot: Option<UntilHot>,
        /// Colour temperature.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub colour_k: Option<f64>,
        /// How long the drawn pulse is.
        pub pulse_end_s: f64,
        /// Its levels against the peak, evenly from 0 to `pulse_end_s`.
        pub pulse_level: Vec<f64>,
    }
    /// How long a burst holds.
    pub struct Burst {
        /// Whole flashes in a row; `null` without end.
        pub whole: Option<u32>,
    }
    /// How long it stays cool enough.
    pub struct UntilHot {
        /// Flashes; `null` without end.
        pub flashes: Option<u64>,
    }
    /// A piece of a duration curve.
    pub struct CurvePiece {
        /// Power fractions, falling.
        pub power: Vec<f64>,
        /// t0.1.
        pub t01_s: Vec<f64>,
        /// t0.5.
        pub t05_s: Vec<f64>,
        /// Whether recordings of this unit stand on both sides.
        pub recorded: bool,
    }
    /// What the recordings of a unit say of it.
    pub struct RecordingsVerdict {
        /// Whether they are used.
        pub used: bool,
        /// Different powers recorded.
        pub powers: usize,
        /// How many more it takes until its way is fitted through them.
        pub more_powers: usize,
        /// How far the entered durations are from them: 0.2 is a fifth.
        pub against_entered: f64,
        /// How far the way of the unit, fitted through them, still is; from three powers on.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub misfit: Option<f64>,
        /// The way that would fit best, from three powers on.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub behaves_as: Option<WayWord>,
        /// How far that one is from them.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub best_misfit: Option<f64>,
    }
}

report_word! {
    /// What makes a duration doubtful.
    pub enum Doubt {
        /// The power lies outside the table.
        OutsideTable,
        /// The power lies beyond the recordings.
        BeyondRecordings,
        /// The table gives one of the two; the other was fitted.
        Fitted,
        /// The two of a table fit no pulse of the model.
        Misfit,
    }
    /// A way of making less light.
    pub enum WayWord {
        /// A switch cuts the discharge.
        Quenched,
        /// Less charge.
        ChargeVoltage,
        /// Fewer banks, then less charge.
        SwitchedBanks,
    }
}

/// What a unit does at each step of its dial, with bursts at `frames_per_second`.
///
/// # Errors
/// [`Invalid`] with the path of the field inside the unit.
pub fn sheet(wire: &FlashUnit, frames_per_second: f64) -> Result<Sheet, Invalid> {
    sheet_by(wire, frames_per_second, Meter::default())
}

/// The same with light counted by another constant.
///
/// # Errors
/// As [`sheet`].
pub fn sheet_by(wire: &FlashUnit, frames_per_second: f64, meter: Meter) -> Result<Sheet, Invalid> {
    let unit = wire.check(&At::default())?;
    let output = forms(wire, &unit, meter);
    let lowest = unit.lowest.as_stops();
    let powers: Vec<AtPower> =
        unit.powers().rev().map(|power| at_power(wire, &unit, &output, power, frames_per_second)).collect();
    let shortest = (0..powers.len()).min_by(|a, b| powers[*a].t01_s.total_cmp(&powers[*b].t01_s)).unwrap_or(0);
    let entered = match &unit.control {
        Control::Recorded(_) => {
            Some(FlashUnit { ignore_recordings: true, ..wire.clone() }.check(&At::default())?.control)
        }
        _ => None,
    };
    let recordings = recordings(wire, entered.as_ref().unwrap_or(&unit.control));
    let remarks = remarks(wire, &unit, &output, &powers, shortest);
    Ok(Sheet {
        curve: curve(&unit.control, lowest),
        entered_curve: entered.map_or_else(Vec::new, |control| curve(&control, lowest)),
        output,
        powers,
        shortest,
        recordings,
        endless: unit.readiness.supply == Supply::Mains,
        remarks,
    })
}

/// The shortest t0.1 of a unit; of a recorded one, among its recordings, for what lies beyond them is an estimate.
fn shortest(unit: &Unit) -> Seconds {
    let (step, lowest) = (unit.step.as_stops(), unit.lowest.as_stops());
    let recorded = matches!(unit.control, Control::Recorded(_));
    // A turn may lie between two steps of the dial: the one on either side of it counts.
    let sides = |stops: f64| [(stops / step).floor() * step, (stops / step).ceil() * step];
    let turns = unit.control.turns().into_iter().flat_map(|stops| if recorded { [stops; 2] } else { sides(stops) });
    let ends = (!recorded).then_some([0.0, (lowest / step + 1e-6).floor() * step]);
    ends.into_iter()
        .flatten()
        .chain(turns.filter(|stops| *stops <= lowest))
        .map(|stops| unit.control.times((-stops).exp2()).1)
        .fold(Seconds::from_secs(f64::INFINITY), Seconds::min)
}

/// Power fraction, t0.5 and t0.1 at every whole stop of a dial, from full down.
///
/// # Errors
/// [`Invalid`] with the path of the field inside the unit.
pub fn whole_stops(wire: &FlashUnit) -> Result<Vec<(f64, Seconds, Seconds)>, Invalid> {
    let unit = wire.check(&At::default())?;
    let whole = unit.powers().rev().filter(|power| (power.log2() - power.log2().round()).abs() < 1e-6);
    Ok(whole
        .map(|power| {
            let (t05, t01) = unit.control.times(power);
            (power, t05, t01)
        })
        .collect())
}

/// The pulse of a unit at a power fraction.
///
/// # Errors
/// [`Invalid`] with the path of the field inside the unit, or of `power`.
pub fn pulse(wire: &FlashUnit, power: f64) -> Result<Pulse, Invalid> {
    let unit = wire.check(&At::default())?;
    Ok(unit.control.at(bounds::POWER.check("power", power)?).pulse)
}

fn guide_number(lxs_m2: f64) -> f64 {
    (lxs_m2 * 100.0 / INCIDENT_C).sqrt()
}

/// Output of one head in every form.
///
/// # Errors
/// [`Invalid`] with the path of the field inside the unit.
pub fn output(wire: &FlashUnit) -> Result<OutputForms, Invalid> {
    Ok(forms(wire, &wire.check(&At::default())?, Meter::default()))
}

fn forms(wire: &FlashUnit, unit: &Unit, meter: Meter) -> OutputForms {
    let whole = unit.entry.output().as_lux_seconds_square_metres();
    // As it is counted inside, and as it is said in lux-seconds.
    let counted = unit.output(meter).as_lux_seconds_square_metres();
    let lxs_m2 = meter.said(counted);
    let span = unit.entry.is_estimate().then_some([ESTIMATE_SPAN.0, ESTIMATE_SPAN.1]);
    let number = guide_number(counted);
    OutputForms {
        lxs_m2,
        guide_number_m: number,
        apertures: DISTANCES_M.map(|distance_m| ApertureAt { distance_m, aperture_f: number / distance_m }).into(),
        exposure_1m_lxs: lxs_m2,
        usual_joules: lxs_m2 / unit.share / OUTPUT_PER_JOULE,
        stored_joules: wire.energy_j,
        estimated: unit.output_estimated,
        span_stops: span,
        guide_number_span_m: span.map(|ends| ends.map(|stops| number * (stops / 2.0).exp2())),
        against_leaflet_stops: leaflet(wire)
            .map(|entry| Stops::from_ratio(whole / entry.output().as_lux_seconds_square_metres()).as_stops()),
    }
}

fn at_power(wire: &FlashUnit, unit: &Unit, output: &OutputForms, power: f64, rate: f64) -> AtPower {
    let at = unit.control.at(power);
    let durations = at.durations();
    let (times, levels): (Vec<Seconds>, Vec<f64>) = at.pulse.drawn().unzip();
    let energy = wire.energy_j.map(|energy| energy * power);
    let lowest = unit.lowest.as_stops().max(f64::MIN_POSITIVE);
    AtPower {
        power,
        power_label: unit.dial.label(power),
        t05_s: durations.t05.as_secs(),
        t01_s: durations.t01.as_secs(),
        t90_s: durations.t90.as_secs(),
        t05_label: duration_label(durations.t05),
        t01_label: duration_label(durations.t01),
        t90_label: duration_label(durations.t90),
        t01_range: at.t01_range().map(|(from, to)| [duration_label(from), duration_label(to)]),
        origin: unit.origin_of(&at),
        doubt: doubt(&at),
        guide_number_m: output.guide_number_m * power.sqrt(),
        energy_j: energy,
        recycle_s: unit.readiness.ready(power).map(Seconds::as_secs),
        burst: unit.readiness.burst(power, rate).map(|whole| Burst { whole }),
        flashes_per_charge: unit.readiness.on_one_charge(power).count(),
        until_hot: unit.readiness.until_hot(power, rate).map(|flashes| UntilHot { flashes }),
        colour_k: wire
            .colour_k
            .map(|full| colour::shifted(full, wire.lowest_power_mired.unwrap_or(0.0) * -power.log2() / lowest)),
        pulse_end_s: times.last().map_or(0.0, |end| end.as_secs()),
        pulse_level: levels
            .into_iter()
            // Three digits draw a curve of a hundred pixels; more would only make the answer longer.
            .map(|level| (level * 1000.0).round() / 1000.0)
            .collect(),
    }
}

fn doubt(at: &PulseAt) -> Option<Doubt> {
    if at.misfit {
        Some(Doubt::Misfit)
    } else if at.basis == Basis::Beyond {
        Some(Doubt::BeyondRecordings)
    } else if at.outside_table {
        Some(Doubt::OutsideTable)
    } else {
        at.estimated.then_some(Doubt::Fitted)
    }
}

fn curve(control: &Control, lowest: f64) -> Vec<CurvePiece> {
    let mut edges: Vec<f64> = control.jumps().into_iter().filter(|stops| *stops > 0.0 && *stops < lowest).collect();
    edges.sort_by(f64::total_cmp);
    edges.push(lowest);
    let mut pieces = Vec::new();
    let mut from = 0.0;
    for to in edges {
        // Just inside both ends, so that a jump is drawn on its own side.
        let (first, last) = (if from > 0.0 { from + 1e-6 } else { 0.0 }, if to < lowest { to - 1e-6 } else { to });
        let count = (((last - first) / CURVE_STEP_STOPS).ceil() as usize).max(1);
        let power: Vec<f64> =
            (0..=count).map(|k| (-(first + (last - first) * k as f64 / count as f64)).exp2()).collect();
        let seen: Vec<PulseAt> = power.iter().map(|power| control.at(*power)).collect();
        pieces.push(CurvePiece {
            t01_s: seen.iter().map(|at| at.times.1.as_secs()).collect(),
            t05_s: seen.iter().map(|at| at.times.0.as_secs()).collect(),
            recorded: seen.iter().all(|at| at.basis == Basis::Recorded),
            power,
        });
        from = to;
    }
    pieces
}

fn recordings(wire: &FlashUnit, entered: &Control) -> Option<RecordingsVerdict> {
    let samples: Vec<Sample> = wire
        .recordings
        .iter()
        .map(|one| Sample {
            power: one.power,
            t05: Seconds::from_millis(one.t05_ms),
            t01: Seconds::from_millis(one.t01_ms),
        })
        .collect();
    if samples.is_empty() {
        return None;
    }
    let (seen, powers) = (verdict(entered, &samples, true), fit::powers(&samples));
    Some(RecordingsVerdict {
        used: !wire.ignore_recordings,
        powers,
        more_powers: ENOUGH_POWERS.saturating_sub(powers),
        against_entered: seen.against_entered.exp_m1(),
        misfit: seen.own.map(|own| own.misfit.exp_m1()),
        behaves_as: seen.best.as_ref().map(|(way, _)| match way {
            Way::Quenched => WayWord::Quenched,
            Way::ChargeVoltage => WayWord::ChargeVoltage,
            Way::SwitchedBanks(_) => WayWord::SwitchedBanks,
        }),
        best_misfit: seen.best.map(|(_, fitted)| fitted.misfit.exp_m1()),
    })
}

const fn because(why: Because) -> &'static str {
    match why {
        Because::Cable => "Long cable",
        Because::Age => "Age of the tube",
        Because::SecondHead => "Second head",
        Because::Other => "Correction",
    }
}

fn remarks(wire: &FlashUnit, unit: &Unit, output: &OutputForms, powers: &[AtPower], shortest: usize) -> Vec<String> {
    let mut said = Vec::new();
    if let Some([low, high]) = output.span_stops {
        said.push(format!(
            "Output is an estimate from joules: {} to {} stops. Meter one flash and enter it.",
            signed(low),
            signed(high)
        ));
    } else if output.estimated {
        said.push("Output was entered as a guess. Meter one flash and enter it.".to_owned());
    }
    if let Some(stops) = output.against_leaflet_stops.filter(|stops| stops.abs() >= 0.05) {
        let side = if stops < 0.0 { "under" } else { "over" };
        said.push(format!("Measured {:.1} stop {side} its leaflet.", stops.abs()));
    }
    if let (Some(stored), false) = (output.stored_joules, output.estimated) {
        let stops = (output.usual_joules / stored).log2();
        if stops < ESTIMATE_SPAN.0 || stops > ESTIMATE_SPAN.1 {
            said.push(format!(
                "Its output is {} stops against what {stored} J usually give: one of the two figures may be wrong.",
                signed(stops)
            ));
        }
    }
    let (full, best, least) = (&powers[0], &powers[shortest], &powers[powers.len() - 1]);
    if shortest == 0 && powers.len() > 1 && least.t01_s > full.t01_s * 1.02 {
        said.push("Shortest at full power: turned down, its pulse gets longer.".to_owned());
    } else if shortest + 1 < powers.len() && least.t01_s > best.t01_s * 1.02 {
        said.push(format!("Shortest at {}, and longer again below.", best.power_label));
    }
    if powers.iter().any(|at| at.t01_range.is_some()) {
        let rule = "t0.1 is fitted from t0.5. Three times t0.5 is right for a flash that runs out only; one that is cut is shorter.";
        said.push(rule.to_owned());
    }
    for one in &wire.corrections {
        let way = if one.percent < 0.0 { "shorter" } else { "longer" };
        said.push(format!("{}: all times {}.", because(one.because), format_args!("{} % {way}", one.percent.abs())));
    }
    if wire.lowest_stops.is_none() || wire.step_stops.is_none() {
        said.push(format!(
            "Its dial is not known: steps of {:.1} down to {} are assumed.",
            unit.step.as_stops(),
            least.power_label
        ));
    }
    if wire.lag_ms.is_none() {
        said.push("Its own delay is not known: none is assumed.".to_owned());
    }
    if full.t01_s > SLOW.as_secs() {
        said.push(format!("At full power its t0.1 is {}: most shutters cut such a pulse.", full.t01_label));
    }
    if wire.heads == Some(2) {
        said.push(match wire.two_heads_time {
            Some(factor) => format!("Two heads share the energy; with both, all times are ×{factor}."),
            None => "Two heads share the energy; how that changes the pulse was not measured.".to_owned(),
        });
    }
    if wire.kind == UnitKind::Generator || wire.kind == UnitKind::MainsHead {
        said.push("On the mains: residual-current protection, dry ground, and never opened.".to_owned());
    }
    said
}

/// One line that tells a thing of the kit from its neighbours.
///
/// # Errors
/// [`Invalid`] with the path of the field inside the thing.
pub fn line(item: &Item) -> Result<String, Invalid> {
    use Item;
    Ok(match item {
        Item::Unit(unit) => {
            let checked = unit.check(&At::default())?;
            let (forms, time) = (forms(unit, &checked, Meter::default()), shortest(&checked));
            let joules = unit.energy_j.map_or_else(String::new, |joules| format!("{joules} J · "));
            let about = if forms.estimated { "about " } else { "" };
            format!("{joules}GN {about}{:.0} · t0.1 to {}", forms.guide_number_m, duration_label(time),)
        }
        Item::Camera(camera) => {
            let rate = camera.frames_per_second.map_or_else(String::new, |rate| format!(" · {rate}/s"));
            format!("sync {} · ISO {}–{}{rate}", camera.sync, camera.iso_min, camera.iso_max)
        }
        Item::Lens(lens) => {
            let leaf = lens.leaf_fastest.as_ref().map_or_else(String::new, |time| format!(" · leaf to {time}"));
            let focal = if lens.focal_min_mm < lens.focal_max_mm {
                format!("{}–{} mm", lens.focal_min_mm, lens.focal_max_mm)
            } else {
                format!("{} mm", lens.focal_min_mm)
            };
            format!("{focal} · f/{}{leaf}", lens.widest_f)
        }
        Item::Modifier(modifier) => {
            let front = modifier.check(&At::default())?;
            let grid = modifier.grid_deg.map_or_else(String::new, |angle| format!(" · grid {angle}°"));
            let size = modifier.face_radius_m * 2.0;
            format!("{} stops · face {size:.2} m{grid}", signed(front.change.as_stops()))
        }
        Item::Filter(filter) => {
            let shift = if filter.mired == 0.0 {
                "neutral".to_owned()
            } else {
                format!("{} mired", signed(filter.mired).trim_end_matches(".0"))
            };
            let hue = filter.hue.as_ref().and_then(|hue| colour::hue_word(colour::dye(hue.hue_deg, hue.saturation)));
            let through = (-filter.loss_stops).exp2() * 100.0;
            format!("−{:.1} stops, {through:.0} % through · {}", filter.loss_stops, hue.unwrap_or(&shift))
        }
        Item::Trigger(trigger) => {
            let range = trigger.range_m.map_or_else(String::new, |range| format!(" · to {range} m"));
            format!("lag {} ms{range}", trigger.lag_ms)
        }
        Item::Battery(battery) => format!("{} Wh usable", battery.usable_wh),
        Item::Lamp(lamp) => {
            let modelling = if lamp.modelling { " · modelling" } else { "" };
            format!("{} lx at 1 m · {} K{modelling}", lamp.lux_at_1m, lamp.colour_k)
        }
    })
}
