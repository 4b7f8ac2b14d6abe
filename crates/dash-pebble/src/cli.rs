//! The command line.

use crate::api::forecast::Answer;
use crate::api::{self, App, LARGEST_BODY, LARGEST_KIT};
use crate::{demo, launch, store};
use anyhow::{Context, bail};
use clap::{Parser, Subcommand};
use pebble_core::gear::Kit;
use pebble_core::matching::{Priority, Stock};
use pebble_core::{Plan, Shot};
use std::io::{Read, Write};
use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::sync::atomic::AtomicBool;
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

/// Open files.
#[derive(Clone, Copy, Debug, clap::ValueEnum)]
enum FileName {
    /// One shot
    Shot,
    /// Several shots
    Shots,
    /// A kit
    Kit,
}

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
    /// Copy everything of a data file into a new file, also while it is in use
    Backup {
        /// The new file
        file: PathBuf,
        /// The data file
        #[arg(long, value_name = "FILE")]
        data: Option<PathBuf>,
    },
    /// Bring a copy back, after a look at what is inside
    ///
    /// Without --yes it only says what is inside the copy and what is inside the data file now. What is there now is kept
    /// as a copy first.
    Restore {
        /// The copy
        copy: PathBuf,
        /// The data file; created when missing
        #[arg(long, value_name = "FILE")]
        data: Option<PathBuf>,
        /// Do it
        #[arg(long)]
        yes: bool,
    },
    /// Look through a data file for damage; nothing is changed
    ///
    /// Every page, every reference and every version is looked at. Ends with 1 when something is wrong.
    Check {
        /// The data file
        file: PathBuf,
    },
    /// Save what can be read of a damaged data file into a new one
    Rescue {
        /// The damaged file, which stays as it is
        file: PathBuf,
        /// The new file
        new: PathBuf,
    },
    /// Write the OpenAPI document of the HTTP interface
    Openapi,
    /// Write the JSON Schema of an open file
    Schema {
        /// Which file
        #[arg(value_enum)]
        of: FileName,
    },
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
            let served = runtime.block_on(serve(demo, data, listen));
            // What is still being drawn or searched is for nobody any more.
            runtime.shutdown_background();
            served
        }
        Command::Forecast { file } => written(&Answer::of(&shot_of(&file)?.1)),
        Command::Match { file, kit, data, priority } => {
            let (shot, plan) = shot_of(&file)?;
            let stock = match kit {
                Some(kit) => stock_of(&kit)?,
                None => waited(kept_stock(data))?,
            };
            let going = pebble_core::matching::Going::default();
            let answer = api::matching::answer(&shot, &plan, &stock, priority.into(), &going, &|_| {})
                .map_err(|error| anyhow::anyhow!("{}: {error}", file.display()))?;
            written(&answer)
        }
        Command::Backup { file, data } => waited(backup(&file, &data.unwrap_or_else(|| default_file(false)))),
        Command::Restore { copy, data, yes } => {
            waited(restore(&copy, &data.unwrap_or_else(|| default_file(false)), yes))
        }
        Command::Check { file } => waited(check(&file)),
        Command::Rescue { file, new } => waited(rescue(&file, &new)),
        Command::Openapi => written(&api::contract()),
        Command::Schema { of } => written(&api::json_schema(match of {
            FileName::Shot => "Shot",
            FileName::Shots => "ShotsFile",
            FileName::Kit => "Kit",
        })),
    }
}

fn waited<T>(work: impl Future<Output = anyhow::Result<T>>) -> anyhow::Result<T> {
    tokio::runtime::Builder::new_multi_thread().worker_threads(1).enable_all().build()?.block_on(work)
}

/// Writes JSON to standard output. A reader that has enough ends it without a word, as the shell's own programs do.
fn written(answer: &impl serde::Serialize) -> anyhow::Result<()> {
    say(&format!("{}\n", serde_json::to_string_pretty(answer)?))
}

fn say(text: &str) -> anyhow::Result<()> {
    let mut out = std::io::stdout().lock();
    out.write_all(text.as_bytes()).and_then(|()| out.flush()).map_err(|error| match error.kind() {
        std::io::ErrorKind::BrokenPipe => Silent.into(),
        _ => anyhow::anyhow!("standard output takes no more: {error}"),
    })
}

/// Ends the program with a failure that needs no words.
#[derive(Debug, thiserror::Error)]
#[error("the reader has gone")]
pub struct Silent;

async fn serve(demo: bool, data: Option<PathBuf>, listen: SocketAddr) -> anyhow::Result<()> {
    if !listen.ip().is_loopback() {
        bail!(
            "{listen} would let other machines in, and there is no pairing yet to tell friends from strangers. \
             Nothing was started; use an address of this machine, such as {DEFAULT_LISTEN}."
        );
    }
    // Heard from the first moment: whoever starts a program may change their mind.
    let stopped = stopped()?;
    let path = data.unwrap_or_else(|| default_file(demo));
    let listener = TcpListener::bind(listen).await.map_err(|error| match error.kind() {
        std::io::ErrorKind::AddrInUse => anyhow::anyhow!(
            "{listen} is taken by another program, perhaps another Dash Pebble. Nothing was started; \
             close that one or choose another port with --listen 127.0.0.1:0."
        ),
        _ => anyhow::anyhow!("{listen} cannot be listened on: {error}. Nothing was started."),
    })?;
    let store = if demo { store::open_filled(&path, demo::fill).await? } else { store::open(&path).await? };
    if let Some(damage) = store.damage() {
        eprintln!(
            "dash-pebble: {} is damaged ({damage}). What can be read works; `dash-pebble check` says more, \
             `dash-pebble rescue` saves it into a new file.",
            path.display()
        );
    }
    say(&format!("Dash Pebble is at http://{} with {}\n", listener.local_addr()?, path.display()))?;
    launch(App::new(store), listener, stopped).await.context("the server stopped")
}

fn default_file(demo: bool) -> PathBuf {
    PathBuf::from(if demo { "dash-pebble-demo.sqlite" } else { "dash-pebble.sqlite" })
}

/// Ctrl+C, or a polite request of the system. A second one ends the program at once, whatever it is busy with: what was
/// answered as saved is saved.
fn stopped() -> anyhow::Result<impl Future<Output = ()> + Send + 'static> {
    use signal_hook::consts::{SIGINT, SIGTERM};
    use tokio::signal::unix::{SignalKind, signal};
    let (mut interrupt, mut terminate) = (signal(SignalKind::interrupt())?, signal(SignalKind::terminate())?);
    // In the handler itself, for what is asked twice is asked of a program that may be too busy to listen. Each signal
    // looks whether it is the second before it says that it was there.
    let asked = Arc::new(AtomicBool::new(false));
    for (number, status) in [(SIGINT, 130), (SIGTERM, 143)] {
        signal_hook::flag::register_conditional_shutdown(number, status, Arc::clone(&asked))?;
        signal_hook::flag::register(number, Arc::clone(&asked))?;
    }
    Ok(async move {
        tokio::select! { _ = interrupt.recv() => {}, _ = terminate.recv() => {} }
    })
}

async fn backup(file: &Path, data: &Path) -> anyhow::Result<()> {
    if !data.exists() {
        bail!("{} is not there. Name a data file with --data.", data.display());
    }
    store::copies::write_beside(data, file).await?;
    let inside = store::copies::look(file).await?;
    say(&format!("{} has {}.\n", file.display(), contents(&inside)))
}

fn contents(inside: &store::copies::Inside) -> String {
    let changed = inside.changed_at.as_ref().map_or_else(String::new, |at| format!(", last changed {at}"));
    format!(
        "{} shots, {} things of the kit, {} versions{changed}",
        inside.shot_count, inside.thing_count, inside.version_count
    )
}

async fn restore(copy: &Path, data: &Path, yes: bool) -> anyhow::Result<()> {
    let inside = store::copies::look(copy).await?;
    say(&format!("{} has {}.\n", copy.display(), contents(&inside)))?;
    for shot in &inside.shots {
        say(&format!("  {}  {}\n", shot.changed_at, shot.title))?;
    }
    for line in &inside.damage {
        say(&format!("  damaged: {line}\n"))?;
    }
    if data.exists() {
        say(&format!("{} has {} now.\n", data.display(), contents(&store::copies::look(data).await?)))?;
    }
    if !yes {
        return say(
            "Nothing was changed. Add --yes to bring the copy back; what is there now is kept as a copy first.\n",
        );
    }
    let store = store::open(data).await?;
    let kept = store::copies::bring_back(&store, copy).await;
    store.close().await;
    say(&format!("Done. What was there before is in {}.\n", store::folder_of_copies(data).join(kept?.name).display()))
}

async fn check(file: &Path) -> anyhow::Result<()> {
    if !file.is_file() {
        bail!("{} is not there, or is no file.", file.display());
    }
    let report = store::check::thorough(file).await.map_err(|error| anyhow::anyhow!("{}: {error}", file.display()))?;
    say(&format!(
        "{}: {} shots, {} things of the kit and {} versions can be read.\n",
        file.display(),
        report.shots,
        report.things,
        report.versions
    ))?;
    if report.wrong.is_empty() {
        return say("Nothing is wrong with it.\n");
    }
    for line in &report.wrong {
        say(&format!("  {line}\n"))?;
    }
    bail!("{} is damaged. `dash-pebble rescue {} NEW` saves what can be read.", file.display(), file.display())
}

async fn rescue(file: &Path, new: &Path) -> anyhow::Result<()> {
    if !file.is_file() {
        bail!("{} is not there, or is no file.", file.display());
    }
    let saved = store::rescue::rescue(file, new).await?;
    say(&format!(
        "{} has {} shots, {} things of the kit and {} versions.\n",
        new.display(),
        saved.shots,
        saved.things,
        saved.versions
    ))?;
    for line in &saved.said {
        say(&format!("  {line}\n"))?;
    }
    Ok(())
}

/// A kit file as something to choose from.
fn stock_of(file: &Path) -> anyhow::Result<Stock> {
    let name = file.display();
    let bytes = bytes_of(file, LARGEST_KIT, "a kit")?;
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
    let store = store::open(&path).await?;
    let stock =
        api::searching::stock(&store).await.map_err(|error| anyhow::anyhow!("the kit cannot be read: {error:?}"));
    store.close().await;
    stock
}

/// A file or standard input, as far as it may be read.
fn bytes_of(file: &Path, limit: usize, what: &str) -> anyhow::Result<Vec<u8>> {
    let name = named(file);
    let (mut bytes, most) = (Vec::new(), limit as u64 + 1);
    let read = if file == Path::new("-") {
        std::io::stdin().lock().take(most).read_to_end(&mut bytes)
    } else {
        std::fs::File::open(file).and_then(|opened| opened.take(most).read_to_end(&mut bytes))
    };
    read.map_err(|error| anyhow::anyhow!("{name} cannot be read: {error}"))?;
    if bytes.len() > limit {
        bail!("{name} is larger than {} MB; {what} has less", limit / (1024 * 1024));
    }
    Ok(bytes)
}

fn named(file: &Path) -> String {
    if file == Path::new("-") { "standard input".to_owned() } else { file.display().to_string() }
}

fn shot_of(file: &Path) -> anyhow::Result<(Shot, Plan)> {
    let name = named(file);
    let bytes = bytes_of(file, LARGEST_BODY, "a shot")?;
    let shot: Shot = api::body::read(&bytes).map_err(|error| match error {
        api::problem::ApiError::Unreadable { reason, .. } => anyhow::anyhow!("{name} is not a shot: {reason}"),
        other => anyhow::anyhow!("{name} is not a shot: {other:?}"),
    })?;
    let plan = Plan::try_from(&shot).map_err(|error| anyhow::anyhow!("{name}: {error}"))?;
    Ok((shot, plan))
}
