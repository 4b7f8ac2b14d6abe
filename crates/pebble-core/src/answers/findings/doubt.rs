//! Figures that are guesses: said where they decide something.

use super::{Case, Flaw, Kind, Words, signed};
use crate::answers::guesses;
use crate::file::gear::Origin;
use crate::physics::output::ESTIMATE_SPAN;
use crate::physics::pulse::Basis;
use crate::quantity::scale::duration_label;
use crate::quantity::words::capital;

pub(super) fn find(Case { plan, seen }: Case, found: &mut Vec<Flaw>) {
    if plan.guessed_light.is_some() {
        found.push(Flaw::doubt(Kind::LightGuessed, 0.95));
    }
    for (index, light) in seen.firing() {
        // What is said of one unit at one power is said of its twins.
        let like = |(other, twin): (usize, &crate::outlook::LightOutlook)| {
            other < index && plan.lights[other].name == plan.lights[index].name && twin.power == light.power
        };
        if seen.firing().any(like) {
            continue;
        }
        let mut doubt = |kind, hurt| found.push(Flaw { light: Some(index), ..Flaw::doubt(kind, hurt) });
        let (unit, pulse) = (&plan.lights[index].unit, &light.pulse);
        if unit.output_estimated {
            doubt(Kind::EstimatedOutput, 0.9);
        }
        if unit.dial_assumed && light.power < 1.0 || unit.lag_assumed {
            doubt(Kind::UnitNotKnown, 0.3);
        }
        if pulse.outside_table || pulse.estimated || pulse.misfit || unit.origin_of(pulse) == Origin::Estimated {
            doubt(Kind::DoubtfulDuration, 0.5);
        }
    }
}

pub(super) fn estimated_output(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let light = flaw.light(plan);
    Words {
        title: "Output is an estimate".to_owned(),
        cause: if plan.lights[light].unit.entry.is_estimate() {
            format!(
                "Known by its joules only: {} to {} stops. Meter one flash and enter it.",
                signed(ESTIMATE_SPAN.0),
                signed(ESTIMATE_SPAN.1)
            )
        } else {
            "Its figure was entered as a guess. Meter one flash and enter it.".to_owned()
        },
    }
}

pub(super) fn light_guessed(Case { plan, .. }: Case) -> Words {
    let (darker, brighter) = plan.guessed_light.unwrap_or_default();
    let span =
        format!("It may be {} to {} stops from what is typical for the place.", signed(darker), signed(brighter));
    let moved = match guesses::of_light(plan).filter(guesses::Stake::matters) {
        Some(moves) => format!("A reading could move {} by {:.1} stops.", moves.what, moves.stops),
        None => "A reading would hardly move this picture.".to_owned(),
    };
    Words { title: "The steady light is a guess".to_owned(), cause: format!("{span} {moved}") }
}

pub(super) fn doubtful_duration(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let light = flaw.light(plan);
    let seen = &seen.lights[light];
    let power = plan.lights[light].unit.dial.label(seen.power);
    let cause = if seen.pulse.misfit {
        "Its t0.1 is more than 3.35 times its t0.5, which no discharge of this kind does; one of the two is wrong."
            .to_owned()
    } else if seen.pulse.basis == Basis::Beyond {
        format!("{power} lies beyond the recordings of this unit; they are carried on. Record one flash at {power}.")
    } else if seen.pulse.outside_table {
        format!("{power} lies outside the table of this unit; the nearest row is used.")
    } else if seen.pulse.estimated {
        match seen.pulse.t01_range() {
            None => "The table gives t0.1 alone; t0.5 is fitted.".to_owned(),
            // Three times t0.5 is what is said of all flashes, and true of those that run out.
            Some((from, to)) => format!(
                "Only t0.5 is known: t0.1 is somewhere from {} (a switch cuts it at once) to {} (it runs out: the “three times t0.5” of the rule). {} is fitted. A recording would settle it.",
                duration_label(from),
                duration_label(to),
                duration_label(seen.pulse.times.1),
            ),
        }
    } else {
        "The pulse times of this unit are estimated. A photodiode recording would settle it.".to_owned()
    };
    Words { title: format!("Duration at {power} is uncertain"), cause }
}

/// Figures that nobody has entered, and what they cost.
pub(super) fn unit_not_known(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let light = flaw.light(plan);
    let unit = &plan.lights[light].unit;
    let mut costs = Vec::new();
    if unit.dial_assumed {
        let lowest = unit.dial.label((-unit.lowest).as_ratio());
        costs.push(format!(
            "its dial: steps of {:.1} down to {lowest} are assumed, and {} may not be on it",
            unit.step.as_stops(),
            unit.dial.label(seen.lights[light].power)
        ));
    }
    if unit.lag_assumed {
        costs.push(format!(
            "its delay: none is assumed, and a millisecond more cuts rows near {}",
            plan.body.rated_sync.label(plan.body.grid)
        ));
    }
    Words { title: "Not all of it is known".to_owned(), cause: capital(&format!("{}.", costs.join("; "))) }
}
