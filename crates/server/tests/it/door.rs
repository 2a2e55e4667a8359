//! Who may come in: the shop's passphrase, the devices that said it, and those that did not.

use std::net::{IpAddr, SocketAddr};
use std::time::Duration;

use crate::common::{fill, json_of};
use rocket::http::{ContentType, Cookie, Header, Status};
use rocket::local::asynchronous::Client;
use rocket::tokio::io::{AsyncBufReadExt, BufReader};
use rocket::tokio::time::timeout;
use rstest::rstest;
use serde_json::{Value, json};
use tempfile::TempDir;
use vanadin::{Asks, Clock, Config, rocket};

const PHONE: &str = "192.168.1.31:50000";
const STRANGER: &str = "192.168.1.66:50000";
const HERE: &str = "127.0.0.1:50000";

struct Shop {
    client: Client,
    _folder: TempDir,
}

/// What a device sends along.
#[derive(Default)]
struct From<'a> {
    address: &'a str,
    cookie: Option<String>,
}

impl Shop {
    async fn asking(asks: Asks) -> Self {
        let folder = tempfile::tempdir().unwrap();
        fill(folder.path()).await;
        let config = Config {
            data: folder.path().to_owned(),
            address: IpAddr::from([192, 168, 1, 20]),
            port: 0,
            demo: false,
            stand_ins: false,
            clock: Clock::starting(Some(1_800_000_000_000)),
            most_mb: None,
            copies: false,
            asks,
            tls: None,
        };
        let client = Client::untracked(rocket(config).await.unwrap()).await.unwrap();
        Self { client, _folder: folder }
    }

    async fn get(&self, path: &str, from: &From<'_>) -> (Status, Value) {
        let mut request =
            self.client.get(path.to_owned()).remote(from.address.parse::<SocketAddr>().unwrap());
        if let Some(cookie) = &from.cookie {
            request = request.cookie(Cookie::new("vanadin_device", cookie.clone()));
        }
        let answer = request.dispatch().await;
        (answer.status(), json_of(answer).await.unwrap_or(Value::Null))
    }

    async fn post(
        &self,
        path: &str,
        body: Value,
        from: &From<'_>,
    ) -> (Status, Value, Option<Cookie<'static>>) {
        let mut request = self
            .client
            .post(path.to_owned())
            .remote(from.address.parse::<SocketAddr>().unwrap())
            .header(ContentType::JSON)
            .header(Header::new("Host", "192.168.1.20:8420"))
            .body(body.to_string());
        if let Some(cookie) = &from.cookie {
            request = request.cookie(Cookie::new("vanadin_device", cookie.clone()));
        }
        let answer = request.dispatch().await;
        let cookie = answer.cookies().get("vanadin_device").map(|cookie| cookie.clone().into_owned());
        (answer.status(), json_of(answer).await.unwrap_or(Value::Null), cookie)
    }

    /// Sets it where nobody is asked, and comes in with it.
    async fn come_in(&self, passphrase: &str) -> From<'static> {
        let said = json!({ "passphrase": passphrase, "name": "Phone at the forge" });
        let (status, view, cookie) =
            self.post("/api/door", said, &From { address: PHONE, cookie: None }).await;
        assert_eq!(status, Status::Ok, "{view}");
        From { address: PHONE, cookie: Some(cookie.expect("it is known from now on").value().to_owned()) }
    }
}

async fn set(shop: &Shop, passphrase: &str, from: &From<'_>) -> (Status, Value) {
    replace(shop, "", passphrase, from).await
}

async fn replace(shop: &Shop, old: &str, passphrase: &str, from: &From<'_>) -> (Status, Value) {
    let said = json!({ "passphrase": passphrase, "old": old });
    let (status, view, _) = shop.post("/api/door/passphrase", said, from).await;
    (status, view)
}

const AT_THE_MACHINE: From<'static> = From { address: HERE, cookie: None };

#[rstest]
#[case::the_rack("/api/rack")]
#[case::the_shop("/api/shop")]
#[case::a_job("/api/jobs/00000000-0000-4000-8000-000000000000")]
#[case::its_stream("/api/jobs/00000000-0000-4000-8000-000000000000/stream")]
#[case::reckoning("/api/openapi.json")]
#[case::what_is_not_there("/api/nothing")]
#[case::in_disguise("/api//rack")]
#[test_attr(rocket::async_test)]
async fn a_stranger_reads_and_writes_nothing(#[case] path: &str) {
    let shop = Shop::asking(Asks::Others).await;
    for cookie in [None, Some("0".repeat(64))] {
        let stranger = From { address: STRANGER, cookie };
        let (status, body) = shop.get(path, &stranger).await;
        assert_eq!(status, Status::Unauthorized, "{path}: {body}");
        assert!(body["problems"][0]["message"].as_str().unwrap().contains("not known here"), "{body}");
        let (status, ..) = shop.post("/api/jobs", json!({ "id": uuid::Uuid::new_v4() }), &stranger).await;
        assert_eq!(status, Status::Unauthorized);
        let (status, _) = set(&shop, "a passphrase of mine", &stranger).await;
        assert_eq!(status, Status::Unauthorized, "nor sets a passphrase");
    }
    for disguised in ["/%61pi/rack", "/api%2Frack", "/API/rack", "/./api/rack", "/x/../api/rack"] {
        let request = shop.client.get(disguised).remote(STRANGER.parse::<SocketAddr>().unwrap());
        let body = request.dispatch().await.into_string().await.unwrap_or_default();
        assert!(!body.contains("standing"), "{disguised} is the rack");
    }
    // The pages themselves say nothing of the shop.
    let (status, _) = shop.get("/", &From { address: STRANGER, cookie: None }).await;
    assert_ne!(status, Status::Unauthorized);
    let (_, door) = shop.get("/api/door", &From { address: STRANGER, cookie: None }).await;
    assert_eq!((&door["closed"], &door["devices"]), (&json!(true), &json!([])));
}

#[rocket::async_test]
async fn whoever_says_the_passphrase_comes_in_and_is_known_by_a_cookie_no_script_reads() {
    let shop = Shop::asking(Asks::Others).await;
    assert_eq!(set(&shop, "vermiculite", &AT_THE_MACHINE).await.0, Status::Ok, "this machine is not asked");
    let said = json!({ "passphrase": "vermiculite", "name": "  Phone at the forge " });
    let (_, _, cookie) = shop.post("/api/door", said, &From { address: PHONE, cookie: None }).await;
    let cookie = cookie.unwrap();
    assert_eq!((cookie.http_only(), cookie.path()), (Some(true), Some("/")));
    assert_eq!(cookie.same_site(), Some(rocket::http::SameSite::Strict));
    assert_eq!(cookie.max_age().map(|age| age.whole_days()), Some(90));
    let phone = From { address: PHONE, cookie: Some(cookie.value().to_owned()) };
    let (status, rack) = shop.get("/api/rack", &phone).await;
    assert_eq!((status, rack["total"].as_u64()), (Status::Ok, Some(8)));
    let (_, door) = shop.get("/api/door", &phone).await;
    assert_eq!((&door["closed"], &door["devices"][0]["name"]), (&json!(false), &json!("Phone at the forge")));
    assert_eq!(door["device"], door["devices"][0]["id"]);
    // It is the cookie that is known, not the address.
    assert_eq!(shop.get("/api/rack", &From { address: PHONE, cookie: None }).await.0, Status::Unauthorized);
}

#[rocket::async_test]
async fn after_five_wrong_ones_an_address_waits_and_others_do_not() {
    let shop = Shop::asking(Asks::Others).await;
    set(&shop, "vermiculite", &AT_THE_MACHINE).await;
    let stranger = From { address: STRANGER, cookie: None };
    for _ in 0..5 {
        let (status, body, cookie) =
            shop.post("/api/door", json!({ "passphrase": "charcoal" }), &stranger).await;
        assert_eq!((status, &body["problems"][0]["field"]), (Status::Unauthorized, &json!("passphrase")));
        assert!(cookie.is_none());
    }
    let (status, ..) = shop.post("/api/door", json!({ "passphrase": "vermiculite" }), &stranger).await;
    assert_eq!(status, Status::TooManyRequests, "also the right one waits");
    shop.come_in("vermiculite").await;
}

#[rocket::async_test]
async fn who_is_turned_out_or_knows_only_the_old_one_says_the_new_one() {
    let shop = Shop::asking(Asks::Others).await;
    set(&shop, "vermiculite", &AT_THE_MACHINE).await;
    let phone = shop.come_in("vermiculite").await;
    let other = shop.come_in("vermiculite").await;
    let (_, door) = shop.get("/api/door", &other).await;
    let (status, ..) = shop.post("/api/door/out", json!({ "device": door["device"] }), &phone).await;
    assert_eq!(status, Status::Ok);
    // It is told so whatever it asks, for as long as it has not said the passphrase again.
    for path in ["/api/rack", "/api/shop"] {
        let (status, said) = shop.get(path, &other).await;
        assert_eq!((status, &said["problems"][0]["field"]), (Status::Unauthorized, &json!("turned_out")));
    }
    // The one that changes it stays; whoever else came in by the old one does not.
    let third = shop.come_in("vermiculite").await;
    for (old, new, field) in [
        ("vermiculite", "short", "passphrase"),
        ("vermiculite", "        ", "passphrase"),
        ("", "wood ash and lime", "old"),
        ("charcoal", "wood ash and lime", "old"),
    ] {
        let (status, said) = replace(&shop, old, new, &phone).await;
        assert_eq!((status, &said["problems"][0]["field"]), (Status::UnprocessableEntity, &json!(field)));
    }
    assert_eq!(replace(&shop, "vermiculite", "wood ash and lime", &phone).await.0, Status::Ok);
    assert_eq!(shop.get("/api/rack", &phone).await.0, Status::Ok);
    assert_eq!(shop.get("/api/rack", &third).await.0, Status::Unauthorized);
    let (status, ..) = shop
        .post("/api/door", json!({ "passphrase": "vermiculite" }), &From { address: PHONE, cookie: None })
        .await;
    assert_eq!(status, Status::Unauthorized);
    shop.come_in("wood ash and lime").await;
}

#[rstest]
#[case::nobody(Asks::Nobody, Status::Ok, Status::Ok)]
#[case::others(Asks::Others, Status::Ok, Status::Unauthorized)]
#[case::everybody(Asks::Everybody, Status::Unauthorized, Status::Unauthorized)]
#[test_attr(rocket::async_test)]
async fn who_is_asked_is_said_at_the_start(#[case] asks: Asks, #[case] here: Status, #[case] there: Status) {
    let shop = Shop::asking(asks).await;
    assert_eq!(shop.get("/api/rack", &AT_THE_MACHINE).await.0, here);
    assert_eq!(shop.get("/api/rack", &From { address: STRANGER, cookie: None }).await.0, there);
}

#[rocket::async_test]
async fn of_many_at_the_same_time_no_more_are_looked_at_than_one_after_another() {
    let shop = Shop::asking(Asks::Others).await;
    set(&shop, "vermiculite", &AT_THE_MACHINE).await;
    let stranger = From { address: STRANGER, cookie: None };
    let tried = (0..40).map(|_| shop.post("/api/door", json!({ "passphrase": "charcoal" }), &stranger));
    let honest = shop.come_in("vermiculite");
    let (tried, _) = rocket::tokio::join!(rocket::futures::future::join_all(tried), honest);
    let looked_at = tried.iter().filter(|(status, ..)| *status == Status::Unauthorized).count();
    assert!((1..=5).contains(&looked_at), "{looked_at} of 40");
    assert!(tried.iter().all(|(status, ..)| [401, 429].contains(&status.code)), "the others wait");
}

#[rocket::async_test]
async fn a_device_that_is_turned_out_hears_nothing_more() {
    let shop = Shop::asking(Asks::Others).await;
    set(&shop, "vermiculite", &AT_THE_MACHINE).await;
    let (phone, other) = (shop.come_in("vermiculite").await, shop.come_in("vermiculite").await);
    let (_, rack) = shop.get("/api/rack", &phone).await;
    let stream = format!("/api/jobs/{}/stream", rack["lines"][0]["id"].as_str().unwrap());
    let listen = async |from: &From<'_>| {
        let cookie = Cookie::new("vanadin_device", from.cookie.clone().unwrap());
        let address = from.address.parse::<SocketAddr>().unwrap();
        shop.client.get(stream.clone()).remote(address).cookie(cookie).dispatch().await
    };
    let (heard, stays) = (listen(&other).await, listen(&phone).await);
    let (_, door) = shop.get("/api/door", &other).await;
    shop.post("/api/door/out", json!({ "device": door["device"] }), &phone).await;
    // It ends by itself: all that was said to it is there.
    let ended = timeout(Duration::from_secs(20), heard.into_string()).await;
    assert!(ended.is_ok_and(|said| said.is_some_and(|said| said.contains("hello"))));
    // A new passphrase ends those that came in by the old one.
    let third = shop.come_in("vermiculite").await;
    let heard = listen(&third).await;
    assert_eq!(replace(&shop, "vermiculite", "wood ash and lime", &phone).await.0, Status::Ok);
    assert!(timeout(Duration::from_secs(20), heard.into_string()).await.is_ok());
    // The one that stayed still hears.
    let mut lines = BufReader::new(stays).lines();
    assert!(timeout(Duration::from_secs(20), lines.next_line()).await.is_ok());
}

/// A shop that asks, and a phone that helps at one of its jobs.
async fn helped() -> (Shop, String, String) {
    let shop = Shop::asking(Asks::Others).await;
    let here = From { address: HERE, cookie: None };
    let (_, rack) = shop.get("/api/rack", &here).await;
    let line =
        rack["lines"].as_array().unwrap().iter().find(|line| !line["standing"]["hot"].is_null()).unwrap();
    let job = line["id"].as_str().unwrap().to_owned();
    let (status, shown, _) = shop.post("/api/door/helper", json!({ "job": job }), &here).await;
    assert_eq!(status, Status::Ok, "{shown}");
    let url = shown["url"].as_str().unwrap();
    assert!(shown["qr"].as_str().unwrap().starts_with("<svg"), "{shown}");
    assert!(shown["until_ms"].as_i64() >= Some(1_800_000_900_000), "{shown}");
    let code = url.strip_prefix(&format!("http://192.168.1.20:0/jobs/{job}/helper#")).unwrap().to_owned();
    let phone = From { address: PHONE, cookie: None };
    let (status, door, cookie) =
        shop.post("/api/door/helped", json!({ "code": code, "name": "Gate" }), &phone).await;
    assert_eq!((status, &door["closed"], &door["devices"]), (Status::Ok, &json!(false), &json!([])));
    // A second phone has to be shown a code of its own.
    let (status, ..) = shop.post("/api/door/helped", json!({ "code": code }), &phone).await;
    assert_eq!(status, Status::Unauthorized);
    (shop, job, cookie.unwrap().value().to_owned())
}

#[rocket::async_test]
async fn a_helpers_phone_sees_one_job_and_logs_at_its_torch() {
    let (shop, job, cookie) = helped().await;
    let phone = From { address: PHONE, cookie: Some(cookie) };
    let (status, view) = shop.get(&format!("/api/jobs/{job}"), &phone).await;
    assert_eq!((status, view["id"].as_str()), (Status::Ok, Some(job.as_str())));
    let fact = |change: Value| json!({ "id": uuid::Uuid::new_v4(), "at_client_ms": 4_000_000_000_000_i64, "who": "Gate", "base": null, "change": change });
    let read =
        json!({ "kind": "torch", "entry": { "kind": "reading", "typed": "390 C", "shown_in": "metric" } });
    let (status, said, _) = shop.post(&format!("/api/jobs/{job}/facts"), fact(read), &phone).await;
    assert_eq!(status, Status::Ok, "{said}");
    let wall = json!({ "kind": "set", "key": "part.wall", "typed": "14", "shown_in": "metric" });
    let (status, ..) = shop.post(&format!("/api/jobs/{job}/facts"), fact(wall), &phone).await;
    assert_eq!(status, Status::Forbidden);
    // Of the shop it is told what its pages are drawn by: no rates, no stores, no log.
    let (_, told) = shop.get("/api/shop", &phone).await;
    assert_eq!(
        (&told["helps"], &told["shop"]["rate"], &told["fields"]),
        (&json!(job), &Value::Null, &json!({}))
    );
}

#[rstest]
#[case::the_rack("get", "/api/rack")]
#[case::the_stores("get", "/api/stores")]
#[case::another_job("get", "/api/jobs/5bb2342b-00cf-433e-bc30-15dc3d387717")]
#[case::a_hidden_way_to_another("get", "/api//jobs//5bb2342b-00cf-433e-bc30-15dc3d387717")]
#[case::its_log("get", "/api/jobs/JOB/history")]
#[case::its_file("get", "/api/jobs/JOB/export")]
#[case::putting_it_away("post", "/api/jobs/JOB/let-go")]
#[case::a_word_of_the_shop("post", "/api/shop")]
#[case::another_passphrase("post", "/api/door/passphrase")]
#[case::turning_others_out("post", "/api/door/out")]
#[case::letting_others_help("post", "/api/door/helper")]
#[case::a_new_job("post", "/api/jobs")]
#[test_attr(rocket::async_test)]
async fn a_helpers_phone_can_do_nothing_else(#[case] how: &str, #[case] path: &str) {
    let (shop, job, cookie) = helped().await;
    let phone = From { address: PHONE, cookie: Some(cookie) };
    let path = path.replace("JOB", &job);
    let status = match how {
        "get" => shop.get(&path, &phone).await.0,
        _ => shop.post(&path, json!({}), &phone).await.0,
    };
    assert_eq!(status, Status::Forbidden, "{path}");
}

#[rocket::async_test]
async fn a_helper_who_says_the_passphrase_is_a_device_like_others() {
    let (shop, _, cookie) = helped().await;
    let here = From { address: HERE, cookie: None };
    let (_, door) = shop.get("/api/door", &here).await;
    assert_eq!(
        (&door["devices"][0]["name"], door["devices"][0]["helps"].is_string()),
        (&json!("Gate"), true)
    );
    shop.post("/api/door/passphrase", json!({ "passphrase": "vermiculite" }), &here).await;
    let phone = From { address: PHONE, cookie: Some(cookie) };
    let (status, ..) = shop.get("/api/shop", &phone).await;
    assert_eq!(status, Status::Unauthorized, "another passphrase turns helpers out too");
    let (status, _, cookie) = shop.post("/api/door", json!({ "passphrase": "vermiculite" }), &phone).await;
    assert_eq!(status, Status::Ok);
    let phone = From { address: PHONE, cookie: Some(cookie.unwrap().value().to_owned()) };
    assert_eq!(shop.get("/api/rack", &phone).await.0, Status::Ok);
}
