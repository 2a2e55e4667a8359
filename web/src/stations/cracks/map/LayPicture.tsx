import { useEffect, useState, type KeyboardEvent, type ReactNode } from 'react'
import { pictureUrl } from '../../../api/picture-url'
import { outbox } from '../../../api/queue/outbox'
import { useJob, useRefusals } from '../../../job/JobContext'
import { useShop } from '../../../job/ShopContext'
import { shownFields } from '../../../job/shown-fields'
import { Button } from '../../../ui/Button'
import { Choice } from '../../../ui/Choice'
import { FieldFrame } from '../../../ui/FieldFrame'
import { Sheet } from '../../../ui/Sheet'
import { TypedInput } from '../../../ui/TypedInput'

export interface LayPictureProps {
  faceId: string
  name: string
  onClose: () => void
}

type By = 'corners' | 'distance'
type Point = [number, number]

const BY = [
  { id: 'corners', label: 'Four corners of a rectangle' },
  { id: 'distance', label: 'Two points on a distance' },
] as const

const CORNERS = ['upper left', 'upper right', 'lower right', 'lower left'] as const
/** The lens shows so many times what the picture shows here. */
const LENS = { size: 132, times: 3 } as const

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
  const last = points.at(-1)
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
  const nudge = (event: KeyboardEvent) => {
    const step: Readonly<Record<string, Point>> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    }
    const by = step[event.key]
    if (event.key === 'Enter' && size !== null && !full) {
      setPoints([...points, last ?? [size[0] / 2, size[1] / 2]])
    } else if (by !== undefined && last !== undefined) {
      const far = event.shiftKey ? 1 : 10
      setPoints([...points.slice(0, -1), [last[0] + by[0] * far, last[1] + by[1] * far]])
    } else return
    event.preventDefault()
  }
  const percent = (value: number, of: 0 | 1) => `${(100 * value) / (size?.[of] ?? 1)}%`
  return (
    <Sheet title={`A picture on ${name}`} open onOpenChange={(open) => !open && onClose()}>
      <div className="flex flex-col gap-3">
        {pictures.length > 1 && (
          <div className="flex flex-wrap gap-1.5" role="group" aria-label="Which picture">
            {pictures.map(({ id }, index) => (
              <button
                key={id}
                type="button"
                aria-pressed={id === picture}
                aria-label={`Picture ${index + 1}`}
                onClick={() => {
                  setPicture(id)
                  setPoints([])
                }}
                className="border-[1.5px] border-scribe aria-pressed:border-2 aria-pressed:border-chalk"
              >
                <img
                  src={pictureUrl(view.id, id, true)}
                  alt=""
                  className="block h-[52px] w-[70px] object-cover"
                />
              </button>
            ))}
          </div>
        )}
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
        <button
          type="button"
          data-own-letters
          data-testid="press-picture"
          aria-label="The picture: press the points on it. Arrows move the last one by 10 points, with Shift by 1."
          className="relative block w-full cursor-crosshair border-[1.5px] border-scribe"
          onKeyDown={nudge}
          onClick={(event) => {
            if (event.detail === 0 || size === null || full) return
            const box = event.currentTarget.getBoundingClientRect()
            const x = ((event.clientX - box.left) / box.width) * size[0]
            const y = ((event.clientY - box.top) / box.height) * size[1]
            setPoints([...points, [x, y]])
          }}
        >
          <img
            src={pictureUrl(view.id, picture, false)}
            alt=""
            className="block w-full"
            onLoad={(event) => setSize([event.currentTarget.naturalWidth, event.currentTarget.naturalHeight])}
          />
          {size !== null && (
            <svg
              viewBox={`0 0 ${size[0]} ${size[1]}`}
              className="absolute inset-0 h-full w-full"
              fill="none"
              aria-hidden
            >
              {points.length > 1 && (
                <path
                  d={
                    points.map(([x, y], index) => `${index === 0 ? 'M' : 'L'}${x} ${y}`).join('') +
                    (full && by === 'corners' ? 'Z' : '')
                  }
                  stroke="var(--chalk)"
                  strokeWidth="2"
                  style={{ vectorEffect: 'non-scaling-stroke' }}
                />
              )}
            </svg>
          )}
          {points.map(([x, y], index) => (
            <span
              key={index}
              aria-hidden
              className="absolute -ml-2 -mt-2 h-4 w-4 rounded-full border-2 border-chalk bg-iron"
              style={{ left: percent(x, 0), top: percent(y, 1) }}
            />
          ))}
          {size !== null && last !== undefined && (
            <span
              aria-hidden
              className={`absolute top-1 overflow-hidden border-[1.5px] border-chalk bg-iron ${last[0] > size[0] / 2 ? 'left-1' : 'right-1'}`}
              style={{ width: LENS.size, height: LENS.size }}
            >
              <span
                className="absolute block"
                style={{
                  width: size[0],
                  height: size[1],
                  transformOrigin: `${last[0]}px ${last[1]}px`,
                  transform: `translate(${LENS.size / 2 - last[0]}px, ${LENS.size / 2 - last[1]}px) scale(${LENS.times / 2})`,
                  backgroundImage: `url(${pictureUrl(view.id, picture, false)})`,
                }}
              />
              <svg width={LENS.size} height={LENS.size} className="absolute inset-0">
                <path
                  d={`M${LENS.size / 2} 0V${LENS.size}M0 ${LENS.size / 2}H${LENS.size}`}
                  stroke="var(--chalk)"
                />
              </svg>
            </span>
          )}
        </button>
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
  const { units } = useShop()
  return (
    <FieldFrame id={id} label={label} problem={problem}>
      <TypedInput
        id={id}
        typed={typed}
        aside={units === 'imperial' ? 'in' : 'mm'}
        wrong={problem !== undefined}
        describedBy={problem === undefined ? undefined : `${id}-problem`}
        onCommit={onSay}
      />
    </FieldFrame>
  )
}
