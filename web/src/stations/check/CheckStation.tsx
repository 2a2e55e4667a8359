import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { KeepOff } from '../../job/KeepOff'
import { NewRound } from '../../job/NewRound'
import { useShop } from '../../job/ShopContext'
import { Choice } from '../../ui/Choice'
import { fieldId } from '../../ui/focus'

const VERDICTS = [
  { id: 'ok', label: 'Good' },
  { id: 'not_ok', label: 'Not good' },
]

/** The list made from this job's risks. What does not hold opens the next round. */
export function CheckStation(): ReactNode {
  const { view, typed, say } = useJob()
  const { units } = useShop()
  const { check } = view.plan
  const lit = view.job.rounds.at(-1)?.lit != null
  const failed = check.filter((line) => line.verdict === 'not_ok')
  const handed = typed('hand_over.done') === 'yes'
  if (check.length === 0)
    return <h2 className="text-[28px]">Choose the method: the list follows from its risks.</h2>
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
                ? typed('hand_over.became') === 'failed'
                  ? 'It held when it was looked at, and failed since'
                  : 'It holds'
                : 'Cold now? Then look, line by line'}
      </h2>
      <ul>
        {check.map((line) => (
          <Line
            key={line.key}
            line={line}
            how={view.standing.hot == null}
            onSay={(verdict) =>
              say(
                { kind: 'set', key: line.key, typed: verdict, shown_in: units },
                view.fields[line.key]?.revision ?? 0,
              )
            }
          />
        ))}
      </ul>
      {failed.length > 0 && lit && !handed && (
        <NewRound reason={failed.map((line) => line.label.toLowerCase()).join(', ')} />
      )}
    </div>
  )
}

interface LineProps {
  line: Schemas['CheckLine']
  /** It is cold: how it is looked at is said. */
  how: boolean
  onSay: (verdict: string) => void
}

function Line({ line, how, onSay }: LineProps): ReactNode {
  return (
    <li className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2">
      <span>
        <b className="text-[17px]">{line.label}</b>
        {how && <span className="block text-ash">{line.how}</span>}
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
