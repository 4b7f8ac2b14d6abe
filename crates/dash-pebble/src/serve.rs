//! Answering connections: counted, timed, and ended when the program ends.
//!
//! A connection that has not sent a whole request is only waiting. When there are too many, the one that has waited longest
//! goes, so that whoever comes with a question is answered however many others dawdle.

use crate::api::{self, App};
use axum::body::{Body, Bytes};
use axum::http::Request;
use http_body::{Body as HttpBody, Frame, SizeHint};
use hyper::server::conn::http1;
use hyper::service::service_fn;
use hyper_util::rt::{TokioIo, TokioTimer};
use std::collections::HashMap;
use std::convert::Infallible;
use std::future::Future;
use std::pin::{Pin, pin};
use std::sync::{Arc, Mutex, PoisonError};
use std::task::{Context, Poll};
use std::time::{Duration, Instant};
use tokio::net::{TcpListener, TcpStream};
use tokio::sync::{Notify, watch};
use tokio::task::JoinSet;
use tower_service::Service;

/// Connections at once. Browsers open six; the rest is for scripts, and for those who dawdle.
const MOST_CONNECTIONS: usize = 400;
/// How long the head of a request may take.
const HEAD: Duration = Duration::from_secs(10);
/// How long requests that are being answered may take when the program ends.
const FAREWELL: Duration = Duration::from_millis(800);
/// How long a listener that cannot accept (no descriptors left) is left alone.
const BREATHER: Duration = Duration::from_millis(50);

/// Serves until `shutdown` is ready, then closes the data file.
///
/// # Errors
/// None today: a connection that fails is that connection's alone.
pub async fn launch(
    app: App,
    listener: TcpListener,
    shutdown: impl Future<Output = ()> + Send + 'static,
) -> std::io::Result<()> {
    let store = app.store.clone();
    let keepers =
        [tokio::spawn(store.clone().keep_folded()), tokio::spawn(crate::store::copies::keep_daily(store.clone()))];
    let router = api::router(app);
    let (stop, stopping) = watch::channel(false);
    let doors = Arc::new(Doors::default());
    let mut answering = JoinSet::new();
    let mut shutdown = pin!(shutdown);
    loop {
        tokio::select! {
            () = &mut shutdown => break,
            accepted = listener.accept() => match accepted {
                Ok((stream, _)) => {
                    let door = doors.open();
                    answering.spawn(answer(stream, router.clone(), door, stopping.clone()));
                }
                Err(_) => tokio::time::sleep(BREATHER).await,
            },
            Some(_) = answering.join_next() => {}
        }
    }
    drop(listener);
    let _ = stop.send(true);
    let all = async { while answering.join_next().await.is_some() {} };
    let _ = tokio::time::timeout(FAREWELL, all).await;
    answering.shutdown().await;
    keepers.iter().for_each(tokio::task::JoinHandle::abort);
    // The log is folded in, so that the file can be copied as one.
    store.close().await;
    Ok(())
}

/// One connection, until either side has had enough.
async fn answer(stream: TcpStream, router: axum::Router, door: Door, mut stopping: watch::Receiver<bool>) {
    let _ = stream.set_nodelay(true);
    let door = Arc::new(door);
    let own = Arc::clone(&door);
    let service = service_fn(move |request: Request<hyper::body::Incoming>| {
        let (mut router, door) = (router.clone(), Arc::clone(&own));
        let request = request.map(|body| Body::new(Arriving::new(body, Arc::clone(&door))));
        async move {
            let answer = router.call(request).await;
            door.says(Wait::Idle);
            answer.map_err(|never: Infallible| never)
        }
    });
    let connection = http1::Builder::new()
        .timer(TokioTimer::new())
        .header_read_timeout(HEAD)
        .serve_connection(TokioIo::new(stream), service);
    let mut connection = pin!(connection);
    loop {
        tokio::select! {
            _ = &mut connection => return,
            () = door.shut.notified() => return,
            Ok(()) = stopping.changed() => connection.as_mut().graceful_shutdown(),
        }
    }
}

/// What a connection is waiting for.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Wait {
    /// Its next request, or the rest of one.
    Idle,
    /// Our answer.
    Answer,
}

/// All connections.
#[derive(Default)]
struct Doors(Mutex<(u64, HashMap<u64, Standing>)>);

struct Standing {
    waits: Wait,
    since: Instant,
    shut: Arc<Notify>,
}

impl Doors {
    /// A new connection; where there are too many, the one that has dawdled longest is shut.
    fn open(self: &Arc<Self>) -> Door {
        let mut doors = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let (next, standing) = &mut *doors;
        if standing.len() >= MOST_CONNECTIONS {
            let idle = standing.iter().filter(|(_, one)| one.waits == Wait::Idle).min_by_key(|(_, one)| one.since);
            if let Some(number) = idle.map(|(number, _)| *number)
                && let Some(gone) = standing.remove(&number)
            {
                gone.shut.notify_one();
            }
        }
        *next += 1;
        let shut = Arc::new(Notify::new());
        standing.insert(*next, Standing { waits: Wait::Idle, since: Instant::now(), shut: Arc::clone(&shut) });
        Door { number: *next, doors: Arc::clone(self), shut }
    }
}

/// One of them.
struct Door {
    number: u64,
    doors: Arc<Doors>,
    shut: Arc<Notify>,
}

impl Door {
    fn says(&self, waits: Wait) {
        let mut doors = self.doors.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(standing) = doors.1.get_mut(&self.number) {
            (standing.waits, standing.since) = (waits, Instant::now());
        }
    }
}

impl Drop for Door {
    fn drop(&mut self) {
        self.doors.0.lock().unwrap_or_else(PoisonError::into_inner).1.remove(&self.number);
    }
}

/// A request's body, which says when it has arrived whole: from then on it is we who are waited for.
struct Arriving {
    body: hyper::body::Incoming,
    door: Arc<Door>,
}

impl Arriving {
    fn new(body: hyper::body::Incoming, door: Arc<Door>) -> Self {
        let arriving = Self { body, door };
        arriving.whole();
        arriving
    }

    fn whole(&self) {
        if self.body.is_end_stream() {
            self.door.says(Wait::Answer);
        }
    }
}

impl HttpBody for Arriving {
    type Data = Bytes;
    type Error = hyper::Error;

    fn poll_frame(
        mut self: Pin<&mut Self>,
        context: &mut Context<'_>,
    ) -> Poll<Option<Result<Frame<Bytes>, hyper::Error>>> {
        let frame = Pin::new(&mut self.body).poll_frame(context);
        if matches!(frame, Poll::Ready(None)) {
            self.door.says(Wait::Answer);
        } else if frame.is_ready() {
            self.whole();
        }
        frame
    }

    fn is_end_stream(&self) -> bool {
        self.body.is_end_stream()
    }

    fn size_hint(&self) -> SizeHint {
        self.body.size_hint()
    }
}
