import type { ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { useFaceLogged } from '../../job/useFaceLogged'

/** A tip that is likely to run on as it was heated so far, by the drawn face: said before the first bead is laid. */
export function TipsByTheLog(): ReactNode {
  const { view } = useJob()
  const drawn = view.plan.map.faces.some((face) => face.rims.length > 0 && face.lines.length > 0)
  const { heat } = useFaceLogged(drawn)
  if (heat?.asks_much !== true) return null
  return (
    <p
      role="alert"
      className="border-2 border-chalk px-3 py-2 text-[17px] font-semibold"
      data-testid="tips-by-log"
    >
      {heat.sentence}
    </p>
  )
}
