//! Saving what can be read of a damaged file into a new one.
//!
//! Pages that are broken hide the rows on them and those that the database would reach through them. So rows are asked for
//! in order, and where that fails one by one, each by its own way through the tree.

use super::opening::open;
use super::shelf::Document;
use super::tables::{OpenError, migrate, said_once};
use super::{Change, ChangeError, beside, discard};
use pebble_core::Shot;
use pebble_core::gear::Item;
use sqlx::sqlite::{SqliteConnectOptions, SqliteRow};
use sqlx::{AssertSqlSafe, ConnectOptions, Row, SqliteConnection};
use std::collections::{BTreeMap, BTreeSet, HashMap};
use std::path::{Path, PathBuf};
use thiserror::Error;

/// Numbers tried one by one beyond the last row that can be read, where the greatest is not known.
const BEYOND: i64 = 100_000;

/// What was saved.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Rescued {
    /// Shots.
    pub shots: usize,
    /// Things of the kit.
    pub things: usize,
    /// Versions of both.
    pub versions: usize,
    /// What was mended or lost, a sentence each.
    pub said: Vec<String>,
}

/// Why nothing was saved. Neither file was changed.
#[derive(Debug, Error)]
pub enum RescueError {
    /// The new file is there.
    #[error("{0} is there already. Nothing was changed; name a new file.")]
    Taken(PathBuf),
    /// The damaged file cannot be opened at all.
    #[error(
        "{path} cannot be read at all: {reason}. Nothing was changed; earlier copies are in {}.",
        super::folder_of_copies(path).display()
    )]
    Hopeless {
        /// The file.
        path: PathBuf,
        /// What the database says.
        reason: String,
    },
    /// The new file cannot be made.
    #[error(transparent)]
    Open(#[from] OpenError),
    /// The new file cannot be written.
    #[error("the new file cannot be written: {0}")]
    Change(#[from] ChangeError),
}

impl From<sqlx::Error> for RescueError {
    fn from(error: sqlx::Error) -> Self {
        Self::Change(error.into())
    }
}

struct Version {
    id: i64,
    document: String,
    parent: Option<i64>,
    body: String,
    made_at: String,
    name: Option<String>,
}

struct Listed {
    id: String,
    kind: String,
    version: i64,
    head: i64,
    place: i64,
    removed_at: Option<String>,
    changed_at: String,
    retired_at: Option<String>,
}

/// Saves what can be read of `from` into a new file.
///
/// # Errors
/// See [`RescueError`].
pub async fn rescue(from: &Path, to: &Path) -> Result<Rescued, RescueError> {
    if to.exists() {
        return Err(RescueError::Taken(to.to_owned()));
    }
    let hopeless = |reason: String| RescueError::Hopeless { path: from.to_owned(), reason };
    // A copy is worked on, so that the damaged file stays as it is for whoever else may try.
    let room = tempfile::tempdir().map_err(|error| hopeless(error.to_string()))?;
    let own = room.path().join("damaged");
    std::fs::copy(from, &own).map_err(|error| hopeless(error.to_string()))?;
    for ending in ["-wal", "-journal"] {
        if beside(from, ending).exists() {
            std::fs::copy(beside(from, ending), beside(&own, ending)).map_err(|error| hopeless(error.to_string()))?;
        }
    }
    let options = SqliteConnectOptions::new().filename(&own).foreign_keys(false);
    let mut connection = options.connect().await.map_err(|error| hopeless(said_once(&error)))?;
    // Files of earlier versions are read as this one reads them; where that cannot be, tables are taken as they are.
    let _ = migrate(&own, &mut connection).await;
    let mut rescued = Rescued::default();
    let versions = versions(&mut connection, &mut rescued).await.map_err(|error| hopeless(said_once(&error)))?;
    let listed = listed(&mut connection).await;
    let preferred = super::preferences::read(&mut connection).await.unwrap_or_default();
    let pictures = super::pictures::all(&mut connection).await.unwrap_or_default();
    discard(connection).await;

    let store = open(to).await?;
    let mut change = store.change().await?;
    write(&mut change, versions, listed, &mut rescued).await?;
    super::preferences::write(&mut change, &preferred).await?;
    for (id, bytes) in &pictures {
        super::pictures::write(&mut change, id, bytes).await?;
    }
    change.commit().await?;
    store.close().await;
    Ok(rescued)
}

/// All rows that can be reached, and the numbers of those that cannot though they should be there.
async fn reachable(
    connection: &mut SqliteConnection,
    table: &str,
    columns: &str,
) -> Result<(Vec<SqliteRow>, Vec<i64>), sqlx::Error> {
    let page = format!("SELECT rowid AS number, {columns} FROM {table} WHERE rowid > ? ORDER BY rowid LIMIT 200");
    let single = format!("SELECT rowid AS number, {columns} FROM {table} WHERE rowid = ?");
    let greatest: Result<Option<i64>, _> =
        sqlx::query_scalar(AssertSqlSafe(format!("SELECT max(rowid) FROM {table}"))).fetch_one(&mut *connection).await;
    let greatest = greatest.ok().flatten();
    let number = |row: &SqliteRow| row.try_get::<i64, _>("number").unwrap_or(i64::MAX);
    let (mut rows, mut lost, mut after) = (Vec::new(), Vec::new(), 0);
    loop {
        match sqlx::query(AssertSqlSafe(page.clone())).bind(after).fetch_all(&mut *connection).await {
            Ok(next) if next.is_empty() => break,
            Ok(next) => {
                after = next.last().map_or(i64::MAX, number);
                rows.extend(next);
            }
            Err(error) if rows.is_empty() && error.to_string().contains("no such") => return Err(error),
            Err(_) => {
                let last = greatest.unwrap_or(after + BEYOND);
                for number in after + 1..=last {
                    match sqlx::query(AssertSqlSafe(single.clone())).bind(number).fetch_optional(&mut *connection).await
                    {
                        Ok(row) => rows.extend(row),
                        Err(_) => lost.push(number),
                    }
                }
                break;
            }
        }
    }
    if greatest.is_none() {
        // Numbers beyond the last row were only tried.
        let last = rows.last().map_or(0, number);
        lost.retain(|number| *number < last);
    }
    Ok((rows, lost))
}

fn text(row: &SqliteRow, column: &str) -> Option<String> {
    let bytes: Option<Vec<u8>> = row.try_get(column).ok().flatten();
    bytes.map(|bytes| String::from_utf8_lossy(&bytes).into_owned())
}

async fn versions(
    connection: &mut SqliteConnection,
    rescued: &mut Rescued,
) -> Result<BTreeMap<i64, Version>, sqlx::Error> {
    let common = "CAST(body AS BLOB) AS body, CAST(made_at AS BLOB) AS made_at, parent";
    let mut found = Err(sqlx::Error::RowNotFound);
    // As this version writes them, and as the first two did.
    for (document, name) in [("document_id", "name"), ("document_id", "NULL"), ("shot_id", "NULL")] {
        let columns = format!("CAST({document} AS BLOB) AS document, CAST({name} AS BLOB) AS name, {common}");
        found = reachable(connection, "revision", &columns).await;
        if found.is_ok() {
            break;
        }
    }
    let (rows, lost) = found?;
    if !lost.is_empty() {
        rescued.said.push(format!("{} cannot be reached", counted(lost.len(), "version", "versions")));
    }
    let mut versions = BTreeMap::new();
    for row in rows {
        let id: i64 = row.try_get("number")?;
        let document = text(&row, "document").unwrap_or_default();
        let bytes: Vec<u8> = row.try_get("body").unwrap_or_default();
        let body = String::from_utf8_lossy(&bytes).into_owned();
        if let Err(error) = serde_json::from_str::<serde_json::Value>(&body) {
            rescued.said.push(format!("version {id} of {document} is lost: {error}"));
            continue;
        }
        if std::str::from_utf8(&bytes).is_err() {
            rescued.said.push(format!("version {id} of {document} has letters that could not be read"));
        }
        let (parent, made_at) = (row.try_get("parent").ok().flatten(), text(&row, "made_at").unwrap_or_default());
        versions.insert(id, Version { id, document, parent, body, made_at, name: text(&row, "name") });
    }
    Ok(versions)
}

async fn listed(connection: &mut SqliteConnection) -> Vec<Listed> {
    let common = "CAST(id AS BLOB) AS id, version, head, place_in_list, CAST(removed_at AS BLOB) AS removed_at,
                  CAST(changed_at AS BLOB) AS changed_at";
    let now = format!("{common}, CAST(kind AS BLOB) AS kind, CAST(retired_at AS BLOB) AS retired_at");
    let first = format!("{common}, CAST('shot' AS BLOB) AS kind, NULL AS retired_at");
    let rows = match reachable(connection, "document", &now).await {
        Ok((rows, _)) => rows,
        Err(_) => reachable(connection, "shot", &first).await.map(|(rows, _)| rows).unwrap_or_default(),
    };
    rows.iter()
        .filter_map(|row| {
            Some(Listed {
                id: text(row, "id")?,
                kind: text(row, "kind")?,
                version: row.try_get("version").ok()?,
                head: row.try_get("head").ok()?,
                place: row.try_get("place_in_list").ok()?,
                removed_at: text(row, "removed_at"),
                changed_at: text(row, "changed_at").unwrap_or_default(),
                retired_at: text(row, "retired_at"),
            })
        })
        .collect()
}

/// What a body is, by reading it.
fn kind_of(body: &str) -> Option<&'static str> {
    if serde_json::from_str::<Shot>(body).is_ok() {
        return Some("shot");
    }
    serde_json::from_str::<Item>(body).ok().map(|item| Document::kind(&item))
}

async fn write(
    change: &mut Change,
    versions: BTreeMap<i64, Version>,
    listed: Vec<Listed>,
    rescued: &mut Rescued,
) -> Result<(), sqlx::Error> {
    let mut latest: HashMap<&str, i64> = HashMap::new();
    for version in versions.values() {
        latest.insert(&version.document, version.id);
    }
    let mut documents: Vec<Listed> = Vec::new();
    for mut document in listed {
        let Some(last) = latest.get(document.id.as_str()) else {
            rescued.said.push(format!("{} is lost: none of its versions can be read", document.id));
            continue;
        };
        if versions.get(&document.head).is_none_or(|head| head.document != document.id) {
            rescued.said.push(format!("{} is at its last version that can be read", document.id));
            document.head = *last;
        }
        documents.push(document);
    }
    let known: BTreeSet<String> = documents.iter().map(|document| document.id.clone()).collect();
    let mut place = documents.iter().map(|document| document.place).max().unwrap_or(0);
    let mut orphans: Vec<(&str, i64)> =
        latest.iter().filter(|(id, _)| !known.contains(**id)).map(|(id, last)| (*id, *last)).collect();
    orphans.sort_unstable();
    for (id, last) in orphans {
        let head = &versions[&last];
        let Some(kind) = kind_of(&head.body).filter(|_| !id.is_empty()) else {
            rescued.said.push(format!("{id} is lost: it cannot be told what it was"));
            continue;
        };
        place += 1;
        rescued.said.push(format!("{id} was found by its versions; it may have been taken off the list"));
        documents.push(Listed {
            id: id.to_owned(),
            kind: kind.to_owned(),
            version: last,
            head: last,
            place,
            removed_at: None,
            changed_at: head.made_at.clone(),
            retired_at: None,
        });
    }
    sqlx::query("PRAGMA defer_foreign_keys = ON").execute(&mut **change).await?;
    let kept: BTreeSet<&str> = documents.iter().map(|document| document.id.as_str()).collect();
    for version in versions.values().filter(|version| kept.contains(version.document.as_str())) {
        let same = |parent: &i64| versions.get(parent).is_some_and(|parent| parent.document == version.document);
        sqlx::query("INSERT INTO revision (id, document_id, parent, body, made_at, name) VALUES (?, ?, ?, ?, ?, ?)")
            .bind(version.id)
            .bind(&version.document)
            .bind(version.parent.filter(same))
            .bind(&version.body)
            .bind(&version.made_at)
            .bind(&version.name)
            .execute(&mut **change)
            .await?;
        rescued.versions += 1;
    }
    for document in &documents {
        sqlx::query(
            "INSERT INTO document (id, kind, version, head, place_in_list, removed_at, changed_at, retired_at)
             VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(&document.id)
        .bind(&document.kind)
        .bind(document.version.max(1))
        .bind(document.head)
        .bind(document.place)
        .bind(&document.removed_at)
        .bind(&document.changed_at)
        .bind(&document.retired_at)
        .execute(&mut **change)
        .await?;
        if document.removed_at.is_none() {
            *(if document.kind == "shot" { &mut rescued.shots } else { &mut rescued.things }) += 1;
        }
    }
    Ok(())
}

fn counted(count: usize, one: &str, many: &str) -> String {
    format!("{count} {}", if count == 1 { one } else { many })
}
