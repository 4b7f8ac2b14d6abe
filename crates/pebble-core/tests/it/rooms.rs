//! The rooms of the core know each other in one direction only.

use std::path::{Path, PathBuf};

/// Each may use what stands before it.
const ROOMS: [&str; 8] = ["quantity", "physics", "file", "stage", "activities", "plan", "outlook", "answers"];
/// The same within the last room; those in one line know nothing of each other.
const ANSWERS: [&[&str]; 8] = [
    &["standing"],
    &[
        "strips",
        "conditions",
        "trace",
        "sheet",
        "fit",
        "cautions",
        "metering",
        "meters",
        "guides",
        "staging",
        "speeds",
        "lanes",
    ],
    &["hold", "typed", "guesses", "floor"],
    &["drag", "groups", "compare", "balance"],
    &["findings"],
    &["forecast", "daylight"],
    &["matching"],
    &["briefing"],
];

fn sources(folder: &Path) -> Vec<PathBuf> {
    let entries = std::fs::read_dir(folder).expect("a folder").map(|entry| entry.expect("an entry").path());
    let (folders, files): (Vec<_>, Vec<_>) = entries.partition(|path| path.is_dir());
    files.into_iter().chain(folders.iter().flat_map(|folder| sources(folder))).collect()
}

#[test]
fn no_arrow_runs_back() {
    let source = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let room = |name: &str| ROOMS.iter().position(|room| *room == name);
    let line = |name: &str| ANSWERS.iter().position(|names| names.contains(&name));
    let mut back = Vec::new();
    for file in sources(&source) {
        let inside = file.strip_prefix(&source).expect("it is in there").with_extension("");
        let place: Vec<&str> = inside.iter().filter_map(|part| part.to_str()).collect();
        let Some(own) = room(place[0]) else { continue };
        let text = std::fs::read_to_string(&file).expect("text");
        // What is reached over the roof is written out first.
        let text = text.replace("super::super::", "crate::answers::");
        let code = text.lines().filter(|line| !line.trim_start().starts_with("//"));
        for used in code.flat_map(|line| line.split("crate::").skip(1)) {
            let mut names = used.split(|letter: char| !(letter.is_alphanumeric() || letter == '_' || letter == ':'));
            let path: Vec<&str> = names.next().unwrap_or_default().split("::").collect();
            let fits = match room(path[0]) {
                // How files are declared is known everywhere.
                None => path[0] == "wire",
                Some(7) if own == 7 && place[1] != "mod" && path[1] != place[1] => line(path[1]) < line(place[1]),
                Some(other) => other <= own,
            };
            if !fits {
                back.push(format!("{} uses crate::{}", inside.display(), path.join("::")));
            }
        }
    }
    assert!(back.is_empty(), "{}", back.join("\n"));
}
