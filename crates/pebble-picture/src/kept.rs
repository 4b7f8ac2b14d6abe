//! What one picture leaves for the next: while a control is turned most of it is the same again.
//!
//! Everything here is worked out from its key alone, so that a picture is the same whether it was kept or not.

use crate::backdrop::{MapKey, PaintKey};
use crate::brush::Painted;
use crate::compose::scene::{Cast, CastKey, ShadeKey};
use crate::lit::{Lit, LitKey};
use crate::shadow::Shade;
use crate::shelf::Shelf;

/// Pictures of at most so many pixels leave anything.
const LARGEST: usize = 650_000;

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
