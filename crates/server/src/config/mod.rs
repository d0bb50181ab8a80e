//! How a server is run: one set of settings, whether a flag, the environment or a file says them.

mod networks;
mod settings;
mod sources;

pub use settings::Config;
pub use sources::{Flags, effective};
