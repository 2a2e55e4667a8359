import type { ReactNode } from 'react'
import type { Problem, UnitSystem } from '../../api/client'
import { useTables } from '../../job/TablesContext'
import { Box } from '../../ui/Box'
import { FieldFrame, describedBy } from '../../ui/FieldFrame'

export interface CouponAmountsProps {
  /** Before the id of each field. */
  base: string
  units: UnitSystem
  bent: string
  typed: Readonly<Record<string, string>>
  problem: (field: string) => Problem | undefined
  onType: (name: string, text: string) => void
}

/** How large a coupon is, how it was held, and what it took. */
export function CouponAmounts({ base, units, bent, typed, problem, onType }: CouponAmountsProps): ReactNode {
  const { length_keys, mass_keys } = useTables()
  const metric = units === 'metric'
  const amounts = [
    { name: 'guess', label: 'What will it take? Guess first', example: metric ? '50 kg' : '110 lb' },
    { name: 'width', label: 'Wide', example: metric ? '20 mm' : '3/4 in' },
    { name: 'thickness', label: 'Thick, the way it is bent', example: metric ? '12 mm' : '1/2 in' },
    {
      name: 'lever',
      label: bent === 'lever' ? 'From the vise to the load' : 'From support to support',
      example: metric ? '150 mm' : '6 in',
    },
    {
      name: 'load',
      label: 'The load, step by step, until it broke',
      example: metric ? '20, 30, 40, 42 kg' : '40, 60, 80, 93 lb',
    },
  ]
  const isLoad = (of: string) => of === 'guess' || of === 'load'
  const unit = (of: string) => (isLoad(of) ? (metric ? 'kg' : 'lb') : metric ? 'mm' : 'in')
  // The load is a row of them.
  const keys = (of: string) => (isLoad(of) ? [...mass_keys, ','] : length_keys)
  return (
    <div className="grid grid-cols-2 gap-3 max-bench:grid-cols-1">
      {amounts.map((asked) => {
        const id = `${base}-${asked.name}`
        const wrong = problem(asked.name)
        return (
          <FieldFrame key={asked.name} id={id} label={asked.label} problem={wrong}>
            <Box
              id={id}
              text={typed[asked.name] ?? ''}
              placeholder={asked.example}
              aside={unit(asked.name)}
              keys={keys(asked.name)}
              wrong={wrong !== undefined}
              describedBy={describedBy(id, wrong)}
              onType={(text) => onType(asked.name, text)}
            />
          </FieldFrame>
        )
      })}
    </div>
  )
}
