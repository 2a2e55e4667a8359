//! The API's own description: `GET /api/openapi.json`, `vanadin openapi`.

use rocket::get;
use rocket::http::ContentType;
use utoipa::OpenApi;
use vanadin_core::job::Understood;

use crate::api_error::ProblemsBody;

#[derive(OpenApi)]
#[openapi(
    info(title = "Vanadin", description = "Plans, runs and remembers the repair of iron castings."),
    paths(
        crate::health::health,
        crate::rack::route::rack,
        crate::job::route::create,
        crate::job::route::show,
        crate::job::route::add_fact,
        crate::job::route::history,
        crate::job::route::copy,
        crate::job::route::let_go,
        crate::job::route::what_if,
        crate::job::route::as_if,
        crate::picture::route::take_picture,
        crate::picture::route::show_picture,
        crate::picture::route::show_small_picture,
        crate::job::stream::stream,
        crate::job_file::export,
        crate::job_file::import,
        crate::door::route::show,
        crate::door::route::come_in,
        crate::door::route::set_passphrase,
        crate::door::route::turn_out,
        crate::shop::route::show,
        crate::shop::route::change,
        crate::reckon::iron::iron,
        crate::reckon::bench_work::stop_hole,
        crate::reckon::bench_work::drill_speed,
        crate::reckon::bench_work::groove,
        crate::reckon::bench_work::stitch,
        crate::reckon::heat::energy,
        crate::reckon::heat::heating,
        crate::reckon::heat::cooling,
    ),
    components(schemas(ProblemsBody, Understood))
)]
struct Api;

/// The OpenAPI document, indented.
#[must_use]
pub fn openapi_document() -> String {
    Api::openapi().to_pretty_json().expect("the document is made of plain values")
}

#[get("/openapi.json")]
pub fn openapi() -> (ContentType, String) {
    (ContentType::JSON, openapi_document())
}
