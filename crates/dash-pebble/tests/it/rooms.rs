//! The rooms of the program and of its interface know each other in one direction only.

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

/// Each may use what stands before it.
const PROGRAM: [&str; 6] = ["formats", "store", "demo", "api", "serve", "cli"];
/// What every handler is made of; handlers themselves know nothing of each other.
const UNDER_HANDLERS: [&str; 10] =
    ["problem", "json", "body", "kept", "guard", "ranges", "studio", "photos", "handed", "searching"];
/// Folders of the interface, each knowing those before it; screens stand last and never know each other.
const SHARED: [&str; 7] = ["theme", "words", "api", "marks", "commands", "controls", "shell"];

fn sources(folder: &Path) -> Vec<PathBuf> {
    let entries = std::fs::read_dir(folder).expect("a folder").map(|entry| entry.expect("an entry").path());
    let (folders, files): (Vec<_>, Vec<_>) = entries.partition(|path| path.is_dir());
    files.into_iter().chain(folders.iter().flat_map(|folder| sources(folder))).collect()
}

fn inside(file: &Path, root: &Path) -> Vec<String> {
    let path = file.strip_prefix(root).expect("it is in there").with_extension("");
    path.iter().map(|part| part.to_string_lossy().into_owned()).collect()
}

#[test]
fn the_store_knows_no_handler_and_handlers_not_each_other() {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let room = |name: &str| PROGRAM.iter().position(|room| *room == name);
    let under = |name: &str| UNDER_HANDLERS.contains(&name);
    let mut back = Vec::new();
    for file in sources(&root) {
        let place = inside(&file, &root);
        let Some(own) = room(&place[0]) else { continue };
        let text = std::fs::read_to_string(&file).expect("text");
        for line in text.lines().filter(|line| line.starts_with("use ") || line.starts_with("pub use ")) {
            let used =
                |before: &str| line.split(before).nth(1).map(|path| path.split([':', ';', ' ']).next().unwrap_or(""));
            if used("crate::").and_then(room).is_some_and(|other| other > own) {
                back.push(format!("{}: {line}", place.join("/")));
            }
            let handler = |name: &str| place[0] == "api" && !["mod", "contract"].contains(&name) && !under(name);
            let Some(other) = used("super::").filter(|_| place.len() > 1) else { continue };
            let (from, to) = (place[1].as_str(), other);
            let exists = root.join("api").join(format!("{to}.rs")).exists();
            if place[0] == "api" && exists && ((handler(from) && handler(to)) || (under(from) && handler(to))) {
                back.push(format!("{}: {line}", place.join("/")));
            }
        }
    }
    assert!(back.is_empty(), "{}", back.join("\n"));
}

/// What a file of the interface imports, as paths under its source folder.
fn imports(file: &Path, root: &Path) -> BTreeSet<PathBuf> {
    let text = std::fs::read_to_string(file).expect("text");
    let quoted = |text: &str| text.split('\'').nth(1).map(str::to_owned);
    let said = text.split("from ").skip(1).chain(text.split("import(").skip(1)).filter_map(quoted);
    let mut found = BTreeSet::new();
    for path in said.filter(|path| path.starts_with('.') && !path.ends_with(".css")) {
        let mut at = file.parent().expect("a folder").to_owned();
        for part in path.split('/') {
            match part {
                "." => {}
                ".." => drop(at.pop()),
                name => at.push(name),
            }
        }
        // Pages of the model stand outside, and import nothing.
        if let Ok(inside) = at.strip_prefix(root) {
            found.insert(inside.to_owned());
        }
    }
    found
}

#[test]
fn screens_know_shared_pieces_and_never_each_other_and_nothing_goes_round() {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web/src").canonicalize().expect("the interface");
    let files = sources(&root).into_iter().filter(|file| {
        let name = file.to_string_lossy();
        (name.ends_with(".ts") || name.ends_with(".tsx")) && !name.ends_with(".d.ts")
    });
    let graph: BTreeMap<PathBuf, BTreeSet<PathBuf>> = files
        .map(|file| (file.strip_prefix(&root).expect("in there").with_extension(""), imports(&file, &root)))
        .collect();
    assert!(graph.len() > 50, "the interface was found");
    let folder = |path: &Path| path.iter().next().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default();
    let place = |name: &str| SHARED.iter().position(|shared| *shared == name);
    let mut back = Vec::new();
    for (file, used) in graph.iter().filter(|(file, _)| file.iter().count() > 1) {
        for other in used {
            let (from, to) = (folder(file), folder(other));
            let fits = from == to || place(&to).is_some_and(|to| place(&from).is_none_or(|from| to < from));
            if !fits {
                back.push(format!("{} imports {}", file.display(), other.display()));
            }
        }
    }
    assert!(back.is_empty(), "{}", back.join("\n"));
    // A file is done when all it imports is: what is never done stands in a circle.
    let mut done: BTreeSet<&Path> = BTreeSet::new();
    loop {
        let next: Vec<&Path> = graph
            .iter()
            .filter(|(file, _)| !done.contains(file.as_path()))
            .filter(|(_, used)| used.iter().all(|one| done.contains(one.as_path()) || !graph.contains_key(one)))
            .map(|(file, _)| file.as_path())
            .collect();
        if next.is_empty() {
            break;
        }
        done.extend(next);
    }
    let round: Vec<String> =
        graph.keys().filter(|file| !done.contains(file.as_path())).map(|file| file.display().to_string()).collect();
    assert!(round.is_empty(), "these import each other: {}", round.join(", "));
}
