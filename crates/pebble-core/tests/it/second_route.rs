//! The same numbers by another road: a small simulation that knows nothing of closed forms. It steps through time, opens
//! and closes every row, moves the part, and adds up light.

use pebble_core::exposure::{CLIP_LEVEL, INCIDENT_C, MID_GREY};
use pebble_core::forecast;
use pebble_core::forecast::Forecast;
use pebble_core::shot::{Reading, Shot};
use pebble_core::shutter::SyncMode;

/// What the simulation is told: plain numbers, taken from the shot by hand and not through the core's plan.
struct Setting {
    aperture: f64,
    shutter_s: f64,
    iso: f64,
    travel_s: f64,
    ignition_s: f64,
    subject_lx: f64,
    background_lx: f64,
    flash_lxs: f64,
    speed_m_s: f64,
    size_m: f64,
    part_tone: f64,
    background_tone: f64,
}

/// Light of a quenched pulse over time, integrated by small steps until the wanted share of the full discharge is out.
struct SteppedPulse {
    step_s: f64,
    light: Vec<f64>,
}

impl SteppedPulse {
    fn quenched(decay_s: f64, rise_s: f64, fall_s: f64, power: f64) -> Self {
        let step_s = 0.5e-6;
        let shape = |t: f64| (1.0 - (-t / rise_s).exp()) * (-t / decay_s).exp();
        let steps = (30.0 * decay_s / step_s) as usize;
        let full: f64 = (0..steps).map(|k| shape((k as f64 + 0.5) * step_s) * step_s).sum();
        let mut light = Vec::new();
        let mut out = 0.0;
        let mut cut: Option<(f64, f64)> = None;
        for k in 0..steps {
            let t = (k as f64 + 0.5) * step_s;
            let height = match cut {
                None => shape(t),
                Some((at, height)) => height * (-(t - at) / fall_s).exp(),
            };
            // Cut as soon as what is out and what the fall will still give make up the share.
            if cut.is_none() && power < 1.0 && out + height * fall_s >= power * full {
                cut = Some((t, height));
            }
            out += height * step_s;
            light.push(height * step_s);
        }
        let total: f64 = light.iter().sum();
        light.iter_mut().for_each(|part| *part /= total);
        Self { step_s, light }
    }

    /// Share of the light between two times since ignition.
    fn between(&self, from_s: f64, to_s: f64) -> f64 {
        let inside = |k: usize| {
            let t = (k as f64 + 0.5) * self.step_s;
            t >= from_s && t < to_s
        };
        self.light.iter().enumerate().filter(|(k, _)| inside(*k)).map(|(_, part)| part).sum()
    }

    fn above(&self, share: f64) -> f64 {
        let peak = self.light.iter().copied().fold(0.0, f64::max);
        let first = self.light.iter().position(|part| *part >= share * peak).unwrap();
        let last = self.light.iter().rposition(|part| *part >= share * peak).unwrap();
        (last - first + 1) as f64 * self.step_s
    }
}

impl Setting {
    fn reference(&self) -> f64 {
        INCIDENT_C * self.aperture * self.aperture / self.iso
    }

    /// Level at a place on the part's path in the row `y`, by stepping through the time the row is open. The part is a card
    /// that passes the place; at the flash's instant it is `flash_here`.
    fn level_on_path(&self, pulse: &SteppedPulse, y: f64, place_m: f64, flash_here: bool) -> f64 {
        const STEPS: usize = 20_000;
        let open = y * self.travel_s;
        let dt = self.shutter_s / STEPS as f64;
        let mut exposed = 0.0;
        for k in 0..STEPS {
            let t = open + (k as f64 + 0.5) * dt;
            let centre = self.speed_m_s * (t - open);
            let covered = (place_m - centre).abs() <= self.size_m / 2.0;
            let (tone, light) =
                if covered { (self.part_tone, self.subject_lx) } else { (self.background_tone, self.background_lx) };
            exposed += tone * light * dt;
        }
        let flash = if flash_here {
            self.part_tone
                * self.flash_lxs
                * pulse.between(open - self.ignition_s, open + self.shutter_s - self.ignition_s)
        } else {
            0.0
        };
        (exposed + flash) / (MID_GREY * self.reference())
    }
}

fn lightness(level: f64) -> f64 {
    let y = (MID_GREY * level).min(1.0);
    if y > 216.0 / 24_389.0 { 116.0 * y.cbrt() - 16.0 } else { y * 24_389.0 / 27.0 }
}

/// A shot and the same in the simulation's plain numbers.
fn both(
    power: f64,
    shutter: &str,
    shutter_s: f64,
    lag_ms: f64,
    speed: f64,
    lux: (f64, f64),
) -> (Shot, Setting, SteppedPulse) {
    let mut shot = crate::common::shot();
    shot.camera.aperture_f = 8.0;
    shot.camera.iso = 200.0;
    shot.camera.shutter = shutter.to_owned();
    shot.camera.body.travel_ms = Some(3.2);
    shot.lights[0].sync = SyncMode::Front;
    shot.lights[0].power = power;
    shot.lights[0].distance_m = 3.0;
    shot.lights[0].trigger.lag_ms = lag_ms;
    shot.lights[0].unit.lag_ms = Some(0.0);
    shot.lights[0].unit.control = pebble_core::gear::Control::Quenched {
        decay_ms: Some(1.4),
        t05_ms: None,
        t01_ms: None,
        rise_ms: Some(0.04),
        fall_ms: Some(0.02),
    };
    shot.ambient.subject = Reading::Lux { lux: lux.0 };
    shot.ambient.background = Reading::Lux { lux: lux.1 };
    shot.background.spill_stops = -12.0;
    shot.parts.truncate(1);
    shot.parts[0].speed_m_s = speed;
    shot.parts[0].size_m = 0.05;
    shot.parts[0].reflectance = 0.6;
    shot.parts[0].ambient_offset_stops = 0.0;
    // By hand: guide number 62, octa −1.3 stops, face 0.45 m, source 0.1 m behind it.
    let spread = 3.1f64 * 3.1 + 0.45 * 0.45;
    let flash_lxs = INCIDENT_C * 62.0 * 62.0 / 100.0 * 2f64.powf(-1.3) * power / spread;
    let setting = Setting {
        aperture: 8.0,
        shutter_s,
        iso: 200.0,
        travel_s: 0.0032,
        ignition_s: 0.0032 + lag_ms * 1e-3,
        subject_lx: lux.0,
        background_lx: lux.1,
        flash_lxs,
        speed_m_s: speed,
        size_m: 0.05,
        part_tone: 0.6,
        background_tone: shot.background.reflectance,
    };
    (shot, setting, SteppedPulse::quenched(1.4e-3, 0.04e-3, 0.02e-3, power))
}

fn told(shot: &Shot) -> Forecast {
    forecast(&crate::common::plan(shot))
}

#[track_caller]
fn near(name: &str, got: f64, want: f64, within: f64) {
    assert!((got - want).abs() <= within * want.abs().max(1e-6), "{name}: core {got}, simulation {want}");
}

#[test]
fn pulses_last_as_long_when_time_is_stepped_through() {
    for power in [1.0, 0.6, 0.25, 0.05, 0.01] {
        let (shot, _, pulse) = both(power, "1/60", 1.0 / 64.0, 0.25, 4.0, (300.0, 300.0));
        let core = told(&shot).key().pulse.clone();
        near(&format!("t0.5 at {power}"), core.t05_s, pulse.above(0.5), 0.02);
        near(&format!("t0.1 at {power}"), core.t01_s, pulse.above(0.1), 0.02);
    }
}

#[test]
fn rows_get_as_much_when_every_row_is_opened_and_closed() {
    for (power, shutter, shutter_s, lag_ms) in [
        (1.0, "1/250", 1.0 / 256.0, 0.25),
        (0.25, "1/250", 1.0 / 256.0, 0.25),
        (0.25, "1/500", 1.0 / 512.0, 0.1),
        (0.02, "1/1000", 1.0 / 1024.0, 0.0),
        (0.5, "1/125", 1.0 / 128.0, 4.0),
    ] {
        let (shot, setting, pulse) = both(power, shutter, shutter_s, lag_ms, 4.0, (300.0, 300.0));
        let rows = told(&shot).key().rows.clone();
        let share = |y: f64| {
            let open = y * setting.travel_s - setting.ignition_s;
            pulse.between(open, open + setting.shutter_s)
        };
        for (name, got, y) in
            [("first", rows.first_share, 0.0), ("middle", rows.middle_share, 0.5), ("last", rows.last_share, 1.0)]
        {
            assert!(
                (got - share(y)).abs() < 0.004,
                "{name} at {power}, {shutter}: core {got}, simulation {}",
                share(y)
            );
        }
        let touched =
            (0..400).filter(|k| share((f64::from(*k) + 0.5) / 400.0) < 2f64.powf(-0.1)).count() as f64 / 400.0;
        assert!(
            (rows.touched_share - touched).abs() < 0.01,
            "touched at {power}, {shutter}: {} and {touched}",
            rows.touched_share
        );
    }
}

#[test]
fn trails_are_as_bright_when_the_part_is_moved_step_by_step() {
    for (shutter, shutter_s, speed, lux) in [
        ("1/60", 1.0 / 64.0, 12.0, (400.0, 100.0)),
        ("1/15", 1.0 / 16.0, 5.0, (400.0, 900.0)),
        ("1/125", 1.0 / 128.0, 9.0, (4000.0, 50.0)),
        ("1/4", 0.25, 1.0, (60.0, 10.0)),
    ] {
        let (shot, setting, pulse) = both(0.1, shutter, shutter_s, 0.25, speed, lux);
        let part = told(&shot).parts.remove(0);
        // The middle of the path, where the whole card passes.
        let middle = setting.speed_m_s * setting.shutter_s / 2.0;
        let beside = setting.level_on_path(&pulse, 0.5, middle, false);
        let through = setting.level_on_path(&pulse, 0.5, middle, true);
        let plain =
            setting.background_tone * setting.background_lx * setting.shutter_s / (MID_GREY * setting.reference());
        near(&format!("beside at {shutter}"), part.beside_level, beside, 0.02);
        near(&format!("through at {shutter}"), part.through_level, through, 0.02);
        near(&format!("plain at {shutter}"), part.plain_level, plain, 0.02);
        let delta = lightness(beside) - lightness(plain);
        assert!(
            (part.delta_lightness - delta).abs() < 0.15,
            "ΔL* at {shutter}: core {}, simulation {delta}",
            part.delta_lightness
        );
        assert_eq!(part.through_level > CLIP_LEVEL, through > CLIP_LEVEL);
    }
}

#[test]
fn a_point_imaged_through_a_thin_lens_moves_as_far() {
    for (focal_mm, distance, speed, degrees) in
        [(35.0, 4.5, 6.0, 0.0), (70.0, 2.0, 3.0, 30.0), (24.0, 12.0, 20.0, -50.0)]
    {
        let (mut shot, setting, _) = both(0.1, "1/250", 1.0 / 256.0, 0.1, speed, (100.0, 100.0));
        shot.camera.focal_mm = focal_mm;
        shot.subject.distance_m = distance;
        shot.parts[0].out_of_plane_deg = degrees;
        let core = told(&shot);
        // Image distance from 1/f = 1/d + 1/b; a point at height h images at h·b/d. Two instants, one difference.
        let f: f64 = focal_mm * 1e-3;
        let image = 1.0 / (1.0 / f - 1.0 / distance);
        let across = speed * f64::to_radians(degrees).cos() * setting.shutter_s;
        let moved_px = across * image / distance / (36e-3 / 6000.0);
        near("travel on the sensor", core.parts[0].ambient_travel_px, moved_px, 1e-9);
        // Growth: the ratio of distances before and after, to first order.
        let closer = distance - speed * f64::to_radians(degrees).sin() * setting.shutter_s;
        assert!((core.parts[0].growth - (distance / closer - 1.0)).abs() < 0.02 * core.parts[0].growth.abs() + 1e-4);
    }
}

#[test]
fn sharpness_ends_where_a_blurred_disc_is_as_large_as_allowed() {
    for (focal_mm, aperture, distance) in [(50.0, 4.0, 3.0), (70.0, 2.8, 6.0), (35.0, 8.0, 2.0)] {
        let (mut shot, _, _) = both(0.1, "1/125", 1.0 / 128.0, 0.1, 1.0, (100.0, 100.0));
        shot.camera.focal_mm = focal_mm;
        shot.camera.aperture_f = aperture;
        shot.subject.distance_m = distance;
        shot.usage = pebble_core::motion::Usage::Print;
        let core = told(&shot);
        let f: f64 = focal_mm * 1e-3;
        let opening = f / core.exposure.aperture_f;
        let image = |d: f64| 1.0 / (1.0 / f - 1.0 / d);
        // A point at `d` focuses at image(d); on the sensor at image(distance) its cone has this diameter.
        let disc = |d: f64| opening * (image(d) - image(distance)).abs() / image(d);
        let allowed = core.optics.allowed_m;
        near("near end", disc(core.depth.near_m), allowed, 0.02);
        near("far end", disc(core.depth.far_m.unwrap()), allowed, 0.02);
    }
}

#[test]
fn high_speed_sync_gives_each_row_the_slice_of_an_even_glow() {
    let (mut shot, setting, _) = both(1.0, "1/1000", 1.0 / 1024.0, 0.0, 4.0, (100.0, 100.0));
    shot.lights[0].sync = SyncMode::HighSpeed;
    let core = told(&shot);
    // An even glow from the first row's opening to the last row's closing, worth 0.7 of a full pulse: each row is open
    // for its own time of it. Stepped, for three rows.
    let whole = setting.travel_s + setting.shutter_s;
    for y in [0.0, 0.4, 1.0] {
        let steps = 50_000;
        let open = y * setting.travel_s;
        let inside = (0..steps)
            .map(|k| (f64::from(k) + 0.5) / f64::from(steps) * whole)
            .filter(|t| *t >= open && *t < open + setting.shutter_s)
            .count() as f64;
        let exposure = 0.7 * setting.flash_lxs * inside / f64::from(steps);
        near(&format!("row {y}"), core.flash.exposure_lxs, exposure, 0.001);
    }
    assert_eq!(core.key().pulse.freeze_s, Some(core.exposure.shutter_s), "the shutter freezes");
}

#[test]
fn rear_sync_ends_before_the_curtain_and_front_sync_begins_after_it() {
    for (sync, power) in [(SyncMode::Front, 0.3), (SyncMode::Rear, 0.3), (SyncMode::Rear, 1.0)] {
        let (mut shot, setting, pulse) = both(power, "1/30", 1.0 / 32.0, 0.2, 4.0, (100.0, 100.0));
        shot.lights[0].sync = sync;
        let core = told(&shot);
        let mut out = 0.0;
        let length = pulse.light.iter().position(|part| {
            out += part;
            out >= 0.99
        });
        let length = length.unwrap() as f64 * pulse.step_s;
        let wanted = match sync {
            SyncMode::Front => setting.travel_s + 0.2e-3,
            _ => setting.shutter_s - 0.5e-3 - length + 0.2e-3,
        };
        assert!(
            (core.key().firing.ignition_s - wanted).abs() < 5e-6,
            "{sync:?}: {} and {wanted}",
            core.key().firing.ignition_s
        );
    }
}

/// Three flashes of one unit at powers and delays of their own: every row is opened and closed for each of them, what falls on
/// the subject is added up, and the part is followed from the first ignition to the last.
#[test]
fn several_lights_add_up_when_each_is_stepped_through_by_itself() {
    let (mut shot, setting, _) = both(0.25, "1/250", 1.0 / 256.0, 0.25, 6.0, (300.0, 300.0));
    let like = shot.lights[0].clone();
    let set = [(0.25, 0.25, 1.0), (0.5, 0.9, 1.4), (0.03, 2.4, 1.6)];
    shot.lights = set
        .iter()
        .map(|(power, lag_ms, farther)| {
            let mut light = like.clone();
            light.power = *power;
            light.trigger.lag_ms = *lag_ms - light.unit.lag_ms.unwrap();
            light.distance_m = like.distance_m * farther;
            light
        })
        .collect();
    let core = told(&shot);
    let mut on_subject = 0.0;
    for (light, (power, lag_ms, farther)) in core.lights.iter().zip(set) {
        let pulse = SteppedPulse::quenched(1.4e-3, 0.04e-3, 0.02e-3, power);
        let ignition_s = setting.travel_s + lag_ms * 1e-3;
        near("ignition", light.firing.ignition_s, ignition_s, 1e-9);
        let last = (light.rows.profile_share.len() - 1) as f64;
        for (row, share) in light.rows.profile_share.iter().enumerate() {
            let open = row as f64 / last * setting.travel_s - ignition_s;
            let stepped = pulse.between(open, open + setting.shutter_s);
            assert!((share - stepped).abs() < 0.004, "row {row} at {power}: core {share}, simulation {stepped}");
        }
        // The face is small against the distance, and is counted all the same.
        let spread = |metres: f64| {
            let (offset, radius) = (like.modifier.source_offset_m, like.modifier.face_radius_m);
            (metres + offset).powi(2) + radius.powi(2)
        };
        let one = setting.flash_lxs * (power / 0.25) * spread(like.distance_m) / spread(like.distance_m * farther);
        near("exposure", light.flash.exposure_lxs, one, 2e-3);
        near("t0.1", light.pulse.t01_s, pulse.above(0.1), 0.02);
        // In the frame is what the rows get of it.
        const ROWS: usize = 400;
        let rows = (0..ROWS).map(|row| (row as f64 + 0.5) / ROWS as f64 * setting.travel_s - ignition_s);
        let share = rows.map(|open| pulse.between(open, open + setting.shutter_s)).sum::<f64>() / ROWS as f64;
        near("share", light.flash.share, share, 4e-3);
        on_subject += one * share;
    }
    near("together", core.flash.exposure_lxs, on_subject, 4e-3);
    // The third is more than three stops below the first, and tells no image of its own; the second lasts longest.
    let part = &core.parts[0];
    let slow = SteppedPulse::quenched(1.4e-3, 0.04e-3, 0.02e-3, 0.5).above(0.1);
    near("blur", part.flash_blur_px.unwrap(), part.image_speed_px_s * slow, 0.02);
    near("apart", part.apart_px, part.image_speed_px_s * (0.9e-3 - 0.25e-3), 1e-6);
}
