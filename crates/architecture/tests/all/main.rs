//! The tests of the architecture, one program.

mod arrows;
mod dependencies;
mod left_out;
