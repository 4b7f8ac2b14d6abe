//! Holding a look: one control is turned, what was locked stays, and the other controls follow.
//!
//! All placements are sums of stops, so a set-up is judged by a handful of additions: [`board`] lays out the positions of
//! every control that may move, [`search`] goes through them, and the best few are put together in full before one is
//! chosen. What cannot be held is said, with how much it gives.

mod board;
mod search;
mod shortlist;

use crate::answers::conditions;
use crate::answers::strips::{self, Value, written_changes};
use crate::file::preferences::Lengths;
use crate::outlook::{LightOutlook, Outlook, Pulses, outlook, outlook_with};
use crate::plan::{Plan, Settings};
use crate::quantity::scale::duration_label;
use crate::quantity::words::capital;
use crate::quantity::{Seconds, Stops};
use board::Board;
use serde::Serialize;

pub use crate::file::look::Held;

/// What is held may be off by this much, in stops: a twentieth, less than anyone sees.
pub const TOLERANCE: f64 = 0.05;

/// A control that followed.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Followed {
    /// JSON pointer of the value.
    pub pointer: String,
    /// The value.
    pub value: Value,
    /// As photographers call it across a set: `ISO 400, −2 clicks`.
    pub words: String,
}

/// Something that could not be held.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Gave {
    /// What.
    pub held: Held,
    /// By how much, in stops; more light, more depth, more blur positive. `null` where light came or went altogether.
    pub by_stops: Option<f64>,
    /// In a sentence.
    pub sentence: String,
}

/// What holding a look takes.
#[derive(Clone, Debug, PartialEq)]
pub struct Answer {
    /// All settings, those that followed among them.
    pub settings: Settings,
    /// Controls that followed.
    pub followed: Vec<Followed>,
    /// What could not be held.
    pub gave: Vec<Gave>,
}

/// The control that was turned just now.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Turned {
    /// Which.
    pub control: Held,
    /// Of which light, for power and distance.
    pub light: usize,
}

/// Brings `now` back to the look of `base`: every quantity in `held`, with the controls in it and the one just `turned`
/// left alone, and nothing else. The key holds the key alone; the ratios hold the other lights to it, or to the one that was
/// turned. The fewest and smallest moves that do; where nothing does, what comes nearest.
pub fn hold(base: &Plan, now: &Plan, held: &[Held], turned: Option<Turned>) -> Answer {
    // Base and now are one shot under two settings and two lights, or another shot altogether: each has its own pulses.
    let mut pulses = Pulses::kept();
    let (was, is) = (outlook(base), outlook_with(now, &mut pulses));
    let look = Look::of(&was, held, anchor(now, turned));
    let board = Board::of(now, &is, &look, held, turned, &mut pulses);
    let found = search::best(&board);
    // A cut frame is never the price of a look, unless it was cut already.
    let touched = is.touched().max(was.touched());
    let put_together = found.iter().map(|one| (one.settings, outlook_with(&now.with(one.settings), &mut pulses)));
    // What was added up is checked in full: a pulse that is cut a little gives a little less.
    let missed = |seen: &Outlook| (look.missed(now, seen) * 100.0).round();
    let (settings, seen) = { put_together }
        .filter(|(_, seen)| conditions::keeps_rows(seen, touched))
        .min_by(|a, b| missed(&a.1).total_cmp(&missed(&b.1)))
        .unwrap_or((now.settings, is));
    Answer { settings, followed: written_moves(now, &settings), gave: gave(&look, now, &settings, &seen, &board) }
}

/// The same without words: the settings, where everything could be held.
/// `was` is the outlook of `base`, and `pulses` those of its lights.
pub(crate) fn held_in_full(
    was: &Outlook,
    now: &Plan,
    held: &[Held],
    turned: Option<Turned>,
    pulses: &mut Pulses,
) -> Option<Settings> {
    let is = outlook_with(now, pulses);
    let look = Look::of(was, held, anchor(now, turned));
    let board = Board::of(now, &is, &look, held, turned, pulses);
    let touched = is.touched().max(was.touched());
    let mut holds = |settings: &Settings| {
        let seen = outlook_with(&now.with(*settings), pulses);
        conditions::keeps_rows(&seen, touched) && look.missed(now, &seen) <= 0.0
    };
    // Nearly always it is the best of all; only where that does not hold in full, the next few are looked for.
    let best = search::very_best(&board)?.settings;
    if holds(&best) {
        return Some(best);
    }
    search::best(&board).iter().skip(1).map(|one| one.settings).find(holds)
}

/// The light that the ratios are counted from: the one that was turned, else the key.
fn anchor(plan: &Plan, turned: Option<Turned>) -> usize {
    let of_light = |turned: &Turned| matches!(turned.control, Held::Power | Held::FlashDistance);
    turned.filter(of_light).map_or(plan.key, |turned| turned.light)
}

/// Settings that bring the steady light on the subject to where it is wanted while every flash stays, with only the
/// controls that are not in `fixed`.
pub(crate) fn with_ambient(plan: &Plan, wanted: Stops, fixed: &[Held]) -> Settings {
    let mut pulses = Pulses::kept();
    let seen = outlook_with(plan, &mut pulses);
    let look = Look { ambient: Some(wanted), ..Look::of(&seen, &[Held::Key, Held::Ratios], plan.key) };
    let board = Board::of(plan, &seen, &look, fixed, None, &mut pulses);
    search::best(&board).first().map_or(plan.settings, |found| found.settings)
}

/// Another way to the same look.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Equivalent {
    /// Aperture, shutter, ISO and filter as written.
    pub exposure: String,
    /// What has to be turned to get there; empty for the one that is set.
    pub changes: Vec<Followed>,
    /// Flash power as written.
    pub power: String,
    /// t0.1 at that power.
    pub pulse: String,
    /// The ISO, for its noise.
    pub iso: String,
    /// From where to where it is sharp.
    pub depth: String,
    /// The longest blur of a part that shall be still, in pixels of the camera.
    pub blur_px: f64,
}

/// Settings that give the look of a plan as it is, one an aperture, wide to narrow in whole stops from the one that is set.
pub fn equivalents(plan: &Plan, held: &[Held]) -> Vec<Equivalent> {
    let quantities = held.iter().copied().filter(|one| one.control().is_none());
    // Without a wish the picture's light is what stays.
    let mut kept: Vec<Held> = quantities.collect();
    if kept.is_empty() {
        kept = vec![Held::Key, Held::Ratios, Held::Ambient, Held::Background];
    }
    kept.extend(held.iter().copied().filter(|one| one.control().is_some()));
    // One way differs from another in what is turned on the camera.
    kept.push(Held::Lamps);
    let mut pulses = Pulses::kept();
    let seen = outlook_with(plan, &mut pulses);
    let look = Look::of(&seen, &kept, plan.key);
    let board = Board::of(plan, &seen, &look, &kept, None, &mut pulses);
    let touched = seen.touched();
    let mut list: Vec<Equivalent> = Vec::new();
    for candidates in search::per_aperture(&board) {
        let put_together =
            candidates.iter().map(|one| (one.settings, outlook_with(&plan.with(one.settings), &mut pulses)));
        let held = |seen: &Outlook| conditions::keeps_rows(seen, touched) && look.missed(plan, seen) <= 0.0;
        let Some((settings, seen)) = { put_together }.find(|(_, seen)| held(seen)) else { continue };
        list.push(equivalent(plan, &settings, &seen));
    }
    list
}

fn equivalent(plan: &Plan, settings: &Settings, seen: &Outlook) -> Equivalent {
    let pitch = plan.body.sensor.width.as_metres() / plan.body.sensor.pixels;
    let still = plan.parts.iter().zip(&seen.parts).filter(|(part, _)| part.intent != crate::file::shot::Intent::Dash);
    Equivalent {
        exposure: written_exposure(plan, settings),
        changes: written_moves(plan, settings),
        power: plan.key_light().unit.dial.label(seen.key().power),
        pulse: duration_label(seen.key().pulse.times.1),
        iso: settings.iso.label(plan.body.grid),
        depth: written_depth(plan.lengths, &seen.depth),
        blur_px: still.map(|(_, part)| part.blur.as_metres().abs() / pitch).fold(0.0, f64::max),
    }
}

/// Aperture, shutter, ISO and filter as written.
pub(crate) fn written_exposure(plan: &Plan, to: &Settings) -> String {
    let grid = plan.body.grid;
    let filter = match to.filter {
        Stops::ZERO => String::new(),
        stops => format!(" · {}", strips::filter_label(stops.as_stops())),
    };
    let (aperture, shutter, iso) = (to.aperture.label(grid), to.shutter.label(grid), to.iso.label(grid));
    format!("f/{aperture} · {shutter} · ISO {iso}{filter}")
}

/// From where to where it is sharp.
pub(crate) fn written_depth(lengths: Lengths, depth: &crate::physics::depth::Depth) -> String {
    let metres = |distance: crate::quantity::Metres| lengths.say(distance.as_metres(), 2);
    format!("{} to {}", metres(depth.near), depth.far.map_or_else(|| "infinity".to_owned(), metres))
}

/// What is held, as it was.
#[derive(Clone, Debug)]
pub(crate) struct Look {
    /// Each flash.
    lights: Vec<LightLook>,
    /// Whether the key stays where it is.
    key: bool,
    /// The light that the others stand against, where their ratios are held.
    ratios: Option<usize>,
    ambient: Option<Stops>,
    background: Option<Stops>,
    /// Nearness of both ends of the zone of sharpness, as `1/near − 1/far`.
    depth: Option<f64>,
}

/// One flash as it was.
#[derive(Clone, Copy, Debug)]
pub(crate) struct LightLook {
    placement: Stops,
    /// Freezing time of what it draws, where that is held.
    freeze: Option<f64>,
}

impl Look {
    fn of(seen: &Outlook, held: &[Held], anchor: usize) -> Self {
        let has = |one: Held| held.contains(&one);
        let light = |light: &LightOutlook| LightLook {
            placement: light.in_frame.placement,
            freeze: light.freeze.filter(|_| has(Held::Blur) && light.fires).map(Seconds::as_secs),
        };
        Self {
            lights: seen.lights.iter().map(light).collect(),
            key: has(Held::Key),
            ratios: has(Held::Ratios).then_some(anchor),
            ambient: has(Held::Ambient).then_some(seen.ambient.placement),
            background: has(Held::Background).then_some(seen.background.placement),
            depth: has(Held::Depth).then(|| nearness(&seen.depth)),
        }
    }

    /// Whether a flash is held to where it was, by the key or by its ratio to a key that is held.
    fn stays(&self, plan: &Plan, light: usize) -> bool {
        self.key && (light == plan.key || self.ratios.is_some())
    }

    /// How far a flash is from what is held of it, in stops: of where it was, or of its ratio. The outer `None` where nothing
    /// is held of it, the inner where it came or went altogether.
    fn off(&self, plan: &Plan, seen: &Outlook, light: usize) -> Option<Option<f64>> {
        let moved = |light: usize| off(self.lights.get(light)?.placement, seen.lights[light].in_frame.placement);
        if self.stays(plan, light) {
            return Some(moved(light));
        }
        let anchor = self.ratios?;
        Some(moved(light).zip(moved(anchor)).map(|(light, anchor)| light - anchor))
    }

    /// Stops beyond the tolerance, of everything that is held together.
    fn missed(&self, plan: &Plan, seen: &Outlook) -> f64 {
        let beyond = |off: f64| (off.abs() - TOLERANCE).max(0.0);
        let steady = [(self.ambient, seen.ambient.placement), (self.background, seen.background.placement)];
        let steady = steady.into_iter().filter_map(|(was, is)| off(was?, is)).map(beyond).sum::<f64>();
        let lights = seen.firing().filter_map(|(light, _)| self.off(plan, seen, light)?).map(beyond).sum::<f64>();
        let depth = self.depth.map_or(0.0, |was| beyond((nearness(&seen.depth) / was).log2()));
        let longer = |(was, is): (&LightLook, &LightOutlook)| {
            was.freeze.zip(is.freeze).map_or(0.0, |(was, is)| ((is.as_secs() / was).log2() - TOLERANCE).max(0.0))
        };
        steady + lights + depth + self.lights.iter().zip(&seen.lights).map(longer).sum::<f64>()
    }
}

fn nearness(depth: &crate::physics::depth::Depth) -> f64 {
    1.0 / depth.near.as_metres() - depth.far.map_or(0.0, |far| 1.0 / far.as_metres())
}

/// How far a quantity is from where it was held, in stops; `None` where light came or went altogether.
fn off(was: Stops, is: Stops) -> Option<f64> {
    match (was.as_stops().is_finite(), is.as_stops().is_finite()) {
        (true, true) => Some((is - was).as_stops()),
        (false, false) => Some(0.0),
        _ => None,
    }
}

/// The moves from a plan to other settings, as clicks.
pub(crate) fn written_moves(now: &Plan, to: &Settings) -> Vec<Followed> {
    let changes = written_changes(now, to);
    if changes.is_empty() {
        return Vec::new();
    }
    let dials = strips::strips(now);
    let clicks = |pointer: &str, value: &Value| {
        let dial = dials.iter().find(|strip| strip.pointer == pointer)?;
        let after = dial.notches.iter().position(|notch| notch.value == *value)?;
        Some(after as i64 - dial.index as i64)
    };
    changes
        .into_iter()
        .map(|(pointer, value, words)| {
            // Filters are put on and distances walked; everything else clicks.
            let walked = pointer == "/camera/filter_stops" || pointer.ends_with("/distance_m");
            let words = match clicks(&pointer, &value).filter(|clicks| !walked && *clicks != 0) {
                None => words,
                Some(by) => {
                    let (sign, plural) = (if by < 0 { '−' } else { '+' }, if by.abs() == 1 { "" } else { "s" });
                    format!("{words}, {sign}{} click{plural}", by.abs())
                }
            };
            Followed { pointer, value, words }
        })
        .collect()
}

fn gave(look: &Look, now: &Plan, to: &Settings, seen: &Outlook, board: &Board) -> Vec<Gave> {
    let mut found = Vec::new();
    let what = |held: Held, light: Option<usize>| match light {
        Some(light) if held == Held::Ratios => now.lights[light].label.clone(),
        Some(light) => format!("{} by {}", capital(held.words()), now.lights[light].label),
        None => capital(held.words()),
    };
    let mut say = |held: Held, light: Option<usize>, by: Option<f64>, change: String| {
        let why = board.at_their_ends(now, to);
        let why = if why.is_empty() { "nothing else may move".to_owned() } else { why.join(" and ") };
        found.push(Gave { held, by_stops: by, sentence: format!("{} {change}: {why}.", what(held, light)) });
    };
    for (held, was, is) in [
        (Held::Ambient, look.ambient, seen.ambient.placement),
        (Held::Background, look.background, seen.background.placement),
    ] {
        let Some(was) = was else { continue };
        match off(was, is) {
            None => say(held, None, None, "came or went altogether".to_owned()),
            Some(by) if by.abs() > TOLERANCE => say(held, None, Some(by), format!("is off by {}", signed(by))),
            Some(_) => {}
        }
    }
    for (index, _) in look.lights.iter().enumerate().filter(|(index, _)| now.fires(*index) || *index == now.key) {
        let Some(by) = look.off(now, seen, index) else { continue };
        let (held, whose) = if index == now.key && look.key { (Held::Key, None) } else { (Held::Ratios, Some(index)) };
        match by {
            None => say(held, whose, None, "came or went altogether".to_owned()),
            Some(by) if by.abs() > TOLERANCE => say(held, whose, Some(by), format!("is off by {}", signed(by))),
            Some(_) => {}
        }
    }
    if let Some(was) = look.depth {
        let by = (nearness(&seen.depth) / was).log2();
        if by.abs() > TOLERANCE {
            let side = if by < 0.0 { "shallower" } else { "deeper" };
            say(Held::Depth, None, Some(by), format!("is {side} by a factor of {:.1}", by.abs().exp2()));
        }
    }
    for (index, (was, is)) in look.lights.iter().zip(&seen.lights).enumerate() {
        let Some(was) = was.freeze.filter(|_| is.fires) else { continue };
        let Some(freeze) = is.freeze else { continue };
        let by = (freeze.as_secs() / was).log2();
        if by > TOLERANCE {
            let mode = if is.high_speed.is_some() { "shutter" } else { "pulse" };
            let whose = (index != now.key).then_some(index);
            say(Held::Blur, whose, Some(by), format!("is longer by a factor of {:.1}, the {mode} is", by.exp2()));
        }
    }
    found
}

fn signed(stops: f64) -> String {
    let tenths = format!("{:.1}", stops.abs());
    format!("{}{tenths} {}", if stops < 0.0 { '−' } else { '+' }, if tenths == "1.0" { "stop" } else { "stops" })
}
