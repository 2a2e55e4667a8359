import type { ReactNode } from 'react'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'

/** Which two holes a distance is between: one press for two of the map, or typed. */
export function BetweenHoles({ of }: { of: string }): ReactNode {
  const { view, typed, say } = useJob()
  const { units } = useShop()
  if (typed(`mark.${of}.kind`) !== 'distance') return null
  const key = `mark.${of}.between` as const
  const others = view.plan.map.hole_pairs.filter((pair) => pair !== typed(key))
  return (
    <div className="flex flex-col gap-2">
      <Field name={key} />
      {others.length > 0 && typed(key) === '' && (
        <div className="flex flex-wrap gap-2" role="group" aria-label="Two holes of the map">
          {others.map((pair) => (
            <Button key={pair} onPress={() => say({ kind: 'set', key, typed: pair, shown_in: units })}>
              {pair}
            </Button>
          ))}
        </div>
      )}
    </div>
  )
}
