//! What was found, in words and figures for a list, a table and a sheet.

use super::aim::Priority;
use super::brief::{Brief, Demand, Fares, weight};
use super::crew::Crew;
use super::nearest::{Give, Nearest};
use super::seek::Found;
use super::setup::{Setup, applied};
use super::stock::Stock;
use crate::answers::findings;
use crate::answers::hold::written_exposure;
use crate::answers::strips::{bias_label, distance_label, filter_label, sync_label};
use crate::file::wish::Wish;
use crate::physics::ghost::SEEN_FROM;
use crate::physics::shutter::SyncMode;
use crate::plan::{Plan, STREAK_FACTOR, Settings};
use crate::quantity::scale::duration_label;
use crate::quantity::{Seconds, Stops};
use crate::wire::report;
use rayon::prelude::*;

/// Rows that anyone reads.
pub const MOST_ROWS: usize = 60;
/// More room than this is as good as none needed.
const PLENTY: f64 = 20.0;

/// Name of the format of an answer.
pub const ANSWER_FORMAT: &str = "dash-pebble/match";

report! {
    /// What the kit answers.
    pub struct MatchAnswer {
        /// `dash-pebble/match`.
        pub format: String,
        /// Version of the format.
        pub version: u32,
        /// What counted first.
        pub priority: Priority,
        /// What was asked, all of it.
        pub wish: Wish,
        /// Set-ups, best first; folded where they differ in the modifier alone.
        pub rows: Vec<MatchRow>,
        /// Ways in all: settings of camera, power and distance with any unit.
        pub ways: u64,
        /// Where nothing works: what comes nearest, and what would have to give.
        pub nearest: Vec<NearestRow>,
    }
}

report! {
    /// How a set-up fares under one condition.
    pub struct Margin {
        /// The condition.
        pub condition: Demand,
        /// As said.
        pub label: String,
        /// Stops to spare; `null` where there is no end.
        pub room_stops: Option<f64>,
        /// Share of what is allowed that is used, 0 to 1; beyond 1 it is missed.
        pub used: f64,
        /// The figures.
        pub said: String,
    }

    /// A set-up that works.
    pub struct MatchRow {
        /// As it is put into the shot.
        pub setup: Setup,
        /// Units: `2 × Brix 400`.
        pub title: String,
        /// Power, distance and what is in front: `1/16 · 2.4 m · Octa 90`.
        pub how: String,
        /// Aperture, time, ISO, filter.
        pub exposure: String,
        /// Sync of the key.
        pub sync: String,
        /// Freezing time of the key.
        pub freeze: String,
        /// The strictest part's blur, in pixels of the camera; `null` where no part has a limit.
        pub blur_px: Option<f64>,
        /// Weight of units and modifiers, where all was weighed.
        pub weight_kg: Option<f64>,
        /// Time to be ready again, where known.
        pub ready_s: Option<f64>,
        /// Settings of camera, power and distance that work with the same things.
        pub ways: u64,
        /// Other modifiers that work with the same units.
        pub also: Vec<String>,
        /// Every condition, what has least to spare first.
        pub margins: Vec<Margin>,
        /// Output or durations are estimates.
        pub estimated: bool,
        /// What the forecast of the whole shot, all its lights with it, finds in trouble with this in place.
        pub troubles: usize,
        /// And to watch.
        pub watches: usize,
    }

    /// One thing that would have to give.
    pub struct GiveSaid {
        /// The condition.
        pub condition: Demand,
        /// Its price in stops.
        pub stops: f64,
        /// In the user's units: `ISO 640 instead of 400`.
        pub said: String,
    }

    /// A set-up that works when something gives.
    pub struct NearestRow {
        /// What has to give.
        pub gives: Vec<GiveSaid>,
        /// Its price in stops.
        pub price_stops: f64,
        /// The set-up.
        pub row: MatchRow,
        /// The wish with that given, to be put into the shot.
        pub wish: Wish,
    }

    /// A whole shot with all its lights.
    pub struct CrewRow {
        /// As it is put into the shot.
        pub setup: Setup,
        /// Aperture, time, ISO, filter.
        pub exposure: String,
        /// One line a light.
        pub lights: Vec<CrewLight>,
        /// Troubles that the forecast would find.
        pub troubles: usize,
        /// What it would find worth watching.
        pub watches: usize,
        /// Weight of units and modifiers, where all was weighed.
        pub weight_kg: Option<f64>,
    }

    /// One light of a whole shot.
    pub struct CrewLight {
        /// Group and role.
        pub label: String,
        /// Units.
        pub title: String,
        /// Power, distance and what is in front.
        pub how: String,
        /// Group and channel of its receiver.
        pub group: String,
        /// Freezing time.
        pub freeze: String,
    }
}

/// As few digits as tell two figures apart, at most three.
fn digits(one: f64, other: f64) -> usize {
    (1..3).find(|digits| format!("{one:.digits$}") != format!("{other:.digits$}")).unwrap_or(3)
}

/// The rows of a list, set-ups that differ in their modifier alone folded together.
pub fn rows(brief: &Brief, stock: &Stock, found: &[Found]) -> Vec<MatchRow> {
    let mut heads: Vec<(&Found, Vec<&Found>)> = Vec::new();
    for one in found {
        let same = |head: &&mut (&Found, Vec<&Found>)| {
            (head.0.unit, head.0.heads, head.0.glow) == (one.unit, one.heads, one.glow)
        };
        match heads.iter_mut().find(same) {
            Some((_, folded)) => folded.push(one),
            None => heads.push((one, Vec::new())),
        }
    }
    let row = |(head, folded): &(&Found, Vec<&Found>)| {
        let also = folded.iter().map(|one| one.candidate(brief, stock).modifier.name.clone()).collect();
        MatchRow { also, ..row(brief, stock, head) }
    };
    // Each is forecast as a whole shot, on all hands.
    heads.par_iter().take(MOST_ROWS).map(row).collect()
}

/// Troubles and watches of the whole shot with a set-up in place.
fn verified(brief: &Brief, stock: &Stock, setup: &Setup) -> Option<(usize, usize)> {
    let plan = Plan::try_from(&applied(brief.shot, stock, setup).ok()?).ok()?;
    Some(findings::count(&plan, &crate::outlook(&plan)))
}

/// One set-up in full.
pub fn row(brief: &Brief, stock: &Stock, found: &Found) -> MatchRow {
    let candidate = found.candidate(brief, stock);
    let (plan, grid) = (brief.plan, brief.plan.body.grid);
    // What can be found can be judged.
    let fares = brief.judge(&candidate).unwrap_or_default();
    let freeze = if candidate.glow {
        candidate.shutter.time()
    } else {
        candidate.unit.unit.control.at(candidate.power).by(plan.school)
    };
    let to = Settings {
        aperture: candidate.aperture,
        shutter: candidate.shutter,
        iso: candidate.iso,
        filter: candidate.filter,
        ..plan.settings
    };
    let strictest = fares
        .iter()
        .filter(|one| one.condition == Demand::Blur)
        .min_by(|a, b| a.room.total_cmp(&b.room))
        .and_then(|one| brief.needs.get(one.part?));
    let mut margins: Vec<Margin> =
        fares.iter().filter(|one| asked(brief, one)).map(|one| margin(brief, &candidate, one, freeze)).collect();
    margins.sort_by(|a, b| b.used.total_cmp(&a.used));
    let setup = candidate.setup(brief);
    let (troubles, watches) = verified(brief, stock, &setup).unwrap_or_default();
    MatchRow {
        troubles,
        watches,
        setup,
        title: several(candidate.heads, &candidate.unit.wire.name),
        how: format!(
            "{} · {} · {}",
            candidate.unit.unit.dial.label(candidate.power),
            distance_label(brief.plan.lengths, candidate.distance),
            candidate.modifier.name
        ),
        exposure: written_exposure(plan, &to),
        sync: sync_label(if candidate.glow { SyncMode::HighSpeed } else { brief.pulsed() }).to_owned(),
        freeze: if candidate.glow { candidate.shutter.label(grid) } else { duration_label(freeze) },
        blur_px: strictest.map(|need| need.speed * freeze / plan.body.sensor.pitch()),
        weight_kg: weight(candidate.unit, candidate.modifier, candidate.heads),
        ready_s: candidate.unit.unit.readiness.ready(candidate.power).map(Seconds::as_secs),
        ways: found.ways,
        also: Vec::new(),
        margins,
        estimated: candidate.unit.unit.output_estimated
            || candidate.unit.unit.durations_from == crate::file::gear::Origin::Estimated,
    }
}

/// `2 × Brix 400`, or the name alone.
fn several(count: u32, name: &str) -> String {
    if count == 1 { name.to_owned() } else { format!("{count} × {name}") }
}

/// Whether a condition says something here: what nobody asked for is no margin.
fn asked(brief: &Brief, fares: &Fares) -> bool {
    let bounds = &brief.bounds;
    match fares.condition {
        Demand::Frames => bounds.frames > 1,
        Demand::Charge => bounds.flashes > 0,
        Demand::Weight => bounds.weight_kg.is_finite(),
        Demand::Depth => bounds.depth.as_metres() > 0.0,
        Demand::Filter | Demand::Modifier | Demand::HighSpeed | Demand::Shutter | Demand::Aperture | Demand::Place => {
            false
        }
        Demand::Freeze => bounds.freeze.is_some(),
        Demand::Even => bounds.even.is_some(),
        Demand::Ambient | Demand::Background | Demand::Drawn => fares.room.is_finite(),
        _ => true,
    }
}

fn margin(brief: &Brief, candidate: &super::Candidate, fares: &Fares, freeze: Seconds) -> Margin {
    let (plan, bounds) = (brief.plan, &brief.bounds);
    let grid = plan.body.grid;
    let pitch = plan.body.sensor.pitch();
    let part = fares.part.map(|part| plan.parts[part].name.clone()).unwrap_or_default();
    let need = fares.part.map(|part| &brief.needs[part]);
    let room = fares.room;
    let windowed = |width: f64| 1.0 - (room / width).clamp(-9.0, 1.0);
    let half = |(low, high): (Stops, Stops)| {
        let width = (high - low).as_stops() / 2.0;
        if width.is_finite() && width > 0.0 { windowed(width) } else { (-room).exp2() }
    };
    let (label, used, said) = match fares.condition {
        Demand::Iso => (
            "Noise".to_owned(),
            (-room).exp2(),
            format!("ISO {}, ceiling {}", candidate.iso.label(grid), bounds.iso.1.label(grid)),
        ),
        Demand::Key => {
            let within = bounds.key_within.as_stops();
            ("Key".to_owned(), windowed(within), format!("{:.2} stops off, {within:.2} allowed", within - room))
        }
        Demand::Ambient => ("Ambient".to_owned(), half(brief.ambient()), format!("{room:.1} stops within its window")),
        Demand::Background => {
            ("Background".to_owned(), half(bounds.background), format!("{room:.1} stops within its window"))
        }
        Demand::Near => {
            let nearest = candidate.distance.as_metres() / (room / 2.0).exp2();
            let why = if bounds.nearest.is_some() { "no nearer than" } else { "in the frame under" };
            (
                "Near".to_owned(),
                (-room).exp2(),
                format!(
                    "{}, {why} {}",
                    distance_label(brief.plan.lengths, candidate.distance),
                    brief.plan.lengths.say(nearest, 1)
                ),
            )
        }
        Demand::Far => (
            "Far".to_owned(),
            (-room).exp2(),
            format!(
                "{}, no farther than {}",
                distance_label(brief.plan.lengths, candidate.distance),
                distance_label(brief.plan.lengths, bounds.farthest)
            ),
        ),
        Demand::Freeze => {
            let most = bounds.freeze.map_or_else(String::new, duration_label);
            ("Freezes".to_owned(), (-room).exp2(), format!("{}, {most} wanted", duration_label(freeze)))
        }
        Demand::Even => {
            let most = bounds.even.map_or(0.0, Stops::as_stops);
            (
                "Even".to_owned(),
                (most - room) / most,
                format!("{:.1} stops over the area, {most:.1} allowed", most - room),
            )
        }
        Demand::Blur => {
            let (blur, limit) = need.map_or((0.0, 0.0), |need| {
                (need.speed * freeze / pitch, need.limit.map_or(0.0, |limit| limit / pitch))
            });
            (format!("{part} still"), (-room).exp2(), format!("{blur:.1} px of {limit:.1}"))
        }
        Demand::Drawn => {
            let limit = need.and_then(|need| need.steady_limit).map_or(0.0, |limit| limit / pitch);
            (
                format!("{part} in steady light"),
                (-room).exp2(),
                format!("draws {:.1} px of {limit:.1}", limit * (-room).exp2()),
            )
        }
        Demand::Depth => (
            "Depth".to_owned(),
            (-room).exp2(),
            format!(
                "{} needed, f/{}",
                brief.plan.lengths.say(bounds.depth.as_metres(), 2),
                candidate.aperture.label(grid)
            ),
        ),
        Demand::Frames => {
            let count = f64::from(bounds.frames) * room.exp2();
            let count = if count.is_finite() { format!("{count:.0} in a row") } else { "no end".to_owned() };
            (
                "Burst".to_owned(),
                (-room).exp2(),
                format!("{count} at {} a second, {} wanted", bounds.rate, bounds.frames),
            )
        }
        Demand::Charge => {
            let count = f64::from(bounds.flashes) * room.exp2();
            let count = if count.is_finite() { format!("{count:.0} on a charge") } else { "on the mains".to_owned() };
            ("Charge".to_owned(), (-room).exp2(), format!("{count}, {} wanted", bounds.flashes))
        }
        Demand::Heads => (
            "Heads".to_owned(),
            (-room).exp2(),
            format!("{} of {} side by side", candidate.heads, bounds.heads.min(bounds.stands)),
        ),
        Demand::Owned => (
            "Owned".to_owned(),
            (-room).exp2(),
            format!("{} of {} at hand", candidate.heads, brief.left_for_key(candidate.unit)),
        ),
        Demand::Weight => (
            "Weight".to_owned(),
            (-room).exp2(),
            format!("{:.1} kg of {:.1}", bounds.weight_kg * (-room).exp2(), bounds.weight_kg),
        ),
        Demand::Sync => {
            let said = if room.is_finite() {
                let usable = candidate.shutter.time() * (-room).exp2();
                format!("{}, all rows lit to {}", candidate.shutter.label(grid), duration_label(usable))
            } else {
                "glows over the whole frame".to_owned()
            };
            ("Sync".to_owned(), (-room).exp2(), said)
        }
        Demand::Streak => {
            (format!("{part} streak"), windowed(STREAK_FACTOR.log2()), format!("within {room:.1} stops of its length"))
        }
        Demand::Ghost => (
            format!("{part} trail"),
            (-room).exp2(),
            format!(
                "ΔL* {:.1}, hidden under {:.0}",
                need.map_or(0.0, |need| brief.trail_limit(need)) * (-room).exp2(),
                need.map_or(0.0, |need| brief.trail_limit(need))
            ),
        ),
        Demand::Trail => (
            format!("{part} shows"),
            (-room).exp2(),
            format!("ΔL* {:.1}, seen from {:.0}", SEEN_FROM * room.exp2(), SEEN_FROM),
        ),
        Demand::Shutter
        | Demand::Aperture
        | Demand::Place
        | Demand::Filter
        | Demand::Modifier
        | Demand::HighSpeed
        | Demand::Rate
        | Demand::Darker => (String::new(), 0.0, String::new()),
    };
    Margin {
        condition: fares.condition,
        label,
        room_stops: (room < PLENTY).then_some(room),
        used: used.clamp(0.0, 9.0),
        said,
    }
}

/// The nearest set-ups with what would have to give for each.
pub fn nearest_rows(brief: &Brief, stock: &Stock, nearest: &[Nearest]) -> Vec<NearestRow> {
    let of = |one: &Nearest| {
        let mut wish = brief.shot.wish.clone();
        for give in &one.gives {
            wish = Some(brief.relaxed(wish.as_ref(), give, &one.found, stock));
        }
        let wish = wish.unwrap_or_default();
        NearestRow {
            gives: one.gives.iter().map(|give| said(brief, stock, one, give, &wish)).collect(),
            price_stops: one.price(),
            row: row(brief, stock, &one.found),
            wish,
        }
    };
    nearest.iter().map(of).collect()
}

fn said(brief: &Brief, stock: &Stock, nearest: &Nearest, give: &Give, wish: &Wish) -> GiveSaid {
    let (plan, bounds) = (brief.plan, &brief.bounds);
    let grid = plan.body.grid;
    let candidate = nearest.found.candidate(brief, stock);
    let stops = give.stops;
    let pitch = plan.body.sensor.pitch();
    let time = candidate.shutter.label(grid);
    let reference = plan.reference(candidate.aperture, candidate.iso, candidate.filter);
    let steady = brief.steady_change(candidate.shutter, reference.as_lux_seconds().log2());
    let said = match give.condition {
        Demand::Iso if candidate.iso < bounds.iso.0 => {
            format!("ISO {} instead of {} or more", candidate.iso.label(grid), bounds.iso.0.label(grid))
        }
        Demand::Iso => format!("ISO {} instead of {}", candidate.iso.label(grid), bounds.iso.1.label(grid)),
        Demand::Aperture => {
            let (wide, small) = bounds.aperture;
            let end = if candidate.aperture < wide { wide } else { small };
            format!("f/{} instead of f/{}", candidate.aperture.label(grid), end.label(grid))
        }
        Demand::Place => format!(
            "the light at {} instead of {}",
            distance_label(brief.plan.lengths, candidate.distance),
            distance_label(plan.lengths, plan.settings.key().distance)
        ),
        Demand::Freeze => {
            let most = bounds.freeze.map_or(Seconds::ZERO, |most| most);
            format!("a flash of {} instead of {}", duration_label(most * stops.exp2()), duration_label(most))
        }
        Demand::Even => {
            let most = bounds.even.map_or(0.0, Stops::as_stops);
            format!("{:.1} stops over the area instead of {most:.1}", most + stops)
        }
        Demand::Shutter if candidate.shutter.time() > bounds.shutter.0.time() => {
            format!("{time} instead of {} or faster", bounds.shutter.0.label(grid))
        }
        Demand::Shutter => format!("{time} instead of {} or slower", bounds.shutter.1.label(grid)),
        Demand::Filter => {
            format!(
                "{} instead of {}",
                filter_label(candidate.filter.as_stops()),
                filter_label(bounds.filter_max.as_stops())
            )
        }
        Demand::Key => {
            let within = bounds.key_within.as_stops();
            let digits = digits(within, stops + within);
            format!("the key {:.digits$} stops off its target instead of {within:.digits$}", stops + within)
        }
        Demand::Ambient => outside("ambient", brief.ambient(), brief.seen.ambient.placement, steady),
        Demand::Background => outside("the background", bounds.background, brief.seen.background.placement, steady),
        Demand::Darker => darker(brief, stops),
        Demand::Near => {
            let was = candidate.distance.as_metres() * (stops / 2.0).exp2();
            let edge = if bounds.nearest.is_none() { ", into the frame" } else { "" };
            let closer = was - candidate.distance.as_metres();
            format!(
                "{} closer: {}{edge}",
                plan.lengths.say(closer, digits(closer, 0.0)),
                distance_label(brief.plan.lengths, candidate.distance)
            )
        }
        Demand::Far => {
            let farther = candidate.distance.as_metres() - bounds.farthest.as_metres();
            format!(
                "{} farther: {}",
                plan.lengths.say(farther, digits(farther, 0.0)),
                distance_label(brief.plan.lengths, candidate.distance)
            )
        }
        Demand::Modifier => format!("{} instead of {}", candidate.modifier.name, brief.present_modifier().name),
        Demand::HighSpeed => format!("high-speed sync, {stops:.1} stops lost to it"),
        Demand::Blur | Demand::Drawn => {
            let name = give.part.map(|part| plan.parts[part].name.as_str()).unwrap_or_default();
            let limit = give.part.and_then(|part| bounds.blur[part]).map_or(0.0, |limit| limit / pitch);
            // Up, so that what is said is enough.
            let px = (limit * stops.exp2() * 10.0 - 1e-9).ceil() / 10.0;
            let by = if give.condition == Demand::Drawn { " in the steady light" } else { "" };
            format!("{name} may blur {px:.1} px{by} instead of {limit:.1}")
        }
        Demand::Depth => {
            let depth = bounds.depth.as_metres();
            let say = |metres| plan.lengths.say(metres, 2);
            format!("{} sharp instead of {}", say(depth * (-stops).exp2()), say(depth))
        }
        Demand::Frames => {
            format!("{} frames in a row instead of {}", wish.frames.unwrap_or(bounds.frames), bounds.frames)
        }
        Demand::Rate => format!("{:.1} frames a second instead of {}", bounds.rate * (-stops).exp2(), bounds.rate),
        Demand::Charge => {
            format!("{} flashes on a charge instead of {}", wish.flashes.unwrap_or(bounds.flashes), bounds.flashes)
        }
        Demand::Heads => {
            format!("{} heads side by side instead of {}", candidate.heads, bounds.heads.min(bounds.stands))
        }
        Demand::Owned => {
            let have = brief.left_for_key(candidate.unit);
            let more = candidate.heads - have.min(candidate.heads);
            match (have, more) {
                (1, 1) => format!("a second {}", candidate.unit.wire.name),
                (_, 1) => format!("one more {}", candidate.unit.wire.name),
                _ => format!("{more} more of {}", candidate.unit.wire.name),
            }
        }
        Demand::Weight => format!("{:.1} kg instead of {:.1}", bounds.weight_kg * stops.exp2(), bounds.weight_kg),
        Demand::Ghost => {
            format!("trails may show by ΔL* {:.1} instead of {:.0}", bounds.trail * stops.exp2(), bounds.trail)
        }
        Demand::Sync | Demand::Streak | Demand::Trail => String::new(),
    };
    GiveSaid { condition: give.condition, stops, said }
}

/// Where steady light would fall, and the end of its window that it passes.
fn outside(what: &str, (low, high): (Stops, Stops), now: Stops, change: f64) -> String {
    let falls = now + Stops::from_stops(change);
    let (end, word) = if falls < low { (low, "more") } else { (high, "less") };
    format!("{what} at {} instead of {} or {word}", bias_label(falls.as_stops()), bias_label(end.as_stops()))
}

/// Less steady light, as a time to wait for where the sky is known.
fn darker(brief: &Brief, stops: f64) -> String {
    let falls = brief.shot.sky.as_ref().and_then(|sky| sky.falls_by(Stops::from_stops(stops)).ok().flatten());
    match falls {
        Some((minutes, at)) => format!("wait {minutes} minutes, until {at}: {stops:.1} stops less of daylight"),
        None => format!("{stops:.1} stops less steady light"),
    }
}

/// Rows of whole shots.
pub fn crew_rows(brief: &Brief, stock: &Stock, crews: &[Crew]) -> Vec<CrewRow> {
    crews.iter().take(MOST_ROWS / 3).filter_map(|crew| crew_row(brief, stock, crew)).collect()
}

fn crew_row(brief: &Brief, stock: &Stock, crew: &Crew) -> Option<CrewRow> {
    let shot = applied(brief.shot, stock, &crew.setup).ok()?;
    let plan = Plan::try_from(&shot).ok()?;
    let seen = crate::outlook(&plan);
    let (troubles, watches) = findings::count(&plan, &seen);
    let lights = crew.setup.lights.iter().zip(&crew.units).map(|(set, (unit, heads))| {
        let light = &plan.lights[set.light];
        CrewLight {
            label: light.label.clone(),
            title: several(*heads, &stock.units[*unit].wire.name),
            how: format!(
                "{} · {} · {}",
                stock.units[*unit].unit.dial.label(set.power),
                distance_label(plan.lengths, plan.settings.lights[set.light].distance),
                shot.lights[set.light].modifier.name
            ),
            group: format!("group {}, channel {}", light.group, plan.settings.lights[set.light].channel),
            freeze: seen.lights[set.light].freeze.map_or_else(|| "none".to_owned(), duration_label),
        }
    });
    let weight = crew.setup.lights.iter().zip(&crew.units).try_fold(0.0, |sum, (set, (unit, heads))| {
        Some(sum + weight(&stock.units[*unit], &shot.lights[set.light].modifier, *heads)?)
    });
    Some(CrewRow {
        exposure: written_exposure(&plan, &plan.settings),
        lights: lights.collect(),
        troubles,
        watches,
        weight_kg: weight,
        setup: crew.setup.clone(),
    })
}
