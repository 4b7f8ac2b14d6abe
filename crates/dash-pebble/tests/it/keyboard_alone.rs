//! The journeys of a job with no pointer at hand: planned, matched, set up, kept, copied, with keys alone.

use crate::common::Server;
use crate::common::browser::Browser;
use thirtyfour::prelude::*;

/// What is in focus, by the name that those who hear the page are told.
const NAME: &str = "const e = document.activeElement;
    const by = e.getAttribute('aria-labelledby')?.split(' ').map((id) => document.getElementById(id)?.innerText ?? '');
    return [e.ariaLabel, by?.join(' '), ...[...(e.labels ?? [])].map((label) => label.innerText),
        e.matches('button, a, [role=option]') ? e.innerText : ''].filter(Boolean).join(' ').replaceAll('\\n', ' ')";
/// Stops on the longest way round a screen.
const ROUND: usize = 160;

/// Goes from stop to stop until it stands on something of a name.
async fn reach(browser: &Browser, words: &str) {
    let mut passed = Vec::new();
    for _ in 0..ROUND {
        let name = browser.run(NAME, vec![]).await.as_str().unwrap_or_default().to_owned();
        if name.contains(words) {
            return;
        }
        passed.push(name.chars().take(40).collect::<String>());
        browser.keys(Key::Tab + "").await;
    }
    panic!("no way by Tab to {words:?}, past {passed:?}");
}

/// Finds something by the palette.
async fn go(browser: &Browser, words: &str) {
    browser.keys(Key::Control + "k").await;
    browser.until("document.activeElement.matches('[role=dialog] input')").await;
    browser.keys(words).await;
    browser
        .until(&format!(
            "document.querySelector('[role=dialog] [role=option][aria-selected=true]')?.innerText.includes({words:?})"
        ))
        .await;
    browser.keys(Key::Enter + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
}

/// What a strip says.
async fn strip(browser: &Browser, name: &str) -> String {
    browser.until(&format!("document.querySelector('#strip-{name}')")).await;
    let value = browser.run(&format!("return document.querySelector('#strip-{name}').ariaValueText"), vec![]).await;
    value.as_str().unwrap_or_default().to_owned()
}

/// Chooses a word of a list, which opens and moves by the arrow.
async fn choose(browser: &Browser, list: &str, word: &str) {
    reach(browser, list).await;
    // A tab of the same name stands before it.
    while browser.run("return document.activeElement.ariaHasPopup", vec![]).await != "listbox" {
        browser.keys(Key::Tab + "").await;
        reach(browser, list).await;
    }
    for _ in 0..40 {
        browser.keys(Key::Down + "").await;
        browser.until("document.activeElement.getAttribute('aria-expanded') === 'true'").await;
        let on = "return document.querySelector('[role=option][data-combobox-selected]')?.innerText ?? ''";
        if browser.run(on, vec![]).await.as_str().unwrap_or_default().starts_with(word) {
            browser.keys(Key::Enter + "").await;
            return browser.until("document.activeElement.getAttribute('aria-expanded') !== 'true'").await;
        }
    }
    panic!("{list} has no {word:?}");
}

const SAVED: &str = "document.querySelector('main header').innerText.includes('Saved')";

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn a_job_is_done_with_keys_alone() {
    let (server, browser) = (Server::demo(), Browser::open().await);
    browser.size(1280, 800).await;
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    go(&browser, "Sabre reach").await;

    // A step of a strip, and its version by name, which comes back.
    let planned = strip(&browser, "shutter").await;
    browser.keys("s").await;
    browser.keys(Key::PageDown + "").await;
    browser.until(&format!("document.querySelector('#strip-shutter').ariaValueText !== {planned:?}")).await;
    browser.keys("v").await;
    browser.until("document.querySelectorAll('[data-version]').length === 2").await;
    browser.until("document.querySelector('[data-difference=Shutter]')").await;
    reach(&browser, "Name of this version").await;
    browser.keys("As planned").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelector('[data-testid=versions]').innerText.includes('As planned')").await;
    reach(&browser, "Bring this back").await;
    browser.keys(Key::Enter + "").await;
    browser.until(&format!("document.querySelector('#strip-shutter')?.ariaValueText === {planned:?}")).await;
    browser.until(SAVED).await;

    // Another set-up from the kit, and back.
    let aperture = strip(&browser, "aperture").await;
    browser.keys("c").await;
    browser.until("document.querySelector('[aria-busy=false]') && document.querySelector('[data-setup=\"2\"]')").await;
    browser.keys(Key::Down + "").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelector('[data-notice=done]')").await;
    browser.keys(Key::Escape + "").await;
    browser.until(&format!("document.querySelector('#strip-aperture')?.ariaValueText !== {aperture:?}")).await;
    browser.keys(Key::Control + "z").await;
    browser.until(&format!("document.querySelector('#strip-aperture').ariaValueText === {aperture:?}")).await;
    browser.until(SAVED).await;

    // The key carried over the floor, and its distance typed; on the Bench it is the same.
    let far = strip(&browser, "flash_distance").await;
    browser.keys(";").await;
    browser.until("document.querySelector('[data-testid=evenness]')").await;
    reach(&browser, "A key, ").await;
    let place = browser.run(NAME, vec![]).await;
    for _ in 0..4 {
        browser.keys(Key::Left + "").await;
    }
    browser.until(&format!("document.activeElement.ariaLabel !== {place} && {SAVED}")).await;
    reach(&browser, "Taped to mark").await;
    browser.keys("3 m").await;
    reach(&browser, "To camera").await;
    browser.keys("4 m").await;
    browser.keys(Key::Tab + "").await;
    browser.until("document.querySelector('[data-testid=taped]')").await;
    // All lights together, more even over the area.
    reach(&browser, "Height of D fill").await;
    browser.keys(Key::Tab + "").await;
    browser.keys(Key::Right + "").await;
    reach(&browser, "All lights").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelectorAll('[data-way]').length > 1").await;
    let uneven = browser.text("[data-testid=evenness]").await;
    reach(&browser, "Set so").await;
    browser.keys(Key::Enter + "").await;
    browser.until(&format!("document.querySelector('[data-testid=evenness]').innerText !== {uneven:?}")).await;
    browser.until(SAVED).await;
    reach(&browser, "Bench").await;
    browser.keys(Key::Enter + "").await;
    let nearer = format!("(document.querySelector('#strip-flash_distance')?.ariaValueText ?? {far:?}) !== {far:?}");
    browser.until(&nearer).await;

    // Somebody jumps instead, chosen from the pictures.
    browser.keys("e").await;
    browser.until("document.querySelector('[data-testid=choose-pose] [aria-pressed=true]')").await;
    reach(&browser, "Jumps up").await;
    browser.keys(Key::Enter + "").await;
    let jumps = "document.querySelector('[data-testid=choose-pose] [aria-pressed=true]').innerText === 'Jumps up'";
    browser.until(jumps).await;
    browser.until(SAVED).await;
    browser.keys(Key::Escape + "").await;

    // A unit is looked up in the kit, and another stands beside it.
    browser.keys("k").await;
    browser.until("document.querySelector('[data-compare]')").await;
    browser.keys("/").await;
    browser.keys("Brix 400").await;
    browser.keys(Key::Enter + "").await;
    browser.until("location.pathname === '/kit/unit/brix-400'").await;

    // What is preferred, and a copy of everything.
    go(&browser, "Preferences").await;
    browser.until("document.querySelector('main h1')?.innerText === 'Preferences'").await;
    reach(&browser, "metres").await;
    browser.keys(Key::Right + "").await;
    browser.until("document.querySelector('main').innerText.includes('is in feet')").await;
    go(&browser, "Copies").await;
    browser.until("document.querySelector('main h1')?.innerText.includes('Copies')").await;
    reach(&browser, "Make one now").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.body.innerText.includes('All shots are as they are now')").await;
}

/// A unit from its leaflet, a shot from the brief with that unit, something wrong with it, and its remedy.
#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn an_own_unit_and_a_shot_with_it_need_no_pointer() {
    let (server, browser) = (Server::demo(), Browser::open().await);
    browser.size(1280, 800).await;
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    go(&browser, "Kit").await;
    browser.until("document.querySelector('[data-testid=at-power]')").await;
    browser.keys("n").await;
    browser.until("document.activeElement.closest('[aria-label=Figures]')").await;
    browser.keys("Own 500").await;
    choose(&browser, "Known as", "guide number").await;
    reach(&browser, "Guide number").await;
    browser.keys("203 ft").await;
    choose(&browser, "Makes less light by", "Quenched").await;
    reach(&browser, "t0.5 at full").await;
    browser.keys("1/900 s").await;
    browser.keys(Key::Enter + "").await;
    browser.until("location.pathname === '/kit/unit/own-500'").await;

    go(&browser, "All shots").await;
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    browser.keys("n").await;
    browser.until("document.querySelector('[data-activity=portrait]')").await;
    browser.keys("portrait").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelector('[data-choose=flash]')").await;
    let unit = browser.text("[data-choose=flash]").await;
    reach(&browser, unit.trim()).await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelector('[role=dialog]')").await;
    choose(&browser, "Unit", "Own 500").await;
    browser.keys(Key::Escape + "").await;
    browser.until("document.querySelector('[data-choose=flash]').innerText.includes('Own 500')").await;
    browser.until(SAVED).await;

    // A cut frame: what is found has a remedy, which is reached and pressed like anything else.
    browser.keys("s1/1000").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelector('#strip-shutter').ariaValueText === '1/1000'").await;
    let found = "document.querySelector('[data-severity=trouble] button')";
    // What was found of the time before stands until what is found of this one has come.
    let cut = "[...document.querySelectorAll('[data-severity=trouble] h3')].some((one) => /dark,|loses flash/.test(one.innerText))";
    browser
        .until(&format!("{cut} && {found} && document.querySelector('[aria-label=Findings]').ariaBusy !== 'true'"))
        .await;
    let remedy = browser.run(&format!("return {found}.innerText.split('\\n')[0]"), vec![]).await;
    let trouble = browser.text("[data-severity=trouble]:has(button) h3").await;
    reach(&browser, remedy.as_str().unwrap()).await;
    browser.keys(Key::Enter + "").await;
    browser
        .until(&format!(
            "![...document.querySelectorAll('[data-severity=trouble] h3')].some((one) => one.innerText === {trouble:?})"
        ))
        .await;
    browser.until(SAVED).await;
}
