//! The tests of the store, one program.

mod batch_records;
mod dough_records;
mod records;
mod support;
