//! Backdrop, figures and tone: one frame.

use crate::body::{Body, Outline, Point, Tint};
use crate::exposure::{Exposure, RowExposure, SLICES};
use crate::scenes::{self, Figure, Paint, Scene};
use crate::smear::{Pixel, Raster, Sprite, Sprites};
use crate::tone::{curve, encoded};
use crate::{Layers, Picture, Request};
use pebble_core::exposure::{Level, MID_GREY};
use pebble_core::outlook::PartOutlook;
use pebble_core::plan::Part;
use pebble_core::quantity::Stops;
use pebble_core::{Outlook, Plan};

/// Widest picture that is drawn, in pixels; a request for more gets this.
const WIDEST: u32 = 2400;
/// Height of a card that stands for a part with no body of its own in the scene.
const CARD_HALF_HEIGHT: f32 = 0.15;

/// One pixel of the two layers, linear, red to blue.
#[derive(Clone, Copy, Default)]
struct Light {
    ambient: [f32; 3],
    flash: [f32; 3],
}

/// The window on the scene.
struct Window {
    width: usize,
    height: usize,
    left: f32,
    top: f32,
    pixels_per_metre: f32,
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

    fn x(&self, column: usize) -> f32 {
        self.left + (column as f32 + 0.5) / self.pixels_per_metre
    }

    fn y(&self, row: usize) -> f32 {
        self.top - (row as f32 + 0.5) / self.pixels_per_metre
    }

    fn bounds(&self) -> [f32; 4] {
        let (width, height) = (self.width as f32 / self.pixels_per_metre, self.height as f32 / self.pixels_per_metre);
        [self.left, self.top - height, self.left + width, self.top]
    }
}

/// Draws one frame, row by row: every figure is rastered once, then each row is painted, exposed and developed while it
/// is in the cache.
pub fn render(plan: &Plan, outlook: &Outlook, request: &Request) -> Picture {
    let scene = scenes::of(plan.scene);
    let window = Window::of(plan, outlook, request);
    let exposure = Exposure::new(plan, outlook);
    let rows: Vec<RowExposure> = (0..window.height)
        .map(|row| exposure.row(window.rows_from_top.0 + (row as f64 + 0.5) * window.rows_from_top.1))
        .collect();
    let stage = Stage { plan, outlook, scene, window: &window, exposure: &exposure, rows: &rows };
    let backdrop = Backdrop::of(&stage);
    let actors = stage.actors();

    let curve = curve();
    let mut paints = vec![Paint::default(); window.width];
    let mut light = vec![Light::default(); window.width];
    let mut rgba = vec![0; window.width * window.height * 4];
    for (row, out) in rgba.chunks_exact_mut(window.width * 4).enumerate() {
        backdrop.expose(&window, row, &rows[row], &mut paints, &mut light);
        for actor in &actors {
            actor.expose_ambient(&window, row, &rows[row], &mut light);
            actor.expose_flash(&window, row, &rows[row], &mut light);
        }
        develop(curve, &light, request.layers, out);
    }
    Picture { width: window.width as u32, height: window.height as u32, rgba }
}

fn linear(level: Level) -> f32 {
    (MID_GREY * level.value()) as f32
}

fn colour(tint: Tint, value: f32) -> [f32; 3] {
    tint.0.map(|channel| channel * value)
}

/// The backdrop's two lights.
struct Backdrop<'a> {
    scene: &'a Scene,
    ambient: [f32; 3],
    flash: [f32; 3],
    farther: f32,
}

impl<'a> Backdrop<'a> {
    fn of(stage: &Stage<'a>) -> Self {
        let (plan, outlook, scene) = (stage.plan, stage.outlook, stage.scene);
        let surface = |placement| linear(Level::of_surface(plan.background_reflectance, placement));
        let distance = plan.subject_distance.as_metres();
        // What stands behind the subject is as much smaller as it is farther away.
        let farther = (distance + plan.background_behind.as_metres()) / distance;
        Self {
            scene,
            ambient: colour(scene.ambient_tint, surface(outlook.background.placement)),
            flash: colour(scene.flash_tint, surface(outlook.spill.placement)),
            farther: (farther as f32).min(scene.farthest),
        }
    }

    fn expose(&self, window: &Window, row: usize, record: &RowExposure, paints: &mut [Paint], light: &mut [Light]) {
        let pixel = 1.0 / window.pixels_per_metre;
        let seen = scenes::Row { y: window.y(row), left: window.x(0), farther: self.farther, pixel };
        (self.scene.backdrop)(&seen, paints);
        let flash = self.flash.map(|channel| channel * record.flash);
        for (paint, light) in paints.iter().zip(light) {
            light.ambient = std::array::from_fn(|c| self.ambient[c] * paint.ambient[c]);
            light.flash = std::array::from_fn(|c| flash[c] * paint.flash[c]);
        }
    }
}

/// Everything that figures are set up from.
struct Stage<'a> {
    plan: &'a Plan,
    outlook: &'a Outlook,
    scene: &'a Scene,
    window: &'a Window,
    exposure: &'a Exposure,
    rows: &'a [RowExposure],
}

impl Stage<'_> {
    /// All figures, back to front. A part that the scene has no body for, or that shares one, is a card of its own size.
    fn actors(&self) -> Vec<Actor> {
        let parts = &self.plan.parts;
        let mut taken = vec![false; parts.len()];
        let mut actors = Vec::with_capacity(self.scene.figures.len() + parts.len());
        for figure in &self.scene.figures {
            let part = parts.iter().position(|part| Some(part.drawn_as) == figure.part);
            if let Some(index) = part {
                taken[index] = true;
            }
            actors.extend(self.actor(figure, part));
        }
        for (place, index) in (0..parts.len()).filter(|index| !taken[*index]).enumerate() {
            actors.extend(self.actor(&card(&parts[index], place), Some(index)));
        }
        actors
    }

    fn actor(&self, figure: &Figure, part: Option<usize>) -> Option<Actor> {
        let (outlook, scene) = (self.outlook, self.scene);
        let moving = part.map(|index| (&self.plan.parts[index], &outlook.parts[index]));
        let still = |placement: Stops| linear(Level::of_surface(f64::from(figure.reflectance), placement));
        let (ambient, flash) = match moving {
            Some((_, seen)) => (linear(seen.tones.part_ambient), linear(seen.tones.part_flash)),
            None => (still(outlook.ambient.placement), still(outlook.flash.placement) * figure.flash_gain),
        };
        let motion = Motion::of(outlook, figure, moving);
        let bounds = self.window.bounds();
        let room = motion.room(self.rows, self.exposure);
        let raster = Raster {
            bodies: &figure.bodies,
            direction: motion.direction,
            pixels_per_metre: self.window.pixels_per_metre,
            flash: colour(scene.flash_tint, flash),
            ambient: colour(if figure.own_light { Tint::NEUTRAL } else { scene.ambient_tint }, ambient),
            swing: figure.swing,
            window: [bounds[0] - room, bounds[1] - room, bounds[2] + room, bounds[3] + room],
        };
        let sprites = raster.sprites()?;
        Some(Actor::new(self, motion, sprites))
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
    fn of(outlook: &Outlook, figure: &Figure, moving: Option<(&Part, &PartOutlook)>) -> Self {
        let Some((part, seen)) = moving else {
            return Self { direction: [1.0, 0.0], speed: 0.0, longest: f32::INFINITY, dwell: None };
        };
        let angle = part.direction.as_radians();
        // Exactly along an axis where the degrees say so: then no sample falls between two pixels.
        let clean = |value: f64| if value.abs() < 1e-9 { 0.0 } else { value as f32 };
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

    /// From where to where it moves over all rows.
    fn span(&self, rows: &[RowExposure]) -> (f32, f32) {
        let ends = rows.first().into_iter().chain(rows.last()).map(|row| self.path(row));
        ends.fold((f32::INFINITY, f32::NEG_INFINITY), |(low, high), (a, b)| (low.min(a).min(b), high.max(a).max(b)))
    }

    /// Farthest offset from its place under any light.
    fn room(&self, rows: &[RowExposure], exposure: &Exposure) -> f32 {
        let (low, high) = self.span(rows);
        let pulse = exposure.slice_bounds_s.iter().map(|t| (t * self.speed).abs()).fold(0.0, f32::max);
        low.abs().max(high.abs()).max(pulse)
    }
}

/// The pixels that a sprite may touch.
struct Touched {
    columns: std::ops::Range<usize>,
    rows: std::ops::Range<usize>,
    /// Positions along each line of the sprite between which anything shows.
    visible: Vec<(f32, f32)>,
}

impl Touched {
    fn of(window: &Window, sprite: &Sprite, (low, high): (f32, f32)) -> Self {
        let reach = sprite.reach(low, high);
        let clip = |value: f32, most: usize| value.clamp(0.0, most as f32) as usize;
        let column = |x: f32| (x - window.left) * window.pixels_per_metre;
        let row = |y: f32| (window.top - y) * window.pixels_per_metre;
        Self {
            columns: clip(column(reach[0]).floor() - 1.0, window.width)
                ..clip(column(reach[2]).ceil() + 2.0, window.width),
            rows: clip(row(reach[3]).floor() - 1.0, window.height)..clip(row(reach[1]).ceil() + 2.0, window.height),
            visible: sprite.visible(low, high),
        }
    }

    #[inline]
    fn shows(&self, (along, across): (f32, f32)) -> bool {
        // Half a line before the first its neighbour already shows; the cast takes that to line 0.
        self.visible.get(across.max(0.0) as usize).is_some_and(|(from, to)| along > *from && along < *to)
    }
}

/// A figure on the stage, rastered, with all that a row needs.
struct Actor {
    motion: Motion,
    sprites: Sprites,
    ambient_pixels: Touched,
    flash_pixels: Touched,
    /// Holds the drawn body to the part's own dwell: it may be wider or narrower along the movement than the part is said
    /// to be.
    dwell_scale: f32,
    glow: bool,
    /// Offsets between which each slice of the pulse draws; `None` while all of it falls within half a pixel.
    slices: Option<[f32; SLICES + 1]>,
}

impl Actor {
    fn new(stage: &Stage, motion: Motion, sprites: Sprites) -> Self {
        let span = motion.span(stage.rows);
        let length = stage.rows.first().map_or(0.0, |row| motion.path(row).1 - motion.path(row).0).abs();
        let dwell_scale = motion.dwell.map_or(1.0, |dwell| {
            let drawn = sprites.ambient.peak_dwell(length);
            if drawn > 0.0 { dwell / drawn } else { 0.0 }
        });
        let glow = stage.exposure.glows();
        let offsets = stage.exposure.slice_bounds_s.map(|t| t * motion.speed);
        let pulse = (offsets[0].min(offsets[SLICES]), offsets[0].max(offsets[SLICES]));
        let (low, high) = if glow { span } else { pulse };
        let smeared = (high - low) * stage.window.pixels_per_metre > 0.5;
        Self {
            ambient_pixels: Touched::of(stage.window, &sprites.ambient, span),
            flash_pixels: Touched::of(stage.window, &sprites.flash, (low, high)),
            dwell_scale,
            glow,
            slices: (!glow && smeared).then_some(offsets),
            motion,
            sprites,
        }
    }

    fn expose_ambient(&self, window: &Window, row: usize, record: &RowExposure, light: &mut [Light]) {
        if !self.ambient_pixels.rows.contains(&row) {
            return;
        }
        let (from, to) = self.motion.path(record);
        let y = window.y(row);
        for column in self.ambient_pixels.columns.clone() {
            let place = self.sprites.ambient.locate([window.x(column), y]);
            if !self.ambient_pixels.shows(place) {
                continue;
            }
            let Some(seen) = self.sprites.ambient.mean(place, from, to) else { continue };
            let cover = (seen[0] * self.dwell_scale).min(1.0);
            let gain = cover / seen[0];
            let pixel = &mut light[column].ambient;
            for channel in 0..3 {
                pixel[channel] = pixel[channel] * (1.0 - cover) + seen[channel + 1] * gain;
            }
        }
    }

    fn expose_flash(&self, window: &Window, row: usize, record: &RowExposure, light: &mut [Light]) {
        if !self.flash_pixels.rows.contains(&row) || record.flash <= 0.0 {
            return;
        }
        let y = window.y(row);
        for column in self.flash_pixels.columns.clone() {
            let place = self.sprites.flash.locate([window.x(column), y]);
            if !self.flash_pixels.shows(place) {
                continue;
            }
            let Some(seen) = self.flash_at(place, record) else { continue };
            let keep = 1.0 - (seen[0] / record.flash).min(1.0);
            let pixel = &mut light[column].flash;
            for channel in 0..3 {
                pixel[channel] = pixel[channel] * keep + seen[channel + 1];
            }
        }
    }

    #[inline]
    fn flash_at(&self, place: (f32, f32), record: &RowExposure) -> Option<Pixel> {
        let sprite = &self.sprites.flash;
        let Some(offsets) = &self.slices else {
            let (from, to) = if self.glow { self.motion.path(record) } else { (0.0, 0.0) };
            return sprite.mean(place, from, to).map(|seen| seen.map(|value| value * record.flash));
        };
        // Most places see none of it: one look tells.
        sprite.mean(place, offsets[0], offsets[SLICES])?;
        let mut sum = [0.0; 4];
        for (slice, share) in record.slices.iter().enumerate().filter(|(_, share)| **share > 0.0) {
            if let Some(part) = sprite.mean(place, offsets[slice], offsets[slice + 1]) {
                for channel in 0..4 {
                    sum[channel] += share * part[channel];
                }
            }
        }
        (sum[0] > 0.0).then_some(sum)
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

fn develop(curve: &[u8], light: &[Light], layers: Layers, out: &mut [u8]) {
    let (ambient, flash) = match layers {
        Layers::Both => (1.0, 1.0),
        Layers::Flash => (0.0, 1.0),
        Layers::Ambient => (1.0, 0.0),
    };
    for (pixel, out) in light.iter().zip(out.chunks_exact_mut(4)) {
        for channel in 0..3 {
            out[channel] = encoded(curve, ambient * pixel.ambient[channel] + flash * pixel.flash[channel]);
        }
        out[3] = 255;
    }
}
