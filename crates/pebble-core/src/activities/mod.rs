//! What people do before a camera: how fast their parts move, what they look like, where they do it, and what to take care
//! of. A table of figures, each with where it comes from; no shot is computed here.

mod cast;
mod list;
mod places;
mod spoken;

pub use cast::{Cast, Who, who};
pub use list::ALL;
pub use places::{Typical, typical};
pub use spoken::{SPOKEN, Spoken};

use crate::file::around::Around;
use crate::file::movement::Chances;
use crate::file::shot::{DrawnAs, Intent};
use crate::file::stage::{Composition, Place};

/// Something that people do.
#[derive(Clone, Copy, Debug)]
pub struct Activity {
    /// By which a file names it.
    pub id: &'static str,
    /// As a photographer calls it.
    pub name: &'static str,
    /// Other words by which it is looked for.
    pub also: &'static str,
    /// Where it is usual.
    pub place: Place,
    /// What the frame has to hold at the subject: its width, in metres.
    pub frame_m: f64,
    /// Height of the middle of the frame over the floor, and of the lens.
    pub heights_m: (f64, f64),
    /// How far the action reaches along the view.
    pub depth_m: f64,
    /// How often it can be tried.
    pub chances: Chances,
    /// How high a body rises whose top is waited for, from the least to the most, in metres.
    pub jump_m: Option<(f64, f64)>,
    /// Whether the light that is there belongs into the picture.
    pub mood: bool,
    /// Its parts, two to four.
    pub parts: &'static [Moves],
    /// Who and what stands in the frame.
    pub cast: Cast,
    /// What calls for care.
    pub around: &'static [Around],
}

/// A part of it that moves.
#[derive(Clone, Copy, Debug)]
pub struct Moves {
    /// Its name.
    pub name: &'static str,
    /// What it is in the frame.
    pub drawn_as: DrawnAs,
    /// What is usually wanted of it.
    pub intent: Intent,
    /// From the slowest to the fastest that is usual, in m/s.
    pub speed_m_s: (f64, f64),
    /// Where these figures come from.
    pub basis: &'static str,
    /// Direction in the frame: 0 to the right, 90 up.
    pub direction_deg: f64,
    /// Size along the movement.
    pub size_m: f64,
    /// Reflectance.
    pub reflectance: f64,
    /// Length of a path that goes round or to and fro.
    pub path_m: Option<f64>,
    /// Steady light on it against the subject: what is pale, wet or thin catches more.
    pub catches_stops: f64,
    /// Light of its own.
    pub luminance_cd_m2: Option<f64>,
    /// For what shall streak: how long, as a share of the frame's width.
    pub streak_share: Option<f64>,
}

/// A part that goes to the right.
const fn moves(
    (name, drawn_as, intent): (&'static str, DrawnAs, Intent),
    speed_m_s: (f64, f64),
    basis: &'static str,
) -> Moves {
    let (size_m, reflectance) = match drawn_as {
        DrawnAs::Face => (0.22, 0.3),
        DrawnAs::Body | DrawnAs::Silks | DrawnAs::Cloth => (0.4, 0.32),
        DrawnAs::Feet => (0.28, 0.4),
        DrawnAs::Hair => (0.25, 0.1),
        DrawnAs::Ropes => (0.022, 0.8),
        DrawnAs::Blade => (0.02, 0.6),
        DrawnAs::Hand => (0.1, 0.3),
        DrawnAs::Held => (0.06, 0.4),
        DrawnAs::Ball => (0.2, 0.6),
        DrawnAs::Wheels | DrawnAs::Bicycle => (0.3, 0.2),
        DrawnAs::Spray => (0.02, 0.7),
        DrawnAs::Lantern => (0.12, 0.5),
        DrawnAs::Medal => (0.08, 0.6),
        DrawnAs::Scarf => (0.3, 0.5),
        DrawnAs::Card => (0.2, 0.7),
    };
    Moves {
        name,
        drawn_as,
        intent,
        speed_m_s,
        basis,
        direction_deg: 0.0,
        size_m,
        reflectance,
        path_m: None,
        catches_stops: 0.0,
        luminance_cd_m2: None,
        streak_share: None,
    }
}

impl Moves {
    const fn to(self, direction_deg: f64) -> Self {
        Self { direction_deg, ..self }
    }

    const fn as_large(self, size_m: f64) -> Self {
        Self { size_m, ..self }
    }

    const fn as_bright(self, reflectance: f64) -> Self {
        Self { reflectance, ..self }
    }

    const fn round(self, path_m: f64) -> Self {
        Self { path_m: Some(path_m), ..self }
    }

    const fn catches(self, catches_stops: f64) -> Self {
        Self { catches_stops, ..self }
    }

    const fn glows(self, luminance_cd_m2: f64) -> Self {
        Self { luminance_cd_m2: Some(luminance_cd_m2), ..self }
    }

    const fn streaks(self, share: f64) -> Self {
        Self { streak_share: Some(share), ..self }
    }
}

impl Activity {
    /// One by its identity.
    pub fn by_id(id: &str) -> Option<&'static Self> {
        ALL.iter().find(|activity| activity.id == id)
    }

    /// The people and things of it in a place.
    pub fn composition(&self, place: Place) -> Composition {
        let (aim, camera) = self.heights_m;
        self.cast.composition(self.id, place, (aim, camera))
    }
}
