//! Movement: from a part's speed to pixels of blur.

use crate::physics::ghost::dwell;
use crate::physics::phases::{GRAVITY, Phases};
use crate::quantity::{Angle, Metres, MetresPerSecond, Seconds};
use serde::{Deserialize, Serialize};

/// The rectangle that catches the picture.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Sensor {
    /// Long side of a landscape picture.
    pub width: Metres,
    /// Short side.
    pub height: Metres,
    /// Pixels along the width.
    pub pixels: f64,
}

impl Sensor {
    /// Distance from pixel to pixel.
    pub fn pitch(&self) -> Metres {
        self.width / self.pixels
    }

    /// Corner to corner.
    pub fn diagonal(&self) -> Metres {
        Metres::from_metres(self.width.as_metres().hypot(self.height.as_metres()))
    }
}

/// What the picture is for, and so how much blur is too much.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Usage {
    /// Looked at pixel by pixel: 1.5 px.
    Pixel,
    /// Large print: diagonal/3000.
    LargePrint,
    /// Print: diagonal/1500.
    #[default]
    Print,
    /// A screen that it fills: 1/2048 of the width.
    Screen,
    /// A page or a phone: 1/1200 of the width.
    Web,
}

impl Usage {
    /// The allowed blur on the sensor, also the circle of confusion of [`crate::physics::depth`].
    pub fn allowed_blur(self, sensor: &Sensor) -> Metres {
        match self {
            Self::Pixel => sensor.pitch() * 1.5,
            Self::LargePrint => sensor.diagonal() / 3000.0,
            Self::Print => sensor.diagonal() / 1500.0,
            Self::Screen => sensor.width / 2048.0,
            Self::Web => sensor.width / 1200.0,
        }
    }
}

/// How a blur looks against the allowed one.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Sharpness {
    /// Up to the allowed blur.
    Crisp,
    /// Up to three times.
    Soft,
    /// Beyond.
    Blurred,
}

/// Blur up to this many times the allowed one is a touch of softness.
pub const SOFT_LIMIT: f64 = 3.0;

impl Sharpness {
    /// Of a blur against the allowed one.
    pub fn of(blur: Metres, allowed: Metres) -> Self {
        match blur / allowed {
            ratio if ratio <= 1.0 => Self::Crisp,
            ratio if ratio <= SOFT_LIMIT => Self::Soft,
            _ => Self::Blurred,
        }
    }
}

/// `m = f/(d − f)`. Precondition `d > f`; [`crate::plan`] sees to it.
pub fn magnification(focal: Metres, distance: Metres) -> f64 {
    focal / (distance - focal)
}

/// `u = v·cos ψ·m`.
pub fn image_speed(speed: MetresPerSecond, out_of_plane: Angle, magnification: f64) -> MetresPerSecond {
    speed * (out_of_plane.as_radians().cos() * magnification)
}

/// How the image of a part moves on the sensor while the shutter is open: by itself, and with the camera.
///
/// A swing moves everything against its direction; what goes round or to and fro draws its path once, however long the
/// shutter is open, and the swing draws on. Zooming draws outwards, as far as the picture grows at the part's place, in
/// whatever time. A hand draws in no known direction.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ImageMotion {
    /// By itself.
    pub own: MetresPerSecond,
    /// By the swing.
    pub swing: MetresPerSecond,
    /// `u`: both together.
    pub speed: MetresPerSecond,
    /// Where to in the frame: 0 to the right, 90° up.
    pub direction: Angle,
    /// Length of a path that goes round or to and fro.
    pub path: Option<Metres>,
    /// How far zooming draws in one frame.
    pub zoom: Metres,
    /// By an unsteady hand.
    pub shake: MetresPerSecond,
    /// Its movement in time, where it has one; `own` and `speed` are then those at the flash.
    pub timed: Option<Timed>,
}

/// A movement in time as a camera sees it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Timed {
    /// The movement.
    pub phases: Phases,
    /// When the shutter opens.
    pub opens: Seconds,
    /// `m·cos ψ`: metres on the sensor for each metre of way.
    pub scale: f64,
}

impl Timed {
    /// When a time after opening is, on the movement's own clock.
    fn clock(&self, after: Seconds) -> Seconds {
        self.opens + after
    }

    /// From opening to a time after it.
    fn open(&self, time: Seconds) -> (Seconds, Seconds) {
        (self.opens, self.opens + time)
    }

    /// The speed of its image some time after opening, in whichever direction.
    pub fn image_speed(&self, after: Seconds) -> MetresPerSecond {
        MetresPerSecond::from_metres_per_second((self.phases.speed(self.clock(after)) * self.scale).abs())
    }

    /// Where it is some time after opening, in metres of way from where its movement began.
    pub fn place(&self, after: Seconds) -> f64 {
        self.phases.place(self.clock(after))
    }

    /// How long its image gets in a time.
    fn reach(&self, time: Seconds) -> Metres {
        let (opens, closes) = self.open(time);
        let (low, high) = self.phases.reach(opens, closes);
        Metres::from_metres((high - low) * self.scale)
    }
}

impl ImageMotion {
    /// Of a part's own movement with a camera that swings, each a speed and its direction.
    pub fn of(own: (MetresPerSecond, Angle), swing: (MetresPerSecond, Angle)) -> Self {
        let along = |(speed, angle): (MetresPerSecond, Angle)| {
            let (sine, cosine) = angle.as_radians().sin_cos();
            (speed.as_metres_per_second() * cosine, speed.as_metres_per_second() * sine)
        };
        let (speed, direction) = if swing.0 == MetresPerSecond::ZERO {
            own
        } else {
            let ((x, y), (against_x, against_y)) = (along(own), along(swing));
            let (x, y) = (x - against_x, y - against_y);
            (MetresPerSecond::from_metres_per_second(x.hypot(y)), Angle::from_radians(y.atan2(x)))
        };
        Self {
            own: own.0,
            swing: swing.0,
            speed,
            direction,
            path: None,
            zoom: Metres::ZERO,
            shake: MetresPerSecond::ZERO,
            timed: None,
        }
    }

    /// The same with its own speed at another moment.
    #[must_use]
    pub fn at_speed(self, own: MetresPerSecond) -> Self {
        // A camera that swings along adds to it; which way the part goes just then is not told apart.
        Self { own, speed: own + self.swing, ..self }
    }

    /// How far the image moves in a time, on purpose.
    pub fn moved(&self, time: Seconds) -> Metres {
        let moved = match (self.timed, self.path) {
            (Some(timed), _) => timed.reach(time) + self.swing * time,
            (None, Some(path)) => (self.own * time).min(path) + self.swing * time,
            (None, None) => self.speed * time,
        };
        moved + self.zoom
    }

    /// `ℓ`: what it draws in a time, the hand in it.
    pub fn streak(&self, time: Seconds) -> Metres {
        self.moved(time) + self.shake * time
    }

    /// What a part of a width on the sensor draws in a time: its length, and `κ`, how much of the exposure it covers of its
    /// path where that shows most.
    pub fn draws(&self, width: Metres, time: Seconds) -> (Metres, f64) {
        self.draws_beside(width, time, None)
    }

    /// The same beside what a flash froze some time after opening.
    pub fn draws_beside(&self, width: Metres, time: Seconds, flash: Option<Seconds>) -> (Metres, f64) {
        let streak = self.streak(time);
        match self.timed {
            // The camera's own movement spreads out a pause as well.
            Some(timed) if !self.is_with_the_camera() && timed.scale > 0.0 => {
                let wide = width * (1.0 / timed.scale);
                let frozen = flash.map(|flash| timed.place(flash));
                (streak, timed.phases.strongest(timed.open(time), wide, frozen))
            }
            _ => (streak, dwell(width, streak)),
        }
    }

    /// What a flash of a freezing time draws while the shutter is open for an exposure time.
    pub fn blur(&self, freeze: Seconds, exposure: Seconds) -> Metres {
        self.blurs_by(exposure) * freeze
    }

    /// The speed at which a flash sees it blur in an exposure time.
    pub fn blurs_by(&self, exposure: Seconds) -> MetresPerSecond {
        let zoom = MetresPerSecond::from_metres_per_second(self.zoom.as_metres() / exposure.as_secs());
        self.speed + self.shake + zoom
    }

    /// Whether the camera draws of itself, on purpose.
    pub fn is_with_the_camera(&self) -> bool {
        self.swing > MetresPerSecond::ZERO || self.zoom > Metres::ZERO
    }

    /// The time in which it draws a length on purpose: `t = (ℓ − zoom)/u`. Infinite for what stands still.
    pub fn time_of(&self, length: Metres) -> Seconds {
        if let Some(timed) = self.timed {
            // It only grows: halved until it is known to a hundred thousandth.
            let (mut short, mut long) = (0.0, (timed.phases.lasts() - timed.opens).as_secs().max(0.0));
            if self.moved(Seconds::from_secs(long)) < length {
                return Seconds::from_secs(f64::INFINITY);
            }
            while long - short > 1e-5 * long {
                let middle = 0.5 * (short + long);
                if self.moved(Seconds::from_secs(middle)) < length { short = middle } else { long = middle }
            }
            return Seconds::from_secs(long);
        }
        if self.speed == MetresPerSecond::ZERO {
            return Seconds::from_secs(f64::INFINITY);
        }
        let left = (length - self.zoom).max(Metres::ZERO);
        Seconds::from_secs(left.as_metres() / self.speed.as_metres_per_second())
    }
}

/// Share by which a part grows while it comes nearer: `v·sin ψ·t/d`.
pub fn growth(speed: MetresPerSecond, out_of_plane: Angle, time: Seconds, distance: Metres) -> f64 {
    (speed * time) / distance * out_of_plane.as_radians().sin()
}

/// `√(2·g·h)`: after a fall from a height, and at take-off and landing of a jump as high.
pub fn speed_after_fall(height: Metres) -> MetresPerSecond {
    MetresPerSecond::from_metres_per_second((2.0 * GRAVITY * height.as_metres().max(0.0)).sqrt())
}

/// How long around the top of a jump a part stays under a speed: `2·√(v_max² − s²)/g` with the sideways speed `s`;
/// `None` if `s ≥ v_max`.
pub fn window_of_jump(limit: MetresPerSecond, sideways: MetresPerSecond) -> Option<Seconds> {
    let (limit, sideways) = (limit.as_metres_per_second(), sideways.as_metres_per_second());
    (sideways < limit).then(|| Seconds::from_secs(2.0 * (limit * limit - sideways * sideways).sqrt() / GRAVITY))
}

/// The largest speed whose blur in a time stays within the allowed one.
pub fn speed_limit(allowed: Metres, time: Seconds, magnification: f64) -> MetresPerSecond {
    MetresPerSecond::from_metres_per_second(allowed.as_metres() / time.as_secs() / magnification)
}

/// How fast a hand turns, in radians a second, by the school of one over the focal length: in a time of 1/f, `f` as it would
/// be on a sensor of 43.27 mm diagonal, it draws what a print allows, a 1500th of the diagonal. The focal length falls out.
/// A starting figure until somebody's own is known.
pub fn hand_held(sensor: &Sensor) -> f64 {
    /// Diagonal of the sensor that the rule was made for, in mm.
    const DIAGONAL_MM: f64 = 43.27;
    let allowed = Usage::Print.allowed_blur(sensor).as_millimetres();
    allowed * DIAGONAL_MM / sensor.diagonal().as_millimetres()
}
