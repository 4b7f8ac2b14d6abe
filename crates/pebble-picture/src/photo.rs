//! A picture of the real place, to stand behind the subject.

use image::codecs::jpeg::JpegEncoder;
use image::{ImageError, ImageReader, Limits};
use std::fmt;
use std::io::Cursor;

/// Most pixels of a picture that is read.
pub const MOST_PIXELS: u64 = 40_000_000;
/// Longest edge that is kept: more is not told apart behind a subject.
const EDGE: u32 = 2000;
/// Quality of what is kept, of 100.
const QUALITY: u8 = 88;

/// Why a picture cannot be taken.
#[derive(Debug)]
pub enum NotAPicture {
    /// Neither JPEG nor PNG, whatever its name says.
    Unknown,
    /// More pixels than are read.
    TooMany {
        /// Across and down.
        size: (u32, u32),
    },
    /// It begins well and ends badly.
    Broken,
}

impl fmt::Display for NotAPicture {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Unknown => write!(out, "This is neither a JPEG nor a PNG. Nothing was changed."),
            Self::TooMany { size: (wide, high) } => write!(
                out,
                "The picture has {} megapixels; up to {} are read. Nothing was changed: a smaller copy of it will do.",
                u64::from(*wide) * u64::from(*high) / 1_000_000,
                MOST_PIXELS / 1_000_000
            ),
            Self::Broken => write!(out, "The picture is broken and cannot be read to its end. Nothing was changed."),
        }
    }
}

impl std::error::Error for NotAPicture {}

/// A picture in linear light.
#[derive(Clone, Debug, PartialEq)]
pub struct Photo {
    pub(crate) width: usize,
    pub(crate) height: usize,
    /// Red, green and blue against the mean of them all.
    pub(crate) tones: Vec<[f32; 3]>,
}

/// A picture as it is kept: no larger than it has to be, as JPEG.
///
/// # Errors
/// [`NotAPicture`].
pub fn reduced(bytes: &[u8]) -> Result<Vec<u8>, NotAPicture> {
    let picture = decoded(bytes)?;
    let picture = if picture.width().max(picture.height()) > EDGE {
        picture.resize(EDGE, EDGE, image::imageops::FilterType::Triangle)
    } else {
        picture
    };
    let mut kept = Vec::new();
    picture
        .to_rgb8()
        .write_with_encoder(JpegEncoder::new_with_quality(&mut kept, QUALITY))
        .map_err(|_| NotAPicture::Broken)?;
    Ok(kept)
}

fn decoded(bytes: &[u8]) -> Result<image::DynamicImage, NotAPicture> {
    let reader = || ImageReader::new(Cursor::new(bytes)).with_guessed_format();
    let sized = reader().map_err(|_| NotAPicture::Unknown)?;
    if sized.format().is_none() {
        return Err(NotAPicture::Unknown);
    }
    let size = sized.into_dimensions().map_err(|error| match error {
        ImageError::Unsupported(_) => NotAPicture::Unknown,
        _ => NotAPicture::Broken,
    })?;
    if u64::from(size.0) * u64::from(size.1) > MOST_PIXELS {
        return Err(NotAPicture::TooMany { size });
    }
    let mut reader = reader().map_err(|_| NotAPicture::Unknown)?;
    let mut limits = Limits::default();
    limits.max_alloc = Some(MOST_PIXELS * 8);
    reader.limits(limits);
    reader.decode().map_err(|_| NotAPicture::Broken)
}

impl Photo {
    /// Reads what was kept.
    ///
    /// # Errors
    /// [`NotAPicture`].
    pub fn read(bytes: &[u8]) -> Result<Self, NotAPicture> {
        let picture = decoded(bytes)?.to_rgb8();
        // sRGB (IEC 61966-2-1) to linear light.
        let linear: [f32; 256] = std::array::from_fn(|code| {
            let value = code as f32 / 255.0;
            if value <= 0.040_45 { value / 12.92 } else { ((value + 0.055) / 1.055).powf(2.4) }
        });
        let mut tones: Vec<[f32; 3]> =
            picture.pixels().map(|pixel| pixel.0.map(|code| linear[usize::from(code)])).collect();
        let sum: f64 =
            tones.iter().map(|[red, green, blue]| f64::from(0.2126 * red + 0.7152 * green + 0.0722 * blue)).sum();
        let mean = (sum / tones.len().max(1) as f64).max(1e-4) as f32;
        for tone in &mut tones {
            *tone = tone.map(|channel| channel / mean);
        }
        Ok(Self { width: picture.width() as usize, height: picture.height() as usize, tones })
    }

    /// The tone at shares of its width and height; beyond its edges that of the edge.
    #[inline]
    pub(crate) fn at(&self, across: f32, down: f32) -> [f32; 3] {
        let place = |share: f32, count: usize| (share * count as f32).clamp(0.0, count as f32 - 1.0) as usize;
        self.tones[place(down, self.height) * self.width + place(across, self.width)]
    }

    /// Height against width.
    pub(crate) fn shape(&self) -> f32 {
        self.height as f32 / self.width as f32
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn png(wide: u32, high: u32) -> Vec<u8> {
        let picture = image::RgbImage::from_fn(wide, high, |x, y| {
            image::Rgb([(x * 255 / wide) as u8, (y * 255 / high) as u8, 90])
        });
        let mut bytes = Cursor::new(Vec::new());
        picture.write_to(&mut bytes, image::ImageFormat::Png).expect("a picture is written to memory");
        bytes.into_inner()
    }

    #[test]
    fn a_picture_is_kept_small_and_reads_back_as_it_was() {
        let kept = reduced(&png(3000, 1500)).expect("it is a picture");
        let photo = Photo::read(&kept).expect("what is kept is read");
        assert_eq!((photo.width, photo.height), (2000, 1000));
        assert!(photo.at(0.9, 0.5)[0] > 4.0 * photo.at(0.2, 0.5)[0], "redder to the right");
        assert!(photo.at(0.5, 0.9)[1] > 4.0 * photo.at(0.5, 0.3)[1], "greener below");
        let mean: f32 = photo.tones.iter().map(|[r, g, b]| 0.2126 * r + 0.7152 * g + 0.0722 * b).sum::<f32>()
            / photo.tones.len() as f32;
        assert!((mean - 1.0).abs() < 1e-3, "{mean}");
    }

    #[test]
    fn what_is_no_picture_is_refused_in_a_sentence() {
        let good = png(40, 30);
        let mut huge = good.clone();
        // The size in the header: 20 000 across and down, and its checksum as it then would be is not even looked at.
        huge[16..24].copy_from_slice(&[0, 0, 0x4e, 0x20, 0, 0, 0x4e, 0x20]);
        for (name, bytes) in
            [("text", &b"not a picture"[..]), ("nothing", &[]), ("half", &good[..good.len() / 2]), ("huge", &huge)]
        {
            let why = reduced(bytes).expect_err(name).to_string();
            assert!(why.contains("Nothing was changed"), "{name}: {why}");
        }
    }
}
