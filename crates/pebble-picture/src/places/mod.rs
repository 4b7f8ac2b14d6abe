//! Drawn places: what a floor and what is behind look like, a row of the picture at a time. A camera that does not roll
//! sees one surface at one distance in each row.

mod halls;
mod open_air;
mod paint;
mod studio;

use pebble_core::file::stage::Place;

/// What is behind the subject, at one place, against the background's own level in each light.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(crate) struct Paint {
    pub ambient: [f32; 3],
    pub flash: [f32; 3],
}

impl Paint {
    /// The same in both lights.
    const fn alike(tone: [f32; 3]) -> Self {
        Self { ambient: tone, flash: tone }
    }

    /// A surface that the place's lamps light less or more than where they were read, and that may glow.
    fn lit(tone: [f32; 3], share: f32, glow: [f32; 3]) -> Self {
        Self { ambient: std::array::from_fn(|k| tone[k] * share + glow[k]), flash: tone }
    }
}

/// A row of the picture, as a place sees it: metres in the set.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Row {
    /// On the floor how far behind the mark, on the wall how high.
    pub at: f32,
    /// First pixel's place to the right.
    pub left: f32,
    /// From one pixel to the next.
    pub step: f32,
    /// From one row to the next.
    pub deep: f32,
    /// How far the wall stands behind the mark.
    pub wall: f32,
}

impl Row {
    /// Paints each pixel by its place to the right.
    #[inline]
    fn each<T>(&self, out: &mut [T], brush: impl Fn(f32) -> T) {
        for (column, paint) in out.iter_mut().enumerate() {
            *paint = brush(self.left + column as f32 * self.step);
        }
    }
}

/// Paints a row of the floor: reflectances. `paper` is the background's own, where the floor is part of it.
pub(crate) fn floor(place: Place, row: &Row, paper: f32, out: &mut [[f32; 3]]) {
    match place {
        Place::PaperLight | Place::PaperGrey => row.each(out, |_| [paper; 3]),
        Place::PaperBlack => studio::mat(row, out),
        Place::EvenWall => row.each(out, |_| [paper; 3]),
        Place::DimHall | Place::BrightHall => halls::court(row, out),
        Place::Tent => halls::planks(row, out, [0.3, 0.24, 0.17]),
        Place::Stage => halls::planks(row, out, [0.1, 0.085, 0.075]),
        Place::DanceFloor => halls::checks(row, out),
        Place::PrintedWall => studio::carpet(row, out),
        Place::PoolDeck => halls::deck(row, out),
        Place::FieldDay | Place::FieldDusk | Place::FieldFloodlit => open_air::grass(row, out),
        Place::Track => open_air::lanes(row, out),
        Place::Beach => open_air::shore(row, out),
        Place::Quay => open_air::stones(row, out),
        Place::StreetNight => open_air::asphalt(row, out),
    }
}

/// Paints a row of what is behind.
pub(crate) fn wall(place: Place, row: &Row, out: &mut [Paint]) {
    match place {
        Place::EvenWall => row.each(out, |_| Paint::alike([1.0; 3])),
        Place::PaperLight | Place::PaperGrey => studio::paper(row, out),
        Place::PaperBlack => studio::cloth(row, out),
        Place::PrintedWall => studio::printed(row, out),
        Place::DimHall => halls::hall(row, out, false),
        Place::BrightHall => halls::hall(row, out, true),
        Place::Tent => halls::tent(row, out),
        Place::Stage => halls::curtain(row, out),
        Place::DanceFloor => halls::party(row, out),
        Place::PoolDeck => halls::pool(row, out),
        Place::FieldDay => open_air::pitch(row, out, open_air::Hour::Day),
        Place::FieldDusk => open_air::pitch(row, out, open_air::Hour::Dusk),
        Place::FieldFloodlit => open_air::pitch(row, out, open_air::Hour::Night),
        Place::Track => open_air::stands(row, out),
        Place::Beach => open_air::sea(row, out),
        Place::Quay => open_air::harbour(row, out),
        Place::StreetNight => open_air::street(row, out),
    }
}
