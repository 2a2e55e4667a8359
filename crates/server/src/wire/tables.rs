//! `/api/tables`: what never changes while the program runs, sent once.

use std::collections::BTreeMap;

use rocket::get;
use rocket::serde::json::Json;
use serde::Serialize;
use utoipa::ToSchema;
use vanadin_core::field::{
    CRACK_FIELDS, FACE_FIELDS, FieldSpec, JOB_FIELDS, MARK_FIELDS, NEIGHBOUR_FIELDS, PICTURE_FIELDS,
    SHOP_FIELDS, STORE_FIELDS,
};
use vanadin_core::job::{Deed, WentAt};
use vanadin_core::map::OnFace;
use vanadin_core::method::MethodId;
use vanadin_core::plan::{MeasuredView, Station, TAUGHT, Taught, TestView, measured_tests, tool_roll};
use vanadin_core::quantity::{Kind, UnitSystem};
use vanadin_core::render::said;

use super::field::{ChoiceView, FieldTable};
use crate::api_error::ApiError;

/// Every field there is, and every test of the iron, in the units of a shop.
#[derive(Debug, Serialize, ToSchema)]
pub struct Tables {
    /// Of a job and of the shop, by key.
    pub fields: BTreeMap<&'static str, FieldTable>,
    /// Of each crack, neighbour and picture, by the end of the key.
    pub of_crack: BTreeMap<&'static str, FieldTable>,
    pub of_neighbour: BTreeMap<&'static str, FieldTable>,
    pub of_picture: BTreeMap<&'static str, FieldTable>,
    /// Of each face of the part, and of each mark on it.
    pub of_face: BTreeMap<&'static str, FieldTable>,
    pub of_mark: BTreeMap<&'static str, FieldTable>,
    /// Of each thing in the stores.
    pub of_store: BTreeMap<&'static str, FieldTable>,
    /// Where practice differs, and what is taught.
    pub taught: Vec<TaughtTable>,
    /// The tests judged by look, as they lie on the roll.
    pub roll: Vec<TestView>,
    /// The tests that are measured or read.
    pub measured: Vec<MeasuredView>,
    /// Where a repair that does not hold can have gone.
    pub went_at: Vec<WentView>,
    /// What is done while it burns and has no press of its own, in the order of the work.
    pub deeds: Vec<DeedView>,
    /// What can be put on a face.
    pub things: Vec<ThingView>,
    /// The stations, in the order of the work.
    pub stations: Vec<StationView>,
    /// What is pressed beside the number keys of a phone where something is typed that is no field.
    pub length_keys: &'static [&'static str],
    pub mass_keys: &'static [&'static str],
    pub temperature_keys: &'static [&'static str],
    /// Largest picture that is taken, in MB.
    pub picture_mb: u64,
}

/// A place where a repair gave way.
#[derive(Debug, Serialize, ToSchema)]
pub struct WentView {
    pub went: WentAt,
    pub words: &'static str,
}

/// Something done at the torch, in words.
#[derive(Debug, Serialize, ToSchema)]
pub struct DeedView {
    pub deed: Deed,
    pub words: &'static str,
}

/// Something that lies on a face, in words: "bolt hole".
#[derive(Debug, Serialize, ToSchema)]
pub struct ThingView {
    pub thing: OnFace,
    pub words: &'static str,
}

/// A station and its word.
#[derive(Debug, Serialize, ToSchema)]
pub struct StationView {
    pub station: Station,
    pub word: &'static str,
}

/// A matter on which practice differs.
#[derive(Debug, Serialize, ToSchema)]
pub struct TaughtTable {
    pub label: &'static str,
    /// Keys of its fields: of a job, and as the shop prefers it.
    pub of_job: &'static str,
    pub of_shop: &'static str,
    pub choices: Vec<ChoiceView>,
    /// Who does it so, and why: one for each of the choices.
    pub who: Vec<String>,
    /// The id of what is done where nobody has chosen.
    pub usual: &'static str,
    /// Ids of the methods it matters for.
    pub methods: Vec<&'static str>,
}

impl TaughtTable {
    fn of(matter: &Taught, units: UnitSystem) -> Self {
        let methods = MethodId::ALL.into_iter().filter(|method| (matter.applies)(*method));
        Self {
            label: matter.label,
            of_job: matter.of_job,
            of_shop: matter.of_shop,
            choices: ChoiceView::all(matter.choices, units),
            who: matter.who.iter().map(|who| said(who, units)).collect(),
            usual: matter.usual,
            methods: methods.map(MethodId::id).collect(),
        }
    }
}

fn table<'a>(
    fields: impl IntoIterator<Item = &'a FieldSpec>,
    units: UnitSystem,
) -> BTreeMap<&'static str, FieldTable> {
    fields.into_iter().map(|spec| (spec.key, FieldTable::of(spec, units))).collect()
}

impl Tables {
    fn of(units: UnitSystem) -> Self {
        Self {
            fields: table(JOB_FIELDS.iter().chain(SHOP_FIELDS), units),
            of_crack: table(CRACK_FIELDS, units),
            length_keys: Kind::Length.keys(units),
            mass_keys: Kind::Mass.keys(units),
            temperature_keys: Kind::Temperature.keys(units),
            of_neighbour: table(NEIGHBOUR_FIELDS, units),
            of_picture: table(PICTURE_FIELDS, units),
            of_face: table(FACE_FIELDS, units),
            of_mark: table(MARK_FIELDS, units),
            of_store: table(STORE_FIELDS, units),
            taught: TAUGHT.iter().map(|matter| TaughtTable::of(matter, units)).collect(),
            roll: tool_roll(),
            measured: measured_tests(units),
            went_at: WentAt::ALL.into_iter().map(|went| WentView { went, words: went.words() }).collect(),
            deeds: Deed::all()
                .filter(|deed| !deed.has_its_press())
                .map(|deed| DeedView { deed, words: deed.label() })
                .collect(),
            things: OnFace::all().map(|thing| ThingView { thing, words: thing.label() }).collect(),
            stations: Station::ALL
                .into_iter()
                .map(|station| StationView { station, word: station.word() })
                .collect(),
            picture_mb: crate::picture::MOST_MIB,
        }
    }
}

/// Every field and every test, in one system of units.
#[utoipa::path(get, path = "/api/tables/{units}", params(
    ("units" = UnitSystem, Path, description = "metric or imperial")), responses(
    (status = 200, description = "The tables", body = Tables),
    (status = 404, description = "No such units", body = crate::api_error::ProblemsBody)))]
#[get("/tables/<units>")]
pub fn tables(units: &str) -> Result<Json<Tables>, ApiError> {
    match units {
        "metric" => Ok(Json(Tables::of(UnitSystem::Metric))),
        "imperial" => Ok(Json(Tables::of(UnitSystem::Imperial))),
        _ => Err(ApiError::Unknown("such units")),
    }
}
