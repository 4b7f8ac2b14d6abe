//! Going through the positions: for each aperture, ISO and filter the shutter follows the steady light, the power the key,
//! and the distance what the power's steps leave.

use super::TOLERANCE;
use super::board::{Board, PowerPlace, ShutterPlace};
use crate::plan::Settings;

/// Moving one more control costs as much as this many stops on one that moves already.
const ONE_MORE: f64 = 0.25;
/// Beyond that, what a move costs by its nature: nothing for power, which is there to be turned; blur of the steady layer for
/// the shutter, noise for ISO, depth for the aperture, a walk to the bag for a filter and to the light for a distance.
const SHUTTER: f64 = 0.02;
const ISO: f64 = 0.04;
const APERTURE: f64 = 0.06;
const FILTER: f64 = 0.5;
const DISTANCE: f64 = 1.0;
/// Kept for a closer look.
const KEPT: usize = 12;

/// A set-up and what it costs.
#[derive(Clone, Copy, Debug)]
pub(super) struct Found {
    pub settings: Settings,
    /// Stops beyond the tolerance, of everything held together.
    excess: f64,
    cost: f64,
}

impl Found {
    fn rank(&self) -> (f64, f64) {
        // Excess that differs by less than a hundredth decides nothing.
        ((self.excess * 100.0).round(), self.cost)
    }

    fn before(&self, other: &Self) -> bool {
        self.rank() < other.rank()
    }
}

/// The best few, best first.
pub(super) fn best(board: &Board) -> Vec<Found> {
    let mut kept: Vec<Found> = Vec::with_capacity(KEPT + 1);
    for index in 0..board.apertures.len() {
        through(board, index, &mut kept);
    }
    kept
}

/// The best few of each aperture, a stop apart, that hold everything, wide to narrow.
pub(super) fn per_aperture(board: &Board) -> Vec<Vec<Found>> {
    let whole = |stops: f64| (stops - stops.round()).abs() < 0.01;
    let mut order: Vec<usize> = (0..board.apertures.len()).filter(|k| whole(board.apertures[*k].stops)).collect();
    order.sort_by(|a, b| board.apertures[*a].value.number().total_cmp(&board.apertures[*b].value.number()));
    order
        .into_iter()
        .map(|index| {
            let mut kept = Vec::with_capacity(KEPT + 1);
            through(board, index, &mut kept);
            kept.retain(|one| one.excess <= 0.0);
            kept
        })
        .filter(|kept: &Vec<Found>| !kept.is_empty())
        .collect()
}

/// All set-ups with one aperture; the best few stay in `kept`, best first.
fn through(board: &Board, index: usize, kept: &mut Vec<Found>) {
    let aperture = &board.apertures[index];
    let beyond = |off: f64| (off.abs() - TOLERANCE).max(0.0);
    let depth = beyond(aperture.depth_off);
    for iso in &board.isos {
        for filter in &board.filters {
            let gain = aperture.stops + iso.stops + filter.stops;
            let shutter = shutter_for(board, gain);
            let ambient = [board.ambient_off, board.background_off]
                .into_iter()
                .flatten()
                .map(|off| beyond(off + gain + shutter.stops))
                .sum::<f64>();
            let key = board.key_off.map(|off| off + gain + shutter.flash_stops);
            let (power, distance, left) = flash_for(board, key);
            let longer = (power.longer - TOLERANCE).max(0.0) + (shutter.longer - TOLERANCE).max(0.0);
            let found = Found {
                settings: Settings {
                    aperture: aperture.value,
                    shutter: shutter.value,
                    iso: iso.value,
                    filter: filter.value,
                    power: power.value,
                    flash_distance: distance.0,
                    ..board.now
                },
                excess: depth + ambient + left.map_or(0.0, beyond) + longer,
                cost: price(power.stops, 0.0)
                    + price(shutter.stops, SHUTTER)
                    + price(iso.stops, ISO)
                    + price(aperture.stops, APERTURE)
                    + price(filter.stops, FILTER)
                    + price(distance.1, DISTANCE)
                    // Of two that hold alike, the one that holds closer.
                    + left.map_or(0.0, f64::abs),
            };
            keep(kept, found);
        }
    }
}

fn price(stops: f64, nature: f64) -> f64 {
    if stops == 0.0 { 0.0 } else { stops.abs() + ONE_MORE + nature }
}

fn keep(kept: &mut Vec<Found>, found: Found) {
    let place = kept.partition_point(|one| !found.before(one));
    if place < KEPT {
        kept.insert(place, found);
        kept.truncate(KEPT);
    }
}

/// The shutter that brings the steady light back; the one that is set where nothing asks for another.
fn shutter_for(board: &Board, gain: f64) -> &ShutterPlace {
    let Some(off) = board.ambient_off.or(board.background_off) else { return &board.shutters[0] };
    let wanted = -(off + gain);
    nearest(&board.shutters, wanted, |place| place.stops)
}

/// Power and distance that bring the key back, and how far it then still is.
fn flash_for(board: &Board, key: Option<f64>) -> (&PowerPlace, (crate::quantity::Metres, f64), Option<f64>) {
    let stay = (board.now.flash_distance, 0.0);
    let allowed = |place: &PowerPlace| place.longer <= TOLERANCE;
    let Some(off) = key else {
        // A pulse that may not be longer still has to be short enough.
        let power = board.powers.iter().find(|place| allowed(place)).unwrap_or(&board.powers[0]);
        return (power, stay, None);
    };
    let short_enough = board.powers.iter().filter(|place| allowed(place));
    let power = short_enough
        .min_by(|a, b| (a.stops + off).abs().total_cmp(&(b.stops + off).abs()))
        .unwrap_or_else(|| nearest(&board.powers, -off, |place| place.stops));
    let left = off + power.stops;
    match &board.distances {
        Some(distances) if left.abs() > TOLERANCE => {
            let (distance, given) = distances.with(-left);
            (power, (distance, given), Some(left + given))
        }
        _ => (power, stay, Some(left)),
    }
}

fn nearest<T>(places: &[T], wanted: f64, stops: impl Fn(&T) -> f64) -> &T {
    places.iter().min_by(|a, b| (stops(a) - wanted).abs().total_cmp(&(stops(b) - wanted).abs())).unwrap_or(&places[0])
}
