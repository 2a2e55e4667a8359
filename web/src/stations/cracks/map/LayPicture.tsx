import { useEffect, useState, type ReactNode } from 'react'
import { pictureUrl } from '../../../api/picture-url'
import { outbox } from '../../../api/queue/outbox'
import { useJob, useRefusals } from '../../../job/JobContext'
import { useShop } from '../../../job/ShopContext'
import { useTables } from '../../../job/TablesContext'
import { shownFields } from '../../../job/shown-fields'
import { Button } from '../../../ui/Button'
import { Choice } from '../../../ui/Choice'
import { FieldFrame } from '../../../ui/FieldFrame'
import { Sheet } from '../../../ui/Sheet'
import { TypedInput } from '../../../ui/TypedInput'
import { PressPicture, type Point } from './PressPicture'
import { WhichPicture } from './WhichPicture'

export interface LayPictureProps {
  faceId: string
  name: string
  onClose: () => void
}

type By = 'corners' | 'distance'

const BY = [
  { id: 'corners', label: 'Four corners of a rectangle' },
  { id: 'distance', label: 'Two points on a distance' },
] as const

const CORNERS = ['upper left', 'upper right', 'lower right', 'lower left'] as const

/** A picture laid on a face: a slanted one by four corners, a straight one by a distance. */
export function LayPicture({ faceId, name, onClose }: LayPictureProps): ReactNode {
  const { view, say } = useJob()
  const refusals = useRefusals()
  const { units } = useShop()
  const { pictures } = view.job
  const [picture, setPicture] = useState(view.face ?? pictures[0]?.id ?? '')
  const [by, setBy] = useState<By>('corners')
  const [points, setPoints] = useState<readonly Point[]>([])
  const [size, setSize] = useState<Point | null>(null)
  const [across, setAcross] = useState('')
  const [down, setDown] = useState('')
  const [said, setSaid] = useState<string | null>(null)
  useEffect(() => shownFields.show(view.id, 'straighten'), [view.id])
  const refused = refusals.find((item) => said !== null && item.id.startsWith(said))
  const laid = view.plan.map.faces.find((face) => face.id === faceId)?.seen?.revision
  const [before] = useState(laid)
  const wanted = by === 'corners' ? 4 : 2
  const full = points.length === wanted
  const lay = () => {
    if (refused !== undefined) outbox.dismiss(refused)
    const typed: Record<string, string> = by === 'corners' ? { across, down } : { across }
    setSaid(
      say(
        {
          kind: 'straighten',
          face: faceId,
          picture,
          points_px: points.map(([x, y]) => [Math.round(x * 10) / 10, Math.round(y * 10) / 10]),
          size_px: size ?? [0, 0],
          typed,
          shown_in: units,
        },
        view.revision,
      ),
    )
  }
  if (said !== null && laid !== undefined && laid !== before) {
    return (
      <Sheet title={`A picture on ${name}`} open onOpenChange={(open) => !open && onClose()}>
        <p className="mb-3">The picture lies flat on the face now, to scale.</p>
        <Button onPress={onClose} testId="laid">
          Look at it
        </Button>
      </Sheet>
    )
  }
  const problemAt = (field: string) => (refused?.problem.field === field ? refused.problem : undefined)
  return (
    <Sheet title={`A picture on ${name}`} open onOpenChange={(open) => !open && onClose()}>
      <div className="flex flex-col gap-3">
        <WhichPicture
          job={view.id}
          pictures={pictures.map(({ id }) => id)}
          chosen={picture}
          onChoose={(id) => {
            setPicture(id)
            setPoints([])
          }}
        />
        <Choice
          label="Scale from"
          choices={BY}
          chosen={by}
          onChoose={(next) => {
            if (next !== '') setBy(next as By)
            setPoints([])
          }}
        />
        <p role="status" className="font-semibold">
          {full
            ? 'Now say how large that is.'
            : by === 'corners'
              ? `Press the ${CORNERS[points.length] ?? ''} corner of a rectangle you can measure.`
              : `Press the ${points.length === 0 ? 'first' : 'second'} of two points.`}
        </p>
        <PressPicture
          src={pictureUrl(view.id, picture, false)}
          size={size}
          onSize={setSize}
          points={points}
          full={full}
          closed={by === 'corners'}
          onPoints={setPoints}
        />
        {problemAt('points_px') !== undefined && (
          <p role="alert" className="border-l-[3px] border-chalk pl-3 first-letter:uppercase">
            {problemAt('points_px')?.message}. <b>{problemAt('points_px')?.would_be_right}</b> would do.
          </p>
        )}
        <div className="grid grid-cols-2 gap-2">
          <Size
            id="laid-across"
            label={by === 'corners' ? 'It is wide' : 'They are apart'}
            typed={across}
            problem={problemAt('across')}
            onSay={setAcross}
          />
          {by === 'corners' && (
            <Size
              id="laid-down"
              label="It is high"
              typed={down}
              problem={problemAt('down')}
              onSay={setDown}
            />
          )}
        </div>
        <div className="flex flex-wrap gap-2">
          <Button
            onPress={() => setPoints(points.slice(0, -1))}
            notYet={points.length === 0 ? 'Nothing is pressed yet' : undefined}
          >
            Take the last point back
          </Button>
          <span className="ml-auto" />
          <Button onPress={lay} testId="lay" notYet={full ? undefined : 'Press the points first'}>
            Lay it flat
          </Button>
        </div>
      </div>
    </Sheet>
  )
}

interface SizeProps {
  id: string
  label: string
  typed: string
  problem: Parameters<typeof FieldFrame>[0]['problem']
  onSay: (typed: string) => void
}

function Size({ id, label, typed, problem, onSay }: SizeProps): ReactNode {
  const { length_keys } = useTables()
  const { units } = useShop()
  return (
    <FieldFrame id={id} label={label} problem={problem}>
      <TypedInput
        id={id}
        typed={typed}
        aside={units === 'imperial' ? 'in' : 'mm'}
        keys={length_keys}
        wrong={problem !== undefined}
        describedBy={problem === undefined ? undefined : `${id}-problem`}
        onCommit={onSay}
      />
    </FieldFrame>
  )
}
