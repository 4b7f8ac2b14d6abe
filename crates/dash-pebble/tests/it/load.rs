//! Many who ask at once, some who dawdle, and large kits: everyone is served, and nothing grows without end.
//!
//! Figures of the machine are printed; what is asserted here is far above them, for a busy machine is no fault.

use crate::bounds::dawdler;
use crate::common::{Server, example};
use reqwest::{Client, StatusCode};
use serde_json::{Value, json};
use std::io::{Read, Write};
use std::time::{Duration, Instant};

/// Seconds of the load; more for a measurement.
fn seconds() -> u64 {
    std::env::var("LOAD_SECONDS").ok().and_then(|text| text.parse().ok()).unwrap_or(4)
}

fn middle(mut times: Vec<Duration>) -> Duration {
    times.sort();
    times.get(times.len() / 2).copied().unwrap_or_default()
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn two_hundred_clients_read_and_save_without_an_error() {
    let server = Server::demo();
    let client = Client::new();
    let body = example("double-ropes");
    let until = Instant::now() + Duration::from_secs(seconds());
    let one = |number: usize| {
        let (client, mut body, address) = (client.clone(), body.clone(), server.address.clone());
        async move {
            let made: Value = client.post(format!("{address}/api/shots")).json(&body).send().await?.json().await?;
            let url = format!("{address}/api/shots/{}", made["id"].as_str().unwrap());
            let (mut version, mut reads, mut saves) = (1, Vec::new(), Vec::new());
            while Instant::now() < until {
                let begun = Instant::now();
                let read: Value = client.get(&url).send().await?.error_for_status()?.json().await?;
                reads.push(begun.elapsed());
                assert_eq!(read["version"], version, "client {number} reads what it saved");
                body["title"] = json!(format!("take {version} of {number}"));
                let begun = Instant::now();
                let saved = client.put(&url).header("if-match", format!("\"{version}\"")).json(&body).send().await?;
                version = saved.error_for_status()?.json::<Value>().await?["version"].as_i64().unwrap();
                saves.push(begun.elapsed());
            }
            Ok::<_, reqwest::Error>((reads, saves))
        }
    };
    let clients: Vec<_> = (0..200).map(|number| tokio::spawn(one(number))).collect();
    let (mut reads, mut saves) = (Vec::new(), Vec::new());
    for client in clients {
        let (read, saved) = client.await.unwrap().expect("no request fails");
        reads.extend(read);
        saves.extend(saved);
    }
    let (count, read, saved) = (saves.len(), middle(reads), middle(saves));
    println!("200 clients, {} s: {count} saves, median read {read:.0?}, save {saved:.0?}", seconds());
    assert!(read < Duration::from_secs(2) && saved < Duration::from_secs(4), "read {read:?}, save {saved:?}");
}

#[tokio::test]
async fn who_dawdles_keeps_nobody_waiting_and_the_program_ends_all_the_same() {
    let server = Server::demo();
    let mut heads = Vec::new();
    for number in 0..500 {
        heads.push(dawdler(&server, "GET /api/shots HTTP/1.1"));
        if number % 100 == 0 {
            assert_eq!(reqwest::get(server.url("/api/blank")).await.unwrap().status(), StatusCode::OK);
        }
    }
    // Others whose body never comes.
    let mut bodies = Vec::new();
    for _ in 0..100 {
        let mut stream = dawdler(&server, "POST /api/forecast HTTP/1.1");
        stream.write_all(b"Content-Type: application/json\r\nContent-Length: 5000\r\n\r\n{").expect("it sends");
        bodies.push(stream);
    }
    for _ in 0..20 {
        let begun = Instant::now();
        let answer = Client::new().post(server.url("/api/forecast")).json(&example("silks")).send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::OK);
        assert!(begun.elapsed() < Duration::from_secs(5), "{:?}", begun.elapsed());
    }
    // Whoever reads nothing of a long answer.
    let mut deaf = dawdler(&server, "GET /assets/none HTTP/1.1");
    deaf.write_all(b"\r\n").unwrap();
    let begun = Instant::now();
    assert!(server.ended().success());
    let took = begun.elapsed();
    println!("ended with 600 dawdlers after {took:.0?}");
    assert!(took < Duration::from_secs(5), "{took:?}");
    for stream in heads.iter_mut().chain(&mut bodies) {
        stream.set_read_timeout(Some(Duration::from_secs(5))).unwrap();
        let mut rest = Vec::new();
        let _ = stream.read_to_end(&mut rest);
    }
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn three_hundred_pictures_at_once_are_drawn_or_put_off_and_the_rest_goes_on() {
    let server = Server::demo();
    let client = Client::new();
    let all: Vec<_> = (0..300)
        .map(|_| {
            let asked = client.post(server.url("/api/picture?width=592")).json(&example("roller-hall"));
            tokio::spawn(async move { asked.send().await.unwrap() })
        })
        .collect();
    let begun = Instant::now();
    let answer = client.post(server.url("/api/forecast")).json(&example("silks")).send().await.unwrap();
    assert_eq!(answer.status(), StatusCode::OK);
    let meanwhile = begun.elapsed();
    let (mut drawn, mut put_off) = (0, 0);
    for one in all {
        let answer = one.await.unwrap();
        match answer.status() {
            StatusCode::OK => drawn += 1,
            StatusCode::SERVICE_UNAVAILABLE => {
                assert_eq!(answer.headers()["retry-after"], "1");
                put_off += 1;
            }
            other => panic!("{other}"),
        }
    }
    println!("300 pictures: {drawn} drawn, {put_off} put off, a forecast meanwhile took {meanwhile:.0?}");
    assert!(drawn >= 100 && put_off > 0);
    // Whoever hangs up is drawn for no longer: the next picture does not wait for fifty that nobody wants.
    for _ in 0..50 {
        let asked = client.post(server.url("/api/picture?width=2400")).json(&example("slipway-spin")).send();
        let _ = tokio::time::timeout(Duration::from_millis(15), asked).await;
    }
    let begun = Instant::now();
    let answer = client.post(server.url("/api/picture?width=240")).json(&example("silks")).send().await.unwrap();
    assert_eq!(answer.status(), StatusCode::OK);
    println!("after fifty that were hung up on, the next took {:.0?}", begun.elapsed());
    assert!(begun.elapsed() < Duration::from_secs(5), "{:?}", begun.elapsed());
}

/// The demo kit with so many units.
fn large_kit(units: usize) -> Value {
    let mut kit: Value = example("kit");
    let own = kit["units"].as_array().unwrap().clone();
    let more = (0..units).map(|number| {
        let mut unit = own[number % own.len()].clone();
        unit["id"] = json!(format!("unit-{number}"));
        unit["name"] = json!(format!("{} {number}", unit["name"].as_str().unwrap()));
        unit
    });
    kit["units"] = Value::Array(more.collect());
    kit
}

#[tokio::test]
async fn a_kit_of_a_thousand_units_and_a_list_of_two_thousand_shots_answer_soon() {
    let server = Server::with_kit(&large_kit(1000)).await;
    let client = Client::new();
    let slow = if cfg!(debug_assertions) { 8 } else { 2 };
    let within = |what: &str, begun: Instant, goal_ms: u64| {
        let took = begun.elapsed();
        println!("{what}: {took:.0?}, goal {goal_ms} ms");
        assert!(took < Duration::from_millis(goal_ms * slow), "{what}: {took:?}");
    };
    for shot in ["sabre-reach", "double-ropes"] {
        let begun = Instant::now();
        let asked = json!({ "shot": example(shot) });
        let mut answer = client.post(server.url("/api/match")).json(&asked).send().await.unwrap();
        answer.chunk().await.unwrap().expect("a first line");
        within(&format!("{shot}, first line"), begun, 200);
        while answer.chunk().await.unwrap().is_some() {}
        within(&format!("{shot}, last line"), begun, 1500);
    }
    let begun = Instant::now();
    let table = client.get(server.url("/api/kit/units.csv")).send().await.unwrap().text().await.unwrap();
    within("units.csv", begun, 500);
    assert!(table.lines().count() > 5000);
    let begun = Instant::now();
    let answer = client.post(server.url("/api/match/job")).json(&json!({ "shots": [] })).send().await.unwrap();
    let told = answer.text().await.unwrap();
    within("the whole job of 10 shots", begun, 10_000);
    assert!(told.lines().last().unwrap().contains("\"found\""));

    let hands = (0..8).map(|_| {
        let (client, address, shot) = (client.clone(), server.url("/api/shots"), example("silks"));
        tokio::spawn(async move {
            for _ in 0..250 {
                let made = client.post(&address).json(&shot).send().await.unwrap();
                assert_eq!(made.status(), StatusCode::CREATED);
            }
        })
    });
    for hand in hands.collect::<Vec<_>>() {
        hand.await.unwrap();
    }
    let begun = Instant::now();
    let first: Value = client.get(server.url("/api/shots?most=24")).send().await.unwrap().json().await.unwrap();
    within("first screen of 2000 shots", begun, 300);
    assert_eq!((first["count"].as_i64(), first["shots"].as_array().unwrap().len()), (Some(2010), 24));
    let begun = Instant::now();
    let names: Value = client.get(server.url("/api/shots/names")).send().await.unwrap().json().await.unwrap();
    within("2000 names", begun, 300);
    assert_eq!(names.as_array().unwrap().len(), 2010);
}

/// Megabytes a process holds and held at most.
fn memory(process: u32) -> (f64, f64) {
    let status = std::fs::read_to_string(format!("/proc/{process}/status")).expect("it runs");
    let of = |name: &str| {
        let line = status.lines().find(|line| line.starts_with(name)).expect("a line");
        line.split_whitespace().nth(1).and_then(|kb| kb.parse::<f64>().ok()).expect("a number") / 1024.0
    };
    (of("VmRSS:"), of("VmHWM:"))
}

#[tokio::test]
async fn large_pictures_stay_in_bounded_memory() {
    // The largest of them: most people, most movement, most lights.
    let shots = ["finishers-wall", "slipway-spin", "roller-hall", "lantern-slalom"];
    for (at_once, limit) in [(1, 96.0), (8, 400.0)] {
        for shot in shots {
            let server = Server::demo();
            let before = memory(server.id()).0;
            let drawn = |width| {
                let asked = Client::new().post(server.url(&format!("/api/picture?width={width}"))).json(&example(shot));
                async move { asked.send().await.unwrap().error_for_status().unwrap().bytes().await.unwrap().len() }
            };
            let all: Vec<_> = (0..at_once).map(|_| tokio::spawn(drawn(2400))).collect();
            for one in all {
                assert!(one.await.unwrap() >= 2400 * 1000 * 4);
            }
            let most = memory(server.id()).1 - before;
            println!("{at_once} × {shot} at 2400 px: {most:.0} MB");
            assert!(most < limit, "{at_once} × {shot}: {most:.0} MB");
            if at_once == 8 {
                break;
            }
        }
    }
}
