//! A body as bones in metres, and how a pose holds them.
//!
//! Lengths are shares of the standing height, after the usual anthropometric means for adults (segment lengths as shares
//! of stature); a pose only turns bones, so that none is ever stretched.

use super::poses::{Limb, Posture};
use super::space::{Axes, Spot, spot};
use crate::file::stage::{Build, Person};

/// Shares of the standing height.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Bones {
    /// Standing height, in metres.
    pub height: f64,
    /// Half the width between the hips.
    pub hip: f64,
    /// Hips to waist.
    pub loin: f64,
    /// Waist to the pit of the neck.
    pub chest: f64,
    /// Half the width of the shoulders.
    pub shoulder: f64,
    /// Pit of the neck to the middle of the head.
    pub neck: f64,
    /// Half the height of the head.
    pub head: f64,
    /// Shoulder to elbow.
    pub upper_arm: f64,
    /// Elbow to wrist.
    pub forearm: f64,
    /// Wrist to fingertips.
    pub hand: f64,
    /// Hip to knee.
    pub thigh: f64,
    /// Knee to ankle.
    pub shin: f64,
    /// Heel to toes.
    pub foot: f64,
    /// Ankle over the sole.
    pub ankle: f64,
    /// Girth against the usual one.
    pub girth: f64,
}

impl Bones {
    /// Of a person.
    pub fn of(person: &Person) -> Self {
        let child = person.build == Build::Child;
        let height = person.height_m * if child { CHILD } else { 1.0 };
        let (girth, wide) = match person.build {
            Build::Usual => (1.0, 1.0),
            Build::Slim => (0.9, 0.96),
            Build::Broad => (1.16, 1.1),
            // A child's head is nearly as big as a grown one's, its limbs are shorter.
            Build::Child => (1.06, 0.96),
        };
        let (head, limb) = if child { (1.3, 0.93) } else { (1.0, 1.0) };
        let of = |share: f64| share * height;
        Self {
            height,
            hip: of(0.0505 * wide),
            loin: of(0.115),
            chest: of(0.178),
            shoulder: of(0.108 * wide),
            neck: of(0.094 * (1.0 + (head - 1.0) * 0.5)),
            head: of(0.066 * head),
            upper_arm: of(0.172 * limb),
            forearm: of(0.148 * limb),
            hand: of(0.105 * limb),
            thigh: of(0.242 * limb),
            shin: of(0.236 * limb),
            foot: of(0.15),
            ankle: of(0.042),
            girth: girth * height / USUAL,
        }
    }
}

/// Height for which the tables of girths are written.
const USUAL: f64 = 1.74;
/// Height of a child of about six against a grown one.
const CHILD: f64 = 0.67;

/// An arm or a leg: from the trunk outwards.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Chain {
    /// Shoulder or hip.
    pub root: Spot,
    /// Elbow or knee.
    pub joint: Spot,
    /// Wrist or ankle.
    pub end: Spot,
    /// Fingertips or toes.
    pub tip: Spot,
    /// Where the back of the elbow or the front of the knee points.
    pub faces: Spot,
}

/// A posed body. Of pairs, its own left is first.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Skeleton {
    /// Its bones.
    pub bones: Bones,
    /// Middle between the hips.
    pub pelvis: Spot,
    /// Which way the pelvis faces.
    pub pelvis_axes: Axes,
    /// Waist.
    pub waist: Spot,
    /// Pit of the neck.
    pub collar: Spot,
    /// Which way the chest faces.
    pub chest_axes: Axes,
    /// Middle of the head.
    pub head: Spot,
    /// Which way the face looks.
    pub head_axes: Axes,
    /// Arms.
    pub arms: [Chain; 2],
    /// Legs.
    pub legs: [Chain; 2],
}

impl Skeleton {
    /// A person in a posture. A bone of no length is a point, and everything beyond it stands where it ends.
    pub fn of(person: &Person, posture: &Posture) -> Self {
        let bones = Bones::of(person);
        let side = if person.mirrored { -1.0 } else { 1.0 };
        // A mirrored person is built as it is and seen in a mirror that stands at the mark.
        let stands = Axes::turned(posture.turned + person.turned_deg * side);
        let body = stands.leaning(posture.whole[0], posture.whole[1], 0.0);
        let [lean, aside, twist] = posture.trunk;
        let pelvis_axes = body.leaning(lean * 0.45, aside * 0.45, 0.0);
        let loin = body.leaning(lean * 0.72, aside * 0.75, twist * 0.5);
        let chest_axes = body.leaning(lean, aside, twist);
        let pelvis = spot(0.0, 0.0, 0.0);
        let waist = pelvis + loin.up * bones.loin;
        let collar = waist + chest_axes.up * bones.chest;
        let [nod, tilt, turn] = posture.head;
        let head_axes = body.leaning(nod, tilt, turn);
        let neck = (chest_axes.up * 0.4 + head_axes.up * 0.6).unit();
        let head = collar + neck * bones.neck + head_axes.front * (0.18 * bones.head);

        let arm = |of: &Limb, side: f64| {
            // Raised arms take the shoulder with them.
            let upper = body.hanging(of.first[0], of.first[1], side);
            let raised = (0.5 + 0.5 * upper.dot(chest_axes.up)).clamp(0.0, 1.0);
            let root = collar + chest_axes.left * (side * bones.shoulder * (1.0 - 0.12 * raised))
                - chest_axes.up * (bones.height * (0.022 - 0.03 * raised));
            let fore = body.hanging(of.second[0], of.second[1], side);
            chain(root, [upper, fore, fore], [bones.upper_arm, bones.forearm, bones.hand], chest_axes.front * -1.0)
        };
        let leg = |of: &Limb, side: f64| {
            let root = pelvis + pelvis_axes.left * (side * bones.hip) - pelvis_axes.up * (0.012 * bones.height);
            let (thigh, shin) =
                (body.hanging(of.first[0], of.first[1], side), body.hanging(of.second[0], of.second[1], side));
            let toes = body.hanging(of.tip, of.second[1] * 0.3 + 8.0, side);
            chain(root, [thigh, shin, toes], [bones.thigh, bones.shin, bones.foot * 0.74], body.front)
        };
        let arms = [arm(&posture.arms[0], 1.0), arm(&posture.arms[1], -1.0)];
        let legs = [leg(&posture.legs[0], 1.0), leg(&posture.legs[1], -1.0)];
        let mut built = Self { bones, pelvis, pelvis_axes, waist, collar, chest_axes, head, head_axes, arms, legs };
        let up = posture.lift * bones.height / USUAL + person.up_m - built.lowest();
        built = built.moved(spot(0.0, 0.0, up));
        if person.mirrored {
            built = built.mirrored();
        }
        built.moved(spot(person.right_m, person.away_m, 0.0))
    }

    /// Lowest place of the body.
    fn lowest(&self) -> f64 {
        let bones = &self.bones;
        let sole = |leg: &Chain| {
            let toes = (leg.tip - leg.end).unit();
            // The sole is an ankle's height under the foot, on the side away from the shin.
            let down = (toes * (leg.end - leg.joint).dot(toes) - (leg.end - leg.joint)).unit() * -bones.ankle;
            (leg.end.z + down.z).min(leg.tip.z + down.z * 0.6)
        };
        let round = |place: Spot, radius: f64| place.z - radius * bones.height;
        [
            sole(&self.legs[0]),
            sole(&self.legs[1]),
            round(self.legs[0].joint, 0.03),
            round(self.legs[1].joint, 0.03),
            round(self.arms[0].tip, 0.005),
            round(self.arms[1].tip, 0.005),
            round(self.arms[0].joint, 0.02),
            round(self.arms[1].joint, 0.02),
            round(self.pelvis, 0.075),
            self.head.z - bones.head,
        ]
        .into_iter()
        .fold(f64::INFINITY, f64::min)
    }

    /// All places changed alike.
    fn mapped(self, place: impl Fn(Spot) -> Spot + Copy, way: impl Fn(Spot) -> Spot + Copy) -> Self {
        let axes = |of: Axes| Axes { front: way(of.front), left: way(of.left), up: way(of.up) };
        let chain = |of: Chain| Chain {
            root: place(of.root),
            joint: place(of.joint),
            end: place(of.end),
            tip: place(of.tip),
            faces: way(of.faces),
        };
        Self {
            bones: self.bones,
            pelvis: place(self.pelvis),
            pelvis_axes: axes(self.pelvis_axes),
            waist: place(self.waist),
            collar: place(self.collar),
            chest_axes: axes(self.chest_axes),
            head: place(self.head),
            head_axes: axes(self.head_axes),
            arms: self.arms.map(chain),
            legs: self.legs.map(chain),
        }
    }

    fn moved(self, by: Spot) -> Self {
        self.mapped(|at| at + by, |way| way)
    }

    fn mirrored(self) -> Self {
        let flip = |at: Spot| spot(-at.x, at.y, at.z);
        self.mapped(flip, flip)
    }

    /// The hand's middle.
    pub fn palm(&self, hand: usize) -> Spot {
        self.arms[hand].end.toward(self.arms[hand].tip, 0.45)
    }
}

fn chain(root: Spot, ways: [Spot; 3], lengths: [f64; 3], faces: Spot) -> Chain {
    let joint = root + ways[0] * lengths[0];
    let end = joint + ways[1] * lengths[1];
    // Where it is bent the joint points away from the bend.
    let bend = ways[0] - ways[1];
    let faces = if bend.length() > 0.15 { bend.unit() } else { faces };
    Chain { root, joint, end, tip: end + ways[2] * lengths[2], faces }
}
