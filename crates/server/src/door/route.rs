//! `/api/door`: saying the passphrase, setting it, turning devices out.

use rocket::http::{Cookie, CookieJar, SameSite};
use rocket::request::{FromRequest, Outcome};
use rocket::serde::json::Json;
use rocket::time::Duration;
use rocket::{Request, State, get, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

use super::known::{Asks, COOKIE, Door, KNOWN_MS};
use super::store::Device;
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::front::Peers;
use crate::reach::addresses::Reached;

/// How the door stands for whoever asks.
#[derive(Debug, Serialize, ToSchema)]
pub struct DoorView {
    /// The passphrase has to be said from here.
    pub closed: bool,
    /// Others than those at the machine that serves are asked for it.
    pub asks: bool,
    pub is_set: bool,
    /// Whoever asks sits at the machine that serves: the passphrase until now is not asked of them.
    pub here: bool,
    /// This device, where it said it.
    pub device: Option<Uuid>,
    /// Those that said it, the latest first; empty for whoever may not come in.
    pub devices: Vec<Device>,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct ComeIn {
    pub passphrase: String,
    /// What this device is called.
    #[serde(default)]
    pub name: String,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct NewPassphrase {
    pub passphrase: String,
    /// The one that stands; nothing while none does, and from the machine that serves.
    #[serde(default)]
    pub old: String,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct TurnOut {
    pub device: Uuid,
}

/// Who is at the door.
pub struct AtTheDoor {
    from: Option<std::net::IpAddr>,
    lets_in: bool,
    device: Option<Device>,
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for AtTheDoor {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        let door = request.rocket().state::<Door>();
        Outcome::Success(Self {
            from: Peers::of(request).map(|from| from.ip()),
            lets_in: door.is_none_or(|door| door.lets_in(request)),
            device: door.and_then(|door| door.device_of(request)),
        })
    }
}

fn view(door: &Door, from: Option<std::net::IpAddr>, lets_in: bool, device: Option<Uuid>) -> Json<DoorView> {
    Json(DoorView {
        here: door.is_here(from),
        closed: !lets_in,
        asks: door.asks != Asks::Nobody,
        is_set: door.is_set(),
        device,
        devices: if lets_in { door.devices() } else { Vec::new() },
    })
}

/// How the door stands.
#[utoipa::path(get, path = "/api/door", operation_id = "show_door",
    responses((status = 200, description = "The door", body = DoorView)))]
#[get("/")]
pub fn show(door: &State<Door>, who: AtTheDoor) -> Json<DoorView> {
    view(door, who.from, who.lets_in, who.device.map(|device| device.id))
}

/// Says the passphrase: this device is known for 90 days, by a cookie that no script can read.
#[utoipa::path(post, path = "/api/door", operation_id = "come_in", request_body = ComeIn, responses(
    (status = 200, description = "It may come in", body = DoorView),
    (status = 401, description = "Not the passphrase", body = ProblemsBody),
    (status = 429, description = "Wrong too often", body = ProblemsBody)))]
#[post("/", data = "<body>")]
pub async fn come_in(
    door: &State<Door>,
    who: AtTheDoor,
    cookies: &CookieJar<'_>,
    reached: &State<Reached>,
    body: Body<ComeIn>,
) -> Result<Json<DoorView>, ApiError> {
    let said = body.0?;
    let shown = door.said(said.passphrase, &said.name, who.from).await?;
    let cookie = Cookie::build((COOKIE, shown))
        .http_only(true)
        .same_site(SameSite::Strict)
        .secure(reached.tls)
        .path("/")
        .max_age(Duration::milliseconds(KNOWN_MS));
    cookies.add(cookie);
    Ok(view(door, who.from, true, None))
}

/// Sets the passphrase, by whoever says the old one: every other device has to say the new one.
#[utoipa::path(post, path = "/api/door/passphrase", request_body = NewPassphrase, responses(
    (status = 200, description = "It is set", body = DoorView),
    (status = 422, description = "Too short, or not the old one", body = ProblemsBody),
    (status = 429, description = "Wrong too often", body = ProblemsBody)))]
#[post("/passphrase", data = "<body>")]
pub async fn set_passphrase(
    door: &State<Door>,
    who: AtTheDoor,
    body: Body<NewPassphrase>,
) -> Result<Json<DoorView>, ApiError> {
    let by = who.device.map(|device| device.id);
    let said = body.0?;
    door.says_the_old_one(said.old, who.from).await?;
    door.set(&said.passphrase, by).await?;
    Ok(view(door, who.from, true, by))
}

/// Turns a device out: it has to say the passphrase again.
#[utoipa::path(post, path = "/api/door/out", request_body = TurnOut,
    responses((status = 200, description = "It is out", body = DoorView)))]
#[post("/out", data = "<body>")]
pub async fn turn_out(
    door: &State<Door>,
    who: AtTheDoor,
    body: Body<TurnOut>,
) -> Result<Json<DoorView>, ApiError> {
    door.turn_out(body.0?.device).await?;
    Ok(view(door, who.from, true, who.device.map(|device| device.id)))
}
