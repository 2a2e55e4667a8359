//! The shop's passphrase, and the devices that have said it.

use std::collections::{HashMap, HashSet};
use std::net::IpAddr;
use std::sync::{PoisonError, RwLock};

use anyhow::anyhow;
use argon2::Argon2;
use argon2::password_hash::phc::PasswordHash;
use argon2::password_hash::{PasswordHasher, PasswordVerifier};
use rocket::Request;
use rocket::request::{FromRequest, Outcome};
use sha2::{Digest, Sha256};
use tokio::sync::{Semaphore, watch};
use uuid::Uuid;
use vanadin_core::base::problem::FieldProblem;

use super::invitations::Invitations;
use super::store::{self, Device};
use super::tries::{Tries, Try};
use crate::api_error::ApiError;
use crate::clock::Clock;
use crate::database::Database;
use crate::job_service::work;
use crate::proxy::ClientAddresses;

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

type Token = [u8; 32];

/// By what somebody came in.
pub enum Right {
    /// They sit at the machine that serves, or nobody is asked.
    Here,
    Device(Token),
}

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

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Right {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        let door = request.rocket().state::<Door>();
        Outcome::Success(door.map_or(Self::Here, |door| door.right_of(request)))
    }
}

/// Who may come in.
pub struct Door {
    database: Database,
    clock: Clock,
    pub asks: Asks,
    hash: RwLock<Option<String>>,
    devices: RwLock<HashMap<Token, Device>>,
    out: RwLock<HashSet<Token>>,
    tries: Tries,
    invitations: Invitations,
    /// Told whenever a device may come in no longer.
    turned_out: watch::Sender<()>,
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
            out: RwLock::new(store::turned_out(&database.pool).await?),
            tries: Tries::default(),
            invitations: Invitations::default(),
            turned_out: watch::channel(()).0,
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
            Asks::Others if ClientAddresses::of(request).is_some_and(|from| from.ip().is_loopback()) => true,
            Asks::Others | Asks::Everybody => self.device_of(request).is_some(),
        }
    }

    /// The known device that sends this.
    pub fn device_of(&self, request: &Request<'_>) -> Option<Device> {
        self.device(&Self::key_of(request)?)
    }

    fn key_of(request: &Request<'_>) -> Option<Token> {
        request.cookies().get(COOKIE).map(|shown| token(shown.value()))
    }

    fn device(&self, key: &Token) -> Option<Device> {
        let devices = self.devices.read().unwrap_or_else(PoisonError::into_inner);
        let device = devices.get(key)?;
        (self.clock.now_ms() - device.known_ms < KNOWN_MS).then(|| device.clone())
    }

    /// By what whoever sends this came in: it is looked at again for as long as something is told to them.
    #[must_use]
    pub fn right_of(&self, request: &Request<'_>) -> Right {
        match Self::key_of(request).filter(|key| self.device(key).is_some()) {
            Some(key) if self.asks != Asks::Nobody => Right::Device(key),
            // Let in, and no device: who sits at this machine, or a program of its own.
            Some(_) | None => Right::Here,
        }
    }

    /// The device that sends this was turned out.
    #[must_use]
    pub fn has_turned_out(&self, request: &Request<'_>) -> bool {
        let out = self.out.read().unwrap_or_else(PoisonError::into_inner);
        Self::key_of(request).is_some_and(|key| out.contains(&key))
    }

    /// Whoever came in by this still may.
    #[must_use]
    pub fn still(&self, right: &Right) -> bool {
        match right {
            Right::Here => true,
            Right::Device(key) => self.device(key).is_some(),
        }
    }

    /// Hears whenever somebody may come in no longer.
    #[must_use]
    pub fn listen(&self) -> watch::Receiver<()> {
        self.turned_out.subscribe()
    }

    /// Whoever sends this sits at the machine that serves, as far as an address can tell.
    #[must_use]
    pub fn is_here(&self, from: Option<IpAddr>) -> bool {
        self.asks != Asks::Everybody && from.is_some_and(|from| from.is_loopback())
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
        let tried = self.tries(from)?;
        if !self.is_the_passphrase(passphrase).await? {
            return Err(ApiError::WrongPassphrase);
        }
        tried.was_right();
        self.let_in(name, None).await
    }

    /// A code with which a phone comes in to help at one job, and until when it holds.
    ///
    /// # Errors
    /// There is no chance on this machine.
    pub fn invite(&self, job: Uuid) -> Result<(String, i64), ApiError> {
        let code = made_up()?;
        let until_ms = self.invitations.add(code.clone(), job, self.clock.now_ms());
        Ok((code, until_ms))
    }

    /// A helper's phone shows the code it was given: gives what it shows from now on.
    ///
    /// # Errors
    /// It is none, or not any more; or was wrong too often.
    pub async fn helped(&self, code: &str, name: &str, from: Option<IpAddr>) -> Result<String, ApiError> {
        let tried = self.tries(from)?;
        let job = self.invitations.take(code, self.clock.now_ms()).ok_or(ApiError::WrongCode)?;
        tried.was_right();
        self.let_in(name, Some(job)).await
    }

    async fn let_in(&self, name: &str, helps: Option<Uuid>) -> Result<String, ApiError> {
        let shown = random()?;
        let name = name.trim().chars().take(40).collect();
        let device = Device { id: Uuid::new_v4(), name, known_ms: self.clock.now_ms(), helps };
        let key = token(&shown);
        self.database.write(async |on| store::add(on, &key, &device).await).await?;
        self.devices.write().unwrap_or_else(PoisonError::into_inner).insert(key, device);
        Ok(shown)
    }

    /// Something is tried from an address: a passphrase, or a key.
    ///
    /// # Errors
    /// It was wrong too often, or too many wait already.
    pub fn tries(&self, from: Option<IpAddr>) -> Result<Try<'_>, ApiError> {
        self.tries.begin(from.unwrap_or(IpAddr::from([0, 0, 0, 0])), self.clock.now_ms())
    }

    async fn is_the_passphrase(&self, said: String) -> Result<bool, ApiError> {
        let hash = self.hash.read().unwrap_or_else(PoisonError::into_inner).clone();
        let Some(hash) = hash.filter(|_| said.len() <= LETTERS.1 * 4) else { return Ok(false) };
        let _one = self.one.acquire().await.map_err(anyhow::Error::from)?;
        let is_it = move || {
            let known = PasswordHash::new(&hash);
            known.is_ok_and(|known| Argon2::default().verify_password(said.as_bytes(), &known).is_ok())
        };
        work(is_it).await
    }

    /// Whoever sets another passphrase says the one that stands, but for those who sit at the machine that serves.
    ///
    /// # Errors
    /// It is another, or was another too often.
    pub async fn says_the_old_one(&self, old: String, from: Option<IpAddr>) -> Result<(), ApiError> {
        if !self.is_set() || self.is_here(from) {
            return Ok(());
        }
        let tried = self.tries(from)?;
        if !self.is_the_passphrase(old).await? {
            let right = "the one the shop goes by until now";
            return Err(vec![FieldProblem::new("old", "that is not the passphrase", right)].into());
        }
        tried.was_right();
        Ok(())
    }

    /// Sets the passphrase: every device but the one that says so has to say it again.
    ///
    /// # Errors
    /// It is too short, or blank.
    pub async fn set(&self, passphrase: &str, by: Option<Uuid>) -> Result<(), ApiError> {
        let letters = passphrase.trim().chars().count();
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
        self.turned_out.send_replace(());
        Ok(())
    }

    /// A device has to say the passphrase again.
    ///
    /// # Errors
    /// It cannot be stored.
    pub async fn turn_out(&self, device: Uuid) -> Result<(), ApiError> {
        let now_ms = self.clock.now_ms();
        let when = (now_ms, now_ms - KNOWN_MS);
        self.database.write(async |on| store::remove(on, device, when).await).await?;
        let mut devices = self.devices.write().unwrap_or_else(PoisonError::into_inner);
        let gone = devices.extract_if(|_, it| it.id == device).map(|(key, _)| key);
        self.out.write().unwrap_or_else(PoisonError::into_inner).extend(gone);
        drop(devices);
        self.turned_out.send_replace(());
        Ok(())
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
