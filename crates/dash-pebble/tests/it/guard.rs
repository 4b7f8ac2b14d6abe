//! Who is answered, and what a spreadsheet is handed.

use dash_pebble::api::guard::is_own;
use dash_pebble::formats::{as_text, from_text};
use reqwest::Method;
use reqwest::header::{self, HeaderMap};

#[test]
fn only_own_names_and_own_pages_are_answered() {
    let cases = [
        ("own page reads", Method::GET, "127.0.0.1:8650", None, true),
        ("own page writes", Method::PUT, "localhost:8650", Some("http://localhost:8650"), true),
        ("a program writes", Method::POST, "[::1]:8650", None, true),
        ("another loopback address", Method::POST, "127.0.0.2:80", Some("http://127.0.0.2:80"), true),
        ("an address of the network", Method::GET, "192.168.1.7:8650", None, false),
        ("a name that looks like an address", Method::GET, "127.0.0.1.example:8650", None, false),
        ("another site writes", Method::POST, "127.0.0.1:8650", Some("http://example.com"), false),
        ("another port writes", Method::POST, "127.0.0.1:8650", Some("http://127.0.0.1:9999"), false),
        ("a hidden origin writes", Method::PUT, "127.0.0.1:8650", Some("null"), false),
        ("a rebound name reads", Method::GET, "elsewhere.example:8650", None, false),
        ("a name that only starts like ours", Method::GET, "localhost.example", None, false),
    ];
    for (name, method, host, origin, want) in cases {
        let mut headers = HeaderMap::new();
        headers.insert(header::HOST, host.parse().unwrap());
        if let Some(origin) = origin {
            headers.insert(header::ORIGIN, origin.parse().unwrap());
        }
        assert_eq!(is_own(&method, &headers), want, "{name}");
    }
    assert!(!is_own(&Method::GET, &HeaderMap::new()), "no name at all");
}

#[test]
fn what_a_spreadsheet_would_compute_is_text_and_comes_back() {
    for (cell, written) in [
        ("Brix 400", "Brix 400"),
        ("=cmd()", "'=cmd()"),
        ("+1 stop", "'+1 stop"),
        ("-0.5", "-0.5"),
        ("@home", "'@home"),
        ("'quoted", "'quoted"),
    ] {
        assert_eq!((as_text(cell).as_str(), from_text(&as_text(cell))), (written, cell));
    }
}
