//! What a set-up has to meet: from the shot where nothing else is said, tightened or loosened by the photographer.

use crate::file::look::Held;
use crate::file::shot::{Intent, Shot};
use crate::file::wish::{Between, BlurLimit, Borrowed, Wish};
use crate::physics::ghost::SEEN_FROM;
use crate::physics::shutter::SyncMode;
use crate::plan::Plan;
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::quantity::{Metres, Seconds, Stops};

/// How far the key may be from its target: half a click.
const KEY_WITHIN: f64 = 1.0 / 6.0;
/// Noise that is usual where nothing is said: ISO.
const USUAL_CEILING: i32 = 24;
/// As far as a light is carried from the subject where nothing is said.
const USUAL_REACH: f64 = 8.0;
/// Nothing slower is held in the hand where nothing is said, in sixths of a stop: 1/60.
const USUAL_SLOWEST: i32 = 36;
/// Heads side by side where nothing is said.
const USUAL_HEADS: u32 = 3;
/// All the filters one can hold before a lens.
const ALL_FILTERS: f64 = 20.0;

/// A wish, checked, with what the shot says where it is silent.
#[derive(Clone, Debug, PartialEq)]
pub struct Bounds {
    /// How far the key may be off.
    pub key_within: Stops,
    /// Steady light on the subject; open ends are infinite. Where it is not said it follows from how the shot is lit, which
    /// only the outlook knows.
    pub ambient: Option<(Stops, Stops)>,
    /// Steady light on the background.
    pub background: (Stops, Stops),
    /// What steady light loses until then, negative or zero.
    pub darker: Stops,
    /// Lowest and highest ISO.
    pub iso: (Iso, Iso),
    /// Widest and smallest aperture.
    pub aperture: (Aperture, Aperture),
    /// Slowest and fastest time.
    pub shutter: (ShutterTime, ShutterTime),
    /// Most grey.
    pub filter_max: Stops,
    /// Whether the grey before the lens stays.
    pub filter_stays: bool,
    /// Whether powers stay.
    pub power_stays: bool,
    /// No nearer, where it was said.
    pub nearest: Option<Metres>,
    /// No farther.
    pub farthest: Metres,
    /// Whether lights stay where they stand.
    pub places_stay: bool,
    /// Longest freezing time, where it was said.
    pub freeze: Option<Seconds>,
    /// The most that the key differs over the area, where it was said.
    pub even: Option<Stops>,
    /// Whether a light may glow.
    pub high_speed: bool,
    /// Whether other modifiers are tried.
    pub any_modifier: bool,
    /// Allowed blur of each part on the sensor, where it has a limit.
    pub blur: Vec<Option<Metres>>,
    /// How visible a trail may be.
    pub trail: f64,
    /// Depth.
    pub depth: Metres,
    /// Frames in a row.
    pub frames: u32,
    /// Frames a second.
    pub rate: f64,
    /// Flashes on one charge.
    pub flashes: u32,
    /// Heads side by side.
    pub heads: u32,
    /// Stands on the set.
    pub stands: u32,
    /// Weight in kg, infinite where it does not matter.
    pub weight_kg: f64,
    /// Units beyond the owned ones.
    pub borrowed: Vec<Borrowed>,
}

impl Bounds {
    /// The bounds of a shot.
    ///
    /// # Errors
    /// [`Invalid`] names the field of the wish that cannot be, or the two that contradict each other.
    pub fn of(shot: &Shot, plan: &Plan) -> Result<Self, Invalid> {
        let none = Wish::default();
        let wish = shot.wish.as_ref().unwrap_or(&none);
        let (at, body) = (At::new("wish"), &plan.body);
        let ceiling = Iso::from_sv6(USUAL_CEILING);
        let set = &plan.settings;
        let iso = |name: &str, value: Option<f64>, usual: Iso| {
            value.map_or(Ok(usual), |value| Iso::read(&at.of(name), value, body.grid))
        };
        let usual_highest = [ceiling, set.iso].into_iter().fold(body.isos.0, |a, b| if b > a { b } else { a });
        let usual_highest = if usual_highest > body.isos.1 { body.isos.1 } else { usual_highest };
        // What is locked on the Bench stays, unless the wish says otherwise.
        let locked = |control: Held| shot.hold.contains(&control);
        let (usual_isos, usual_aperture) = (
            if locked(Held::Iso) { (set.iso, set.iso) } else { (body.isos.0, usual_highest) },
            // Nothing but the aperture turns the depth: neither focal length nor distance are turned.
            if locked(Held::Aperture) || locked(Held::Depth) { (set.aperture, set.aperture) } else { body.apertures },
        );
        let isos = (iso("iso_min", wish.iso_min, usual_isos.0)?, iso("iso_max", wish.iso_max, usual_isos.1)?);
        if isos.0 > isos.1 {
            let reason = format!("iso_max is {}: there is no ISO between them", isos.1.label(body.grid));
            return Err(at.contradiction("iso_min", isos.0.label(body.grid), reason));
        }
        let time = |name: &str, value: &Option<String>, usual: ShutterTime| {
            value.as_ref().map_or(Ok(usual), |text| ShutterTime::read(&at.of(name), text, body.grid))
        };
        let aperture = |name: &str, value: Option<f64>, usual: Aperture| {
            value.map_or(Ok(usual), |value| Aperture::read(&at.of(name), value, body.grid))
        };
        let apertures = (
            aperture("aperture_min_f", wish.aperture_min_f, usual_aperture.0)?,
            aperture("aperture_max_f", wish.aperture_max_f, usual_aperture.1)?,
        );
        if apertures.0 > apertures.1 {
            let reason =
                format!("aperture_max_f is {}: there is no aperture between them", apertures.1.label(body.grid));
            return Err(at.contradiction("aperture_min_f", apertures.0.label(body.grid), reason));
        }
        // What shall streak says itself how long that takes.
        let streaks = plan.parts.iter().any(|part| part.intent == Intent::Dash);
        let slow = if streaks { body.times.0 } else { ShutterTime::from_tv6(USUAL_SLOWEST) };
        let usual_slowest = if set.shutter.time() > slow.time() { set.shutter } else { slow };
        let (usual_slowest, usual_fastest) =
            if locked(Held::Shutter) { (set.shutter, set.shutter) } else { (usual_slowest, body.times.1) };
        let times = (time("slowest", &wish.slowest, usual_slowest)?, time("fastest", &wish.fastest, usual_fastest)?);
        if times.0.time() < times.1.time() {
            let reason = format!("fastest is {}: there is no time between them", times.1.label(body.grid));
            return Err(at.contradiction("slowest", times.0.label(body.grid), reason));
        }
        let metres = |name: &str, value: Option<f64>| {
            value.map(|value| at.metres(name, value, &bounds::FLASH_DISTANCE)).transpose()
        };
        let nearest = metres("nearest_m", wish.nearest_m)?;
        let set_up = set.lights.iter().map(|dial| dial.distance.as_metres()).fold(USUAL_REACH, f64::max);
        let farthest = metres("farthest_m", wish.farthest_m)?.unwrap_or(Metres::from_metres(set_up));
        if nearest.is_some_and(|nearest| nearest > farthest) {
            let reason = format!("farthest_m is {}: there is no place between them", farthest.as_metres());
            return Err(at.contradiction("nearest_m", wish.nearest_m.unwrap_or_default().to_string(), reason));
        }
        let whole = |name: &str, value: Option<u32>, limits: &bounds::Limits, usual: u32| {
            value.map_or(Ok(usual), |value| limits.check(&at.of(name), f64::from(value)).map(|_| value))
        };
        let stops = |name: &str, value: Option<f64>, limits: &bounds::Limits, usual: f64| {
            value.map_or(Ok(usual), |value| limits.check(&at.of(name), value)).map(Stops::from_stops)
        };
        for (index, borrowed) in wish.borrowed.iter().enumerate() {
            let at = at.row("borrowed", index);
            at.figure("count", f64::from(borrowed.count), &bounds::OWNED)?;
            at.name("unit", &borrowed.unit, "the identity of a unit")?;
        }
        let highs = set.lights.iter().any(|dial| dial.sync == SyncMode::HighSpeed);
        Ok(Self {
            key_within: stops("key_within_stops", wish.key_within_stops, &bounds::WITHIN, KEY_WITHIN)?,
            ambient: wish.ambient.as_ref().map(|between| window(&at.inside("ambient"), between)).transpose()?,
            background: wish
                .background
                .as_ref()
                .map_or(Ok(ANYWHERE), |between| window(&at.inside("background"), between))?,
            darker: -stops("darker_stops", wish.darker_stops, &bounds::FILTER, 0.0)?,
            iso: isos,
            aperture: apertures,
            shutter: times,
            filter_max: stops("filter_max_stops", wish.filter_max_stops, &bounds::FILTER, ALL_FILTERS)?,
            filter_stays: locked(Held::Filter),
            power_stays: locked(Held::Power),
            nearest,
            farthest,
            places_stay: wish.places_stay.unwrap_or(locked(Held::FlashDistance)),
            freeze: wish
                .freeze_at_most_ms
                .map(|most| at.millis("freeze_at_most_ms", most, &bounds::PULSE_TIME))
                .transpose()?,
            even: even(&at, wish, plan)?,
            high_speed: wish.high_speed.unwrap_or(highs),
            any_modifier: wish.any_modifier.unwrap_or(false),
            blur: blur(&at, wish, plan)?,
            trail: at.maybe("trail", wish.trail, &bounds::TRAIL)?.unwrap_or(SEEN_FROM),
            depth: wish
                .depth_m
                .map_or(Ok(plan.subject_depth), |depth| at.metres("depth_m", depth, &bounds::SUBJECT_DEPTH))?,
            frames: whole("frames", wish.frames, &bounds::FRAMES, plan.burst.map_or(1, |burst| burst.frames))?,
            rate: at
                .maybe("frames_per_second", wish.frames_per_second, &bounds::FRAME_RATE)?
                .unwrap_or(plan.burst.map_or(1.0, |burst| burst.rate)),
            flashes: whole("flashes", wish.flashes, &bounds::FLASHES, 0)?,
            heads: whole("heads", wish.heads, &bounds::ABREAST, USUAL_HEADS)?,
            stands: whole("stands", wish.stands, &bounds::OWNED, 100)?,
            weight_kg: at.maybe("weight_kg", wish.weight_kg, &bounds::MASS)?.unwrap_or(f64::INFINITY),
            borrowed: wish.borrowed.clone(),
        })
    }

    /// The same as a wish that says everything, for a form to show.
    pub fn said(&self, plan: &Plan) -> Wish {
        let grid = plan.body.grid;
        let between = |(low, high): (Stops, Stops)| {
            let between = Between { low_stops: low.to_wire(), high_stops: high.to_wire() };
            (between.low_stops.is_some() || between.high_stops.is_some()).then_some(between)
        };
        let number = |label: String, exact: f64| label.parse().unwrap_or(exact);
        let pitch = plan.body.sensor.pitch();
        let limits = plan.parts.iter().zip(&self.blur);
        Wish {
            key_within_stops: Some(self.key_within.as_stops()),
            ambient: self.ambient.and_then(between),
            background: between(self.background),
            darker_stops: Some(-self.darker.as_stops() + 0.0),
            iso_min: Some(number(self.iso.0.label(grid), self.iso.0.number())),
            iso_max: Some(number(self.iso.1.label(grid), self.iso.1.number())),
            aperture_min_f: Some(number(self.aperture.0.label(grid), self.aperture.0.number())),
            aperture_max_f: Some(number(self.aperture.1.label(grid), self.aperture.1.number())),
            slowest: Some(self.shutter.0.label(grid)),
            fastest: Some(self.shutter.1.label(grid)),
            filter_max_stops: Some(self.filter_max.as_stops()),
            nearest_m: self.nearest.map(Metres::as_metres),
            farthest_m: Some(self.farthest.as_metres()),
            places_stay: Some(self.places_stay),
            freeze_at_most_ms: self.freeze.map(Seconds::as_millis),
            even_within_stops: self.even.map(Stops::as_stops),
            high_speed: Some(self.high_speed),
            any_modifier: Some(self.any_modifier),
            blur: limits
                .filter_map(|(part, limit)| Some(BlurLimit { part: part.name.clone(), px: (*limit)? / pitch }))
                .collect(),
            trail: Some(self.trail),
            depth_m: Some(self.depth.as_metres()),
            frames: Some(self.frames),
            frames_per_second: Some(self.rate),
            flashes: Some(self.flashes),
            heads: Some(self.heads),
            stands: Some(self.stands),
            weight_kg: self.weight_kg.is_finite().then_some(self.weight_kg),
            borrowed: self.borrowed.clone(),
        }
    }
}

/// A window that is open on both sides.
pub(crate) const ANYWHERE: (Stops, Stops) = (Stops::DARK, Stops::from_stops(f64::INFINITY));

fn window(at: &At, between: &Between) -> Result<(Stops, Stops), Invalid> {
    let end = |name: &str, value: Option<f64>, open: Stops| {
        value.map_or(Ok(open), |value| at.stops(name, value, &bounds::OFFSET))
    };
    let (low, high) =
        (end("low_stops", between.low_stops, ANYWHERE.0)?, end("high_stops", between.high_stops, ANYWHERE.1)?);
    if low > high {
        let reason = format!("high_stops is {}: there is nothing between them", high.as_stops());
        return Err(at.contradiction("low_stops", low.as_stops().to_string(), reason));
    }
    Ok((low, high))
}

fn blur(at: &At, wish: &Wish, plan: &Plan) -> Result<Vec<Option<Metres>>, Invalid> {
    let allowed = plan.allowed_blur();
    let mut limits: Vec<Option<Metres>> = plan.parts.iter().map(|part| part.intent.blur_limit(allowed)).collect();
    for (index, limit) in wish.blur.iter().enumerate() {
        let at = at.row("blur", index);
        let px = at.figure("px", limit.px, &bounds::BLUR)?;
        // A part that was renamed or taken away has no limit any more.
        if let Some(part) = plan.parts.iter().position(|part| part.name == limit.part) {
            limits[part] = Some(plan.body.sensor.pitch() * px);
        }
    }
    Ok(limits)
}

/// How even the key has to be: over an area that somebody said.
fn even(at: &At, wish: &Wish, plan: &Plan) -> Result<Option<Stops>, Invalid> {
    let most = at.maybe("even_within_stops", wish.even_within_stops, &bounds::EVEN)?;
    if let (Some(most), None) = (most, plan.area) {
        let reason = "no area is known: say on the floor where the subject may be".to_owned();
        return Err(at.contradiction("even_within_stops", format!("{most} stops"), reason));
    }
    Ok(most.map(Stops::from_stops))
}
