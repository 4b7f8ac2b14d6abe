//! What is behind the subject and under it: painted a row at a time, streaked by a camera that moves, lit by each group of
//! flashes from where they stand, in the shade of who stands before them.

use crate::Photo;
use crate::compose::scene::Scene;
use crate::compose::window::Window;
use crate::light::soft_cosine;
use crate::places::{self, Paint, Row};
use crate::shadow::Shade;
use crate::smear::Pixel;
use crate::space::{V3, add, dot, length, sub, times, unit, v3};
use crate::tone::{coloured, linear};
use pebble_core::exposure::Level;
use pebble_core::file::stage::Place;
use pebble_core::shot::Role;
use pebble_core::stage::framing::shown;
use pebble_core::{Outlook, Plan};

/// A row of a streak is made of at most this many paintings; what moves straight across needs only one.
const MOST_PAINTINGS: f32 = 12.0;
/// Light and shade on floor and wall are worked out at every so many pixels, and run evenly between.
const EVERY: usize = 4;
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

/// A flash on floor and wall.
struct Flash {
    group: usize,
    /// On white at the mark, and on the background's own tone at the wall.
    at_mark: V3,
    at_wall: V3,
    /// How much of it each place gets, [`EVERY`] pixels apart.
    map: Vec<f32>,
}

/// Floor and wall of a picture, painted and lit.
pub(crate) struct Backdrop {
    width: usize,
    /// In steady light.
    steady: Vec<Pixel>,
    /// Without any light, and which of its lights it stands in: the floor's share.
    paint: Vec<[f32; 4]>,
    flashes: Vec<Flash>,
    map_width: usize,
    /// Pixels from the first of the map to the first of the picture: maps of neighbouring pictures are the same map.
    map_starts: (usize, usize),
}

/// Everything that painting takes.
struct Brush<'a> {
    place: Place,
    paper: f32,
    /// Of white in the steady light at the subject, and of the background's own tone in its own.
    at_mark: V3,
    at_wall: V3,
    scene: &'a Scene<'a>,
    /// A picture of the place: where its horizon is, and how wide the frame is.
    photo: Option<(&'a Photo, f32, f32)>,
    behind: f32,
    /// How far the frame moves against the aim while the shutter is open: right and up, in metres at the subject's distance.
    streak: [f32; 2],
    /// How much the picture grows meanwhile.
    zoom: f32,
}

impl Backdrop {
    /// `groups` are the flashes that draw together.
    pub fn of(plan: &Plan, outlook: &Outlook, scene: &Scene, groups: &[&[usize]], window: &Window) -> Self {
        let surface = |placement| linear(Level::of_surface(plan.background_reflectance, placement));
        let white = |placement| linear(Level::of_surface(1.0, placement));
        let travel = -outlook.camera.background_travel.as_metres() / outlook.magnification;
        let angle = plan.movement.direction.as_radians();
        let brush = Brush {
            place: plan.stage.composition.place,
            paper: plan.background_reflectance as f32,
            at_mark: coloured(outlook.ambient_tint(plan, None), white(outlook.ambient.placement)),
            at_wall: coloured(outlook.background_tint(plan), surface(outlook.background.placement)),
            scene,
            photo: scene.photo.zip(plan.stage.composition.picture.as_ref()).map(|(photo, own)| {
                let wide = plan.frame().0.as_metres() / outlook.magnification;
                (photo, own.horizon_share as f32, wide as f32)
            }),
            behind: plan.background_behind.as_metres() as f32,
            streak: [(travel * angle.cos()) as f32, (travel * angle.sin()) as f32],
            zoom: plan.movement.zoom as f32,
        };
        let starts = |edge: f32| (edge * window.pixels_per_metre).round().rem_euclid(EVERY as f32) as usize;
        let map_starts = (starts(window.left), starts(-window.top));
        let (map_width, map_height) =
            ((window.width + map_starts.0).div_ceil(EVERY) + 1, (window.height + map_starts.1).div_ceil(EVERY) + 1);
        let mut backdrop = Self {
            width: window.width,
            steady: vec![[0.0; 4]; window.width * window.height],
            paint: vec![[0.0; 4]; window.width * window.height],
            flashes: Vec::new(),
            map_width,
            map_starts,
        };
        brush.paint(window, &mut backdrop);
        let places = brush.map_places(window, (map_width, map_height), map_starts);
        for (group, lights) in groups.iter().enumerate() {
            for light in lights.iter().copied() {
                let seen = &outlook.lights[light];
                let tint = outlook.flash_tint(plan, light);
                let role = plan.lights[light].role;
                backdrop.flashes.push(Flash {
                    group,
                    at_mark: if role == Role::Backdrop {
                        [0.0; 3]
                    } else {
                        coloured(tint, white(seen.in_a_whole_row()))
                    },
                    at_wall: coloured(tint, surface(seen.background_in_a_whole_row())),
                    map: brush.flash_map(light, role, &places),
                });
            }
        }
        backdrop.shade_steadily(&brush, &places);
        backdrop
    }

    /// A row in steady light.
    pub fn steady(&self, row: usize) -> &[Pixel] {
        &self.steady[row * self.width..(row + 1) * self.width]
    }

    /// A row lit by a group of flashes, of which it gets a share.
    pub fn light(&self, group: usize, row: usize, share: f32, out: &mut [Pixel]) {
        out.fill([0.0; 4]);
        let paint = &self.paint[row * self.width..(row + 1) * self.width];
        for flash in self.flashes.iter().filter(|flash| flash.group == group) {
            let (floor, wall) = (times(flash.at_mark, share), times(flash.at_wall, share));
            self.along(&flash.map, row, |column, gets| {
                let [red, green, blue, under] = paint[column];
                let light: V3 = if under > 0.5 { floor } else { wall };
                let pixel = &mut out[column];
                pixel[1] += red * light[0] * gets;
                pixel[2] += green * light[1] * gets;
                pixel[3] += blue * light[2] * gets;
            });
        }
    }

    /// Calls back with a map's value at each pixel of a row.
    #[inline]
    fn along(&self, map: &[f32], row: usize, mut each: impl FnMut(usize, f32)) {
        let row = row + self.map_starts.1;
        let (line, down) = (row / EVERY, (row % EVERY) as f32 / EVERY as f32);
        let (upper, lower) = (&map[line * self.map_width..], &map[(line + 1) * self.map_width..]);
        let at = |cell: usize| upper[cell] + (lower[cell] - upper[cell]) * down;
        let (mut column, mut within) = (0, self.map_starts.0);
        for cell in 0..self.map_width - 1 {
            let (from, to) = (at(cell), at(cell + 1));
            let step = (to - from) / EVERY as f32;
            while within < EVERY && column < self.width {
                each(column, from + step * within as f32);
                (column, within) = (column + 1, within + 1);
            }
            within = 0;
        }
    }

    /// Lays the shade of the place's own light over what was painted.
    fn shade_steadily(&mut self, brush: &Brush, places: &[Option<(V3, V3)>]) {
        let Some(shade) = &brush.scene.dome_shade else { return };
        let dome = brush.scene.dome();
        let map: Vec<f32> = places
            .iter()
            .map(|place| match place {
                Some((at, normal)) => {
                    let open = shade.open_evenly(*at, *normal, dome.size);
                    let own = (1.0 - dome.around) * soft_cosine(dot(*normal, dome.towards), dome.size).min(1.0);
                    (dome.around + own * open) / (dome.around + own).max(1e-3)
                }
                None => 1.0,
            })
            .collect();
        for row in 0..self.steady.len() / self.width {
            let mut shares = vec![1.0; self.width];
            self.along(&map, row, |column, open| shares[column] = open);
            let (line, paint) = (row * self.width, &self.paint);
            for (column, open) in shares.into_iter().enumerate() {
                // What glows by itself is in nobody's shade; it is on the wall.
                if paint[line + column][3] > 0.5 || open < 1.0 {
                    self.steady[line + column] = self.steady[line + column].map(|lane| lane * open);
                }
            }
        }
    }
}

impl Brush<'_> {
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

    /// Paints the rows of a window as the photographer sees them, and lays them down as the sensor lies.
    fn paint(&self, window: &Window, into: &mut Backdrop) {
        let upright = self.scene.view.upright;
        let shown_as = |column: f32, row: f32| {
            let (right, up) = shown(upright, f64::from(window.x_at(column)), f64::from(window.y_at(row)));
            (right as f32, up as f32)
        };
        let pixel = 1.0 / window.pixels_per_metre;
        // Lines of the picture run along rows of the sensor, or along its columns when it is held upright.
        let (lines, count) =
            if upright.is_some() { (window.width, window.height) } else { (window.height, window.width) };
        let mut steady = vec![[0.0; 4]; count];
        let mut paint = vec![[0.0; 4]; count];
        let across = (self.streak[0].abs() * window.pixels_per_metre).round() as usize;
        let mut room = Room { across: across.min(4 * count), paints: Vec::new(), tones: Vec::new() };
        for line in 0..lines {
            let ((first, up), (last, _)) = if upright.is_some() {
                (shown_as(line as f32, 0.0), shown_as(line as f32, count as f32 - 1.0))
            } else {
                (shown_as(0.0, line as f32), shown_as(count as f32 - 1.0, line as f32))
            };
            let left = first.min(last);
            self.painted(up, left, pixel, &mut room, (&mut steady, &mut paint));
            for (place, (steady, paint)) in steady.iter().zip(&paint).enumerate() {
                let at = match upright {
                    None => line * window.width + place,
                    Some(_) => {
                        let row = if first <= last { place } else { count - 1 - place };
                        row * window.width + line
                    }
                };
                into.steady[at] = *steady;
                into.paint[at] = *paint;
            }
        }
    }

    /// One line: in steady light with its streaks, and without any light.
    fn painted(
        &self,
        up: f32,
        left: f32,
        pixel: f32,
        room: &mut Room,
        (steady, paint): (&mut [Pixel], &mut [[f32; 4]]),
    ) {
        let count = paint.len();
        if let Some(photo) = self.photo {
            return self.photographed(photo, (up, left, pixel), (steady, paint));
        }
        self.lit(&self.line(up, left, pixel), count, room, |column, light, tone, under| {
            steady[column] = [0.0, light[0], light[1], light[2]];
            paint[column] = [tone[0], tone[1], tone[2], under];
        });
        if self.streak == [0.0; 2] && self.zoom == 0.0 {
            return;
        }
        let half = 0.5 * room.across as f32 * pixel;
        let up_pixels = self.streak[1].abs() / pixel;
        let out_pixels = self.zoom.abs() * 0.5 * count as f32;
        let paintings = up_pixels.max(out_pixels).ceil().clamp(1.0, MOST_PAINTINGS);
        steady.fill([0.0; 4]);
        let across = room.across;
        let share = 1.0 / (paintings * (across + 1) as f32);
        let mut wide = vec![[0.0; 3]; count + across];
        for k in 0..paintings as usize {
            let at = (k as f32 + 0.5) / paintings - 0.5;
            let scale = 1.0 + self.zoom * at;
            let line = self.line((up - self.streak[1] * at) / scale, (left - half) / scale, pixel / scale);
            self.lit(&line, count + across, room, |column, light, _, _| wide[column] = light);
            // What moves across is a running sum.
            let mut sum = [0.0f32; 3];
            for one in &wide[..across] {
                sum = add(sum, *one);
            }
            for column in 0..count {
                sum = add(sum, wide[column + across]);
                let pixel = &mut steady[column];
                for k in 0..3 {
                    pixel[1 + k] += sum[k] * share;
                }
                sum = sub(sum, wide[column]);
            }
        }
    }

    /// One line of the picture of the place: as wide as the frame, its horizon where the drawn one would be.
    fn photographed(
        &self,
        (photo, horizon, wide): (&Photo, f32, f32),
        (up, left, pixel): (f32, f32, f32),
        (steady, paint): (&mut [Pixel], &mut [[f32; 4]]),
    ) {
        let view = &self.scene.view;
        let level = -(view.distance * view.forward.z / view.forward.y.max(1e-3)) as f32;
        let down = horizon + (level - up) / (wide * photo.shape());
        for (column, (steady, paint)) in steady.iter_mut().zip(paint).enumerate() {
            let tone = photo.at(0.5 + (left + column as f32 * pixel) / wide, down);
            *steady = [0.0, tone[0] * self.at_wall[0], tone[1] * self.at_wall[1], tone[2] * self.at_wall[2]];
            *paint = [tone[0], tone[1], tone[2], 0.0];
        }
    }

    /// Paints a line and calls back with the steady light of each place, its tone, and whether it is the floor.
    fn lit(&self, line: &Line, count: usize, room: &mut Room, mut each: impl FnMut(usize, V3, V3, f32)) {
        match line.surface {
            Surface::Floor => {
                room.tones.resize(count, [0.0; 3]);
                places::floor(self.place, &line.row, self.paper, &mut room.tones);
                // From the light at the mark to the light at the wall.
                let far = (line.row.at / self.behind.max(0.1)).clamp(0.0, 1.0);
                let at_wall = times(self.at_wall, 1.0 / self.paper.max(1e-3));
                let light: V3 = std::array::from_fn(|k| self.at_mark[k] + (at_wall[k] - self.at_mark[k]) * far);
                for (column, tone) in room.tones.iter().enumerate() {
                    each(column, std::array::from_fn(|k| tone[k] * light[k]), *tone, 1.0);
                }
            }
            Surface::Wall => {
                room.paints.resize(count, Paint::default());
                places::wall(self.place, &line.row, &mut room.paints);
                for (column, paint) in room.paints.iter().enumerate() {
                    each(column, std::array::from_fn(|k| paint.ambient[k] * self.at_wall[k]), paint.flash, 0.0);
                }
            }
        }
    }

    /// Places and normals of the map of light.
    fn map_places(
        &self,
        window: &Window,
        (wide, high): (usize, usize),
        starts: (usize, usize),
    ) -> Vec<Option<(V3, V3)>> {
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

    /// How much of a flash each place gets: on the floor against one that faces it at the mark, on the wall against its
    /// middle.
    fn flash_map(&self, light: usize, role: Role, places: &[Option<(V3, V3)>]) -> Vec<f32> {
        let even = |value: f32| vec![value; places.len()];
        let Some(source) = &self.scene.sources[light] else { return even(0.0) };
        if self.place == Place::EvenWall || role == Role::Backdrop {
            return even(1.0);
        }
        let falls = |distance: f32| distance * distance + source.radius * source.radius;
        let size = (source.radius / source.distance.max(0.2)).atan().sin().max(0.02);
        let towards_wall = |at: V3| -> f32 { unit(sub(source.at, at))[1].min(0.0).abs() };
        let middle = [0.0, self.behind, 1.3];
        let (far, face) = (length(sub(source.at, middle)), towards_wall(middle).max(0.05));
        let open =
            |at: V3, normal: V3| source.shade.as_ref().map_or(1.0, |shade: &Shade| shade.open_evenly(at, normal, size));
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
}

/// Room to paint in.
struct Room {
    /// Pixels of the streak across.
    across: usize,
    paints: Vec<Paint>,
    tones: Vec<[f32; 3]>,
}
