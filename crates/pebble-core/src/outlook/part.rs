//! One part of the subject under all lights: its blur, its trail, its tones.

use super::light::Falls;
use super::subject::{Arrivals, OnPart, flash_on_part};
use super::{LightOutlook, Outlook, Pulses};
use crate::physics::exposure::Level;
use crate::physics::ghost::{Ghost, Tones, ghost, ramp};
use crate::physics::motion::{ImageMotion, Sharpness, Timed, growth, image_speed};
use crate::physics::phases::Pauses;
use crate::physics::shutter::SyncMode;
use crate::physics::subject::on_dome;
use crate::plan::{Part, Plan};
use crate::quantity::{Angle, LuxSeconds, Metres, MetresPerSecond, Seconds, Stops};

/// A light with less than this share of all flash on a part sets neither its blur nor its images: an eighth.
pub(crate) const DRAWS_FROM: f64 = 0.125;

/// Which light makes the picture of a part, as far as its blur goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, serde::Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum DrawnBy {
    /// A flash: its pulse, or the shutter where it glows.
    Flash,
    /// The steady light: the shutter.
    Steady,
    /// Nothing that could be seen.
    Nothing,
}

/// What will happen to one part.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PartOutlook {
    /// How its image moves on the sensor, `u` and what the camera adds.
    pub motion: ImageMotion,
    /// Blur of the flash layer on the sensor: the longest of the lights that draw it; none where no flash does.
    pub flash_blur: Metres,
    /// Share of the steady light in its picture.
    pub steady_share: f64,
    /// Its blur in the picture: of the layer that makes it, weighted by how much of it that layer makes.
    pub blur: Metres,
    /// Which layer that is.
    pub drawn_by: DrawnBy,
    /// Where its lit side faces: right, to the camera, up.
    pub facing: [f64; 3],
    /// Which light that is; nothing where no flash reaches the part.
    pub slowest: Option<usize>,
    /// How long that one lasts for the part's own rows.
    pub freeze: Option<Seconds>,
    /// How far apart the images of the earliest and the latest of these lights stand.
    pub apart: Metres,
    /// How that looks.
    pub sharpness: Sharpness,
    /// `u·t`, how far its image moves while a row is open, with what zooming draws.
    pub travel: Metres,
    /// `ℓ`: the same, a round path counted once.
    pub streak: Metres,
    /// Share of the frame's width that the streak covers.
    pub streak_share: f64,
    /// Growth while the shutter is open, as a share.
    pub growth: f64,
    /// The four tones.
    pub tones: Tones,
    /// Its edge under the rims, as bright as it looks.
    pub edge: Level,
    /// The ghost.
    pub ghost: Ghost,
    /// Whether the path is long enough to count as a ghost at all.
    pub draws: bool,
    /// The same of the slowest that it may be, where that is another.
    pub slowest_end: Option<SlowEnd>,
    /// Of a movement in time: what of the exposure is rest.
    pub pauses: Option<Pauses>,
}

/// Blur and streak at the slow end of what a part's speed may be.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SlowEnd {
    /// Blur in the picture.
    pub blur: Metres,
    /// Share of the frame's width that the streak covers.
    pub streak_share: f64,
}

impl PartOutlook {
    pub(super) fn of(plan: &Plan, seen: &Outlook, (index, part): (usize, &Part), pulses: &mut Pulses) -> Self {
        let shutter = plan.settings.shutter;
        let time = shutter.time();
        let mut motion = self::motion(plan, seen, part, part.speed);
        let mut arrives: OnPart = [None; _];
        for (light, of) in seen.lights.iter().enumerate().filter(|(light, _)| plan.lights[*light].reaches(index)) {
            arrives[light] = Some(of.in_rows(plan, light, seen.run, plan.part_rows[index], pulses));
        }
        let drawn = drawn(plan, seen, &arrives, &motion);
        if let (Some(timed), Some((light, _))) = (motion.timed, drawn.slowest) {
            motion = motion.at_speed(timed.image_speed(seen.lights[light].ignition.at));
        }
        let flash_blur = drawn.slowest.map_or(Metres::ZERO, |(_, freeze)| motion.blur(freeze, time));
        let moved = motion.moved(time);
        let flash = drawn.slowest.map(|(light, _)| seen.lights[light].ignition.at);
        let (streak, dwell) = motion.draws_beside(part.size * seen.magnification, time, flash);
        let (frontal, facing) = flash_on_part(plan, &seen.lights, &arrives);

        let level = |exposure: LuxSeconds, offset: Stops| {
            Level::of_light(part.reflectance, exposure, seen.reference).times(offset.as_ratio())
        };
        let own =
            part.luminance.map_or(Level::BLACK, |luminance| Level::of_luminance(luminance, shutter, seen.reference));
        let surface = |exposure| Level::of_light(plan.background_reflectance, exposure, seen.reference);
        let tones = Tones {
            part_ambient: level(seen.room.exposure, part.ambient_offset)
                .plus(level(lamps(plan, seen, index), Stops::ZERO))
                .plus(own),
            part_flash: level(frontal, part.flash_offset),
            background_ambient: surface(seen.background.exposure),
            background_flash: surface(seen.spill.exposure),
        };
        let ghost = ghost(dwell, ramp(streak, seen.allowed), tones);
        let steady_share = steady_share(tones.part_ambient, level(drawn.on_dome, part.flash_offset));
        let counts = counts(steady_share);
        // What reads as black has no edge that could be soft.
        let dark = ghost.through.reads_as_black() && drawn.slowest.is_none();
        let in_picture = |flash_blur: Metres, moved: Metres| {
            let (of_flash, of_steady) = (flash_blur * counts.0, moved * counts.1);
            match drawn.slowest {
                None if dark => (Metres::ZERO, DrawnBy::Nothing),
                Some(_) if of_flash >= of_steady => (of_flash, DrawnBy::Flash),
                _ => (of_steady, DrawnBy::Steady),
            }
        };
        let (blur, drawn_by) = in_picture(flash_blur, moved);
        let slowest_end = part.slowest.filter(|_| part.phases.is_none()).map(|slowest| {
            let slow = self::motion(plan, seen, part, slowest);
            let flash_blur = drawn.slowest.map_or(Metres::ZERO, |(_, freeze)| slow.blur(freeze, time));
            SlowEnd {
                blur: in_picture(flash_blur, slow.moved(time)).0,
                streak_share: slow.streak(time) / plan.frame().0,
            }
        });
        Self {
            motion,
            flash_blur,
            steady_share,
            blur,
            drawn_by,
            facing,
            slowest: drawn.slowest.map(|(light, _)| light),
            freeze: drawn.slowest.map(|(_, freeze)| freeze),
            apart: drawn.apart,
            sharpness: Sharpness::of(blur, seen.allowed),
            travel: if motion.timed.is_some() { moved } else { motion.speed * time + motion.zoom },
            streak,
            streak_share: streak / plan.frame().0,
            growth: growth(part.speed, part.out_of_plane, shutter.time(), plan.subject_distance),
            tones,
            edge: level(drawn.edge, part.flash_offset),
            ghost,
            draws: streak > seen.allowed,
            slowest_end,
            pauses: part.phases.map(|phases| phases.pauses(plan.timing.opens, plan.timing.opens + time)),
        }
    }
}

impl PartOutlook {
    /// How far a part moves in the scene in a time; what the camera draws counts as if the part moved so far where it stands.
    pub(crate) fn way(&self, part: &Part, seen: &Outlook, time: Seconds) -> Metres {
        if self.motion.is_with_the_camera() {
            self.motion.blurs_by(seen.run.time) * time / seen.magnification
        } else {
            part.speed * time
        }
    }
}

/// All flash on a part in rows that get all of it, on a dome that is turned to the camera.
pub(crate) fn flash_in_whole_rows(plan: &Plan, seen: &Outlook, part: usize) -> Level {
    let (of_part, light) = (&plan.parts[part], |index: usize| &seen.lights[index]);
    let falls = |index: usize| seen.reference * (light(index).in_a_whole_row() - light(index).grazing).as_ratio();
    let gets = |index: usize| plan.lights[index].reaches(part).then(|| falls(index));
    let on_dome = on_dome(Arrivals::of(plan, &seen.lights, gets).all()) / seen.reference.as_lux_seconds();
    Level::of_surface(of_part.reflectance, Stops::from_ratio(on_dome) + of_part.flash_offset)
}

/// How the image of a part moves at a speed of its own, and with the camera.
fn motion(plan: &Plan, seen: &Outlook, part: &Part, speed: MetresPerSecond) -> ImageMotion {
    let timed = part.phases.map(|phases| Timed {
        phases,
        opens: plan.timing.opens,
        scale: seen.magnification * part.out_of_plane.as_radians().cos(),
    });
    // What is followed rests, and all else goes against it.
    if plan.movement.follows.is_some() {
        let own = image_speed(speed, part.out_of_plane, seen.magnification);
        let relative = ImageMotion::of((own, part.direction), (seen.camera.pan, plan.movement.direction));
        let still = plan.movement.follows == Some(plan.index_of(part));
        let own = if still { MetresPerSecond::ZERO } else { relative.speed };
        return drawn_along(plan, seen, part, (own, relative.direction), None);
    }
    let own = match timed {
        // Until it is known which flash draws it: in the middle of the exposure.
        Some(timed) => timed.image_speed(seen.run.time * 0.5),
        None => image_speed(speed, part.out_of_plane, seen.magnification),
    };
    drawn_along(plan, seen, part, (own, part.direction), timed)
}

/// A movement with what swing, zoom and hand draw on top.
fn drawn_along(
    plan: &Plan,
    seen: &Outlook,
    part: &Part,
    own: (MetresPerSecond, Angle),
    timed: Option<Timed>,
) -> ImageMotion {
    // Who stands in the middle still grows to both sides.
    let from_middle = part.from_middle.map_or(part.size * (0.5 * seen.magnification), |share| plan.frame().0 * share);
    ImageMotion {
        path: part.path.map(|path| path * seen.magnification),
        zoom: from_middle * plan.movement.zoom.abs(),
        shake: seen.camera.shake,
        timed,
        ..ImageMotion::of(own, (seen.camera.swing, plan.movement.direction))
    }
}

/// How much the blur of the flash and that of the steady light count at a share of steady light: `min(1, 4·(1−a))` and
/// `4·(a−¼)` within 0 and 1 (docs/model/movement.md).
pub(crate) fn counts(steady_share: f64) -> (f64, f64) {
    ((4.0 * (1.0 - steady_share)).min(1.0), (4.0 * (steady_share - 0.25)).clamp(0.0, 1.0))
}

/// `a`: the steady light's share in the picture of a part.
pub(crate) fn steady_share(steady: Level, flash: Level) -> f64 {
    let (steady, total) = (steady.value(), steady.value() + flash.value());
    if total > 0.0 { steady / total } else { 1.0 }
}

/// What the flashes do to one part.
struct Drawn {
    /// On a dome at its place that is turned to the camera.
    on_dome: LuxSeconds,
    edge: LuxSeconds,
    slowest: Option<(usize, Seconds)>,
    /// How far apart the images of the earliest and the latest stand.
    apart: Metres,
}

fn drawn(plan: &Plan, seen: &Outlook, arrives: &OnPart, motion: &ImageMotion) -> Drawn {
    let reaching = || {
        seen.firing().filter_map(|(index, light)| {
            let Falls { exposure, freeze } = arrives[index]?;
            Some((index, light, exposure * light.grazing.as_ratio(), freeze))
        })
    };
    let all = reaching().fold(LuxSeconds::ZERO, |sum, (_, _, bright, _)| sum + bright);
    let on_dome = on_dome(Arrivals::of(plan, &seen.lights, |light| Some(arrives[light]?.exposure)).all());
    let mut drawn = Drawn {
        on_dome: LuxSeconds::from_lux_seconds(on_dome),
        edge: LuxSeconds::ZERO,
        slowest: None,
        apart: Metres::ZERO,
    };
    // How long its blur is, by a light that goes off some time after opening.
    let blur = |freeze: Seconds, at: Seconds| match motion.timed {
        Some(timed) => timed.image_speed(at) * freeze,
        None => motion.speed * freeze,
    };
    let mut longest = Metres::ZERO;
    // Lights that are tied to different curtains are apart on purpose.
    let mut times: [Option<(Seconds, Seconds)>; 2] = [None; 2];
    for (index, light, bright, freeze) in reaching() {
        if !plan.lights[index].is_frontal() {
            drawn.edge = drawn.edge + bright;
        }
        let Some(freeze) = freeze.filter(|_| bright > LuxSeconds::ZERO) else { continue };
        if bright < all * DRAWS_FROM {
            continue;
        }
        let drawn_blur = blur(freeze, light.ignition.at);
        let slower = drawn.slowest.is_none_or(|(_, slowest)| freeze > slowest);
        if drawn.slowest.is_none() || drawn_blur > longest || (drawn_blur == longest && slower) {
            drawn.slowest = Some((index, freeze));
            longest = drawn_blur;
        }
        if let Some(curtain) = curtain(plan.settings.lights[index].sync, light) {
            let at = light.ignition.at;
            let (first, last) = times[curtain].unwrap_or((at, at));
            times[curtain] = Some((first.min(at), last.max(at)));
        }
    }
    let apart = |(first, last): &(Seconds, Seconds)| match motion.timed {
        Some(timed) => Metres::from_metres((timed.place(*last) - timed.place(*first)).abs() * timed.scale),
        None => motion.speed * (*last - *first),
    };
    drawn.apart = times.iter().flatten().map(apart).fold(Metres::ZERO, Metres::max);
    drawn
}

/// Which curtain a light waits for; none while it glows.
fn curtain(sync: SyncMode, light: &LightOutlook) -> Option<usize> {
    match sync {
        SyncMode::Front => Some(0),
        SyncMode::Rear => Some(usize::from(!light.ignition.rear_acts_as_front)),
        SyncMode::HighSpeed => None,
    }
}

fn lamps(plan: &Plan, seen: &Outlook, part: usize) -> LuxSeconds {
    let reaching = seen.steady.iter().filter(|lamp| lamp.of.reaches(plan, part));
    reaching.fold(LuxSeconds::ZERO, |sum, lamp| sum + lamp.on_subject.exposure)
}
