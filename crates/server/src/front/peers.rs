//! Who is behind a connection that the front carries to the pages.

use std::collections::HashMap;
use std::net::SocketAddr;
use std::sync::{Arc, Mutex, PoisonError};

use rocket::Request;

/// The devices behind the connections that are carried, by the address each of these has on this machine.
#[derive(Debug, Clone, Default)]
pub struct Peers(Arc<Mutex<HashMap<SocketAddr, SocketAddr>>>);

impl Peers {
    /// This connection is carried for that device, for as long as what is given lives.
    #[must_use]
    pub fn name(&self, carried: SocketAddr, device: SocketAddr) -> Named {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).insert(carried, device);
        Named { peers: self.clone(), carried }
    }

    pub(super) fn behind(&self, carried: SocketAddr) -> Option<SocketAddr> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).get(&carried).copied()
    }

    /// Where a request comes from. Nobody is known behind a connection that goes past the front.
    #[must_use]
    pub fn of(request: &Request<'_>) -> Option<SocketAddr> {
        let remote = request.remote()?;
        match request.rocket().state::<Self>() {
            Some(peers) => peers.behind(remote),
            None => Some(remote),
        }
    }
}

/// A connection that has a name.
#[derive(Debug)]
pub struct Named {
    peers: Peers,
    carried: SocketAddr,
}

impl Drop for Named {
    fn drop(&mut self) {
        self.peers.0.lock().unwrap_or_else(PoisonError::into_inner).remove(&self.carried);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_device_is_known_while_its_connection_lives() {
        let peers = Peers::default();
        let at = |port| SocketAddr::from(([127, 0, 0, 1], port));
        let device = SocketAddr::from(([192, 168, 1, 9], 50_000));
        let named = peers.name(at(1), device);
        assert_eq!(peers.behind(at(1)), Some(device));
        assert_eq!(peers.behind(at(2)), None);
        drop(named);
        assert_eq!(peers.behind(at(1)), None);
    }
}
