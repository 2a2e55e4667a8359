//! The shop's passphrase, and the devices that have said it.

use std::collections::HashMap;
use std::net::IpAddr;
use std::sync::{Mutex, PoisonError, RwLock};

use anyhow::anyhow;
use argon2::Argon2;
use argon2::password_hash::phc::PasswordHash;
use argon2::password_hash::{PasswordHasher, PasswordVerifier};
use rocket::Request;
use sha2::{Digest, Sha256};
use tokio::sync::Semaphore;
use uuid::Uuid;
use vanadin_core::problem::FieldProblem;

use super::store::{self, Device};
use crate::api_error::ApiError;
use crate::clock::Clock;
use crate::database::Database;
use crate::desk::work;
use crate::front::Peers;

/// Who is asked for the passphrase.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Asks {
    Nobody,
    /// Whoever does not sit at the machine that serves.
    Others,
    /// Those who sit at it too: where something else passes requests on to it.
    Everybody,
}

/// The cookie a known device shows.
pub const COOKIE: &str = "vanadin_device";
/// So long a device stays known.
pub const KNOWN_MS: i64 = 90 * 86_400_000;
/// The shortest passphrase, in letters; and the longest that is looked at.
const LETTERS: (usize, usize) = (8, 200);
/// So many wrong ones from one address, and then a wait.
const TRIES: u32 = 5;
const WAIT_MS: i64 = 60_000;

type Token = [u8; 32];

/// The key that came with a request: `Authorization: Bearer ...`.
pub fn bearer<'r>(request: &'r Request<'_>) -> Option<&'r str> {
    let said = request.headers().get_one("Authorization")?;
    said.strip_prefix("Bearer ").map(str::trim)
}

/// The same, however much of it is the same: nothing is told by how long it takes.
pub fn same(a: &str, b: &str) -> bool {
    let differ = a.bytes().zip(b.bytes()).fold(0, |differ, (a, b)| differ | (a ^ b));
    a.len() == b.len() && differ == 0
}

/// Who may come in.
pub struct Door {
    database: Database,
    clock: Clock,
    pub asks: Asks,
    hash: RwLock<Option<String>>,
    devices: RwLock<HashMap<Token, Device>>,
    wrong: Mutex<HashMap<IpAddr, (u32, i64)>>,
    /// One passphrase is looked at at a time: each takes memory.
    one: Semaphore,
}

impl Door {
    /// The door as it was left. Gives a passphrase that was made, where one is needed and none was set.
    ///
    /// # Errors
    /// The database cannot be read or written.
    pub async fn of(
        database: Database,
        clock: Clock,
        asks: Asks,
    ) -> Result<(Self, Option<String>), ApiError> {
        let door = Self {
            hash: RwLock::new(store::hash(&database.pool).await?),
            devices: RwLock::new(store::devices(&database.pool).await?),
            wrong: Mutex::default(),
            one: Semaphore::new(1),
            database,
            clock,
            asks,
        };
        let made = if asks != Asks::Nobody && !door.is_set() {
            let made = made_up()?;
            door.set(&made, None).await?;
            Some(made)
        } else {
            None
        };
        Ok((door, made))
    }

    pub fn is_set(&self) -> bool {
        self.hash.read().unwrap_or_else(PoisonError::into_inner).is_some()
    }

    /// Whoever sends this may come in.
    pub fn lets_in(&self, request: &Request<'_>) -> bool {
        match self.asks {
            Asks::Nobody => true,
            // The address the connection comes from, not what a header says.
            Asks::Others if Peers::of(request).is_some_and(|from| from.ip().is_loopback()) => true,
            Asks::Others | Asks::Everybody => self.device_of(request).is_some(),
        }
    }

    /// The known device that sends this.
    pub fn device_of(&self, request: &Request<'_>) -> Option<Device> {
        let shown = request.cookies().get(COOKIE)?.value().to_owned();
        let devices = self.devices.read().unwrap_or_else(PoisonError::into_inner);
        let device = devices.get(&token(&shown))?;
        (self.clock.now_ms() - device.known_ms < KNOWN_MS).then(|| device.clone())
    }

    /// Known devices, the latest first.
    pub fn devices(&self) -> Vec<Device> {
        let devices = self.devices.read().unwrap_or_else(PoisonError::into_inner);
        let mut devices: Vec<Device> = devices.values().cloned().collect();
        devices.sort_by_key(|device| std::cmp::Reverse(device.known_ms));
        devices
    }

    /// Somebody says the passphrase: gives what their device shows from now on.
    ///
    /// # Errors
    /// It is wrong, or was wrong too often.
    pub async fn said(
        &self,
        passphrase: String,
        name: &str,
        from: Option<IpAddr>,
    ) -> Result<String, ApiError> {
        let from = from.unwrap_or(IpAddr::from([0, 0, 0, 0]));
        self.may_try(from)?;
        let hash = self.hash.read().unwrap_or_else(PoisonError::into_inner).clone();
        let right = match hash {
            Some(hash) if passphrase.len() <= LETTERS.1 * 4 => {
                let _one = self.one.acquire().await.map_err(anyhow::Error::from)?;
                work(move || {
                    let known = PasswordHash::new(&hash);
                    known.is_ok_and(|known| {
                        Argon2::default().verify_password(passphrase.as_bytes(), &known).is_ok()
                    })
                })
                .await?
            }
            Some(_) | None => false,
        };
        if !right {
            self.was_wrong(from);
            return Err(ApiError::WrongPassphrase);
        }
        self.wrong.lock().unwrap_or_else(PoisonError::into_inner).remove(&from);
        let shown = random()?;
        let name = name.trim().chars().take(40).collect();
        let device = Device { id: Uuid::new_v4(), name, known_ms: self.clock.now_ms() };
        let key = token(&shown);
        self.database.write(async |on| store::add(on, &key, &device).await).await?;
        self.devices.write().unwrap_or_else(PoisonError::into_inner).insert(key, device);
        Ok(shown)
    }

    /// Sets the passphrase: every device but the one that says so has to say it again.
    ///
    /// # Errors
    /// It is too short.
    pub async fn set(&self, passphrase: &str, by: Option<Uuid>) -> Result<(), ApiError> {
        let letters = passphrase.chars().count();
        if !(LETTERS.0..=LETTERS.1).contains(&letters) {
            let right = format!("{} letters or more", LETTERS.0);
            return Err(vec![FieldProblem::new("passphrase", "that is too easy to guess", right)].into());
        }
        let said = passphrase.to_owned();
        let hash =
            work(move || Argon2::default().hash_password(said.as_bytes()).map(|hash| hash.to_string()))
                .await?
                .map_err(|error| anyhow!("the passphrase cannot be kept: {error}"))?;
        self.database.write(async |on| store::set(on, &hash, by).await).await?;
        *self.hash.write().unwrap_or_else(PoisonError::into_inner) = Some(hash);
        self.devices.write().unwrap_or_else(PoisonError::into_inner).retain(|_, it| Some(it.id) == by);
        Ok(())
    }

    /// A device has to say the passphrase again.
    ///
    /// # Errors
    /// It cannot be stored.
    pub async fn turn_out(&self, device: Uuid) -> Result<(), ApiError> {
        self.database.write(async |on| store::remove(on, device).await).await?;
        self.devices.write().unwrap_or_else(PoisonError::into_inner).retain(|_, it| it.id != device);
        Ok(())
    }

    fn may_try(&self, from: IpAddr) -> Result<(), ApiError> {
        let mut wrong = self.wrong.lock().unwrap_or_else(PoisonError::into_inner);
        let now_ms = self.clock.now_ms();
        wrong.retain(|_, (_, since_ms)| now_ms - *since_ms < WAIT_MS);
        match wrong.get(&from) {
            Some((times, _)) if *times >= TRIES => Err(ApiError::TooManyTries),
            Some(_) | None => Ok(()),
        }
    }

    fn was_wrong(&self, from: IpAddr) {
        let now_ms = self.clock.now_ms();
        let mut wrong = self.wrong.lock().unwrap_or_else(PoisonError::into_inner);
        let entry = wrong.entry(from).or_insert((0, now_ms));
        *entry = (entry.0 + 1, now_ms);
    }
}

fn token(shown: &str) -> Token {
    Sha256::digest(shown.as_bytes()).into()
}

fn random_bytes<const N: usize>() -> Result<[u8; N], ApiError> {
    let mut bytes = [0; N];
    getrandom::fill(&mut bytes).map_err(|error| anyhow!("there is no chance on this machine: {error}"))?;
    Ok(bytes)
}

/// What a device shows: 32 bytes of chance.
pub fn random() -> Result<String, ApiError> {
    Ok(random_bytes::<32>()?.iter().map(|byte| format!("{byte:02x}")).collect())
}

/// Twelve letters and figures that are not taken for one another, in fours: 60 bits.
fn made_up() -> Result<String, ApiError> {
    const LETTERS: &[u8; 32] = b"ABCDEFGHJKLMNPQRSTUVWXYZ23456789";
    let chance = random_bytes::<12>()?;
    let letters: Vec<char> = chance.iter().map(|byte| char::from(LETTERS[usize::from(byte % 32)])).collect();
    Ok(letters.chunks(4).map(String::from_iter).collect::<Vec<_>>().join("-"))
}
