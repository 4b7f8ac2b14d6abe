//! What opens on the Bench stands over the lower half, on a large window and on a small one: the frame, the ladder and what
//! is found stay in sight.

use crate::common::Server;
use crate::common::bench::{OPENED, open_shot};
use crate::common::browser::Browser;
use thirtyfour::prelude::*;

/// What of the upper half something that is open covers.
const COVERED: &str = "return (() => {
    const box = document.querySelector('[role=dialog]').getBoundingClientRect();
    const upper = ['[aria-label=Frame]', '[aria-label=Ladder]', '[aria-label=Findings]'];
    const over = (one) => box.left < one.right - 1 && box.right > one.left + 1 && box.top < one.bottom - 1 && box.bottom > one.top + 1;
    return upper.filter((name) => over(document.querySelector(name).getBoundingClientRect()))
        .concat(box.bottom > innerHeight + 1 || box.right > innerWidth + 1 ? ['the end of the window'] : []);
})()";

#[tokio::test(flavor = "multi_thread")]
async fn what_opens_covers_neither_frame_nor_ladder_nor_findings() {
    let server = Server::demo();
    let browser = Browser::open().await;
    for height in [800, 657] {
        browser.size(1280, height).await;
        // Five parts, and the press for one more, whole.
        open_shot(&browser, &server, "Roller hall, evening").await;
        let whole =
            "(() => { const parts = document.querySelector('[aria-label=Parts]'), more = parts.lastElementChild;
            return parts.scrollWidth <= parts.clientWidth && more.scrollWidth <= more.clientWidth })()";
        browser.until(whole).await;
        // And while all of them are missed.
        browser.click("[data-choose=mute]").await;
        browser
            .until(
                "document.querySelectorAll('[data-part][data-state=missed], [data-part][data-state=near]').length > 2",
            )
            .await;
        browser.until(whole).await;
        browser.click("[data-choose=mute]").await;
        open_shot(&browser, &server, "Double ropes, both feet up").await;
        for opener in OPENED {
            browser.click(opener).await;
            browser.until("document.querySelector('[role=dialog]') && !document.querySelector('[data-loading]')").await;
            let covered = browser.run(COVERED, vec![]).await;
            assert_eq!(covered, serde_json::json!([]), "{opener} at {height}");
            browser.keys(Key::Escape + "").await;
            browser.until("!document.querySelector('[role=dialog]')").await;
        }
    }
}
