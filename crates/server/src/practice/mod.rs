//! `/api/practice`: made-up parts with a secret.

mod results;
pub mod route;
pub mod teach;

use rocket::{Route, routes};

pub fn routes() -> Vec<Route> {
    routes![
        route::show,
        route::begin,
        route::again,
        route::own_repair,
        route::became,
        teach::hand_out,
        teach::take_up,
        teach::hand_back,
        teach::read_back
    ]
}
