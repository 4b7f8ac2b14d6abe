//! Exposure: a key or a steady light away from its target, parts beyond white.

use super::remedy::{Candidates, at_power, iso_with_power, power_near, shutter_by};
use super::{Case, Condition, Flaw, Kind, Severity, Words, signed, stops};
use crate::answers::conditions::NO_LIGHT;
use crate::answers::strips;
use crate::physics::exposure::CLIP_LEVEL;
use crate::plan::{Dial, Settings};
use crate::quantity::{LuxSeconds, Stops};

/// A stop is a different picture.
const DIFFERENT_PICTURE: f64 = 1.0;
fn key_miss(Case { plan, seen }: Case) -> f64 {
    (seen.key().lit.placement - plan.key_target).as_stops().max(NO_LIGHT)
}

fn ambient_miss(Case { plan, seen }: Case) -> Option<f64> {
    plan.ambient_target.map(|target| (seen.ambient.placement - target).as_stops().max(NO_LIGHT))
}

/// Of a placement away from its target.
pub(super) fn off_flaw(kind: Kind, condition: &Condition) -> Flaw {
    let miss = condition.measure.abs();
    let severity = if miss > DIFFERENT_PICTURE { Severity::Trouble } else { Severity::Watch };
    Flaw::of_shot(kind, severity, miss)
}

pub(super) fn clip_flaw(condition: &Condition) -> Option<Flaw> {
    Some(Flaw::of_part(Kind::Clips, condition.part?, Severity::Watch, condition.measure))
}

pub(super) fn clips(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.part.unwrap_or_default();
    let part = &plan.parts[index];
    let over = (seen.parts[index].ghost.through.value() / CLIP_LEVEL).log2();
    Words {
        title: format!("{}: {} beyond white", part.name, stops(over)),
        cause: format!(
            "A tone of {:.0} % under flash {} and ambient {}.",
            part.reflectance * 100.0,
            spoken(seen.flash.placement + part.flash_offset),
            spoken(seen.ambient.placement + part.ambient_offset)
        ),
    }
}

pub(super) fn ambient_off(case @ Case { plan, seen }: Case) -> Words {
    let miss = ambient_miss(case).unwrap_or_default();
    Words {
        title: format!("Ambient is {} {} its target", stops(miss), if miss > 0.0 { "above" } else { "below" }),
        cause: format!(
            "{:.0} lx in {} at this exposure.",
            (seen.ambient.exposure / seen.run.time).as_lux(),
            plan.settings.shutter.label(plan.body.grid)
        ),
    }
}

pub(super) fn key_off(case @ Case { plan, seen }: Case) -> Words {
    let miss = key_miss(case);
    let key = seen.key();
    let glow =
        key.high_speed.map(|loss| format!(" High-speed sync takes {}.", stops(loss.as_stops()))).unwrap_or_default();
    Words {
        title: format!("Key is {} {} its target", stops(miss), if miss > 0.0 { "above" } else { "below" }),
        cause: format!(
            "{:.0} lx·s at {:.1} m; {:.0} lx·s put it at {}.{glow}",
            key.lit.exposure.as_lux_seconds(),
            plan.settings.key().distance.as_metres(),
            wanted_exposure(case).as_lux_seconds(),
            signed(plan.key_target.as_stops())
        ),
    }
}

fn spoken(placement: Stops) -> String {
    if placement.as_stops().is_finite() { signed(placement.as_stops()) } else { "off".to_owned() }
}

fn wanted_exposure(Case { plan, seen }: Case) -> LuxSeconds {
    seen.reference * plan.key_target.as_ratio()
}

pub(super) fn candidates(case @ Case { plan, seen }: Case, flaw: &Flaw) -> Vec<Candidates> {
    let set = plan.settings;
    if flaw.kind == Kind::AmbientOff {
        let miss = ambient_miss(case).unwrap_or_default();
        let clicks = super::remedy::clicks_of(plan, Stops::from_stops(miss));
        return vec![
            Candidates::keeping_key([shutter_by(plan, clicks).map(|shutter| Settings { shutter, ..set })]),
            Candidates::keeping_key([iso_with_power(plan, -clicks)]),
        ];
    }
    let missing = -key_miss(case);
    let dial = set.key();
    let turned = |change: &dyn Fn(&mut Dial)| Settings { lights: set.lights.with(plan.key, change), ..set };
    let power = power_near(plan, plan.key, dial.power * missing.exp2()).map(|power| at_power(plan, plan.key, power));
    let bias = dial.bias.map(|bias| turned(&|dial| dial.bias = Some(bias + Stops::from_stops(missing))));
    let glow = seen.key().high_speed.map_or(1.0, Stops::as_ratio);
    let wanted = wanted_exposure(case) / glow;
    let nearest = plan.key_light().distance_for(seen.key().power, dial.heads, wanted).and_then(|wanted| {
        let off = |distance: &crate::quantity::Metres| (*distance / wanted).ln().abs();
        strips::distances().min_by(|a, b| off(a).total_cmp(&off(b)))
    });
    let moved = nearest.map(|distance| turned(&|dial| dial.distance = distance));
    let clicks = super::remedy::clicks_of(plan, Stops::from_stops(missing));
    let iso = super::remedy::iso_by(plan, clicks).map(|iso| Settings { iso, ..set });
    let by_hand = if dial.bias.is_some() { bias } else { power };
    vec![Candidates::moving_key([by_hand]), Candidates::moving_key([moved]), Candidates::moving_key([iso])]
}
