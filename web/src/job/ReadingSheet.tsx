import { useState, type ReactNode } from 'react'
import type { Schemas } from '../api/client'
import { useJob } from './JobContext'
import { useShop } from './ShopContext'
import { Sheet } from '../ui/Sheet'

export interface ReadingSheetProps {
  kind: 'reading' | 'note' | null
  onClose: () => void
  onSay: (entry: Schemas['TorchEntry']) => void
}

/** A temperature read by hand, or a note. */
export function ReadingSheet({ kind, onClose, onSay }: ReadingSheetProps): ReactNode {
  const { units } = useShop()
  const { refusals } = useJob()
  const [text, setText] = useState('')
  const refused = refusals.findLast((refusal) => refusal.field === 'torch')
  const say = () => {
    if (text.trim() === '' || kind === null) return
    onSay(kind === 'reading' ? { kind, typed: text.trim(), shown_in: units } : { kind, text: text.trim() })
    setText('')
    onClose()
  }
  return (
    <>
      {refused !== undefined && (
        <p role="alert" className="bench:col-span-2">
          {refused.typed}: {refused.problem.message}. <b>{refused.problem.would_be_right}</b> would do.
        </p>
      )}
      <Sheet
        title={kind === 'note' ? 'Note' : 'Reading by hand'}
        open={kind !== null}
        onOpenChange={(open) => !open && onClose()}
      >
        <form
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            say()
          }}
        >
          <label className="label flex flex-col gap-1 text-[16px]">
            {kind === 'note'
              ? 'What happened?'
              : `Temperature, ${units === 'imperial' ? '°F' : '°C'} unless you say`}
            <input
              autoFocus
              value={text}
              inputMode="text"
              onChange={(event) => setText(event.target.value)}
              placeholder={kind === 'note' ? 'blew through at the left' : '312 C'}
              className="min-h-[72px] border-2 border-dim bg-iron px-4 text-[30px] font-semibold text-chalk"
            />
          </label>
          <button type="submit" className="min-h-[72px] border-2 border-chalk text-[19px] font-bold">
            Log it
          </button>
        </form>
      </Sheet>
    </>
  )
}
