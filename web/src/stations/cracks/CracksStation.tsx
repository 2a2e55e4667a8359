import { useEffect, useRef, useState, type ReactNode } from 'react'
import { useLocation, useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { KeepOff } from '../../job/KeepOff'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { focusField } from '../../ui/focus'
import { GoesOn } from '../../ui/GoesOn'
import { Plate } from '../../ui/Plate'
import { CrackDrawing } from './CrackDrawing'
import { CracksSheets, type CracksSheet } from './CracksSheets'
import { FacesBar, MapFiles } from './FacesBar'
import { HardSpots } from './HardSpots'
import { NoCrackYet } from './NoCrackYet'
import { OneCrack } from './OneCrack'
import { MapBench, type Task } from './map/MapBench'
import type { Chosen } from './map/near'
import { MarkForm } from './map/MarkForm'
import { PointForm } from './map/PointForm'
import type { Thing } from './map/things'

/** Every crack to scale, on the faces of the part, with the holes that end it. */
export function CracksStation(): ReactNode {
  const { view, field: fieldOf, say } = useJob()
  const { units } = useShop()
  const { cracks, map } = view.plan
  const bench = useRef<SVGSVGElement>(null)
  const [chosen, setChosen] = useState<Chosen | null>(null)
  // What ran on at the torch is drawn here.
  const { state } = useLocation() as { state: { drawing?: { task: Task; face: string | null } } | null }
  const [faceId, setFaceId] = useState<string | null>(state?.drawing?.face ?? null)
  const [sheet, setSheet] = useState<CracksSheet | null>(null)
  const [task, setTask] = useState<Task | null>(state?.drawing?.task ?? null)
  const face = map.faces.find((candidate) => candidate.id === faceId) ?? map.faces[0]
  const onFace = (id: string) => face?.lines.some((line) => line.crack === id && !line.from_behind) ?? false
  const crack =
    cracks.find((candidate) => candidate.id === chosen?.id) ??
    cracks.findLast((candidate) => onFace(candidate.id)) ??
    cracks.at(-1)
  const mark = face?.marks.find((candidate) => candidate.id === chosen?.id)
  const here = view.standing.station === 'cracks'
  const lit = view.job.rounds.at(-1)?.lit != null
  const choose = (id: string) => setChosen({ id, point: null })
  const add = () => {
    const id = say({ kind: 'add_crack' })
    choose(id)
    focusField(`crack.${id}.length`)
  }
  const addFace = () => {
    const id = say({ kind: 'add_face' })
    const set = (field: Schemas['FaceField'], text: string) =>
      say({ kind: 'set', key: `face.${id}.${field}`, typed: text, shown_in: units })
    // What is known of the part is most often so of its first face.
    if (map.faces.length === 0) {
      set('outline', 'rectangle')
      for (const [field, of] of [
        ['across', 'part.length'],
        ['down', 'part.width'],
      ] as const) {
        // As it was understood: what was typed may have meant the other units.
        const { shown } = fieldOf(of)
        if (shown != null) set(field, `${shown.number} ${shown.unit}`)
      }
    }
    setFaceId(id)
    setSheet({ kind: 'face', id })
  }
  const navigate = useNavigate()
  const handed = state?.drawing !== undefined
  // It is drawn once: a page that is loaded again begins anew.
  useEffect(() => {
    if (handed) void navigate('.', { replace: true, state: null })
  }, [handed, navigate])
  const begin = (next: Task, on: string | null) => {
    if (on !== null) setFaceId(on)
    setTask(next)
  }
  const press = () => {
    const { key } = view.standing.next
    const id = /^crack\.([^.]+)\./.exec(key)?.[1] ?? crack?.id
    if (id !== undefined) choose(id)
    focusField(key)
  }
  if (crack === undefined && face === undefined) {
    return <NoCrackYet onAdd={add} onAddFace={addFace} />
  }
  const others = map.unplaced.filter((thing) => face !== undefined && thing.id !== task?.id)
  return (
    <div className="-mx-1 flex min-h-0 grow flex-col gap-3 overflow-auto px-1">
      <KeepOff />
      {face === undefined ? (
        <CrackDrawing cracks={cracks} chosen={crack?.id ?? ''} onChoose={choose} />
      ) : (
        <>
          <FacesBar
            faces={map.faces}
            shown={face}
            lit={lit}
            onShow={setFaceId}
            onRanOn={() => setSheet({ kind: 'ran_on' })}
            onDescribe={() => setSheet({ kind: 'face', id: face.id })}
            onAdd={addFace}
          />
          <MapBench
            key={face.id}
            map={bench}
            faceId={face.id}
            chosen={chosen}
            onChoose={setChosen}
            task={task}
            onTask={setTask}
          />
          {others.length > 0 && task === null && (
            <p className="flex flex-wrap items-center gap-2">
              <span className="text-ash">Not on the map yet:</span>
              {others.map((thing) => (
                <Button key={thing.id} onPress={() => setTask({ thing: thing.what as Thing, id: thing.id })}>
                  Show where {thing.words} is
                </Button>
              ))}
            </p>
          )}
          {face.clashes.map((clash) => (
            <p key={clash.sentence} className="border-l-[3px] border-chalk pl-3">
              {clash.sentence}
            </p>
          ))}
          {chosen !== null && task === null && (
            <PointForm
              face={face}
              chosen={chosen}
              follows={() => bench.current?.focus({ preventScroll: true })}
            />
          )}
          {mark !== undefined && task === null && <MarkForm key={mark.id} mark={mark} />}
        </>
      )}
      {crack !== undefined && task === null && mark === undefined && <OneCrack crack={crack} />}
      <HardSpots />
      <div className="mt-auto flex flex-wrap items-center gap-2 pt-1">
        {face === undefined && <Button onPress={add}>Another crack</Button>}
        {face === undefined && <Button onPress={addFace}>Draw the face they are on</Button>}
        {crack !== undefined && mark === undefined && (
          <Button onPress={() => setSheet({ kind: 'strike' })}>Cross out crack {crack.letter}</Button>
        )}
        {face !== undefined && <MapFiles job={view.id} face={face} />}
        <span className="ml-auto" />
        {here && view.standing.next.key !== 'crack' && (
          <Plate testId="next" onPress={press}>
            {view.standing.next.verb}
          </Plate>
        )}
      </div>
      <CracksSheets
        sheet={sheet}
        crack={crack}
        onClose={() => setSheet(null)}
        onDraw={(task, on) => {
          setSheet(null)
          begin(task, on)
        }}
      />
      <GoesOn />
    </div>
  )
}
