//! Match as a photographer uses it: which of my lights can do this, and what would have to give.

use crate::common::Server;
use crate::common::bench::{open_shot, saved};
use crate::common::browser::Browser;
use thirtyfour::prelude::*;

const DONE: &str = "document.querySelector('[aria-busy=false]')";

async fn open_match(browser: &Browser, server: &Server, title: &str) {
    open_shot(browser, server, title).await;
    browser.keys("c").await;
    browser.until("document.querySelector('#marks')").await;
    browser.until(DONE).await;
}

/// What the program has saved of the shot that is open.
async fn kept(browser: &Browser) -> serde_json::Value {
    let script = "const id = location.pathname.split('/').pop();
        const request = new XMLHttpRequest(); request.open('GET', `/api/shots/${id}`, false); request.send();
        return JSON.parse(request.responseText).shot";
    browser.run(script, vec![]).await
}

#[tokio::test(flavor = "multi_thread")]
async fn set_ups_are_found_pinned_compared_set_and_taken_back() {
    let (server, browser) = (Server::demo(), Browser::open().await);
    browser.size(1280, 800).await;
    open_match(&browser, &server, "Sabre reach").await;
    let before = kept(&browser).await;

    // Every unit has its trail, and the region is drawn.
    assert_eq!(browser.run("return document.querySelectorAll('[data-unit]').length", vec![]).await, 12);
    browser.until("document.querySelector('[data-testid=region] rect')?.getBoundingClientRect().width > 50").await;
    browser.until("document.querySelectorAll('[data-works=true]').length > 10").await;

    // Marks by arrow keys: another power, then another unit, each told in full.
    browser.find("#marks").await.focus().await.unwrap();
    let told = browser.text("figcaption").await;
    browser.keys(Key::Right + "").await;
    browser.until(&format!("document.querySelector('figcaption').innerText !== {told:?}")).await;
    for _ in 0..12 {
        browser.keys(Key::Right + "").await;
    }
    browser.until("/blurs [0-9.]+ px, limit/.test(document.querySelector('figcaption').innerText)").await;
    browser.run("document.activeElement.blur()", vec![]).await;

    // Another priority is another order.
    let best = browser.text("[data-setup='1'] p").await;
    browser.click("[aria-label='First of all']").await;
    let least = "//*[@role='option'][contains(., 'Least to carry')]";
    browser.driver.query(By::XPath(least)).and_clickable().first().await.unwrap().click().await.unwrap();
    browser.until(&format!("document.querySelector(\"[data-setup='1'] p\").innerText !== {best:?}")).await;
    browser.until(DONE).await;
    browser.run("document.activeElement.blur()", vec![]).await;

    // Two are pinned and laid side by side, with their frames.
    browser.keys("p").await;
    browser.keys(Key::Down + "").await;
    browser.keys("ps").await;
    browser.until("document.querySelectorAll('[data-compared] canvas').length === 2").await;
    browser.until("[...document.querySelectorAll('[data-compared] canvas')].every((one) => one.width === 480)").await;
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
    assert!(browser.run("return location.search", vec![]).await == "?match=", "Escape closes the dialog alone");

    // From joules to pixels, and from there to the page of the model.
    browser.keys("e").await;
    browser.until("document.querySelectorAll('[data-testid=chain] tr').length > 6").await;
    browser.click("[data-page=pulse]").await;
    browser.until("document.querySelector('article[data-page=pulse]')?.innerText.includes('ISO 2827')").await;
    browser.driver.back().await.unwrap();
    browser.until("document.querySelector('#marks')").await;
    browser.until(DONE).await;

    // The first one is set; the shot has its unit, is saved, and can be taken back.
    let title = browser.text("[data-setup='1'] [class*=title]").await;
    browser.click("[data-setup='1'] [data-act=apply]").await;
    browser.until("document.querySelector('[data-notice=done]')").await;
    browser.until("[...document.querySelectorAll('[role=status]')].some((one) => one.innerText === 'Saved')").await;
    browser.keys("c").await;
    browser.until("document.querySelector('#strip-aperture')").await;
    saved(&browser).await;
    let set = kept(&browser).await;
    assert_ne!(set["camera"], before["camera"]);
    let unit = set["lights"][0]["unit"]["name"].as_str().unwrap();
    assert!(title.contains(unit), "{title}: {unit}");
    browser.keys(Key::Control + "z").await;
    browser.until("document.querySelector('[aria-label=Redo]:not([disabled])')").await;
    saved(&browser).await;
    let back = kept(&browser).await;
    assert_eq!((&back["camera"], &back["lights"]), (&before["camera"], &before["lights"]));
}

#[tokio::test(flavor = "multi_thread")]
async fn where_nothing_fits_something_gives_and_then_it_fits() {
    let (server, browser) = (Server::demo(), Browser::open().await);
    browser.size(1280, 800).await;
    open_match(&browser, &server, "Slipway spin, noon").await;
    browser.until("document.querySelectorAll('[data-nearest]').length > 1").await;
    assert!(browser.text("[data-testid=count]").await.starts_with("Nothing does all of this"));
    let prices = "return [...document.querySelectorAll('[data-nearest] b')].map((one) => parseFloat(one.innerText))";
    let prices: Vec<f64> = serde_json::from_value(browser.run(prices, vec![]).await).unwrap();
    assert!(prices.iter().all(|price| *price >= prices[0]), "the cheapest is first: {prices:?}");

    // The cheapest gives: it is among what is asked now, and set-ups appear.
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelector('[data-setup]')").await;
    browser.until("document.querySelector('[aria-label=\"What is asked\"] [data-own]')").await;
    saved_here(&browser).await;
    assert!(kept(&browser).await["wish"].is_object());

    // What was given can be taken back, by its own button and by undo.
    browser.click("[data-own] [aria-label$='as the shot says']").await;
    browser.until("document.querySelector('[data-nearest]')").await;
    browser.keys(Key::Control + "z").await;
    browser.until("document.querySelector('[data-setup]')").await;

    // A bound that cannot be is refused in a sentence, and the rest stands.
    browser.fill("[aria-label='ISO from']", "3200").await;
    browser
        .until("document.querySelector('[data-field=\"wish.iso_min\"]')?.innerText.includes('no ISO between')")
        .await;
    assert!(browser.run("return !!document.querySelector('#marks')", vec![]).await == true);
    browser.fill("[aria-label='ISO from']", "100").await;
    browser.until("document.querySelector('[data-setup]') && !document.querySelector('[data-field]')").await;

    // A tighter wish has fewer ways.
    let ways = "return Number(document.querySelector('[data-testid=count]').innerText.match(/([0-9,]+) ways/)[1].replaceAll(',', ''))";
    browser.until(DONE).await;
    let many = browser.run(ways, vec![]).await.as_u64().unwrap();
    browser.fill("[aria-label='ISO to']", "100").await;
    let fewer = format!("({}) < {many}", ways.trim_start_matches("return "));
    browser.until(&format!("document.querySelector('[data-nearest]') || {fewer}")).await;
}

async fn saved_here(browser: &Browser) {
    browser.until("[...document.querySelectorAll('[role=status]')].some((one) => one.innerText === 'Saved')").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn all_lights_and_the_whole_job_are_planned() {
    let (server, browser) = (Server::demo(), Browser::open().await);
    browser.size(1280, 800).await;
    open_match(&browser, &server, "Sabre reach").await;
    browser.keys("2").await;
    browser.until("document.querySelectorAll(\"[data-crew='1'] tr\").length === 4").await;
    browser.until("document.querySelectorAll('[data-testid=whole] figure canvas').length === 2").await;
    browser.until("document.querySelector('[data-testid=left-open]')").await;
    browser.click("[data-crew='1'] button").await;
    browser.until("document.querySelector('[data-notice=done]')").await;
    saved_here(&browser).await;
    browser.keys("3").await;
    browser.until("document.querySelectorAll('[data-job]').length === 7").await;
    // Each with the frame that it gives with these units, how it is set, and what is open then.
    let seen = "document.querySelectorAll('[data-testid=job] li canvas').length";
    browser.until(&format!("{seen} >= 5")).await;
    browser.run("document.querySelector('[data-testid=pack]')?.scrollIntoView()", vec![]).await;
    browser.until(&format!("{seen} === 7")).await;
    browser.until("document.querySelector('[data-testid=job]').innerText.includes('no trouble')").await;
    let take = browser.text("[data-testid=job] p").await;
    assert!(take.starts_with("Take ") && take.contains("No smaller set"), "{take}");
    browser.until("document.querySelector('[data-testid=pack]').innerText.includes('Stands')").await;
    // A shot that is left out may take units with it.
    browser.click("[aria-label='Plan for Double ropes, both feet up']").await;
    browser.until("document.querySelectorAll('[data-job]').length === 6").await;
    browser.until(&format!("document.querySelector('[data-testid=job] p').innerText !== {take:?}")).await;
    // Nothing ticked is nothing to take, and said.
    browser
        .run("document.querySelectorAll('[aria-label^=\"Plan for\"]:checked').forEach((tick) => tick.click())", vec![])
        .await;
    browser.until("document.querySelector('[data-testid=job]').innerText.includes('No shot is chosen')").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn without_units_it_says_so() {
    let (server, browser) = (Server::demo(), Browser::open().await);
    open_shot(&browser, &server, "Sabre reach").await;
    let put_away = "for (const unit of JSON.parse((() => { const r = new XMLHttpRequest(); r.open('GET', '/api/kit', false); r.send(); return r.responseText })()).units) {
        const read = new XMLHttpRequest(); read.open('GET', `/api/kit/items/${unit.id}`, false); read.send();
        const put = new XMLHttpRequest(); put.open('POST', `/api/kit/items/${unit.id}/retire`, false);
        put.setRequestHeader('If-Match', `\"${JSON.parse(read.responseText).version}\"`); put.send() }";
    browser.run(put_away, vec![]).await;
    browser.keys("c").await;
    browser.until("document.querySelector('[aria-label=Units]')?.innerText.includes('No unit is taken along')").await;
    browser.keys("c").await;
    browser.until("document.querySelector('#strip-aperture')").await;
}
