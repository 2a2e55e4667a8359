//! A job and the shop in the units of the device that asks, where these are not the shop's.

use std::sync::Arc;

use uuid::Uuid;
use vanadin_core::plan::Plan;

use super::{Desk, Seen, ShopNow, work};
use crate::api_error::ApiError;
use crate::shop::device_units::DeviceUnits;

/// A plan in the other units, kept for as long as the one in the shop's stands.
#[derive(Clone)]
pub(super) struct Told {
    /// The one in the shop's units that it belongs to.
    of: Arc<Plan>,
    plan: Arc<Plan>,
    shop: Arc<ShopNow>,
}

impl Desk {
    /// The shop, told in the units of a device.
    ///
    /// # Errors
    /// The database cannot be read.
    pub async fn shop_in(&self, units: DeviceUnits) -> Result<Arc<ShopNow>, ApiError> {
        let shop = self.shop().await?;
        Ok(units.0.map_or_else(|| shop.clone(), |units| shop.told_in(units)))
    }

    /// A job as it stands, told in the units of a device.
    ///
    /// # Errors
    /// [`ApiError::Unknown`] when there is no such job.
    pub async fn see_in(&self, id: Uuid, units: DeviceUnits) -> Result<Seen, ApiError> {
        let seen = self.see(id).await?;
        self.told_in(id, seen, units).await
    }

    /// The same job, told in the units of a device.
    ///
    /// # Errors
    /// It cannot be worked out.
    pub async fn told_in(&self, id: Uuid, seen: Seen, units: DeviceUnits) -> Result<Seen, ApiError> {
        let Some(units) = units.0.filter(|units| *units != seen.shop.shop.units) else { return Ok(seen) };
        let shop = seen.shop.told_in(units);
        if let Some(told) = self.on.told.get(&id)
            && Arc::ptr_eq(&told.of, &seen.plan)
            && told.shop.plans_as(&shop, id, &told.plan)
        {
            return Ok(Seen { plan: told.plan, shop, ..seen });
        }
        let (job, on, desk, now_ms) = (seen.job.clone(), shop.clone(), self.clone(), self.now_ms());
        let plan = Arc::new(work(move || desk.planned(&job, &on.shop, now_ms)).await?);
        let told = Told { of: seen.plan.clone(), plan: plan.clone(), shop: shop.clone() };
        self.on.told.insert(id, told);
        Ok(Seen { plan, shop, ..seen })
    }
}
