//! Things by what they were worked out from, so that what is the same again is not made again.

use std::collections::VecDeque;
use std::sync::{Arc, Mutex};

/// Things by what they were worked out from, the latest first.
pub(crate) struct Shelf<K, V> {
    things: Mutex<VecDeque<(K, Arc<V>)>>,
    most: usize,
}

impl<K: PartialEq, V> Shelf<K, V> {
    pub const fn of(most: usize) -> Self {
        Self { things: Mutex::new(VecDeque::new()), most }
    }

    /// What is kept under a key.
    pub fn find(&self, key: &K) -> Option<Arc<V>> {
        let things = self.things.lock().unwrap_or_else(std::sync::PoisonError::into_inner);
        things.iter().find(|(of, _)| of == key).map(|(_, thing)| Arc::clone(thing))
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
