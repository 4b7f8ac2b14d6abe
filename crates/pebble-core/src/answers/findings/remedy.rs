//! Trying changes: each candidate gets its own outlook before anyone sees it, and is offered only when it mends the finding
//! and nothing of the frame gets worse: no condition that was met is missed, none that was missed is missed by more, no two
//! lights change against each other, and nothing that was seen goes dark.

use super::ideas::{Ideas, Keeps};
use super::turn::Turn;
use super::{Case, Flaw, Kind, Remedy, signed};
use crate::answers::conditions::{self, Condition, Grade, InView, Matter};
use crate::outlook::{DrawnBy, Outlook, Pulses, outlook_with};
use crate::quantity::Stops;
use crate::quantity::scale::Aperture;
use foldhash::{HashMap, HashMapExt};
use std::borrow::Cow;

/// Offered at most, so that a finding stays readable at arm's length.
const MOST_REMEDIES: usize = 2;
/// The flashes may move this much together while something else is mended.
const DRIFT: f64 = 0.2;
/// Two lights may move against each other by this much: a tenth of a stop, as fine as a meter reads.
const APART: f64 = 0.1;
/// Turns of one idea go on in one direction: when so many of them do harm, those after them do more.
const HARM_IN_A_ROW: usize = 3;
/// Changes of light smaller than this are not worth a word.
const WORTH_SAYING: f64 = 0.15;

/// Turns that were tried for one shot: several findings ask for the same, and each is put together once.
pub(super) struct Trials<'a> {
    case: Case<'a>,
    before: &'a [Condition],
    view: InView,
    /// The shutter keeps all flash out of the frame: another one has to let all of it in.
    black: bool,
    pub pulses: &'a mut Pulses,
    known: HashMap<u64, Box<Trial>>,
}

/// What became of one turn.
struct Trial {
    turn: Turn,
    /// How far the flashes move; nothing where something goes dark.
    moves: Option<Moves>,
    /// What is not met then.
    unmet: Vec<Condition>,
    /// The first of them that is worse than before.
    worse: Option<Condition>,
    /// What else a user would see of it.
    then: Then,
}

/// What a turn makes of the frame beside what it is for.
struct Then {
    aperture: Aperture,
    ambient: Stops,
    lit_side: Stops,
}

impl<'a> Trials<'a> {
    pub fn of(case: Case<'a>, before: &'a [Condition], pulses: &'a mut Pulses) -> Self {
        let (view, black) = (InView::of(case.plan), super::uncut::nothing_gets_in(case.seen));
        Self { case, before, view, black, pulses, known: HashMap::new() }
    }

    fn of_turn(&mut self, turn: &Turn) -> &Trial {
        let key = turn.key();
        let stale = self.known.get(&key).is_none_or(|known| known.turn != *turn);
        if stale {
            let trial = self.put_together(turn);
            self.known.insert(key, Box::new(trial));
        }
        &self.known[&key]
    }

    fn put_together(&mut self, turn: &Turn) -> Trial {
        let plan = turn.applied(self.case.plan);
        let seen = outlook_with(&plan, self.pulses);
        let mut trial = Trial {
            turn: *turn,
            moves: moves(self.case.seen, &seen),
            unmet: Vec::new(),
            worse: None,
            then: Then {
                aperture: plan.settings.aperture,
                ambient: seen.ambient.placement,
                lit_side: seen.subject.lit_side,
            },
        };
        // What goes dark, or moves lights apart or far, is offered for nothing or little: it is not gone through.
        if trial.moves.is_some() {
            let moved = (!turn.leaves_the_set()).then(|| InView::of(&plan));
            conditions::frame_in_view(&plan, &seen, moved.as_ref().unwrap_or(&self.view), &mut |now| {
                if now.is_met() {
                    return;
                }
                let then = self.before.iter().find(|then| then.is_about(&now));
                // A part that nothing drew could be neither blurred nor burnt out: to see it so is not worse than not at all.
                let unseen = |part: usize| self.case.seen.parts[part].drawn_by == DrawnBy::Nothing;
                let comes_to_light = then.is_none() && now.part.is_some_and(unseen);
                if trial.worse.is_none() && !comes_to_light && now.is_worse_than(then) {
                    trial.worse = Some(now);
                }
                trial.unmet.push(now);
            });
        }
        trial
    }

    /// Tries the ideas and keeps what mends the flaw of some lights and harms nothing; without any, why. Where more lights have it
    /// than these, that is said with what is offered.
    pub fn tried(
        &mut self,
        flaw: &Flaw,
        (lights, of_more): (&[usize], bool),
        ideas: Ideas<'_>,
    ) -> (Vec<Remedy>, Option<String>) {
        let Kind::Unmet(matter) = flaw.kind else { return (Vec::new(), ideas.none.map(Cow::into_owned)) };
        let about = |one: &Condition| {
            (one.matter, one.part, one.lamp) == (matter, flaw.part, flaw.lamp)
                && one.light.map_or(lights.is_empty(), |light| lights.contains(&light))
        };
        let mut found: Vec<Remedy> = Vec::new();
        let mut harmed: Option<Condition> = None;
        let now = Turn::Dials(self.case.plan.settings);
        let mut put_off = Vec::new();
        // What makes of trouble something to watch, where nothing mends it altogether: the one that leaves least.
        let mut eased: Option<(f64, Turn)> = None;
        let mut found_in_turn = u8::MAX;
        for mut idea in ideas.list {
            if found.len() == MOST_REMEDIES || idea.in_turn > found_in_turn {
                break;
            }
            let mut harms = 0;
            while let Some(turn) = idea.turns.find(|turn| *turn != now) {
                match self.weighed(&turn, (idea.keeps, idea.whole), about) {
                    Weighed::Mends => {
                        self.offer(&turn, of_more, &mut found);
                        found_in_turn = idea.in_turn;
                        break;
                    }
                    Weighed::Eases(margin) => {
                        if eased.is_none_or(|(most, _)| margin > most) {
                            eased = Some((margin, turn));
                        }
                        continue;
                    }
                    Weighed::Not => continue,
                    Weighed::Costs(worse) => harmed = harmed.or(Some(worse)),
                    Weighed::Harms => {}
                }
                harms += 1;
                if harms == HARM_IN_A_ROW {
                    put_off.push(idea);
                    break;
                }
            }
        }
        // Those after do more harm still; how far they would have to go is only asked where nothing else is known to mend it.
        for turn in put_off.into_iter().flat_map(|idea| idea.turns.map(move |turn| (turn, (idea.keeps, idea.whole)))) {
            if !found.is_empty() || harmed.is_some() {
                break;
            }
            match self.weighed(&turn.0, turn.1, about) {
                Weighed::Mends => self.offer(&turn.0, of_more, &mut found),
                Weighed::Costs(worse) => harmed = Some(worse),
                Weighed::Eases(_) | Weighed::Harms | Weighed::Not => {}
            }
        }
        let troubles = self.before.iter().filter(|one| about(one) && one.grade() == Grade::Trouble);
        let trouble = troubles.map(|one| one.margin).reduce(f64::min);
        // From just over what is trouble to just below it nobody sees.
        let eases =
            |margin: f64| found.is_empty() && trouble.is_some_and(|trouble| margin > trouble + conditions::CLICK);
        if let Some((_, turn)) = eased.filter(|(margin, _)| eases(*margin)) {
            self.offer(&turn, true, &mut found);
        }
        let none = found.is_empty().then(|| match (ideas.none, harmed) {
            (Some(why), _) => why.into_owned(),
            (None, None) => "No single turn of these dials gets there.".to_owned(),
            (None, Some(worse)) => format!("What would mend it {}.", worse.cost(self.case.plan)),
        });
        (found, none)
    }

    /// What a turn is worth to what it is for.
    fn weighed(&mut self, turn: &Turn, (keeps, whole): (Keeps, bool), about: impl Fn(&Condition) -> bool) -> Weighed {
        let shutter = self.case.plan.settings.shutter;
        let whole = whole || (self.black && matches!(turn, Turn::Dials(settings) if settings.shutter != shutter));
        let trial = self.of_turn(turn);
        let is_cut = || trial.unmet.iter().any(|one| one.matter == Matter::Rows);
        if !self::keeps(keeps, trial.moves) || (whole && is_cut()) {
            return Weighed::Not;
        }
        // Of some lights the one that is left worst.
        let mut left = trial.unmet.iter().filter(|one| about(one));
        let left =
            left.next().map(|first| left.fold(first, |worst, one| if one.margin < worst.margin { one } else { worst }));
        match (left, trial.worse) {
            (None, None) => Weighed::Mends,
            (None, Some(worse)) => Weighed::Costs(worse),
            (Some(_), Some(_)) => Weighed::Harms,
            (Some(left), None) if left.grade() < Grade::Trouble => Weighed::Eases(left.margin),
            (Some(_), None) => Weighed::Not,
        }
    }

    fn offer(&mut self, turn: &Turn, partly: bool, found: &mut Vec<Remedy>) {
        let case = self.case;
        let effect = effect(case, partly, &self.of_turn(turn).then);
        let (label, changes) = turn.written(case.plan);
        if !found.iter().any(|other| other.changes == changes) {
            found.push(Remedy { label, effect, partly, changes });
        }
    }
}

/// What a turn is worth to a finding.
enum Weighed {
    /// It mends it, and nothing else is worse.
    Mends,
    /// It mends it, and this is worse then.
    Costs(Condition),
    /// It leaves something to watch of what was trouble, so much missing, and nothing else is worse.
    Eases(f64),
    /// It does not mend it yet, and something is worse already.
    Harms,
    /// It does nothing for it, or more than it may.
    Not,
}

/// How far the flashes move that were seen: the one that moves least and the one that moves most.
#[derive(Clone, Copy)]
struct Moves {
    in_frame: (f64, f64),
    on_set: (f64, f64),
}

/// How far the flashes move; nothing where something goes dark that was seen.
fn moves(from: &Outlook, to: &Outlook) -> Option<Moves> {
    let none = (f64::INFINITY, f64::NEG_INFINITY);
    let wider = |moves: (f64, f64), from: Stops, to: Stops| {
        let by = (to - from).as_stops();
        (moves.0.min(by), moves.1.max(by))
    };
    let mut moves = Moves { in_frame: none, on_set: none };
    for (from, to) in from.lights.iter().zip(&to.lights).filter(|(from, _)| from.in_frame.placement > Stops::DARK) {
        if to.in_frame.placement == Stops::DARK {
            return None;
        }
        moves.in_frame = wider(moves.in_frame, from.in_frame.placement, to.in_frame.placement);
        moves.on_set = wider(moves.on_set, from.on_set.placement, to.on_set.placement);
    }
    let mut drawn = from.parts.iter().zip(&to.parts);
    let goes_dark = drawn.any(|(from, to)| from.drawn_by != DrawnBy::Nothing && to.drawn_by == DrawnBy::Nothing);
    (!goes_dark).then_some(moves)
}

/// Whether the flashes stay as far as an idea has to keep them.
fn keeps(keeps: Keeps, moves: Option<Moves>) -> bool {
    let Some(Moves { in_frame: (least, most), on_set }) = moves else { return false };
    match keeps {
        // No flash was lit.
        _ if least > most => true,
        Keeps::Flash => least >= -DRIFT && most <= DRIFT && most - least <= APART,
        Keeps::Ratios => most - least <= APART,
        Keeps::RatiosOnSet => on_set.1 - on_set.0 <= APART,
        Keeps::Nothing => true,
    }
}

/// How far a light moves; one that is as good as none before or after moves by no number.
fn moved(name: &str, from: Stops, to: Stops) -> Option<String> {
    let lit = |placement: Stops| placement.as_stops() > conditions::NO_LIGHT;
    match (lit(from), lit(to)) {
        (true, true) => {
            let by = (to - from).as_stops();
            (by.abs() > WORTH_SAYING).then(|| format!("{name} {}", signed(by)))
        }
        (false, true) => Some(format!("{name} at {}", signed(to.as_stops()))),
        (true, false) => Some(format!("no {name}")),
        (false, false) => None,
    }
}

/// What else a user would see of it.
fn effect(case: Case, partly: bool, then: &Then) -> String {
    let mut effects = Vec::new();
    effects.extend(partly.then(|| "not all of it".to_owned()));
    effects.extend(moved("ambient", case.seen.ambient.placement, then.ambient));
    effects.extend(moved("exposure", case.seen.subject.lit_side, then.lit_side));
    if then.aperture != case.plan.settings.aperture {
        let less = then.aperture < case.plan.settings.aperture;
        effects.push(if less { "less depth".to_owned() } else { "more depth".to_owned() });
    }
    effects.join(", ")
}
