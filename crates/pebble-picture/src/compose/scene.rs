//! What is drawn, set up once for a picture: the cast as surfaces, where the camera sees it, and who shades whom.

use super::groups::Group;
use super::window::Window;
use crate::Photo;
use crate::cast::{self, Figure, Known, Stuff, Tint};
use crate::light::{Beam, Dome};
use crate::mesh::Mesh;
use crate::shadow::Shade;
use crate::shelf::Shelf;
use crate::space::{V3, add, dot, length, sub, times, unit, v3};
use crate::tone::{coloured, linear};
use pebble_core::exposure::Level;
use pebble_core::file::stage::{Composition, Place};
use pebble_core::outlook::{Burns, SteadyOutlook};
use pebble_core::plan::Part;
use pebble_core::quantity::{LuxSeconds, Stops};
use pebble_core::shot::Role;
use pebble_core::stage::field;
use pebble_core::stage::framing::View;
use pebble_core::stage::lens::{Held, Lens};
use pebble_core::stage::space::spot;
use pebble_core::stage::{CHEST_M, Surroundings};
use pebble_core::{Outlook, Plan};
use std::sync::Arc;

/// Height of a card that stands for a part with no body of its own on the stage.
const CARD_HALF_HEIGHT: f32 = 0.15;
/// How far before the subject it stands, in metres.
const CARD_BEFORE: f32 = 1.0;
/// What lights are aimed at.
const CHEST: f32 = CHEST_M as f32;
/// A light of the sky or the ceiling is as far as this.
const FAR: f32 = 40.0;

/// What lights are aimed at.
const AIM: V3 = [0.0, 0.0, CHEST];

/// How large a steady lamp is drawn, half across in metres.
const BULB: f32 = 0.07;

/// A flash in the set.
pub(crate) struct Source {
    pub at: V3,
    /// Radius of its face.
    pub radius: f32,
    pub distance: f32,
    pub shade: Option<Arc<Shade>>,
}

/// Everybody and everything as surfaces, and where the camera sees them.
pub(crate) struct Cast {
    pub view: View,
    pub around: Surroundings,
    pub figures: Vec<Figure>,
    /// Which part of the plan each of them is.
    pub parts: Vec<Option<usize>>,
    /// Every corner of every figure as the sensor has it: along, across, one over the distance.
    pub seen: Vec<Vec<Option<[f32; 3]>>>,
}

/// What a cast is built from.
#[derive(PartialEq)]
pub(crate) struct CastKey {
    composition: Composition,
    /// The parts: as what they are drawn, their tone, and the card that would stand for them.
    parts: Vec<(Known, f64, bool)>,
    distance: f64,
    pixels_per_metre: f32,
    /// Lights that stand in the frame, with the radius of their faces.
    lights: Vec<(V3, f32, f32)>,
}

/// What shades are cast from: where the light is, and who stands before it.
pub(crate) struct ShadeKey {
    cast: Arc<Cast>,
    at: V3,
}

impl PartialEq for ShadeKey {
    fn eq(&self, other: &Self) -> bool {
        Arc::ptr_eq(&self.cast, &other.cast) && self.at == other.at
    }
}

/// What is drawn.
pub(crate) struct Scene<'a> {
    pub cast: Arc<Cast>,
    /// A picture of the place.
    pub photo: Option<&'a Photo>,
    /// The flashes, in the plan's order; nothing for those that do not fire.
    pub sources: Vec<Option<Source>>,
    /// What burns somewhere in the set, with its place among all that is steady.
    pub lamps: Vec<(usize, Source)>,
    /// Who stands in the way of the place's own light.
    pub dome_shade: Option<Arc<Shade>>,
}

impl std::ops::Deref for Scene<'_> {
    type Target = Cast;
    fn deref(&self) -> &Cast {
        &self.cast
    }
}

impl Cast {
    fn of(plan: &Plan, pixels_per_metre: f32, lights: &[(V3, f32, f32)]) -> Self {
        let view = plan.stage.view(plan.subject_distance);
        let known: Vec<Known> = plan.parts.iter().map(known).collect();
        let mut figures = cast::on_stage(&plan.stage, &known, pixels_per_metre);
        let place =
            |figure: &Figure| figure.part.and_then(|kind| plan.parts.iter().position(|part| part.drawn_as == kind));
        let mut parts: Vec<Option<usize>> = figures.iter().map(place).collect();
        let without = (0..plan.parts.len()).filter(|index| !parts.contains(&Some(*index)));
        for (row, index) in without.collect::<Vec<_>>().into_iter().enumerate() {
            figures.push(card(&view, &plan.parts[index], row));
            parts.push(Some(index));
        }
        for (at, radius, boom) in lights {
            figures.push(cast::light(*at, AIM, *radius, *boom));
            parts.push(None);
        }
        let place = |at: V3| {
            let seen = view.seen(spot(f64::from(at[0]), f64::from(at[1]), f64::from(at[2])))?;
            Some([seen.along as f32, seen.across as f32, (1.0 / seen.depth) as f32])
        };
        let seen =
            figures.iter().map(|figure| figure.mesh.corners.iter().map(|corner| place(corner.at)).collect()).collect();
        Self { view, around: plan.stage.surroundings(), figures, parts, seen }
    }
}

/// Nothing is lit from nearer than this, in metres.
const NEAREST: f32 = 0.2;

/// A part as the cast knows it.
fn known(part: &Part) -> Known {
    (part.drawn_as, part.reflectance as f32)
}

/// Whether the card of a part stands or lies: its size is along its movement.
fn stands(part: &Part) -> bool {
    part.direction.as_radians().sin().abs() > 0.7
}

/// Where everything stands that lights somebody, and who is lit: what of a picture takes longest to work out.
struct Stood {
    key: CastKey,
    /// The flashes, and whether anybody stands before them.
    flashes: Vec<Option<(Source, bool)>>,
    /// What burns somewhere, with its place among all that is steady.
    lamps: Vec<(usize, Source)>,
}

impl Stood {
    fn of(plan: &Plan, outlook: &Outlook, window: &Window) -> Self {
        let chest = AIM;
        let placed = |index: usize| {
            let radius = plan.lights[index].throw.face.radius.as_metres() as f32;
            if plan.lights[index].role == Role::Backdrop {
                let at = v3(outlook.lamp(plan, index).at);
                return (at, radius, length(sub(at, chest)));
            }
            let distance = plan.settings.lights[index].distance.as_metres() as f32;
            let [right, camera, up] = outlook.lights[index].from.map(|part| part as f32);
            let at = add(chest, times([right, -camera, up], distance));
            (at, radius, distance)
        };
        // A bounced one comes from the ceiling: where it stands is not said.
        // Before the even wall nothing stands that is not measured.
        let measured = plan.stage.composition.place == Place::EvenWall;
        let stood = |index: &usize| {
            let light = &plan.lights[*index];
            !measured && light.bounce.is_none()
        };
        let lens = plan.lens();
        let boom = |index: usize| plan.lights[index].boom.unwrap_or(0.0) as f32;
        let bulbs = outlook.steady.iter().filter(|source| matches!(source.of, Burns::Lamp(_)));
        let lights: Vec<(V3, f32, f32)> = (0..plan.lights.len())
            .filter(stood)
            .map(|index| (placed(index).0, placed(index).1, boom(index)))
            .filter(|(at, radius, boom)| in_frame(&lens, *at, *radius, *boom))
            // A lamp is found by its bulb, and drawn with its housing.
            .chain(
                bulbs
                    .filter_map(|source| Some(v3(outlook.standing(plan, source.of)?.at)))
                    .filter(|at| !measured && in_frame(&lens, *at, 0.0, 0.0))
                    .map(|at| (at, BULB, 0.0)),
            )
            .collect();
        let key = CastKey {
            lights,
            composition: plan.stage.composition.clone(),
            parts: plan.parts.iter().map(|part| (known(part), part.size.as_metres(), stands(part))).collect(),
            distance: plan.subject_distance.as_metres(),
            pixels_per_metre: window.pixels_per_metre,
        };
        let flash = |index: usize| {
            let (at, radius, distance) = placed(index);
            let shaded = plan.lights[index].role != Role::Backdrop;
            outlook.lights[index].fires.then_some((Source { at, radius, distance, shade: None }, shaded))
        };
        let burns = |(index, source): (usize, &SteadyOutlook)| {
            let at = v3(outlook.standing(plan, source.of)?.at);
            let radius = match source.of {
                Burns::Lamp(_) => BULB,
                Burns::Modelling(light) => placed(light).1,
            };
            Some((index, Source { at, radius, distance: length(sub(at, chest)), shade: None }))
        };
        Self {
            key,
            flashes: (0..plan.lights.len()).map(flash).collect(),
            lamps: outlook.steady.iter().enumerate().filter_map(burns).collect(),
        }
    }
}

impl<'a> Scene<'a> {
    /// `shaded` says whether anybody stands in anybody's light.
    pub fn of(
        (plan, outlook): (&Plan, &Outlook),
        window: &Window,
        photo: Option<&'a Photo>,
        (casts, shades): (&Shelf<CastKey, Cast>, &Shelf<ShadeKey, Shade>),
        shaded: bool,
    ) -> Option<Self> {
        let chest = AIM;
        let stood = Stood::of(plan, outlook, window);
        let lights = stood.key.lights.clone();
        let cast = casts.get(stood.key, || Some(Cast::of(plan, window.pixels_per_metre, &lights)))?;
        let shade = |at: V3| {
            let key = ShadeKey { cast: Arc::clone(&cast), at };
            shaded.then(|| shades.get(key, || Shade::of(at, chest, &cast.figures))).flatten()
        };
        let before = |source: Source| Source { shade: shade(source.at), ..source };
        let flash = |(source, shaded): (Source, bool)| if shaded { before(source) } else { source };
        let sources = stood.flashes.into_iter().map(|one| one.map(flash)).collect();
        let lamps = stood.lamps.into_iter().map(|(index, source)| (index, before(source))).collect();
        let from = unit(v3(cast.around.comes.from));
        let dome_shade = if cast.around.comes.around < 1.0 { shade(add(chest, times(from, FAR))) } else { None };
        Some(Self { cast, photo, sources, lamps, dome_shade })
    }

    /// Whether who stands there was drawn before in light from where it comes.
    pub fn is_known(
        (plan, outlook): (&Plan, &Outlook),
        window: &Window,
        (casts, shades): (&Shelf<CastKey, Cast>, &Shelf<ShadeKey, Shade>),
    ) -> bool {
        let stood = Stood::of(plan, outlook, window);
        let Some(cast) = casts.find(&stood.key) else { return false };
        let flashes = stood.flashes.iter().flatten().filter(|(_, shaded)| *shaded).map(|(source, _)| source.at);
        let mut all = flashes.chain(stood.lamps.iter().map(|(_, source)| source.at));
        all.all(|at| {
            let kept = shades.find(&ShadeKey { cast: Arc::clone(&cast), at }).is_some();
            // Of a light before which nobody stands there is no shade to be kept.
            kept || !Shade::is_cast(at, AIM, &cast.figures)
        })
    }

    /// The place's own light.
    pub fn dome(&self) -> Dome<'_> {
        let comes = &self.around.comes;
        Dome {
            towards: unit(v3(comes.from)),
            size: comes.size as f32,
            around: comes.around as f32,
            shade: self.dome_shade.as_ref(),
        }
    }

    /// The flashes on a figure, each with its direction, and the group it draws with and its level on white.
    pub(super) fn beams(
        &self,
        plan: &Plan,
        outlook: &Outlook,
        groups: &[Group],
        index: usize,
    ) -> Vec<(Beam<'_>, (usize, V3))> {
        let (figure, part) = (&self.figures[index], self.parts[index]);
        let offset = part.map_or(Stops::ZERO, |part| plan.parts[part].flash_offset);
        // Somebody who stands elsewhere than at the mark is nearer to some lights and farther from others.
        let chest = AIM;
        let at = if figure.card { chest } else { [figure.at[0], figure.at[1], CHEST] };
        let mut beams = Vec::with_capacity(plan.lights.len());
        for (group, members) in groups.iter().enumerate() {
            for light in members.lights.iter().copied() {
                let (of, seen) = (&plan.lights[light], &outlook.lights[light]);
                let Some(source) = &self.sources[light] else { continue };
                if of.role == Role::Backdrop || part.is_some_and(|part| !of.reaches(part)) {
                    continue;
                }
                let way = sub(source.at, at);
                let far = length(way);
                // What carries the light itself is as far from it as a hand.
                let level = if at == chest || of.bounce.is_some() || far < NEAREST {
                    let falls = |distance: f32| distance * distance + source.radius * source.radius;
                    let gain = falls(source.distance) / falls(far.max(NEAREST));
                    linear(Level::of_surface(1.0, seen.in_a_whole_row() + offset)) * gain
                } else {
                    // By its beam, which may be turned to them and away from the mark.
                    let [x, y, z] = at.map(f64::from);
                    let falls = LuxSeconds::from_lux_seconds(outlook.lamp(plan, light).on(spot(x, y, z)));
                    let change = seen.high_speed.unwrap_or(Stops::ZERO) + seen.grazing + offset;
                    linear(Level::of_light(1.0, falls, outlook.reference).times(change.as_ratio()))
                };
                let towards = unit(way);
                let to_lens = times(v3(self.view.forward), -1.0);
                let across = (1.0 - dot(towards, to_lens).powi(2)).max(0.0).sqrt();
                let from_behind = dot(towards, to_lens) < 0.0;
                let shapes = matches!(of.role, Role::Key | Role::Fill);
                let on_flat = match part.filter(|_| shapes) {
                    Some(part) => {
                        let [right, camera, up] = outlook.parts[part].facing.map(|value| value as f32);
                        (towards[0] * right - towards[1] * camera + towards[2] * up).max(0.0)
                    }
                    None => 1.0,
                };
                let beam = Beam {
                    towards,
                    size: (source.radius / far.max(NEAREST)).atan().sin().max(0.02),
                    edge: from_behind.then(|| 1.0 / across.max(0.05)),
                    on_flat,
                    bounce: self.around.bounces as f32,
                    shade: source.shade.as_ref(),
                };
                beams.push((beam, (group, coloured(outlook.flash_tint(plan, light), level))));
            }
        }
        beams
    }

    /// What burns somewhere in the set on a figure, each with its direction, and its level on white.
    pub fn lamps_on(&self, plan: &Plan, outlook: &Outlook, index: usize) -> Vec<(Beam<'_>, V3)> {
        let (figure, part) = (&self.figures[index], self.parts[index]);
        // What shines by itself is as bright as it is.
        let own = figure.own_light || part.is_some_and(|part| plan.parts[part].luminance.is_some());
        let reaches = |of: Burns| !own && part.is_none_or(|part| of.reaches(plan, part));
        let at = if figure.card { AIM } else { [figure.at[0], figure.at[1], CHEST] };
        let place = spot(f64::from(at[0]), f64::from(at[1]), f64::from(at[2]));
        { self.lamps.iter() }
            .filter_map(|(index, source)| {
                let steady = &outlook.steady[*index];
                let stands = outlook.standing(plan, steady.of).filter(|_| reaches(steady.of))?;
                let way = sub(source.at, at);
                let far = length(way).max(NEAREST);
                let towards = unit(way);
                // As much on what is flat as is forecast, of what is turned to it.
                let share = steady.on_subject.exposure.as_lux_seconds() / stands.on(field::CHEST);
                let on_flat = if share.is_finite() { share as f32 } else { 0.0 };
                let falls = LuxSeconds::from_lux_seconds(stands.on(place));
                let beam = Beam {
                    towards,
                    size: (source.radius / far).clamp(0.02, 1.0),
                    edge: None,
                    on_flat,
                    bounce: self.around.bounces as f32,
                    shade: source.shade.as_ref(),
                };
                let level = linear(Level::of_light(1.0, falls, outlook.reference));
                Some((beam, coloured(outlook.steady_tint(plan, steady), level)))
            })
            .collect()
    }

    /// Level of the steady light from around on a figure, at tone 1.
    pub fn steady(&self, plan: &Plan, outlook: &Outlook, index: usize) -> V3 {
        let figure = &self.figures[index];
        match self.parts[index] {
            Some(part) => {
                // The forecast has the level of the part's own tone; a lamp's is its own.
                let own = figure.own_light || plan.parts[part].luminance.is_some();
                let (around, tint) = outlook.ambient_around(plan, Some(part));
                // Of lamps that stand somewhere a figure has its light from there.
                let level = linear(match own {
                    true => outlook.parts[part].tones.part_ambient,
                    false => Level::of_light(plan.parts[part].reflectance, around, outlook.reference),
                });
                let tone = figure.stuffs[usize::from(figure.principal)].tone.max(1e-3);
                let tone =
                    if figure.part == Some(plan.parts[part].drawn_as) && plan.parts[part].reflectance > 0.0 && !own {
                        plan.parts[part].reflectance as f32
                    } else {
                        tone
                    };
                coloured(if own { [1.0; 3] } else { tint }, level / tone)
            }
            None => {
                let (around, tint) = outlook.ambient_around(plan, None);
                coloured(tint, linear(Level::of_light(1.0, around, outlook.reference)))
            }
        }
    }

    /// How far a figure is from the lens, in the middle.
    pub fn depth(&self, index: usize) -> f32 {
        let (sum, count) = self.seen[index]
            .iter()
            .step_by(5)
            .flatten()
            .fold((0.0, 0.0), |(sum, count): (f32, f32), [_, _, near]| (sum + 1.0 / near, count + 1.0));
        if count > 0.0 { sum / count } else { 0.0 }
    }
}

/// Whether anything of a light is seen: by the rule that findings go by.
fn in_frame(lens: &Lens, at: V3, radius: f32, boom: f32) -> bool {
    let held = Held { radius: f64::from(radius), boom: (boom > 0.0).then_some(f64::from(boom)) };
    lens.shows(spot(f64::from(at[0]), f64::from(at[1]), f64::from(at[2])), held).any()
}

/// A flat card of the part's own size, in the plane that is in focus; several stand under each other.
fn card(view: &View, part: &Part, row: usize) -> Figure {
    let half_width = (part.size.as_metres() / 2.0) as f32;
    let half = if stands(part) { [CARD_HALF_HEIGHT, half_width] } else { [half_width, CARD_HALF_HEIGHT] };
    let (right, up) = (v3(view.right), v3(view.up));
    // It stands before everybody, as large as it would be at the subject.
    let nearer = (1.0 - CARD_BEFORE / view.distance as f32).max(0.5);
    let place = |x: f32, y: f32| {
        let below = row as f32 * (2.0 * CARD_HALF_HEIGHT + 0.06);
        let aside = add(times(right, x * half[0]), times(up, y * half[1] - below));
        add(v3(view.eye), times(add(times(v3(view.forward), view.distance as f32), aside), nearer))
    };
    let mut mesh = Mesh::default();
    mesh.sheet(&[(place(-1.0, -1.0), place(1.0, -1.0)), (place(-1.0, 1.0), place(1.0, 1.0))], 1, |_| 0);
    let stuff = Stuff::matt(part.reflectance as f32, Tint::NEUTRAL).even();
    Figure { part: Some(part.drawn_as), mesh, stuffs: vec![stuff], card: true, ..Figure::default() }
}
