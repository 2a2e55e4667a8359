import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { Button } from '../../ui/Button'
import { StrikeSheet } from '../../job/StrikeSheet'

/** What was found so far: nothing is lost, a mistake is struck out with its reason. */
export function Evidence(): ReactNode {
  const { view } = useJob()
  const [striking, setStriking] = useState<Schemas['Observed'] | null>(null)
  const { evidence } = view.job
  return (
    <section aria-label="Found so far">
      <h2 className="text-[24px] leading-7">Found so far</h2>
      {evidence.length === 0 && (
        <p className="text-ash">Nothing yet. Do the outlined test and press what it looks like.</p>
      )}
      <ul className="grid grid-cols-2 gap-x-8 max-bench:grid-cols-1">
        {evidence.map((seen) => (
          <li
            key={seen.fact}
            className="flex min-h-11 items-center justify-between gap-3 border-b border-rule py-1"
          >
            <span className={seen.struck == null ? '' : 'text-ash'}>
              {seen.struck == null ? words(seen) : <s>{words(seen)}</s>}
              {seen.struck != null && <span className="block text-[14px]">struck: {seen.struck}</span>}
            </span>
            {seen.struck == null && (
              <Button label={`Strike out ${words(seen)}`} onPress={() => setStriking(seen)}>
                Strike
              </Button>
            )}
          </li>
        ))}
      </ul>
      <StrikeSheet
        target={striking?.fact ?? null}
        what={striking === null ? '' : words(striking)}
        onClose={() => setStriking(null)}
      />
    </section>
  )
}

const words = (seen: Schemas['Observed']): string =>
  `${seen.test}: ${seen.outcome.replaceAll('_', ' ')}, ${seen.spot}, ${seen.confidence}`
