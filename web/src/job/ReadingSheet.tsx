import { useEffect, useState, type ReactNode } from 'react'
import type { Problem, Schemas } from '../api/client'
import { outbox } from '../api/queue/outbox'
import { useJob } from './JobContext'
import { useShop } from './ShopContext'
import { useTables } from './TablesContext'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { UnitKeys } from '../ui/UnitKeys'
import { useHalfTyped } from '../ui/useHalfTyped'

export interface ReadingSheetProps {
  kind: 'reading' | 'note' | 'aligned' | null
  onClose: () => void
  /** Gives the id of what was said. */
  onSay: (entry: Schemas['TorchEntry']) => string
}

/** What is typed, as it might be. */
const LIKE = {
  metric: { reading: '312 C', aligned: '0.4 mm' },
  imperial: { reading: '590 F', aligned: '1/64 in' },
} as const

/** A temperature read by hand, or a note. */
export function ReadingSheet({ kind, onClose, onSay }: ReadingSheetProps): ReactNode {
  const { units } = useShop()
  const { view } = useJob()
  const [text, setText] = useHalfTyped('reading-or-note')
  const [where, setWhere] = useState('part')
  const [by, setBy] = useState('hand')
  const [melted, setMelted] = useState('')
  const [letters, setLetters] = useState(false)
  const { length_keys, temperature_keys } = useTables()
  const keys = kind === 'note' ? null : kind === 'aligned' ? length_keys : temperature_keys
  const infrared = view.plan.heat?.infrared ?? null
  const gun =
    infrared === null
      ? null
      : {
          emissivity_set: infrared.emissivity_set,
          emissivity_true: infrared.emissivity_true,
          reflected_c: infrared.reflected_c,
        }
  const [sent, setSent] = useState<string | null>(null)
  const [problem, setProblem] = useState<Problem>()
  // It shuts once it is taken, or kept for a server that is not reached: what was refused is put right here.
  useEffect(() => {
    if (sent === null) return
    let heard = false
    return outbox.subscribe(() => {
      // What is put away here is told again at once: it was answered already.
      if (heard) return
      const { refusals, reached, waiting } = outbox.now()
      const refused = refusals.find((refusal) => refusal.id.startsWith(`${sent}.`))
      if (refused !== undefined) {
        heard = true
        setSent(null)
        setProblem(refused.problem)
        outbox.dismiss(refused)
      } else if (!reached || !waiting.some((item) => item.id === sent)) {
        setSent(null)
        setText('')
        onClose()
      }
    })
  }, [sent, setText, onClose])
  // A joint is read apart where it is judged apart: while it is worked at.
  const apart = kind === 'reading' && view.plan.torch != null && view.standing.station === 'torch'
  const say = () => {
    // A second press while the first is on its way is none.
    if (text.trim() === '' || kind === null || sent !== null) return
    const joint = apart && where === 'joint'
    const typed = text.trim()
    if (kind === 'reading' && by === 'stick' && melted === '') {
      setProblem({ field: 'melted', message: 'say whether it melted', would_be_right: '' })
      return
    }
    setProblem(undefined)
    setSent(
      onSay(
        kind === 'note'
          ? { kind, text: typed }
          : kind === 'aligned'
            ? { kind, typed, shown_in: units }
            : by === 'stick'
              ? { kind: 'stick', typed, shown_in: units, melted: melted === 'yes' }
              : { kind, typed, shown_in: units, joint, gun: by === 'gun' ? gun : null },
      ),
    )
    setMelted('')
  }
  const stick = kind === 'reading' && by === 'stick'
  const length = units === 'imperial' ? 'in' : 'mm'
  return (
    <Sheet
      title={kind === 'note' ? 'Note' : kind === 'aligned' ? 'Alignment' : 'Reading by hand'}
      open={kind !== null}
      onOpenChange={(open) => {
        if (open) return
        setProblem(undefined)
        onClose()
      }}
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          say()
        }}
      >
        <div>
          <label className="label flex flex-col gap-1 text-[16px]">
            {kind === 'note'
              ? 'What happened?'
              : kind === 'aligned'
                ? `How far it is off, ${length} unless you say`
                : `${stick ? 'The stick melts at' : 'Temperature'}, ${units === 'imperial' ? '°F' : '°C'} unless you say`}
            <input
              autoFocus
              value={text}
              inputMode={keys === null || letters ? 'text' : 'decimal'}
              aria-invalid={problem !== undefined || undefined}
              aria-describedby={problem === undefined ? undefined : 'reading-problem'}
              onChange={(event) => setText(event.target.value)}
              placeholder={
                kind === 'note'
                  ? 'blew through at the left'
                  : LIKE[units][kind === 'aligned' ? 'aligned' : 'reading']
              }
              className="min-h-[72px] border-2 border-dim bg-iron px-4 text-[30px] font-semibold text-chalk"
            />
          </label>
          {keys !== null && (
            <UnitKeys
              keys={keys}
              text={text}
              onType={setText}
              letters={letters}
              onLetters={setLetters}
              lies="stays"
            />
          )}
        </div>
        {problem !== undefined && (
          <p id="reading-problem" role="alert" className="text-[17px] first-letter:uppercase">
            {problem.message}. {problem.would_be_right !== '' && <b>{problem.would_be_right} would do.</b>}
          </p>
        )}
        {apart && by !== 'stick' && (
          <Choice
            label="Read where"
            choices={[
              { id: 'part', label: 'The part: far side, far corner' },
              { id: 'joint', label: 'The joint itself' },
            ]}
            chosen={where}
            onChoose={(id) => setWhere(id || 'part')}
          />
        )}
        {kind === 'reading' && (
          <ReadWith by={by} onBy={setBy} melted={melted} onMelted={setMelted} infrared={infrared} />
        )}
        <button type="submit" className="min-h-[72px] border-2 border-chalk text-[19px] font-bold">
          Log it
        </button>
      </form>
    </Sheet>
  )
}

interface ReadWithProps {
  by: string
  onBy: (by: string) => void
  melted: string
  onMelted: (melted: string) => void
  infrared: Schemas['InfraredPlan'] | null
}

/** What it was read with, and what a stick showed. */
function ReadWith({ by, onBy, melted, onMelted, infrared }: ReadWithProps): ReactNode {
  return (
    <>
      <Choice
        label="Read with"
        choices={[
          { id: 'hand', label: 'Pad or thermometer' },
          { id: 'stick', label: 'Temperature stick' },
          ...(infrared === null ? [] : [{ id: 'gun', label: 'Infrared gun' }]),
        ]}
        chosen={by}
        onChoose={(id) => onBy(id || 'hand')}
      />
      {by === 'stick' && (
        <Choice
          label="Rubbed on the far side"
          choices={[
            { id: 'yes', label: 'It melted' },
            { id: 'no', label: 'It did not melt' },
          ]}
          chosen={melted}
          onChoose={onMelted}
        />
      )}
      {by === 'gun' && (
        <p className="text-[17px]">
          It is turned into what the iron is, for the surface said on Heat.{' '}
          {infrared !== null && infrared.dont !== '' && <b>{infrared.dont}</b>}
        </p>
      )}
    </>
  )
}
