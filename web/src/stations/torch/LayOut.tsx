import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { useTicked } from '../../job/useTicked'
import { TickLine } from '../../ui/TickLine'

export interface LayOutProps {
  lines: readonly Schemas['LayLine'][]
}

/** What lies ready first, ticked with a glove; what is not ticked is named in the log. */
export function LayOut({ lines }: LayOutProps): ReactNode {
  const { say } = useJob()
  const isDone = useTicked()
  const open = lines.filter((line) => !isDone(line))
  return (
    <section aria-label="Lay out first">
      <h3 className="flex items-baseline justify-between gap-3 text-[22px]">
        Lay out first
        <span className="figure text-[17px] text-ash">
          {lines.length - open.length} of {lines.length}
        </span>
      </h3>
      <ul className="bench:columns-2 bench:gap-8">
        {lines.map((line) => (
          <li key={line.words} className="break-inside-avoid border-b border-rule">
            <TickLine
              ticked={isDone(line)}
              step="lay_out"
              onPress={() => say({ kind: 'tick', step: line.step, done: !isDone(line) })}
            >
              <span className="block text-[19px] leading-6 first-letter:uppercase">{line.words}</span>
            </TickLine>
          </li>
        ))}
      </ul>
      {open.length > 0 && <p className="mt-2 text-ash">Not ticked it stops nothing; the log names it.</p>}
    </section>
  )
}
