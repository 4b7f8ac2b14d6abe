//! The program around the core: command line, HTTP interface, data file, web application.

pub mod api;
pub mod cli;
pub mod demo;
pub mod formats;
mod serve;
pub mod store;

pub use serve::launch;
