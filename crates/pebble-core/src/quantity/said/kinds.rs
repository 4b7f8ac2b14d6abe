//! How figures of each kind are said.

use super::{FigureKind, Form, Reader, Unclear, number};
use std::f64::consts::TAU;

/// An international foot, in metres.
pub(crate) const FOOT: f64 = 0.3048;
/// An inch, in metres.
const INCH: f64 = 0.0254;
/// A mile, in metres.
const MILE: f64 = 1609.344;
/// A pound, in kilograms.
const POUND: f64 = 0.453_592_37;
/// Stops of one unit of density: 1 / log10 2.
const STOPS_OF_DENSITY: f64 = std::f64::consts::LOG2_10;
/// Denser filters are told by nobody.
const DENSEST: f64 = 5.0;

/// Units of a kind, each in the unit that is counted in.
pub(super) const fn units(kind: FigureKind) -> &'static [(&'static str, f64)] {
    match kind {
        FigureKind::Time => &[
            ("s", 1.0),
            ("\"", 1.0),
            ("''", 1.0),
            ("sec", 1.0),
            ("second", 1.0),
            ("seconds", 1.0),
            ("ms", 1e-3),
            ("us", 1e-6),
            ("min", 60.0),
        ],
        FigureKind::Stops => &[("stop", 1.0), ("stops", 1.0), ("ev", 1.0)],
        FigureKind::Length => &[
            ("m", 1.0),
            ("cm", 0.01),
            ("mm", 1e-3),
            ("ft", FOOT),
            ("'", FOOT),
            ("feet", FOOT),
            ("foot", FOOT),
            ("in", INCH),
            ("\"", INCH),
            ("inches", INCH),
        ],
        FigureKind::Focal => &[("mm", 1.0)],
        FigureKind::Speed => &[
            ("m/s", 1.0),
            ("km/h", 1.0 / 3.6),
            ("kmh", 1.0 / 3.6),
            ("kph", 1.0 / 3.6),
            ("mph", MILE / 3600.0),
            ("ft/s", FOOT),
            ("kn", 1852.0 / 3600.0),
        ],
        FigureKind::Angle => &[("°", 1.0), ("deg", 1.0), ("degrees", 1.0)],
        FigureKind::Share | FigureKind::Power => &[("%", 0.01), ("percent", 0.01)],
        FigureKind::Kelvin => &[("k", 1.0)],
        FigureKind::Lux => &[("lx", 1.0), ("lux", 1.0), ("klx", 1e3)],
        FigureKind::Energy => &[("j", 1.0), ("ws", 1.0), ("kj", 1e3), ("joules", 1.0)],
        FigureKind::Mass => &[("kg", 1.0), ("g", 1e-3), ("lb", POUND), ("lbs", POUND), ("oz", POUND / 16.0)],
        FigureKind::Watts => &[("w", 1.0), ("kw", 1e3)],
        FigureKind::Charge => &[("wh", 1.0)],
        FigureKind::Exposure => &[("lx·s", 1.0), ("lxs", 1.0), ("lx*s", 1.0), ("lx s", 1.0), ("lux-seconds", 1.0)],
        FigureKind::Mired => &[("mired", 1.0)],
        FigureKind::Rate => &[
            ("/s", 1.0),
            ("fps", 1.0),
            ("a second", 1.0),
            ("per second", 1.0),
            ("hz", 1.0),
            ("khz", 1e3),
            ("mhz", 1e6),
        ],
        FigureKind::TurnRate => &[("°/s", 1.0), ("deg/s", 1.0)],
        FigureKind::Filter => &[("stops", 1.0)],
        FigureKind::Aperture | FigureKind::Iso | FigureKind::Number => &[],
    }
}

/// The kind that a unit belongs to.
pub(super) fn unit_of(unit: &str) -> Option<FigureKind> {
    const ALL: [FigureKind; 16] = [
        FigureKind::Time,
        FigureKind::Length,
        FigureKind::Speed,
        FigureKind::Stops,
        FigureKind::Angle,
        FigureKind::Share,
        FigureKind::Kelvin,
        FigureKind::Lux,
        FigureKind::Energy,
        FigureKind::Mass,
        FigureKind::Watts,
        FigureKind::Charge,
        FigureKind::Exposure,
        FigureKind::Mired,
        FigureKind::Rate,
        FigureKind::TurnRate,
    ];
    ALL.into_iter().find(|kind| units(*kind).iter().any(|(name, _)| *name == unit))
}

pub(super) fn read(of: &Reader) -> Result<f64, Unclear> {
    match of.kind {
        FigureKind::Time => time(of),
        FigureKind::Aperture => after_sign(of, &["f/", "f"]),
        FigureKind::Iso => after_sign(of, &["iso"]),
        FigureKind::Power => power(of),
        FigureKind::Filter => filter(of),
        FigureKind::Length => length(of),
        FigureKind::Speed => speed(of),
        FigureKind::Share => share(of),
        FigureKind::Stops if between(of.text).is_some() => two_readings(of),
        FigureKind::Lux => illuminance(of),
        FigureKind::Stops
        | FigureKind::Focal
        | FigureKind::Angle
        | FigureKind::Kelvin
        | FigureKind::Number
        | FigureKind::Energy
        | FigureKind::Mass
        | FigureKind::Watts
        | FigureKind::Charge
        | FigureKind::Exposure
        | FigureKind::Mired
        | FigureKind::Rate
        | FigureKind::TurnRate => {
            let (number, unit) = of.with_unit()?;
            Ok(number.value * unit.unwrap_or(1.0))
        }
    }
}

/// A figure with its unit, or without one where no whole number over one could be meant in two ways.
fn counted(of: &Reader, either: impl Fn(f64) -> (String, String)) -> Result<f64, Unclear> {
    let (number, unit) = of.with_unit()?;
    match unit {
        Some(unit) => Ok(number.value * unit),
        None if number.form == Form::Whole && number.value > 1.0 => {
            let (one, other) = either(number.value);
            Err(of.ambiguous(one, other))
        }
        None => Ok(number.value),
    }
}

/// `125` on a shutter is 1/125; in a leaflet it is anything.
fn time(of: &Reader) -> Result<f64, Unclear> {
    counted(of, |whole| (format!("1/{whole} s"), format!("{whole} s")))
}

/// A number with the sign of its kind before it, or without.
fn after_sign(of: &Reader, signs: &[&str]) -> Result<f64, Unclear> {
    let text = signs.iter().find_map(|sign| of.text.strip_prefix(sign)).unwrap_or(of.text).trim_start();
    let found = of.number(text)?;
    match found.rest.trim() {
        "" if matches!(found.form, Form::Fraction | Form::Mixed) => Err(of.no_figure()),
        "" => Ok(found.value),
        unit => Err(unit_of(unit).map_or_else(|| of.no_figure(), |is| of.of_another(is))),
    }
}

fn power(of: &Reader) -> Result<f64, Unclear> {
    if of.text == "full" {
        return Ok(1.0);
    }
    let found = of.number(of.text)?;
    let rest = found.rest.trim();
    if found.signed {
        return Err(of.no_figure());
    }
    // `1/16 +0.3`: stops over it.
    if rest.starts_with(['+', '-']) && found.form == Form::Fraction {
        let over = of.number(rest)?;
        return match over.rest.trim() {
            "" | "stop" | "stops" => Ok(found.value * over.value.exp2()),
            _ => Err(of.no_figure()),
        };
    }
    // Whole numbers are steps of a dial, or the lower half of a fraction.
    counted(of, |whole| (format!("1/{whole}"), format!("{whole} %")))
}

fn share(of: &Reader) -> Result<f64, Unclear> {
    counted(of, |whole| (format!("{whole} %"), format!("1/{whole}")))
}

/// By density, by factor, by stops, or by the share that goes through.
fn filter(of: &Reader) -> Result<f64, Unclear> {
    if matches!(of.text, "none" | "off" | "0" | "no") {
        return Ok(0.0);
    }
    let Some(text) = of.text.strip_prefix("nd") else {
        let found = of.number(of.text)?;
        return match found.rest.trim() {
            "stop" | "stops" => Ok(found.value),
            "%" | "% through" if found.value > 0.0 && found.value <= 100.0 => Ok(-(found.value / 100.0).log2()),
            "" => Err(of.ambiguous(format!("ND {} by density", found.value), format!("{} stops", found.value))),
            unit => Err(unit_of(unit).map_or_else(|| of.no_figure(), |is| of.of_another(is))),
        };
    };
    let found = of.number(text)?;
    match (found.rest.trim(), found.form) {
        ("stop" | "stops", _) => Ok(found.value),
        ("", Form::Decimal) if found.value <= DENSEST => Ok(found.value * STOPS_OF_DENSITY),
        // A whole number from four on can only be a factor: nothing is so dense.
        ("", Form::Whole) if found.value >= 4.0 => Ok(found.value.log2()),
        ("", Form::Whole) => Err(of.ambiguous(
            format!("ND {:.1} by density", found.value),
            format!("{:.1} stops by its factor", found.value.max(1.0).log2()),
        )),
        _ => Err(of.no_figure()),
    }
}

fn length(of: &Reader) -> Result<f64, Unclear> {
    let found = of.number(of.text)?;
    // Feet, and inches after them.
    let feet = ["feet", "foot", "ft", "'"].iter().find_map(|feet| found.rest.trim_start().strip_prefix(feet));
    if let Some(inches) = feet.map(str::trim).filter(|inches| !inches.is_empty()) {
        let inches = of.number(inches)?;
        let plain = matches!(inches.rest.trim(), "" | "in" | "\"" | "inches" | "''");
        let whole = found.form == Form::Whole;
        return if plain && whole && !inches.signed && (0.0..12.0).contains(&inches.value) {
            Ok(found.value * FOOT + inches.value * INCH)
        } else {
            Err(of.no_figure())
        };
    }
    let (found, unit) = of.with_unit()?;
    match unit {
        Some(unit) => Ok(found.value * unit),
        // Half of what?
        None if matches!(found.form, Form::Fraction | Form::Mixed) => Err(of.no_figure()),
        None => Ok(found.value),
    }
}

fn speed(of: &Reader) -> Result<f64, Unclear> {
    // Minutes and seconds a kilometre or a mile.
    if let Some((minutes, after)) = of.text.split_once(':') {
        let (minutes, seconds) = (of.number(minutes)?, of.number(after)?);
        let whole = minutes.rest.trim().is_empty() && minutes.form == Form::Whole && seconds.value < 60.0;
        let way = match seconds.rest.trim().trim_start_matches("min").trim_start_matches('/').trim() {
            "km" => 1000.0,
            "mi" | "mile" => MILE,
            _ => return Err(of.no_figure()),
        };
        return if whole { Ok(way / (minutes.value * 60.0 + seconds.value)) } else { Err(of.no_figure()) };
    }
    let found = of.number(of.text)?;
    // Turns a minute at a radius.
    if let Some(radius) = found.rest.trim_start().strip_prefix("rpm") {
        let Some(radius) = radius.trim_start().strip_prefix(['@', 'x']) else { return Err(of.no_figure()) };
        let radius = number(radius).map_err(|_| of.no_figure())?;
        let unit = radius.rest.trim();
        let metres = units(FigureKind::Length).iter().find(|(name, _)| *name == unit).map(|(_, metres)| *metres);
        return metres.map(|metres| TAU * radius.value * metres * found.value / 60.0).ok_or_else(|| of.no_figure());
    }
    let (found, unit) = of.with_unit()?;
    Ok(found.value * unit.unwrap_or(1.0))
}

/// Tenths of a stop after an f-number: `and 3 tenths`, `and 3`, `3`, `+0.3`, `.3`; none where nothing stands there.
pub(super) fn tenths(text: &str) -> Option<u8> {
    if text.is_empty() {
        return Some(0);
    }
    let text = text.strip_prefix("and").unwrap_or(text).trim_start();
    let text = text.strip_prefix('+').unwrap_or(text).trim_start();
    let text = ["tenths", "tenth"].iter().find_map(|word| text.strip_suffix(word)).unwrap_or(text).trim_end();
    let digit = text.strip_prefix("0.").or_else(|| text.strip_prefix('.')).unwrap_or(text);
    match digit.as_bytes() {
        [digit @ b'0'..=b'9'] => Some(digit - b'0'),
        _ => None,
    }
}

/// `f/8 to f/5.6`: two readings of a meter.
fn between(text: &str) -> Option<(&str, &str)> {
    text.split_once(" to ").or_else(|| text.split_once('→')).or_else(|| text.split_once("->"))
}

/// What lies between two readings, without something and with it, as the meter shows them: the change of light in stops.
fn two_readings(of: &Reader) -> Result<f64, Unclear> {
    let (without, with) = between(of.text).ok_or_else(|| of.no_figure())?;
    let read = |text: &str| super::meter(text).map_err(|_| of.no_figure());
    Ok(read(with)? - read(without)?)
}

/// Lux; those of a lamp at one metre also from elsewhere: `60 lx at 3 m`.
fn illuminance(of: &Reader) -> Result<f64, Unclear> {
    let (read, squared) = super::from_afar(of.text).ok_or_else(|| of.no_figure())?;
    let (number, unit) = Reader { text: read, ..*of }.with_unit()?;
    Ok(number.value * unit.unwrap_or(1.0) * squared)
}
