//! What of a look is locked.

use crate::wire::word;

word! {
    /// Something that is locked.
    pub enum Held {
        /// Where the key falls.
        Key,
        /// How the other lights stand against the key.
        Ratios,
        /// Where the steady light falls on the subject.
        Ambient,
        /// Where it falls on the background.
        Background,
        /// The zone of sharpness.
        Depth,
        /// The blur of what the flash draws: it gets no longer.
        Blur,
        /// The aperture.
        Aperture,
        /// The shutter.
        Shutter,
        /// The ISO.
        Iso,
        /// The filter.
        Filter,
        /// The flash power.
        Power,
        /// The flash distance.
        FlashDistance,
        /// The dimmers of the lamps.
        Lamps,
    }
}

impl Held {
    /// The control, as its strip is called; `None` for a quantity.
    pub const fn control(self) -> Option<&'static str> {
        match self {
            Self::Aperture => Some("aperture"),
            Self::Shutter => Some("shutter"),
            Self::Iso => Some("iso"),
            Self::Filter => Some("filter"),
            Self::Power => Some("power"),
            Self::FlashDistance => Some("flash_distance"),
            Self::Lamps => Some("lamps"),
            _ => None,
        }
    }

    /// As said.
    pub const fn words(self) -> &'static str {
        match self {
            Self::Key => "key",
            Self::Ratios => "ratios between the lights",
            Self::Ambient => "ambient on the subject",
            Self::Background => "background",
            Self::Depth => "depth",
            Self::Blur => "blur of the flash",
            Self::Aperture => "aperture",
            Self::Shutter => "shutter",
            Self::Iso => "ISO",
            Self::Filter => "filter",
            Self::Power => "flash power",
            Self::FlashDistance => "flash distance",
            Self::Lamps => "lamps",
        }
    }
}
