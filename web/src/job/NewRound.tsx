import { useId, useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { Choice } from '../ui/Choice'
import { Plate } from '../ui/Plate'
import { Field } from './Field'
import { useJob } from './JobContext'
import { useShop } from './ShopContext'

export interface NewRoundProps {
  /** What it is opened for where nothing else is typed. */
  reason: string
  /** It failed at work: what broke it is asked too. */
  cause?: boolean
}

const BECAME = [
  { id: 'failed', label: 'Failed' },
  { id: 'sound', label: 'Still sound' },
]

/** What did not hold goes back to the map: the round that was stays as it is. */
export function NewRound({ reason, cause = false }: NewRoundProps): ReactNode {
  const { view, say } = useJob()
  const navigate = useNavigate()
  const id = useId()
  const { units } = useShop()
  const [found, setFound] = useState('')
  const [became, setBecame] = useState<Readonly<Record<string, string>>>({})
  const seams = view.plan.cracks.filter((crack) => crack.becomes !== 'leave')
  const rounds = view.job.rounds.length
  const open = () => {
    say({ kind: 'new_round', reason: found.trim() || reason })
    for (const { id: crack } of seams.filter((seam) => became[seam.id] === 'sound')) {
      say({ kind: 'set', key: `crack.${crack}.becomes`, typed: 'sound', shown_in: units })
    }
    void navigate(`/jobs/${view.id}/cracks`)
  }
  return (
    <section aria-label="Next round" className="mt-auto grow basis-full border-t border-scribe pt-3">
      <p className="mb-2">
        Back to the map with round {rounds + 1}. The map is carried over; round {rounds} stays as it is.
      </p>
      {seams.length > 1 && (
        <ul className="mb-2 flex flex-wrap gap-x-6 gap-y-2" aria-label="Which of them">
          {seams.map((seam) => (
            <li key={seam.id} className="flex items-center gap-3">
              <b>{seam.letter}</b>
              <Choice
                label={`Seam ${seam.letter}`}
                choices={BECAME}
                chosen={became[seam.id] ?? ''}
                onChoose={(id) => setBecame({ ...became, [seam.id]: id })}
              />
            </li>
          ))}
        </ul>
      )}
      {cause && (
        <div className="mb-2 grid grid-cols-2 gap-3 max-bench:grid-cols-1">
          <Field name="part.cause" folded label="What broke it" />
          <Field name="part.cause_cured" />
        </div>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <label htmlFor={id} className="label grow">
          <span className="mb-1 block">What was found</span>
          <input
            id={id}
            autoComplete="off"
            value={found}
            onChange={(event) => setFound(event.target.value)}
            placeholder={reason}
            className="min-h-12 w-full border-[1.5px] border-dim bg-raise px-3 text-[17px] text-chalk placeholder:text-ash"
          />
        </label>
        <Plate testId="new-round" onPress={open}>
          Open round {rounds + 1}
        </Plate>
      </div>
    </section>
  )
}
