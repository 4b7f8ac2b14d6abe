//! The set-up: found in the kit by matching, by daylight alone where that does it, or the nearest with what would have to give.

use super::NoShot;
use super::begin::{Begun, SOFT_FROM_M};
use crate::answers::findings::{self, Severity};
use crate::answers::matching::{self, Brief, Going, MatchRow, Priority, Stock};
use crate::answers::strips;
use crate::file::shot::{DrawnAs, Intent, Lead, Shot};
use crate::file::wish::{Between, Wish};
use crate::outlook::outlook;
use crate::physics::exposure::illuminance_of_ev100;
use crate::plan::Plan;
use crate::plan::check::At;
use crate::quantity::scale::Iso;
use crate::quantity::{Seconds, Stops};

/// From this exposure value on daylight is tried first: it is brighter than what most flashes overcome.
const DAYLIGHT_FROM_EV: f64 = 11.0;
/// Set-ups that are looked at before the best of them is taken.
const LOOKED_AT: usize = 24;
/// Where a streak shall be drawn by the steady light, it stays so much under the exposure.
const DRAWN_UNDER: f64 = -0.7;
/// Where the light of the place belongs into the picture, it is seen and stays behind the flash.
const MOOD_BETWEEN: (f64, f64) = (-4.0, -1.0);
/// What that may cost in noise.
const MOOD_ISO: f64 = 3200.0;
/// It draws a trail of what moves, and that is part of it: up to so much in L*.
const MOOD_TRAIL: f64 = 8.0;
/// Steady light stays so much under a flash that leads.
const UNDER_THE_FLASH: f64 = -1.0;
/// Labels of times are rounded.
const TOLERANCE: f64 = 1.001;
/// The noise that daylight may cost.
const MOST_ISO: f64 = 6400.0;

/// How a shot is lit.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum By {
    /// By a set-up of the kit.
    Flash(Box<MatchRow>),
    /// By the steady light alone.
    Daylight,
    /// By the nearest set-up; what would have to give.
    Nearest(Box<MatchRow>, Vec<String>),
    /// By nothing that is at hand; why.
    Nothing(String),
}

/// The shot as it is opened.
pub(super) struct Settled {
    pub shot: Shot,
    pub by: By,
    pub troubles: usize,
    pub watches: usize,
    pub ways: u64,
}

/// The stock with some units only.
pub(super) fn allowed(stock: &Stock, units: &[String]) -> Result<Stock, NoShot> {
    let mut found = stock.clone();
    if units.is_empty() {
        return Ok(found);
    }
    for id in units {
        if stock.unit(id).is_none() {
            return Err(At::default().not_allowed("units", id, "the identity of a unit that is taken along").into());
        }
    }
    found.units.retain(|unit| units.contains(&unit.wire.id));
    Ok(found)
}

pub(super) fn settle(begun: &Begun, stock: &Stock, going: &Going) -> Result<Option<Settled>, NoShot> {
    let streaks = begun.shot.parts.iter().any(|part| part.intent == Intent::Dash);
    // By what was read, where somebody read it.
    let bright = Plan::try_from(&begun.shot)?.subject_light >= illuminance_of_ev100(DAYLIGHT_FROM_EV) && !streaks;
    if bright && let Some(found) = by_daylight(begun)?.filter(|found| found.troubles == 0) {
        return Ok(Some(found));
    }
    let Some(flash) = by_flash(begun, stock, streaks, going)? else { return Ok(None) };
    if flash.troubles == 0 && matches!(flash.by, By::Flash(_)) {
        return Ok(Some(flash));
    }
    // What a flash cannot do the steady light may.
    if !bright
        && !streaks
        && let Some(found) = by_daylight(begun)?.filter(|found| found.troubles == 0)
    {
        return Ok(Some(found));
    }
    Ok(Some(flash))
}

fn judged(shot: Shot, by: By, ways: u64) -> Result<Settled, NoShot> {
    let plan = Plan::try_from(&shot)?;
    let (troubles, watches) = findings::count(&plan, &outlook(&plan));
    Ok(Settled { shot, by, troubles, watches, ways })
}

fn by_flash(begun: &Begun, stock: &Stock, streaks: bool, going: &Going) -> Result<Option<Settled>, NoShot> {
    if stock.units.is_empty() {
        let why = "There is no flash unit in the kit: enter one, or take along one that was put away.".to_owned();
        return judged(begun.shot.clone(), By::Nothing(why), 0).map(Some);
    }
    let usual = (None, if streaks { DRAWN_UNDER } else { UNDER_THE_FLASH });
    let soft = Stock {
        modifiers: stock.modifiers.iter().filter(|one| one.face_radius_m >= SOFT_FROM_M).cloned().collect(),
        ..stock.clone()
    };
    let faces = begun.shot.parts.iter().any(|part| part.drawn_as == DrawnAs::Face) && !soft.modifiers.is_empty();
    // As a photographer would like it, and then with less and less of that.
    let likes = [(begun.mood, faces), (begun.mood, false), (false, faces), (false, false)];
    let mut tried: Vec<(bool, bool)> = Vec::with_capacity(likes.len());
    let mut least: Option<Settled> = None;
    for like in likes {
        if tried.contains(&like) {
            continue;
        }
        tried.push(like);
        let (mood, faces) = like;
        let shot = wished(begun, if mood { (Some(MOOD_BETWEEN.0), MOOD_BETWEEN.1) } else { usual });
        let stock = if faces { &soft } else { stock };
        let plan = Plan::try_from(&shot)?;
        let brief = Brief::new(&shot, &plan)?;
        let Some(mut found) = matching::find(&brief, stock, Priority::Balanced, going) else { return Ok(None) };
        let ways = found.iter().map(|one| one.ways).sum();
        found.truncate(LOOKED_AT);
        // Other modifiers are other light: each is looked at by itself.
        let rows = found.iter().map(|one| matching::row(&brief, stock, one));
        let Some(best) = rows.min_by_key(|row| (row.troubles, row.watches)) else { continue };
        let mut set = matching::applied(&shot, stock, &best.setup)?;
        set.wish = None;
        let troubles = best.troubles;
        let found = judged(set, By::Flash(Box::new(best)), ways)?;
        if troubles == 0 {
            return Ok(Some(found));
        }
        if least.as_ref().is_none_or(|least| found.troubles < least.troubles) {
            least = Some(found);
        }
    }
    // What is asked of the kit is met, and something else is in trouble: that is what has to give.
    if let Some(Settled { shot, by: By::Flash(row), ways, .. }) = least {
        let plan = Plan::try_from(&shot)?;
        let judgement = findings::judge(&plan, &outlook(&plan));
        let gives = judgement.into_iter().filter(|one| one.severity == Severity::Trouble).map(|one| one.title);
        return judged(shot, By::Nearest(row, gives.collect()), ways).map(Some);
    }
    let mut shot = wished(begun, usual);
    let plan = Plan::try_from(&shot)?;
    let mut brief = Brief::new(&shot, &plan)?;
    // One thing that gives is quickly found, and quickly understood.
    let Some(mut nearest) = matching::nearest_alone(&brief, stock, going) else { return Ok(None) };
    if nearest.is_empty() {
        let Some(together) = matching::nearest(&mut brief, stock, going) else { return Ok(None) };
        nearest = together;
    }
    nearest.truncate(1);
    let rows = matching::nearest_rows(&brief, stock, &nearest);
    let Some(best) = rows.into_iter().next() else {
        let why =
            "Nothing of the kit comes near: the movement, the light and the depth ask for what no unit of it gives.";
        shot.wish = None;
        return judged(shot, By::Nothing(why.to_owned()), 0).map(Some);
    };
    let mut set = matching::applied(&shot, stock, &best.row.setup)?;
    set.wish = None;
    let gives = best.gives.iter().map(|give| give.said.clone()).collect();
    judged(set, By::Nearest(Box::new(best.row), gives), 0).map(Some)
}

/// The steady light alone: the slowest time that holds everything still, the aperture that is deep enough, and the ISO that
/// follows. The light stays on its stand and is switched off.
fn by_daylight(begun: &Begun) -> Result<Option<Settled>, NoShot> {
    let mut shot = begun.shot.clone();
    shot.targets.lead = Lead::Daylight;
    shot.lights.iter_mut().for_each(|light| light.on = false);
    let grid = shot.camera.body.grid;
    let mut best: Option<Settled> = None;
    for number in [2.8, 4.0, 5.6, 8.0, 11.0] {
        let lens = &shot.camera.lens;
        if number < lens.widest_f - 0.05 || number > lens.narrowest_f + 0.05 {
            continue;
        }
        shot.camera.aperture_f = number;
        let plan = Plan::try_from(&shot)?;
        let seen = outlook(&plan);
        let (slow, fast) = (Seconds::from_secs(1.0 / 60.0), plan.body.times.1.time());
        // As long as every part that has a limit stays within it.
        let holds = plan.parts.iter().zip(&seen.parts).filter_map(|(part, of)| {
            let limit = part.intent.blur_limit(seen.allowed)?;
            (of.motion.speed.as_metres_per_second() > 0.0).then(|| of.motion.time_of(limit))
        });
        let longest = holds.fold(slow, Seconds::min).max(fast);
        // Of the times of the camera the longest that is no longer.
        let times = strips::shutters(&plan.body).filter(|time| time.time() <= longest * TOLERANCE);
        let time = times.reduce(|a, b| if b.time() > a.time() { b } else { a }).unwrap_or(plan.body.times.1);
        shot.camera.shutter = time.label(grid);
        let light = Stops::placement(
            plan.subject_light * time.time(),
            plan.reference(plan.settings.aperture, plan.settings.iso, plan.settings.filter),
        );
        let wanted = plan.settings.iso.number() * (-light).as_ratio();
        let iso = wanted.clamp(plan.body.isos.0.number(), plan.body.isos.1.number().min(MOST_ISO));
        let off = |one: &Iso| (one.number() / iso).log2().abs();
        if let Some(near) = strips::isos(&plan.body).min_by(|a, b| off(a).total_cmp(&off(b))) {
            shot.camera.iso = near.label(grid).parse().unwrap_or(iso);
        }
        let Ok(found) = judged(shot.clone(), By::Daylight, 0) else { continue };
        let better = |of: &Settled| (of.troubles, of.watches, of.shot.camera.iso as u64);
        if best.as_ref().is_none_or(|best| better(&found) < better(best)) {
            best = Some(found);
        }
    }
    Ok(best)
}

/// The shot with what is asked of the kit, the steady light between two placements.
fn wished(begun: &Begun, (low_stops, high): (Option<f64>, f64)) -> Shot {
    let mut shot = begun.shot.clone();
    shot.wish = Some(Wish {
        ambient: Some(Between { low_stops, high_stops: Some(high) }),
        trail: low_stops.map(|_| MOOD_TRAIL),
        iso_max: low_stops.map(|_| MOOD_ISO.min(shot.camera.body.iso_max)),
        any_modifier: Some(true),
        frames: shot.burst.as_ref().map(|burst| burst.frames),
        frames_per_second: shot.burst.as_ref().map(|burst| burst.per_second),
        ..Wish::default()
    });
    shot
}
