//! A certificate authority of the shop's own, and the certificate that the server shows.
//!
//! The authority is made once and kept; it may only speak for this machine and for addresses of a network of
//! one's own, so that whoever steals it can pass for nothing else. The server's own certificate is made at
//! each start, for the addresses it has then.
//!
//! # Source
//! RFC 5280 (name constraints, extended key usage); a certificate of a server lasts 825 days at the most with
//! the phones there are: house 800.

use std::fs;
use std::io::Write;
use std::net::IpAddr;
use std::path::Path;

use anyhow::Context;
use rcgen::{
    BasicConstraints, CertificateParams, CidrSubnet, DistinguishedName, DnType, ExtendedKeyUsagePurpose,
    GeneralSubtree, IsCa, Issuer, KeyPair, KeyUsagePurpose, NameConstraints, SanType,
};
use rocket::time::{Duration, OffsetDateTime};

/// What the server shows, and what a device has to trust.
pub struct Certificates {
    /// The server's certificate and the authority's, PEM.
    pub chain: String,
    /// The server's key, PEM.
    pub key: String,
    /// The authority's certificate, PEM.
    pub authority: String,
}

const AUTHORITY: &str = "authority.pem";
const AUTHORITY_KEY: &str = "authority-key.pem";
const AUTHORITY_DAYS: i64 = 3_650;
const SERVER_DAYS: i64 = 800;

/// The networks that anybody may use for their own, this machine, and what a wire gives by itself.
const OWN: [(IpAddr, u8); 8] = {
    use std::net::{Ipv4Addr as V4, Ipv6Addr as V6};
    [
        (IpAddr::V4(V4::new(127, 0, 0, 0)), 8),
        (IpAddr::V4(V4::new(10, 0, 0, 0)), 8),
        (IpAddr::V4(V4::new(172, 16, 0, 0)), 12),
        (IpAddr::V4(V4::new(192, 168, 0, 0)), 16),
        (IpAddr::V4(V4::new(169, 254, 0, 0)), 16),
        (IpAddr::V6(V6::LOCALHOST), 128),
        (IpAddr::V6(V6::new(0xfc00, 0, 0, 0, 0, 0, 0, 0)), 7),
        (IpAddr::V6(V6::new(0xfe80, 0, 0, 0, 0, 0, 0, 0)), 10),
    ]
};

/// The authority that lies in a folder, made where there is none, and a new certificate of it for these
/// addresses and this machine.
///
/// # Errors
/// The folder cannot be read or written, or what lies in it is no authority.
pub fn certificates(folder: &Path, addresses: &[IpAddr]) -> anyhow::Result<Certificates> {
    fs::create_dir_all(folder).with_context(|| format!("{} cannot be made", folder.display()))?;
    let (at, key_at) = (folder.join(AUTHORITY), folder.join(AUTHORITY_KEY));
    if !key_at.exists() {
        let key = KeyPair::generate()?;
        let made = authority().self_signed(&key)?;
        // The key last: without it the other counts for nothing.
        write(&at, made.pem().as_bytes())?;
        write(&key_at, key.serialize_pem().as_bytes())?;
    }
    let read =
        |path: &Path| fs::read_to_string(path).with_context(|| format!("{} cannot be read", path.display()));
    let (authority_pem, key) = (read(&at)?, read(&key_at)?);
    let key = KeyPair::from_pem(&key).with_context(|| format!("{} is no key", key_at.display()))?;
    let issuer = Issuer::new(authority(), key);
    let own_key = KeyPair::generate()?;
    let own = server(addresses)?.signed_by(&own_key, &issuer)?;
    Ok(Certificates {
        chain: format!("{}{authority_pem}", own.pem()),
        key: own_key.serialize_pem(),
        authority: authority_pem,
    })
}

fn named(name: &str) -> DistinguishedName {
    let mut names = DistinguishedName::new();
    names.push(DnType::CommonName, name);
    names
}

fn from_yesterday(params: &mut CertificateParams, days: i64) {
    let yesterday = OffsetDateTime::now_utc() - Duration::days(1);
    (params.not_before, params.not_after) = (yesterday, yesterday + Duration::days(days));
}

fn authority() -> CertificateParams {
    let mut params = CertificateParams::default();
    params.distinguished_name = named("Vanadin, this shop");
    params.is_ca = IsCa::Ca(BasicConstraints::Constrained(0));
    params.key_usages = vec![KeyUsagePurpose::KeyCertSign, KeyUsagePurpose::CrlSign];
    let networks =
        OWN.iter().map(|(ip, bits)| GeneralSubtree::IpAddress(CidrSubnet::from_addr_prefix(*ip, *bits)));
    let mut permitted: Vec<GeneralSubtree> = networks.collect();
    permitted.push(GeneralSubtree::DnsName("localhost".to_owned()));
    params.name_constraints =
        Some(NameConstraints { permitted_subtrees: permitted, excluded_subtrees: Vec::new() });
    from_yesterday(&mut params, AUTHORITY_DAYS);
    params
}

fn server(addresses: &[IpAddr]) -> anyhow::Result<CertificateParams> {
    let mut params = CertificateParams::new(vec!["localhost".to_owned()])?;
    let this = [IpAddr::from([127, 0, 0, 1]), IpAddr::from([0, 0, 0, 0, 0, 0, 0, 1])];
    let mut ips: Vec<IpAddr> =
        this.into_iter().chain(addresses.iter().copied()).filter(|ip| speaks_for(*ip)).collect();
    ips.sort();
    ips.dedup();
    params.subject_alt_names.extend(ips.into_iter().map(SanType::IpAddress));
    params.distinguished_name = named("Vanadin");
    params.key_usages = vec![KeyUsagePurpose::DigitalSignature];
    params.extended_key_usages = vec![ExtendedKeyUsagePurpose::ServerAuth];
    params.use_authority_key_identifier_extension = true;
    from_yesterday(&mut params, SERVER_DAYS);
    Ok(params)
}

/// The authority may speak for this address: it is of a network of one's own.
#[must_use]
pub fn speaks_for(ip: IpAddr) -> bool {
    OWN.iter().any(|(network, bits)| lies_in(ip, *network, *bits))
}

fn bits_of(ip: IpAddr) -> (u128, u8) {
    match ip {
        IpAddr::V4(ip) => (u128::from(ip.to_bits()) << 96, 32),
        IpAddr::V6(ip) => (ip.to_bits(), 128),
    }
}

fn lies_in(ip: IpAddr, network: IpAddr, bits: u8) -> bool {
    let ((ip, length), (network, of)) = (bits_of(ip), bits_of(network));
    length == of && (ip ^ network).leading_zeros() >= u32::from(bits)
}

/// Writes a file that nobody else on this machine reads, whole or not at all.
fn write(path: &Path, bytes: &[u8]) -> anyhow::Result<()> {
    let half = path.with_extension("half");
    let mut options = fs::OpenOptions::new();
    options.write(true).create(true).truncate(true);
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut options, 0o600);
    let told = || format!("{} cannot be written", path.display());
    let mut file = options.open(&half).with_context(told)?;
    file.write_all(bytes).and_then(|()| file.sync_all()).with_context(told)?;
    fs::rename(&half, path).with_context(told)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case::inside("192.168.7.1", true)]
    #[case::just_inside("172.31.255.255", true)]
    #[case::just_outside("172.32.0.0", false)]
    #[case::the_world("203.0.113.9", false)]
    #[case::own_in_six("fd12::1", true)]
    #[case::the_world_in_six("2001:db8::1", false)]
    fn it_speaks_for_a_network_of_ones_own_alone(#[case] ip: &str, #[case] may: bool) {
        let ip: IpAddr = ip.parse().unwrap();
        assert_eq!(speaks_for(ip), may);
        let names = server(&[ip]).unwrap().subject_alt_names;
        assert_eq!(names.contains(&SanType::IpAddress(ip)), may);
    }

    #[test]
    fn the_authority_is_made_once_and_its_key_is_nobody_elses() {
        let folder = tempfile::tempdir().unwrap();
        let first = certificates(folder.path(), &[]).unwrap();
        let second = certificates(folder.path(), &[IpAddr::from([192, 168, 1, 20])]).unwrap();
        assert_eq!(first.authority, second.authority);
        assert_ne!(first.chain, second.chain, "the server's own is made anew");
        #[cfg(unix)]
        {
            use std::os::unix::fs::PermissionsExt;
            let mode = fs::metadata(folder.path().join(AUTHORITY_KEY)).unwrap().permissions().mode();
            assert_eq!(mode & 0o077, 0, "{mode:o}");
        }
    }

    #[test]
    fn a_torn_key_is_told_and_not_replaced() {
        let folder = tempfile::tempdir().unwrap();
        certificates(folder.path(), &[]).unwrap();
        fs::write(folder.path().join(AUTHORITY_KEY), "half a k").unwrap();
        let error = certificates(folder.path(), &[]).err().unwrap().to_string();
        assert!(error.contains(AUTHORITY_KEY), "{error}");
    }
}
