import { useEffect, useState, type ReactNode } from 'react'
import { useLocation, useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { KeepOff } from '../../job/KeepOff'
import { useJob } from '../../job/JobContext'
import { RanOn } from '../../job/RanOn'
import { NextOrButton } from '../../job/NextOrButton'
import { useShop } from '../../job/ShopContext'
import { StrikeSheet } from '../../job/StrikeSheet'
import { inUnits } from '../../quantity/show'
import { Button } from '../../ui/Button'
import { focusField } from '../../ui/focus'
import { GoesOn } from '../../ui/GoesOn'
import { Plate } from '../../ui/Plate'
import { CrackDrawing } from './CrackDrawing'
import { Drilled } from './Drilled'
import { EndFigures } from './EndFigures'
import { HardSpots } from './HardSpots'
import { FaceSheet } from './map/FaceSheet'
import { MapBench, type Task } from './map/MapBench'
import type { Chosen } from './map/MapSheet'
import { MarkForm } from './map/MarkForm'
import { PointForm } from './map/PointForm'
import type { Thing } from './map/things'

/** Every crack to scale, on the faces of the part, with the holes that end it. */
export function CracksStation(): ReactNode {
  const { view, field: fieldOf, say } = useJob()
  const { units } = useShop()
  const { cracks, map } = view.plan
  const [chosen, setChosen] = useState<Chosen | null>(null)
  // What ran on at the torch is drawn here.
  const { state } = useLocation() as { state: { drawing?: { task: Task; face: string | null } } | null }
  const [faceId, setFaceId] = useState<string | null>(state?.drawing?.face ?? null)
  const [described, setDescribed] = useState<string | null>(null)
  const [task, setTask] = useState<Task | null>(state?.drawing?.task ?? null)
  const [striking, setStriking] = useState(false)
  const [running, setRunning] = useState(false)
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
        const { metric, imperial } = fieldOf(of)
        if (metric == null || imperial == null) continue
        const { number, unit } = inUnits({ metric, imperial }, units)
        set(field, `${number} ${unit}`)
      }
    }
    setFaceId(id)
    setDescribed(id)
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
    return (
      <div className="flex grow flex-col items-start gap-4">
        <KeepOff />
        <h2 className="text-[30px] leading-9">No crack is mapped yet</h2>
        <p className="max-w-xl">
          Clean to bright metal, let the oil out, find both ends: chalk and oil, dye or magnetic particles.
          Look at the other face too, the tip may be further on there.
        </p>
        <HardSpots />
        <div className="flex flex-wrap gap-2">
          <NextOrButton station="cracks" testId="next" onPress={add}>
            Map the crack
          </NextOrButton>
          <Button onPress={addFace}>Draw the face it is on</Button>
        </div>
      </div>
    )
  }
  const others = map.unplaced.filter((thing) => face !== undefined && thing.id !== task?.id)
  return (
    <div className="-mx-1 flex min-h-0 grow flex-col gap-3 overflow-auto px-1">
      <KeepOff />
      {face === undefined ? (
        <CrackDrawing cracks={cracks} chosen={crack?.id ?? ''} onChoose={choose} />
      ) : (
        <>
          <div className="flex flex-wrap items-center gap-2">
            {map.faces.map((other) => (
              <Button key={other.id} chosen={other.id === face.id} onPress={() => setFaceId(other.id)}>
                <span className="first-letter:uppercase">{other.name}</span>
              </Button>
            ))}
            <span className="text-ash">{face.size_words}</span>
            <span className="ml-auto flex flex-wrap gap-2">
              {lit && <Button onPress={() => setRunning(true)}>It ran on</Button>}
              <Button onPress={() => setDescribed(face.id)}>This face</Button>
              <Button onPress={addFace}>Another face</Button>
            </span>
          </div>
          <MapBench
            key={face.id}
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
          {chosen !== null && task === null && <PointForm face={face} chosen={chosen} />}
          {mark !== undefined && task === null && <MarkForm key={mark.id} mark={mark} />}
        </>
      )}
      {crack !== undefined && task === null && mark === undefined && <OneCrack crack={crack} />}
      <HardSpots />
      <div className="mt-auto flex flex-wrap items-center gap-2 pt-1">
        {face === undefined && <Button onPress={add}>Another crack</Button>}
        {face === undefined && <Button onPress={addFace}>Draw the face they are on</Button>}
        {crack !== undefined && mark === undefined && (
          <Button onPress={() => setStriking(true)}>Cross out crack {crack.letter}</Button>
        )}
        {face !== undefined && (
          <span className="flex flex-wrap gap-x-4">
            <a
              className="min-h-11 py-3 underline"
              href={`/api/jobs/${view.id}/map/${face.id}.svg`}
              download={`${face.name}.svg`}
            >
              1:1 as SVG
            </a>
            <a
              className="min-h-11 py-3 underline"
              href={`/api/jobs/${view.id}/map/${face.id}.dxf`}
              download={`${face.name}.dxf`}
            >
              1:1 as DXF
            </a>
            <a
              className="min-h-11 py-3 underline"
              href={`/api/jobs/${view.id}/map/${face.id}/pages`}
              target="_blank"
              rel="noreferrer"
            >
              1:1 to print
            </a>
          </span>
        )}
        <span className="ml-auto" />
        {here && view.standing.next.key !== 'crack' && (
          <Plate testId="next" onPress={press}>
            {view.standing.next.verb}
          </Plate>
        )}
      </div>
      {crack !== undefined && (
        <StrikeSheet
          target={striking ? crack.id : null}
          what={`Crack ${crack.letter}`}
          onClose={() => setStriking(false)}
        />
      )}
      <FaceSheet
        faceId={described}
        onClose={() => setDescribed(null)}
        onDraw={(id) => {
          setDescribed(null)
          begin({ thing: 'face', id }, id)
        }}
      />
      <RanOn open={running} onClose={() => setRunning(false)} onTask={begin} />
      <GoesOn />
    </div>
  )
}

function OneCrack({ crack }: { crack: Schemas['CrackPlan'] }): ReactNode {
  const { typed } = useJob()
  const name = <F extends Schemas['CrackField']>(end: F) => `crack.${crack.id}.${end}` as const
  const [a, b] = crack.ends
  // What an end runs into is seen on the map: only a free one is asked.
  const asked = (end: Schemas['EndPlan'] | undefined, said: string) =>
    !crack.on_map || ['', 'tip', 'hidden', said].includes(end?.kind ?? '')
  return (
    <section aria-label={`Crack ${crack.letter}`} className="border-t border-scribe pt-2">
      <div className="grid grid-cols-[52px_1fr_1fr_1.2fr_1.5fr_1.5fr] items-start gap-2 max-bench:grid-cols-2">
        <h2 className="pt-5 text-[40px] leading-[48px]">
          <span className="sr-only">Crack </span>
          {crack.letter}
        </h2>
        {crack.on_map ? (
          <p>
            <span className="label mb-1 block">On the map</span>
            <b className="block py-3 text-[19px]">{crack.words}</b>
          </p>
        ) : (
          <Field name={name('length')} />
        )}
        <Field
          name={name('wall')}
          label="Wall"
          placeholder={crack.wall_guessed ? undefined : crack.wall_words}
        />
        {(!crack.full_break || typed(name('found_by')) !== '') && <Field name={name('found_by')} folded />}
        {asked(a, typed(name('end_a'))) && <Field name={name('end_a')} label={endLabel(a)} folded />}
        {asked(b, typed(name('end_b'))) && <Field name={name('end_b')} label={endLabel(b)} folded />}
      </div>
      <div className="mt-2 grid grid-cols-3 items-end gap-2 max-bench:grid-cols-1">
        {crack.full_break && <Field name={name('piece')} folded />}
        {crack.full_break && <Field name={name('lap')} />}
        <Field name={name('edge')} folded placeholder="clean iron" />
        {typed(name('edge')) === 'burnt' && <Field name={name('burnt_out')} />}
        {typed('part.keep_off') !== '' && <Field name={name('behind')} folded />}
        {crack.ends.some((end) => end.stop_hole?.well_past_mm != null) && (
          <Field name={name('tip_way')} folded placeholder="well past it, groove into the hole" />
        )}
        {crack.on_map && <Field name={name('becomes')} folded placeholder="repaired" />}
        {crack.on_map && crack.becomes !== 'repair' && <Field name={name('becomes_why')} />}
        {crack.becomes === 'leave' && <Field name={name('look_again')} placeholder="in 3 months" />}
        {crack.becomes === 'leave' && (
          <Field name={name('grown_a')} label={`Grown since, ${a?.name ?? ''} end`} placeholder="0" />
        )}
        {crack.becomes === 'leave' && (
          <Field name={name('grown_b')} label={`Grown since, ${b?.name ?? ''} end`} placeholder="0" />
        )}
        {crack.on_map && <Field name={name('witness')} folded placeholder="left side" />}
        {a?.run_out != null && <RunOut name={name('run_out_a')} end={a} />}
        {b?.run_out != null && <RunOut name={name('run_out_b')} end={b} />}
      </div>
      <EndFigures crack={crack} />
      <Drilled crack={crack} />
    </section>
  )
}

const endLabel = (end: Schemas['EndPlan'] | undefined): string => {
  const name = end?.name ?? ''
  return `${name.charAt(0).toUpperCase()}${name.slice(1)} end`
}

interface RunOutProps {
  name: `crack.${string}.${'run_out_a' | 'run_out_b'}`
  end: Schemas['EndPlan']
}

/** A hole that would break out: what is better, and whether it is done so. */
function RunOut({ name, end }: RunOutProps): ReactNode {
  return (
    <div className="col-span-full grid grid-cols-[1fr_220px] items-end gap-3 border-l-[3px] border-chalk pl-3 max-bench:grid-cols-1">
      <p>{end.run_out?.sentence}</p>
      <Field name={name} label={`Run out, ${end.name} end`} />
    </div>
  )
}
