//! The brief and movement in time, as a photographer comes to them.

use crate::common::Server;
use crate::common::bench::{begin_shot, open_shot, saved};
use crate::common::browser::Browser;
use std::time::{Duration, Instant};
use thirtyfour::prelude::*;

/// Presses from the list of shots to a first useful answer.
const MOST: u32 = 12;
const MOST_TIME: Duration = Duration::from_secs(60);
/// What is answered last stands on the screen.
const SETTLED: &str = "document.querySelector('main').dataset.settled === 'true'";

async fn brief(browser: &Browser, server: &Server, what: &str) {
    browser.driver.goto(server.url("/new")).await.unwrap();
    browser.until("document.activeElement?.getAttribute('aria-label') === 'What happens'").await;
    browser.keys(what).await;
    browser.until(&format!("document.querySelector('main').dataset.brief !== 'empty' && {SETTLED}")).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_first_answer_takes_a_few_presses_by_keyboard_alone() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    let (began, mut presses) = (Instant::now(), 0);
    browser.keys("n").await;
    browser.until("document.activeElement?.getAttribute('aria-label') === 'What happens'").await;
    // Letter by letter, as it is counted.
    for letter in ["k", "i", "c", "k"] {
        browser.keys(letter).await;
        presses += 1;
    }
    browser.until(&format!("document.querySelector('main').dataset.brief === 'kick' && {SETTLED}")).await;
    // The first useful answer: with what, at which settings, and what becomes of each part.
    let lights = browser.text("[aria-label=Lights]").await;
    assert!(
        lights.contains("Your lights can do it") && lights.contains("ISO") && lights.contains("no trouble"),
        "{lights}"
    );
    let parts = browser.text("[aria-label='What shall be still']").await;
    assert!(parts.contains("Foot") && parts.contains("px"), "{parts}");
    browser.keys(Key::Enter + "").await;
    presses += 2;
    browser.until("document.querySelector('#frame[data-ready]') && document.querySelector('[data-finding]')").await;
    let took = began.elapsed();
    println!("{presses} presses, {:.1} s", took.as_secs_f64());
    assert!(presses <= MOST && took < MOST_TIME, "{presses} presses, {took:?}");
    assert_eq!(browser.run("return document.querySelectorAll('[data-severity=trouble]').length", vec![]).await, 0);
    assert!(browser.text("[aria-label=Findings]").await.contains("The steady light is a guess"));
    // A reading ends the guess.
    browser.click("[data-reading=subject]").await;
    saved(&browser).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn every_answer_moves_the_frame_and_what_cannot_be_is_said() {
    let server = Server::demo();
    let browser = Browser::open().await;
    brief(&browser, &server, "rope").await;
    assert!(browser.text("[aria-label=Lights]").await.contains("A reading could move"));
    browser.fill("[aria-label='The meter says']", "f/2.8 1/60 ISO 1600").await;
    browser
        .until(&format!(
            "document.querySelector('[data-answer=\"The meter says\"]').dataset.guess === 'false' && {SETTLED}"
        ))
        .await;
    browser.fill("[aria-label='The meter says']", "rather dark").await;
    browser.until("document.querySelector('[role=alert]')?.innerText.includes('is no reading')").await;
    browser.fill("[aria-label='The meter says']", "EV 6").await;
    browser.until(&format!("!document.querySelector('[role=alert]') && {SETTLED}")).await;
    browser.fill("[aria-label='How fast: Face']", "fast").await;
    browser.until("document.querySelector('[role=alert]')?.innerText.includes('says no speed')").await;
    browser.fill("[aria-label='How fast: Face']", "jump 40 cm").await;
    browser
        .until(&format!("document.querySelector('[data-part=Face]').innerText.includes('2.8 m/s') && {SETTLED}"))
        .await;
    // What was refused in between is not what is opened.
    browser.press("//button[contains(., 'To the Bench')]").await;
    browser.until("document.querySelector('[data-reading=subject]')?.innerText.includes('EV 6')").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_shot_of_ones_own_is_a_template_by_one_press() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.click("[aria-label='More for Sabre reach']").await;
    browser.click("[data-do=template]").await;
    browser.until("document.querySelector('[data-shot=\"Sabre reach\"]').innerText.includes('Template')").await;
    browser.driver.goto(server.url("/new")).await.unwrap();
    browser.click("[data-template='Sabre reach']").await;
    browser.until("document.querySelector('#frame[data-ready]')").await;
    browser.click("[aria-label='Dash Pebble, all shots']").await;
    browser.until("document.querySelectorAll('[data-shot=\"Sabre reach\"]').length === 2").await;
    // The copy is a shot like any other.
    let templates =
        "[...document.querySelectorAll('[data-shot]')].filter((shot) => shot.innerText.includes('Template')).length";
    assert_eq!(browser.run(&format!("return {templates}"), vec![]).await, 1);
}

#[tokio::test(flavor = "multi_thread")]
async fn movement_has_lanes_that_are_dragged_and_keyed() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    browser.keys("j").await;
    browser.until("document.querySelector('[data-testid=lanes]')").await;
    browser.press("//button[contains(., 'Ropes') and @aria-pressed]").await;
    for add in ["rest", "line"] {
        browser.click(&format!("[data-add={add}]")).await;
        browser.until(&format!("document.querySelector('[data-phase={add}]')")).await;
    }
    // The handle of a phase is dragged, and the shutter's opening is stepped by keys.
    browser.until("document.querySelectorAll('[aria-label^=\"How long phase\"]').length === 2").await;
    let lasts =
        "Number(document.querySelector('[aria-label=\"How long phase 1 lasts\"]').getAttribute('aria-valuenow'))";
    let before = browser.run(&format!("return {lasts}"), vec![]).await.as_f64().unwrap();
    browser.drag("[aria-label='How long phase 1 lasts']", (60, 0)).await;
    browser.until(&format!("{lasts} > {before} + 0.02")).await;
    let opens = browser.find("[aria-label='When the shutter opens']").await;
    opens.focus().await.unwrap();
    browser.keys(Key::PageUp + "").await;
    browser.until("Number(document.querySelector('[aria-label=\"When the shutter opens\"]').getAttribute('aria-valuenow')) === 0.1").await;
    // A scrub shows where everything is, over the picture.
    browser.find("[aria-label='The moment that is looked at']").await.focus().await.unwrap();
    browser.keys(Key::PageUp + "").await;
    browser.until("document.querySelectorAll('[data-now]').length >= 2").await;
    // A swing is wanted or not, and has a handle of its own.
    browser.find("[aria-label='How fast the camera swings']").await.focus().await.unwrap();
    browser.keys(Key::PageUp + "").await;
    browser.press("//label[.='Camera']").await;
    browser.until("!document.querySelector('[data-testid=background-streak]').innerText.includes('0.0 px')").await;
    browser.press("//label[.='shall not']").await;
    browser
        .until(
            "[...document.querySelectorAll('[data-finding]')].some((one) => one.dataset.finding.startsWith('world'))",
        )
        .await;
    // What contradicts itself is said where it is.
    browser.press("//label[.='Whole action']").await;
    browser.type_over(&browser.labelled("The action lasts").await, "1 s").await;
    browser.until("document.querySelector('[data-fits=false]')?.innerText.includes('misses its end')").await;
    saved(&browser).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_top_of_a_jump_is_told_by_both_schools() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    begin_shot(&browser, "jump").await;
    browser.keys("j").await;
    browser.until("document.querySelector('[data-school=burst] td')").await;
    let one = "document.querySelector('[data-school=one] td').innerText";
    browser.type_over(&browser.labelled("Tries").await, "20").await;
    browser
        .until("document.querySelector('[data-testid=movement]').innerText.includes('20 tries are 3 sets of 8')")
        .await;
    // A press that nobody measured is said to be usual; five presses measure it.
    let before = browser.run(&format!("return {one}"), vec![]).await;
    assert!(browser.text("[data-testid=movement]").await.contains("(usual)"));
    for press in 0..5 {
        if press == 0 {
            browser.find("[data-reaction=rest]").await.focus().await.unwrap();
            browser.keys(" ").await;
        }
        browser.until("document.querySelector('[data-reaction=now]')").await;
        // Nobody is as quick as a machine; a tenth of a second is the least that counts as a press.
        browser.run("return new Promise((over) => setTimeout(over, 120))", vec![]).await;
        browser.keys(" ").await;
    }
    browser.until("!document.querySelector('[data-testid=movement]').innerText.includes('(usual)')").await;
    let _ = before;
    saved(&browser).await;
}
