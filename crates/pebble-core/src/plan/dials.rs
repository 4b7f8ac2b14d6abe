//! What is set on the lights: copied as freely as the rest of the settings, for every try of a remedy or a hold needs its own.

use crate::physics::shutter::SyncMode;
use crate::quantity::{Metres, Stops};
use std::ops::{Index, IndexMut};

/// More lights than one photographer sets up.
pub const MAX_LIGHTS: usize = 12;

/// What is set on one light.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Dial {
    /// Power fraction, where it is set by hand.
    pub power: f64,
    /// Left to the automatic: what is dialled in against it.
    pub bias: Option<Stops>,
    /// To the subject; of a backdrop's light, to the backdrop.
    pub distance: Metres,
    /// How it is tied to the shutter.
    pub sync: SyncMode,
    /// Equal heads side by side.
    pub heads: u32,
    /// Channel of its receiver.
    pub channel: u32,
}

/// What is set on all lights, in their order.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Dials {
    count: usize,
    key: usize,
    // The places beyond the count all hold the same, so that two sets compare as they look.
    of: [Dial; MAX_LIGHTS],
}

impl Dials {
    const NONE: Dial =
        Dial { power: 1.0, bias: None, distance: Metres::ZERO, sync: SyncMode::Front, heads: 1, channel: 1 };

    /// The dials of 1 to [`MAX_LIGHTS`] lights, one of which is the key.
    pub(super) fn new(dials: &[Dial], key: usize) -> Self {
        let mut of = [Self::NONE; MAX_LIGHTS];
        of[..dials.len()].copy_from_slice(dials);
        Self { count: dials.len(), key, of }
    }

    /// The key's.
    pub const fn key(&self) -> &Dial {
        &self.of[self.key]
    }

    /// All of them.
    pub fn iter(&self) -> impl Iterator<Item = &Dial> {
        self.of[..self.count].iter()
    }

    /// The same with one light set otherwise.
    #[must_use]
    pub fn with(mut self, light: usize, change: impl FnOnce(&mut Dial)) -> Self {
        change(&mut self[light]);
        self
    }

    /// The same with every light set otherwise.
    #[must_use]
    pub fn with_each(mut self, change: impl FnMut(&mut Dial)) -> Self {
        self.of[..self.count].iter_mut().for_each(change);
        self
    }
}

impl Index<usize> for Dials {
    type Output = Dial;

    fn index(&self, light: usize) -> &Dial {
        &self.of[..self.count][light]
    }
}

impl IndexMut<usize> for Dials {
    fn index_mut(&mut self, light: usize) -> &mut Dial {
        &mut self.of[..self.count][light]
    }
}
