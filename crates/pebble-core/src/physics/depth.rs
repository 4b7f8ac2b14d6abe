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
