import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'

export interface AtOnceSheetProps {
  groups: readonly Schemas['AtOnce'][]
  /** The beads to come: a group names them by their places. */
  ahead: readonly Schemas['NextBead'][]
  /** Each is peened as it is laid, or was not: that is said with it. */
  peen: boolean
  open: boolean
  onClose: () => void
  onSay: (entry: Schemas['TorchEntry']) => void
}

/** A layer, a side, a seam that was laid without a word between: said with one press. */
export function AtOnceSheet({ groups, ahead, peen, open, onClose, onSay }: AtOnceSheetProps): ReactNode {
  const done = (group: Schemas['AtOnce'], peened: boolean) => {
    onSay({ kind: 'beads', at: group.of_ahead.flatMap((place) => ahead[place]?.at ?? []), peened })
    onClose()
  }
  return (
    <Sheet title="What is done?" open={open} onOpenChange={(next) => !next && onClose()}>
      <ul className="flex flex-col gap-4">
        {groups.map((group) => (
          <li key={group.words} className="flex flex-col gap-2">
            <span className="text-[20px] leading-6">{group.words}</span>
            {peen ? (
              <div className="grid grid-cols-2 gap-2">
                <Button large label={`${group.words}: each was peened`} onPress={() => done(group, true)}>
                  Each was peened
                </Button>
                <Button large label={`${group.words}: not peened`} onPress={() => done(group, false)}>
                  Not peened
                </Button>
              </div>
            ) : (
              <Button large label={`${group.words}: done`} onPress={() => done(group, false)}>
                Done
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Sheet>
  )
}
