//! What readers of the records are told.

use tokio::sync::{broadcast, watch};

/// Writes a reader may lag behind before it is told to look at everything anew.
const BEHIND: usize = 256;

/// What readers are told.
#[derive(Debug, Clone)]
pub enum Told {
    /// Something was written at this address.
    Written(String),
    /// Something may have been, unheard.
    Missed,
}

/// What is told to every reader of this server.
#[derive(Debug, Clone)]
pub struct Live {
    pub told: broadcast::Sender<Told>,
    pub closing: watch::Sender<bool>,
    /// Whether the database is listened to.
    pub listening: watch::Sender<bool>,
}

impl Default for Live {
    fn default() -> Self {
        Self {
            told: broadcast::channel(BEHIND).0,
            closing: watch::channel(false).0,
            listening: watch::channel(false).0,
        }
    }
}

impl Live {
    /// Ends every reader's answer.
    pub fn close(&self) {
        self.closing.send_replace(true);
    }
}
