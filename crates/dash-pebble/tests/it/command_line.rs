//! What the program says and how it ends, and what it does to files that are not its own.

use crate::common::{Server, example_path, program, run};
use serde_json::Value;
use std::io::Write;
use std::net::TcpListener;
use std::path::Path;
use std::process::{Output, Stdio};
use tempfile::TempDir;

#[track_caller]
fn failed(output: &Output, words: &[&str]) {
    let told = String::from_utf8_lossy(&output.stderr);
    assert!(!output.status.success(), "it ended well: {told}");
    for word in words {
        assert!(told.contains(word), "{word:?} is not in {told:?}");
    }
    assert!(!told.contains("panicked"), "{told}");
}

fn serve(data: &Path) -> Output {
    let path = data.to_str().expect("a plain path");
    run(&["serve", "--listen", "127.0.0.1:0", "--data", path])
}

#[test]
fn a_shot_file_becomes_a_forecast() {
    for name in ["double-ropes", "lantern-slalom", "slipway-spin", "roller-hall", "silks", "card-on-a-wall"] {
        let output = run(&["forecast", &example_path(name)]);
        assert!(output.status.success(), "{name}");
        let told: Value = serde_json::from_slice(&output.stdout).expect("JSON");
        assert_eq!((&told["format"], &told["version"]), (&"dash-pebble/forecast".into(), &4.into()));
        for pointer in [
            "/forecast/exposure/reference_lxs",
            "/forecast/ambient_subject/illuminance_lx",
            "/forecast/flash/exposure_lxs",
            "/forecast/lights/0/pulse/t05_s",
            "/forecast/lights/0/pulse/t01_s",
            "/forecast/lights/0/pulse/t90_s",
            "/forecast/lights/0/firing/ignition_s",
            "/forecast/lights/0/rows/first_share",
            "/forecast/optics/magnification",
            "/forecast/depth/near_m",
            "/forecast/parts/0/image_speed_px_s",
            "/forecast/parts/0/flash_blur_px",
            "/forecast/parts/0/dwell",
            "/forecast/parts/0/delta_lightness",
        ] {
            assert!(told.pointer(pointer).is_some_and(Value::is_number), "{name}: {pointer}");
        }
    }
}

#[test]
fn standard_input_will_do() {
    let mut child = program().args(["forecast", "-"]).stdin(Stdio::piped()).stdout(Stdio::piped()).spawn().unwrap();
    child.stdin.take().unwrap().write_all(&std::fs::read(example_path("double-ropes")).unwrap()).unwrap();
    let piped = child.wait_with_output().unwrap();
    assert_eq!(piped.stdout, run(&["forecast", &example_path("double-ropes")]).stdout);
}

#[test]
fn files_that_are_no_shots_are_refused_with_the_reason() {
    let folder = TempDir::new().unwrap();
    let text = std::fs::read_to_string(example_path("double-ropes")).unwrap();
    let big = "x".repeat(50 * 1024 * 1024);
    let cases = [
        ("unknown version", text.replace("\"version\": 3", "\"version\": 4"), "version"),
        ("missing field", text.replace("\"iso\": 200,", ""), "iso"),
        ("wrong field", text.replace("\"focal_mm\"", "\"focal_inch\""), "focal_inch"),
        ("impossible value", text.replace("\"power\": ", "\"power\": 9"), "lights[0].power"),
        ("not JSON", "hello".to_owned(), "is not a shot"),
        ("too large", big, "larger than 1 MB"),
    ];
    for (name, content, word) in cases {
        let path = folder.path().join("shot.json");
        std::fs::write(&path, content).unwrap();
        let output = run(&["forecast", path.to_str().unwrap()]);
        failed(&output, &[word, "shot.json"]);
        assert!(output.stdout.is_empty(), "{name}: nothing is written for scripts to trip over");
    }
    failed(&run(&["forecast", "/nowhere/shot.json"]), &["/nowhere/shot.json", "cannot be read"]);
    failed(&run(&["forecast", folder.path().to_str().unwrap()]), &["cannot be read"]);
}

#[test]
fn help_is_worth_reading() {
    let told = String::from_utf8(run(&["--help"]).stdout).unwrap();
    for words in ["serve", "forecast", "Examples:", "--demo", "docs/formats.md"] {
        assert!(told.contains(words), "{words}");
    }
    assert!(String::from_utf8(run(&["serve", "--help"]).stdout).unwrap().contains("--listen"));
}

#[test]
fn other_peoples_files_are_left_as_they_are() {
    let folder = TempDir::new().unwrap();
    let sqlite = folder.path().join("other.sqlite");
    // A SQLite file of somebody else: right magic, no application id.
    let mut other = b"SQLite format 3\0".to_vec();
    other.resize(4096, 0);
    let cases = [
        (sqlite, other),
        (folder.path().join("notes.txt"), b"dear diary".to_vec()),
        (folder.path().join("short"), vec![7]),
    ];
    for (path, content) in cases {
        std::fs::write(&path, &content).unwrap();
        failed(&serve(&path), &["is not a Dash Pebble data file", path.to_str().unwrap()]);
        assert_eq!(std::fs::read(&path).unwrap(), content);
    }
    failed(&serve(folder.path()), &["is not the name of a file", "it is a folder"]);
    failed(&serve(Path::new("/nowhere/at/all.sqlite")), &["/nowhere/at/all.sqlite"]);
    assert_eq!(std::fs::read_dir(folder.path()).unwrap().count(), 3, "and nothing was put beside them");
}

#[test]
fn a_file_in_use_or_read_only_is_not_touched() {
    let server = Server::demo();
    failed(&serve(&server.data), &["is in use by another program"]);
    let folder = TempDir::new().unwrap();
    let path = folder.path().join("season.sqlite");
    drop(Server::on(&path, &["--demo"]));
    let mut permissions = std::fs::metadata(&path).unwrap().permissions();
    permissions.set_readonly(true);
    std::fs::set_permissions(&path, permissions).unwrap();
    let before = std::fs::read(&path).unwrap();
    failed(&serve(&path), &["is read-only"]);
    assert_eq!(std::fs::read(&path).unwrap(), before);
}

/// A limit on the size of files stands in for a full disk: SQLite meets the same refusal to write.
#[test]
fn a_full_disk_is_said_and_nothing_half_written_is_served() {
    let folder = TempDir::new().unwrap();
    let path = folder.path().join("full.sqlite");
    let script = format!(
        "ulimit -f 8; trap '' XFSZ; exec {} serve --demo --listen 127.0.0.1:0 --data {}",
        env!("CARGO_BIN_EXE_dash-pebble"),
        path.display()
    );
    let output = std::process::Command::new("bash").args(["-c", &script]).output().unwrap();
    failed(&output, &["full.sqlite"]);
    // What is left is no trap: with room again, the same file works.
    drop(Server::on(&path, &["--demo"]));
}

#[test]
fn a_taken_port_and_a_strange_address_are_named() {
    let taken = TcpListener::bind("127.0.0.1:0").unwrap();
    let address = taken.local_addr().unwrap().to_string();
    let folder = TempDir::new().unwrap();
    let path = folder.path().join("season.sqlite");
    let at = |listen: &str| run(&["serve", "--listen", listen, "--data", path.to_str().unwrap()]);
    failed(&at(&address), &[&address, "is taken"]);
    failed(&at("0.0.0.0:0"), &["would let other machines in"]);
    failed(&at("not an address"), &["invalid"]);
    assert!(!path.exists(), "no file was made for a server that never was");
}

#[test]
fn the_contract_and_its_types_are_current() {
    let root = format!("{}/../..", env!("CARGO_MANIFEST_DIR"));
    let kept = std::fs::read_to_string(format!("{root}/docs/openapi.json")).unwrap();
    let told = String::from_utf8(run(&["openapi"]).stdout).unwrap();
    assert!(kept == told, "docs/openapi.json is stale: run `make contract`");
}

#[test]
fn what_is_no_name_of_a_file_is_refused_with_a_sentence() {
    let folder = TempDir::new().unwrap();
    let slash = format!("{}/season/", folder.path().display());
    for (data, word) in [
        (":memory:", "means the memory"),
        ("file:season.sqlite?mode=memory", "is an address"),
        ("sqlite://season.sqlite", "is an address"),
        (slash.as_str(), "is a folder"),
        (folder.path().to_str().unwrap(), "is a folder"),
        ("..", "is a folder"),
    ] {
        let output = program()
            .args(["serve", "--listen", "127.0.0.1:0", "--data", data])
            .current_dir(folder.path())
            .output()
            .expect("the program runs");
        failed(&output, &["is not the name of a file", word]);
    }
    assert_eq!(std::fs::read_dir(folder.path()).unwrap().count(), 0, "and nothing was made");
}

#[test]
fn what_stands_where_a_new_file_is_made_is_left_as_it_is() {
    let folder = TempDir::new().unwrap();
    let (data, aside, far) =
        (folder.path().join("season.sqlite"), folder.path().join("season.sqlite.new"), folder.path().join("far"));
    std::fs::write(&aside, "a note of mine").unwrap();
    failed(&serve(&data), &["is in the way"]);
    assert_eq!(std::fs::read_to_string(&aside).unwrap(), "a note of mine");
    std::fs::remove_file(&aside).unwrap();
    std::fs::write(&far, "another").unwrap();
    std::os::unix::fs::symlink(&far, &aside).unwrap();
    failed(&serve(&data), &["is in the way"]);
    assert_eq!(std::fs::read_to_string(&far).unwrap(), "another");
    assert!(!data.exists());
}

#[tokio::test]
async fn any_loopback_address_answers_under_the_name_that_is_printed() {
    let folder = TempDir::new().unwrap();
    let server = Server::at("127.0.0.2:0", &folder.path().join("season.sqlite"), &["--demo"]);
    assert!(server.address.starts_with("http://127.0.0.2:"));
    let client = reqwest::Client::new();
    assert_eq!(client.get(server.url("/api/blank")).send().await.unwrap().status(), 200);
    let saved = client.post(server.url("/api/forecast")).header("origin", &server.address);
    assert_eq!(saved.json(&crate::common::example("silks")).send().await.unwrap().status(), 200);
    // And nothing is put to an address that only reads.
    let put = client.put(server.url("/")).send().await.unwrap();
    assert_eq!(put.status(), 405);
}

#[test]
fn a_reader_that_has_enough_and_a_full_device_end_it_without_a_panic() {
    let shell = |script: &str| {
        let script = script.replace("PROGRAM", env!("CARGO_BIN_EXE_dash-pebble"));
        std::process::Command::new("bash").args(["-c", &script]).output().expect("a shell")
    };
    for (script, code) in [
        ("set -o pipefail; PROGRAM openapi | head -c 100 >/dev/null".to_owned(), 141),
        (format!("PROGRAM forecast {} >/dev/full", example_path("silks")), 1),
        ("PROGRAM openapi >/dev/full".to_owned(), 1),
        (format!("PROGRAM match {} --kit /dev/zero", example_path("silks")), 1),
    ] {
        let output = shell(&script);
        let said = String::from_utf8_lossy(&output.stderr);
        assert!(!said.contains("panicked"), "{script}: {said}");
        assert_eq!(output.status.code(), Some(code), "{script}: {said}");
        assert_eq!(said.is_empty(), code == 141, "{script}: {said}");
    }
}
