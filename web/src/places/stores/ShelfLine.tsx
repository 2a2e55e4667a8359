import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { themeOf, useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { Drawn } from './drawn'

export interface ShelfLineProps {
  shelf: Schemas['ShelfPlan']
  onOpen: (thing: Schemas['Thing']) => void
  onPut: (kind: string, sizeMm: number | null) => void
  /** Says that nothing lies here, where that is an answer. */
  onNothing?: (() => void) | undefined
  /** It was said that nothing lies here. */
  nothing?: boolean
}

/** A ruled line with what stands on it. */
export function ShelfLine({ shelf, onOpen, onPut, onNothing, nothing = false }: ShelfLineProps): ReactNode {
  const theme = themeOf(useShop())
  const [putting, setPutting] = useState(false)
  return (
    <section
      aria-label={shelf.label}
      className={`min-w-0 pt-1 ${shelf.shelf === 'rods' ? 'col-span-2 max-bench:col-span-1' : ''}`}
    >
      <h2 className="label !font-sans !font-normal">{shelf.label}</h2>
      <div className="flex flex-wrap items-stretch gap-y-3">
        {shelf.things.map((thing) => (
          <button
            key={thing.id ?? `${thing.kind} ${thing.size_mm ?? ''}`}
            type="button"
            data-testid="thing"
            className="flex min-w-[128px] grow flex-col text-left"
            onClick={() => (thing.id == null ? onPut(thing.kind, thing.size_mm ?? null) : onOpen(thing))}
          >
            <span className="flex h-[84px] items-end border-b-[1.5px] border-scribe px-2 pr-8">
              <Drawn thing={thing} shelf={shelf.shelf} theme={theme} />
            </span>
            <span className="max-w-[220px] px-2 pt-1.5 pr-4">
              <span className="block">{thing.melts_words === '' ? thing.words : thing.melts_words}</span>
              <span className="block small text-ash">
                {thing.name === '' ? '' : `${thing.name}, `}
                {thing.amount_words}
              </span>
              {thing.could_be !== '' && <span className="block small text-ash">{thing.could_be}</span>}
              {thing.takers.map((taker) => (
                <span key={taker.job} className="block small text-ash">
                  {taker.words}
                </span>
              ))}
              {thing.short.map((line) => (
                <span key={line} className="mt-1 block border-l-[3px] border-chalk pl-2 font-semibold">
                  {line}
                </span>
              ))}
            </span>
          </button>
        ))}
        <div className="flex min-w-[100px] grow-[20] flex-col">
          <div className="flex h-[84px] items-end gap-2 border-b-[1.5px] border-scribe px-2 pb-2">
            <button
              type="button"
              className="min-h-11 min-w-11 border-[1.5px] border-dashed border-scribe px-3 text-ash"
              onClick={() => setPutting(true)}
            >
              Put<span className="sr-only"> something on the shelf {shelf.label}</span> here
            </button>
            {shelf.things.length === 0 && !nothing && onNothing !== undefined && (
              <button type="button" className="min-h-11 px-3 text-ash" onClick={onNothing}>
                Nothing here
              </button>
            )}
            {shelf.things.length === 0 && nothing && (
              <span className="flex min-h-11 items-center px-3 text-ash">nothing lies here</span>
            )}
          </div>
        </div>
      </div>
      <Sheet title={`Put there: ${shelf.label.toLowerCase()}`} open={putting} onOpenChange={setPutting}>
        <div className="flex flex-wrap gap-2">
          {shelf.kinds.map(([kind, label]) => (
            <Button
              key={kind}
              onPress={() => {
                setPutting(false)
                onPut(kind, null)
              }}
            >
              {label}
            </Button>
          ))}
        </div>
      </Sheet>
    </section>
  )
}
