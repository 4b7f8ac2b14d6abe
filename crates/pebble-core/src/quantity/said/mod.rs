//! Figures as they are said on a set and typed in a hurry: `1/125`, `f/2.8`, `0.4s`, `6 ft 6`, `ND 0.9`, `1/16 +0.3`,
//! `40 km/h`, `320 rpm @ 0.3 m`. What can be read in two ways is refused with both of them, never guessed at.

mod kinds;
pub(crate) use kinds::FOOT;
mod number;

use crate::quantity::scale::{Aperture, Grid};
use crate::quantity::words::capital;
use crate::wire::word;
use kinds::unit_of;
use number::{Form, NoNumber, Number, number, plain};

/// Longer than any figure.
pub const MOST_SIGNS: usize = 40;

word! {
    /// What a figure is of.
    pub enum FigureKind {
        /// An exposure or a duration, in seconds.
        Time,
        /// An f-number.
        Aperture,
        /// A sensitivity.
        Iso,
        /// A share of full power.
        Power,
        /// Stops, with their sign.
        Stops,
        /// A loss in front of the lens, in stops.
        Filter,
        /// Metres.
        Length,
        /// Millimetres of a lens.
        Focal,
        /// Metres a second.
        Speed,
        /// Degrees.
        Angle,
        /// A share of a whole.
        Share,
        /// Kelvin.
        Kelvin,
        /// Lux.
        Lux,
        /// Just a number.
        Number,
        /// Joules.
        Energy,
        /// Kilograms.
        Mass,
        /// Watts.
        Watts,
        /// Watt-hours.
        Charge,
        /// lx·s.
        Exposure,
        /// Mired.
        Mired,
        /// So many a second.
        Rate,
        /// Degrees a second.
        TurnRate,
    }
}

impl FigureKind {
    /// With its article.
    const fn name(self) -> &'static str {
        match self {
            Self::Time => "a time",
            Self::Aperture => "an aperture",
            Self::Iso => "an ISO",
            Self::Power => "a power",
            Self::Stops => "a number of stops",
            Self::Filter => "a filter",
            Self::Length => "a distance",
            Self::Focal => "a focal length",
            Self::Speed => "a speed",
            Self::Angle => "an angle",
            Self::Share => "a share",
            Self::Kelvin => "a colour temperature",
            Self::Lux => "an illuminance",
            Self::Number => "a number",
            Self::Energy => "an energy",
            Self::Mass => "a weight",
            Self::Watts => "a power in watts",
            Self::Charge => "a charge",
            Self::Exposure => "an exposure in lx·s",
            Self::Mired => "a shift of colour",
            Self::Rate => "a rate",
            Self::TurnRate => "a rate of turning",
        }
    }

    /// As it is written.
    const fn examples(self) -> &'static str {
        match self {
            Self::Time => "1/125, 0.4 s or 8 ms",
            Self::Aperture => "5.6 or f/5.6",
            Self::Iso => "400 or ISO 400",
            Self::Power => "1/16, 1/16 +0.3, 25 % or full",
            Self::Stops => "+1, −1 1/3 or 0.7",
            Self::Filter => "ND 0.9, ND8, 3 stops or none",
            Self::Length => "1.2 m, 120 cm or 6 ft 6",
            Self::Focal => "85 or 85 mm",
            Self::Speed => "4 m/s, 40 km/h, 5:30 /km or 320 rpm @ 0.3 m",
            Self::Angle => "45 or 45°",
            Self::Share => "0.25, 25 % or 1/4",
            Self::Kelvin => "5500 or 5500 K",
            Self::Lux => "60 or 60 lx",
            Self::Number => "3, 0.7 or 1/2",
            Self::Energy => "400, 400 J or 0.4 kJ",
            Self::Mass => "1.2 kg, 800 g or 2.5 lb",
            Self::Watts => "80 or 80 W",
            Self::Charge => "40 or 40 Wh",
            Self::Exposure => "4000 or 4000 lx·s",
            Self::Mired => "+60 or −20 mired",
            Self::Rate => "8, 8 /s or 8 fps",
            Self::TurnRate => "30 or 30 °/s",
        }
    }
}

/// Why a text is no figure.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum Unclear {
    /// Nothing was typed.
    #[error("Nothing stands there. {} would do.", capital(kind.examples()))]
    Empty {
        /// What was asked for.
        kind: FigureKind,
    },
    /// Far too much was typed.
    #[error("That has {signs} signs and no figure has more than {MOST_SIGNS}. {} would do.", capital(kind.examples()))]
    TooLong {
        /// What was asked for.
        kind: FigureKind,
        /// How much.
        signs: usize,
    },
    /// It is something else, or nothing known.
    #[error("“{text}” is no figure for {}. {} would do.", kind.name(), capital(kind.examples()))]
    NoFigure {
        /// What was asked for.
        kind: FigureKind,
        /// As typed.
        text: String,
    },
    /// It is a figure of another kind.
    #[error("“{text}” is {}, and this is {}. {} would do.", is.name(), kind.name(), capital(kind.examples()))]
    OfAnother {
        /// What was asked for.
        kind: FigureKind,
        /// What it is.
        is: FigureKind,
        /// As typed.
        text: String,
    },
    /// It can be read in two ways.
    #[error("“{text}” could be {} or {}. Write it as one of them.", either.0, either.1)]
    Ambiguous {
        /// As typed.
        text: String,
        /// Both.
        either: (String, String),
    },
    /// Nothing can be as small, or as large.
    #[error("“{text}” is not {} that can be. {} would do.", kind.name(), capital(kind.examples()))]
    Impossible {
        /// What was asked for.
        kind: FigureKind,
        /// As typed.
        text: String,
    },
}

/// Reads a figure: in seconds, f-numbers, ISO, fractions of full power, stops, metres, millimetres of a lens, metres a
/// second, degrees, shares of one, kelvin, lux.
///
/// # Errors
/// [`Unclear`] for what is no figure, one of another kind, or one that can be read in two ways.
pub fn read(kind: FigureKind, typed: &str) -> Result<f64, Unclear> {
    let text = signs(kind, typed)?;
    let reader = Reader { kind, typed: typed.trim(), text: &text };
    let value = kinds::read(&reader)?;
    let possible = match kind {
        FigureKind::Stops | FigureKind::Angle | FigureKind::Number | FigureKind::Mired | FigureKind::TurnRate => {
            value.is_finite()
        }
        FigureKind::Filter | FigureKind::Share | FigureKind::Lux | FigureKind::Speed => {
            value.is_finite() && value >= 0.0
        }
        _ => value.is_finite() && value > 0.0,
    };
    if possible { Ok(value) } else { Err(Unclear::Impossible { kind, text: reader.typed.to_owned() }) }
}

/// What was typed in plain signs, where something was and not far too much.
fn signs(kind: FigureKind, typed: &str) -> Result<String, Unclear> {
    let signs = typed.chars().count();
    if signs > MOST_SIGNS {
        return Err(Unclear::TooLong { kind, signs });
    }
    let text = plain(typed);
    if text.is_empty() { Err(Unclear::Empty { kind }) } else { Ok(text) }
}

/// What was typed, in the signs of a keyboard and small letters.
///
/// # Errors
/// [`Unclear`] for nothing, and for far too much.
pub(crate) fn simple(kind: FigureKind, typed: &str) -> Result<String, Unclear> {
    signs(kind, typed)
}

/// A time as a camera's dial writes it, for whatever keeps one in words: `1/125`, `0.5"`. A bare whole number is none: on one
/// dial 60 is a sixtieth, on another a minute.
///
/// # Errors
/// [`Unclear`], a sentence for the place where it was typed.
pub fn dial_time(text: &str) -> Result<String, Unclear> {
    let seconds = read(FigureKind::Time, text)?;
    let below = (1.0 / seconds).round();
    let is_fraction = seconds < LONG_FROM_S && (below * seconds - 1.0).abs() < 1e-6;
    Ok(if is_fraction { format!("1/{below}") } else { format!("{}\"", (seconds * 1e6).round() / 1e6) })
}

/// From here on dials write seconds.
const LONG_FROM_S: f64 = 0.3;

/// A figure in a unit that a field counts in: a bare number is of that unit, and so is the answer. A fraction is never bare
/// where it is said of something else: `1/1900` in a field of milliseconds is 1/1900 s.
///
/// # Errors
/// As [`read`]; and for a unit that is none of this kind.
pub fn read_in(kind: FigureKind, unit: &str, typed: &str) -> Result<f64, Unclear> {
    let name = plain(unit);
    let factor = if name.is_empty() {
        1.0
    } else {
        let known = kinds::units(kind).iter().find(|(known, _)| *known == name);
        known.ok_or_else(|| Unclear::NoFigure { kind, text: unit.to_owned() })?.1
    };
    match bare(typed) {
        Some(value) => Ok(value),
        None => Ok(read(kind, typed)? / factor),
    }
}

/// What a flash meter shows, as an aperture value in stops: `f/5.6 and 3 tenths`, `5.6 3`, `6.3`, `Av 5.3`.
///
/// # Errors
/// [`Unclear`] for what is no reading.
pub fn meter(typed: &str) -> Result<f64, Unclear> {
    let kind = FigureKind::Aperture;
    let text = signs(kind, typed)?;
    let of = Reader { kind, typed: typed.trim(), text: &text };
    if let Some(stops) = text.strip_prefix("av") {
        let found = of.number(stops)?;
        return if found.rest.trim().is_empty() { Ok(found.value) } else { Err(of.no_figure()) };
    }
    let number = of.number(text.strip_prefix("f/").or_else(|| text.strip_prefix('f')).unwrap_or(&text))?;
    let whole = matches!(number.form, Form::Whole | Form::Decimal) && !number.signed;
    let base = Aperture::read("read", number.value, Grid::Thirds).ok().filter(|_| whole);
    let base = base.ok_or_else(|| of.no_figure())?;
    let tenths = kinds::tenths(number.rest.trim()).ok_or_else(|| of.no_figure())?;
    Ok(2.0 * base.number().log2() + f64::from(tenths) / 10.0)
}

/// A figure that names its unit.
pub(crate) fn named(kind: FigureKind, typed: &str) -> Option<f64> {
    if typed.chars().count() > MOST_SIGNS {
        return None;
    }
    let text = plain(typed);
    let (number, unit) = Reader { kind, typed, text: &text }.with_unit().ok()?;
    unit.map(|unit| number.value * unit)
}

/// A whole number or a decimal with nothing else.
pub(crate) fn bare(typed: &str) -> Option<f64> {
    if typed.chars().count() > MOST_SIGNS {
        return None;
    }
    let text = plain(typed);
    let found = number(&text).ok().filter(|found| found.rest.trim().is_empty())?;
    matches!(found.form, Form::Whole | Form::Decimal).then_some(found.value)
}

/// Something read at a distance, and by what it is multiplied to be read at one metre: the square of the distance, for what
/// is small where it is read. Without a distance it is at one metre; with one that is none, nothing.
pub(crate) fn from_afar(text: &str) -> Option<(&str, f64)> {
    match text.split_once(" at ").or_else(|| text.split_once('@')) {
        None => Some((text, 1.0)),
        Some((read, far)) => read_in(FigureKind::Length, "m", far).ok().map(|far| (read.trim(), far * far)),
    }
}

/// What is read, and how it is refused.
struct Reader<'a> {
    kind: FigureKind,
    /// As typed.
    typed: &'a str,
    /// In plain signs.
    text: &'a str,
}

impl<'a> Reader<'a> {
    fn number(&self, text: &'a str) -> Result<Number<'a>, Unclear> {
        number(text).map_err(|why| match why {
            NoNumber::None => self.no_figure(),
            NoNumber::Grouped => {
                let group = |to: &str| self.typed.replacen(',', to, 1);
                self.ambiguous(group(""), group("."))
            }
        })
    }

    /// A figure with one of the units of its kind, or none.
    fn with_unit(&self) -> Result<(Number<'a>, Option<f64>), Unclear> {
        let number = self.number(self.text)?;
        let unit = number.rest.trim();
        if unit.is_empty() {
            return Ok((number, None));
        }
        kinds::units(self.kind)
            .iter()
            .find(|(name, _)| *name == unit)
            .map(|(_, factor)| (number, Some(*factor)))
            .ok_or_else(|| unit_of(unit).map_or_else(|| self.no_figure(), |is| self.of_another(is)))
    }

    fn no_figure(&self) -> Unclear {
        let beginning = |signs: &[&str]| signs.iter().any(|sign| self.text.starts_with(sign));
        // What begins with the sign of another kind is of that kind.
        let is = match self.kind {
            FigureKind::Aperture | FigureKind::Iso | FigureKind::Filter => None,
            _ if beginning(&["f/", "f1", "f2", "f4", "f5", "f8"]) => Some(FigureKind::Aperture),
            _ if beginning(&["iso"]) => Some(FigureKind::Iso),
            _ if beginning(&["nd"]) => Some(FigureKind::Filter),
            _ => None,
        };
        is.map_or_else(|| Unclear::NoFigure { kind: self.kind, text: self.typed.to_owned() }, |is| self.of_another(is))
    }

    fn of_another(&self, is: FigureKind) -> Unclear {
        if is == self.kind {
            return Unclear::NoFigure { kind: self.kind, text: self.typed.to_owned() };
        }
        Unclear::OfAnother { kind: self.kind, is, text: self.typed.to_owned() }
    }

    fn ambiguous(&self, one: String, other: String) -> Unclear {
        Unclear::Ambiguous { text: self.typed.to_owned(), either: (one, other) }
    }
}
