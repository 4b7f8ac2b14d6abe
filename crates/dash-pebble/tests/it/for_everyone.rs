//! Every screen and everything that opens on it, for those who do not see it and for those who use no mouse: in both themes
//! the checks of the axe-core library find nothing.

use crate::common::Server;
use crate::common::bench::{OPENED, open_shot};
use crate::common::browser::Browser;
use thirtyfour::prelude::*;

/// Runs the library on a part of the page as it is. What does not change with the theme is looked at in one of them.
async fn nothing_is_wrong(browser: &Browser, theme: &str, (place, part): (&str, &str)) {
    let library = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/node_modules/axe-core/axe.min.js");
    if browser.run("return !window.axe", vec![]).await == true {
        let text = std::fs::read_to_string(library).expect("the library is installed with the interface's packages");
        browser.run(&text, vec![]).await;
    }
    let rules = if theme == "Set" { "" } else { ", runOnly: ['color-contrast', 'link-in-text-block']" };
    browser
        .run(
            &format!(
                "window.found = undefined; axe.run({part:?}, {{ resultTypes: ['violations']{rules} }}).then(({{ violations }}) => {{ \
             window.found = violations.map(({{ id, nodes }}) => `${{id}}: ${{nodes.map((node) => node.html.slice(0, 160)).join(' | ')}}`) }})"
            ),
            vec![],
        )
        .await;
    browser.until("window.found").await;
    let found = browser.run("return window.found", vec![]).await;
    assert_eq!(found.as_array().map(Vec::len), Some(0), "{place} in {theme}: {found:#}");
}

/// The whole page; and what stands over it, which is looked at alone.
const PAGE: &str = "html";
const OPEN: &str = "[role=dialog]";

#[tokio::test(flavor = "multi_thread")]
async fn screens_and_what_opens_on_them_are_for_everyone() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    for theme in ["Set", "Daylight"] {
        open_shot(&browser, &server, "Double ropes, both feet up").await;
        nothing_is_wrong(&browser, theme, ("Bench", PAGE)).await;
        for opener in OPENED {
            browser.click(opener).await;
            browser.until("document.querySelector('[role=dialog]') && !document.querySelector('[data-loading]')").await;
            nothing_is_wrong(&browser, theme, (opener, OPEN)).await;
            browser.keys(Key::Escape + "").await;
            browser.until("!document.querySelector('[role=dialog]')").await;
        }
        for (key, what) in [
            ("v", "Versions"),
            ("u", "Drag"),
            ("z", "Groups"),
            ("j", "Movement in time"),
            ("?", "Keys"),
            ("c", "Match"),
        ] {
            browser.run("document.activeElement.blur()", vec![]).await;
            browser.keys(key).await;
            let opened = "document.querySelector('[role=dialog]') \
                          || /match|floor/.test(location.search) && document.querySelector('main h1 small, main svg')";
            browser.until(opened).await;
            nothing_is_wrong(&browser, theme, (what, if ["Match", "Floor"].contains(&what) { PAGE } else { OPEN }))
                .await;
            browser.keys(Key::Escape + "").await;
            browser.until("!document.querySelector('[role=dialog]')").await;
        }
        for path in [
            "/",
            "/kit/unit",
            "/kit/camera",
            "/kit/modifier",
            "/kit/lamp",
            "/kit/filter",
            "/copies",
            "/preferences",
            "/new",
        ] {
            browser.driver.goto(server.url(path)).await.unwrap();
            browser.until("document.querySelector('h1')").await;
            nothing_is_wrong(&browser, theme, (path, PAGE)).await;
        }
        browser.driver.goto(server.url("/kit/unit")).await.unwrap();
        browser.until("document.querySelector('[data-testid=at-power]')").await;
        browser.keys("e").await;
        browser.until("document.querySelector('[aria-label=Figures]')").await;
        nothing_is_wrong(&browser, theme, ("entering a unit", PAGE)).await;
        // The brief with an answer.
        browser.driver.goto(server.url("/new")).await.unwrap();
        browser.click("[data-activity=kick]").await;
        browser
            .until("document.querySelector('main').dataset.settled === 'true' && document.querySelector('[data-lit]')")
            .await;
        nothing_is_wrong(&browser, theme, ("the brief", PAGE)).await;
        browser.driver.goto(server.url("/")).await.unwrap();
        browser.until("document.querySelector('[aria-label$=\"the theme\"]')").await;
        browser.click("[aria-label$='the theme']").await;
    }
}
