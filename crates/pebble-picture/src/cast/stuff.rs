//! What surfaces are made of: their own tone and colour, and how they shine.

use pebble_core::stage::body::Skeleton;

/// Colour of a surface or a light, of luminance 1, so that tones stay those of the forecast.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Tint(pub [f32; 3]);

impl Tint {
    /// From any linear colour; only its hue and saturation are kept.
    pub const fn of(red: f32, green: f32, blue: f32) -> Self {
        // Luminance of linear Rec. 709 primaries (ITU-R BT.709-6).
        let luminance = 0.2126 * red + 0.7152 * green + 0.0722 * blue;
        Self([red / luminance, green / luminance, blue / luminance])
    }

    pub const NEUTRAL: Self = Self([1.0, 1.0, 1.0]);

    /// A dye by its place on the colour wheel.
    pub fn hue(degrees: f64) -> Self {
        let wave = |offset: f64| (0.5 + 0.5 * ((degrees + offset).to_radians()).cos()) as f32;
        let [red, green, blue] = [wave(0.0), wave(-120.0), wave(120.0)].map(|part| 0.12 + part * part);
        Self::of(red, green, blue)
    }
}

/// What a surface is made of.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Stuff {
    /// Reflectance.
    pub tone: f32,
    pub tint: Tint,
    /// How much of a light it throws back as a mirror would, and how narrow that is.
    pub shine: f32,
    pub narrow: f32,
    /// Share of a light from behind that comes through.
    pub through: f32,
    /// Lit evenly, as a lamp or a painted mark is.
    pub flat: bool,
}

impl Stuff {
    pub const fn matt(tone: f32, tint: Tint) -> Self {
        Self { tone, tint, shine: 0.0, narrow: 16.0, through: 0.0, flat: false }
    }

    pub const fn glossy(self, shine: f32, narrow: f32) -> Self {
        Self { shine, narrow, ..self }
    }

    pub const fn thin(self, through: f32) -> Self {
        Self { through, ..self }
    }

    pub const fn even(self) -> Self {
        Self { flat: true, ..self }
    }
}

/// How finely a body is built: as many corners around as its size in the picture deserves.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Fineness(pub f32);

impl Fineness {
    /// By the height of the person in pixels.
    pub fn of(pixels: f32) -> Self {
        Self((pixels / 320.0).clamp(0.4, 1.3))
    }

    pub fn count(self, usual: usize) -> usize {
        ((usual as f32 * self.0).round() as usize).max(5)
    }
}

/// Length of a share of the height.
pub(crate) fn of_height(body: &Skeleton) -> impl Fn(f32) -> f32 + Copy {
    let height = body.bones.height as f32;
    move |share| share * height
}
