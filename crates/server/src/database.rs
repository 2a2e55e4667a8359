//! One SQLite file in the data folder.

use std::fs::{self, DirBuilder, File, OpenOptions, Permissions, TryLockError};
use std::os::unix::fs::{DirBuilderExt, MetadataExt, OpenOptionsExt, PermissionsExt};
use std::path::{Path, PathBuf};
use std::sync::Arc;

use anyhow::{Context, bail};
use sqlx::migrate::MigrateError;
use sqlx::pool::PoolConnection;
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqlitePoolOptions, SqliteSynchronous};
use sqlx::{Connection, Row, Sqlite, SqliteConnection, SqlitePool};
use tokio::sync::Mutex;
use uuid::Uuid;

use crate::api_error::ApiError;
use crate::migrations::MIGRATIONS;

/// Where the copies lie in the data folder.
pub const COPIES: &str = "copies";
/// The name of the file that holds everything.
pub const FILE: &str = "vanadin.sqlite";

/// The database, and the lock on its folder for as long as it is in use.
#[derive(Clone)]
pub struct Database {
    pub pool: SqlitePool,
    /// The folder's own name, made with it: what waits in a browser belongs to one folder.
    pub folder: Uuid,
    /// The folder itself.
    pub at: Arc<PathBuf>,
    /// Which file it is: one that was put in its place, or none, takes no word.
    is: (u64, u64),
    writer: Arc<Mutex<()>>,
    _lock: Arc<File>,
}

/// Nobody else on this computer reads what is kept here.
const OWN_FOLDER: u32 = 0o700;
const OWN_FILE: u32 = 0o600;

/// Pages of SQLite's usual size in a megabyte.
const PAGES_A_MB: u32 = 256;

/// Opens the folder's database, brings it up to date, and keeps a second server out. Its file may not
/// grow over `most_mb`: what would need more is refused, as on a disk that is full.
///
/// # Errors
/// The folder cannot be used: in use, written by a newer version, not writable, or its file is empty
/// or damaged.
pub async fn open(folder: &Path, most_mb: Option<u32>) -> anyhow::Result<Database> {
    open_within(folder, most_mb.map(|mb| mb.saturating_mul(PAGES_A_MB))).await
}

async fn open_within(at: &Path, most_pages: Option<u32>) -> anyhow::Result<Database> {
    let lock = lock(at)?;
    let file = at.join(FILE);
    if !file.exists() {
        make(at, &file).await?;
    }
    looks_whole(&file)?;
    own(at, &file)?;
    let pool = SqlitePoolOptions::new()
        .max_connections(4)
        .connect_with(match most_pages {
            Some(pages) => options(&file).pragma("max_page_count", pages.to_string()),
            None => options(&file),
        })
        .await
        .map_err(|error| damaged(&file, &error.to_string()))?;
    let ours = sqlx::query("select 1 from sqlite_master where name = '_sqlx_migrations'")
        .fetch_optional(&pool)
        .await
        .map_err(|error| damaged(&file, &error.to_string()))?;
    if ours.is_none() {
        return Err(damaged(&file, "it is not Vanadin's"));
    }
    migrate(&pool).await?;
    // One that only can be read takes no word: said now, not at the first.
    sqlx::query("update folder set id = id")
        .execute(&pool)
        .await
        .map_err(|error| damaged(&file, &format!("it cannot be written ({error})")))?;
    let folder: String = sqlx::query("select id from folder")
        .fetch_one(&pool)
        .await
        .map_err(|error| damaged(&file, &error.to_string()))?
        .get(0);
    let folder = folder.parse().map_err(|_| damaged(&file, "its own name cannot be read"))?;
    let is = which(&file).with_context(|| format!("{}", file.display()))?;
    let at = Arc::new(at.to_owned());
    Ok(Database { pool, folder, at, is, writer: Arc::default(), _lock: Arc::new(lock) })
}

/// Which file lies at a path, whatever it is called.
fn which(file: &Path) -> std::io::Result<(u64, u64)> {
    fs::metadata(file).map(|file| (file.dev(), file.ino()))
}

/// What is kept here is its owner's alone, also what was made before that was seen to.
fn own(folder: &Path, file: &Path) -> anyhow::Result<()> {
    let set = |path: &Path, mode| {
        fs::set_permissions(path, Permissions::from_mode(mode))
            .with_context(|| format!("{} cannot be kept from others", path.display()))
    };
    // One that is everybody's by its kind is not taken from them.
    let of_all = fs::metadata(folder).is_ok_and(|it| it.mode() & 0o1000 != 0);
    if !of_all && let Err(error) = set(folder, OWN_FOLDER) {
        // It may be somebody else's who lets this one write in it: the files in it are kept all the same.
        eprintln!("vanadin: {error:#}");
    }
    let copies = fs::read_dir(folder.join(COPIES)).into_iter().flatten().flatten().map(|copy| copy.path());
    let parts = ["", "-wal", "-shm"].map(|ending| sidecar_path(file, ending));
    parts.into_iter().chain(copies).filter(|path| path.is_file()).try_for_each(|path| set(&path, OWN_FILE))
}

/// A file that only its owner reads is made, for a database to lie in.
///
/// # Errors
/// It cannot be made, or is there.
pub fn own_file(file: &Path) -> std::io::Result<File> {
    OpenOptions::new().write(true).create_new(true).mode(OWN_FILE).open(file)
}

/// Keeps everybody else out of a folder for as long as this is held; makes it where there is none.
///
/// # Errors
/// Somebody is in it, or it cannot be written.
pub fn lock(folder: &Path) -> anyhow::Result<File> {
    DirBuilder::new()
        .recursive(true)
        .mode(OWN_FOLDER)
        .create(folder)
        .with_context(|| format!("the data folder {} cannot be made", folder.display()))?;
    let lock = OpenOptions::new()
        .write(true)
        .create(true)
        .truncate(false)
        .mode(OWN_FILE)
        .open(folder.join("in-use.lock"))
        .with_context(|| format!("the data folder {} cannot be written", folder.display()))?;
    match lock.try_lock() {
        Ok(()) => {}
        Err(TryLockError::WouldBlock) => {
            bail!("another server is using the data folder {}", folder.display())
        }
        Err(TryLockError::Error(error)) => return Err(error).context("the data folder cannot be locked"),
    }
    Ok(lock)
}

fn options(file: &Path) -> SqliteConnectOptions {
    SqliteConnectOptions::new()
        .filename(file)
        .journal_mode(SqliteJournalMode::Wal)
        .synchronous(SqliteSynchronous::Full)
        .foreign_keys(true)
}

fn damaged(file: &Path, why: &str) -> anyhow::Error {
    anyhow::anyhow!(
        "the data file {} cannot be used: {why}. Nothing was changed. Put back a copy of it, or move it away to \
         begin with an empty shop",
        file.display()
    )
}

/// A file that was there and is empty or cut off is no new shop.
fn looks_whole(file: &Path) -> anyhow::Result<()> {
    /// SQLite's own header.
    const HEADER: usize = 100;
    let size = fs::metadata(file).with_context(|| format!("{}", file.display()))?.len();
    if size < HEADER as u64 {
        return Err(damaged(file, "it is empty"));
    }
    Ok(())
}

/// Something that only a shop leaves: what was written last, a copy, what was moved aside or not yet put back.
fn trace_of_a_shop(folder: &Path, file: &Path) -> Option<PathBuf> {
    let log = sidecar_path(file, "-wal");
    if fs::metadata(&log).is_ok_and(|log| log.len() > 0) {
        return Some(log);
    }
    let names = |folder: &Path| {
        let entries = fs::read_dir(folder).into_iter().flatten().flatten();
        entries.map(|entry| entry.path()).filter(|path| path.is_file())
    };
    let of_it = |path: &PathBuf| {
        let name = path.file_name().and_then(|name| name.to_str()).unwrap_or_default();
        name.starts_with("vanadin.sqlite.before-") || name == "vanadin.sqlite.restored"
    };
    names(folder).find(of_it).or_else(|| names(&folder.join(COPIES)).next())
}

/// A new shop is made beside its place and moved there whole: a file that lies there has been one.
async fn make(folder: &Path, file: &Path) -> anyhow::Result<()> {
    if let Some(trace) = trace_of_a_shop(folder, file) {
        bail!(
            "the data file {} is not there, but there was a shop here ({}): put it back with vanadin restore --data \
             {} --from FILE, or move what is left away to begin with an empty shop",
            file.display(),
            trace.display(),
            folder.display()
        );
    }
    let new = folder.join("vanadin.sqlite.new");
    for left in
        [new.clone(), sidecar_path(&new, "-wal"), sidecar_path(&new, "-shm"), sidecar_path(&new, "-journal")]
    {
        if left.exists() {
            fs::remove_file(&left).with_context(|| format!("{} is in the way", left.display()))?;
        }
    }
    own_file(&new).context("the database cannot be made")?;
    let pool = SqlitePoolOptions::new()
        .max_connections(1)
        .connect_with(options(&new))
        .await
        .context("the database cannot be made")?;
    migrate(&pool).await?;
    pool.close().await;
    fs::rename(&new, file).context("the new database cannot be moved to its place")
}

/// Path of a sidecar file: the same name and more.
pub fn sidecar_path(file: &Path, ending: &str) -> PathBuf {
    let mut name = file.as_os_str().to_owned();
    name.push(ending);
    PathBuf::from(name)
}

async fn migrate(pool: &SqlitePool) -> anyhow::Result<()> {
    match MIGRATIONS.run(pool).await {
        Ok(()) => Ok(()),
        Err(MigrateError::VersionMissing(version)) => {
            bail!("the data folder was written by a newer Vanadin (step {version}): use that one")
        }
        Err(error) => Err(error).context("the database cannot be brought up to date"),
    }
}

/// Write transaction, one at a time: what it writes is on the disk once it says so, or not at all.
pub struct WriteTx<'a> {
    /// Nothing once it is done or given up.
    connection: Option<PoolConnection<Sqlite>>,
    _alone: tokio::sync::MutexGuard<'a, ()>,
}

impl WriteTx<'_> {
    pub fn on(&mut self) -> &mut SqliteConnection {
        self.connection.as_mut().expect("it is there until it is done or given up")
    }

    /// Commits: everything written since it began is on the disk when this returns.
    ///
    /// # Errors
    /// It is not: nothing of it is kept.
    pub async fn commit(mut self) -> Result<(), ApiError> {
        match sqlx::query("commit").execute(self.on()).await {
            Ok(_) => {
                self.connection = None;
                Ok(())
            }
            Err(error) => Err(self.rollback(error).await),
        }
    }

    /// Rolls back: nothing of what was written is kept. After an error SQLite may have ended the transaction by
    /// itself, so that nobody knows how the connection stands: it is closed.
    pub async fn rollback(mut self, error: impl Into<ApiError>) -> ApiError {
        if let Some(connection) = self.connection.take() {
            // Closing rolls back what is open; one that cannot even be closed is dropped.
            let _ = connection.detach().close().await;
        }
        error.into()
    }
}

impl Drop for WriteTx<'_> {
    /// Left half-way: what is open must not go back among the others.
    fn drop(&mut self) {
        if let Some(connection) = self.connection.take() {
            drop(connection.detach());
        }
    }
}

impl Database {
    /// Begins a write transaction, alone.
    ///
    /// # Errors
    /// The database cannot be written at all.
    pub async fn begin(&self) -> Result<WriteTx<'_>, ApiError> {
        let alone = self.writer.lock().await;
        self.is_there()?;
        let connection = self.pool.acquire().await?;
        let mut writing = WriteTx { connection: Some(connection), _alone: alone };
        match sqlx::query("begin immediate").execute(writing.on()).await {
            Ok(_) => Ok(writing),
            Err(error) => Err(writing.rollback(error).await),
        }
    }

    /// The file that was opened still lies where it did: into one that was deleted nothing is written any more.
    fn is_there(&self) -> Result<(), ApiError> {
        let file = self.at.join(FILE);
        if which(&file).is_ok_and(|is| is == self.is) {
            return Ok(());
        }
        Err(ApiError::DataGone(file.display().to_string()))
    }

    /// Writes all or nothing: on the disk when this returns.
    ///
    /// # Errors
    /// What `work` says, or that it cannot be stored; nothing is kept then.
    pub async fn write<T>(
        &self,
        work: impl AsyncFnOnce(&mut SqliteConnection) -> Result<T, ApiError>,
    ) -> Result<T, ApiError> {
        let mut writing = self.begin().await?;
        match work(writing.on()).await {
            Ok(made) => writing.commit().await.map(|()| made),
            Err(error) => Err(writing.rollback(error).await),
        }
    }

    /// Checkpoints: takes what was written last into the one file, so that a copy of it alone is the whole shop.
    ///
    /// # Errors
    /// The file cannot be written; what was acknowledged is still in the log beside it.
    pub async fn checkpoint(&self) -> Result<(), sqlx::Error> {
        let _alone = self.writer.lock().await;
        sqlx::query("pragma wal_checkpoint(truncate)").execute(&self.pool).await.map(|_| ())
    }

    /// Vacuums: gives back the room of what was deleted.
    ///
    /// # Errors
    /// There is no room for it now; nothing else is lost by that.
    pub async fn shrink(&self) -> Result<(), sqlx::Error> {
        let _alone = self.writer.lock().await;
        sqlx::query("vacuum").execute(&self.pool).await?;
        sqlx::query("pragma wal_checkpoint(truncate)").execute(&self.pool).await.map(|_| ())
    }

    /// Gathers everything and closes the file.
    pub async fn close(&self) {
        if let Err(error) = self.checkpoint().await {
            eprintln!("vanadin: what was written last stays beside the data file: {error}");
        }
        self.pool.close().await;
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::job::store;
    use vanadin_core::job::{Change, Fact};
    use vanadin_core::quantity::UnitSystem;

    fn fact(revision: u64, letters: usize) -> Fact {
        Fact {
            id: Uuid::from_u128(u128::from(revision)),
            revision,
            at_client_ms: 1,
            at_server_ms: 1,
            who: String::new(),
            sender: String::new(),
            understood: None,
            change: Change::Set {
                key: "part.name".to_owned(),
                typed: "x".repeat(letters),
                shown_in: UnitSystem::Metric,
            },
        }
    }

    async fn say(database: &Database, job: Uuid, fact: Fact) -> Result<(), ApiError> {
        database.write(async |on| store::append(on, job, std::slice::from_ref(&fact)).await).await
    }

    #[tokio::test]
    async fn what_a_full_disk_refuses_is_refused_and_what_was_acknowledged_stays() {
        let folder = tempfile::tempdir().unwrap();
        let job = Uuid::from_u128(7);
        let mut acknowledged = Vec::new();
        {
            let database = open_within(folder.path(), Some(40)).await.unwrap();
            database.write(async |on| store::create(on, job, 1).await).await.unwrap();
            let mut revision = 0;
            let mut refused = 0;
            while refused < 5 {
                revision += 1;
                match say(&database, job, fact(revision, 6_000)).await {
                    Ok(()) => acknowledged.push(revision),
                    Err(error) => {
                        assert!(error.to_string().contains("full"), "each for what it is: {error}");
                        refused += 1;
                    }
                }
            }
            // Room is made: everything goes on, by whichever connection.
            let first = acknowledged.remove(0);
            database
                .write(async |on| {
                    sqlx::query("delete from fact where revision = ?")
                        .bind(first.cast_signed())
                        .execute(on)
                        .await?;
                    Ok(())
                })
                .await
                .unwrap();
            for _ in 0..8 {
                revision += 1;
                say(&database, job, fact(revision, 10)).await.unwrap();
                acknowledged.push(revision);
            }
            database.pool.close().await;
        }
        let again = open(folder.path(), None).await.unwrap();
        let kept: Vec<u64> =
            store::facts(&again.pool, job).await.unwrap().iter().map(|fact| fact.revision).collect();
        assert_eq!(kept, acknowledged);
    }

    #[tokio::test]
    async fn a_writer_that_is_left_half_way_leaves_nothing_and_blocks_nobody() {
        let folder = tempfile::tempdir().unwrap();
        let database = open(folder.path(), None).await.unwrap();
        let job = Uuid::from_u128(7);
        {
            let mut writing = database.begin().await.unwrap();
            store::create(writing.on(), job, 1).await.unwrap();
        }
        assert!(!store::exists(&database.pool, job).await.unwrap());
        let failed = database
            .write(async |on| {
                store::create(on, job, 1).await?;
                Err::<(), _>(ApiError::Unknown("such thing"))
            })
            .await;
        assert!(failed.is_err() && !store::exists(&database.pool, job).await.unwrap());
        database.write(async |on| store::create(on, job, 1).await).await.unwrap();
        assert!(store::exists(&database.pool, job).await.unwrap());
    }

    #[tokio::test]
    async fn after_a_stop_the_one_file_is_the_whole_shop() {
        let (folder, elsewhere) = (tempfile::tempdir().unwrap(), tempfile::tempdir().unwrap());
        let job = Uuid::from_u128(7);
        {
            let database = open(folder.path(), None).await.unwrap();
            database.write(async |on| store::create(on, job, 1).await).await.unwrap();
            say(&database, job, fact(1, 20)).await.unwrap();
            database.close().await;
        }
        fs::copy(folder.path().join(FILE), elsewhere.path().join(FILE)).unwrap();
        let copy = open(elsewhere.path(), None).await.unwrap();
        assert_eq!(store::facts(&copy.pool, job).await.unwrap().len(), 1);
    }

    #[tokio::test]
    async fn a_file_that_is_empty_cut_or_of_something_else_is_refused_by_name() {
        let folder = tempfile::tempdir().unwrap();
        let file = folder.path().join(FILE);
        for content in [Vec::new(), vec![b'x'; 60], vec![b'x'; 5_000]] {
            fs::write(&file, &content).unwrap();
            let refused = open(folder.path(), None).await.err().expect("it was opened").to_string();
            assert!(refused.contains("vanadin.sqlite") && refused.contains("cannot be used"), "{refused}");
            assert_eq!(fs::read(&file).unwrap(), content, "left as it is");
        }
        fs::remove_file(&file).unwrap();
        let other = SqliteConnectOptions::new().filename(&file).create_if_missing(true);
        let mut connection = SqliteConnection::connect_with(&other).await.unwrap();
        sqlx::query("create table recipe (name text)").execute(&mut connection).await.unwrap();
        connection.close().await.unwrap();
        let refused = open(folder.path(), None).await.err().expect("it was opened").to_string();
        assert!(refused.contains("not Vanadin"), "{refused}");
    }

    #[tokio::test]
    async fn a_file_that_is_gone_while_its_log_lies_there_is_no_new_shop() {
        let folder = tempfile::tempdir().unwrap();
        fs::write(sidecar_path(&folder.path().join(FILE), "-wal"), b"what was written last").unwrap();
        let refused = open(folder.path(), None).await.err().expect("it was opened").to_string();
        assert!(refused.contains("vanadin restore"), "{refused}");
    }

    #[tokio::test]
    async fn a_folder_keeps_its_own_name() {
        let (folder, other) = (tempfile::tempdir().unwrap(), tempfile::tempdir().unwrap());
        let name = async |folder: &tempfile::TempDir| {
            let database = open(folder.path(), None).await.unwrap();
            let name = database.folder;
            database.close().await;
            name
        };
        let first = name(&folder).await;
        assert_eq!(first, name(&folder).await);
        assert_ne!(first, name(&other).await);
    }
}
