import type { ReactNode } from 'react'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { useJob } from './JobContext'
import { useShop } from './ShopContext'

/** A crack to be drawn: where it ran to, or a new one. */
interface RanOnTask {
  thing: 'crack'
  id: string
  ranOn?: boolean
}

export interface RanOnProps {
  open: boolean
  onClose: () => void
  /** The next round is open, and this is drawn in it; the face it lies on, where it has one. */
  onTask: (task: RanOnTask, face: string | null) => void
}

/** A hot moment: which crack ran on, or that a new one showed. One press opens the next round with the old map under it. */
export function RanOn({ open, onClose, onTask }: RanOnProps): ReactNode {
  const { view, say } = useJob()
  const { units } = useShop()
  const { cracks, map } = view.plan
  const faceOf = (crack: string) =>
    map.faces.find((face) => face.lines.some((line) => line.crack === crack && !line.from_behind))?.id ?? null
  const again = (reason: string) => say({ kind: 'new_round', reason })
  return (
    <Sheet title="What happened?" open={open} onOpenChange={(next) => !next && onClose()}>
      <div className="grid gap-2">
        {cracks.map((crack) => (
          <Button
            key={crack.id}
            large
            onPress={() => {
              again(`crack ${crack.letter} ran on`)
              onTask({ thing: 'crack', id: crack.id, ranOn: true }, faceOf(crack.id))
              onClose()
            }}
          >
            {crack.letter} ran on
          </Button>
        ))}
        <Button
          large
          onPress={() => {
            again('a new crack showed')
            const id = say({ kind: 'add_crack' })
            say({ kind: 'set', key: `crack.${id}.found_by`, typed: 'heat', shown_in: units })
            onTask({ thing: 'crack', id }, null)
            onClose()
          }}
        >
          A new one showed
        </Button>
      </div>
    </Sheet>
  )
}
