//! Headless Chromium through ChromeDriver, and waiting for what a user would wait for.

use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};
use tempfile::TempDir;
use thirtyfour::prelude::*;

/// Longer than anything takes here; a condition that has not come by then does not come.
const PATIENCE: Duration = Duration::from_secs(40);
/// Answers whether `holds` comes true within a second.
const LOOK: &str = "
    const done = arguments[arguments.length - 1];
    if (holds()) return done(true);
    const ends = performance.now() + 1000;
    const look = () => {
        const answer = holds();
        if (!answer && performance.now() < ends) return;
        clearInterval(clock);
        changes.disconnect();
        done(answer);
    };
    const clock = setInterval(look, 50);
    const changes = new MutationObserver(look);
    changes.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
";

pub struct Browser {
    pub driver: WebDriver,
    chromedriver: Child,
    profile: TempDir,
}

impl Browser {
    pub async fn open() -> Self {
        let profile = TempDir::new().expect("a temporary folder");
        let mut chromedriver = Command::new("chromedriver")
            .args(["--port=0", "--allowed-ips="])
            // The driver makes the profile, and makes it here.
            .env("TMPDIR", profile.path())
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .expect("chromedriver is installed; `make test` installs it where it is missing");
        let mut lines = BufReader::new(chromedriver.stdout.take().expect("piped")).lines();
        let port: u16 = lines
            .by_ref()
            .map_while(Result::ok)
            .find_map(|line| line.split_once("successfully on port ")?.1.trim_end_matches('.').parse().ok())
            .expect("chromedriver says its port");
        // Somebody has to read what it goes on to say, or it blocks.
        std::thread::spawn(move || lines.for_each(drop));
        let mut caps = DesiredCapabilities::chrome();
        // The one without windows; the other draws its own tabs and address bar even where nobody can see them.
        caps.set_binary("/usr/bin/chromium-headless-shell").expect("a path");
        for flag in [
            "--headless",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--disable-dev-shm-usage",
            // Nothing is waited for but the program.
            "--force-prefers-reduced-motion",
            "--hide-scrollbars",
            "--window-size=1280,800",
        ] {
            caps.add_arg(flag).expect("a flag");
        }
        let driver = WebDriver::new(format!("http://127.0.0.1:{port}"), caps).await.expect("a browser session");
        let browser = Self { driver, chromedriver, profile };
        browser.run("return 1", vec![]).await;
        browser
    }

    pub async fn run(&self, script: &str, arguments: Vec<serde_json::Value>) -> serde_json::Value {
        let answer = self.driver.execute(script, arguments).await.unwrap_or_else(|error| panic!("{script}: {error}"));
        answer.json().clone()
    }

    /// Waits until an expression is true. The page itself looks, whenever something on it changes and now and then: asking
    /// from outside all the time would keep it from its work.
    #[track_caller]
    pub fn until<'a>(&'a self, what: &'a str) -> impl Future<Output = ()> + 'a {
        let caller = std::panic::Location::caller();
        async move {
            let started = Instant::now();
            // What is not there yet is not yet true.
            let script =
                format!("const holds = () => {{ try {{ return !!({what}) }} catch {{ return false }} }};{LOOK}");
            // A page that is left while it looks does not answer; the next one is asked.
            while !self.driver.execute_async(&script, vec![]).await.is_ok_and(|answer| *answer.json() == true) {
                assert!(
                    started.elapsed() < PATIENCE,
                    "{caller}: it never came that {what}\n{}",
                    self.text("body").await
                );
            }
        }
    }

    pub async fn text(&self, selector: &str) -> String {
        let script = "return document.querySelector(arguments[0])?.innerText ?? ''";
        self.run(script, vec![selector.into()]).await.as_str().unwrap_or_default().to_owned()
    }

    pub async fn find(&self, selector: &str) -> WebElement {
        self.until(&format!("document.querySelector({selector:?})")).await;
        self.driver.find(By::Css(selector)).await.unwrap_or_else(|error| panic!("{selector}: {error}"))
    }

    pub async fn click(&self, selector: &str) {
        let element = self.find(selector).await;
        element.wait_until().clickable().await.unwrap_or_else(|error| panic!("{selector}: {error}"));
        element.click().await.unwrap_or_else(|error| panic!("{selector}: {error}"));
    }

    /// Presses what has some words on it: a path of the page, such as a button with its text.
    pub async fn press(&self, path: &str) {
        let found = self.driver.query(By::XPath(path)).and_clickable().first().await;
        let element = found.unwrap_or_else(|error| panic!("{path}: {error}"));
        element.click().await.unwrap_or_else(|error| panic!("{path}: {error}"));
    }

    /// Takes hold of something, carries it by so many pixels and lets it go.
    pub async fn drag(&self, selector: &str, (right, down): (i64, i64)) {
        let element = self.find(selector).await;
        let held = self.driver.action_chain().click_and_hold_element(&element).move_by_offset(right, down).release();
        held.perform().await.unwrap_or_else(|error| panic!("{selector}: {error}"));
    }

    /// Presses keys where the focus is.
    pub async fn keys(&self, keys: impl Into<TypingData>) {
        let active = self.driver.active_element().await.expect("something has the focus");
        active.send_keys(keys).await.expect("keys are taken");
    }

    /// The field under a label.
    pub async fn labelled(&self, label: &str) -> WebElement {
        let path = format!("//label[text()='{label}']/following::input[1]");
        let field = self.driver.query(By::XPath(path)).first().await;
        field.unwrap_or_else(|error| panic!("{label}: {error}"))
    }

    /// Replaces what stands in a field.
    pub async fn type_over(&self, field: &WebElement, text: &str) {
        field.send_keys(Key::Control + "a").await.expect("keys are taken");
        field.send_keys(text).await.expect("keys are taken");
    }

    pub async fn fill(&self, selector: &str, text: &str) {
        let field = self.find(selector).await;
        field.click().await.expect("the field takes a click");
        self.type_over(&field, text).await;
    }

    pub async fn size(&self, width: u32, height: u32) {
        self.driver.set_window_rect(0, 0, width, height).await.expect("a window has a size");
        let outer = self.run("return [innerWidth, innerHeight]", vec![]).await;
        let (inner_width, inner_height) =
            (outer[0].as_u64().unwrap_or(0) as u32, outer[1].as_u64().unwrap_or(0) as u32);
        // Some windows count their frame in.
        self.driver.set_window_rect(0, 0, 2 * width - inner_width, 2 * height - inner_height).await.expect("a size");
    }
}

impl Drop for Browser {
    fn drop(&mut self) {
        let _ = self.chromedriver.kill();
        let _ = self.chromedriver.wait();
        // A browser outlives a driver that is killed; it is told by the profile that nothing else has.
        let own = format!("user-data-dir={}", self.profile.path().display());
        let _ = Command::new("pkill").args(["-KILL", "-f", &own]).status();
    }
}
