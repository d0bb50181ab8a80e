/// Longest part of somebody's words that a fault repeats.
const MOST: usize = 40;

/// What somebody wrote, short enough to be repeated in a fault.
pub fn quoted(text: &str) -> String {
    text.trim().chars().take(MOST).collect()
}
