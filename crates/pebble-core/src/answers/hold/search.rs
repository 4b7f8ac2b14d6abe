//! Going through the positions: for each aperture, ISO and filter the shutter follows the steady light, the power the key,
//! and the distance what the power's steps leave.

use super::TOLERANCE;
use super::board::{Board, LampPlace, LightBoard, Place, PowerPlace};
use super::shortlist::{FINEST, Found, KEPT, Shortlist};
use crate::plan::Settings;
use crate::quantity::scale::Iso;
use crate::quantity::{Metres, Stops};

/// Moving one more control costs as much as this many stops on one that moves already.
const ONE_MORE: f64 = 0.25;
/// Beyond that, what a move costs by its nature, in the order in which a photographer takes them: nothing for power, which is
/// there to be turned; blur of the steady layer for the shutter; a walk to the bag for a filter, to the lamps for their
/// dimmers and to the light for a distance; depth for the aperture; and the ISO last, for its noise.
const SHUTTER: f64 = 0.02;
const FILTER: f64 = 0.5;
const LAMPS: f64 = 0.75;
const DISTANCE: f64 = 1.0;
const APERTURE: f64 = 2.0;
const ISO: f64 = 3.0;
/// A dark row is worse than anything that is off.
const CUT: f64 = 1e3;

/// The best few, best first.
pub(super) fn best(board: &Board) -> Vec<Found> {
    best_of(board, KEPT)
}

/// The one best: the more there may be, the longer the look for them takes.
pub(super) fn very_best(board: &Board) -> Option<Found> {
    best_of(board, 1).pop()
}

fn best_of(board: &Board, most: usize) -> Vec<Found> {
    let mut kept = Shortlist::of(most);
    for index in 0..board.apertures.len() {
        through(board, index, &mut kept);
    }
    kept.best_first()
}

/// The best few of each aperture, a stop apart, that hold everything, wide to narrow.
pub(super) fn per_aperture(board: &Board) -> Vec<Vec<Found>> {
    let whole = |stops: f64| (stops - stops.round()).abs() < 0.01;
    let mut order: Vec<usize> = (0..board.apertures.len()).filter(|k| whole(board.apertures[*k].stops)).collect();
    order.sort_by(|a, b| board.apertures[*a].value.number().total_cmp(&board.apertures[*b].value.number()));
    order
        .into_iter()
        .map(|index| {
            let mut kept = Shortlist::of(KEPT);
            through(board, index, &mut kept);
            let mut kept = kept.best_first();
            kept.retain(|one| one.excess <= 0.0);
            kept
        })
        .filter(|kept: &Vec<Found>| !kept.is_empty())
        .collect()
}

/// All set-ups with one aperture; the best few stay in `kept`, best first.
fn through(board: &Board, index: usize, kept: &mut Shortlist) {
    let aperture = &board.apertures[index];
    let depth = beyond(aperture.depth_off);
    let opened = price(aperture.stops, APERTURE);
    for iso in &board.isos {
        let turned = opened + price(iso.stops, ISO);
        if kept.beats(0.0, turned) {
            break;
        }
        // Where the steady light stays off whatever filter, shutter and lamps do, as far as it is.
        if kept.beats(depth + board.beyond_reach(aperture.stops + iso.stops), turned) {
            continue;
        }
        for filter in &board.filters {
            let turned = turned + price(filter.stops, FILTER);
            if kept.beats(0.0, turned) {
                break;
            }
            if kept.beats(0.0, turned + board.follows_for(aperture.stops + iso.stops + filter.stops)) {
                continue;
            }
            for lamps in &board.lamps {
                if kept.beats(0.0, turned + price(lamps.value.as_stops(), LAMPS)) {
                    break;
                }
                let camera = Camera { index, depth, iso: *iso, filter: *filter, lamps: *lamps };
                let at = shutter_for(board, &camera);
                set_up(board, &camera, at, kept);
                // Too fast for the flashes: the steady light gives rather than the rows.
                if at < board.shutter_safe {
                    set_up(board, &camera, board.shutter_safe, kept);
                }
            }
        }
    }
}

/// Everything on the camera but its time, and the lamps.
struct Camera {
    /// Which aperture of the board.
    index: usize,
    /// Depth that it lacks.
    depth: f64,
    iso: Place<Iso>,
    filter: Place<Stops>,
    lamps: LampPlace,
}

impl Camera {
    /// Stops of light that it gains.
    fn gain(&self, board: &Board) -> f64 {
        board.apertures[self.index].stops + self.iso.stops + self.filter.stops
    }
}

/// One set-up of the camera, its lights following it.
fn set_up(board: &Board, camera: &Camera, at: usize, kept: &mut Shortlist) {
    let &Camera { index, depth, iso, filter, lamps } = camera;
    let (aperture, shutter) = (&board.apertures[index], &board.shutters[at]);
    let gain = camera.gain(board);
    let ambient = [(board.ambient_off, lamps.on_subject), (board.background_off, lamps.on_background)]
        .into_iter()
        .filter_map(|(off, turned)| Some(off? + turned))
        .map(|off| beyond(off + gain + shutter.stops))
        .sum::<f64>();
    let (excess, cost) = (
        depth + ambient,
        price(shutter.stops, SHUTTER)
            + price(iso.stops, ISO)
            + price(aperture.stops, APERTURE)
            + price(filter.stops, FILTER)
            + price(lamps.value.as_stops(), LAMPS),
    );
    // Most are beaten by the camera alone, and are never written down.
    if kept.beats(excess, cost) {
        return;
    }
    let (mut excess, mut cost) = (excess, cost);
    for light in &board.lights {
        let flash = follow(board, light, gain, at);
        excess += flash.excess();
        cost += flash.cost();
        // Each light only adds to both: what is beaten already stays beaten.
        if kept.beats(excess, cost) {
            return;
        }
    }
    // Settings are large, and few of all set-ups are kept: only these are written down.
    let mut settings = Settings {
        aperture: aperture.value,
        shutter: shutter.value,
        iso: iso.value,
        filter: filter.value,
        lamps: board.now.lamps + lamps.value,
        ..board.now
    };
    for light in &board.lights {
        let flash = follow(board, light, gain, at);
        let dial = &mut settings.lights[light.index];
        (dial.power, dial.distance) = (flash.power.value, flash.distance);
    }
    kept.keep(Found { settings, excess, cost });
}

/// One light follows the camera.
fn follow<'a>(board: &Board, light: &'a LightBoard, gain: f64, shutter: usize) -> FlashPlace<'a> {
    let (glow, longer) = light.glow_at(shutter);
    let off = light.off.map(|off| if light.against_camera { off + gain + glow } else { off });
    let time = board.shutters[shutter].value.time().as_secs();
    let flash = flash_for(light, off, board.now.lights[light.index].distance, (time, shutter));
    FlashPlace { longer, ..flash }
}

impl Board {
    /// How far the steady light stays off at least where aperture and ISO change it by so many stops.
    fn beyond_reach(&self, gain: f64) -> f64 {
        let least = |(off, (down, up)): (Option<f64>, (f64, f64))| {
            let off = off.map_or(0.0, |off| off + gain);
            // Nearest to nothing of all that can be made of it.
            if off + down > 0.0 { beyond(off + down) } else { beyond((off + up).min(0.0)) }
        };
        [(self.ambient_off, self.reach.0), (self.background_off, self.reach.1)].map(least).iter().sum()
    }

    /// What shutter, lamps and lights cost at least where aperture, ISO and filter change the light by so many stops: each
    /// stop is turned, walked or left, and each of these costs a stop or more.
    fn follows_for(&self, gain: f64) -> f64 {
        let steady = self.ambient_off.or(self.background_off);
        let steady = steady.map_or(0.0, |off| ((off + gain).abs() - TOLERANCE - FINEST).max(0.0));
        let lights = self.lights.iter().filter(|light| light.against_camera && light.keeps_its_light());
        steady + lights.filter_map(|light| light.off).map(|off| (off + gain).abs()).sum::<f64>()
    }
}

fn beyond(off: f64) -> f64 {
    (off.abs() - TOLERANCE).max(0.0)
}

fn beyond_longer(longer: f64) -> f64 {
    (longer - TOLERANCE).max(0.0)
}

fn price(stops: f64, nature: f64) -> f64 {
    if stops == 0.0 { 0.0 } else { stops.abs() + ONE_MORE + nature }
}

/// The shutter that brings the steady light back; the one that is set where nothing asks for another.
fn shutter_for(board: &Board, camera: &Camera) -> usize {
    let subject = board.ambient_off.map(|off| off + camera.lamps.on_subject);
    let background = || board.background_off.map(|off| off + camera.lamps.on_background);
    let Some(off) = subject.or_else(background) else { return board.shutter_set };
    nearest(&board.shutters, -(off + camera.gain(board)), |place| place.stops)
}

/// How one light is set.
struct FlashPlace<'a> {
    power: &'a PowerPlace,
    distance: Metres,
    /// Stops that the walk gives.
    walked: f64,
    /// How far it then still is from what is held.
    left: Option<f64>,
    /// Whether it leaves rows dark, whatever is turned.
    cuts: bool,
    /// How much longer the shutter's time lets it burn in high-speed sync.
    longer: f64,
}

impl FlashPlace<'_> {
    /// Stops beyond the tolerance.
    fn excess(&self) -> f64 {
        let cut = if self.cuts { CUT } else { 0.0 };
        cut + self.left.map_or(0.0, beyond) + beyond_longer(self.power.longer) + beyond_longer(self.longer)
    }

    fn cost(&self) -> f64 {
        price(self.power.stops, 0.0)
            + price(self.walked, DISTANCE)
            // Of two that hold alike, the one that holds closer.
            + self.left.map_or(0.0, f64::abs)
    }
}

/// Power and distance that bring a light back, at a shutter time that leaves no row dark.
fn flash_for(light: &LightBoard, off: Option<f64>, set: Metres, (time, shutter): (f64, usize)) -> FlashPlace<'_> {
    let stays = |at: usize, left| {
        let power = &light.powers[at];
        FlashPlace { cuts: power.usable_s > time, power, distance: set, walked: 0.0, left, longer: 0.0 }
    };
    let Some(off) = off else {
        // A pulse that may not be longer still has to be short enough.
        if light.set.longer <= TOLERANCE && light.set.usable_s <= time {
            return FlashPlace { cuts: false, power: &light.set, distance: set, walked: 0.0, left: None, longer: 0.0 };
        }
        return stays(whole_near(light, 0.0, time, shutter), None);
    };
    let at = whole_near(light, -off, time, shutter);
    let left = off + light.powers[at].stops + light.through(at, shutter);
    match &light.distances {
        Some(distances) if left.abs() > TOLERANCE => {
            let (distance, walked) = distances.with(-left);
            FlashPlace { distance, walked, ..stays(at, Some(left + walked)) }
        }
        _ => stays(at, Some(left)),
    }
}

/// The power nearest to so many stops whose pulse is over in time; the nearest of all where none is.
fn whole_near(light: &LightBoard, wanted: f64, time: f64, shutter: usize) -> usize {
    let near = nearest(&light.powers, wanted, |place| place.stops);
    if light.powers[near].usable_s <= time && !light.is_cut() {
        return near;
    }
    let away = |at: &usize| (light.powers[*at].stops + light.through(*at, shutter) - wanted).abs();
    let whole = (0..light.powers.len()).filter(|at| light.powers[*at].usable_s <= time);
    whole.min_by(|a, b| away(a).total_cmp(&away(b))).unwrap_or(near)
}

/// The place nearest to so many stops, among places by their stops.
fn nearest<T>(places: &[T], wanted: f64, stops: impl Fn(&T) -> f64) -> usize {
    let above = places.partition_point(|place| stops(place) < wanted);
    let candidates = [above.checked_sub(1), (above < places.len()).then_some(above)];
    let away = |index: &usize| (stops(&places[*index]) - wanted).abs();
    candidates.into_iter().flatten().min_by(|a, b| away(a).total_cmp(&away(b))).unwrap_or(0)
}
