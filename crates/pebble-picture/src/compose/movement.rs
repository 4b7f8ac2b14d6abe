//! How a figure moves across the scene while the shutter is open.

use crate::cast::Figure;
use crate::exposure::{Exposure, RowExposure, instant};
use crate::smear::Point;
use pebble_core::file::stage::Grip;
use pebble_core::motion::Timed;
use pebble_core::outlook::PartOutlook;
use pebble_core::physics::phases::Phases;
use pebble_core::plan::Part;
use pebble_core::quantity::{Metres, Seconds};
use pebble_core::stage::framing::held;
use pebble_core::{Outlook, Plan};
use std::sync::Arc;

/// How a figure moves across the frame.
#[derive(Clone)]
pub(super) struct Motion {
    pub(super) direction: Point,
    /// Metres a second at the subject's distance, along `direction`.
    pub(super) speed: f32,
    /// Longest smear, for round paths.
    pub(super) longest: f32,
    /// Share of the exposure that the path's middle is covered, by the forecast.
    pub(super) dwell: Option<f32>,
    /// A movement in time, where it has one.
    pub(super) timed: Option<Arc<InTime>>,
}

/// A movement in time, against where the figure stands in the scene: where the first flash finds it.
pub(super) struct InTime {
    phases: Phases,
    /// The movement's own clock at that instant, and where it is then.
    clock: Seconds,
    place: f64,
    /// Metres in the plane in focus for each metre of way, against the direction for what turns the other way.
    scale: f64,
    /// Stretches of the path between neighbouring offsets, and the share of the exposure spent on each.
    offsets: Vec<f32>,
    shares: Vec<f32>,
}

/// Even stretches that a path is cut into; a pause has one of its own.
const STRETCHES: usize = 20;

impl InTime {
    /// `pixel` is the finest that is told apart, in metres.
    fn of(timed: &Timed, opens_at: Seconds, time: Seconds, instant: Seconds, sign: f64, pixel: f64) -> Self {
        let phases = timed.phases;
        let clock = opens_at + instant;
        let (opens, closes) = (opens_at, opens_at + time);
        let (low, high) = phases.reach(opens, closes);
        let fine = pixel.max(1e-6);
        let count = (((high - low) / fine).ceil() as usize).clamp(1, STRETCHES);
        let even = (0..=count).map(|k| low + (high - low) * k as f64 / count as f64);
        // Where it rests or turns it is longest: a stretch no wider than a pixel, with no edge of another in it.
        let ends = phases.begins().chain([opens, closes]).map(|time| phases.place(time.max(opens).min(closes)));
        let mut rests: Vec<f64> = Vec::new();
        for place in ends {
            if rests.iter().all(|other| (other - place).abs() > fine) {
                rests.push(place);
            }
        }
        let apart = |edge: &f64| rests.iter().all(|place| (place - edge).abs() > 0.6 * fine);
        let mut edges: Vec<f64> = even.filter(apart).collect();
        edges.extend(rests.iter().flat_map(|place| [place - 0.5 * fine, place + 0.5 * fine]));
        edges.sort_by(f64::total_cmp);
        let share = |pair: &[f64]| {
            let (from, to) = (pair[0], pair[1]);
            phases.dwell((opens, closes), Metres::from_metres(to - from), 0.5 * (from + to)) as f32
        };
        let mut shares: Vec<f32> = edges.windows(2).map(share).collect();
        // What lies on two edges counts once.
        let sum: f32 = shares.iter().sum();
        shares.iter_mut().for_each(|share| *share /= sum.max(f32::MIN_POSITIVE));
        let place = phases.place(clock);
        let offsets = edges.iter().map(|edge| ((edge - place) * sign) as f32).collect();
        Self { phases, clock, place, scale: sign, offsets, shares }
    }

    /// Where it is some time after the instant, against where it is then.
    fn offset(&self, after: f32) -> f32 {
        let then = self.phases.place(self.clock + Seconds::from_secs(f64::from(after)));
        ((then - self.place) * self.scale) as f32
    }
}

impl Motion {
    /// What stands.
    pub(super) const NONE: Self =
        Self { direction: [1.0, 0.0], speed: 0.0, longest: f32::INFINITY, dwell: None, timed: None };

    pub(super) fn of(
        plan: &Plan,
        outlook: &Outlook,
        figure: &Figure,
        moving: Option<(&Part, &PartOutlook)>,
        (upright, pixels_per_metre): (Option<Grip>, f32),
    ) -> Self {
        // Exactly along an axis where the degrees say so: then no sample falls between two pixels.
        let clean = |value: f64| if value.abs() < 1e-9 { 0.0 } else { value as f32 };
        let direction = |angle: f64| {
            let (along, across) = held(upright, angle.cos(), angle.sin());
            [clean(along), clean(across)]
        };
        let Some((part, seen)) = moving else {
            // What stands still in the world goes against the aim of a camera that follows something.
            let angle = plan.movement.direction.as_radians();
            let speed = -(outlook.camera.pan + outlook.camera.swing + outlook.camera.shake).as_metres_per_second()
                / outlook.magnification;
            return Self { direction: direction(angle), speed: speed as f32, ..Self::NONE };
        };
        let angle = seen.motion.direction.as_radians();
        // A camera that swings or zooms draws along with it: as an even movement then.
        let timed = seen.motion.timed.filter(|_| !seen.motion.is_with_the_camera()).map(|timed| {
            let across = part.out_of_plane.as_radians().cos();
            let sign = if figure.reverse { -across } else { across };
            let (opens, time) = (plan.timing.opens, outlook.run.time);
            let pixel = 1.0 / f64::from(pixels_per_metre);
            Arc::new(InTime::of(&timed, opens, time, Seconds::from_secs(instant(outlook)), sign, pixel))
        });
        let speed = seen.motion.speed.as_metres_per_second() / outlook.magnification;
        Self {
            direction: direction(angle),
            speed: if figure.reverse { -speed as f32 } else { speed as f32 },
            longest: part.path.map_or(f32::INFINITY, |path| {
                let swung = seen.motion.swing * outlook.run.time / outlook.magnification;
                (path + swung).as_metres() as f32
            }),
            dwell: seen.draws.then_some(seen.ghost.dwell as f32).filter(|_| timed.is_none()),
            timed,
        }
    }

    /// From where to where the figure moves while a row is open.
    #[inline]
    pub(super) fn path(&self, row: &RowExposure) -> (f32, f32) {
        // Rows open within milliseconds of each other; phases last longer, and all rows are drawn as one.
        if let Some(timed) = &self.timed {
            return (0.0, timed.offsets.last().copied().unwrap_or(0.0) - timed.offsets.first().copied().unwrap_or(0.0));
        }
        let (from, to) = (self.speed * row.open_s, self.speed * row.close_s);
        if (to - from).abs() <= self.longest { (from, to) } else { (from, from + self.longest.copysign(to - from)) }
    }

    /// How far it moves while the first row is open.
    pub(super) fn steady(&self, rows: &[RowExposure]) -> f32 {
        rows.first().map_or(0.0, |row| {
            let (from, to) = self.path(row);
            to - from
        })
    }

    /// The stretches of a row's path and how much of its exposure falls on each.
    pub(super) fn stretches(&self, rows: &[RowExposure]) -> (Vec<f32>, Vec<f32>) {
        match &self.timed {
            Some(timed) => (timed.offsets.clone(), timed.shares.clone()),
            None => (vec![0.0, self.steady(rows)], vec![1.0]),
        }
    }

    /// Where it is some time after the instant, in metres.
    #[inline]
    pub(super) fn offset(&self, after: f32) -> f32 {
        self.timed.as_ref().map_or(after * self.speed, |timed| timed.offset(after))
    }

    /// From where to where it moves over all rows.
    pub(super) fn span(&self, rows: &[RowExposure]) -> (f32, f32) {
        if let Some(timed) = &self.timed {
            let ends = timed.offsets.iter().copied();
            return ends.fold((f32::INFINITY, f32::NEG_INFINITY), |(low, high), at| (low.min(at), high.max(at)));
        }
        let ends = rows.first().into_iter().chain(rows.last()).map(|row| self.path(row));
        ends.fold((f32::INFINITY, f32::NEG_INFINITY), |(low, high), (a, b)| (low.min(a).min(b), high.max(a).max(b)))
    }

    /// Farthest offset from its place under any light.
    pub(super) fn room<'a>(&self, rows: &[RowExposure], flashes: impl Iterator<Item = &'a Exposure>) -> f32 {
        let (low, high) = self.span(rows);
        let bounds = flashes.flat_map(|flash| flash.slice_bounds_s);
        let pulse = bounds.map(|t| self.offset(t).abs()).fold(0.0, f32::max);
        low.abs().max(high.abs()).max(pulse)
    }
}
