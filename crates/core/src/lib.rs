//! The computation between a flour's lab sheet and a good loaf.
//!
//! Pure functions over plain values: no clock, no network, no database, no interface.
//! The modules follow the dough: [`flour`] is read and judged, [`water`] is set from it,
//! the [`dough`] is scaled and weighed, [`heat`] closes the balance, the [`method`] puts it
//! on a sheet, and the [`chain`] runs all of them at once and says what moved and why. What a
//! [`plant`] has in place of the house's numbers goes with them.
//!
//! Percent are percent (`62.0`, not `0.62`); masses kg, temperatures °C, times as the name says.
//! Every coefficient knows its [`coefficient::Origin`].

pub mod batch;
pub mod chain;
pub mod coefficient;
pub mod dough;
pub mod fault;
pub mod ferment;
pub mod flour;
pub mod heat;
pub mod judging;
pub mod learn;
pub mod lot;
pub mod method;
pub mod oven;
pub mod plant;
pub mod schedule;
pub mod trial;
pub mod units;
pub mod water;
