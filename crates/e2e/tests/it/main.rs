//! Journeys through the real interface: one binary, a file each thing.

mod accessibility;
mod check;
mod counted;
mod drawing;
mod first_screens;
mod full_disk;
mod journeys;
mod kept;
mod kept_data;
mod know;
mod lightings;
mod many;
mod map;
mod moving;
mod offline;
mod paper;
mod prep;
mod reach;
mod release;
mod stations;
mod stores;
mod strangers;
mod tls;
mod torch;
mod uploads;
mod words;
