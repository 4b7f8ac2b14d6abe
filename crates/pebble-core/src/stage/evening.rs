//! The least uneven of all ways to light an area by several lights, each of which may stand and shine in so many ways.
//!
//! Light adds up, so a way is a sum of tables: what each choice gives every place of the area. The sums are gone through
//! light by light; the last one is only looked at where all together are as bright at the mark as is wanted, and a way is
//! worked out in full only where a coarser look at it, which is never worse than the whole, could win.

use super::field::{CHEST, Lamp, Shining};
use super::region::Region;
use super::space::Spot;

/// Places along each side that the coarser look has: both edges, the middle, and what is between.
const COARSE: usize = 5;

/// A way to light the area: which choice of each light, and how uneven it is, in stops.
#[derive(Clone, Debug, PartialEq)]
pub struct Way {
    /// For each light, its choice.
    pub chosen: Vec<usize>,
    /// The highest less the lowest, in stops.
    pub spread: f64,
}

/// What is asked of a way.
#[derive(Clone, Copy, Debug)]
pub struct Wanted {
    /// Where the camera is, to which domes are turned.
    pub camera: Spot,
    /// All together at the mark's chest, least and most.
    pub at_mark: (f64, f64),
    /// So many ways are told.
    pub most: usize,
}

/// What one choice gives.
struct Table {
    coarse: Vec<f32>,
    fine: Vec<f32>,
    at_mark: f64,
}

/// The least uneven ways, the best first, by one choice of each light; `standing` shine as they are. Exact over all choices,
/// to the rounding of single numbers.
pub fn least_uneven(region: &Region, standing: &[Lamp], choices: &[Vec<Lamp>], wanted: Wanted) -> Vec<Way> {
    if choices.is_empty() || choices.iter().any(Vec::is_empty) {
        return Vec::new();
    }
    let table = |light: &dyn Fn(Spot) -> f64| {
        let (mut coarse, mut fine) = (Vec::new(), Vec::new());
        region.each_of(COARSE, |place| coarse.push(light(place) as f32));
        region.each(|place| fine.push(light(place) as f32));
        Table { coarse, fine, at_mark: light(CHEST) }
    };
    let of_lamp = |lamp: &Lamp| {
        let lamp = lamp.shining();
        table(&|place| lamp.on_dome(place, wanted.camera))
    };
    let mut tables: Vec<Vec<(usize, Table)>> = Vec::with_capacity(choices.len());
    for choice in choices {
        let mut of_light: Vec<(usize, Table)> = choice.iter().map(of_lamp).enumerate().collect();
        of_light.sort_by(|a, b| a.1.at_mark.total_cmp(&b.1.at_mark));
        tables.push(of_light);
    }
    let standing: Vec<Shining> = standing.iter().map(Lamp::shining).collect();
    let base = table(&|place| standing.iter().map(|lamp| lamp.on_dome(place, wanted.camera)).sum());
    // What the lights after each can add at the mark, at least and at most.
    let mut adds = vec![(0.0, 0.0); tables.len() + 1];
    for light in (0..tables.len()).rev() {
        let (least, most) = (&tables[light][0].1, &tables[light][tables[light].len() - 1].1);
        adds[light] = (adds[light + 1].0 + least.at_mark, adds[light + 1].1 + most.at_mark);
    }
    let sums = vec![base.coarse.clone(); tables.len() + 1];
    let mut search = Search { tables: &tables, base: &base, adds, wanted, sums, chosen: Vec::new(), best: Vec::new() };
    search.go(0, base.at_mark);
    let told = |(chosen, spread): (Vec<usize>, f64)| Way {
        chosen: chosen.iter().zip(&tables).map(|(at, of_light)| of_light[*at].0).collect(),
        spread,
    };
    search.best.into_iter().map(told).collect()
}

struct Search<'a> {
    /// Of each light what each of its choices gives, and which that is; the faintest at the mark first.
    tables: &'a [Vec<(usize, Table)>],
    base: &'a Table,
    adds: Vec<(f64, f64)>,
    wanted: Wanted,
    /// What the lights up to each give the coarse places.
    sums: Vec<Vec<f32>>,
    chosen: Vec<usize>,
    /// The best so far, least uneven first.
    best: Vec<(Vec<usize>, f64)>,
}

impl Search<'_> {
    fn go(&mut self, light: usize, at_mark: f64) {
        let (least, most) = self.wanted.at_mark;
        let tables = self.tables;
        let (adds, last) = (self.adds[light + 1], light + 1 == tables.len());
        // The faintest with which the rest can still be enough, to the brightest with which it is not too much.
        let from = tables[light].partition_point(|(_, table)| at_mark + table.at_mark + adds.1 < least);
        let to = tables[light].partition_point(|(_, table)| at_mark + table.at_mark + adds.0 <= most);
        for (at, (_, table)) in tables[light].iter().enumerate().take(to).skip(from) {
            self.chosen.push(at);
            if last {
                let bound = spread(self.sums[light].iter().zip(&table.coarse).map(|(sum, own)| sum + own));
                if bound < self.beats() {
                    self.look();
                }
            } else {
                let (before, after) = self.sums.split_at_mut(light + 1);
                for ((sum, before), own) in after[0].iter_mut().zip(&before[light]).zip(&table.coarse) {
                    *sum = before + own;
                }
                self.go(light + 1, at_mark + table.at_mark);
            }
            self.chosen.pop();
        }
    }

    /// What a way has to be more even than to be told.
    fn beats(&self) -> f64 {
        if self.best.len() < self.wanted.most { f64::INFINITY } else { self.best[self.best.len() - 1].1 }
    }

    /// The way in hand in full.
    fn look(&mut self) {
        let mut fine = self.base.fine.clone();
        for (of_light, at) in self.tables.iter().zip(&self.chosen) {
            for (sum, own) in fine.iter_mut().zip(&of_light[*at].1.fine) {
                *sum += own;
            }
        }
        let uneven = spread(fine.into_iter());
        if uneven < self.beats() {
            self.best.truncate(self.wanted.most - 1);
            let place = self.best.partition_point(|(_, other)| *other <= uneven);
            self.best.insert(place, (self.chosen.clone(), uneven));
        }
    }
}

/// The highest less the lowest, in stops.
fn spread(light: impl Iterator<Item = f32>) -> f64 {
    let ends = light.fold((f32::INFINITY, 0.0_f32), |(low, high), gets| (low.min(gets), high.max(gets)));
    f64::from(ends.1 / ends.0).log2()
}
