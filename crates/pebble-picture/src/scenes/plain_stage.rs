//! An even wall, for measuring: its tone is that of the forecast everywhere. Parts are drawn as cards.

use super::{Paint, Scene};

const EVEN: Paint = Paint { ambient: [1.0; 3], flash: [1.0; 3] };

pub(super) fn scene() -> Scene {
    Scene { backdrop: |row, out| row.paint(out, |_| EVEN), farthest: 1.0, figures: Vec::new() }
}
