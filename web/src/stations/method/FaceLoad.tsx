import { useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { faceLoadQuery } from '../../api/queries'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { Fold } from '../../ui/Fold'

const ROUND: ReadonlySet<string> = new Set(['bolt_hole', 'bore'])

/** The faces that can be reckoned, and what they carry once a load is said. */
function useFaceLoad() {
  const { view, typed } = useJob()
  const { revision, units } = useShop()
  const faces = view.plan.map.faces.filter((face) => face.rims.length > 0 && face.lines.length > 0)
  const asked = useQuery({
    ...faceLoadQuery(view.id, view.revision, revision, units),
    enabled: typed('part.load') !== '' && faces.length > 0,
  })
  return { faces, asked }
}

/** Mend it, strap it, or don't, by what it carries: beside what it costs. */
export function ByWhatItCarries(): ReactNode {
  const { asked } = useFaceLoad()
  const words = asked.data?.load?.weighed ?? ''
  return words === '' ? null : <p className="font-semibold">{words}</p>
}

/** What the drawn face carries at one of its holes, held at another, whole and mended. */
export function FaceLoad(): ReactNode {
  const { typed } = useJob()
  const said = typed('part.load')
  const [open, setOpen] = useState(said !== '')
  const { faces, asked } = useFaceLoad()
  const holes = faces.flatMap((face) => face.marks.filter((mark) => ROUND.has(mark.what)))
  if (holes.length < 2) return null
  const names = holes.map((hole) => hole.name)
  const { load, why_not: why = '' } = asked.data ?? {}
  return (
    <Fold
      title="What it carries, as drawn"
      summary={load == null ? (said === '' ? 'no load said' : '') : load.weighed}
      open={open}
      onOpenChange={setOpen}
    >
      <div className="grid grid-cols-2 items-start gap-3 bench:grid-cols-3">
        <Field name="part.load" />
        <AtHole name="part.load_at" names={names} />
        <Field name="part.load_towards" folded />
        <AtHole name="part.load_held" names={names} />
        <Field name="part.load_how" folded />
        <Field name="part.load_drop" />
        {typed('part.load_drop') !== '' && <Field name="part.load_gives" />}
        <Field name="part.load_often" />
      </div>
      {why !== '' && <p className="mt-2">{why}</p>}
      {load != null && (
        <div className="mt-2 flex max-w-[80ch] flex-col gap-2" data-testid="face-load">
          <p className="font-semibold">{load.weighed}</p>
          {[load.sentence, ...load.others].map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
          {load.notes.map((note) => (
            <p key={note} className="border-l-[3px] border-chalk pl-3">
              {note}
            </p>
          ))}
          <p className="small text-ash">{load.not_in_it}</p>
        </div>
      )}
    </Fold>
  )
}

/** One of the holes of the map: one press, or typed. */
function AtHole({ name, names }: { name: 'part.load_at' | 'part.load_held'; names: string[] }): ReactNode {
  const { typed, say } = useJob()
  const { units } = useShop()
  return (
    <div className="flex flex-col gap-2">
      <Field name={name} />
      {typed(name) === '' && (
        <div className="flex flex-wrap gap-2">
          {names.map((hole) => (
            <Button key={hole} onPress={() => say({ kind: 'set', key: name, typed: hole, shown_in: units })}>
              {hole}
            </Button>
          ))}
        </div>
      )}
    </div>
  )
}
