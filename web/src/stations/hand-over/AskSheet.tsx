import { useEffect, useState, type ReactNode } from 'react'
import type { Problem, Schemas } from '../../api/client'
import { outbox } from '../../api/queue/outbox'
import { tableOf } from '../../api/fields'
import { useJob, useRefusals } from '../../job/JobContext'
import { useTables } from '../../job/TablesContext'
import { shownFields } from '../../job/shown-fields'
import { Box } from '../../ui/Box'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { FieldFrame, describedBy } from '../../ui/FieldFrame'
import { Sheet } from '../../ui/Sheet'

type Became = Schemas['Became']

const IDS: readonly Became[] = ['holds', 'fault', 'failed', 'unknown']
const SAID = {
  after: 'How long at work by then',
  did: 'What it did: load, heat, how often',
  note: 'What happened',
}
type Said = keyof typeof SAID

export interface AskSheetProps {
  /** What was answered already, where there is more to say. */
  begun: Became | null
  onClose: () => void
}

/** What became of it, and where it does not hold, where it went. */
export function AskSheet({ begun, onClose }: AskSheetProps): ReactNode {
  const { view, say } = useJob()
  const refusals = useRefusals()
  const tables = useTables()
  const [became, setBecame] = useState<Became | null>(begun)
  const [went, setWent] = useState('')
  const [words, setWords] = useState<Record<Said, string>>({ after: '', did: '', note: '' })
  const [sent, setSent] = useState<string | null>(null)
  useEffect(() => shownFields.show(view.id, 'follow_up'), [view.id])
  const written = sent !== null && view.plan.hand_over.afterwards.answers.some((it) => it.fact === sent)
  useEffect(() => {
    if (written) onClose()
  }, [written, onClose])
  const choices = tableOf(tables, 'hand_over.became')?.choices ?? []
  const mine = refusals.filter((item) => sent !== null && item.id.startsWith(sent))
  const problem = (field: string): Problem | undefined =>
    mine.findLast((item) => item.problem.field === field)?.problem
  const elsewhere = mine.find((item) => !(item.problem.field in SAID))
  const gave = became === 'fault' || became === 'failed'
  const write = (what: Became) => {
    for (const item of mine) outbox.dismiss(item)
    const at = tables.went_at.find((it) => it.went === went)?.went
    setSent(
      say({
        kind: 'follow_up',
        became: what,
        ...(gave && at !== undefined ? { went: at } : {}),
        after: words.after.trim(),
        did: words.did.trim(),
        note: gave ? words.note.trim() : '',
      }),
    )
  }
  const box = (name: Said) => {
    const wrong = problem(name)
    const id = `asked-${name}`
    return (
      <FieldFrame id={id} label={SAID[name]} problem={wrong}>
        <Box
          id={id}
          text={words[name]}
          aside=""
          wrong={wrong !== undefined}
          describedBy={describedBy(id, wrong)}
          onType={(text) => setWords({ ...words, [name]: text })}
        />
      </FieldFrame>
    )
  }
  return (
    <Sheet
      title="How does it hold?"
      open
      onOpenChange={(next) => {
        if (!next) onClose()
      }}
    >
      {became === null ? (
        <div className="grid grid-cols-2 gap-2">
          {IDS.map((id) => (
            <Button key={id} large onPress={() => setBecame(id)}>
              {choices.find((choice) => choice.id === id)?.label ?? id}
            </Button>
          ))}
        </div>
      ) : (
        <form
          aria-label="How it holds"
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            write(became)
          }}
        >
          <p className="text-[22px]">
            <b>{choices.find((choice) => choice.id === became)?.label}</b>
          </p>
          {gave && (
            <div>
              <p className="label mb-1">Where</p>
              <Choice
                label="Where"
                choices={tables.went_at.map((it) => ({ id: it.went, label: it.words }))}
                chosen={went}
                onChoose={setWent}
              />
            </div>
          )}
          {became !== 'unknown' && box('after')}
          {became !== 'unknown' && box('did')}
          {gave && box('note')}
          {elsewhere !== undefined && <p role="alert">{elsewhere.problem.message}</p>}
          <div className="flex flex-wrap gap-2">
            <button type="submit" className="min-h-12 border-[1.5px] border-chalk px-5 font-semibold">
              Write it down
            </button>
            <Button onPress={() => setBecame(null)}>Something else</Button>
          </div>
        </form>
      )}
    </Sheet>
  )
}
