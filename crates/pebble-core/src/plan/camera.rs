//! Cameras and lenses, checked.

use super::check::At;
use crate::file::gear::{CameraBody, Lens, ShutterKind};
use crate::physics::motion::Sensor;
use crate::physics::shutter::sync;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::scale::{Aperture, Grid, Iso, ShutterTime};
use crate::quantity::{Metres, Seconds};
use std::fmt::Display;

/// Where curtain travel is not known it is taken to be the rated sync time less this, or this share of it where that is less.
const UNKNOWN_TRAVEL_MARGIN: Seconds = Seconds::from_millis(0.5);
const UNKNOWN_TRAVEL_SHARE: f64 = 0.9;

/// A checked camera.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Camera {
    /// Kind of shutter.
    pub kind: ShutterKind,
    /// `Tx`.
    pub travel: Seconds,
    /// Whether `Tx` was assumed from the sync speed.
    pub travel_assumed: bool,
    /// Rated sync time.
    pub rated_sync: ShutterTime,
    /// `guard`.
    pub guard: Seconds,
    /// Slowest and fastest time.
    pub times: (ShutterTime, ShutterTime),
    /// Lowest and highest ISO.
    pub isos: (Iso, Iso),
    /// Sensor.
    pub sensor: Sensor,
}

/// A checked lens on a camera.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Glass {
    /// Widest and narrowest aperture.
    pub apertures: (Aperture, Aperture),
    /// Shortest and longest focal length.
    pub focal_range: (Metres, Metres),
    /// Fastest time of a leaf shutter in it.
    pub leaf: Option<ShutterTime>,
}

impl CameraBody {
    pub(crate) fn check(&self, at: &At) -> Result<Camera, Invalid> {
        let grid = self.grid;
        at.name("name", &self.name, "a name")?;
        let time = |name: &str, text: &str| ShutterTime::read(&at.of(name), text, grid);
        let rated_sync = time("sync", &self.sync)?;
        let travel = match (self.shutter_kind, self.travel_ms) {
            (ShutterKind::Leaf | ShutterKind::Global, _) => Seconds::ZERO,
            (_, Some(known)) => at.millis("travel_ms", known, &bounds::TRAVEL)?,
            (ShutterKind::FocalPlane, None) => {
                let less = (rated_sync.time() - UNKNOWN_TRAVEL_MARGIN).max(Seconds::ZERO);
                less.min(rated_sync.time() * UNKNOWN_TRAVEL_SHARE)
            }
            (ShutterKind::Rolling, None) => {
                return Err(at.not_allowed("travel_ms", "missing", "the readout time of a rolling shutter"));
            }
        };
        let times = (time("slowest", &self.slowest)?, time("fastest", &self.fastest)?);
        in_order(at, "slowest", &self.slowest, &self.fastest, times.0 >= times.1)?;
        let iso = |name: &str, value: f64| Iso::read(&at.of(name), value, grid);
        let isos = (iso("iso_min", self.iso_min)?, iso("iso_max", self.iso_max)?);
        in_order(at, "iso_min", &self.iso_min, &self.iso_max, isos.0 <= isos.1)?;
        let side = |name: &str, value: f64| at.figure(name, value, &bounds::SENSOR).map(Metres::from_millimetres);
        at.maybe("frames_per_second", self.frames_per_second, &bounds::FRAME_RATE)?;
        at.maybe("mass_kg", self.mass_kg, &bounds::MASS)?;
        Ok(Camera {
            kind: self.shutter_kind,
            travel,
            travel_assumed: self.shutter_kind == ShutterKind::FocalPlane && self.travel_ms.is_none(),
            rated_sync,
            guard: self
                .guard_ms
                .map_or(Ok(sync::DEFAULT_GUARD), |value| at.millis("guard_ms", value, &bounds::GUARD))?,
            times,
            isos,
            sensor: Sensor {
                width: side("sensor_width_mm", self.sensor_width_mm)?,
                height: side("sensor_height_mm", self.sensor_height_mm)?,
                pixels: at.figure("pixels_wide", f64::from(self.pixels_wide), &bounds::PIXELS)?,
            },
        })
    }
}

impl Lens {
    pub(crate) fn check(&self, at: &At, grid: Grid) -> Result<Glass, Invalid> {
        at.name("name", &self.name, "a name")?;
        let aperture = |name: &str, value: f64| Aperture::read(&at.of(name), value, grid);
        let apertures = (aperture("widest_f", self.widest_f)?, aperture("narrowest_f", self.narrowest_f)?);
        in_order(at, "widest_f", &self.widest_f, &self.narrowest_f, apertures.0 <= apertures.1)?;
        at.figure("focal_min_mm", self.focal_min_mm, &bounds::FOCAL)?;
        at.figure("focal_max_mm", self.focal_max_mm, &bounds::FOCAL)?;
        in_order(at, "focal_min_mm", &self.focal_min_mm, &self.focal_max_mm, self.focal_min_mm <= self.focal_max_mm)?;
        at.maybe("mass_kg", self.mass_kg, &bounds::MASS)?;
        Ok(Glass {
            apertures,
            focal_range: (Metres::from_millimetres(self.focal_min_mm), Metres::from_millimetres(self.focal_max_mm)),
            leaf: self
                .leaf_fastest
                .as_ref()
                .map(|text| ShutterTime::read(&at.of("leaf_fastest"), text, grid))
                .transpose()?,
        })
    }
}

fn in_order(at: &At, name: &str, from: &dyn Display, to: &dyn Display, right: bool) -> Result<(), Invalid> {
    if right {
        Ok(())
    } else {
        Err(at.contradiction(name, from.to_string(), format!("the other end of the range is {to}")))
    }
}
