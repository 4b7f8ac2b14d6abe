//! Movement in time, checked: no arc without a radius, no fall that goes up, no frame that opens when all is over.

use crate::file::movement::{Phase, TypicalLight, WhenTaken};
use crate::file::shot::{self, Reading};
use crate::physics::phases::{self, ActionWindow, MOST_PHASES, Phases};
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::{Angle, Metres, Seconds};

/// Standard deviation of who presses at a sight, where nobody has measured it.
pub const USUAL_SPREAD: Seconds = Seconds::from_secs(0.05);
/// What such a press takes.
pub const USUAL_REACTION: Seconds = Seconds::from_secs(0.25);

/// When the frame is taken.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Timing {
    /// When the shutter opens, from the beginning of the movement.
    pub opens: Seconds,
    /// Standard deviation of who presses.
    pub spread: Seconds,
    /// Whether somebody measured it.
    pub measured: bool,
    /// How long the press takes.
    pub reaction: Seconds,
    /// An action that shall be whole in the frame, and when the next movement begins.
    pub action: Option<(Seconds, Option<Seconds>)>,
    /// The jump whose top is waited for.
    pub jump: Option<Metres>,
    /// How often it can be tried.
    pub tries: u32,
}

impl Timing {
    /// What the shutter has to do for an action that shall be whole, where one is said.
    pub fn window(&self) -> Option<ActionWindow> {
        let (action, next) = self.action?;
        Some(ActionWindow::of(action, next.unwrap_or(Seconds::from_secs(f64::INFINITY)), self.spread))
    }

    pub(super) fn of(wire: Option<&WhenTaken>) -> Result<Self, Invalid> {
        let none = WhenTaken::default();
        let wire = wire.unwrap_or(&none);
        let at = At::new("moment");
        let seconds = |name: &str, value, limits| Ok(at.maybe(name, value, limits)?.map(Seconds::from_secs));
        let spread = seconds("spread_s", wire.spread_s, &bounds::SPREAD)?;
        let action = seconds("action_s", wire.action_s, &bounds::PHASE_TIME)?;
        let next = seconds("next_s", wire.next_s, &bounds::PHASE_TIME)?;
        match (action, next) {
            (None, Some(next)) => {
                let reason = "no action is said that it comes after";
                return Err(at.contradiction("next_s", format!("{} s", next.as_secs()), reason));
            }
            (Some(action), Some(next)) if next < action => {
                let reason = format!("the action lasts {} s: what comes next begins after it", action.as_secs());
                return Err(at.contradiction("next_s", format!("{} s", next.as_secs()), reason));
            }
            _ => {}
        }
        let tries = wire.tries.map(|tries| at.figure("tries", f64::from(tries), &bounds::TRIES).map(|_| tries));
        Ok(Self {
            opens: at.figure("opens_at_s", wire.opens_at_s, &bounds::OPENS_AT).map(Seconds::from_secs)?,
            spread: spread.unwrap_or(USUAL_SPREAD),
            measured: spread.is_some(),
            reaction: seconds("reaction_s", wire.reaction_s, &bounds::REACTION)?.unwrap_or(USUAL_REACTION),
            action: action.map(|action| (action, next)),
            jump: at.maybe("jump_m", wire.jump_m, &bounds::RISE)?.map(Metres::from_metres),
            tries: tries.transpose()?.unwrap_or(1),
        })
    }
}

/// The movement of a part that has one in time. `direction` is where the part goes in the frame.
pub(super) fn phases(at: &At, part: &shot::Part, direction: Angle, opens: Seconds) -> Result<Option<Phases>, Invalid> {
    if part.phases.len() > MOST_PHASES {
        let given = format!("a list of {}", part.phases.len());
        return Err(at.not_allowed("phases", &given, "a list of at most 8 phases"));
    }
    let rises = direction.as_radians().sin();
    let mut list = Vec::with_capacity(part.phases.len());
    for (index, wire) in part.phases.iter().enumerate() {
        list.push(phase(&at.row("phases", index), wire, rises)?);
    }
    let Some(found) = Phases::of(&list) else { return Ok(None) };
    if opens >= found.lasts() {
        let given = format!("movement of {} that lasts {:.2} s", part.name, found.lasts().as_secs());
        let reason =
            format!("the shutter opens {:.2} s after it began, when it is over: open earlier", opens.as_secs());
        return Err(at.contradiction("phases", given, reason));
    }
    Ok(Some(found))
}

fn phase(at: &At, wire: &Phase, rises: f64) -> Result<phases::Phase, Invalid> {
    let time = |seconds| at.figure("seconds", seconds, &bounds::PHASE_TIME).map(Seconds::from_secs);
    let height = |metres| at.metres("height_m", metres, &bounds::RISE);
    match *wire {
        Phase::Rest { seconds } => Ok(phases::Phase::rest(time(seconds)?)),
        Phase::Line { from_m_s, to_m_s, seconds, metres } => {
            let from = at.figure("from_m_s", from_m_s, &bounds::PHASE_SPEED)?;
            let to = at.figure("to_m_s", to_m_s, &bounds::PHASE_SPEED)?;
            let lasts = match (seconds, metres) {
                (Some(seconds), None) => time(seconds)?,
                (None, Some(metres)) => {
                    let way = at.figure("metres", metres, &bounds::PHASE_WAY)?;
                    let mean = (from + to).abs() / 2.0;
                    if mean <= 0.0 || from * to < 0.0 {
                        let reason = format!("from {from} to {to} m/s it gets nowhere: say how long instead");
                        return Err(at.contradiction("metres", format!("{way} m"), reason));
                    }
                    time(way / mean)?
                }
                (Some(_), Some(_)) => {
                    let reason = "a line is so long or lasts so long, and the speeds say the other";
                    return Err(at.contradiction("seconds", "a time and a way".to_owned(), reason));
                }
                (None, None) => return Err(at.not_allowed("seconds", "nothing", "a time, or a way in metres")),
            };
            Ok(phases::Phase::line(from, to, lasts))
        }
        Phase::Arc { radius_m, from_deg, to_deg, seconds } => {
            let radius = at.metres("radius_m", radius_m, &bounds::ARC_RADIUS)?;
            at.figure("from_deg", from_deg, &bounds::ARC_ANGLE)?;
            at.figure("to_deg", to_deg, &bounds::ARC_ANGLE)?;
            Ok(phases::Phase::arc(radius, (to_deg - from_deg).to_radians(), time(seconds)?))
        }
        Phase::Fall { height_m } => {
            let height = height(height_m)?;
            if rises > 1e-9 {
                let reason = "what falls goes down, and this part goes up in the frame: turn its direction to 270°, or let it jump";
                return Err(at.contradiction("height_m", format!("a fall of {height_m} m"), reason));
            }
            Ok(phases::Phase::fall(height))
        }
        Phase::Jump { height_m } => {
            let height = height(height_m)?;
            if rises < -1e-9 {
                let reason = "a jump goes up first, and this part goes down in the frame: turn its direction to 90°, or let it fall";
                return Err(at.contradiction("height_m", format!("a jump of {height_m} m"), reason));
            }
            Ok(phases::Phase::jump(height))
        }
        Phase::ToAndFro { amplitude_m, rate_hz, seconds } => Ok(phases::Phase::to_and_fro(
            at.metres("amplitude_m", amplitude_m, &bounds::AMPLITUDE)?,
            at.figure("rate_hz", rate_hz, &bounds::TO_AND_FRO)?,
            time(seconds)?,
        )),
    }
}

/// How far the steady light may be from what is taken for it, in stops, darker and brighter: while it is a guess.
pub(super) fn guessed(at: &At, typical: Option<&TypicalLight>, read: &Reading) -> Result<Option<(f64, f64)>, Invalid> {
    let Some(TypicalLight { ev, least_ev, most_ev }) = typical else { return Ok(None) };
    for (name, value) in [("ev", ev), ("least_ev", least_ev), ("most_ev", most_ev)] {
        at.figure(name, *value, &bounds::EV)?;
    }
    if !(least_ev <= ev && ev <= most_ev) {
        let reason = format!("the least is {least_ev} and the most {most_ev}");
        return Err(at.contradiction("ev", ev.to_string(), reason));
    }
    let is_guess = matches!(read, Reading::Ev100 { ev: read } if read == ev);
    Ok(is_guess.then_some((least_ev - ev, most_ev - ev)))
}
