//! The real interface in a real browser: what a photographer does with it.

use crate::common::bench::{begin_shot, choose, open_shot, open_tab, saved};
use crate::common::browser::Browser;
use crate::common::{Server, example};
use serde_json::json;
use thirtyfour::prelude::*;

/// A sum over the frame's pixels: enough to tell one picture from another.
const FRAME_SUM: &str = "(() => { const c = document.querySelector('#frame'); if (c.ariaBusy !== 'false') throw c; const d = c.getContext('2d').getImageData(0, 0, c.width, c.height).data; \
     let s = 0; for (let k = 0; k < d.length; k += 4) s += d[k] + 2 * d[k + 1] + 3 * d[k + 2]; return s })()";

/// The sum, once no newer picture is on its way.
async fn sum(browser: &Browser) -> f64 {
    browser.until("document.querySelector('#frame').ariaBusy === 'false'").await;
    browser.run(&format!("return {FRAME_SUM}"), vec![]).await.as_f64().expect("a sum")
}

/// Keys and words of the commands that the help tells of the Bench.
const TOLD_HERE: &str = "return [...document.querySelectorAll('[role=dialog] section')] \
     .filter((group) => ['Controls', 'Looking', 'Anywhere'].includes(group.querySelector('h3').innerText)) \
     .flatMap((group) => [...group.querySelectorAll('dl > div')]) \
     .map((row) => [row.querySelector('dt').innerText, row.querySelector('dd').innerText]) \
     .filter(([key]) => !/ |Space|Esc/.test(key) && key !== 'Ctrl+K')";

async fn value_of(browser: &Browser, strip: &str) -> String {
    let script = "return document.querySelector(arguments[0]).getAttribute('aria-valuetext')";
    browser.run(script, vec![format!("#strip-{strip}").into()]).await.as_str().unwrap_or_default().to_owned()
}

fn reads(strip: &str, value: &str) -> String {
    format!("document.querySelector('#strip-{strip}')?.getAttribute('aria-valuetext') === {value:?}")
}

#[tokio::test(flavor = "multi_thread")]
async fn a_picture_is_planned_seen_changed_and_found_again() {
    let server = Server::demo();
    let browser = Browser::open().await;

    // The list: three shots, each with its simulated frame.
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot] img').length === 7").await;
    browser.until("[...document.images].every((image) => image.complete && image.naturalWidth === 720)").await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    let fits = "return document.scrollingElement.scrollHeight <= innerHeight && document.scrollingElement.scrollWidth <= innerWidth";
    assert_eq!(browser.run(fits, vec![]).await, true, "nothing scrolls at 1280 × 800");

    // A reading of the hall, entered as lux: 217.6 lx for 1/64 s against 340·64/200 = 108.8 lx·s is −5 stops.
    browser.click("[data-reading='subject']").await;
    browser.click("input[value='lux'] + label").await;
    let field = browser.labelled("Illuminance").await;
    browser.type_over(&field, "217.6").await;
    browser.until("document.querySelector('[data-testid=placed-subject]').innerText === '−5.0'").await;
    browser.keys(Key::Escape + "").await;

    // Controls by key, wheel and drag; the frame answers each time.
    let before = sum(&browser).await;
    browser.until("!document.querySelector('[role=dialog]')").await;
    browser.keys("a").await;
    browser.until("document.activeElement.id === 'strip-aperture'").await;
    browser.keys(Key::Left + "").await;
    browser.until(&reads("aperture", "7.1")).await;
    browser.until(&format!("{FRAME_SUM} > {before}")).await;
    let wheel = "document.querySelector('#strip-iso').dispatchEvent(new WheelEvent('wheel', { deltaY: -120, bubbles: true, cancelable: true }))";
    browser.run(wheel, vec![]).await;
    browser.until(&reads("iso", "320")).await;
    let strip = browser.find("#strip-flash_distance").await;
    let drag =
        browser.driver.action_chain().move_to_element_center(&strip).click_and_hold().move_by_offset(-60, 0).release();
    drag.perform().await.unwrap();
    browser.until(&reads("flash_distance", "3.2 m")).await;
    // Changes that come within a breath are one revision: let this one be its own.
    saved(&browser).await;
    browser.keys(Key::End + "").await;
    browser.until("document.querySelector('#strip-flash_distance').getAttribute('aria-valuenow') === document.querySelector('#strip-flash_distance').ariaValueMax").await;
    browser.keys((Key::Control + "z").to_string()).await;
    browser.until(&reads("flash_distance", "3.2 m")).await;

    // Another unit from the kit, and its figures in the moment.
    let line = browser.text("[data-testid='moment-line']").await;
    browser.click("[data-choose='flash']").await;
    let unit = browser.labelled("Unit").await;
    unit.click().await.unwrap();
    let option =
        browser.driver.query(By::XPath("//*[@role='option'][contains(., 'Kiln 2400')]")).first().await.unwrap();
    option.click().await.unwrap();
    browser.until(&format!("document.querySelector('[data-testid=moment-line]').innerText !== {line:?}")).await;
    browser.keys(Key::Escape + "").await;

    // A part of one's own: fast and held still, which this unit cannot do.
    browser.click("[aria-label='Add a part']").await;
    browser.fill("[role='dialog'] input", "Hand tip").await;
    let speed = browser.labelled("Speed").await;
    browser.type_over(&speed, "14").await;
    browser.keys(Key::Escape + "").await;
    browser.until("document.querySelector('[data-finding=\"blur-Hand tip\"]')").await;
    browser.until("document.querySelector('[data-part=\"Hand tip\"][data-state=missed]')").await;

    // A finding with a remedy: one press, and it is gone.
    let with_remedy = "[...document.querySelectorAll('[data-finding]')].find((f) => f.querySelector('button'))";
    browser.until(with_remedy).await;
    let id = browser.run(&format!("return {with_remedy}.dataset.finding"), vec![]).await.as_str().unwrap().to_owned();
    browser.run(&format!("{with_remedy}.querySelector('button').click()"), vec![]).await;
    browser
        .until(&format!("![...document.querySelectorAll('[data-finding]')].some((f) => f.dataset.finding === {id:?})"))
        .await;
    saved(&browser).await;
    let kept = (
        value_of(&browser, "aperture").await,
        value_of(&browser, "iso").await,
        browser.text("[aria-label='Findings']").await,
    );

    // Killed and started again: all is there.
    let server = server.killed_and_started_again();
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    browser.until("document.querySelector('[data-part=\"Hand tip\"]')").await;
    browser.until(&format!("document.querySelector('[aria-label=Findings]').innerText === {:?}", kept.2)).await;
    assert_eq!((value_of(&browser, "aperture").await, value_of(&browser, "iso").await), (kept.0, kept.1));
    // And what was done before the restart can still be undone.
    browser.keys((Key::Control + "z").to_string()).await;
    browser
        .until(&format!("[...document.querySelectorAll('[data-finding]')].some((f) => f.dataset.finding === {id:?})"))
        .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn what_cannot_be_is_said_at_its_place_and_nothing_is_lost() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    browser.click("[data-part='Shoes']").await;
    // What is no speed is said at the field, and goes nowhere.
    let speed = browser.labelled("Speed").await;
    browser.type_over(&speed, "fast").await;
    browser.until("document.querySelector('[role=dialog]').innerText.includes('“fast” says no speed')").await;
    browser.type_over(&speed, "-5").await;
    browser.until("document.querySelector('[role=dialog]').innerText.includes('is not a speed that can be')").await;
    browser.type_over(&speed, "sprint").await;
    browser.until("document.querySelector('[role=dialog]').innerText.includes('full speed')").await;
    saved(&browser).await;
    let size = browser.labelled("Size along it").await;
    browser.type_over(&size, "-5").await;
    browser.until("document.querySelector('[role=dialog]').innerText.includes('not between')").await;
    browser.until("document.querySelector('[data-saving]').dataset.saving === 'refused'").await;
    browser.type_over(&size, "0.3").await;
    saved(&browser).await;
    browser.until("!document.querySelector('[role=dialog]').innerText.includes('not between')").await;
    browser.keys(Key::Escape + "").await;
    // Nearer than the lens can focus: the message stands at the control, the picture stays.
    browser.click("[data-reading='background']").await;
    browser.click("input[value='exposure'] + label").await;
    let time = browser.labelled("Time").await;
    browser.type_over(&time, "soon").await;
    browser.until("document.body.innerText.includes('“soon” is no figure for a time')").await;
    browser.run("location.reload()", vec![]).await;
    browser.until("document.querySelector('#frame[data-ready]')").await;
    let chips = browser.text("[aria-label='Parts']").await;
    assert!(chips.contains("Shoes"), "{chips}");
}

#[tokio::test(flavor = "multi_thread")]
async fn two_windows_on_one_shot_are_told_and_see_both() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Slipway spin, noon").await;
    let first = browser.driver.window().await.unwrap();
    let address = browser.driver.current_url().await.unwrap();
    let second = browser.driver.new_tab().await.unwrap();
    browser.driver.switch_to_window(second.clone()).await.unwrap();
    browser.driver.goto(address.as_str()).await.unwrap();
    browser.until("document.querySelector('#strip-iso') && document.querySelector('#frame[data-ready]')").await;
    browser.keys("i").await;
    browser.keys(Key::Right + "").await;
    browser.until(&reads("iso", "125")).await;
    saved(&browser).await;
    browser.driver.switch_to_window(first).await.unwrap();
    browser.keys("s").await;
    browser.keys(Key::Left + "").await;
    browser.until("document.querySelector('[role=dialog]')?.innerText.includes('another window')").await;
    browser.until("document.querySelectorAll('[role=dialog] canvas').length === 2").await;
    let told = browser.text("[role='dialog']").await;
    assert!(told.contains("1/200") && told.contains("ISO 125"), "both are seen: {told}");
    let mine = browser.driver.query(By::XPath("//button[contains(., 'Keep mine')]")).first().await.unwrap();
    mine.click().await.unwrap();
    saved(&browser).await;
    // Theirs is one undo away.
    browser.until("!document.querySelector('[role=dialog]')").await;
    browser.keys((Key::Control + "z").to_string()).await;
    browser.until(&reads("iso", "125")).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_frame_is_looked_at_in_each_light_up_close_and_on_the_axis_of_time() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Lantern slalom").await;
    let sum = || sum(&browser);
    let both = sum().await;
    browser.keys("2").await;
    browser.until(&format!("{FRAME_SUM} < {both}")).await;
    let flash = sum().await;
    browser.keys("3").await;
    browser.until(&format!("{FRAME_SUM} !== {flash} && {FRAME_SUM} < {both}")).await;
    browser.keys("1").await;
    browser.until(&format!("{FRAME_SUM} === {both}")).await;
    browser.keys("l").await;
    browser.until("document.querySelector('#frame').dataset.loupe").await;
    browser.until(&format!("{FRAME_SUM} !== {both}")).await;
    browser.keys("l").await;
    browser.until(&format!("{FRAME_SUM} === {both}")).await;

    // The moment goes from the whole exposure to the pulse, which then fills the axis.
    let pulse = "document.querySelector('[data-testid=pulse]').getBoundingClientRect().width";
    let thin = browser.run(&format!("return {pulse}"), vec![]).await.as_f64().unwrap();
    browser.keys("m").await;
    browser.keys(Key::Enter + "").await;
    browser.until(&format!("{pulse} > 400")).await;
    assert!(thin < 5.0, "in 0.4 s the pulse is a line: {thin} px");
    browser.keys("0").await;
    browser.until(&format!("{pulse} < 5")).await;

    // A rung is dragged by keys: the target moves, and the program says what it asks for.
    let rung = browser.find("[data-rung='subject']").await;
    rung.focus().await.unwrap();
    browser.keys(Key::PageDown + "").await;
    browser
        .until("document.querySelector('[data-finding=exposure]')?.innerText.includes('above where it is wanted')")
        .await;

    // Themes and keys.
    browser.run("document.activeElement.blur()", vec![]).await;
    let ground = "getComputedStyle(document.body).backgroundColor";
    let dark = browser.run(&format!("return {ground}"), vec![]).await;
    browser.keys("t").await;
    browser.until(&format!("{ground} !== {dark}")).await;
    browser.keys("?").await;
    browser.until("document.querySelector('[role=dialog]')?.innerText.includes('Keys and words')").await;
    // Whatever the help tells of this screen can be run by its name as well, under the same key.
    let told = browser.run(TOLD_HERE, vec![]).await;
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
    browser.keys((Key::Control + "k").to_string()).await;
    let told = told.as_array().expect("keys and words");
    assert!(told.len() > 25, "{told:?}");
    for (key, words) in told.iter().map(|row| (row[0].as_str().unwrap(), row[1].as_str().unwrap())) {
        browser.fill("[role=dialog] input", words).await;
        let found = format!(
            "[...document.querySelectorAll('[role=option]')].some((one) => one.innerText.includes({words:?}) && one.querySelector('kbd').innerText === {key:?})"
        );
        browser.until(&found).await;
    }
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
    let outside = "return performance.getEntriesByType('resource').map((entry) => entry.name).filter((name) => !name.startsWith(location.origin) && !name.startsWith('data:'))";
    assert_eq!(browser.run(outside, vec![]).await, serde_json::json!([]), "nothing is fetched from elsewhere");
}

#[tokio::test(flavor = "multi_thread")]
async fn a_program_that_dies_is_said_and_the_page_goes_on_when_it_is_back() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Lantern slalom").await;
    browser.keys("a").await;
    browser.keys(Key::Right + "").await;
    saved(&browser).await;
    let start_again = server.killed();
    browser.keys(Key::Right + "").await;
    browser.keys(Key::Right + "").await;
    browser.until("document.querySelector('[role=alert]')?.innerText.includes('does not answer')").await;
    assert_eq!(value_of(&browser, "aperture").await, "8", "what was turned meanwhile stays turned");
    let server = start_again();
    browser.until("!document.querySelector('[role=alert]')").await;
    saved(&browser).await;
    open_shot(&browser, &server, "Lantern slalom").await;
    assert_eq!(value_of(&browser, "aperture").await, "8");
}

#[tokio::test(flavor = "multi_thread")]
async fn everything_is_reached_by_keys_alone() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    for (key, strip) in [
        ("a", "aperture"),
        ("s", "shutter"),
        ("i", "iso"),
        ("n", "filter"),
        ("f", "focal"),
        ("g", "subject_distance"),
        ("p", "power"),
        ("d", "flash_distance"),
        ("y", "sync"),
    ] {
        browser.keys(key).await;
        browser.until(&format!("document.activeElement.id === 'strip-{strip}'")).await;
        let before = value_of(&browser, strip).await;
        browser.keys(Key::Right + "").await;
        browser.until(&format!("!({})", reads(strip, &before))).await;
        browser.keys(Key::Left + "").await;
        browser.until(&reads(strip, &before)).await;
    }
    // Ends are ends: from the last notch a step goes nowhere, and nothing breaks.
    browser.keys("n").await;
    browser.keys(Key::Home + "").await;
    browser.keys(Key::Left + "").await;
    browser.until(&reads("filter", "none")).await;
    browser.keys(Key::End + "").await;
    browser.keys(Key::Right + "").await;
    browser.until(&reads("filter", "ND 3.0")).await;
    browser.until("document.querySelector('[data-testid=exposure]').innerText.includes('−10 stops')").await;
    browser.keys(Key::Home + "").await;
    // A remedy by Tab and Enter.
    browser.until("document.querySelector('[data-finding] button')").await;
    let first = browser.find("[data-finding] button").await;
    let label = first.text().await.unwrap();
    first.focus().await.unwrap();
    browser.keys(Key::Enter + "").await;
    browser.until(&format!("document.querySelector('[data-finding] button')?.innerText !== {label:?}")).await;
    saved(&browser).await;
    // Before and after: the frame before the last change, and back.
    let now = sum(&browser).await;
    browser.run("document.activeElement.blur()", vec![]).await;
    browser.keys("b").await;
    browser.until("document.querySelector('[aria-label=Frame]').innerText.includes('Before the last change')").await;
    browser.keys("b").await;
    browser.until(&format!("{FRAME_SUM} === {now}")).await;
    // Every control has a name and a value for those who hear the page.
    let mute = "return [...document.querySelectorAll('button, [role=slider], input, a')].filter((e) => e.offsetParent && \
        !(e.innerText || e.ariaLabel || e.getAttribute('aria-labelledby') || e.labels?.length || e.querySelector('[aria-label]'))).map((e) => e.outerHTML)";
    assert_eq!(browser.run(mute, vec![]).await, serde_json::json!([]));
}

#[tokio::test(flavor = "multi_thread")]
async fn another_camera_and_unit_bring_their_own_dials() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Slipway spin, noon").await;
    // A leaf shutter: no high-speed sync on its dial, all rows at once.
    choose(&browser, "camera", "Camera", "Plover 645").await;
    browser.until("document.querySelector('[data-choose=camera]').innerText.includes('Plover 645')").await;
    browser.until("!document.querySelector('[data-finding=rows-cut]')?.innerText.includes('bottom')").await;
    browser.keys("y").await;
    browser.keys(Key::End + "").await;
    browser.until(&reads("sync", "rear")).await;
    browser.keys(Key::Home + "").await;
    // A film body that is cut in halves and slow to sync: its own labels, its own ISO range.
    choose(&browser, "camera", "Camera", "Oldbury F").await;
    browser.keys("s").await;
    browser.keys(Key::End + "").await;
    browser.until(&reads("shutter", "1/1000")).await;
    browser.keys("i").await;
    browser.keys(Key::End + "").await;
    browser.until(&reads("iso", "400")).await;
    browser.until("document.querySelector('[data-finding=rows-cut]')").await;
    // A unit known by its joules: the doubt is said.
    choose(&browser, "flash", "Unit", "Pip 30").await;
    browser.until("document.querySelector('[data-finding=output-estimated]')?.innerText.includes('+2.0')").await;
    browser.keys("p").await;
    browser.keys(Key::Home + "").await;
    browser.until(&reads("power", "1/16")).await;
    saved(&browser).await;
    // A flash that does not fire leaves no pulse in the moment and no key on the ladder.
    browser.keys("x").await;
    browser.until("document.querySelector('[data-testid=moment-line]').innerText.includes('no flash')").await;
    browser.until("document.querySelector('[aria-label=Ladder]').textContent.includes('no flash in it')").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn a_look_is_held_while_controls_are_turned() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    let placed = "document.querySelector('[data-testid=placed-subject]').innerText";
    let before = browser.run(&format!("return {placed}"), vec![]).await;
    browser.click("[data-held='key']").await;
    browser.click("[data-held='ambient']").await;
    browser.until("document.querySelectorAll('[data-held][aria-pressed=true]').length === 2").await;
    let fits = "return document.scrollingElement.scrollHeight <= innerHeight && document.scrollingElement.scrollWidth <= innerWidth";
    assert_eq!(browser.run(fits, vec![]).await, true);

    // Closed by a stop: the shutter gives it back to the steady light and the power to the key, and both say so.
    browser.run("document.activeElement.blur()", vec![]).await;
    browser.keys("a").await;
    browser.keys(Key::PageUp + "").await;
    browser.until(&reads("aperture", "11")).await;
    browser.until(&reads("shutter", "1/30")).await;
    browser.until("document.querySelector('[data-followed=shutter]')?.innerText === '−3'").await;
    browser.until("document.querySelector('[data-followed=power]')?.innerText === '+3'").await;
    browser.until(&format!("{placed} === {before}")).await;
    saved(&browser).await;

    // Shutter locked from its strip: now the ISO follows, which is the last that does.
    browser.keys("s").await;
    browser.keys(" ").await;
    browser.until("document.querySelector('[data-lock=shutter]').ariaPressed === 'true'").await;
    browser.keys("a").await;
    browser.keys(Key::Right + "").await;
    browser.until(&reads("aperture", "13")).await;
    browser.until("document.querySelector('[data-followed=iso]')").await;
    browser.until(&reads("shutter", "1/30")).await;
    browser.until(&format!("{placed} === {before}")).await;
    saved(&browser).await;
    // A turn and what followed it are one step back and one forth.
    let iso = value_of(&browser, "iso").await;
    browser.keys((Key::Control + "z").to_string()).await;
    browser.until(&reads("aperture", "11")).await;
    browser.until(&format!("!({})", reads("iso", &iso))).await;
    browser.keys((Key::Control + Key::Shift + "z").to_string()).await;
    browser.until(&reads("aperture", "13")).await;
    browser.until(&reads("iso", &iso)).await;

    // The light goes: it cannot be held, and the chip says so.
    browser.click("[data-reading='subject']").await;
    browser.click("input[value='lux'] + label").await;
    let field = browser.labelled("Illuminance").await;
    browser.type_over(&field, "0").await;
    browser.keys(Key::Escape + "").await;
    browser.until("document.querySelector('[data-held=ambient][data-gave]')?.innerText.includes('gone')").await;
    saved(&browser).await;
    // What is held is kept over a restart.
    let server = server.killed_and_started_again();
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    browser.until("document.querySelectorAll('[data-held][aria-pressed=true]').length === 2").await;
    let placed_now = browser.run(&format!("return {placed}"), vec![]).await;

    // Other settings, the same light: a list to step through.
    browser.keys("w").await;
    browser.until("document.querySelectorAll('[data-testid=ways] tbody tr').length > 4").await;
    browser.run("[...document.querySelectorAll('[data-testid=ways] button')].find((way) => Number(way.innerText.split(' ')[0].slice(2)) < 8).click()", vec![]).await;
    browser.until("Number(document.querySelector('#strip-aperture').getAttribute('aria-valuetext')) < 8").await;
    browser.until(&format!("{placed} === {placed_now}")).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn the_sun_is_kept_down_three_ways_and_a_cloud_is_one_key() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    open_shot(&browser, &server, "Slipway spin, noon").await;
    // Side by side, each with its verdict; pressed, one is set.
    browser.keys("r").await;
    browser.until("document.querySelectorAll('[data-road] button').length === 3").await;
    let cell = |row: &str, way: usize| {
        format!(
            "[...document.querySelectorAll('[data-testid=daylight] tr')].find((row) => row.innerText.startsWith({row:?})).children[{way}].innerText"
        )
    };
    let of = async |row: &str, way: usize| browser.run(&format!("return {}", cell(row, way)), vec![]).await;
    assert_eq!((of("Ambient", 1).await, of("Ambient", 2).await), (of("Ambient", 3).await, of("Ambient", 3).await));
    browser.until(&format!("{}.includes('units')", cell("Verdict", 1))).await;
    browser.click("[data-road='filter'] button").await;
    browser.until(&reads("filter", "ND 0.3")).await;
    browser.until(&reads("shutter", "1/125")).await;
    browser.until("!document.querySelector('[data-finding=rows-cut]')").await;
    saved(&browser).await;

    // How it will change: a place, a day, a time on the curve, and how long to wait for less of it.
    browser.keys("r").await;
    browser.until("document.querySelectorAll('[data-road] button').length === 3").await;
    open_tab(&browser, "Over the day").await;
    let day = browser.labelled("Day").await;
    browser.type_over(&day, "2026-06-31").await;
    browser.until("document.querySelector('[data-testid=sky]').innerText.includes('a day such as')").await;
    browser.type_over(&day, "2026-06-21").await;
    let clock = browser.labelled("Clock ahead").await;
    browser.type_over(&clock, "1").await;
    let time = browser.labelled("Time").await;
    browser.type_over(&time, "20:30").await;
    browser.until("document.querySelector('[data-testid=sky]').innerText.includes('20:30: about')").await;
    browser.until("document.querySelector('[data-drop=\"3\"]').innerText.includes(' min')").await;
    let later = browser.text("[data-drop='3']").await;
    browser.find("[aria-label='Time of day']").await.send_keys(Key::Right + "").await.unwrap();
    browser.until("document.querySelector('[data-testid=sky]').innerText.includes('20:40: about')").await;
    browser.until(&format!("document.querySelector('[data-drop=\"3\"]').innerText !== {later:?}")).await;
    browser.until("document.querySelector('[data-testid=sky]').innerText.includes('take a reading')").await;
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[data-testid=sky]')").await;
    saved(&browser).await;

    // A cloud: its readings are entered once and kept; one key goes from sky to sky.
    browser.run("document.activeElement.blur()", vec![]).await;
    browser.keys("o").await;
    browser.until("document.querySelector('[data-choose=sky][aria-pressed=true]')").await;
    browser.click("[data-reading='subject']").await;
    let field = browser.labelled("Exposure value").await;
    browser.type_over(&field, "13").await;
    browser.until("document.querySelector('[data-reading=subject]').innerText.includes('EV 13')").await;
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
    browser.click("[data-held='ambient']").await;
    let placed = "document.querySelector('[data-testid=placed-subject]').innerText";
    let under_cloud = browser.run(&format!("return {placed}"), vec![]).await;
    browser.run("document.activeElement.blur()", vec![]).await;
    // The sun is out again: what is held stays, and something was turned for it.
    browser.keys("o").await;
    browser.until("document.querySelector('[data-reading=subject]').innerText.includes('EV 15')").await;
    browser.until("document.querySelector('[data-followed]')").await;
    browser.until(&format!("{placed} === {under_cloud}")).await;
    saved(&browser).await;
    // Both are kept over a restart.
    let server = server.killed_and_started_again();
    open_shot(&browser, &server, "Slipway spin, noon").await;
    browser.until("document.querySelector('[data-choose=sky]').innerText.includes('EV 13')").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn versions_are_named_laid_side_by_side_and_brought_back() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    let planned = value_of(&browser, "shutter").await;
    browser.keys("s").await;
    browser.keys(Key::PageDown + "").await;
    browser.until(&format!("!({})", reads("shutter", &planned))).await;
    // Opened at once: what is pending is saved first, and is one of them.
    browser.keys("v").await;
    browser.until("document.querySelectorAll('[data-version]').length === 2").await;
    browser.until("document.querySelector('[data-difference=Shutter]')").await;
    let line = browser.text("[data-difference='Shutter']").await;
    assert!(line.contains(&planned), "{line}");
    browser.until("[...document.querySelectorAll('[role=dialog] canvas')].filter((canvas) => canvas.width > 300).length === 2").await;
    browser.fill("[aria-label='Name of this version']", "As planned").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelector('[data-testid=versions]').innerText.includes('As planned')").await;
    let back = browser.driver.query(By::XPath("//button[contains(., 'Bring this back')]")).first().await.unwrap();
    back.click().await.unwrap();
    browser.until("!document.querySelector('[role=dialog]')").await;
    browser.until(&reads("shutter", &planned)).await;
    saved(&browser).await;
    // Any two of them: the two that are alike differ in nothing.
    browser.keys("v").await;
    // What changed stands with each; what was made within a minute is folded until it is asked for.
    browser.until("document.querySelectorAll('[data-version]').length === 2").await;
    browser.until("document.querySelector('[data-testid=versions]').innerText.includes('more within a minute')").await;
    let more = browser.driver.query(By::XPath("//button[contains(., 'more within a minute')]")).first().await.unwrap();
    more.click().await.unwrap();
    browser.until("document.querySelectorAll('[data-version]').length === 3").await;
    browser.until("document.querySelector('[data-testid=versions]').innerText.includes('Shutter 1/')").await;
    let oldest = "[data-testid=versions] li:last-child [data-version] button";
    browser.click(oldest).await;
    browser.until("document.querySelector('[data-testid=versions]').innerText.includes('Nothing differs')").await;
    browser.click("[data-testid=versions] li:nth-child(2) [aria-label^='beside:']").await;
    browser.until("document.querySelector('[data-difference=Shutter]')").await;
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
    // One undo, and the version in between counts again; the name is kept over a restart.
    browser.run("document.activeElement.blur()", vec![]).await;
    browser.keys((Key::Control + "z").to_string()).await;
    browser.until(&format!("!({})", reads("shutter", &planned))).await;
    let server = server.killed_and_started_again();
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    browser.keys("v").await;
    browser.until("document.querySelector('[data-testid=versions]')?.innerText.includes('As planned')").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn everything_is_found_by_a_part_of_its_name() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    let find = async |words: &str| {
        browser.until("!document.querySelector('[role=dialog]')").await;
        browser.keys((Key::Control + "k").to_string()).await;
        browser
            .until("document.activeElement.getAttribute('aria-label') === 'Find a shot, a thing or a command'")
            .await;
        browser.keys(words).await;
        let first = words.split(' ').next().unwrap_or_default();
        browser
            .until(&format!("document.querySelector('[role=option][aria-selected=true]')?.innerText.toLowerCase().includes({first:?})"))
            .await;
    };
    // A shot by half a word.
    find("slalom").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.title.startsWith('Lantern slalom')").await;
    browser.until("document.querySelector('#frame[data-ready]')").await;
    // A command of this screen, run as its key would.
    find("ways under").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelectorAll('[data-road] button').length === 3").await;
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[data-testid=daylight]')").await;
    // A thing of the kit by two words, the second of several by the arrow.
    find("kiln unit").await;
    browser.until("document.querySelectorAll('[role=option]').length === 2").await;
    browser.keys(Key::Down + "").await;
    browser.until("document.querySelectorAll('[role=option]')[1].ariaSelected === 'true'").await;
    browser.keys(Key::Enter + "").await;
    browser.until("location.pathname === '/kit/unit/kiln-2400-pair'").await;
    // What is not there is said, and Escape leaves everything as it was.
    browser.keys((Key::Control + "k").to_string()).await;
    browser.until("document.activeElement.getAttribute('aria-label') === 'Find a shot, a thing or a command'").await;
    browser.keys("no such thing").await;
    browser.until("document.querySelector('[role=dialog]').innerText.includes('Nothing is called that')").await;
    browser.keys(Key::Enter + "").await;
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
    assert_eq!(browser.run("return location.pathname", vec![]).await, "/kit/unit/kiln-2400-pair");
}

#[tokio::test(flavor = "multi_thread")]
async fn parts_targets_and_streaks_are_set_where_they_are_seen() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;

    // The streak of the ropes: wanted shorter, it is as wanted; its remedy is no longer offered.
    browser.until("document.querySelector('[data-finding=dash-length-Ropes]')").await;
    browser.click("[data-part='Ropes']").await;
    let wanted = browser.labelled("Streak wanted").await;
    browser.type_over(&wanted, "0.038").await;
    browser.until("!document.querySelector('[data-finding=dash-length-Ropes]')").await;
    browser.until("document.querySelector('[data-part=Ropes]').dataset.state === 'met'").await;
    // The numbers behind the chip are those of the chip.
    let outcome = browser.text("[role='dialog'] dl").await;
    assert!(outcome.contains("Of the frame") && outcome.contains("3.7 %"), "{outcome}");
    browser.keys(Key::Escape + "").await;

    // As a pebble the ropes are a blur; as a skim they may be a little.
    browser.click("[data-part='Ropes']").await;
    browser.click("[role='dialog'] input[value='pebble'] + label").await;
    browser.until("document.querySelector('[data-finding=blur-Ropes]')").await;
    browser.until("document.querySelector('[data-part=Ropes]').innerText.includes('px')").await;
    browser.click("[role='dialog'] input[value='dash'] + label").await;
    browser.until("!document.querySelector('[data-finding=blur-Ropes]')").await;
    browser.keys(Key::Escape + "").await;

    // Removing a part takes its findings along; undo brings both back.
    browser.until("document.querySelector('[data-finding=blur-Shoes]')").await;
    saved(&browser).await;
    browser.click("[data-part='Shoes']").await;
    browser.press("//button[contains(., 'Remove part')]").await;
    browser
        .until("!document.querySelector('[data-part=Shoes]') && !document.querySelector('[data-finding=blur-Shoes]')")
        .await;
    saved(&browser).await;
    browser.until("!document.querySelector('[role=dialog]')").await;
    browser.keys((Key::Control + "z").to_string()).await;
    browser
        .until("document.querySelector('[data-part=Shoes]') && document.querySelector('[data-finding=blur-Shoes]')")
        .await;

    // A target for the steady light, set on its rung: the miss is said, and the target goes as it came.
    browser.find("[data-rung='ambient']").await.focus().await.unwrap();
    browser.keys(Key::PageUp + "").await;
    browser
        .until("document.querySelector('[data-finding=ambient]')?.innerText.includes('below where it is wanted')")
        .await;
    // More of it would draw the face as well: no press is offered, and it is said why.
    browser.until("document.querySelector('[data-finding=ambient]')?.innerText.includes('What would mend it')").await;
    browser.find("[data-rung='ambient']").await.focus().await.unwrap();
    browser.keys(Key::Delete + "").await;
    browser.until("!document.querySelector('[data-finding=ambient]')").await;

    // Time on a log axis: the pulse is drawn on another scale.
    let width = "document.querySelector('[data-testid=pulse]').getBoundingClientRect().width";
    let linear = browser.run(&format!("return {width}"), vec![]).await.as_f64().unwrap();
    browser.click("[aria-label='Moment'] input[value='log'] + label").await;
    browser.until(&format!("Math.abs({width} - {linear}) > 2")).await;
    let shown = browser.run("return document.querySelector('#moment').textContent", vec![]).await.to_string();
    assert!(!shown.contains("NaN") && shown.contains("ms"), "{shown}");

    // The theme one left with is the one one comes back to.
    browser.run("document.activeElement.blur()", vec![]).await;
    browser.keys("t").await;
    browser.until("document.documentElement.dataset.mantineColorScheme === 'light'").await;
    browser.run("location.reload()", vec![]).await;
    browser.until("document.querySelector('#frame[data-ready]')").await;
    browser.until("document.documentElement.dataset.mantineColorScheme === 'light'").await;
    let contrast = "return [...document.querySelectorAll('h2, h3, p, .mono')].every((e) => getComputedStyle(e).color !== getComputedStyle(document.body).backgroundColor)";
    assert_eq!(browser.run(contrast, vec![]).await, true);
}

#[tokio::test(flavor = "multi_thread")]
async fn shots_are_started_copied_taken_off_and_brought_back() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    begin_shot(&browser, "hoop").await;
    browser.fill("[aria-label='Title of the shot']", "Hoop roll").await;
    saved(&browser).await;
    browser.click("[aria-label='Dash Pebble, all shots']").await;
    browser.until("document.querySelector('[data-shot=\"Hoop roll\"]')").await;
    browser.click("[aria-label='More for Hoop roll']").await;
    let item = browser.driver.query(By::XPath("//*[@role='menuitem'][contains(., 'Take off')]")).first().await.unwrap();
    item.wait_until().clickable().await.unwrap();
    item.click().await.unwrap();
    browser.until("!document.querySelector('[data-shot=\"Hoop roll\"]')").await;
    let back = browser.driver.query(By::XPath("//button[contains(., 'Bring it back')]")).first().await.unwrap();
    back.click().await.unwrap();
    browser.until("document.querySelector('[data-shot=\"Hoop roll\"]')").await;
}

/// Not a test of right or wrong but the maker of `docs/screenshots/`: `make shots`.
/// The fine picture is on the screen.
const FINE: &str = "document.querySelector('#frame').getAttribute('aria-busy') === 'false'";

/// A word of the open files.
fn word(of: &impl serde::Serialize) -> &'static str {
    let word = serde_json::to_value(of).expect("a word");
    word.as_str().expect("a word").to_owned().leak()
}

/// Lays pictures side by side: addresses of pictures, or shots to draw.
async fn sheet(browser: &Browser, (columns, width): (u32, u32), of: serde_json::Value) {
    let script = "const [columns, width, all] = arguments;
        const sheet = document.createElement('canvas');
        const bitmap = async (one) => {
            const asked = typeof one === 'string'
                ? fetch(one)
                : fetch('/api/picture?width=' + width, { method: 'POST', body: JSON.stringify(one), headers: { 'content-type': 'application/json', accept: 'image/png' } });
            return createImageBitmap(await (await asked).blob());
        };
        window.laid = false;
        Promise.all(all.map(bitmap)).then((pictures) => {
            const height = Math.round(width * 2 / 3);
            sheet.width = columns * width;
            sheet.height = Math.ceil(pictures.length / columns) * height;
            pictures.forEach((picture, index) =>
                sheet.getContext('2d').drawImage(picture, (index % columns) * width, Math.floor(index / columns) * height, width, height));
            document.body.replaceChildren(sheet);
            window.laid = true;
        });";
    browser.run(script, vec![json!(columns), json!(width), of]).await;
    browser.until("window.laid").await;
}

/// Three compositions of one's own, under the lights of a demo shot.
fn compositions() -> Vec<serde_json::Value> {
    let base = example("sabre-reach");
    let composed = |stage: serde_json::Value, lux: f64, drawn: &[&str]| {
        let mut shot = base.clone();
        shot["stage"] = stage;
        shot["ambient"]["subject"] = json!({ "as": "lux", "lux": lux });
        shot["ambient"]["background"] = json!({ "as": "lux", "lux": lux });
        let parts = shot["parts"].as_array_mut().expect("a list");
        for (part, drawn) in parts.iter_mut().zip(drawn) {
            part["drawn_as"] = json!(drawn);
        }
        parts.truncate(drawn.len());
        for (part, tone) in parts.iter_mut().zip([0.3, 0.35, 0.5]) {
            part["reflectance"] = json!(tone);
        }
        shot["lights"].as_array_mut().expect("a list").iter_mut().for_each(|light| light["misses"] = json!([]));
        shot
    };
    let all = example("compositions");
    vec![
        composed(all["racing chair"].clone(), 1500.0, &["face", "body"]),
        composed(all["first dance"].clone(), 700.0, &["face", "body"]),
        composed(all["dive"].clone(), 900.0, &["face", "feet"]),
        composed(all["hair and powder"].clone(), 8.0, &["face", "body"]),
    ]
}

#[tokio::test(flavor = "multi_thread")]
#[ignore = "writes docs/screenshots; run by `make shots`"]
async fn screenshots() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    let folder = std::path::PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../docs/screenshots");
    let take = async |name: &str| browser.driver.screenshot(&folder.join(name)).await.expect("a picture is taken");
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("[...document.images].length === 7 && [...document.images].every((image) => image.complete && image.naturalWidth)").await;
    browser.until("document.fonts.status === 'loaded'").await;
    take("shots.png").await;
    let client = reqwest::Client::new();
    for _ in 0..2 {
        client.post(server.url("/api/copies")).send().await.unwrap().error_for_status().unwrap();
    }
    browser.driver.goto(server.url("/copies")).await.unwrap();
    browser.until("document.querySelectorAll('[data-now=same]').length === 7 && document.querySelectorAll('[aria-label^=Copies] button').length === 3").await;
    browser.until("[...document.images].filter((image) => image.complete && image.naturalWidth).length >= 6").await;
    take("copies.png").await;
    browser.driver.goto(server.url("/preferences")).await.unwrap();
    browser
        .until("document.querySelector('main h1')?.innerText === 'Preferences' && document.fonts.status === 'loaded'")
        .await;
    take("preferences.png").await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    browser.until("document.querySelector('#frame').width > 500 && document.fonts.status === 'loaded'").await;
    browser.until(FINE).await;
    take("bench-set.png").await;
    // Who and what stands in the frame, with the pictures to choose from.
    browser.keys("e").await;
    browser.until("document.querySelectorAll('[role=dialog] img').length > 40 && [...document.querySelectorAll('[role=dialog] img')].slice(0, 21).every((one) => one.complete && one.naturalWidth)").await;
    browser.run("document.activeElement.blur()", vec![]).await;
    take("bench-stage.png").await;
    let poses: Vec<&str> = pebble_core::file::stage::Pose::ALL.iter().map(|pose| word(pose)).collect();
    let sources = poses.iter().map(|pose| format!("/api/stage/choice?pose={pose}")).collect::<Vec<_>>();
    browser.size(1280, 642).await;
    sheet(&browser, (8, 160), json!(sources)).await;
    take("poses.png").await;
    browser.size(1280, 854).await;
    browser.driver.goto(server.url("/")).await.unwrap();
    sheet(&browser, (2, 640), json!(compositions())).await;
    take("compositions.png").await;
    browser.size(1280, 800).await;
    // From a few words to a shot, and its movement in time.
    browser.driver.goto(server.url("/new")).await.unwrap();
    browser.until("document.activeElement?.getAttribute('aria-label') === 'What happens'").await;
    browser.keys("kick").await;
    let drawn = "[...document.querySelectorAll('[data-testid=activities] img')].every((one) => one.complete && one.naturalWidth)";
    browser.until(&format!("document.querySelector('main').dataset.settled === 'true' && {drawn} && document.querySelector('main canvas').width === 480")).await;
    take("brief.png").await;
    // With a slow unit, for the largest of pictures: its top is all that is slow enough.
    let asked = json!({ "activity": "jump", "usage": "pixel", "units": ["kiln-2400"] });
    let briefed = client.post(server.url("/api/brief")).json(&asked).send().await.unwrap();
    let briefed: serde_json::Value = briefed.error_for_status().unwrap().json().await.unwrap();
    let shot = client.post(server.url("/api/shots")).json(&briefed["shot"]).send().await.unwrap();
    shot.error_for_status().unwrap();
    open_shot(&browser, &server, "Jump").await;
    browser.keys("j").await;
    browser.until("document.querySelector('[data-testid=lanes]')").await;
    browser.press("//label[.='Phases']").await;
    for part in ["Face", "Hands", "Feet"] {
        browser.press(&format!("//*[@data-testid='movement']//button[contains(., '{part}') and @aria-pressed]")).await;
        for add in ["rest", "jump", "rest"] {
            let count = browser.run("return document.querySelectorAll('[data-phase]').length", vec![]).await;
            browser.click(&format!("[data-add={add}]")).await;
            browser.until(&format!("document.querySelectorAll('[data-phase]').length === {count} + 1")).await;
        }
    }
    browser.find("[aria-label='When the shutter opens']").await.focus().await.unwrap();
    for _ in 0..4 {
        browser.keys(Key::PageUp + "").await;
    }
    browser.press("//label[.='The peak']").await;
    saved(&browser).await;
    browser.run("document.activeElement.blur()", vec![]).await;
    browser.until(FINE).await;
    take("bench-movement.png").await;
    browser.keys(Key::Escape + "").await;
    browser.driver.goto(server.url("/")).await.unwrap();
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    browser.keys("t").await;
    browser.until("document.querySelector('#frame').width > 500").await;
    take("bench-daylight.png").await;
    browser.keys("t").await;
    for held in ["key", "ambient"] {
        browser.click(&format!("[data-held='{held}']")).await;
    }
    browser.run("document.activeElement.blur()", vec![]).await;
    browser.keys("i").await;
    browser.keys(" ").await;
    browser.keys("a").await;
    browser.keys(Key::PageUp + "").await;
    browser.until("document.querySelectorAll('[data-followed]').length > 1").await;
    saved(&browser).await;
    browser.driver.action_chain().move_to(640, 60).perform().await.unwrap();
    browser.until("![...document.querySelectorAll('[role=tooltip]')].some((tip) => tip.checkVisibility())").await;
    take("bench-hold.png").await;
    browser.keys("v").await;
    browser.until("[...document.querySelectorAll('[role=dialog] canvas')].filter((canvas) => canvas.width > 300).length === 2").await;
    browser.until("document.querySelector('[data-difference]')").await;
    take("versions.png").await;
    open_shot(&browser, &server, "Slipway spin, noon").await;
    browser.until("document.querySelector('#frame').width > 500").await;
    browser.keys("r").await;
    browser.until("document.querySelectorAll('[data-road] button').length === 3").await;
    open_tab(&browser, "Over the day").await;
    for (label, text) in
        [("Latitude", "54.2"), ("Longitude", "-2.9"), ("Day", "2026-06-21"), ("Clock ahead", "1"), ("Time", "20:30")]
    {
        let field = browser.labelled(label).await;
        browser.type_over(&field, text).await;
    }
    browser.until("document.querySelector('[data-testid=sky]').innerText.includes('20:30: about')").await;

    for (title, done, name) in [
        ("Sabre reach", "document.querySelector('[data-setup]')", "match-region.png"),
        ("Slipway spin, noon", "document.querySelector('[data-nearest]')", "match-nearest.png"),
    ] {
        open_shot(&browser, &server, title).await;
        browser.keys("c").await;
        browser.until(done).await;
        let frames = "[aria-label=Units] canvas";
        browser
            .until(&format!(
                "[...document.querySelectorAll('{frames}')].filter((one) => one.width === 480).length === 2"
            ))
            .await;
        take(name).await;
        browser.keys("c").await;
    }

    for (title, key, done, name) in [
        ("Roller hall, evening", "", "document.querySelectorAll('[data-light]').length === 6", "bench-lights.png"),
        (
            "Roller hall, evening",
            ";",
            "document.querySelectorAll('[data-floor-light]').length === 6 && document.querySelector('main canvas').width === 480",
            "floor.png",
        ),
    ] {
        open_shot(&browser, &server, title).await;
        browser.until("document.querySelector('#frame').width > 500").await;
        if !key.is_empty() {
            browser.keys(key).await;
        }
        browser.until(done).await;
        if name == "floor.png" {
            browser.press("//label[contains(., 'Way')]").await;
            browser.until("document.querySelector('[data-testid=along]')?.innerText.includes('press between')").await;
        }
        take(name).await;
    }

    let drawn = "document.querySelectorAll('[data-curve] path').length > 0 && document.querySelectorAll('[data-asked]').length > 1";
    browser.driver.goto(server.url("/kit/unit/dunlin-500")).await.unwrap();
    for id in ["brix-400", "mallow-600", "kiln-2400"] {
        browser.click(&format!("[data-compare='{id}']")).await;
    }
    browser.until("document.querySelectorAll('[data-curve]').length === 4").await;
    browser.until(drawn).await;
    take("kit-compare.png").await;
    browser.driver.goto(server.url("/kit/unit/brix-400")).await.unwrap();
    browser.until(drawn).await;
    let input = browser.driver.find_all(By::Css("input[type='file']")).await.unwrap().remove(1);
    let file = folder.join("../examples/traces/brix-400-eighth.csv").canonicalize().unwrap();
    input.send_keys(file.display().to_string()).await.unwrap();
    browser.until("document.querySelector('[data-testid=trace]')").await;
    // It opens at the cursor's power; this one was fired at an eighth.
    browser.labelled("Fired at").await.click().await.unwrap();
    let eighth = browser.driver.query(By::XPath("//*[@role='option'][.='1/8']")).first().await.unwrap();
    eighth.click().await.unwrap();
    browser
        .until("[...document.querySelectorAll('button')].some((button) => button.innerText.includes('at 1/8'))")
        .await;
    browser.until("!document.querySelector('[role=option]')?.checkVisibility()").await;
    take("kit-trace.png").await;
    // The set on paper, as it is printed.
    open_shot(&browser, &server, "Silks in the black box").await;
    browser.size(860, 1180).await;
    browser.keys(";").await;
    browser.until("document.querySelectorAll('[data-floor-light]').length === 2 && document.querySelector('main canvas').width === 480").await;
    // What is said for paper is said for the screen.
    let paper = "for (const sheet of document.styleSheets) for (const rule of sheet.cssRules) if (rule.media?.mediaText === 'print') rule.media.mediaText = 'all'";
    browser.run(paper, vec![]).await;
    browser.until("document.querySelector('[data-testid=rebuild]').checkVisibility()").await;
    take("floor-sheet.png").await;
}

/// How long from a key to the new picture on the screen: printed by `make bench`.
#[tokio::test(flavor = "multi_thread")]
#[ignore = "a measurement; run by `make bench`"]
async fn change_to_picture() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    let shots = [
        "Double ropes, both feet up",
        "Finishers' wall",
        "Lantern slalom",
        "Roller hall, evening",
        "Sabre reach",
        "Silks in the black box",
        "Slipway spin, noon",
    ];
    for title in shots {
        open_shot(&browser, &server, title).await;
        browser.until("document.querySelector('#frame').width > 500").await;
        browser.keys("i").await;
        let script = "const done = arguments[arguments.length - 1]; const strip = document.querySelector('#strip-iso'); const times = []; \
            const shown = () => Number(document.querySelector('#frame').dataset.shown ?? 0); \
            const step = (k) => { if (k === 40) return done(times.sort((a, b) => a - b)); const from = performance.now(); const before = shown(); \
              strip.dispatchEvent(new KeyboardEvent('keydown', { key: k % 2 ? 'ArrowLeft' : 'ArrowRight', bubbles: true })); \
              const wait = () => shown() > before ? (times.push(performance.now() - from), setTimeout(() => step(k + 1), 30)) : setTimeout(wait, 1); wait() }; step(0)";
        let times = browser.driver.execute_async(script, vec![]).await.unwrap().json().clone();
        let at = |share: f64| times[(share * 39.0) as usize].as_f64().unwrap();
        println!(
            "change of a control to picture, {title}: median {:.0} ms, 95th percentile {:.0} ms",
            at(0.5),
            at(0.95)
        );
    }
    // A light carried over the floor by its arrow keys: to what is told of the set, at every step.
    open_shot(&browser, &server, "Roller hall, evening").await;
    browser.keys(";").await;
    browser.until("document.querySelector('[data-floor-light]')").await;
    let script = "const done = arguments[arguments.length - 1]; const times = []; \
        const light = () => document.querySelector('[data-floor-light]'); \
        const step = (k) => { if (k === 40) return done(times.sort((a, b) => a - b)); const from = performance.now(); \
          const seen = new MutationObserver(() => { seen.disconnect(); \
            requestAnimationFrame(() => (times.push(performance.now() - from), setTimeout(() => step(k + 1), 200))) }); \
          seen.observe(light(), { attributes: true, attributeFilter: ['aria-label'] }); \
          light().dispatchEvent(new KeyboardEvent('keydown', { key: k % 2 ? 'ArrowLeft' : 'ArrowRight', bubbles: true })) }; step(0)";
    let times = browser.driver.execute_async(script, vec![]).await.unwrap().json().clone();
    let at = |share: f64| times[(share * 39.0) as usize].as_f64().unwrap();
    println!(
        "change of a light on the floor to the set on screen: median {:.0} ms, 95th percentile {:.0} ms",
        at(0.5),
        at(0.95)
    );
}
