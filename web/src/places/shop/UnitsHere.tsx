import type { ReactNode } from 'react'
import { useShop } from '../../job/ShopContext'
import { useUnits } from '../../job/useUnits'
import { Choice } from '../../ui/Choice'
import { SYSTEMS } from '../../quantity/show'

/** What this device is told in: others are told in theirs. */
export function UnitsHere(): ReactNode {
  const { units } = useShop()
  const { mutate, isError } = useUnits()
  return (
    <div>
      <span className="text-ash">Shown and read on this device</span>
      <Choice
        label="Shown and read on this device"
        choices={SYSTEMS}
        chosen={units}
        onChoose={(next) => {
          if (next === 'metric' || next === 'imperial') mutate(next)
        }}
      />
      {isError && <span role="alert">The server is not reached: nothing was changed.</span>}
    </div>
  )
}
