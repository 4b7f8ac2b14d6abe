//! What may mend a finding: turns that go on in one direction, likeliest first, none of them tried yet.

use super::turn::{Source, Turn};
use crate::outlook::{Burns, Outlook};
use crate::plan::{Plan, Settings};
use crate::quantity::LuxSeconds;
use std::borrow::Cow;

/// What an idea may move.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Keeps {
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
    pub turns: Box<dyn Iterator<Item = Turn> + 'a>,
    pub keeps: Keeps,
    /// Whether all rows have to get all of the flash then.
    pub whole: bool,
    /// It is only thought of where nothing works of those of an earlier turn.
    pub in_turn: u8,
}

/// What may mend a finding, likeliest first.
pub(super) struct Ideas<'a> {
    pub list: Vec<Idea<'a>>,
    /// Why there are none.
    pub none: Option<Cow<'static, str>>,
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
        Self { list: self.list.into_iter().chain(others.list).collect(), none: others.none.or(self.none) }
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

impl Source {
    /// What may be done to the steady light, the strongest source first: each source by itself, before any shutter is turned.
    pub fn all<'a>(plan: &Plan, seen: &Outlook) -> Vec<Idea<'a>> {
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
