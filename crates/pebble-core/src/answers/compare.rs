//! Two versions of a shot side by side: what differs in settings and gear, and in the numbers that come of it.

use crate::answers::strips;
use crate::file::shot::Shot;
use crate::outlook::{Outlook, outlook};
use crate::plan::{Light, Plan, Settings};
use crate::quantity::Stops;
use crate::quantity::scale::duration_label;
use crate::wire::{report, report_word};

report! {
    /// One thing that differs.
    pub struct Difference {
        /// What it is, as said: `Aperture`, `Blur of Shoes`.
        pub what: String,
        /// Whether it was set, or follows from what was.
        pub kind: DifferenceKind,
        /// On the one side.
        pub before: String,
        /// On the other.
        pub after: String,
    }
}

report_word! {
    /// What kind of thing differs.
    pub enum DifferenceKind {
        /// A control or a piece of gear.
        Setting,
        /// A number that follows.
        Number,
    }
}

/// What differs between two versions, settings first; the plans are the shots' own.
pub fn compare(before: (&Shot, &Plan), after: (&Shot, &Plan)) -> Vec<Difference> {
    let (left, right) = (lines(before.0, before.1), lines(after.0, after.1));
    let mut found: Vec<Difference> = Vec::new();
    for (what, kind, value) in &left {
        let other = right.iter().find(|(name, ..)| name == what);
        let now = other.map_or_else(|| "gone".to_owned(), |(_, _, value)| value.clone());
        if now != *value {
            found.push(Difference { what: what.clone(), kind: *kind, before: value.clone(), after: now });
        }
    }
    for (what, kind, value) in right {
        if !left.iter().any(|(name, ..)| *name == what) {
            found.push(Difference { what, kind, before: "not there".to_owned(), after: value });
        }
    }
    found.sort_by_key(|one| one.kind == DifferenceKind::Number);
    found
}

/// Changes that are said one by one.
const SAID: usize = 3;

/// What was set between two versions, in a few words: `Aperture f/8 → f/11, Power 1/8 → 1/4 and 2 more`.
pub fn in_short(before: (&Shot, &Plan), after: (&Shot, &Plan)) -> String {
    let (left, right) = (set(before.0, before.1), set(after.0, after.1));
    let told = right.iter().filter_map(|(what, _, now)| match left.iter().find(|(name, ..)| name == what) {
        Some((.., was)) if was == now => None,
        Some((.., was)) => Some(format!("{what} {was} → {now}")),
        None => Some(format!("{what} {now}")),
    });
    let gone = left.iter().filter(|(what, ..)| !right.iter().any(|(name, ..)| name == what));
    let all: Vec<String> = told.chain(gone.map(|(what, ..)| format!("without {what}"))).collect();
    match all.len().checked_sub(SAID) {
        _ if all.is_empty() => "nothing that shows in the settings".to_owned(),
        None | Some(0) => all.join(", "),
        Some(more) => format!("{} and {more} more", all[..SAID].join(", ")),
    }
}

type Line = (String, DifferenceKind, String);

/// Everything worth comparing, written as a photographer would say it.
fn lines(shot: &Shot, plan: &Plan) -> Vec<Line> {
    let mut lines = set(shot, plan);
    lines.extend(numbers(plan, &outlook(plan)));
    lines
}

/// What is set and chosen.
fn set(shot: &Shot, plan: &Plan) -> Vec<Line> {
    let mut lines = settings(plan, &plan.settings);
    let mut set = |what: &str, value: String| lines.push((what.to_owned(), DifferenceKind::Setting, value));
    set("Title", shot.title.clone());
    set("Camera", shot.camera.body.name.clone());
    set("Lens", shot.camera.lens.name.clone());
    set("Focal", format!("{} mm", shot.camera.focal_mm));
    set("Subject at", strips::distance_label(plan.lengths, plan.subject_distance));
    for (of, wire) in plan.lights.iter().zip(&shot.lights) {
        let mut of_light = |what: &str, value: String| set(&whose(plan, of, what), value);
        of_light("Flash", if of.on { wire.unit.name.clone() } else { "off".to_owned() });
        of_light("Through", wire.modifier.name.clone());
        of_light("Gel", wire.gel.as_ref().map_or_else(|| "none".to_owned(), |gel| gel.name.clone()));
        of_light("Trigger", wire.trigger.name.clone());
        of_light("Stands", format!("{:.0}° round, {:.0}° up", wire.bearing_deg, wire.height_deg));
    }
    for lamp in &shot.lamps {
        let from = lamp.stands.map_or_else(String::new, |stands| {
            format!(", {:.0}° round, {:.0}° up", stands.bearing_deg, stands.height_deg)
        });
        let burns = format!("{:.0} % at {}{from}", lamp.level_share * 100.0, plan.lengths.say(lamp.distance_m, 1));
        set(&format!("Lamp {}", lamp.lamp.name), if lamp.on { burns } else { "off".to_owned() });
    }
    set("Before the lens", plan.before_lens.said(plan.settings.filter).unwrap_or_else(|| "nothing".to_owned()));
    set("White balance", format!("{:.0} K", plan.white_balance));
    set("Light on the subject", lux(plan.meter.said(plan.subject_light.as_lux())));
    set("Light on the background", lux(plan.meter.said(plan.background_light.as_lux())));
    for part in plan.parts.iter() {
        set(
            &format!("Part {}", part.name),
            format!("{}, {:.2} m/s", part.intent.word(), part.speed.as_metres_per_second()),
        );
    }
    lines
}

/// Illuminance to three figures, as a meter shows it.
fn lux(lux: f64) -> String {
    let decimals = (2.0 - lux.max(0.01).log10().floor()).clamp(0.0, 3.0);
    let step = 10f64.powf((lux.max(1.0).log10().floor() - 2.0).max(-3.0));
    format!("{:.*} lx", decimals as usize, if lux >= 100.0 { (lux / step).round() * step } else { lux })
}

fn settings(plan: &Plan, set: &Settings) -> Vec<Line> {
    let grid = plan.body.grid;
    let mut lines: Vec<Line> = [
        ("Aperture", format!("f/{}", set.aperture.label(grid))),
        ("Shutter", set.shutter.label(grid)),
        ("ISO", set.iso.label(grid)),
        ("Filter", strips::filter_label(set.filter.as_stops())),
    ]
    .map(|(what, value)| (what.to_owned(), DifferenceKind::Setting, value))
    .into();
    for (light, dial) in plan.lights.iter().zip(set.lights.iter()) {
        let power = match dial.bias {
            None => light.unit.dial.label(dial.power),
            Some(bias) => format!("automatic {}", strips::bias_label(bias.as_stops())),
        };
        let of_light = [
            ("Power", power),
            ("Flash at", plan.lengths.say(dial.distance.as_metres(), 2)),
            ("Sync", strips::sync_label(dial.sync).to_owned()),
            ("Heads", dial.heads.to_string()),
            ("Channel", dial.channel.to_string()),
        ];
        lines.extend(of_light.map(|(what, value)| (whose(plan, light, what), DifferenceKind::Setting, value)));
    }
    lines
}

/// What is said of one light, with its label where there are several.
fn whose(plan: &Plan, light: &Light, what: &str) -> String {
    if plan.lights.len() > 1 { format!("{}: {}", light.label, what.to_lowercase()) } else { what.to_owned() }
}

fn numbers(plan: &Plan, seen: &Outlook) -> Vec<Line> {
    let pitch = plan.body.sensor.width.as_metres() / plan.body.sensor.pixels;
    let mut lines: Vec<Line> = Vec::new();
    let mut say = |what: String, value: String| lines.push((what, DifferenceKind::Number, value));
    say("Key".to_owned(), placed(seen.key().in_frame.placement));
    for (light, of_light) in plan.lights.iter().zip(&seen.lights).skip(1) {
        say(light.label.clone(), placed(of_light.in_frame.placement));
    }
    say("Ambient on the subject".to_owned(), placed(seen.ambient.placement));
    say("Ambient on the background".to_owned(), placed(seen.background.placement));
    say("Pulse, t0.1".to_owned(), duration_label(seen.key().pulse.times.1));
    let rows = if seen.touched() > 0.0 {
        format!("{:.0} % lose flash", seen.touched() * 100.0)
    } else {
        "all whole".to_owned()
    };
    say("Rows".to_owned(), rows);
    say("Sharp".to_owned(), crate::answers::hold::written_depth(plan.lengths, &seen.depth));
    for (part, outlook) in plan.parts.iter().zip(&seen.parts) {
        say(format!("Blur of {}", part.name), format!("{:.1} px", outlook.blur.as_metres().abs() / pitch));
        say(format!("Streak of {}", part.name), format!("{:.1} % of the frame", outlook.streak_share.abs() * 100.0));
    }
    lines
}

/// A placement to a tenth: a difference below that nobody sees.
fn placed(placement: Stops) -> String {
    let stops = placement.as_stops();
    if !stops.is_finite() {
        return "no light".to_owned();
    }
    let tenth = (stops * 10.0).round() / 10.0;
    if tenth == 0.0 { "0.0".to_owned() } else { format!("{}{:.1}", if tenth < 0.0 { '−' } else { '+' }, tenth.abs()) }
}
