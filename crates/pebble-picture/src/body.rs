//! Simple bodies with light and shade: limbs, blobs, rings and flat cards, seen along one axis.

/// A place in the scene in metres: to the right and up from the middle of the frame.
pub(crate) type Point = [f32; 2];

/// Colour of a surface or a light, of luminance 1, so that tones stay those of the forecast.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Tint(pub [f32; 3]);

impl Tint {
    /// From any linear colour; only its hue and saturation are kept.
    pub const fn of(red: f32, green: f32, blue: f32) -> Self {
        // Luminance of linear Rec. 709 primaries (ITU-R BT.709-6).
        let luminance = 0.2126 * red + 0.7152 * green + 0.0722 * blue;
        Self([red / luminance, green / luminance, blue / luminance])
    }

    pub const NEUTRAL: Self = Self([1.0, 1.0, 1.0]);
}

/// The outline of a body.
#[derive(Clone, Copy, Debug)]
pub(crate) enum Outline {
    /// A tapered limb from one joint to the other.
    Limb { from: Point, to: Point, from_radius: f32, to_radius: f32 },
    /// An ellipse, turned by an angle in radians.
    Blob { centre: Point, radii: [f32; 2], turn: f32 },
    /// A tube bent to a circle.
    Ring { centre: Point, radius: f32, tube: f32 },
    /// A flat rectangle facing the camera.
    Card { centre: Point, half: [f32; 2] },
}

/// A body: its outline and what covers it.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Body {
    pub outline: Outline,
    pub tint: Tint,
    /// Tone against that of the part; 1 is the part's own reflectance.
    pub tone: f32,
    /// Lit evenly, as a lamp or a painted mark is.
    pub flat: bool,
}

/// What a surface turned away from a light still gets from the room's walls.
const WRAP: f32 = 0.05;

/// Where a light comes from, as seen by a surface facing the camera.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Direction {
    /// Unit vector towards the light: right, up, to the camera.
    towards: [f32; 3],
    /// From behind: scales its brightest edge to 1.
    edge: Option<f32>,
    /// What flat things take of it.
    on_flat: f32,
}

impl Direction {
    /// From a bearing around the subject (0 at the camera, 90 to the right) and a height, in radians.
    pub fn of(bearing: f64, height: f64) -> Self {
        let towards =
            [bearing.sin() * height.cos(), height.sin(), bearing.cos() * height.cos()].map(|part| part as f32);
        let across = length([towards[0], towards[1]]);
        Self { towards, edge: (towards[2] < 0.0).then(|| 1.0 / across.max(0.05)), on_flat: 1.0 }
    }

    /// The same where flat things are turned to where their part is lit most: right, to the camera, up.
    pub fn on_lit_side(self, facing: [f64; 3]) -> Self {
        let [right, up, camera] = self.towards.map(f64::from);
        let cos = right * facing[0] + camera * facing[1] + up * facing[2];
        Self { on_flat: cos.max(0.0) as f32, ..self }
    }

    /// How brightly it lights a surface; one that faces it fully, and the brightest edge of a rim, get all of it.
    #[inline]
    pub fn shade(&self, normal: Normal) -> f32 {
        let Normal::Of([x, y, z]) = normal else { return if self.edge.is_some() { 0.0 } else { self.on_flat } };
        let facing = x * self.towards[0] + y * self.towards[1] + z * self.towards[2];
        match self.edge {
            Some(scale) => (facing * scale).clamp(0.0, 1.0),
            None => WRAP + (1.0 - WRAP) * facing.clamp(0.0, 1.0),
        }
    }
}

/// Where a surface faces.
#[derive(Clone, Copy, Debug)]
pub(crate) enum Normal {
    /// Right, up, to the camera.
    Of([f32; 3]),
    /// A lamp or a painted mark: lit evenly from the front.
    Flat,
}

/// A body at one place: how much of the place it covers, where it faces, and its shade in steady light.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Sample {
    pub cover: f32,
    pub normal: Normal,
    pub ambient_shade: f32,
}

impl Body {
    /// Left, bottom, right, top.
    pub fn bounds(&self) -> [f32; 4] {
        let around = |[x, y]: Point, rx: f32, ry: f32| [x - rx, y - ry, x + rx, y + ry];
        match self.outline {
            Outline::Limb { from, to, from_radius, to_radius } => {
                union(around(from, from_radius, from_radius), around(to, to_radius, to_radius))
            }
            Outline::Blob { centre, radii, turn } => {
                let (sin, cos) = turn.sin_cos();
                around(centre, (radii[0] * cos).hypot(radii[1] * sin), (radii[0] * sin).hypot(radii[1] * cos))
            }
            Outline::Ring { centre, radius, tube } => around(centre, radius + tube, radius + tube),
            Outline::Card { centre, half } => around(centre, half[0], half[1]),
        }
    }

    /// The body at a place, with edges one pixel soft; `None` beside it. Most places of a box around a slanting limb are
    /// beside it, so that is found out first.
    #[inline]
    pub fn at(&self, place: Point, pixel: f32) -> Option<Sample> {
        let edge = 0.5 * pixel;
        let (depth, across, toward) = match self.outline {
            Outline::Limb { from, to, from_radius, to_radius } => {
                let axis = [to[0] - from[0], to[1] - from[1]];
                let away = [place[0] - from[0], place[1] - from[1]];
                let length2 = axis[0] * axis[0] + axis[1] * axis[1];
                let along = ((away[0] * axis[0] + away[1] * axis[1]) / length2.max(1e-12)).clamp(0.0, 1.0);
                let radius = from_radius + along * (to_radius - from_radius);
                round([away[0] - along * axis[0], away[1] - along * axis[1]], radius, edge)?
            }
            Outline::Blob { centre, radii, turn } => {
                let (sin, cos) = if turn == 0.0 { (0.0, 1.0) } else { turn.sin_cos() };
                let away = [place[0] - centre[0], place[1] - centre[1]];
                let local = [(away[0] * cos + away[1] * sin) / radii[0], (away[1] * cos - away[0] * sin) / radii[1]];
                let reach = length(local);
                // The gradient of the unit circle in these coordinates turns its depth into metres to first order.
                let slope = length([local[0] / radii[0], local[1] / radii[1]]).max(1e-6) / reach.max(1e-6);
                let depth = (1.0 - reach) / slope;
                if depth <= -edge {
                    return None;
                }
                let turned = [local[0] * cos - local[1] * sin, local[0] * sin + local[1] * cos];
                (depth, turned, (1.0 - reach * reach).max(0.0).sqrt())
            }
            Outline::Ring { centre, radius, tube } => {
                let away = [place[0] - centre[0], place[1] - centre[1]];
                let reach = length(away).max(1e-6);
                let off = (reach - radius) / reach;
                round([away[0] * off, away[1] * off], tube, edge)?
            }
            Outline::Card { centre, half } => {
                let inside = |axis: usize| half[axis] - (place[axis] - centre[axis]).abs();
                (inside(0).min(inside(1)), [0.0, 0.0], 1.0)
            }
        };
        let cover = (depth / pixel + 0.5).min(1.0);
        if cover <= 0.0 {
            return None;
        }
        if self.flat || matches!(self.outline, Outline::Card { .. }) {
            return Some(Sample { cover, normal: Normal::Flat, ambient_shade: 1.0 });
        }
        Some(Sample {
            cover,
            normal: Normal::Of([across[0], across[1], toward]),
            // Steady light comes mostly from above: a soft dome.
            ambient_shade: 0.58 + 0.42 * (0.75 * across[1] + 0.66 * toward).clamp(-1.0, 1.0),
        })
    }
}

/// Without the care of `hypot` for huge numbers, which costs more than the rest of a body.
#[inline]
fn length([x, y]: Point) -> f32 {
    (x * x + y * y).sqrt()
}

/// Depth below the surface, normal across and normal toward the camera, of a round cross-section; `None` beyond its edge.
#[inline]
fn round(off: Point, radius: f32, edge: f32) -> Option<(f32, Point, f32)> {
    let reach2 = off[0] * off[0] + off[1] * off[1];
    let limit = radius + edge;
    if reach2 >= limit * limit {
        return None;
    }
    let scale = 1.0 / radius;
    let across = [off[0] * scale, off[1] * scale];
    Some((radius - reach2.sqrt(), across, (1.0 - reach2 * scale * scale).max(0.0).sqrt()))
}

pub(crate) fn union(a: [f32; 4], b: [f32; 4]) -> [f32; 4] {
    [a[0].min(b[0]), a[1].min(b[1]), a[2].max(b[2]), a[3].max(b[3])]
}

// --- short hands for drawing ------------------------------------------------------------------------------------

pub(crate) fn limb(from: Point, to: Point, from_radius: f32, to_radius: f32, tint: Tint, tone: f32) -> Body {
    Body { outline: Outline::Limb { from, to, from_radius, to_radius }, tint, tone, flat: false }
}

pub(crate) fn blob(centre: Point, radii: [f32; 2], turn_degrees: f32, tint: Tint, tone: f32) -> Body {
    Body { outline: Outline::Blob { centre, radii, turn: turn_degrees.to_radians() }, tint, tone, flat: false }
}

pub(crate) fn ring(centre: Point, radius: f32, tube: f32, tint: Tint, tone: f32) -> Body {
    Body { outline: Outline::Ring { centre, radius, tube }, tint, tone, flat: false }
}

/// A painted mark or a lamp: no shading.
pub(crate) fn flat(body: Body) -> Body {
    Body { flat: true, ..body }
}

#[cfg(test)]
mod tests {
    use super::*;

    const PIXEL: f32 = 0.005;

    fn bodies() -> [(&'static str, Body); 6] {
        let plain = Tint::NEUTRAL;
        [
            ("limb", limb([0.0, 0.0], [0.4, 0.3], 0.08, 0.03, plain, 1.0)),
            ("limb of one point", limb([0.1, 0.1], [0.1, 0.1], 0.05, 0.05, plain, 1.0)),
            ("round blob", blob([0.2, -0.1], [0.1, 0.1], 0.0, plain, 1.0)),
            ("turned blob", blob([0.2, -0.1], [0.2, 0.05], 30.0, plain, 1.0)),
            ("ring", ring([0.0, 0.2], 0.15, 0.02, plain, 1.0)),
            (
                "card",
                Body {
                    outline: Outline::Card { centre: [0.1, 0.0], half: [0.1, 0.05] },
                    tint: plain,
                    tone: 1.0,
                    flat: true,
                },
            ),
        ]
    }

    /// Places on a grid around a body, with room to spare.
    fn places(body: &Body) -> impl Iterator<Item = Point> {
        let [left, bottom, right, top] = body.bounds();
        let step = PIXEL / 2.0;
        let columns = ((right - left + 0.1) / step) as i32;
        let rows = ((top - bottom + 0.1) / step) as i32;
        (0..rows).flat_map(move |row| {
            (0..columns).map(move |column| [left - 0.05 + column as f32 * step, bottom - 0.05 + row as f32 * step])
        })
    }

    #[test]
    fn nothing_of_a_body_lies_outside_its_bounds() {
        for (name, body) in bodies() {
            let [left, bottom, right, top] = body.bounds();
            for place in places(&body) {
                let outside = place[0] < left - PIXEL
                    || place[0] > right + PIXEL
                    || place[1] < bottom - PIXEL
                    || place[1] > top + PIXEL;
                assert!(!outside || body.at(place, PIXEL).is_none(), "{name} at {place:?}");
            }
        }
    }

    #[test]
    fn covered_area_is_that_of_the_outline() {
        use std::f32::consts::PI;
        // A tapered limb: two half discs and a trapezoid between them (the taper's tilt is within the tolerance).
        let areas = [
            0.5 * (0.08 + 0.03) * 2.0 * 0.5 + 0.5 * PI * (0.08f32.powi(2) + 0.03f32.powi(2)),
            PI * 0.05f32.powi(2),
            PI * 0.1f32.powi(2),
            PI * 0.2 * 0.05,
            PI * (0.17f32.powi(2) - 0.13f32.powi(2)),
            0.2 * 0.1,
        ];
        for ((name, body), area) in bodies().into_iter().zip(areas) {
            let cell = (PIXEL / 2.0) * (PIXEL / 2.0);
            let covered: f32 = places(&body).filter_map(|place| body.at(place, PIXEL)).map(|s| s.cover * cell).sum();
            assert!((covered / area - 1.0).abs() < 0.03, "{name}: {covered} of {area}");
        }
    }

    #[test]
    fn shading_only_takes_away_and_somewhere_takes_nothing() {
        for (name, body) in bodies() {
            let samples: Vec<Sample> = places(&body).filter_map(|place| body.at(place, PIXEL)).collect();
            let lights: [&dyn Fn(&Sample) -> f32; 4] = [
                &|s| s.ambient_shade,
                &|s| Direction::of(-0.56, 0.52).shade(s.normal),
                &|s| Direction::of(0.9, 0.0).shade(s.normal),
                // From behind: the edges take the light, flat things none.
                &|s| Direction::of(2.4, 0.3).shade(s.normal),
            ];
            for (index, shade) in lights.iter().enumerate() {
                assert!(samples.iter().all(|s| (0.0..=1.0001).contains(&shade(s))), "{name}");
                let brightest = samples.iter().map(shade).fold(0.0, f32::max);
                if index < 3 || !matches!(name, "card") {
                    assert!(brightest > 0.95, "{name} in light {index}: {brightest} at best");
                } else {
                    assert_eq!(brightest, 0.0, "{name}");
                }
            }
            assert!(samples.iter().all(|s| s.cover > 0.0 && s.cover <= 1.0), "{name}");
        }
    }

    #[test]
    fn a_tint_changes_colour_and_not_tone() {
        for tint in [Tint::of(1.0, 0.5, 0.2), Tint::of(0.1, 0.1, 3.0), Tint::NEUTRAL] {
            let [red, green, blue] = tint.0;
            assert!((0.2126 * red + 0.7152 * green + 0.0722 * blue - 1.0).abs() < 1e-5, "{tint:?}");
        }
    }
}
