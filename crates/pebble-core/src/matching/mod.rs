//! Which units can do it: all set-ups that meet what a shot asks, best first, and what would have to give where none does.
//!
//! [`Problem`] says what is asked and judges one set-up by its forecast. [`find`] gives the best of every unit, number of
//! heads, modifier and kind of sync, and how many ways there are, exactly as going through the whole grid would.
//! [`nearest`] prices relaxations in stops.

mod aim;
mod crew;
mod job;
mod marks;
mod nearest;
mod problem;
mod report;
mod seek;
mod setup;
mod steps;
mod stock;
mod tables;
mod wish;

pub use aim::Priority;
pub use crew::{Crew, whole_shot};
pub use job::{JobAnswer, JobShot, Taken, whole_job, why_not};
pub use marks::{Mark, MarkMap, Trail, marks};
pub use nearest::{Give, Nearest, nearest};
pub use problem::{Candidate, Condition, Fares, Problem};
pub use report::{CrewLight, CrewRow, GiveSaid, Margin, MatchRow, NearestRow, crew_rows, nearest_rows, row, rows};
pub use seek::{Found, Going};
pub use setup::{SetLight, Setup, applied};
pub use steps::{Chain, Step, chain};
pub use stock::{Offered, Stock};
pub use wish::{Between, BlurLimit, Borrowed, Bounds, Wish};

use crate::outlook::outlook;
use crate::plan::Plan;
use crate::quantity::bounds::Invalid;
use crate::shot::Shot;
use aim::Aim;
use seek::Seek;
use tables::Tables;

/// Whether what is asked of the kit beyond the shot can be asked.
///
/// # Errors
/// [`Invalid`] with the path of the field inside the shot, such as `wish.frames`.
pub fn check_wish(shot: &Shot, plan: &Plan) -> Result<(), Invalid> {
    if shot.wish.is_none() {
        return Ok(());
    }
    Bounds::of(shot, plan, &outlook(plan)).map(drop)
}

/// The best of every class of set-ups, best first; `None` when the search was stopped.
pub fn find(problem: &Problem, stock: &Stock, priority: Priority, going: &Going) -> Option<Vec<Found>> {
    let aim = Aim::best(priority);
    let tables = Tables::of(problem, stock, &aim);
    let mut found = Seek::new(problem, stock, &aim, &tables).all(going)?;
    found.sort_by(|a, b| a.cost.total_cmp(&b.cost));
    Some(found)
}

impl Found {
    /// The set-up itself, with the things it is made of.
    pub fn candidate<'a>(&self, problem: &'a Problem, stock: &'a Stock) -> Candidate<'a> {
        Candidate {
            unit: &stock.units[self.unit],
            modifier: stock.modifiers.get(self.modifier).unwrap_or_else(|| problem.present_modifier()),
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
