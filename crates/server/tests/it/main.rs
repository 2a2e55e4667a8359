//! The server over its own routes and files: one binary, a file each thing.

mod common;
mod data_folder;
mod door;
mod durable;
mod found_again;
mod houses;
mod iron;
mod job_file;
mod jobs;
mod keep;
mod ledger;
mod logger;
mod map;
mod numbers;
mod pad;
mod pictures;
mod practice;
mod reckon;
mod reckon_properties;
mod reckoner;
mod shop;
mod stand_in;
mod stored;
mod stream;
mod units;
mod web;
