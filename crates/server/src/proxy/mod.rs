//! TCP and TLS proxy before the pages: it waits for the head of a request, and not for ever.
//!
//! Rocket 0.5 keeps a connection whose request never becomes whole until the other side closes it, and has no
//! switch for it. So a connection is taken here, its first head is awaited, and only then it is carried on
//! to the pages, byte by byte; what may stall is looked at on its way. The pages listen on this machine
//! alone and hear from [`ClientAddresses`] who is behind a connection: no header says it, so none can lie.
//!
//! HTTP/1.1 alone: where heads begin and end is known in it.

mod client_addresses;
mod connection_limit;
mod head_tracker;
mod relay;

use std::net::{Ipv4Addr, SocketAddr};
use std::sync::Arc;
use std::time::Duration;

use anyhow::Context;
use rocket::fairing::AdHoc;
use rocket::{Build, Ignite, Rocket, Shutdown};
use rustls::pki_types::pem::PemObject;
use rustls::pki_types::{CertificateDer, PrivateKeyDer};
use tokio::io::{AsyncRead, AsyncWrite};
use tokio::net::{TcpListener, TcpStream};
use tokio::sync::oneshot;
use tokio::task::{JoinHandle, JoinSet};
use tokio::time::timeout;
use tokio_rustls::TlsAcceptor;

use crate::reach::certificate::Certificates;
pub use client_addresses::ClientAddresses;
pub use connection_limit::{ConnectionLimit, more_files, network};
use relay::carry;

/// Timeouts of the other side.
#[derive(Debug, Clone, Copy)]
pub struct Timeouts {
    /// For a greeting under TLS, and for a request's head.
    pub head: Duration,
    /// From the last word of a question until it is answered.
    pub answer: Duration,
    /// To take a piece of an answer.
    pub taking: Duration,
    /// Without a word, once something was answered.
    pub idle: Duration,
}

/// House: as long as a body may stall; a phone that was asleep opens a new connection.
pub const PATIENCE: Timeouts = Timeouts {
    head: Duration::from_secs(15),
    answer: Duration::from_secs(60),
    taking: Duration::from_secs(60),
    idle: Duration::from_secs(120),
};

/// What is on its way has so long when the pages stop.
const LAST_WORDS: Duration = Duration::from_secs(1);
/// No more connections can be had: some will have ended by then.
const FULL: Duration = Duration::from_millis(50);

const NO_ROOM: &[u8] =
    b"HTTP/1.1 503 Service Unavailable\r\nRetry-After: 5\r\nConnection: close\r\nContent-Length: 0\r\n\r\n";

/// The listener that others reach, with what is behind it.
pub struct Proxy {
    pub listener: TcpListener,
    pub tls: Option<TlsAcceptor>,
    pub addresses: ClientAddresses,
    pub timeouts: Timeouts,
    pub room: ConnectionLimit,
}

impl Proxy {
    /// Makes an application ready, to be reached through this proxy alone.
    ///
    /// # Errors
    /// The application is not sound.
    pub async fn before(self, application: Rocket<Build>) -> Result<Ready, rocket::Error> {
        let (lifted, pages) = oneshot::channel();
        let known = AdHoc::on_liftoff("front", move |rocket| {
            let at = SocketAddr::from((Ipv4Addr::LOCALHOST, rocket.config().port));
            // Where nobody carries any more, it is not launched for long either.
            let _ = lifted.send(at);
            Box::pin(async {})
        });
        let application = application.manage(self.addresses.clone()).attach(known).ignite().await?;
        let stop = application.shutdown();
        let carrying = tokio::spawn(async move {
            if let Ok(pages) = pages.await {
                self.serve(pages, stop).await;
            }
        });
        Ok(Ready { application, carrying })
    }

    /// Relays everything to the pages at this address, until it is told to stop.
    pub async fn serve(self, pages: SocketAddr, stop: impl Future<Output = ()>) {
        let mut carried = JoinSet::new();
        tokio::pin!(stop);
        loop {
            tokio::select! {
                () = &mut stop => break,
                taken = self.listener.accept() => match taken {
                    Ok((stream, from)) => match self.room.take(from.ip()) {
                        Some(place) => {
                            let (tls, addresses) = (self.tls.clone(), self.addresses.clone());
                            let timeouts = self.timeouts;
                            carried.spawn(async move {
                                take(stream, from, pages, tls, addresses, timeouts).await;
                                drop(place);
                            });
                        }
                        // Whoever it is hears it where nothing has to be waited for, and is let go.
                        None => drop(stream.try_write(NO_ROOM)),
                    },
                    Err(_) => tokio::time::sleep(FULL).await,
                },
                Some(_) = carried.join_next() => {}
            }
        }
        drop(self.listener);
        let all = async { while carried.join_next().await.is_some() {} };
        // What does not end by itself ends with the set.
        let _ = timeout(LAST_WORDS, all).await;
    }
}

/// An application with its proxy.
pub struct Ready {
    application: Rocket<Ignite>,
    carrying: JoinHandle<()>,
}

impl Ready {
    pub fn shutdown(&self) -> Shutdown {
        self.application.shutdown()
    }

    /// Serves until it is told to stop, and what is on its way has gone.
    ///
    /// # Errors
    /// It cannot be launched.
    pub async fn launch(self) -> anyhow::Result<Rocket<Ignite>> {
        let served = self.application.launch().await?;
        self.carrying.await?;
        Ok(served)
    }
}

/// One connection, from its greeting to its end.
async fn take(
    stream: TcpStream,
    from: SocketAddr,
    pages: SocketAddr,
    tls: Option<TlsAcceptor>,
    addresses: ClientAddresses,
    timeouts: Timeouts,
) {
    // Whatever goes wrong on the way goes wrong for this one device, which sees its connection end.
    let _ = async {
        stream.set_nodelay(true)?;
        let mut client: Box<dyn Stream> = match tls {
            Some(tls) => Box::new(timeout(timeouts.head, tls.accept(stream)).await??),
            None => Box::new(stream),
        };
        carry(&mut client, from, pages, &addresses, timeouts).await
    }
    .await;
}

trait Stream: AsyncRead + AsyncWrite + Unpin + Send {}
impl<T: AsyncRead + AsyncWrite + Unpin + Send> Stream for T {}

/// What greets under TLS, with the shop's certificate.
///
/// # Errors
/// The certificate or its key cannot be read.
pub fn acceptor(shown: &Certificates) -> anyhow::Result<TlsAcceptor> {
    let chain = CertificateDer::pem_slice_iter(shown.chain.as_bytes()).collect::<Result<Vec<_>, _>>();
    let key = PrivateKeyDer::from_pem_slice(shown.key.as_bytes());
    let provider = Arc::new(rustls::crypto::ring::default_provider());
    let mut config = rustls::ServerConfig::builder_with_provider(provider)
        .with_safe_default_protocol_versions()?
        .with_no_client_auth()
        .with_single_cert(
            chain.context("the certificate cannot be read")?,
            key.context("its key cannot be read")?,
        )?;
    config.alpn_protocols = vec![b"http/1.1".to_vec()];
    Ok(TlsAcceptor::from(Arc::new(config)))
}

#[cfg(test)]
mod tests {
    use rstest::rstest;
    use tokio::io::{AsyncReadExt, AsyncWriteExt};

    use super::*;

    const SHORT: Timeouts = Timeouts {
        head: Duration::from_millis(300),
        answer: Duration::from_millis(600),
        taking: Duration::from_secs(5),
        idle: Duration::from_millis(300),
    };

    /// A proxy before pages that answer each head with who is behind it.
    async fn front() -> SocketAddr {
        let pages = TcpListener::bind((Ipv4Addr::LOCALHOST, 0)).await.unwrap();
        let listener = TcpListener::bind((Ipv4Addr::LOCALHOST, 0)).await.unwrap();
        let (at, behind) = (listener.local_addr().unwrap(), pages.local_addr().unwrap());
        let addresses = ClientAddresses::default();
        let room = ConnectionLimit::of(120, 110);
        let front = Proxy { listener, tls: None, addresses: addresses.clone(), timeouts: SHORT, room };
        tokio::spawn(front.serve(behind, std::future::pending()));
        tokio::spawn(async move {
            loop {
                let (mut asked, carried) = pages.accept().await.unwrap();
                let addresses = addresses.clone();
                tokio::spawn(async move {
                    let mut heard = [0; 1024];
                    loop {
                        let read = asked.read(&mut heard).await.unwrap_or(0);
                        if read == 0 {
                            return;
                        }
                        if !heard[..read].ends_with(b"\r\n\r\n") {
                            continue;
                        }
                        let body = addresses.behind(carried).unwrap().to_string();
                        let answer =
                            format!("HTTP/1.1 200 OK\r\nContent-Length: {}\r\n\r\n{body}", body.len());
                        asked.write_all(answer.as_bytes()).await.unwrap();
                    }
                });
            }
        });
        at
    }

    async fn rest(stream: &mut TcpStream) -> String {
        let mut said = String::new();
        stream.read_to_string(&mut said).await.unwrap();
        said
    }

    #[rstest]
    #[case::half_a_head("GET / HTTP/1.1\r\nHost: a\r\n", "HTTP/1.1 408")]
    #[case::nothing("", "")]
    #[tokio::test]
    async fn a_connection_that_stalls_ends(#[case] sent: &str, #[case] told: &str) {
        let mut stream = TcpStream::connect(front().await).await.unwrap();
        stream.write_all(sent.as_bytes()).await.unwrap();
        let said = rest(&mut stream).await;
        assert!(said.starts_with(told) && said.is_empty() == told.is_empty(), "{said}");
    }

    #[tokio::test]
    async fn a_second_head_that_stalls_ends_the_connection_too() {
        let mut stream = TcpStream::connect(front().await).await.unwrap();
        let me = stream.local_addr().unwrap();
        stream.write_all(b"GET / HTTP/1.1\r\nHost: a\r\n\r\n").await.unwrap();
        let mut answer = [0; 1024];
        let read = stream.read(&mut answer).await.unwrap();
        let answer = String::from_utf8_lossy(&answer[..read]);
        assert!(answer.starts_with("HTTP/1.1 200") && answer.ends_with(&me.to_string()), "{answer}");
        stream.write_all(b"GET /").await.unwrap();
        assert!(rest(&mut stream).await.starts_with("HTTP/1.1 408"));
    }

    #[tokio::test]
    async fn a_connection_that_says_no_more_ends_without_a_word() {
        let mut stream = TcpStream::connect(front().await).await.unwrap();
        stream.write_all(b"GET / HTTP/1.1\r\n\r\n").await.unwrap();
        let said = rest(&mut stream).await;
        // What it answers ends with a port of this machine: any figure may be in that.
        assert!(said.starts_with("HTTP/1.1 200") && !said.contains("HTTP/1.1 408"), "{said}");
    }

    #[rstest]
    #[case::before_the_pages_hear_of_it("POST / HTTP/1.1\r\nContent-Length: 99\r\n\r\nx")]
    #[case::a_get_with_a_body("GET / HTTP/1.1\r\nContent-Length: 99\r\n\r\nx")]
    #[case::that_waits_to_be_let_go_on(
        "POST / HTTP/1.1\r\nExpect: 100-continue\r\nContent-Length: 9\r\n\r\nx"
    )]
    #[tokio::test]
    async fn a_whole_head_whose_body_stops_ends_too(#[case] sent: &str) {
        let mut stream = TcpStream::connect(front().await).await.unwrap();
        stream.write_all(sent.as_bytes()).await.unwrap();
        assert!(rest(&mut stream).await.starts_with("HTTP/1.1 408"));
    }

    #[tokio::test]
    async fn one_address_leaves_room_for_the_others_and_is_told() {
        let at = front().await;
        let mut held = Vec::new();
        for _ in 0..110 {
            let mut stream = TcpStream::connect(at).await.unwrap();
            stream.write_all(b"GET /").await.unwrap();
            held.push(stream);
        }
        let mut one_more = TcpStream::connect(at).await.unwrap();
        assert!(rest(&mut one_more).await.starts_with("HTTP/1.1 503"));
        drop(held);
    }

    #[tokio::test]
    async fn a_head_without_an_end_is_refused() {
        let mut stream = TcpStream::connect(front().await).await.unwrap();
        let line = "X: ".to_owned() + &"a".repeat(80_000);
        // It may be refused before all of it was sent.
        let _ = stream.write_all(line.as_bytes()).await;
        let mut told = [0; 12];
        stream.read_exact(&mut told).await.unwrap();
        assert_eq!(&told, b"HTTP/1.1 431");
    }

    #[tokio::test]
    async fn many_that_stall_hold_up_nobody() {
        let at = front().await;
        let mut stalled = Vec::new();
        for _ in 0..100 {
            let mut stream = TcpStream::connect(at).await.unwrap();
            stream.write_all(b"GET /").await.unwrap();
            stalled.push(stream);
        }
        let mut stream = TcpStream::connect(at).await.unwrap();
        stream.write_all(b"GET / HTTP/1.1\r\n\r\n").await.unwrap();
        let mut told = [0; 12];
        stream.read_exact(&mut told).await.unwrap();
        assert_eq!(&told, b"HTTP/1.1 200");
    }
}
