//! The server: parse, ask the core, store, answer.

mod api_error;
mod body;
mod calendar;
mod clock;
mod database;
mod door;
mod health;
mod job;
mod job_file;
mod job_service;
pub mod keep;
mod ledger;
mod logger;
mod map;
mod migrations;
mod openapi;
mod picture;
mod practice;
mod proxy;
mod rack;
mod reach;
mod reckon;
mod reckoner;
mod sample;
mod shop;
mod stand_in;
mod stores;
mod thermocouple;
mod web;
mod wire;

use std::io::Write;
use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::path::PathBuf;
use std::time::Duration;

use anyhow::Context;
use rocket::fairing::AdHoc;
use rocket::{Build, Ignite, Rocket, routes};
use tokio::net::TcpListener;

use door::known::Door;
use job_service::{JobService, Matter};
use proxy::{ClientAddresses, ConnectionLimit, PATIENCE, Proxy, more_files};
use reach::addresses::{ServerAddresses, own_addresses};
use reach::certificate::{Certificates, certificates};
use reach::qr;
use reach::trust_page::{self, Trust};
use thermocouple::Thermocouples;

pub use clock::Clock;
pub use door::known::Asks;
pub use openapi::openapi_document;
pub use sample::sample_jobs;
pub use stand_in::{StandInConfig, run as stand_in};

/// How to serve.
#[derive(Debug, Clone)]
pub struct Config {
    /// Folder of the one database file.
    pub data: PathBuf,
    pub address: IpAddr,
    /// 0 takes a free one.
    pub port: u16,
    /// Fill an empty folder with the sample shop.
    pub demo: bool,
    /// A stand-in's program is started for each part that is hot. Without it nothing is read but by a logger, or by hand.
    pub stand_ins: bool,
    /// The server's one clock.
    pub clock: Clock,
    /// What the data file may grow to.
    pub most_mb: Option<u32>,
    /// A copy a day is kept for a week beside the data.
    pub copies: bool,
    /// Who has to say the shop's passphrase.
    pub asks: Asks,
    /// Pages go over TLS, with a certificate of the shop's own, which is handed out on this port.
    pub tls: Option<u16>,
}

/// Simulated thermocouples lie on the parts.
#[derive(Debug, Clone, Copy)]
pub struct StandIns(pub bool);

/// How often it is looked whether the copy of the day is there.
const COPY_EVERY: Duration = Duration::from_secs(600);
/// How often what was written last is taken into the one file, and how often the clocks are compared.
const GATHER_EVERY: Duration = Duration::from_secs(60);
const COMPARE_EVERY: Duration = Duration::from_secs(2);

/// The whole application, as it stands behind its front: it is launched on this machine alone, on any port.
///
/// # Errors
/// The data folder cannot be used: in use by another server, written by a newer version, or not
/// writable.
pub async fn rocket(config: Config) -> anyhow::Result<Rocket<Build>> {
    Ok(pages(config).await?.0)
}

/// The whole application, and what it shows under TLS.
async fn pages(config: Config) -> anyhow::Result<(Rocket<Build>, Option<Certificates>)> {
    let database = database::open(&config.data, config.most_mb).await?;
    let jobs = JobService::new(database, config.clock);
    if config.demo {
        sample::fill_if_empty(&jobs).await?;
    }
    rack::upkeep::begin(&jobs).await?;
    let shown = config.tls.map(|_| certificates(&config.data.join("tls"), &own_addresses())).transpose()?;
    let trust = shown
        .as_ref()
        .zip(config.tls)
        .map(|(shown, port)| Trust { authority: shown.authority.clone(), port });
    let (door, made) = Door::of(jobs.database.clone(), jobs.clock.clone(), config.asks).await?;
    let copies = config.copies.then(|| config.data.clone());
    let thermocouples = Thermocouples::new(config.stand_ins)?;
    let upkeep = Upkeep([
        tokio::spawn(jobs.clone().tend_practices()),
        tokio::spawn(upkeep(jobs.clone(), copies)),
        tokio::spawn(rack::upkeep::upkeep(jobs.clone())),
        tokio::spawn(stores::keep(jobs.clone())),
    ]);
    let figment = rocket::Config::figment()
        .merge(("address", Ipv4Addr::LOCALHOST))
        .merge(("port", 0))
        .merge(("log_level", "off"))
        .merge(("shutdown.grace", 1))
        .merge(("shutdown.mercy", 1))
        .merge(("cli_colors", false));
    let reached = ServerAddresses::at(config.address, config.port, config.tls);
    let said = told_at_the_start(&reached, made.as_deref());
    let built = rocket::custom(figment)
        .manage(jobs)
        .manage(thermocouples)
        .manage(door)
        .manage(upkeep)
        .manage(trust)
        .manage(reached)
        .manage(StandIns(config.stand_ins))
        .manage(picture::route::Counter::new())
        .manage(job_file::OneFile::new())
        .attach(door::origin_guard::OriginGuard)
        .attach(door::headers::Headers)
        .attach(AdHoc::on_liftoff("address", move |_| {
            Box::pin(async move {
                // Whoever started it may have closed its ears: that is no reason to stop.
                let _ = std::io::stdout().write_all(said.as_bytes());
            })
        }))
        .attach(AdHoc::on_liftoff("thermocouples", |rocket| {
            Box::pin(async move {
                if let (Some(pads), Some(jobs)) =
                    (rocket.state::<Thermocouples>(), rocket.state::<JobService>())
                {
                    pads.begin(jobs.clone(), rocket.config().port);
                }
            })
        }))
        .attach(AdHoc::on_shutdown("thermocouples", |rocket| {
            Box::pin(async move {
                if let Some(thermocouples) = rocket.state::<Thermocouples>() {
                    thermocouples.stop().await;
                }
            })
        }));
    Ok((mounted(built), shown))
}

/// Every address it answers at.
fn mounted(built: Rocket<Build>) -> Rocket<Build> {
    built
        .mount(
            "/api",
            routes![
                health::health,
                openapi::openapi,
                door::origin_guard::refused,
                door::origin_guard::refused_to_read,
                door::origin_guard::closed,
                door::origin_guard::closed_to_read,
                door::origin_guard::helps,
                door::origin_guard::helps_to_read
            ],
        )
        .mount(
            "/api/door",
            routes![
                door::route::show,
                door::route::come_in,
                door::route::set_passphrase,
                door::route::turn_out,
                door::route::invite,
                door::route::helped
            ],
        )
        .mount("/api/reckon", reckon::routes())
        .mount("/api/reckoner", reckoner::routes())
        .mount("/api/ledger", ledger::routes())
        .mount(
            "/api",
            routes![
                wire::tables::tables,
                reach::route::address,
                job::route::blank,
                calendar::of_the_shop,
                shop::device_units::choose_units
            ],
        )
        .mount("/api", practice::routes())
        .mount("/api/rack", routes![rack::route::rack])
        .mount(
            "/api/jobs",
            routes![
                job::route::create,
                job::route::show,
                job::route::add_fact,
                job::route::history,
                job::route::copy,
                job::route::let_go,
                job::route::what_if,
                job::route::as_if,
                job::route::would_be_first,
                job::opened::way,
                job::opened::figure,
                job::opened::rehearsal,
                job::label::label_code,
                job::face_heat::face_heated,
                job::face_heat::face_warms,
                job::face_heat::face_as_logged,
                job::face_heat::face_cools,
                job::face_heat::face_carries,
                job::face_heat::beginnings,
                job::face_heat::seams_pull,
                job::odds_moved::odds_moved,
                job::oven::oven,
                job::oven::oven_program,
                calendar::of_a_job,
                calendar::hands_of_a_job,
                picture::route::take_picture,
                picture::route::show_picture,
                picture::route::show_small_picture,
                map::route::face_picture,
                map::route::trace,
                map::route::face_file,
                map::route::face_pages,
                job_file::export,
                job::stream::stream,
                logger::bring_in::bring_in_readings,
                logger::route::log_readings,
            ],
        )
        .mount("/api/import", routes![job_file::import])
        .mount("/api/shop", routes![shop::route::show, shop::route::change])
        .mount("/api/stores", routes![stores::route::show, stores::route::buying])
        .register("/api", api_error::catchers())
        .mount("/", routes![web::file, web::index])
}

/// Where it is found, and how others come in.
fn told_at_the_start(reached: &ServerAddresses, made: Option<&str>) -> String {
    let mut said = format!("Vanadin is on {}\n", reached.pages[0]);
    if let Some(made) = made {
        said +=
            &format!("The shop's passphrase is {made}: other devices are asked for it. Change it in Shop.\n");
    }
    for url in &reached.pages[1..] {
        said += &format!("and on {url}\n");
    }
    let first = reached.trust.first().or(reached.pages.first());
    if let Some(url) = first.filter(|_| reached.by_others) {
        said += &match reached.trust.first() {
            Some(trust) => format!("A device that is new here begins at {trust}\n"),
            None => "A phone in the shop's network finds it by this:\n".to_owned(),
        };
        said += &qr::lines(url).map_or_else(String::new, |lines| lines + "\n");
    }
    said
}

/// What is done beside the answers, until this is dropped.
struct Upkeep([tokio::task::JoinHandle<()>; 4]);

impl Drop for Upkeep {
    fn drop(&mut self) {
        self.0.iter().for_each(tokio::task::JoinHandle::abort);
    }
}

/// Looks at the computer's clock, and keeps the one file whole.
async fn upkeep(jobs: JobService, copies: Option<PathBuf>) {
    let mut compare = tokio::time::interval(COMPARE_EVERY);
    let mut gather = tokio::time::interval(GATHER_EVERY);
    let mut copy = tokio::time::interval(COPY_EVERY);
    gather.tick().await;
    while !jobs.database.pool.is_closed() {
        tokio::select! {
            _ = compare.tick() => {
                if jobs.clock.compare() {
                    jobs.notify(job_service::News::Clock);
                }
            }
            _ = copy.tick() => {
                if let Some(folder) = &copies {
                    let made = keep::keep_daily(folder, jobs.now_ms()).await;
                    let words = made.err().map(|error| format!("The copy of the day cannot be made: {error:#}."));
                    if let Some(words) = &words {
                        eprintln!("vanadin: {words}");
                    }
                    jobs.set_notice(Matter::Copies, words);
                }
            }
            _ = gather.tick() => {
                if let Err(error) = jobs.database.checkpoint().await {
                    eprintln!("vanadin: what was written last stays beside the data file: {error}");
                }
            }
        }
    }
}

/// Serves until it is told to stop, then leaves everything in the one file.
///
/// # Errors
/// What [`rocket`] says, or the address cannot be taken.
pub async fn serve(mut config: Config) -> anyhow::Result<()> {
    let address = config.address;
    let taken = async |port| {
        let at = SocketAddr::new(address, port);
        TcpListener::bind(at).await.with_context(|| format!("{at} cannot be taken"))
    };
    let listener = taken(config.port).await?;
    config.port = listener.local_addr()?.port();
    let (built, shown) = pages(config).await?;
    let tls = shown.as_ref().map(proxy::acceptor).transpose()?;
    let trusting =
        built.state::<Option<Trust>>().cloned().flatten().zip(built.state::<ServerAddresses>().cloned());
    let room = ConnectionLimit::for_files(more_files());
    let front = Proxy {
        listener,
        tls,
        addresses: ClientAddresses::default(),
        timeouts: PATIENCE,
        room: room.clone(),
    };
    let ready = front.before(built).await?;
    // What hands out the certificate stops when the pages do.
    let handing_out = match trusting {
        Some((trust, reached)) => {
            let listener = taken(trust.port).await?;
            let front = Proxy {
                listener,
                tls: None,
                addresses: ClientAddresses::default(),
                timeouts: PATIENCE,
                room,
            };
            let page = front.before(trust_page::rocket(trust, reached)).await?;
            let stop = page.shutdown();
            let handing_out = tokio::spawn(async move {
                if let Err(error) = page.launch().await {
                    eprintln!("vanadin: new devices cannot load the certificate: {error}");
                }
            });
            Some((stop, handing_out))
        }
        None => None,
    };
    let served = ready.launch().await;
    if let Some((stop, page)) = handing_out {
        stop.notify();
        page.await?;
    }
    left(&served?).await;
    Ok(())
}

/// Gathers everything in the one file and closes it, once nothing is served any more: from then on the folder
/// may be anybody's.
pub async fn left(served: &Rocket<Ignite>) {
    if let Some(jobs) = served.state::<JobService>() {
        jobs.database.close().await;
    }
}
