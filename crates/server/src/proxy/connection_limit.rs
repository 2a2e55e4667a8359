//! Connection limit: so many at the same time, and from one address; a few that hold theirs leave room for the others.

use std::collections::HashMap;
use std::net::IpAddr;
use std::sync::{Arc, Mutex, PoisonError};

use rustix::process::{Resource, Rlimit, getrlimit, setrlimit};

/// Files a connection takes: to the other side, and both ends of the way to the pages.
const FILES_EACH: u64 = 3;
/// Files that stay for everything else.
const FILES_KEPT: u64 = 128;
/// House: more than a shop ever has.
const MOST: usize = 1_000;
/// House: no address takes more than this share of them.
const SHARE: usize = 4;
const LEAST: usize = 16;

/// Limit of connections, in all and from one address.
#[derive(Clone)]
pub struct ConnectionLimit {
    in_all: usize,
    each: usize,
    taken: Arc<Mutex<HashMap<IpAddr, usize>>>,
}

/// Permit of one connection; dropped it is free again.
pub struct ConnectionPermit {
    of: IpAddr,
    taken: Arc<Mutex<HashMap<IpAddr, usize>>>,
}

impl ConnectionLimit {
    #[must_use]
    pub fn of(in_all: usize, each: usize) -> Self {
        Self { in_all, each, taken: Arc::default() }
    }

    /// As many as so many open files leave room for.
    #[must_use]
    pub fn for_files(files: u64) -> Self {
        let in_all = usize::try_from(files.saturating_sub(FILES_KEPT) / FILES_EACH).unwrap_or(MOST);
        let in_all = in_all.clamp(LEAST, MOST);
        Self::of(in_all, (in_all / SHARE).max(LEAST))
    }

    /// A permit for a connection from this address; nothing where there is none left.
    #[must_use]
    pub fn take(&self, from: IpAddr) -> Option<ConnectionPermit> {
        let of = network(from);
        let mut taken = self.taken.lock().unwrap_or_else(PoisonError::into_inner);
        let own = taken.get(&of).copied().unwrap_or(0);
        if own >= self.each || taken.values().sum::<usize>() >= self.in_all {
            return None;
        }
        taken.insert(of, own + 1);
        Some(ConnectionPermit { of, taken: self.taken.clone() })
    }
}

impl Drop for ConnectionPermit {
    fn drop(&mut self) {
        let mut taken = self.taken.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(own) = taken.get_mut(&self.of) {
            *own -= 1;
            if *own == 0 {
                taken.remove(&self.of);
            }
        }
    }
}

/// Whose address it is: of the newer ones a whole network is one household's.
#[must_use]
pub fn network(address: IpAddr) -> IpAddr {
    match address.to_canonical() {
        IpAddr::V6(six) => {
            let [a, b, c, d, ..] = six.segments();
            IpAddr::from([a, b, c, d, 0, 0, 0, 0])
        }
        four @ IpAddr::V4(_) => four,
    }
}

/// Takes all the open files this computer lets a program have. Gives how many that are.
pub fn more_files() -> u64 {
    const USUAL: u64 = 1_024;
    let now = getrlimit(Resource::Nofile);
    // Where there is no limit, enough of them.
    let most = now.maximum.unwrap_or(MOST as u64 * FILES_EACH + FILES_KEPT);
    match setrlimit(Resource::Nofile, Rlimit { current: Some(most), maximum: now.maximum }) {
        Ok(()) => most,
        Err(_) => now.current.unwrap_or(USUAL),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn from(address: &str) -> IpAddr {
        address.parse().unwrap()
    }

    #[test]
    fn an_address_has_its_share_and_gets_it_back() {
        let room = ConnectionLimit::of(3, 2);
        let one = room.take(from("10.0.0.1")).unwrap();
        let two = room.take(from("10.0.0.1")).unwrap();
        assert!(room.take(from("10.0.0.1")).is_none(), "its share is taken");
        let other = room.take(from("10.0.0.2")).unwrap();
        assert!(room.take(from("10.0.0.3")).is_none(), "all are");
        drop(two);
        assert!(room.take(from("10.0.0.3")).is_some());
        drop((one, other));
        assert!(room.taken.lock().unwrap().is_empty(), "nothing is kept of who was there");
    }

    #[rstest]
    #[case::four("10.0.0.1", "10.0.0.1")]
    #[case::four_within_six("::ffff:10.0.0.1", "10.0.0.1")]
    #[case::six("2001:db8:1:2:3:4:5:6", "2001:db8:1:2::")]
    fn a_network_is_one_household(#[case] address: &str, #[case] of: &str) {
        assert_eq!(network(from(address)), from(of));
    }

    #[rstest]
    // Hand-worked: (1024 - 128) / 3
    #[case::usual(1_024, 298, 74)]
    #[case::few(64, 16, 16)]
    #[case::many(1 << 20, 1_000, 250)]
    fn there_is_room_for_what_can_be_opened(#[case] files: u64, #[case] in_all: usize, #[case] each: usize) {
        let room = ConnectionLimit::for_files(files);
        assert_eq!((room.in_all, room.each), (in_all, each));
    }
}
