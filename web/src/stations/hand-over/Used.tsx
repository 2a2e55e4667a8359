import { useRef, useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { outbox } from '../../api/queue/outbox'
import { usedField } from '../../api/queue/queue'
import { useJob, useRefusals } from '../../job/JobContext'
import { Button } from '../../ui/Button'
import { FieldFrame, describedBy } from '../../ui/FieldFrame'
import { fieldId } from '../../ui/focus'
import { Fold } from '../../ui/Fold'
import { Pick } from '../../ui/Pick'
import { TypedInput } from '../../ui/TypedInput'

type Line = Schemas['UsedLine'] | Schemas['OtherThing']

const changeOf = ({ what, size_mm, holds_m3 }: Line, typed: string): Schemas['Change'] => ({
  kind: 'use',
  what,
  typed,
  ...(size_mm == null ? {} : { size_mm }),
  ...(holds_m3 == null ? {} : { holds_m3 }),
})

/** What was really used, each thing beside what was planned: one press where it was as planned. */
export function Used(): ReactNode {
  const { view, say } = useJob()
  const { lines, others, words, hours } = view.plan.hand_over.really
  const open = lines.filter((line) => line.used == null)
  const [unfolded, setUnfolded] = useState(false)
  if (lines.length === 0) return null
  return (
    <div className="no-print border border-scribe px-3">
      <Fold title="What was really used" summary={words} open={unfolded} onOpenChange={setUnfolded}>
        <div className="flex flex-col gap-1 pb-3">
          {hours !== '' && <p className="text-ash">{hours}.</p>}
          {open.length > 0 && (
            <Button
              onPress={() => open.forEach((line) => say(changeOf(line, line.as_planned), line.revision))}
            >
              {open.length === lines.length ? 'All as planned' : 'The rest as planned'}
            </Button>
          )}
          <ul>
            {lines.map((line) => (
              <UsedRow key={usedField(line)} line={line} />
            ))}
          </ul>
          {others.length > 0 && (
            <Pick
              id="used-other"
              label="Something else"
              choices={others.map((it) => ({ id: usedField(it), label: it.words }))}
              chosen=""
              placeholder="something else that was used"
              onChoose={(id) => {
                const other = others.find((it) => usedField(it) === id)
                if (other !== undefined) say(changeOf(other, '1'))
              }}
            />
          )}
        </div>
      </Fold>
    </div>
  )
}

/** What needs no other words. */
const PLAIN = /^([\d.,\s]*|none)$/i

/** One thing: what was planned, what was used, what that comes to. */
function UsedRow({ line }: { line: Schemas['UsedLine'] }): ReactNode {
  const { waiting, say } = useJob()
  const base = useRef<number | null>(null)
  const field = usedField(line)
  const refused = useRefusals().findLast((item) => item.field === field)
  const unsent = waiting.findLast(({ change }) => change.kind === 'use' && usedField(change) === field)
  const typed = unsent?.change.kind === 'use' ? unsent.change.typed : (refused?.typed ?? line.typed)
  const id = fieldId(field)
  const write = (next: string) => {
    if (refused !== undefined) outbox.dismiss(refused)
    const seen = refused === undefined ? (base.current ?? line.revision) : line.revision
    base.current = null
    say(changeOf(line, next), seen)
  }
  return (
    <li
      data-used={line.what}
      className="grid grid-cols-[minmax(0,1fr)_200px_minmax(130px,auto)] items-end gap-x-3 border-b border-rule py-1.5 max-bench:grid-cols-[1fr_130px]"
    >
      <div className={typed === '' ? '' : 'max-bench:col-span-2'}>
        <FieldFrame id={id} label={line.words} problem={refused?.problem} waiting={unsent !== undefined}>
          <TypedInput
            id={id}
            typed={typed}
            aside={typed !== line.typed || PLAIN.test(typed) ? '' : line.used_words}
            wrong={refused !== undefined}
            describedBy={describedBy(id, refused?.problem)}
            placeholder={line.would_be_right}
            onStart={() => (base.current = line.revision)}
            onCommit={write}
          />
        </FieldFrame>
      </div>
      <span className="self-center text-ash max-bench:order-last max-bench:col-span-2 bench:pt-5">
        {line.planned == null ? 'not reckoned' : `${line.planned_words} planned`}
        {line.against !== '' && line.against !== 'as planned' && (
          <b className="block text-chalk">{line.against}</b>
        )}
      </span>
      {typed === '' ? (
        <Button onPress={() => write(line.as_planned)}>{line.planned == null ? 'None' : 'As planned'}</Button>
      ) : (
        <span className="self-center text-right text-ash max-bench:hidden bench:pt-5">
          {line.against === 'as planned' ? 'as planned' : ''}
        </span>
      )}
    </li>
  )
}
