//! Depth of field, with the circle of confusion that the picture's use allows.

use crate::quantity::Metres;
use crate::quantity::scale::Aperture;

/// The zone that is sharp.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Depth {
    /// Nearest sharp distance.
    pub near: Metres,
    /// Farthest sharp distance, `None` for infinity.
    pub far: Option<Metres>,
    /// Focus here and everything from half of it is sharp.
    pub hyperfocal: Metres,
}

/// `Hf = f²/(N·c) + f`; near `d(Hf−f)/(Hf+d−2f)`; far `d(Hf−f)/(Hf−d)`, infinite from `d ≥ Hf`.
pub fn depth(focal: Metres, aperture: Aperture, distance: Metres, confusion: Metres) -> Depth {
    let (f, d) = (focal.as_metres(), distance.as_metres());
    let hyperfocal = f * f / (aperture.number() * confusion.as_metres()) + f;
    Depth {
        near: Metres::from_metres(d * (hyperfocal - f) / (hyperfocal + d - 2.0 * f)),
        far: (d < hyperfocal).then(|| Metres::from_metres(d * (hyperfocal - f) / (hyperfocal - d))),
        hyperfocal: Metres::from_metres(hyperfocal),
    }
}

/// How large the lens draws a point at `place` while it is focused at `focus`: `f²/(N·(d − f))·|D − d|/D`, on the sensor.
pub fn blur_disc(focal: Metres, aperture: Aperture, focus: Metres, place: Metres) -> Metres {
    let (f, d, place) = (focal.as_metres(), focus.as_metres(), place.as_metres());
    Metres::from_metres(f * f / (aperture.number() * (d - f)) * (place - d).abs() / place)
}
