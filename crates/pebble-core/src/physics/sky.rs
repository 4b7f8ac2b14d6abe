//! Clear-sky light from the altitude of the sun: a forecast, never a reading.
//!
//! Janiczek & DeYoung, *Computer Programs for Sun and Moon Illuminance*, U.S. Naval Observatory Circular 171 (1987):
//! `log10 E = c0 + c1·x + c2·x² + c3·x³` with `x = a/90°`, piecewise. Seams step by up to 0.014 stop.

use crate::quantity::{Angle, Lux};

/// Light of the night sky, below the last piece.
const NIGHT: f64 = 0.000_64;

/// Lower end of each piece in degrees and its coefficients; a seam belongs to the upper piece.
const PIECES: [(f64, [f64; 4]); 6] = [
    (20.0, [3.74, 3.97, -4.07, 1.47]),
    (5.0, [3.05, 13.28, -45.98, 64.33]),
    (-0.8, [2.88, 22.26, -207.64, 1034.30]),
    (-5.0, [2.88, 21.81, -258.11, -858.36]),
    (-12.0, [2.70, 12.17, -431.69, -1899.83]),
    (-18.0, [13.84, 262.72, 1447.42, 2797.93]),
];

/// Horizontal illuminance under a clear sky.
pub fn clear_sky(altitude: Angle) -> Lux {
    let degrees = altitude.as_radians().to_degrees();
    // The conversion to radians and back may lose the last digit of a seam.
    let piece = PIECES.iter().find(|(from, _)| degrees >= from - 1e-9);
    Lux::from_lux(piece.map_or(NIGHT, |(_, c)| {
        let x = degrees / 90.0;
        10f64.powf(c[0] + x * (c[1] + x * (c[2] + x * c[3])))
    }))
}
