//! Arms and legs: tapered where bones are, full where muscles are, in cloth as far as it reaches.

use super::stuff::{Fineness, of_height};
use super::wardrobe::{Clothes, Cover, SHOE, SKIN, SOLE};
use crate::mesh::{Mesh, Ring};
use crate::space::{V3, add, aside, cross, dot, length, sub, through, times, toward, unit, v3};
use pebble_core::stage::body::{Chain, Skeleton};
use pebble_core::stage::poses::Hand;

/// Radius fore and aft, radius to the sides, and how far the middle stands ahead of the bone, as shares of the height.
type Girth = [f32; 3];

const ARM: [(f32, Girth); 14] = [
    // The shoulder is a dome.
    (-0.17, [0.004, 0.004, 0.0]),
    (-0.15, [0.0155, 0.0155, 0.0]),
    (-0.09, [0.0255, 0.0255, 0.0]),
    (0.0, [0.0305, 0.0300, 0.0]),
    (0.16, [0.0320, 0.0305, 0.0]),
    (0.42, [0.0285, 0.026, 0.001]),
    (0.62, [0.0275, 0.0245, 0.001]),
    (0.88, [0.0215, 0.021, 0.0]),
    (1.0, [0.0205, 0.021, 0.0]),
    (1.22, [0.0235, 0.0245, 0.0]),
    (1.45, [0.0205, 0.0215, 0.0]),
    (1.8, [0.0145, 0.017, 0.0]),
    (1.95, [0.0125, 0.0165, 0.0]),
    (2.0, [0.0120, 0.0165, 0.0]),
];

const LEG: [(f32, Girth); 13] = [
    (-0.1, [0.016, 0.012, 0.0]),
    (-0.05, [0.040, 0.032, 0.0]),
    (0.04, [0.054, 0.044, 0.0]),
    (0.28, [0.0535, 0.0455, 0.003]),
    (0.6, [0.0435, 0.040, 0.003]),
    (0.88, [0.0335, 0.0335, 0.001]),
    (1.0, [0.0325, 0.0315, 0.002]),
    (1.14, [0.0300, 0.0295, 0.0]),
    (1.36, [0.0345, 0.0325, -0.007]),
    (1.55, [0.0305, 0.0285, -0.006]),
    (1.8, [0.0210, 0.0205, -0.002]),
    (1.94, [0.0195, 0.0175, 0.0]),
    (2.0, [0.0200, 0.0180, 0.0]),
];

/// A limb's middle line, rounded where it bends.
struct Line<'a>(&'a Chain);

impl Line<'_> {
    fn at(&self, t: f32) -> V3 {
        let (root, joint, end) = (v3(self.0.root), v3(self.0.joint), v3(self.0.end));
        const ROUND: f32 = 0.13;
        if t < 1.0 - ROUND {
            return toward(root, joint, t);
        }
        if t > 1.0 + ROUND {
            return toward(joint, end, t - 1.0);
        }
        // A bow from one bone to the other.
        let (from, to) = (toward(root, joint, 1.0 - ROUND), toward(joint, end, ROUND));
        let s = (t - 1.0 + ROUND) / (2.0 * ROUND);
        let bow = toward(toward(from, joint, s), toward(joint, to, s), s);
        // Flesh and bone stand out at the bend.
        add(bow, times(sub(joint, bow), 0.45))
    }

    fn way(&self, t: f32) -> V3 {
        unit(sub(self.at(t + 0.04), self.at(t - 0.04)))
    }
}

/// Builds a limb as rings; cloth ends where its cover says.
fn limb(
    mesh: &mut Mesh,
    chain: &Chain,
    girths: &[(f32, Girth)],
    (covers, girth, fine): (&[Cover], f32, Fineness),
    tall: f32,
) {
    let line = Line(chain);
    let steps = fine.count(26);
    let start = girths[0].0;
    let mut stations: Vec<f32> = (0..=steps).map(|k| start + (2.0 - start) * k as f32 / steps as f32).collect();
    // A ring on both sides of every edge of cloth.
    for edge in covers.iter().flat_map(|cover| [cover.from, cover.to]).filter(|edge| *edge > start && *edge < 2.0) {
        stations.extend([edge - 0.012, edge, edge + 0.0005]);
    }
    stations.sort_by(f32::total_cmp);
    // The knee's front and the elbow's back: where the limb is thickest fore and aft.
    let fore = v3(chain.faces);
    let bent = length(sub(unit(sub(v3(chain.joint), v3(chain.root))), unit(sub(v3(chain.end), v3(chain.joint)))));
    let rings: Vec<Ring> = stations
        .iter()
        .map(|t| {
            let (t, way) = (*t, line.way(*t));
            let u = aside(fore, way);
            let [ahead, side, offset] = through(girths, t);
            let worn = covers.iter().find(|cover| t >= cover.from && t <= cover.to);
            let mut loose = worn.map_or(0.0, |cover| cover.loose * tall);
            if let Some(cover) = worn {
                // Loose cloth hangs wider towards its edge, and gathers where the limb bends.
                loose *= 0.6 + 0.6 * ((t - cover.from.max(0.0)) / (cover.to - cover.from.max(0.0))).clamp(0.0, 1.0);
            }
            let folds = worn.map_or(0.0, |cover| cover.folds * (0.5 + bent * (1.0 - (t - 1.0).abs()).max(0.0)));
            let at = add(line.at(t), times(u, offset * tall * girth));
            Ring {
                at,
                u: times(u, ahead * tall * girth + loose),
                v: times(cross(way, u), side * tall * girth + loose),
                stuff: worn.map_or(SKIN, |cover| cover.stuff),
                fold: (folds, t),
            }
        })
        .collect();
    mesh.loft(&rings, fine.count(16), |_, _| None);
}

/// An arm with its hand.
pub(super) fn arm(
    mesh: &mut Mesh,
    hands: &mut Mesh,
    body: &Skeleton,
    side: usize,
    (clothes, hand, fine): (&Clothes, Hand, Fineness),
) {
    let chain = &body.arms[side];
    let tall = body.bones.height as f32;
    let girth = body.bones.girth as f32 * 1.74 / tall;
    limb(mesh, chain, &ARM, (clothes.arms, girth, fine), tall);
    fingers(hands, body, chain, side, hand, fine);
}

/// A palm, four fingers and a thumb; or a fist.
fn fingers(mesh: &mut Mesh, body: &Skeleton, chain: &Chain, side: usize, hand: Hand, fine: Fineness) {
    let of = of_height(body);
    let (wrist, way) = (v3(chain.end), unit(sub(v3(chain.tip), v3(chain.end))));
    // The palm faces the body, the thumb ahead.
    let inward = times(v3(body.chest_axes.left), if side == 0 { -1.0 } else { 1.0 });
    let normal = aside(inward, way);
    let across = cross(way, normal);
    let thumbward = if dot(across, v3(body.chest_axes.front)) >= 0.0 { across } else { times(across, -1.0) };
    let ring = |along: f32, wide: f32, thick: f32| Ring {
        at: add(wrist, times(way, of(along))),
        u: times(normal, of(thick)),
        v: times(thumbward, of(wide)),
        stuff: SKIN,
        fold: (0.0, 0.0),
    };
    match hand {
        Hand::Fist => {
            let rings = [
                ring(-0.008, 0.015, 0.012),
                ring(0.008, 0.020, 0.015),
                ring(0.024, 0.0245, 0.019),
                ring(0.040, 0.0245, 0.0215),
                ring(0.051, 0.021, 0.019),
                ring(0.056, 0.012, 0.012),
            ];
            mesh.loft(&rings, fine.count(12), |_, _| None);
            let thumb = [ring(0.022, 0.0, 0.0).at, ring(0.05, 0.0, 0.0).at];
            let out =
                |at: V3, wide: f32, thick: f32| add(at, add(times(thumbward, of(wide)), times(normal, of(thick))));
            mesh.tube(
                &[out(thumb[0], 0.022, 0.004), out(thumb[1], 0.016, 0.018), out(thumb[1], 0.002, 0.022)],
                |t| of(0.0085 - 0.002 * t),
                7,
                SKIN,
            );
        }
        Hand::Open => {
            let palm = [
                ring(-0.008, 0.0155, 0.012),
                ring(0.012, 0.020, 0.0105),
                ring(0.036, 0.0245, 0.009),
                ring(0.054, 0.0235, 0.007),
            ];
            mesh.loft(&palm, fine.count(12), |_, _| None);
            for finger in 0..4 {
                let place = (finger as f32 - 1.5) * 0.0118;
                let root = add(add(wrist, times(way, of(0.050))), times(thumbward, of(-place)));
                let long = [0.036, 0.046, 0.050, 0.044][3 - finger];
                let spread = unit(add(way, times(thumbward, -place * 5.0)));
                let curl = |t: f32| add(add(root, times(spread, of(long * t))), times(normal, of(0.012 * t * t)));
                mesh.tube(&[curl(0.0), curl(0.4), curl(0.75), curl(1.0)], |t| of(0.0064 - 0.0022 * t), 6, SKIN);
            }
            let root = add(add(wrist, times(way, of(0.016))), times(thumbward, of(0.018)));
            let out = unit(add(times(way, 0.75), times(thumbward, 0.6)));
            mesh.tube(
                &[root, add(root, times(out, of(0.02))), add(root, times(unit(add(out, times(way, 0.6))), of(0.042)))],
                |t| of(0.0085 - 0.003 * t),
                7,
                SKIN,
            );
        }
    }
}

/// A leg with its foot or shoe.
pub(super) fn leg(mesh: &mut Mesh, body: &Skeleton, side: usize, (clothes, fine): (&Clothes, Fineness)) {
    let chain = &body.legs[side];
    let tall = body.bones.height as f32;
    let girth = body.bones.girth as f32 * 1.74 / tall;
    limb(mesh, chain, &LEG, (clothes.legs, girth, fine), tall);
    foot(mesh, body, chain, clothes.shoes, fine);
}

/// Height of the top of a foot over its sole and half its width, along it from the ankle.
const FOOT: [(f32, f32, f32); 9] = [
    (-0.040, 0.022, 0.010),
    (-0.036, 0.040, 0.017),
    (-0.020, 0.050, 0.0205),
    (0.004, 0.053, 0.021),
    (0.032, 0.044, 0.021),
    (0.064, 0.031, 0.024),
    (0.088, 0.023, 0.0255),
    (0.106, 0.016, 0.021),
    (0.114, 0.009, 0.010),
];

fn foot(mesh: &mut Mesh, body: &Skeleton, chain: &Chain, shod: bool, fine: Fineness) {
    let of = of_height(body);
    let along = unit(sub(v3(chain.tip), v3(chain.end)));
    let up = aside(sub(v3(chain.joint), v3(chain.end)), along);
    let aside = cross(along, up);
    let sole = add(v3(chain.end), times(up, -body.bones.ankle as f32));
    let swell = if shod { 1.1 } else { 1.0 };
    let long = body.bones.foot as f32 / of(0.15);
    let rings: Vec<Ring> = FOOT
        .iter()
        .map(|(x, top, half)| {
            let lift = if *x > 0.08 { (x - 0.08) * 0.25 } else { 0.0 };
            Ring {
                at: add(add(sole, times(along, of(*x) * long)), times(up, of(0.5 * top * swell + lift))),
                u: times(up, of(0.5 * top * swell)),
                v: times(aside, of(half * swell)),
                stuff: if shod { SHOE } else { SKIN },
                fold: (0.0, 0.0),
            }
        })
        .collect();
    // Below the middle of each ring is the sole: `u` is up, so that half a turn from it is down.
    let under = |angle: f32| angle.cos() < -0.62;
    mesh.loft(&rings, fine.count(14), |_, angle| (shod && under(angle)).then_some(SOLE));
}
