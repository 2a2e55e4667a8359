//! Applying a change to the shop: judged, stored, published.

use std::sync::Arc;

use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::job::Conflict;
use vanadin_core::shop::{ShopFact, ShopWord, may_be_said};

use super::{JobService, News, ShopNow};
use crate::api_error::ApiError;
use crate::shop::logger_key::without_the_key;
use crate::shop::store;

/// A change to the shop's log.
#[derive(Debug, Deserialize, ToSchema)]
pub struct NewShopFact {
    /// Made by whoever says it: sent twice, stored once.
    #[serde(default = "Uuid::new_v4")]
    pub id: Uuid,
    #[serde(default)]
    pub who: String,
    /// Whose word it is: everybody takes back their own.
    #[serde(default)]
    pub sender: String,
    /// The revision of the setting that it replaces, as last seen; nothing to replace whatever stands.
    #[serde(default)]
    pub base: Option<u64>,
    pub change: ShopWord,
}

/// Letters of a name or a sender at the most.
const NAME_MOST: usize = 80;

impl JobService {
    /// Applies a change to the shop, one at a time.
    ///
    /// # Errors
    /// It cannot be, somebody else changed the setting, or it cannot be stored.
    pub async fn apply_to_shop(&self, said: NewShopFact) -> Result<Arc<ShopNow>, ApiError> {
        let _lock = self.on.shop_lock.lock().await;
        let shop = self.shop().await?;
        if shop.facts.iter().any(|fact| fact.id == said.id) {
            return Ok(shop);
        }
        let change = without_the_key(said.change).map_err(|problem| vec![problem])?;
        let change = match change {
            ShopWord::Coupon(coupon) => {
                ShopWord::Coupon(Box::new(coupon.understood().map_err(|problem| vec![problem])?))
            }
            other => other,
        };
        let understood = may_be_said(&shop.facts, &change, &said.sender).map_err(|problem| vec![problem])?;
        store::known_zone(&change)?;
        if let ShopWord::Set { key, typed, .. } = &change
            && let (Some(held), Some(base)) = (shop.values.get(key), said.base)
            && held.revision > base
            && held.typed != typed.trim()
        {
            return Err(ApiError::Changed(Conflict {
                field: key.clone(),
                yours: typed.clone(),
                theirs: held.typed.clone(),
                revision: held.revision,
            }));
        }
        let now_ms = self.now_ms();
        let name = |text: &str| text.chars().take(NAME_MOST).collect();
        let fact = ShopFact {
            id: said.id,
            revision: shop.revision + 1,
            at_client_ms: now_ms,
            at_server_ms: now_ms,
            who: name(&said.who),
            sender: name(&said.sender),
            change,
            understood,
        };
        self.database.write(async |on| store::add(on, &fact).await).await?;
        let mut facts = shop.facts.to_vec();
        facts.push(fact);
        let now = Arc::new(ShopNow::of(facts));
        self.shop_is(now.clone());
        self.notify(News::Shop { revision: now.revision });
        Ok(now)
    }
}
