//! What one picture leaves for the next: while a control is turned most of it is the same again.
//!
//! Everything here is worked out from its key alone, so that a picture is the same whether it was kept or not.

use crate::backdrop::{MapKey, PaintKey};
use crate::brush::Painted;
use crate::compose::scene::{Cast, CastKey, ShadeKey};
use crate::lit::{Lit, LitKey};
use crate::shadow::Shade;
use std::collections::VecDeque;
use std::sync::{Arc, Mutex};

/// Pictures of at most so many pixels leave anything.
const LARGEST: usize = 650_000;

/// Things by what they were worked out from, the latest first.
pub(crate) struct Shelf<K, V> {
    things: Mutex<VecDeque<(K, Arc<V>)>>,
    most: usize,
}

impl<K: PartialEq, V> Shelf<K, V> {
    const fn of(most: usize) -> Self {
        Self { things: Mutex::new(VecDeque::new()), most }
    }

    /// What is kept under a key, or made now. What is not finished is not kept.
    pub fn get(&self, key: K, make: impl FnOnce() -> Option<V>) -> Option<Arc<V>> {
        if self.most == 0 {
            return make().map(Arc::new);
        }
        // A hand that slipped while it held the shelf leaves it as it was.
        let mut things = self.things.lock().unwrap_or_else(std::sync::PoisonError::into_inner);
        if let Some(place) = things.iter().position(|(of, _)| *of == key) {
            let found = things.remove(place)?;
            let thing = Arc::clone(&found.1);
            things.push_front(found);
            return Some(thing);
        }
        drop(things);
        let made = Arc::new(make()?);
        let mut things = self.things.lock().unwrap_or_else(std::sync::PoisonError::into_inner);
        things.truncate(self.most - 1);
        things.push_front((key, Arc::clone(&made)));
        Some(made)
    }
}

/// What pictures leave for each other.
pub struct Kept {
    pub(crate) casts: Shelf<CastKey, Cast>,
    pub(crate) shades: Shelf<ShadeKey, Shade>,
    pub(crate) painted: Shelf<PaintKey, Painted>,
    pub(crate) maps: Shelf<MapKey, Vec<f32>>,
    pub(crate) lit: Shelf<LitKey, Option<Lit>>,
}

impl Default for Kept {
    fn default() -> Self {
        Self {
            casts: Shelf::of(6),
            shades: Shelf::of(40),
            painted: Shelf::of(3),
            maps: Shelf::of(48),
            lit: Shelf::of(24),
        }
    }
}

/// For a picture that leaves nothing.
pub(crate) static NOTHING: Kept =
    Kept { casts: Shelf::of(0), shades: Shelf::of(0), painted: Shelf::of(0), maps: Shelf::of(0), lit: Shelf::of(0) };

impl Kept {
    /// Whether a picture of some pixels leaves anything.
    pub(crate) const fn holds(pixels: usize) -> bool {
        pixels <= LARGEST
    }
}
