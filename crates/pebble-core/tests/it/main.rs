//! Tests of the core from outside: one binary, so that it is linked once.

mod camera_moves;
mod cameras_and_readings;
mod common;
mod comparing;
mod conditions;
mod daylight_ways;
mod dragging;
mod golden;
mod harmless;
mod hold;
mod hold_everything;
mod in_the_frame;
mod judgement;
mod kit;
mod light_paths;
mod lights;
mod matching;
mod matching_lights;
mod matching_rules;
mod properties;
mod quantities;
mod remedies;
mod rooms;
mod second_route;
mod sky;
mod worked_cases;
