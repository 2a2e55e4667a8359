import type { ReactNode } from 'react'
import { Field } from '../../job/Field'
import { Button } from '../../ui/Button'

export interface WatchFromProps {
  /** The crack it became on the list of cracks. */
  crack: string
  onDone: () => void
}

/** What is watched has its marks and a day on which it is looked at again. */
export function WatchFrom({ crack, onDone }: WatchFromProps): ReactNode {
  return (
    <div className="flex flex-col gap-3" data-testid="watch-from">
      <p className="text-[19px]">
        Punch a mark past each end now. It stands among the cracks, watched: what moves past its marks is
        grown.
      </p>
      <Field name={`crack.${crack}.look_again`} placeholder="in 3 months" />
      <div className="flex">
        <Button onPress={onDone}>Done</Button>
      </div>
    </div>
  )
}
