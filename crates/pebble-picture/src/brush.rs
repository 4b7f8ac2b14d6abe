//! Paints floor and wall of a picture, in no light yet, and finds how much of a light each place gets.

use crate::Photo;
use crate::compose::scene::{Scene, Source};
use crate::compose::window::Window;
use crate::light::soft_cosine;
use crate::places::{self, Paint, Row};
use crate::shadow::Shade;
use crate::space::{V3, add, dot, length, sub, times, unit, v3};
use pebble_core::file::stage::Place;
use pebble_core::stage::framing::shown;
use std::ops::Range;

/// A row of a streak is made of at most this many paintings; what moves straight across needs only one.
const MOST_PAINTINGS: f32 = 12.0;
/// Light and shade on floor and wall are worked out at every so many pixels, and run evenly between.
const EVERY: usize = 4;
/// How far the pixels between two of them are from the first.
const BETWEEN: [f32; EVERY] = [0.0, 0.25, 0.5, 0.75];
/// What is behind is lit at most so much more than in its middle.
const BRIGHTEST: f32 = 2.0;

/// A surface that a row of the picture shows.
#[derive(Clone, Copy)]
enum Surface {
    Floor,
    Wall,
}

/// A row of the picture as the photographer holds it.
#[derive(Clone, Copy)]
struct Line {
    surface: Surface,
    row: Row,
}

/// A place of the set, and where its surface faces; nothing in the sky.
pub(crate) type Spot = Option<(V3, V3)>;

/// Floor and wall as they are painted, in no light yet.
pub(crate) struct Painted {
    /// In steady light: of the background's own, and of that at the mark.
    pub steady: Vec<[V3; 2]>,
    /// Whether it is the floor, and red to blue of it by a flash.
    pub tones: Vec<[f32; 4]>,
    /// Places of the map.
    pub places: Vec<Spot>,
    pub map: MapSize,
}

/// A map of light over a picture.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct MapSize {
    /// Pixels of the picture across.
    pub pixels: usize,
    wide: usize,
    high: usize,
    /// Pixels from the first of the map to the first of the picture: maps of neighbouring pictures are the same map.
    starts: (usize, usize),
}

impl MapSize {
    fn of(window: &Window) -> Self {
        let start = |edge: f32| (edge * window.pixels_per_metre).round().rem_euclid(EVERY as f32) as usize;
        let starts = (start(window.left), start(-window.top));
        let count = |pixels: usize, start: usize| (pixels + start).div_ceil(EVERY) + 1;
        Self { pixels: window.width, wide: count(window.width, starts.0), high: count(window.height, starts.1), starts }
    }

    /// Calls back with stretches of a row, each between two neighbours of the map: its pixels, what the map has before and after
    /// it, and how far along between them it begins. `of` mixes the two lines of the map that the row lies between.
    #[inline]
    pub fn along<T: Copy>(
        &self,
        row: usize,
        of: impl Fn(usize, usize, f32) -> T,
        mut each: impl FnMut(Range<usize>, &T, &T, &[f32]),
    ) {
        let row = row + self.starts.1;
        let (line, down) = (row / EVERY * self.wide, (row % EVERY) as f32 / EVERY as f32);
        let at = |cell: usize| of(line + cell, line + self.wide + cell, down);
        let (mut column, mut within, mut from) = (0, self.starts.0, at(0));
        for cell in 1..self.wide {
            let to = at(cell);
            let pixels = (EVERY - within).min(self.pixels - column);
            each(column..column + pixels, &from, &to, &BETWEEN[within..]);
            (column, within, from) = (column + pixels, 0, to);
        }
    }
}

/// Everything that painting takes.
pub(crate) struct Brush<'a> {
    pub place: Place,
    /// The background's own tone.
    pub paper: f32,
    pub scene: &'a Scene<'a>,
    /// A picture of the place: where its horizon is, and how wide the frame is.
    pub photo: Option<(&'a Photo, f32, f32)>,
    pub behind: f32,
    /// How far the frame moves against the aim while the shutter is open: right and up, in metres at the subject's distance.
    pub streak: [f32; 2],
    /// How much the picture grows meanwhile.
    pub zoom: f32,
}

impl Brush<'_> {
    /// Paints the rows of a window as the photographer sees them, and lays them down as the sensor lies.
    pub fn painting(&self, window: &Window) -> Painted {
        let map = MapSize::of(window);
        let count = window.width * window.height;
        let mut painted = Painted {
            steady: vec![[[0.0; 3]; 2]; count],
            tones: vec![[0.0; 4]; count],
            places: self.map_places(window, &map),
            map,
        };
        let upright = self.scene.view.upright;
        let shown_as = |column: f32, row: f32| {
            let (right, up) = shown(upright, f64::from(window.x_at(column)), f64::from(window.y_at(row)));
            (right as f32, up as f32)
        };
        let pixel = 1.0 / window.pixels_per_metre;
        // Lines of the picture run along rows of the sensor, or along its columns when it is held upright.
        let (lines, count) =
            if upright.is_some() { (window.width, window.height) } else { (window.height, window.width) };
        let mut steady = vec![[[0.0; 3]; 2]; count];
        let mut tones = vec![[0.0; 4]; count];
        let across = (self.streak[0].abs() * window.pixels_per_metre).round() as usize;
        // A streak longer than four frames is as even as it gets.
        let mut room = Room { across: across.min(4 * count), paints: Vec::new(), tones: Vec::new() };
        for line in 0..lines {
            let ((first, up), (last, _)) = if upright.is_some() {
                (shown_as(line as f32, 0.0), shown_as(line as f32, count as f32 - 1.0))
            } else {
                (shown_as(0.0, line as f32), shown_as(count as f32 - 1.0, line as f32))
            };
            self.painted(up, first.min(last), pixel, &mut room, (&mut steady, &mut tones));
            for (place, (steady, tones)) in steady.iter().zip(&tones).enumerate() {
                let at = match upright {
                    None => line * window.width + place,
                    Some(_) => {
                        let row = if first <= last { place } else { count - 1 - place };
                        row * window.width + line
                    }
                };
                painted.steady[at] = *steady;
                painted.tones[at] = *tones;
            }
        }
        painted
    }

    /// What a row of the picture shows, at a height over its middle, for places from `left` on.
    fn line(&self, up: f32, left: f32, step: f32) -> Line {
        let view = &self.scene.view;
        let distance = view.distance as f32;
        let way = add(times(v3(view.forward), distance), times(v3(view.up), up));
        let eye = v3(view.eye);
        let down = way[2] < -1e-5;
        // The floor runs to the wall; an even wall has none before it.
        let reach = if down { -eye[2] / way[2] } else { f32::INFINITY };
        let deep = eye[1] + way[1] * reach;
        let pixel = step;
        let on_floor = down && deep < self.behind && self.place != Place::EvenWall;
        if on_floor {
            let next = add(way, times(v3(view.up), pixel));
            let farther = if next[2] < -1e-5 { eye[1] - next[1] * eye[2] / next[2] } else { deep };
            let row = Row { at: deep, left: left * reach, step: step * reach, deep: farther - deep, wall: self.behind };
            return Line { surface: Surface::Floor, row };
        }
        let reach = if way[1] > 1e-4 { (self.behind - eye[1]) / way[1] } else { 1e4 };
        let row = Row {
            at: eye[2] + way[2] * reach,
            left: left * reach,
            step: step * reach,
            deep: pixel * reach,
            wall: self.behind,
        };
        Line { surface: Surface::Wall, row }
    }

    /// One line: in steady light with its streaks, and by a flash.
    fn painted(
        &self,
        up: f32,
        left: f32,
        pixel: f32,
        room: &mut Room,
        (steady, tones): (&mut [[V3; 2]], &mut [[f32; 4]]),
    ) {
        let count = tones.len();
        if let Some(photo) = self.photo {
            return self.photographed(photo, (up, left, pixel), (steady, tones));
        }
        self.toned(&self.line(up, left, pixel), count, room, |column, light, tone, under| {
            steady[column] = light;
            tones[column] = [under, tone[0], tone[1], tone[2]];
        });
        if self.streak == [0.0; 2] && self.zoom == 0.0 {
            return;
        }
        let half = 0.5 * room.across as f32 * pixel;
        let up_pixels = self.streak[1].abs() / pixel;
        let out_pixels = self.zoom.abs() * 0.5 * count as f32;
        let paintings = up_pixels.max(out_pixels).ceil().clamp(1.0, MOST_PAINTINGS);
        steady.fill([[0.0; 3]; 2]);
        let across = room.across;
        let share = 1.0 / (paintings * (across + 1) as f32);
        let both = |a: [V3; 2], b: [V3; 2], sign: f32| [add(a[0], times(b[0], sign)), add(a[1], times(b[1], sign))];
        let mut wide = vec![[[0.0; 3]; 2]; count + across];
        for k in 0..paintings as usize {
            let at = (k as f32 + 0.5) / paintings - 0.5;
            let scale = 1.0 + self.zoom * at;
            let line = self.line((up - self.streak[1] * at) / scale, (left - half) / scale, pixel / scale);
            self.toned(&line, count + across, room, |column, light, _, _| wide[column] = light);
            // What moves across is a running sum.
            let mut sum = [[0.0f32; 3]; 2];
            for one in &wide[..across] {
                sum = both(sum, *one, 1.0);
            }
            for column in 0..count {
                sum = both(sum, wide[column + across], 1.0);
                steady[column] = both(steady[column], sum, share);
                sum = both(sum, wide[column], -1.0);
            }
        }
    }

    /// One line of the picture of the place: as wide as the frame, its horizon where the drawn one would be.
    fn photographed(
        &self,
        (photo, horizon, wide): (&Photo, f32, f32),
        (up, left, pixel): (f32, f32, f32),
        (steady, tones): (&mut [[V3; 2]], &mut [[f32; 4]]),
    ) {
        let view = &self.scene.view;
        let level = -(view.distance * view.forward.z / view.forward.y.max(1e-3)) as f32;
        let down = horizon + (level - up) / (wide * photo.shape());
        for (column, (steady, tones)) in steady.iter_mut().zip(tones).enumerate() {
            let tone = photo.at(0.5 + (left + column as f32 * pixel) / wide, down);
            *steady = [tone, [0.0; 3]];
            *tones = [0.0, tone[0], tone[1], tone[2]];
        }
    }

    /// Paints a line and calls back with what each place has of the steady light at the wall and of that at the mark, with
    /// its tone, and whether it is the floor.
    fn toned(&self, line: &Line, count: usize, room: &mut Room, mut each: impl FnMut(usize, [V3; 2], V3, f32)) {
        match line.surface {
            Surface::Floor => {
                room.tones.resize(count, [0.0; 3]);
                places::floor(self.place, &line.row, self.paper, &mut room.tones);
                // From the light at the mark to the light at the wall.
                let far = (line.row.at / self.behind.max(0.1)).clamp(0.0, 1.0);
                let at_wall = far / self.paper.max(1e-3);
                for (column, tone) in room.tones.iter().enumerate() {
                    each(column, [times(*tone, at_wall), times(*tone, 1.0 - far)], *tone, 1.0);
                }
            }
            Surface::Wall => {
                room.paints.resize(count, Paint::default());
                places::wall(self.place, &line.row, &mut room.paints);
                for (column, paint) in room.paints.iter().enumerate() {
                    each(column, [paint.ambient, [0.0; 3]], paint.flash, 0.0);
                }
            }
        }
    }

    /// Places and normals of the map of light.
    fn map_places(&self, window: &Window, map: &MapSize) -> Vec<Spot> {
        let (wide, high, starts) = (map.wide, map.high, map.starts);
        let view = &self.scene.view;
        let mut places = Vec::with_capacity(wide * high);
        for row in 0..high {
            for column in 0..wide {
                let (along, across) = (
                    window.x_at((column * EVERY) as f32 - starts.0 as f32),
                    window.y_at((row * EVERY) as f32 - starts.1 as f32),
                );
                let (right, up) = shown(view.upright, f64::from(along), f64::from(across));
                let line = self.line(up as f32, right as f32, 1e-3);
                places.push(match line.surface {
                    Surface::Floor => Some(([line.row.left, line.row.at, 0.0], [0.0, 0.0, 1.0])),
                    Surface::Wall if line.row.at.is_finite() && line.row.at < 400.0 => {
                        Some(([line.row.left, self.behind, line.row.at], [0.0, -1.0, 0.0]))
                    }
                    Surface::Wall => None,
                });
            }
        }
        places
    }
}

/// How much of a flash each place gets: on the floor against one that faces it at the mark, on the wall, so far behind the
/// mark, against its middle.
pub(crate) fn flash_map(source: &Source, behind: f32, places: &[Spot]) -> Vec<f32> {
    let falls = |distance: f32| distance * distance + source.radius * source.radius;
    let size = (source.radius / source.distance.max(0.2)).atan().sin().max(0.02);
    let towards_wall = |at: V3| -> f32 { unit(sub(source.at, at))[1].min(0.0).abs() };
    let middle = [0.0, behind, 1.3];
    let (far, face) = (length(sub(source.at, middle)), towards_wall(middle).max(0.05));
    let open = |at: V3, normal: V3| source.shade.as_ref().map_or(1.0, |shade| shade.open_evenly(at, normal, size));
    places
        .iter()
        .map(|place| {
            let Some((at, normal)) = *place else { return 0.0 };
            let way = sub(source.at, at);
            let distance = length(way);
            if normal[2] > 0.5 {
                let lit = soft_cosine(dot(unit(way), normal), size);
                let gets = lit * falls(source.distance) / falls(distance);
                // Near a low light the floor would be brighter than any real beam leaves it.
                return if gets > 1e-3 { gets.min(BRIGHTEST) * open(at, normal) } else { 0.0 };
            }
            let gets = towards_wall(at) / face * falls(far) / falls(distance);
            if gets > 1e-3 { gets.min(BRIGHTEST) * open(at, normal) } else { 0.0 }
        })
        .collect()
}

/// How much of the place's own light each place gets that somebody stands before.
pub(crate) fn dome_map(scene: &Scene, shade: &Shade, places: &[Spot]) -> Vec<f32> {
    let dome = scene.dome();
    let open = |place: &Spot| {
        let Some((at, normal)) = place else { return 1.0 };
        let own = (1.0 - dome.around) * soft_cosine(dot(*normal, dome.towards), dome.size).min(1.0);
        (dome.around + own * shade.open_evenly(*at, *normal, dome.size)) / (dome.around + own).max(1e-3)
    };
    places.iter().map(open).collect()
}

/// Room to paint in.
struct Room {
    /// Pixels of the streak across.
    across: usize,
    paints: Vec<Paint>,
    tones: Vec<[f32; 3]>,
}
