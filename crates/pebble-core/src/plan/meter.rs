//! The constant that lux are counted by.
//!
//! `H_ref = C·N²/S`: f-numbers, guide numbers and readings need no `C`, for whatever it is, it falls out again. What is said in
//! lux, lux-seconds or candela stands against them by it. Inside, light is counted as by the usual dome; what comes in and
//! goes out in lux is brought to that and back.

use crate::physics::exposure::INCIDENT_C;
use crate::quantity::bounds::{self, Invalid};

/// How lux are counted.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Meter {
    c: f64,
}

impl Default for Meter {
    fn default() -> Self {
        Self { c: INCIDENT_C }
    }
}

impl Meter {
    /// With a constant; with the usual one of a dome where none is said.
    ///
    /// # Errors
    /// [`Invalid`] for a constant that no meter has.
    pub fn of(c: Option<f64>) -> Result<Self, Invalid> {
        Ok(Self { c: c.map_or(Ok(INCIDENT_C), |c| bounds::METER_C.check("meter_c", c))? })
    }

    /// Its constant.
    pub const fn c(self) -> f64 {
        self.c
    }

    /// A photometric figure as it is counted inside.
    pub fn counted(self, figure: f64) -> f64 {
        figure * (INCIDENT_C / self.c)
    }

    /// One that is counted inside, as it is said.
    pub fn said(self, counted: f64) -> f64 {
        counted * (self.c / INCIDENT_C)
    }
}
