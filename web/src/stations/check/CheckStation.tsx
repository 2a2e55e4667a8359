import type { ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { KeepOff } from '../../job/KeepOff'
import { NewRound } from '../../job/NewRound'
import { useShop } from '../../job/ShopContext'
import { CheckLineRow } from './CheckLineRow'
import { CheckMap } from './CheckMap'
import { CheckPictures } from './CheckPictures'
import { Finish } from './Finish'
import { Sizes } from './Sizes'
import { Straps } from './Straps'

/** The list made from this job's risks. What does not hold opens the next round. */
export function CheckStation(): ReactNode {
  const { view, typed, say } = useJob()
  const { units } = useShop()
  const { check } = view.plan
  const lit = view.job.rounds.at(-1)?.lit != null
  const failed = check.filter((line) => line.verdict === 'not_ok')
  const looked = check.every((line) => ['ok', 'left'].includes(line.verdict) || line.due_ms != null)
  const unfit = view.plan.bench.features.some((it) => it.within === false && it.by == null)
  const handed = typed('hand_over.done') === 'yes'
  const ready = lit && looked && view.standing.hot == null
  // It is the work in hand then: before what was looked at.
  const finishing = ready && !handed && view.plan.finish.lines.some((line) => !line.done)
  if (check.length === 0)
    return <h2 className="text-[28px] leading-8">Choose the method: the list follows from its risks.</h2>
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
              : looked
                ? view.plan.hand_over.afterwards.became === 'failed'
                  ? 'It held when it was looked at, and failed since'
                  : unfit
                    ? 'It holds, and something does not fit'
                    : 'It holds'
                : 'Cold now? Then look, line by line'}
      </h2>
      <div className="flex gap-6 max-bench:flex-col">
        <div className="min-w-0 grow">
          {finishing && <Finish ready />}
          <ul>
            {check.map((line) => (
              <CheckLineRow
                key={line.key}
                line={line}
                cold={view.standing.hot == null && lit}
                onSay={(verdict) =>
                  say(
                    { kind: 'set', key: line.key, typed: verdict, shown_in: units },
                    view.fields[line.key]?.revision ?? 0,
                  )
                }
              />
            ))}
          </ul>
          <Sizes sizes={view.plan.bench.features} cold={view.standing.hot == null && lit} />
          {!finishing && <Finish ready={ready} />}
          <Straps straps={view.plan.finish.straps} />
        </div>
        <div className="w-[300px] shrink-0 max-bench:order-first max-bench:w-full empty:hidden">
          <CheckMap lines={check} sizes={view.plan.bench.features} />
          {view.standing.hot == null && lit && <CheckPictures />}
        </div>
      </div>
      {!view.plan.only_to_refill && failed.length > 0 && lit && !handed && (
        <NewRound reason={failed.map((line) => line.label.toLowerCase()).join(', ')} />
      )}
    </div>
  )
}
