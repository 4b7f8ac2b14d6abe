//! The floor, as a photographer walks about on it.

use crate::common::Server;
use crate::common::api::Api;
use crate::common::bench::{open_shot, open_tab, saved};
use crate::common::browser::Browser;
use reqwest::Method;
use thirtyfour::common::print::PrintParameters;
use thirtyfour::prelude::*;

const KEY: &str = "document.querySelector('[data-floor-light=\"A key\"]')";

async fn to_the_floor(browser: &Browser) {
    browser.keys(";").await;
    browser.until(KEY).await;
}

/// A program of its own, and a browser on the floor of one of its shots.
async fn on_the_floor_of(title: &str) -> (Server, Browser) {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, title).await;
    to_the_floor(&browser).await;
    (server, browser)
}

#[tokio::test(flavor = "multi_thread")]
async fn a_light_is_carried_over_the_floor_and_stands_so_on_the_bench() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Silks in the black box").await;
    let distance = "document.querySelector('#strip-flash_distance').ariaValueText";
    let before = browser.run(&format!("return {distance}"), vec![]).await;
    browser.keys(";").await;
    browser
        .until(&format!(
            "{KEY} && document.querySelector('[data-testid=evenness]').innerText.includes('over the area')"
        ))
        .await;
    // A stand in the picture is told with what clears it, and one press does.
    browser.until("document.querySelector('[data-note=\"A key: face and stand in the picture\"] button')").await;
    browser.click("[data-note='A key: face and stand in the picture'] button").await;
    browser.until("!document.querySelector('[data-note=\"A key: face and stand in the picture\"]')").await;
    // Evened out by one press: farther back, as bright at the mark.
    let spread = browser.text("[data-do=even-out]").await;
    browser.click("[data-do=even-out]").await;
    browser.until(&format!("document.querySelector('[data-do=even-out]')?.innerText !== {spread:?}")).await;
    browser.until("document.querySelector('main header').innerText.includes('Saved')").await;
    // Dragged, and stepped by keys: place, figures and evenness go along.
    let told = browser.text("[data-testid=evenness]").await;
    browser.drag("[data-floor-light='A key'] circle:last-of-type", (70, 40)).await;
    browser.until(&format!("document.querySelector('[data-testid=evenness]').innerText !== {told:?}")).await;
    browser.run(&format!("{KEY}.focus()"), vec![]).await;
    let clock = browser.text("[aria-label='The light in hand'] dl").await;
    browser.keys(Key::Left + "").await;
    browser
        .until(&format!("document.querySelector('[aria-label=\"The light in hand\"] dl').innerText !== {clock:?}"))
        .await;
    // Raised from the side, and typed.
    let height = "document.querySelector('[aria-label=\"Height of A key\"]').getAttribute('aria-valuetext')";
    let low = browser.run(&format!("return {height}"), vec![]).await;
    browser.find("[aria-label='Height of A key']").await.focus().await.unwrap();
    browser.keys(Key::Up + "").await;
    // A figure that comes in while the old one is marked would take the mark away.
    browser
        .until(&format!("{height} !== {low} && document.querySelector('main header').innerText.includes('Saved')"))
        .await;
    browser.type_over(&browser.labelled("Up").await, "2.5 m").await;
    browser.keys(Key::Tab + "").await;
    browser.until(&format!("{height} === '2.5 m'")).await;
    browser.press("//label[contains(., 'Area')]").await;
    // A sheet that is too small says by how much; a place beyond the hall is refused in a sentence.
    browser.type_over(&browser.labelled("Sheet, wide").await, "2").await;
    browser.type_over(&browser.labelled("Sheet, high").await, "2.7").await;
    browser.until("document.querySelector('[data-note=\"The sheet does not fill the frame\"]')?.innerText.includes('m wider')").await;
    browser.press("//label[.//span[text()='Light'] or text()='Light']").await;
    browser.type_over(&browser.labelled("Right").await, "900").await;
    browser.until("document.querySelector('[role=alert]')?.innerText.includes('place from the mark')").await;
    browser.keys(Key::Escape + "").await;
    browser.press("//button[contains(., 'Bench')]").await;
    browser.until(&format!("document.querySelector('#strip-aperture') && {distance} !== {before}")).await;
    saved(&browser).await;
}

/// Carried into the frame on the floor, found on the Bench, cleared by the remedy that is offered there; then printed.
#[tokio::test(flavor = "multi_thread")]
async fn a_light_in_the_picture_is_cleared_on_the_bench_and_the_set_is_printed() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Lantern slalom").await;
    browser.keys(";").await;
    browser
        .until(&format!(
            "{KEY} && document.querySelector('[data-testid=evenness]').innerText.includes('over the area')"
        ))
        .await;
    browser.type_over(&browser.labelled("Right").await, "-1.6 m").await;
    browser.keys(Key::Tab + "").await;
    browser.until("document.querySelector('[data-note*=\"in the picture\"]')").await;
    browser.until("document.querySelector('main header').innerText.includes('Saved')").await;
    browser.press("//button[contains(., 'Bench')]").await;
    let finding = "[...document.querySelectorAll('[data-finding]')].find((one) => one.dataset.finding === 'in-frame')";
    browser.until(&format!("{finding}?.querySelector('button')")).await;
    browser.run(&format!("{finding}.querySelector('button').click()"), vec![]).await;
    browser.until(&format!("!{finding}")).await;
    saved(&browser).await;
    // What was taped on the day says what it costs; two places are measured between.
    browser.keys(";").await;
    browser
        .until(&format!(
            "{KEY} && document.querySelector('[data-testid=evenness]').innerText.includes('over the area')"
        ))
        .await;
    browser.type_over(&browser.labelled("Taped to mark").await, "3").await;
    browser.type_over(&browser.labelled("To camera").await, "4").await;
    browser.until("document.querySelector('[data-testid=taped]')?.innerText.includes('from the plan')").await;
    // A way with the stretch in which to press, and a room that is too low.
    browser.press("//label[contains(., 'Way')]").await;
    for (label, typed) in [("From, right", "-4"), ("From, away", "0,5 m"), ("To, right", "4"), ("To, away", "-0.5")] {
        browser.type_over(&browser.labelled(label).await, typed).await;
    }
    // Nobody's speed is taken for theirs.
    browser.until("document.querySelector('[data-testid=along]').innerText.includes('how fast?')").await;
    browser.type_over(&browser.labelled("Speed").await, "18 km/h").await;
    browser.until("document.querySelector('[data-testid=along]')?.innerText.includes('press between')").await;
    browser.press("//label[contains(., 'Sun')]").await;
    for (label, typed) in [("Wall, left", "-5"), ("Wall, right", "5"), ("Wall, camera", "-8"), ("Wall, behind", "8")] {
        browser.type_over(&browser.labelled(label).await, typed).await;
    }
    browser.type_over(&browser.labelled("Ceiling").await, "2 m").await;
    browser.until("document.querySelector('[data-note=\"A key does not fit into the room\"]')").await;
    // On paper: the rows that it is built again by.
    let row = browser.run("return document.querySelector('[data-testid=rebuild] tbody tr').textContent", vec![]).await;
    let row = row.as_str().expect("text").to_owned();
    assert!(row.contains("A key") && row.contains("Tern 76") && row.contains("f/"), "{row}");
    let paper = browser.driver.print_page(PrintParameters::default()).await.expect("it is printed");
    assert!(paper.len() > 10_000, "{} bytes of paper", paper.len());
}

/// Kept under a name in one shot, put on another: what of it could not stay as it was is said. Then its key goes on the camera,
/// where the floor shows it, and along a way with it.
#[tokio::test(flavor = "multi_thread")]
async fn lights_are_kept_by_name_and_one_of_them_goes_on_the_camera() {
    let (server, browser) = on_the_floor_of("Silks in the black box").await;
    browser.press("//button[contains(., 'Keep lights')]").await;
    browser.type_over(&browser.labelled("Keep these lights as").await, "Key and low rim").await;
    browser.keys(Key::Enter + "").await;
    let said = "document.querySelector('[data-testid=floor-said]')?.innerText";
    browser.until(&format!("{said}?.includes('Kept as Key and low rim')")).await;
    // Nothing is kept under a name that is taken.
    browser.press("//button[contains(., 'Keep lights')]").await;
    browser.type_over(&browser.labelled("Keep these lights as").await, "Key and low rim").await;
    browser.keys(Key::Enter + "").await;
    browser
        .until("document.querySelector('form[aria-label=\"Keep these lights\"]').innerText.includes('say another')")
        .await;
    browser.keys(Key::Escape + "").await;
    open_shot(&browser, &server, "Sabre reach").await;
    to_the_floor(&browser).await;
    browser.click("[aria-label='Lights as in another shot']").await;
    browser.press("//*[@role='option'][contains(., 'Key and low rim')]").await;
    browser.until(&format!("{said}?.includes('stands') || {said}?.includes('falls')")).await;
    browser.until("document.querySelector('main header').innerText.includes('Saved')").await;
    browser.press("//button[contains(., 'Bench')]").await;
    browser.until("document.querySelector('#strip-flash_distance')").await;
    browser.click("[data-choose='flash']").await;
    open_tab(&browser, "Place").await;
    browser.press("//label[contains(., 'On the camera')]").await;
    // As far as the camera, which has a strip of its own.
    browser.until("!document.querySelector('#strip-flash_distance')").await;
    saved(&browser).await;
    browser.keys(Key::Escape + "").await;
    browser.keys(";").await;
    let hand = "document.querySelector('[aria-label=\"The light in hand\"]')";
    browser.until(&format!("{hand}?.innerText.includes('on the camera')")).await;
    assert_eq!(browser.run(&format!("return {hand}.querySelectorAll('input').length"), vec![]).await, 0);
    browser.press("//label[contains(., 'Way')]").await;
    for (label, typed) in
        [("From, right", "0"), ("From, away", "2"), ("To, right", "0"), ("To, away", "-2"), ("Speed", "18 km/h")]
    {
        browser.type_over(&browser.labelled(label).await, typed).await;
    }
    let along = "document.querySelector('[data-testid=along]').innerText";
    browser.until(&format!("{along}.includes('If the camera goes along')")).await;
    browser.press("//label[contains(., 'The camera goes along')]").await;
    browser.until(&format!("{along}.includes('If the camera stays')")).await;
}

/// Camera, background, area and way are taken hold of as lights are: figures and frame go along, and a place that cannot be is
/// refused in a sentence with nothing lost.
#[tokio::test(flavor = "multi_thread")]
async fn camera_background_area_and_way_are_carried_too() {
    let (server, browser) = on_the_floor_of("Sabre reach").await;
    let says = |grip: &str| format!("document.querySelector('[data-grip=\"{grip}\"]')?.getAttribute('aria-label')");
    let saved = "document.querySelector('main header').innerText.includes('Saved')";
    browser.until(&format!("{}?.includes('5.00 m')", says("Camera"))).await;
    // A step back by a key, and the frame's edges with it.
    let lens = "document.querySelector('[data-testid=from-above]').innerHTML.length";
    assert!(browser.run(&format!("return {lens}"), vec![]).await.as_u64().expect("a drawing") > 0);
    browser.find("[data-grip='Camera']").await.focus().await.unwrap();
    browser.keys(Key::Down + "").await;
    browser.until(&format!("{}?.includes('5.10 m') && {saved}", says("Camera"))).await;
    // The area is drawn wider; how even it is goes along.
    let told = browser.text("[data-testid=evenness]").await;
    browser.drag("[data-grip='Area, far right'] circle", (60, -30)).await;
    browser.until(&format!("document.querySelector('[data-testid=evenness]').innerText !== {told:?} && {saved}")).await;
    // Past its other corner there is no area.
    let kept = browser.run(&format!("return {}", says("Area, far right")), vec![]).await;
    browser.drag("[data-grip='Area, far right'] circle", (-330, 0)).await;
    browser.until("document.querySelector('[role=alert]')?.innerText.includes('no room between')").await;
    // The sheet shows what is kept, and goes on from there.
    browser.until(&format!("{} === {kept}", says("Area, far right"))).await;
    // A side is carried out to a corner of its own, which is stepped by keys, and taken away again.
    let corners = "document.querySelector('[data-testid=from-above] polygon').getAttribute('points').split(' ').length";
    browser.drag("[data-grip='Area, a new corner after 3'] circle", (0, -40)).await;
    browser.until(&format!("{corners} === 5 && {saved}")).await;
    let told = browser.run(&format!("return {}", says("Area, corner 4")), vec![]).await;
    browser.find("[data-grip='Area, corner 4']").await.focus().await.unwrap();
    browser.keys(Key::Left + "").await;
    browser.until(&format!("{} !== {told} && {saved}", says("Area, corner 4"))).await;
    // Carried over another edge it would cross: that is said, and the area is as it was.
    browser.drag("[data-grip='Area, corner 4'] circle", (0, 400)).await;
    browser.until("document.querySelector('[role=alert]')?.innerText.includes('edges cross')").await;
    browser.until(&format!("{corners} === 5")).await;
    browser.keys(Key::Delete + "").await;
    browser.until(&format!("{corners} === 4 && document.querySelector('[data-grip=\"Area, corner 4\"]')")).await;
    browser.press("//label[contains(., 'Area')] | //button[contains(., 'Area')]").await;
    browser.press("//button[contains(., 'as a rectangle')]").await;
    browser.until(&format!("{} && {corners} === 4 && {saved}", says("Area, far right"))).await;
    browser.press("//button[contains(., 'Bench')]").await;
    browser.until("document.querySelector('#strip-subject_distance')?.ariaValueText === '5.1 m'").await;
    // A wall that is on the sheet is pushed back.
    open_shot(&browser, &server, "Finishers' wall").await;
    browser.keys(";").await;
    browser.until("document.querySelector('[data-grip=\"Background\"]')").await;
    browser.find("[data-grip='Background']").await.focus().await.unwrap();
    let behind = browser.run(&format!("return {}", says("Background")), vec![]).await;
    browser.keys(Key::Up + "").await;
    browser.until(&format!("{} !== {behind} && {saved}", says("Background"))).await;
}

/// Whoever stands beside the mark is told, has a light turned to them, and the light stays on them while it is carried.
#[tokio::test(flavor = "multi_thread")]
async fn a_light_is_turned_to_somebody_else_and_stays_on_them() {
    let (_server, browser) = on_the_floor_of("Double ropes, both feet up").await;
    let saved = "document.querySelector('main header').innerText.includes('Saved')";
    let aimed = "document.querySelector('[data-grip=aim]').getAttribute('aria-label')";
    let straight = browser.run(&format!("return {aimed}"), vec![]).await;
    let field = browser.labelled("Aimed at").await;
    field.click().await.unwrap();
    browser.press("//*[@role='option'][.='Third']").await;
    browser.until("document.querySelector('main').innerText.includes('Turned')").await;
    browser.until(&format!("{aimed} !== {straight} && {saved}")).await;
    let third = browser.run(&format!("return {aimed}"), vec![]).await;
    // Carried, it looks to the same place; so does its line on the floor.
    browser.find("[data-floor-light='A key']").await.focus().await.unwrap();
    browser.keys(Key::Left + "").await;
    browser.until(&format!("{saved} && {aimed} === {third}")).await;
    // What each gets is told beside the area.
    browser.press("//label[.='Area']").await;
    browser.until("document.querySelector('[data-person=Third]')?.innerText.includes('against the subject')").await;
    // The wind asks what the stand weighs, and a heavier one needs less.
    let gust = browser.labelled("Gust").await;
    browser.type_over(&gust, "5\t").await;
    browser.until("[...document.querySelectorAll('label')].some((label) => label.innerText === 'A key, stand')").await;
    let ballast = "Number([...document.querySelectorAll('dt')].find((name) => \
        name.innerText.startsWith('Ballast'))?.nextSibling.innerText.split(' ')[0])";
    browser.press("//label[.='Light']").await;
    browser.until(&format!("{ballast} > 0")).await;
    let usual = browser.run(&format!("return {ballast}"), vec![]).await.as_f64().expect("a figure");
    browser.press("//label[.='Area']").await;
    let stand = browser.labelled("A key, stand").await;
    browser.type_over(&stand, "14\t").await;
    browser.press("//label[.='Light']").await;
    browser.until(&format!("{ballast} < {usual} && {saved}")).await;
    // By its own arrow keys the aim is stepped; on the paper it says where the head looks.
    browser.find("[data-grip='aim']").await.focus().await.unwrap();
    browser.keys(Key::Up + "").await;
    browser.until(&format!("{saved} && {aimed} !== {third}")).await;
    browser.until("document.querySelector('table').innerText.includes('of the mark')").await;
}

/// A lamp of which nobody said where it stands is put on the floor, found in the picture, carried out of it by one press, and
/// the steady light is told over the area from then on.
#[tokio::test(flavor = "multi_thread")]
async fn a_steady_lamp_is_put_on_the_floor_and_carried_out_of_the_picture() {
    let api = Api::demo();
    let kept = api.get("/api/shots/double-ropes").await;
    let (mut shot, version) = (kept["shot"].clone(), kept["version"].as_i64());
    let lamp = &api.get("/api/kit").await["lamps"][0];
    shot["lamps"] = serde_json::json!([
        {"on": true, "lamp": lamp, "level_share": 1.0, "distance_m": 3.0, "lights_background": true}
    ]);
    let kept = api.send(Method::PUT, "/api/shots/double-ropes", version, Some(&shot)).await;
    assert!(kept.status().is_success(), "{}", kept.text().await.unwrap());
    let name = lamp["name"].as_str().expect("a name");

    let browser = Browser::open().await;
    open_shot(&browser, &api.server, "Double ropes, both feet up").await;
    to_the_floor(&browser).await;
    browser.press("//label[.='Steady light']").await;
    browser.until("document.querySelector('[data-testid=evenness]').innerText.includes('as even')").await;
    browser.press("//label[.='Lamps']").await;
    let told = browser.text("[aria-label=Lamps]").await;
    assert!(told.contains(name) && told.contains("nobody said where"), "{told}");
    browser.press("//button[contains(., 'Put it on the floor')]").await;
    let says = "document.querySelector('[data-grip=\"Lamp 1\"]')?.getAttribute('aria-label')";
    let saved = "document.querySelector('main header').innerText.includes('Saved')";
    browser.until(&format!("{says}?.includes('in the picture') && {saved}")).await;
    browser.until("document.querySelector('[data-testid=evenness]').innerText.includes('over the area')").await;
    // The Bench finds it too, before anything is pressed here.
    let note = format!("[data-note='{name}: face and stand in the picture']");
    browser.until(&format!("document.querySelector(\"{note} button\")")).await;
    browser.click(&format!("{note} button")).await;
    browser.until(&format!("!{says}.includes('in the picture') && {saved}")).await;
    // Stepped by keys, raised from the side and typed: one place.
    browser.find("[data-grip='Lamp 1']").await.focus().await.unwrap();
    let before = browser.run(&format!("return {says}"), vec![]).await;
    browser.keys(Key::Left + "").await;
    browser.until(&format!("{says} !== {before} && {saved}")).await;
    let height = format!("document.querySelector('[aria-label=\"Height of {name}\"]').getAttribute('aria-valuetext')");
    let low = browser.run(&format!("return {height}"), vec![]).await;
    browser.find(&format!("[aria-label='Height of {name}']")).await.focus().await.unwrap();
    browser.keys(Key::Up + "").await;
    browser.until(&format!("{height} !== {low} && {saved}")).await;
    // On paper it has its row, in the table too.
    let paper = browser.run("return document.querySelector('[data-testid=rebuild]').textContent", vec![]).await;
    assert!(paper.as_str().expect("text").contains(name), "{paper}");
    let kept = api.get("/api/shots/double-ropes").await["shot"].clone();
    let table = api.send(Method::POST, "/api/floor/table", None, Some(&kept)).await.text().await.unwrap();
    let row = table.lines().find(|line| line.starts_with("lamp,")).expect("a row of its own");
    assert!(row.contains(name) && row.contains("100 %"), "{row}");
    // Taken off the floor it is somewhere again, and nothing of the picture is at fault.
    browser.press("//button[contains(., 'Off the floor')]").await;
    browser.until(&format!("!document.querySelector('[data-grip=\"Lamp 1\"]') && {saved}")).await;
}

/// A step of a light asks for the set once, and for nothing of the Bench that nobody sees; back there all of it is of now.
#[tokio::test(flavor = "multi_thread")]
async fn a_step_on_the_floor_asks_for_the_set_alone_and_the_bench_is_fresh_after_it() {
    let (_server, browser) = on_the_floor_of("Silks in the black box").await;
    browser.until("document.querySelector('main header').innerText.includes('Saved')").await;
    browser.run(&format!("performance.clearResourceTimings(); {KEY}.focus()"), vec![]).await;
    let asked = |of: &str| {
        let script = format!(
            "return performance.getEntriesByType('resource').filter(({{ name }}) => name.includes('/api/{of}')).length"
        );
        let browser = &browser;
        async move { browser.run(&script, vec![]).await.as_i64().unwrap_or_default() }
    };
    for step in 1..=4 {
        let before = browser.run(&format!("return {KEY}.ariaLabel + {KEY}.innerHTML"), vec![]).await;
        browser.keys(Key::Right + "").await;
        browser.until(&format!("{KEY}.ariaLabel + {KEY}.innerHTML !== {before}")).await;
        assert_eq!(asked("floor").await, step, "one question a step");
    }
    browser.until("document.querySelector('main header').innerText.includes('Saved')").await;
    // Pictures are those of the floor, whole; the Bench's would be first looks.
    let pictures = "performance.getEntriesByType('resource').filter(({ name }) => name.includes('/api/picture'))";
    browser.until(&format!("{pictures}.length >= 1")).await;
    let whole = format!("return {pictures}.every(({{ name }}) => name.includes('soon=false'))");
    assert_eq!(browser.run(&whole, vec![]).await, true);
    let told = browser.text("[aria-label='The light in hand'] dl").await;
    let metres = |text: &str| {
        let number = text.trim_start().split(' ').next().unwrap_or_default();
        number.parse::<f64>().unwrap_or_else(|_| panic!("metres in {text}"))
    };
    let there = metres(told.split("To the chest").nth(1).expect("its distance"));
    browser.keys(Key::Escape + "").await;
    browser.until("document.querySelector('#frame')?.getAttribute('aria-busy') === 'false'").await;
    let here = browser.run("return document.querySelector('#strip-flash_distance').ariaValueText", vec![]).await;
    let here = metres(here.as_str().expect("a distance"));
    assert!((here - there).abs() <= 0.05 + 1e-9, "{here} on the Bench, {there} on the floor");
}

/// What cannot be is refused on the floor, which has no Bench behind it that would say so: undo goes back to what was, before
/// the refusal is heard of and after it, the second time too; and then a step back as ever.
#[tokio::test(flavor = "multi_thread")]
async fn what_cannot_be_is_undone_on_the_floor_itself() {
    let (_server, browser) = on_the_floor_of("Silks in the black box").await;
    let undo = async || browser.keys(Key::Control + "z").await;
    let head = |word: &str| format!("document.querySelector('main header').innerText.includes('{word}')");
    browser.run(&format!("{KEY}.focus()"), vec![]).await;
    let at = "document.querySelector('[data-floor-light]').ariaLabel";
    let first = browser.run(&format!("return {at}"), vec![]).await;
    browser.keys(Key::Right + "").await;
    browser.until(&format!("{at} !== {first} && {}", head("Saved"))).await;
    let moved = browser.run(&format!("return {at}"), vec![]).await;
    browser.press("//label[.='Area']").await;
    let wide = "[...document.querySelectorAll('label')].find((one) => one.innerText === 'Area, wide').control.value";
    let was = browser.run(&format!("return {wide}"), vec![]).await;
    for heard in [true, false, true] {
        browser.type_over(&browser.labelled("Area, wide").await, "-4").await;
        browser.keys(Key::Enter + "").await;
        if heard {
            browser.until(&format!("{} && document.querySelector('[role=alert]')", head("Not saved"))).await;
        }
        browser.run("document.activeElement.blur()", vec![]).await;
        undo().await;
        browser
            .until(&format!("{wide} === {was} && {} && !document.querySelector('[role=alert]')", head("Saved")))
            .await;
        assert_eq!(browser.run(&format!("return {at}"), vec![]).await, moved, "nothing else went back");
    }
    undo().await;
    browser.until(&format!("{at} === {first} && {}", head("Saved"))).await;
}
