//! From plain data to figures that can be: the small checks that every thing of the kit and every shot goes through.

use crate::quantity::bounds::{Invalid, Limits};
use crate::quantity::{Angle, Metres, Seconds, Stops};

/// Longest name or note, in characters.
const MAX_TEXT: usize = 200;

/// Where in the data that was handed in a figure stands; errors repeat it.
#[derive(Clone, Debug, Default)]
pub(crate) struct At(String);

impl At {
    /// A place by its path.
    pub(crate) fn new(path: &str) -> Self {
        Self(path.to_owned())
    }

    /// The path of a field here.
    pub(crate) fn of(&self, name: &str) -> String {
        if self.0.is_empty() { name.to_owned() } else { format!("{}.{name}", self.0) }
    }

    /// A thing inside this one.
    pub(crate) fn inside(&self, name: &str) -> Self {
        Self(self.of(name))
    }

    /// A row of a list here.
    pub(crate) fn row(&self, list: &str, index: usize) -> Self {
        Self(format!("{}[{index}]", self.of(list)))
    }

    /// A figure within its limits. Its path is put together only for a refusal.
    pub(crate) fn figure(&self, name: &str, value: f64, limits: &Limits) -> Result<f64, Invalid> {
        limits.held(value).ok_or_else(|| limits.refuse(&self.of(name), value))
    }

    pub(crate) fn metres(&self, name: &str, value: f64, limits: &Limits) -> Result<Metres, Invalid> {
        self.figure(name, value, limits).map(Metres::from_metres)
    }

    pub(crate) fn stops(&self, name: &str, value: f64, limits: &Limits) -> Result<Stops, Invalid> {
        self.figure(name, value, limits).map(Stops::from_stops)
    }

    pub(crate) fn millis(&self, name: &str, value: f64, limits: &Limits) -> Result<Seconds, Invalid> {
        self.figure(name, value, limits).map(Seconds::from_millis)
    }

    pub(crate) fn degrees(&self, name: &str, value: f64, limits: &Limits) -> Result<Angle, Invalid> {
        self.figure(name, value, limits).map(Angle::from_degrees)
    }

    pub(crate) fn maybe(&self, name: &str, value: Option<f64>, limits: &Limits) -> Result<Option<f64>, Invalid> {
        value.map(|value| self.figure(name, value, limits)).transpose()
    }

    /// One line of text, which may be empty.
    pub(crate) fn text(&self, name: &str, value: &str) -> Result<(), Invalid> {
        if value.chars().count() > MAX_TEXT || value.chars().any(char::is_control) {
            return Err(self.not_allowed(name, value, "one line of at most 200 characters"));
        }
        Ok(())
    }

    /// One line of text with something on it.
    pub(crate) fn name(&self, name: &str, value: &str, allowed: &str) -> Result<(), Invalid> {
        self.text(name, value)?;
        if value.trim().is_empty() { Err(self.not_allowed(name, "", allowed)) } else { Ok(()) }
    }

    pub(crate) fn not_allowed(&self, name: &str, given: &str, allowed: &str) -> Invalid {
        Invalid::NotAllowed {
            field: self.of(name),
            given: given.chars().take(40).collect(),
            allowed: allowed.to_owned(),
        }
    }

    pub(crate) fn contradiction(&self, name: &str, given: String, reason: impl Into<String>) -> Invalid {
        Invalid::Contradiction { field: self.of(name), given, reason: reason.into() }
    }
}
