import { useState, type ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { StrikeSheet } from '../../job/StrikeSheet'
import { Button } from '../../ui/Button'

/** Places that are hard although the iron is not: no drill bites there. */
export function HardSpots(): ReactNode {
  const { view } = useJob()
  const [striking, setStriking] = useState<string | null>(null)
  const spots = view.job.rounds.at(-1)?.hard_spots ?? []
  if (spots.length === 0) return null
  const words = (id: string | null) => spots.find((spot) => spot.id === id)?.spot ?? ''
  return (
    <section aria-label="Hard spots">
      <h2 className="text-[22px] leading-7">Hard spots</h2>
      <ul>
        {spots.map((spot) => (
          <li
            key={spot.id}
            className="flex min-h-12 items-center justify-between gap-3 border-b border-rule py-1"
          >
            <span>
              <b className="inline-block first-letter:uppercase">{spot.spot}</b>{' '}
              <span className="text-ash">
                a place, not the iron: cut it out before drilling, pins keep off it
                {spot.found_in_round > 1 && `, found in round ${spot.found_in_round}`}
              </span>
            </span>
            <Button label={`Cross out hard spot ${spot.spot}`} onPress={() => setStriking(spot.id)}>
              Cross out
            </Button>
          </li>
        ))}
      </ul>
      <StrikeSheet
        target={striking}
        what={`Hard spot at ${words(striking)}`}
        onClose={() => setStriking(null)}
      />
    </section>
  )
}
