//! The HTTP interface on the real server: one program, so that its tests share a PostgreSQL server.

mod answers;
mod bag;
mod batch_events;
mod calculators;
mod chain;
mod clock;
mod coefficients;
mod dough;
mod flour;
mod judged;
mod learned;
mod lots;
mod method;
mod nonsense;
mod opening;
mod pages;
mod people;
mod photographs;
mod records;
mod schemas;
mod static_files;
mod stations;
#[path = "../support/mod.rs"]
mod support;
mod trial_judged;
mod water;
