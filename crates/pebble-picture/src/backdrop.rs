//! What is behind the subject and under it, lit: by the place's own light and by each group of flashes from where they
//! stand, in the shade of who stands before them.

use crate::brush::{Brush, Painted, Spot, dome_map, flash_map};
use crate::compose::scene::{Cast, Scene};
use crate::compose::window::Window;
use crate::shadow::Shade;
use crate::shelf::Shelf;
use crate::smear::Pixel;
use crate::space::V3;
use crate::tone::{coloured, linear};
use pebble_core::exposure::Level;
use pebble_core::file::stage::Place;
use pebble_core::quantity::LuxSeconds;
use pebble_core::shot::Role;
use pebble_core::stage::field::CHEST;
use pebble_core::{Outlook, Plan};
use std::sync::Arc;

/// A flash on floor and wall.
struct Flash {
    group: usize,
    /// On the floor and on the wall: on white at the mark, and on the background's own tone at the wall.
    on: [Pixel; 2],
    /// How much of it each place of the map gets.
    map: Arc<Vec<f32>>,
}

/// What burns somewhere in the set, on floor and wall.
struct Lamp {
    /// How much of it each place gets.
    map: Arc<Vec<f32>>,
    /// At the mark, turned to it, and on the wall.
    at_mark: LuxSeconds,
    on_wall: LuxSeconds,
}

/// All steady light on what stands still.
struct Steady {
    /// At the mark, every lamp turned to it, and on the wall.
    mark: LuxSeconds,
    wall: LuxSeconds,
}

impl Steady {
    fn of(plan: &Plan, outlook: &Outlook, lamps: &[Lamp]) -> Self {
        let (around, _) = outlook.ambient_around(plan, None);
        Self { mark: lamps.iter().fold(around, |sum, lamp| sum + lamp.at_mark), wall: outlook.background.exposure }
    }

    /// How much of it each place gets: what comes from around, less what somebody stands before, and each lamp's.
    fn map(&self, around: Option<&Vec<f32>>, lamps: &[Lamp], places: &[Spot]) -> Vec<f32> {
        let shares = |of: fn(&Lamp) -> LuxSeconds, all: LuxSeconds| -> Vec<f32> {
            let share = |lamp: &Lamp| if all > LuxSeconds::ZERO { (of(lamp) / all) as f32 } else { 0.0 };
            lamps.iter().map(share).collect()
        };
        let (on_floor, on_wall) = (shares(|lamp| lamp.at_mark, self.mark), shares(|lamp| lamp.on_wall, self.wall));
        let rests = [&on_floor, &on_wall].map(|shares| (1.0 - shares.iter().sum::<f32>()).max(0.0));
        { places.iter().enumerate() }
            .map(|(index, place)| {
                let floor = place.is_some_and(|(_, normal)| normal[2] > 0.5);
                let (shares, rest) = if floor { (&on_floor, rests[0]) } else { (&on_wall, rests[1]) };
                let even = rest * around.map_or(1.0, |around| around[index]);
                shares.iter().zip(lamps).fold(even, |sum, (share, lamp)| sum + share * lamp.map[index])
            })
            .collect()
    }
}

/// What is painted from.
pub(crate) struct PaintKey {
    cast: Arc<Cast>,
    place: Place,
    photo: bool,
    numbers: [f32; 9],
    size: (usize, usize),
}

impl PartialEq for PaintKey {
    fn eq(&self, other: &Self) -> bool {
        Arc::ptr_eq(&self.cast, &other.cast)
            && self.place == other.place
            && self.photo == other.photo
            && self.numbers == other.numbers
            && self.size == other.size
    }
}

/// What a map of a light is worked out from.
pub(crate) struct MapKey {
    painted: Arc<Painted>,
    shade: Option<Arc<Shade>>,
    at: V3,
    numbers: [f32; 2],
    even: bool,
}

impl PartialEq for MapKey {
    fn eq(&self, other: &Self) -> bool {
        let same = match (&self.shade, &other.shade) {
            (Some(own), Some(other)) => Arc::ptr_eq(own, other),
            (own, other) => own.is_none() && other.is_none(),
        };
        same && Arc::ptr_eq(&self.painted, &other.painted)
            && self.at == other.at
            && self.numbers == other.numbers
            && self.even == other.even
    }
}

/// A colour in the lanes of a pixel, the idle one first.
fn laned([red, green, blue]: V3) -> Pixel {
    [0.0, red, green, blue]
}

/// Floor and wall of a picture, painted and lit.
pub(crate) struct Backdrop {
    painted: Arc<Painted>,
    /// Of the background's own tone in its own steady light, and of white in that at the mark.
    at_wall: V3,
    at_mark: V3,
    /// How much of the place's own light each place gets.
    dome: Option<Arc<Vec<f32>>>,
    flashes: Vec<Flash>,
}

impl Backdrop {
    /// `groups` are the flashes that draw together.
    pub fn of(
        (plan, outlook): (&Plan, &Outlook),
        (scene, paintings, maps): (&Scene, &Shelf<PaintKey, Painted>, &Shelf<MapKey, Vec<f32>>),
        groups: &[&[usize]],
        window: &Window,
    ) -> Option<Self> {
        let surface = |placement| linear(Level::of_surface(plan.background_reflectance, placement));
        let white = |placement| linear(Level::of_surface(1.0, placement));
        let travel = -outlook.camera.background_travel.as_metres() / outlook.magnification;
        let angle = plan.movement.direction.as_radians();
        let wide = plan.frame().0.as_metres() / outlook.magnification;
        let own = plan.stage.composition.picture.as_ref();
        let brush = Brush {
            place: plan.stage.composition.place,
            paper: plan.background_reflectance as f32,
            scene,
            photo: scene.photo.zip(own).map(|(photo, own)| (photo, own.horizon_share as f32, wide as f32)),
            behind: plan.background_behind.as_metres() as f32,
            streak: [(travel * angle.cos()) as f32, (travel * angle.sin()) as f32],
            zoom: plan.movement.zoom as f32,
        };
        let [aside, upwards] = brush.streak;
        let (left, top) = (window.left, window.top);
        let key = PaintKey {
            cast: Arc::clone(&scene.cast),
            place: brush.place,
            photo: brush.photo.is_some(),
            numbers: [
                brush.paper,
                brush.behind,
                aside,
                upwards,
                brush.zoom,
                left,
                top,
                window.pixels_per_metre,
                wide as f32,
            ],
            size: (window.width, window.height),
        };
        let painted = paintings.get(key, || Some(brush.painting(window)))?;
        let key = |shade: Option<&Arc<Shade>>, at: V3, numbers: [f32; 2], even: bool| MapKey {
            painted: Arc::clone(&painted),
            shade: shade.cloned(),
            at,
            numbers,
            even,
        };
        let places = painted.places.as_slice();
        let mut flashes = Vec::new();
        for (group, lights) in groups.iter().enumerate() {
            for light in lights.iter().copied() {
                let Some(source) = &scene.sources[light] else { continue };
                let seen = &outlook.lights[light];
                let tint = outlook.flash_tint(plan, light);
                let backdrop = plan.lights[light].role == Role::Backdrop;
                // Made to light it evenly, or measured against.
                let even = backdrop || brush.place == Place::EvenWall;
                let map = maps
                    .get(key(source.shade.as_ref(), source.at, [source.radius, source.distance], even), || {
                        Some(if even { vec![1.0; places.len()] } else { flash_map(source, brush.behind, places) })
                    })?;
                let at_mark = if backdrop { [0.0; 3] } else { coloured(tint, white(seen.in_a_whole_row())) };
                let at_wall = coloured(tint, surface(seen.background_in_a_whole_row()));
                flashes.push(Flash { group, on: [at_mark, at_wall].map(laned), map });
            }
        }
        let dome = match &scene.dome_shade {
            Some(shade) => {
                let key = key(Some(shade), scene.dome().towards, [-1.0; 2], false);
                Some(maps.get(key, || Some(dome_map(scene, shade, places)))?)
            }
            None => None,
        };
        let even = brush.place == Place::EvenWall;
        let mut lamps = Vec::new();
        for (index, source) in &scene.lamps {
            let steady = &outlook.steady[*index];
            let Some(stands) = outlook.standing(plan, steady.of) else { continue };
            let map = maps
                .get(key(source.shade.as_ref(), source.at, [source.radius, source.distance], even), || {
                    Some(if even { vec![1.0; places.len()] } else { flash_map(source, brush.behind, places) })
                })?;
            let on_wall = steady.on_background.exposure;
            lamps.push(Lamp { map, at_mark: LuxSeconds::from_lux_seconds(stands.on(CHEST)), on_wall });
        }
        let steady = Steady::of(plan, outlook, &lamps);
        let dome = if lamps.is_empty() { dome } else { Some(Arc::new(steady.map(dome.as_deref(), &lamps, places))) };
        Some(Self {
            at_wall: coloured(outlook.background_tint(plan), surface(outlook.background.placement)),
            at_mark: coloured(
                outlook.ambient_tint(plan, None),
                linear(Level::of_light(1.0, steady.mark, outlook.reference)),
            ),
            dome,
            flashes,
            painted,
        })
    }

    /// A row in steady light.
    pub fn steady(&self, row: usize, out: &mut [Pixel]) {
        let width = self.painted.map.pixels;
        let steady = &self.painted.steady[row * width..(row + 1) * width];
        let [wall_red, wall_green, wall_blue] = self.at_wall;
        let (wall_light, mark_light) = ([wall_red, wall_green, wall_blue, 0.0], laned(self.at_mark));
        let lit = |[[red, green, blue], [red_at_mark, at_mark @ ..]]: &[V3; 2], share: f32| -> Pixel {
            // Four numbers at once, the lanes of the one beside those of the other.
            let wall: Pixel = std::array::from_fn(|k| [*red, *green, *blue, *red_at_mark][k] * wall_light[k]);
            let mark: Pixel = std::array::from_fn(|k| [*blue, *red_at_mark, at_mark[0], at_mark[1]][k] * mark_light[k]);
            std::array::from_fn(|k| if k == 0 { 0.0 } else { share * (wall[k - 1] + mark[k]) })
        };
        let Some(dome) = &self.dome else {
            for (steady, out) in steady.iter().zip(out) {
                *out = lit(steady, 1.0);
            }
            return;
        };
        self.painted.map.along(
            row,
            |upper, lower, down| dome[upper] + (dome[lower] - dome[upper]) * down,
            |columns, from, to, between| {
                let pixels = out[columns.clone()].iter_mut().zip(&steady[columns]);
                for ((out, steady), between) in pixels.zip(between) {
                    *out = lit(steady, from + (to - from) * between);
                }
            },
        );
    }

    /// A row lit by a group of flashes, of which it gets a share.
    pub fn light(&self, group: usize, row: usize, share: f32, out: &mut [Pixel]) {
        let width = self.painted.map.pixels;
        let tones = &self.painted.tones[row * width..(row + 1) * width];
        // All of them together at the places of the map, and evenly between: first the floor, then the wall.
        let lit = |upper: usize, lower: usize, down: f32| {
            let of_group = self.flashes.iter().filter(|flash| flash.group == group);
            of_group.fold([[0.0; 4]; 2], |sum: [Pixel; 2], flash| {
                let gets = share * (flash.map[upper] + (flash.map[lower] - flash.map[upper]) * down);
                std::array::from_fn(|on| std::array::from_fn(|lane| sum[on][lane] + gets * flash.on[on][lane]))
            })
        };
        self.painted.map.along(row, lit, |columns, from, to, between| {
            let pixels = out[columns.clone()].iter_mut().zip(&tones[columns]);
            for ((out, tone), between) in pixels.zip(between) {
                let on = usize::from(tone[0] <= 0.5);
                let (from, to) = (&from[on], &to[on]);
                *out = std::array::from_fn(|lane| tone[lane] * (from[lane] + (to[lane] - from[lane]) * between));
            }
        });
    }
}
