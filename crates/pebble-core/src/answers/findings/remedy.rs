//! Trying changes: each candidate gets its own outlook before anyone sees it, and is offered only when it mends the finding
//! and nothing of the frame gets worse: no condition that was met is missed, none that was missed is missed by more, no two
//! lights change against each other, and nothing that was seen goes dark.

use super::{Case, Change, Flaw, Kind, Remedy, signed};
use crate::answers::conditions::{self, Condition, Grade, InView, Matter};
use crate::answers::standing::{flagged, lamp_stood, spot_of, stood};
use crate::answers::strips::{self, Value};
use crate::file;
use crate::file::shot::Reading;
use crate::outlook::{DrawnBy, Outlook, Pulses, outlook_with};
use crate::plan::{Plan, Settings};
use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::quantity::{Lux, LuxSeconds, Metres, Stops};
use crate::stage::field::{noted, noted_around};
use crate::stage::flag::Flag;
use crate::stage::lens::Move;
use foldhash::fast::FixedState;
use foldhash::{HashMap, HashMapExt};
use std::borrow::Cow;
use std::hash::{BuildHasher, Hash, Hasher};

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

/// Something that is turned.
#[allow(
    clippy::large_enum_variant,
    reason = "nearly all of them are dials, and a box each would cost more than the room"
)]
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Turn {
    /// Camera and lights.
    Dials(Settings),
    /// A source of steady light.
    Source(Source),
    /// A light stands elsewhere.
    Stands(Stands),
    /// A steady lamp stands elsewhere.
    LampStands(LampStands),
    /// A flag before a light.
    Flagged(usize, Flag),
    /// The background nearer, in metres behind the mark.
    Behind(f64),
}

/// A light that is carried, and its power there, where another one is as bright.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Stands {
    pub light: usize,
    pub way: Move,
    pub power: Option<f64>,
}

/// A lamp that is carried, and how far it is turned up there.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct LampStands {
    pub lamp: usize,
    pub way: Move,
    pub level: f64,
}

/// Something done to a source of steady light.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Source {
    /// The modelling lamp of a light goes out.
    ModellingOff(usize),
    /// A lamp is turned down by so many stops.
    LampDimmer(usize, f64),
    /// A lamp goes out.
    LampOff(usize),
    /// The light of the room goes out.
    RoomOut,
}

/// What an idea may move.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Keeps {
    /// The flashes stay where they fall.
    Flash,
    /// They move together.
    Ratios,
    /// They move together on the set, where some were cut that are no more.
    RatiosOnSet,
    /// Also against each other, which is what it is about.
    Nothing,
}

/// Turns of one idea, mildest first, thought of one at a time; the first that works is offered.
pub(super) struct Idea<'a> {
    turns: Box<dyn Iterator<Item = Turn> + 'a>,
    keeps: Keeps,
    /// Whether all rows have to get all of the flash then.
    whole: bool,
    /// It is only thought of where nothing works of those of an earlier turn.
    in_turn: u8,
}

/// What may mend a finding, likeliest first.
pub(super) struct Ideas<'a> {
    list: Vec<Idea<'a>>,
    /// Why there are none.
    none: Option<Cow<'static, str>>,
}

impl<'a> Ideas<'a> {
    /// Nothing that is turned mends it, for a reason.
    pub fn none(why: impl Into<Cow<'static, str>>) -> Self {
        Self { none: Some(why.into()), ..Self::of(Vec::new()) }
    }

    pub fn of(list: Vec<Idea<'a>>) -> Self {
        Self { list, none: None }
    }

    /// The same where lights that are cut are so no more: then they move against each other in the frame.
    pub fn of_uncut_lights(self) -> Self {
        self.each(|idea| Idea { keeps: Keeps::RatiosOnSet, ..idea })
    }

    /// The same as far as they leave no row with less than all of the flash.
    pub fn in_whole_rows(self) -> Self {
        self.each(|idea| Idea { whole: true, ..idea })
    }

    /// These, and only where none of them works others.
    pub fn or_else(self, others: Self) -> Self {
        let next = self.list.iter().map(|idea| idea.in_turn + 1).max().unwrap_or(0);
        let others = others.each(|idea| Idea { in_turn: idea.in_turn + next, ..idea });
        Self { list: self.list.into_iter().chain(others.list).collect(), none: others.none }
    }

    /// One after the other.
    pub fn into_list(self) -> Vec<Idea<'a>> {
        self.list
    }

    fn each(self, change: impl Fn(Idea<'a>) -> Idea<'a>) -> Self {
        Self { list: self.list.into_iter().map(change).collect(), ..self }
    }
}

impl<'a> Idea<'a> {
    fn turning(turns: impl Iterator<Item = Turn> + 'a, keeps: Keeps) -> Self {
        Self { turns: Box::new(turns), keeps, whole: false, in_turn: 0 }
    }

    fn new(settings: impl IntoIterator<Item = Option<Settings>, IntoIter: 'a>, keeps: Keeps) -> Self {
        Self::turning(settings.into_iter().flatten().map(Turn::Dials), keeps)
    }

    /// Camera and lights such that every flash stays where it falls.
    pub fn keeping_flash(settings: impl IntoIterator<Item = Option<Settings>, IntoIter: 'a>) -> Self {
        Self::new(settings, Keeps::Flash)
    }

    /// All flashes together.
    pub fn moving_all(settings: impl IntoIterator<Item = Option<Settings>, IntoIter: 'a>) -> Self {
        Self::new(settings, Keeps::Ratios)
    }

    /// One flash against the others.
    pub fn moving_one(settings: impl IntoIterator<Item = Option<Settings>, IntoIter: 'a>) -> Self {
        Self::new(settings, Keeps::Nothing)
    }

    /// One turn of its own kind, every flash staying where it falls.
    pub fn one(turn: Turn) -> Self {
        Self::turning(std::iter::once(turn), Keeps::Flash)
    }

    /// Turns of their own kind, every flash staying where it falls.
    pub fn turns(turns: impl Iterator<Item = Turn> + 'a) -> Self {
        Self::turning(turns, Keeps::Flash)
    }

    /// A source of steady light.
    pub fn source(sources: impl IntoIterator<Item = Source, IntoIter: 'a>) -> Self {
        Self::turning(sources.into_iter().map(Turn::Source), Keeps::Flash)
    }
}

impl Turn {
    /// Tells it from others, nearly always.
    fn key(&self) -> u64 {
        let mut hasher = FixedState::default().build_hasher();
        match self {
            Self::Dials(set) => {
                (set.aperture.number().to_bits(), set.shutter.time().as_secs().to_bits()).hash(&mut hasher);
                (set.iso.number().to_bits(), set.filter.as_stops().to_bits()).hash(&mut hasher);
                set.lamps.as_stops().to_bits().hash(&mut hasher);
                for dial in set.lights.iter() {
                    (dial.power.to_bits(), dial.distance.as_metres().to_bits(), dial.channel).hash(&mut hasher);
                    dial.bias.map(|bias| bias.as_stops().to_bits()).hash(&mut hasher);
                }
            }
            Self::Source(_) => format!("{self:?}").hash(&mut hasher),
            Self::Stands(Stands { light, way, power }) => {
                (1, light, [way.to.x, way.to.y, way.to.z].map(f64::to_bits), power.map(f64::to_bits)).hash(&mut hasher);
            }
            Self::LampStands(LampStands { lamp, way, level }) => {
                (4, lamp, [way.to.x, way.to.y, way.to.z, *level].map(f64::to_bits)).hash(&mut hasher);
            }
            Self::Flagged(light, flag) => {
                let figures = [flag.at.x, flag.at.y, flag.at.z, flag.wide, flag.high];
                (2, light, figures.map(f64::to_bits)).hash(&mut hasher);
            }
            Self::Behind(behind) => (3, behind.to_bits()).hash(&mut hasher),
        }
        hasher.finish()
    }

    /// Whether lights, flags and background are in the same directions after it.
    const fn leaves_the_set(&self) -> bool {
        matches!(self, Self::Dials(_) | Self::Source(_))
    }

    fn applied(&self, plan: &Plan) -> Plan {
        match *self {
            Self::Dials(settings) => plan.with(settings),
            Self::Source(source) => source.applied(plan),
            Self::Stands(Stands { light, way, power }) => stood(plan, light, way.to, power),
            Self::LampStands(LampStands { lamp, way, level }) => lamp_stood(plan, lamp, way.to, level),
            Self::Flagged(light, flag) => flagged(plan, light, flag),
            Self::Behind(behind) => Plan {
                background_behind: Metres::from_metres(behind),
                lamps: plan.lamps.iter().map(|lamp| lamp.clone().before(behind)).collect(),
                ..plan.clone()
            },
        }
    }

    fn written(&self, plan: &Plan) -> (String, Vec<Change>) {
        match self {
            Self::Dials(to) => {
                let changes = strips::written_changes(plan, to);
                let changes = changes.into_iter().map(|(pointer, value, _)| Change { pointer, value }).collect();
                (strips::said(plan, to), changes)
            }
            Self::Source(source) => source.written(plan),
            Self::Stands(Stands { light, way, power }) => {
                let (bearing, height, distance) = noted_around(plan.measured_to(*light), way.to);
                let figures = [("bearing_deg", bearing), ("height_deg", height), ("distance_m", distance)];
                let figures = figures.into_iter().chain(power.map(|power| ("power", power)));
                let change = |(name, value): (&str, f64)| Change {
                    pointer: format!("/lights/{light}/{name}"),
                    value: Value::Number(value),
                };
                let of = &plan.lights[*light];
                let at = power.map_or_else(String::new, |power| format!(", {}", of.unit.dial.label(power)));
                let by = plan.lengths.say(way.by, 1);
                (format!("{} {by} {}{at}", of.label, way.way.word()), figures.map(change).collect())
            }
            Self::LampStands(LampStands { lamp, way, level }) => {
                let of = &plan.lamps[*lamp];
                let (bearing, height, distance) = noted(way.to);
                let turned = (*level != of.level).then_some(("level_share", *level));
                let figures =
                    [("stands/bearing_deg", bearing), ("stands/height_deg", height), ("distance_m", distance)];
                let change = |(name, value): (&str, f64)| Change {
                    pointer: format!("/lamps/{}/{name}", of.place),
                    value: Value::Number(value),
                };
                let at = turned.map_or_else(String::new, |(_, level)| format!(", {:.0} %", level * 100.0));
                let by = plan.lengths.say(way.by, 1);
                let changes = figures.into_iter().chain(turned).map(change).collect();
                (format!("{} {by} {}{at}", of.name, way.way.word()), changes)
            }
            Self::Flagged(light, flag) => {
                let (wide, high) = (plan.lengths.say(flag.wide, 2), plan.lengths.say(flag.high, 2));
                let away = (flag.at - spot_of(plan, *light)).length();
                let change = Change {
                    pointer: format!("/lights/{light}/flag"),
                    value: Value::Flag(file::floor::Flag {
                        x_m: flag.at.x,
                        y_m: flag.at.y,
                        z_m: flag.at.z,
                        width_m: flag.wide,
                        height_m: flag.high,
                    }),
                };
                let label = &plan.lights[*light].label;
                (format!("{label}: flag of {wide} × {high}, {} before it", plan.lengths.say(away, 1)), vec![change])
            }
            Self::Behind(behind) => {
                let change = Change { pointer: "/background/behind_m".to_owned(), value: Value::Number(*behind) };
                (format!("sheet {} behind the mark", plan.lengths.say(*behind, 1)), vec![change])
            }
        }
    }
}

impl Source {
    fn applied(self, plan: &Plan) -> Plan {
        let mut plan = plan.clone();
        let dimmed = |plan: &mut Plan, lamp: usize, times: f64| {
            let mut lamps = plan.lamps.to_vec();
            lamps[lamp].on_subject = lamps[lamp].on_subject * times;
            lamps[lamp].on_background = lamps[lamp].on_background * times;
            plan.lamps = lamps.into();
        };
        match self {
            Self::ModellingOff(light) => {
                let mut lights = plan.lights.to_vec();
                lights[light].modelling = None;
                plan.lights = lights.into();
            }
            Self::LampDimmer(lamp, stops) => dimmed(&mut plan, lamp, (-stops).exp2()),
            Self::LampOff(lamp) => dimmed(&mut plan, lamp, 0.0),
            Self::RoomOut => (plan.subject_light, plan.background_light) = (Lux::ZERO, Lux::ZERO),
        }
        plan
    }

    fn written(self, plan: &Plan) -> (String, Vec<Change>) {
        let change = |pointer: String, value| Change { pointer, value };
        match self {
            Self::ModellingOff(light) => (
                format!("modelling lamp of {} off", plan.lights[light].label),
                vec![change(format!("/lights/{light}/modelling"), Value::Nothing)],
            ),
            Self::LampDimmer(lamp, stops) => {
                let of = &plan.lamps[lamp];
                let level = Value::Number(of.level * (-stops).exp2());
                let pointer = format!("/lamps/{}/level_share", of.place);
                (format!("{} dimmer by {stops:.0}", of.name), vec![change(pointer, level)])
            }
            Self::LampOff(lamp) => {
                let of = &plan.lamps[lamp];
                (format!("{} off", of.name), vec![change(format!("/lamps/{}/on", of.place), Value::Switch(false))])
            }
            Self::RoomOut => {
                let dark = || Value::Reading(Reading::Lux { lux: 0.0 });
                let places = ["/ambient/subject", "/ambient/background"];
                ("room light out".to_owned(), places.map(|place| change(place.to_owned(), dark())).into())
            }
        }
    }

    /// What may be done to the steady light, the strongest source first: each source by itself, before any shutter is turned.
    pub fn all<'a>(plan: &Plan, seen: &Outlook) -> Vec<Idea<'a>> {
        use crate::outlook::Burns;
        let mut sources: Vec<(f64, Idea<'a>)> = Vec::new();
        for lamp in &seen.steady {
            let strength = lamp.on_subject.exposure.as_lux_seconds().max(lamp.on_background.exposure.as_lux_seconds());
            let idea = match lamp.of {
                Burns::Modelling(light) => Idea::source([Self::ModellingOff(light)]),
                Burns::Lamp(lamp) => Idea::source(
                    [1.0, 2.0, 3.0].map(|stops| Self::LampDimmer(lamp, stops)).into_iter().chain([Self::LampOff(lamp)]),
                ),
            };
            sources.push((strength, idea));
        }
        // Nobody switches the sky off.
        if !plan.outdoors && seen.room.exposure > LuxSeconds::ZERO {
            sources.push((seen.room.exposure.as_lux_seconds(), Idea::source([Self::RoomOut])));
        }
        sources.sort_by(|a, b| b.0.total_cmp(&a.0));
        sources.into_iter().map(|(_, idea)| idea).collect()
    }
}

/// Turns that were tried for one shot: several findings ask for the same, and each is put together once.
pub(super) struct Trials<'a> {
    case: Case<'a>,
    before: &'a [Condition],
    view: InView,
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
        Self { case, before, view: InView::of(case.plan), pulses, known: HashMap::new() }
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
                if trial.worse.is_none() && now.is_worse_than(then) {
                    trial.worse = Some(now);
                }
                trial.unmet.push(now);
            });
        }
        trial
    }

    /// Tries the ideas and keeps what mends the flaw and harms nothing; without any, why.
    pub fn tried(&mut self, flaw: &Flaw, lights: &[usize], ideas: Ideas<'_>) -> (Vec<Remedy>, Option<String>) {
        let Kind::Unmet(matter) = flaw.kind else { return (Vec::new(), ideas.none.map(Cow::into_owned)) };
        let about = |one: &Condition| {
            (one.matter, one.part, one.lamp) == (matter, flaw.part, flaw.lamp)
                && one.light.map_or(lights.is_empty(), |light| lights.contains(&light))
        };
        let mut found: Vec<Remedy> = Vec::new();
        let mut harmed: Option<Condition> = None;
        let now = Turn::Dials(self.case.plan.settings);
        let mut put_off: Vec<Idea<'_>> = Vec::new();
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
                        self.offer(&turn, "", &mut found);
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
                Weighed::Mends => self.offer(&turn.0, "", &mut found),
                Weighed::Costs(worse) => harmed = Some(worse),
                Weighed::Eases(_) | Weighed::Harms | Weighed::Not => {}
            }
        }
        let was_trouble = self.before.iter().any(|one| about(one) && one.grade() == Grade::Trouble);
        if let Some((_, turn)) = eased.filter(|_| found.is_empty() && was_trouble) {
            self.offer(&turn, "not all of it", &mut found);
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

    fn offer(&mut self, turn: &Turn, how_far: &str, found: &mut Vec<Remedy>) {
        let case = self.case;
        let effect = effect(case, how_far, &self.of_turn(turn).then);
        let (label, changes) = turn.written(case.plan);
        if !found.iter().any(|other| other.changes == changes) {
            found.push(Remedy { label, effect, changes });
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

/// How far a light moves; one that was dark or goes dark moves by no number.
fn moved(name: &str, from: Stops, to: Stops) -> Option<String> {
    match (from > Stops::DARK, to > Stops::DARK) {
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
fn effect(case: Case, how_far: &str, then: &Then) -> String {
    let mut effects: Vec<String> = Some(how_far).filter(|far| !far.is_empty()).map(str::to_owned).into_iter().collect();
    effects.extend(moved("ambient", case.seen.ambient.placement, then.ambient));
    effects.extend(moved("exposure", case.seen.subject.lit_side, then.lit_side));
    if then.aperture != case.plan.settings.aperture {
        let less = then.aperture < case.plan.settings.aperture;
        effects.push(if less { "less depth".to_owned() } else { "more depth".to_owned() });
    }
    effects.join(", ")
}

// --- turning controls by clicks ---------------------------------------------------------------------------------

/// The same done to each of some lights, one after the other; `None` where one of them cannot.
pub(super) fn each(
    plan: &Plan,
    lights: &[usize],
    turned: impl Fn(&Plan, usize) -> Option<Settings>,
) -> Option<Settings> {
    lights.iter().try_fold(plan.settings, |set, light| turned(&plan.with(set), *light))
}

/// The nearest power on a unit's dial, `None` beyond its ends.
pub(super) fn power_near(plan: &Plan, light: usize, power: f64) -> Option<f64> {
    let light = &plan.lights[light];
    let half_step = light.unit.step.as_stops() / 2.0 + 1e-6;
    Some(light.unit.nearest_power(power)).filter(|best| (best / power).log2().abs() <= half_step)
}

/// One light at another power.
pub(super) fn at_power(plan: &Plan, light: usize, power: f64) -> Settings {
    Settings { lights: plan.settings.lights.with(light, |dial| dial.power = power), ..plan.settings }
}

/// Other settings with all lights turned by so many times their power, so that the flash follows the camera. An automatic
/// follows by itself. `None` where a light that fires cannot.
pub(super) fn follow(plan: &Plan, to: Settings, times: f64) -> Option<Settings> {
    let mut lights = to.lights;
    for light in (0..plan.lights.len()).filter(|light| plan.fires(*light) && to.lights[*light].bias.is_none()) {
        lights[light].power = power_near(plan, light, to.lights[light].power * times)?;
    }
    Some(Settings { lights, ..to })
}

/// The same with all lights that are on, those among them that do not hear the trigger yet.
pub(super) fn follow_all(plan: &Plan, to: Settings, times: f64) -> Option<Settings> {
    let mut lights = to.lights;
    for light in (0..plan.lights.len()).filter(|light| plan.lights[*light].on && to.lights[*light].bias.is_none()) {
        lights[light].power = power_near(plan, light, to.lights[light].power * times)?;
    }
    Some(Settings { lights, ..to })
}

/// The aperture some clicks away; positive clicks are smaller openings.
pub(super) fn aperture_by(plan: &Plan, clicks: i32) -> Option<Aperture> {
    let to = plan.settings.aperture.nearest_sixth() + clicks * plan.body.grid.step();
    strips::is_aperture(&plan.body, to).then(|| Aperture::from_av6(to))
}

/// The ISO some clicks away; positive clicks are more sensitive.
pub(super) fn iso_by(plan: &Plan, clicks: i32) -> Option<Iso> {
    let to = plan.settings.iso.nearest_sixth() + clicks * plan.body.grid.step();
    strips::is_iso(&plan.body, to).then(|| Iso::from_sv6(to))
}

/// The shutter time some clicks away; positive clicks are shorter.
pub(super) fn shutter_by(plan: &Plan, clicks: i32) -> Option<ShutterTime> {
    let to = plan.settings.shutter.nearest_sixth() + clicks * plan.body.grid.step();
    strips::is_shutter(&plan.body, to).then(|| ShutterTime::from_tv6(to))
}

/// Clicks nearest to a number of stops.
pub(super) fn clicks_of(plan: &Plan, stops: Stops) -> i32 {
    (stops.as_stops() * 6.0 / f64::from(plan.body.grid.step())).round() as i32
}

/// The same settings with another power, and the light kept by coming closer or stepping back.
pub(super) fn power_by_distance(plan: &Plan, light: usize, power: f64, keep: LuxSeconds) -> Option<Settings> {
    let wanted = plan.lights[light].distance_for(power, plan.settings.lights[light].heads, keep)?;
    let distance = strips::nearest_distance(plan.lengths, wanted);
    let lights = plan.settings.lights.with(light, |dial| (dial.power, dial.distance) = (power, distance));
    Some(Settings { lights, ..plan.settings })
}

/// The same settings with another power of one light, and the picture kept by ISO and the other lights.
pub(super) fn power_by_iso(plan: &Plan, light: usize, power: f64) -> Option<Settings> {
    let times = power / plan.settings.lights[light].power;
    let iso = iso_by(plan, clicks_of(plan, -Stops::from_ratio(times)))?;
    follow(plan, Settings { iso, ..plan.settings }, times)
}

/// The same settings with another power of one light, and the picture kept by the aperture and the other lights.
pub(super) fn power_by_aperture(plan: &Plan, light: usize, power: f64) -> Option<Settings> {
    let times = power / plan.settings.lights[light].power;
    let aperture = aperture_by(plan, clicks_of(plan, Stops::from_ratio(times)))?;
    follow(plan, Settings { aperture, ..plan.settings }, times)
}

/// ISO some clicks away with the flash kept by power.
pub(super) fn iso_with_power(plan: &Plan, clicks: i32) -> Option<Settings> {
    let iso = iso_by(plan, clicks)?;
    follow(plan, Settings { iso, ..plan.settings }, plan.settings.iso.number() / iso.number())
}

/// Aperture some clicks away with the flash kept by power.
pub(super) fn aperture_with_power(plan: &Plan, clicks: i32) -> Option<Settings> {
    let aperture = aperture_by(plan, clicks)?;
    let ratio = aperture.number() / plan.settings.aperture.number();
    follow(plan, Settings { aperture, ..plan.settings }, ratio * ratio)
}

/// A filter of more stops with the flash kept by power.
pub(super) fn filter_with_power(plan: &Plan, stops: f64) -> Option<Settings> {
    let now = plan.settings.filter.as_stops();
    let off = |filter: &Stops| (filter.as_stops() - now - stops).abs();
    let filter = crate::answers::strips::filters(plan).min_by(|a, b| off(a).total_cmp(&off(b)))?;
    let by = filter.as_stops() - now;
    // The nearest that is at hand, where it is near enough to be the same remedy.
    (off(&filter) < 0.6 && by != 0.0).then(|| follow(plan, Settings { filter, ..plan.settings }, by.exp2()))?
}
