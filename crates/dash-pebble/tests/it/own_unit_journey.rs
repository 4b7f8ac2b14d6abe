//! From a leaflet to a first answer, every press and every figure typed counted.

use crate::common::Server;
use crate::common::browser::Browser;
use std::cell::Cell;
use thirtyfour::prelude::*;

/// Most presses and typed figures from an empty start to a first answer of one's own.
const MOST: u32 = 25;

struct Counted<'a> {
    browser: &'a Browser,
    actions: Cell<u32>,
}

impl Counted<'_> {
    fn one(&self) {
        self.actions.set(self.actions.get() + 1);
    }

    async fn press(&self, path: &str) {
        self.one();
        let found = self.browser.driver.query(By::XPath(path)).and_clickable().first().await;
        found.unwrap_or_else(|error| panic!("{path}: {error}")).click().await.unwrap();
    }

    async fn key(&self, key: impl Into<TypingData>) {
        self.one();
        self.browser.keys(key).await;
    }

    /// A press into a field and what is typed there.
    async fn figure(&self, label: &str, text: &str) {
        self.one();
        self.one();
        let field = self.browser.labelled(label).await;
        field.click().await.unwrap();
        self.browser.type_over(&field, text).await;
    }

    /// A press on a list and one on its line.
    async fn choose(&self, label: &str, option: &str) {
        self.one();
        self.browser.labelled(label).await.click().await.unwrap();
        self.press(&format!("//*[@role='option'][starts-with(., '{option}')]")).await;
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_first_answer_with_an_own_unit_takes_few_presses() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    let me = Counted { browser: &browser, actions: Cell::new(0) };

    // The unit, from what its leaflet says.
    me.press("//a[contains(., 'Kit')]").await;
    browser.until("document.querySelector('[data-testid=at-power]')").await;
    me.key("n").await;
    browser.until("document.activeElement.closest('[aria-label=Figures]')").await;
    me.key("Own 500").await;
    me.choose("Known as", "guide number").await;
    me.figure("Guide number", "62").await;
    me.choose("Makes less light by", "Quenched").await;
    me.figure("t0.5 at full", "1/900 s").await;
    me.key(Key::Enter + "").await;
    browser.until("location.pathname === '/kit/unit/own-500'").await;

    // A shot, and the unit in it.
    me.press("//a[contains(., 'Shots')]").await;
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    me.key("n").await;
    browser.until("document.querySelector('[data-activity=portrait]')").await;
    me.key("portrait").await;
    me.key(Key::Enter + "").await;
    browser.until("document.querySelector('[data-choose=flash]')").await;
    me.press("//*[@data-choose='flash']").await;
    me.choose("Unit", "Own 500").await;
    me.key(Key::Escape + "").await;

    // The answer: what it freezes to, where its light falls, and what is not known of it.
    browser.until("document.querySelector('[data-choose=flash]').innerText.includes('Own 500')").await;
    browser.until("document.querySelector('[data-testid=moment-line]')?.innerText.includes('t0.1')").await;
    browser.until("document.querySelector('[data-finding^=unit-not-known]')").await;
    let actions = me.actions.get();
    println!("{actions} presses and figures");
    assert!(actions <= MOST, "{actions} of at most {MOST}");
}
