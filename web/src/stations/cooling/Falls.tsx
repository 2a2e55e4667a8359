import type { ReactNode } from 'react'
import { Fig } from '../../job/Fig'
import { useJob } from '../../job/JobContext'

/** How fast it falls at most: by the hour, or where that is too fast to be said so, in how many minutes. */
export function Falls(): ReactNode {
  const { view } = useJob()
  const within = view.plan.figures.some((figure) => figure.id === 'cooling.falls_in')
  return within ? (
    <>
      Falls a hundred degrees within <Fig id="cooling.falls_in" side="top" />.
    </>
  ) : (
    <>
      Falls at most <Fig id="cooling.fastest" side="top" />.
    </>
  )
}
