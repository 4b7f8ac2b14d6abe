//! Lights among each other: who does not fire, who fires apart, rims that outshine the key, automatics at their end, light
//! by way of a bad surface.

use super::remedy::{Candidates, at_power, power_near};
use super::{Case, Condition, Flaw, Kind, Severity, TROUBLE, Words, px, signed, stops};
use crate::answers::conditions::DARK_SURFACE;
use crate::plan::Settings;
use crate::quantity::Stops;

pub(super) fn silent_flaw(condition: &Condition) -> Option<Flaw> {
    Some(Flaw::of_light(Kind::Silent, condition.light?, Severity::Trouble, 8.0))
}

pub(super) fn rim_flaw(condition: &Condition) -> Option<Flaw> {
    Some(Flaw::of_light(Kind::RimOutshines, condition.light?, Severity::Watch, condition.measure))
}

pub(super) fn automatic_flaw(condition: &Condition) -> Option<Flaw> {
    let short = condition.measure.abs();
    let severity = if short > 1.0 { Severity::Trouble } else { Severity::Watch };
    Some(Flaw::of_light(Kind::AutomaticShort, condition.light?, severity, short))
}

pub(super) fn surface_flaw(condition: &Condition) -> Option<Flaw> {
    Some(Flaw::of_light(Kind::BadSurface, condition.light?, Severity::Watch, 0.8))
}

pub(super) fn apart_flaw(condition: &Condition) -> Option<Flaw> {
    let severity = if condition.margin < TROUBLE { Severity::Trouble } else { Severity::Watch };
    Some(Flaw::of_part(Kind::ImagesApart, condition.part?, severity, 1.0 - condition.margin))
}

pub(super) fn shaken_flaw(condition: &Condition) -> Flaw {
    Flaw::of_shot(Kind::Shaken, Severity::Watch, -condition.margin)
}

pub(super) fn silent(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light.unwrap_or(plan.key);
    let (light, dial) = (&plan.lights[index], &plan.settings.lights[index]);
    Words {
        title: format!("{} will not fire", light.spoken),
        cause: match light.channels {
            Some(channels) if dial.channel > channels => {
                format!("It is set to channel {}; its trigger has {channels}.", dial.channel)
            }
            _ => {
                format!("It listens on channel {}; the trigger on the camera sends on {}.", dial.channel, plan.channel)
            }
        },
    }
}

pub(super) fn rim_outshines(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light.unwrap_or(plan.key);
    let (light, of_light) = (&plan.lights[index], &seen.lights[index]);
    Words {
        title: format!(
            "{} looks {} over the key",
            light.label,
            stops((of_light.seen() - seen.key().lit.placement).as_stops())
        ),
        cause: format!(
            "It is read at {}; grazing light looks brighter by about {}.",
            signed(of_light.lit.placement.as_stops()),
            stops(of_light.grazing.as_stops())
        ),
    }
}

pub(super) fn automatic_short(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light.unwrap_or(plan.key);
    let (light, of_light) = (&plan.lights[index], &seen.lights[index]);
    let short = of_light.automatic_short.as_stops();
    let (side, end) = if short > 0.0 { ("dark", "full") } else { ("bright", "lowest") };
    Words {
        title: format!("{}: the automatic leaves it {} too {side}", light.label, stops(short)),
        cause: format!("{} is at its {end} power and has no more to turn.", light.name),
    }
}

pub(super) fn shaken(Case { plan, seen }: Case) -> Words {
    Words {
        title: format!("The hand draws {}", px(plan.pixels(seen.camera.shake * seen.run.time))),
        cause: format!(
            "Unsteady by {:.1}° a second while {} is open; what the flash draws stays sharp.",
            plan.movement.shake.to_degrees(),
            plan.settings.shutter.label(plan.body.grid)
        ),
    }
}

pub(super) fn bad_surface(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light.unwrap_or(plan.key);
    let light = &plan.lights[index];
    let loss = light.bounce_loss(plan.settings.lights[index].distance).unwrap_or(Stops::ZERO);
    let why = light.bounce.map_or("", |surface| {
        if surface.coloured {
            "it has a colour, which the skin takes on"
        } else if surface.reflectance < DARK_SURFACE {
            "it is dark and keeps most of the light"
        } else {
            "it is far, and the light spreads on the way"
        }
    });
    Words {
        title: format!("{}: better not by way of this surface", light.label),
        cause: format!(
            "{} against straight light: {why}. Bring a white panel or light straight.",
            signed(loss.as_stops())
        ),
    }
}

pub(super) fn apart(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let part = flaw.part.unwrap_or_default();
    let of_part = &seen.parts[part];
    let reaching = || seen.firing().filter(|(light, _)| plan.lights[*light].reaches(part));
    let by_time = |a: &(usize, &crate::outlook::LightOutlook), b: &(usize, &crate::outlook::LightOutlook)| {
        a.1.ignition.at.as_secs().total_cmp(&b.1.ignition.at.as_secs())
    };
    let (first, last) = (reaching().min_by(by_time), reaching().max_by(by_time));
    let name = |light: Option<(usize, _)>| light.map_or("", |(light, _)| plan.lights[light].label.as_str()).to_owned();
    let between = first.zip(last).map_or(0.0, |(first, last)| (last.1.ignition.at - first.1.ignition.at).as_millis());
    Words {
        title: format!("{}: two images {} apart", plan.parts[part].name, px(plan.pixels(of_part.apart))),
        cause: format!("{} fires {between:.2} ms after {}. Give them the same trigger.", name(last), name(first)),
    }
}

pub(super) fn candidates(Case { plan, seen }: Case, flaw: &Flaw) -> Vec<Candidates> {
    let set = plan.settings;
    let index = flaw.light.unwrap_or(plan.key);
    let dial = set.lights[index];
    match flaw.kind {
        Kind::Silent => {
            let lights = set.lights.with(index, |dial| dial.channel = plan.channel);
            vec![Candidates::moving_key([Some(Settings { lights, ..set })])]
        }
        Kind::RimOutshines => {
            let over = (seen.lights[index].seen() - seen.key().lit.placement).as_stops();
            let weaker = power_near(plan, index, dial.power * (-over).exp2()).map(|power| at_power(plan, index, power));
            vec![Candidates::moving_key([weaker])]
        }
        // The automatic follows the ISO, which is what it lacks or has too much of.
        Kind::AutomaticShort => {
            let side = if seen.lights[index].automatic_short > Stops::ZERO { 1 } else { -1 };
            let turned =
                (1..=12).map(|clicks| super::remedy::iso_by(plan, side * clicks).map(|iso| Settings { iso, ..set }));
            vec![Candidates::moving_key(turned)]
        }
        Kind::Shaken => {
            let faster = (1..=18)
                .map(|clicks| super::remedy::shutter_by(plan, clicks).map(|shutter| Settings { shutter, ..set }));
            vec![Candidates::keeping_key(faster)]
        }
        _ => Vec::new(),
    }
}
