//! Pulses of the shots at hand: whoever turns a control asks for the same lights again and again.

use pebble_core::Plan;
use pebble_core::outlook::Pulses;
use std::sync::{Arc, Mutex, PoisonError};

/// Shots that are worked on at once, with room to spare.
const MOST: usize = 8;

/// Memories of pulses, the one that was used last at the end.
#[derive(Clone, Debug, Default)]
pub(super) struct PulseShelf(Arc<Mutex<Vec<Pulses>>>);

impl PulseShelf {
    /// Works with what is remembered of a plan's lights, and remembers what came of it. Nobody waits meanwhile: who asks for
    /// the same at the same time begins anew.
    pub fn with<T>(&self, plan: &Plan, work: impl FnOnce(&mut Pulses) -> T) -> T {
        let mut pulses = self.taken(plan).unwrap_or_else(|| Pulses::of_plan(plan));
        let answer = work(&mut pulses);
        let mut shelf = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if shelf.len() >= MOST {
            shelf.remove(0);
        }
        shelf.push(pulses);
        answer
    }

    fn taken(&self, plan: &Plan) -> Option<Pulses> {
        let mut shelf = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let at = shelf.iter().rposition(|pulses| pulses.is_of(plan))?;
        Some(shelf.remove(at))
    }
}
