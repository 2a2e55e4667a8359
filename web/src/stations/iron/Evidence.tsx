import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { StrikeSheet } from '../../job/StrikeSheet'
import { Button } from '../../ui/Button'

export interface EvidenceProps {
  /** Puts the spot and the sureness of an observation back into the hand, to say it again. */
  onCorrect: (line: Schemas['FoundLine']) => void
}

/** What was found so far: nothing is lost, a mistake is corrected or crossed out with its reason. */
export function Evidence({ onCorrect }: EvidenceProps): ReactNode {
  const { view, say } = useJob()
  const [striking, setStriking] = useState<Schemas['FoundLine'] | null>(null)
  const { found, hard_spot } = view.plan.iron
  if (found.length === 0) return null
  return (
    <section aria-label="Found so far" className="border-t border-rule pt-2">
      <h2 className="text-[22px] leading-7">Found so far</h2>
      <ul className="grid grid-cols-2 gap-x-8 max-bench:grid-cols-1">
        {found.map((line) => {
          const counts = line.state === 'counts' || line.state === 'counts_by_half'
          return (
            <li
              key={line.fact}
              className="flex min-h-12 items-center justify-between gap-3 border-b border-rule py-1"
            >
              <span className={`min-w-0 leading-[18px] ${counts ? '' : 'text-ash'}`}>
                {line.state === 'struck' ? <s>{line.words}</s> : <b>{line.words}</b>}{' '}
                <span className="small text-ash">
                  {line.how}
                  {line.note !== '' && `. ${line.note}`}
                </span>
              </span>
              {counts && (
                <span className="flex shrink-0 gap-1.5">
                  {hard_spot?.fact === line.fact && (
                    <Button
                      label={`Hard spot: ${line.words}`}
                      onPress={() => say({ kind: 'add_hard_spot', spot: line.spot, observed: line.fact })}
                    >
                      Hard spot
                    </Button>
                  )}
                  <Button label={`Correct ${line.words}`} onPress={() => onCorrect(line)}>
                    Correct
                  </Button>
                  <Button label={`Cross out ${line.words}`} onPress={() => setStriking(line)}>
                    Cross out
                  </Button>
                </span>
              )}
            </li>
          )
        })}
      </ul>
      {hard_spot != null && (
        <p className="mt-2 border-l-[3px] border-chalk pl-3" role="status">
          {hard_spot.words} at {hard_spot.spot}, where the rest says otherwise: a skin, a chill or one place
          that was once melted? Try a hand&apos;s breadth away. If it bites there, it is a hard spot: it goes
          on the map, and the iron stays what it is.
        </p>
      )}
      <StrikeSheet
        target={striking?.fact ?? null}
        what={striking?.words ?? ''}
        onClose={() => setStriking(null)}
      />
    </section>
  )
}
