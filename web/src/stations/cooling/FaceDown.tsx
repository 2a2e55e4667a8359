import { useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { faceCoolingQuery } from '../../api/queries'
import { FaceMoments } from '../../job/face/FaceMoments'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { Fold } from '../../ui/Fold'

/** The drawn face on its way down: what cools ahead of what, and what that pulls. Worked out once it is opened. */
export function FaceDown(): ReactNode {
  const { view } = useJob()
  const { revision, units } = useShop()
  const [open, setOpen] = useState(false)
  const drawn = view.plan.map.faces.some((face) => face.rims.length > 0 && face.lines.length > 0)
  const asked = useQuery({
    ...faceCoolingQuery(view.id, view.revision, revision, units),
    enabled: drawn && open,
  })
  if (!drawn) return null
  const heat = asked.data?.heat ?? null
  return (
    <Fold
      title="The face as it cools"
      summary="what cools ahead of what, and what that pulls"
      open={open}
      onOpenChange={setOpen}
    >
      {asked.isPending && <p className="min-h-[40vh] text-ash">The face is being worked out.</p>}
      {asked.isError && <p>It could not be asked for. Close it and open it again.</p>}
      {asked.data !== undefined && heat === null && (
        <p>
          {asked.data.why_not === '' ? 'No face is reckoned: nothing on it is mended.' : asked.data.why_not}
        </p>
      )}
      {heat !== null && (
        <>
          <p className="text-[20px] leading-6 font-semibold" data-testid="face-cooling">
            {heat.sentence}
          </p>
          <p className="text-ash">{heat.beneath}</p>
          <div className="mt-2 max-w-[820px]">
            <FaceMoments
              heat={heat}
              now={null}
              first={0}
              old={asked.isPlaceholderData}
              put={null}
              path={[]}
            />
          </div>
          <p className="small mt-1 text-ash">{heat.not_in_it}</p>
        </>
      )}
    </Fold>
  )
}
