//! What can hurt someone, where the plan calls for it. Each says what is usual and defers to those who decide: the venue,
//! local code, the maker's manual and licensed people. None of them is a substitute for those.

use crate::file::gear::UnitKind;
use crate::file::shot::{Role, Shot};
use crate::plan::Plan;
use crate::wire::report;

pub use crate::file::around::Around;

/// Above this a light hangs over heads, in degrees at the subject.
const OVERHEAD_DEG: f64 = 55.0;
/// A face of this radius is a sail.
const SAIL_M: f64 = 0.3;
/// Faster than this nobody looks where stands and cables are.
const RUNNING_M_S: f64 = 2.0;
/// Faster than this a body is at its limit.
const EXERTED_M_S: f64 = 4.0;
/// Nearer than this a flash is bright in the eyes of infants and animals.
const CLOSE_M: f64 = 1.0;
/// Lamps of more than this get hot enough to burn cloth and gels.
const HOT_W: f64 = 100.0;

report! {
    /// One caution.
    pub struct Caution {
        /// Stable identity.
        pub id: String,
        /// What it is about, in a few words.
        pub title: String,
        /// What is usual, and who decides.
        pub says: String,
        /// Why it is shown here.
        pub because: String,
        /// Whether it was acknowledged for this shot.
        pub acknowledged: bool,
    }
}

/// The cautions a shot calls for, those not yet acknowledged first. The plan is the shot's own.
pub fn cautions(shot: &Shot, plan: &Plan) -> Vec<Caution> {
    let mut found: Vec<Caution> = Vec::new();
    let mut say = |id: &str, title: &str, because: String, says: &str| {
        found.push(Caution {
            id: id.to_owned(),
            title: title.to_owned(),
            says: says.to_owned(),
            because,
            acknowledged: shot.acknowledged.iter().any(|seen| seen == id),
        });
    };
    let around = |what: Around| shot.around.contains(&what);
    let outside = around(Around::Outdoors) || shot.sky.is_some();
    let lights = || shot.lights.iter().zip(plan.lights.iter()).filter(|(wire, _)| wire.on);
    let named = |light: &crate::plan::Light| light.label.clone();
    let fastest = plan.parts.iter().map(|part| part.speed.as_metres_per_second()).fold(0.0, f64::max);

    if let Some((_, light)) = lights().find(|(wire, _)| wire.height_deg > OVERHEAD_DEG) {
        say(
            "overhead",
            "A light over heads",
            format!("{} stands {:.0}° up.", named(light), light.height.as_radians().to_degrees()),
            "Usual: a boom or stand rated for the weight, a counterweight, a safety cable on head and modifier, nobody \
             under it while it is moved. The venue's rigger and the maker's load figures decide.",
        );
    }
    if let Some((wire, light)) = lights().find(|(wire, _)| wire.modifier.face_radius_m >= SAIL_M).filter(|_| outside) {
        say(
            "wind",
            "Wind on large modifiers",
            format!("{} carries {} in the open.", named(light), wire.modifier.name),
            "Usual: weight on every stand, someone holding it, down before a gust front. Take it off when in doubt; the \
             venue's wind limit and the stand's manual decide.",
        );
    }
    let mains = |kind: UnitKind| matches!(kind, UnitKind::MainsHead | UnitKind::Generator);
    if let Some((wire, _)) =
        lights().find(|(wire, _)| mains(wire.unit.kind)).filter(|_| outside || around(Around::Water))
    {
        say(
            "mains-wet",
            "Mains and high voltage near water or outdoors",
            format!("{} runs from the mains or a pack.", wire.unit.name),
            "Usual: residual-current protection, dry connections off the ground, nothing within reach of the water; \
             capacitors are never opened. A qualified electrician and the venue decide.",
        );
    }
    if fastest > RUNNING_M_S && lights().next().is_some() {
        say(
            "stands",
            "Stands and cables where people move",
            format!("Something moves at {fastest:.1} m/s."),
            "Usual: weight on the stands, cables taped or overhead, a clear run-out longer than anyone needs. The venue's \
             safety officer and the athlete's coach decide where nothing may stand.",
        );
    }
    if fastest > EXERTED_M_S {
        say(
            "repeats",
            "Warm up, rest, a limit on repeats",
            format!("Something moves at {fastest:.1} m/s, again and again."),
            "Usual: warm up first, agree on the number of tries, stop at the first pain; floors that do not slip. Coach and \
             athlete decide, not the picture.",
        );
    }
    let strobes = lights().find(|(_, light)| light.unit.readiness.strobes());
    if let Some((wire, _)) = strobes.filter(|_| around(Around::Spectators)) {
        say(
            "strobing",
            "Repeated flashes and people sensitive to them",
            format!("{} can flash more than three times a second, and people watch.", wire.unit.name),
            "Usual: bursts short, a notice at the entrance, an announcement before. The venue and its first-aiders decide.",
        );
    }
    if around(Around::Competition) && lights().next().is_some() {
        say(
            "competition",
            "Flash in competition",
            "A competition is under way.".to_owned(),
            "Never at a diver's, gymnast's or rider's decisive moment without leave. The rules of the event and its \
             officials decide; ask before the first frame.",
        );
    }
    if around(Around::Spectators) && lights().any(|(_, light)| light.role == Role::Rim || light.is_behind()) {
        say(
            "dazzle",
            "Lights that face people",
            "A rim faces the camera's side, and people watch.".to_owned(),
            "Usual: flags and grids, so that nobody at the edge or on the stands is dazzled in a movement. The officials \
             and the venue decide.",
        );
    }
    if let Some((wire, _)) =
        lights().find(|(wire, _)| wire.distance_m < CLOSE_M).filter(|_| around(Around::AnimalsOrInfants))
    {
        say(
            "close",
            "Flash at close range",
            format!("{} is {} away.", wire.unit.name, plan.lengths.say(wire.distance_m, 1)),
            "Usual: bounced or far, low power, a pause between frames; stop when they turn away. Parents, keepers and vets \
             decide.",
        );
    }
    let gelled = lights().find(|(wire, _)| {
        wire.modelling.as_ref().is_some_and(|modelling| modelling.lamp.watts.is_some_and(|watts| watts >= HOT_W))
    });
    let hot = shot.lamps.iter().find(|lamp| lamp.on && lamp.lamp.watts.is_some_and(|watts| watts >= HOT_W));
    let burning = gelled
        .and_then(|(wire, _)| wire.modelling.as_ref().map(|modelling| modelling.lamp.name.clone()))
        .or_else(|| hot.map(|lamp| lamp.lamp.name.clone()));
    if let Some(name) = burning {
        say(
            "hot",
            "Hot lamps near cloth and gels",
            format!("{name} burns while you work."),
            "Usual: distance to cloth and gels as the maker says, off when nobody looks, gloves, a fire blanket at hand. \
             The venue's fire officer decides.",
        );
    }
    if around(Around::SmokeOrFire) {
        say(
            "smoke",
            "Smoke, haze, sparklers, powder",
            "They are around.".to_owned(),
            "Fire, breathing and detectors: permission of the venue and the fire authority, air for everyone, an \
             extinguisher. Never improvise pyrotechnics; licensed people do them.",
        );
    }
    if around(Around::Lasers) {
        say(
            "lasers",
            "Lasers, eyes and sensors",
            "They are around.".to_owned(),
            "Never look or point a lens into a beam; it takes eyes and sensors alike. The laser safety officer of the show \
             decides where you stand.",
        );
    }
    if around(Around::SlipperyFloor) {
        say(
            "floor",
            "A floor that slips",
            "It is wet or polished.".to_owned(),
            "Usual: dry it, mats, other shoes, or another place. The venue and the athlete decide.",
        );
    }
    if around(Around::Height) {
        say(
            "height",
            "Ladders, rigs and people at height",
            "Someone or something is above the ground.".to_owned(),
            "Usual: someone holds the ladder, tools on lines, nobody below; rigs are checked by those who own them. Only \
             trained people work at height, by local code.",
        );
    }
    found.sort_by_key(|caution| caution.acknowledged);
    found
}
