//! `/api/jobs/<id>/map/...`

use rocket::http::{ContentType, Header};
use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::job::{FacePicture, Job};
use vanadin_core::map::{At, GrayPicture, Line, Pages, simplified, traced};

use super::store;
use super::straighten::{PictureOnFace, straightened};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::job::route::known;
use crate::job_service::{JobService, work};
use crate::picture::store as pictures;
use crate::shop::device_units::DeviceUnits;

#[derive(rocket::Responder)]
#[response(status = 200)]
pub struct CachedFile {
    bytes: Vec<u8>,
    content_type: ContentType,
    as_said: Header<'static>,
}

fn picture_of(job: &Job, face: Uuid) -> Result<FacePicture, ApiError> {
    let face = job.faces.iter().find(|known| known.id == face);
    face.and_then(|face| face.picture.clone()).ok_or(ApiError::Unknown("such picture"))
}

/// The straightened picture of a face: the one that is kept, or made now and kept.
async fn flat(jobs: &JobService, job: Uuid, face: Uuid, picture: &FacePicture) -> Result<Vec<u8>, ApiError> {
    let revision = picture.revision;
    if let Some(kept) = store::kept(&jobs.database.pool, job, face, revision).await? {
        return Ok(kept);
    }
    let taken = pictures::jpeg(&jobs.database.pool, job, picture.picture, false).await?;
    let taken = taken.ok_or(ApiError::Unknown("such picture"))?;
    let laid = picture.clone();
    let made = work(move || straightened(&taken, &laid)).await?;
    let made = made.ok_or(ApiError::Unknown("such picture"))?;
    jobs.database.write(async |on| store::keep(on, job, face, revision, &made).await).await?;
    Ok(made)
}

/// The picture of a face, straightened: it shows the frame that the plan says. Ask with the revision that
/// stands in the plan.
#[utoipa::path(get, path = "/api/jobs/{id}/map/{face}/picture/{revision}", params(
    ("id" = Uuid, Path, description = "The job"), ("face" = Uuid, Path, description = "The face"),
    ("revision" = u64, Path, description = "Of the fact that laid it there")),
    responses(
    (status = 200, description = "The picture", content_type = "image/jpeg"),
    (status = 404, description = "No such picture", body = ProblemsBody)))]
#[get("/<id>/map/<face>/picture/<revision>")]
pub async fn face_picture(
    jobs: &State<JobService>,
    id: &str,
    face: &str,
    revision: u64,
) -> Result<CachedFile, ApiError> {
    let (id, face) = (known(id)?, known(face)?);
    let picture = picture_of(&jobs.load(id).await?.job, face)?;
    if picture.revision != revision {
        return Err(ApiError::Unknown("such picture"));
    }
    Ok(CachedFile {
        bytes: flat(jobs, id, face, &picture).await?,
        content_type: ContentType::JPEG,
        as_said: Header::new("X-Content-Type-Options", "nosniff"),
    })
}

/// How the crack shows in the picture.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Shows {
    Dark,
    Light,
    /// Dye.
    Red,
    /// Magnetic powder under its lamp.
    Bright,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct TraceRequest {
    /// The two ends, in mm on the face.
    pub from: At,
    pub to: At,
    pub shows: Shows,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct Traced {
    /// From the first end to the second: a proposal.
    pub points: Vec<At>,
}

/// Follows a crack on the straightened picture from one end to the other. Nothing is stored.
#[utoipa::path(post, path = "/api/jobs/{id}/map/{face}/trace", request_body = TraceRequest, params(
    ("id" = Uuid, Path, description = "The job"), ("face" = Uuid, Path, description = "The face")),
    responses(
    (status = 200, description = "The line between them", body = Traced),
    (status = 404, description = "No such picture", body = ProblemsBody),
    (status = 422, description = "An end lies off the picture", body = ProblemsBody)))]
#[post("/<id>/map/<face>/trace", data = "<body>")]
pub async fn trace(
    jobs: &State<JobService>,
    id: &str,
    face: &str,
    body: Body<TraceRequest>,
) -> Result<Json<Traced>, ApiError> {
    let (id, face) = (known(id)?, known(face)?);
    let request = body.0?;
    let picture = picture_of(&jobs.load(id).await?.job, face)?;
    let laid = PictureOnFace::of(&picture).ok_or(ApiError::Unknown("such picture"))?;
    let jpeg = flat(jobs, id, face, &picture).await?;
    // A picture is large once it is opened: as many at a time as there are processors.
    let found = work(move || followed(&jpeg, &laid, &request)).await?;
    let off = || vec![FieldProblem::new("from", "an end lies off the picture", "two places on the picture")];
    Ok(Json(Traced { points: found.ok_or_else(off)? }))
}

fn followed(jpeg: &[u8], laid: &PictureOnFace, request: &TraceRequest) -> Option<Vec<At>> {
    let picture = image::load_from_memory(jpeg).ok()?.into_rgb8();
    let values: Vec<u8> = picture
        .pixels()
        .map(|pixel| {
            let [red, green, blue] = pixel.0.map(u16::from);
            let value = match request.shows {
                Shows::Dark | Shows::Light => (red + 2 * green + blue) / 4,
                Shows::Red => 128 + red.saturating_sub(green.max(blue)) / 2,
                Shows::Bright => red.max(green).max(blue),
            };
            value as u8
        })
        .collect();
    let gray = GrayPicture::new(picture.width() as usize, picture.height() as usize, &values)?;
    let line = match request.shows {
        Shows::Dark => Line::Dark,
        Shows::Light | Shows::Red | Shows::Bright => Line::Light,
    };
    let points = traced(gray, laid.point(request.from), laid.point(request.to), line)?;
    let places: Vec<At> = points.into_iter().map(|point| laid.place(point)).collect();
    // To half a millimetre or one point of the picture, whichever is more. House.
    Some(simplified(&places, (1.0 / laid.per_mm).max(0.5)))
}

/// A face at 1:1 on paper, over as many pages of A4 or Letter as it takes, each with a ruler that proves its scale.
#[utoipa::path(get, path = "/api/jobs/{id}/map/{face}/pages", params(
    ("id" = Uuid, Path, description = "The job"), ("face" = Uuid, Path, description = "The face")),
    responses(
    (status = 200, description = "The pages, to be printed", content_type = "text/html"),
    (status = 404, description = "No such face", body = ProblemsBody),
    (status = 422, description = "It takes more pages than can be glued", body = ProblemsBody)))]
#[get("/<id>/map/<face>/pages")]
pub async fn face_pages(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    face: &str,
) -> Result<CachedFile, ApiError> {
    let face = known(face)?;
    let seen = jobs.load_in(known(id)?, units).await?;
    let plan = seen.plan.map.faces.iter().find(|plan| plan.id == face);
    let laid = plan.ok_or(ApiError::Unknown("such face"))?.drawing(seen.job.name()).pages();
    let too_many = || {
        let right = "the SVG or the DXF, for a plotter";
        vec![FieldProblem::new("face", "it takes more pages than can be glued", right)]
    };
    let Pages { whole, pages } = laid.ok_or_else(too_many)?;
    let sheets: String = pages.into_iter().map(|page| format!("<section>{}</section>\n", page.svg)).collect();
    let html = format!(
        "<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>1:1</title><style>\
         @page {{ margin: 12mm }} body {{ margin: 0; background: #fff }} svg {{ display: block }} \
         section {{ break-after: page }} section:last-child {{ break-after: auto }} \
         p {{ font: 16px sans-serif; margin: 12px 0 }} @media print {{ p {{ display: none }} }}\
         </style></head><body><p>Print it at 100 %, not fitted to the page; then measure the ruler.</p>\n{whole}\n{sheets}\
         </body></html>\n"
    );
    Ok(CachedFile {
        bytes: html.into_bytes(),
        content_type: ContentType::HTML,
        as_said: Header::new("X-Content-Type-Options", "nosniff"),
    })
}

/// A face at 1:1: `<face>.svg`, or `<face>.dxf` in millimetres with a layer for each kind of mark.
#[utoipa::path(get, path = "/api/jobs/{id}/map/{file}", params(
    ("id" = Uuid, Path, description = "The job"),
    ("file" = String, Path, description = "The face's id and .svg or .dxf")),
    responses(
    (status = 200, description = "The drawing", content_type = "image/svg+xml"),
    (status = 404, description = "No such face", body = ProblemsBody)))]
#[get("/<id>/map/<file>")]
pub async fn face_file(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    file: &str,
) -> Result<CachedFile, ApiError> {
    let unknown = || ApiError::Unknown("such face");
    let (face, ending) = file.rsplit_once('.').ok_or_else(unknown)?;
    let face = known(face)?;
    let seen = jobs.load_in(known(id)?, units).await?;
    let plan = seen.plan.map.faces.iter().find(|plan| plan.id == face).ok_or_else(unknown)?;
    let drawing = plan.drawing(seen.job.name());
    let (text, content_type) = match ending {
        "svg" => (drawing.svg(), ContentType::SVG),
        "dxf" => (drawing.dxf(), ContentType::new("image", "vnd.dxf")),
        _ => return Err(unknown()),
    };
    Ok(CachedFile {
        bytes: text.into_bytes(),
        content_type,
        as_said: Header::new("X-Content-Type-Options", "nosniff"),
    })
}
