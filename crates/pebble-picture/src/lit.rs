//! Figures as triangles on a grid along their movement: what is seen where, and how much of each light it gets.

use crate::cast::{Figure, Stuff};
use crate::compose::scene::Cast;
use crate::light::{Beam, BeamKey, Dome, Surface};
use crate::raster::{Triangle, fill};
use crate::shadow::Shade;
use crate::smear::{Pixel, Point, Sprite, Sprites, union};
use crate::space::{V3, add, cross, dot, hash, sub, times, unit};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};

/// Samples of one set of figures at most: 64 megabytes of running sums for both lights.
const MOST_SAMPLES: f32 = 2e6;

/// A figure as the lights find it.
pub(crate) struct Shape<'a> {
    pub figure: &'a Figure,
    /// Its corners as the sensor has them: along, across, one over the distance.
    pub seen: &'a [Option<[f32; 3]>],
    /// The flashes on it.
    pub beams: Vec<Beam<'a>>,
    /// The steady lamps that stand somewhere.
    pub lamps: Vec<Beam<'a>>,
}

/// A figure that may stand before others.
pub(crate) struct Hides<'a> {
    pub figure: &'a Figure,
    /// Its corners, as those of a shape.
    pub seen: &'a [Option<[f32; 3]>],
}

/// How to raster some figures.
pub(crate) struct Raster<'a> {
    pub shapes: &'a [Shape<'a>],
    /// What is not drawn, but hides what is behind it.
    pub before: &'a [Hides<'a>],
    pub dome: Dome<'a>,
    /// The lens.
    pub eye: V3,
    /// Unit vector of the movement.
    pub direction: Point,
    pub pixels_per_metre: f32,
    /// Whether they are drawn in steady light.
    pub steady: bool,
    /// Whether they are drawn by flashes.
    pub flashed: bool,
    /// What of the frame can be seen, with room for the movement, so that a loupe does not raster what it cannot show.
    pub window: [f32; 4],
    /// Centre of some pixel: samples of figures that stand still or move along an axis fall on pixels then, and need no
    /// mixing.
    pub anchor: Point,
    /// Whether anybody still waits for the picture.
    pub wanted: &'a AtomicBool,
}

/// Cells of a sample along and across.
const CELLS: usize = 2;
/// Cells that are filled at a time: they stay in the cache.
const MOST_CELLS: usize = 160_000;
/// No triangle.
const NOTHING: u32 = u32::MAX;

/// A figure's colours in a picture.
pub(crate) struct Colours {
    /// Level of the steady light from around on white, in linear light.
    pub steady: V3,
    /// The same of each steady lamp, turned to it.
    pub lamps: Vec<V3>,
    /// By each of its beams: the group it draws with, and its level on white.
    pub flashes: Vec<(usize, V3)>,
}

/// What is known of a raster: when all of it is the same, so is what it gives.
pub(crate) struct LitKey {
    pub cast: Arc<Cast>,
    pub figures: Vec<usize>,
    pub before: Vec<usize>,
    pub numbers: [f32; 9],
    pub lights: (bool, bool),
    pub beams: Vec<Vec<BeamKey>>,
    /// Who stands in the way of each of them.
    pub shades: Vec<Option<Arc<Shade>>>,
}

impl PartialEq for LitKey {
    fn eq(&self, other: &Self) -> bool {
        Arc::ptr_eq(&self.cast, &other.cast)
            && self.figures == other.figures
            && self.before == other.before
            && self.numbers == other.numbers
            && self.lights == other.lights
            && self.beams == other.beams
            && self.shades.len() == other.shades.len()
            && self.shades.iter().zip(&other.shades).all(|pair| match pair {
                (Some(own), Some(other)) => Arc::ptr_eq(own, other),
                (own, other) => own.is_none() && other.is_none(),
            })
    }
}

/// Figures as the lights find them, at level 1: what is seen where, how much of each light it gets. Power, time and
/// aperture change its colours alone.
pub(crate) struct Lit {
    origin: Point,
    direction: Point,
    scale: f32,
    columns: usize,
    /// First column of each line, and its first sample.
    lines: Vec<(u32, u32)>,
    /// First place of each sample.
    samples: Vec<u32>,
    places: Vec<Place>,
    /// By each place: of steady light from around, then of each lamp and of each flash its own colour and what is mirrored.
    gets: Vec<f32>,
}

/// A stuff that is seen in a sample.
#[derive(Clone, Copy)]
struct Place {
    cover: f32,
    shape: u16,
    stuff: u8,
    /// Where what it gets begins.
    gets: u32,
}

impl Lit {
    /// The figures in the light of a picture: in steady light where that is asked for, and by so many groups of flashes.
    pub fn sprites(
        &self,
        stuffs: &[&[Stuff]],
        colours: &[Colours],
        (steady, groups): (bool, usize),
        swing: Option<[f32; 2]>,
    ) -> Sprites {
        let samples = self.samples.len() + 2 * self.lines.len();
        let sprite =
            || Sprite::new((self.origin, self.direction, self.scale), self.columns, (self.lines.len(), samples));
        let mut flash: Vec<Sprite> = (0..groups).map(|_| sprite()).collect();
        let mut ambient = steady.then(sprite);
        let lanes = usize::from(steady) + groups;
        let mut pixels: Vec<Pixel> = Vec::with_capacity(self.columns * lanes);
        for (line, (first, from)) in self.lines.iter().enumerate() {
            let to = self.lines.get(line + 1).map_or(self.samples.len().saturating_sub(1), |next| next.1 as usize);
            let from = *from as usize;
            pixels.clear();
            pixels.resize((to - from) * lanes, [0.0; 4]);
            for (sample, pixels) in (from..to).zip(pixels.chunks_exact_mut(lanes.max(1))) {
                let places = self.samples[sample] as usize..self.samples[sample + 1] as usize;
                for place in &self.places[places] {
                    self.colour(place, stuffs, colours, (steady, pixels));
                }
            }
            let r = self.origin[1] + line as f32 / self.scale;
            let speed = self.scale * swing_at(swing, r);
            let lane = |lane: usize| pixels.iter().skip(lane).step_by(lanes.max(1)).copied();
            if let Some(ambient) = &mut ambient {
                ambient.push(*first as usize, speed, lane(0));
            }
            for (group, sprite) in flash.iter_mut().enumerate() {
                sprite.push(*first as usize, speed, lane(usize::from(steady) + group));
            }
        }
        Sprites { flash, ambient }
    }

    #[inline]
    fn colour(&self, place: &Place, stuffs: &[&[Stuff]], colours: &[Colours], (steady, pixels): (bool, &mut [Pixel])) {
        let stuff = &stuffs[usize::from(place.shape)][usize::from(place.stuff)];
        let colours = &colours[usize::from(place.shape)];
        let mut gets = &self.gets[place.gets as usize..];
        let tint = stuff.tint.0;
        let flashes = if steady {
            let (own, rest) = pixels.split_at_mut(1);
            let level = place.cover * gets[0];
            gets = &gets[1..];
            own[0][0] += place.cover;
            for k in 0..3 {
                own[0][1 + k] += level * tint[k] * colours.steady[k];
            }
            for (colour, lit) in colours.lamps.iter().zip(gets.chunks_exact(2)) {
                for k in 0..3 {
                    own[0][1 + k] += place.cover * (lit[0] * tint[k] + lit[1]) * colour[k];
                }
            }
            gets = &gets[2 * colours.lamps.len()..];
            rest
        } else {
            pixels
        };
        for pixel in flashes.iter_mut() {
            pixel[0] += place.cover;
        }
        if flashes.is_empty() {
            return;
        }
        for ((group, colour), gets) in colours.flashes.iter().zip(gets.chunks_exact(2)) {
            let pixel = &mut flashes[*group];
            for k in 0..3 {
                pixel[1 + k] += place.cover * (gets[0] * tint[k] + gets[1]) * colour[k];
            }
        }
    }
}

/// Speed of a line against the part's.
fn swing_at(swing: Option<[f32; 2]>, r: f32) -> f32 {
    swing.map_or(1.0, |[from, to]| {
        let along = ((r - from) / (to - from)).clamp(0.0, 1.0);
        (std::f32::consts::PI * along).sin()
    })
}

impl Raster<'_> {
    /// Rasters the figures, the nearest in front, and lights them. Nothing in it when nothing of them is in the window;
    /// nothing at all when nobody waits any more.
    pub fn lit(&self) -> Option<Option<Lit>> {
        let [dx, dy] = self.direction;
        let places = self.shapes.iter().flat_map(|shape| shape.seen).flatten();
        let Some(bounds) = places.map(|[x, y, _]| [*x, *y, *x, *y]).reduce(union) else { return Some(None) };
        let seen = [
            bounds[0].max(self.window[0]),
            bounds[1].max(self.window[1]),
            bounds[2].min(self.window[2]),
            bounds[3].min(self.window[3]),
        ];
        if seen[0] >= seen[2] || seen[1] >= seen[3] {
            return Some(None);
        }
        // Corners of the box in coordinates along (s) and across (r) the movement, on whole pixels, one to spare.
        let turned = |[x, y]: Point| [x * dx + y * dy, y * dx - x * dy];
        let corners = [[seen[0], seen[1]], [seen[2], seen[1]], [seen[0], seen[3]], [seen[2], seen[3]]].map(turned);
        let low = |axis: usize| corners.iter().map(|c| c[axis]).fold(f32::INFINITY, f32::min);
        let high = |axis: usize| corners.iter().map(|c| c[axis]).fold(f32::NEG_INFINITY, f32::max);
        // A loupe on something very fast would need all of it at the loupe's scale; its smear hides what is lost by less.
        let wanted = (high(0) - low(0)) * (high(1) - low(1)) * self.pixels_per_metre * self.pixels_per_metre;
        let scale = self.pixels_per_metre * (MOST_SAMPLES / wanted).sqrt().min(1.0);
        let anchor = turned(self.anchor);
        let snap = |axis: usize| anchor[axis] + (((low(axis) - anchor[axis]) * scale).floor() - 1.0) / scale;
        let (s0, r0) = (snap(0), snap(1));
        let columns = ((high(0) - s0) * scale).ceil() as usize + 2;
        let lines = ((high(1) - r0) * scale).ceil() as usize + 2;

        let mut lit = Lit {
            origin: [s0, r0],
            direction: self.direction,
            scale,
            columns,
            lines: Vec::with_capacity(lines),
            samples: Vec::new(),
            places: Vec::new(),
            gets: Vec::new(),
        };
        // Every corner in cells.
        let cell = |[x, y, near]: [f32; 3]| {
            let [s, r] = turned([x, y]);
            [((s - s0) * scale + 0.5) * CELLS as f32, ((r - r0) * scale + 0.5) * CELLS as f32, near]
        };
        let edges = [(columns * CELLS) as f32, (lines * CELLS) as f32];
        let mut facets = Facets { all: Vec::new(), order: Vec::new() };
        for (index, shape) in self.shapes.iter().enumerate() {
            facets.add(shape.figure, shape.seen, Some(index as u16), (&cell, edges));
        }
        for hides in self.before {
            facets.add(hides.figure, hides.seen, None, (&cell, edges));
        }

        let across = columns * CELLS;
        let chunk = (MOST_CELLS / (across * CELLS)).clamp(1, lines);
        let mut nearest = vec![0.0_f32; across * chunk * CELLS];
        let mut facing = vec![NOTHING; across * chunk * CELLS];
        for start in (0..lines).step_by(chunk) {
            if !self.wanted.load(Ordering::Relaxed) {
                return None;
            }
            let count = chunk.min(lines - start);
            nearest.fill(0.0);
            facing.fill(NOTHING);
            let mut spans = vec![(usize::MAX, 0); count];
            let rows = [(start * CELLS) as f32, ((start + count) * CELLS) as f32];
            for (number, facet) in facets.crossing(rows) {
                let bounds = [0, rows[0] as i32, across as i32, rows[1] as i32];
                fill(&facet.triangle, bounds, |row, from, to, z, step| {
                    let row = row - start * CELLS;
                    let number = if facet.shape == HIDES { NOTHING } else { number };
                    if number != NOTHING {
                        let span = &mut spans[row / CELLS];
                        *span = (span.0.min(from / CELLS), span.1.max(to.div_ceil(CELLS)));
                    }
                    let first = row * across;
                    let cells = nearest[first + from..first + to].iter_mut().zip(&mut facing[first + from..first + to]);
                    let mut z = z;
                    for (nearest, facing) in cells {
                        if z > *nearest {
                            (*nearest, *facing) = (z, number);
                        }
                        z += step;
                    }
                });
            }
            for (line, (first, last)) in spans.into_iter().enumerate() {
                let (first, last) = if first < last { (first, last) } else { (0, 0) };
                lit.lines.push((first as u32, lit.samples.len() as u32));
                for column in first..last {
                    lit.samples.push(lit.places.len() as u32);
                    let top = line * CELLS * across + column * CELLS;
                    let seen = [facing[top], facing[top + 1], facing[top + across], facing[top + across + 1]];
                    if seen != [NOTHING; 4] {
                        let at = [(column * CELLS) as f32, ((start + line) * CELLS) as f32];
                        self.sample(&facets, seen, at, &mut lit);
                    }
                }
            }
        }
        lit.samples.push(lit.places.len() as u32);
        Some(Some(lit))
    }

    /// Lights what four cells of a sample see. Cells that see the same stuff of the same figure are lit once.
    #[inline]
    fn sample(&self, facets: &Facets, seen: [u32; 4], corner: [f32; 2], lit: &mut Lit) {
        const CELL: f32 = 1.0 / (CELLS * CELLS) as f32;
        let mut done = [false; 4];
        for first in 0..seen.len() {
            if seen[first] == NOTHING || done[first] {
                continue;
            }
            let facet = &facets.all[seen[first] as usize];
            let mut cover = 0.0;
            for other in first..seen.len() {
                if !done[other] && seen[other] != NOTHING {
                    let same = seen[other] == seen[first] || {
                        let of = &facets.all[seen[other] as usize];
                        of.shape == facet.shape && of.stuff == facet.stuff
                    };
                    if same {
                        done[other] = true;
                        cover += CELL;
                    }
                }
            }
            let at = [corner[0] + (first % CELLS) as f32 + 0.5, corner[1] + (first / CELLS) as f32 + 0.5];
            self.light(facet, at, cover, lit);
        }
    }

    #[inline]
    fn light(&self, facet: &Seen, at: [f32; 2], cover: f32, lit: &mut Lit) {
        let shape = &self.shapes[facet.shape as usize];
        let mesh = &shape.figure.mesh;
        let stuff = &shape.figure.stuffs[usize::from(facet.stuff)];
        let three = mesh.facets[facet.facet as usize].corners.map(|corner| &mesh.corners[corner as usize]);
        // Shares of the corners, in perspective.
        let [a, b, c] = facet.triangle.corners;
        let (bx, by, cx, cy) = (b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]);
        let (px, py) = (at[0] - a[0], at[1] - a[1]);
        let one = 1.0 / (bx * cy - by * cx);
        let (v, w) = ((px * cy - py * cx) * one, (bx * py - by * px) * one);
        let shares = [(1.0 - v - w) * a[2], v * b[2], w * c[2]];
        let whole = 1.0 / (shares[0] + shares[1] + shares[2]);
        let mix = |of: [V3; 3]| -> V3 {
            std::array::from_fn(|k| (of[0][k] * shares[0] + of[1][k] * shares[1] + of[2][k] * shares[2]) * whole)
        };
        let place = mix(three.map(|corner| corner.at));
        let to_lens = unit(sub(self.eye, place));
        let mut normal = unit(mix(three.map(|corner| corner.normal)));
        // What is seen faces the lens, however its corners were counted.
        let flat = cross(sub(three[1].at, three[0].at), sub(three[2].at, three[0].at));
        let same_way = dot(flat, normal) >= 0.0;
        if (dot(flat, to_lens) >= 0.0) != same_way {
            normal = times(normal, -1.0);
        }
        if stuff.narrow > SPARKLES {
            normal = unit(add(normal, sparkle(place)));
        }
        let surface = Surface { at: place, normal, to_lens };
        lit.places.push(Place { cover, shape: facet.shape, stuff: facet.stuff, gets: lit.gets.len() as u32 });
        if self.steady {
            lit.gets.push(stuff.tone * self.dome.on(&surface, stuff));
            for lamp in &shape.lamps {
                lit.gets.extend(lamp.on(&surface, stuff));
            }
        }
        if self.flashed {
            for beam in &shape.beams {
                lit.gets.extend(beam.on(&surface, stuff));
            }
        }
    }
}

/// Stuff that mirrors more narrowly than this is many small mirrors.
const SPARKLES: f32 = 80.0;

/// How a small mirror is turned, by where it is sewn.
fn sparkle(at: V3) -> V3 {
    let cell = at.map(|value| (value * 90.0).floor() as i32);
    let number =
        (cell[0].wrapping_mul(73_856) ^ cell[1].wrapping_mul(19_349) ^ cell[2].wrapping_mul(83_492)) as u32 as usize;
    [hash(number) - 0.5, hash(number ^ 0x5555) - 0.5, hash(number ^ 0xaaaa) - 0.5]
}

/// The shape of what only hides.
const HIDES: u16 = u16::MAX;

/// A triangle of a figure as it is seen.
struct Seen {
    triangle: Triangle,
    shape: u16,
    stuff: u8,
    facet: u32,
}

/// All triangles that can be seen, by where they begin.
struct Facets {
    all: Vec<Seen>,
    /// Their numbers by their first row, with their last.
    order: Vec<(f32, f32, u32)>,
}

impl Facets {
    /// Adds a figure's; without a shape they only hide. What lies beside the grid is left out.
    fn add(
        &mut self,
        figure: &Figure,
        seen: &[Option<[f32; 3]>],
        shape: Option<u16>,
        (cell, edges): (&impl Fn([f32; 3]) -> [f32; 3], [f32; 2]),
    ) {
        let corners: Vec<Option<[f32; 3]>> = seen.iter().map(|seen| seen.map(cell)).collect();
        for (facet, one) in figure.mesh.facets.iter().enumerate() {
            let [Some(a), Some(b), Some(c)] = one.corners.map(|corner| corners[corner as usize]) else { continue };
            let (top, bottom) = (a[1].min(b[1]).min(c[1]), a[1].max(b[1]).max(c[1]));
            let (left, right) = (a[0].min(b[0]).min(c[0]), a[0].max(b[0]).max(c[0]));
            if bottom <= 0.0 || right <= 0.0 || top >= edges[1] || left >= edges[0] {
                continue;
            }
            self.order.push((top, bottom, self.all.len() as u32));
            let triangle = Triangle { corners: [a, b, c] };
            self.all.push(Seen { triangle, shape: shape.unwrap_or(HIDES), stuff: one.stuff, facet: facet as u32 });
        }
    }

    /// Those that touch some rows of cells.
    fn crossing(&self, [top, bottom]: [f32; 2]) -> impl Iterator<Item = (u32, &Seen)> {
        let touches = move |(from, to, _): &&(f32, f32, u32)| *from < bottom && *to > top;
        self.order.iter().filter(touches).map(|(_, _, number)| (*number, &self.all[*number as usize]))
    }
}
