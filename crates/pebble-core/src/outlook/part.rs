//! One part of the subject under all lights: its blur, its trail, its tones.

use super::{Burns, LightOutlook, Outlook};
use crate::physics::exposure::Level;
use crate::physics::ghost::{Ghost, Tones, dwell, ghost};
use crate::physics::motion::{Sharpness, growth, image_speed};
use crate::physics::shutter::SyncMode;
use crate::plan::{Part, Plan};
use crate::quantity::{LuxSeconds, Metres, MetresPerSecond, Seconds, Stops};

/// A light this much below the strongest on a part draws nothing that is told from the rest: three stops.
pub(crate) const DRAWS_WITHIN: Stops = Stops::from_stops(-3.0);

/// What will happen to one part.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PartOutlook {
    /// `u` on the sensor.
    pub image_speed: MetresPerSecond,
    /// Blur of the flash layer on the sensor: the longest of the lights that draw it.
    pub flash_blur: Metres,
    /// Which light that is; nothing where no flash reaches the part.
    pub slowest: Option<usize>,
    /// How far apart the images of the earliest and the latest of these lights stand.
    pub apart: Metres,
    /// How that looks.
    pub sharpness: Sharpness,
    /// `u·t`, how far its image moves while a row is open.
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
}

impl PartOutlook {
    pub(super) fn of(plan: &Plan, seen: &Outlook, index: usize, part: &Part) -> Self {
        let shutter = plan.settings.shutter;
        let image_speed = image_speed(part.speed, part.out_of_plane, seen.magnification);
        let shake = seen.camera.shake;
        let drawn = drawn(plan, seen, index);
        let flash_blur = (image_speed + shake) * drawn.slowest.map_or(seen.key().freeze, |(_, freeze)| freeze);
        let travel = image_speed * shutter.time();
        let streak = part.path.map_or(travel, |path| travel.min(path * seen.magnification)) + shake * shutter.time();

        let level = |exposure: LuxSeconds, offset: Stops| {
            Level::of_surface(part.reflectance, Stops::placement(exposure, seen.reference) + offset)
        };
        let own =
            part.luminance.map_or(Level::BLACK, |luminance| Level::of_luminance(luminance, shutter, seen.reference));
        let surface = |placement| Level::of_surface(plan.background_reflectance, placement);
        let tones = Tones {
            part_ambient: level(seen.room.exposure, part.ambient_offset)
                .plus(level(lamps(plan, seen, index), Stops::ZERO))
                .plus(own),
            part_flash: level(drawn.frontal, part.flash_offset),
            background_ambient: surface(seen.background.placement),
            background_flash: surface(seen.spill.placement),
        };
        Self {
            image_speed,
            flash_blur,
            slowest: drawn.slowest.map(|(light, _)| light),
            apart: image_speed * drawn.between,
            sharpness: Sharpness::of(flash_blur, seen.allowed),
            travel,
            streak,
            streak_share: streak / plan.body.sensor.width,
            growth: growth(part.speed, part.out_of_plane, shutter.time(), plan.subject_distance),
            tones,
            edge: level(drawn.edge, part.flash_offset),
            ghost: ghost(dwell(part.size * seen.magnification, streak), tones),
            draws: streak > seen.allowed,
        }
    }
}

/// What the flashes do to one part.
struct Drawn {
    frontal: LuxSeconds,
    edge: LuxSeconds,
    slowest: Option<(usize, Seconds)>,
    between: Seconds,
}

fn drawn(plan: &Plan, seen: &Outlook, part: usize) -> Drawn {
    let reaching = || seen.firing().filter(|(light, _)| plan.lights[*light].reaches(part));
    let strongest = reaching().map(|(_, light)| light.seen()).fold(Stops::DARK, Stops::max);
    let mut drawn = Drawn { frontal: LuxSeconds::ZERO, edge: LuxSeconds::ZERO, slowest: None, between: Seconds::ZERO };
    // Lights that are tied to different curtains are apart on purpose.
    let mut times: [Option<(Seconds, Seconds)>; 2] = [None; 2];
    for (index, light) in reaching() {
        if plan.lights[index].is_frontal() {
            drawn.frontal = drawn.frontal + light.lit.exposure;
        } else {
            drawn.edge = drawn.edge + light.lit.exposure * light.grazing.as_ratio();
        }
        if light.seen() < strongest + DRAWS_WITHIN || light.lit.exposure <= LuxSeconds::ZERO {
            continue;
        }
        if drawn.slowest.is_none_or(|(_, longest)| light.freeze > longest) {
            drawn.slowest = Some((index, light.freeze));
        }
        if let Some(curtain) = curtain(plan.settings.lights[index].sync, light) {
            let at = light.ignition.at;
            let (first, last) = times[curtain].unwrap_or((at, at));
            times[curtain] = Some((first.min(at), last.max(at)));
        }
    }
    drawn.between = times.iter().flatten().map(|(first, last)| *last - *first).fold(Seconds::ZERO, Seconds::max);
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
    let reaching = seen.steady.iter().filter(|lamp| match lamp.of {
        Burns::Lamp(index) => plan.lamps[index].reaches(part),
        Burns::Modelling(light) => plan.lights[light].reaches(part),
    });
    reaching.fold(LuxSeconds::ZERO, |sum, lamp| sum + lamp.on_subject.exposure)
}
