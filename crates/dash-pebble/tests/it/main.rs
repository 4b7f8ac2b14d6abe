//! Tests of the program as a whole: one binary, so that it is linked once.

mod api;
mod bench_answers;
mod bench_lights;
mod bounds;
mod command_line;
mod common;
mod contract;
mod copies_screen;
mod demo_kit;
mod full_disk;
mod fuzz;
mod guard;
mod history;
mod interface;
mod kit;
mod kit_screen;
mod load;
mod matching;
mod matching_screen;
mod older_files;
mod rooms;
mod safe;
mod sample_traces;
mod spoiled_files;
mod typed;
mod versions;
