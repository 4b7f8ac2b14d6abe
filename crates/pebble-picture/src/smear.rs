//! Figures as sprites with running sums along their movement: a smear of any length costs two look-ups a pixel.

use crate::body::{Body, Point, union};

/// Cover and premultiplied colour.
pub(crate) type Pixel = [f32; 4];

/// A figure seen by one light, rastered with its columns along the movement.
pub(crate) struct Sprite {
    /// Place of the first sample in the scene.
    origin: Point,
    /// Unit vector of the movement.
    direction: Point,
    pixels_per_metre: f32,
    columns: usize,
    lines: usize,
    /// Running sums along each line: `columns + 1` entries, the first zero.
    sums: Vec<Pixel>,
    /// Speed of each line against the part's, for figures that turn about an axis.
    line_speed: Vec<f32>,
    /// First and last column of each line that hold anything; most lines of a rope hold little.
    extents: Vec<(f32, f32)>,
}

/// Both lights of one figure on the same raster.
pub(crate) struct Sprites {
    pub flash: Sprite,
    pub ambient: Sprite,
}

/// How to raster a figure.
pub(crate) struct Raster<'a> {
    pub bodies: &'a [Body],
    /// Unit vector of the movement.
    pub direction: Point,
    pub pixels_per_metre: f32,
    /// Level of the flash and of the steady light at tone 1, in linear light.
    pub flash: [f32; 3],
    pub ambient: [f32; 3],
    /// For figures that turn: ends of the axis across the movement, where nothing moves.
    pub swing: Option<[f32; 2]>,
    /// What of the scene can be seen, with room for the movement, so that a loupe does not raster what it cannot show.
    pub window: [f32; 4],
}

impl Raster<'_> {
    /// Rasters the bodies in order, later ones in front. `None` when nothing of them is in the window.
    pub fn sprites(&self) -> Option<Sprites> {
        let scale = self.pixels_per_metre;
        let [dx, dy] = self.direction;
        let bounds = self.bodies.iter().map(Body::bounds).reduce(union)?;
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
        let snap = |value: f32| ((value * scale).floor() - 1.0) / scale;
        let (s0, r0) = (snap(low(0)), snap(low(1)));
        let columns = ((high(0) - s0) * scale).ceil() as usize + 2;
        let lines = ((high(1) - r0) * scale).ceil() as usize + 2;
        let place = |s: f32, r: f32| [s * dx - r * dy, s * dy + r * dx];

        let mut flash = vec![[0.0; 4]; columns * lines];
        let mut ambient = vec![[0.0; 4]; columns * lines];
        for body in self.bodies {
            let [left, bottom, right, top] = body.bounds();
            let corners = [[left, bottom], [right, bottom], [left, top], [right, top]].map(turned);
            let span = |axis: usize, start: f32, count: usize| {
                let low = corners.iter().map(|c| c[axis]).fold(f32::INFINITY, f32::min);
                let high = corners.iter().map(|c| c[axis]).fold(f32::NEG_INFINITY, f32::max);
                let from = ((low - start) * scale - 1.0).floor().max(0.0) as usize;
                let to = ((high - start) * scale + 2.0).ceil().max(0.0) as usize;
                from.min(count)..to.min(count)
            };
            let tint = body.tint.0;
            for line in span(1, r0, lines) {
                let r = r0 + line as f32 / scale;
                for column in span(0, s0, columns) {
                    let sample = body.at(place(s0 + column as f32 / scale, r), scale);
                    if sample.cover <= 0.0 {
                        continue;
                    }
                    let index = line * columns + column;
                    let paint = |pixel: &mut Pixel, light: [f32; 3], shade: f32| {
                        let keep = 1.0 - sample.cover;
                        let level = sample.cover * body.tone * shade;
                        pixel[0] = pixel[0] * keep + sample.cover;
                        for channel in 0..3 {
                            pixel[channel + 1] = pixel[channel + 1] * keep + level * tint[channel] * light[channel];
                        }
                    };
                    paint(&mut flash[index], self.flash, sample.flash_shade);
                    paint(&mut ambient[index], self.ambient, sample.ambient_shade);
                }
            }
        }
        let line_speed = (0..lines)
            .map(|line| {
                let r = r0 + line as f32 / scale;
                self.swing.map_or(1.0, |[from, to]| {
                    let along = ((r - from) / (to - from)).clamp(0.0, 1.0);
                    (std::f32::consts::PI * along).sin()
                })
            })
            .collect::<Vec<_>>();
        let finish = |pixels: Vec<Pixel>| Sprite {
            origin: [s0, r0],
            direction: self.direction,
            pixels_per_metre: scale,
            columns,
            lines,
            sums: summed(&pixels, columns),
            extents: pixels.chunks_exact(columns).map(extent).collect(),
            line_speed: line_speed.clone(),
        };
        Some(Sprites { flash: finish(flash), ambient: finish(ambient) })
    }
}

fn extent(line: &[Pixel]) -> (f32, f32) {
    let held = |pixel: &Pixel| pixel[0] > 0.0;
    let first = line.iter().position(held).map_or(f32::INFINITY, |column| column as f32);
    let last = line.iter().rposition(held).map_or(f32::NEG_INFINITY, |column| column as f32 + 1.0);
    (first, last)
}

fn summed(pixels: &[Pixel], columns: usize) -> Vec<Pixel> {
    let mut sums = Vec::with_capacity(pixels.len() / columns * (columns + 1));
    for line in pixels.chunks_exact(columns) {
        let mut total = [0.0; 4];
        sums.push(total);
        for pixel in line {
            for channel in 0..4 {
                total[channel] += pixel[channel];
            }
            sums.push(total);
        }
    }
    sums
}

impl Sprite {
    /// Coordinates along and across the movement, in samples from the first.
    #[inline]
    pub fn locate(&self, [x, y]: Point) -> (f32, f32) {
        let [dx, dy] = self.direction;
        let along = (x * dx + y * dy - self.origin[0]) * self.pixels_per_metre;
        let across = (y * dx - x * dy - self.origin[1]) * self.pixels_per_metre;
        (along, across)
    }

    /// Where the sprite may be seen while it moves from one offset to another, in metres: left, bottom, right, top.
    pub fn reach(&self, from: f32, to: f32) -> [f32; 4] {
        let [dx, dy] = self.direction;
        let width = self.columns as f32 / self.pixels_per_metre;
        let height = self.lines as f32 / self.pixels_per_metre;
        let (s0, s1) = (self.origin[0] + from.min(to), self.origin[0] + width + from.max(to));
        let (r0, r1) = (self.origin[1], self.origin[1] + height);
        [[s0, r0], [s1, r0], [s0, r1], [s1, r1]]
            .map(|[s, r]| [s * dx - r * dy, s * dy + r * dx])
            .map(|[x, y]| [x, y, x, y])
            .into_iter()
            .reduce(union)
            .unwrap_or_default()
    }

    /// For each line, between which positions anything of it or of its neighbour shows while it moves between two offsets:
    /// most places of a box around a rope are empty, and this tells at once.
    pub fn visible(&self, low: f32, high: f32) -> Vec<(f32, f32)> {
        let of = |line: usize| {
            let speed = self.line_speed[line] * self.pixels_per_metre;
            let (first, last) = self.extents[line];
            (first + low.min(0.0) * speed - 1.5, last + high.max(0.0) * speed + 1.5)
        };
        let line = |line: usize| {
            let (a, b) = (of(line), of((line + 1).min(self.lines - 1)));
            (a.0.min(b.0), a.1.max(b.1))
        };
        (0..self.lines).map(line).collect()
    }

    /// Greatest dwell of a smear of a length in metres, so that a drawn body of another size than the part can be held
    /// to the part's own dwell.
    pub fn peak_dwell(&self, length: f32) -> f32 {
        let window = (length * self.pixels_per_metre).max(1.0);
        let whole = window.round() as usize;
        let mut peak = 0.0_f32;
        for line in self.sums.chunks_exact(self.columns + 1) {
            let total = line[self.columns][0];
            if total <= peak * window {
                continue;
            }
            for start in 0..=self.columns {
                let end = (start + whole).min(self.columns);
                peak = peak.max((line[end][0] - line[start][0]) / window);
            }
        }
        peak.min(1.0)
    }

    /// Mean over all positions from one offset to another (metres along the movement), at a place given by
    /// [`Sprite::locate`]; `None` where it never is.
    #[inline]
    pub fn mean(&self, (along, across): (f32, f32), from: f32, to: f32) -> Option<Pixel> {
        let line = across.floor();
        let between = across - line;
        let line = line as isize;
        let mut mixed = [0.0; 4];
        for (line, weight) in [(line, 1.0 - between), (line + 1, between)] {
            if weight <= 1e-4 || line < 0 || line as usize >= self.lines {
                continue;
            }
            let line = line as usize;
            let speed = self.line_speed[line] * self.pixels_per_metre;
            let (near, far) = (from * speed, to * speed);
            let (low, high) = (near.min(far), near.max(far));
            // A smear shorter than a pixel is a pixel: the sums are of whole samples.
            let (low, high) =
                if high - low < 1.0 { (0.5 * (low + high) - 0.5, 0.5 * (low + high) + 0.5) } else { (low, high) };
            // A sample covers half a pixel to each side of its centre.
            let (from, to) = (along - high + 0.5, along - low + 0.5);
            let (first, last) = self.extents[line];
            if to <= first || from >= last {
                continue;
            }
            let (start, end) = (self.running(line, from), self.running(line, to));
            let share = weight / (high - low);
            for channel in 0..4 {
                mixed[channel] += share * (end[channel] - start[channel]);
            }
        }
        (mixed[0] > 0.0).then_some(mixed)
    }

    #[inline]
    fn running(&self, line: usize, position: f32) -> Pixel {
        let start = line * (self.columns + 1);
        let position = position.clamp(0.0, self.columns as f32);
        let whole = (position as usize).min(self.columns - 1);
        let part = position - whole as f32;
        let (a, b) = (self.sums[start + whole], self.sums[start + whole + 1]);
        std::array::from_fn(|channel| a[channel] + part * (b[channel] - a[channel]))
    }
}
