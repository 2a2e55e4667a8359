import { useEffect, useState, type ReactNode } from 'react'
import type { Problem } from '../../../api/client'
import { outbox } from '../../../api/queue/outbox'
import { useJob, useRefusals } from '../../../job/JobContext'
import { useShop } from '../../../job/ShopContext'
import { useTables } from '../../../job/TablesContext'
import { placeText } from '../../../quantity/place'
import { shownFields } from '../../../job/shown-fields'
import { FieldFrame } from '../../../ui/FieldFrame'
import { TypedInput } from '../../../ui/TypedInput'
import type { FaceOnMap } from './edit'
import type { Chosen } from './near'
import { distance } from './view'

export interface PointFormProps {
  face: FaceOnMap
  chosen: Chosen
  /** What is typed of a point belongs to the map: there the keys go on. */
  follows: () => void
}

type Name = 'x' | 'y' | 'wall' | 'from_before' | 'across'

const LABEL: Readonly<Record<Name, string>> = {
  x: 'From the left',
  y: 'From the top',
  wall: 'Wall here',
  from_before: 'From the point before',
  across: 'Across',
}

/** Where one point lies, typed. */
export function PointForm({ face, chosen, follows }: PointFormProps): ReactNode {
  const { view } = useJob()
  const { units } = useShop()
  useEffect(() => shownFields.show(view.id, 'set_point'), [view.id])
  const line = face.lines.find((candidate) => candidate.crack === chosen.id && !candidate.from_behind)
  const mark = face.marks.find((candidate) => candidate.id === chosen.id)
  const point = chosen.point ?? 0
  const shape = mark?.shape
  const single = shape?.kind === 'circle' || shape?.kind === 'place' ? shape : undefined
  const along = line?.points ?? (shape?.kind === 'line' || shape?.kind === 'outline' ? shape.points : [])
  const place = single ?? along[point]
  if (place === undefined) return null
  const before = along[point - 1]
  const wall = line?.walls[point]
  const text = (mm: number) => placeText(mm, units)
  const stands: [Name, string][] = [
    ['x', text(place.x_mm)],
    ['y', text(place.y_mm)],
    ...(before === undefined ? [] : [['from_before', text(distance(before, place))] as [Name, string]]),
    ...(shape?.kind === 'circle' ? [['across', text(2 * shape.radius_mm)] as [Name, string]] : []),
    ...(line === undefined ? [] : [['wall', wall == null ? '' : text(wall)] as [Name, string]]),
  ]
  const called =
    line === undefined ? (mark?.name ?? '') : `Crack ${line.letter}, point ${point + 1} of ${along.length}`
  return (
    <section aria-label={called} className="border-t border-scribe pt-2" data-point-form>
      <h3 className="label mb-1 first-letter:uppercase">{called}</h3>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(132px,1fr))] gap-2">
        {stands.map(([name, value]) => (
          <One
            key={`${chosen.id} ${point} ${name}`}
            face={face.id}
            chosen={{ ...chosen, point }}
            name={name}
            value={value}
            follows={follows}
          />
        ))}
      </div>
    </section>
  )
}

interface OneProps {
  face: string
  chosen: Chosen
  name: Name
  value: string
  follows: () => void
}

function One({ face, chosen, name, value, follows }: OneProps): ReactNode {
  const { view, say } = useJob()
  const refusals = useRefusals()
  const { units } = useShop()
  const { length_keys } = useTables()
  const [said, setSaid] = useState<string | null>(null)
  const refused = refusals.find((item) => said !== null && item.id.startsWith(said))
  const problem: Problem | undefined = refused?.problem
  const id = `point-${name}`
  return (
    <FieldFrame id={id} label={LABEL[name]} problem={problem}>
      <TypedInput
        id={id}
        typed={refused?.typed ?? value}
        aside={units === 'imperial' ? 'in' : 'mm'}
        wrong={problem !== undefined}
        follows={follows}
        keys={length_keys}
        describedBy={problem === undefined ? undefined : `${id}-problem`}
        onCommit={(typed) => {
          if (refused !== undefined) outbox.dismiss(refused)
          const point = chosen.point ?? 0
          setSaid(
            say(
              { kind: 'set_point', mark: chosen.id, face, point, typed: { [name]: typed }, shown_in: units },
              view.revision,
            ),
          )
        }}
      />
    </FieldFrame>
  )
}
