//! Looking for damage: a glance at every start, thorough when asked.

use super::shelf::Document;
use super::tables::said_once;
use pebble_core::Shot;
use pebble_core::gear::Item;
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{ConnectOptions, Row, SqliteConnection, SqlitePool};
use std::path::Path;
use std::time::{Duration, Instant};

/// How long the look at the start may take; what is not seen by then is not seen.
const GLANCE: Duration = Duration::from_millis(300);
/// Steps of the database's machine between two looks at the clock.
const STEPS: i32 = 2000;
/// Damaged places that are listed.
const MOST: usize = 100;

/// The first damage that is found in a moment.
pub(super) async fn glance(readers: &SqlitePool) -> Option<String> {
    let mut connection = readers.acquire().await.ok()?;
    let begun = Instant::now();
    connection.lock_handle().await.ok()?.set_progress_handler(STEPS, move || begun.elapsed() < GLANCE);
    let lines: Result<Vec<String>, _> = sqlx::query_scalar("PRAGMA quick_check(1)").fetch_all(&mut *connection).await;
    connection.lock_handle().await.ok()?.remove_progress_handler();
    match lines {
        Ok(lines) => lines.into_iter().find(|line| line != "ok"),
        // 9: the time was over.
        Err(error) if super::primary_code(&error) == Some(9) => None,
        Err(error) => Some(said_once(&error)),
    }
}

/// What a thorough look found.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Report {
    /// Shots that can be read.
    pub shots: usize,
    /// Things of the kit that can be read.
    pub things: usize,
    /// Versions that can be read.
    pub versions: usize,
    /// What is wrong, a sentence each.
    pub wrong: Vec<String>,
}

/// Looks at every page, every reference and every version of a file, which is not changed.
///
/// # Errors
/// Those of the database when the file cannot be opened at all.
pub async fn thorough(path: &Path) -> Result<Report, sqlx::Error> {
    let options = SqliteConnectOptions::new().filename(path).read_only(true);
    let mut connection = match options.clone().connect().await {
        Ok(connection) => connection,
        // A folder that cannot be written has no place for the log's index.
        Err(_) => options.immutable(true).connect().await?,
    };
    let mut report = Report::default();
    let pages = format!("PRAGMA integrity_check({MOST})");
    match sqlx::query_scalar::<_, String>(sqlx::AssertSqlSafe(pages)).fetch_all(&mut connection).await {
        Ok(lines) => report.wrong.extend(lines.into_iter().filter(|line| line != "ok")),
        Err(error) => report.wrong.push(format!("the pages cannot be looked at: {}", said_once(&error))),
    }
    match sqlx::query("PRAGMA foreign_key_check").fetch_all(&mut connection).await {
        Ok(rows) => report.wrong.extend(rows.iter().map(|row| {
            let table: String = row.try_get(0).unwrap_or_default();
            format!("row {} of {table} refers to something that is not there", row.try_get(1).unwrap_or(0_i64))
        })),
        Err(error) => report.wrong.push(format!("the references cannot be looked at: {}", said_once(&error))),
    }
    bodies(&mut connection, &mut report).await;
    super::discard(connection).await;
    Ok(report)
}

async fn bodies(connection: &mut SqliteConnection, report: &mut Report) {
    let rows =
        "SELECT revision.id, CAST(revision.document_id AS BLOB) AS document, CAST(revision.body AS BLOB) AS body,
                       document.kind = 'shot' AS is_shot, document.head = revision.id AS is_head
                FROM revision LEFT JOIN document ON document.id = revision.document_id WHERE revision.id > ?
                ORDER BY revision.id LIMIT 200";
    let mut after = i64::MIN;
    loop {
        let page = match sqlx::query(rows).bind(after).fetch_all(&mut *connection).await {
            Ok(page) => page,
            Err(error) => {
                report.wrong.push(format!("versions after {after} cannot be read: {}", said_once(&error)));
                return;
            }
        };
        let Some(last) = page.last() else { return };
        after = last.try_get("id").unwrap_or(i64::MAX);
        for row in &page {
            let id: i64 = row.try_get("id").unwrap_or_default();
            let document: Vec<u8> = row.try_get("document").unwrap_or_default();
            let body: Vec<u8> = row.try_get("body").unwrap_or_default();
            let is_shot = row.try_get::<Option<bool>, _>("is_shot").ok().flatten().unwrap_or(true);
            let is_head = row.try_get::<Option<bool>, _>("is_head").ok().flatten().unwrap_or(false);
            let read = if is_shot { readable::<Shot>(&body) } else { readable::<Item>(&body) };
            match read {
                Ok(()) => {
                    report.versions += 1;
                    report.shots += usize::from(is_head && is_shot);
                    report.things += usize::from(is_head && !is_shot);
                }
                Err(reason) => {
                    report.wrong.push(format!("version {id} of {}: {reason}", String::from_utf8_lossy(&document)));
                }
            }
        }
    }
}

fn readable<T: Document>(body: &[u8]) -> Result<(), String> {
    serde_json::from_slice::<T>(body).map(drop).map_err(|error| error.to_string())
}
