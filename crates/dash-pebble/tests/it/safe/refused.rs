//! Disks that are full or fail: what was refused is not there, and what is saved afterwards is.

use super::Saver;
use crate::common::{Server, program};
use reqwest::StatusCode;
use std::path::{Path, PathBuf};
use std::process::Command;
use tempfile::TempDir;

/// A disk of a size in kilobytes.
struct Disk(TempDir);

impl Disk {
    /// `None` where no disk can be made.
    fn of(size: u32) -> Option<Self> {
        let disk = Self(TempDir::new().unwrap());
        disk.mount(&format!("size={size}k")).then_some(disk)
    }

    fn mount(&self, options: &str) -> bool {
        let mounted = Command::new("mount").args(["-t", "tmpfs", "-o", options, "none"]).arg(self.0.path()).output();
        mounted.is_ok_and(|mounted| mounted.status.success())
    }

    fn enlarge(&self) {
        assert!(self.mount("remount,size=16384k"), "the disk is enlarged");
    }

    fn data(&self) -> PathBuf {
        self.0.path().join("season.sqlite")
    }
}

impl Drop for Disk {
    fn drop(&mut self) {
        let _ = Command::new("umount").arg(self.0.path()).status();
    }
}

/// The second refusal is another than the first; `make torture` goes on to the third.
fn most_refusals() -> usize {
    if std::env::var_os("KILLS").is_some() { 3 } else { 2 }
}

#[tokio::test]
async fn on_a_full_disk_what_is_answered_as_saved_is_there_and_what_is_refused_is_not() {
    for refusals in 1..=most_refusals() {
        for room in [true, false] {
            for kill in [true, false] {
                let Some(disk) = Disk::of(1024) else {
                    eprintln!("skipped: no disk can be mounted here");
                    return;
                };
                let case = format!("{refusals} refusals, room made: {room}, killed: {kill}");
                let server = Server::on(&disk.data(), &[]);
                let mut saver = Saver::on(&server).await;
                let mut refused = 0;
                while refused < refusals {
                    match saver.save(&server).await {
                        StatusCode::OK => {}
                        StatusCode::INSUFFICIENT_STORAGE => refused += 1,
                        other => panic!("{case}: {other}"),
                    }
                }
                if room {
                    disk.enlarge();
                    for _ in 0..5 {
                        assert_eq!(saver.save(&server).await, StatusCode::OK, "{case}");
                    }
                }
                assert_eq!(saver.title(&server).await, saver.saved, "{case}: before the end");
                if kill {
                    server.kill()
                } else {
                    assert!(server.ended().success(), "{case}")
                }
                disk.enlarge();
                let server = Server::on(&disk.data(), &[]);
                assert_eq!(saver.title(&server).await, saver.saved, "{case}");
                assert_eq!(saver.save(&server).await, StatusCode::OK, "{case}: it goes on");
            }
        }
    }
}

/// The library that makes a disk fail; `None` where none can be built.
fn failing_disk(folder: &Path) -> Option<PathBuf> {
    let source = format!("{}/tests/it/safe/failing_disk.c", env!("CARGO_MANIFEST_DIR"));
    let library = folder.join("failing_disk.so");
    let built =
        Command::new("cc").args(["-shared", "-fPIC", "-w", "-o"]).arg(&library).arg(source).arg("-ldl").status();
    built.is_ok_and(|built| built.success()).then_some(library)
}

#[tokio::test]
async fn on_a_failing_disk_what_is_answered_as_saved_is_there_and_what_is_refused_is_not() {
    let folder = TempDir::new().unwrap();
    let Some(library) = failing_disk(folder.path()) else {
        eprintln!("skipped: no C compiler here");
        return;
    };
    let control = folder.path().join("fail");
    let mut number = 0;
    for (failure, most) in [("write 5", 1), ("write 28", most_refusals()), ("sync 5", most_refusals()), ("sync 28", 1)]
    {
        for refusals in 1..=most {
            for (more, kill) in [(0, true), (0, false), (3, true), (3, false)] {
                number += 1;
                let case = format!("{failure}, {refusals} refusals, {more} saved after, killed: {kill}");
                let data = folder.path().join(format!("season-{number}.sqlite"));
                let mut command = program();
                command.env("LD_PRELOAD", &library).env("FAIL_FILE", &control);
                let server = Server::of(command, "127.0.0.1:0", &data, &[]);
                let mut saver = Saver::on(&server).await;
                assert_eq!(saver.save(&server).await, StatusCode::OK, "{case}");
                std::fs::write(&control, failure).unwrap();
                for _ in 0..refusals {
                    let status = saver.save(&server).await;
                    assert!(status.is_server_error(), "{case}: {status}");
                }
                // With the disk still failing, the present state can be read.
                assert_eq!(saver.title(&server).await, saver.saved, "{case}: while it fails");
                if more > 0 {
                    std::fs::remove_file(&control).unwrap();
                }
                for _ in 0..more {
                    assert_eq!(saver.save(&server).await, StatusCode::OK, "{case}");
                }
                if kill {
                    server.kill()
                } else {
                    assert!(server.ended().success(), "{case}")
                }
                let _ = std::fs::remove_file(&control);
                let server = Server::on(&data, &[]);
                assert_eq!(saver.title(&server).await, saver.saved, "{case}");
                assert_eq!(saver.save(&server).await, StatusCode::OK, "{case}: it goes on");
            }
        }
    }
}
