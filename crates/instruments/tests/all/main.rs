//! The tests of the instruments, one program.

mod floor;
mod read_back;
mod years;
