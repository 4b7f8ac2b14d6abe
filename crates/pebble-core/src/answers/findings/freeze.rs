//! Freezing: parts whose flash image is not as still as wanted.

use super::clicks::{power_by_aperture, power_by_distance, power_by_iso, shutter_by};
use super::ideas::{Idea, Ideas};
use super::turn::Source;
use super::{Case, Flaw, Kind, Words, percent, px};
use crate::answers::strips;
use crate::outlook::{DrawnBy, PartOutlook, Pulses};
use crate::physics::pulse::School;
use crate::plan::{Part, Plan, Settings};
use crate::quantity::scale::duration_label;
use crate::quantity::{Seconds, Stops};

/// Powers tried per idea: the milder ones come first and a unit has few that differ.
const MOST_POWERS: usize = 8;

/// Parts with a limit, and how many times over it they are.
fn judged<'a>(case: Case<'a>) -> impl Iterator<Item = (usize, &'a Part, &'a PartOutlook, f64)> + use<'a> {
    let parts = case.plan.parts.iter().zip(&case.seen.parts).enumerate();
    // What nothing draws has no edge.
    parts.filter(|(_, (_, seen))| seen.drawn_by != DrawnBy::Nothing).filter_map(move |(index, (part, seen))| {
        let ratio = seen.blur / part.intent.blur_limit(case.seen.allowed)?;
        Some((index, part, seen, ratio))
    })
}

/// Parts that only t0.5 calls still.
pub(super) fn doubts(case: Case, found: &mut Vec<Flaw>) {
    for (index, _, seen, ratio) in judged(case).filter(|(.., ratio)| *ratio <= 1.0) {
        if flatters(case, seen, ratio) {
            found.push(Flaw { part: Some(index), ..Flaw::doubt(Kind::SchoolFlatters, 0.2) });
        }
    }
}

/// Whether t0.5 calls a part still that t0.1 would not.
fn flatters(case: Case, of_part: &PartOutlook, ratio: f64) -> bool {
    let light = &case.seen.lights[slowest(case, of_part)];
    let (t05, t01) = light.pulse.times;
    case.plan.school == School::T05
        && of_part.drawn_by == DrawnBy::Flash
        && light.high_speed.is_none()
        && ratio * (t01 / t05) > 1.0
}

/// The light that draws the blur of a part.
fn slowest(case: Case, of_part: &PartOutlook) -> usize {
    of_part.slowest.unwrap_or(case.plan.key)
}

/// What is judged of a part: its limit in pixels, and the light that draws its blur.
fn judged_by(case @ Case { plan, seen }: Case, flaw: &Flaw) -> (usize, f64, usize) {
    let index = flaw.part();
    let allowed = plan.pixels(plan.parts[index].intent.blur_limit(seen.allowed).unwrap_or(seen.allowed));
    (index, allowed, slowest(case, &seen.parts[index]))
}

pub(super) fn school_flatters(case @ Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let (part, allowed, light) = judged_by(case, flaw);
    let (t05, t01) = seen.lights[light].pulse.times;
    let blur = plan.pixels(seen.parts[part].motion.speed * t01);
    Words {
        title: format!("{}: t0.5 flatters, {} by t0.1", plan.parts[part].name, px(blur)),
        cause: format!(
            "The limit is {}. Pictures behave like t0.1, {} here; t0.5 is {}.",
            px(allowed),
            duration_label(t01),
            duration_label(t05)
        ),
    }
}

pub(super) fn blurred(case @ Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let (index, allowed, light) = judged_by(case, flaw);
    let (part, of_part) = (&plan.parts[index], &seen.parts[index]);
    let title = format!("{}: {} blur, limit {}", part.name, px(plan.pixels(of_part.blur)), px(allowed));
    let (light, of_light) = (&plan.lights[light], &seen.lights[light]);
    let shutter = plan.settings.shutter.label(plan.body.grid);
    let (lasts, time) = match (of_part.drawn_by, of_part.freeze) {
        (DrawnBy::Flash, Some(freeze)) if of_light.high_speed.is_some() => {
            (format!("In high-speed sync the shutter freezes, {shutter}"), freeze)
        }
        (DrawnBy::Flash, Some(freeze)) => (
            format!(
                "{} at {} lasts {} ({})",
                light.spoken,
                light.unit.dial.label(of_light.power),
                duration_label(freeze),
                plan.school.label()
            ),
            freeze,
        ),
        _ => (
            format!("Steady light makes {} of its picture, and draws for {shutter}", percent(of_part.steady_share)),
            seen.run.time,
        ),
    };
    let camera = super::steady::with_the_camera(plan);
    Words {
        title,
        cause: format!("{lasts}; it moves {:.1} mm meanwhile{camera}.", of_part.way(part, seen, time).as_millimetres()),
    }
}

pub(super) fn candidates<'a>(case @ Case { plan, seen }: Case<'a>, flaw: &Flaw, pulses: &mut Pulses) -> Ideas<'a> {
    let index = flaw.part();
    let Some(limit) = plan.parts[index].intent.blur_limit(case.seen.allowed) else {
        return Ideas::none("It may move as it likes.");
    };
    let set = plan.settings;
    let slow = slowest(case, &seen.parts[index]);
    let (light, of_light) = (&plan.lights[slow], &seen.lights[slow]);
    if seen.parts[index].drawn_by == DrawnBy::Steady {
        // What the steady light draws is as sharp as the shutter is fast, or as that light is dim.
        let mut ideas = Source::all(plan, seen);
        let faster = (1..=18).map(move |clicks| Some(Settings { shutter: shutter_by(plan, clicks)?, ..set }));
        ideas.push(Idea::keeping_flash(faster));
        ideas.push(Idea::keeping_flash((1..=18).map(move |clicks| faster_by_iso(plan, clicks))));
        ideas.push(Idea::keeping_flash((1..=18).map(move |clicks| faster_by_aperture(plan, clicks))));
        ideas.push(Idea::keeping_flash((1..=12).map(move |clicks| super::clicks::iso_with_power(plan, -clicks))));
        ideas.push(Idea::keeping_flash((1..=12).map(move |clicks| super::clicks::aperture_with_power(plan, clicks))));
        return Ideas::of(ideas);
    }
    if of_light.high_speed.is_some() {
        let loss = move |time| {
            let run = crate::physics::shutter::Run { time, ..seen.run };
            crate::physics::shutter::high_speed::loss(run, light.unit.efficiency)
        };
        // Each click shorter: of the flash less falls through the slit, of which the camera may make up some.
        let shorter = move |clicks: i32, camera: Settings, made_up: f64| {
            let shutter = shutter_by(plan, clicks)?;
            let missing = loss(set.shutter.time()) - loss(shutter.time());
            super::clicks::follow(plan, Settings { shutter, ..camera }, missing.as_ratio() / made_up)
        };
        let faster = (1..=18).map(move |clicks| shorter(clicks, set, 1.0));
        let by_iso = (1..=18).map(move |clicks| {
            let iso = super::clicks::iso_by(plan, clicks)?;
            shorter(clicks, Settings { iso, ..set }, iso.number() / set.iso.number())
        });
        let by_aperture = (1..=18).map(move |clicks| {
            let aperture = super::clicks::aperture_by(plan, -clicks)?;
            let wider = set.aperture.number() / aperture.number();
            shorter(clicks, Settings { aperture, ..set }, wider * wider)
        });
        return Ideas::of(vec![
            Idea::keeping_flash(faster),
            Idea::keeping_flash(by_iso),
            Idea::keeping_flash(by_aperture),
        ]);
    }
    // Powers whose pulse is short enough, nearest to the present one first: on some units that is a higher one.
    let needed = limit.as_metres() / seen.parts[index].motion.blurs_by(seen.run.time).as_metres_per_second();
    let mut shortest = f64::INFINITY;
    let mut is_short = |power: &f64| {
        let lasts = pulses.lasts(plan, slow, *power).as_secs();
        shortest = shortest.min(lasts);
        lasts <= needed
    };
    let mut powers: Vec<f64> = strips::powers(light).filter(|power| is_short(power)).collect();
    let [shortest, needs] = [shortest, needed].map(|seconds| duration_label(Seconds::from_secs(seconds)));
    // Of what the shutter cuts the unit is not to blame, nor by so little that both are written alike.
    if powers.is_empty() && of_light.rows.touched == 0.0 && shortest != needs {
        let (unit, school) = (&light.spoken, plan.school.label());
        return Ideas::none(format!("{unit} is never shorter than {shortest}; this needs {needs} ({school})."));
    }
    let turn = |power: &f64| (power / of_light.power).log2().abs();
    powers.sort_by(|a, b| turn(a).total_cmp(&turn(b)));
    powers.truncate(MOST_POWERS);
    let keep = of_light.on_set.exposure;
    let each = move || powers.clone().into_iter();
    Ideas::of(vec![
        Idea::keeping_flash(each().map(move |power| power_by_distance(plan, slow, power, keep))),
        Idea::keeping_flash(each().map(move |power| power_by_iso(plan, slow, power))),
        Idea::keeping_flash(each().map(move |power| power_by_aperture(plan, slow, power))),
        Idea::keeping_flash(each().map(move |power| both_halves(case, slow, power))),
    ])
}

/// A faster shutter with the steady light kept by ISO, and the flash by its power.
fn faster_by_iso(plan: &Plan, clicks: i32) -> Option<Settings> {
    let shutter = shutter_by(plan, clicks)?;
    super::clicks::iso_with_power(&plan.with(Settings { shutter, ..plan.settings }), clicks)
}

/// The same kept by the aperture.
fn faster_by_aperture(plan: &Plan, clicks: i32) -> Option<Settings> {
    let shutter = shutter_by(plan, clicks)?;
    super::clicks::aperture_with_power(&plan.with(Settings { shutter, ..plan.settings }), -clicks)
}

/// Half of the missing light from ISO, the rest from distance: for powers that neither reaches alone.
fn both_halves(Case { plan, seen }: Case, light: usize, power: f64) -> Option<Settings> {
    let half = Stops::from_stops((seen.lights[light].power / power).log2() / 2.0);
    let iso = super::clicks::iso_by(plan, super::clicks::clicks_of(plan, half))?;
    let gained = iso.number() / plan.settings.iso.number();
    let near = power_by_distance(plan, light, power, seen.lights[light].on_set.exposure / gained)?;
    // The others have only their power to follow the ISO with.
    let others = super::clicks::follow(plan, Settings { iso, ..plan.settings }, 1.0 / gained);
    if plan.lights.len() == 1 {
        return Some(Settings { iso, ..near });
    }
    others.map(|to| Settings { lights: to.lights.with(light, |dial| *dial = near.lights[light]), ..to })
}

pub(super) fn good(case: Case) -> Option<Words> {
    let (_, part, seen, _) = judged(case).max_by(|a, b| a.3.total_cmp(&b.3))?;
    let allowed = part.intent.blur_limit(case.seen.allowed)?;
    let light = &case.seen.lights[slowest(case, seen)];
    let by = match (seen.drawn_by, seen.freeze) {
        (DrawnBy::Flash, Some(freeze)) if light.high_speed.is_none() => {
            format!("Frozen by {} ({})", duration_label(freeze), case.plan.school.label())
        }
        _ => format!("Frozen by the shutter, {}", case.plan.settings.shutter.label(case.plan.body.grid)),
    };
    Some(Words {
        title: format!("Still parts hold: {} {}", part.name, px(case.plan.pixels(seen.blur))),
        cause: format!("Limit {}. {by}.", px(case.plan.pixels(allowed))),
    })
}
