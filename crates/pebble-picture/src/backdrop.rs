//! What is behind the subject: painted a row at a time, streaked by a camera that moves, lit by each group of flashes.

use crate::compose::window::Window;
use crate::scenes::{Paint, Row, Scene};
use crate::smear::Pixel;
use crate::tone::{coloured, linear};
use pebble_core::exposure::Level;
use pebble_core::{Outlook, Plan};

/// A row of a streak is made of at most this many paintings; what moves straight across needs only one.
const MOST_PAINTINGS: f32 = 12.0;

/// The backdrop's lights and movement.
pub(crate) struct Backdrop<'a> {
    scene: &'a Scene,
    ambient: [f32; 3],
    /// By each group of flashes.
    flashes: Vec<[f32; 3]>,
    farther: f32,
    /// How far it moves against the aim while the shutter is open: right and up, in metres at the subject's distance.
    streak: [f32; 2],
    /// How much the picture grows meanwhile.
    zoom: f32,
}

impl<'a> Backdrop<'a> {
    /// `groups` are the flashes that draw together.
    pub fn of(plan: &Plan, outlook: &Outlook, scene: &'a Scene, groups: &[&[usize]]) -> Self {
        let surface = |placement| linear(Level::of_surface(plan.background_reflectance, placement));
        let distance = plan.subject_distance.as_metres();
        // What stands behind the subject is as much smaller as it is farther away.
        let farther = (distance + plan.background_behind.as_metres()) / distance;
        let flash = |lights: &&[usize]| {
            lights.iter().fold([0.0; 3], |sum: [f32; 3], light| {
                let level = surface(outlook.lights[*light].background_in_a_whole_row());
                let one = coloured(outlook.flash_tint(plan, *light), level);
                std::array::from_fn(|channel| sum[channel] + one[channel])
            })
        };
        let travel = -outlook.camera.background_travel.as_metres() / outlook.magnification;
        let angle = plan.movement.direction.as_radians();
        Self {
            scene,
            ambient: coloured(outlook.background_tint(plan), surface(outlook.background.placement)),
            flashes: groups.iter().map(flash).collect(),
            farther: (farther as f32).min(scene.farthest),
            streak: [(travel * angle.cos()) as f32, (travel * angle.sin()) as f32],
            zoom: plan.movement.zoom as f32,
        }
    }

    /// Paints rows of a window, one after the other.
    pub fn painter<'b>(&'b self, window: &'b Window) -> Painter<'b> {
        let across = (self.streak[0].abs() * window.pixels_per_metre).round() as usize;
        // A streak longer than four frames is as even as it gets.
        let across = across.min(4 * window.width);
        Painter {
            backdrop: self,
            window,
            across,
            sharp: vec![Paint::default(); window.width],
            wide: vec![Paint::default(); if self.moves() { window.width + across } else { 0 }],
        }
    }

    fn moves(&self) -> bool {
        self.streak != [0.0; 2] || self.zoom != 0.0
    }
}

/// Room for the rows of one hand.
pub(crate) struct Painter<'a> {
    backdrop: &'a Backdrop<'a>,
    window: &'a Window,
    /// Pixels of the streak across.
    across: usize,
    /// The row as it stands in the middle of the exposure, for the flashes.
    sharp: Vec<Paint>,
    /// The same with what moves into it.
    wide: Vec<Paint>,
}

impl Painter<'_> {
    /// Paints a row in steady light, with its streaks.
    pub fn paint(&mut self, row: usize, out: &mut [Pixel]) {
        let backdrop = self.backdrop;
        let pixel = 1.0 / self.window.pixels_per_metre;
        let seen = Row { y: self.window.y(row), left: self.window.x(0), farther: backdrop.farther, pixel };
        (backdrop.scene.backdrop)(&seen, &mut self.sharp);
        if backdrop.moves() {
            self.streak(&seen, out);
        } else {
            for (paint, out) in self.sharp.iter().zip(out) {
                *out = lit(backdrop.ambient, paint.ambient);
            }
        }
    }

    /// Lights the row that was painted by a group of flashes, of which it gets a share.
    pub fn light(&self, group: usize, share: f32, out: &mut [Pixel]) {
        let flash = self.backdrop.flashes[group].map(|channel| channel * share);
        for (paint, out) in self.sharp.iter().zip(out) {
            *out = lit(flash, paint.flash);
        }
    }

    /// Several paintings at even steps of what moves up, down or outwards; what moves across is a running sum in each.
    fn streak(&mut self, seen: &Row, out: &mut [Pixel]) {
        let backdrop = self.backdrop;
        let half = 0.5 * self.across as f32 * seen.pixel;
        let up_pixels = backdrop.streak[1].abs() / seen.pixel;
        let out_pixels = backdrop.zoom.abs() * 0.5 * self.window.width as f32;
        let paintings = up_pixels.max(out_pixels).ceil().clamp(1.0, MOST_PAINTINGS);
        out.fill([0.0; 4]);
        let share = 1.0 / (paintings * (self.across + 1) as f32);
        for k in 0..paintings as usize {
            let at = (k as f32 + 0.5) / paintings - 0.5;
            let scale = 1.0 + backdrop.zoom * at;
            let row = Row {
                y: (seen.y - backdrop.streak[1] * at) / scale,
                left: (seen.left - half) / scale,
                farther: seen.farther,
                pixel: seen.pixel / scale,
            };
            (backdrop.scene.backdrop)(&row, &mut self.wide);
            let mut sum = [0.0f32; 3];
            let add = |sum: &mut [f32; 3], paint: &Paint, sign: f32| {
                for (sum, light) in sum.iter_mut().zip(paint.ambient) {
                    *sum += sign * light;
                }
            };
            for paint in &self.wide[..self.across] {
                add(&mut sum, paint, 1.0);
            }
            for (column, out) in out.iter_mut().enumerate() {
                add(&mut sum, &self.wide[column + self.across], 1.0);
                let seen = lit(backdrop.ambient, sum.map(|channel| channel * share));
                *out = std::array::from_fn(|lane| out[lane] + seen[lane]);
                add(&mut sum, &self.wide[column], -1.0);
            }
        }
    }
}

fn lit(light: [f32; 3], paint: [f32; 3]) -> Pixel {
    [0.0, light[0] * paint[0], light[1] * paint[1], light[2] * paint[2]]
}
