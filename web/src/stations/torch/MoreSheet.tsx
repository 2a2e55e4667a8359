import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Link } from 'react-router'
import { useJob } from '../../job/JobContext'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { DEEDS } from './piece-words'

export interface MoreSheetProps {
  open: boolean
  onClose: () => void
  onSay: (entry: Schemas['TorchEntry']) => void
}

/** What is said less often while it burns: one press each. */
export function MoreSheet({ open, onClose, onSay }: MoreSheetProps): ReactNode {
  const { view } = useJob()
  return (
    <Sheet title="What was done?" open={open} onOpenChange={(next) => !next && onClose()}>
      <div className="grid gap-2 sm:grid-cols-2">
        {DEEDS.map(([what, words]) => (
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
      </div>
      <Link
        to={`/jobs/${view.id}/helper`}
        className="mt-4 flex min-h-11 w-fit items-center underline decoration-dotted"
      >
        For a helper's phone
      </Link>
    </Sheet>
  )
}
