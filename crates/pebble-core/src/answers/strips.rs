//! The notches of every control: which positions a camera, a lens or a unit has, and what turning moves.

use crate::file::preferences::Lengths;
use crate::physics::shutter::SyncMode;
use crate::plan::{Body, Dial, Light, Plan, Settings};
use crate::quantity::said::FOOT;
use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::quantity::{Metres, Seconds, Stops};
use serde::Serialize;

/// A filter set in whole stops, up to ten.
const FILTERS: std::ops::RangeInclusive<i32> = 0..=10;
/// Focal lengths people know by name, in mm.
const FOCALS: [f64; 22] = [
    8.0, 12.0, 16.0, 20.0, 24.0, 28.0, 35.0, 40.0, 50.0, 60.0, 70.0, 85.0, 105.0, 120.0, 135.0, 150.0, 180.0, 200.0,
    240.0, 300.0, 400.0, 600.0,
];
/// Distances as set by eye and tape: from, to, step, all in centimetres.
const DISTANCES_CM: [(u32, u32, u32); 5] =
    [(30, 600, 10), (620, 1200, 20), (1250, 2000, 50), (2100, 4000, 100), (4500, 10_000, 500)];

/// The same in inches.
const DISTANCES_IN: [(u32, u32, u32); 5] =
    [(12, 240, 3), (246, 480, 6), (492, 780, 12), (816, 1560, 36), (1740, 3900, 180)];

/// Bias against the automatic, in thirds of a stop.
const BIASES: std::ops::RangeInclusive<i32> = -9..=9;

/// The place on the strip of distances that is nearest to one, as a ratio.
pub(crate) fn nearest_distance(lengths: Lengths, wanted: Metres) -> Metres {
    let off = |count: &u32| {
        let distance = counted(lengths, *count);
        (distance / wanted).max(wanted / distance)
    };
    // In each row the places on both sides of it, or its ends.
    let below = |(from, to, step): (u32, u32, u32)| {
        let steps = (wanted.as_metres() / counted(lengths, 1).as_metres() - f64::from(from)) / f64::from(step);
        from + step * (steps.max(0.0) as u32).min((to - from) / step)
    };
    let beside = |row: (u32, u32, u32)| [below(row), (below(row) + row.2).min(row.1)];
    let nearest = rows(lengths).into_iter().flat_map(beside).min_by(|a, b| off(a).total_cmp(&off(b)));
    nearest.map_or(wanted, |count| counted(lengths, count))
}

/// The same; none beyond the strip's ends.
pub(crate) fn distance_near(lengths: Lengths, wanted: Metres) -> Option<Metres> {
    Some(nearest_distance(lengths, wanted)).filter(|found| (*found / wanted).ln().abs() < 0.06)
}

/// The value that a notch writes into the shot.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(untagged)]
pub enum Value {
    /// A number.
    Number(f64),
    /// A number of things.
    Count(u32),
    /// A word or a time.
    Text(String),
    /// Whether it is on.
    Switch(bool),
    /// A reading of steady light.
    Reading(crate::file::shot::Reading),
    /// What keeps a light out of the lens.
    Flag(crate::file::floor::Flag),
    /// Nothing any more.
    Nothing,
}

/// One position of a control.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Notch {
    /// As written on the dial.
    pub label: String,
    /// What it writes into the shot.
    pub value: Value,
}

/// What turning a control changes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Moves {
    /// The flash in the picture.
    Flash,
    /// The steady light in the picture.
    Ambient,
    /// Depth of field.
    Depth,
    /// The length of the pulse or of the blur.
    Freeze,
}

/// One control as a strip of notches.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Strip {
    /// Stable name, such as `aperture`.
    pub id: String,
    /// Label beside it.
    pub label: String,
    /// JSON pointer of the value in the shot.
    pub pointer: String,
    /// Positions, in the order of the dial.
    pub notches: Vec<Notch>,
    /// The position at or nearest to the value set.
    pub index: usize,
    /// The value set, when it lies between positions.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub between: Option<String>,
    /// What it moves.
    pub moves: Vec<Moves>,
    /// Which light it belongs to, by its place in the list; nothing for the camera.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub light: Option<usize>,
}

/// All controls of one shot.
pub fn strips(plan: &Plan) -> Vec<Strip> {
    let lights = (0..plan.lights.len()).flat_map(|light| of_light(plan, light));
    of_camera(plan).into_iter().chain(lights).collect()
}

fn of_camera(plan: &Plan) -> Vec<Strip> {
    use Moves::{Ambient, Depth, Flash, Freeze};
    let (set, body) = (&plan.settings, &plan.body);
    let grid = body.grid;
    vec![
        strip(
            ("aperture", "Aperture", "/camera/aperture_f"),
            apertures(body).map(|a| (a.label(grid), number(&a.label(grid), a.number()), a.number())),
            (set.aperture.number(), set.aperture.label(grid)),
            &[Flash, Ambient, Depth],
        ),
        strip(
            ("shutter", "Shutter", "/camera/shutter"),
            shutters(body).map(|t| (t.label(grid), Value::Text(t.label(grid)), t.time().as_secs())),
            (set.shutter.time().as_secs(), set.shutter.label(grid)),
            &[Ambient],
        ),
        strip(
            ("iso", "ISO", "/camera/iso"),
            isos(body).map(|s| (s.label(grid), number(&s.label(grid), s.number()), s.number())),
            (set.iso.number(), set.iso.label(grid)),
            &[Flash, Ambient],
        ),
        strip(
            ("filter", "Filter", "/camera/filter_stops"),
            filters(plan).map(|grey| grey.as_stops()).map(|n| (filter_label(n), Value::Number(n), n + 1.0)),
            (set.filter.as_stops() + 1.0, filter_label(set.filter.as_stops())),
            &[Flash, Ambient],
        ),
        strip(
            ("focal", "Focal", "/camera/focal_mm"),
            focals(body).map(|mm| (format!("{mm:.0}"), Value::Number(mm), mm)),
            (body.focal.as_millimetres(), format!("{:.0}", body.focal.as_millimetres())),
            &[Depth, Freeze],
        ),
        strip(
            ("subject_distance", "Subject", "/subject/distance_m"),
            distances(plan.lengths)
                .map(|d| (distance_label(plan.lengths, d), Value::Number(d.as_metres()), d.as_metres())),
            (plan.subject_distance.as_metres(), distance_label(plan.lengths, plan.subject_distance)),
            &[Depth, Freeze],
        ),
    ]
}

fn of_light(plan: &Plan, index: usize) -> Vec<Strip> {
    use Moves::{Flash, Freeze};
    let (light, dial) = (&plan.lights[index], &plan.settings.lights[index]);
    let at = |name: &str| format!("/lights/{index}/{name}");
    let power = match dial.bias {
        None => strip(
            ("power", "Power", &at("power")),
            powers(light).map(|p| (light.unit.dial.label(p), Value::Number(p), p)),
            (dial.power, light.unit.dial.label(dial.power)),
            &[Flash, Freeze],
        ),
        Some(bias) => strip(
            ("bias", "Bias", &at("automatic/bias_stops")),
            BIASES.map(|thirds| {
                let stops = f64::from(thirds) / 3.0;
                (bias_label(stops), Value::Number(stops), stops.exp2())
            }),
            (bias.as_ratio(), bias_label(bias.as_stops())),
            &[Flash, Freeze],
        ),
    };
    let distance = strip(
        ("flash_distance", "Distance", &at("distance_m")),
        distances(plan.lengths).map(|d| (distance_label(plan.lengths, d), Value::Number(d.as_metres()), d.as_metres())),
        (dial.distance.as_metres(), distance_label(plan.lengths, dial.distance)),
        &[Flash],
    );
    let sync = strip(
        ("sync", "Sync", &at("sync")),
        syncs(plan, index)
            .map(|mode| (sync_label(mode).to_owned(), Value::Text(sync_word(mode).to_owned()), sync_rank(mode))),
        (sync_rank(dial.sync), sync_label(dial.sync).to_owned()),
        &[Flash, Freeze],
    );
    // What sits on the camera is as far as that is, which has a strip of its own.
    let distance = Some(distance).filter(|_| !light.on_camera);
    { [Some(power), distance, Some(sync)].into_iter().flatten() }
        .map(|strip| Strip { light: Some(index), ..strip })
        .collect()
}

/// Positions of the lens, wide to narrow.
pub fn apertures(body: &Body) -> impl DoubleEndedIterator<Item = Aperture> + use<> {
    aperture_clicks(body).map(Aperture::from_av6)
}

/// Positions of the shutter, slow to fast.
pub fn shutters(body: &Body) -> impl DoubleEndedIterator<Item = ShutterTime> + use<> {
    shutter_clicks(body).map(ShutterTime::from_tv6)
}

/// Positions of ISO, low to high.
pub fn isos(body: &Body) -> impl DoubleEndedIterator<Item = Iso> + use<> {
    iso_clicks(body).map(Iso::from_sv6)
}

fn aperture_clicks(body: &Body) -> Clicks {
    Clicks::between(body.apertures.0.nearest_sixth(), body.apertures.1.nearest_sixth(), body.grid.step())
}

fn shutter_clicks(body: &Body) -> Clicks {
    Clicks::between(body.times.0.nearest_sixth(), body.times.1.nearest_sixth(), body.grid.step())
}

fn iso_clicks(body: &Body) -> Clicks {
    Clicks::between(body.isos.0.nearest_sixth(), body.isos.1.nearest_sixth(), body.grid.step())
}

/// Whether a position, in sixths of a stop, is one of the lens.
pub(crate) fn is_aperture(body: &Body, sixths: i32) -> bool {
    aperture_clicks(body).has(sixths)
}

/// Whether one is of the shutter.
pub(crate) fn is_shutter(body: &Body, sixths: i32) -> bool {
    shutter_clicks(body).has(sixths)
}

/// Whether one is of ISO.
pub(crate) fn is_iso(body: &Body, sixths: i32) -> bool {
    iso_clicks(body).has(sixths)
}

/// The position of the shutter that is nearest to a time, as a ratio.
pub(crate) fn shutter_near(body: &Body, time: Seconds) -> ShutterTime {
    ShutterTime::from_tv6(shutter_clicks(body).nearest(ShutterTime::position_of(time)))
}

/// Grey before the lens, none to the densest: what is at hand, or whole stops where nobody said what is.
pub fn filters(plan: &Plan) -> impl Iterator<Item = Stops> + use<> {
    let owned = plan.before_lens.greys();
    owned.unwrap_or_else(|| FILTERS.map(|stops| Stops::from_stops(f64::from(stops))).collect()).into_iter()
}

/// Power fractions of the unit, low to full.
pub fn powers(light: &Light) -> impl DoubleEndedIterator<Item = f64> + use<> {
    light.unit.powers()
}

/// Distances set by eye and tape, near to far.
pub fn distances(lengths: Lengths) -> impl Iterator<Item = Metres> {
    rows(lengths)
        .into_iter()
        .flat_map(|(from, to, step)| (from..=to).step_by(step as usize))
        .map(move |count| counted(lengths, count))
}

/// From, to and step of the tape's parts, in what it counts.
const fn rows(lengths: Lengths) -> [(u32, u32, u32); 5] {
    match lengths {
        Lengths::Metric => DISTANCES_CM,
        Lengths::Imperial => DISTANCES_IN,
    }
}

/// So many centimetres or inches.
fn counted(lengths: Lengths, count: u32) -> Metres {
    Metres::from_metres(match lengths {
        // Divided, so that 2.3 m is 2.3 and is found again by it.
        Lengths::Metric => f64::from(count) / 100.0,
        // A quarter of a foot is so many tenths of a millimetre exactly.
        Lengths::Imperial => (f64::from(count) * FOOT / 12.0 * 1e4).round() / 1e4,
    })
}

/// Ways to tie a flash and the shutter that camera and unit both know.
pub fn syncs(plan: &Plan, light: usize) -> impl Iterator<Item = SyncMode> + use<> {
    let unit = &plan.lights[light].unit;
    let glow = plan.body.high_speed && unit.high_speed && plan.body.travel > crate::quantity::Seconds::ZERO;
    [SyncMode::Front, SyncMode::Rear].into_iter().chain(glow.then_some(SyncMode::HighSpeed))
}

/// A distance as written.
pub fn distance_label(lengths: Lengths, distance: Metres) -> String {
    let metres = distance.as_metres();
    match lengths {
        // Half metres are half metres farther off, too: no two places have one label.
        Lengths::Metric => {
            let halves = metres < 12.5 || (metres < 20.0 && (metres - metres.round()).abs() > 0.05);
            format!("{metres:.*} m", usize::from(halves))
        }
        Lengths::Imperial => {
            let inches = (metres / FOOT * 12.0).round() as u32;
            let (feet, inches) = (inches / 12, inches % 12);
            if inches == 0 { format!("{feet}'") } else { format!("{feet}'{inches}\"") }
        }
    }
}

/// A filter as written: density and, for people who count stops, none of it.
pub fn filter_label(stops: f64) -> String {
    if stops == 0.0 {
        return "none".to_owned();
    }
    let density = stops * 0.3;
    // As it is engraved where that is a tenth; two digits where it lies between.
    let between = (density * 10.0 - (density * 10.0).round()).abs() > 0.1;
    format!("ND {density:.*}", 1 + usize::from(between))
}

/// The value of each setting as a change to the shot: pointer, value and the words for it.
pub(crate) fn written_changes(plan: &Plan, to: &Settings) -> Vec<(String, Value, String)> {
    let (now, grid) = (&plan.settings, plan.body.grid);
    let mut changes = Vec::new();
    let mut push = |pointer: &str, value, words: String| changes.push((pointer.to_owned(), value, words));
    if to.shutter != now.shutter {
        let label = to.shutter.label(grid);
        push("/camera/shutter", Value::Text(label.clone()), label);
    }
    if to.aperture != now.aperture {
        let label = to.aperture.label(grid);
        push("/camera/aperture_f", number(&label, to.aperture.number()), format!("f/{label}"));
    }
    if to.iso != now.iso {
        let label = to.iso.label(grid);
        push("/camera/iso", number(&label, to.iso.number()), format!("ISO {label}"));
    }
    if to.filter != now.filter {
        let stops = to.filter.as_stops();
        let words = if stops == 0.0 { "filter off".to_owned() } else { filter_label(stops) };
        push("/camera/filter_stops", Value::Number(stops), words);
    }
    if to.lamps != now.lamps {
        let by = (to.lamps - now.lamps).as_stops();
        let words = format!("{:.1} {}", by.abs(), if by < 0.0 { "dimmer" } else { "brighter" });
        for lamp in plan.lamps.iter() {
            // As fine as anybody sets a dimmer.
            let level = ((lamp.level * by.exp2()).min(1.0) * 1e4).round() / 1e4;
            let pointer = format!("/lamps/{}/level_share", lamp.place);
            push(&pointer, Value::Number(level), format!("{} {words}", lamp.name));
        }
    }
    let dials = to.lights.iter().zip(now.lights.iter());
    for (index, (light, (to, now))) in plan.lights.iter().zip(dials).enumerate() {
        changes.extend(of_dial(plan, (index, light), now, to));
    }
    changes
}

/// Changes as one says them: lights that are turned alike are named together, by their groups.
pub(crate) fn said(plan: &Plan, to: &Settings) -> String {
    let now = &plan.settings;
    let by = |light: usize| Stops::from_ratio(to.lights[light].power / now.lights[light].power).as_stops();
    let firing: Vec<usize> = (0..plan.lights.len()).filter(|light| plan.fires(*light)).collect();
    let who = |lights: &[usize]| {
        if lights == firing.as_slice() {
            return "all lights".to_owned();
        }
        let mut groups: Vec<&str> = lights.iter().map(|light| plan.lights[*light].group.as_str()).collect();
        groups.dedup();
        groups.join(" ")
    };
    // Lights that something is done to, all of them alike: nothing where there is one, or they differ.
    let alike = |by: &dyn Fn(usize) -> f64, within: f64| {
        let turned: Vec<usize> = (0..plan.lights.len()).filter(|light| by(*light) != 0.0).collect();
        let same = turned.iter().all(|light| (by(*light) - by(turned[0])).abs() < within);
        (turned.len() > 1 && same).then(|| (who(&turned), by(turned[0])))
    };
    let walked = |light: usize| (to.lights[light].distance - now.lights[light].distance).as_metres();
    // What is chosen by name counts by its place; zero is no change.
    let heard = |light: usize| {
        let (to, now) = (to.lights[light].channel, now.lights[light].channel);
        if to == now { 0.0 } else { f64::from(to) }
    };
    let tied = |light: usize| {
        let (to, now) = (to.lights[light].sync, now.lights[light].sync);
        if to == now { 0.0 } else { 1.0 + f64::from(to as u8) }
    };
    let (powers, walks) = (alike(&by, 0.1), alike(&walked, 0.05));
    let (channels, syncs) = (alike(&heard, 0.5), alike(&tied, 0.5));
    let own = |pointer: &str| {
        let together = [
            (powers.is_some(), "/power"),
            (walks.is_some(), "/distance_m"),
            (channels.is_some(), "/channel"),
            (syncs.is_some(), "/sync"),
        ];
        !together.into_iter().any(|(alike, end)| alike && pointer.ends_with(end))
    };
    let sync = to.lights.iter().zip(now.lights.iter()).find(|(to, now)| to.sync != now.sync).map(|(to, _)| to.sync);
    let changes = written_changes(plan, to);
    let mut words: Vec<String> =
        changes.into_iter().filter(|(pointer, ..)| own(pointer)).map(|(_, _, words)| words).collect();
    words.extend(channels.map(|(who, channel)| format!("{who} channel {channel:.0}")));
    words.extend(syncs.zip(sync).map(|((who, _), sync)| format!("{who} {} sync", sync_label(sync))));
    words.extend(powers.map(|(who, by)| format!("{who} {} stops", bias_label(by))));
    words.extend(walks.map(|(who, by)| format!("{who} {}", walk_words(plan.lengths, by))));
    words.join(", ")
}

/// A walk as said.
fn walk_words(lengths: Lengths, by: f64) -> String {
    format!("{} {}", lengths.say(by.abs(), 1), if by < 0.0 { "closer" } else { "farther" })
}

/// What changes on one light; with several, the words begin with its group.
fn of_dial(plan: &Plan, (index, light): (usize, &Light), now: &Dial, to: &Dial) -> Vec<(String, Value, String)> {
    let mut changes = Vec::new();
    let whose = if plan.lights.len() > 1 { format!("{} ", light.label) } else { String::new() };
    let mut push = |name: &str, value, words: String| {
        changes.push((format!("/lights/{index}/{name}"), value, format!("{whose}{words}")));
    };
    if to.sync != now.sync {
        let words = format!("{} sync", sync_label(to.sync));
        push("sync", Value::Text(sync_word(to.sync).to_owned()), words);
    }
    if to.power != now.power {
        push("power", Value::Number(to.power), format!("power {}", light.unit.dial.label(to.power)));
    }
    match to.bias {
        bias if bias == now.bias => {}
        Some(bias) => {
            let stops = bias.as_stops();
            push("automatic/bias_stops", Value::Number(stops), format!("bias {}", bias_label(stops)));
        }
        None => push("automatic", Value::Nothing, "by hand".to_owned()),
    }
    if to.distance != now.distance {
        let by = (to.distance - now.distance).as_metres();
        push("distance_m", Value::Number(to.distance.as_metres()), walk_words(plan.lengths, by));
    }
    if to.heads != now.heads {
        push("heads", Value::Count(to.heads), format!("{} heads side by side", to.heads));
    }
    if to.channel != now.channel {
        push("channel", Value::Count(to.channel), format!("channel {}", to.channel));
    }
    changes
}

/// A bias as written.
pub fn bias_label(stops: f64) -> String {
    let tenths = (stops * 10.0).round() / 10.0;
    if tenths == 0.0 {
        "±0".to_owned()
    } else {
        format!("{}{:.1}", if tenths < 0.0 { '−' } else { '+' }, tenths.abs())
    }
}

/// Whole clicks of a dial, each so many sixths of a stop.
#[derive(Clone, Copy)]
struct Clicks {
    first: i32,
    last: i32,
    step: i32,
}

impl Clicks {
    /// Those from one position to another, in sixths.
    fn between(from: i32, to: i32, step: i32) -> Self {
        // A camera's end may lie off its own cut (a lens of f/1.7 on thirds); the first whole click inside is its end.
        let first = from.div_euclid(step) + i32::from(from.rem_euclid(step) != 0);
        Self { first, last: to.div_euclid(step), step }
    }

    fn map<T>(self, position: impl Fn(i32) -> T) -> impl DoubleEndedIterator<Item = T> {
        (self.first..=self.last).map(move |click| position(click * self.step))
    }

    fn has(self, sixths: i32) -> bool {
        sixths % self.step == 0 && (self.first..=self.last).contains(&(sixths / self.step))
    }

    /// The one nearest to a position between them.
    fn nearest(self, sixths: f64) -> i32 {
        let click = (sixths / f64::from(self.step)).round() as i32;
        click.min(self.last).max(self.first) * self.step
    }
}

fn focals(body: &Body) -> impl Iterator<Item = f64> {
    let set = body.focal.as_millimetres();
    let (low, high) = (body.focal_range.0.as_millimetres(), body.focal_range.1.as_millimetres());
    let mut all: Vec<f64> = FOCALS.into_iter().filter(|mm| *mm > low && *mm < high).chain([low, high, set]).collect();
    all.sort_by(f64::total_cmp);
    all.dedup();
    all.into_iter()
}

/// A label that is a number is written as that number, so that files stay readable; the core reads it as the exact value.
fn number(label: &str, exact: f64) -> Value {
    Value::Number(label.parse().unwrap_or(exact))
}

/// A way of tying flash and shutter, as written.
pub fn sync_label(mode: SyncMode) -> &'static str {
    match mode {
        SyncMode::Front => "front",
        SyncMode::Rear => "rear",
        SyncMode::HighSpeed => "HSS",
    }
}

fn sync_word(mode: SyncMode) -> &'static str {
    match mode {
        SyncMode::HighSpeed => "high_speed",
        other => sync_label(other),
    }
}

fn sync_rank(mode: SyncMode) -> f64 {
    match mode {
        SyncMode::Front => 1.0,
        SyncMode::Rear => 2.0,
        SyncMode::HighSpeed => 4.0,
    }
}

/// Builds a strip from (label, value, size) triples and the size set; sizes compare by ratio, as all dials do.
fn strip(
    (id, label, pointer): (&str, &str, &str),
    notches: impl Iterator<Item = (String, Value, f64)>,
    (set, set_label): (f64, String),
    moves: &[Moves],
) -> Strip {
    let (notches, sizes): (Vec<Notch>, Vec<f64>) =
        notches.map(|(label, value, size)| (Notch { label, value }, size)).unzip();
    let off = |size: f64| (size / set).ln().abs();
    let index = (0..sizes.len()).min_by(|a, b| off(sizes[*a]).total_cmp(&off(sizes[*b]))).unwrap_or(0);
    let exact = sizes.get(index).is_some_and(|size| off(*size) < 1e-4);
    Strip {
        id: id.to_owned(),
        label: label.to_owned(),
        pointer: pointer.to_owned(),
        notches,
        index,
        between: (!exact).then_some(set_label),
        moves: moves.to_vec(),
        light: None,
    }
}
