//! What readers of the records are told.

use ironpeel_core::batch::BatchState;
use ironpeel_store::Word;
use serde::Serialize;
use tokio::sync::{broadcast, watch};
use utoipa::ToSchema;
use uuid::Uuid;

/// Writes a reader may lag behind before it is told to look at everything anew.
const BEHIND: usize = 256;

/// What readers are told.
#[derive(Debug, Clone)]
pub enum Told {
    /// Something was written at this address.
    Written(String),
    Batch(BatchChange),
    /// Something may have been, unheard.
    Missed,
}

/// A batch that changed, and where it stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct BatchChange {
    pub id: Uuid,
    pub state: BatchState,
    /// The place to ask from again: older transactions were told before.
    #[serde(skip)]
    pub place: i64,
}

impl BatchChange {
    /// As the database says it: `batch`, its id, its state and the place.
    pub fn read(told: &str) -> Option<Self> {
        let mut words = told.strip_prefix("batch ")?.split(' ');
        Some(Self {
            id: words.next()?.parse().ok()?,
            state: Word::named(words.next()?)?,
            place: words.next()?.parse().ok()?,
        })
    }
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
