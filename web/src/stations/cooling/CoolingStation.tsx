import { useState, type ReactNode } from 'react'
import type { Live } from '../../api/client'
import { InTheLedger } from '../../job/InTheLedger'
import { Field } from '../../job/Field'
import { Fig } from '../../job/Fig'
import { useJob, useLive } from '../../job/JobContext'
import { Doubted } from '../../job/Doubted'
import { KeepOff } from '../../job/KeepOff'
import { ReadingSheet } from '../../job/ReadingSheet'
import { themeOf, useShop } from '../../job/ShopContext'
import { useAlone } from '../../job/useAlone'
import { useShortcut } from '../../keys/useShortcut'
import { heatColour } from '../../quantity/heat-colour'
import { foreseen, inUnits, minutes } from '../../quantity/show'
import { CoolingCurve } from './CoolingCurve'
import { Descent } from './Descent'
import { FaceDown } from './FaceDown'
import { Falls } from './Falls'
import { Button } from '../../ui/Button'
import { Plate } from '../../ui/Plate'

/** Packed and left: the curve with the readings on it, when to come back. */
export function CoolingStation(): ReactNode {
  const { view, say } = useJob()
  const { live } = useLive()
  const alone = useAlone()
  const [reading, setReading] = useState(false)
  const shop = useShop()
  const { cooling, methods } = view.plan
  // Of the last lighting, whichever round it belongs to: a hot part is hot.
  const round = view.job.rounds.findLast((r) => r.lit != null)
  const lit = round?.lit ?? null
  const { hot: stillHot } = view.standing
  useShortcut('l', () => {
    if (lit !== null) setReading(true)
  })
  if (cooling == null || (cooling.cold && stillHot == null)) {
    if (cooling?.cold === true) {
      return (
        <div className="flex flex-col gap-4">
          <KeepOff />
          <h2 className="text-[30px] leading-9">{cooling.sentence}</h2>
          <p className="text-ash">Nothing to do at this station.</p>
        </div>
      )
    }
    return (
      <div className="flex flex-col gap-4">
        <KeepOff />
        <h2 className="text-[28px] leading-8">
          {methods.chosen == null
            ? 'Choose the method first.'
            : 'Weight, size and shape give the cooling curve.'}
        </h2>
      </div>
    )
  }
  const covered =
    round?.log.findLast((entry) => entry.struck == null && entry.entry.kind === 'covered')?.minutes ?? null
  /** A moment that is only foreseen. */
  const may = (at: number): string =>
    lit === null || covered === null
      ? `after ${minutes(at)}`
      : foreseen(lit.at_ms + (covered + at) * 60_000, shop, view.standing.job_now_ms ?? lit.at_ms)
  const going = cooling.going ?? null
  const hot = view.standing.hot ?? null
  const here = view.standing.station === 'cooling'
  const unwrap = () => say({ kind: 'torch', entry: { kind: 'unwrapped' } })
  return (
    <div className="relative flex min-h-0 grow flex-col gap-2 overflow-auto">
      {hot !== null && covered !== null && (
        <HotSign live={live} touch={cooling.touch_hours == null ? null : may(cooling.touch_hours * 60)} />
      )}
      <div className="min-h-0 grow">
        <CoolingCurve cooling={cooling} round={round} covered={covered} may={may} />
      </div>
      <KeepOff />
      {round?.log
        .filter((entry) => entry.doubted === true && entry.struck == null)
        .map((entry) => (
          <Doubted key={entry.fact} entry={entry} />
        ))}
      {cooling.too_early !== '' && (
        <p role="alert" className="border-2 border-chalk px-3 py-2 text-[17px] font-semibold">
          {cooling.too_early}
        </p>
      )}
      {!alone && (
        <p>
          <b>{cooling.sentence}</b> <Falls />{' '}
          {cooling.learned !== '' && <InTheLedger words={`${cooling.learned}.`} />}{' '}
          {going !== null && (
            <span data-testid="cooling-going">
              As it is going it {going.words}
              {going.planned_unwrap_hours != null &&
                `; as planned it could be unwrapped ${may(going.planned_unwrap_hours * 60)}`}
              .{going.unwrap_between == null && ' From 3 readings on it says how sure that is.'}
            </span>
          )}
        </p>
      )}
      {!alone && <Descent />}
      {!alone && <FaceDown />}
      <div className="grid grid-cols-[1.5fr_1fr_auto_auto_auto] items-end gap-4 border-t border-rule pt-2 max-bench:grid-cols-2">
        <Field name="cooling.packing" label="Packed in" folded placeholder={cooling.packing} />
        <Field name="cooling.thickness" label="How thick" placeholder="as usual" />
        <Field name="cooling.foil" label="Bright foil over it" />
        <Small name="Covered for" id="cooling.unwrap" />
        <Small name="Until it may be touched" id="cooling.touch" />
      </div>
      <div className="flex flex-wrap items-center justify-end gap-3">
        {lit !== null && covered !== null && hot?.unwrapped === true && (
          <Button onPress={() => say({ kind: 'torch', entry: { kind: 'covered' } })}>Covered again</Button>
        )}
        {lit !== null && covered !== null && hot?.unwrapped === false && (
          <Button onPress={unwrap}>Unwrapped</Button>
        )}
        {lit !== null && (
          <Button onPress={() => setReading(true)} label="Log a reading">
            Reading
          </Button>
        )}
        {here &&
          (view.standing.next.verb === 'Unwrap and look' ? (
            <Plate testId="next" gate onPress={unwrap}>
              {view.standing.next.verb}
            </Plate>
          ) : (
            // Waiting is nothing to press: a reading says when it may be unwrapped.
            <p className="text-[28px] leading-8 font-semibold" data-testid="next">
              {view.standing.next.verb}
              {view.standing.next.at_ms != null &&
                ` ${foreseen(view.standing.next.at_ms, shop, view.standing.job_now_ms ?? view.now_ms)}`}
            </p>
          ))}
      </div>
      <ReadingSheet
        kind={reading ? 'reading' : null}
        onClose={() => setReading(false)}
        onSay={(entry) => say({ kind: 'torch', entry })}
      />
    </div>
  )
}

function Small({ name, id }: { name: string; id: string }): ReactNode {
  return (
    <div>
      <div className="label">{name}</div>
      <Fig id={id} size="card" side="top" />
    </div>
  )
}

/** Hot iron looks cold. */
function HotSign({ live, touch }: { live: Live | null; touch: string | null }): ReactNode {
  const shop = useShop()
  const { units } = shop
  return (
    <div
      className="scribed absolute top-2 right-3 z-10 bg-iron px-4 pt-1 pb-2 max-bench:static max-bench:mb-2"
      role="status"
    >
      <div className="flex flex-wrap items-center gap-x-5">
        <span className="text-[110px] leading-[100px] [font-family:var(--font-words)] font-[820]">HOT</span>
        {live !== null && (
          <span>
            <span
              className="figure text-[72px] leading-[76px] max-bench:text-[min(120px,31vw)] max-bench:leading-[0.9]"
              data-testid="cooling-now"
            >
              {inUnits(live, units).number} {inUnits(live, units).unit}
            </span>
            <span
              className="mt-1 block h-3"
              style={{ background: heatColour(live.celsius, themeOf(shop)) }}
            />
          </span>
        )}
      </div>
      <b>
        {touch === null
          ? 'No bare hand: it will look cold.'
          : `No bare hand before ${touch}. It will look cold.`}
      </b>
    </div>
  )
}
