//! The key of the shop's logger: only its digest is kept, so that nobody who reads the shop reads the key.

use std::collections::BTreeMap;

use sha2::{Digest, Sha256};
use sqlx::{Row, SqliteConnection};
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::field::{self, FieldState, FieldValue};
use vanadin_core::shop::ShopWord;

use crate::api_error::ApiError;

/// How what is kept of a key begins: what begins otherwise is a key itself.
const KEPT: &str = "sha256:";
/// House: letters that nobody guesses.
const LETTERS: usize = 16;

fn kept(key: &str) -> String {
    let hex: String = Sha256::digest(key.as_bytes()).iter().map(|byte| format!("{byte:02x}")).collect();
    format!("{KEPT}{hex}")
}

/// Whether this is the shop's key. Without one nothing is.
#[must_use]
pub fn is_the_key(settings: &BTreeMap<String, FieldState>, shown: &str) -> bool {
    let ours = settings.get(field::shop::LOGGER.key()).map_or("", |held| held.typed.trim());
    !ours.is_empty() && ours == kept(shown)
}

/// A word of the shop as it is stored: of a key its digest.
///
/// # Errors
/// The key is too easy to guess.
pub fn without_the_key(word: ShopWord) -> Result<ShopWord, FieldProblem> {
    match word {
        ShopWord::Set { key, typed, shown_in } if key == field::shop::LOGGER.key() => {
            let said = typed.trim();
            let typed = match said {
                "" => String::new(),
                short if short.chars().count() < LETTERS => {
                    let right = format!("{LETTERS} letters and figures or more");
                    return Err(FieldProblem::new(key, "that is too easy to guess", right));
                }
                key => kept(key),
            };
            Ok(ShopWord::Set { key, typed, shown_in })
        }
        other => Ok(other),
    }
}

/// Keys that were kept as they are, from before: of each only the digest stays in the log.
///
/// # Errors
/// The log cannot be read or written.
pub async fn forget_the_keys(on: &mut SqliteConnection) -> Result<(), ApiError> {
    let rows = sqlx::query("select id, change from shop_fact where instr(change, ?) > 0")
        .bind(field::shop::LOGGER.key())
        .fetch_all(&mut *on)
        .await?;
    for row in rows {
        let Ok(Ok(ShopWord::Set { key, typed, shown_in })) =
            row.try_get(1).map(serde_json::from_str::<ShopWord>)
        else {
            continue;
        };
        if typed.trim().is_empty() || typed.starts_with(KEPT) || key != field::shop::LOGGER.key() {
            continue;
        }
        let digest = kept(typed.trim());
        let understood = Some(FieldValue::Text(digest.clone()));
        let json = |error: serde_json::Error| anyhow::Error::from(error);
        let change = ShopWord::Set { key, typed: digest, shown_in };
        sqlx::query("update shop_fact set change = ?, understood = ? where id = ?")
            .bind(serde_json::to_string(&change).map_err(json)?)
            .bind(serde_json::to_string(&understood).map_err(json)?)
            .bind(row.try_get::<String, _>(0)?)
            .execute(&mut *on)
            .await?;
    }
    Ok(())
}
