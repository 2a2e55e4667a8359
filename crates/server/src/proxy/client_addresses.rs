//! Client addresses: who is behind a connection that the proxy relays to the pages.

use std::collections::HashMap;
use std::net::SocketAddr;
use std::sync::{Arc, Mutex, PoisonError};

use rocket::Request;

/// Map from a relayed connection to its client, by the address each of these has on this machine.
#[derive(Debug, Clone, Default)]
pub struct ClientAddresses(Arc<Mutex<HashMap<SocketAddr, SocketAddr>>>);

impl ClientAddresses {
    /// This connection is carried for that device, for as long as what is given lives.
    #[must_use]
    pub fn name(&self, carried: SocketAddr, device: SocketAddr) -> Named {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).insert(carried, device);
        Named { addresses: self.clone(), carried }
    }

    pub(super) fn behind(&self, carried: SocketAddr) -> Option<SocketAddr> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).get(&carried).copied()
    }

    /// Where a request comes from. Nobody is known behind a connection that goes past the proxy.
    #[must_use]
    pub fn of(request: &Request<'_>) -> Option<SocketAddr> {
        let remote = request.remote()?;
        match request.rocket().state::<Self>() {
            Some(addresses) => addresses.behind(remote),
            None => Some(remote),
        }
    }
}

/// A connection that has a name.
#[derive(Debug)]
pub struct Named {
    addresses: ClientAddresses,
    carried: SocketAddr,
}

impl Drop for Named {
    fn drop(&mut self) {
        self.addresses.0.lock().unwrap_or_else(PoisonError::into_inner).remove(&self.carried);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_device_is_known_while_its_connection_lives() {
        let addresses = ClientAddresses::default();
        let at = |port| SocketAddr::from(([127, 0, 0, 1], port));
        let device = SocketAddr::from(([192, 168, 1, 9], 50_000));
        let named = addresses.name(at(1), device);
        assert_eq!(addresses.behind(at(1)), Some(device));
        assert_eq!(addresses.behind(at(2)), None);
        drop(named);
        assert_eq!(addresses.behind(at(1)), None);
    }
}
