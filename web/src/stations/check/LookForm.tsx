import { useEffect, useState, type ReactNode } from 'react'
import type { Problem, Schemas } from '../../api/client'
import { pictureBox } from '../../api/queue/pictures'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useTables } from '../../job/TablesContext'
import { WithPictures } from '../../job/WithPictures'
import { shownFields } from '../../job/shown-fields'
import { useWriting } from '../../job/useWriting'
import { Box } from '../../ui/Box'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { FieldFrame, describedBy } from '../../ui/FieldFrame'
import { WatchFrom } from './WatchFrom'

export interface LookFormProps {
  place: Schemas['PlaceLine']
  choice: Schemas['FoundChoice']
  /** It is written down, or something else is chosen. */
  onDone: () => void
  onBack: () => void
}

/** How large it is and what is done about it; one press writes it down. */
export function LookForm({ place, choice, onDone, onBack }: LookFormProps): ReactNode {
  const { view } = useJob()
  const { units } = useShop()
  const [size, setSize] = useState('')
  const [count, setCount] = useState('')
  const [note, setNote] = useState('')
  const [then, setThen] = useState('')
  const { length_keys, picture_mb } = useTables()
  const [files, setFiles] = useState<readonly File[]>([])
  const [written, setWritten] = useState(false)
  const { write: writeDown, problems } = useWriting((look) => {
    for (const file of files) void pictureBox.take(view.id, file, '', picture_mb, look)
    if (then === 'watch') setWritten(true)
    else onDone()
  })
  useEffect(() => shownFields.show(view.id, 'look'), [view.id])
  const problem = (name: string): Problem | undefined => problems.findLast((it) => it.field === name)
  const elsewhere = problems.find((it) => it.field !== 'size' && it.field !== 'count')
  const write = () => {
    const way = choice.then.find((it) => it.then === then)?.then
    writeDown({
      kind: 'look',
      place: place.place,
      found: choice.found,
      typed: Object.fromEntries(Object.entries({ size, count }).filter(([, text]) => text.trim() !== '')),
      shown_in: units,
      note: note.trim(),
      ...(way === undefined ? {} : { then: way }),
    })
  }
  const box = (name: 'size' | 'count', label: string, text: string, type: (text: string) => void) => {
    const wrong = problem(name)
    const aside = name === 'count' ? '' : /[a-z]/i.test(text) ? '' : units === 'imperial' ? 'in' : 'mm'
    const id = `look-${name}`
    return (
      <div className="min-w-[170px] grow">
        <FieldFrame id={id} label={label} problem={wrong}>
          <Box
            id={id}
            text={text}
            aside={aside}
            keys={name === 'count' ? [] : length_keys}
            wrong={wrong !== undefined}
            describedBy={describedBy(id, wrong)}
            onType={type}
          />
        </FieldFrame>
      </div>
    )
  }
  if (written) return <WatchFrom place={place} length={size.trim()} onDone={onDone} />
  return (
    <form
      aria-label={choice.words}
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        write()
      }}
    >
      <p className="text-[19px]">
        Good enough here: <b>{choice.limit}</b>
      </p>
      {choice.measured !== '' && (
        <div className="flex flex-wrap gap-3">
          {box('size', choice.measured, size, setSize)}
          {choice.counted &&
            box(
              'count',
              units === 'imperial' ? 'How many within 1 in' : 'How many within 25 mm',
              count,
              setCount,
            )}
        </div>
      )}
      {choice.then.length > 0 && (
        <div>
          <p className="label mb-1">Where it is more than that</p>
          <Choice
            label="Where it is more than that"
            choices={choice.then.map((it) => ({ id: it.then, label: it.words }))}
            chosen={then}
            onChoose={setThen}
          />
        </div>
      )}
      <FieldFrame id="look-note" label="In a word" problem={undefined}>
        <Box id="look-note" text={note} aside="" wrong={false} onType={setNote} />
      </FieldFrame>
      <WithPictures what={`${choice.words}, ${place.words}`} files={files} onFiles={setFiles} />
      {elsewhere !== undefined && <p role="alert">{elsewhere.message}</p>}
      <div className="flex flex-wrap gap-2">
        <button type="submit" className="min-h-12 border-[1.5px] border-chalk px-5 font-semibold">
          Write it down
        </button>
        <Button onPress={onBack}>Something else</Button>
      </div>
    </form>
  )
}
