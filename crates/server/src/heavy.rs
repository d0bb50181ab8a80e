//! Computing that takes long enough to hold others up runs off the threads that answer them.

use std::sync::LazyLock;

use tokio::sync::Semaphore;

/// As many at once as there are cores: more would only make each slower.
static AT_ONCE: LazyLock<Semaphore> =
    LazyLock::new(|| Semaphore::new(std::thread::available_parallelism().map_or(2, usize::from)));

/// Runs it on a thread of its own, waiting for its turn where enough is under way.
pub async fn heavy<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> T {
    let _turn = AT_ONCE.acquire().await.expect("it is never closed");
    match tokio::task::spawn_blocking(work).await {
        Ok(done) => done,
        // A panic in it is a panic here, answered and logged like any other.
        Err(ended) => std::panic::resume_unwind(ended.into_panic()),
    }
}
