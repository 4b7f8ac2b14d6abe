//! Lights among each other: who does not fire, who fires apart, rims that outshine the key, automatics at their end, light
//! by way of a bad surface.

use super::remedy::{Candidates, at_power, power_near};
use super::{Case, Condition, Flaw, Kind, Matter, Severity, TROUBLE, Words, px, signed, stops};
use crate::answers::conditions::DARK_SURFACE;
use crate::plan::Settings;
use crate::quantity::Stops;

pub(super) fn flaw(condition: &Condition) -> Option<Flaw> {
    let of = |kind, severity, hurt| Some(Flaw::of_light(kind, condition.light?, severity, hurt));
    match condition.matter {
        Matter::Fires => of(Kind::Silent, Severity::Trouble, 8.0),
        Matter::Rim => of(Kind::RimOutshines, Severity::Watch, condition.measure),
        Matter::Automatic => {
            let short = condition.measure.abs();
            of(Kind::AutomaticShort, if short > 1.0 { Severity::Trouble } else { Severity::Watch }, short)
        }
        Matter::Surface => of(Kind::BadSurface, Severity::Watch, 0.8),
        Matter::Hand => Some(Flaw::of_shot(Kind::Shaken, Severity::Watch, -condition.margin)),
        _ => {
            let severity = if condition.margin < TROUBLE { Severity::Trouble } else { Severity::Watch };
            Some(Flaw::of_part(Kind::ImagesApart, condition.part?, severity, 1.0 - condition.margin))
        }
    }
}

pub(super) fn words(case @ Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light.unwrap_or(plan.key);
    let (light, of_light, dial) = (&plan.lights[index], &seen.lights[index], &plan.settings.lights[index]);
    match flaw.kind {
        Kind::Silent => Words {
            title: format!("{} will not fire", light.spoken),
            cause: match light.channels {
                Some(channels) if dial.channel > channels => {
                    format!("It is set to channel {}; its trigger has {channels}.", dial.channel)
                }
                _ => format!(
                    "It listens on channel {}; the trigger on the camera sends on {}.",
                    dial.channel, plan.channel
                ),
            },
        },
        Kind::RimOutshines => Words {
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
        },
        Kind::AutomaticShort => {
            let short = of_light.automatic_short.as_stops();
            let (side, end) = if short > 0.0 { ("dark", "full") } else { ("bright", "lowest") };
            Words {
                title: format!("{}: the automatic leaves it {} too {side}", light.label, stops(short)),
                cause: format!("{} is at its {end} power and has no more to turn.", light.name),
            }
        }
        Kind::BadSurface => bad_surface(case, index),
        Kind::Shaken => Words {
            title: format!("The hand draws {}", px(plan.pixels(seen.camera.shake * seen.run.time))),
            cause: format!(
                "Unsteady by {:.1}° a second while {} is open; what the flash draws stays sharp.",
                plan.movement.shake.to_degrees(),
                plan.settings.shutter.label(plan.body.grid)
            ),
        },
        _ => apart(case, flaw.part.unwrap_or_default()),
    }
}

fn bad_surface(Case { plan, .. }: Case, index: usize) -> Words {
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

fn apart(Case { plan, seen }: Case, part: usize) -> Words {
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
