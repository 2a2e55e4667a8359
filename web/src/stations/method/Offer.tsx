import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { useWay } from '../../job/opened'
import { Button } from '../../ui/Button'
import { FieldFrame } from '../../ui/FieldFrame'
import { print } from '../../ui/print'
import { Sheet } from '../../ui/Sheet'
import { TypedInput } from '../../ui/TypedInput'

const NOTHING: Pick<Schemas['Price'], 'lines' | 'without'> = { lines: [], without: [] }

/** What the chosen way costs, line by line; and what was offered. */
export function Offer({ way }: { way: Schemas['Contender'] }): ReactNode {
  const { view, say } = useJob()
  const { offered } = view.plan
  const [giving, setGiving] = useState(false)
  const [until, setUntil] = useState('in 30 days')
  const { lines, without } = useWay(way.way.method).way?.price ?? NOTHING
  if (way.price_words == null) return null
  const give = () => {
    say({ kind: 'estimate', until })
    setGiving(false)
  }
  return (
    <section aria-label="Price" className="border-t border-rule pt-1">
      <h3 className="label">Price</h3>
      <dl className="grid grid-cols-[1fr_auto_auto] gap-x-4">
        {lines.map((line) => (
          <div key={line.what} className="contents">
            <dt>{line.what}</dt>
            <dd className="small text-ash">{line.working}</dd>
            <dd className="figure text-right text-[19px]">{line.amount_words}</dd>
          </div>
        ))}
        <div className="contents">
          <dt className="font-semibold">In all</dt>
          <dd />
          <dd className="figure text-right text-[24px]">{way.price_words}</dd>
        </div>
      </dl>
      {without.length > 0 && (
        <p className="small text-ash">Without {without.join('; ')}: nobody has said what that costs.</p>
      )}
      {offered != null && <p role="status">{offered.words}</p>}
      <div className="flex flex-wrap gap-2 pt-1">
        <Button onPress={() => setGiving(true)}>
          {offered == null ? 'Give an estimate' : 'Give it anew'}
        </Button>
        {offered != null && <Button onPress={() => void print('estimate')}>Print the estimate</Button>}
      </div>
      <Sheet title="Give an estimate" open={giving} onOpenChange={setGiving}>
        <p className="text-ash">Its prices are kept as they are today, until its day.</p>
        <div className="mt-3">
          <FieldFrame id="estimate-until" label="It stands until" problem={undefined} waiting={false}>
            <TypedInput
              id="estimate-until"
              typed={until}
              aside=""
              wrong={false}
              placeholder="in 30 days"
              onCommit={setUntil}
            />
          </FieldFrame>
        </div>
        <div className="mt-4">
          <Button onPress={give}>Give it</Button>
        </div>
      </Sheet>
    </section>
  )
}
