//! The outline of an area on the floor: straight edges from corner to corner that nowhere cross.

/// A corner: to the right of the mark and away from the camera, in metres.
pub type Corner = (f64, f64);

/// Fewer corners hold no floor.
pub const FEWEST: usize = 3;
/// More are no area that somebody tapes on a floor.
pub const MOST: usize = 12;

/// Why corners are no outline.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum NoOutline {
    /// Fewer than three corners, or more than twelve.
    #[error("an outline has three to twelve corners")]
    Count,
    /// Two edges cross or touch.
    #[error("its edges cross between corners {0} and {1}")]
    Crosses(usize, usize),
    /// Edges that go there and back.
    #[error("there is no floor inside it")]
    Empty,
}

/// An outline; its corners in order around it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Outline {
    corners: [Corner; MOST],
    count: usize,
}

/// Less floor than this is none, in square metres.
const LEAST_FLOOR: f64 = 1e-3;

impl Outline {
    /// Of corners, in metres.
    ///
    /// # Errors
    /// [`NoOutline`] for what holds no floor or crosses itself; the corners are counted from one.
    pub fn of(corners: &[Corner]) -> Result<Self, NoOutline> {
        let count = corners.len();
        if !(FEWEST..=MOST).contains(&count) {
            return Err(NoOutline::Count);
        }
        let mut all = [(0.0, 0.0); MOST];
        all[..count].copy_from_slice(corners);
        let outline = Self { corners: all, count };
        for (a, one) in outline.edges().enumerate() {
            for (b, other) in outline.edges().enumerate().skip(a + 1) {
                // Neighbours share a corner.
                let beside = b == a + 1 || (a == 0 && b + 1 == count);
                if !beside && touch(one, other) {
                    return Err(NoOutline::Crosses(a + 1, b + 1));
                }
            }
        }
        if outline.floor() < LEAST_FLOOR { Err(NoOutline::Empty) } else { Ok(outline) }
    }

    /// Its corners, in order.
    pub fn corners(&self) -> &[Corner] {
        &self.corners[..self.count]
    }

    /// Its edges, from corner to corner.
    pub fn edges(&self) -> impl Iterator<Item = (Corner, Corner)> + '_ {
        (0..self.count).map(|at| (self.corners[at], self.corners[(at + 1) % self.count]))
    }

    /// From left to right and from near to far, as far as it goes.
    pub fn ends(&self) -> (Corner, Corner) {
        let ends = |of: fn(&Corner) -> f64| {
            let from = (f64::INFINITY, f64::NEG_INFINITY);
            self.corners().iter().map(of).fold(from, |(low, high), at| (low.min(at), high.max(at)))
        };
        (ends(|corner| corner.0), ends(|corner| corner.1))
    }

    /// Floor inside it, in square metres.
    pub fn floor(&self) -> f64 {
        (self.edges().map(|(from, to)| from.0 * to.1 - to.0 * from.1).sum::<f64>() / 2.0).abs()
    }

    /// Whether a place lies inside: a line to the right of it leaves the outline once more than it enters.
    pub fn holds(&self, x: f64, y: f64) -> bool {
        self.edges().filter(|(from, to)| (from.1 > y) != (to.1 > y) && x < crossing(*from, *to, y)).count() % 2 == 1
    }

    /// Its leftmost and rightmost place at a distance from the camera.
    pub fn across_at(&self, y: f64) -> (f64, f64) {
        Self::reach(self.edges(), y)
    }

    /// Its nearest and farthest place at a place from left to right.
    pub fn away_at(&self, x: f64) -> (f64, f64) {
        let turned = |(from, to): (Corner, Corner)| ((from.1, from.0), (to.1, to.0));
        Self::reach(self.edges().map(turned), x)
    }

    fn reach(edges: impl Iterator<Item = (Corner, Corner)>, at: f64) -> (f64, f64) {
        let met = edges.filter(|(from, to)| (from.1 <= at) != (to.1 <= at)).map(|(from, to)| crossing(from, to, at));
        met.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), place| (low.min(place), high.max(place)))
    }

    /// The parts of a stretch that lie inside.
    pub fn within(&self, [x0, y0, x1, y1]: [f64; 4], mut part: impl FnMut([f64; 4])) {
        let (from, way) = ((x0, y0), (x1 - x0, y1 - y0));
        // Where it meets an edge, as shares of its length.
        let mut cuts = [0.0; MOST + 2];
        let mut count = 1;
        for (a, b) in self.edges() {
            let edge = (b.0 - a.0, b.1 - a.1);
            let across = turn(way, edge);
            let (share, along) = (turn((a.0 - from.0, a.1 - from.1), edge), turn((a.0 - from.0, a.1 - from.1), way));
            if across != 0.0 && (0.0..=1.0).contains(&(share / across)) && (0.0..=1.0).contains(&(along / across)) {
                cuts[count] = share / across;
                count += 1;
            }
        }
        cuts[count] = 1.0;
        let cuts = &mut cuts[..=count];
        cuts.sort_by(f64::total_cmp);
        let at = |share: f64| (x0 + way.0 * share, y0 + way.1 * share);
        for ends in cuts.windows(2).filter(|ends| ends[1] > ends[0]) {
            let middle = at((ends[0] + ends[1]) / 2.0);
            if self.holds(middle.0, middle.1) {
                let (from, to) = (at(ends[0]), at(ends[1]));
                part([from.0, from.1, to.0, to.1]);
            }
        }
    }
}

/// Where an edge that is not level passes a height.
fn crossing(from: Corner, to: Corner, y: f64) -> f64 {
    from.0 + (y - from.1) / (to.1 - from.1) * (to.0 - from.0)
}

fn turn(a: Corner, b: Corner) -> f64 {
    a.0 * b.1 - a.1 * b.0
}

/// Whether two edges have a place in common.
fn touch((a, b): (Corner, Corner), (c, d): (Corner, Corner)) -> bool {
    let side =
        |from: Corner, to: Corner, at: Corner| turn((to.0 - from.0, to.1 - from.1), (at.0 - from.0, at.1 - from.1));
    let between = |from: Corner, to: Corner, at: Corner| {
        (from.0.min(to.0)..=from.0.max(to.0)).contains(&at.0) && (from.1.min(to.1)..=from.1.max(to.1)).contains(&at.1)
    };
    let (of_c, of_d, of_a, of_b) = (side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b));
    (of_c * of_d < 0.0 && of_a * of_b < 0.0)
        || (of_c == 0.0 && between(a, b, c))
        || (of_d == 0.0 && between(a, b, d))
        || (of_a == 0.0 && between(c, d, a))
        || (of_b == 0.0 && between(c, d, b))
}
