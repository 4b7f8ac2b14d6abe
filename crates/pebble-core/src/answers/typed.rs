//! A figure typed into a control: the notch that is nearest to it.

use crate::answers::strips::{Strip, Value, strips};
use crate::file::preferences::Lengths;
use crate::physics::exposure::illuminance_of_reading;
use crate::plan::{Meter, Plan};
use crate::quantity::dial::PowerDial;
use crate::quantity::said::{self, FigureKind, Unclear};
use crate::quantity::scale::{Aperture, Grid, Iso, ShutterTime};
use crate::wire::report;

report! {
    /// Where a typed figure leads.
    pub struct Typed {
        /// JSON pointer of the value in the shot.
        pub pointer: String,
        /// The value of the notch.
        pub value: Value,
        /// As written on the dial.
        pub label: String,
        /// Which notch it is.
        pub index: usize,
        /// Whether the dial has just this figure.
        pub exact: bool,
    }
}

/// Why a control cannot be set so.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum NotTyped {
    /// It is no figure for it.
    #[error(transparent)]
    Unclear(#[from] Unclear),
    /// The dial ends before it.
    #[error("“{text}” is beyond this dial: {from} to {to}.")]
    Beyond {
        /// As typed.
        text: String,
        /// One end.
        from: String,
        /// The other.
        to: String,
    },
    /// There is no such word on it.
    #[error("“{text}” is none of {words}.")]
    NoWord {
        /// As typed.
        text: String,
        /// Those that there are.
        words: String,
    },
    /// There is no such control.
    #[error("{strip} is no control of this shot.")]
    NoStrip {
        /// As asked for.
        strip: String,
    },
}

/// What a control counts in; nothing where it is chosen by a word.
fn kind(strip: &str) -> Option<FigureKind> {
    match strip {
        "aperture" => Some(FigureKind::Aperture),
        "shutter" => Some(FigureKind::Time),
        "iso" => Some(FigureKind::Iso),
        "filter" => Some(FigureKind::Filter),
        "focal" => Some(FigureKind::Focal),
        "subject_distance" | "flash_distance" => Some(FigureKind::Length),
        "power" => Some(FigureKind::Power),
        "bias" => Some(FigureKind::Stops),
        _ => None,
    }
}

/// A figure typed into a field that counts in a unit of its own; a power as on its dial, an illuminance also as a meter of
/// exposures reads it: `f/2.8 1/60 ISO 800`, and of a lamp `f/2.8 1/60 ISO 800 at 2 m`.
///
/// # Errors
/// [`Unclear`], a sentence for the place where it was typed.
pub fn figure(
    kind: FigureKind,
    unit: Option<&str>,
    (dial, meter): (PowerDial, Meter),
    text: &str,
) -> Result<f64, Unclear> {
    match (kind, unit) {
        (FigureKind::Power, _) => dial.read(text),
        (FigureKind::Lux, _) if let Some(lux) = exposed(text) => Ok(meter.said(lux)),
        (_, None) => said::read(kind, text),
        (_, Some(unit)) => said::read_in(kind, unit, text),
    }
}

/// Lux at one metre from f-number, time and ISO.
fn exposed(text: &str) -> Option<f64> {
    let small = text.trim().to_lowercase();
    let (read, squared) = said::from_afar(&small)?;
    let (aperture, time, iso) = settings(read)?;
    let aperture = Aperture::read("read", aperture, Grid::Thirds).ok()?;
    let time = ShutterTime::read("read", &time, Grid::Thirds).ok()?;
    let iso = Iso::read("read", iso, Grid::Thirds).ok()?;
    Some(illuminance_of_reading(aperture, time, iso).as_lux() * squared)
}

/// Settings of a camera as they are said, `f/2.8 1/60 ISO 1600`, in any order: f-number, time and ISO that a camera knows.
/// A bare whole number is no time: on one dial 60 is a sixtieth, on another a minute.
pub(crate) fn settings(text: &str) -> Option<(f64, String, f64)> {
    let (mut aperture, mut time, mut iso) = (None, None, String::new());
    for word in text.split([' ', '·', ',']).filter(|word| !word.is_empty()) {
        let slot = if word.starts_with('f') {
            &mut aperture
        } else if word.starts_with("1/") || word.ends_with('s') {
            &mut time
        } else {
            iso = format!("{iso} {word}");
            continue;
        };
        // Said twice it is either.
        if slot.replace(word).is_some() {
            return None;
        }
    }
    let (aperture, time) = (aperture?, time?.trim_end_matches('s'));
    let of = |kind, text: &str| said::read(kind, text).ok();
    let (aperture, iso) = (of(FigureKind::Aperture, aperture)?, of(FigureKind::Iso, iso.trim())?);
    Aperture::read("read", aperture, Grid::Thirds).ok()?;
    Iso::read("read", iso, Grid::Thirds).ok()?;
    ShutterTime::read("read", time, Grid::Thirds).ok()?;
    Some((aperture, time.to_owned(), iso))
}

/// The notch of a control that a text asks for; `light` is the one it belongs to, if it belongs to one.
///
/// # Errors
/// [`NotTyped`], a sentence for the place where it was typed.
pub fn typed(plan: &Plan, strip: &str, light: Option<usize>, text: &str) -> Result<Typed, NotTyped> {
    let found = strips(plan).into_iter().find(|one| one.id == strip && (one.light.is_none() || one.light == light));
    let Some(strip) = found else { return Err(NotTyped::NoStrip { strip: strip.to_owned() }) };
    match kind(&strip.id) {
        Some(FigureKind::Power) => {
            let dial = strip
                .light
                .and_then(|index| plan.lights.get(index))
                .map_or_else(PowerDial::default, |light| light.unit.dial);
            by_figure(&strip, FigureKind::Power, text, |text| dial.read(text))
        }
        // Without a unit it is in the one that the strip is written in.
        Some(FigureKind::Length) if plan.lengths == Lengths::Imperial => {
            by_figure(&strip, FigureKind::Length, text, |text| {
                Ok(said::read_in(FigureKind::Length, "ft", text)? * said::FOOT)
            })
        }
        Some(kind) => by_figure(&strip, kind, text, |text| said::read(kind, text)),
        None => by_word(&strip, text),
    }
}

fn by_figure(
    strip: &Strip,
    kind: FigureKind,
    text: &str,
    read: impl Fn(&str) -> Result<f64, Unclear>,
) -> Result<Typed, NotTyped> {
    let wanted = place(kind, read(text)?);
    // What a dial shows is read as what is typed: there is one way to read a figure.
    let places: Vec<f64> =
        strip.notches.iter().filter_map(|notch| read(&notch.label).ok()).map(|it| place(kind, it)).collect();
    let away = |index: &usize| (places[*index] - wanted).abs();
    let nearest = (0..places.len()).min_by(|a, b| away(a).total_cmp(&away(b)));
    let beyond = || NotTyped::Beyond {
        text: text.trim().to_owned(),
        from: strip.notches.first().map_or_else(String::new, |notch| notch.label.clone()),
        to: strip.notches.last().map_or_else(String::new, |notch| notch.label.clone()),
    };
    // Less than nothing has no place on a dial of ratios.
    let index = nearest.filter(|_| places.len() == strip.notches.len() && !wanted.is_nan()).ok_or_else(beyond)?;
    // Half a notch past the last one is that one; more is not on the dial.
    let neighbour = if index == 0 { 1 } else { index - 1 };
    let half = places.get(neighbour).map_or(f64::INFINITY, |beside| (beside - places[index]).abs() / 2.0 + 1e-9);
    let at_an_end = index == 0 || index + 1 == places.len();
    if at_an_end && away(&index) > half {
        return Err(beyond());
    }
    Ok(taken(strip, index, away(&index) < 0.02))
}

/// Where a figure stands on a dial: in stops or doublings, or as it is where it may be nothing.
fn place(kind: FigureKind, value: f64) -> f64 {
    match kind {
        FigureKind::Stops | FigureKind::Filter => value,
        _ => value.log2(),
    }
}

fn by_word(strip: &Strip, text: &str) -> Result<Typed, NotTyped> {
    let wanted = text.trim().to_lowercase();
    let mut begins = { strip.notches.iter().enumerate() }
        .filter(|(_, notch)| !wanted.is_empty() && notch.label.to_lowercase().starts_with(&wanted));
    match (begins.next(), begins.next()) {
        (Some((index, _)), None) => Ok(taken(strip, index, true)),
        _ => {
            let words: Vec<&str> = strip.notches.iter().map(|notch| notch.label.as_str()).collect();
            Err(NotTyped::NoWord { text: text.trim().to_owned(), words: words.join(", ") })
        }
    }
}

fn taken(strip: &Strip, index: usize, exact: bool) -> Typed {
    let notch = &strip.notches[index];
    Typed { pointer: strip.pointer.clone(), value: notch.value.clone(), label: notch.label.clone(), index, exact }
}
