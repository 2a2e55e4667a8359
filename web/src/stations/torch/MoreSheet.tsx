import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useTables } from '../../job/TablesContext'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'

export interface MoreSheetProps {
  open: boolean
  onClose: () => void
  onSay: (entry: Schemas['TorchEntry']) => void
  /** The alignment is asked on a sheet of its own. */
  onAlign: () => void
  /** What a helper's phone is shown, too. */
  onHelper: () => void
}

/** What is said less often while it burns: one press each. */
export function MoreSheet({ open, onClose, onSay, onAlign, onHelper }: MoreSheetProps): ReactNode {
  const { deeds } = useTables()
  return (
    <Sheet title="What was done?" open={open} onOpenChange={(next) => !next && onClose()}>
      <div className="grid gap-2 sm:grid-cols-2">
        {deeds.map(({ deed: what, words }) => (
          <Button
            key={what}
            large
            onPress={() => {
              onSay({ kind: 'did', what })
              onClose()
            }}
          >
            {words}
          </Button>
        ))}
        <Button
          large
          onPress={() => {
            onClose()
            onAlign()
          }}
        >
          Alignment read
        </Button>
        <Button
          large
          onPress={() => {
            onClose()
            onHelper()
          }}
        >
          For a helper&apos;s phone
        </Button>
      </div>
    </Sheet>
  )
}
