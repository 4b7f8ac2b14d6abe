//! The trunk from the crotch to the neck, and what hangs from it.

use super::stuff::Fineness;
use super::wardrobe::{BOTTOM, Clothes, SKIN, TOP, TRIM};
use crate::mesh::{Mesh, Ring};
use crate::space::{V3, add, cross, dot, sub, through, times, toward, unit, v3};
use pebble_core::file::stage::{Outfit, Person, Pose};
use pebble_core::stage::body::Skeleton;

/// Half width, half depth, and how far the middle stands ahead of the spine, from the crotch to the neck.
const TRUNK: [(f32, [f32; 3]); 13] = [
    (-0.05, [0.026, 0.034, 0.002]),
    (0.02, [0.064, 0.052, -0.002]),
    (0.10, [0.092, 0.064, -0.007]),
    (0.22, [0.0955, 0.064, -0.005]),
    (0.40, [0.079, 0.055, 0.003]),
    (0.54, [0.080, 0.057, 0.005]),
    (0.70, [0.092, 0.066, 0.007]),
    (0.82, [0.100, 0.066, 0.006]),
    (0.90, [0.101, 0.056, 0.0]),
    (0.955, [0.088, 0.046, -0.004]),
    (1.0, [0.062, 0.040, -0.006]),
    (1.04, [0.042, 0.036, -0.005]),
    (1.09, [0.033, 0.034, -0.002]),
];

pub(super) fn build(
    mesh: &mut Mesh,
    cloth: &mut Mesh,
    person: &Person,
    body: &Skeleton,
    (clothes, fine): (&Clothes, Fineness),
) {
    let tall = body.bones.height as f32;
    let girth = body.bones.girth as f32 * 1.74 / tall;
    let (pelvis, waist, collar) = (v3(body.pelvis), v3(body.waist), v3(body.collar));
    let crotch = sub(pelvis, times(v3(body.pelvis_axes.up), 0.055 * tall));
    let spine = [(0.0, crotch), (0.158, pelvis), (0.49, waist), (1.0, collar)];
    let (low, high) = (body.pelvis_axes, body.chest_axes);
    let steps = fine.count(30);
    let mut stations: Vec<f32> = (0..=steps).map(|k| -0.05 + 1.14 * k as f32 / steps as f32).collect();
    for edge in [clothes.hem, clothes.waistline].into_iter().filter(|edge| (0.0..1.0).contains(edge)) {
        stations.extend([edge - 0.004, edge + 0.004]);
    }
    stations.sort_by(f32::total_cmp);
    let rings: Vec<Ring> = stations
        .iter()
        .map(|s| {
            let s = *s;
            let t = ((s - 0.12) / 0.7).clamp(0.0, 1.0);
            let blend = |a: V3, b: V3| unit(toward(a, b, t * t * (3.0 - 2.0 * t)));
            let up = blend(v3(low.up), v3(high.up));
            let left = blend(v3(low.left), v3(high.left));
            let left = unit(sub(left, times(up, dot(left, up))));
            let front = cross(left, up);
            let front =
                if dot(front, v3(high.front)) + dot(front, v3(low.front)) < 0.0 { times(front, -1.0) } else { front };
            let upper = s > clothes.hem;
            // A shirt hangs straight from the hips, and over what is worn on the legs.
            let hung = if upper && clothes.loose > 0.004 { s.max(0.2) } else { s };
            let [wide, deep, ahead] = through(&TRUNK, hung);
            let wide = if hung > s { wide + 0.012 } else { wide };
            let (stuff, loose) = if s > if clothes.bare { clothes.waistline } else { 1.02 } {
                (SKIN, 0.0)
            } else if upper {
                (TOP, clothes.loose)
            } else {
                (BOTTOM, 0.011)
            };
            let hangs = if upper { 1.0 + 0.8 * ((0.55 - s) / 0.5).clamp(0.0, 1.0) } else { 1.0 };
            let at = add(line(&spine, s), times(front, ahead * tall * girth));
            Ring {
                at,
                u: times(left, wide * tall * girth + loose * hangs * tall),
                v: times(front, deep * tall * girth + loose * hangs * tall),
                stuff,
                fold: (if upper { clothes.folds * (1.0 - 0.75 * s) } else { 0.0 }, s * 2.0),
            }
        })
        .collect();
    let suit = person.outfit == Outfit::Suit;
    let trim = person.outfit == Outfit::Sport;
    let belt = person.outfit == Outfit::Whites;
    mesh.loft(&rings, fine.count(26), |ring, angle| {
        let (s, ahead) = (stations[ring], angle.sin());
        // A shirt front, a stripe across the chest, a belt.
        let shirt = suit && s > 0.955 && ahead > -0.6;
        let stripe = trim && (0.66..0.72).contains(&s);
        let band = belt && (0.42..0.47).contains(&s);
        match () {
            () if shirt || stripe => Some(TRIM),
            () if band => Some(BOTTOM),
            () => None,
        }
    });
    if let Some(long) = clothes.skirt {
        skirt(cloth, person.pose, body, long, fine);
    }
}

/// The spine's middle line, smooth through its four places.
fn line(spine: &[(f32, V3)], s: f32) -> V3 {
    if s < 0.0 {
        return add(spine[0].1, times(sub(spine[1].1, spine[0].1), s / spine[1].0));
    }
    if s > 1.0 {
        let (last, before) = (spine[3], spine[2]);
        return add(last.1, times(sub(last.1, before.1), (s - 1.0) / (last.0 - before.0)));
    }
    through(spine, s)
}

/// A skirt: hangs from the waist around both thighs and swings out below. It lags behind who runs or leaps, and flies out
/// around who turns.
fn skirt(mesh: &mut Mesh, pose: Pose, body: &Skeleton, long: f32, fine: Fineness) {
    let tall = body.bones.height as f32;
    let (up, left, front) = (v3(body.pelvis_axes.up), v3(body.pelvis_axes.left), v3(body.pelvis_axes.front));
    let top = add(v3(body.pelvis), times(up, 0.09 * tall));
    let knees = toward(v3(body.legs[0].joint), v3(body.legs[1].joint), 0.5);
    let apart = sub(v3(body.legs[0].joint), v3(body.legs[1].joint));
    let hem = toward(v3(body.pelvis), knees, long);
    let spread = (dot(apart, left).abs() * 0.5, dot(apart, front).abs() * 0.5);
    let lifted = body.legs.iter().all(|leg| leg.tip.z > 0.2);
    // A stride as wide as half a thigh carries the hem back as far; off the floor nothing holds it.
    let lags = if lifted { 0.12 * tall } else { (spread.1 - 0.05 * tall).clamp(0.0, 0.1 * tall) };
    let flies = if pose == Pose::Spin { 0.095 * tall } else { 0.0 };
    let rings: Vec<Ring> = (0..=12)
        .map(|k| {
            let t = k as f32 / 12.0;
            let (wide, deep) = (tall * (0.078 + 0.075 * t) + spread.0 * t, tall * (0.06 + 0.075 * t) + spread.1 * t);
            let (behind, out) = (lags * t * t, flies * t * t);
            let hangs = add(toward(top, hem, t), times(front, -behind));
            Ring {
                at: add(hangs, times(up, 0.8 * out + 0.3 * behind)),
                u: times(left, wide + out),
                // The back of the hem is carried up, the front lies against the thighs.
                v: add(times(front, deep + out), times(up, -0.7 * behind)),
                stuff: TOP,
                fold: (0.11 * t, 0.3 + 0.12 * t),
            }
        })
        .collect();
    mesh.loft(&rings, fine.count(36), |_, _| None);
}
