import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { Proofs } from '../../job/Proofs'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { clock } from '../../quantity/show'
import { FoundDrawing } from './FoundDrawing'
import { LookForm } from './LookForm'

export interface LookSheetProps {
  line: Schemas['CheckLine']
  place: Schemas['PlaceLine']
  onClose: () => void
}

/** What was found at a place: chosen by its drawing, measured where that counts. */
export function LookSheet({ line, place, onClose }: LookSheetProps): ReactNode {
  const { view, say } = useJob()
  const shop = useShop()
  const [found, setFound] = useState<Schemas['Found'] | null>(null)
  const choice = line.choices.find((it) => it.found === found)
  const open = (it: Schemas['FoundChoice']) => {
    if (it.found !== 'good') {
      setFound(it.found)
      return
    }
    say({ kind: 'look', place: place.place, found: 'good', typed: {}, shown_in: shop.units, note: '' })
    onClose()
  }
  return (
    <Sheet
      title={`${line.label}: ${place.words}`}
      open
      wide={choice === undefined}
      onOpenChange={(next) => {
        if (!next) onClose()
      }}
    >
      {choice === undefined ? (
        <div className="grid grid-cols-2 gap-2 bench:grid-cols-3">
          {line.choices.map((it) => (
            <Button key={it.found} large onPress={() => open(it)}>
              <span className="flex flex-col items-center gap-1 py-1.5 text-[17px] leading-5 whitespace-normal">
                <FoundDrawing found={it.found} />
                {it.words}
                {it.limit !== '' && <span className="text-[15px] font-normal text-ash">{it.limit}</span>}
              </span>
            </Button>
          ))}
        </div>
      ) : (
        <LookForm place={place} choice={choice} onDone={onClose} onBack={() => setFound(null)} />
      )}
      {place.looks.length > 0 && (
        <section aria-label="Looked at before" className="mt-4 border-t border-rule pt-2">
          <h3 className="label">Looked at before</h3>
          <ul>
            {place.looks.map((look) => (
              <li key={look.fact}>
                <span className="text-ash">{clock(look.at_ms, shop, view.now_ms)}</span> {look.words}
                {look.who !== '' && <span className="text-ash">, {look.who}</span>}
                <Proofs of={look.fact} what={`${line.label}, ${place.words}: ${look.words}`} />
              </li>
            ))}
          </ul>
        </section>
      )}
    </Sheet>
  )
}
