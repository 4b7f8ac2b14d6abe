//! The forecast written down: plain data with the unit in every name.
//!
//! `null` for a value in stops is no light at all; `null` for a far limit is infinity.

mod ladder;
mod said;

pub use crate::answers::findings::PartState;
pub use ladder::{Ladder, Rung, RungKind};
pub use said::*;

use crate::answers::conditions::{burst_of, wanted_of};
use crate::answers::findings::parts;
use crate::file::shot::Role;
use crate::outlook::{Burns, Incident, LightOutlook, Outlook, PartOutlook, Pulses, Told, outlook};
use crate::physics::depth::blur_disc;
use crate::physics::exposure::{CLIP_LEVEL, Level, metered_tenths};
use crate::physics::motion::hand_held;
use crate::physics::output::{ESTIMATE_SPAN, colour};
use crate::physics::pulse::{Basis, Durations};
use crate::physics::shutter::high_speed;
use crate::physics::shutter::rows::row_share;
use crate::plan::{Flashes, Part, Plan};
use crate::quantity::scale::{duration_label, meter_words};
use crate::quantity::words::times;
use crate::quantity::{Metres, MetresPerSecond, Seconds, Stops};

/// Rows in the profile of the frame.
const PROFILE_ROWS: usize = 17;

/// Computes and writes down one shot.
pub fn forecast(plan: &Plan) -> Forecast {
    written(plan, &outlook(plan))
}

/// Writes an outlook down.
pub fn written(plan: &Plan, outlook: &Outlook) -> Forecast {
    written_with(plan, outlook, &mut Pulses::default())
}

/// The same with pulses that were solved before.
pub fn written_with(plan: &Plan, outlook: &Outlook, pulses: &mut Pulses) -> Forecast {
    let parts: Vec<PartForecast> =
        plan.parts.iter().zip(&outlook.parts).map(|(part, seen)| part_forecast(plan, outlook, part, seen)).collect();
    let (field_width, field_height) = outlook.field(plan);
    Forecast {
        exposure: exposure(plan, outlook),
        ambient_subject: steady(plan, outlook.ambient, outlook.run.time),
        ambient_background: steady(plan, outlook.background, outlook.run.time),
        lights: (0..outlook.lights.len()).map(|index| light(plan, outlook, index, pulses)).collect(),
        key: plan.key,
        subject: subject(plan, outlook),
        flash: lit(plan, outlook.subject.flash),
        lamps: lamps(plan, outlook),
        colour: colours(plan, outlook),
        spill: lit(plan, outlook.spill),
        background: background(plan, outlook),
        flash_over_ambient_stops: (outlook.subject.flash.placement - outlook.ambient.placement).to_wire(),
        moment: Moment {
            travel_s: outlook.run.travel.as_secs(),
            travel_assumed: plan.body.travel_assumed,
            shutter_s: outlook.run.time.as_secs(),
            end_s: outlook.run.end().as_secs(),
        },
        camera: CameraForecast {
            background_travel_px: plan.pixels(outlook.camera.background_travel),
            background_share: outlook.camera.background_travel / plan.frame().0,
            shake_px: plan.pixels(outlook.camera.shake * outlook.run.time),
            zoom_px: plan.pixels(outlook.camera.zoom_travel),
            hand_held_deg_s: hand_held(&plan.body.sensor).to_degrees(),
        },
        optics: Optics {
            magnification: outlook.magnification,
            pitch_m: plan.body.sensor.pitch().as_metres(),
            allowed_px: plan.pixels(outlook.allowed),
            allowed_m: outlook.allowed.as_metres(),
            field_width_m: field_width.as_metres(),
            field_height_m: field_height.as_metres(),
        },
        depth: Depth {
            near_m: outlook.depth.near.as_metres(),
            far_m: outlook.depth.far.map(Metres::as_metres),
            total_m: outlook.depth.far.map(|far| (far - outlook.depth.near).as_metres()),
            hyperfocal_m: outlook.depth.hyperfocal.as_metres(),
        },
        ladder: ladder::ladder(plan, outlook),
        parts,
    }
}

fn exposure(plan: &Plan, outlook: &Outlook) -> Exposure {
    let set = &plan.settings;
    let grid = plan.body.grid;
    Exposure {
        aperture_f: set.aperture.number(),
        aperture_label: set.aperture.label(grid),
        shutter_s: set.shutter.time().as_secs(),
        shutter_label: set.shutter.label(grid),
        iso: set.iso.number(),
        iso_label: set.iso.label(grid),
        filter_stops: (set.filter + plan.before_lens.loss).as_stops(),
        before_lens: plan.before_lens.said(set.filter),
        reference_lxs: plan.meter.said(outlook.reference.as_lux_seconds()),
    }
}

fn subject(plan: &Plan, outlook: &Outlook) -> SubjectForecast {
    let (of, targets) = (&outlook.subject, &plan.targets);
    let read = of.read_by(targets.reads);
    let wanted = targets.subject;
    let (left, right) = of.cheeks;
    let lit = left.max(right) > Stops::DARK;
    // Where the meter would have to stand for this light: the set aperture, as far off as the exposure is.
    let tenths =
        |read: Stops| ((2.0 * plan.settings.aperture.number().log2() + (read - wanted).as_stops()) * 10.0).round();
    SubjectForecast {
        lead: targets.lead,
        reads: targets.reads,
        lit_side_stops: of.lit_side.to_wire(),
        dome_stops: of.dome.to_wire(),
        left_cheek_stops: left.to_wire(),
        right_cheek_stops: right.to_wire(),
        lighting_ratio: lit.then(|| times(of.ratio())),
        read_stops: read.to_wire(),
        wanted_stops: wanted.as_stops(),
        working_aperture: (read > Stops::DARK).then(|| meter_words(tenths(read) as i32)),
        meter: metered_tenths(outlook.dome_on_set(plan), plan.settings.iso).map(meter_words),
        steady_share: of.steady_share,
    }
}

fn background(plan: &Plan, outlook: &Outlook) -> ToneForecast {
    let level = Level::of_surface(plan.background_reflectance, outlook.background.placement)
        .plus(Level::of_surface(plan.background_reflectance, outlook.spill.placement));
    let word = if level.reads_as_black() {
        "reads as black"
    } else if level.value() >= CLIP_LEVEL {
        "white"
    } else {
        match level.placement().as_stops() {
            dark if dark < -3.0 => "nearly black",
            dim if dim < -1.0 => "dark",
            middle if middle <= 1.0 => "middling",
            _ => "light",
        }
    };
    let place = plan.subject_distance + plan.background_behind;
    let disc = blur_disc(plan.body.focal, plan.settings.aperture, plan.subject_distance, place);
    ToneForecast {
        level_stops: level.placement().to_wire(),
        word: word.to_owned(),
        blur_per_mille: 1e3 * (disc / plan.body.sensor.width),
    }
}

fn supply(plan: &Plan, outlook: &Outlook, index: usize) -> SupplyForecast {
    let of = burst_of(plan, outlook, index);
    let known = |flashes| match flashes {
        Flashes::NotKnown => None,
        whole @ Flashes::Whole(_) => Some(whole.count()),
    };
    let mut said = Vec::new();
    said.extend(of.ready.map(|ready| format!("ready in {}", spoken_time(ready))));
    if let Some(burst) = plan.burst.filter(|burst| burst.frames > 1) {
        said.push(match known(of.whole) {
            None => "nobody knows its burst".to_owned(),
            Some(None) => format!("holds {} frames a second", burst.rate),
            Some(Some(whole)) if whole >= u64::from(burst.frames) => format!("holds all {} frames", burst.frames),
            Some(Some(whole)) => format!("{whole} of {} frames whole", burst.frames),
        });
        if let Some(action) = burst.action.filter(|action| *action > burst.lasts()) {
            said.push(format!("{} of the action after the last frame", spoken_time(action - burst.lasts())));
        }
    }
    said.extend(known(of.on_a_charge).flatten().map(|flashes| format!("{flashes} flashes on a charge")));
    said.extend(of.until_hot.flatten().map(|flashes| format!("hot after {flashes}")));
    SupplyForecast {
        ready_s: of.ready.map(Seconds::as_secs),
        whole_frames: known(of.whole),
        frames_stops: of.frames.iter().map(|loss| loss.to_wire()).collect(),
        until_hot: of.until_hot,
        on_a_charge: known(of.on_a_charge),
        said: said.join(", "),
    }
}

/// A time as one waits for it.
fn spoken_time(time: Seconds) -> String {
    match time.as_secs() {
        short if short < 0.1 => format!("{:.0} ms", short * 1e3),
        middling if middling < 10.0 => format!("{middling:.1} s"),
        long => format!("{long:.0} s"),
    }
}

fn lit(plan: &Plan, source: Incident) -> PlacedLight {
    PlacedLight {
        illuminance_lx: None,
        exposure_lxs: plan.meter.said(source.exposure.as_lux_seconds()),
        placement_stops: source.placement.to_wire(),
    }
}

fn steady(plan: &Plan, source: Incident, time: Seconds) -> PlacedLight {
    PlacedLight { illuminance_lx: Some(plan.meter.said((source.exposure / time).as_lux())), ..lit(plan, source) }
}

fn light(plan: &Plan, outlook: &Outlook, index: usize, pulses: &mut Pulses) -> LightForecast {
    let (of, dial, seen) = (&plan.lights[index], &plan.settings.lights[index], &outlook.lights[index]);
    let kelvin = of.kelvin(seen.power);
    LightForecast {
        label: of.label.clone(),
        spoken: of.spoken.clone(),
        role: of.role,
        fires: seen.fires,
        silent: if !of.on {
            Some("off".to_owned())
        } else if seen.fires {
            None
        } else {
            Some(match of.channels {
                Some(channels) if dial.channel > channels => {
                    format!("set to channel {}, and its trigger has {channels}", dial.channel)
                }
                _ => format!("listens on channel {}, the trigger sends on {}", dial.channel, plan.channel),
            })
        },
        flash: flash(plan, outlook, index, seen),
        ratio: (index != plan.key).then(|| ratio(seen.in_frame.placement - outlook.key().in_frame.placement)).flatten(),
        grazing_stops: (of.role == Role::Rim).then(|| seen.grazing.as_stops()),
        pulse: pulse(plan, index, seen, pulses.told(plan, index, (seen.power, &seen.pulse))),
        firing: Firing {
            sync: dial.sync,
            ignition_s: seen.ignition.at.as_secs(),
            lag_s: of.lag.as_secs(),
            rear_acts_as_front: seen.ignition.rear_acts_as_front,
        },
        rows: rows(plan, outlook, seen),
        supply: supply(plan, outlook, index),
        kelvin,
        hue: colour::hue_word(outlook.flash_tint(plan, index)).filter(|_| of.dye() != colour::CLEAR),
        mired: colour::shift_between(plan.white_balance, kelvin),
    }
}

/// As said on a set: the weaker of the two is one.
fn ratio(stops: Stops) -> Option<String> {
    let stops = stops.to_wire()?;
    let times = stops.abs().exp2();
    let written = if times < 9.95 { format!("{:.1}", times) } else { format!("{times:.0}") };
    let written = written.strip_suffix(".0").unwrap_or(&written);
    Some(if stops > 0.0 { format!("{written}:1") } else { format!("1:{written}") })
}

fn lamps(plan: &Plan, outlook: &Outlook) -> Vec<LampForecast> {
    let lamp = |seen: &crate::outlook::SteadyOutlook| {
        let (lamp, name) = match seen.of {
            Burns::Lamp(index) => (Some(plan.lamps[index].place), plan.lamps[index].name.clone()),
            Burns::Modelling(index) => (None, format!("modelling lamp of {}", plan.lights[index].label)),
        };
        let drawn = plan.parts.iter().zip(&outlook.parts).enumerate();
        LampForecast {
            lamp,
            name,
            placement_stops: seen.on_subject.placement.to_wire(),
            background_stops: seen.on_background.placement.to_wire(),
            illuminance_lx: plan.meter.said((seen.on_subject.exposure / outlook.run.time).as_lux()),
            kelvin: seen.kelvin,
            hue: colour::hue_word(outlook.steady_tint(plan, seen)).filter(|_| seen.dye != colour::CLEAR),
            mired: colour::shift_between(plan.white_balance, seen.kelvin),
            draws_on: drawn
                .filter(|(part, (_, of_part))| seen.of.reaches(plan, *part) && of_part.draws)
                .map(|(_, (part, _))| part.name.clone())
                .collect(),
        }
    };
    outlook.steady.iter().map(lamp).collect()
}

/// Colours this close are not told apart in a picture, in mired.
const ALIKE: f64 = 12.0;

fn colours(plan: &Plan, outlook: &Outlook) -> Colours {
    let key = plan.key_light().kelvin(outlook.key().power);
    // All steady light on the subject, each by its share; in mired colours mix nearly evenly.
    let burning = outlook.steady.iter().map(|lamp| (lamp.kelvin, lamp.on_subject.exposure.as_lux_seconds()));
    let steady = burning.chain([(plan.ambient_kelvin, outlook.room.exposure.as_lux_seconds())]);
    let (sum, total) =
        steady.fold((0.0, 0.0), |(sum, total), (kelvin, light)| (sum + light * 1e6 / kelvin, total + light));
    let trail = if total > 0.0 { 1e6 * total / sum } else { plan.ambient_kelvin };
    let against = colour::shift_between(key, trail);
    // Behind dyes there is no warmer and cooler: colours have names.
    let dyed = plan.key_light().dye() != colour::CLEAR || outlook.steady.iter().any(|lamp| lamp.dye != colour::CLEAR);
    let hue = |tint| colour::hue_word(tint).unwrap_or("white");
    let (trail_hue, key_hue) = (hue(outlook.ambient_tint(plan, None)), hue(outlook.flash_tint(plan, plan.key)));
    let (word, said) = match against {
        _ if dyed && trail_hue != key_hue => (trail_hue, format!("{trail_hue} beside a key in {key_hue}")),
        _ if dyed => ("alike", format!("{trail_hue} as the key")),
        a if a.abs() < ALIKE => ("alike", "in the colour of the key".to_owned()),
        a => {
            let word = if a > 0.0 { "warmer" } else { "cooler" };
            (word, format!("{:.0} mired {word} than the key", a.abs()))
        }
    };
    Colours {
        white_balance_k: plan.white_balance,
        ambient_k: plan.ambient_kelvin,
        ambient_mired: colour::shift_between(plan.white_balance, plan.ambient_kelvin),
        trail_against_key_mired: against,
        trail_word: word.to_owned(),
        trail_said: said,
    }
}

fn flash(plan: &Plan, outlook: &Outlook, index: usize, seen: &LightOutlook) -> FlashLight {
    let (of, dial) = (&plan.lights[index], &plan.settings.lights[index]);
    let by_joules = of.unit.entry.is_estimate();
    FlashLight {
        output_lxs_m2: plan.meter.said(of.throw.output.as_lux_seconds_square_metres()),
        output_estimated: of.unit.output_estimated,
        output_low_stops: by_joules.then_some(ESTIMATE_SPAN.0),
        output_high_stops: by_joules.then_some(ESTIMATE_SPAN.1),
        power: seen.power,
        power_label: of.unit.dial.label(seen.power),
        automatic_short_stops: dial.bias.and(seen.automatic_short.to_wire()),
        heads: dial.heads,
        distance_m: dial.distance.as_metres(),
        modifier_stops: (of.throw.modifier + of.gel - of.feathered).to_wire().unwrap_or(0.0),
        gel_stops: (of.gel > Stops::ZERO).then(|| of.gel.as_stops()),
        feathered_stops: (of.feathered != Stops::ZERO).then(|| of.feathered.to_wire()).flatten(),
        bounce_stops: of.bounce_loss(dial.distance).and_then(Stops::to_wire),
        high_speed_stops: seen.high_speed.map(Stops::as_stops),
        exposure_lxs: plan.meter.said(seen.on_set.exposure.as_lux_seconds()),
        on_set_stops: seen.on_set.placement.to_wire(),
        in_frame_stops: seen.in_frame.placement.to_wire(),
        share: seen.share,
        metered_stops: Stops::from_ratio(of.throw.output / (of.unit.entry.output() * of.unit.share))
            .to_wire()
            .filter(|by| by.abs() > 1e-9),
        meter: metered_tenths(seen.on_set.exposure, plan.settings.iso).map(meter_words),
        wanted_stops: wanted_of(plan, outlook, index).and_then(Stops::to_wire),
    }
}

fn pulse(plan: &Plan, index: usize, seen: &LightOutlook, told: Told) -> PulseForecast {
    let at = &seen.pulse;
    let [t05_span_s, t01_span_s] = at.spans.map(|(from, to)| [from.as_secs(), to.as_secs()]);
    let Durations { t05, t01, t90 } = told.durations;
    PulseForecast {
        t05_s: t05.as_secs(),
        t01_s: t01.as_secs(),
        t90_s: t90.as_secs(),
        t05_label: duration_label(t05),
        t01_label: duration_label(t01),
        t90_label: duration_label(t90),
        school: plan.school,
        freeze_s: seen.freeze.map(Seconds::as_secs),
        freeze_label: seen.freeze.map_or_else(|| "not in the frame".to_owned(), duration_label),
        length_s: seen.length.as_secs(),
        origin: plan.lights[index].unit.origin_of(at),
        beyond_recordings: at.basis == Basis::Beyond,
        outside_table: at.outside_table,
        estimated: at.estimated,
        misfit: at.misfit,
        curve_end_s: told.end.as_secs(),
        curve_level: told.levels.to_vec(),
        t05_span_s,
        t01_span_s,
    }
}

fn rows(plan: &Plan, outlook: &Outlook, seen: &LightOutlook) -> RowsForecast {
    let report = &seen.rows;
    let share = |k: usize| match seen.high_speed {
        Some(_) => 1.0,
        None => {
            let y = k as f64 / (PROFILE_ROWS - 1) as f64;
            row_share(outlook.run, &seen.pulse.pulse, seen.ignition.at, y)
        }
    };
    RowsForecast {
        first_share: report.first,
        middle_share: report.middle,
        last_share: report.last,
        worst_stops: report.worst.to_wire(),
        worst_edge: report.edge,
        touched_share: report.touched,
        black_share: report.black,
        profile_share: (0..PROFILE_ROWS).map(share).collect(),
        usable_sync_s: seen.usable_sync.map(|time| time.time().as_secs()),
        usable_sync_label: seen.usable_sync.map(|time| time.label(plan.body.grid)),
        rated_sync_s: plan.body.rated_sync.time().as_secs(),
    }
}

/// What the movement in time does within the exposure.
fn in_time(plan: &Plan, outlook: &Outlook, part: &Part, seen: &PartOutlook) -> Option<PartInTime> {
    let (phases, pauses) = (part.phases?, seen.pauses?);
    let (opens, time) = (plan.timing.opens, outlook.run.time);
    let flashes = outlook.firing().filter(|(light, _)| plan.lights[*light].reaches(plan.index_of(part)));
    let flash = |(light, of): (usize, &LightOutlook)| FlashInTime {
        light: plan.lights[light].label.clone(),
        at_s: of.ignition.at.as_secs(),
        place_m: phases.place(opens + of.ignition.at),
        speed_m_s: phases.speed(opens + of.ignition.at),
    };
    Some(PartInTime {
        lasts_s: phases.lasts().as_secs(),
        begins_s: phases.begins().map(Seconds::as_secs).collect(),
        from_m: phases.place(opens),
        to_m: phases.place(opens + time),
        way_m: phases.way(opens, opens + time).as_metres(),
        rest_at_start: pauses.at_start,
        rest_at_end: pauses.at_end,
        rest_between: pauses.between,
        flashes: flashes.map(flash).collect(),
    })
}

fn part_forecast(plan: &Plan, outlook: &Outlook, part: &Part, seen: &PartOutlook) -> PartForecast {
    let px = |length| plan.pixels(length);
    let ghost = &seen.ghost;
    let nearer = part.speed * part.out_of_plane.as_radians().sin().abs();
    let zone = outlook.depth.far.map(|far| far - outlook.depth.near);
    PartForecast {
        name: part.name.clone(),
        intent: part.intent,
        image_speed_m_s: seen.motion.speed.as_metres_per_second(),
        image_speed_px_s: px(seen.motion.speed * Seconds::from_secs(1.0)),
        blur_px: px(seen.blur),
        drawn_by: seen.drawn_by,
        steady_share: seen.steady_share,
        in_focus_s: zone
            .filter(|_| nearer > MetresPerSecond::ZERO)
            .map(|zone| zone.as_metres() / nearer.as_metres_per_second()),
        flash_blur_px: seen.freeze.map(|_| px(seen.flash_blur)),
        flash_travel_m: seen.freeze.map_or(0.0, |freeze| seen.way(part, outlook, freeze).as_metres()),
        slowest: seen.slowest.map(|light| plan.lights[light].label.clone()),
        apart_px: px(seen.apart),
        sharpness: seen.sharpness,
        ambient_travel_px: px(seen.travel),
        ambient_travel_m: seen.way(part, outlook, outlook.run.time).as_metres(),
        streak_px: px(seen.streak),
        streak_share: seen.streak_share,
        lean_px: px(high_speed::lean(outlook.run, seen.motion.speed)),
        growth: seen.growth,
        dwell: ghost.dwell,
        ambient_level: seen.tones.part_ambient.value(),
        flash_level: seen.tones.part_flash.value(),
        edge_stops: seen.edge.placement().to_wire(),
        plain_level: ghost.plain.value(),
        beside_level: ghost.beside.value(),
        through_level: ghost.through.value(),
        beside_stops: ghost.beside.placement().to_wire(),
        through_stops: ghost.through.placement().to_wire(),
        delta_lightness: ghost.delta_lightness,
        visibility: ghost.visibility(),
        draws: seen.draws,
        state: parts::state(plan, part, seen),
        wanted_streak_share: plan.wanted_streak(part),
        wanted_streak_m: plan.wanted_streak_long(part).map(Metres::as_metres).filter(|long| long.is_finite()),
        blur_px_slowest: seen.slowest_end.map(|end| px(end.blur)),
        streak_share_slowest: seen.slowest_end.map(|end| end.streak_share),
        by_camera_px: Some((seen.motion.swing + seen.motion.shake) * outlook.run.time + seen.motion.zoom)
            .filter(|drawn| drawn.as_metres() > 0.0)
            .map(px),
        in_time: in_time(plan, outlook, part, seen),
    }
}
