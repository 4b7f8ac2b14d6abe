//! Backdrop, figures and tone: one frame.

use crate::backdrop::Backdrop;
use crate::body::{Body, Direction, Outline, Point, Tint};
use crate::exposure::{Exposure, RowExposure, SLICES, instant};
use crate::scenes::{self, Figure, Scene};
use crate::smear::{FlashOn, Pixel, Raster, Smeared, Sprite, Sprites};
use crate::tone::{Curve, curve, encoded};
use crate::{Layers, Picture, Request};
use pebble_core::exposure::{Level, MID_GREY};
use pebble_core::outlook::PartOutlook;
use pebble_core::plan::Part;
use pebble_core::quantity::Stops;
use pebble_core::shot::Role;
use pebble_core::{Outlook, Plan};
use std::borrow::Cow;
use std::ops::Range;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};

/// Pixels of the largest picture that is drawn in one piece.
const LARGEST_WHOLE: usize = 620_000;
/// Pixels of a strip, to begin with.
const STRIP: usize = 300_000;
/// Samples of all figures of one strip, of 16 bytes each, sums and smears together.
const MOST_AT_ONCE: usize = 1_000_000;
/// A strip is not cut finer than this.
const LEAST_ROWS: usize = 32;
/// Width of the picture in which a figure's dwell is found out for all strips.
const COARSE: usize = 640;
/// Widest picture that is drawn, in pixels; a request for more gets this.
const WIDEST: u32 = 2400;
/// More hands than this only wait for memory.
const MOST_HANDS: usize = 4;
/// A row with more of its flash than this is drawn as finely as a whole one.
const HARDLY_CUT: f32 = 0.8;
/// Height of a card that stands for a part with no body of its own in the scene.
const CARD_HALF_HEIGHT: f32 = 0.15;

/// One row of the two layers, linear: an idle lane, then red to blue, as in a [`Pixel`], so that four numbers are handled
/// as one.
pub(crate) struct LightRow {
    pub ambient: Vec<Pixel>,
    /// The group of flashes at work.
    pub flash: Vec<Pixel>,
    /// All groups that are done.
    sum: Vec<Pixel>,
}

/// The window on the scene.
#[derive(Clone, Copy)]
pub(crate) struct Window {
    pub width: usize,
    height: usize,
    left: f32,
    top: f32,
    pub pixels_per_metre: f32,
    rows_from_top: (f64, f64),
}

impl Window {
    fn of(plan: &Plan, outlook: &Outlook, request: &Request) -> Self {
        let (field_width, field_height) = outlook.field(plan);
        let (field_width, field_height) = (field_width.as_metres(), field_height.as_metres());
        let width = request.width.clamp(16, WIDEST);
        let height = (f64::from(width) * field_height / field_width).round().max(1.0);
        let crop = request.crop;
        Self {
            width: width as usize,
            height: height as usize,
            left: ((crop.left - 0.5) * field_width) as f32,
            top: ((0.5 - crop.top) * field_height) as f32,
            pixels_per_metre: (f64::from(width) / (field_width * crop.size)) as f32,
            rows_from_top: (crop.top, crop.size / height),
        }
    }

    pub fn x(&self, column: usize) -> f32 {
        self.left + (column as f32 + 0.5) / self.pixels_per_metre
    }

    pub fn y(&self, row: usize) -> f32 {
        self.top - (row as f32 + 0.5) / self.pixels_per_metre
    }

    fn bounds(&self) -> [f32; 4] {
        let (width, height) = (self.width as f32 / self.pixels_per_metre, self.height as f32 / self.pixels_per_metre);
        [self.left, self.top - height, self.left + width, self.top]
    }
}

impl Window {
    /// Some of its rows.
    fn strip(&self, rows: &Range<usize>) -> Self {
        let (top, step) = self.rows_from_top;
        Self {
            height: rows.len(),
            top: self.top - rows.start as f32 / self.pixels_per_metre,
            rows_from_top: (top + rows.start as f64 * step, step),
            ..*self
        }
    }

    /// The same scene in a smaller picture.
    fn coarse(&self) -> Self {
        let scale = (COARSE as f32 / self.width as f32).min(1.0);
        let height = (self.height as f32 * scale).round().max(1.0) as usize;
        let (top, step) = self.rows_from_top;
        Self {
            width: (self.width as f32 * scale).round() as usize,
            height,
            pixels_per_metre: self.pixels_per_metre * scale,
            rows_from_top: (top, step * self.height as f64 / height as f64),
            ..*self
        }
    }

    fn rows(&self, exposure: &Exposure) -> Vec<RowExposure> {
        let (top, step) = self.rows_from_top;
        (0..self.height).map(|row| exposure.row(top + (row as f64 + 0.5) * step)).collect()
    }

    fn corners(&self) -> [Point; 4] {
        let [left, bottom, right, top] = self.bounds();
        [[left, bottom], [right, bottom], [left, top], [right, top]]
    }
}

/// Draws one frame, row by row: every figure is rastered once, then each row is painted, exposed and developed while it
/// is in the cache.
pub fn render(plan: &Plan, outlook: &Outlook, request: &Request) -> Picture {
    let picture = render_while(plan, outlook, request, &AtomicBool::new(true));
    picture.expect("a drawing that nobody puts down is finished")
}

/// The same, as long as it is wanted; `None` when it was put down.
///
/// A large picture is drawn in strips, so that what is rastered for it fits into [`MOST_AT_ONCE`].
pub fn render_while(plan: &Plan, outlook: &Outlook, request: &Request, wanted: &AtomicBool) -> Option<Picture> {
    let scene = scenes::of(plan.scene);
    let window = Window::of(plan, outlook, request);
    let (mut rgba, row_bytes) = (vec![0; window.width * window.height * 4], window.width * 4);
    let whole = window.width * window.height <= LARGEST_WHOLE;
    // A figure's dwell is a figure of all of it, which no strip sees.
    let peaks = if whole { None } else { Some(Strip::of(plan, outlook, scene, window.coarse(), None, wanted).peaks()) };
    let mut done = 0;
    let mut height = if whole { window.height } else { (STRIP / window.width).max(LEAST_ROWS) };
    while done < window.height {
        if !wanted.load(Ordering::Relaxed) {
            return None;
        }
        let rows = done..(done + height).min(window.height);
        let strip = Strip::of(plan, outlook, scene, window.strip(&rows), peaks.as_deref(), wanted);
        let most = if whole || rows.len() <= LEAST_ROWS { usize::MAX } else { MOST_AT_ONCE };
        if strip.expose(request.layers, most, &mut rgba[rows.start * row_bytes..rows.end * row_bytes]) {
            done = rows.end;
        } else {
            height = (rows.len() / 2).max(LEAST_ROWS);
        }
    }
    let whole = wanted.load(Ordering::Relaxed);
    whole.then_some(Picture { width: window.width as u32, height: window.height as u32, rgba })
}

/// Some rows of a picture, drawn at once.
struct Strip<'a> {
    plan: &'a Plan,
    outlook: &'a Outlook,
    scene: &'a Scene,
    window: Window,
    groups: Vec<Group>,
    steady: Vec<RowExposure>,
    /// Greatest dwell of each figure, where it was found out before.
    peaks: Option<&'a [Option<f32>]>,
    wanted: &'a AtomicBool,
}

impl<'a> Strip<'a> {
    fn of(
        plan: &'a Plan,
        outlook: &'a Outlook,
        scene: &'a Scene,
        window: Window,
        peaks: Option<&'a [Option<f32>]>,
        wanted: &'a AtomicBool,
    ) -> Self {
        let groups = Group::all(plan, outlook, &window, scene);
        let steady = window.rows(&Exposure::new(plan, outlook, None, instant(outlook)));
        Self { plan, outlook, scene, window, groups, steady, peaks, wanted }
    }

    fn stage(&self, most: usize) -> Stage<'_> {
        Stage {
            plan: self.plan,
            outlook: self.outlook,
            scene: self.scene,
            window: &self.window,
            groups: &self.groups,
            rows: &self.steady,
            peaks: self.peaks,
            wanted: self.wanted,
            rastered: AtomicUsize::new(0),
            most,
        }
    }

    /// Greatest dwell of each figure of the cast.
    fn peaks(&self) -> Vec<Option<f32>> {
        self.stage(usize::MAX).on_stage(Stage::peak)
    }

    /// Draws its rows; `false` when their figures take more than `most` samples.
    fn expose(&self, layers: Layers, most: usize, rgba: &mut [u8]) -> bool {
        let (window, stage) = (&self.window, self.stage(most));
        let actors: Vec<Actor> = stage.on_stage(Stage::actor).into_iter().flatten().collect();
        if stage.rastered.load(Ordering::Relaxed) > most {
            return false;
        }
        let members: Vec<&[usize]> = self.groups.iter().map(|group| group.lights.as_slice()).collect();
        let backdrop = Backdrop::of(self.plan, self.outlook, self.scene, &members);
        // Bands of rows are independent of each other; each hand takes one.
        let hands = hands();
        let band = window.height.div_ceil(hands);
        std::thread::scope(|scope| {
            for (index, out) in rgba.chunks_mut(band * window.width * 4).enumerate() {
                let (stage, backdrop, actors) = (&stage, &backdrop, &actors);
                let mut work = move || expose_band(stage, backdrop, actors, index * band, layers, out);
                if index + 1 == hands {
                    work();
                } else {
                    scope.spawn(work);
                }
            }
        });
        true
    }
}

/// Threads that work on one frame.
fn hands() -> usize {
    std::thread::available_parallelism().map_or(1, |count| count.get().min(MOST_HANDS))
}

/// Paints, exposes and develops the rows of one band.
fn expose_band(stage: &Stage, backdrop: &Backdrop, actors: &[Actor], first: usize, layers: Layers, out: &mut [u8]) {
    let (window, curve) = (stage.window, curve());
    let mut painter = backdrop.painter(window);
    let blank = || vec![[0.0; 4]; window.width];
    let mut light = LightRow { ambient: blank(), flash: blank(), sum: blank() };
    for (row, out) in (first..).zip(out.chunks_exact_mut(window.width * 4)) {
        if !stage.wanted.load(Ordering::Relaxed) {
            return;
        }
        let record = &stage.rows[row];
        painter.paint(row, &mut light.ambient);
        for actor in actors {
            actor.expose_ambient(window, row, record, &mut light);
        }
        light.sum.fill([0.0; 4]);
        for (index, group) in stage.groups.iter().enumerate() {
            let record = &group.rows[row];
            painter.light(index, record.flash, &mut light.flash);
            for actor in actors {
                actor.expose_flash(index, window, row, record, &mut light.flash);
            }
            for (sum, flash) in light.sum.iter_mut().zip(&light.flash) {
                *sum = std::array::from_fn(|lane| sum[lane] + flash[lane]);
            }
        }
        develop(curve, &light, layers, out);
    }
}

pub(crate) fn linear(level: Level) -> f32 {
    (MID_GREY * level.value()) as f32
}

/// A tint of luminance 1 at a level.
pub(crate) fn coloured(tint: [f64; 3], value: f32) -> [f32; 3] {
    tint.map(|channel| channel as f32 * value)
}

/// Flashes that draw alike: same pulse at the same moment, or all of them too short and too close to be told apart.
struct Group {
    lights: Vec<usize>,
    exposure: Exposure,
    rows: Vec<RowExposure>,
}

impl Group {
    fn all(plan: &Plan, outlook: &Outlook, window: &Window, scene: &Scene) -> Vec<Self> {
        // What moves fastest in the picture, in its pixels.
        let fastest =
            outlook.parts.iter().map(|part| part.image_speed.as_metres_per_second().abs()).fold(0.0, f64::max);
        let reverse = if scene.figures.iter().any(|figure| figure.swing.is_some()) { 2.0 } else { 1.0 };
        let speed = (fastest / outlook.magnification) as f32 * window.pixels_per_metre * reverse;
        let instant = instant(outlook);
        let mut groups: Vec<(Self, bool)> = Vec::new();
        for (light, _) in outlook.firing() {
            let exposure = Exposure::new(plan, outlook, Some(light), instant);
            let rows = window.rows(&exposure);
            let at_once = exposure.is_instant(&rows, speed);
            let like =
                groups.iter_mut().find(|(group, other)| (at_once && *other) || group.exposure.same_as(&exposure));
            match like {
                Some((group, _)) => group.lights.push(light),
                None => groups.push((Self { lights: vec![light], exposure, rows }, at_once)),
            }
        }
        groups.into_iter().map(|(group, _)| group).collect()
    }
}

/// Everything that figures are set up from.
struct Stage<'a> {
    plan: &'a Plan,
    outlook: &'a Outlook,
    scene: &'a Scene,
    window: &'a Window,
    groups: &'a [Group],
    /// The rows in steady light.
    rows: &'a [RowExposure],
    /// Greatest dwell of each figure, where it was found out before.
    peaks: Option<&'a [Option<f32>]>,
    /// Whether anybody still waits for the picture.
    wanted: &'a AtomicBool,
    /// Samples of all figures so far.
    rastered: AtomicUsize,
    /// As many as may be.
    most: usize,
}

impl Stage<'_> {
    /// Does something with all figures, back to front, where they show. A part that the scene has no body for, or that
    /// shares one, is a card of its own size.
    fn on_stage<T: Send>(
        &self,
        each: impl Fn(&Self, usize, &Figure, Option<usize>) -> Option<T> + Sync,
    ) -> Vec<Option<T>> {
        let parts = &self.plan.parts;
        let mut taken = vec![false; parts.len()];
        let mut cast: Vec<(Cow<Figure>, Option<usize>)> = Vec::with_capacity(self.scene.figures.len() + parts.len());
        for figure in &self.scene.figures {
            let part = parts.iter().position(|part| Some(part.drawn_as) == figure.part);
            if let Some(index) = part {
                taken[index] = true;
            }
            cast.push((Cow::Borrowed(figure), part));
        }
        for (place, index) in (0..parts.len()).filter(|index| !taken[*index]).enumerate() {
            cast.push((Cow::Owned(card(&parts[index], place)), Some(index)));
        }
        // Each figure is set up by itself; their order on the stage stays.
        let next = AtomicUsize::new(0);
        let work = || {
            let mut done = Vec::new();
            loop {
                let index = next.fetch_add(1, Ordering::Relaxed);
                let Some((figure, part)) = cast.get(index) else { return done };
                let goes_on = self.wanted.load(Ordering::Relaxed) && self.rastered.load(Ordering::Relaxed) <= self.most;
                done.push((index, if goes_on { each(self, index, figure, *part) } else { None }));
            }
        };
        let mut done: Vec<(usize, Option<T>)> = std::thread::scope(|scope| {
            let others: Vec<_> = (1..hands()).map(|_| scope.spawn(work)).collect();
            let mut done = work();
            for other in others {
                // A slip in one hand is a slip of the whole picture.
                done.extend(other.join().unwrap_or_else(|slip| std::panic::resume_unwind(slip)));
            }
            done
        });
        done.sort_by_key(|(index, _)| *index);
        done.into_iter().map(|(_, one)| one).collect()
    }

    fn motion(&self, figure: &Figure, part: Option<usize>) -> Motion {
        let moving = part.map(|index| (&self.plan.parts[index], &self.outlook.parts[index]));
        Motion::of(self.plan, self.outlook, figure, moving)
    }

    /// Rasters a figure by the flashes given and by steady light.
    fn rastered(
        &self,
        figure: &Figure,
        part: Option<usize>,
        motion: &Motion,
        (flashes, groups): (&[FlashOn], usize),
    ) -> Option<Sprites> {
        let (plan, outlook) = (self.plan, self.outlook);
        let still = |placement: Stops| linear(Level::of_surface(f64::from(figure.reflectance), placement));
        let ambient = match part {
            Some(index) => linear(outlook.parts[index].tones.part_ambient),
            None => still(outlook.ambient.placement),
        };
        let [left, bottom, right, top] = self.window.bounds();
        let room = motion.room(self.rows, self.groups);
        let (aside, above) = (room * motion.direction[0].abs(), room * motion.direction[1].abs());
        let raster = Raster {
            bodies: &figure.bodies,
            direction: motion.direction,
            pixels_per_metre: self.window.pixels_per_metre,
            flashes,
            groups,
            ambient: coloured(if figure.own_light { [1.0; 3] } else { outlook.ambient_tint(plan, part) }, ambient),
            swing: figure.swing,
            window: [left - aside, bottom - above, right + aside, top + above],
            anchor: [self.window.x(0), self.window.y(0)],
            wanted: self.wanted,
        };
        raster.sprites()
    }

    /// Greatest dwell of a figure's smear in steady light.
    fn peak(&self, _: usize, figure: &Figure, part: Option<usize>) -> Option<f32> {
        let motion = self.motion(figure, part);
        motion.dwell?;
        let sprites = self.rastered(figure, part, &motion, (&[], 0))?;
        Some(sprites.ambient.peak_dwell(motion.steady(self.rows).abs()))
    }

    fn actor(&self, index: usize, figure: &Figure, part: Option<usize>) -> Option<Actor> {
        let motion = self.motion(figure, part);
        let flashes = self.flashes(figure, part);
        let sprites = self.rastered(figure, part, &motion, (&flashes, self.groups.len()))?;
        let peak = match (motion.dwell, self.peaks) {
            (None, _) => None,
            (Some(_), Some(peaks)) => peaks.get(index).copied().flatten(),
            (Some(_), None) => Some(sprites.ambient.peak_dwell(motion.steady(self.rows).abs())),
        };
        self.rastered.fetch_add(sprites.samples(), Ordering::Relaxed);
        let actor = Actor::new(self, motion, sprites, peak);
        self.rastered.fetch_add(actor.smeared_samples(), Ordering::Relaxed);
        Some(actor)
    }

    /// The flashes on a figure, each with its own level, colour and direction.
    fn flashes(&self, figure: &Figure, part: Option<usize>) -> Vec<FlashOn> {
        let (plan, outlook) = (self.plan, self.outlook);
        let (reflectance, offset) = part.map_or((f64::from(figure.reflectance), Stops::ZERO), |part| {
            (plan.parts[part].reflectance, plan.parts[part].flash_offset)
        });
        let gain = if part.is_some() { 1.0 } else { figure.flash_gain };
        let mut beams = Vec::with_capacity(plan.lights.len());
        for (group, members) in self.groups.iter().enumerate() {
            for light in members.lights.iter().copied() {
                let (of, seen) = (&plan.lights[light], &outlook.lights[light]);
                // What stands about in the scene is lit by what counts on the subject.
                if part.map_or(of.role == Role::Backdrop, |part| !of.reaches(part)) {
                    continue;
                }
                let level = linear(Level::of_surface(reflectance, seen.seen() + offset)) * gain;
                let (bearing, height) = of.comes_from(plan.settings.lights[light].distance);
                beams.push(FlashOn {
                    group,
                    colour: coloured(outlook.flash_tint(plan, light), level),
                    from: Direction::of(bearing.as_radians(), height.as_radians()),
                });
            }
        }
        beams
    }
}

/// How a figure moves across the scene.
struct Motion {
    direction: Point,
    /// Metres a second at the subject's distance, along `direction`.
    speed: f32,
    /// Longest smear, for round paths.
    longest: f32,
    /// Share of the exposure that the path's middle is covered, by the forecast.
    dwell: Option<f32>,
}

impl Motion {
    fn of(plan: &Plan, outlook: &Outlook, figure: &Figure, moving: Option<(&Part, &PartOutlook)>) -> Self {
        // Exactly along an axis where the degrees say so: then no sample falls between two pixels.
        let clean = |value: f64| if value.abs() < 1e-9 { 0.0 } else { value as f32 };
        let Some((part, seen)) = moving else {
            // What stands still in the world goes against the aim of a camera that follows something.
            let angle = plan.movement.direction.as_radians();
            let speed = -(outlook.camera.pan + outlook.camera.shake).as_metres_per_second() / outlook.magnification;
            let direction = [clean(angle.cos()), clean(angle.sin())];
            return Self { direction, speed: speed as f32, longest: f32::INFINITY, dwell: None };
        };
        let angle = part.direction.as_radians();
        let speed = seen.image_speed.as_metres_per_second() / outlook.magnification;
        Self {
            direction: [clean(angle.cos()), clean(angle.sin())],
            speed: if figure.reverse { -speed as f32 } else { speed as f32 },
            longest: part.path.map_or(f32::INFINITY, |path| path.as_metres() as f32),
            dwell: seen.draws.then_some(seen.ghost.dwell as f32),
        }
    }

    /// From where to where the figure moves while a row is open.
    #[inline]
    fn path(&self, row: &RowExposure) -> (f32, f32) {
        let (from, to) = (self.speed * row.open_s, self.speed * row.close_s);
        if (to - from).abs() <= self.longest { (from, to) } else { (from, from + self.longest.copysign(to - from)) }
    }

    /// How far it moves while the first row is open.
    fn steady(&self, rows: &[RowExposure]) -> f32 {
        rows.first().map_or(0.0, |row| {
            let (from, to) = self.path(row);
            to - from
        })
    }

    /// From where to where it moves over all rows.
    fn span(&self, rows: &[RowExposure]) -> (f32, f32) {
        let ends = rows.first().into_iter().chain(rows.last()).map(|row| self.path(row));
        ends.fold((f32::INFINITY, f32::NEG_INFINITY), |(low, high), (a, b)| (low.min(a).min(b), high.max(a).max(b)))
    }

    /// Farthest offset from its place under any light.
    fn room(&self, rows: &[RowExposure], groups: &[Group]) -> f32 {
        let (low, high) = self.span(rows);
        let bounds = groups.iter().flat_map(|group| group.exposure.slice_bounds_s);
        let pulse = bounds.map(|t| (t * self.speed).abs()).fold(0.0, f32::max);
        low.abs().max(high.abs()).max(pulse)
    }
}

/// A smeared sprite and the pixels that it may touch.
struct Layer {
    smeared: Smeared,
    columns: Range<usize>,
    rows: Range<usize>,
    /// Positions along each line between which anything shows.
    visible: Vec<(f32, f32)>,
    /// For a movement straight up or down: which columns of each row show anything.
    upright: Option<Upright>,
}

/// The columns that show, row after row. A turning rope fills a large box with very little.
struct Upright {
    /// Where each row's columns begin, and one more.
    starts: Vec<usize>,
    columns: Vec<u16>,
}

impl Upright {
    /// `None` for any other movement, or when columns do not fall on lines.
    fn of(window: &Window, sprite: &Sprite, columns: &Range<usize>, visible: &[(f32, f32)]) -> Option<Self> {
        let (stride, step) = sprite.stride(window.pixels_per_metre);
        let first = sprite.locate([window.x(0), window.y(0)]);
        if stride != 0.0 || step.abs() != 1.0 || (first.1 - first.1.round()).abs() > 1e-2 {
            return None;
        }
        let down = sprite.locate([window.x(0), window.y(1)]).0 - first.0;
        let rows_of = |column: usize| -> Range<usize> {
            let line = first.1.round() as i64 + step as i64 * column as i64;
            let Some((from, to)) = usize::try_from(line).ok().and_then(|line| visible.get(line)) else { return 0..0 };
            let (a, b) = ((from - first.0) / down, (to - first.0) / down);
            let clip = |value: f32| value.clamp(0.0, window.height as f32) as usize;
            if from < to { clip(a.min(b).floor())..clip(a.max(b).ceil() + 1.0) } else { 0..0 }
        };
        let mut starts = vec![0; window.height + 1];
        for row in columns.clone().flat_map(rows_of) {
            starts[row + 1] += 1;
        }
        for row in 0..window.height {
            starts[row + 1] += starts[row];
        }
        let mut next = starts.clone();
        let mut listed = vec![0; starts[window.height]];
        for column in columns.clone() {
            for row in rows_of(column) {
                listed[next[row]] = column as u16;
                next[row] += 1;
            }
        }
        Some(Self { starts, columns: listed })
    }

    fn row(&self, row: usize) -> &[u16] {
        &self.columns[self.starts[row]..self.starts[row + 1]]
    }
}

impl Layer {
    /// `offsets` are one row's smear, `shifts` the least and greatest offset of it over all rows.
    fn of(
        window: &Window,
        sprite: &Sprite,
        path: (&[f32], &[f32]),
        shifts: (f32, f32),
        held: Option<impl Fn(Pixel) -> Pixel>,
    ) -> Self {
        let offsets = path.0;
        let low = offsets.iter().copied().fold(f32::INFINITY, f32::min) + shifts.0;
        let high = offsets.iter().copied().fold(f32::NEG_INFINITY, f32::max) + shifts.1;
        let reach = sprite.reach(low, high);
        let clip = |value: f32, most: usize| value.clamp(0.0, most as f32) as usize;
        let column = |x: f32| (x - window.left) * window.pixels_per_metre;
        let row = |y: f32| (window.top - y) * window.pixels_per_metre;
        let corners = window.corners().map(|corner| sprite.locate(corner).0);
        let seen = (
            corners.iter().copied().fold(f32::INFINITY, f32::min),
            corners.iter().copied().fold(f32::NEG_INFINITY, f32::max),
        );
        let smeared = sprite.smeared(path, seen, shifts, held);
        let columns =
            clip(column(reach[0]).floor() - 1.0, window.width)..clip(column(reach[2]).ceil() + 2.0, window.width);
        let visible = smeared.visible(shifts);
        Self {
            upright: Upright::of(window, sprite, &columns, &visible),
            columns,
            rows: clip(row(reach[3]).floor() - 1.0, window.height)..clip(row(reach[1]).ceil() + 2.0, window.height),
            visible,
            smeared,
        }
    }

    /// Calls back with what shows at each column of a row.
    #[inline]
    fn visit(&self, places: &Places, shift: f32, mut each: impl FnMut(usize, Pixel)) {
        let level = places.stride == (1.0, 0.0);
        if level && self.smeared.along_row(places.first, shift, self.columns.clone(), &mut each) {
            return;
        }
        if let Some(upright) = &self.upright {
            for column in upright.row(places.row) {
                each(usize::from(*column), self.smeared.at(places.at(usize::from(*column)), shift));
            }
            return;
        }
        for column in self.columns.clone() {
            let place = places.at(column);
            if self.shows(place) {
                each(column, self.smeared.at(place, shift));
            }
        }
    }

    /// The same for a row that gets a pulse of its own.
    fn visit_cut(&self, places: &Places, sprite: &Sprite, cut: &Smear, mut each: impl FnMut(usize, Pixel)) {
        for column in self.columns.clone() {
            let place = places.at(column);
            if self.shows(place)
                && let Some(seen) = sprite.weighted(place, cut.offsets(), cut.weights())
            {
                each(column, seen);
            }
        }
    }

    #[inline]
    fn shows(&self, (along, across): (f32, f32)) -> bool {
        // Half a line before the first its neighbour already shows; the cast takes that to line 0.
        self.visible.get(across.max(0.0) as i32 as usize).is_some_and(|(from, to)| along > *from && along < *to)
    }
}

/// A figure on the stage, rastered and smeared, with all that a row needs.
struct Actor {
    motion: Motion,
    /// In steady light.
    sprite: Sprite,
    ambient: Layer,
    /// By each group of flashes.
    flashes: Vec<Flashed>,
}

/// A figure as a group of flashes draws it.
struct Flashed {
    sprite: Sprite,
    layer: Layer,
    pulse: Drawing,
}

impl Flashed {
    fn of(stage: &Stage, group: &Group, motion: &Motion, mut sprite: Sprite, steady: (&[f32], (f32, f32))) -> Self {
        let as_it_is = |seen: Pixel| seen;
        let pulse = Drawing::of(stage, group, motion);
        let layer = match &pulse {
            Drawing::Glow => Layer::of(stage.window, &sprite, (steady.0, &[1.0]), steady.1, Some(as_it_is)),
            Drawing::Slices(slices) => {
                let whole = slices.smear(&group.exposure.whole_slices());
                let any_whole = group.rows.iter().any(|row| row.whole);
                Layer::of(
                    stage.window,
                    &sprite,
                    (whole.offsets(), whole.weights()),
                    (0.0, 0.0),
                    any_whole.then_some(as_it_is),
                )
            }
        };
        // Only a row that gets a pulse of its own looks at the sums again.
        if group.rows.iter().all(|row| row.whole) {
            sprite.forget();
        }
        Self { sprite, layer, pulse }
    }
}

impl Actor {
    /// `peak` is the greatest dwell of the body as it is drawn.
    fn new(stage: &Stage, motion: Motion, sprites: Sprites, peak: Option<f32>) -> Self {
        let window = stage.window;
        let length = motion.steady(stage.rows);
        // The drawn body may be wider or narrower along the movement than the part is said to be: it is held to the
        // part's own dwell.
        let scale = motion.dwell.map_or(1.0, |dwell| {
            let drawn = peak.unwrap_or(0.0);
            if drawn > 0.0 { dwell / drawn } else { 0.0 }
        });
        let held = |seen: Pixel| {
            let cover = (seen[0] * scale).min(1.0);
            let gain = if seen[0] > 0.0 { cover / seen[0] } else { 0.0 };
            [cover, seen[1] * gain, seen[2] * gain, seen[3] * gain]
        };
        let starts = stage.rows.iter().map(|row| motion.path(row).0);
        let shifts = starts.fold((f32::INFINITY, f32::NEG_INFINITY), |(low, high), at| (low.min(at), high.max(at)));
        let steady = [0.0, length];
        let Sprites { flash, ambient: mut sprite } = sprites;
        let flashed = stage.groups.iter().zip(flash);
        let flashes =
            flashed.map(|(group, sprite)| Flashed::of(stage, group, &motion, sprite, (&steady, shifts))).collect();
        let ambient = Layer::of(window, &sprite, (&steady, &[1.0]), shifts, Some(held));
        sprite.forget();
        Self { flashes, ambient, motion, sprite }
    }

    fn smeared_samples(&self) -> usize {
        self.ambient.smeared.count() + self.flashes.iter().map(|flashed| flashed.layer.smeared.count()).sum::<usize>()
    }

    fn expose_ambient(&self, window: &Window, row: usize, record: &RowExposure, light: &mut LightRow) {
        let layer = &self.ambient;
        if !layer.rows.contains(&row) {
            return;
        }
        let shift = self.motion.path(record).0;
        let places = Places::along(window, row, &self.sprite);
        layer.visit(&places, shift, |column, seen| {
            let (pixel, keep) = (&mut light.ambient[column], 1.0 - seen[0]);
            *pixel = std::array::from_fn(|lane| pixel[lane] * keep + seen[lane]);
        });
    }

    fn expose_flash(&self, group: usize, window: &Window, row: usize, record: &RowExposure, light: &mut [Pixel]) {
        let flashed = &self.flashes[group];
        let (layer, pulse) = (&flashed.layer, &flashed.pulse);
        if !layer.rows.contains(&row) || record.flash <= 0.0 {
            return;
        }
        let shift = if matches!(pulse, Drawing::Glow) { self.motion.path(record).0 } else { 0.0 };
        // A row at the edge of the sync window gets a pulse of its own.
        let cut = match pulse {
            Drawing::Slices(slices) if !record.whole && record.flash > HARDLY_CUT => Some(slices.smear(&record.slices)),
            Drawing::Slices(slices) if !record.whole => Some(slices.cut(&record.slices)),
            _ => None,
        };
        let lay = |column: usize, seen: Pixel| {
            let keep = 1.0 - (seen[0] / record.flash).min(1.0);
            let pixel = &mut light[column];
            *pixel = std::array::from_fn(|lane| pixel[lane] * keep + seen[lane]);
        };
        let places = Places::along(window, row, &flashed.sprite);
        match cut {
            None => layer.visit(&places, shift, lay),
            Some(cut) => layer.visit_cut(&places, &flashed.sprite, &cut, lay),
        }
    }
}

/// How the flash draws a figure.
enum Drawing {
    /// It glows while the slit passes: the figure moves as in steady light.
    Glow,
    /// Its pulse in slices along the movement.
    Slices(Slices),
}

/// The pulse along a movement.
struct Slices {
    /// How many of them are drawn as one.
    merged: usize,
    /// Offsets between which each slice draws; all zero while the whole smear falls within half a pixel.
    offsets: [f32; SLICES + 1],
}

impl Drawing {
    fn of(stage: &Stage, group: &Group, motion: &Motion) -> Self {
        if group.exposure.glows() {
            return Self::Glow;
        }
        let offsets = group.exposure.slice_bounds_s.map(|t| t * motion.speed);
        let smear = (offsets[SLICES] - offsets[0]).abs() * stage.window.pixels_per_metre;
        if smear <= 0.5 {
            // Where it stands: a flash that fires later finds the figure elsewhere.
            let middle = 0.5 * (offsets[SLICES] + offsets[0]);
            let aside = if middle.abs() * stage.window.pixels_per_metre <= 0.5 { 0.0 } else { middle };
            return Self::Slices(Slices { merged: SLICES, offsets: [aside; SLICES + 1] });
        }
        // A slice finer than a pixel is not told from its neighbour.
        let merged = [5, 2].into_iter().find(|merged| smear * *merged as f32 / (SLICES as f32) < 1.2).unwrap_or(1);
        Self::Slices(Slices { merged, offsets })
    }
}

impl Slices {
    /// The light of each slice laid along the movement.
    fn smear(&self, light: &[f32; SLICES]) -> Smear {
        let merged = self.merged;
        Smear {
            stretches: SLICES / merged,
            offsets: std::array::from_fn(|k| self.offsets[(k * merged).min(SLICES)]),
            weights: std::array::from_fn(|k| light.iter().skip(k * merged).take(merged).sum()),
        }
    }
}

impl Slices {
    /// The light of a row that lost some of it: two stretches, split at half of what is left. A row that is cut is wrong
    /// already; how its smear is shaped inside is not worth the time of drawing it finer.
    fn cut(&self, light: &[f32; SLICES]) -> Smear {
        let total: f32 = light.iter().sum();
        let first = light.iter().position(|part| *part > 0.0).unwrap_or(0);
        let last = light.iter().rposition(|part| *part > 0.0).unwrap_or(SLICES - 1);
        let mut before = 0.0;
        let split = (first..last).find(|slice| {
            before += light[*slice];
            before >= 0.5 * total
        });
        let split = split.unwrap_or(last);
        let mut smear = Smear { stretches: 2, offsets: [0.0; SLICES + 1], weights: [0.0; SLICES] };
        smear.offsets[..3].copy_from_slice(&[self.offsets[first], self.offsets[split + 1], self.offsets[last + 1]]);
        smear.weights[..2].copy_from_slice(&[light[..=split].iter().sum(), light[split + 1..].iter().sum()]);
        if split == last {
            smear.stretches = 1;
        }
        smear
    }
}

/// Neighbouring stretches of a path and the light on each.
struct Smear {
    stretches: usize,
    offsets: [f32; SLICES + 1],
    weights: [f32; SLICES],
}

impl Smear {
    fn offsets(&self) -> &[f32] {
        &self.offsets[..=self.stretches]
    }

    fn weights(&self) -> &[f32] {
        &self.weights[..self.stretches]
    }
}

/// A sprite's coordinates along a row of the picture: one step a pixel.
struct Places {
    row: usize,
    first: (f32, f32),
    stride: (f32, f32),
}

impl Places {
    fn along(window: &Window, row: usize, sprite: &Sprite) -> Self {
        Self { row, first: sprite.locate([window.x(0), window.y(row)]), stride: sprite.stride(window.pixels_per_metre) }
    }

    #[inline]
    fn at(&self, column: usize) -> (f32, f32) {
        let steps = column as f32;
        (self.first.0 + steps * self.stride.0, self.first.1 + steps * self.stride.1)
    }
}

/// A flat card of the part's own size; several stand under each other.
fn card(part: &Part, index: usize) -> Figure {
    let half_width = (part.size.as_metres() / 2.0) as f32;
    let centre = [0.0, -(index as f32) * (2.0 * CARD_HALF_HEIGHT + 0.06)];
    // The size is along the movement; for an upright movement the card stands.
    let upright = part.direction.as_radians().sin().abs() > 0.7;
    let half = if upright { [CARD_HALF_HEIGHT, half_width] } else { [half_width, CARD_HALF_HEIGHT] };
    Figure {
        part: Some(part.drawn_as),
        bodies: vec![Body { outline: Outline::Card { centre, half }, tint: Tint::NEUTRAL, tone: 1.0, flat: true }],
        ..Figure::default()
    }
}

fn develop(curve: &Curve, light: &LightRow, layers: Layers, out: &mut [u8]) {
    let (ambient, flash) = match layers {
        Layers::Both => (1.0, 1.0),
        Layers::Flash => (0.0, 1.0),
        Layers::Ambient => (1.0, 0.0),
    };
    for ((steady, burst), out) in light.ambient.iter().zip(&light.sum).zip(out.chunks_exact_mut(4)) {
        let sum: Pixel = std::array::from_fn(|lane| ambient * steady[lane] + flash * burst[lane]);
        let [_, red, green, blue] = encoded(curve, sum);
        out.copy_from_slice(&[red, green, blue, 255]);
    }
}
