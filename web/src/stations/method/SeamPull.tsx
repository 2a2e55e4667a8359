import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { seamPullQuery } from '../../api/queries'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { capital } from '../../ui/capital'

/** What the seams of a drawn face pull as they shrink, and which holes come nearer. */
export function SeamPull(): ReactNode {
  const { view, field, typed, say } = useJob()
  const { revision, units } = useShop()
  const drawn = view.plan.map.faces.some((face) => face.rims.length > 0 && face.lines.length > 0)
  const asked = useQuery({
    ...seamPullQuery(view.id, view.revision, revision, units),
    enabled: drawn && view.plan.methods.chosen != null,
  })
  const pulls = asked.data?.pulls
  const sizeName = (mark: string) =>
    view.plan.bench.features.find((size) => size.mark === mark)?.name ?? 'a distance'
  const fill = (order: string) =>
    say({ kind: 'set', key: 'prep.order', typed: order, shown_in: units }, field('prep.order').revision)
  if (pulls == null) return null
  return (
    <section aria-label="What the seam pulls" className="border-t border-rule pt-1.5">
      {pulls.seams.map((seam) => (
        <div key={seam.letter} className="max-w-[80ch]">
          <p>
            {seam.sentence}
            {seam.moves.length > 0 && ` ${seam.moves.map((moves) => `${capital(moves)}.`).join(' ')}`}
          </p>
          {seam.lessens !== '' && <p className="text-ash">{seam.lessens}</p>}
        </div>
      ))}
      {pulls.order !== '' && <p className="max-w-[80ch] font-semibold">{pulls.order}</p>}
      {pulls.order !== '' && (
        <div className="flex flex-wrap gap-2 py-1">
          {pulls.better_order !== '' && (
            <Button onPress={() => fill(pulls.better_order)}>
              Fill {pulls.better_order.replaceAll(', ', ', then ')}
            </Button>
          )}
          {typed('prep.order') !== '' && <Button onPress={() => fill('')}>Fill them side by side</Button>}
        </div>
      )}
      {pulls.kept.map((it) => (
        <p key={it.mark} className="max-w-[80ch]">
          <b className="inline-block first-letter:uppercase">{sizeName(it.mark)}</b>: {it.words}
        </p>
      ))}
      {pulls.other_ways.length > 0 && (
        <p className="max-w-[80ch] text-ash">By other ways: {pulls.other_ways.join(' ')}</p>
      )}
      <p className="small text-ash">{pulls.not_in_it}</p>
    </section>
  )
}
