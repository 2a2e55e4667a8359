import { useMemo, useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob, useLive } from '../../job/JobContext'
import { ReadingSheet } from '../../job/ReadingSheet'
import { Button } from '../../ui/Button'
import { Plate } from '../../ui/Plate'
import { BigClock } from './BigClock'
import { Mute, Rang } from './Ringing'
import { Temperature } from './Temperature'
import { laidOut } from './clocks'
import { TackCheck } from './TackCheck'
import { TorchLog } from './TorchLog'
import { WindowBar } from './WindowBar'
import { useJobClock } from './useJobClock'
import { runsOf, useRings } from './useRings'

type Entry = Schemas['TorchEntry']

const WINDOW: readonly [number, number] = [0, 0]

export interface LitFirstProps {
  lit: Schemas['LitSeen']
}

/** Lit before the repair: to bake the oil out, or to tack. How hot, what next, what can be said. */
export function LitFirst({ lit }: LitFirstProps): ReactNode {
  const { view, waiting, say } = useJob()
  const { live } = useLive()
  const [sheet, setSheet] = useState<'reading' | 'note' | null>(null)
  const now = useJobClock()
  const plan = view.plan.lightings.find((it) => it.what === lit.what)
  const clocks = live?.clocks ?? []
  const { large } = laidOut(clocks, now)
  const runs = useMemo(() => runsOf(live), [live])
  const rings = useRings(lit.fact, runs, '', now, live?.minutes ?? 0)
  const log = (entry: Entry) => say({ kind: 'torch', entry })
  const planned = view.standing.next.verb
  const unsent = waiting.some((item) => item.change.kind === 'torch')
  const next = unsent || live === null || live.next === '' ? planned : live.next
  const [low, high] = plan?.window ?? WINDOW
  const ends = plan?.window_ends ?? null
  const tack = plan?.tack ?? null
  const putOut = () => say({ kind: 'put_out' })
  const main = mainOf(tack, live?.ends === true, () => log({ kind: 'did', what: 'tacked' }), putOut)
  return (
    <div className="mx-auto flex min-h-0 w-full grow flex-col gap-3 overflow-auto">
      <div className="grid items-start gap-x-8 gap-y-3 bench:grid-cols-[auto_minmax(0,1fr)]">
        <Temperature live={live} />
        <div className="flex flex-wrap items-start gap-8">
          {large !== undefined && <BigClock clock={large} now={now} />}
          {live !== null && live.place !== 'no_window' && ends !== null && high > low && (
            <WindowBar live={live} low={low} high={high} ends={ends} />
          )}
        </div>
      </div>
      {rings.said !== '' && <Rang rings={rings} />}
      <p className="text-[28px] leading-8" data-testid="torch-next">
        <b>{next}.</b>
      </p>
      <p className="text-[17px] text-ash">{plan?.sentence}</p>
      <div className="grid gap-[9px] bench:grid-cols-[minmax(0,440px)_minmax(0,1fr)]">
        {main === null ? (
          <span />
        ) : main.now ? (
          <Plate large testId="torch-main" onPress={main.press}>
            {main.words}
          </Plate>
        ) : (
          <Button large testId="torch-main" onPress={main.press}>
            {main.words}
          </Button>
        )}
        <div className="grid grid-cols-3 gap-[9px]">
          <Button large onPress={() => setSheet('reading')}>
            Reading
          </Button>
          <Button large onPress={() => setSheet('note')}>
            Note
          </Button>
          {tack !== null && tack.state !== 'all_in' && (
            <Button large onPress={putOut}>
              <span className="whitespace-normal">Tacking is over</span>
            </Button>
          )}
        </div>
      </div>
      {(tack?.state === 'to_check' || tack?.state === 'moved') && <TackCheck tack={tack} />}
      <Mute rings={rings} />
      <TorchLog />
      <ReadingSheet kind={sheet} onClose={() => setSheet(null)} onSay={log} />
    </div>
  )
}

interface Main {
  words: string
  /** It is the next thing to be done. */
  now: boolean
  press: () => void
}

/** The large button: what is said next, or nothing where something else comes first. */
function mainOf(
  tack: Schemas['TackTurn'] | null,
  held: boolean,
  tacked: () => void,
  putOut: () => void,
): Main | null {
  if (tack === null) return { words: 'Flame off: bake is over', now: held, press: putOut }
  if (tack.state === 'to_tack') return { words: `Tack ${tack.number} is in`, now: true, press: tacked }
  if (tack.state === 'all_in') return { words: 'Put it out', now: true, press: putOut }
  return null
}
