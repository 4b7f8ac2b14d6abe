//! Where light shall fall, and what a burst is meant to be.

use crate::file::shot::{self, Lead, Reads};
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::{Seconds, Stops};

/// Where things shall fall.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Targets {
    /// Which light leads.
    pub lead: Lead,
    /// How the subject is read.
    pub reads: Reads,
    /// The exposure of the subject.
    pub subject: Stops,
    /// Steady light on the subject: the exposure itself where daylight leads.
    pub ambient: Option<Stops>,
    /// Steady light on the background.
    pub background: Option<Stops>,
}

impl Targets {
    pub(super) fn of(at: &At, wire: &shot::Targets) -> Result<Self, Invalid> {
        let maybe = |name: &str, value| Ok(at.maybe(name, value, &bounds::OFFSET)?.map(Stops::from_stops));
        let subject = at.stops("subject_stops", wire.subject_stops, &bounds::OFFSET)?;
        let ambient = maybe("ambient_stops", wire.ambient_stops)?;
        Ok(Self {
            lead: wire.lead,
            reads: wire.reads,
            subject,
            ambient: if wire.lead == Lead::Daylight { Some(subject) } else { ambient },
            background: maybe("background_stops", wire.background_stops)?,
        })
    }
}

/// Where one light shall fall.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Target {
    /// By itself.
    Alone(Stops),
    /// Against the light that leads.
    Ratio(Stops),
}

impl Target {
    pub(super) fn of(at: &At, wire: &shot::Flash) -> Result<Option<Self>, Invalid> {
        let maybe = |name: &str, value| Ok(at.maybe(name, value, &bounds::OFFSET)?.map(Stops::from_stops));
        match (maybe("target_stops", wire.target_stops)?, maybe("ratio_stops", wire.ratio_stops)?) {
            (Some(alone), Some(_)) => {
                let reason = "a light is held to a place of its own or to a ratio, not to both";
                Err(at.contradiction("target_stops", format!("{}", alone.as_stops()), reason))
            }
            (Some(alone), None) => Ok(Some(Self::Alone(alone))),
            (None, ratio) => Ok(ratio.map(Self::Ratio)),
        }
    }
}

/// Frames in a row.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Burst {
    /// How many.
    pub frames: u32,
    /// Frames a second.
    pub rate: f64,
    /// How long the action lasts.
    pub action: Option<Seconds>,
}

impl Burst {
    pub(super) fn of(at: &At, wire: &shot::ShotBurst) -> Result<Self, Invalid> {
        at.figure("frames", f64::from(wire.frames), &bounds::FRAMES)?;
        Ok(Self {
            frames: wire.frames,
            rate: at.figure("per_second", wire.per_second, &bounds::FRAME_RATE)?,
            action: at.maybe("action_s", wire.action_s, &bounds::ACTION)?.map(Seconds::from_secs),
        })
    }

    /// From the first frame to the last.
    pub fn lasts(&self) -> Seconds {
        Seconds::from_secs(f64::from(self.frames - 1) / self.rate)
    }
}
