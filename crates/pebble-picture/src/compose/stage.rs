//! Everything that figures are set up from: who moves with whom, and the hands that work on it.

use super::groups::Group;
use super::movement::Motion;
use super::scene::Scene;
use super::slices::Drawing;
use super::window::Window;
use crate::cast::Stuff;
use crate::exposure::RowExposure;
use crate::light::Beam;
use crate::lit::{Colours, Hides, Lit, LitKey, Raster, Shape};
use crate::shelf::Shelf;
use crate::smear::Sprites;
use crate::space::v3;
use pebble_core::shot::DrawnAs;
use pebble_core::{Outlook, Plan};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};

/// More hands than this only wait for memory.
const MOST_HANDS: usize = 4;
/// Room beside the frame for what moves into it, in metres.
const ROOM: f32 = 0.25;
/// What moves by less than this, in pixels, stands.
const STANDS: f32 = 0.5;

/// Threads that work on one frame.
pub(super) fn hands() -> usize {
    std::thread::available_parallelism().map_or(1, |count| count.get().min(MOST_HANDS))
}

/// Figures that are drawn as one, so that the nearer hides the farther place by place: all that stand still, and all that
/// move together. A set lies over those that are farther away, but for the places where they are nearer.
pub(super) struct Set {
    pub(super) figures: Vec<usize>,
    /// Figures of sets that are drawn before it: where they are nearer, it is hidden.
    before: Vec<usize>,
    /// Whether it is drawn in steady light, and by the flashes.
    pub(super) steady: bool,
    pub(super) flashed: bool,
    pub(super) motion: Motion,
    depth: f32,
}

impl Set {
    /// All figures as sets, back to front.
    pub(super) fn all(
        plan: &Plan,
        outlook: &Outlook,
        scene: &Scene,
        (window, groups, rows): (&Window, &[Group], &[RowExposure]),
    ) -> Vec<Self> {
        let motions: Vec<Motion> = (0..scene.figures.len())
            .map(|index| {
                let moving = scene.parts[index].map(|part| (&plan.parts[part], &outlook.parts[part]));
                let seen_as = (scene.view.upright, window.pixels_per_metre);
                Motion::of(plan, outlook, &scene.figures[index], moving, seen_as)
            })
            .collect();
        let steady: Vec<bool> = motions
            .iter()
            .map(|motion| {
                let (low, high) = motion.span(rows);
                low.abs().max(high.abs()) * window.pixels_per_metre <= STANDS
            })
            .collect();
        let flashed: Vec<bool> = motions
            .iter()
            .zip(&steady)
            .map(|(motion, steady)| {
                groups.iter().all(|group| match Drawing::of(&group.exposure, motion, window.pixels_per_metre) {
                    Drawing::Glow => *steady,
                    Drawing::Slices(slices) => slices.stands(),
                })
            })
            .collect();
        let all: Vec<usize> = (0..scene.figures.len()).collect();
        let set = |figures: Vec<usize>, steady: bool, flashed: bool, motion: Motion| {
            let far = |index: &usize| scene.depth(*index) - nearer(scene.figures[*index].part);
            let depth = figures.iter().map(far).sum::<f32>() / figures.len() as f32;
            Self { figures, before: Vec::new(), steady, flashed, motion, depth }
        };
        let still = |stands: &[bool]| -> Vec<usize> { all.iter().copied().filter(|index| stands[*index]).collect() };
        let mut sets = Vec::new();
        let (in_steady, by_flash) = (still(&steady), still(&flashed));
        if in_steady == by_flash {
            if !in_steady.is_empty() {
                sets.push(set(in_steady, true, true, Motion::NONE));
            }
        } else {
            for (figures, steady) in [(in_steady, true), (by_flash, false)] {
                if !figures.is_empty() {
                    sets.push(set(figures, steady, !steady, Motion::NONE));
                }
            }
        }
        // Of those that move, the parts of all people together; ropes that turn against each other each by itself.
        let together = |a: usize, b: usize| {
            let (one, other) = (&scene.figures[a], &scene.figures[b]);
            scene.parts[a] == scene.parts[b] && one.swing.is_none() && other.swing.is_none() && one.card == other.card
        };
        let mut moving: Vec<Vec<usize>> = Vec::new();
        for index in all.into_iter().filter(|index| !steady[*index] || !flashed[*index]) {
            match moving.iter_mut().find(|with| together(with[0], index)) {
                Some(with) => with.push(index),
                None => moving.push(vec![index]),
            }
        }
        for figures in moving {
            let first = figures[0];
            sets.push(set(figures, !steady[first], !flashed[first], motions[first].clone()));
        }
        sets.sort_by(|a, b| b.depth.total_cmp(&a.depth));
        for index in 1..sets.len() {
            let (earlier, rest) = sets.split_at_mut(index);
            let own = &mut rest[0];
            let meets = |other: &&Self| (other.steady && own.steady) || (other.flashed && own.flashed);
            let before: Vec<usize> =
                earlier.iter().filter(meets).flat_map(|other| other.figures.iter().copied()).collect();
            own.before = before.into_iter().filter(|figure| !own.figures.contains(figure)).collect();
        }
        sets
    }
}

/// Parts of one body hang together; which of them lies over the others when they stand equally far, in metres.
fn nearer(part: Option<DrawnAs>) -> f32 {
    match part {
        Some(DrawnAs::Body) => 0.05,
        Some(DrawnAs::Cloth | DrawnAs::Bicycle | DrawnAs::Wheels) => 0.1,
        Some(DrawnAs::Face) => 0.15,
        Some(DrawnAs::Hair | DrawnAs::Scarf | DrawnAs::Medal) => 0.2,
        Some(DrawnAs::Hand | DrawnAs::Held | DrawnAs::Blade | DrawnAs::Ball | DrawnAs::Lantern) => 0.25,
        _ => 0.0,
    }
}

/// Everything that figures are set up from.
pub(super) struct Stage<'a> {
    pub(super) plan: &'a Plan,
    pub(super) outlook: &'a Outlook,
    pub(super) scene: &'a Scene<'a>,
    /// Figures in their lights, of pictures before.
    pub(super) lit: &'a Shelf<LitKey, Option<Lit>>,
    pub(super) sets: &'a [Set],
    pub(super) window: &'a Window,
    pub(super) groups: &'a [Group],
    /// The rows in steady light.
    pub(super) rows: &'a [RowExposure],
    /// Greatest dwell of each set, where it was found out before.
    pub(super) peaks: Option<&'a [Option<f32>]>,
    /// Whether anybody still waits for the picture.
    pub(super) wanted: &'a AtomicBool,
    /// Samples of all figures so far.
    pub(super) rastered: AtomicUsize,
    /// As many as may be.
    pub(super) most: usize,
}

impl Stage<'_> {
    /// Does something with all sets, back to front.
    pub(super) fn on_stage<T: Send>(&self, each: impl Fn(&Self, usize, &Set) -> Option<T> + Sync) -> Vec<Option<T>> {
        // Each is set up by itself; their order on the stage stays.
        let next = AtomicUsize::new(0);
        let work = || {
            let mut done = Vec::new();
            loop {
                let index = next.fetch_add(1, Ordering::Relaxed);
                let Some(set) = self.sets.get(index) else { return done };
                let goes_on = self.wanted.load(Ordering::Relaxed) && self.rastered.load(Ordering::Relaxed) <= self.most;
                done.push((index, if goes_on { each(self, index, set) } else { None }));
            }
        };
        let mut done: Vec<(usize, Option<T>)> = std::thread::scope(|scope| {
            let others: Vec<_> = (1..hands().min(self.sets.len())).map(|_| scope.spawn(work)).collect();
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

    /// Rasters a set by steady light and by the flashes.
    pub(super) fn rastered(&self, set: &Set, steady: bool, flashed: bool) -> Option<Sprites> {
        let (scene, motion) = (self.scene, &set.motion);
        let [left, bottom, right, top] = self.window.bounds();
        let room = motion.room(self.rows, self.groups.iter().map(|group| &group.exposure));
        // In steps, so that a little longer an exposure is the same raster.
        let room = (room / ROOM).ceil() * ROOM;
        let (aside, above) = (room * motion.direction[0].abs(), room * motion.direction[1].abs());
        let seen = [left - aside, bottom - above, right + aside, top + above];
        let anchor = [self.window.x(0), self.window.y(0)];
        let lights: Vec<_> = set
            .figures
            .iter()
            .map(|index| {
                let beams =
                    if flashed { scene.beams(self.plan, self.outlook, self.groups, *index) } else { Vec::new() };
                let lamps = if steady { scene.lamps_on(self.plan, self.outlook, *index) } else { Vec::new() };
                (unzipped(beams), unzipped(lamps))
            })
            .collect();
        let ppm = self.window.pixels_per_metre;
        let [x, y] = motion.direction;
        let all_beams = || lights.iter().flat_map(|((flashes, _), (lamps, _))| [flashes, lamps]);
        let key = LitKey {
            cast: Arc::clone(&scene.cast),
            figures: set.figures.clone(),
            before: set.before.clone(),
            numbers: [seen[0], seen[1], seen[2], seen[3], x, y, ppm, anchor[0], anchor[1]],
            lights: (steady, flashed),
            beams: all_beams().map(|beams| beams.iter().map(Beam::key).collect()).collect(),
            shades: all_beams().flatten().map(|beam| beam.shade.cloned()).collect(),
        };
        let lit = self.lit.get(key, || {
            let shapes: Vec<Shape> = set
                .figures
                .iter()
                .zip(&lights)
                .map(|(index, ((beams, _), (lamps, _)))| Shape {
                    figure: &scene.figures[*index],
                    seen: &scene.seen[*index],
                    beams: beams.clone(),
                    lamps: lamps.clone(),
                })
                .collect();
            let before: Vec<Hides> = set
                .before
                .iter()
                .map(|index| Hides { figure: &scene.figures[*index], seen: &scene.seen[*index] })
                .collect();
            let raster = Raster {
                shapes: &shapes,
                before: &before,
                dome: scene.dome(),
                eye: v3(scene.view.eye),
                direction: motion.direction,
                pixels_per_metre: ppm,
                steady,
                flashed,
                window: seen,
                anchor,
                wanted: self.wanted,
            };
            raster.lit()
        })?;
        let lit = (*lit).as_ref()?;
        let stuffs: Vec<&[Stuff]> = set.figures.iter().map(|index| scene.figures[*index].stuffs.as_slice()).collect();
        let colours: Vec<Colours> = set
            .figures
            .iter()
            .zip(lights)
            .map(|(index, ((_, flashes), (_, lamps)))| {
                let steady = scene.steady(self.plan, self.outlook, *index);
                Colours { steady, lamps, flashes }
            })
            .collect();
        let swing = scene.figures[set.figures[0]].swing.filter(|_| set.figures.len() == 1);
        Some(lit.sprites(&stuffs, &colours, (steady, if flashed { self.groups.len() } else { 0 }), swing))
    }

    /// Greatest dwell of a set's smear in steady light.
    pub(super) fn peak(&self, _: usize, set: &Set) -> Option<f32> {
        set.motion.dwell.filter(|_| set.steady)?;
        let sprites = self.rastered(set, true, false)?;
        Some(sprites.ambient?.peak_dwell(set.motion.steady(self.rows).abs()))
    }
}

/// Beams, and what goes with each of them.
fn unzipped<'a, T>(beams: Vec<(Beam<'a>, T)>) -> (Vec<Beam<'a>>, Vec<T>) {
    beams.into_iter().unzip()
}
