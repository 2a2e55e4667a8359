import { useMemo, useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useWay } from '../../job/opened'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Plate } from '../../ui/Plate'
import { Offer } from './Offer'
import { Opened } from './Opened'
import { ByWhatItCarries, FaceLoad } from './FaceLoad'
import { SeamPull } from './SeamPull'
import { Sessions } from './Sessions'
import { Ways } from './Ways'

/** What to do and why; every way on the same scales; what is ruled out, in sight. */
export function MethodStation(): ReactNode {
  const { view, field, typed, say } = useJob()
  const { units } = useShop()
  const { methods, locks } = view.plan
  const left = methods.contenders.filter((contender) => !contender.excluded)
  const out = methods.contenders.filter((contender) => contender.excluded)
  const taken = methods.chosen?.method ?? null
  const [pressed, setPressed] = useState<string | null>(null)
  const byName = useMemo(
    () =>
      methods.contenders
        .filter(({ way }) => view.practice?.at_hand.includes(way.method))
        .toSorted((a, b) => a.label.localeCompare(b.label)),
    [methods.contenders, view.practice],
  )
  const open = pressed ?? taken ?? left[0]?.way.method ?? null
  const choose = (id: string) =>
    say({ kind: 'set', key: 'method.choice', typed: id, shown_in: units }, field('method.choice').revision)
  // A part that is referred out is taken by nobody.
  const refused = locks.find((lock) => !lock.hot_only)
  const opened = methods.contenders.find((contender) => contender.way.method === open)
  const chosen = methods.contenders.find((contender) => contender.way.method === taken)
  const own = typed('method.choice') !== ''
  if (view.practice?.level === 'alone') {
    const school = (id: string) =>
      say({ kind: 'set', key: 'method.school', typed: id, shown_in: units }, field('method.school').revision)
    return <Alone ways={byName} chosen={taken} onTake={choose} onSchool={school} />
  }
  // What lies open is what is taken.
  const offered = pressed !== null && opened?.excluded === false ? opened : left[0]
  return (
    <div className="flex min-h-0 grow flex-col gap-2.5 overflow-auto">
      <div>
        <h2 className="text-[30px] leading-9" data-testid="method-headline">
          {methods.what === '' ? methods.headline : methods.what}
        </h2>
        {methods.what !== '' && <p className="text-ash">{methods.why}</p>}
      </div>
      {locks.map((lock) => (
        <p key={lock.rule} className="border-l-[3px] border-chalk pl-3">
          {lock.sentence} <b>{lock.unlock}</b>
        </p>
      ))}
      {left.length > 0 && (
        <Ways
          ways={left}
          chosen={taken}
          own={own}
          open={open}
          onOpen={setPressed}
          wanted={methods.wanted_min ?? null}
        />
      )}
      {opened !== undefined && (
        <Opened
          key={opened.way.method}
          way={opened}
          chosen={own && taken === opened.way.method}
          refused={refused !== undefined}
          asked={pressed !== null}
          onTake={() => choose(opened.way.method)}
        />
      )}
      {out.length > 0 && <RuledOut ways={out} open={open} onOpen={setPressed} />}
      <SeamPull />
      <FaceLoad />
      <Sessions methods={methods} />
      {chosen !== undefined && <Offer way={chosen} />}
      <Money methods={methods} />
      {methods.not_considered.length > 0 && (
        <p className="text-ash">Not known, and so not counted: {methods.not_considered.join('; ')}.</p>
      )}
      <div className="mt-auto grid grid-cols-[1fr_auto] items-end gap-3 pt-2 max-bench:grid-cols-1">
        {own ? <Field name="method.reason" label="Why this one, for the record" /> : <span />}
        <span className="flex items-center gap-2">
          {own && <Button onPress={() => choose('')}>Leave it to the plan</Button>}
          {view.standing.station === 'method' && offered !== undefined && refused === undefined && (
            <Plate testId="next" onPress={() => choose(offered.way.method)}>
              Take {offered.label.toLowerCase()}
            </Plate>
          )}
        </span>
      </div>
    </div>
  )
}

interface AloneProps {
  ways: readonly Schemas['Contender'][]
  chosen: string | null
  onTake: (method: string) => void
  onSchool: (school: string) => void
}

/** A practice without the plan: every way by its name, and nothing said of any. */
function Alone({ ways, chosen, onTake, onSchool }: AloneProps): ReactNode {
  const taken = ways.find(({ way }) => way.method === chosen)
  const schools = useWay(chosen ?? undefined).way?.schools_to_choose ?? []
  return (
    <div className="flex min-h-0 grow flex-col gap-3 overflow-auto">
      <h2 className="text-[30px] leading-9" data-testid="method-headline">
        How do you do it?
      </h2>
      <div role="group" aria-label="Ways" className="grid grid-cols-3 gap-2 max-bench:grid-cols-1">
        {ways.map(({ way, label }) => (
          <Button key={way.method} chosen={way.method === chosen} onPress={() => onTake(way.method)}>
            {label}
          </Button>
        ))}
      </div>
      {schools.length > 1 && (
        <Choice
          label="School"
          choices={schools}
          chosen={taken?.way.school ?? ''}
          onChoose={(id) => onSchool(id)}
        />
      )}
    </div>
  )
}

interface RuledOutProps {
  ways: readonly Schemas['Contender'][]
  open: string | null
  onOpen: (method: string) => void
}

/** Each with the one reason that weighs most; pressed, it opens with all of them. */
function RuledOut({ ways, open, onOpen }: RuledOutProps): ReactNode {
  return (
    <section aria-label="Ruled out" className="flex flex-col">
      <h3 className="label">Ruled out</h3>
      <div className="grid grid-cols-2 gap-x-6 max-bench:grid-cols-1">
        {ways.map((way) => (
          <button
            key={way.way.method}
            type="button"
            onClick={() => onOpen(way.way.method)}
            aria-expanded={open === way.way.method}
            className="min-h-11 border-b border-rule py-1 text-left"
          >
            <b>{way.label}</b>{' '}
            <span className="text-ash">
              {way.reasons[0]}
              {way.reasons.length > 1 && ` And ${way.reasons.length - 1} more.`}
            </span>
          </button>
        ))}
      </div>
    </section>
  )
}

/** Mending, patching, replacing: the least first. */
function Money({ methods }: { methods: Schemas['MethodPlan'] }): ReactNode {
  if (methods.weighed.length === 0) return null
  return (
    <section aria-label="Mend or replace" className="border-t border-rule pt-1">
      <h3 className="label">Mend or replace, by money alone</h3>
      <dl className="flex flex-wrap gap-x-8">
        {methods.weighed.map((line) => (
          <div key={line.what} className="flex items-baseline gap-2">
            <dt>{line.what}</dt>
            <dd>
              <span className="figure text-[19px]">{line.amount_words}</span>{' '}
              <span className="small text-ash">{line.working}</span>
            </dd>
          </div>
        ))}
      </dl>
      <p className="text-ash">{methods.weighed_words}</p>
      <ByWhatItCarries />
    </section>
  )
}
