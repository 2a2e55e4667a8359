import { useId, useState, type ReactNode } from 'react'
import { useSearchParams } from 'react-router'
import { Refused, type Schemas, type UnitSystem } from '../../api/client'
import { fieldAt } from '../../api/fields'
import { newId } from '../../api/queue/new-id'
import { fromAJob, type Begun } from '../../job/came-back'
import { PictureInput } from '../../job/PictureInput'
import { useShopWord } from '../../job/useShopWord'
import { useTables } from '../../job/TablesContext'
import { Box } from '../../ui/Box'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { FieldFrame, describedBy } from '../../ui/FieldFrame'
import { Sheet } from '../../ui/Sheet'
import { CouponAmounts } from './CouponAmounts'
import { keepCouponPicture } from './keep-coupon-picture'

type Line = Schemas['BenchLine']

export interface BreakBenchProps {
  lines: readonly Line[]
  units: UnitSystem
  onOpen: (line: Line) => void
  /** The wall is asked for anew. */
  onSaid: () => void
}

/** Coupons that were broken here: each method on each iron against the whole iron, the strongest first. */
export function BreakBench({ lines, units, onOpen, onSaid }: BreakBenchProps): ReactNode {
  const [search, setSearch] = useSearchParams()
  // A part that came back broken: what its job knows is written in already.
  const begun = fromAJob(search)
  const [open, setOpen] = useState(begun !== null)
  const change = (isOpen: boolean) => {
    setOpen(isOpen)
    if (!isOpen && begun !== null) setSearch({}, { replace: true })
  }
  return (
    <section aria-label="Break bench" className="mt-6 border-t border-scribe pt-3">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="words text-[28px] leading-9">Break bench</h2>
        <Button onPress={() => change(true)}>A coupon was broken</Button>
      </div>
      {lines.length === 0 && (
        <p className="text-ash">
          None yet. A joined strip and a whole one of the same iron, broken in the vise, say more of a joint
          than any book.
        </p>
      )}
      {lines.map((line) => (
        <Joint key={line.name} line={line} onOpen={() => onOpen(line)} />
      ))}
      <Sheet title="A coupon was broken" open={open} onOpenChange={change}>
        {open && (
          <CouponForm
            units={units}
            begun={begun}
            onDone={() => {
              change(false)
              onSaid()
            }}
          />
        )}
      </Sheet>
    </section>
  )
}

/** As strong as the whole iron stands here on the scale; it goes a little further. */
const FULL = 1.25
const at = (share: number): string => `${Math.min(share / FULL, 1) * 100}%`

function Joint({ line, onOpen }: { line: Line; onOpen: () => void }): ReactNode {
  const { ratio } = line
  return (
    <button
      type="button"
      onClick={onOpen}
      aria-label={`${line.name}: ${line.words}`}
      className="grid min-h-12 w-full grid-cols-[320px_minmax(0,1fr)_minmax(0,400px)] items-center gap-x-6 border-b border-rule py-1 text-left max-bench:grid-cols-1"
    >
      <span className="font-semibold">{line.name}</span>
      <span className="relative block h-9" aria-hidden="true">
        <span className="absolute inset-x-0 top-[17px] border-t border-rule" />
        <span className="absolute inset-y-0 border-l-2 border-dotted border-chalk" style={{ left: at(1) }} />
        {ratio != null && (
          <>
            <span
              className="absolute top-[16px] border-t-[3px] border-ash"
              style={{ left: at(ratio.low), width: `calc(${at(ratio.high)} - ${at(ratio.low)})` }}
            />
            <span
              className="absolute top-[10px] size-[15px] -translate-x-1/2 rounded-full border-[5px] border-chalk bg-iron"
              style={{ left: at(ratio.ratio) }}
            />
          </>
        )}
      </span>
      <span>{line.words}</span>
    </button>
  )
}

const IRONS = [
  { id: 'gray', label: 'Gray' },
  { id: 'ductile', label: 'Ductile' },
  { id: 'malleable', label: 'Malleable' },
  { id: 'white', label: 'White' },
  { id: 'ni_resist', label: 'Ni-resist' },
  { id: 'steel', label: 'Steel' },
]
const BENT = [
  { id: 'lever', label: 'Held at one end' },
  { id: 'span', label: 'On two supports' },
]
const BROKE = [
  { id: 'filler', label: 'In the filler' },
  { id: 'toe', label: 'At the toe' },
  { id: 'edge', label: 'At the fused edge' },
  { id: 'casting', label: 'In the casting' },
]
const WHOLE = { id: 'whole', label: 'Not at all: it is whole' }

const box = 'min-h-12 w-full border-[1.5px] border-dim bg-raise px-3 text-[17px] font-semibold text-chalk'

interface CouponFormProps {
  units: UnitSystem
  begun: Begun | null
  onDone: () => void
}

function CouponForm({ units, begun, onDone }: CouponFormProps): ReactNode {
  const word = useShopWord()
  const tables = useTables()
  const base = useId()
  const methods = fieldAt(tables, {}, 'method.choice')?.choices ?? []
  const [name, setName] = useState(begun?.name ?? '')
  const [iron, setIron] = useState(begun?.iron ?? 'gray')
  const [joined, setJoined] = useState(begun?.joined ?? WHOLE.id)
  const schools = fieldAt(tables, {}, 'method.school')?.choices ?? []
  const [school, setSchool] = useState('')
  const [bent, setBent] = useState('lever')
  const [broke, setBroke] = useState(begun?.broke ?? '')
  const [typed, setTyped] = useState<Record<string, string>>(
    begun === null || begun.thickness === '' ? {} : { thickness: begun.thickness },
  )
  const problems = word.error instanceof Refused ? word.error.problems : []
  const problem = (field: string) => problems.find((it) => it.field === field)
  const whole = joined === WHOLE.id
  const [picture, setPicture] = useState<File | null>(null)
  const [unkept, setUnkept] = useState('')
  const send = () => {
    const coupon = newId()
    word.mutate(
      {
        change: {
          kind: 'coupon',
          coupon,
          name: name.trim(),
          iron: iron as Schemas['Iron'],
          joined: whole ? null : (joined as Schemas['MethodId']),
          school: whole || school === '' ? null : (school as Schemas['School']),
          bent: bent as Schemas['Bent'],
          broke: (whole ? 'casting' : broke) as Schemas['BrokeAt'],
          typed,
          shown_in: units,
        },
      },
      {
        onSuccess: async () => {
          // The coupon is on the wall whatever becomes of its picture: that can be taken again there.
          const why = picture === null ? '' : await keepCouponPicture(coupon, picture)
          setUnkept(why)
          if (why === '') onDone()
        },
      },
    )
  }
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (whole || broke !== '') send()
      }}
    >
      <p className="text-ash">
        Load in small steps, guard your eyes, stand clear of both halves: they fly. Cast iron breaks without
        warning.
      </p>
      <FieldFrame id={`${base}-name`} label="Which is it?" problem={problem('name')}>
        <Box
          id={`${base}-name`}
          text={name}
          placeholder="Bar 3, old bed"
          aside=""
          wrong={problem('name') !== undefined}
          describedBy={describedBy(`${base}-name`, problem('name'))}
          onType={setName}
        />
      </FieldFrame>
      <p className="label -mb-2">Its iron, and how it was bent</p>
      <Choice label="Its iron" choices={IRONS} chosen={iron} onChoose={(id) => setIron(id || iron)} />
      <label className="label flex flex-col gap-1">
        <span>Joined by</span>
        <select value={joined} onChange={(event) => setJoined(event.target.value)} className={box}>
          {[WHOLE, ...methods].map(({ id, label }) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </select>
      </label>
      {!whole && (
        <label className="label flex flex-col gap-1">
          <span>How warm</span>
          <select value={school} onChange={(event) => setSchool(event.target.value)} className={box}>
            <option value="">not said</option>
            {schools.map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </label>
      )}
      <Choice label="How it is bent" choices={BENT} chosen={bent} onChoose={(id) => setBent(id || bent)} />
      <CouponAmounts
        base={base}
        units={units}
        bent={bent}
        typed={typed}
        problem={problem}
        onType={(name, text) => setTyped({ ...typed, [name]: text })}
      />
      {!whole && <Choice label="Where it broke" choices={BROKE} chosen={broke} onChoose={setBroke} />}
      <div className="flex flex-wrap items-center gap-3">
        <PictureInput
          label="where it broke"
          text={picture === null ? 'A picture of the break' : 'Another picture'}
          onFiles={([file]) => setPicture(file ?? null)}
        />
        {picture !== null && <span className="text-ash">{picture.name}</span>}
      </div>
      {unkept !== '' && <p role="alert">It is on the wall. {unkept}</p>}
      {word.error !== null && problems.length === 0 && (
        <p role="alert">The server is not reached: nothing is lost, say it once more.</p>
      )}
      <button
        type="submit"
        aria-disabled={!whole && broke === ''}
        className="min-h-12 w-fit border-2 border-dim px-5 font-semibold aria-disabled:border-dashed aria-disabled:text-ash"
      >
        Onto the wall
      </button>
    </form>
  )
}
