//! The set as a table to rebuild it by: one row a light, and one a steady lamp that burns.

use super::as_text;
use pebble_core::floor::{FloorAnswer, FloorLamp, FloorLight, LampOnFloor};
use pebble_core::shot::Role;

/// Name of the file.
pub const FILE_NAME: &str = "set.csv";

const COLUMNS: [&str; 16] = [
    "light",
    "unit",
    "in_front",
    "group_channel",
    "power",
    "foot_to_mark_m",
    "foot_to_camera_m",
    "side_from_camera",
    "head_height_m",
    "measured_to",
    "head_to_it_m",
    "bearing_deg",
    "clock",
    "looks_down_deg",
    "looks_beside",
    "meter_alone",
];

/// Writes the table.
///
/// # Errors
/// Of the writer, in words.
pub fn write(set: &FloorAnswer) -> Result<String, String> {
    let mut out = csv::Writer::from_writer(Vec::new());
    let failed = |error: csv::Error| format!("the table was not written: {error}");
    out.write_record(COLUMNS).map_err(failed)?;
    for light in set.lights.iter().filter(|light| light.on) {
        out.write_record(row(light).map(|cell| as_text(&cell))).map_err(failed)?;
    }
    for lamp in set.lamps.iter().filter(|lamp| lamp.on) {
        out.write_record(lamp_row(lamp).map(|cell| as_text(&cell))).map_err(failed)?;
    }
    let bytes = out.into_inner().map_err(|error| format!("the table was not written: {error}"))?;
    String::from_utf8(bytes).map_err(|error| format!("the table was not written: {error}"))
}

fn cm(metres: f64) -> String {
    format!("{metres:.2}")
}

/// Of one that stands nowhere in particular the table has how far off it is, and no foot.
fn lamp_row(lamp: &FloorLamp) -> [String; 16] {
    let stands = lamp.stands.as_ref();
    let told = |of: fn(&LampOnFloor) -> String| stands.map(of).unwrap_or_default();
    [
        "lamp".to_owned(),
        lamp.name.clone(),
        lamp.front_says.clone().unwrap_or_default(),
        String::new(),
        lamp.turned_up_says.clone(),
        told(|stands| cm(stands.to_mark_m)),
        told(|stands| cm(stands.to_camera_m)),
        told(|stands| if stands.right { "right" } else { "left" }.to_owned()),
        told(|stands| cm(stands.at.z_m)),
        "chest".to_owned(),
        cm(lamp.distance_m),
        told(|stands| format!("{:.1}", stands.bearing_deg)),
        told(|stands| stands.clock.clone()),
        told(|stands| format!("{:.1}", stands.tilt_down_deg)),
        String::new(),
        String::new(),
    ]
}

fn row(light: &FloorLight) -> [String; 16] {
    // What sits on the camera has no foot to be taped.
    let foot = |metres: f64| if light.on_camera { String::new() } else { cm(metres) };
    [
        light.label.clone(),
        light.unit.clone(),
        light.front_says.clone(),
        light.group_says.clone(),
        light.power_says.clone(),
        foot(light.to_mark_m),
        foot(light.to_camera_m),
        match (light.on_camera, light.right) {
            (true, _) => "on the camera",
            (false, true) => "right",
            (false, false) => "left",
        }
        .to_owned(),
        cm(light.at.z_m),
        if light.role == Role::Backdrop { "background" } else { "chest" }.to_owned(),
        cm(light.distance_m),
        format!("{:.1}", light.bearing_deg),
        light.clock.clone(),
        format!("{:.1}", light.tilt_down_deg),
        light.looks_says.clone().unwrap_or_default(),
        light.reads.clone().unwrap_or_default(),
    ]
}
