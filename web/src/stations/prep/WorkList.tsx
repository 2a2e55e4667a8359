import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { stepKey } from './step-key'

export interface WorkListProps {
  work: readonly Schemas['WorkLine'][]
}

/** What to do, in order: each line ticked with a glove. */
export function WorkList({ work }: WorkListProps): ReactNode {
  const { say, waiting } = useJob()
  // What was just pressed is shown so before the server has it.
  const said = new Map(
    waiting.flatMap(({ change }) =>
      change.kind === 'tick' ? [[stepKey(change.step), change.done] as const] : [],
    ),
  )
  const isDone = (line: Schemas['WorkLine']) => said.get(stepKey(line.step)) ?? line.done
  const next = work.find((line) => !isDone(line))
  const done = work.filter(isDone).length
  return (
    <section aria-label="In this order">
      <h2 className="flex items-baseline justify-between gap-3 text-[24px] leading-7">
        In this order
        <span className="figure text-[17px] text-ash">
          {done} of {work.length}
        </span>
      </h2>
      <ol>
        {work.map((line) => {
          const ticked = isDone(line)
          const isNext = line === next
          return (
            <li key={stepKey(line.step)} className="border-b border-rule">
              <button
                type="button"
                role="checkbox"
                aria-checked={ticked}
                data-step={line.step.what}
                onClick={() => say({ kind: 'tick', step: line.step, done: !ticked })}
                className={`flex min-h-14 w-full items-start gap-3 py-2 text-left ${isNext ? 'border-l-[3px] border-chalk pl-2' : 'border-l-[3px] border-transparent pl-2'}`}
              >
                <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden className="mt-0.5 shrink-0">
                  <rect
                    x="2"
                    y="2"
                    width="22"
                    height="22"
                    fill="none"
                    stroke="currentColor"
                    strokeWidth={isNext ? 2.6 : 1.5}
                  />
                  {ticked && (
                    <path d="M6 13.500l5 5.500L20 7" fill="none" stroke="currentColor" strokeWidth="3" />
                  )}
                </svg>
                <span className={`min-w-0 grow ${ticked ? 'text-ash' : ''}`}>
                  <span className="flex flex-wrap items-baseline gap-x-3">
                    <b className={isNext ? 'text-[20px]' : ''}>{line.word}</b>
                    {line.settings.length > 0 && (
                      <span className="figure flex flex-wrap gap-x-4 text-[19px]">
                        {line.settings.map((setting) => (
                          <span key={setting}>{setting}</span>
                        ))}
                      </span>
                    )}
                  </span>
                  <span className={`block first-letter:uppercase ${ticked || !isNext ? 'text-ash' : ''}`}>
                    {line.sentence}
                  </span>
                </span>
              </button>
            </li>
          )
        })}
      </ol>
    </section>
  )
}
