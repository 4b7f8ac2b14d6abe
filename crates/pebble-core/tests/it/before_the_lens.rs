//! What is before the lens and before lights: what it costs, what it colours, and what is at hand.

use crate::common::{examples, plan, shot};
use pebble_core::daylight::{Road, ways};
use pebble_core::gear::{Filter, FilterUse, Hue};
use pebble_core::output::colour::{dye, hue_word};
use pebble_core::shot::Shot;
use pebble_core::{Invalid, Plan, forecast, outlook, strips};
use proptest::prelude::*;

fn filter(name: &str, used_as: FilterUse, loss_stops: f64) -> Filter {
    Filter { id: name.to_owned(), name: name.to_owned(), used_as, loss_stops, mired: 0.0, hue: None }
}

fn hued(name: &str, hue_deg: f64) -> Filter {
    Filter { hue: Some(Hue { hue_deg, saturation: 0.95 }), ..filter(name, FilterUse::Gel, 2.0) }
}

#[test]
fn what_stays_before_the_lens_dims_flash_and_steady_light_alike_and_is_named() {
    let bare = shot();
    let mut with = bare.clone();
    with.camera.filters =
        vec![filter("Polariser", FilterUse::Polariser, 1.5), filter("Bellows", FilterUse::CloseUp, 0.5)];
    with.camera.greys = vec![filter("ND 0.6", FilterUse::Nd, 2.0), filter("ND 0.9", FilterUse::Nd, 3.0)];
    with.camera.filter_stops = 5.0;
    let (before, after) = (forecast(&plan(&bare)), forecast(&plan(&with)));
    let taken = 7.0 - bare.camera.filter_stops;
    assert!((after.exposure.filter_stops - 7.0).abs() < 1e-9);
    assert_eq!(after.exposure.before_lens.as_deref(), Some("Polariser + Bellows + ND 0.6 + ND 0.9"));
    for (name, before, after) in [
        ("key", before.lights[0].flash.in_frame_stops, after.lights[0].flash.in_frame_stops),
        ("ambient", before.ambient_subject.placement_stops, after.ambient_subject.placement_stops),
        ("background", before.ambient_background.placement_stops, after.ambient_background.placement_stops),
    ] {
        let by = before.zip(after).map(|(before, after)| before - after);
        assert!(by.is_some_and(|by| (by - taken).abs() < 1e-9), "{name}: {by:?}");
    }
    // A meter in the set stands before no lens.
    assert_eq!(before.lights[0].flash.meter, after.lights[0].flash.meter);
}

#[test]
fn the_strip_has_what_the_filters_at_hand_add_up_to() {
    let labels = |shot: &Shot| {
        let all = strips::strips(&plan(shot));
        let strip = all.into_iter().find(|strip| strip.id == "filter").unwrap();
        (strip.notches.into_iter().map(|notch| notch.label).collect::<Vec<_>>(), strip.index, strip.between)
    };
    let mut own = shot();
    assert_eq!(labels(&own).0.len(), 11, "whole stops where nobody said what is at hand");
    own.camera.greys = vec![filter("ND 0.9", FilterUse::Nd, 3.0), filter("ND 1.8", FilterUse::Nd, 6.0)];
    assert_eq!(labels(&own).0, ["none", "ND 0.9", "ND 1.8", "ND 2.7"]);
    // What is set and cannot be made of them stands between, and is called what it is.
    own.camera.filter_stops = 4.0;
    assert_eq!(labels(&own), (labels(&own).0, 1, Some("ND 1.2".to_owned())));
    assert_eq!(forecast(&plan(&own)).exposure.before_lens.as_deref(), Some("4.0 stops of grey"));
}

#[test]
fn daylight_is_kept_down_with_a_filter_that_is_owned() {
    let noon = examples().into_iter().find(|shot| shot.title.contains("noon")).unwrap();
    for owned in [vec![1.0], vec![2.0, 3.0], vec![3.3, 6.7], vec![10.0]] {
        let mut with = noon.clone();
        with.camera.greys = owned.iter().map(|loss| filter(&format!("{loss} stops"), FilterUse::Nd, *loss)).collect();
        let plan = plan(&with);
        let sums: Vec<f64> = strips::filters(&plan).map(|one| one.as_stops()).collect();
        let way = ways(&plan).into_iter().find(|way| way.road == Road::Filter).unwrap();
        for change in way.changes.iter().filter(|change| change.pointer == "/camera/filter_stops") {
            let set = serde_json::to_value(&change.value).unwrap().as_f64().unwrap();
            assert!(sums.iter().any(|sum| (sum - set).abs() < 1e-9), "{set} of {sums:?}");
        }
    }
}

#[test]
fn what_cannot_be_before_a_lens_is_refused_where_it_stands() {
    let refused = |change: &dyn Fn(&mut Shot)| {
        let mut shot = shot();
        change(&mut shot);
        match Plan::try_from(&shot) {
            Err(
                Invalid::OutOfRange { field, .. }
                | Invalid::NotAllowed { field, .. }
                | Invalid::Contradiction { field, .. },
            ) => field,
            other => panic!("{:?} was taken", other.map(|_| ())),
        }
    };
    let dense = |count: usize| (0..count).map(|_| filter("Dense", FilterUse::Lens, 10.0)).collect::<Vec<_>>();
    assert_eq!(refused(&|shot| shot.camera.filters = vec![hued("Red", 0.0)]), "camera.filters[0].used_as");
    assert_eq!(refused(&|shot| shot.camera.filters = dense(3)), "camera.filters", "30 stops");
    assert_eq!(refused(&|shot| shot.camera.filters = dense(9)), "camera.filters", "nine of them");
    let pure = |saturation| Filter { hue: Some(Hue { hue_deg: 0.0, saturation }), ..hued("Red", 0.0) };
    assert_eq!(refused(&|shot| shot.lights[0].gel = Some(pure(1.5))), "lights[0].gel.hue.saturation");
    let round = Filter { hue: Some(Hue { hue_deg: 700.0, saturation: 0.5 }), ..hued("Red", 0.0) };
    assert_eq!(refused(&|shot| shot.lights[0].gel = Some(round.clone())), "lights[0].gel.hue.hue_deg");
}

#[test]
fn hues_have_the_names_people_give_them() {
    for (degrees, name) in [
        (0.0, "red"),
        (30.0, "amber"),
        (60.0, "yellow"),
        (120.0, "green"),
        (180.0, "teal"),
        (240.0, "blue"),
        (270.0, "violet"),
        (310.0, "magenta"),
        (359.0, "red"),
    ] {
        assert_eq!(hue_word(dye(degrees, 0.9)), Some(name), "{degrees}");
        assert_eq!(hue_word(dye(degrees, 0.2)), None, "{degrees}, too pale to be called anything");
    }
}

#[test]
fn trails_are_called_by_their_colour_where_there_is_one() {
    let mut red = examples().into_iter().find(|shot| !shot.lamps.is_empty()).unwrap();
    for lamp in &mut red.lamps {
        lamp.lamp.hue = Some(Hue { hue_deg: 0.0, saturation: 0.95 });
        lamp.level_share = 1.0;
        lamp.distance_m = 1.0;
    }
    red.lights[0].gel = Some(hued("Teal", 180.0));
    let seen = forecast(&plan(&red));
    assert_eq!((seen.colour.trail_word.as_str(), seen.colour.trail_said.as_str()), ("red", "red beside a key in teal"));
    assert_eq!((seen.lamps[0].hue, seen.lights[0].hue), (Some("red"), Some("teal")));
}

proptest! {
    /// Dyes colour light and change no level: what they lose is said in stops.
    #[test]
    fn a_dyed_light_is_of_its_hue_and_of_luminance_one(degrees in 0.0..360.0f64, saturation in 0.0..1.0f64, at in 0..7usize) {
        let mut dyed = examples().swap_remove(at);
        let before = forecast(&plan(&dyed));
        dyed.lights[0].gel = Some(Filter { hue: Some(Hue { hue_deg: degrees, saturation }), ..filter("Gel", FilterUse::Gel, 0.0) });
        let plan = plan(&dyed);
        let seen = outlook(&plan);
        let [red, green, blue] = seen.flash_tint(&plan, 0);
        prop_assert!((0.2126 * red + 0.7152 * green + 0.0722 * blue - 1.0).abs() < 1e-6);
        prop_assert!(red.min(green).min(blue) > 0.0);
        let after = forecast(&plan);
        prop_assert_eq!(before.lights[0].flash.in_frame_stops, after.lights[0].flash.in_frame_stops);
    }
}
