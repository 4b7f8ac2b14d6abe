//! A set-up as it is passed around: which units, how they and the camera are set. And a shot with it in place.

use super::brief::{Brief, Candidate};
use super::stock::Stock;
use crate::file::gear::{FlashUnit, Modifier};
use crate::file::shot::Shot;
use crate::physics::shutter::SyncMode;
use crate::plan::check::At;
use crate::quantity::Stops;
use crate::quantity::bounds::Invalid;
use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::wire::wire;

wire! {
    /// One light of a set-up.
    pub struct SetLight {
        /// Its place in the shot's list.
        pub light: usize,
        /// Identity of the unit.
        pub unit: String,
        /// Identity of what is in front of it.
        pub modifier: String,
        /// Equal units side by side.
        pub heads: u32,
        /// Power fraction of each.
        pub power: f64,
        /// To the subject.
        pub distance_m: f64,
        /// How it is tied to the shutter.
        pub sync: SyncMode,
    }
}

wire! {
    /// Units and settings that meet a wish.
    pub struct Setup {
        /// f-number.
        pub aperture_f: f64,
        /// Shutter time.
        pub shutter: String,
        /// ISO.
        pub iso: f64,
        /// Grey in front of the lens, in stops.
        pub filter_stops: f64,
        /// The lights; those of the shot that are not named stay, and follow the camera with their power.
        pub lights: Vec<SetLight>,
    }
}

/// A set-up of settings, as written on the camera's own dials.
pub(super) fn of(
    brief: &Brief,
    (aperture, shutter, iso, filter): (Aperture, ShutterTime, Iso, Stops),
    lights: Vec<SetLight>,
) -> Setup {
    let grid = brief.plan.body.grid;
    let (aperture_f, number) = (aperture.label(grid), iso.label(grid));
    Setup {
        aperture_f: aperture_f.parse().unwrap_or(aperture.number()),
        shutter: shutter.label(grid),
        iso: number.parse().unwrap_or(iso.number()),
        filter_stops: filter.as_stops(),
        lights,
    }
}

impl Candidate<'_> {
    /// As a set-up for the key.
    pub fn setup(&self, brief: &Brief) -> Setup {
        let light = SetLight {
            light: brief.plan.key,
            unit: self.unit.wire.id.clone(),
            modifier: self.modifier.id.clone(),
            heads: self.heads,
            power: self.power,
            distance_m: self.distance.as_metres(),
            sync: if self.glow { SyncMode::HighSpeed } else { brief.pulsed() },
        };
        of(brief, (self.aperture, self.shutter, self.iso, self.filter), vec![light])
    }
}

/// A shot with a set-up in place. Lights that the set-up does not name keep where they fall, to the nearest step of their dial.
///
/// # Errors
/// [`Invalid`] for a light, a unit or a modifier that is not there.
pub fn applied(shot: &Shot, stock: &Stock, setup: &Setup) -> Result<Shot, Invalid> {
    let before = crate::plan::Plan::try_from(shot)?;
    let mut to = shot.clone();
    (to.camera.aperture_f, to.camera.iso) = (setup.aperture_f, setup.iso);
    to.camera.shutter.clone_from(&setup.shutter);
    to.camera.filter_stops = setup.filter_stops;
    for (index, set) in setup.lights.iter().enumerate() {
        let at = At::new("setup").row("lights", index);
        let unit = unit(shot, stock, &at, &set.unit)?;
        let modifier = modifier(shot, stock, &at, &set.modifier)?;
        let count = to.lights.len();
        let Some(light) = to.lights.get_mut(set.light) else {
            return Err(at.not_allowed(
                "light",
                &set.light.to_string(),
                &format!("one of the {count} lights of the shot"),
            ));
        };
        (light.unit, light.modifier, light.heads) = (unit, modifier, set.heads);
        (light.power, light.distance_m, light.sync) = (set.power, set.distance_m, set.sync);
        light.on = true;
        light.automatic = None;
        // The lamp is the old unit's.
        if light.modelling.is_some() && light.unit.id != shot.lights[set.light].unit.id {
            light.modelling = None;
        }
    }
    let after = crate::plan::Plan::try_from(&to)?;
    let (was, is) = (crate::outlook(&before), crate::outlook(&after));
    for (index, light) in to.lights.iter_mut().enumerate() {
        let named = setup.lights.iter().any(|set| set.light == index);
        let by = (was.lights[index].in_a_whole_row() - is.lights[index].in_a_whole_row()).as_ratio();
        if named || !by.is_finite() || !is.lights[index].fires || light.automatic.is_some() {
            continue;
        }
        let wanted = light.power * by;
        let away = |power: &f64| (power / wanted).log2().abs();
        let powers = crate::answers::strips::powers(&after.lights[index]);
        light.power = powers.min_by(|a, b| away(a).total_cmp(&away(b))).unwrap_or(light.power);
    }
    Ok(to)
}

/// A unit of the kit, or one that the shot carries itself.
fn unit(shot: &Shot, stock: &Stock, at: &At, id: &str) -> Result<FlashUnit, Invalid> {
    let own = stock.units.iter().map(|offered| &offered.wire).find(|unit| unit.id == id);
    own.or_else(|| shot.lights.iter().map(|light| &light.unit).find(|unit| unit.id == id))
        .cloned()
        .ok_or_else(|| at.not_allowed("unit", id, "the identity of a unit that is taken along"))
}

fn modifier(shot: &Shot, stock: &Stock, at: &At, id: &str) -> Result<Modifier, Invalid> {
    stock
        .modifiers
        .iter()
        .chain(shot.lights.iter().map(|light| &light.modifier))
        .find(|modifier| modifier.id == id)
        .cloned()
        .ok_or_else(|| at.not_allowed("modifier", id, "the identity of a modifier that is taken along"))
}
