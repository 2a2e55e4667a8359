import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { ReadForm } from '../../job/ReadForm'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { Plate } from '../../ui/Plate'

export interface TackCheckProps {
  tack: Schemas['TackTurn']
}

/** After a tack: in line, or moved and by how much. What moved is broken out, and comes again. */
export function TackCheck({ tack }: TackCheckProps): ReactNode {
  const { view, say } = useJob()
  const { units } = useShop()
  const [moved, setMoved] = useState(false)
  const { crack, number } = tack
  if (crack == null) return null
  if (tack.state === 'moved') {
    const last = view.job.rounds
      .at(-1)
      ?.log.findLast(
        (entry) => entry.struck == null && entry.entry.kind === 'did' && entry.entry.what === 'tacked',
      )
    const reason = 'it moved, broken out'
    return (
      <div>
        <Button
          large
          onPress={() => {
            if (last !== undefined) say({ kind: 'strike', target: last.fact, reason })
            if (tack.check != null) say({ kind: 'strike', target: tack.check, reason })
          }}
        >
          Broken out, lined up again
        </Button>
      </div>
    )
  }
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        <Plate
          large
          testId="tack-stayed"
          onPress={() =>
            say({
              kind: 'measure_seam',
              crack,
              what: 'tack',
              number,
              typed: { moved: '0' },
              shown_in: units,
            })
          }
        >
          In line
        </Plate>
        <Button large chosen={moved} onPress={() => setMoved(!moved)}>
          It moved
        </Button>
      </div>
      {moved && (
        <ReadForm
          crack={crack}
          what="tack"
          number={number}
          asks={[{ name: 'moved', label: 'By' }]}
          verb="Write it down"
          label={`Tack ${number} moved`}
        />
      )}
    </div>
  )
}
