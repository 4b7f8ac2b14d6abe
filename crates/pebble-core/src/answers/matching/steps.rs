//! A set-up as a chain of steps from joules to pixels, each with its formula, its figures and its page of the model.

use crate::file::shot::Shot;
use crate::plan::Plan;
use crate::quantity::scale::duration_label;
use crate::wire::report;

report! {
    /// One step.
    pub struct Step {
        /// What it gives.
        pub title: String,
        /// The rule.
        pub formula: String,
        /// The same with the figures in it.
        pub figures: String,
        /// What comes out.
        pub result: String,
        /// Page of the model: its file under docs/model.
        pub page: String,
    }

    /// The steps of one light.
    pub struct Chain {
        /// The light, as it is called.
        pub light: String,
        /// From joules to pixels.
        pub steps: Vec<Step>,
    }
}

/// The chains of some flashes of a shot, by their place in its list; of those that fire.
///
/// # Errors
/// [`crate::quantity::bounds::Invalid`] for a shot that cannot be.
pub fn chain(shot: &Shot, lights: &[usize]) -> Result<Vec<Chain>, crate::quantity::bounds::Invalid> {
    let plan = Plan::try_from(shot)?;
    let seen = crate::outlook(&plan);
    let chains = seen
        .firing()
        .filter(|(index, _)| lights.contains(index))
        .map(|(index, _)| Chain { light: plan.lights[index].spoken.clone(), steps: steps(shot, &plan, &seen, index) });
    Ok(chains.collect())
}

fn steps(shot: &Shot, plan: &Plan, seen: &crate::outlook::Outlook, index: usize) -> Vec<Step> {
    let mut steps = Vec::new();
    let mut say = |page: &str, title: &str, formula: &str, figures: String, result: String| {
        steps.push(Step {
            title: title.to_owned(),
            formula: formula.to_owned(),
            figures,
            result,
            page: page.to_owned(),
        });
    };
    let (light, dial, of_light) = (&plan.lights[index], &plan.settings.lights[index], &seen.lights[index]);
    let grid = plan.body.grid;
    let power = of_light.power;
    let written = light.unit.dial.label(power);
    if let Some(joules) = shot.lights[index].unit.energy_j {
        let each = if dial.heads > 1 { " each" } else { "" };
        say(
            "recycling",
            "Energy of a flash",
            "P · W",
            format!("{written} · {joules:.0} J{each}"),
            format!("{:.1} J", joules * power),
        );
    }
    let full = plan.meter.said(light.throw.output.as_lux_seconds_square_metres());
    let gain = (light.throw.modifier).as_stops();
    let thrown = plan.meter.said(light.throw.strength(power) * f64::from(dial.heads));
    say(
        "flash",
        "Light it throws",
        "k · H₁ · 2ᴹ · P",
        format!("{} · {full:.0} lx·s·m² · 2^{} · {written}", dial.heads, signed(gain, 1)),
        format!("{thrown:.0} lx·s·m²"),
    );
    let face = light.throw.face;
    let arrives = light.exposure(power, dial.heads, dial.distance);
    if light.bounce.is_some() {
        say(
            "flash",
            "By way of the surface",
            "Σ ρ · I(θ) · ΔΩ · cos α / (π · d₂²)",
            plan.lengths.say(dial.distance.as_metres(), 1),
            format!("{:.2} lx·s", plan.meter.said(arrives.as_lux_seconds())),
        );
    } else {
        say(
            "flash",
            "Light that arrives",
            "… / ((d + o)² + R²)",
            format!(
                "{thrown:.0} / (({:.1} + {:.2})² + {:.2}²)",
                dial.distance.as_metres(),
                face.offset.as_metres(),
                face.radius.as_metres()
            ),
            format!("{:.2} lx·s", plan.meter.said(arrives.as_lux_seconds())),
        );
    }
    if let Some(loss) = of_light.high_speed {
        say(
            "rows",
            "High-speed sync",
            "η · t / (Tx + t)",
            format!(
                "{:.2} · {} / ({:.1} ms + …)",
                light.unit.efficiency,
                plan.settings.shutter.label(grid),
                plan.body.travel.as_millis()
            ),
            format!("{} stops", signed(loss.as_stops(), 1)),
        );
    }
    say(
        "exposure",
        "Light the camera asks for",
        "C · N² / S · 2ᶠ",
        format!(
            "{:.0} · {}² / {} · 2^{:.1}",
            plan.meter.c(),
            plan.settings.aperture.label(grid),
            plan.settings.iso.label(grid),
            (plan.settings.filter + plan.before_lens.loss).as_stops()
        ),
        format!("{:.2} lx·s", plan.meter.said(seen.reference.as_lux_seconds())),
    );
    say(
        "exposure",
        "Where it falls",
        "log₂(H / H_ref)",
        format!(
            "log₂({:.2} / {:.2})",
            plan.meter.said(of_light.in_frame.exposure.as_lux_seconds()),
            plan.meter.said(seen.reference.as_lux_seconds())
        ),
        format!("{} stops", signed(of_light.in_frame.placement.as_stops(), 2)),
    );
    say(
        "pulse",
        "How long it shines",
        if of_light.high_speed.is_some() { "the shutter's time" } else { plan.school.label() },
        format!("{} at {written}", light.name),
        of_light.freeze.map_or_else(|| "no row sees it".to_owned(), duration_label),
    );
    if of_light.high_speed.is_none() {
        let worst = of_light.rows.worst.as_stops();
        say(
            "rows",
            "Rows that are lit",
            "Φ(close − t_f) − Φ(open − t_f)",
            format!(
                "fires at {:.2} ms, first row closes at {:.2} ms",
                of_light.ignition.at.as_millis(),
                seen.run.close(0.0).as_millis()
            ),
            if of_light.rows.touched > 0.0 {
                format!("{:.0} % lack some, worst {worst:.1}", of_light.rows.touched * 100.0)
            } else {
                "all of them".to_owned()
            },
        );
    }
    let reached = plan.parts.iter().zip(&seen.parts).enumerate().filter(|(part, _)| light.reaches(*part));
    let strict = reached
        .filter_map(|(_, (part, of_part))| Some((part, of_part, part.intent.blur_limit(seen.allowed)?)))
        .min_by(|a, b| (a.2 / a.1.motion.speed).as_secs().total_cmp(&(b.2 / b.1.motion.speed).as_secs()));
    if let Some((part, of_part, limit)) = strict {
        let pitch = plan.body.sensor.pitch();
        let speed = of_part.motion.blurs_by(seen.run.time);
        say(
            "movement",
            "How fast its image moves",
            "v · cos ψ · f / (d − f)",
            format!("{}: {:.1} m/s · {:.4}", part.name, part.speed.as_metres_per_second(), seen.magnification),
            format!("{:.1} mm/s", speed.as_metres_per_second() * 1e3),
        );
        let freeze = of_light.freeze.unwrap_or(crate::quantity::Seconds::ZERO);
        let blur = speed * freeze;
        say(
            "movement",
            "How far it moves meanwhile",
            "u · t / pitch",
            format!(
                "{:.1} mm/s · {} / {:.2} µm",
                speed.as_metres_per_second() * 1e3,
                duration_label(freeze),
                pitch.as_millimetres() * 1e3
            ),
            format!("{:.1} px of {:.1} allowed", blur / pitch, limit / pitch),
        );
    }
    steps
}

/// With its sign, a true minus.
fn signed(value: f64, decimals: usize) -> String {
    format!("{}{:.decimals$}", if value < 0.0 { '−' } else { '+' }, value.abs())
}
