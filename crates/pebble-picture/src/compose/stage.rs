//! Everything that figures are set up from: the lights that draw alike, the cast, and the hands that work on it.

use super::movement::Motion;
use super::window::Window;
use crate::body::{Body, Direction, Outline, Tint};
use crate::exposure::{Exposure, RowExposure, instant};
use crate::scenes::{Figure, Scene};
use crate::smear::{FlashOn, Raster, Sprites};
use crate::tone::{coloured, linear};
use pebble_core::physics::exposure::Level;
use pebble_core::plan::Part;
use pebble_core::quantity::Stops;
use pebble_core::shot::Role;
use pebble_core::{Outlook, Plan};
use std::borrow::Cow;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};

/// Height of a card that stands for a part with no body of its own in the scene.
const CARD_HALF_HEIGHT: f32 = 0.15;

/// More hands than this only wait for memory.
const MOST_HANDS: usize = 4;

/// Threads that work on one frame.
pub(super) fn hands() -> usize {
    std::thread::available_parallelism().map_or(1, |count| count.get().min(MOST_HANDS))
}

/// Flashes that draw alike: same pulse at the same moment, or all of them too short and too close to be told apart.
pub(super) struct Group {
    pub(super) lights: Vec<usize>,
    pub(super) exposure: Exposure,
    pub(super) rows: Vec<RowExposure>,
}

impl Group {
    pub(super) fn all(plan: &Plan, outlook: &Outlook, window: &Window, scene: &Scene) -> Vec<Self> {
        // What moves fastest in the picture, in its pixels.
        let fastest =
            outlook.parts.iter().map(|part| part.motion.speed.as_metres_per_second().abs()).fold(0.0, f64::max);
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
pub(super) struct Stage<'a> {
    pub(super) plan: &'a Plan,
    pub(super) outlook: &'a Outlook,
    pub(super) scene: &'a Scene,
    pub(super) window: &'a Window,
    pub(super) groups: &'a [Group],
    /// The rows in steady light.
    pub(super) rows: &'a [RowExposure],
    /// Greatest dwell of each figure, where it was found out before.
    pub(super) peaks: Option<&'a [Option<f32>]>,
    /// Whether anybody still waits for the picture.
    pub(super) wanted: &'a AtomicBool,
    /// Samples of all figures so far.
    pub(super) rastered: AtomicUsize,
    /// As many as may be.
    pub(super) most: usize,
}

impl Stage<'_> {
    /// Does something with all figures, back to front, where they show. A part that the scene has no body for, or that
    /// shares one, is a card of its own size.
    pub(super) fn on_stage<T: Send>(
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

    pub(super) fn motion(&self, figure: &Figure, part: Option<usize>) -> Motion {
        let moving = part.map(|index| (&self.plan.parts[index], &self.outlook.parts[index]));
        Motion::of(self.plan, self.outlook, figure, moving)
    }

    /// Rasters a figure by the flashes given and by steady light.
    pub(super) fn rastered(
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
        let room = motion.room(self.rows, self.groups.iter().map(|group| &group.exposure));
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
    pub(super) fn peak(&self, _: usize, figure: &Figure, part: Option<usize>) -> Option<f32> {
        let motion = self.motion(figure, part);
        motion.dwell?;
        let sprites = self.rastered(figure, part, &motion, (&[], 0))?;
        Some(sprites.ambient.peak_dwell(motion.steady(self.rows).abs()))
    }

    /// The flashes on a figure, each with its own level, colour and direction.
    pub(super) fn flashes(&self, figure: &Figure, part: Option<usize>) -> Vec<FlashOn> {
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
                let level = linear(Level::of_surface(reflectance, seen.in_a_whole_row() + offset)) * gain;
                let (bearing, height) = of.comes_from(plan.settings.lights[light].distance);
                let from = Direction::of(bearing.as_radians(), height.as_radians());
                let shapes = matches!(of.role, Role::Key | Role::Fill);
                beams.push(FlashOn {
                    group,
                    colour: coloured(outlook.flash_tint(plan, light), level),
                    from: part.filter(|_| shapes).map_or(from, |part| from.on_lit_side(outlook.parts[part].facing)),
                });
            }
        }
        beams
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
