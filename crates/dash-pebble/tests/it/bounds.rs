//! What nobody can take without end: time for a body, patience for an end.

use crate::common::{Server, signal};
use std::io::{Read, Write};
use std::net::TcpStream;
use std::time::Duration;

/// A connection that sends half a request and no more.
pub fn dawdler(server: &Server, head: &str) -> TcpStream {
    let mut stream = TcpStream::connect(server.address.trim_start_matches("http://")).expect("it connects");
    let host = server.address.trim_start_matches("http://");
    stream.write_all(format!("{head}\r\nHost: {host}\r\n").as_bytes()).expect("it sends");
    stream
}

#[tokio::test]
async fn a_body_that_stops_arriving_is_refused_in_words() {
    let server = Server::demo();
    let mut stream = dawdler(&server, "POST /api/forecast HTTP/1.1");
    stream.write_all(b"Content-Length: 5000\r\n\r\n{\"format\"").unwrap();
    stream.set_read_timeout(Some(Duration::from_secs(30))).unwrap();
    let mut answer = vec![0; 2000];
    let length = stream.read(&mut answer).unwrap();
    let answer = String::from_utf8_lossy(&answer[..length]).into_owned();
    assert!(answer.starts_with("HTTP/1.1 408") && answer.contains("/problems/too-slow"), "{answer}");
    // And one in pieces that are none.
    let mut stream = dawdler(&server, "POST /api/forecast HTTP/1.1");
    stream.write_all(b"Transfer-Encoding: chunked\r\n\r\nzz\r\nnonsense").unwrap();
    let mut answer = vec![0; 2000];
    let length = stream.read(&mut answer).unwrap();
    let answer = String::from_utf8_lossy(&answer[..length]).into_owned();
    assert!(answer.starts_with("HTTP/1.1 400") && answer.contains("/problems/broken-body"), "{answer}");
}

#[test]
fn a_second_signal_ends_it_at_once() {
    let server = Server::demo();
    // Whoever sends half a request holds up the farewell; who has been answered and waits is sent home as it begins.
    let _held = dawdler(&server, "GET /api/shots HTTP/1.1");
    let mut idle = dawdler(&server, "GET /api/blank HTTP/1.1");
    idle.write_all(b"\r\n").unwrap();
    assert!(idle.read(&mut [0; 2000]).unwrap() > 0);
    signal("INT", server.id());
    idle.read_to_end(&mut Vec::new()).unwrap();
    signal("INT", server.id());
    assert_eq!(server.ended_by_itself().code(), Some(130), "not by itself, after the farewell");
}
