import type { ComponentType } from 'react'
import type { Station } from '../api/client'
import { later } from '../ui/later'

/** The work surface of each station. */
export const SURFACES: Record<Station, ComponentType> = {
  part: later(async () => (await import('./part/PartStation')).PartStation),
  iron: later(async () => (await import('./iron/IronStation')).IronStation),
  cracks: later(async () => (await import('./cracks/CracksStation')).CracksStation),
  method: later(async () => (await import('./method/MethodStation')).MethodStation),
  prep: later(async () => (await import('./prep/PrepStation')).PrepStation),
  heat: later(async () => (await import('./heat/HeatStation')).HeatStation),
  torch: later(async () => (await import('./torch/TorchStation')).TorchStation),
  cooling: later(async () => (await import('./cooling/CoolingStation')).CoolingStation),
  check: later(async () => (await import('./check/CheckStation')).CheckStation),
  hand_over: later(async () => (await import('./hand-over/HandOverStation')).HandOverStation),
}
