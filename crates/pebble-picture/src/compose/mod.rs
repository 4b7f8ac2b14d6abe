//! Backdrop, figures and tone: one frame.

mod actor;
mod groups;
mod layers;
mod movement;
pub(crate) mod scene;
mod slices;
mod stage;
pub(crate) mod window;

use crate::backdrop::Backdrop;
use crate::exposure::{Exposure, RowExposure, instant};
use crate::kept::{Kept, NOTHING};
use crate::smear::Pixel;
use crate::tone::{Curve, curve, encoded};
use crate::{Crop, Layers, Photo, Picture, Request};
use actor::Actor;
use groups::Group;
use layers::LightRow;
use pebble_core::file::stage::Grip;
use pebble_core::{Outlook, Plan};
use scene::Scene;
use stage::{Set, Stage, hands};
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};
use window::Window;

/// Pixels of the largest picture that is drawn in one piece.
const LARGEST_WHOLE: usize = 620_000;
/// Pixels of a strip, to begin with.
const STRIP: usize = 200_000;
/// Samples of all figures of one strip, of 16 bytes each, sums and smears together.
const MOST_AT_ONCE: usize = 1_000_000;
/// A strip is not cut finer than this.
const LEAST_ROWS: usize = 32;

/// Draws one frame, row by row: every figure is rastered once, then each row is painted, exposed and developed while it
/// is in the cache.
pub fn render(plan: &Plan, outlook: &Outlook, request: &Request) -> Picture {
    let picture = render_while((plan, outlook), request, (None, &NOTHING), &AtomicBool::new(true));
    picture.expect("a drawing that nobody puts down is finished")
}

/// The same, as long as it is wanted; `None` when it was put down.
///
/// A large picture is drawn in strips, so that what is rastered for it fits into [`MOST_AT_ONCE`].
pub fn render_while(
    (plan, outlook): (&Plan, &Outlook),
    request: &Request,
    (photo, kept): (Option<&Photo>, &Kept),
    wanted: &AtomicBool,
) -> Option<Picture> {
    drawn((plan, outlook), request, (photo, kept), wanted, true)
}

/// A first look, soon enough for a hand that goes on: the picture that is asked for where who stands there was drawn before
/// in light from there; else half as wide, and nobody in anybody's shade.
pub fn first_look(
    (plan, outlook): (&Plan, &Outlook),
    request: &Request,
    (photo, kept): (Option<&Photo>, &Kept),
    wanted: &AtomicBool,
) -> Option<Picture> {
    let known = Scene::is_known((plan, outlook), &Window::of(plan, outlook, request), (&kept.casts, &kept.shades));
    let request = if known { *request } else { Request { width: request.width.div_ceil(2), ..*request } };
    drawn((plan, outlook), &request, (photo, kept), wanted, known)
}

fn drawn(
    (plan, outlook): (&Plan, &Outlook),
    request: &Request,
    (photo, kept): (Option<&Photo>, &Kept),
    wanted: &AtomicBool,
    shaded: bool,
) -> Option<Picture> {
    let window = Window::of(plan, outlook, request);
    let leaves = request.crop == Crop::WHOLE && Kept::holds(window.width * window.height);
    let kept = if leaves { kept } else { &NOTHING };
    let scene = Scene::of((plan, outlook), &window, photo, (&kept.casts, &kept.shades), shaded)?;
    let (groups, steady) = (Group::all(plan, outlook, &window), steady_rows(plan, outlook, &window));
    let sets = Set::all(plan, outlook, &scene, (&window, &groups, &steady));
    let strip_of = |window, peaks| Strip::of((plan, outlook), (&scene, &sets, kept), window, peaks, wanted);
    let (mut rgba, row_bytes) = (vec![0; window.width * window.height * 4], window.width * 4);
    let whole = window.width * window.height <= LARGEST_WHOLE;
    // A figure's dwell is a figure of all of it, which neither a strip sees nor a loupe.
    let everything = whole && request.crop == Crop::WHOLE;
    let peaks = (!everything).then(|| strip_of(Window::coarse(plan, outlook), None).peaks());
    let mut done = 0;
    let mut height = if whole { window.height } else { (STRIP / window.width).max(LEAST_ROWS) };
    while done < window.height {
        if !wanted.load(Ordering::Relaxed) {
            return None;
        }
        let rows = done..(done + height).min(window.height);
        let strip = strip_of(window.strip(&rows), peaks.as_deref());
        let most = if whole || rows.len() <= LEAST_ROWS { usize::MAX } else { MOST_AT_ONCE };
        if strip.expose(request.layers, most, &mut rgba[rows.start * row_bytes..rows.end * row_bytes]) {
            done = rows.end;
        } else {
            height = (rows.len() / 2).max(LEAST_ROWS);
        }
    }
    let whole = wanted.load(Ordering::Relaxed);
    let lying = Picture { width: window.width as u32, height: window.height as u32, rgba };
    whole.then(|| held(lying, plan.stage.upright()))
}

fn steady_rows(plan: &Plan, outlook: &Outlook, window: &Window) -> Vec<RowExposure> {
    window.rows(&Exposure::new(plan, outlook, None, instant(outlook)))
}

/// From the picture as the sensor lies to the picture as the photographer held the camera.
fn held(lying: Picture, upright: Option<Grip>) -> Picture {
    let Some(grip) = upright else { return lying };
    let (wide, high) = (lying.width as usize, lying.height as usize);
    let mut rgba = vec![0; lying.rgba.len()];
    for row in 0..wide {
        for column in 0..high {
            // Row 0 of the curtains is the right edge with the grip up, the left with the grip down.
            let (x, y) = match grip {
                Grip::Up => (wide - 1 - row, column),
                Grip::Down => (row, high - 1 - column),
            };
            let (from, to) = ((y * wide + x) * 4, (row * high + column) * 4);
            rgba[to..to + 4].copy_from_slice(&lying.rgba[from..from + 4]);
        }
    }
    Picture { width: lying.height, height: lying.width, rgba }
}

/// Some rows of a picture, drawn at once.
struct Strip<'a> {
    plan: &'a Plan,
    outlook: &'a Outlook,
    scene: &'a Scene<'a>,
    sets: &'a [Set],
    kept: &'a Kept,
    window: Window,
    groups: Vec<Group>,
    steady: Vec<RowExposure>,
    /// Greatest dwell of each figure, where it was found out before.
    peaks: Option<&'a [Option<f32>]>,
    wanted: &'a AtomicBool,
}

impl<'a> Strip<'a> {
    fn of(
        (plan, outlook): (&'a Plan, &'a Outlook),
        (scene, sets, kept): (&'a Scene<'a>, &'a [Set], &'a Kept),
        window: Window,
        peaks: Option<&'a [Option<f32>]>,
        wanted: &'a AtomicBool,
    ) -> Self {
        let groups = Group::all(plan, outlook, &window);
        let steady = steady_rows(plan, outlook, &window);
        Self { plan, outlook, scene, sets, kept, window, groups, steady, peaks, wanted }
    }

    fn stage(&self, most: usize) -> Stage<'_> {
        Stage {
            plan: self.plan,
            outlook: self.outlook,
            scene: self.scene,
            sets: self.sets,
            lit: &self.kept.lit,
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
        let actors: Vec<Actor> = stage.on_stage(Actor::of).into_iter().flatten().collect();
        if stage.rastered.load(Ordering::Relaxed) > most {
            return false;
        }
        let members: Vec<&[usize]> = self.groups.iter().map(|group| group.lights.as_slice()).collect();
        let Some(backdrop) = Backdrop::of(
            (self.plan, self.outlook),
            (self.scene, &self.kept.painted, &self.kept.maps),
            &members,
            window,
        ) else {
            return false;
        };
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

/// Paints, exposes and develops the rows of one band.
fn expose_band(stage: &Stage, backdrop: &Backdrop, actors: &[Actor], first: usize, layers: Layers, out: &mut [u8]) {
    let (window, curve) = (stage.window, curve());
    let blank = || vec![[0.0; 4]; window.width];
    let mut light = LightRow { ambient: blank(), flash: blank(), sum: blank() };
    for (row, out) in (first..).zip(out.chunks_exact_mut(window.width * 4)) {
        if !stage.wanted.load(Ordering::Relaxed) {
            return;
        }
        let record = &stage.rows[row];
        backdrop.steady(row, &mut light.ambient);
        for actor in actors {
            actor.expose_ambient(window, row, record, &mut light);
        }
        if stage.groups.is_empty() {
            light.sum.fill([0.0; 4]);
        }
        for (index, group) in stage.groups.iter().enumerate() {
            let record = &group.rows[row];
            // The first of them is what the others are added to.
            let own = if index == 0 { &mut light.sum } else { &mut light.flash };
            backdrop.light(index, row, record.flash, own);
            for actor in actors {
                actor.expose_flash(index, window, row, record, own);
            }
            if index > 0 {
                for (sum, flash) in light.sum.iter_mut().zip(&light.flash) {
                    *sum = std::array::from_fn(|lane| sum[lane] + flash[lane]);
                }
            }
        }
        develop(curve, &light, layers, out);
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
