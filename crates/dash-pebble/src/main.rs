//! `dash-pebble`: see `dash-pebble --help`.

use clap::Parser;
use std::process::ExitCode;

/// An answer takes some hundred small pieces of memory: with the system's own allocator a sixth of its time goes into them.
#[global_allocator]
static MEMORY: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn main() -> ExitCode {
    tracing_subscriber::fmt()
        .with_env_filter(
            tracing_subscriber::EnvFilter::try_from_env("DASH_PEBBLE_LOG").unwrap_or_else(|_| "warn".into()),
        )
        .with_writer(std::io::stderr)
        .init();
    match dash_pebble::cli::run(dash_pebble::cli::Arguments::parse()) {
        Ok(()) => ExitCode::SUCCESS,
        // As a program that a closed pipe ends.
        Err(error) if error.is::<dash_pebble::cli::Silent>() => ExitCode::from(141),
        Err(error) => {
            eprintln!("dash-pebble: {error:#}");
            ExitCode::FAILURE
        }
    }
}
