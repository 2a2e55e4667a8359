import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { useTicked } from '../../job/useTicked'
import { Button } from '../../ui/Button'
import { TickLine } from '../../ui/TickLine'
import { stepKey } from '../../job/step-key'
import { WorkTells } from './WorkTells'

export interface WorkListProps {
  work: readonly Schemas['WorkLine'][]
}

/** What to do, in order: each line ticked with a glove. */
export function WorkList({ work }: WorkListProps): ReactNode {
  const { say } = useJob()
  const isDone = useTicked()
  const next = work.find((line) => !isDone(line))
  const done = work.filter(isDone).length
  const [whole, setWhole] = useState(false)
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
              <TickLine
                ticked={ticked}
                next={isNext}
                step={line.step.what}
                onPress={() => say({ kind: 'tick', step: line.step, done: !ticked })}
              >
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
                <span
                  className={`first-letter:uppercase ${ticked || !isNext ? 'text-ash' : ''} ${whole || isNext ? 'block' : 'line-clamp-1 max-bench:hidden'}`}
                >
                  {line.sentence}
                </span>
              </TickLine>
              {line.tells != null && <WorkTells test={line.tells} />}
            </li>
          )
        })}
      </ol>
      {work.length > 1 && (
        <div className="mt-2">
          <Button chosen={whole} onPress={() => setWhole(!whole)}>
            {whole ? 'The next line in full' : 'Every line in full'}
          </Button>
        </div>
      )}
    </section>
  )
}
