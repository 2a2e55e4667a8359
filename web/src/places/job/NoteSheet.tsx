import type { ReactNode } from 'react'
import type { Station } from '../../api/client'
import { Field } from '../../job/Field'
import { Sheet } from '../../ui/Sheet'

export interface NoteSheetProps {
  station: Station
  open: boolean
  onClose: () => void
}

/** Free notes: on what is done here, and on the whole job. They stand in the record. */
export function NoteSheet({ station, open, onClose }: NoteSheetProps): ReactNode {
  return (
    <Sheet title="Notes" open={open} onOpenChange={onClose}>
      <div className="flex flex-col gap-4">
        <Field name={`note.${station}`} />
        <Field name="note.job" />
      </div>
    </Sheet>
  )
}
