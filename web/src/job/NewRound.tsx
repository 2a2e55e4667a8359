import { useId, useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { Plate } from '../ui/Plate'
import { useJob } from './JobContext'

export interface NewRoundProps {
  /** What it is opened for where nothing else is typed. */
  reason: string
}

/** What did not hold goes back to the map: the round that was stays as it is. */
export function NewRound({ reason }: NewRoundProps): ReactNode {
  const { view, say } = useJob()
  const navigate = useNavigate()
  const id = useId()
  const [found, setFound] = useState('')
  const rounds = view.job.rounds.length
  const open = () => {
    say({ kind: 'new_round', reason: found.trim() || reason })
    void navigate(`/jobs/${view.id}/cracks`)
  }
  return (
    <section aria-label="Next round" className="mt-auto grow basis-full border-t border-scribe pt-3">
      <p className="mb-2">
        Back to the map with round {rounds + 1}. The map is carried over; round {rounds} stays as it is.
      </p>
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
