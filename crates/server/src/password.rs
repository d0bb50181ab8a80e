//! Passwords and tokens: what is kept of them gives neither away.

use std::sync::LazyLock;

use argon2::Argon2;
use argon2::password_hash::{PasswordHasher, PasswordVerifier, phc::PasswordHash};
use ironpeel_core::units::ValidationErrors;
use sha2::{Digest, Sha256};
use uuid::Uuid;
use zxcvbn::{Score, zxcvbn};

use crate::heavy::heavy;
use crate::problem::{Problem, Result};

/// A password takes this long to guess at least, and no longer than this to hash.
const LETTERS: std::ops::RangeInclusive<usize> = 12..=128;

/// Checked where there is no account, so that its absence takes as long.
static NOBODY: LazyLock<String> = LazyLock::new(|| hashed("nobody's").unwrap_or_default());

/// Says at its field what is wrong with a password somebody wants; what is known of them is tried
/// first by whoever guesses, as are the words and passwords of lists.
pub fn check(field: &str, password: &str, known: &[&str], faults: &mut ValidationErrors) {
    if !LETTERS.contains(&password.chars().count()) {
        let (least, most) = (LETTERS.start(), LETTERS.end());
        faults.push(field, format!("a password has {least} to {most} letters, any of them"));
        return;
    }
    let of_them =
        known.iter().flat_map(|text| text.split(|letter: char| !letter.is_alphanumeric()));
    let first: Vec<&str> = of_them.chain(["ironpeel", "bakery"]).collect();
    if zxcvbn(password, &first).score() < Score::Three {
        faults.push(
            field,
            "this is among the first that are tried; put words together nobody else would",
        );
    }
}

/// What is kept of a password: Argon2id, as a PHC string with its own salt.
pub async fn hash(password: String) -> Result<String> {
    heavy(move || hashed(&password)).await.map_err(Problem::fault)
}

fn hashed(password: &str) -> argon2::password_hash::Result<String> {
    let hash: argon2::password_hash::phc::PasswordHash =
        Argon2::default().hash_password(password.as_bytes())?;
    Ok(hash.to_string())
}

/// Whether it is the password of this hash; without one as slow, and never.
pub async fn is_right(password: String, hash: Option<String>) -> bool {
    heavy(move || {
        let known = hash.is_some();
        let hash = hash.unwrap_or_else(|| NOBODY.clone());
        let Ok(hash) = PasswordHash::new(&hash) else { return false };
        Argon2::default().verify_password(password.as_bytes(), &hash).is_ok() && known
    })
    .await
}

/// 244 bits of chance.
pub fn secret_bytes() -> [u8; 32] {
    [Uuid::new_v4(), Uuid::new_v4()].map(Uuid::into_bytes).concat().try_into().unwrap_or_default()
}

/// A new secret nobody can guess.
pub fn secret() -> String {
    hex::encode(secret_bytes())
}

/// What is kept of a secret. It needs no salt: it is as long as its hash.
pub fn hash_of_secret(secret: &str) -> Vec<u8> {
    Sha256::digest(secret).to_vec()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn a_password_is_right_for_its_own_hash_alone() {
        let hash = hash("skerrow-demo".into()).await.expect("it can be hashed");
        assert!(hash.starts_with("$argon2id$"));
        assert!(is_right("skerrow-demo".into(), Some(hash.clone())).await);
        assert!(!is_right("skerrow-dem0".into(), Some(hash)).await);
        assert!(!is_right("nobody's".into(), None).await);
        assert!(!is_right(String::new(), Some("no hash".into())).await);
    }

    #[test]
    fn what_is_tried_first_is_no_password() {
        let wrong = |password: &str| {
            let mut faults = ValidationErrors::default();
            check("password", password, &["Marit Lunde", "marit@skerrow.example"], &mut faults);
            faults.or(()).is_err()
        };
        for password in [
            "short",
            "password1234",
            "qwertyuiop12",
            "maritmaritlunde",
            "ironpeelironpeel",
            "aaaaaaaaaaaaa",
        ] {
            assert!(wrong(password), "{password}");
        }
        for password in ["slow rye in the morning", "x9Qv!fT2mLp0"] {
            assert!(!wrong(password), "{password}");
        }
    }

    #[test]
    fn no_two_secrets_are_the_same() {
        let [one, other] = [secret(), secret()];
        assert_ne!(one, other);
        assert_ne!(hash_of_secret(&one), hash_of_secret(&other));
    }
}
