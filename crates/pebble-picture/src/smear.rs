//! Figures as sprites with running sums along their movement: a smear of any length costs two look-ups a pixel.

use crate::cast::{Figure, hash};
use crate::light::{Beam, Dome, Surface};
use crate::raster::{Triangle, fill};
use crate::space::{V3, add, cross, dot, sub, times, unit};
use std::ops::Range;
use std::sync::atomic::{AtomicBool, Ordering};

/// A place on the plane in focus, in metres from the middle of the frame: along the sensor and across it.
pub(crate) type Point = [f32; 2];

/// Left, bottom, right, top of two together.
fn union(a: [f32; 4], b: [f32; 4]) -> [f32; 4] {
    [a[0].min(b[0]), a[1].min(b[1]), a[2].max(b[2]), a[3].max(b[3])]
}

/// Cover and premultiplied colour.
pub(crate) type Pixel = [f32; 4];

/// A figure seen by one light, rastered with its columns along the movement. Lines hold only what is not empty: a rope is
/// a thin thing in a large box.
pub(crate) struct Sprite {
    /// Place of the first sample in the scene.
    origin: Point,
    /// Unit vector of the movement.
    direction: Point,
    pixels_per_metre: f32,
    columns: usize,
    lines: Vec<Line>,
    /// Running sums of each line in turn: two more entries than samples, the first zero, the last twice.
    sums: Vec<Pixel>,
}

/// One line across the movement.
#[derive(Clone, Copy)]
struct Line {
    /// First entry in the sums.
    start: usize,
    /// First sample's column.
    first: f32,
    /// Number of samples.
    count: usize,
    /// Samples a metre of the part's movement moves it: less than others near the axis of a figure that turns.
    speed: f32,
}

/// Samples of one figure at most: 64 megabytes of running sums for both lights.
const MOST_SAMPLES: f32 = 2e6;

/// All lights of some figures on the same raster.
pub(crate) struct Sprites {
    /// One for each group of flashes that draw together.
    pub flash: Vec<Sprite>,
    pub ambient: Option<Sprite>,
}

impl Sprites {
    /// Samples of all of them.
    pub fn samples(&self) -> usize {
        self.ambient.iter().chain(&self.flash).map(|sprite| sprite.sums.len()).sum()
    }
}

/// A figure as the lights find it.
pub(crate) struct Shape<'a> {
    pub figure: &'a Figure,
    /// Its corners as the sensor has them: along, across, one over the distance.
    pub seen: &'a [Option<[f32; 3]>],
    /// The flashes on it.
    pub beams: Vec<Beam<'a>>,
    /// Level of the steady light at tone 1, in linear light.
    pub steady: V3,
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
    /// Groups of flashes.
    pub groups: usize,
    /// For figures that turn: ends of the axis across the movement, where nothing moves.
    pub swing: Option<[f32; 2]>,
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

impl Raster<'_> {
    /// Rasters the figures, the nearest in front. `None` when nothing of them is in the window.
    pub fn sprites(&self) -> Option<Sprites> {
        let [dx, dy] = self.direction;
        let places = self.shapes.iter().flat_map(|shape| shape.seen).flatten();
        let bounds = places.map(|[x, y, _]| [*x, *y, *x, *y]).reduce(union)?;
        let seen = [
            bounds[0].max(self.window[0]),
            bounds[1].max(self.window[1]),
            bounds[2].min(self.window[2]),
            bounds[3].min(self.window[3]),
        ];
        if seen[0] >= seen[2] || seen[1] >= seen[3] {
            return None;
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

        let sprite = || Sprite {
            origin: [s0, r0],
            direction: self.direction,
            pixels_per_metre: scale,
            columns,
            lines: Vec::with_capacity(lines),
            sums: Vec::new(),
        };
        let mut flash: Vec<Sprite> = (0..self.groups).map(|_| sprite()).collect();
        let mut ambient = self.steady.then(sprite);
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

        let lanes = usize::from(self.steady) + self.groups;
        let across = columns * CELLS;
        let chunk = (MOST_CELLS / (across * CELLS)).clamp(1, lines);
        let mut nearest = vec![0.0_f32; across * chunk * CELLS];
        let mut facing = vec![NOTHING; across * chunk * CELLS];
        let mut samples: Vec<Pixel> = Vec::with_capacity(columns * lanes);
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
                samples.clear();
                samples.resize((last - first) * lanes, [0.0; 4]);
                for (column, pixels) in (first..last).zip(samples.chunks_exact_mut(lanes.max(1))) {
                    let top = line * CELLS * across + column * CELLS;
                    let seen = [facing[top], facing[top + 1], facing[top + across], facing[top + across + 1]];
                    if seen != [NOTHING; 4] {
                        let at = [(column * CELLS) as f32, ((start + line) * CELLS) as f32];
                        self.sample(&facets, seen, at, pixels);
                    }
                }
                let r = r0 + (start + line) as f32 / scale;
                let speed = scale * self.swing_at(r);
                let lane = |lane: usize| samples.iter().skip(lane).step_by(lanes.max(1)).copied();
                if let Some(ambient) = &mut ambient {
                    ambient.push(first, speed, lane(0));
                }
                for (group, sprite) in flash.iter_mut().enumerate() {
                    sprite.push(first, speed, lane(usize::from(self.steady) + group));
                }
            }
        }
        Some(Sprites { flash, ambient })
    }

    /// Lights what four cells of a sample see. Cells that see the same stuff of the same figure are lit once.
    #[inline]
    fn sample(&self, facets: &Facets, seen: [u32; 4], corner: [f32; 2], pixels: &mut [Pixel]) {
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
            self.light(facet, at, cover, pixels);
        }
    }

    #[inline]
    fn light(&self, facet: &Seen, at: [f32; 2], cover: f32, pixels: &mut [Pixel]) {
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
        let mut lanes = pixels.iter_mut();
        if self.steady
            && let Some(pixel) = lanes.next()
        {
            let level = cover * stuff.tone * self.dome.on(&surface, stuff);
            pixel[0] += cover;
            for k in 0..3 {
                pixel[1 + k] += level * stuff.tint.0[k] * shape.steady[k];
            }
        }
        if self.groups == 0 {
            return;
        }
        let flashes = lanes.into_slice();
        for pixel in flashes.iter_mut() {
            pixel[0] += cover;
        }
        for beam in &shape.beams {
            let light = beam.on(&surface, stuff);
            let pixel = &mut flashes[beam.group];
            for k in 0..3 {
                pixel[1 + k] += cover * light[k];
            }
        }
    }

    /// Speed of a line against the part's.
    fn swing_at(&self, r: f32) -> f32 {
        self.swing.map_or(1.0, |[from, to]| {
            let along = ((r - from) / (to - from)).clamp(0.0, 1.0);
            (std::f32::consts::PI * along).sin()
        })
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

impl Sprite {
    /// Lets go of the sums, once they are smeared; where it stands stays known.
    pub fn forget(&mut self) {
        self.sums = Vec::new();
    }

    fn push(&mut self, first: usize, speed: f32, samples: impl ExactSizeIterator<Item = Pixel>) {
        self.lines.push(Line { start: self.sums.len(), first: first as f32, count: samples.len(), speed });
        let mut total = [0.0; 4];
        self.sums.push(total);
        self.sums.extend(samples.map(|sample| {
            total = plus(total, sample, 1.0);
            total
        }));
        // One more, so that a look-up at the very end has a next entry to mix with.
        self.sums.push(total);
    }

    /// Coordinates along and across the movement, in samples from the first.
    #[inline]
    pub fn locate(&self, [x, y]: Point) -> (f32, f32) {
        let [dx, dy] = self.direction;
        let along = (x * dx + y * dy - self.origin[0]) * self.pixels_per_metre;
        let across = (y * dx - x * dy - self.origin[1]) * self.pixels_per_metre;
        (along, across)
    }

    /// How far [`Sprite::locate`] moves from a pixel to the one at its right, in a picture of this scale.
    pub fn stride(&self, pixels_per_metre: f32) -> (f32, f32) {
        let step = self.pixels_per_metre / pixels_per_metre;
        (self.direction[0] * step, -self.direction[1] * step)
    }

    /// Where the sprite may be seen while it moves from one offset to another, in metres: left, bottom, right, top.
    pub fn reach(&self, from: f32, to: f32) -> [f32; 4] {
        let [dx, dy] = self.direction;
        let width = self.columns as f32 / self.pixels_per_metre;
        let height = self.lines.len() as f32 / self.pixels_per_metre;
        let (s0, s1) = (self.origin[0] + from.min(to), self.origin[0] + width + from.max(to));
        let (r0, r1) = (self.origin[1], self.origin[1] + height);
        [[s0, r0], [s1, r0], [s0, r1], [s1, r1]]
            .map(|[s, r]| [s * dx - r * dy, s * dy + r * dx])
            .map(|[x, y]| [x, y, x, y])
            .into_iter()
            .reduce(union)
            .unwrap_or_default()
    }

    /// Greatest dwell of a smear of a length in metres, so that a drawn body of another size than the part can be held
    /// to the part's own dwell.
    pub fn peak_dwell(&self, length: f32) -> f32 {
        let window = (length * self.pixels_per_metre).max(1.0);
        let whole = window.round() as usize;
        let mut peak = 0.0_f32;
        for line in &self.lines {
            let sums = &self.sums[line.start..=line.start + line.count];
            if sums[line.count][0] <= peak * window {
                continue;
            }
            for (start, from) in sums.iter().enumerate() {
                let to = sums[(start + whole).min(line.count)];
                peak = peak.max((to[0] - from[0]) / window);
            }
        }
        peak.min(1.0)
    }

    /// Sum of the means over neighbouring stretches of the path, each with its weight: `offsets` bound them.
    #[inline]
    pub fn weighted(&self, (along, across): (f32, f32), offsets: &[f32], weights: &[f32]) -> Option<Pixel> {
        let whole = across.floor();
        let between = across - whole;
        let mut mixed = [0.0; 4];
        for (index, weight) in [(whole as isize, 1.0 - between), (whole as isize + 1, between)] {
            if weight <= 1e-3 {
                continue;
            }
            if let Some(line) = usize::try_from(index).ok().and_then(|index| self.lines.get(index)) {
                self.add_line(line, along, offsets, weights, weight, &mut mixed);
            }
        }
        (mixed[0] > 0.0).then_some(mixed)
    }

    #[inline]
    fn add_line(&self, line: &Line, along: f32, offsets: &[f32], weights: &[f32], share: f32, mixed: &mut Pixel) {
        let last = offsets.len() - 1;
        let (mut near, far) = (offsets[0] * line.speed, offsets[last] * line.speed);
        // A sample covers half a pixel to each side of its centre.
        let here = along - line.first + 0.5;
        let count = line.count as f32;
        if (here - near).max(here - far) <= -0.5 || (here - near).min(here - far) >= count + 0.5 {
            return;
        }
        // A smear shorter than a pixel is a pixel: the sums are of whole samples.
        if (far - near).abs() < 1.0 {
            let middle = here - 0.5 * (near + far);
            let (start, end) = (self.running(line, middle - 0.5), self.running(line, middle + 0.5));
            let weight = share * weights.iter().sum::<f32>();
            *mixed = plus(plus(*mixed, end, weight), start, -weight);
            return;
        }
        let mut start = self.running(line, here - near);
        for (stretch, weight) in weights.iter().enumerate() {
            let next = offsets[stretch + 1] * line.speed;
            let end = self.running(line, here - next);
            let density = share * weight / (next - near);
            *mixed = plus(plus(*mixed, start, density), end, -density);
            (near, start) = (next, end);
        }
    }

    #[inline]
    fn running(&self, line: &Line, position: f32) -> Pixel {
        let position = position.clamp(0.0, line.count as f32);
        let whole = position as i32;
        let part = position - whole as f32;
        let at = line.start + whole as usize;
        let [a, b] = self.sums[at..at + 2] else { return [0.0; 4] };
        std::array::from_fn(|channel| a[channel] + part * (b[channel] - a[channel]))
    }
}

/// A sprite smeared once for all rows: they record the same smear, each at its own offset.
pub(crate) struct Smeared {
    lines: Vec<Line>,
    samples: Vec<Pixel>,
}

impl Sprite {
    /// Smears every line over neighbouring stretches of the path, each with its weight. Rows will ask for positions in
    /// `seen`, shifted by offsets in `shifts`; a streak longer than the picture is not kept beyond it. `held` has the last
    /// word on each sample; without it only the outline of the smear is worked out.
    pub fn smeared(
        &self,
        (offsets, weights): (&[f32], &[f32]),
        seen: (f32, f32),
        shifts: (f32, f32),
        held: Option<impl Fn(Pixel) -> Pixel>,
    ) -> Smeared {
        let low = offsets.iter().copied().fold(f32::INFINITY, f32::min);
        let high = offsets.iter().copied().fold(f32::NEG_INFINITY, f32::max);
        let mut smeared = Smeared { lines: Vec::with_capacity(self.lines.len()), samples: Vec::new() };
        if high - low <= 0.0 && low == 0.0 && shifts == (0.0, 0.0) {
            self.copied(weights.iter().sum(), |seen| held.as_ref().map_or(seen, |held| held(seen)), &mut smeared);
            return smeared;
        }
        for line in &self.lines {
            let asked = (seen.0 - shifts.1 * line.speed - 2.0, seen.1 - shifts.0 * line.speed + 2.0);
            let from = (line.first + low * line.speed - 2.0).max(asked.0).floor();
            let to = (line.first + line.count as f32 + high * line.speed + 2.0).min(asked.1).ceil();
            let count = if line.count == 0 || to <= from { 0 } else { (to - from) as usize };
            smeared.lines.push(Line { start: smeared.samples.len(), first: from, count, speed: line.speed });
            let Some(held) = &held else { continue };
            smeared.samples.extend((0..count).map(|k| {
                let mut mixed = [0.0; 4];
                self.add_line(line, from + k as f32, offsets, weights, 1.0, &mut mixed);
                held(mixed)
            }));
        }
        smeared
    }
}

impl Sprite {
    /// What stands still needs no smear: its samples are the steps of the sums.
    fn copied(&self, weight: f32, held: impl Fn(Pixel) -> Pixel, smeared: &mut Smeared) {
        smeared.samples.reserve(self.sums.len());
        for line in &self.lines {
            // One empty sample on each side, so that an edge between two places finds its neighbour.
            let count = if line.count == 0 { 0 } else { line.count + 2 };
            smeared.lines.push(Line {
                start: smeared.samples.len(),
                first: line.first - 1.0,
                count,
                speed: line.speed,
            });
            if count > 0 {
                smeared.samples.push([0.0; 4]);
                let sums = &self.sums[line.start..=line.start + line.count];
                smeared.samples.extend(
                    sums.windows(2)
                        .map(|pair| held(std::array::from_fn(|lane| weight * (pair[1][lane] - pair[0][lane])))),
                );
                smeared.samples.push([0.0; 4]);
            }
        }
    }
}

impl Smeared {
    /// Samples that are kept.
    pub fn count(&self) -> usize {
        self.samples.len()
    }

    /// For each line, between which positions it or its neighbour shows while it is shifted between two offsets in
    /// metres: most places of a box around a rope are empty, and this tells at once.
    pub fn visible(&self, (low, high): (f32, f32)) -> Vec<(f32, f32)> {
        let of = |line: &Line| {
            if line.count == 0 {
                return (f32::INFINITY, f32::NEG_INFINITY);
            }
            let (a, b) = (low * line.speed, high * line.speed);
            (line.first + a.min(b), line.first + line.count as f32 + a.max(b))
        };
        (0..self.lines.len())
            .map(|index| {
                let (a, b) = (of(&self.lines[index]), of(self.lines.get(index + 1).unwrap_or(&self.lines[index])));
                (a.0.min(b.0), a.1.max(b.1))
            })
            .collect()
    }

    /// Calls back with what shows at each column of a row that runs along a line: the same two neighbours with the same
    /// mixture all the way. `false` when the row lies between lines and must be looked up place by place.
    #[inline]
    pub fn along_row(
        &self,
        (along, across): (f32, f32),
        shift: f32,
        columns: Range<usize>,
        mut each: impl FnMut(usize, Pixel),
    ) -> bool {
        let nearest = across.round();
        if (across - nearest).abs() > 1e-3 {
            return false;
        }
        let Some(line) = self.lines.get(nearest as i32 as usize) else { return nearest >= 0.0 };
        let position = along - shift * line.speed - line.first;
        let whole = position.floor();
        let (part, whole) = (position - whole, whole as i64);
        let from = columns.start.max((-whole).max(0) as usize);
        let to = columns.end.min((line.count as i64 - 1 - whole).max(0) as usize);
        if from < to {
            let first = line.start + (from as i64 + whole) as usize;
            let samples = &self.samples[first..first + (to - from) + 1];
            for (column, pair) in (from..to).zip(samples.windows(2)) {
                each(column, std::array::from_fn(|c| pair[0][c] + part * (pair[1][c] - pair[0][c])));
            }
        }
        true
    }

    /// What shows at a place when the sprite is shifted by an offset in metres.
    #[inline]
    pub fn at(&self, (along, across): (f32, f32), shift: f32) -> Pixel {
        let whole = across.floor();
        let between = across - whole;
        let index = whole as i32;
        // Along an axis every place lies on a line, or a rounding beside it.
        if between < 1e-3 {
            return self.on_line(index, along, shift);
        }
        if between > 0.999 {
            return self.on_line(index + 1, along, shift);
        }
        let (a, b) = (self.on_line(index, along, shift), self.on_line(index + 1, along, shift));
        std::array::from_fn(|channel| a[channel] + between * (b[channel] - a[channel]))
    }

    #[inline]
    fn on_line(&self, index: i32, along: f32, shift: f32) -> Pixel {
        let Some(line) = self.lines.get(index as usize) else { return [0.0; 4] };
        let position = along - shift * line.speed - line.first;
        let whole = position.floor();
        if whole < 0.0 || whole as usize + 1 >= line.count {
            return [0.0; 4];
        }
        let part = position - whole;
        let at = line.start + whole as usize;
        let [a, b] = self.samples[at..at + 2] else { return [0.0; 4] };
        std::array::from_fn(|channel| a[channel] + part * (b[channel] - a[channel]))
    }
}

#[inline]
fn plus(a: Pixel, b: Pixel, times: f32) -> Pixel {
    std::array::from_fn(|channel| a[channel] + times * b[channel])
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::cast::{Stuff, Tint};
    use crate::mesh::Mesh;

    const SCALE: f32 = 100.0;

    /// A figure that is seen from far away, so that a metre of it is a metre of the frame.
    fn seen(figure: &Figure) -> Vec<Option<[f32; 3]>> {
        figure
            .mesh
            .corners
            .iter()
            .map(|corner| Some([corner.at[0], corner.at[2], 1.0 / (100.0 + corner.at[1])]))
            .collect()
    }

    fn even() -> Beam<'static> {
        Beam {
            group: 0,
            colour: [1.0; 3],
            towards: [0.0, -1.0, 0.0],
            size: 0.02,
            edge: None,
            on_flat: 1.0,
            bounce: 0.0,
            shade: None,
        }
    }

    fn rastered(figure: &Figure, direction: Point, swing: Option<[f32; 2]>) -> Sprites {
        let seen = seen(figure);
        let shape = Shape { figure, seen: &seen, beams: vec![even()], steady: [0.5; 3] };
        let raster = Raster {
            shapes: &[shape],
            before: &[],
            dome: Dome { towards: [0.0, -1.0, 0.0], size: 1.0, around: 1.0, shade: None },
            eye: [0.0, -100.0, 0.0],
            direction,
            pixels_per_metre: SCALE,
            steady: true,
            groups: 1,
            swing,
            window: [-10.0, -10.0, 10.0, 10.0],
            anchor: [0.005, 0.005],
            wanted: &AtomicBool::new(true),
        };
        raster.sprites().expect("it is in the window")
    }

    fn sprites(direction: Point, swing: Option<[f32; 2]>) -> Sprites {
        let mut mesh = Mesh::default();
        mesh.tube(&[[0.0, 0.0, 0.0], [0.3, 0.0, 0.1]], |t| 0.05 - 0.02 * t, 16, 0);
        mesh.ball([0.2, 0.0, 0.2], [[0.08, 0.0, 0.0], [0.0, 0.05, 0.0], [0.0, 0.0, 0.05]], 12, 0);
        let figure = Figure { mesh, stuffs: vec![Stuff::matt(0.8, Tint::NEUTRAL)], ..Figure::default() };
        rastered(&figure, direction, swing)
    }

    fn whole(sprite: &Sprite, offsets: &[f32], weights: &[f32]) -> Smeared {
        sprite.smeared((offsets, weights), (-1e4, 1e4), (0.0, 0.0), Some(|seen: Pixel| seen))
    }

    fn total(smeared: &Smeared) -> f32 {
        smeared.samples.iter().map(|sample| sample[0]).sum()
    }

    #[test]
    fn a_smear_moves_light_and_neither_makes_nor_loses_any() {
        for direction in [[1.0, 0.0], [0.0, 1.0], [0.6, 0.8], [-0.8, 0.6]] {
            let sprite = sprites(direction, None).flash.remove(0);
            let still = total(&whole(&sprite, &[0.0, 0.0], &[1.0]));
            for (offsets, weights) in [
                (vec![0.0, 0.5], vec![1.0]),
                (vec![-0.3, 0.1, 0.2], vec![0.7, 0.3]),
                (vec![0.4, 0.0], vec![1.0]),
                (vec![0.0, 0.002], vec![1.0]),
            ] {
                let smeared = total(&whole(&sprite, &offsets, &weights));
                assert!((smeared / still - 1.0).abs() < 2e-3, "{direction:?} over {offsets:?}: {smeared} of {still}");
            }
        }
    }

    #[test]
    fn a_smear_is_the_mean_of_many_shifted_copies() {
        const COPIES: usize = 400;
        let sprite = sprites([0.6, 0.8], None).flash.remove(0);
        let still = whole(&sprite, &[0.0, 0.0], &[1.0]);
        let (from, to) = (-0.1f32, 0.25f32);
        let smeared = whole(&sprite, &[from, to], &[1.0]);
        for place in [[0.1, 0.05], [0.2, 0.2], [0.3, 0.3], [0.05, -0.03], [0.25, 0.12]] {
            let place = sprite.locate(place);
            let step = (to - from) / COPIES as f32;
            let copies =
                (0..COPIES).map(|k| still.at(place, from + (k as f32 + 0.5) * step)[0]).sum::<f32>() / COPIES as f32;
            let got = smeared.at(place, 0.0)[0];
            assert!((got - copies).abs() < 0.01, "{place:?}: {got} smeared, {copies} by copies");
            let direct = sprite.weighted(place, &[from, to], &[1.0]).map_or(0.0, |seen| seen[0]);
            assert!((got - direct).abs() < 0.01, "{place:?}: {got} kept, {direct} looked up");
        }
    }

    #[test]
    fn a_row_along_a_line_sees_what_single_places_see() {
        let sprite = sprites([1.0, 0.0], None).ambient.expect("it is drawn in steady light");
        let smeared = whole(&sprite, &[0.0, 0.2], &[1.0]);
        let first = sprite.locate([-0.295, 0.105]);
        let stride = sprite.stride(SCALE);
        let mut seen = vec![[0.0; 4]; 120];
        assert!(
            smeared.along_row(first, 0.013, 0..120, |column, pixel| seen[column] = pixel),
            "the anchor puts rows on lines"
        );
        for (column, seen) in seen.iter().enumerate() {
            let place = (first.0 + stride.0 * column as f32, first.1);
            let single = smeared.at(place, 0.013);
            assert!((seen[0] - single[0]).abs() < 2e-3, "column {column}: {} and {}", seen[0], single[0]);
        }
    }

    #[test]
    fn a_figure_that_swings_is_still_at_its_axis_and_fastest_between() {
        let sprite = sprites([1.0, 0.0], Some([-0.1, 0.3])).flash.remove(0);
        let speed = |r: f32| sprite.lines[((r - sprite.origin[1]) * SCALE).round() as usize].speed / SCALE;
        assert!(speed(0.1) > 0.99 && speed(-0.03) < 0.6, "{} and {}", speed(0.1), speed(-0.03));
    }

    #[test]
    fn dwell_is_the_width_over_the_path() {
        let mut mesh = Mesh::default();
        mesh.sheet(&[([-0.1, 0.0, -0.05], [0.1, 0.0, -0.05]), ([-0.1, 0.0, 0.05], [0.1, 0.0, 0.05])], 1, |_| 0);
        let figure = Figure { mesh, stuffs: vec![Stuff::matt(1.0, Tint::NEUTRAL).even()], ..Figure::default() };
        let sprite = rastered(&figure, [1.0, 0.0], None).flash.remove(0);
        for (path, dwell) in [(0.1, 1.0), (0.18, 1.0), (0.4, 0.5), (2.0, 0.1), (50.0, 0.004)] {
            assert!((sprite.peak_dwell(path) - dwell).abs() < 0.01, "{path} m: {}", sprite.peak_dwell(path));
        }
    }
}
