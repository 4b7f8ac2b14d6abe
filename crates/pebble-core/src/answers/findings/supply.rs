//! What the kit does not carry: units that are not there, triggers that do not reach, bursts that do not hold.

use super::clicks::{aperture_by, iso_by, power_by_iso};
use super::ideas::{Idea, Ideas};
use super::{Case, Flaw, Words};
use crate::answers::conditions::burst_of;
use crate::answers::strips;
use crate::quantity::{Stops, scale::duration_label};

pub(super) fn owned(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let light = &plan.lights[flaw.light(plan)];
    let owned = light.owned.unwrap_or(1);
    Words {
        title: format!("{:.0} × {} are used, {owned} owned", flaw.measure, light.name),
        cause: "The kit says so; a borrowed one can be entered there.".to_owned(),
    }
}

pub(super) fn out_of_range(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let light = &plan.lights[flaw.light(plan)];
    let range = light.range.map_or(0.0, crate::quantity::Metres::as_metres);
    let how = if light.channels.is_some() { "its trigger reaches" } else { "its cord is" };
    Words {
        title: format!("{} from the camera, {how} {}", plan.lengths.say(flaw.measure, 1), plan.lengths.say(range, 1)),
        cause: "The distance is from the camera to the light, straight across the set.".to_owned(),
    }
}

pub(super) fn groups(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let light = &plan.lights[flaw.light(plan)];
    Words {
        title: format!("{:.0} groups are used, its trigger has {}", flaw.measure, light.groups.unwrap_or(1)),
        cause: "Lights beyond them would follow another group's settings.".to_owned(),
    }
}

pub(super) fn burst(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light(plan);
    let burst = burst_of(plan, seen, index);
    let meant = plan.burst.map_or((1, 1.0), |burst| (burst.frames, burst.rate));
    let first = burst.frames.iter().position(|loss| *loss < Stops::ZERO);
    let how = first.map_or_else(String::new, |frame| {
        let loss = burst.frames[frame];
        let how = if loss == Stops::DARK { "missing".to_owned() } else { format!("dim by {:.1}", -loss.as_stops()) };
        format!("Frame {} is {how}. ", frame + 1)
    });
    let power = plan.lights[index].unit.dial.label(seen.lights[index].power);
    Words {
        title: format!("{:.0} of {} frames at {} a second get a whole flash", flaw.measure, meant.0, meant.1),
        cause: burst.ready.map_or_else(
            || format!("{how}At {power} it is too soon for the unit."),
            |ready| format!("{how}At {power} it is ready again after {}.", duration_label(ready)),
        ),
    }
}

pub(super) fn candidates<'a>(Case { plan, .. }: Case<'a>, flaw: &Flaw) -> Ideas<'a> {
    let index = flaw.light(plan);
    let set = plan.settings.lights[index].power;
    let weaker = || strips::powers(&plan.lights[index]).rev().filter(move |power| *power < set);
    let half = move |power: f64| {
        let clicks = super::clicks::clicks_of(plan, Stops::from_ratio(set / power)) / 2;
        let aperture = aperture_by(plan, -clicks)?;
        let with = plan.with(crate::plan::Settings { aperture, ..plan.settings });
        iso_by(&with, clicks)?;
        super::clicks::power_by_aperture(plan, index, power)
    };
    Ideas::of(vec![
        Idea::keeping_flash(weaker().map(move |power| power_by_iso(plan, index, power))),
        Idea::keeping_flash(weaker().map(half)),
    ])
}
