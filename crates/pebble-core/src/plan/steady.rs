//! Steady light that was set up: lamps, and what else burns while the shutter is open.

use super::Part;
use super::front::{dye_of, tinted_by};
use super::light::missed;
use super::meter::Meter;
use crate::file::shot;
use crate::physics::output::colour::{self, Dye};
use crate::physics::output::{Beam, Face};
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::{Angle, Lux, Metres, Stops};
use crate::stage::CHEST_M;
use crate::stage::field::{self, CHEST, placed};
use crate::stage::space::{Spot, spot};

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
    /// Where it stands, aimed at the chest, where somebody said so: what it gives at a metre on its axis, in lx.
    pub stands: Option<field::Lamp>,
    /// Whether it belongs to the picture, and may be seen in it.
    pub in_set: bool,
    /// What it gives at a metre when it is turned up full, through the gel, in lx.
    full: f64,
    distance: f64,
    beam: Beam,
    lights_background: bool,
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
        let gel = wire.gel.as_ref().map_or(Ok(Stops::ZERO), |gel| gel.check(&at.inside("gel")))?;
        let level = at.figure("level_share", wire.level_share, &bounds::LEVEL)?;
        let distance = at.figure("distance_m", wire.distance_m, &bounds::FLASH_DISTANCE)?;
        let misses = missed(&at, &wire.misses, parts)?;
        let (mired, dye) = tinted_by(wire.gel.as_ref());
        let full = meter.counted(wire.lamp.lux_at_1m) * (-gel).as_ratio();
        let beam = Beam::new(wire.lamp.half_angle_deg.map(Angle::from_degrees), None);
        let stands = wire.stands.as_ref().map(|stands| {
            let at = at.inside("stands");
            let bearing = at.degrees("bearing_deg", stands.bearing_deg, &bounds::BEARING)?;
            let height = at.degrees("height_deg", stands.height_deg, &bounds::HEIGHT)?;
            Ok((placed(bearing, height, Metres::from_metres(distance)), stands.in_set))
        });
        let stands = stands.transpose()?;
        let lamp = Self {
            place,
            name: wire.lamp.name.clone(),
            on_subject: Lux::from_lux(full * level / distance.powi(2)),
            on_background: Lux::ZERO,
            level,
            kelvin: colour::shifted(wire.lamp.colour_k, mired),
            dye: colour::stacked(dye_of(wire.lamp.hue.as_ref()), dye),
            stands: None,
            in_set: stands.is_some_and(|(_, in_set)| in_set),
            full,
            distance,
            beam,
            lights_background: wire.lights_background,
            misses,
        };
        Ok(wire.on.then(|| match stands {
            Some((at, _)) => lamp.stood(at, level, behind_m),
            None => lamp.before(behind_m),
        }))
    }

    /// The same lamp at a place, turned up so far; `behind_m` is the background behind the subject.
    pub(crate) fn stood(&self, at: Spot, level: f64, behind_m: f64) -> Self {
        let stands = field::Lamp { strength: self.full * level, face: BULB, beam: self.beam, at, turned: None };
        let on_subject = Lux::from_lux(stands.on(CHEST) * on_a_dome(at));
        Self { on_subject, stands: Some(stands), level, ..self.clone() }.before(behind_m)
    }

    /// The same before a background so far behind the subject.
    pub(crate) fn before(self, behind_m: f64) -> Self {
        let gets = match self.stands {
            _ if !self.lights_background => 0.0,
            Some(stands) => stands.on(spot(0.0, behind_m, CHEST_M)),
            None => self.full * self.level / (self.distance + behind_m).powi(2),
        };
        Self { on_background: Lux::from_lux(gets), ..self }
    }
}

/// A lamp is entered by what it gives at a distance, and falls off as from a point.
const BULB: Face = Face { radius: Metres::from_metres(0.0), offset: Metres::from_metres(0.0) };

/// What a dome on the subject, turned to the camera, gets of a light against one that is turned to it: as steady light on
/// the subject is read (model.md §12).
fn on_a_dome(at: Spot) -> f64 {
    let way = at - CHEST;
    (1.0 - way.y / way.length()) / 2.0
}
