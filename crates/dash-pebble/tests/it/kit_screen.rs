//! The kit in a real browser: looked at, compared, entered, measured, and seen again on the Bench.

use crate::common::bench::{choose, open_shot, saved};
use crate::common::browser::Browser;
use crate::common::{Server, example_path};
use thirtyfour::prelude::*;

/// The drawn t0.1 curve of a unit.
fn curve_of(id: &str) -> String {
    format!("[...document.querySelectorAll('[data-curve=\"{id}\"] path')].map((path) => path.getAttribute('d')).join()")
}

/// A cell of the table at the cursor's power.
fn cell(row: &str) -> String {
    format!("document.querySelector('[data-row=\"{row}\"]')?.innerText")
}

async fn open_kit(browser: &Browser, server: &Server, path: &str) {
    browser.driver.goto(server.url(path)).await.expect("the kit opens");
    browser.until("document.querySelector('[data-thing]')").await;
}

/// Gives a file to the button that takes it.
async fn give(browser: &Browser, button: usize, path: &str) {
    let inputs = browser.driver.find_all(By::Css("input[type='file']")).await.expect("buttons that take files");
    inputs[button].send_keys(path).await.expect("a file is given");
}

async fn press(browser: &Browser, words: &str) {
    let path = format!("//button[contains(., '{words}')]");
    let button = browser.driver.query(By::XPath(&path)).and_clickable().first().await;
    button
        .unwrap_or_else(|error| panic!("{words}: {error}"))
        .click()
        .await
        .unwrap_or_else(|error| panic!("{words}: {error}"));
}

async fn pick(browser: &Browser, label: &str, option: &str) {
    browser.labelled(label).await.click().await.unwrap();
    let path = format!("//*[@role='option'][starts-with(., '{option}')]");
    browser.driver.query(By::XPath(&path)).and_clickable().first().await.unwrap().click().await.unwrap();
}

fn recording(name: &str) -> String {
    let path = example_path(&format!("traces/{name}")).replace(".json", ".csv");
    std::fs::canonicalize(path).expect("the recording ships").display().to_string()
}

#[tokio::test(flavor = "multi_thread")]
async fn a_unit_is_added_measured_and_seen_on_the_bench() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    open_kit(&browser, &server, "/kit").await;
    let fits = "return document.scrollingElement.scrollHeight <= innerHeight && document.scrollingElement.scrollWidth <= innerWidth";
    assert_eq!(browser.run(fits, vec![]).await, true, "nothing scrolls at 1280 × 800");

    // A unit of one's own: what is entered shows in the curve before it is kept.
    browser.keys("n").await;
    let name = browser.labelled("Name").await;
    browser.type_over(&name, "Ember 900").await;
    // What is asked first is asked at its place, and nothing is made up for it.
    press(&browser, "Keep").await;
    browser.until("document.querySelector('[data-needed]')?.innerText.includes('This is asked first.')").await;
    pick(&browser, "Known as", "guide number").await;
    let number = browser.labelled("Guide number").await;
    browser.type_over(&number, "160 ft").await;
    pick(&browser, "Makes less light by", "Quenched").await;
    let t05 = browser.labelled("t0.5 at full").await;
    browser.type_over(&t05, "1/600").await;
    let understood =
        |words: &str| format!("document.querySelector('[aria-label=Figures]').innerText.includes('= {words}')");
    browser.until(&understood("1.6667 ms")).await;
    browser.until("document.querySelector('[data-row=\"t0.5\"]')?.innerText.includes('1/')").await;
    browser.type_over(&t05, "1/1000").await;
    browser.until(&understood("1 ms")).await;
    browser.until(&format!("{} !== ''", curve_of("new"))).await;
    pick(&browser, "It is", "estimated").await;
    pick(&browser, "They are", "estimated").await;
    // A figure that cannot be is said at its place, and is not kept.
    let lag = browser.labelled("Own delay").await;
    browser.type_over(&lag, "-4").await;
    press(&browser, "Keep").await;
    browser.until("document.querySelector('[aria-label=Figures]')?.innerText.includes('own delay')  || document.querySelector('[aria-label=Figures]')?.innerText.includes('lag')").await;
    browser.type_over(&lag, "0.1").await;
    press(&browser, "Keep").await;
    browser
        .until("location.pathname === '/kit/unit/ember-900' && document.querySelector('[data-thing=\"ember-900\"]')")
        .await;

    // On the Bench it is a guess, and the finding says so.
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    choose(&browser, "flash", "Unit", "Ember 900").await;
    browser.until("document.querySelector('[data-finding=output-estimated]')").await;
    browser.until("document.querySelector('[data-finding=duration-doubtful]')").await;
    saved(&browser).await;
    let pulse_before = browser.text("[data-testid='moment-line']").await;

    // A recording of it: read, judged, filed under its power; the curve goes through it.
    open_kit(&browser, &server, "/kit/unit/ember-900").await;
    browser.until(&format!("{} !== ''", curve_of("ember-900"))).await;
    let before = browser.run(&format!("return {}", curve_of("ember-900")), vec![]).await;
    give(&browser, 1, &recording("dunlin-500-quarter")).await;
    browser.until("document.querySelector('[data-testid=trace][data-quality=good]')").await;
    for span in ["t0.5", "t0.1", "t90"] {
        browser.until(&format!("document.querySelector('[data-span=\"{span}\"]')")).await;
    }
    press(&browser, "File under Ember 900").await;
    browser.until("!document.querySelector('[role=dialog]') && document.querySelector('[data-recording]')").await;
    browser.until(&format!("{} !== {before}", curve_of("ember-900"))).await;
    browser.until(&format!("{} === 'measured'", cell("These are"))).await;

    // The Bench knows it too: another pulse, and the doubt is of another kind.
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    browser.until(&format!("document.querySelector('[data-testid=moment-line]').innerText !== {pulse_before:?}")).await;
    browser
        .until(
            "document.querySelector('[data-finding=duration-doubtful]')?.innerText.includes('beyond the recordings')",
        )
        .await;

    // Undone, it is as before, here and there.
    open_kit(&browser, &server, "/kit/unit/ember-900").await;
    browser.until("document.querySelector('[data-recording]')").await;
    browser.keys((Key::Control + "z").to_string()).await;
    browser.until("!document.querySelector('[data-recording]')").await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    browser.until(&format!("document.querySelector('[data-testid=moment-line]').innerText === {pulse_before:?}")).await;
}

#[tokio::test(flavor = "multi_thread")]
async fn units_are_found_compared_and_read_at_any_power() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    open_kit(&browser, &server, "/kit/unit/brix-400").await;
    for id in ["mallow-600", "kiln-2400", "lark-1200"] {
        browser.click(&format!("[data-compare='{id}']")).await;
        browser.until(&format!("{} !== ''", curve_of(id))).await;
    }
    browser.until("document.querySelectorAll('[data-curve]').length === 4").await;
    // Four are enough for one figure.
    browser.until("document.querySelector('[data-compare=\"pip-30\"]').disabled").await;
    browser.until("document.querySelectorAll('[data-row=\"t0.1\"]').length === 4").await;

    // The cursor by key and by drag: the table follows, the curves stay.
    let curve = browser.run(&format!("return {}", curve_of("brix-400")), vec![]).await;
    browser.find("[role='slider']").await.click().await.unwrap();
    browser.keys(Key::End + "").await;
    browser.until(&format!("{} === '1/290'", cell("t0.1"))).await;
    browser.keys(Key::Home + "").await;
    browser.until(&format!("{} === '1/18000'", cell("t0.1"))).await;
    let slider = browser.find("[role='slider']").await;
    browser
        .driver
        .action_chain()
        .move_to_element_center(&slider)
        .click_and_hold()
        .move_by_offset(40, 0)
        .release()
        .perform()
        .await
        .unwrap();
    browser.until(&format!("{} !== '1/18000'", cell("t0.1"))).await;
    assert_eq!(browser.run(&format!("return {}", curve_of("brix-400")), vec![]).await, curve);

    // A faster burst: what was endless ends.
    browser.until(&format!("{} === 'endless'", cell("Burst at 2/s"))).await;
    let rate = browser.find("[aria-label='Flashes a second']").await;
    browser.type_over(&rate, "12").await;
    browser.until("document.querySelector('[data-row=\"Burst at 12/s\"]') && document.querySelector('[data-row=\"Burst at 12/s\"]').innerText !== 'endless'").await;

    // Found by a figure; only what is called so is left.
    browser.keys(Key::Escape + "").await;
    browser.run("document.activeElement.blur()", vec![]).await;
    browser.keys("/").await;
    browser.until("document.activeElement.id === 'kit-find'").await;
    browser.keys("kiln gn").await;
    browser.until("document.querySelectorAll('[data-thing]').length === 2").await;
    browser.fill("#kit-find", "no such thing").await;
    browser
        .until("document.querySelector('[aria-label=Shelf]')?.innerText.includes('Nothing here is called that')")
        .await;
}

#[tokio::test(flavor = "multi_thread")]
async fn bad_recordings_and_wrong_tables_are_said_and_change_nothing() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_kit(&browser, &server, "/kit/unit/brix-400").await;
    browser.until(&format!("{} !== ''", curve_of("brix-400"))).await;
    give(&browser, 1, &recording("brix-400-clipped")).await;
    browser.until("document.querySelector('[data-testid=trace][data-quality=unusable]')").await;
    browser.until("document.querySelector('[data-testid=trace]')?.innerText.includes('Nothing was changed')").await;
    browser
        .until("![...document.querySelectorAll('button')].some((button) => button.innerText.startsWith('File under'))")
        .await;
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
    // Not a recording at all.
    let folder = tempfile::TempDir::new().unwrap();
    let letter = folder.path().join("letter.txt");
    std::fs::write(&letter, "Dear lab, the recording follows on Monday.\n").unwrap();
    give(&browser, 1, &letter.display().to_string()).await;
    browser
        .until("document.querySelector('[role=status]')?.innerText.includes('no line with a time and a level')")
        .await;
    // A table with two rows that cannot be: both are named.
    let table = folder.path().join("units.csv");
    let rows = "name,guide_number_m,power,t05_ms,t01_ms\nGravel,41,1,1.1,2.9\nGravel,41,1/2,much,0.7\nGravel,41,1/4,0.2,some\n";
    std::fs::write(&table, rows).unwrap();
    give(&browser, 0, &table.display().to_string()).await;
    browser.until("document.querySelector('[role=status]')?.innerText.includes('Line 4, column 5')").await;
    browser.until("document.querySelector('[role=status]')?.innerText.includes('Nothing was taken in')").await;
    // Put right, it is taken in and found.
    std::fs::write(&table, rows.replace("much", "0.5").replace("some", "0.4")).unwrap();
    give(&browser, 0, &table.display().to_string()).await;
    browser.until("document.querySelector('[role=status]')?.innerText.includes('1 new')").await;
    browser.until("document.querySelector('[data-thing=gravel]')").await;
    // Copied out of a spreadsheet, an empty row among it, and pasted: one that is wrong, then one that is not.
    let paste = "const data = new DataTransfer(); data.setData('text/plain', arguments[0]);
        document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))";
    let copied = "name\tguide_number_m\tpower\tt01_ms\r\n\t\t\t\r\nSchist\t38\t1\t2.1\r\nSchist\t38\t1/2\tlong\r\n";
    browser.run(paste, vec![copied.into()]).await;
    browser.until("document.querySelector('[role=status]')?.innerText.includes('Line 4, column 4')").await;
    browser.run(paste, vec![copied.replace("long", "1.2").into()]).await;
    browser.until("document.querySelector('[data-thing=schist]')").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn things_are_copied_retired_deleted_and_brought_back() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    // What shots carry is not deleted; it is said where, and retiring is offered.
    open_kit(&browser, &server, "/kit/camera/heron-v2").await;
    browser.until("document.querySelectorAll('aside a').length === 6").await;
    press(&browser, "Delete").await;
    browser.until("document.querySelector('[role=status]')?.innerText.includes('Slipway spin, noon')").await;
    press(&browser, "Retire it").await;
    browser
        .until("[...document.querySelectorAll('button')].some((button) => button.innerText === 'Take along again')")
        .await;
    // A copy stands beside it and can go.
    // Its identity comes from the name it is kept under.
    press(&browser, "Copy").await;
    press(&browser, "Keep").await;
    browser.until("location.pathname === '/kit/camera/heron-v2-copy'").await;
    browser.until("document.querySelector('[aria-label=Shelf]')?.innerText.includes('Show 1 retired')").await;
    press(&browser, "Delete").await;
    browser.until("document.querySelector('[role=status]')?.innerText.includes('Heron V2, copy was deleted')").await;
    press(&browser, "Bring it back").await;
    browser.until("document.querySelector('[data-thing=\"heron-v2-copy\"]')").await;
    // The Bench offers the copy, keeps the retired one it has, and offers it to nobody else.
    open_shot(&browser, &server, "Slipway spin, noon").await;
    choose(&browser, "camera", "Camera", "Heron V2, copy").await;
    browser.until("document.querySelector('[data-choose=camera]')?.innerText.includes('Heron V2, copy')").await;
    // A lens with a leaf shutter ends sooner: the Bench says what had to move.
    choose(&browser, "camera", "Lens", "Plover 80").await;
    browser.until("document.querySelector('[data-moved]')?.innerText.includes('is now')").await;

    // A yes becomes a no, a battery is put in, a leaflet is held against a measurement.
    open_kit(&browser, &server, "/kit/camera/grebe-8").await;
    browser.keys("e").await;
    browser
        .run(
            "[...document.querySelectorAll('[aria-label=Figures] [role=switch]')].forEach((one) => one.click())",
            vec![],
        )
        .await;
    press(&browser, "Keep").await;
    browser.until("!document.querySelector('[aria-label=Figures]')").await;
    let glows = "[...document.querySelectorAll('dt')].find((term) => term.innerText.startsWith('Can ask'))?.nextSibling.innerText";
    browser.until(&format!("{glows} === 'no'")).await;
    open_kit(&browser, &server, "/kit/unit/mallow-600").await;
    browser.until(&format!("{} === 'mains'", cell("On one charge"))).await;
    browser.keys("e").await;
    browser.labelled("Fed by").await.click().await.unwrap();
    let pack = browser.driver.query(By::XPath("//*[@role='option'][contains(., 'Hod 300')]")).first().await.unwrap();
    pack.click().await.unwrap();
    browser.labelled("It is").await.click().await.unwrap();
    let measured = browser.driver.query(By::XPath("//*[@role='option'][.='measured']")).first().await.unwrap();
    measured.click().await.unwrap();
    let leaflet = browser.labelled("Leaflet says").await;
    browser.type_over(&leaflet, "106.07").await;
    press(&browser, "Keep").await;
    browser.until("!document.querySelector('[aria-label=Figures]')").await;
    // 270 Wh · 3600 · 0.55 / 150 J at a quarter of 600 J; 75 against 106.07 is a stop.
    browser.until(&format!("{} === '3,600'", cell("On one charge"))).await;
    browser.until("document.querySelector('[data-testid=output]')?.innerText.includes('−1.0 stops against it')").await;

    // What is half entered is lost to no key, and not to another thing either.
    browser.keys("e").await;
    let name = browser.labelled("Name").await;
    browser.type_over(&name, "Mallow, half").await;
    browser.run("document.activeElement.blur()", vec![]).await;
    for key in ["e".to_owned(), "n".to_owned(), (Key::Control + "z").to_string()] {
        browser.keys(key).await;
    }
    browser.until("document.querySelector('[aria-label=Figures] input').value === 'Mallow, half'").await;
    browser.click("[data-thing='pip-30']").await;
    browser.until("document.querySelector('[role=status]').innerText.includes('Mallow, half were not kept')").await;
    press(&browser, "Go back to them").await;
    browser.until("document.querySelector('[aria-label=Figures] input').value === 'Mallow, half'").await;
    press(&browser, "Keep").await;
    browser.until("document.querySelector('[data-thing=\"mallow-600\"]').innerText.includes('Mallow, half')").await;

    // Each kind has its page, its figures and its own way in.
    for (kind, id, label) in [
        ("lens", "halden-85", "Widest, f/"),
        ("modifier", "octa-90", "Radius of its face"),
        ("filter", "amber-full", "Loss"),
        ("trigger", "reed", "Delay"),
        ("battery", "slate-55", "Usable"),
        ("lamp", "slab-60", "At one metre"),
    ] {
        open_kit(&browser, &server, &format!("/kit/{kind}/{id}")).await;
        browser.until(&format!("[...document.querySelectorAll('svg[role=img]')].some((svg) => svg.getAttribute('aria-label').startsWith({label:?}))")).await;
        browser.keys("e").await;
        browser.labelled(label).await;
        press(&browser, "Leave as it was").await;
        browser.until("!document.querySelector('[aria-label=Figures]')").await;
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_file_without_a_kit_offers_an_invented_one() {
    let folder = tempfile::TempDir::new().unwrap();
    let server = Server::on(&folder.path().join("own.sqlite"), &[]);
    let browser = Browser::open().await;
    browser.driver.goto(server.url("/kit")).await.unwrap();
    browser.until("document.body.innerText.includes('Nothing of this kind yet')").await;
    press(&browser, "Take in the invented kit").await;
    browser.until("document.querySelectorAll('[data-thing]').length >= 10").await;
    // Rehearsed: a simulated unit before a simulated recorder, filed as such.
    open_kit(&browser, &server, "/kit/unit/mallow-600").await;
    press(&browser, "Rehearse one").await;
    browser.until("document.querySelector('[data-testid=trace][data-quality=good]')").await;
    press(&browser, "File under Mallow 600").await;
    browser.until("document.querySelector('[data-testid=recordings]')?.innerText.includes('simulated recorder')").await;
    browser.until("document.querySelector('[data-testid=verdict]')?.innerText.includes('2 more powers')").await;
}

/// How long a step of the power cursor and a letter of the search take, printed by `make bench`.
#[tokio::test(flavor = "multi_thread")]
#[ignore = "a measurement; run by `make bench`"]
async fn drag_to_curve() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    open_kit(&browser, &server, "/kit/unit/dunlin-500").await;
    for id in ["mallow-600", "kiln-2400", "lark-1200"] {
        browser.click(&format!("[data-compare='{id}']")).await;
    }
    browser.until("document.querySelectorAll('[data-curve]').length === 4").await;
    // What is measured is all that happens from the key up to the next paint.
    let script = "const done = arguments[arguments.length - 1]; const slider = document.querySelector('[role=slider]'); \
        (async () => { const times = []; for (let k = 0; k < 60; k++) { const before = slider.ariaValueNow; const from = performance.now(); \
          slider.dispatchEvent(new KeyboardEvent('keydown', { key: k % 20 < 10 ? 'ArrowLeft' : 'ArrowRight', bubbles: true })); \
          while (slider.ariaValueNow === before) await new Promise((next) => setTimeout(next)); \
          slider.getBoundingClientRect(); times.push(performance.now() - from) } \
          done(times.sort((a, b) => a - b)) })()";
    let times = browser.driver.execute_async(script, vec![]).await.unwrap().json().clone();
    let times: Vec<f64> = times.as_array().unwrap().iter().filter_map(serde_json::Value::as_f64).collect();
    println!(
        "kit cursor step over four curves: median {:.1} ms, longest {:.1} ms",
        times[times.len() / 2],
        times[times.len() - 1]
    );
}
