import type { ReactNode } from 'react'
import { Sheet } from '../ui/Sheet'
import { KEYS } from './table'

export interface KeysSheetProps {
  onClose: () => void
}

/** All keys, as they are. */
export function KeysSheet({ onClose }: KeysSheetProps): ReactNode {
  return (
    <Sheet title="Keys" open onOpenChange={onClose}>
      <dl className="grid grid-cols-[110px_1fr] gap-y-2">
        {KEYS.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="formula">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  )
}
