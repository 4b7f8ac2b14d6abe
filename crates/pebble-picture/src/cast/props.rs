//! What is held, worn, ridden, or stands about.

use super::stuff::{Stuff, Tint};
use super::{Figure, Known, tone_of};
use crate::mesh::{Mesh, Ring};
use crate::space::{V3, add, aside, cross, hash, sub, times, toward, unit, v3};
use pebble_core::file::stage::{Pose, Prop, Thing};
use pebble_core::shot::DrawnAs;
use pebble_core::stage::body::Skeleton;
use std::f32::consts::{PI, TAU};

const STEEL: u8 = 0;
const RUBBER: u8 = 1;
const WOOD: u8 = 2;
const PAINT: u8 = 3;
const PALE: u8 = 4;
const GLOW: u8 = 5;
const RED: u8 = 6;
const GREY: u8 = 7;
const WATER: u8 = 8;

/// The stuffs of all things, in the order of the numbers above.
fn stuffs() -> Vec<Stuff> {
    vec![
        Stuff::matt(0.5, Tint::of(0.94, 0.99, 1.06)).glossy(0.7, 40.0),
        Stuff::matt(0.05, Tint::NEUTRAL).glossy(0.08, 10.0),
        Stuff::matt(0.28, Tint::of(1.0, 0.7, 0.42)),
        Stuff::matt(0.3, Tint::of(0.25, 0.75, 1.0)).glossy(0.35, 30.0),
        Stuff::matt(0.72, Tint::of(1.0, 0.98, 0.93)).thin(0.35),
        Stuff::matt(1.0, Tint::of(1.0, 0.72, 0.36)).even(),
        Stuff::matt(0.24, Tint::of(1.0, 0.2, 0.14)).thin(0.2),
        Stuff::matt(0.18, Tint::NEUTRAL),
        Stuff::matt(0.32, Tint::of(0.92, 1.0, 1.06)).glossy(1.4, 60.0).thin(0.5),
    ]
}

/// `principal` is what most of it is made of.
fn figure(part: Option<DrawnAs>, mesh: Mesh, principal: u8) -> Figure {
    Figure { part, mesh, stuffs: stuffs(), principal, ..Figure::default() }
}

/// A thing in the tone of the part that it is.
fn toned(figures: Vec<Figure>, known: &[Known]) -> Vec<Figure> {
    let tone = |mut figure: Figure| {
        if let Some(tone) = figure.part.and_then(|part| tone_of(known, part)) {
            figure.stuffs[usize::from(figure.principal)].tone = tone;
        }
        figure
    };
    figures.into_iter().map(tone).collect()
}

/// What a person has.
pub(super) fn of_person(prop: Prop, (pose, known): (Pose, &[Known]), body: &Skeleton) -> Vec<Figure> {
    toned(held(prop, pose, body), known)
}

/// A thing that nobody holds.
pub(super) fn of_thing(thing: &Thing, known: &[Known]) -> Vec<Figure> {
    toned(standing(thing), known)
}

fn held(prop: Prop, pose: Pose, body: &Skeleton) -> Vec<Figure> {
    let mut mesh = Mesh::default();
    let (hand, other) = (v3(body.palm(1)), v3(body.palm(0)));
    let along = unit(sub(v3(body.arms[1].tip), v3(body.arms[1].end)));
    let (front, left) = (v3(body.pelvis_axes.front), v3(body.pelvis_axes.left));
    let ahead = unit([front[0], front[1], 0.0]);
    let beside = unit([left[0], left[1], 0.0]);
    let principal = match prop {
        Prop::Ball => {
            mesh.round_ball(ball_place(pose, body), 0.11, 14, PALE);
            PALE
        }
        Prop::SmallBall => {
            let at = if pose == Pose::Serve || pose == Pose::Forehand {
                add(hand, times(along, 0.78))
            } else {
                add(hand, times(along, 0.05))
            };
            mesh.round_ball(at, 0.034, 10, RED);
            RED
        }
        Prop::Racket => {
            racket(&mut mesh, hand, along, beside);
            PAINT
        }
        Prop::Bat => {
            let way = unit(add(times(sub(hand, other), 6.0), add(along, [0.0, 0.0, 0.6])));
            let path: Vec<V3> = (0..=8).map(|k| add(hand, times(way, 0.11 * k as f32 - 0.1))).collect();
            mesh.tube(&path, |t| if t < 0.06 { 0.022 } else { 0.013 + 0.022 * (t * t) }, 10, WOOD);
            WOOD
        }
        Prop::Blade => {
            let way = unit(add(along, [0.0, 0.0, 0.05]));
            mesh.ball(
                add(hand, times(way, 0.055)),
                [times(way, 0.03), times(aside(beside, way), 0.06), times(cross(way, aside(beside, way)), 0.06)],
                8,
                STEEL,
            );
            let path: Vec<V3> = (0..=6)
                .map(|k| add(hand, add(times(way, 0.148 * k as f32), [0.0, 0.0, 0.0016 * (k * k) as f32])))
                .collect();
            mesh.tube(&path, |t| 0.0075 - 0.004 * t, 6, STEEL);
            STEEL
        }
        Prop::Bar => {
            let middle = toward(hand, other, 0.5);
            let way = unit(sub(hand, other));
            mesh.rod(add(middle, times(way, -0.95)), add(middle, times(way, 0.95)), 0.014, STEEL);
            for side in [-1.0, 1.0] {
                for (out, radius) in [(0.70, 0.22), (0.755, 0.22), (0.81, 0.16)] {
                    disc(&mut mesh, add(middle, times(way, side * out)), way, radius, 0.022, RUBBER);
                }
            }
            RUBBER
        }
        Prop::Rope => return vec![own_rope(body)],
        Prop::Hoop => {
            let at = add(v3(body.pelvis), [0.0, 0.0, 0.1]);
            mesh.hoop(at, unit([0.12, 0.1, 1.0]), 0.43, 0.012, 48, PAINT);
            PAINT
        }
        Prop::Ribbon => {
            mesh.rod(hand, add(hand, times(along, 0.5)), 0.006, WOOD);
            let tip = add(hand, times(along, 0.5));
            let edges: Vec<(V3, V3)> = (0..=60)
                .map(|k| {
                    let t = k as f32 / 60.0;
                    let turn = t * 4.5 * TAU;
                    let radius = 0.08 + 0.22 * t;
                    let at = add(
                        tip,
                        add(
                            times(beside, radius * turn.cos() - 0.08),
                            add([0.0, 0.0, radius * turn.sin() - 0.35 * t], times(ahead, 1.3 * t)),
                        ),
                    );
                    (at, add(at, add(times(ahead, 0.05), [0.0, 0.0, 0.012])))
                })
                .collect();
            mesh.sheet(&edges, 2, |_| RED);
            RED
        }
        Prop::Umbrella => {
            let top = add(hand, [0.0, 0.0, 0.75]);
            mesh.rod(add(hand, [0.0, 0.0, -0.12]), top, 0.008, STEEL);
            let rings: Vec<Ring> = (0..=8)
                .map(|k| {
                    let t = k as f32 / 8.0;
                    let out = 0.02 + 0.52 * (t * PI * 0.5).sin();
                    Ring {
                        at: add(top, [0.0, 0.0, -0.30 * t * t]),
                        u: [out, 0.0, 0.0],
                        v: [0.0, out, 0.0],
                        stuff: RED,
                        fold: (0.0, 0.0),
                    }
                })
                .collect();
            shell(&mut mesh, &rings, 32);
            RED
        }
        Prop::Microphone => {
            let way = unit(add(times(v3(body.head_axes.up), 0.8), times(sub(v3(body.head), hand), 1.0)));
            mesh.tube(&[add(hand, times(way, -0.07)), add(hand, times(way, 0.09))], |t| 0.011 + 0.006 * t, 8, RUBBER);
            mesh.round_ball(add(hand, times(way, 0.115)), 0.026, 8, STEEL);
            RUBBER
        }
        Prop::Oars => {
            for side in [1.0, -1.0] {
                let grip = if side > 0.0 { other } else { hand };
                let tip = add(grip, add(times(beside, 1.9 * side), add(times(ahead, -0.5), [0.0, 0.0, -0.35])));
                mesh.rod(grip, tip, 0.016, WOOD);
                mesh.block(
                    tip,
                    [
                        times(unit(sub(tip, grip)), 0.22),
                        times(aside([0.0, 0.0, 1.0], sub(tip, grip)), 0.08),
                        times(ahead, 0.006),
                    ],
                    PALE,
                );
            }
            // The boat.
            let keel = add(v3(body.pelvis), [0.0, 0.0, -0.14]);
            let path: Vec<V3> = (0..=12).map(|k| add(keel, times(ahead, (k as f32 / 6.0 - 1.0) * 2.6))).collect();
            mesh.tube(&path, |t| 0.03 + 0.2 * (t * PI).sin().max(0.0).sqrt(), 12, PALE);
            WOOD
        }
        Prop::Board => {
            let at = toward(v3(body.legs[0].end), v3(body.legs[1].end), 0.5);
            let way = unit(sub(v3(body.legs[0].end), v3(body.legs[1].end)));
            let way = unit([way[0], way[1], 0.0]);
            let across = cross([0.0, 0.0, 1.0], way);
            let deck = [at[0], at[1], at[2] - body.bones.ankle as f32 - 0.012];
            let path: Vec<V3> = (-5..=5)
                .map(|k| {
                    add(deck, add(times(way, 0.085 * k as f32), [0.0, 0.0, if k == 5 || k == -5 { 0.05 } else { 0.0 }]))
                })
                .collect();
            let edges: Vec<(V3, V3)> =
                path.iter().map(|at| (add(*at, times(across, -0.1)), add(*at, times(across, 0.1)))).collect();
            mesh.sheet(&edges, 2, |_| PAINT);
            for end in [-0.26, 0.26] {
                for side in [-0.085, 0.085] {
                    let hub = add(add(deck, times(way, end)), add(times(across, side), [0.0, 0.0, -0.05]));
                    disc(&mut mesh, hub, across, 0.03, 0.03, PALE);
                }
            }
            PAINT
        }
        Prop::Inlines | Prop::Rollers => {
            for leg in &body.legs {
                let way = unit(sub(v3(leg.tip), v3(leg.end)));
                let down = times(aside(sub(v3(leg.joint), v3(leg.end)), way), -1.0);
                let across = cross(way, down);
                let sole = add(v3(leg.end), times(down, body.bones.ankle as f32 + 0.012));
                mesh.block(
                    add(sole, times(way, 0.05)),
                    [times(way, 0.13), times(down, 0.014), times(across, 0.018)],
                    STEEL,
                );
                for k in 0..4 {
                    if prop == Prop::Inlines {
                        disc(
                            &mut mesh,
                            add(add(sole, times(way, 0.077 * k as f32 - 0.066)), times(down, 0.04)),
                            across,
                            0.039,
                            0.022,
                            PALE,
                        );
                    } else {
                        let (end, side) = (if k < 2 { -0.03 } else { 0.13 }, if k % 2 == 0 { -0.045 } else { 0.045 });
                        disc(
                            &mut mesh,
                            add(add(sole, times(way, end)), add(times(down, 0.034), times(across, side))),
                            across,
                            0.03,
                            0.03,
                            RED,
                        );
                    }
                }
            }
            STEEL
        }
        Prop::Bicycle | Prop::SmallBicycle => {
            bicycle(&mut mesh, body, (ahead, beside), prop == Prop::SmallBicycle);
            PAINT
        }
        Prop::Wheelchair => {
            wheelchair(&mut mesh, body, (ahead, beside));
            STEEL
        }
        Prop::Lantern => return vec![lantern(hand)],
        Prop::Medal => {
            let (chest, up) = (v3(body.chest_axes.front), v3(body.chest_axes.up));
            let left = v3(body.chest_axes.left);
            let tall = body.bones.height as f32;
            let neck = v3(body.collar);
            let at = add(add(neck, times(up, -0.17 * tall)), times(chest, 0.088 * tall));
            for side in [1.0, -1.0] {
                let top = add(
                    add(neck, times(left, side * 0.045 * tall)),
                    add(times(chest, 0.06 * tall), times(up, -0.02 * tall)),
                );
                let waist = add(toward(top, at, 0.5), times(chest, 0.02 * tall));
                let wide = times(left, 0.009);
                mesh.sheet(
                    &[
                        (sub(top, wide), add(top, wide)),
                        (sub(waist, wide), add(waist, wide)),
                        (sub(at, wide), add(at, wide)),
                    ],
                    1,
                    |_| RED,
                );
            }
            disc(&mut mesh, add(at, times(up, -0.03)), chest, 0.036, 0.008, STEEL);
            STEEL
        }
        Prop::Scarf => {
            let root = v3(body.collar);
            let way = unit(add(times(beside, 0.9), add(times(ahead, -0.5), [0.0, 0.0, 0.25])));
            let edges: Vec<(V3, V3)> = (0..=36)
                .map(|k| {
                    let t = k as f32 / 36.0;
                    let wave = [0.0, 0.0, 0.09 * (t * 11.0).sin() * t - 0.15 * t * t];
                    let at =
                        add(add(root, times(way, 0.1 + 1.05 * t)), add(wave, times(ahead, 0.07 * (t * 8.0).cos() * t)));
                    (at, add(at, [0.02 * (t * 9.0).sin(), 0.0, -0.13 - 0.05 * t]))
                })
                .collect();
            mesh.sheet(&edges, 5, |_| RED);
            mesh.tube(
                &[add(root, times(left, 0.07)), add(root, times(front, 0.075)), add(root, times(left, -0.07))],
                |_| 0.03,
                8,
                RED,
            );
            RED
        }
        Prop::Silks => return silks(body, hand),
        Prop::Gloves => {
            for arm in &body.arms {
                let way = unit(sub(v3(arm.tip), v3(arm.end)));
                let at = add(v3(arm.end), times(way, 0.07));
                let across = aside(beside, way);
                mesh.ball(at, [times(way, 0.105), times(across, 0.075), times(cross(way, across), 0.08)], 12, RED);
                mesh.tube(&[add(v3(arm.end), times(way, -0.07)), v3(arm.end)], |_| 0.048, 12, RED);
            }
            RED
        }
        _ => {
            let at = Thing {
                what: prop,
                right_m: f64::from(hand[0]),
                away_m: f64::from(hand[1]),
                up_m: f64::from(hand[2]) - 0.2,
                size: 1.0,
                turned_deg: 0.0,
            };
            return standing(&at);
        }
    };
    vec![figure(prop.drawn_as(), mesh, principal)]
}

/// Where a ball is for what is done with it.
fn ball_place(pose: Pose, body: &Skeleton) -> V3 {
    let (hand, other) = (v3(body.palm(1)), v3(body.palm(0)));
    match pose {
        Pose::Kick | Pose::HighKick | Pose::Run | Pose::Sprint => {
            add(v3(body.legs[1].tip), times(unit(sub(v3(body.legs[1].tip), v3(body.pelvis))), 0.17))
        }
        Pose::Catch | Pose::Jump => add(toward(hand, other, 0.5), [0.0, 0.0, 0.1]),
        _ => add(hand, times(unit(sub(v3(body.arms[1].tip), v3(body.arms[1].end))), 0.13)),
    }
}

fn racket(mesh: &mut Mesh, hand: V3, along: V3, beside: V3) {
    mesh.rod(add(hand, times(along, -0.08)), add(hand, times(along, 0.34)), 0.015, RUBBER);
    let across = aside(beside, along);
    let middle = add(hand, times(along, 0.5));
    let oval = |t: f32| add(middle, add(times(along, 0.175 * (t * TAU).cos()), times(across, 0.13 * (t * TAU).sin())));
    let path: Vec<V3> = (0..=32).map(|k| oval(k as f32 / 32.0)).collect();
    mesh.tube(&path, |_| 0.011, 7, PAINT);
    for k in -4_i32..=4 {
        let (a, b) = (k as f32 * 0.026, (1.0 - (k as f32 * 0.026 / 0.13).powi(2)).max(0.0).sqrt() * 0.175);
        let c = (1.0 - (k as f32 * 0.036 / 0.175).powi(2)).max(0.0).sqrt() * 0.13;
        let place = |x: f32, y: f32| add(middle, add(times(across, x), times(along, y)));
        mesh.tube(&[place(a, -b), place(a, b)], |_| 0.0016, 4, PALE);
        mesh.tube(&[place(-c, k as f32 * 0.036), place(c, k as f32 * 0.036)], |_| 0.0016, 4, PALE);
    }
}

/// A short cylinder.
fn disc(mesh: &mut Mesh, at: V3, axis: V3, radius: f32, thick: f32, stuff: u8) {
    let half = times(unit(axis), 0.5 * thick);
    let (a, b) = (sub(at, half), add(at, half));
    let ring = |at: V3, radius: f32| Ring::round(at, axis, radius, stuff);
    mesh.loft(
        &[
            ring(a, radius * 0.9),
            ring(toward(a, b, 0.15), radius),
            ring(toward(a, b, 0.85), radius),
            ring(b, radius * 0.9),
        ],
        22,
        |_, _| None,
    );
}

/// A dome open below.
fn shell(mesh: &mut Mesh, rings: &[Ring], count: usize) {
    for k in 0..count {
        let place = |ring: &Ring, k: usize| {
            let (sin, cos) = (k as f32 / count as f32 * TAU).sin_cos();
            add(ring.at, add(times(ring.u, cos), times(ring.v, sin)))
        };
        let edges: Vec<(V3, V3)> = rings.iter().map(|ring| (place(ring, k), place(ring, k + 1))).collect();
        mesh.sheet(&edges, 1, |_| rings[0].stuff);
    }
}

/// The rope of one who jumps alone: from hand to hand, over the head.
fn own_rope(body: &Skeleton) -> Figure {
    let mut mesh = Mesh::default();
    let (a, b) = (v3(body.palm(0)), v3(body.palm(1)));
    let reach = 1.25;
    let path: Vec<V3> = (0..=48)
        .map(|k| {
            let t = k as f32 / 48.0;
            let bow = (t * PI).sin().max(0.0);
            let out = times(unit(sub(a, b)), 0.22 * (t * TAU).sin());
            add(add(toward(a, b, t), out), [0.0, -0.1 * bow, reach * bow.sqrt()])
        })
        .collect();
    mesh.tube(&path, |_| 0.008, 6, PALE);
    Figure { swing: Some([-0.1 - a[0].max(b[0]), 0.1 - a[0].min(b[0])]), ..figure(Some(DrawnAs::Ropes), mesh, PALE) }
}

fn lantern(hand: V3) -> Figure {
    let mut mesh = Mesh::default();
    let at = add(hand, [0.0, 0.0, -0.2]);
    mesh.block(at, [[0.055, 0.0, 0.0], [0.0, 0.055, 0.0], [0.0, 0.0, 0.075]], GLOW);
    Figure { own_light: true, ..figure(Some(DrawnAs::Lantern), mesh, GLOW) }
}

/// A light on its stand, or on a boom whose stand is so far back: its face is turned to what it is aimed at.
pub(super) fn light(at: V3, aim: V3, radius: f32, boom: f32) -> Figure {
    let mut mesh = Mesh::default();
    let way = unit(sub(aim, at));
    let radius = radius.max(0.07);
    let back = sub(at, times(way, 0.06 + 0.35 * radius));
    let ring = |share: f32, wide: f32| Ring::round(toward(back, at, share), way, wide * radius, RUBBER);
    mesh.loft(&[ring(0.0, 0.2), ring(0.35, 0.45), ring(1.0, 1.0)], 24, |_, _| None);
    let face = add(at, times(way, 0.004));
    mesh.loft(
        &[
            Ring::round(face, way, 0.97 * radius, GLOW),
            Ring::round(add(face, times(way, 0.002)), way, 0.96 * radius, GLOW),
        ],
        24,
        |_, _| None,
    );
    let out = boom / at[0].hypot(at[1]).max(1e-3);
    let top = add(back, [at[0] * out, at[1] * out, 0.0]);
    let foot = [top[0], top[1], 0.0];
    mesh.rod(foot, top, 0.014, RUBBER);
    if boom > 0.0 {
        mesh.rod(back, top, 0.014, RUBBER);
    }
    for k in 0..3 {
        let (sin, cos) = (k as f32 / 3.0 * TAU + 0.4).sin_cos();
        mesh.rod(add(foot, [0.0, 0.0, 0.35]), add(foot, [0.5 * cos, 0.5 * sin, 0.01]), 0.01, RUBBER);
    }
    let mut figure = Figure { own_light: true, at, ..figure(None, mesh, RUBBER) };
    // Brighter than anything it lights.
    figure.stuffs[usize::from(GLOW)] = Stuff::matt(60.0, Tint::NEUTRAL).even();
    figure
}

/// Two cloths from above, through the hand, and their tails.
fn silks(body: &Skeleton, hand: V3) -> Vec<Figure> {
    let (mut held, mut tails) = (Mesh::default(), Mesh::default());
    let (hip, hand) = (add(v3(body.pelvis), [0.05, -0.1, 0.0]), add(hand, [0.0, 0.05, 0.0]));
    for side in [-1.0_f32, 1.0] {
        let top = add(hand, [0.09 * side, 0.2, 3.2]);
        let path: Vec<V3> = (0..=14).map(|k| toward(top, hand, k as f32 / 14.0)).collect();
        let edges = |path: &[V3], wide: &dyn Fn(f32) -> f32| -> Vec<(V3, V3)> {
            let last = path.len() as f32 - 1.0;
            let edge = |(k, at): (usize, &V3)| {
                let t = k as f32 / last;
                let half = [wide(t), 0.03 * (t * 17.0 + side).sin(), 0.0];
                (sub(*at, half), add(*at, half))
            };
            path.iter().enumerate().map(edge).collect()
        };
        held.sheet(&edges(&path, &|t| 0.05 - 0.03 * t), 4, |_| PALE);
        let wrap: Vec<V3> = (0..=10).map(|k| toward(hand, hip, k as f32 / 10.0)).collect();
        held.sheet(&edges(&wrap, &|t| 0.02 + 0.03 * t), 4, |_| PALE);
        let fall: Vec<V3> = (0..=30)
            .map(|k| {
                let t = k as f32 / 30.0;
                add(hip, [side * (0.05 + 0.26 * t) + 0.09 * (t * 6.0 + side).sin(), 0.05 * (t * 9.0).cos(), -1.9 * t])
            })
            .collect();
        tails.sheet(&edges(&fall, &|t| 0.04 + 0.1 * t), 8, |_| PALE);
    }
    let still = Figure { part: None, ..figure(None, held, PALE) };
    vec![figure(Some(DrawnAs::Silks), tails, PALE), still]
}

fn wheel(mesh: &mut Mesh, hub: V3, axis: V3, radius: f32, tube: f32, spokes: usize) {
    mesh.hoop(hub, axis, radius - tube, tube, 44, RUBBER);
    mesh.hoop(hub, axis, radius - 2.6 * tube, 0.5 * tube, 36, STEEL);
    disc(mesh, hub, axis, 0.03, 0.07, STEEL);
    let u = aside([0.0, 0.0, 1.0], axis);
    let v = cross(unit(axis), u);
    for k in 0..spokes {
        let (sin, cos) = (k as f32 / spokes as f32 * TAU + 0.2).sin_cos();
        let out = add(times(u, cos), times(v, sin));
        mesh.tube(&[add(hub, times(out, 0.02)), add(hub, times(out, radius - 2.4 * tube))], |_| 0.0022, 4, STEEL);
    }
}

fn bicycle(mesh: &mut Mesh, body: &Skeleton, (ahead, beside): (V3, V3), small: bool) {
    let (radius, base, saddle) = if small { (0.255, 0.92, 0.6) } else { (0.34, 1.0, 0.0) };
    let feet = toward(v3(body.legs[0].end), v3(body.legs[1].end), 0.5);
    let lowest = v3(body.legs[0].end)[2].min(v3(body.legs[1].end)[2]);
    // The cranks turn between the feet.
    let crank = [feet[0], feet[1], (lowest - 0.02).max(0.2)];
    let crank = if small { add(crank, [0.0, 0.0, 0.0]) } else { [feet[0], feet[1], feet[2] - 0.06] };
    let ground = crank[2] - if small { 0.27 } else { 0.28 };
    let at = |forward: f32, up: f32| add([crank[0], crank[1], ground + up], times(ahead, forward));
    let (rear, nose) = (at(-0.40 * base, radius), at(0.60 * base, radius));
    wheel(mesh, rear, beside, radius, if small { 0.026 } else { 0.014 }, if small { 18 } else { 20 });
    wheel(mesh, nose, beside, radius, if small { 0.026 } else { 0.014 }, if small { 18 } else { 20 });
    let seat = if small { at(-0.2, saddle) } else { add(v3(body.pelvis), add(times(ahead, -0.02), [0.0, 0.0, -0.12])) };
    let grip = toward(v3(body.palm(0)), v3(body.palm(1)), 0.5);
    let head = toward(nose, add(grip, times(ahead, -0.05)), if small { 0.62 } else { 0.72 });
    for (from, to, thick) in [
        (crank, seat, 0.016),
        (crank, head, 0.02),
        (toward(crank, seat, 0.85), head, 0.018),
        (crank, rear, 0.011),
        (toward(crank, seat, 0.8), rear, 0.009),
        (nose, head, 0.014),
        (head, grip, 0.013),
    ] {
        mesh.rod(from, to, thick, PAINT);
    }
    mesh.rod(v3(body.palm(0)), v3(body.palm(1)), 0.013, STEEL);
    mesh.ball(seat, [times(ahead, 0.13), times(beside, 0.06), [0.0, 0.0, 0.025]], 8, RUBBER);
    disc(mesh, crank, beside, 0.07, 0.012, STEEL);
    for (side, leg) in [(1.0, &body.legs[0]), (-1.0, &body.legs[1])] {
        let pedal = add(v3(leg.end), [0.0, 0.0, -(body.bones.ankle as f32) - 0.012]);
        mesh.rod(add(crank, times(beside, 0.05 * side)), pedal, 0.01, STEEL);
        mesh.block(
            add(pedal, times(ahead, 0.06)),
            [times(ahead, 0.05), times(beside, 0.045), [0.0, 0.0, 0.01]],
            RUBBER,
        );
    }
}

fn wheelchair(mesh: &mut Mesh, body: &Skeleton, (ahead, beside): (V3, V3)) {
    let pelvis = v3(body.pelvis);
    let axle = [pelvis[0], pelvis[1], 0.345];
    let axle = add(axle, times(ahead, 0.02));
    for side in [1.0, -1.0] {
        let hub = add(axle, times(beside, 0.31 * side));
        let axis = unit(add(times(beside, side), [0.0, 0.0, 0.2]));
        wheel(mesh, hub, axis, 0.34, 0.012, 14);
        mesh.hoop(add(hub, times(axis, 0.03)), axis, 0.19, 0.012, 32, RUBBER);
    }
    let nose = add(axle, add(times(ahead, 1.12), [0.0, 0.0, -0.345 + 0.235]));
    wheel(mesh, nose, beside, 0.235, 0.012, 12);
    let seat = add(pelvis, [0.0, 0.0, -0.1]);
    for side in [1.0, -1.0] {
        mesh.rod(add(axle, times(beside, 0.2 * side)), add(seat, times(beside, 0.18 * side)), 0.016, PAINT);
    }
    mesh.rod(add(axle, times(beside, 0.31)), add(axle, times(beside, -0.31)), 0.016, STEEL);
    mesh.rod(axle, toward(axle, nose, 0.86), 0.022, PAINT);
    mesh.rod(toward(axle, nose, 0.86), nose, 0.016, PAINT);
    mesh.block(seat, [times(ahead, 0.2), times(beside, 0.19), [0.0, 0.0, 0.025]], RUBBER);
}

fn standing(thing: &Thing) -> Vec<Figure> {
    let mut mesh = Mesh::default();
    let at = [thing.right_m as f32, thing.away_m as f32, thing.up_m as f32];
    let (sin, cos) = (thing.turned_deg as f32).to_radians().sin_cos();
    let size = thing.size as f32;
    // Turned as seen from above: its own right, and away.
    let (right, away) = ([cos * size, sin * size, 0.0], [-sin * size, cos * size, 0.0]);
    let up = [0.0, 0.0, size];
    let place = |x: f32, y: f32, z: f32| add(at, add(add(times(right, x), times(away, y)), times(up, z)));
    let principal = match thing.what {
        Prop::LongRopes => return long_ropes(at, size),
        Prop::Ball => {
            mesh.round_ball(place(0.0, 0.0, 0.11), 0.11 * size, 14, PALE);
            PALE
        }
        Prop::SmallBall => {
            mesh.round_ball(place(0.0, 0.0, 0.034), 0.034 * size, 10, RED);
            RED
        }
        Prop::Sphere => {
            mesh.round_ball(place(0.0, 0.0, 0.15), 0.15 * size, 24, GREY);
            GREY
        }
        Prop::Card => {
            mesh.sheet(
                &[(place(-0.15, 0.0, 0.0), place(0.15, 0.0, 0.0)), (place(-0.15, 0.0, 0.3), place(0.15, 0.0, 0.3))],
                1,
                |_| GREY,
            );
            GREY
        }
        Prop::Chair => {
            mesh.block(place(0.0, 0.0, 0.45), [times(right, 0.22), times(away, 0.22), times(up, 0.018)], WOOD);
            for (x, y) in [(-0.2, -0.2), (0.2, -0.2), (-0.2, 0.2), (0.2, 0.2)] {
                mesh.rod(place(x, y, 0.0), place(x, y, if y > 0.0 { 0.9 } else { 0.44 }), 0.018 * size, WOOD);
            }
            mesh.block(place(0.0, 0.2, 0.78), [times(right, 0.2), times(away, 0.012), times(up, 0.09)], WOOD);
            WOOD
        }
        Prop::Lectern => {
            mesh.block(place(0.0, 0.0, 0.52), [times(right, 0.2), times(away, 0.15), times(up, 0.52)], WOOD);
            mesh.block(place(0.0, -0.03, 1.08), [times(right, 0.29), times(away, 0.2), times(up, 0.03)], WOOD);
            WOOD
        }
        Prop::Net => {
            for k in 0..=6 {
                let z = 0.25 + k as f32 * 0.12;
                mesh.rod(place(-3.0, 0.0, z), place(3.0, 0.0, z), if k == 6 { 0.03 } else { 0.004 } * size, PALE);
            }
            for k in 0..=44 {
                let x = k as f32 / 44.0 * 6.0 - 3.0;
                mesh.rod(place(x, 0.0, 0.25), place(x, 0.0, 0.97), 0.004 * size, PALE);
            }
            PALE
        }
        Prop::Holds => {
            mesh.block(place(0.0, 0.35, 1.7), [times(right, 1.8), times(away, 0.05), times(up, 1.7)], WOOD);
            for k in 0..46 {
                let (x, z) = (hash(k * 2) * 3.4 - 1.7, hash(k * 2 + 1) * 3.2 + 0.1);
                let radius = size * (0.04 + 0.05 * hash(k + 500));
                let stuff = [PAINT, RED, PALE, RUBBER][(hash(k + 900) * 4.0) as usize % 4];
                mesh.ball(
                    place(x, 0.28, z),
                    [[radius, 0.0, 0.0], [0.0, radius * 0.8, 0.0], [0.0, 0.0, radius * 0.7]],
                    6,
                    stuff,
                );
            }
            WOOD
        }
        Prop::Water | Prop::Drops | Prop::Powder | Prop::Confetti => return vec![pieces(thing, at, size)],
        Prop::Umbrella | Prop::Hoop | Prop::Lantern => {
            if thing.what == Prop::Lantern {
                return vec![lantern(place(0.0, 0.0, 0.3))];
            }
            mesh.hoop(place(0.0, 0.0, 0.43), away, 0.43 * size, 0.012 * size, 48, PAINT);
            PAINT
        }
        _ => {
            // What usually is held lies on the floor, as long as it is.
            mesh.rod(place(-0.45, 0.0, 0.03), place(0.45, 0.0, 0.03), 0.02 * size, WOOD);
            WOOD
        }
    };
    vec![figure(thing.what.drawn_as(), mesh, principal)]
}

/// Two ropes that are turned against each other, between hands 3.9 m apart.
fn long_ropes(at: V3, size: f32) -> Vec<Figure> {
    let rope = |up: bool| {
        let mut mesh = Mesh::default();
        let path: Vec<V3> = (0..=64)
            .map(|k| {
                let t = k as f32 / 64.0;
                let bow = (t * PI).sin().max(0.0).powf(0.8);
                let swing = if up { 1.16 * bow } else { -0.93 * bow };
                add(at, times([(t - 0.5) * 3.2, if up { -0.12 } else { 0.12 } * bow, 0.99 + swing], size))
            })
            .collect();
        mesh.tube(&path, |_| 0.011, 6, PALE);
        let half = 1.62 * size;
        Figure { reverse: !up, swing: Some([-half - at[0], half - at[0]]), ..figure(Some(DrawnAs::Ropes), mesh, PALE) }
    };
    vec![rope(false), rope(true)]
}

/// Bodies of many pieces: each by its own number, so that the same cloud is drawn every time.
fn pieces(thing: &Thing, at: V3, size: f32) -> Figure {
    let mut mesh = Mesh::default();
    let count = if thing.what == Prop::Powder { 620 } else { 190 };
    for k in 0..count {
        let [a, b, c, d] = [hash(k * 4 + 1), hash(k * 4 + 2), hash(k * 4 + 3), hash(k * 4 + 4)];
        let turn = a * TAU;
        match thing.what {
            Prop::Water => {
                // A crown that is thrown up and out.
                let t = b;
                let out = 0.12 + 0.75 * t;
                let high = 1.1 * t * (1.35 - t) * (0.6 + 0.8 * c) + 0.03;
                let place = add(at, times([turn.cos() * out, turn.sin() * out, high], size));
                let way = unit([turn.cos(), turn.sin(), 1.2 - 2.0 * t]);
                let radius = size * (0.006 + 0.02 * d * (1.0 - 0.5 * t));
                let across = aside([0.0, 1.0, 0.1], way);
                mesh.ball(
                    place,
                    [times(way, radius * 1.9), times(across, radius), times(cross(way, across), radius)],
                    4,
                    WATER,
                );
            }
            Prop::Drops => {
                let place = add(at, times([(a - 0.5) * 1.6, (b - 0.5) * 1.0, c * 1.7], size));
                mesh.round_ball(place, size * (0.004 + 0.011 * d * d), 4, WATER);
            }
            Prop::Powder => {
                let out = (b.powf(0.6)) * 0.62;
                let lift = (c - 0.25) * 0.9;
                let place =
                    add(at, times([turn.cos() * out, turn.sin() * out * 0.7, 0.55 + lift * (1.0 - 0.4 * b)], size));
                mesh.round_ball(place, size * (0.003 + 0.024 * d * d * d * (1.0 - 0.5 * b)), 3, PALE);
            }
            _ => {
                let place = add(at, times([(a - 0.5) * 2.6, (b - 0.5) * 1.6, c * 2.4], size));
                let u = unit([d - 0.5, a - 0.5, b - 0.5]);
                let v = aside([c, 0.3, d], u);
                let (u, v) = (times(u, 0.018 * size), times(v, 0.012 * size));
                let stuff = [RED, PAINT, PALE, GLOW][k % 4];
                let stuff = if stuff == GLOW { WOOD } else { stuff };
                mesh.sheet(
                    &[(sub(place, u), add(place, u)), (add(sub(place, u), v), add(add(place, u), v))],
                    1,
                    |_| stuff,
                );
            }
        }
    }
    let principal = if matches!(thing.what, Prop::Water | Prop::Drops) { WATER } else { PALE };
    figure(Some(DrawnAs::Spray), mesh, principal)
}
