//! The API's own description: `GET /api/openapi.json`, `vanadin openapi`.

use rocket::get;
use rocket::http::ContentType;
use utoipa::openapi::request_body::RequestBody;
use utoipa::openapi::schema::{ObjectBuilder, Type};
use utoipa::openapi::{Content, OpenApi as OpenApiDocument, Ref, RefOr, ResponseBuilder};
use utoipa::{Modify, OpenApi};
use vanadin_core::field::{
    CRACK_FIELDS, FACE_FIELDS, JOB_FIELDS, MARK_FIELDS, NEIGHBOUR_FIELDS, PICTURE_FIELDS, SHOP_FIELDS,
    STORE_FIELDS,
};
use vanadin_core::job::Parsed;

use crate::api_error::ProblemsBody;

#[derive(OpenApi)]
#[openapi(
    info(title = "Vanadin", description = "Plans, runs and remembers the repair of iron castings."),
    paths(
        crate::health::health,
        crate::rack::route::rack,
        crate::practice::route::show,
        crate::practice::route::begin,
        crate::practice::route::again,
        crate::practice::route::own_repair,
        crate::practice::route::became,
        crate::practice::teach::hand_out,
        crate::practice::teach::take_up,
        crate::practice::teach::hand_back,
        crate::practice::teach::read_back,
        crate::job::route::create,
        crate::job::route::blank,
        crate::job::route::show,
        crate::job::route::add_fact,
        crate::job::route::history,
        crate::job::route::copy,
        crate::job::route::let_go,
        crate::job::route::what_if,
        crate::job::route::as_if,
        crate::job::route::would_be_first,
        crate::job::opened::way,
        crate::job::opened::figure,
        crate::job::opened::rehearsal,
        crate::picture::route::take_picture,
        crate::picture::route::show_picture,
        crate::picture::route::show_small_picture,
        crate::map::route::face_picture,
        crate::map::route::trace,
        crate::map::route::face_file,
        crate::map::route::face_pages,
        crate::job::stream::stream,
        crate::job::label::label_code,
        crate::job::face_heat::face_heated,
        crate::job::face_heat::face_warms,
        crate::job::face_heat::face_as_logged,
        crate::job::face_heat::face_cools,
        crate::job::face_heat::face_carries,
        crate::job::face_heat::beginnings,
        crate::job::face_heat::seams_pull,
        crate::job::odds_moved::odds_moved,
        crate::job::oven::oven,
        crate::job::oven::oven_program,
        crate::logger::bring_in::bring_in_readings,
        crate::logger::route::log_readings,
        crate::job_file::export,
        crate::job_file::import,
        crate::door::route::show,
        crate::door::route::come_in,
        crate::door::route::set_passphrase,
        crate::door::route::turn_out,
        crate::door::route::invite,
        crate::door::route::helped,
        crate::wire::tables::tables,
        crate::reach::route::address,
        crate::shop::route::show,
        crate::shop::route::change,
        crate::shop::device_units::choose_units,
        crate::calendar::of_a_job,
        crate::calendar::hands_of_a_job,
        crate::calendar::of_the_shop,
        crate::stores::route::show,
        crate::stores::route::buying,
        crate::ledger::show,
        crate::ledger::table,
        crate::ledger::asked,
        crate::ledger::cases,
        crate::ledger::coupon_picture::take_coupon_picture,
        crate::ledger::coupon_picture::show_coupon_picture,
        crate::ledger::coupon_picture::show_small_coupon_picture,
        crate::reckoner::calculations,
        crate::reckoner::reckon,
        crate::reckon::iron::iron,
        crate::reckon::bench_work::stop_hole,
        crate::reckon::bench_work::tip_learned,
        crate::reckon::bench_work::drill_speed,
        crate::reckon::bench_work::groove,
        crate::reckon::bench_work::stitch,
        crate::reckon::choice::odds,
        crate::reckon::choice::decide,
        crate::reckon::learned::calibration,
        crate::reckon::learned::break_ratio,
        crate::reckon::map::seam,
        crate::reckon::map::straighten,
        crate::reckon::drawn_body::body_heat,
        crate::reckon::drawn_body::body_tips,
        crate::reckon::drawn_body::body_pull,
        crate::reckon::drawn_body::body_load,
        crate::reckon::section::strength_of,
        crate::reckon::heat::energy,
        crate::reckon::heat::heating,
        crate::reckon::heat::heating_band_of,
        crate::reckon::heat::cooling,
        crate::reckon::at_the_heat::gas,
        crate::reckon::at_the_heat::acetylene,
        crate::reckon::at_the_heat::sticks,
        crate::reckon::infrared::infrared,
        crate::reckon::infrared::infrared_aim,
        crate::reckon::at_the_heat::edge,
        crate::reckon::at_the_heat::oven,
        crate::reckon::at_the_heat::out_of_heat,
        crate::reckon::at_the_heat::pull,
        crate::reckon::beads::bead_rise,
        crate::reckon::beads::bead_order_of,
        crate::reckon::course::cooling_chain_of,
        crate::reckon::course::cooling_refit,
        crate::reckon::course::heating_refit,
    ),
    modifiers(&Common, &Keys),
    components(schemas(ProblemsBody, Parsed, crate::job::stream::Hello))
)]
struct Api;

/// The keys of all fields, as closed sets of words.
struct Keys;

impl Modify for Keys {
    fn modify(&self, document: &mut OpenApiDocument) {
        let schemas = &mut document.components.get_or_insert_default().schemas;
        for (name, fields) in [
            ("JobField", JOB_FIELDS),
            ("ShopField", SHOP_FIELDS),
            ("CrackField", CRACK_FIELDS),
            ("NeighbourField", NEIGHBOUR_FIELDS),
            ("PictureField", PICTURE_FIELDS),
            ("FaceField", FACE_FIELDS),
            ("MarkField", MARK_FIELDS),
            ("StoreField", STORE_FIELDS),
        ] {
            let keys = fields.iter().map(|spec| spec.key);
            let schema = ObjectBuilder::new().schema_type(Type::String).enum_values(Some(keys));
            schemas.insert(name.to_owned(), schema.build().into());
        }
    }
}

/// What any operation may answer beside what it says of itself.
struct Common;

/// Whatever is asked; and whatever is sent.
const ALWAYS: [(&str, &str); 3] = [
    ("401", "This device is not known here"),
    ("403", "Asked by a name that was made to point here, or written by a foreign page"),
    ("500", "Something broke in the server; nothing was changed"),
];
const WITH_A_BODY: [(&str, &str); 5] = [
    ("400", "The body cannot be read"),
    ("408", "The body did not come"),
    ("413", "The body is too large"),
    ("415", "The body is no JSON"),
    ("422", "Not acceptable, at its field"),
];

impl Modify for Common {
    fn modify(&self, document: &mut OpenApiDocument) {
        for item in document.paths.paths.values_mut() {
            for operation in [&mut item.get, &mut item.post].into_iter().flatten() {
                let json = |body: &RefOr<RequestBody>| matches!(body, RefOr::T(body) if body.content.contains_key("application/json"));
                let body = operation.request_body.as_ref().is_some_and(json);
                let sent = WITH_A_BODY.iter().filter(|_| body);
                for (status, means) in ALWAYS.iter().chain(sent) {
                    let told = || {
                        let problems = Content::new(Some(Ref::from_schema_name("ProblemsBody")));
                        let response = ResponseBuilder::new().description(*means);
                        response.content("application/json", problems).build().into()
                    };
                    operation.responses.responses.entry((*status).to_owned()).or_insert_with(told);
                }
            }
        }
    }
}

/// The OpenAPI document, indented.
#[must_use]
pub fn openapi_document() -> String {
    Api::openapi().to_pretty_json().expect("the document is made of plain values")
}

#[get("/openapi.json")]
pub fn openapi() -> (ContentType, String) {
    (ContentType::JSON, openapi_document())
}
