import { useState, type ReactNode } from 'react'
import type { Schemas } from '../api/client'
import { useJob } from './JobContext'
import { useShop } from './ShopContext'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { useHalfTyped } from '../ui/useHalfTyped'

export interface ReadingSheetProps {
  kind: 'reading' | 'note' | null
  onClose: () => void
  onSay: (entry: Schemas['TorchEntry']) => void
}

/** A temperature read by hand, or a note. */
export function ReadingSheet({ kind, onClose, onSay }: ReadingSheetProps): ReactNode {
  const { units } = useShop()
  const { view } = useJob()
  const [text, setText] = useHalfTyped('reading-or-note')
  const [where, setWhere] = useState('part')
  // A joint is read apart where it is judged apart: while it is worked at.
  const apart = kind === 'reading' && view.plan.torch != null && view.standing.station === 'torch'
  const say = () => {
    if (text.trim() === '' || kind === null) return
    const joint = apart && where === 'joint'
    onSay(
      kind === 'reading' ? { kind, typed: text.trim(), shown_in: units, joint } : { kind, text: text.trim() },
    )
    setText('')
    onClose()
  }
  return (
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
        {apart && (
          <Choice
            label="Read where"
            choices={[
              { id: 'part', label: 'The part: far side, far corner' },
              { id: 'joint', label: 'The joint itself' },
            ]}
            chosen={where}
            onChoose={(id) => setWhere(id || 'part')}
          />
        )}
        <button type="submit" className="min-h-[72px] border-2 border-chalk text-[19px] font-bold">
          Log it
        </button>
      </form>
    </Sheet>
  )
}
