//! Relays one connection to the pages and back.

use std::io;
use std::net::SocketAddr;
use std::sync::{Mutex, PoisonError};
use std::time::Instant;

use tokio::io::{AsyncRead, AsyncReadExt, AsyncWrite, AsyncWriteExt};
use tokio::net::TcpStream;
use tokio::time::{timeout, timeout_at};

use super::head_tracker::HeadTracker;
use super::{ClientAddresses, Timeouts};

/// Buffer size of the relay, in bytes.
const PIECE: usize = 16 * 1024;
/// Bytes a first head may have: the pages themselves take less.
const MOST_HEAD: usize = 64 * 1024;

const TOO_LATE: &[u8] = b"HTTP/1.1 408 Request Timeout\r\nConnection: close\r\nContent-Length: 0\r\n\r\n";
const TOO_LONG: &[u8] =
    b"HTTP/1.1 431 Request Header Fields Too Large\r\nConnection: close\r\nContent-Length: 0\r\n\r\n";

/// How a way ended.
enum End {
    /// The pages have said all.
    Answered,
    /// A head, or the rest of a question, did not come in time, or nothing came at all.
    Late { begun: bool },
}

/// Relays everything of one connection, until either side ends it or the other side takes too long.
///
/// # Errors
/// Either side went away.
pub async fn carry(
    client: &mut (impl AsyncRead + AsyncWrite + Unpin),
    from: SocketAddr,
    pages: SocketAddr,
    addresses: &ClientAddresses,
    timeouts: Timeouts,
) -> io::Result<()> {
    let mut tracker = HeadTracker::new(Instant::now());
    let Some(head) = first_head(client, &mut tracker, timeouts).await? else { return Ok(()) };
    let mut server = TcpStream::connect(pages).await?;
    server.set_nodelay(true)?;
    let _named = addresses.name(server.local_addr()?, from);
    server.write_all(&head).await?;
    drop(head);
    let end = both_ways(client, &mut server, Mutex::new(tracker), timeouts).await?;
    if matches!(end, End::Late { begun: true }) {
        timeout(timeouts.taking, client.write_all(TOO_LATE)).await??;
    }
    client.shutdown().await
}

/// The first head and what came with it; nothing where none came.
async fn first_head(
    client: &mut (impl AsyncRead + AsyncWrite + Unpin),
    tracker: &mut HeadTracker,
    timeouts: Timeouts,
) -> io::Result<Option<Vec<u8>>> {
    let mut head = Vec::new();
    let mut piece = [0; 4096];
    while tracker.is_awaited() {
        let refusal = match timeout_at(tracker.late_at(&timeouts).into(), client.read(&mut piece)).await {
            Ok(read) => match read? {
                0 => return Ok(None),
                _ if head.len() > MOST_HEAD => Some(TOO_LONG),
                read => {
                    tracker.asked(&piece[..read], Instant::now());
                    head.extend_from_slice(&piece[..read]);
                    None
                }
            },
            Err(_) if head.is_empty() => return Ok(None),
            Err(_) => Some(TOO_LATE),
        };
        if let Some(refusal) = refusal {
            timeout(timeouts.taking, client.write_all(refusal)).await??;
            client.shutdown().await?;
            return Ok(None);
        }
    }
    Ok(Some(head))
}

async fn both_ways(
    client: &mut (impl AsyncRead + AsyncWrite + Unpin),
    server: &mut TcpStream,
    tracker: Mutex<HeadTracker>,
    timeouts: Timeouts,
) -> io::Result<End> {
    let (mut from_client, mut to_client) = tokio::io::split(client);
    let (mut from_server, mut to_server) = server.split();
    let tracker = || tracker.lock().unwrap_or_else(PoisonError::into_inner);
    let asking = async {
        let mut piece = vec![0; PIECE];
        loop {
            let until = tracker().late_at(&timeouts);
            let Ok(read) = timeout_at(until.into(), from_client.read(&mut piece)).await else {
                // It is looked again: an answer may have gone meanwhile.
                let tracker = tracker();
                if tracker.late_at(&timeouts) <= Instant::now() {
                    return Ok(End::Late { begun: tracker.is_open() });
                }
                continue;
            };
            let read = read?;
            if read == 0 {
                to_server.shutdown().await?;
                // The pages end it.
                return std::future::pending().await;
            }
            tracker().asked(&piece[..read], Instant::now());
            to_server.write_all(&piece[..read]).await?;
        }
    };
    let answering = async {
        let mut piece = vec![0; PIECE];
        loop {
            let read = from_server.read(&mut piece).await?;
            if read == 0 {
                return Ok(End::Answered);
            }
            tracker().answered(&piece[..read], Instant::now());
            timeout(timeouts.taking, to_client.write_all(&piece[..read])).await??;
            // Under TLS what is written may still wait.
            timeout(timeouts.taking, to_client.flush()).await??;
        }
    };
    tokio::select! {
        end = asking => end,
        end = answering => end,
    }
}
