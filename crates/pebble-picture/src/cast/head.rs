//! A head: skull, jaw, nose, ears, eyes that look ahead, and hair.

use super::stuff::Fineness;
use super::wardrobe::{EYE, EYE_WHITE, HAIR, LIPS, MESH, SKIN, TOP};
use crate::mesh::Mesh;
use crate::space::{V3, add, sub, times, toward, unit, v3};
use pebble_core::file::stage::{Hair, Outfit, Person};
use pebble_core::stage::body::Skeleton;
use std::f32::consts::{PI, TAU};

/// A head in its own directions.
struct Head {
    at: V3,
    front: V3,
    left: V3,
    up: V3,
    /// Half its height.
    half: f32,
}

/// A smooth hill of height 1 and a half width.
fn hill(from: f32, width: f32) -> f32 {
    let t = from / width;
    (-t * t).exp()
}

impl Head {
    /// A place on the surface: `down` from 0 at the crown to 1 at the chin, `around` from 0 at the face.
    fn surface(&self, down: f32, around: f32) -> V3 {
        let (theta, phi) = (down * PI, around * TAU);
        let (sin, cos) = theta.sin_cos();
        let (side, ahead) = phi.sin_cos();
        let low = (-cos).max(0.0);
        let face = ahead.max(0.0);
        // The skull is longer than wide; below it the jaw narrows and the back runs into the neck.
        let wide = 0.69 - 0.2 * low * low - 0.05 * low;
        let deep = if ahead >= 0.0 { 0.80 - 0.06 * low } else { 0.92 - 0.42 * low };
        // A face is nearly upright from the brow to the chin.
        let round = if ahead > 0.0 && cos < 0.0 { sin.powf(1.0 - 0.5 * ahead) } else { sin };
        let mut reach = [round * ahead * deep, (0.6 * sin + 0.4 * round) * side * wide, cos];
        let turned = if phi > PI { phi - TAU } else { phi };
        // Brow, sockets, nose, lips and chin.
        let brow = 0.035 * hill(down - 0.44, 0.05) * hill(turned, 0.55);
        let sockets = -0.055 * hill(down - 0.495, 0.045) * hill(turned.abs() - 0.42, 0.2);
        let bridge = 0.05 * hill(down - 0.50, 0.06) * hill(turned, 0.11);
        let nose = 0.15 * hill(down - 0.575, 0.045) * hill(turned, 0.15);
        let lips = 0.05 * hill(down - 0.70, 0.035) * hill(turned, 0.3);
        let chin = 0.05 * hill(down - 0.83, 0.07) * hill(turned, 0.45);
        let cheeks = 0.03 * hill(down - 0.56, 0.08) * hill(turned.abs() - 0.75, 0.35);
        let out = (brow + sockets + bridge + nose + lips + chin + cheeks) * face.min(1.0);
        reach[0] += out;
        reach[1] += cheeks * side.signum() * 0.4;
        self.place(reach)
    }

    /// Front, left, up, in halves of the head's height.
    fn place(&self, [front, left, up]: [f32; 3]) -> V3 {
        let way = add(add(times(self.front, front), times(self.left, left)), times(self.up, up));
        add(self.at, times(way, self.half))
    }
}

/// Builds head and hair.
pub(super) fn build(mesh: &mut Mesh, hair: &mut Mesh, person: &Person, body: &Skeleton, fine: Fineness) {
    let axes = body.head_axes;
    let half = body.bones.head as f32;
    let head = Head { at: v3(body.head), front: v3(axes.front), left: v3(axes.left), up: v3(axes.up), half };
    let (rows, columns) = (fine.count(24), fine.count(28));
    mesh.wrapped((rows, columns), |down, around| head.surface(down, around), |_, _| Some(SKIN));
    neck(mesh, body, fine);
    if person.outfit == Outfit::Fencing {
        return mask(mesh, &head, fine);
    }
    for side in [1.0, -1.0] {
        let socket = head.surface(0.497, 0.5 - side * (0.5 - 0.062));
        let eye = add(socket, times(head.front, -0.03 * half));
        let axes = |size: f32| {
            [times(head.front, 0.05 * half), times(head.left, 0.1 * size * half), times(head.up, 0.05 * size * half)]
        };
        mesh.ball(eye, axes(1.0), 5, EYE_WHITE);
        let iris = add(eye, times(head.front, 0.028 * half));
        mesh.ball(
            iris,
            [times(head.front, 0.034 * half), times(head.left, 0.048 * half), times(head.up, 0.05 * half)],
            5,
            EYE,
        );
        let brow: Vec<V3> = [[0.440, 0.026], [0.428, 0.056], [0.440, 0.092]]
            .map(|[down, around]| head.surface(down, 0.5 - side * (0.5 - around)))
            .to_vec();
        mesh.tube(&brow, |t| (0.030 - 0.012 * t) * half, 5, HAIR);
        let ear = head.place([-0.04, 0.70 * side, -0.06]);
        let out = add(times(head.left, side), times(head.front, -0.35));
        mesh.ball(
            ear,
            [times(unit(out), 0.06 * half), times(head.front, 0.13 * half), times(head.up, 0.19 * half)],
            5,
            SKIN,
        );
    }
    let mouth = add(head.surface(0.705, 0.0), times(head.front, -0.028 * half));
    mesh.ball(
        mouth,
        [times(head.front, 0.04 * half), times(head.left, 0.2 * half), times(head.up, 0.04 * half)],
        6,
        LIPS,
    );
    if person.outfit == Outfit::Rider {
        return helmet(mesh, &head, fine);
    }
    coiffure(hair, person, body, &head, fine);
}

fn neck(mesh: &mut Mesh, body: &Skeleton, fine: Fineness) {
    let (half, height) = (body.bones.head as f32, body.bones.height as f32);
    let up = v3(body.head_axes.up);
    let top = add(v3(body.head), add(times(up, -0.42 * half), times(v3(body.head_axes.front), -0.16 * half)));
    let foot = add(v3(body.collar), times(v3(body.chest_axes.up), -0.012 * height));
    let path: Vec<V3> = (0..=4).map(|k| toward(foot, top, k as f32 / 4.0)).collect();
    let girth = body.bones.girth as f32 * 0.058;
    mesh.tube(&path, |t| girth * (1.18 - 0.34 * t + 0.12 * t * t), fine.count(12), SKIN);
}

fn mask(mesh: &mut Mesh, head: &Head, fine: Fineness) {
    let at = head.place([0.1, 0.0, -0.02]);
    let axes =
        [times(head.front, 0.98 * head.half), times(head.left, 0.86 * head.half), times(head.up, 1.14 * head.half)];
    mesh.ball(at, axes, fine.count(11), MESH);
    // The bib over the throat, and the padded edge.
    let at = head.place([0.34, 0.0, -1.05]);
    let axes =
        [times(head.front, 0.42 * head.half), times(head.left, 0.62 * head.half), times(head.up, 0.42 * head.half)];
    mesh.ball(at, axes, fine.count(8), TOP);
    mesh.hoop(head.place([-0.12, 0.0, 0.0]), head.front, 0.96 * head.half, 0.1 * head.half, fine.count(20), TOP);
}

fn helmet(mesh: &mut Mesh, head: &Head, fine: Fineness) {
    let shell = |down: f32, around: f32| {
        let at = head.surface(down, around);
        let away = sub(at, head.at);
        let rim = if down > 0.42 { 0.97 } else { 1.0 };
        add(head.at, times(away, (1.22 - 0.06 * (around * TAU * 5.0).cos().max(0.0)) * rim))
    };
    mesh.wrapped((fine.count(24), fine.count(28)), shell, |down, around| {
        let back = 0.5 - 0.5 * (around * TAU).cos();
        (down < 0.37 + 0.16 * back).then_some(TOP)
    });
    // The strap.
    let strap: Vec<V3> =
        [[0.1, 0.72, 0.0], [0.28, 0.6, -0.6], [0.45, 0.0, -1.0], [0.28, -0.6, -0.6], [0.1, -0.72, 0.0]]
            .map(|p| head.place(p))
            .to_vec();
    mesh.tube(&strap, |_| 0.04 * head.half, 5, EYE);
}

fn coiffure(hair: &mut Mesh, person: &Person, body: &Skeleton, head: &Head, fine: Fineness) {
    let half = head.half;
    let (thick, stuff) = match person.hair {
        Hair::Bald => return,
        Hair::Scarf => (1.09, TOP),
        Hair::Curls => (1.2, HAIR),
        Hair::Short | Hair::Tied | Hair::Long => (1.1, HAIR),
    };
    let covers = |down: f32, around: f32| {
        // Hairline: high over the face, down to the nape behind, before the ears at the sides.
        let back = 0.5 - 0.5 * (around * TAU).cos();
        let line = match person.hair {
            Hair::Scarf => 0.34 + 0.7 * back,
            Hair::Short => 0.31 + 0.3 * back,
            _ => 0.31 + 0.34 * back,
        };
        line - down
    };
    let shell = |down: f32, around: f32| {
        let at = head.surface(down, around);
        let away = sub(at, head.at);
        let deep = (covers(down, around) / 0.06).clamp(-1.0, 1.0);
        let rough = match person.hair {
            Hair::Curls => 1.0 + 0.05 * (around * 75.0).sin() * (down * 61.0).sin(),
            Hair::Scarf => 1.0,
            _ => 1.0 + 0.012 * (around * 88.0 + down * 9.0).sin(),
        };
        let out = if deep > 0.0 { 1.0 + (thick - 1.0) * deep.sqrt() } else { 1.0 + 0.06 * deep };
        add(head.at, times(away, out * rough))
    };
    hair.wrapped((fine.count(28), fine.count(36)), shell, |down, around| {
        (covers(down, around) > -0.03).then_some(stuff)
    });
    let flies = v3(body.head_axes.up);
    let down = [0.0, 0.0, -1.0];
    // Hair hangs, and lags behind a body that is off the floor.
    let lifted = body.legs.iter().map(|leg| leg.tip.z).fold(f64::INFINITY, f64::min) > 0.2;
    let fall = if lifted { unit(add(times(head.front, -0.9), times(flies, 0.35))) } else { down };
    match person.hair {
        Hair::Tied => {
            let root = head.place([-0.86, 0.0, 0.36]);
            hair.round_ball(root, 0.2 * half, 6, stuff);
            let out = unit(add(times(head.front, -1.0), times(flies, 0.25)));
            let path: Vec<V3> = (0..=8)
                .map(|k| {
                    let t = k as f32 / 8.0;
                    let bent = unit(add(times(out, 1.0 - t), times(fall, t * 1.3)));
                    add(root, times(bent, t * 1.9 * half * (1.0 - 0.15 * t)))
                })
                .collect();
            hair.tube(&path, |t| half * (0.17 + 0.12 * (t * PI).sin()) * (1.0 - 0.75 * t * t), fine.count(9), stuff);
        }
        Hair::Long => {
            let thrown = body.head_axes.up.z < 0.75;
            for lock in 0..7 {
                let side = (lock as f32 - 3.0) / 3.0;
                let root = head.place([-0.5 + 0.1 * side.abs(), 0.62 * side, 0.15 - 0.2 * side.abs()]);
                let way = if thrown {
                    unit(add(times(head.front, -0.55), add([0.0, 0.0, 0.85], times(head.left, 0.25 * side))))
                } else {
                    unit(add(fall, times(head.front, -0.18)))
                };
                let path: Vec<V3> = (0..=10)
                    .map(|k| {
                        let t = k as f32 / 10.0;
                        let sag = if thrown {
                            times(add([0.0, 0.0, -1.0], times(flies, -0.4)), 1.5 * t * t * half)
                        } else {
                            [0.0; 3]
                        };
                        let wave = times(head.left, 0.08 * half * (t * 9.0 + lock as f32).sin());
                        add(add(root, times(way, t * if thrown { 4.6 } else { 3.3 } * half)), add(sag, wave))
                    })
                    .collect();
                hair.tube(
                    &path,
                    |t| half * (0.2 + 0.06 * (t * PI).sin()) * (1.0 - 0.6 * t * t * t),
                    fine.count(8),
                    stuff,
                );
            }
        }
        Hair::Short | Hair::Curls | Hair::Bald | Hair::Scarf => {}
    }
}
