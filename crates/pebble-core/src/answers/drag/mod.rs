//! Dragging the shutter on purpose: one time for the length of a streak, one for the steady light, and what has to make
//! up the difference. [`roads`] finds the settings for it.

mod lamp;
mod roads;

pub use lamp::{StreakReading, luminance_of_streak};
pub use roads::{DragAnswer, DragRoad, DragWish, Drawn, roads};

use crate::physics::motion::ImageMotion;
use crate::quantity::{Lux, LuxSeconds, Metres, Seconds, Stops};

/// What a wanted streak and a wanted steady light ask for.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Drag {
    /// Shutter time that draws the streak: `q·width/u`.
    pub streak: Seconds,
    /// Shutter time that puts the steady light where it is wanted: `2^p·H_ref/E`.
    pub ambient: Seconds,
    /// Change of light, by ND, aperture or ISO, that lets the streak's time serve both. Negative takes light away.
    pub light_change: Stops,
}

impl Drag {
    /// What the flash must gain when the light is changed, so that it stays where it was.
    pub fn flash_change(&self) -> Stops {
        -self.light_change
    }
}

/// The shutter time with which an image draws a share of the frame's width.
pub fn time_of_streak(share: f64, frame_width: Metres, motion: &ImageMotion) -> Seconds {
    motion.time_of(frame_width * share)
}

/// Both at once.
pub fn drag(streak: Seconds, wanted: Stops, reference: LuxSeconds, ambient: Lux) -> Drag {
    let time = reference * wanted.as_ratio() / ambient;
    Drag { streak, ambient: time, light_change: Stops::from_ratio(time / streak) }
}
