//! Which units can do it: all set-ups that meet what a shot asks, best first, and what would have to give where none does.
//!
//! [`Brief`] says what is asked and judges one set-up by its forecast. [`find`] gives the best of every unit, number of
//! heads, modifier and kind of sync, and how many ways there are, exactly as going through the whole grid would.
//! [`nearest`] prices relaxations in stops.

mod aim;
mod brief;
mod crew;
mod job;
mod marks;
mod nearest;
mod pack;
mod report;
mod seek;
mod setup;
mod steps;
mod stock;
mod tables;
mod window;

pub use crate::file::wish::{Between, BlurLimit, Borrowed, Wish};
pub use crate::plan::Bounds;
pub use aim::Priority;
pub use brief::{Brief, Candidate, Demand, Fares};
pub use crew::{Crew, whole_shot};
pub use job::{JobAnswer, JobShot, whole_job, why_not};
pub use marks::{Mark, MarkMap, Trail, marks};
pub use nearest::{Give, Nearest, nearest, nearest_alone};
pub use pack::{Packed, PackedAs, Taken};
pub use report::{
    ANSWER_FORMAT, CrewLight, CrewRow, GiveSaid, Margin, MatchAnswer, MatchRow, NearestRow, crew_rows, nearest_rows,
    row, rows,
};
pub use seek::{Found, Going};
pub use setup::{SetLight, Setup, applied};
pub use steps::{Chain, Step, chain};
pub use stock::{Offered, Stock};

use aim::Aim;
use seek::Seek;
use tables::Tables;

/// The best of every class of set-ups, best first; `None` when the search was stopped.
pub fn find(brief: &Brief, stock: &Stock, priority: Priority, going: &Going) -> Option<Vec<Found>> {
    let aim = Aim::best(priority);
    let tables = Tables::of(brief, stock, &aim);
    let mut found = Seek::new(brief, stock, &aim, &tables).all(going)?;
    found.sort_by(|a, b| a.cost.total_cmp(&b.cost));
    Some(found)
}

impl Found {
    /// The set-up itself, with the things it is made of.
    pub fn candidate<'a>(&self, brief: &'a Brief, stock: &'a Stock) -> Candidate<'a> {
        Candidate {
            unit: &stock.units[self.unit],
            modifier: stock.modifiers.get(self.modifier).unwrap_or_else(|| brief.present_modifier()),
            heads: self.heads,
            power: self.power,
            distance: self.distance,
            glow: self.glow,
            aperture: self.cam.aperture,
            shutter: self.shutter,
            iso: self.cam.iso,
            filter: self.cam.filter,
        }
    }
}
