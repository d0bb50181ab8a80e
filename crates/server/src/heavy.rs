//! Computing that takes long enough to hold others up runs off the threads that answer them.

use std::sync::LazyLock;

use metrics::gauge;
use tokio::sync::Semaphore;

use crate::gauge::{Counted, HEAVY};

/// As many at once as there are cores: more would only make each slower.
static AT_ONCE: LazyLock<Semaphore> =
    LazyLock::new(|| Semaphore::new(std::thread::available_parallelism().map_or(2, usize::from)));

/// Runs it on a thread of its own, waiting for its turn where enough is under way.
pub async fn heavy<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> T {
    let waiting = Counted::of(gauge!(HEAVY, "state" => "waiting"));
    let _turn = AT_ONCE.acquire().await.expect("it is never closed");
    drop(waiting);
    let _running = Counted::of(gauge!(HEAVY, "state" => "running"));
    match tokio::task::spawn_blocking(work).await {
        Ok(done) => done,
        // A panic in it is a panic here, answered and logged like any other.
        Err(ended) => std::panic::resume_unwind(ended.into_panic()),
    }
}

#[cfg(test)]
mod tests {
    use std::sync::atomic::{AtomicUsize, Ordering};
    use std::time::Duration;

    use super::*;

    #[tokio::test]
    async fn no_more_is_computed_at_once_than_there_are_cores() {
        static UNDER_WAY: AtomicUsize = AtomicUsize::new(0);
        static MOST: AtomicUsize = AtomicUsize::new(0);
        let cores = std::thread::available_parallelism().map_or(2, usize::from);
        let works = (0..3 * cores).map(|_| {
            heavy(|| {
                MOST.fetch_max(UNDER_WAY.fetch_add(1, Ordering::SeqCst) + 1, Ordering::SeqCst);
                std::thread::sleep(Duration::from_millis(20));
                UNDER_WAY.fetch_sub(1, Ordering::SeqCst);
            })
        });
        let all = futures_util::future::join_all(works);
        all.await;
        assert!((1..=cores).contains(&MOST.load(Ordering::SeqCst)));
    }
}
