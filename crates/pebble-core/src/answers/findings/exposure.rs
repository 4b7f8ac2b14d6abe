//! Exposure: the subject, a light or the steady light away from where it was wanted, parts beyond white.

use super::clicks::{at_power, clicks_of, each, iso_by, iso_with_power, power_near, shutter_by};
use super::ideas::{Idea, Ideas};
use super::turn::Source;
use super::{Case, Flaw, Words, placed, signed, stops};
use crate::answers::conditions::{self, Matter, NO_LIGHT};
use crate::answers::standing::falls_elsewhere;
use crate::answers::strips;
use crate::file::shot::Lead;
use crate::outlook::{Outlook, Pulses, outlook_with};
use crate::physics::exposure::CLIP_LEVEL;
use crate::plan::{Plan, Settings};
use crate::quantity::Stops;

/// Stops off, of no light too.
fn miss(placement: Stops, target: Stops) -> f64 {
    (placement - target).as_stops().clamp(NO_LIGHT, -NO_LIGHT)
}

fn off_exposure(plan: &Plan, seen: &Outlook) -> f64 {
    miss(seen.subject.read_by(plan.targets.reads), plan.targets.subject)
}

/// As said of a miss: above or below.
fn title(what: &str, miss: f64) -> String {
    if miss <= NO_LIGHT {
        return format!("{what}: no light");
    }
    format!(
        "{what} {}, {} {} where it is wanted",
        spoken_by(miss),
        stops(miss),
        if miss > 0.0 { "above" } else { "below" }
    )
}

fn spoken_by(miss: f64) -> &'static str {
    if miss > 0.0 { "too bright" } else { "too dark" }
}

pub(super) fn off(Case { plan, seen }: Case) -> Words {
    let subject = &seen.subject;
    let lights: Vec<String> = seen
        .firing()
        .filter(|(light, _)| plan.lights[*light].is_frontal())
        .map(|(light, of)| {
            let cut = if of.share < 0.93 && of.high_speed.is_none() { ", cut by the shutter" } else { "" };
            format!("{} {}{cut}", plan.lights[light].label, placed(of.in_frame.placement))
        })
        .collect();
    let flashes = if lights.is_empty() { "No flash lights it".to_owned() } else { lights.join(", ") };
    Words {
        title: title("Subject", off_exposure(plan, seen)),
        cause: format!(
            "{flashes}; ambient {}. Together {} on the lit side, {} with the dome to the camera; wanted {}.{}",
            placed(seen.ambient.placement),
            placed(subject.lit_side),
            placed(subject.dome),
            signed(plan.targets.subject.as_stops()),
            super::lights::metered(Case { plan, seen }).unwrap_or_default()
        ),
    }
}

pub(super) fn balance(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light(plan);
    let falls = conditions::falls(plan, seen, index);
    let on_whom = falls_elsewhere(plan, seen, index).map_or("", |_| " on whom it is turned to");
    let wanted = conditions::wanted_of(plan, seen, index).unwrap_or(falls);
    let against = match (plan.lights[index].target, plan.targets.lead) {
        (Some(crate::plan::Target::Ratio(ratio)), Lead::Flash) => {
            format!(", {} against the key", signed(ratio.as_stops()))
        }
        (Some(crate::plan::Target::Ratio(ratio)), Lead::Daylight) => {
            format!(", {} against daylight", signed(ratio.as_stops()))
        }
        _ => String::new(),
    };
    Words {
        title: format!("{} by {}", spoken_by(flaw.measure), stops(flaw.measure)),
        cause: format!("It falls at {}{on_whom}; wanted at {}{against}.", placed(falls), placed(wanted)),
    }
}

pub(super) fn ambient_off(Case { plan, seen }: Case) -> Words {
    let off = plan.targets.ambient.map_or(0.0, |target| miss(seen.ambient.placement, target));
    Words {
        title: title(if plan.targets.lead == Lead::Daylight { "Daylight" } else { "Ambient" }, off),
        cause: super::steady::sources(plan, seen),
    }
}

pub(super) fn background_off(Case { plan, seen }: Case) -> Words {
    let off = plan.targets.background.map_or(0.0, |target| miss(seen.background.placement, target));
    Words {
        title: title("Background", off),
        cause: format!(
            "Steady light puts it at {}; wanted {}.",
            placed(seen.background.placement),
            placed(plan.targets.background.unwrap_or(Stops::ZERO))
        ),
    }
}

pub(super) fn clips(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.part();
    let (part, tones) = (&plan.parts[index], &seen.parts[index].tones);
    let over = (seen.parts[index].ghost.through.value() / CLIP_LEVEL).log2();
    Words {
        title: format!("{}: {} beyond white", part.name, stops(over)),
        cause: format!(
            "A tone of {:.0} %: its lit side stands at {} in flash and {} in steady light.",
            part.reflectance * 100.0,
            placed(tones.part_flash.placement()),
            placed(tones.part_ambient.placement())
        ),
    }
}

/// All flashes turned together, the camera, or the way to the subject. Where the shutter cuts them, as far as they fit it then,
/// else a slower one, and what it then still lacks; only where that would do harm is a cut frame made brighter as it is.
pub(super) fn candidates<'a>(case @ Case { plan, seen }: Case<'a>, pulses: &mut Pulses) -> Ideas<'a> {
    let Some(slower) = super::uncut::uncut(plan, seen) else { return turned(case) };
    let slower = under(plan, slower, pulses).unwrap_or_else(|| Ideas::of(vec![Idea::moving_one([Some(slower)])]));
    turned(case).of_uncut_lights().in_whole_rows().or_else(slower).or_else(turned(case))
}

/// Another shutter time, and turns that bring the exposure to where it is wanted under it; nothing where it is there already.
pub(super) fn under<'a>(plan: &Plan, shutter: Settings, pulses: &mut Pulses) -> Option<Ideas<'a>> {
    let whole = plan.with(shutter);
    let then = outlook_with(&whole, pulses);
    let off = plan.targets.lead == Lead::Flash && off_exposure(&whole, &then).abs() > conditions::CLICK;
    off.then(|| turned(Case { plan: &whole, seen: &then }).of_uncut_lights())
}

/// Turns that bring the subject's exposure to where it is wanted.
fn turned<'a>(Case { plan, seen }: Case<'_>) -> Ideas<'a> {
    let set = plan.settings;
    let off = off_exposure(plan, seen);
    let wanted = plan.targets.subject.as_ratio();
    let steady = seen.ambient.placement.as_ratio();
    let flash = seen.subject.read_by(plan.targets.reads).as_ratio() - steady;
    if flash <= 0.0 {
        let silent = seen.firing().next().is_none();
        return Ideas::none(if silent {
            "No flash is on."
        } else {
            "No flash reaches the frame: see to the shutter first."
        });
    }
    // What the flashes have to become, with the steady light as it is.
    let times = (wanted - steady) / flash;
    let together = (times > 0.0).then(|| super::clicks::follow(plan, set, times)).flatten();
    let bias = plan.lights.iter().enumerate().any(|(light, _)| set.lights[light].bias.is_some()).then(|| {
        let lights = set.lights.with_each(|dial| dial.bias = dial.bias.map(|bias| bias - Stops::from_stops(off)));
        Settings { lights, ..set }
    });
    let clicks = clicks_of(plan, Stops::from_stops(-off));
    let iso = iso_by(plan, clicks).map(|iso| Settings { iso, ..set });
    let aperture = super::clicks::aperture_by(plan, -clicks).map(|aperture| Settings { aperture, ..set });
    let moved = moved(plan, seen, times);
    // Where power and ISO each end before that, both of them together.
    let both = (together.is_none() && iso.is_none() && bias.is_none())
        .then(|| power_and_iso(plan, (wanted, steady, flash)))
        .flatten();
    // Where ISO or aperture end before that, the camera does it with both.
    let camera = (iso.is_none() || aperture.is_none()).then(|| iso_and_aperture(plan, clicks)).flatten();
    Ideas::of(vec![
        Idea::moving_all([bias.or(together)]),
        Idea::moving_all([moved]),
        Idea::moving_all([iso]),
        Idea::moving_all([aperture]),
        Idea::moving_all([camera]),
        Idea::moving_all([both]),
    ])
}

/// So many clicks brighter: ISO as far as it goes, the aperture for the rest.
fn iso_and_aperture(plan: &Plan, clicks: i32) -> Option<Settings> {
    let one = clicks.signum();
    let by_iso = (0..=clicks.abs()).rev().map(|by| by * one).find(|by| iso_by(plan, *by).is_some())?;
    let iso = iso_by(plan, by_iso)?;
    let aperture = super::clicks::aperture_by(plan, by_iso - clicks)?;
    Some(Settings { iso, aperture, ..plan.settings })
}

/// Too bright: the lowest ISO, and the flashes turned for the rest. Too dark: the flashes as strong as all of them can be, and
/// ISO for the rest. Light against the metered tone.
fn power_and_iso(plan: &Plan, (wanted, steady, flash): (f64, f64, f64)) -> Option<Settings> {
    let set = plan.settings;
    if steady + flash > wanted {
        let iso = plan.body.isos.0;
        let times = (wanted * set.iso.number() / iso.number() - steady) / flash;
        return (times > 0.0).then(|| super::clicks::follow(plan, Settings { iso, ..set }, times)).flatten();
    }
    let firing = (0..plan.lights.len()).filter(|light| plan.fires(*light));
    let times = firing.map(|light| 1.0 / set.lights[light].power).fold(f64::INFINITY, f64::min);
    let iso = iso_by(plan, clicks_of(plan, Stops::from_ratio(wanted / (steady + flash * times))))?;
    super::clicks::follow(plan, Settings { iso, ..set }, times)
}

/// The same light by walking: all lights that shape the subject, each to the nearest distance on its strip.
fn moved(plan: &Plan, seen: &Outlook, times: f64) -> Option<Settings> {
    let mut lights = plan.settings.lights;
    for (index, of) in seen.firing() {
        let dial = plan.settings.lights[index];
        let wanted = plan.lights[index].distance_for(of.power, dial.heads, of.on_set.exposure * times)?;
        lights[index].distance = strips::distance_near(plan.lengths, wanted)?;
    }
    Some(Settings { lights, ..plan.settings })
}

/// Lights that are off alike, each to where it is wanted.
pub(super) fn balanced<'a>(Case { plan, seen }: Case<'a>, lights: &[usize]) -> Ideas<'a> {
    if lights.iter().any(|light| conditions::falls(plan, seen, *light) == Stops::DARK) {
        return Ideas::none("None of it reaches the frame: see to the shutter or the trigger first.");
    }
    let misses = |light: usize| {
        let falls = conditions::falls(plan, seen, light);
        conditions::wanted_of(plan, seen, light).map_or(Stops::ZERO, |wanted| falls - wanted)
    };
    let turned = each(plan, lights, |plan, light| match plan.settings.lights[light].bias {
        Some(bias) => {
            let lights = plan.settings.lights.with(light, |dial| dial.bias = Some(bias - misses(light)));
            Some(Settings { lights, ..plan.settings })
        }
        None => {
            let power = seen.lights[light].power * (-misses(light)).as_ratio();
            power_near(plan, light, power).map(|power| at_power(plan, light, power))
        }
    });
    let walked = each(plan, lights, |plan, light| {
        let (of, heads) = (&seen.lights[light], plan.settings.lights[light].heads);
        let wanted = of.on_set.exposure * (-misses(light)).as_ratio();
        let distance = plan.lights[light]
            .distance_for(of.power, heads, wanted)
            .and_then(|far| strips::distance_near(plan.lengths, far))?;
        let lights = plan.settings.lights.with(light, |dial| dial.distance = distance);
        Some(Settings { lights, ..plan.settings })
    });
    Ideas::of(vec![Idea::moving_one([turned]), Idea::moving_one([walked])])
}

/// The steady light to where it is wanted: what burns needlessly first, then the shutter, then ISO with the flash.
pub(super) fn steady_candidates<'a>(Case { plan, seen }: Case<'a>, matter: Matter) -> Ideas<'a> {
    let set = plan.settings;
    let (target, placed) = match matter {
        Matter::Background => (plan.targets.background, seen.background.placement),
        _ => (plan.targets.ambient, seen.ambient.placement),
    };
    let off = target.map_or(0.0, |target| miss(placed, target));
    let clicks = clicks_of(plan, Stops::from_stops(off));
    let mut ideas = if off > 0.0 { Source::all(plan, seen) } else { Vec::new() };
    if plan.targets.lead == Lead::Daylight {
        // What fills daylight goes with it: the camera takes both, and of the shutter the lights make up their part.
        let shutter = shutter_by(plan, clicks).map(|shutter| Settings { shutter, ..set });
        let together = shutter.and_then(|to| super::clicks::follow(plan, to, (-off).exp2()));
        let iso = iso_by(plan, -clicks).map(|iso| Settings { iso, ..set });
        let aperture = super::clicks::aperture_by(plan, clicks).map(|aperture| Settings { aperture, ..set });
        ideas.push(Idea::moving_all([together]));
        ideas.push(Idea::moving_all([aperture]));
        ideas.push(Idea::moving_all([iso]));
    }
    ideas.push(Idea::keeping_flash([shutter_by(plan, clicks).map(|shutter| Settings { shutter, ..set })]));
    ideas.push(Idea::keeping_flash([iso_with_power(plan, -clicks)]));
    ideas.push(Idea::keeping_flash([super::clicks::aperture_with_power(plan, clicks)]));
    ideas.push(Idea::keeping_flash([super::clicks::filter_with_power(plan, off.round())]));
    Ideas::of(ideas)
}
