//! The simulated frame: from a plan and its outlook to pixels.
//!
//! Everything is added up in linear light and goes through one tone curve at the end. Figures are drawn from simple
//! bodies in metres at the subject's distance, so that any crop, down to single pixels of the camera, is drawn and not
//! enlarged.
//!
//! What the numbers of the forecast mean here:
//! * a part's flash image is smeared by the real pulse times its image speed, row by row;
//! * its steady image is smeared over the time its row is open, and covers each place for the forecast's dwell;
//! * levels are those of the forecast where a body faces the light; shading only takes away.

mod backdrop;
mod brush;
mod cast;
mod compose;
mod exposure;
mod kept;
mod light;
mod lit;
mod mesh;
mod photo;
mod places;
mod raster;
mod shadow;
mod shelf;
mod smear;
mod space;
mod tone;

pub use compose::{first_look, render, render_while};
pub use kept::Kept;
pub use photo::{NotAPicture, Photo, reduced};

/// Which light to show.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Default)]
pub enum Layers {
    /// Flash and steady light.
    #[default]
    Both,
    /// Flash alone.
    Flash,
    /// Steady light alone: the frame with the trigger off.
    Ambient,
}

/// A window of the frame, as shares of its width and height from the top left corner.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Crop {
    /// Left edge.
    pub left: f64,
    /// Top edge.
    pub top: f64,
    /// Width and height, as a share of the frame's.
    pub size: f64,
}

impl Crop {
    /// The whole frame.
    pub const WHOLE: Self = Self { left: 0.0, top: 0.0, size: 1.0 };
}

/// What to draw.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Request {
    /// Width of the picture in pixels; the height follows from the sensor.
    pub width: u32,
    /// Which light.
    pub layers: Layers,
    /// Which part of the frame.
    pub crop: Crop,
}

/// A picture in sRGB, rows from the top, four bytes a pixel, opaque.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Picture {
    /// Pixels across.
    pub width: u32,
    /// Pixels down.
    pub height: u32,
    /// Red, green, blue, 255.
    pub rgba: Vec<u8>,
}

impl Picture {
    /// As a PNG file.
    ///
    /// # Errors
    /// Only what the encoder reports; writing to memory does not fail for a picture of matching size.
    pub fn to_png(&self) -> Result<Vec<u8>, png::EncodingError> {
        let mut bytes = Vec::with_capacity(self.rgba.len() / 4);
        let mut encoder = png::Encoder::new(&mut bytes, self.width, self.height);
        encoder.set_color(png::ColorType::Rgba);
        encoder.set_depth(png::BitDepth::Eight);
        encoder.set_compression(png::Compression::Fast);
        encoder.set_source_srgb(png::SrgbRenderingIntent::Perceptual);
        encoder.write_header()?.write_image_data(&self.rgba)?;
        Ok(bytes)
    }
}
