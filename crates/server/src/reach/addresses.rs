//! The addresses at which other devices reach this one.

use std::net::{IpAddr, SocketAddr};

use super::certificate::speaks_for;

/// How a server is reached.
#[derive(Debug, Clone)]
pub struct ServerAddresses {
    /// Where other devices open the pages, the likeliest first; where there are none, this machine alone.
    pub pages: Vec<String>,
    /// Where a device comes to trust the shop's certificate; empty where that is not needed.
    pub trust: Vec<String>,
    /// Other devices reach it.
    pub by_others: bool,
    pub tls: bool,
}

impl ServerAddresses {
    /// How a server on this address is reached: one on every address, by each of this machine's own.
    #[must_use]
    pub fn at(address: IpAddr, port: u16, trust_port: Option<u16>) -> Self {
        let found = if address.is_unspecified() { own_addresses() } else { vec![address] };
        let tls = trust_port.is_some();
        // Over TLS only where the certificate holds.
        let holds = |ip: &IpAddr| !ip.is_loopback() && (!tls || speaks_for(*ip));
        let others: Vec<IpAddr> = found.into_iter().filter(holds).collect();
        let by_others = !others.is_empty();
        let ips = match (by_others, address.is_loopback()) {
            (true, _) => others,
            (false, true) => vec![address],
            (false, false) => vec![IpAddr::from([127, 0, 0, 1])],
        };
        let scheme = if tls { "https" } else { "http" };
        let urls = |scheme: &str, port: u16| {
            ips.iter().map(|ip| format!("{scheme}://{}", SocketAddr::new(*ip, port))).collect()
        };
        Self {
            pages: urls(scheme, port),
            trust: trust_port.map_or_else(Vec::new, |port| urls("http", port)),
            by_others,
            tls,
        }
    }
}

/// This machine's own addresses, those that an ordinary shop network gives first. One that only lasts
/// for a connection, or is of this one wire alone, nobody types into a phone.
#[must_use]
pub fn own_addresses() -> Vec<IpAddr> {
    let mut found: Vec<IpAddr> =
        if_addrs::get_if_addrs().unwrap_or_default().into_iter().map(|interface| interface.ip()).collect();
    found.retain(|ip| !ip.is_loopback() && !of_one_wire(*ip));
    found.sort_by_key(|ip| (ip.is_ipv6(), !in_a_shop(*ip), *ip));
    found.dedup();
    found
}

fn of_one_wire(ip: IpAddr) -> bool {
    match ip {
        IpAddr::V4(ip) => ip.is_link_local(),
        IpAddr::V6(ip) => ip.is_unicast_link_local(),
    }
}

/// An address of the networks that are free for anybody's own use.
fn in_a_shop(ip: IpAddr) -> bool {
    match ip {
        IpAddr::V4(ip) => ip.is_private(),
        IpAddr::V6(ip) => ip.is_unique_local(),
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case::this_machine("127.0.0.1", None, &["http://127.0.0.1:8420"], &[], false)]
    #[case::one_address("192.168.1.20", None, &["http://192.168.1.20:8420"], &[], true)]
    #[case::with_tls("192.168.1.20", Some(8421), &["https://192.168.1.20:8420"], &["http://192.168.1.20:8421"], true)]
    #[case::with_tls_where_it_does_not_hold("203.0.113.9", Some(8421), &["https://127.0.0.1:8420"], &["http://127.0.0.1:8421"], false)]
    #[case::in_six("fd00::20", None, &["http://[fd00::20]:8420"], &[], true)]
    fn it_says_where_it_is_reached(
        #[case] address: &str,
        #[case] trust_port: Option<u16>,
        #[case] pages: &[&str],
        #[case] trust: &[&str],
        #[case] by_others: bool,
    ) {
        let reached = ServerAddresses::at(address.parse().unwrap(), 8420, trust_port);
        assert_eq!((&reached.pages[..], reached.by_others), (&pages.map_to_strings()[..], by_others));
        assert_eq!(reached.trust, trust.map_to_strings());
    }

    #[test]
    fn on_every_address_it_names_those_of_this_machine() {
        let reached = ServerAddresses::at(IpAddr::from([0, 0, 0, 0]), 8420, None);
        assert!(!reached.pages.is_empty());
        assert!(reached.pages.iter().all(|url| !url.contains("0.0.0.0")), "{:?}", reached.pages);
    }

    trait MapToStrings {
        fn map_to_strings(&self) -> Vec<String>;
    }
    impl MapToStrings for &[&str] {
        fn map_to_strings(&self) -> Vec<String> {
            self.iter().map(|&text| text.to_owned()).collect()
        }
    }
}
