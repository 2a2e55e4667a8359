import { useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { Schemas, UnitSystem } from '../../api/client'
import { outbox } from '../../api/queue/outbox'
import { rackQuery } from '../../api/queries'
import { inUnits } from '../../quantity/show'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'

export interface IntoAJobProps {
  fact: Schemas['FactView']
  answer: Schemas['Reckoned']
  units: UnitSystem
}

/** What came out becomes a fact of a job: said there as if it had been typed. */
export function IntoAJob({ fact, answer, units }: IntoAJobProps): ReactNode {
  const [open, setOpen] = useState(false)
  const [chosen, setChosen] = useState<{ job: string; name: string } | null>(null)
  const [said, setSaid] = useState<{ job: string; name: string } | null>(null)
  const figure = answer.figures.find((it) => it.id === fact.answer)
  const rack = useQuery({ ...rackQuery(false, '', 0), enabled: open })
  if (figure === undefined) return null
  const shown = inUnits(figure, units)
  const typed = `${shown.number} ${shown.unit}`.trim()
  return (
    <>
      <button
        type="button"
        className="min-h-11 border-[1.5px] border-dim px-4 font-semibold"
        onClick={() => setOpen(true)}
      >
        Into a job
      </button>
      {said !== null && (
        <span role="status" className="flex min-h-11 items-center gap-2">
          {typed} is said of{' '}
          <Link to={`/jobs/${said.job}/part`} className="flex min-h-11 items-center font-semibold underline">
            {said.name}
          </Link>
        </span>
      )}
      <Sheet title={`${figure.name}: ${typed}, of which job?`} open={open} onOpenChange={setOpen}>
        <ul>
          {(rack.data?.lines ?? []).map((line) => (
            <li key={line.id} className="border-b border-rule">
              <button
                type="button"
                aria-pressed={chosen?.job === line.id}
                className="flex min-h-12 w-full items-center px-2 text-left aria-pressed:border-l-4 aria-pressed:border-chalk aria-pressed:font-semibold"
                onClick={() => setChosen({ job: line.id, name: line.name })}
              >
                {line.name}
              </button>
            </li>
          ))}
        </ul>
        {/* Which job, and that it is meant, are two presses: a stray one says nothing. */}
        {chosen !== null && (
          <div className="mt-4">
            <Button
              large
              onPress={() => {
                outbox.say(chosen.job, { kind: 'set', key: fact.field, typed, shown_in: units })
                setSaid(chosen)
                setChosen(null)
                setOpen(false)
              }}
            >
              Say it of {chosen.name}
            </Button>
          </div>
        )}
        {rack.isError && <p>The server is not reached: the rack is not there.</p>}
      </Sheet>
    </>
  )
}
