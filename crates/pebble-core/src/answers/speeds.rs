//! How fast something is, from what people know: a word, a pace, turns at a radius, the height of a jump, a way and a time,
//! the frames of a clip, the length of a blur in a test frame. Always from a slowest to a fastest; both are shown, and the
//! fastest is judged by.

use crate::activities::SPOKEN;
use crate::outlook::outlook;
use crate::physics::motion::speed_after_fall;
use crate::plan::Plan;
use crate::quantity::Metres;
use crate::quantity::bounds;
use crate::quantity::said::{self, FigureKind, Unclear};
use crate::quantity::scale::{Grid, ShutterTime};
use crate::wire::report;
use std::f64::consts::TAU;

report! {
    /// How fast something was said to be.
    pub struct SaidSpeed {
        /// The slowest, in m/s.
        pub slowest_m_s: f64,
        /// The fastest, in m/s: what is judged by.
        pub fastest_m_s: f64,
        /// Where the figure comes from.
        pub basis: String,
    }
}

/// Why a text is no speed.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum NoSpeed {
    /// It is no figure for one.
    #[error(transparent)]
    Unclear(#[from] Unclear),
    /// It is a word without one.
    #[error(
        "“{text}” says no speed. A word that does would: {}; or “8 km/h”, “jump 40 cm”, “100 m in 12 s”, “120 px at 1/60”.",
        words()
    )]
    NoSuchWord {
        /// As typed.
        text: String,
    },
    /// Nothing in front of a camera is as fast.
    #[error("“{text}” is {m_s:.1} m/s, and nothing that people do is faster than {} m/s. Look at the unit.", bounds::SPEED.max)]
    TooFast {
        /// As typed.
        text: String,
        /// As understood.
        m_s: f64,
    },
    /// A clip of one frame.
    #[error(
        "“{text}”: in {frames} frame no time passes. Count the frames from where it was to where it got, at least 2."
    )]
    OneFrame {
        /// As typed.
        text: String,
        /// How many.
        frames: u32,
    },
    /// Turning, and nobody knows how far out.
    #[error("“{text}” says no radius: the farther out, the faster. Like this: {text} at 50 cm.")]
    NoRadius {
        /// As typed.
        text: String,
    },
    /// A blur was measured, and no frame is known in which.
    #[error("“{text}” is a length in a frame, and there is none here. Say it where the shot is open.")]
    NoFrame {
        /// As typed.
        text: String,
    },
}

fn words() -> String {
    let some = ["walk", "run", "sprint", "punch", "kick", "hair", "rope tip"];
    some.map(|word| format!("“{word}”")).join(", ")
}

/// What a length in the frame is in the scene.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct InFrame {
    /// What a pixel of the camera covers at the subject.
    pub pixel: Metres,
    /// What the frame's width covers there.
    pub width: Metres,
}

impl InFrame {
    /// Of a shot, as it is set.
    pub fn of(plan: &Plan) -> Self {
        let seen = outlook(plan);
        Self { pixel: plan.body.sensor.pitch() / seen.magnification, width: plan.frame().0 / seen.magnification }
    }
}

/// Where a speed is said.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct SaidWhere {
    /// The frame of the shot, for lengths that were measured in one.
    pub frame: Option<InFrame>,
    /// Metres a second stand in the field, so that a bare number is of them. Elsewhere it could be of anything.
    pub in_m_s: bool,
}

/// Reads a speed.
///
/// # Errors
/// [`NoSpeed`], a sentence for the place where it was typed.
pub fn speed(typed: &str, at: SaidWhere) -> Result<SaidSpeed, NoSpeed> {
    let text = said::simple(FigureKind::Speed, typed)?;
    let typed = typed.trim();
    let (low, high) = ends(&text).unwrap_or_else(|| (text.clone(), text.clone()));
    if let (Some(low), Some(high)) = (said::bare(&low), said::bare(&high)) {
        let basis = format!("as said: {typed} m/s");
        return match at.in_m_s {
            true => within(between((low, high), basis), typed),
            false => Err(either(typed, ["m/s", "km/h"])),
        };
    }
    within(understood(&text, typed, at.frame)?, typed)
}

/// What could be in one unit or in another is for whoever typed it to say.
fn either(text: &str, [one, other]: [&str; 2]) -> NoSpeed {
    let either = (format!("{text} {one}"), format!("{text} {other}"));
    Unclear::Ambiguous { text: text.to_owned(), either }.into()
}

/// A speed that there is.
fn within(found: SaidSpeed, typed: &str) -> Result<SaidSpeed, NoSpeed> {
    if !found.fastest_m_s.is_finite() || found.fastest_m_s > bounds::SPEED.max {
        return Err(NoSpeed::TooFast { text: typed.to_owned(), m_s: found.fastest_m_s });
    }
    if found.slowest_m_s < 0.0 {
        return Err(Unclear::Impossible { kind: FigureKind::Speed, text: typed.to_owned() }.into());
    }
    Ok(found)
}

fn understood(text: &str, typed: &str, frame: Option<InFrame>) -> Result<SaidSpeed, NoSpeed> {
    let word = text.strip_prefix("a ").or_else(|| text.strip_prefix("the ")).unwrap_or(text);
    if let Some(spoken) = SPOKEN.iter().find(|spoken| spoken.word == word) {
        return Ok(between(spoken.speed_m_s, spoken.basis.to_owned()));
    }
    if let Some(height) = after(text, &["jump", "hop", "leap"]) {
        return fallen(height, "takes off, and lands, from a jump of");
    }
    if let Some(height) = after(text, &["fall", "drop"]) {
        return fallen(height, "after a fall of");
    }
    if let Some(found) = turning(text, typed)? {
        return Ok(found);
    }
    if let Some((way, time)) = text.split_once(" in ") {
        return over_time(way.trim(), time.trim(), typed, frame);
    }
    if let Some((way, time)) = text.split_once(" at ").or_else(|| text.split_once('@'))
        && in_frame(way.trim(), typed, frame)?.is_some()
    {
        return over_time(way.trim(), time.trim(), typed, frame);
    }
    if let Some(found) = range(text) {
        return Ok(found);
    }
    if text.chars().all(|sign| sign.is_alphabetic() || sign == ' ' || sign == '-') {
        return Err(NoSpeed::NoSuchWord { text: typed.to_owned() });
    }
    let value = said::read(FigureKind::Speed, typed)?;
    Ok(between((value, value), format!("as said: {typed}")))
}

fn between((a, b): (f64, f64), basis: String) -> SaidSpeed {
    SaidSpeed { slowest_m_s: a.min(b), fastest_m_s: a.max(b), basis }
}

/// What stands after one of some words, and `of` or `from`.
fn after<'a>(text: &'a str, words: &[&str]) -> Option<&'a str> {
    let rest = words.iter().find_map(|word| text.strip_prefix(word))?;
    let rest = rest.strip_prefix(' ')?.trim_start();
    Some(rest.strip_prefix("of ").or_else(|| rest.strip_prefix("from ")).unwrap_or(rest))
}

/// `√(2gh)`, from one height or two.
fn fallen(heights: &str, how: &str) -> Result<SaidSpeed, NoSpeed> {
    // Forty of what?
    let of = |text: &str| match said::bare(text) {
        Some(height) if height > 0.0 => Err(either(text.trim(), ["cm", "m"])),
        _ => Ok(said::read(FigureKind::Length, text)?),
    };
    let (low, high) = match ends(heights) {
        Some((low, high)) => (of(&low)?, of(&high)?),
        None => (of(heights)?, of(heights)?),
    };
    let speed = |height: f64| speed_after_fall(Metres::from_metres(height)).as_metres_per_second();
    Ok(between((speed(low), speed(high)), format!("{how} {heights}")))
}

/// `2 turns a second at 0.5 m`, `2-3 turns/s @ 50 cm`; turns a minute are read elsewhere.
fn turning(text: &str, typed: &str) -> Result<Option<SaidSpeed>, NoSpeed> {
    let Some((rate, rest)) = text.split_once("turns").or_else(|| text.split_once("turn")) else { return Ok(None) };
    let rest = rest.trim_start();
    let per = |signs: &[&'static str]| signs.iter().find_map(|sign| rest.strip_prefix(sign));
    let (seconds, rest) = if let Some(rest) = per(&["/min", "a minute", "per minute"]) {
        (60.0, rest)
    } else if let Some(rest) = per(&["/s", "a second", "per second"]) {
        (1.0, rest)
    } else {
        return Err(Unclear::NoFigure { kind: FigureKind::Speed, text: typed.to_owned() }.into());
    };
    let rest = rest.trim_start();
    let radius = rest.strip_prefix('@').or_else(|| rest.strip_prefix("at ")).unwrap_or("");
    if radius.trim().is_empty() {
        return Err(NoSpeed::NoRadius { text: typed.to_owned() });
    }
    let radius = said::read(FigureKind::Length, radius)?;
    let of = |text: &str| said::read(FigureKind::Rate, text);
    let (low, high) = match ends(rate) {
        Some((low, high)) => (of(&low)?, of(&high)?),
        None => (of(rate)?, of(rate)?),
    };
    let speed = |turns: f64| TAU * radius * turns / seconds;
    Ok(Some(between((speed(low), speed(high)), format!("as said: {typed}"))))
}

/// A length in the frame, in metres of the scene; nothing for what is none.
fn in_frame(way: &str, typed: &str, frame: Option<InFrame>) -> Result<Option<f64>, NoSpeed> {
    let (number, share) = if let Some(number) = way.strip_suffix("px").or_else(|| way.strip_suffix("pixels")) {
        (number, false)
    } else if let Some(number) = way.strip_suffix("% of the frame").or_else(|| way.strip_suffix('%')) {
        (number, true)
    } else {
        return Ok(None);
    };
    let Some(frame) = frame else { return Err(NoSpeed::NoFrame { text: typed.to_owned() }) };
    let number = said::read(FigureKind::Number, number)?;
    if number <= 0.0 {
        return Err(Unclear::Impossible { kind: FigureKind::Length, text: typed.to_owned() }.into());
    }
    let metres = if share { frame.width.as_metres() * number / 100.0 } else { frame.pixel.as_metres() * number };
    Ok(Some(metres))
}

/// A way in a time: of a stop watch, of the frames of a clip, or of the shutter of a test frame.
fn over_time(way: &str, time: &str, typed: &str, frame: Option<InFrame>) -> Result<SaidSpeed, NoSpeed> {
    let metres = match in_frame(way, typed, frame)? {
        Some(metres) => metres,
        None => said::read(FigureKind::Length, way)?,
    };
    let basis = format!("as measured: {typed}");
    if let Some((frames, rate)) = time.split_once("frames").or_else(|| time.split_once("frame")) {
        let frames = said::read(FigureKind::Number, frames)?;
        let rate = rate.trim_start();
        let rate = rate.strip_prefix("at ").or_else(|| rate.strip_prefix('@')).unwrap_or(rate);
        let rate = said::read(FigureKind::Rate, rate)?;
        if frames < 2.0 {
            return Err(NoSpeed::OneFrame { text: typed.to_owned(), frames: frames.max(0.0) as u32 });
        }
        // It may have begun and ended half a frame earlier or later.
        let speed = |intervals: f64| metres * rate / intervals;
        let intervals = frames - 1.0;
        return Ok(between((speed(intervals + 0.5), speed(intervals - 0.5)), basis));
    }
    // As on a shutter, where it is written so: 1/60 is what is called 1/60.
    let seconds = match ShutterTime::read("read", time, Grid::Thirds) {
        Ok(time) if !time.label(Grid::Thirds).is_empty() && is_fraction(time) => time.time().as_secs(),
        _ => said::read(FigureKind::Time, time)?,
    };
    let value = metres / seconds;
    Ok(between((value, value), basis))
}

fn is_fraction(time: ShutterTime) -> bool {
    time.label(Grid::Thirds).starts_with("1/")
}

/// `8-10 m/s`, `8 to 10 km/h`, `5:30 to 4:30 /km`.
fn range(text: &str) -> Option<SaidSpeed> {
    let (low, high) = ends(text)?;
    let of = |text: &str| said::read(FigureKind::Speed, text).ok();
    Some(between((of(&low)?, of(&high)?), format!("as said: {text}")))
}

/// Two ends, each with the unit of the second.
fn ends(text: &str) -> Option<(String, String)> {
    let text = text.trim();
    let (low, high) = match text.split_once(" to ") {
        Some(both) => both,
        // A sign is no range: something stands before the stroke.
        None => text.split_once('-').filter(|(low, _)| !low.trim().is_empty())?,
    };
    let (low, high) = (low.trim(), high.trim());
    let unit = high.trim_start_matches(|sign: char| sign.is_ascii_digit() || matches!(sign, '.' | ',' | ':' | ' '));
    let bare = low.chars().all(|sign| sign.is_ascii_digit() || matches!(sign, '.' | ',' | ':'));
    Some((if bare { format!("{low} {unit}") } else { low.to_owned() }, high.to_owned()))
}
