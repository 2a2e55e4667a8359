import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useId, useState, type ReactNode } from 'react'
import { askLedgerQuery } from '../../api/queries'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import type { Opened } from './CasesSheet'
import { FaultLine } from './FaultLine'
import { HeldLine } from './HeldLine'
import { LearnedLine } from './LearnedLine'

/** A question in words of the trade, answered as far as the cases go. */
export function Ask({ onOpen }: { onOpen: (opened: Opened) => void }): ReactNode {
  const id = useId()
  const { revision, units } = useShop()
  const [typed, setTyped] = useState('')
  const [words, setWords] = useState('')
  const { data: answer, isError } = useQuery({
    ...askLedgerQuery(words, revision, units),
    enabled: words !== '',
    placeholderData: keepPreviousData,
  })
  return (
    <section aria-label="Ask the ledger" className="mt-3">
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          setWords(typed.trim())
        }}
      >
        <label htmlFor={id} className="flex min-w-0 grow basis-72 flex-col gap-1 max-w-[640px]">
          <span className="label">Ask it</span>
          <input
            id={id}
            value={typed}
            maxLength={200}
            autoComplete="off"
            placeholder="does peening help here?"
            onChange={(event) => setTyped(event.target.value)}
            className="min-h-12 border-[1.5px] border-dim bg-raise px-3 text-[17px] text-chalk"
          />
        </label>
        <Button submit onPress={() => undefined}>
          Ask
        </Button>
      </form>
      {words !== '' && isError && <p role="alert">The server is not reached: it cannot be asked now.</p>}
      {words !== '' && answer !== undefined && !isError && (
        <div role="status" data-testid="answer" className="mt-2">
          <p className="text-[24px] leading-8">{answer.said}</p>
          {answer.understood !== '' && <p className="text-ash">Understood: {answer.understood}.</p>}
          {answer.lines.map((line) => (
            <HeldLine
              key={line.label}
              line={line}
              onOpen={() => onOpen({ title: line.label, of: 'split', line: line.label, words })}
            />
          ))}
          {answer.learned.map((line) => (
            <LearnedLine
              key={line.name}
              line={line}
              onOpen={() => onOpen({ title: line.name, of: 'learned', line: line.name })}
            />
          ))}
          {answer.faults.map((line) => (
            <FaultLine
              key={line.seen}
              line={line}
              onOpen={() => onOpen({ title: line.label, of: 'fault', line: line.label })}
            />
          ))}
        </div>
      )}
    </section>
  )
}
