import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'

export interface WatchFromProps {
  place: Schemas['PlaceLine']
  /** As it was typed; empty where nobody measured it. */
  length: string
  onDone: () => void
}

/** What may be watched becomes a crack of the map, with its marks and a day on which it is looked at again. */
export function WatchFrom({ place, length, onDone }: WatchFromProps): ReactNode {
  const { say } = useJob()
  const { units } = useShop()
  const [crack, setCrack] = useState<string | null>(null)
  const watch = () => {
    const id = say({ kind: 'add_crack' })
    const set = (field: string, typed: string) =>
      say({ kind: 'set', key: `crack.${id}.${field}`, typed, shown_in: units })
    set('becomes', 'leave')
    set('becomes_why', `found at the check: ${place.words}`)
    if (length !== '') set('length', length)
    setCrack(id)
  }
  return (
    <div className="flex flex-col gap-3" data-testid="watch-from">
      {place.verdict !== 'left' ? (
        <p className="text-[19px]">
          {place.sentence === '' ? 'It is judged once the server has it.' : place.sentence}
        </p>
      ) : (
        <p className="text-[19px]">Punch a mark past each end now: what moves past its marks is grown.</p>
      )}
      {crack !== null && <Field name={`crack.${crack}.look_again`} placeholder="in 3 months" />}
      <div className="flex flex-wrap gap-2">
        {place.verdict === 'left' && crack === null && (
          <Button onPress={watch}>Onto the list of cracks, watched</Button>
        )}
        <Button onPress={onDone}>Done</Button>
      </div>
    </div>
  )
}
