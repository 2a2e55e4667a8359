//! Ports that servers listen on, lent and taken back.
//!
//! What a browser fetched of the pages, and what it compiled of them, it keeps by the address they came from: a
//! server at one where another was before costs it half as much. A port is lent again once nobody has anything of it
//! left, neither a server nor a browser.

use std::collections::BTreeMap;
use std::net::{Ipv4Addr, TcpListener};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError, Weak};

/// Whoever has one has something of a server at this port.
pub(crate) type Lent = Arc<Port>;

#[derive(Debug)]
pub(crate) struct Port(u16);

#[derive(Default)]
struct Ports {
    /// Given back: the last one first, more browsers know it.
    free: Vec<u16>,
    lent: BTreeMap<u16, Weak<Port>>,
}

static PORTS: Mutex<Ports> = Mutex::new(Ports { free: Vec::new(), lent: BTreeMap::new() });

fn ports() -> MutexGuard<'static, Ports> {
    PORTS.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Drop for Port {
    fn drop(&mut self) {
        ports().free.push(self.0);
    }
}

/// One where a server was before; none where there is none, or somebody else has taken it since.
pub(crate) fn again() -> Option<u16> {
    let free = ports().free.pop()?;
    TcpListener::bind((Ipv4Addr::LOCALHOST, free)).is_ok().then_some(free)
}

/// For the server that listens there.
pub(crate) fn lend(port: u16) -> Lent {
    let lent = Arc::new(Port(port));
    ports().lent.insert(port, Arc::downgrade(&lent));
    lent
}

/// For a browser that goes there; nothing where no server of these tests is.
pub(crate) fn of(origin: &str) -> Option<Lent> {
    let port = origin.rsplit_once(':')?.1.parse().ok()?;
    ports().lent.get(&port)?.upgrade()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_port_is_lent_again_when_nobody_has_anything_of_it_left() -> std::io::Result<()> {
        let listens = TcpListener::bind((Ipv4Addr::LOCALHOST, 0))?;
        let port = listens.local_addr()?.port();
        let server = lend(port);
        let browser = of(&format!("http://127.0.0.1:{port}"));
        assert!(browser.is_some(), "a browser that was there has it too");
        drop(listens);
        drop(server);
        assert_eq!(again(), None, "a page of it may still be open");
        drop(browser);
        assert_eq!(again(), Some(port));
        assert_eq!(again(), None, "once");
        Ok(())
    }

    #[test]
    fn what_is_no_server_of_ours_has_no_port() {
        assert!(
            of("about:blank").is_none() && of("http://127.0.0.1:1").is_none() && of("http://x").is_none()
        );
    }
}
