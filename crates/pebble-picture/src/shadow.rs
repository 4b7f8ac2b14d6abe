//! Who stands in the way of a light: what is nearest to it in every direction, and how much of it a place still sees.

use crate::cast::Figure;
use crate::raster::{Triangle, fill};
use crate::space::{V3, add, aside, cross, dot, sub, times, unit};

/// Directions across and down. The set is some metres wide, so that one of them is about a thumb.
const SIDE: usize = 288;
/// Places nearer to the light than what shades them by less than this are on it.
const SKIN: f32 = 0.02;
/// A place looks from a little off its surface, so that it does not shade itself.
const OFF: f32 = 0.018;

/// What is nearest to a light in every direction.
pub(crate) struct Shade {
    at: V3,
    axis: V3,
    u: V3,
    v: V3,
    /// Directions to a unit of tangent.
    scale: f32,
    /// One over the distance along the axis; 0 where nothing is.
    nearest: Vec<f32>,
    /// The nearest of all directions around, in blocks of [`BLOCK`]: most places are in nobody's shade, and this tells at once.
    around: Vec<f32>,
}

/// Directions of a block, across and down; nothing is looked for farther away than this.
const BLOCK: usize = 32;
const BLOCKS: usize = SIDE.div_ceil(BLOCK);

/// Places of a disc, evenly, in the order in which any number of first ones is even too.
const DISC: [[f32; 2]; 16] = {
    // Radius √((k+½)/16) at the golden angle.
    [
        [0.177, 0.0],
        [-0.226, 0.207],
        [0.035, -0.394],
        [0.284, 0.371],
        [-0.522, -0.092],
        [0.494, -0.315],
        [-0.165, 0.616],
        [-0.316, -0.607],
        [0.684, 0.250],
        [-0.712, 0.294],
        [0.343, -0.734],
        [0.254, 0.809],
        [-0.764, -0.445],
        [0.897, -0.197],
        [-0.548, 0.779],
        [-0.126, -0.976],
    ]
};

impl Shade {
    /// Of a light at a place that is aimed at another. Nothing when nobody is before it.
    pub fn of(at: V3, aim: V3, figures: &[Figure]) -> Option<Self> {
        let axes @ [axis, u, v] = Self::axes(at, aim);
        let widest = Self::widest(at, axes, figures)?;
        // A light beside a body sees it at any angle; farther than this to the side is not looked at.
        let scale = 0.5 * SIDE as f32 / (widest.clamp(0.4, 2.5) * 1.04);
        let mut shade = Self { at, axis, u, v, scale, nearest: vec![0.0; SIDE * SIDE], around: Vec::new() };
        for figure in figures.iter().filter(|figure| !figure.own_light && !figure.card) {
            let seen: Vec<Option<[f32; 3]>> = figure.mesh.corners.iter().map(|corner| shade.place(corner.at)).collect();
            for facet in &figure.mesh.facets {
                let [Some(a), Some(b), Some(c)] = facet.corners.map(|corner| seen[corner as usize]) else { continue };
                let nearest = &mut shade.nearest;
                fill(&Triangle { corners: [a, b, c] }, [0, 0, SIDE as i32, SIDE as i32], |row, from, to, z, step| {
                    let line = &mut nearest[row * SIDE + from..row * SIDE + to];
                    let mut z = z;
                    for cell in line {
                        if z > *cell {
                            *cell = z;
                        }
                        z += step;
                    }
                });
            }
        }
        shade.look_around();
        Some(shade)
    }

    /// Whether anybody is before a light.
    pub fn is_cast(at: V3, aim: V3, figures: &[Figure]) -> bool {
        Self::widest(at, Self::axes(at, aim), figures).is_some()
    }

    /// The axis of a light, and two directions square to it.
    fn axes(at: V3, aim: V3) -> [V3; 3] {
        let axis = unit(sub(aim, at));
        let u = aside([0.1, 0.0, 1.0], axis);
        [axis, u, cross(axis, u)]
    }

    /// How far to the side of the axis somebody is, as a tangent; nothing when nobody is before it.
    fn widest(at: V3, [axis, u, v]: [V3; 3], figures: &[Figure]) -> Option<f32> {
        let corners =
            figures.iter().filter(|figure| !figure.own_light && !figure.card).flat_map(|figure| &figure.mesh.corners);
        corners
            .step_by(7)
            .map(|corner| sub(corner.at, at))
            .filter(|from| dot(*from, axis) > 0.2)
            .map(|from| dot(from, u).abs().max(dot(from, v).abs()) / dot(from, axis))
            .reduce(f32::max)
    }

    fn look_around(&mut self) {
        let mut own = [0.0_f32; BLOCKS * BLOCKS];
        for (index, near) in self.nearest.iter().enumerate() {
            let block = &mut own[index / SIDE / BLOCK * BLOCKS + index % SIDE / BLOCK];
            *block = block.max(*near);
        }
        let with_neighbours = |index: usize| {
            let (row, column) = (index / BLOCKS, index % BLOCKS);
            let rows = row.saturating_sub(1)..(row + 2).min(BLOCKS);
            rows.flat_map(|row| {
                (column.saturating_sub(1)..(column + 2).min(BLOCKS)).map(move |column| own[row * BLOCKS + column])
            })
            .fold(0.0, f32::max)
        };
        self.around = (0..own.len()).map(with_neighbours).collect();
    }

    /// Direction across and down, and one over the distance along the axis.
    #[inline]
    fn place(&self, at: V3) -> Option<[f32; 3]> {
        let from = sub(at, self.at);
        let along = dot(from, self.axis);
        if along < 0.05 {
            return None;
        }
        let near = 1.0 / along;
        let half = 0.5 * SIDE as f32;
        Some([dot(from, self.u) * near * self.scale + half, dot(from, self.v) * near * self.scale + half, near])
    }

    #[inline]
    fn nearest(&self, x: f32, y: f32) -> f32 {
        if x < 0.0 || y < 0.0 {
            return 0.0;
        }
        let (column, row) = (x as usize, y as usize);
        if column < SIDE && row < SIDE { self.nearest[row * SIDE + column] } else { 0.0 }
    }

    /// The share of the light that a place sees, `size` being the sine of half the light's angle.
    #[inline]
    pub fn open(&self, at: V3, normal: V3, size: f32) -> f32 {
        self.seen((at, normal), size, 5, 0.0)
    }

    /// The same, looked at more carefully: for places that many others are mixed from.
    pub fn open_evenly(&self, at: V3, normal: V3, size: f32) -> f32 {
        0.5 * (self.seen((at, normal), size, DISC.len(), 0.0) + self.seen((at, normal), size, DISC.len(), 1.2))
    }

    #[inline]
    fn seen(&self, (at, normal): (V3, V3), size: f32, looks: usize, turned: f32) -> f32 {
        let Some([x, y, near]) = self.place(add(at, times(normal, OFF))) else { return 1.0 };
        let (sin, cos) = if turned == 0.0 { (0.0, 1.0) } else { turned.sin_cos() };
        let turn = |[dx, dy]: [f32; 2]| [dx * cos - dy * sin, dx * sin + dy * cos];
        let along = 1.0 / near;
        let before = 1.0 / (along - SKIN).max(0.01);
        // Somebody who is farther off the map than a block shades nothing here.
        let block = |at: f32| (at / BLOCK as f32).floor().clamp(-2.0, BLOCKS as f32 + 1.0) as i32;
        let (column, row) = (block(x), block(y));
        let near = |at: i32| at.clamp(0, BLOCKS as i32 - 1) as usize;
        if (column - near(column) as i32).abs() > 1 || (row - near(row) as i32).abs() > 1 {
            return 1.0;
        }
        if self.around[near(row) * BLOCKS + near(column)] <= before {
            return 1.0;
        }
        // Who is in the way, within what the light could reach around.
        let reach = (size * 0.4 * self.scale / along).clamp(1.0, 24.0);
        let (mut blocked, mut count) = (0.0, 0.0);
        for [dx, dy] in DISC[..looks].iter().map(|place| turn(*place)) {
            let one = self.nearest(x + dx * reach, y + dy * reach);
            if one > before {
                (blocked, count) = (blocked + one, count + 1.0);
            }
        }
        if count == 0.0 {
            return 1.0;
        }
        let blocker = count / blocked;
        // Half the width of the half shade on the surface, in directions.
        let soft = (size * along * (along - blocker) / blocker / along * self.scale).clamp(0.6, 24.0);
        let taps = if looks == DISC.len() { looks } else { ((5.0 + 3.0 * soft) as usize).min(DISC.len()) };
        let open = DISC[..taps]
            .iter()
            .map(|place| turn(*place))
            .filter(|[dx, dy]| self.nearest(x + dx * soft, y + dy * soft) <= before)
            .count();
        open as f32 / taps as f32
    }
}
