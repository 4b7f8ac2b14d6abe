//! Bodies as surfaces of small triangles, and the few ways in which they are built: lofts through rings, tubes, balls.

use crate::space::{V3, add, aside, cross, length, sub, times, unit};

/// A corner of a surface.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Corner {
    pub at: V3,
    /// Unit normal.
    pub normal: V3,
}

/// A triangle of a surface.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Facet {
    pub corners: [u32; 3],
    /// Which of the figure's stuffs it is made of.
    pub stuff: u8,
}

/// A surface.
#[derive(Clone, Debug, Default)]
pub(crate) struct Mesh {
    pub corners: Vec<Corner>,
    pub facets: Vec<Facet>,
}

/// One ring of a loft.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Ring {
    pub at: V3,
    /// Half axes, with their lengths.
    pub u: V3,
    pub v: V3,
    /// What the stretch up to the next ring is made of.
    pub stuff: u8,
    /// How deep folds are, as a share of the radius, and where along the folds this ring is.
    pub fold: (f32, f32),
}

impl Ring {
    /// An even ring around an axis.
    pub fn round(at: V3, axis: V3, radius: f32, stuff: u8) -> Self {
        let u = aside([0.3, 0.2, 1.0], axis);
        let v = cross(unit(axis), u);
        Self { at, u: times(u, radius), v: times(v, radius), stuff, fold: (0.0, 0.0) }
    }
}

/// Folds of cloth around a ring: three long waves that turn as they run down.
fn folded(angle: f32, (depth, along): (f32, f32)) -> f32 {
    if depth == 0.0 {
        return 1.0;
    }
    let wave = 0.55 * (3.0 * angle + 7.0 * along).sin()
        + 0.3 * (5.0 * angle - 13.0 * along + 1.3).sin()
        + 0.25 * (2.0 * angle + 23.0 * along).sin();
    1.0 + depth * wave
}

impl Mesh {
    /// A surface through rings, closed at both ends. `count` is how many corners each has; `stuff_at` may say, by the angle
    /// around the ring, that a stretch is of something else.
    pub fn loft(&mut self, rings: &[Ring], count: usize, stuff_at: impl Fn(usize, f32) -> Option<u8>) {
        if rings.len() < 2 {
            return;
        }
        let first = self.corners.len() as u32;
        let angle = |k: usize| k as f32 / count as f32 * std::f32::consts::TAU;
        for ring in rings {
            for k in 0..count {
                let (sin, cos) = angle(k).sin_cos();
                let out = folded(angle(k), ring.fold);
                let at = add(ring.at, add(times(ring.u, cos * out), times(ring.v, sin * out)));
                self.corners.push(Corner { at, normal: [0.0; 3] });
            }
        }
        let corner = |ring: usize, k: usize| first + (ring * count + k % count) as u32;
        let facets = self.facets.len();
        for (index, ring) in rings.iter().enumerate().take(rings.len() - 1) {
            for k in 0..count {
                let stuff =
                    stuff_at(index, angle(k) + 0.5 * std::f32::consts::TAU / count as f32).unwrap_or(ring.stuff);
                let [a, b] = [corner(index, k), corner(index, k + 1)];
                let [c, d] = [corner(index + 1, k), corner(index + 1, k + 1)];
                self.facets.push(Facet { corners: [a, b, c], stuff });
                self.facets.push(Facet { corners: [b, d, c], stuff });
            }
        }
        for (ring, order) in [(0, [0, 2, 1]), (rings.len() - 1, [0, 1, 2])] {
            let middle = self.corners.len() as u32;
            self.corners.push(Corner { at: rings[ring].at, normal: [0.0; 3] });
            for k in 0..count {
                let three = [middle, corner(ring, k), corner(ring, k + 1)];
                self.facets.push(Facet { corners: order.map(|place| three[place]), stuff: rings[ring].stuff });
            }
        }
        self.smooth(first as usize, facets);
    }

    /// Normals as the mean of the facets around a corner, by their area.
    fn smooth(&mut self, first_corner: usize, first_facet: usize) {
        for index in first_facet..self.facets.len() {
            let corners = self.facets[index].corners;
            let [a, b, c] = corners.map(|corner| self.corners[corner as usize].at);
            let normal = cross(sub(b, a), sub(c, a));
            for corner in corners {
                let of = &mut self.corners[corner as usize].normal;
                *of = add(*of, normal);
            }
        }
        for corner in &mut self.corners[first_corner..] {
            corner.normal = unit(corner.normal);
        }
    }

    /// A grid of places that wraps around, such as a deformed ball: `rows` from one pole to the other.
    pub fn wrapped(
        &mut self,
        (rows, columns): (usize, usize),
        place: impl Fn(f32, f32) -> V3,
        stuff: impl Fn(f32, f32) -> Option<u8>,
    ) {
        let (first_corner, first_facet) = (self.corners.len(), self.facets.len());
        for row in 0..=rows {
            for column in 0..columns {
                let at = place(row as f32 / rows as f32, column as f32 / columns as f32);
                self.corners.push(Corner { at, normal: [0.0; 3] });
            }
        }
        let corner = |row: usize, column: usize| (first_corner + row * columns + column % columns) as u32;
        for row in 0..rows {
            for column in 0..columns {
                let middle = ((row as f32 + 0.5) / rows as f32, (column as f32 + 0.5) / columns as f32);
                let Some(stuff) = stuff(middle.0, middle.1) else { continue };
                let [a, b] = [corner(row, column), corner(row, column + 1)];
                let [c, d] = [corner(row + 1, column), corner(row + 1, column + 1)];
                self.facets.push(Facet { corners: [a, c, b], stuff });
                self.facets.push(Facet { corners: [b, c, d], stuff });
            }
        }
        self.smooth(first_corner, first_facet);
    }

    /// A ball stretched along three half axes.
    pub fn ball(&mut self, at: V3, [a, b, c]: [V3; 3], rows: usize, stuff: u8) {
        let place = |row: f32, column: f32| {
            let (sin, cos) = (row * std::f32::consts::PI).sin_cos();
            let (around, along) = (column * std::f32::consts::TAU).sin_cos();
            add(at, add(add(times(a, sin * along), times(b, sin * around)), times(c, cos)))
        };
        self.wrapped((rows, rows * 2), place, |_, _| Some(stuff));
        // Normals of a ball are known exactly; its poles have none of their own.
        let outwards = |of: V3| {
            let away = sub(of, at);
            let part = |axis: V3| times(axis, crate::space::dot(away, axis) / crate::space::dot(axis, axis).powi(2));
            unit(add(add(part(a), part(b)), part(c)))
        };
        let first = self.corners.len() - (rows + 1) * rows * 2;
        for corner in &mut self.corners[first..] {
            corner.normal = outwards(corner.at);
        }
    }

    /// An even ball.
    pub fn round_ball(&mut self, at: V3, radius: f32, rows: usize, stuff: u8) {
        self.ball(at, [[radius, 0.0, 0.0], [0.0, radius, 0.0], [0.0, 0.0, radius]], rows, stuff);
    }

    /// A tube through places, with a radius at each.
    pub fn tube(&mut self, path: &[V3], radius: impl Fn(f32) -> f32, count: usize, stuff: u8) {
        let last = path.len().saturating_sub(1);
        let mut u = [0.0, 0.0, 0.0];
        let mut rings = Vec::with_capacity(path.len());
        for (index, at) in path.iter().enumerate() {
            let way = sub(path[(index + 1).min(last)], path[index.saturating_sub(1)]);
            // Carried along, so that it does not twist.
            u = if index == 0 { aside([0.31, 0.22, 1.0], way) } else { aside(u, way) };
            let v = cross(unit(way), u);
            let r = radius(index as f32 / last.max(1) as f32);
            rings.push(Ring { at: *at, u: times(u, r), v: times(v, r), stuff, fold: (0.0, 0.0) });
        }
        self.loft(&rings, count, |_, _| None);
    }

    /// A straight tube.
    pub fn rod(&mut self, from: V3, to: V3, radius: f32, stuff: u8) {
        if length(sub(to, from)) > 1e-5 {
            self.tube(&[from, to], |_| radius, 8, stuff);
        }
    }

    /// A tube bent to a circle.
    pub fn hoop(&mut self, at: V3, axis: V3, radius: f32, tube: f32, segments: usize, stuff: u8) {
        let u = aside([1.0, 0.0, 0.02], axis);
        let v = cross(unit(axis), u);
        let place = |row: f32, column: f32| {
            let (sin, cos) = (column * std::f32::consts::TAU).sin_cos();
            let out = add(times(u, cos), times(v, sin));
            let (up, across) = (row * std::f32::consts::TAU).sin_cos();
            add(at, add(times(out, radius + tube * across), times(unit(axis), tube * up)))
        };
        self.wrapped((6, segments), place, |_, _| Some(stuff));
    }

    /// A flat sheet through two edges, seen from both sides.
    pub fn sheet(&mut self, edges: &[(V3, V3)], across: usize, stuff: impl Fn(f32) -> u8) {
        let (first_corner, first_facet) = (self.corners.len(), self.facets.len());
        for (a, b) in edges {
            for k in 0..=across {
                let at = crate::space::toward(*a, *b, k as f32 / across as f32);
                self.corners.push(Corner { at, normal: [0.0; 3] });
            }
        }
        let corner = |row: usize, k: usize| (first_corner + row * (across + 1) + k) as u32;
        for row in 0..edges.len().saturating_sub(1) {
            for k in 0..across {
                let stuff = stuff((row as f32 + 0.5) / edges.len() as f32);
                let [a, b, c, d] = [corner(row, k), corner(row, k + 1), corner(row + 1, k), corner(row + 1, k + 1)];
                self.facets.push(Facet { corners: [a, b, c], stuff });
                self.facets.push(Facet { corners: [b, d, c], stuff });
            }
        }
        self.smooth(first_corner, first_facet);
    }

    /// A box by its middle and half axes.
    pub fn block(&mut self, at: V3, [a, b, c]: [V3; 3], stuff: u8) {
        for (out, u, v) in [(a, b, c), (b, c, a), (c, a, b)] {
            for side in [1.0, -1.0] {
                let middle = add(at, times(out, side));
                let corner = |s: f32, t: f32| add(middle, add(times(u, s), times(v, t * side)));
                self.sheet(
                    &[(corner(-1.0, -1.0), corner(1.0, -1.0)), (corner(-1.0, 1.0), corner(1.0, 1.0))],
                    1,
                    |_| stuff,
                );
            }
        }
    }

    /// Adds another surface.
    pub fn append(&mut self, other: Self) {
        let first = self.corners.len() as u32;
        self.corners.extend(other.corners);
        self.facets.extend(
            other
                .facets
                .into_iter()
                .map(|facet| Facet { corners: facet.corners.map(|corner| corner + first), ..facet }),
        );
    }
}
