//! What of the set the lens sees: faces, stands, the edges of the sheet.

use super::SheetSaid;
use super::moves::FARTHEST_M;
use crate::outlook::Outlook;
use crate::plan::Plan;
use crate::stage::space::{Spot, spot};

/// Half the width and the height of a figure that hides what stands behind it.
const FIGURE_M: (f64, f64) = (0.3, 1.8);
/// How far outside the frame's edge something has to be to be clear of it.
const CLEAR_M: f64 = 0.1;
const STEP_M: f64 = 0.01;
/// Places along a stand, and around a face.
const ALONG: usize = 16;
const AROUND: usize = 12;

/// The camera in the set, with half of what its frame covers at its distance.
pub(super) struct Seen {
    pub eye: Spot,
    right: Spot,
    up: Spot,
    forward: Spot,
    distance: f64,
    half: (f64, f64),
    /// The focal length that is set, and the longest that the lens has, in metres.
    focal: (f64, f64),
    behind: f64,
    /// Somebody stands on the mark.
    figure: bool,
}

impl Seen {
    pub fn of(plan: &Plan, seen: &Outlook) -> Self {
        let view = plan.stage.view(plan.subject_distance);
        let (wide, high) = plan.frame();
        let half = |side: crate::quantity::Metres| 0.5 * side.as_metres() / seen.magnification;
        Self {
            eye: view.eye,
            right: view.right,
            up: view.up,
            forward: view.forward,
            distance: view.distance,
            half: (half(wide), half(high)),
            focal: (plan.body.focal.as_metres(), plan.body.focal_range.1.as_metres()),
            behind: plan.background_behind.as_metres(),
            figure: !plan.stage.composition.people.is_empty(),
        }
    }

    /// How far beyond the frame's edge a place is, in metres at its depth: negative inside.
    fn beyond(&self, place: Spot) -> f64 {
        let way = place - self.eye;
        let depth = way.dot(self.forward);
        if depth <= 0.05 {
            return f64::INFINITY;
        }
        let scale = depth / self.distance;
        let across = way.dot(self.right).abs() - self.half.0 * scale;
        let over = way.dot(self.up).abs() - self.half.1 * scale;
        across.max(over)
    }

    /// Whether the figure or what is behind hides a place.
    fn hidden(&self, place: Spot) -> bool {
        if place.y > self.behind {
            return true;
        }
        if !self.figure || place.y <= 0.0 {
            return false;
        }
        // Where the line of sight passes the plane of the mark.
        let share = -self.eye.y / (place.y - self.eye.y);
        let passes = self.eye + (place - self.eye) * share;
        passes.x.abs() < FIGURE_M.0 && passes.z < FIGURE_M.1
    }

    /// Whether nothing stands between the lens and a place.
    pub fn is_free(&self, place: Spot) -> bool {
        !self.hidden(place)
    }

    fn face(at: Spot, radius: f64) -> impl Iterator<Item = Spot> {
        // Turned to the chest: two directions square to its axis.
        let axis = at - crate::stage::field::CHEST;
        let flat = axis.x.hypot(axis.y).max(1e-9);
        let side = spot(-axis.y / flat, axis.x / flat, 0.0);
        let length = axis.length().max(1e-9);
        let other = (axis * (1.0 / length)).cross(side);
        (0..AROUND).map(move |k| {
            let (sine, cosine) = (std::f64::consts::TAU * k as f64 / AROUND as f64).sin_cos();
            at + side * (radius * cosine) + other * (radius * sine)
        })
    }

    fn stand(at: Spot) -> impl Iterator<Item = Spot> {
        (0..=ALONG).map(move |k| spot(at.x, at.y, at.z * k as f64 / ALONG as f64))
    }

    /// What of a light is in the picture.
    pub fn of_light(&self, at: Spot, radius: f64) -> Vec<String> {
        let shows = |place: Spot| self.beyond(place) < 0.0 && !self.hidden(place);
        let mut what = Vec::new();
        if Self::face(at, radius).chain([at]).any(shows) {
            what.push("face".to_owned());
        }
        if Self::stand(at).any(shows) {
            what.push("stand".to_owned());
        }
        what
    }

    fn clear(&self, at: Spot, radius: f64) -> bool {
        let away = |place: Spot| self.beyond(place) >= CLEAR_M;
        Self::face(at, radius).chain([at]).all(away) && Self::stand(at).all(away)
    }

    /// The smallest moves of each kind that clear a light: back from the mark, to the left, to the right.
    pub fn moves(&self, at: Spot, radius: f64) -> Vec<(String, Spot)> {
        let flat = at.x.hypot(at.y).max(1e-9);
        let ways = [
            ("back", spot(at.x / flat, at.y / flat, 0.0)),
            ("left", spot(-1.0, 0.0, 0.0)),
            ("right", spot(1.0, 0.0, 0.0)),
        ];
        let mut found: Vec<(f64, String, Spot)> = ways
            .into_iter()
            .filter_map(|(word, way)| {
                let steps = (FARTHEST_M / STEP_M) as usize;
                let by = (1..=steps).map(|k| k as f64 * STEP_M).find(|by| self.clear(at + way * *by, radius))?;
                // To the tenth that is enough.
                let by = (by * 10.0 - 1e-9).ceil() / 10.0;
                Some((by, format!("{by:.1} m {word}"), at + way * by))
            })
            .collect();
        found.sort_by(|a, b| a.0.total_cmp(&b.0));
        found.into_iter().map(|(_, says, to)| (says, to)).collect()
    }

    /// The frame's left and right edges on the plan, and its upper and lower ones from the side, at a depth of the set.
    pub fn edges(&self, behind: f64) -> ([[f64; 2]; 2], [[f64; 2]; 2]) {
        let at = |across: f64, over: f64| {
            let way =
                self.forward * self.distance + self.right * (self.half.0 * across) + self.up * (self.half.1 * over);
            let share = if way.y > 1e-6 { (behind - self.eye.y) / way.y } else { 1.0 };
            self.eye + way * share
        };
        let (left, right, top, bottom) = (at(-1.0, 0.0), at(1.0, 0.0), at(0.0, 1.0), at(0.0, -1.0));
        ([[left.x, left.y], [right.x, right.y]], [[top.y, top.z], [bottom.y, bottom.z]])
    }

    /// How much smaller the frame is at the subject's distance with another focal length: `m = f / (d − f)`.
    fn narrower(&self, focal: f64) -> f64 {
        let length = |focal: f64| (self.distance - focal) / focal;
        length(focal) / length(self.focal.0)
    }

    /// Where the corner rays of the frame, as much narrower as said, meet a sheet at a depth; nothing for one that meets
    /// the floor first.
    fn corners(&self, at: f64, narrower: f64) -> [Option<Spot>; 4] {
        let half = (self.half.0 * narrower, self.half.1 * narrower);
        [(-1.0, 1.0), (1.0, 1.0), (-1.0, -1.0), (1.0, -1.0)].map(|(across, over)| {
            let way = self.forward * self.distance + self.right * (half.0 * across) + self.up * (half.1 * over);
            if way.y <= 1e-6 {
                return None;
            }
            let meets = self.eye + way * ((at - self.eye.y) / way.y);
            (meets.z >= 0.0).then_some(meets)
        })
    }
}

/// How much wider and higher a sheet would have to be, and whether the floor shows below it.
fn missing(corners: [Option<Spot>; 4], (width, height): (f64, f64)) -> (f64, f64, bool) {
    let met = || corners.iter().flatten();
    let wide = met().map(|corner| 2.0 * corner.x.abs()).fold(0.0, f64::max);
    let high = met().map(|corner| corner.z).fold(0.0, f64::max);
    ((wide - width).max(0.0), (high - height).max(0.0), corners.iter().any(Option::is_none))
}

/// How far behind the mark a sheet may be said to stand at the least, in metres: nearer it is in the way.
const NEAREST_SHEET_M: f64 = 0.5;

/// What else makes a sheet large enough: as near as that, or so long a lens. Nothing that the set does not have.
fn or_else(seen: &Seen, behind: f64, size: (f64, f64)) -> Vec<String> {
    let fills = |at: f64, narrower: f64| {
        let (wide, high, _) = missing(seen.corners(at, narrower), size);
        wide == 0.0 && high == 0.0
    };
    let mut ways = Vec::new();
    let tenths = |metres: f64| (10.0 * metres).floor() as u32;
    let near = (tenths(NEAREST_SHEET_M)..=tenths(behind)).rev().map(|k| f64::from(k) / 10.0);
    if let Some(at) = near.into_iter().find(|at| fills(*at, 1.0)) {
        ways.push(format!("hangs {at:.1} m behind the mark"));
    }
    let millimetres = |focal: f64| (1e3 * focal).floor() as u32;
    let long = (millimetres(seen.focal.0) + 1..=millimetres(seen.focal.1)).map(|mm| (mm, 1e-3 * f64::from(mm)));
    if let Some((mm, _)) = long.into_iter().find(|(_, focal)| fills(behind, seen.narrower(*focal))) {
        ways.push(format!("is seen at {mm} mm"));
    }
    ways
}

/// Whether a sheet fills the frame.
pub(super) fn covers(seen: &Seen, behind: f64, size: (f64, f64)) -> SheetSaid {
    let (missing_width, missing_height, floor_shows) = missing(seen.corners(behind, 1.0), size);
    let covers = missing_width == 0.0 && missing_height == 0.0;
    let mut says = Vec::new();
    if missing_width > 0.0 {
        says.push(format!("{missing_width:.1} m wider"));
    }
    if missing_height > 0.0 {
        says.push(format!("{missing_height:.1} m higher"));
    }
    let needs =
        if says.is_empty() { "It is large enough".to_owned() } else { format!("It has to be {}", says.join(" and ")) };
    let below = if floor_shows { "; the floor shows below it" } else { "" };
    let ways = if covers { Vec::new() } else { or_else(seen, behind, size) };
    let ways = if ways.is_empty() { String::new() } else { format!(" It fills it where it {}.", ways.join(", or ")) };
    SheetSaid {
        covers,
        missing_width_m: missing_width,
        missing_height_m: missing_height,
        floor_shows,
        says: format!("{needs}{below}.{ways}"),
    }
}
