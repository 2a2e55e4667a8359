import { useEffect, useState, type ReactNode } from 'react'
import type { Problem, Schemas } from '../api/client'
import { outbox } from '../api/queue/outbox'
import { useJob, useRefusals } from './JobContext'
import { useShop } from './ShopContext'
import { shownFields } from './shown-fields'
import { useTables } from './TablesContext'
import { Box } from '../ui/Box'
import { FieldFrame, describedBy } from '../ui/FieldFrame'
import { halfTyped } from '../ui/half-typed'

export interface Asked {
  name: string
  label: string
  example?: string
}

export interface ReadFormProps {
  crack: string
  what: Schemas['SeamReadingKind']
  /** Which tack. */
  number?: number
  asks: readonly Asked[]
  verb: string
  /** What stands in a field by itself. */
  given?: Readonly<Record<string, string>>
  label: string
}

/** Something measured at a seam: its fields, and one press that writes it down. */
export function ReadForm({ crack, what, number, asks, verb, given, label }: ReadFormProps): ReactNode {
  const { length_keys } = useTables()
  const { view, say } = useJob()
  const refusals = useRefusals()
  const { units } = useShop()
  const idOf = (name: string) => `read-${what}-${number ?? ''}-${crack}-${name}`
  // What was typed and not written down is there again when the page is.
  const [typed, setTyped] = useState<Record<string, string>>(() =>
    Object.fromEntries(
      asks.flatMap(({ name }) => {
        const text = halfTyped.read(idOf(name))
        return text === null ? [] : [[name, text] as const]
      }),
    ),
  )
  const [sent, setSent] = useState<{ id: string; typed: Record<string, string> } | null>(null)
  useEffect(() => shownFields.show(view.id, 'measure_seam'), [view.id])
  const mine = refusals.filter((item) => sent !== null && item.id.startsWith(sent.id))
  // What was refused stands in its fields again.
  const standing = mine.length > 0 && Object.keys(typed).length === 0 ? (sent?.typed ?? {}) : typed
  const text = (name: string) => standing[name] ?? given?.[name] ?? ''
  const problem = (name: string): Problem | undefined =>
    mine.findLast((item) => item.problem.field === name)?.problem
  const write = () => {
    for (const item of mine) outbox.dismiss(item)
    const all = Object.fromEntries(asks.map(({ name }) => [name, text(name)]).filter(([, it]) => it !== ''))
    const id = say({
      kind: 'measure_seam',
      crack,
      what,
      typed: all,
      shown_in: units,
      ...(number === undefined ? {} : { number }),
    })
    setSent({ id, typed: all })
    setTyped({})
    for (const { name } of asks) halfTyped.write(idOf(name), null)
  }
  return (
    <form
      aria-label={label}
      className="flex flex-wrap items-start gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        write()
      }}
    >
      {asks.map((asked) => {
        const id = idOf(asked.name)
        const wrong = problem(asked.name)
        return (
          <div key={asked.name} className="w-[132px] max-bench:min-w-[30%] max-bench:grow">
            <FieldFrame id={id} label={asked.label} problem={wrong}>
              <Box
                id={id}
                text={text(asked.name)}
                placeholder={asked.example}
                aside={/[a-z]/i.test(text(asked.name)) ? '' : units === 'imperial' ? 'in' : 'mm'}
                wrong={wrong !== undefined}
                describedBy={describedBy(id, wrong)}
                keys={length_keys}
                onType={(next) => {
                  setTyped({ ...standing, [asked.name]: next })
                  halfTyped.write(id, next)
                }}
              />
            </FieldFrame>
          </div>
        )
      })}
      <button
        type="submit"
        className="mt-6 min-h-12 border-[1.5px] border-scribe px-4 font-semibold max-bench:mt-0 max-bench:w-full"
      >
        {verb}
      </button>
    </form>
  )
}
