//! The shot before anything is computed: the activity's people, place and parts, the camera of the kit, and the light as it
//! was read or as it usually is.

use super::{Answers, NoShot};
use crate::activities::{Activity, Moves, Typical, typical};
use crate::answers::speeds::{SaidSpeed, SaidWhere, speed};
use crate::answers::typed;
use crate::file::gear::{Kit, Lens, Modifier, Trigger};
use crate::file::movement::{Chances, TypicalLight, WhenTaken};
use crate::file::shot::{Ambient, Background, Intent, Lead, Part, Reading, Reads, Shot, ShotBurst, Subject, Targets};
use crate::file::stage::Place;
use crate::physics::motion::Usage;
use crate::quantity::bounds;
use crate::quantity::said::{self, FigureKind};
use crate::quantity::scale::ShutterTime;

/// As far as somebody likes to stand from what happens, against the width that the frame holds.
const AWAY: f64 = 1.5;
/// Nearer than this nobody stands.
const NEAREST_M: f64 = 1.5;
/// What a search begins from, where it syncs.
const USUAL_TIME: &str = "1/125";
/// Room that is left before what is behind.
const BEFORE_THE_WALL_M: f64 = 0.4;

/// From this radius on a light is soft at the distance of a portrait.
pub(super) const SOFT_FROM_M: f64 = 0.28;

/// The shot and what of it was guessed.
pub(super) struct Begun {
    pub shot: Shot,
    /// Whether the light that is there belongs into the picture.
    pub mood: bool,
    pub typical: Typical,
    /// What was said, or is usual, of each part.
    pub speeds: Vec<(SaidSpeed, bool)>,
    pub place: Place,
    pub chances: Chances,
}

pub(super) fn begin(answers: &Answers, kit: &Kit, basis: &Shot) -> Result<Begun, NoShot> {
    let Some(activity) = Activity::by_id(&answers.activity) else {
        return Err(NoShot::UnknownActivity { activity: answers.activity.chars().take(60).collect() });
    };
    if let Some(unknown) = answers.parts.iter().find(|said| !activity.parts.iter().any(|part| part.name == said.name)) {
        let names: Vec<String> = activity.parts.iter().map(|part| part.name.to_lowercase()).collect();
        let (activity, part) = (activity.name.to_owned(), unknown.name.chars().take(60).collect());
        return Err(NoShot::UnknownPart { activity, part, parts: names.join(", ") });
    }
    let place = answers.place.unwrap_or(activity.place);
    let usual = typical(place);
    let chances = answers.chances.unwrap_or(activity.chances);
    let mut shot = basis.clone();
    shot.title = activity.name.to_owned();
    shot.place = String::new();
    shot.activity = Some(activity.id.to_owned());
    shot.usage = answers.usage.unwrap_or(Usage::Print);
    shot.targets = Targets {
        lead: Lead::Flash,
        reads: Reads::LitSide,
        subject_stops: 0.0,
        ambient_stops: None,
        background_stops: None,
    };
    (shot.sky, shot.wish, shot.burst) = (None, None, None);
    (shot.groups, shot.lamps, shot.tones, shot.hold) = (Vec::new(), Vec::new(), Vec::new(), Vec::new());
    shot.acknowledged = Vec::new();
    shot.around = activity.around.to_vec();
    let mut composition = activity.composition(place);
    // Nobody stands in the wall.
    let deepest = usual.behind_m - BEFORE_THE_WALL_M;
    composition.people.iter_mut().for_each(|person| person.away_m = person.away_m.min(deepest));
    shot.stage = Some(composition);

    let mut speeds = Vec::with_capacity(activity.parts.len());
    shot.parts = Vec::with_capacity(activity.parts.len());
    for moves in activity.parts {
        let said = answers.parts.iter().find(|said| said.name == moves.name);
        let typed = said.and_then(|said| said.speed.as_deref()).filter(|text| !text.trim().is_empty());
        let found = match typed {
            Some(text) => {
                speed(text, SaidWhere::default()).map_err(|why| NoShot::Speed { part: moves.name.to_owned(), why })?
            }
            None => SaidSpeed {
                slowest_m_s: moves.speed_m_s.0,
                fastest_m_s: moves.speed_m_s.1,
                basis: moves.basis.to_owned(),
            },
        };
        shot.parts.push(part(moves, said.and_then(|said| said.intent), &found));
        speeds.push((found, typed.is_none()));
    }
    camera(&mut shot, answers, activity, kit)?;
    shot.subject.depth_m = activity.depth_m;
    shot.background =
        Background { reflectance: usual.reflectance, behind_m: usual.behind_m, spill_stops: usual.spill_stops };
    shot.ambient = ambient(answers.meter.as_deref(), &usual)?;
    shot.camera.white_balance_k = 5500.0;
    shot.moment = activity.jump_m.map(|(_, high)| WhenTaken {
        jump_m: Some(high),
        tries: match chances {
            Chances::One => Some(1),
            Chances::Few => Some(5),
            Chances::Many => None,
        },
        ..WhenTaken::default()
    });
    light(&mut shot, kit, basis);
    if chances == Chances::One {
        // Nobody comes back for a second one: a few frames in a row, no faster than most cameras do.
        let rate = shot.camera.body.frames_per_second.unwrap_or(4.0).min(4.0);
        shot.burst = Some(ShotBurst { frames: 4, per_second: rate, action_s: None });
    }
    Ok(Begun { shot, mood: activity.mood, typical: usual, speeds, place, chances })
}

fn part(moves: &Moves, intent: Option<Intent>, speed: &SaidSpeed) -> Part {
    /// Share of the frame's width: a streak that is seen and spoils nothing.
    const USUAL_STREAK: f64 = 0.06;
    let intent = intent.unwrap_or(moves.intent);
    // As fine as a file keeps it.
    let kept = |value: f64| (value * 1e4).round() / 1e4;
    let (slowest, fastest) = (kept(speed.slowest_m_s), kept(speed.fastest_m_s));
    Part {
        name: moves.name.to_owned(),
        intent,
        drawn_as: moves.drawn_as,
        speed_m_s: fastest,
        slowest_m_s: (slowest < fastest).then_some(slowest),
        speed_from: Some(speed.basis.chars().take(200).collect()),
        direction_deg: moves.direction_deg,
        out_of_plane_deg: 0.0,
        size_m: moves.size_m,
        path_m: moves.path_m,
        reflectance: moves.reflectance,
        luminance_cd_m2: moves.luminance_cd_m2,
        flash_offset_stops: 0.0,
        ambient_offset_stops: moves.catches_stops,
        from_middle_share: None,
        streak_share: (intent == Intent::Dash).then_some(moves.streak_share.unwrap_or(USUAL_STREAK)),
        streak_m: None,
        streak_whole: false,
        phases: Vec::new(),
    }
}

/// The camera of the kit, the lens whose length fits best, and how far to stand.
fn camera(shot: &mut Shot, answers: &Answers, activity: &Activity, kit: &Kit) -> Result<(), NoShot> {
    let there = |id: &str| !kit.retired.iter().any(|away| away == id);
    let body = match &answers.camera {
        Some(id) => Some(kit.cameras.iter().find(|camera| camera.id == *id).ok_or_else(|| {
            crate::plan::check::At::default().not_allowed("camera", id, "the identity of a camera of the kit")
        })?),
        None => kit.cameras.iter().find(|camera| there(&camera.id)),
    };
    if let Some(body) = body {
        shot.camera.body = body.clone();
    }
    // Frame and distance are those of the picture, whatever is asked of the lens.
    let width = shot.camera.body.sensor_width_mm;
    let away = (activity.frame_m * AWAY).max(NEAREST_M);
    let wanted = 1000.0 * away / (activity.frame_m * 1000.0 / width + 1.0);
    let reach = |lens: &Lens| wanted.clamp(lens.focal_min_mm, lens.focal_max_mm);
    let off = |lens: &&Lens| (reach(lens) / wanted).log2().abs() + 0.1 * (lens.widest_f / 2.0).log2();
    let fits = |lens: &&Lens| there(&lens.id);
    if let Some(lens) = kit.lenses.iter().filter(fits).min_by(|a, b| off(a).total_cmp(&off(b))) {
        shot.camera.lens = lens.clone();
    }
    let focal = reach(&shot.camera.lens).round().clamp(shot.camera.lens.focal_min_mm, shot.camera.lens.focal_max_mm);
    shot.camera.focal_mm = focal;
    let distance = focal * (activity.frame_m * 1000.0 / width + 1.0) / 1000.0;
    shot.subject = Subject { distance_m: (distance * 10.0).round() / 10.0, depth_m: 0.0, depth_at_most_m: None };
    let (lens, grid) = (&shot.camera.lens, shot.camera.body.grid);
    shot.camera.aperture_f = 8.0_f64.clamp(lens.widest_f, lens.narrowest_f);
    let long = |text: &str| ShutterTime::read("sync", text, grid).map_or(0.0, |time| time.time().as_secs());
    let sync = shot.camera.body.sync.clone();
    shot.camera.shutter = if long(&sync) > long(USUAL_TIME) { sync } else { USUAL_TIME.to_owned() };
    shot.camera.iso = 200.0_f64.clamp(shot.camera.body.iso_min, shot.camera.body.iso_max);
    (shot.camera.filter_stops, shot.camera.movement) = (0.0, None);
    (shot.camera.greys, shot.camera.filters) = (Vec::new(), Vec::new());
    Ok(())
}

/// The steady light as it was read, or as it usually is there.
fn ambient(said: Option<&str>, usual: &Typical) -> Result<Ambient, NoShot> {
    let behind = |subject: &Reading| match subject {
        Reading::Ev100 { ev } => Reading::Ev100 { ev: ev + usual.behind_stops },
        other => other.clone(),
    };
    let (subject, typical) = match said.map(str::trim).filter(|text| !text.is_empty()) {
        Some(text) => {
            let read = reading(text).ok_or_else(|| NoShot::Meter { text: text.chars().take(60).collect() })?;
            if let Reading::Ev100 { ev } = read {
                bounds::EV.check("meter", ev)?;
            }
            (read, None)
        }
        None => {
            let (least_ev, ev, most_ev) = usual.ev100;
            (Reading::Ev100 { ev }, Some(TypicalLight { ev, least_ev, most_ev }))
        }
    };
    Ok(Ambient { background: behind(&subject), subject, kelvin: usual.kelvin, typical, other: None })
}

/// A reading as it is said: by settings, as an exposure value, in lux, or as black at some settings.
fn reading(text: &str) -> Option<Reading> {
    let small = text.to_lowercase();
    if let Some(rest) = small.strip_prefix("black") {
        let (aperture_f, shutter, iso) = typed::settings(rest.trim_start().trim_start_matches("at "))?;
        return Some(Reading::Black { aperture_f, shutter, iso });
    }
    if let Some(ev) = small.strip_prefix("ev").or_else(|| small.strip_suffix("ev")) {
        return said::read(FigureKind::Number, ev).ok().map(|ev| Reading::Ev100 { ev });
    }
    if let Some((aperture_f, shutter, iso)) = typed::settings(&small) {
        return Some(Reading::Exposure { aperture_f, shutter, iso });
    }
    let named = small.ends_with("lx") || small.ends_with("lux");
    said::read(FigureKind::Lux, text).ok().filter(|_| named).map(|lux| Reading::Lux { lux })
}

/// One key from the left, a little above the eyes, by a trigger that has channels; what it is comes from the search.
fn light(shot: &mut Shot, kit: &Kit, basis: &Shot) {
    let there = |id: &str| !kit.retired.iter().any(|away| away == id);
    let radio = |trigger: &&Trigger| there(&trigger.id) && trigger.channels.is_some();
    let mut key = basis.lights[0].clone();
    if let Some(unit) = kit.units.iter().find(|unit| there(&unit.id)) {
        key.unit = unit.to_carry();
        key.power = 1.0;
    }
    let soft = |modifier: &&Modifier| there(&modifier.id) && modifier.face_radius_m >= SOFT_FROM_M;
    let mut modifiers = kit.modifiers.iter();
    if let Some(modifier) = modifiers.clone().find(soft).or_else(|| modifiers.find(|one| there(&one.id))) {
        key.modifier = modifier.clone();
    }
    if let Some(trigger) = kit.triggers.iter().find(radio).or_else(|| kit.triggers.iter().find(|one| there(&one.id))) {
        key.trigger = trigger.clone();
    }
    (key.bearing_deg, key.height_deg, key.distance_m, key.on) = (-42.0, 32.0, 2.5, true);
    (key.automatic, key.modelling, key.metered, key.gel, key.misses) = (None, None, None, None, Vec::new());
    shot.lights = vec![key];
}
