//! From a wanted streak and a wanted steady light to settings: the shutter for the length, and three ways to make up for
//! the light.

use super::{drag, time_of_streak};
use crate::answers::hold::{Followed, Held, with_ambient, written_exposure, written_moves};
use crate::answers::strips;
use crate::file::shot::Intent;
use crate::outlook::{Outlook, outlook};
use crate::physics::ghost::Visibility;
use crate::physics::shutter::SyncMode;
use crate::plan::{Plan, Settings};
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::scale::{ShutterTime, duration_label};
use crate::quantity::{Seconds, Stops};
use crate::wire::{report, wire};

/// From seeing to pressing, for someone who waits for it.
const REACTION: Seconds = Seconds::from_secs(0.2);
/// The steady light may be off by this much: half a third, as near as a dial comes.
const NEAR: f64 = 0.17 + 1e-6;
/// Flash that moves by more than this is said.
const FLASH_OFF: f64 = 0.2;

wire! {
    /// What a dragged shutter shall draw.
    pub struct DragWish {
        /// The part that draws the streak, by its place in the list.
        pub part: usize,
        /// Length of the streak, as a share of the frame's width.
        pub share: f64,
        /// Where the steady light shall fall on the subject.
        pub ambient_stops: f64,
    }
}

report! {
    /// What it takes.
    pub struct DragAnswer {
        /// Shutter time that draws the length, exactly.
        pub streak_s: f64,
        /// As written.
        pub streak_label: String,
        /// Shutter time that would put the steady light where it is wanted, with the present aperture, ISO and filter;
        /// `null` without any.
        pub ambient_s: Option<f64>,
        /// As written.
        pub ambient_label: Option<String>,
        /// Change of light that lets the first time serve both; negative takes light away.
        pub light_change_stops: Option<f64>,
        /// How much of the streak is gone before someone who waits for the movement has pressed.
        pub reaction_share: f64,
        /// The ways to make up for the light.
        pub roads: Vec<DragRoad>,
    }
}

report! {
    /// One way.
    pub struct DragRoad {
        /// By what: filter, aperture, ISO.
        pub by: Held,
        /// Why it does not get there; nothing when it does.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub not: Option<String>,
        /// Aperture, shutter, ISO and filter as written.
        pub exposure: String,
        /// What has to be turned.
        pub changes: Vec<Followed>,
        /// The same as one says it.
        pub said: String,
        /// Where the steady light then falls.
        pub ambient_stops: Option<f64>,
        /// Length of the streak on the dial's own time.
        pub streak_share: f64,
        /// Time that the shutter stays open beyond the streak; negative is short of it.
        pub spare_s: f64,
        /// When the key fires with front sync, since the first row opened.
        pub front_s: f64,
        /// When it fires with rear sync.
        pub rear_s: f64,
        /// What else will draw.
        pub also: Vec<Drawn>,
    }
}

report! {
    /// Something else that draws.
    pub struct Drawn {
        /// A part, or the background.
        pub name: String,
        /// Length as a share of the frame's width.
        pub share: f64,
        /// How visible.
        pub visibility: Visibility,
        /// Whether it may: it is a dash.
        pub wanted: bool,
    }
}

/// The ways to a streak and a steady light. The plan is the shot's own.
///
/// # Errors
/// [`Invalid`] when the part is none, stands still, or the wish is out of range; a streak longer than the frame is drawn
/// beyond it and refused.
pub fn roads(plan: &Plan, wish: &DragWish) -> Result<DragAnswer, Invalid> {
    let share = bounds::STREAK.within(bounds::STREAK.min, 1.0).check("share", wish.share)?;
    let wanted = bounds::OFFSET.check("ambient_stops", wish.ambient_stops).map(Stops::from_stops)?;
    let seen = outlook(plan);
    let Some(motion) = seen.parts.get(wish.part).map(|part| part.motion) else {
        return Err(Invalid::NotAllowed {
            field: "part".to_owned(),
            given: wish.part.to_string(),
            allowed: "the place of a part of this shot".to_owned(),
        });
    };
    let streak = time_of_streak(share, plan.frame().0, &motion);
    if !streak.as_secs().is_finite() {
        return Err(Invalid::Contradiction {
            field: "part".to_owned(),
            given: plan.parts[wish.part].name.clone(),
            reason: "it stands still on the picture and draws no streak".to_owned(),
        });
    }
    let light = seen.ambient.exposure / seen.run.time;
    let needed = drag(streak, wanted, seen.reference, light);
    let lit = seen.ambient.placement > Stops::DARK;
    Ok(DragAnswer {
        streak_s: streak.as_secs(),
        streak_label: duration_label(streak),
        ambient_s: lit.then(|| needed.ambient.as_secs()),
        ambient_label: lit.then(|| duration_label(needed.ambient)),
        light_change_stops: needed.light_change.to_wire().filter(|_| lit),
        reaction_share: motion.speed * REACTION / plan.frame().0,
        roads: [Held::Filter, Held::Aperture, Held::Iso]
            .into_iter()
            .map(|by| road(plan, wish.part, by, streak, wanted))
            .collect(),
    })
}

fn road(plan: &Plan, part: usize, by: Held, streak: Seconds, wanted: Stops) -> DragRoad {
    let off = |time: &ShutterTime| (time.time() / streak).ln().abs();
    let shutter =
        strips::shutters(&plan.body).min_by(|a, b| off(a).total_cmp(&off(b))).unwrap_or(plan.settings.shutter);
    let at_length = plan.with(Settings { shutter, ..plan.settings });
    let fixed: Vec<Held> = [Held::Filter, Held::Aperture, Held::Iso, Held::Shutter, Held::FlashDistance, Held::Lamps]
        .into_iter()
        .filter(|control| *control != by)
        .collect();
    let settings = with_ambient(&at_length, wanted, &fixed);
    let seen = outlook(&plan.with(settings));
    let fires = |mode: SyncMode| {
        let lights = settings.lights.with_each(|dial| dial.sync = mode);
        outlook(&plan.with(Settings { lights, ..settings })).key().ignition.at.as_secs()
    };
    DragRoad {
        by,
        not: obstacle(plan, (by, &settings), streak, wanted, &seen),
        exposure: written_exposure(plan, &settings),
        changes: written_moves(plan, &settings),
        said: strips::said(plan, &settings),
        ambient_stops: seen.ambient.placement.to_wire(),
        streak_share: seen.parts[part].streak_share,
        spare_s: (shutter.time() - streak).as_secs(),
        front_s: fires(SyncMode::Front),
        rear_s: fires(SyncMode::Rear),
        also: also(plan, part, &seen),
    }
}

/// What stands at its end: the control itself, or the power of a light that could not follow it.
fn end_of(plan: &Plan, by: Held, to: &Settings) -> String {
    let ends = |mut all: Box<dyn Iterator<Item = f64> + '_>, set: f64| {
        let first = all.next().unwrap_or(set);
        let last = all.last().unwrap_or(first);
        [first, last].iter().any(|end| (end - set).abs() <= 1e-6 * end.abs().max(1.0))
    };
    let at_its_end = match by {
        Held::Aperture => ends(Box::new(strips::apertures(&plan.body).map(|one| one.number())), to.aperture.number()),
        Held::Iso => ends(Box::new(strips::isos(&plan.body).map(|one| one.number())), to.iso.number()),
        _ => ends(Box::new(strips::filters(plan).map(|one| one.as_stops())), to.filter.as_stops()),
    };
    if at_its_end {
        return format!("the {} ends there", by.words());
    }
    let powers = (0..plan.lights.len()).filter(|light| plan.fires(*light)).find_map(|light| {
        let (of, power) = (&plan.lights[light], to.lights[light].power);
        let lowest = (-of.unit.lowest).as_ratio();
        match power {
            _ if power <= lowest * 1.01 => Some(format!("power of {} is at its lowest", of.label)),
            _ if power >= 0.99 => Some(format!("power of {} is full", of.label)),
            _ => None,
        }
    });
    powers.unwrap_or_else(|| format!("the {} comes no nearer", by.words()))
}

fn obstacle(
    plan: &Plan,
    (by, to): (Held, &Settings),
    streak: Seconds,
    wanted: Stops,
    seen: &Outlook,
) -> Option<String> {
    let miss = (seen.run.time / streak).log2().abs();
    if miss > 0.5 {
        let (slow, fast) = (plan.body.times.0.label(plan.body.grid), plan.body.times.1.label(plan.body.grid));
        return Some(format!("{} is beyond the shutter, {slow} to {fast}.", duration_label(streak)));
    }
    let off = (seen.ambient.placement - wanted).as_stops();
    if seen.ambient.placement == Stops::DARK {
        return Some("There is no steady light to draw with. Set up a lamp.".to_owned());
    }
    if off.abs() > NEAR {
        let side = if off > 0.0 { "bright" } else { "dark" };
        return Some(format!("The steady light stays {:.1} stops too {side}: {}.", off.abs(), end_of(plan, by, to)));
    }
    let before = outlook(plan);
    let moved = before
        .firing()
        .map(|(light, was)| (light, (seen.lights[light].in_frame.placement - was.in_frame.placement).as_stops()));
    let worst = moved.max_by(|a, b| a.1.abs().total_cmp(&b.1.abs())).filter(|(_, by)| by.abs() > FLASH_OFF);
    worst.map(|(light, by)| {
        let side = if by < 0.0 { "full" } else { "lowest" };
        format!("{} is off by {by:+.1} stops at its {side} power.", plan.lights[light].spoken)
    })
}

fn also(plan: &Plan, part: usize, seen: &Outlook) -> Vec<Drawn> {
    let parts = plan.parts.iter().zip(&seen.parts).enumerate().filter(|(index, (_, of))| *index != part && of.draws);
    let mut drawn: Vec<Drawn> = parts
        .map(|(_, (part, of))| Drawn {
            name: part.name.clone(),
            share: of.streak_share,
            visibility: of.ghost.visibility(),
            wanted: part.intent == Intent::Dash,
        })
        .filter(|drawn| drawn.visibility > Visibility::Not)
        .collect();
    let travel = seen.camera.background_travel;
    if travel > seen.allowed {
        drawn.push(Drawn {
            name: "Background".to_owned(),
            share: travel / plan.frame().0,
            visibility: Visibility::of(seen.background_lightness(plan)),
            wanted: true,
        });
    }
    drawn
}
