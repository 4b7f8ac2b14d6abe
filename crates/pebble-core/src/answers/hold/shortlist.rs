//! The best few of all set-ups that are gone through.

use crate::plan::Settings;

/// Kept for a closer look.
pub(super) const KEPT: usize = 12;
/// Excess that differs by less than that decides nothing.
pub(super) const FINEST: f64 = 0.01;

/// A set-up and what it costs.
#[derive(Clone, Copy, Debug)]
pub(super) struct Found {
    pub settings: Settings,
    /// Stops beyond the tolerance, of everything held together.
    pub excess: f64,
    pub cost: f64,
}

/// Set-ups, and in which order they come: a set-up is large, and stays where it was put while others come before it.
pub(super) struct Shortlist {
    /// As many as are wanted.
    most: usize,
    found: Vec<Found>,
    /// Rank and place of each, best first.
    order: Vec<(Rank, usize)>,
}

/// Excess counts first, then cost.
type Rank = (f64, f64);

fn rank(excess: f64, cost: f64) -> Rank {
    // Never negative: a cast rounds it as well as anything, and this is asked of every set-up there is.
    ((excess / FINEST + 0.5) as i64 as f64, cost)
}

impl Shortlist {
    /// An empty one, for so many at most.
    pub const fn of(most: usize) -> Self {
        Self { most, found: Vec::new(), order: Vec::new() }
    }

    /// Whether what leaves so much off at least, and costs so much at least, cannot be among the best any more.
    pub fn beats(&self, excess: f64, cost: f64) -> bool {
        self.order.len() == self.most && rank(excess, cost) >= self.order[self.most - 1].0
    }

    /// Keeps a set-up if it is one of the best; of two that rank alike the one that came first.
    pub fn keep(&mut self, found: Found) {
        if self.beats(found.excess, found.cost) {
            return;
        }
        let rank = rank(found.excess, found.cost);
        let place = if self.order.len() == self.most {
            let (_, place) = self.order.remove(self.most - 1);
            self.found[place] = found;
            place
        } else {
            self.found.push(found);
            self.found.len() - 1
        };
        let before = self.order.partition_point(|(other, _)| *other <= rank);
        self.order.insert(before, (rank, place));
    }

    pub fn best_first(self) -> Vec<Found> {
        self.order.iter().map(|(_, place)| self.found[*place]).collect()
    }
}
