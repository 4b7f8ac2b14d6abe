//! Triggers, batteries and lamps, checked.

use super::check::At;
use crate::file::gear::{Battery, Lamp, Trigger};
use crate::quantity::Seconds;
use crate::quantity::bounds::{self, Invalid};

impl Trigger {
    pub(crate) fn check(&self, at: &At) -> Result<Seconds, Invalid> {
        at.name("name", &self.name, "a name")?;
        at.maybe("range_m", self.range_m, &bounds::RANGE)?;
        at.maybe("channels", self.channels.map(f64::from), &bounds::CHANNELS)?;
        at.maybe("groups", self.groups.map(f64::from), &bounds::CHANNELS)?;
        at.millis("lag_ms", self.lag_ms, &bounds::LAG)
    }
}

impl Battery {
    pub(crate) fn check(&self, at: &At) -> Result<(), Invalid> {
        at.name("name", &self.name, "a name")?;
        at.figure("usable_wh", self.usable_wh, &bounds::BATTERY)?;
        at.figure("efficiency", self.efficiency, &bounds::EFFICIENCY)?;
        at.maybe("idle_w", self.idle_w, &bounds::IDLE)?;
        at.maybe("mass_kg", self.mass_kg, &bounds::MASS).map(|_| ())
    }
}

impl Lamp {
    pub(crate) fn check(&self, at: &At) -> Result<(), Invalid> {
        at.name("name", &self.name, "a name")?;
        at.figure("lux_at_1m", self.lux_at_1m, &bounds::ILLUMINANCE)?;
        at.figure("colour_k", self.colour_k, &bounds::KELVIN)?;
        self.hue.as_ref().map_or(Ok(()), |hue| hue.check(&at.inside("hue")))?;
        at.maybe("half_angle_deg", self.half_angle_deg, &bounds::BEAM)?;
        at.maybe("watts", self.watts, &bounds::WATTS).map(|_| ())
    }
}
