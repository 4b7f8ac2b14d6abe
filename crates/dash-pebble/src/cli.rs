//! The command line.

use crate::api::forecast::Answer;
use crate::api::{self, App, LARGEST_BODY};
use crate::{demo, launch, store};
use anyhow::{Context, bail};
use clap::{Parser, Subcommand};
use pebble_core::{Plan, Shot};
use std::io::Read;
use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use tokio::net::TcpListener;

/// Where the program answers unless told otherwise.
const DEFAULT_LISTEN: &str = "127.0.0.1:8650";

/// Plan a flash picture of a moving subject before it is taken.
///
/// Dash Pebble computes what flash, steady light, shutter and movement will do in one frame, shows the frame, and says
/// what to turn. It runs on this machine, keeps its data in one file, and needs no network.
#[derive(Debug, Parser)]
#[command(name = "dash-pebble", version, after_help = EXAMPLES)]
pub struct Arguments {
    #[command(subcommand)]
    command: Command,
}

const EXAMPLES: &str = "Examples:
  dash-pebble serve --demo                       look around with demo data
  dash-pebble serve --data season.dashpebble     work in a file of your own
  dash-pebble forecast docs/examples/double-ropes.json
  cat shot.json | dash-pebble forecast -         forecast from a script

A shot file is described in docs/formats.md; the pages of the model are in docs/model.md.";

#[derive(Debug, Subcommand)]
enum Command {
    /// Serve the web application on this machine
    ///
    /// Prints the address to open. Everything is saved as you work; stop it with Ctrl+C at any time.
    Serve {
        /// Fill an empty data file with demo shots; without --data, in a file of its own
        #[arg(long)]
        demo: bool,
        /// The data file; created when missing
        #[arg(long, value_name = "FILE")]
        data: Option<PathBuf>,
        /// Address and port on this machine; port 0 takes any free one
        #[arg(long, value_name = "ADDR", default_value = DEFAULT_LISTEN)]
        listen: SocketAddr,
    },
    /// Compute one shot file and write the forecast as JSON
    ///
    /// Every intermediate quantity is in it, with the unit in its name, and the findings with their remedies.
    Forecast {
        /// A shot file, or - for standard input
        file: PathBuf,
    },
    /// Write the OpenAPI document of the HTTP interface
    Openapi,
}

/// Runs the command that was given.
///
/// # Errors
/// A sentence for the user.
pub fn run(arguments: Arguments) -> anyhow::Result<()> {
    match arguments.command {
        Command::Serve { demo, data, listen } => {
            let runtime = tokio::runtime::Builder::new_multi_thread().enable_all().build()?;
            runtime.block_on(serve(demo, data, listen))
        }
        Command::Forecast { file } => {
            println!("{}", serde_json::to_string_pretty(&Answer::of(&plan_of(&file)?))?);
            Ok(())
        }
        Command::Openapi => {
            println!("{}", serde_json::to_string_pretty(&api::contract())?);
            Ok(())
        }
    }
}

async fn serve(demo: bool, data: Option<PathBuf>, listen: SocketAddr) -> anyhow::Result<()> {
    if !listen.ip().is_loopback() {
        bail!(
            "{listen} would let other machines in, and there is no pairing yet to tell friends from strangers. \
             Nothing was started; use an address of this machine, such as {DEFAULT_LISTEN}."
        );
    }
    let path = data.unwrap_or_else(|| default_file(demo));
    let listener = TcpListener::bind(listen).await.map_err(|error| match error.kind() {
        std::io::ErrorKind::AddrInUse => anyhow::anyhow!(
            "{listen} is taken by another program, perhaps another Dash Pebble. Nothing was started; \
             close that one or choose another port with --listen 127.0.0.1:0."
        ),
        _ => anyhow::anyhow!("{listen} cannot be listened on: {error}. Nothing was started."),
    })?;
    let pool = store::open(&path).await?;
    if demo {
        demo::fill(&pool).await?;
    }
    println!("Dash Pebble is at http://{} with {}", listener.local_addr()?, path.display());
    launch(App { pool }, listener, stopped()).await.context("the server stopped")
}

fn default_file(demo: bool) -> PathBuf {
    PathBuf::from(if demo { "dash-pebble-demo.sqlite" } else { "dash-pebble.sqlite" })
}

/// Ctrl+C, or a polite request of the system.
async fn stopped() {
    let interrupt = tokio::signal::ctrl_c();
    #[cfg(unix)]
    {
        let terminate = tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate());
        if let Ok(mut terminate) = terminate {
            tokio::select! {
                _ = interrupt => {}
                _ = terminate.recv() => {}
            }
            return;
        }
    }
    let _ = interrupt.await;
}

fn plan_of(file: &Path) -> anyhow::Result<Plan> {
    let name = if file == Path::new("-") { "standard input".to_owned() } else { file.display().to_string() };
    let mut bytes = Vec::new();
    let limit = LARGEST_BODY as u64 + 1;
    let read = if file == Path::new("-") {
        std::io::stdin().lock().take(limit).read_to_end(&mut bytes)
    } else {
        std::fs::File::open(file).and_then(|opened| opened.take(limit).read_to_end(&mut bytes))
    };
    read.with_context(|| format!("{name} cannot be read"))?;
    if bytes.len() > LARGEST_BODY {
        bail!("{name} is larger than a megabyte; a shot has a few kilobytes");
    }
    let shot: Shot = api::body::read(&bytes).map_err(|error| match error {
        api::problem::ApiError::Unreadable { reason, .. } => anyhow::anyhow!("{name} is not a shot: {reason}"),
        other => anyhow::anyhow!("{name} is not a shot: {other:?}"),
    })?;
    Plan::try_from(&shot).map_err(|error| anyhow::anyhow!("{name}: {error}"))
}
