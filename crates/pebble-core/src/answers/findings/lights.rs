//! Lights among each other: who does not fire, who fires apart, rims that outshine the key, automatics at their end, light
//! by way of a bad surface.

use super::clicks::{at_power, each, power_near};
use super::ideas::{Idea, Ideas};
use super::turn::Source;
use super::{Case, Flaw, Words, placed, px, signed, stops};
use crate::answers::conditions::{DARK_SURFACE, Matter};
use crate::plan::Settings;
use crate::quantity::Stops;

pub(super) fn silent(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light(plan);
    let (light, dial) = (&plan.lights[index], &plan.settings.lights[index]);
    Words {
        title: "will not fire".to_owned(),
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
    let index = flaw.light(plan);
    let of_light = &seen.lights[index];
    Words {
        title: format!(
            "{} over the key, as it looks",
            stops((of_light.seen() - seen.key().in_frame.placement).as_stops())
        ),
        cause: format!(
            "It is read at {}; grazing light looks brighter by about {}.",
            signed(of_light.in_frame.placement.as_stops()),
            stops(of_light.grazing.as_stops())
        ),
    }
}

pub(super) fn automatic_short(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light(plan);
    let (light, of_light) = (&plan.lights[index], &seen.lights[index]);
    let short = of_light.automatic_short.as_stops();
    let (side, end) = if short > 0.0 { ("dark", "full") } else { ("bright", "lowest") };
    Words {
        title: format!("the automatic leaves it {} too {side}", stops(short)),
        cause: format!("{} is at its {end} power and has no more to turn.", light.name),
    }
}

pub(super) fn meters_itself(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light(plan);
    Words {
        title: "its automatic sees the light itself".to_owned(),
        cause: format!(
            "It shines from behind towards the lens: the meter takes its face for the picture and gives less than {}, by \
             what no forecast knows. Set it by hand.",
            placed(seen.lights[index].on_set.placement)
        ),
    }
}

/// What the tones before the lens do to the automatics that light the subject; nothing where there is none, or it was told.
pub(super) fn metered(case: Case) -> Option<String> {
    let Case { plan, seen } = case;
    let told = |light: usize| plan.settings.lights[light].bias;
    let frontal = seen.firing().filter(|(light, _)| plan.lights[*light].is_frontal());
    let (light, bias) = { frontal }.find_map(|(light, _)| Some((light, told(light)?)))?;
    let asked = plan.metered_bias;
    // Where the tones are those of a grey card, what is set is somebody's own wish.
    let fooled = asked.as_stops().abs() > 0.05;
    (fooled && (bias - asked).as_stops().abs() > 0.05).then(|| {
        let tones = if asked > Stops::ZERO { "lighter" } else { "darker" };
        format!(
            " The automatic of {} takes what is before it for 18 %, and it is {tones}: it asks for {}, {} is set.",
            plan.lights[light].label,
            signed(asked.as_stops()),
            signed(bias.as_stops())
        )
    })
}

pub(super) fn shaken(Case { plan, seen }: Case) -> Words {
    Words {
        title: format!("The hand draws {}", px(plan.pixels(seen.camera.shake * seen.run.time))),
        cause: format!(
            "Unsteady by {:.1}° a second while {} is open, and steady light makes {} of the picture.",
            plan.movement.shake.to_degrees(),
            plan.settings.shutter.label(plan.body.grid),
            super::percent(seen.subject.steady_share)
        ),
    }
}

pub(super) fn bad_surface(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light(plan);
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
        title: "better not by way of this surface".to_owned(),
        cause: format!(
            "{} against straight light: {why}. Bring a white panel or light straight.",
            signed(loss.as_stops())
        ),
    }
}

pub(super) fn apart(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let part = flaw.part();
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

pub(super) fn unreached(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let part = flaw.part();
    Words {
        title: format!("{}: no flash reaches it", plan.parts[part].name),
        cause: format!("It stands at {} while the subject is wanted at {}.", level(seen, part), target(plan)),
    }
}

fn level(seen: &crate::outlook::Outlook, part: usize) -> String {
    placed(seen.parts[part].ghost.through.placement())
}

fn target(plan: &crate::plan::Plan) -> String {
    signed(plan.targets.subject.as_stops())
}

pub(super) fn candidates<'a>(Case { plan, seen }: Case<'a>, lights: &[usize], matter: Matter) -> Ideas<'a> {
    let set = plan.settings;
    let index = lights.first().copied().unwrap_or(plan.key);
    Ideas::of(match matter {
        Matter::Fires => {
            let heard = each(plan, lights, |plan, light| {
                let lights = plan.settings.lights.with(light, |dial| dial.channel = plan.channel);
                Some(Settings { lights, ..plan.settings })
            })
            .unwrap_or(set);
            // Where they are too many for the exposure, all of them give way.
            let then = crate::outlook::outlook(&plan.with(heard));
            let steady = then.ambient.placement.as_ratio();
            let flash = then.subject.read_by(plan.targets.reads).as_ratio() - steady;
            let times = (plan.targets.subject.as_ratio() - steady) / flash;
            let together = (times.is_finite() && times > 0.0).then(|| super::clicks::follow_all(plan, heard, times));
            vec![Idea::moving_one([Some(heard), together.flatten()])]
        }
        Matter::Rim => {
            let weaker = each(plan, lights, |plan, light| {
                let over = (seen.lights[light].seen() - seen.key().in_frame.placement).as_stops();
                let power = plan.settings.lights[light].power * (-over).exp2();
                power_near(plan, light, power).map(|power| at_power(plan, light, power))
            });
            vec![Idea::moving_one([weaker])]
        }
        // The automatic follows the ISO, which is what it lacks or has too much of.
        Matter::Automatic => {
            let side = if seen.lights[index].automatic_short > Stops::ZERO { 1 } else { -1 };
            let turned = (1..=12)
                .map(move |clicks| super::clicks::iso_by(plan, side * clicks).map(|iso| Settings { iso, ..set }));
            vec![Idea::moving_one(turned)]
        }
        // By hand at the power that it would have found.
        Matter::MetersItself => {
            let by_hand = each(plan, lights, |plan, light| {
                let power = power_near(plan, light, seen.lights[light].power)?;
                let lights = plan.settings.lights.with(light, |dial| (dial.bias, dial.power) = (None, power));
                Some(Settings { lights, ..plan.settings })
            });
            vec![Idea::keeping_flash([by_hand])]
        }
        // A steady hand, or less of what it smears.
        _ => {
            let faster = (1..=18)
                .map(move |clicks| super::clicks::shutter_by(plan, clicks).map(|shutter| Settings { shutter, ..set }));
            let mut ideas = vec![Idea::keeping_flash(faster)];
            ideas.extend(Source::all(plan, seen));
            ideas
        }
    })
}
