//! Colour of light, in mired: `10⁶/T`, in which gels and filters add up.

/// A colour temperature behind a shift in mired; positive is warmer. A shift that would take it past infinity gives the
/// bluest there is, 10⁶ K.
pub fn shifted(kelvin: f64, mired: f64) -> f64 {
    1e6 / (1e6 / kelvin + mired).max(1.0)
}

/// The shift from one colour temperature to another.
pub fn shift_between(from_kelvin: f64, to_kelvin: f64) -> f64 {
    1e6 / to_kelvin - 1e6 / from_kelvin
}
