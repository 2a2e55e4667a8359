//! The shop's own certificate: trusted it holds, not trusted it does not.

use std::io::{Read, Write};
use std::net::{Ipv4Addr, TcpStream};
use std::sync::Arc;

use anyhow::Context;
use rustls::pki_types::pem::PemObject;
use rustls::pki_types::{CertificateDer, IpAddr, ServerName};
use rustls::{ClientConfig, ClientConnection, RootCertStore, StreamOwned};
use vanadin_e2e::Server;

/// One request, and all that is answered.
fn asked(stream: &mut (impl Read + Write), head: &str, body: &str) -> anyhow::Result<String> {
    write!(
        stream,
        "{head} HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\nContent-Type: application/json\r\n\
         Content-Length: {}\r\n\r\n{body}",
        body.len()
    )?;
    let mut answer = Vec::new();
    // A server may end the connection without a farewell.
    match stream.read_to_end(&mut answer) {
        Err(error) if error.kind() != std::io::ErrorKind::UnexpectedEof => return Err(error.into()),
        Ok(_) | Err(_) => {}
    }
    Ok(String::from_utf8_lossy(&answer).into_owned())
}

fn secure(port: u16, trusted: RootCertStore) -> anyhow::Result<StreamOwned<ClientConnection, TcpStream>> {
    let provider = Arc::new(rustls::crypto::ring::default_provider());
    let config = ClientConfig::builder_with_provider(provider)
        .with_safe_default_protocol_versions()?
        .with_root_certificates(trusted)
        .with_no_client_auth();
    let name = ServerName::IpAddress(IpAddr::V4(Ipv4Addr::LOCALHOST.into()));
    let stream = TcpStream::connect((Ipv4Addr::LOCALHOST, port))?;
    Ok(StreamOwned::new(ClientConnection::new(Arc::new(config), name)?, stream))
}

#[test]
fn a_device_that_trusts_the_shops_certificate_comes_in_over_tls() -> anyhow::Result<()> {
    let server = Server::start_with_tls()?;
    let trust_port = server.trust_port.context("nothing hands out the certificate")?;
    let plain = || TcpStream::connect((Ipv4Addr::LOCALHOST, trust_port));
    let page = asked(&mut plain()?, "GET /", "")?;
    assert!(page.contains("Load the certificate") && page.contains("SHA-256"), "{page}");
    // Nothing of the shop is said over plain http.
    let elsewhere = asked(&mut plain()?, "GET /api/rack", "")?;
    assert!(elsewhere.starts_with("HTTP/1.1 303") && !elsewhere.contains("lines"), "{elsewhere}");
    let handed = asked(&mut plain()?, "GET /vanadin-shop.crt", "")?;
    let pem = handed.find("-----BEGIN").map(|at| &handed[at..]).context("no certificate")?;

    let mut trusted = RootCertStore::empty();
    trusted.add(CertificateDer::from_pem_slice(pem.as_bytes())?)?;
    let health = asked(&mut secure(server.port(), trusted.clone())?, "GET /api/door", "")?;
    assert!(health.starts_with("HTTP/1.1 200"), "{health}");
    let passphrase = server.passphrase.as_deref().context("none was made")?;
    let said = format!("{{\"passphrase\":\"{passphrase}\",\"name\":\"\"}}");
    let inside = asked(&mut secure(server.port(), trusted)?, "POST /api/door", &said)?;
    let cookie =
        inside.lines().find(|line| line.to_lowercase().starts_with("set-cookie")).context("no cookie")?;
    assert!(cookie.contains("Secure") && cookie.contains("HttpOnly"), "{cookie}");

    let stranger = asked(&mut secure(server.port(), RootCertStore::empty())?, "GET /api/door", "");
    assert!(stranger.is_err(), "{stranger:?}");
    Ok(())
}
