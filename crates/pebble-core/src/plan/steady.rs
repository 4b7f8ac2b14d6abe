//! Steady light that was set up: lamps, and what else burns while the shutter is open.

use super::Part;
use super::front::{dye_of, tinted_by};
use super::light::missed;
use super::meter::Meter;
use crate::file::shot;
use crate::physics::output::colour::{self, Dye};
use crate::plan::check::At;
use crate::quantity::Lux;
use crate::quantity::bounds::{self, Invalid};

/// A lamp that burns.
#[derive(Clone, Debug, PartialEq)]
pub struct Lamp {
    /// Its place in the shot's list, where those that are off stand too.
    pub place: usize,
    /// Its name.
    pub name: String,
    /// What it gives on the subject.
    pub on_subject: Lux,
    /// What it gives on the background.
    pub on_background: Lux,
    /// How far it is turned up, as a share of full.
    pub level: f64,
    /// Its colour through the gel, in kelvin.
    pub kelvin: f64,
    /// What its own hue and that of the gel leave.
    pub dye: Dye,
    misses: u32,
}

impl Lamp {
    /// Whether it reaches a part.
    pub const fn reaches(&self, part: usize) -> bool {
        self.misses & (1 << part) == 0
    }

    /// A lamp in the plan; `None` when it is off. `behind_m` is the background behind the subject.
    pub(super) fn of(
        place: usize,
        wire: &shot::SetLamp,
        parts: &[Part],
        (behind_m, meter): (f64, Meter),
    ) -> Result<Option<Self>, Invalid> {
        let at = At::default().row("lamps", place);
        wire.lamp.check(&at.inside("lamp"))?;
        let gel = wire.gel.as_ref().map_or(Ok(crate::quantity::Stops::ZERO), |gel| gel.check(&at.inside("gel")))?;
        let level = at.figure("level_share", wire.level_share, &bounds::LEVEL)?;
        let distance = at.figure("distance_m", wire.distance_m, &bounds::FLASH_DISTANCE)?;
        let misses = missed(&at, &wire.misses, parts)?;
        let (mired, dye) = tinted_by(wire.gel.as_ref());
        let lux = |metres: f64| {
            Lux::from_lux(meter.counted(wire.lamp.lux_at_1m) * level * (-gel).as_ratio() / metres.powi(2))
        };
        Ok(wire.on.then(|| Self {
            place,
            name: wire.lamp.name.clone(),
            on_subject: lux(distance),
            on_background: if wire.lights_background { lux(distance + behind_m) } else { Lux::from_lux(0.0) },
            level,
            kelvin: colour::shifted(wire.lamp.colour_k, mired),
            dye: colour::stacked(dye_of(wire.lamp.hue.as_ref()), dye),
            misses,
        }))
    }
}
