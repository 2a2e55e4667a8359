import type { ReactNode } from 'react'
import { useJob } from './JobContext'

/** What must not be done to a part while it is hot. */
export function KeepOff(): ReactNode {
  const { view } = useJob()
  const said = view.standing.keep_off !== '' ? view.standing.keep_off : view.standing.not_measured
  if (said === '') return null
  return (
    <p
      role="status"
      className="border-2 border-chalk px-3 py-2 text-[17px] font-semibold"
      data-testid="keep-off"
    >
      {said}
    </p>
  )
}
