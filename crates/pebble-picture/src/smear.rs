//! Figures as sprites with running sums along their movement: a smear of any length costs two look-ups a pixel.

use std::ops::Range;

/// A place on the plane in focus, in metres from the middle of the frame: along the sensor and across it.
pub(crate) type Point = [f32; 2];

/// Left, bottom, right, top of two together.
pub(crate) fn union(a: [f32; 4], b: [f32; 4]) -> [f32; 4] {
    [a[0].min(b[0]), a[1].min(b[1]), a[2].max(b[2]), a[3].max(b[3])]
}

/// Cover and premultiplied colour.
pub(crate) type Pixel = [f32; 4];

/// Figures seen by one light, rastered with its columns along the movement. Lines hold only what is not empty: a rope is
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

impl Sprite {
    /// An empty one, from its first place on, along a direction, at some pixels a metre; with room for lines and samples.
    pub fn new(
        (origin, direction, pixels_per_metre): (Point, Point, f32),
        columns: usize,
        (lines, samples): (usize, usize),
    ) -> Self {
        let (lines, sums) = (Vec::with_capacity(lines), Vec::with_capacity(samples));
        Self { origin, direction, pixels_per_metre, columns, lines, sums }
    }

    /// Lets go of the sums, once they are smeared; where it stands stays known.
    pub fn forget(&mut self) {
        self.sums = Vec::new();
    }

    pub(crate) fn push(&mut self, first: usize, speed: f32, samples: impl ExactSizeIterator<Item = Pixel>) {
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
    use crate::cast::Figure;
    use crate::cast::{Stuff, Tint};
    use crate::light::{Beam, Dome};
    use crate::lit::{Colours, Raster, Shape};
    use crate::mesh::Mesh;
    use std::sync::atomic::AtomicBool;

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
        Beam { towards: [0.0, -1.0, 0.0], size: 0.02, edge: None, on_flat: 1.0, bounce: 0.0, shade: None }
    }

    fn rastered(figure: &Figure, direction: Point, swing: Option<[f32; 2]>) -> Sprites {
        let seen = seen(figure);
        let shape = Shape { figure, seen: &seen, beams: vec![even()], lamps: Vec::new() };
        let raster = Raster {
            shapes: &[shape],
            before: &[],
            dome: Dome { towards: [0.0, -1.0, 0.0], size: 1.0, around: 1.0, shade: None },
            eye: [0.0, -100.0, 0.0],
            direction,
            pixels_per_metre: SCALE,
            steady: true,
            flashed: true,
            window: [-10.0, -10.0, 10.0, 10.0],
            anchor: [0.005, 0.005],
            wanted: &AtomicBool::new(true),
        };
        let colours = Colours { steady: [0.5; 3], lamps: Vec::new(), flashes: vec![(0, [1.0; 3])] };
        let lit = raster.lit().expect("somebody waits").expect("it is in the window");
        lit.sprites(&[&figure.stuffs], &[colours], (true, 1), swing)
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
