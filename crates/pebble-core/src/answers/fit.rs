//! A shot on other gear: what the new camera, lens or unit does not have goes to the nearest end it has.

use crate::file::gear::FlashUnit;
use crate::file::shot::Shot;
use crate::physics::shutter::SyncMode;
use crate::plan::END_TOLERANCE;
use crate::plan::check::At;
use crate::quantity::bounds::Invalid;
use crate::quantity::scale::ShutterTime;
use serde::Serialize;

/// A setting that had to move.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Moved {
    /// The setting, as a path in the shot.
    pub field: String,
    /// From what to what, in a sentence.
    pub sentence: String,
}

/// The shot with its settings within its own camera, lens and unit, and what had to move for it. What fits stays as it is.
///
/// # Errors
/// [`Invalid`] when a camera, lens or unit itself cannot be.
pub fn fit(shot: &Shot) -> Result<(Shot, Vec<Moved>), Invalid> {
    let mut shot = shot.clone();
    let mut moved = Vec::new();
    let mut say = |field: &str, sentence: String| moved.push(Moved { field: field.to_owned(), sentence });
    for light in &mut shot.lights {
        light.unit = FlashUnit { owned: light.unit.owned, ..light.unit.to_carry() };
    }

    let camera = &mut shot.camera;
    let of_camera = camera.body.check(&At::new("camera.body"))?;
    let glass = camera.lens.check(&At::new("camera.lens"), camera.body.grid)?;
    let (body, lens) = (&camera.body, &camera.lens);
    if let Some(iso) = nearest_end(camera.iso, body.iso_min, body.iso_max) {
        say("camera.iso", format!("ISO {} is now {iso}: {} has no other", camera.iso, body.name));
        camera.iso = iso;
    }
    if let Some(aperture) = nearest_end(camera.aperture_f, lens.widest_f, lens.narrowest_f) {
        say("camera.aperture_f", format!("f/{} is now f/{aperture}: {} ends there", camera.aperture_f, lens.name));
        camera.aperture_f = aperture;
    }
    if let Some(focal) = nearest_end(camera.focal_mm, lens.focal_min_mm, lens.focal_max_mm) {
        say("camera.focal_mm", format!("{} mm is now {focal} mm: {} ends there", camera.focal_mm, lens.name));
        camera.focal_mm = focal;
    }
    let fastest = glass.leaf.unwrap_or(of_camera.times.1);
    let fastest_text = lens.leaf_fastest.as_ref().filter(|_| glass.leaf.is_some()).unwrap_or(&body.fastest);
    // A time of another grid is read as it stands; only what lies beyond the ends has to move.
    if let Ok(time) = ShutterTime::read("camera.shutter", &camera.shutter, body.grid) {
        let (slow, fast) = (of_camera.times.0.time().as_secs(), fastest.time().as_secs());
        let new = if time.time().as_secs() > slow * END_TOLERANCE {
            Some(body.slowest.clone())
        } else if time.time().as_secs() * END_TOLERANCE < fast {
            Some(fastest_text.clone())
        } else {
            None
        };
        if let Some(new) = new {
            say("camera.shutter", format!("{} is now {new}: the shutter ends there", camera.shutter));
            camera.shutter = new;
        }
    }

    let curtains = of_camera.travel > crate::quantity::Seconds::ZERO;
    let camera_glows = shot.camera.body.high_speed_sync && glass.leaf.is_none() && curtains;
    for (index, light) in shot.lights.iter_mut().enumerate() {
        let at = At::default().row("lights", index);
        let unit = light.unit.check(&at.inside("unit"))?;
        let least = (-unit.lowest).as_ratio();
        if let Some(power) = nearest_end(light.power, least, 1.0) {
            let written = |power: f64| unit.dial.label(power);
            let name = &light.unit.name;
            say(&at.of("power"), format!("{} is now {}: {name} ends there", written(light.power), written(power)));
            light.power = power;
        }
        if light.sync == SyncMode::HighSpeed && !(unit.high_speed && camera_glows) {
            let sentence = "High-speed sync is now front sync: camera, lens and unit do not do it together";
            say(&at.of("sync"), sentence.to_owned());
            light.sync = SyncMode::Front;
        }
    }
    Ok((shot, moved))
}

/// The nearer end, for a value beyond it.
fn nearest_end(value: f64, low: f64, high: f64) -> Option<f64> {
    if value * END_TOLERANCE < low {
        Some(low)
    } else if value > high * END_TOLERANCE {
        Some(high)
    } else {
        None
    }
}
