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
use crate::job_service::JobService;
use crate::proxy::ClientAddresses;
use crate::reach::addresses::ServerAddresses;
use crate::reach::qr;

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

#[derive(Debug, Deserialize, ToSchema)]
pub struct ToHelp {
    pub job: Uuid,
}

/// What a helper's phone has to be shown.
#[derive(Debug, Serialize, ToSchema)]
pub struct ForAHelper {
    /// Where its camera has to lead, the code in it; empty where no other device gets here.
    pub url: String,
    /// What a camera reads, an SVG; empty with it.
    pub qr: String,
    /// Nothing where nobody is asked: the address alone is enough.
    pub until_ms: Option<i64>,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct Helped {
    pub code: String,
    #[serde(default)]
    pub name: String,
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
            from: ClientAddresses::of(request).map(|from| from.ip()),
            lets_in: door.is_none_or(|door| door.lets_in(request)),
            device: door.and_then(|door| door.device_of(request)),
        })
    }
}

impl AtTheDoor {
    /// As it stands for them once they have come in.
    fn come_in(self) -> Self {
        Self { lets_in: true, ..self }
    }

    /// Who else comes in is theirs to know.
    fn sees_others(&self) -> bool {
        self.lets_in && self.device.as_ref().is_none_or(|device| device.helps.is_none())
    }
}

/// Where the page that sends this was opened.
pub struct PageOrigin<'r>(Option<&'r str>);

#[rocket::async_trait]
impl<'r> FromRequest<'r> for PageOrigin<'r> {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        Outcome::Success(Self(request.headers().get_one("Origin")))
    }
}

fn view(door: &Door, who: &AtTheDoor) -> Json<DoorView> {
    Json(DoorView {
        here: door.is_here(who.from),
        closed: !who.lets_in,
        asks: door.asks != Asks::Nobody,
        is_set: door.is_set(),
        device: who.device.as_ref().map(|device| device.id),
        devices: if who.sees_others() { door.devices() } else { Vec::new() },
    })
}

/// What a device shows from now on.
fn cookie(shown: String, tls: bool) -> Cookie<'static> {
    Cookie::build((COOKIE, shown))
        .http_only(true)
        .same_site(SameSite::Strict)
        .secure(tls)
        .path("/")
        .max_age(Duration::milliseconds(KNOWN_MS))
        .build()
}

/// How the door stands.
#[utoipa::path(get, path = "/api/door", operation_id = "show_door",
    responses((status = 200, description = "The door", body = DoorView)))]
#[get("/")]
pub fn show(door: &State<Door>, who: AtTheDoor) -> Json<DoorView> {
    view(door, &who)
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
    reached: &State<ServerAddresses>,
    body: Body<ComeIn>,
) -> Result<Json<DoorView>, ApiError> {
    let said = body.0?;
    let shown = door.said(said.passphrase, &said.name, who.from).await?;
    cookies.add(cookie(shown, reached.tls));
    // The device it is from now on it shows the next time.
    Ok(view(door, &AtTheDoor { lets_in: true, device: None, ..who }))
}

/// A code for a helper's phone: it comes in by it once, within a quarter of an hour, sees this job and logs at its
/// torch, and can do nothing else here.
#[utoipa::path(post, path = "/api/door/helper", request_body = ToHelp, responses(
    (status = 200, description = "What the phone is shown", body = ForAHelper),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[post("/helper", data = "<body>")]
pub async fn invite(
    door: &State<Door>,
    jobs: &State<JobService>,
    reached: &State<ServerAddresses>,
    origin: PageOrigin<'_>,
    body: Body<ToHelp>,
) -> Result<Json<ForAHelper>, ApiError> {
    let job = body.0?.job;
    jobs.load(job).await?;
    let page = match door.asks {
        _ if reached.by_others => reached.pages.first().cloned(),
        // Something passes requests on to here: where, only the page that asks can tell.
        Asks::Everybody => origin.0.map(str::to_owned),
        Asks::Nobody | Asks::Others => None,
    };
    let Some(page) = page.map(|page| format!("{page}/jobs/{job}/helper")) else {
        return Ok(Json(ForAHelper { url: String::new(), qr: String::new(), until_ms: None }));
    };
    let (url, until_ms) = if door.asks == Asks::Nobody {
        (page, None)
    } else {
        let (code, until_ms) = door.invite(job)?;
        // What stands behind it is sent to no server, and written into no log.
        (format!("{page}#{code}"), Some(until_ms))
    };
    Ok(Json(ForAHelper { qr: qr::svg(&url).unwrap_or_default(), url, until_ms }))
}

/// A helper's phone shows its code.
#[utoipa::path(post, path = "/api/door/helped", request_body = Helped, responses(
    (status = 200, description = "It may come in, to that job", body = DoorView),
    (status = 401, description = "No such code, or not any more", body = ProblemsBody),
    (status = 429, description = "Wrong too often", body = ProblemsBody)))]
#[post("/helped", data = "<body>")]
pub async fn helped(
    door: &State<Door>,
    who: AtTheDoor,
    cookies: &CookieJar<'_>,
    reached: &State<ServerAddresses>,
    body: Body<Helped>,
) -> Result<Json<DoorView>, ApiError> {
    let said = body.0?;
    // Whoever may do more already keeps that.
    if !who.sees_others() {
        let shown = door.helped(&said.code, &said.name, who.from).await?;
        cookies.add(cookie(shown, reached.tls));
    }
    Ok(Json(DoorView { closed: false, ..view(door, &who).into_inner() }))
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
    let by = who.device.as_ref().map(|device| device.id);
    let said = body.0?;
    door.says_the_old_one(said.old, who.from).await?;
    door.set(&said.passphrase, by).await?;
    Ok(view(door, &who.come_in()))
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
    Ok(view(door, &who.come_in()))
}
