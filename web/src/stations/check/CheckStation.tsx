import { useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { KeepOff } from '../../job/KeepOff'
import { useShop } from '../../job/ShopContext'
import { Choice } from '../../ui/Choice'
import { fieldId } from '../../ui/focus'
import { Plate } from '../../ui/Plate'

const VERDICTS = [
  { id: 'ok', label: 'Good' },
  { id: 'not_ok', label: 'Not good' },
]

/** The list made from this job's risks. What does not hold opens the next round. */
export function CheckStation(): ReactNode {
  const { view, say } = useJob()
  const { units } = useShop()
  const navigate = useNavigate()
  const [reason, setReason] = useState('')
  const { check } = view.plan
  const lit = view.job.rounds.at(-1)?.lit != null
  const failed = check.filter((line) => line.verdict === 'not_ok')
  const rounds = view.job.rounds.length
  if (check.length === 0)
    return <h2 className="text-[28px]">Choose the method: the list follows from its risks.</h2>
  const open = () => {
    say({
      kind: 'new_round',
      reason: reason.trim() || failed.map((line) => line.label.toLowerCase()).join(', '),
    })
    void navigate(`/jobs/${view.id}/cracks`)
  }
  return (
    <div className="flex min-h-0 grow flex-col gap-3 overflow-auto">
      <KeepOff />
      {view.plan.cautions
        .filter((caution) => caution.station === 'check')
        .map((caution) => (
          <p key={caution.sentence} className="border-l-[3px] border-chalk pl-3">
            {caution.sentence}
          </p>
        ))}
      <h2 className="text-[28px] leading-8">
        {view.standing.hot != null
          ? 'To be looked at when it is cold'
          : !lit
            ? 'To be looked at when it is cold'
            : failed.length > 0
              ? 'Something does not hold'
              : check.every((line) => line.verdict === 'ok')
                ? 'It holds'
                : 'Cold now? Then look, line by line'}
      </h2>
      <ul>
        {check.map((line) => (
          <Line
            key={line.key}
            line={line}
            onSay={(verdict) =>
              say(
                { kind: 'set', key: line.key, typed: verdict, shown_in: units },
                view.fields[line.key]?.revision ?? 0,
              )
            }
          />
        ))}
      </ul>
      {failed.length > 0 && lit && (
        <section aria-label="Next round" className="mt-auto border-t border-scribe pt-3">
          <p className="mb-2">
            Back to the map with round {rounds + 1}. The map is carried over; round {rounds} stays as it is.
          </p>
          <div className="flex flex-wrap items-end gap-3">
            <label className="label grow">
              <span className="mb-1 block">What was found</span>
              <input
                value={reason}
                onChange={(event) => setReason(event.target.value)}
                placeholder={failed.map((line) => line.label.toLowerCase()).join(', ')}
                className="min-h-12 w-full border-[1.5px] border-dim bg-raise px-3 text-[17px] text-chalk placeholder:text-ash"
              />
            </label>
            <Plate testId="new-round" onPress={open}>
              Open round {rounds + 1}
            </Plate>
          </div>
        </section>
      )}
    </div>
  )
}

function Line({ line, onSay }: { line: Schemas['CheckLine']; onSay: (verdict: string) => void }): ReactNode {
  return (
    <li className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2">
      <span>
        <b className="text-[17px]">{line.label}</b>
        <span className="block text-ash">{line.how}</span>
      </span>
      <Choice
        id={fieldId(line.key)}
        label={line.label}
        choices={VERDICTS}
        chosen={line.verdict}
        onChoose={onSay}
      />
    </li>
  )
}
