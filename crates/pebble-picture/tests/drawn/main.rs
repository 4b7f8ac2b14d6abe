//! What is drawn is what was forecast.

mod measures;
mod staged;
