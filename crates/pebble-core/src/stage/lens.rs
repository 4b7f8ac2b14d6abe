//! What of the set the lens sees: faces, stands, corners of the frame on whatever is behind.
//!
//! model.md §12: a light is in the picture when any point of its face, or of its stand down to the floor, is seen within the
//! frame and not hidden by the figure or by what is behind.

use super::field::{CHEST, Lamp};
use super::framing::View;
use super::space::{AROUND, Spot, spot};

/// Half the width and the height of a figure that hides what stands behind it.
const FIGURE_M: (f64, f64) = (0.3, 1.8);
/// As far as somebody carries a light for it.
pub const FARTHEST_M: f64 = 8.0;
/// How far outside the frame's edge something has to be to be clear of it.
const CLEAR_M: f64 = 0.1;
/// In so many steps to a metre somebody is told to carry something.
const STEPS_A_METRE: f64 = 10.0;
/// No light is nearer to a chest than this, in centimetres.
const CLOSEST_CM: u32 = 30;
/// Places along a stand.
const ALONG: usize = 16;
/// Nearer to the lens than this, in depth, a place is beside it.
const BESIDE_M: f64 = 0.05;

/// The camera in the set, with half of what its frame covers at its distance.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Lens {
    /// Where it is and looks.
    pub view: View,
    /// Half the frame's width and height at its distance, as the camera is held.
    pub half: (f64, f64),
    /// The focal length that is set, and the longest that the lens has, in metres.
    pub focal: (f64, f64),
    /// How far behind the mark the background is.
    pub behind: f64,
    /// Whether somebody stands on the mark.
    pub figure: bool,
}

/// Which way something is carried.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Way {
    /// Away from the mark.
    Back,
    /// To the camera's left.
    Left,
    /// To its right.
    Right,
}

impl Way {
    /// In a word.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Back => "back",
            Self::Left => "left",
            Self::Right => "right",
        }
    }
}

/// A move of a light that takes it out of the picture.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Move {
    /// Which way.
    pub way: Way,
    /// How far, in whole tenths of a metre.
    pub by: f64,
    /// Where it then is.
    pub to: Spot,
}

/// What of a light can be seen: its face, and what holds it.
#[derive(Clone, Copy, Debug, PartialEq, Default)]
pub struct Held {
    /// Radius of its face, in metres.
    pub radius: f64,
    /// How far back from its head, away from the mark, its stand is where it hangs on a boom.
    pub boom: Option<f64>,
}

/// What of a light the lens sees.
#[derive(Clone, Copy, Debug, PartialEq, Default)]
pub struct Shown {
    /// Its face.
    pub face: bool,
    /// Its stand, or the arm of its boom.
    pub stand: bool,
    /// Whether that is a boom.
    pub boom: bool,
    /// How far inside the frame's edge the deepest of it is, in metres at its depth.
    pub inside: f64,
}

impl Shown {
    /// Whether anything is.
    pub const fn any(&self) -> bool {
        self.face || self.stand
    }

    /// In words.
    pub fn words(&self) -> Vec<String> {
        let said = [(self.face, "face"), (self.stand, if self.boom { "boom" } else { "stand" })];
        said.iter().filter(|(shows, _)| *shows).map(|(_, word)| (*word).to_owned()).collect()
    }
}

/// Where the top of a stand is: under the face, or on a boom so much farther from the mark.
pub fn stand_top(at: Spot, boom: Option<f64>) -> Spot {
    let back = boom.unwrap_or(0.0) / at.x.hypot(at.y).max(1e-9);
    at + spot(at.x * back, at.y * back, 0.0)
}

impl Lens {
    /// How far beyond the frame's edge a place is, in metres at its depth: negative inside.
    pub fn beyond(&self, place: Spot) -> f64 {
        let View { eye, right, up, forward, distance, .. } = self.view;
        let way = place - eye;
        let depth = way.dot(forward);
        if depth <= BESIDE_M {
            return f64::INFINITY;
        }
        let scale = depth / distance;
        let across = way.dot(right).abs() - self.half.0 * scale;
        let over = way.dot(up).abs() - self.half.1 * scale;
        across.max(over)
    }

    /// Whether the figure or what is behind hides a place.
    pub fn hides(&self, place: Spot) -> bool {
        if place.y > self.behind {
            return true;
        }
        if !self.figure || place.y <= 0.0 {
            return false;
        }
        // Where the line of sight passes the plane of the mark.
        let eye = self.view.eye;
        let passes = eye + (place - eye) * (-eye.y / (place.y - eye.y));
        passes.x.abs() < FIGURE_M.0 && passes.z < FIGURE_M.1
    }

    fn face(at: Spot, radius: f64) -> impl Iterator<Item = Spot> {
        // Turned to the chest: two directions square to its axis.
        let axis = at - CHEST;
        let flat = axis.x.hypot(axis.y).max(1e-9);
        let side = spot(-axis.y / flat, axis.x / flat, 0.0);
        let length = axis.length().max(1e-9);
        let other = (axis * (1.0 / length)).cross(side);
        AROUND.iter().map(move |(sine, cosine)| at + side * (radius * cosine) + other * (radius * sine))
    }

    /// Its stand down to the floor; on a boom the arm to it as well.
    fn stand(at: Spot, boom: Option<f64>) -> impl Iterator<Item = Spot> {
        let top = stand_top(at, boom);
        let share = |k: usize| k as f64 / ALONG as f64;
        let arm = if boom.is_some() { ALONG } else { 0 };
        (0..=ALONG)
            .map(move |k| spot(top.x, top.y, top.z * share(k)))
            .chain((0..arm).map(move |k| at.toward(top, share(k))))
    }

    /// What of a light is in the picture.
    pub fn shows(&self, at: Spot, held: Held) -> Shown {
        // What stands behind the camera, or far off to its side, is not looked at point by point.
        if held.boom.is_none() && self.beyond(at) > held.radius + 2.0 * at.z.abs() + 1.0 {
            return Shown::default();
        }
        let inside = |place: Spot| {
            let beyond = self.beyond(place);
            if beyond < 0.0 && !self.hides(place) { -beyond } else { 0.0 }
        };
        let face = Self::face(at, held.radius).chain([at]).map(inside).fold(0.0, f64::max);
        let stand = Self::stand(at, held.boom).map(inside).fold(0.0, f64::max);
        Shown { face: face > 0.0, stand: stand > 0.0, boom: held.boom.is_some(), inside: face.max(stand) }
    }

    /// Whether it looks into a light: it stands in its beam, and nothing is between them.
    pub fn looks_into(&self, lamp: &Lamp) -> bool {
        lamp.shines_at(self.view.eye) && !self.hides(lamp.at)
    }

    /// How far a light has to be carried some way at least until the lens does not see it; nothing where it is clear. Each of
    /// its points comes clear where it passes an edge of the frame or the plane of the lens, all of which are straight.
    fn least(&self, at: Spot, toward: Spot, held: Held) -> Option<f64> {
        let View { eye, right, up, forward, distance, .. } = self.view;
        let [across, over, deeper] = [right, up, forward].map(|axis| toward.dot(axis));
        let (side, top) = (self.half.0 / distance, self.half.1 / distance);
        // How much way a metre to each edge and to the lens takes, of points that go so much farther than the light: the same
        // for all of them.
        let takes = |turned: f64| {
            let way = |rate: f64| if rate > 1e-12 { 1.0 / rate } else { f64::INFINITY };
            let edge = |by: f64, edge: f64| way(by - edge * deeper + turned * (1.0 + edge));
            ([edge(across, side), edge(-across, side), edge(over, top), edge(-over, top)], way(turned - deeper))
        };
        let needs = |place: Spot, (edges, lens): ([f64; 4], f64)| {
            let way = place - eye;
            let [x, z, depth] = [right, up, forward].map(|axis| way.dot(axis));
            if depth <= BESIDE_M {
                return None;
            }
            let (beside, over) = (CLEAR_M + side * depth, CLEAR_M + top * depth);
            let lacks = [beside - x, beside + x, over - z, over + z];
            if lacks.iter().any(|lacks| *lacks <= 0.0) {
                return None;
            }
            Some(
                lacks.iter().zip(edges).fold((depth - BESIDE_M) * lens, |least, (lacks, edge)| least.min(lacks * edge)),
            )
        };
        // The middle goes as far as is walked; so does a stand that is under it. A face is turned to the chest all the while:
        // its rim goes farther by as much as the light goes round the mark, the more the nearer it passes.
        let flat = spot(at.x, at.y, 0.0);
        let along = flat.dot(toward).min(0.0);
        let passes = (flat.dot(flat) - along * along).max(0.0).sqrt();
        let turned = held.radius / passes.max(1e-6);
        let (carried, turns) = (takes(0.0), takes(turned));
        let unknown = if held.boom.is_some() { takes(f64::INFINITY) } else { carried };
        let middle = [at].into_iter().filter_map(|place| needs(place, carried));
        let stand = Self::stand(at, held.boom).filter_map(|place| needs(place, unknown));
        let rim = Self::face(at, held.radius).filter_map(|place| needs(place, turns));
        middle.chain(stand).chain(rim).reduce(f64::max)
    }

    /// The first of the steps along a way from which a light is not seen.
    fn first_clear(&self, at: Spot, toward: Spot, held: Held) -> Option<f64> {
        let steps = (FARTHEST_M * STEPS_A_METRE) as usize;
        let mut step = 1;
        while step <= steps {
            let by = step as f64 / STEPS_A_METRE;
            let there = at + toward * by;
            let Some(least) = self.least(there, toward, held) else { return Some(by) };
            // One that never comes clear this way is beyond the last step at once.
            step += (least * STEPS_A_METRE).clamp(1.0, steps as f64) as usize;
        }
        None
    }

    /// The smallest moves of each kind that clear a light, the smallest first.
    pub fn moves(&self, at: Spot, held: Held) -> Vec<Move> {
        let flat = at.x.hypot(at.y).max(1e-9);
        let ways = [
            (Way::Back, spot(at.x / flat, at.y / flat, 0.0)),
            (Way::Left, spot(-1.0, 0.0, 0.0)),
            (Way::Right, spot(1.0, 0.0, 0.0)),
        ];
        let mut found: Vec<Move> = ways
            .into_iter()
            .filter_map(|(way, toward)| {
                let by = self.first_clear(at, toward, held)?;
                Some(Move { way, by, to: at + toward * by })
            })
            .collect();
        found.sort_by(|a, b| a.by.total_cmp(&b.by));
        found
    }

    /// As near as a light comes on its own line to what it is measured to, in whole centimetres, so that from there on outwards the lens
    /// sees nothing of it; nothing where it is seen however far it is carried.
    pub fn nearest(&self, middle: Spot, at: Spot, held: Held) -> Option<f64> {
        let line = (at - middle).unit();
        let seen = |cm: &u32| self.shows(middle + line * (f64::from(*cm) / 100.0), held).any();
        // Beyond the camera it is behind it.
        let most = (10.0 * FARTHEST_M.max(self.view.distance + 1.0)) as u32 * 10;
        // Through the tenths first, then through the centimetres of the last that is seen.
        let Some(last) = (CLOSEST_CM / 10..=most / 10).rev().map(|tenths| tenths * 10).find(seen) else {
            return Some(f64::from(CLOSEST_CM) / 100.0);
        };
        let nearest = (last..last + 10).rev().find(seen).map_or(last, |cm| cm + 1);
        (nearest <= most).then(|| f64::from(nearest) / 100.0)
    }

    /// The frame's left and right edges on the plan, and its upper and lower ones from the side, at a depth of the set.
    pub fn edges(&self, behind: f64) -> ([[f64; 2]; 2], [[f64; 2]; 2]) {
        let at = |across: f64, over: f64| {
            let way = self.ray(across * self.half.0, over * self.half.1);
            let share = if way.y > 1e-6 { (behind - self.view.eye.y) / way.y } else { 1.0 };
            self.view.eye + way * share
        };
        let (left, right, top, bottom) = (at(-1.0, 0.0), at(1.0, 0.0), at(0.0, 1.0), at(0.0, -1.0));
        ([[left.x, left.y], [right.x, right.y]], [[top.y, top.z], [bottom.y, bottom.z]])
    }

    /// From the lens to a place at its distance, so far to the right and up from the middle.
    fn ray(&self, across: f64, over: f64) -> Spot {
        let View { right, up, forward, distance, .. } = self.view;
        forward * distance + right * across + up * over
    }

    /// How much smaller the frame is at the subject's distance with another focal length: `m = f / (d − f)`.
    pub fn narrower(&self, focal: f64) -> f64 {
        let length = |focal: f64| (self.view.distance - focal) / focal;
        length(focal) / length(self.focal.0)
    }

    /// Where the corner rays of the frame, as much narrower as said, meet a sheet at a depth; nothing for one that meets
    /// the floor first.
    pub fn corners(&self, at: f64, narrower: f64) -> [Option<Spot>; 4] {
        let half = (self.half.0 * narrower, self.half.1 * narrower);
        [(-1.0, 1.0), (1.0, 1.0), (-1.0, -1.0), (1.0, -1.0)].map(|(across, over)| {
            let way = self.ray(across * half.0, over * half.1);
            if way.y <= 1e-6 {
                return None;
            }
            let meets = self.view.eye + way * ((at - self.view.eye.y) / way.y);
            (meets.z >= 0.0).then_some(meets)
        })
    }

    /// Whether a corner of the frame never meets a plane behind the mark.
    pub fn passes(&self, at: f64) -> bool {
        let ways = [(-1.0, 1.0), (1.0, 1.0)].map(|(across, over)| self.ray(across * self.half.0, over * self.half.1));
        ways.iter().any(|way| way.y <= 1e-6 || at <= self.view.eye.y)
    }

    /// What is seen at a place of the frame, from −1 at its left and lower edge to 1: of the floor, or of what is behind.
    /// Nothing where it is sky.
    pub fn meets(&self, across: f64, over: f64) -> Option<(Spot, bool)> {
        let (eye, way) = (self.view.eye, self.ray(across * self.half.0, over * self.half.1));
        let to_floor = if way.z < -1e-9 { -eye.z / way.z } else { f64::INFINITY };
        let to_wall = if way.y > 1e-9 { (self.behind - eye.y) / way.y } else { f64::INFINITY };
        let on_floor = to_floor < to_wall;
        let share = to_floor.min(to_wall);
        (share > 0.0 && share.is_finite()).then(|| (eye + way * share, on_floor))
    }
}
