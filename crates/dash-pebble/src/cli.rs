//! The command line.

use crate::api::forecast::Answer;
use crate::api::{self, App, LARGEST_BODY};
use crate::{demo, launch, store};
use anyhow::{Context, bail};
use clap::{Parser, Subcommand};
use pebble_core::gear::Kit;
use pebble_core::matching::{Priority, Stock};
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
  dash-pebble match docs/examples/sabre-reach.json --kit docs/examples/kit.json
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
    /// Find which units can do a shot and write the list as JSON
    ///
    /// Units, modifiers and filters are those of a kit file, or those taken along in a data file. What is asked beyond the
    /// shot is in its `wish`. Where nothing works, the nearest set-ups say what would have to give.
    Match {
        /// A shot file, or - for standard input
        file: PathBuf,
        /// A kit file to choose from
        #[arg(long, value_name = "FILE", conflicts_with = "data")]
        kit: Option<PathBuf>,
        /// A data file to choose from
        #[arg(long, value_name = "FILE")]
        data: Option<PathBuf>,
        /// What counts first
        #[arg(long, value_enum, default_value = "balanced")]
        priority: PriorityName,
    },
    /// Write the OpenAPI document of the HTTP interface
    Openapi,
}

/// The priorities as they are typed.
#[derive(Clone, Copy, Debug, clap::ValueEnum)]
enum PriorityName {
    Balanced,
    ShortestPulse,
    LowestIso,
    LongestBattery,
    LeastToCarry,
    FastestBurst,
}

impl From<PriorityName> for Priority {
    fn from(name: PriorityName) -> Self {
        match name {
            PriorityName::Balanced => Self::Balanced,
            PriorityName::ShortestPulse => Self::ShortestPulse,
            PriorityName::LowestIso => Self::LowestIso,
            PriorityName::LongestBattery => Self::LongestBattery,
            PriorityName::LeastToCarry => Self::LeastToCarry,
            PriorityName::FastestBurst => Self::FastestBurst,
        }
    }
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
            println!("{}", serde_json::to_string_pretty(&Answer::of(&shot_of(&file)?.1))?);
            Ok(())
        }
        Command::Match { file, kit, data, priority } => {
            let (shot, plan) = shot_of(&file)?;
            let stock = match kit {
                Some(kit) => stock_of(&kit)?,
                None => {
                    tokio::runtime::Builder::new_current_thread().enable_all().build()?.block_on(kept_stock(data))?
                }
            };
            let going = pebble_core::matching::Going::default();
            let answer = api::matching::answer(&shot, &plan, &stock, priority.into(), &going, |_| {})
                .map_err(|error| anyhow::anyhow!("{}: {error}", file.display()))?;
            println!("{}", serde_json::to_string_pretty(&answer)?);
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

/// A kit file as something to choose from.
fn stock_of(file: &Path) -> anyhow::Result<Stock> {
    let name = file.display();
    let bytes = std::fs::read(file).with_context(|| format!("{name} cannot be read"))?;
    let kit: Kit = api::body::read(&bytes).map_err(|error| match error {
        api::problem::ApiError::Unreadable { reason, .. } => anyhow::anyhow!("{name} is not a kit: {reason}"),
        other => anyhow::anyhow!("{name} is not a kit: {other:?}"),
    })?;
    Stock::of_kit(&kit).map_err(|error| anyhow::anyhow!("{name}: {error}"))
}

/// What is taken along in a data file, which must be there.
async fn kept_stock(data: Option<PathBuf>) -> anyhow::Result<Stock> {
    let path = data.unwrap_or_else(|| default_file(false));
    if !path.exists() {
        bail!("{} is not there. Name a data file with --data, or a kit file with --kit.", path.display());
    }
    let pool = store::open(&path).await?;
    let stock = api::matching::stock(&pool).await.map_err(|error| anyhow::anyhow!("the kit cannot be read: {error:?}"));
    pool.close().await;
    stock
}

fn shot_of(file: &Path) -> anyhow::Result<(Shot, Plan)> {
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
    let plan = Plan::try_from(&shot).map_err(|error| anyhow::anyhow!("{name}: {error}"))?;
    Ok((shot, plan))
}
