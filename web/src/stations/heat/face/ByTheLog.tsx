import type { ReactNode } from 'react'
import { useFaceLogged } from '../../../job/useFaceLogged'
import { FaceMoments } from '../../../job/face/FaceMoments'
import { NotInIt } from './NotInIt'

/** The face as it was heated since it was lit, by what was said and read. */
export function ByTheLog(): ReactNode {
  const { heat, isPending, isLost, isOld } = useFaceLogged()
  if (isPending) return <p className="min-h-[40vh] text-ash">The log is being worked out.</p>
  if (heat === null) {
    return (
      <p className="text-ash">
        {isLost ? 'The log could not be asked for.' : 'Nothing is logged of it yet.'}
      </p>
    )
  }
  return (
    <>
      <h3 className="text-[24px] leading-7" data-testid="face-logged">
        {heat.sentence}
      </h3>
      <p className="text-ash">{heat.beneath}</p>
      <div className="mt-2 max-w-[820px]">
        <FaceMoments heat={heat} now={null} old={isOld} put={null} path={[]} />
      </div>
      <NotInIt words={heat.not_in_it} />
    </>
  )
}
