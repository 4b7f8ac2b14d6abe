//! The Bench as a photographer comes to it.

use super::Server;
use super::browser::Browser;
use thirtyfour::prelude::*;

/// What opens on the Bench.
pub const OPENED: [&str; 15] = [
    "[data-choose=flash]",
    "[data-part=Shoes]",
    "[data-choose=daylight]",
    "[data-choose=cautions]",
    "[data-choose=camera]",
    "[data-choose=movement]",
    "[data-choose=before-lens]",
    "[data-choose=tones]",
    "[data-choose=burst]",
    "[data-choose=targets]",
    "[data-choose=lamps]",
    "[data-choose=ways]",
    "[data-reading=subject]",
    "[data-reading=background]",
    "[data-choose=stage]",
];

pub async fn open_shot(browser: &Browser, server: &Server, title: &str) {
    browser.driver.goto(server.url("/")).await.expect("the list opens");
    browser.click(&format!("[data-shot=\"{title}\"] a")).await;
    browser.until("document.querySelector('#frame[data-ready]') && document.querySelector('#strip-aperture')").await;
}

/// A new shot from the list of shots, by keyboard alone: what happens, and to the Bench.
pub async fn begin_shot(browser: &Browser, what: &str) {
    browser.keys("n").await;
    browser.until("document.activeElement?.getAttribute('aria-label') === 'What happens'").await;
    browser.keys(what).await;
    browser.until("document.querySelector('main')?.dataset.brief !== 'empty'").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelector('#frame[data-ready]') && document.querySelector('#strip-aperture')").await;
}

pub async fn saved(browser: &Browser) {
    browser.until("document.querySelector('[data-saving]')?.dataset.saving === 'saved'").await;
}

/// Chooses a thing of the kit by a part of its name.
pub async fn choose(browser: &Browser, place: &str, label: &str, name: &str) {
    browser.click(&format!("[data-choose='{place}']")).await;
    browser.labelled(label).await.click().await.unwrap();
    let path = format!("//*[@role='option'][contains(., '{name}')]");
    browser.driver.query(By::XPath(path)).first().await.unwrap().click().await.unwrap();
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
}

/// Opens a tab by its name.
pub async fn open_tab(browser: &Browser, name: &str) {
    let path = format!("//*[@role='tab'][contains(., '{name}')]");
    browser.driver.query(By::XPath(path)).and_clickable().first().await.unwrap().click().await.unwrap();
}
