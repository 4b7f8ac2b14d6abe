//! What is drawn is what was forecast.

mod lamps;
mod measures;
mod staged;
