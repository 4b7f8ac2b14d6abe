//! Several lights, lamps and a moving camera: worked by hand.

use crate::common::{examples, plan, shot, through_a_longer_lens};
use pebble_core::cautions::{Around, cautions};
use pebble_core::findings::{self, Severity};
use pebble_core::output::{colour, grazing};
use pebble_core::quantity::Angle;
use pebble_core::shot::{
    Automatic, BouncedOff, Flash, Modelling, ModellingMode, Movement, Reading, Role, SetLamp, Shot, Tone,
};
use pebble_core::shutter::SyncMode;
use pebble_core::{Forecast, Plan, forecast, outlook, strips};
use proptest::prelude::*;

/// The double-ropes shot with a second light like its first.
fn pair(change: impl FnOnce(&mut Flash)) -> Shot {
    let mut shot = shot();
    let mut second = shot.lights[0].clone();
    (second.role, second.group) = (Role::Fill, "B".to_owned());
    change(&mut second);
    shot.lights.push(second);
    shot
}

fn told(shot: &Shot) -> Forecast {
    forecast(&plan(shot))
}

fn ids(shot: &Shot) -> Vec<String> {
    let plan = plan(shot);
    findings::judge(&plan, &outlook(&plan))
        .into_iter()
        .filter(|one| one.severity != Severity::Fine)
        .map(|one| one.id)
        .collect()
}

fn refused(shot: &Shot) -> (String, String) {
    let error = Plan::try_from(shot).expect_err("it cannot be");
    (error.field().to_owned(), error.to_string())
}

fn stops(of: Option<f64>) -> f64 {
    of.expect("there is light")
}

fn lamp() -> SetLamp {
    let kit: serde_json::Value = serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).unwrap();
    let lamp = kit["lamps"].as_array().unwrap().iter().find(|lamp| lamp["id"] == "rod-40").unwrap().clone();
    SetLamp {
        on: true,
        lamp: serde_json::from_value(lamp).unwrap(),
        gel: None,
        level_share: 1.0,
        distance_m: 2.0,
        stands: None,
        lights_background: false,
        misses: Vec::new(),
    }
}

#[test]
fn equal_lights_are_a_stop_more_and_heads_side_by_side_too() {
    let one = stops(told(&shot()).flash.placement_stops);
    assert!((stops(told(&pair(|_| ())).flash.placement_stops) - one - 1.0).abs() < 1e-9);
    let mut three = shot();
    three.lights[0].heads = 3;
    assert!((stops(told(&three).flash.placement_stops) - one - 3f64.log2()).abs() < 1e-9);
    // A rim and a backdrop's light do not count where the subject is metered; a muted one gives nothing.
    for change in [
        |light: &mut Flash| light.role = Role::Rim,
        |light: &mut Flash| light.role = Role::Backdrop,
        |light: &mut Flash| light.on = false,
    ] {
        assert!((stops(told(&pair(change)).flash.placement_stops) - one).abs() < 1e-9);
    }
    // Two stops below the key is one part in four.
    let weaker = told(&pair(|light| light.power /= 4.0));
    assert_eq!(weaker.lights[1].ratio.as_deref(), Some("1:4"));
    assert_eq!(weaker.lights[0].ratio, None);
}

#[test]
fn each_light_has_its_own_pulse_and_the_longest_that_counts_decides() {
    // The same unit at full power lasts far longer than at an eighth; set as bright, it draws the blur.
    let slow = pair(|light| (light.power, light.distance_m) = (1.0, light.distance_m * 8f64.sqrt()));
    let seen = told(&slow);
    let shoes = &seen.parts[1];
    assert_eq!(shoes.slowest.as_deref(), Some("B fill"));
    let blur = shoes.image_speed_px_s * seen.lights[1].pulse.t01_s;
    assert!((shoes.flash_blur_px.unwrap() / blur - 1.0).abs() < 1e-9);
    // Four stops below it draws nothing that is told from the rest.
    let dim = pair(|light| (light.power, light.distance_m) = (1.0, light.distance_m * 8f64.sqrt() * 4.0));
    assert_eq!(told(&dim).parts[1].slowest.as_deref(), Some("A key"));
    // Where it does not reach it draws nothing at all.
    let mut aside = slow.clone();
    aside.lights[1].misses = vec!["Shoes".to_owned()];
    let seen = told(&aside);
    assert_eq!((seen.parts[1].slowest.as_deref(), seen.parts[0].slowest.as_deref()), (Some("A key"), Some("B fill")));
    let level = |shot: &Shot, part: usize| told(shot).parts[part].flash_level;
    assert!(level(&aside, 1) < level(&slow, 1) && level(&aside, 0) == level(&slow, 0));
}

#[test]
fn lights_that_fire_apart_draw_two_images() {
    let late = pair(|light| light.trigger.lag_ms += 1.4);
    let seen = told(&late);
    assert!((seen.lights[1].firing.ignition_s - seen.lights[0].firing.ignition_s - 1.4e-3).abs() < 1e-12);
    for part in &seen.parts {
        assert!((part.apart_px - part.image_speed_px_s * 1.4e-3).abs() < 1e-6, "{}", part.name);
    }
    assert!(ids(&late).contains(&"apart-Shoes".to_owned()));
    // One on each curtain is apart on purpose.
    let mut both = late;
    both.camera.shutter = "1/30".to_owned();
    both.lights[1].sync = SyncMode::Rear;
    assert!(told(&both).parts.iter().all(|part| part.apart_px == 0.0));
    // Rows add up by each light's own share, and each is judged.
    let mut short = pair(|light| light.trigger.lag_ms += 3.0);
    short.camera.shutter = "1/250".to_owned();
    assert!(ids(&short).contains(&"rows-cut-light-1".to_owned()), "{:?}", ids(&short));
}

#[test]
fn a_light_on_another_channel_is_silent_and_one_press_mends_it() {
    // A fill two stops under its key, so that the two are right together.
    let deaf = pair(|light| (light.channel, light.power) = (4, light.power / 4.0));
    let seen = told(&deaf);
    assert!(!seen.lights[1].fires && seen.lights[1].silent.as_deref().unwrap().contains("channel 4"));
    assert_eq!(seen.lights[1].flash.in_frame_stops, None);
    let plan = plan(&deaf);
    let judged = findings::judge(&plan, &outlook(&plan));
    assert_eq!(judged[0].id, "silent-light-1", "nothing hurts more than half of the lights");
    let mended = crate::common::applied(&deaf, &judged[0].remedies[0].changes);
    assert!(told(&mended).lights[1].fires);
}

#[test]
fn a_cord_hears_whatever_is_sent_and_a_radio_only_its_own_channels() {
    let mut corded = pair(|light| light.channel = 4);
    corded.lights[1].trigger.channels = None;
    assert!(told(&corded).lights[1].fires, "a cord has no channel to be wrong");
    // Both are set to 20, and the radio of the second has sixteen.
    let mut beyond = pair(|light| (light.channel, light.trigger.channels) = (20, Some(16)));
    (beyond.channel, beyond.lights[0].channel) = (20, 20);
    let seen = told(&beyond);
    assert!(seen.lights[0].fires && !seen.lights[1].fires);
    assert!(seen.lights[1].silent.as_deref().unwrap().contains("its trigger has 16"), "{:?}", seen.lights[1].silent);
    let plan = plan(&beyond);
    let judged = findings::judge(&plan, &outlook(&plan));
    assert!(judged[0].id == "silent-light-1" && judged[0].cause.contains("its trigger has 16"));
    assert!(judged[0].remedies.is_empty(), "turning it to a channel it lacks would mend nothing");
}

#[test]
fn rims_look_brighter_than_they_are_read() {
    let at = |bearing: f64| grazing::allowance(Angle::from_degrees(bearing), Angle::from_degrees(0.0), 0.3).as_stops();
    // By hand: half of 150° is 75°, its cosine 0.2588; F = 0.04 + 0.96·0.7412⁵ = 0.2548; log2(0.5548/0.34).
    assert!((at(150.0) - 0.706).abs() < 2e-3, "{}", at(150.0));
    assert!(at(0.0).abs() < 1e-9 && at(90.0) < at(120.0) && at(120.0) < at(160.0));
    let rim = |light: &mut Flash| (light.role, light.bearing_deg, light.height_deg) = (Role::Rim, 150.0, 0.0);
    let seen = told(&pair(rim));
    let allowance = seen.lights[1].grazing_stops.unwrap();
    assert!(allowance > 0.4 && seen.parts.iter().all(|part| part.edge_stops.is_some()));
    assert!(ids(&pair(rim)).contains(&"rim-light-1".to_owned()), "as bright as the key it outshines it");
    // What was seen on the set counts more than the rule.
    let known = pair(|light| {
        rim(light);
        light.grazing_stops = Some(0.0);
    });
    assert_eq!(told(&known).lights[1].grazing_stops, Some(0.0));
    assert!(!ids(&known).contains(&"rim-light-1".to_owned()));
}

#[test]
fn feathering_bounce_and_backdrop_lights_by_hand() {
    // A Lambertian face turned 60° away gives half: cos 60°.
    let mut turned = shot();
    turned.lights[0].modifier.half_angle_deg = None;
    turned.lights[0].modifier.grid_deg = None;
    let straight = stops(told(&turned).flash.placement_stops);
    turned.lights[0].off_axis_deg = 60.0;
    assert!((stops(told(&turned).flash.placement_stops) - straight + 1.0).abs() < 1e-9);
    // Straight up to a ceiling 2 m above, 3 m from the subject: d₂² = 13, cos α = 2/√13; n = 1, so Ψ = π·I0 and
    // H = ρ·I0·cos α/d₂².
    let mut up = shot();
    let light = &mut up.lights[0];
    (light.modifier.half_angle_deg, light.modifier.grid_deg) = (None, None);
    (light.modifier.face_radius_m, light.modifier.source_offset_m, light.distance_m) = (0.0, 0.01, 3.0);
    let bare = plan(&up).key_light().throw.strength(up.lights[0].power);
    up.lights[0].bounce = Some(BouncedOff { surface_m: 2.0, tilt_deg: 90.0, reflectance: 0.8, coloured: false });
    let seen = told(&up);
    let wanted = 0.8 * bare * (2.0 / 13f64.sqrt()) / 13.0;
    // The whole beam, not one spot of it: next to the same for a head that is turned straight at the ceiling.
    assert!((seen.flash.exposure_lxs / wanted).log2().abs() < 0.02, "{} for {wanted}", seen.flash.exposure_lxs);
    assert!(seen.lights[0].flash.bounce_stops.unwrap() < -0.5 && !ids(&up).contains(&"surface".to_owned()));
    // It comes from the spot above the flash, not from the flash.
    let (_, height) = plan(&up).key_light().comes_from(pebble_core::quantity::Metres::from_metres(3.0));
    assert!((height.as_radians() - 2f64.atan2(3.0)).abs() < 1e-12);
    for spoil in [
        |bounce: &mut BouncedOff| bounce.reflectance = 0.3,
        |bounce: &mut BouncedOff| bounce.coloured = true,
        |bounce: &mut BouncedOff| bounce.surface_m = 7.0,
    ] {
        let mut bad = up.clone();
        spoil(bad.lights[0].bounce.as_mut().unwrap());
        assert!(ids(&bad).contains(&"surface".to_owned()), "the honest answer is not to");
    }
    // A backdrop's light lands there whole; one from behind shines away from it.
    let lit = told(&pair(|light| light.role = Role::Backdrop));
    assert!(
        (lit.spill.exposure_lxs - lit.lights[1].flash.exposure_lxs - told(&shot()).spill.exposure_lxs).abs() < 1e-9
    );
    assert_eq!(told(&pair(|light| light.bearing_deg = 150.0)).spill.exposure_lxs, told(&shot()).spill.exposure_lxs);
}

#[test]
fn an_automatic_aims_at_middle_grey_and_says_when_it_cannot() {
    let tone =
        |name: &str, share, reflectance| Tone { name: name.to_owned(), share, reflectance, relative_distance: 1.0 };
    let mut shot = shot();
    shot.lights[0].automatic = Some(Automatic { bias_stops: 0.0 });
    assert!(stops(told(&shot).flash.placement_stops).abs() < 1e-9, "an even grey scene is placed at grey");
    // Who asks for more before grey tones means it: the automatic was not fooled.
    let mut more = shot.clone();
    more.lights[0].automatic = Some(Automatic { bias_stops: 1.0 });
    let judged = findings::judge(&plan(&more), &outlook(&plan(&more)));
    assert!(judged.iter().any(|one| one.id == "exposure") && judged.iter().all(|one| !one.cause.contains("18 %")));
    // Half black, half white: 0.45 on average, 1.32 stops over grey; left alone the picture is that much too dark.
    shot.tones = vec![tone("wall", 0.5, 0.1), tone("shirts", 0.5, 0.8)];
    let wanted = (0.45f64 / 0.18).log2();
    assert!((stops(told(&shot).flash.placement_stops) + wanted).abs() < 1e-9);
    let off = |shot: &Shot| findings::judge(&plan(shot), &outlook(&plan(shot)));
    let dark = off(&shot).into_iter().find(|one| one.id == "exposure").expect("it is too dark");
    assert!(dark.cause.contains("takes what is before it for 18 %, and it is lighter: it asks for +1.3, +0.0 is set"));
    shot.lights[0].automatic = Some(Automatic { bias_stops: wanted });
    assert!(off(&shot).iter().all(|one| !one.cause.contains("18 %")), "and nothing is said of it");
    assert!(stops(told(&shot).flash.placement_stops).abs() < 1e-9, "told so, it is right");
    // It follows who comes nearer; and far away it runs out.
    shot.lights[0].distance_m = 1.5;
    assert!(stops(told(&shot).flash.placement_stops).abs() < 1e-9);
    shot.lights[0].distance_m = 40.0;
    let seen = told(&shot);
    assert_eq!(seen.lights[0].flash.power, 1.0);
    assert!(seen.lights[0].flash.automatic_short_stops.unwrap() > 1.0);
    assert!(ids(&shot).contains(&"automatic".to_owned()));
    // Somewhat too far: more ISO gives it room again, and that is what is offered.
    shot.lights[0].distance_m = 14.0;
    shot.parts.clear();
    let plan = plan(&shot);
    let judged = findings::judge(&plan, &outlook(&plan));
    let short = judged.iter().find(|one| one.id == "automatic").expect("it is short");
    assert!(short.remedies[0].label.starts_with("ISO "), "{short:?}");
    assert!(!ids(&crate::common::applied(&shot, &short.remedies[0].changes)).contains(&"automatic".to_owned()));
    shot.tones = vec![tone("nothing", 0.0, 0.5)];
    assert!(refused(&shot).1.contains("no tone has a share"));
}

#[test]
fn an_automatic_that_faces_the_lens_is_set_by_hand() {
    let mut shot = shot();
    shot.lights[0].automatic = Some(Automatic { bias_stops: 0.0 });
    assert!(!ids(&shot).contains(&"meters-itself".to_owned()));
    let mut rim = shot.lights[0].clone();
    (rim.role, rim.bearing_deg, rim.group) = (Role::Rim, 150.0, "B".to_owned());
    shot.lights.push(rim);
    let judged = findings::judge(&plan(&shot), &outlook(&plan(&shot)));
    let said = judged.iter().find(|one| one.id == "meters-itself-light-1").expect("the rim looks into the lens");
    assert_eq!(said.remedies.len(), 1, "{said:?}");
    assert!(said.remedies[0].label.contains("by hand"), "{:?}", said.remedies[0]);
    let by_hand = crate::common::applied(&shot, &said.remedies[0].changes);
    assert_eq!(by_hand.lights[1].automatic, None);
    assert!(!ids(&by_hand).contains(&"meters-itself-light-1".to_owned()));
    // What it gives stays, to the nearest step of its dial.
    let (was, is) = (told(&shot).lights[1].flash.on_set_stops, told(&by_hand).lights[1].flash.on_set_stops);
    assert!((stops(was) - stops(is)).abs() < 0.2);
}

#[test]
fn lamps_draw_where_they_reach_in_their_own_colour() {
    let mut dark = shot();
    dark.ambient.subject = Reading::Lux { lux: 0.0 };
    let mut lit = dark.clone();
    lit.lamps = vec![SetLamp { level_share: 0.5, misses: vec!["Face".to_owned()], ..lamp() }];
    // 400 lx at a metre, half of it, two metres away.
    let seen = told(&lit);
    assert!((seen.ambient_subject.illuminance_lx.unwrap() - 400.0 * 0.5 / 4.0).abs() < 1e-9);
    assert_eq!((seen.parts[0].ambient_level, seen.lamps.len(), seen.lamps[0].lamp), (0.0, 1, Some(0)));
    // One that is off before it does not take its place.
    let mut second = lit.clone();
    second.lamps.insert(0, SetLamp { on: false, ..lamp() });
    assert_eq!((told(&second).lamps.len(), told(&second).lamps[0].lamp), (1, Some(1)));
    assert!(seen.parts[1].ambient_level > 0.0 && seen.lamps[0].draws_on.contains(&"Shoes".to_owned()));
    assert_eq!(seen.ambient_background.exposure_lxs, told(&dark).ambient_background.exposure_lxs);
    lit.lamps[0].on = false;
    assert_eq!(told(&lit).ambient_subject.placement_stops, None, "no light is no light, and no number");
    // Colour against the balance, in mired: neutral at home, warm below it, cool above.
    let [red, green, blue] = colour::seen_as(4000.0, 4000.0);
    assert!((red - 1.0).abs() < 1e-9 && (green - 1.0).abs() < 1e-9 && (blue - 1.0).abs() < 1e-9);
    let (warm, cool) = (colour::seen_as(2900.0, 5500.0), colour::seen_as(9000.0, 5500.0));
    assert!(warm[0] > warm[1] && warm[1] > warm[2] && cool[2] > cool[1] && cool[1] > cool[0]);
    let mut tungsten = shot();
    tungsten.ambient.kelvin = 3200.0;
    let seen = told(&tungsten);
    assert_eq!(seen.colour.trail_word, "warmer");
    assert!((seen.colour.ambient_mired - (1e6 / 3200.0 - 1e6 / tungsten.camera.white_balance_k)).abs() < 1e-9);
}

#[test]
fn a_camera_that_follows_streaks_the_background() {
    let mut shot = shot();
    shot.camera.movement =
        Some(Movement { pan_m_s: 4.0, direction_deg: 0.0, shake_deg_s: 0.0, zoom_share: 0.2, ..Movement::default() });
    let seen = told(&shot);
    let wanted = 4.0 * seen.optics.magnification * seen.moment.shutter_s / seen.optics.pitch_m;
    assert!((seen.camera.background_travel_px / wanted - 1.0).abs() < 1e-9);
    assert!((seen.camera.zoom_px - 0.5 * 0.2 * f64::from(shot.camera.body.pixels_wide)).abs() < 1e-6);
    shot.camera.movement.as_mut().unwrap().zoom_share = 0.0;
    let seen = told(&shot);
    assert_eq!(seen.parts[0].streak_px, told(&crate::common::shot()).parts[0].streak_px, "parts move against the aim");
    // A hand that shakes blurs all of it, still parts too.
    shot.camera.movement = Some(Movement { pan_m_s: 0.0, direction_deg: 0.0, shake_deg_s: 3.0, ..Movement::default() });
    let shaken = told(&shot);
    assert!(shaken.parts[0].flash_blur_px > told(&crate::common::shot()).parts[0].flash_blur_px);
    // It is said where the steady light makes enough of the picture to be smeared.
    assert!(!ids(&shot).contains(&"shaken".to_owned()));
    shot.ambient.subject = Reading::Lux { lux: 4000.0 };
    assert!(ids(&shot).contains(&"shaken".to_owned()));
}

#[test]
fn what_is_wrong_among_lights_is_said_with_its_number_and_whose_it_is() {
    let said = |shot: &Shot, id: &str| {
        let plan = plan(shot);
        let judged = findings::judge(&plan, &outlook(&plan));
        let found = judged.iter().find(|one| one.id == id).unwrap_or_else(|| panic!("{id}: {:?}", ids(shot)));
        format!("{} | {}", found.title, found.cause)
    };
    let deaf = said(&pair(|light| light.channel = 3), "silent-light-1");
    assert_eq!(deaf, "B fill: will not fire | It listens on channel 3; the trigger on the camera sends on 1.");
    let apart = said(&pair(|light| light.trigger.lag_ms += 1.4), "apart-Shoes");
    assert!(apart.starts_with("Shoes: two images ") && apart.contains("B fill fires 1.40 ms after A key"), "{apart}");
    let rim = said(
        &pair(|light| (light.role, light.bearing_deg, light.grazing_stops) = (Role::Rim, 150.0, Some(1.0))),
        "rim-light-1",
    );
    assert_eq!(
        rim,
        "B rim: 1.0 stop over the key, as it looks | It is read at +0.0; grazing light looks brighter by about 1.0 stop."
    );
    let bounced = said(
        &pair(|light| {
            light.bounce = Some(BouncedOff { surface_m: 6.0, tilt_deg: 90.0, reflectance: 0.8, coloured: false });
        }),
        "surface-light-1",
    );
    assert!(bounced.starts_with("B fill: better not") && bounced.contains("the light spreads on the way"), "{bounced}");
    // Slow, as bright as the key: the blur is said of the light that draws it, and its remedy turns that light.
    let slow = pair(|light| (light.power, light.distance_m) = (1.0, light.distance_m * 5f64.sqrt()));
    let blur = said(&slow, "blur-Shoes");
    assert!(blur.contains("B fill (Brix 400) at 1/1 lasts"), "{blur}");
    let plan = plan(&slow);
    let judged = findings::judge(&plan, &outlook(&plan));
    for remedy in judged.iter().filter(|one| one.id == "blur-Shoes").flat_map(|one| &one.remedies) {
        let pointers: Vec<&str> = remedy.changes.iter().map(|change| change.pointer.as_str()).collect();
        assert!(pointers.iter().any(|pointer| pointer.starts_with("/lights/1/")), "{remedy:?}");
    }
}

#[test]
fn lights_that_are_turned_alike_are_named_together() {
    // A still part leaves a trail: less ISO mends it, and both lights follow by as much.
    let mut lit = through_a_longer_lens(pair(|_| ()), 3.0);
    lit.ambient.subject = Reading::Lux { lux: 1500.0 };
    // Without the ropes, whose streak a shorter time or less light would spoil.
    lit.parts.truncate(2);
    let plan = plan(&lit);
    let judged = findings::judge(&plan, &outlook(&plan));
    let labels: Vec<&str> = judged.iter().flat_map(|one| &one.remedies).map(|remedy| remedy.label.as_str()).collect();
    assert!(labels.iter().any(|label| label.contains("all lights ")), "{labels:?}");
    assert!(labels.iter().all(|label| label.matches("power").count() < 2), "{labels:?}");
}

#[test]
fn every_light_has_its_strips_and_each_notch_is_a_shot() {
    for shot in examples() {
        let plan = plan(&shot);
        let all = strips::strips(&plan);
        for light in 0..plan.lights.len() {
            let own: Vec<&str> =
                all.iter().filter(|strip| strip.light == Some(light)).map(|strip| strip.id.as_str()).collect();
            assert_eq!(own, ["power", "flash_distance", "sync"], "{}", shot.title);
        }
        let file = serde_json::to_value(&shot).unwrap();
        for strip in &all {
            assert!(file.pointer(&strip.pointer).is_some(), "{}: {}", shot.title, strip.pointer);
            assert!(strip.index < strip.notches.len());
            for notch in [strip.notches.first().unwrap(), strip.notches.last().unwrap()] {
                let mut turned = file.clone();
                *turned.pointer_mut(&strip.pointer).unwrap() = serde_json::to_value(&notch.value).unwrap();
                let turned: Shot = serde_json::from_value(turned).unwrap();
                assert!(Plan::try_from(&turned).is_ok(), "{}: {} {}", shot.title, strip.id, notch.label);
            }
        }
    }
    let mut left = shot();
    left.lights[0].automatic = Some(Automatic { bias_stops: 0.5 });
    let strips = strips::strips(&plan(&left));
    let bias = strips.iter().find(|strip| strip.id == "bias").expect("an automatic is turned by its bias");
    assert_eq!((bias.pointer.as_str(), bias.notches.len()), ("/lights/0/automatic/bias_stops", 19));
    assert!(strips.iter().all(|strip| strip.id != "power"));
}

#[test]
fn a_modelling_lamp_burns_with_its_flash_and_through_what_is_before_it() {
    let kit: serde_json::Value = serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).unwrap();
    let model = kit["lamps"].as_array().unwrap().iter().find(|lamp| lamp["id"] == "brix-model").unwrap().clone();
    let mut shot = shot();
    shot.ambient.subject = Reading::Lux { lux: 0.0 };
    let at = |mode, power| {
        let mut shot = shot.clone();
        shot.lights[0].power = power;
        shot.lights[0].modelling = Some(Modelling { lamp: serde_json::from_value(model.clone()).unwrap(), mode });
        shot
    };
    let lux = |shot: &Shot| told(shot).ambient_subject.illuminance_lx.unwrap();
    let full = at(ModellingMode::Full, 0.25);
    // By hand: candela through the modifier, over distance and face.
    let light = plan(&full).lights[0].clone();
    let wanted = 420.0 * light.throw.modifier.as_ratio()
        / light.throw.face.spread(pebble_core::quantity::Metres::from_metres(full.lights[0].distance_m));
    assert!((lux(&full) / wanted - 1.0).abs() < 1e-9);
    assert_eq!(lux(&full), lux(&at(ModellingMode::Full, 1.0)), "it burns fully at any power");
    assert!((lux(&at(ModellingMode::Proportional, 0.25)) / lux(&full) - 0.25).abs() < 1e-9);
    let mut off = full.clone();
    off.lights[0].on = false;
    assert_eq!(lux(&off), 0.0, "a unit that is off burns nothing");
    assert!(
        told(&full).lamps[0].name.contains("A key")
            && told(&full).lamps[0].kelvin == model["colour_k"].as_f64().unwrap()
    );
}

#[test]
fn what_cannot_be_is_refused_in_a_sentence() {
    let mut none = shot();
    none.lights.clear();
    let mut forty = shot();
    forty.lights = vec![forty.lights[0].clone(); 40];
    let mut stranger = shot();
    stranger.lights[0].misses = vec!["Elbow".to_owned()];
    let mut lettered = shot();
    lettered.lights[0].group = "key".to_owned();
    let mut deep = pair(|_| ());
    deep.lights[1].distance_m = f64::NAN;
    let mut crowd = shot();
    crowd.lamps = vec![lamp(); 13];
    for (shot, field, word) in [
        (none, "lights", "a list of 0"),
        (forty, "lights", "a list of 40"),
        (stranger, "lights[0].misses", "Elbow"),
        (lettered, "lights[0].group", "one letter"),
        (deep, "lights[1].distance_m", "not between"),
        (crowd, "lamps", "at most 12"),
    ] {
        let (at, said) = refused(&shot);
        assert!(at == field && said.contains(word), "{at}: {said}");
    }
}

#[test]
fn files_with_a_single_flash_are_read_as_they_were() {
    let mut old = serde_json::to_value(shot()).unwrap();
    let mut flash = old["lights"][0].take();
    for new in ["role", "group", "channel", "heads", "bearing_deg", "height_deg"] {
        flash.as_object_mut().unwrap().remove(new);
    }
    let whole = old.as_object_mut().unwrap();
    whole.remove("lights");
    whole.remove("channel");
    whole.insert("flash".to_owned(), flash);
    whole.insert("version".to_owned(), 1.into());
    let read: Shot = serde_json::from_value(old).unwrap();
    let mut new = shot();
    // As high as was usual before anybody said.
    new.lights[0].height_deg = 30.0;
    assert_eq!(read, new, "and are written as version 2");
}

#[test]
fn cautions_come_where_the_plan_calls_for_them() {
    let said = |shot: &Shot| -> Vec<String> { cautions(shot, &plan(shot)).into_iter().map(|one| one.id).collect() };
    let mut still = shot();
    still.parts.truncate(1);
    still.parts[0].speed_m_s = 0.2;
    assert!(said(&still).is_empty(), "quiet when all is well: {:?}", said(&still));
    type Change = fn(&mut Shot);
    let cases: [(&str, Change); 9] = [
        ("overhead", |shot| shot.lights[0].height_deg = 70.0),
        ("wind", |shot| shot.around = vec![Around::Outdoors]),
        ("stands", |shot| shot.parts[0].speed_m_s = 3.0),
        ("competition", |shot| shot.around = vec![Around::Competition]),
        ("smoke", |shot| shot.around = vec![Around::SmokeOrFire]),
        ("lasers", |shot| shot.around = vec![Around::Lasers]),
        ("floor", |shot| shot.around = vec![Around::SlipperyFloor]),
        ("height", |shot| shot.around = vec![Around::Height]),
        ("close", |shot| (shot.lights[0].distance_m, shot.around) = (0.8, vec![Around::AnimalsOrInfants])),
    ];
    for (id, change) in cases {
        let mut shot = still.clone();
        change(&mut shot);
        assert!(said(&shot).contains(&id.to_owned()), "{id}: {:?}", said(&shot));
        let all = cautions(&shot, &plan(&shot));
        let defers = ["decide", "officials", "authority", "safety officer", "code"];
        assert!(all.iter().all(|one| defers.iter().any(|word| one.says.contains(word))), "{all:?}");
        shot.acknowledged = vec![id.to_owned()];
        let seen = cautions(&shot, &plan(&shot)).into_iter().find(|one| one.id == id).unwrap();
        assert!(seen.acknowledged);
    }
}

#[test]
fn a_unit_strobes_as_fast_as_it_may_fire_and_no_faster() {
    let strobes = |recycle_s: f64, min_interval_ms: Option<f64>| {
        let mut shot = shot();
        shot.around = vec![Around::Spectators];
        let unit = &mut shot.lights[0].unit;
        (unit.energy_j, unit.recycle_s, unit.min_interval_ms) = (Some(400.0), Some(recycle_s), min_interval_ms);
        cautions(&shot, &plan(&shot)).iter().any(|one| one.id == "strobing")
    };
    assert!(strobes(1.0, None), "a twentieth of the store is filled in a twentieth of a second");
    assert!(!strobes(8.0, None), "too slow a store");
    assert!(!strobes(1.0, Some(500.0)), "quick enough, but not let before half a second has passed");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 64, ..ProptestConfig::default() })]

    /// Lights alone add up to all of them, on the subject, on the background and on every part; and nothing is a NaN.
    #[test]
    fn lights_alone_add_up_to_all(
        which in 0..8usize, roles in prop::collection::vec(0..5usize, 1..9), turn in -3.0..0.0f64, bearing in -180.0..180.0f64,
        off_axis in 0.0..120.0f64, muted in 0..9usize,
    ) {
        let mut shot = examples().remove(which);
        let like = shot.lights[0].clone();
        let all = [Role::Key, Role::Fill, Role::Rim, Role::Backdrop, Role::InSet];
        shot.lights = roles.iter().enumerate().map(|(index, role)| Flash {
            role: all[*role],
            on: index != muted,
            bearing_deg: (bearing + 40.0 * index as f64 + 180.0).rem_euclid(360.0) - 180.0,
            off_axis_deg: if index == 1 { off_axis } else { 0.0 },
            power: (like.power * (turn / (index + 1) as f64).exp2()).max(2f64.powf(-like.unit.lowest_stops.unwrap())),
            ..like.clone()
        }).collect();
        let plan = plan(&shot);
        let whole = outlook(&plan);
        let alone: Vec<_> = (0..plan.lights.len()).map(|light| outlook(&plan.solo(light))).collect();
        let near = |sum: f64, all: f64| (sum - all).abs() <= 1e-9 * all.abs().max(1e-6);
        // Turned to each by itself they read as much as all of them on one surface, or more.
        let flash: f64 = alone.iter().map(|one| one.subject.flash.exposure.as_lux_seconds()).sum();
        prop_assert!(whole.subject.flash.exposure.as_lux_seconds() <= flash * (1.0 + 1e-9));
        let over_steady = |one: &pebble_core::Outlook| one.subject.dome.as_ratio() - one.ambient.placement.as_ratio();
        prop_assert!(near(alone.iter().map(over_steady).sum(), over_steady(&whole)));
        prop_assert!(near(alone.iter().map(|one| one.spill.exposure.as_lux_seconds()).sum(), whole.spill.exposure.as_lux_seconds()));
        for (part, seen) in whole.parts.iter().enumerate() {
            let flash: f64 = alone.iter().map(|one| one.parts[part].tones.part_flash.value()).sum();
            prop_assert!(seen.tones.part_flash.value() <= flash * (1.0 + 1e-9));
            prop_assert!(near(alone.iter().map(|one| one.parts[part].edge.value()).sum(), seen.edge.value()));
            prop_assert_eq!(alone[0].parts[part].tones.part_ambient, seen.tones.part_ambient, "steady light is not soloed");
        }
        let told = format!("{:?}", forecast(&plan));
        prop_assert!(!told.contains("NaN"), "{}", told);
        let said = format!("{:?}", findings::judge(&plan, &whole));
        prop_assert!(!said.contains("NaN") && !said.contains("inf ") && !said.contains("-inf"), "{}", said);
    }
}
