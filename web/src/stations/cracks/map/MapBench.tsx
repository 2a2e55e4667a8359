import { useMemo, useState, type ReactNode, type RefObject } from 'react'
import type { Change } from '../../../api/client'
import { api } from '../../../api/client'
import { useJob } from '../../../job/JobContext'
import { useShop } from '../../../job/ShopContext'
import { useTables } from '../../../job/TablesContext'
import { Button } from '../../../ui/Button'
import { laidDown, ranOn, withWaiting, without, type Drawn } from './edit'
import { MapSheet } from './MapSheet'
import type { Chosen } from './near'
import type { Landed } from './snap'
import { distance, rounded, type At } from './view'
import { DRAWN_AS, THINGS, type Thing } from './things'
import { capital } from '../../../ui/capital'

/** What is being drawn. */
export interface Task {
  thing: Thing
  /** It is known already, and only its place is said; nothing for a new one. */
  id: string | null
  /** A crack that ran on: its new end is pressed. */
  ranOn?: boolean
}

export interface MapBenchProps {
  /** Where the keys of the map are. */
  map: RefObject<SVGSVGElement | null>
  faceId: string
  chosen: Chosen | null
  onChoose: (chosen: Chosen | null) => void
  task: Task | null
  onTask: (task: Task | null) => void
}

type Shows = 'dark' | 'light' | 'red' | 'bright'

const SHOWS: readonly { id: Shows; label: string }[] = [
  { id: 'dark', label: 'Dark line' },
  { id: 'light', label: 'Light line' },
  { id: 'red', label: 'Red dye' },
  { id: 'bright', label: 'Bright powder' },
]

/** Across, where nobody has measured yet. */
const USUAL_RADIUS: Partial<Record<Thing, number>> = { bolt_hole: 6.5, bore: 20, hard_spot: 5 }

/** The map of one face with what can be put on it. */
export function MapBench({ map, faceId, chosen, onChoose, task, onTask }: MapBenchProps): ReactNode {
  const { view, waiting, say } = useJob()
  const { units } = useShop()
  const stored = view.plan.map.faces.find((face) => face.id === faceId)
  const onTheWay = useMemo(
    () => waiting.flatMap((item) => (item.change.kind === 'draw' ? item.change.drawn : [])),
    [waiting],
  )
  const face = useMemo(
    () => (stored === undefined ? undefined : withWaiting(stored, onTheWay)),
    [stored, onTheWay],
  )
  const [presses, setPresses] = useState<readonly Landed[]>([])
  const [points, setPoints] = useState<readonly At[]>([])
  const [shows, setShows] = useState<Shows | null>('dark')
  const [unfollowed, setUnfollowed] = useState('')
  if (face === undefined) return null
  const draw = (drawn: Drawn[]) => {
    if (drawn.length > 0) say({ kind: 'draw', drawn }, view.revision)
  }
  const begin = (next: Task | null) => {
    setPresses([])
    setPoints([])
    setUnfollowed('')
    onTask(next)
    // Chosen by the keys it is drawn by the keys.
    map.current?.focus({ preventScroll: true })
  }
  const idOf = (of: Task): string => {
    if (of.id !== null) return of.id
    const added = addedBy(of.thing, face.name)
    return say(added)
  }
  const put = (of: Task, drawn: (id: string) => Drawn[]) => {
    const id = idOf(of)
    draw(drawn(id))
    onChoose({ id, point: 0 })
    begin(null)
  }
  const follows = task?.thing === 'crack' && face.seen != null && shows !== null
  const press = (there: Landed) => {
    if (task === null) return
    const { place } = there
    const as = DRAWN_AS[task.thing]
    if (task.ranOn === true && task.id !== null) {
      draw(ranOn(face, task.id, place))
      onChoose({ id: task.id, point: null })
      begin(null)
      return
    }
    if (as === 'circle') {
      const shape = { kind: 'circle', ...rounded(place), radius_mm: USUAL_RADIUS[task.thing] ?? 5 } as const
      put(task, (id) => [{ mark: id, face: face.id, shape }])
      return
    }
    if (as === 'place') {
      put(task, (id) => [{ mark: id, face: face.id, shape: { kind: 'place', ...rounded(place) } }])
      return
    }
    const from = points.at(-1)
    setPresses([...presses, there])
    setPoints([...points, place])
    if (follows && from !== undefined) {
      void followed(view.id, face.id, from, place, shows).then((along) => {
        if (along === null) setUnfollowed('The line could not be followed there: it runs straight.')
        else setPoints((before) => (before.at(-1) === place ? [...before.slice(0, -2), ...along] : before))
      })
    }
  }
  const enough = task !== null && points.length >= (DRAWN_AS[task.thing] === 'outline' ? 3 : 2)
  const finish = () => {
    if (task === null || !enough) return
    put(task, (id) =>
      task.thing === 'crack'
        ? laidDown(face, id, presses, points)
        : [
            {
              mark: id,
              face: face.id,
              shape:
                DRAWN_AS[task.thing] === 'outline'
                  ? { kind: 'outline', points: points.map(rounded) }
                  : { kind: 'line', points: points.map(rounded) },
            },
          ],
    )
  }
  return (
    <>
      <MapSheet
        job={view.id}
        map={map}
        face={face}
        units={units}
        chosen={chosen}
        onChoose={onChoose}
        drawing={task === null ? null : points}
        onPress={press}
        onFinish={finish}
        onGiveUp={() => begin(null)}
        onDraw={draw}
        onTakeOut={(crack, point) => {
          draw(without(face, crack, point))
          onChoose({ id: crack, point: Math.max(0, point - 1) })
        }}
      />
      {task === null ? (
        <Things onTask={begin} />
      ) : (
        <div className="flex flex-wrap items-center gap-2" data-drawing={task.thing}>
          <p role="status" className="mr-auto font-semibold">
            {unfollowed !== '' ? unfollowed : told(task, points.length)}
          </p>
          {task.thing === 'crack' && face.seen != null && task.ranOn !== true && (
            <span
              className="flex flex-wrap gap-2"
              role="group"
              aria-label="How the crack shows in the picture"
            >
              {SHOWS.map(({ id, label }) => (
                <Button key={id} chosen={shows === id} onPress={() => setShows(shows === id ? null : id)}>
                  {label}
                </Button>
              ))}
            </span>
          )}
          {(DRAWN_AS[task.thing] === 'line' || DRAWN_AS[task.thing] === 'outline') && task.ranOn !== true && (
            <Button onPress={finish} notYet={enough ? undefined : 'Press where it runs first'} testId="drawn">
              That is all of it
            </Button>
          )}
          <Button onPress={() => begin(null)}>Leave it</Button>
        </div>
      )}
    </>
  )
}

function Things({ onTask }: { onTask: (task: Task) => void }): ReactNode {
  const [more, setMore] = useState(false)
  const { things } = useTables()
  const called = (id: Thing) => capital(things.find((it) => it.thing === id)?.words ?? '')
  return (
    <div className="flex flex-wrap gap-2" role="group" aria-label="Put on the map">
      {THINGS.filter(({ often }) => often || more).map(({ id, drawing }) => (
        <Button key={id} onPress={() => onTask({ thing: id, id: null })} testId={`put-${id}`}>
          <svg
            width="24"
            height="24"
            viewBox="0 0 24 24"
            fill="none"
            stroke="currentColor"
            strokeWidth="1.8"
            aria-hidden
          >
            <path d={drawing} />
          </svg>
          {called(id)}
        </Button>
      ))}
      {!more && <Button onPress={() => setMore(true)}>Other things</Button>}
    </div>
  )
}

function told(task: Task, pressed: number): string {
  if (task.ranOn === true) return 'Press where its tip is now.'
  switch (DRAWN_AS[task.thing]) {
    case 'line':
      if (pressed === 0) return 'Press one end of it.'
      return pressed === 1
        ? 'Now its other end, or the next bend.'
        : 'On to the next bend, or that is all of it.'
    case 'outline':
      return 'Press its corners, one after the other.'
    case 'circle':
      return 'Press its middle.'
    case 'place':
      return 'Press where it is.'
  }
}

/** What puts a new thing into the job. */
function addedBy(thing: Thing, face: string): Change {
  if (thing === 'crack') return { kind: 'add_crack' }
  if (thing === 'hard_spot') return { kind: 'add_hard_spot', spot: face }
  if (thing === 'neighbour') return { kind: 'add_neighbour' }
  return thing === 'face' ? { kind: 'add_face' } : { kind: 'add_mark', what: thing }
}

/** The line in the picture between two presses; nothing where none can be followed. */
async function followed(job: string, face: string, from: At, to: At, shows: Shows): Promise<At[] | null> {
  try {
    const { data } = await api.POST('/api/jobs/{id}/map/{face}/trace', {
      params: { path: { id: job, face } },
      body: { from: rounded(from), to: rounded(to), shows },
    })
    const points = data?.points ?? []
    return points.length < 2
      ? null
      : [from, ...points.slice(1, -1).filter((place) => distance(place, to) > 0.1), to]
  } catch {
    return null
  }
}
