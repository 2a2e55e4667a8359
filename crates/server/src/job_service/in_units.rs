//! A job and the shop in the units of the device that asks, where these are not the shop's.

use std::sync::Arc;

use uuid::Uuid;
use vanadin_core::plan::Plan;

use super::{JobService, ShopNow, Snapshot, work};
use crate::api_error::ApiError;
use crate::shop::device_units::DeviceUnits;

/// A plan in the other units, kept for as long as the one in the shop's stands.
#[derive(Clone)]
pub(super) struct PlanInUnits {
    /// The one in the shop's units that it belongs to.
    of: Arc<Plan>,
    plan: Arc<Plan>,
    shop: Arc<ShopNow>,
}

impl JobService {
    /// The shop, told in the units of a device.
    ///
    /// # Errors
    /// The database cannot be read.
    pub async fn shop_in(&self, units: DeviceUnits) -> Result<Arc<ShopNow>, ApiError> {
        let shop = self.shop().await?;
        Ok(units.0.map_or_else(|| shop.clone(), |units| shop.in_units(units)))
    }

    /// A job as it stands, told in the units of a device.
    ///
    /// # Errors
    /// [`ApiError::Unknown`] when there is no such job.
    pub async fn load_in(&self, id: Uuid, units: DeviceUnits) -> Result<Snapshot, ApiError> {
        let seen = self.load(id).await?;
        self.in_units(id, seen, units).await
    }

    /// The same job, told in the units of a device.
    ///
    /// # Errors
    /// It cannot be worked out.
    pub async fn in_units(
        &self,
        id: Uuid,
        snapshot: Snapshot,
        units: DeviceUnits,
    ) -> Result<Snapshot, ApiError> {
        let Some(units) = units.0.filter(|units| *units != snapshot.shop.shop.units) else {
            return Ok(snapshot);
        };
        let shop = snapshot.shop.in_units(units);
        if let Some(told) = self.on.in_units.get(&id)
            && Arc::ptr_eq(&told.of, &snapshot.plan)
            && told.shop.plans_as(&shop, id, &told.plan)
        {
            return Ok(Snapshot { plan: told.plan, shop, ..snapshot });
        }
        let (job, on, jobs, now_ms) = (snapshot.job.clone(), shop.clone(), self.clone(), self.now_ms());
        let plan = Arc::new(work(move || jobs.planned(&job, &on.shop, now_ms)).await?);
        let told = PlanInUnits { of: snapshot.plan.clone(), plan: plan.clone(), shop: shop.clone() };
        self.on.in_units.insert(id, told);
        Ok(Snapshot { plan, shop, ..snapshot })
    }
}
