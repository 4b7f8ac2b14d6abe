//! How a photographer writes and reads figures, and what new shots begin with. Kept with the data file.

use crate::physics::pulse::School;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::dial::DialStyle;
use crate::quantity::said::FOOT;
use crate::wire::{wire, word};

word! {
    /// How lengths are written, and what one typed without a unit is in.
    #[derive(Default)]
    pub enum Lengths {
        /// Metres.
        #[default]
        Metric,
        /// Feet and inches.
        Imperial,
    }
}

word! {
    /// How stops are written.
    #[derive(Default)]
    pub enum StopsIn {
        /// `+1.3`.
        #[default]
        Tenths,
        /// `+1 1/3`.
        Thirds,
        /// `+1 1/2`.
        Halves,
    }
}

wire! {
    /// What is preferred.
    #[derive(Default)]
    pub struct Preferences {
        /// How lengths are written.
        #[serde(default)]
        pub lengths: Lengths,
        /// How stops are written where light stands; sentences have tenths.
        #[serde(default)]
        pub stops: StopsIn,
        /// How power is written on units that do not say.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub dial: Option<DialStyle>,
        /// What counts as freezing time in new shots; t0.1 where none is said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub school: Option<School>,
        /// Constant of the meter that lux and lux-seconds are counted by; 340 where none is said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub meter_c: Option<f64>,
        /// Clock against universal time where a sky is begun, in minutes; that of the machine where none is said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub utc_offset_min: Option<i32>,
    }
}

impl Preferences {
    /// That they can be.
    ///
    /// # Errors
    /// [`Invalid`] for a clock that no place has, or a constant that no meter has.
    pub fn check(&self) -> Result<(), Invalid> {
        self.meter_c.map_or(Ok(()), |c| bounds::METER_C.check("meter_c", c).map(|_| ()))?;
        let minutes = self.utc_offset_min.map(f64::from);
        minutes.map_or(Ok(()), |minutes| bounds::UTC_OFFSET.check("utc_offset_min", minutes).map(|_| ()))
    }
}

impl Lengths {
    /// A length in so many decimals of a metre; in feet with one.
    pub fn say(self, metres: f64, decimals: usize) -> String {
        match self {
            Self::Metric => format!("{metres:.decimals$} m"),
            Self::Imperial => format!("{:.1} ft", metres / FOOT),
        }
    }
}
