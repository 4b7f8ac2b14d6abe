//! Copies of everything, on the screen.

use crate::common::Server;
use crate::common::bench::{begin_shot, open_shot, saved};
use crate::common::browser::Browser;
use thirtyfour::prelude::*;

async fn press(browser: &Browser, words: &str) {
    let path = format!("//button[contains(., '{words}')]");
    browser.driver.query(By::XPath(path)).and_clickable().first().await.unwrap().click().await.unwrap();
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_copy_is_made_looked_into_and_brought_back() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.driver.goto(server.url("/copies")).await.unwrap();
    press(&browser, "Make one now").await;
    browser.until("document.body.innerText.includes('All shots are as they are now')").await;
    assert!(browser.text("main").await.contains("demo.sqlite"), "it says where the data is");

    // Something is spoiled, and a shot is added.
    open_shot(&browser, &server, "Silks in the black box").await;
    browser.fill("[aria-label='Title of the shot']", "Spoiled").await;
    saved(&browser).await;
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    begin_shot(&browser, "squat").await;
    saved(&browser).await;

    browser.click("a[href='/copies']").await;
    browser.until("document.querySelectorAll('[aria-label^=Copies] button').length >= 1").await;
    let asked = "//button[contains(., 'you asked for it')]";
    browser.driver.query(By::XPath(asked)).and_clickable().first().await.unwrap().click().await.unwrap();
    browser.until("document.querySelectorAll('[data-now=differs]').length === 1").await;
    let text = browser.text("[aria-label='What is inside']").await;
    assert!(text.contains("Silks in the black box") && text.contains("not in it: Squat"), "{text}");
    press(&browser, "Bring this back").await;
    press(&browser, "Yes, bring it back").await;
    browser.until("document.body.innerText.includes('is as it was in the copy')").await;
    browser.click("[aria-label='Dash Pebble, all shots']").await;
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    browser.until("document.querySelector('[data-shot=\"Silks in the black box\"]')").await;

    // What was there before is the copy at the top.
    browser.click("a[href='/copies']").await;
    browser
        .until("document.querySelector('[aria-label^=Copies] button')?.innerText.includes('before a copy came back')")
        .await;
    browser.until("document.querySelectorAll('[data-now=gone]').length === 1").await;

    // A file from elsewhere that is none is refused in words.
    let folder = tempfile::TempDir::new().unwrap();
    let note = folder.path().join("note.sqlite");
    std::fs::write(&note, "milk, eggs").unwrap();
    let input = browser.driver.find(By::Css("input[type='file']")).await.unwrap();
    input.send_keys(note.display().to_string()).await.unwrap();
    browser.until("document.querySelector('[role=alert]')?.innerText.includes('not a Dash Pebble data file')").await;
}
