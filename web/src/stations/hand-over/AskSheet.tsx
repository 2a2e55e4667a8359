import { useEffect, useState, type ReactNode } from 'react'
import type { Problem, Schemas } from '../../api/client'
import { tableOf } from '../../api/fields'
import { pictureBox } from '../../api/queue/pictures'
import { useJob } from '../../job/JobContext'
import { useTables } from '../../job/TablesContext'
import { shownFields } from '../../job/shown-fields'
import { useWriting } from '../../job/useWriting'
import { WithPictures } from '../../job/WithPictures'
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
  const { view } = useJob()
  const tables = useTables()
  const [files, setFiles] = useState<readonly File[]>([])
  const { write: writeDown, problems } = useWriting((answer) => {
    for (const file of files) void pictureBox.take(view.id, file, '', tables.picture_mb, answer)
    onClose()
  })
  const [became, setBecame] = useState<Became | null>(begun)
  const [went, setWent] = useState('')
  const [words, setWords] = useState<Record<Said, string>>({ after: '', did: '', note: '' })
  useEffect(() => shownFields.show(view.id, 'follow_up'), [view.id])
  const choices = tableOf(tables, 'hand_over.became')?.choices ?? []
  const problem = (field: string): Problem | undefined => problems.findLast((it) => it.field === field)
  const elsewhere = problems.find((it) => !(it.field in SAID))
  const gave = became === 'fault' || became === 'failed'
  const write = (what: Became) => {
    const at = tables.went_at.find((it) => it.went === went)?.went
    writeDown({
      kind: 'follow_up',
      became: what,
      ...(gave && at !== undefined ? { went: at } : {}),
      after: words.after.trim(),
      did: words.did.trim(),
      note: gave ? words.note.trim() : '',
    })
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
          {became !== 'unknown' && <WithPictures what="how it holds" files={files} onFiles={setFiles} />}
          {elsewhere !== undefined && <p role="alert">{elsewhere.message}</p>}
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
