import { useMemo, useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import type { Live, Schemas } from '../../api/client'
import type { Waiting } from '../../api/queue/outbox'
import { useJob, useLive } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useAlone } from '../../job/useAlone'
import { useShortcut } from '../../keys/useShortcut'
import { foreseen, inUnits, minutes, temperature } from '../../quantity/show'
import { Button } from '../../ui/Button'
import { Plate } from '../../ui/Plate'
import { useOffersStop } from '../../ui/stop'
import { BeadStrip } from './BeadStrip'
import { BigClock } from './BigClock'
import { HelperSheet } from './HelperSheet'
import { HotBetween } from './HotBetween'
import { MoreSheet } from './MoreSheet'
import { Mute, Rang } from './Ringing'
import { TroubleSheet } from './TroubleSheet'
import { laidOut, silence } from './clocks'
import { useJobClock } from './useJobClock'
import { runsOf, useRings } from './useRings'
import { beadDone, pieceDone } from './piece-words'
import { LightUp } from './LightUp'
import { NextPin } from './NextPin'
import { OnTheMap } from './OnTheMap'
import { Pieces } from './Pieces'
import { StopSheet } from './StopSheet'
import { RanOn } from '../../job/RanOn'
import { ReadingSheet, type ReadingSheetProps } from '../../job/ReadingSheet'
import { Temperature } from './Temperature'
import { TorchLog } from './TorchLog'
import { LitFirst } from './LitFirst'
import { WindowBar } from './WindowBar'

type Entry = Schemas['TorchEntry']

/** For a gloved hand at arm's length: how hot, what next, one large button for each thing to say. */
export function TorchStation(): ReactNode {
  const { view, waiting, say } = useJob()
  const { live } = useLive()
  const [sheet, setSheet] = useState<ReadingSheetProps['kind']>(null)
  const [stopping, setStopping] = useState(false)
  const [running, setRunning] = useState(false)
  const [troubled, setTroubled] = useState(false)
  const [more, setMore] = useState(false)
  const [helping, setHelping] = useState(false)
  const navigate = useNavigate()
  const shop = useShop()
  const { torch } = view.plan
  const round = view.job.rounds.at(-1)
  const lit = round?.lit ?? null
  const log = (entry: Entry) => say({ kind: 'torch', entry })
  // What waits here for the server counts: nobody lays a bead on a covered part.
  const covered =
    (round?.log.some((entry) => entry.struck == null && entry.entry.kind === 'covered') ?? false) ||
    waiting.some((item) => item.change.kind === 'torch' && item.change.entry.kind === 'covered')
  const unsent = waiting.filter((item) => item.change.kind === 'torch')
  const unsentBeads = unsent.filter(
    (item) =>
      item.change.kind === 'torch' && (item.change.entry.kind === 'bead' || item.change.entry.kind === 'pin'),
  ).length
  // The pin that is next goes in under its number; what waits for the server was meant for the one before it.
  const nextPin = unsentBeads === 0 ? (torch?.next_pin ?? null) : null
  // What waits for the server was meant for the beads before: the order goes on behind them.
  const ahead = torch?.beads?.ahead ?? []
  const bead = ahead[unsentBeads]
  const piece: Entry =
    nextPin !== null
      ? { kind: 'pin', crack: nextPin.crack, number: nextPin.number }
      : bead === undefined
        ? { kind: 'bead' }
        : { kind: 'bead', at: bead.at }
  const now = useJobClock()
  const out = isOut(torch?.out === true, unsent)
  const alone = useAlone()
  const outWords =
    !alone &&
    live !== null &&
    live.place !== 'in_window' &&
    live.place !== 'no_window' &&
    begun(torch, unsentBeads)
      ? live.place_words
      : ''
  const runs = useMemo(() => runsOf(alone ? null : live), [live, alone])
  const rings = useRings(lit?.fact ?? '', runs, covered ? '' : outWords, now, live?.minutes ?? 0)
  useShortcut('l', () => {
    if (lit !== null) setSheet('reading')
  })
  useShortcut('b', () => {
    if (lit !== null && !covered) log(piece)
  })
  if (lit !== null && lit.what !== 'main') return <LitFirst lit={lit} />
  if (torch == null || lit === null) {
    return view.standing.hot == null ? <LightUp /> : <HotBetween onSay={log} />
  }
  const window = torch.window ?? null
  const ends = torch.window_ends ?? null
  const done = torch.done + unsentBeads
  // Nothing that is set, fitted or filled cold is heated or covered.
  const pins = torch.piece !== 'bead'
  // What waits here for the server is not in the server's word yet.
  const planned = view.standing.next
  const at =
    planned.at_ms == null ? '' : ` ${foreseen(planned.at_ms, shop, view.standing.job_now_ms ?? view.now_ms)}`
  const next = !pins && !covered && done >= torch.planned ? 'Cover it' : planned.verb + at
  const left = Math.max(0, torch.planned - done)
  const heats = view.plan.heat?.cold === false
  const silent =
    live !== null && (round?.readings.length ?? 0) > 0 && !covered
      ? silence(now - live.minutes, lit.speed)
      : ''
  const stop = () => (left > 0 ? setStopping(true) : log({ kind: 'covered' }))
  const finished = covered || (torch.planned > 0 && done >= torch.planned)
  const clocks = live?.clocks ?? []
  // The one that is at nothing first; what is not measured is not said to be.
  const { large: clock, small: gases } = laidOut(covered ? [] : clocks, now)
  const stops = !covered && (torch.trouble.length > 0 || (!pins && !finished))
  const upcoming = ahead[unsentBeads]
  const order = torch.beads ?? null
  return (
    <div
      className={`mx-auto flex min-h-0 w-full grow flex-col gap-2 overflow-auto bench:scroll-pb-[180px] ${stops ? 'max-bench:pb-20' : ''}`}
    >
      <div className="grid items-start gap-x-8 gap-y-3 bench:grid-cols-[auto_minmax(0,1fr)_auto]">
        {window === null ? (
          <h2 className="text-[40px] leading-[44px]">{view.plan.heat?.sentence}</h2>
        ) : (
          <Temperature live={live} bare={alone} />
        )}
        {window !== null && !covered && !alone && (
          <div className="flex flex-col gap-1">
            {!pins && <There live={live} window={window} />}
            {live !== null && live.place !== 'no_window' && ends !== null && (
              <WindowBar live={live} low={window[0]} high={window[1]} ends={ends} />
            )}
          </div>
        )}
        {window !== null && !pins && !covered && (
          <div className="flex flex-col items-start gap-2">
            {clock !== undefined && !alone && <BigClock clock={clock} now={now} />}
            {heats && (
              <Button onPress={() => log({ kind: 'did', what: out ? 'back_in' : 'out_of_heat' })}>
                {out ? 'Back in the heat' : 'Out of the heat'}
              </Button>
            )}
          </div>
        )}
      </div>
      {window !== null && !covered && rings.said !== '' && <Rang rings={rings} />}
      <p className="text-[28px] leading-8" data-testid="torch-next">
        <b>
          {alone && !covered
            ? 'What is next is yours to say'
            : unsent.length > 0 || live === null || live.next === ''
              ? next
              : live.next}
          .
        </b>{' '}
        {covered && view.standing.hot?.unwrapped === false && (
          <span className="text-[17px] text-ash">It cools by itself.</span>
        )}
      </p>
      {silent !== '' && (
        <p
          role="alert"
          className="border-2 border-chalk px-3 py-2 text-[17px] font-semibold"
          data-testid="silent"
        >
          {silent}
        </p>
      )}
      {(alone ? [] : torch.passed).map((words) => (
        <p key={words} role="alert" className="border-2 border-chalk px-3 py-2 text-[17px] font-semibold">
          {words}
        </p>
      ))}
      {nextPin !== null && !covered && <NextPin pin={nextPin} />}
      {!covered && order !== null && upcoming !== undefined && (
        <section
          aria-label="The beads"
          className="bench:grid bench:grid-cols-[minmax(0,1fr)_auto] bench:items-start bench:gap-x-5"
        >
          <div>
            <h2 className="text-[26px] leading-8" data-testid="torch-piece">
              {upcoming.words}
            </h2>
            {!alone && upcoming.before !== '' && (
              <p
                className="border-l-[3px] border-chalk pl-3 text-[20px] leading-7 font-semibold"
                data-testid="torch-before"
              >
                {upcoming.before}
              </p>
            )}
            {order.seams
              .filter((seam) => seam.crack === upcoming.at.crack)
              .map((seam) => (
                <BeadStrip key={seam.crack} seam={seam} next={upcoming.at} />
              ))}
            <p className="text-[17px]">
              {done} of {torch.planned} done. {!alone && order.waits_words}
              {unsentBeads > 0 && <span className="text-ash"> {unsentBeads} waiting for the server.</span>}
            </p>
          </div>
          <OnTheMap bead={upcoming} />
        </section>
      )}
      {!covered && !alone && order !== null && order.never !== '' && (
        <p className="border-2 border-chalk px-3 py-2 text-[17px] font-semibold">{order.never}</p>
      )}
      {!covered && upcoming === undefined && (
        <Pieces piece={torch.piece} done={done} planned={torch.planned} waiting={unsentBeads} />
      )}
      {/* What is pressed lies at the foot of what is read, however long that is. */}
      <div className="flex flex-col gap-[9px] bg-iron bench:sticky bench:bottom-0 bench:z-10 bench:pt-1">
        <div className="grid gap-[9px] bench:grid-cols-[minmax(0,440px)_minmax(0,1fr)]">
          {!covered && !(finished && pins) && (
            <Plate large testId="torch-main" onPress={() => log(finished ? { kind: 'covered' } : piece)}>
              {finished
                ? 'Covered'
                : upcoming === undefined
                  ? pieceDone(torch.piece)
                  : beadDone(upcoming.number, out || clocks.some(({ kind }) => kind === 'soak'))}
            </Plate>
          )}
          <div className="grid grid-cols-3 gap-[9px]">
            {!pins && !covered && (
              <>
                {torch.peen && (
                  <Button large onPress={() => log({ kind: 'peened' })}>
                    Peened
                  </Button>
                )}
                {heats && (
                  <Button large onPress={() => log({ kind: 'reheated' })}>
                    Reheated
                  </Button>
                )}
              </>
            )}
            <Button large onPress={() => setSheet('reading')}>
              Reading
            </Button>
          </div>
        </div>
        <div className="grid grid-cols-2 gap-[9px] sm:grid-cols-3 bench:grid-cols-[1.5fr_1.4fr_1fr_0.8fr_0.8fr] bench:[&>button]:min-h-14 bench:[&>.stops>button]:min-h-14 [&>button]:px-2">
          {stops && (
            <div className="stops [&>button]:px-2">
              {torch.trouble.length > 0 && (
                <Button large onPress={() => setTroubled(true)}>
                  <span className="whitespace-normal">It does not go well</span>
                </Button>
              )}
              {/* With all beads laid the plate covers it: nothing is stopped. */}
              {!pins && !finished && (
                <Button large onPress={stop}>
                  <span aria-hidden className="size-5 shrink-0 border-[2.5px] border-chalk" /> It must stop
                </Button>
              )}
            </div>
          )}
          {/* What is covered is looked at when it is cold. */}
          {!covered && (
            <Button large onPress={() => setRunning(true)}>
              It ran on
            </Button>
          )}
          <Button large onPress={() => setSheet('note')}>
            Note
          </Button>
          {!covered && !pins && (
            <Button large onPress={() => setMore(true)}>
              More
            </Button>
          )}
        </div>
      </div>
      {gases.map((gas) => (
        <p key={gas.words} className="text-[17px]" data-testid="torch-gas">
          <span className="inline-block first-letter:uppercase">{gas.words}</span>:{' '}
          <b>{minutes(gas.ends_min - now)}</b>, then {gas.then}.
        </p>
      ))}
      {window !== null && !covered && <Mute rings={rings} />}
      {covered && torch.go_on != null && (
        <section aria-label="Go on" className="shrink-0 border-t-[1.5px] border-scribe pt-3">
          <LightUp />
        </section>
      )}
      <TorchLog />
      {!pins && !finished && <OffersStop stop={stop} />}
      <StopSheet
        left={left}
        planned={torch.planned}
        piece={torch.piece}
        must={torch.must_stop}
        open={stopping}
        onClose={() => setStopping(false)}
        onStop={(why) => {
          log({ kind: 'covered', why })
          setStopping(false)
        }}
      />
      <TroubleSheet open={troubled} onClose={() => setTroubled(false)} onSay={log} onStop={stop} />
      <MoreSheet
        open={more}
        onClose={() => setMore(false)}
        onSay={log}
        onAlign={() => setSheet('aligned')}
        onHelper={() => setHelping(true)}
      />
      <HelperSheet open={helping} onClose={() => setHelping(false)} />
      <RanOn
        open={running}
        onClose={() => setRunning(false)}
        onTask={(task, face) =>
          void navigate(`/jobs/${view.id}/cracks`, { state: { drawing: { task, face } } })
        }
      />
      <ReadingSheet kind={sheet} onClose={() => setSheet(null)} onSay={log} />
    </div>
  )
}

/** As long as it burns it can be stopped from every sheet that lies over it. */
function OffersStop({ stop }: { stop: () => void }): ReactNode {
  useOffersStop(stop)
  return null
}

/** The beads are begun with: before that it is on its way up, and nothing rings. */
const begun = (torch: Schemas['TorchPlan'] | null | undefined, unsent: number): boolean =>
  torch != null && torch.done + unsent > 0

/** What says whether it is in the heat. */
const HEATS: ReadonlySet<Schemas['Deed']> = new Set(['out_of_heat', 'back_in', 'held_at_joint', 'held_over'])

/** It is out of the heat: as the server has it, or by what still waits for it. */
function isOut(known: boolean, unsent: readonly Pick<Waiting, 'change'>[]): boolean {
  const said = unsent.flatMap((item) =>
    item.change.kind === 'torch' && item.change.entry.kind === 'did' ? [item.change.entry.what] : [],
  )
  const last = said.findLast((what) => HEATS.has(what))
  return last === undefined ? known : last === 'out_of_heat'
}

/** The joint, kept apart from the part: what was read there, and what is worked out for where the next bead goes. */
function There({ live, window }: { live: Live | null; window: readonly [number, number] | null }): ReactNode {
  const { view } = useJob()
  const { units } = useShop()
  const joint = view.plan.torch?.joint ?? null
  const bead = live?.bead ?? null
  return (
    <div className="flex flex-col gap-2">
      {joint !== null && (
        <div data-testid="torch-joint">
          <p className="label text-[16px]">joint, read at {joint.at}</p>
          <p className="figure text-[min(88px,22vw)] leading-[0.95]">
            {inUnits(joint, units).number}
            <span className="text-[30px]"> {inUnits(joint, units).unit}</span>
          </p>
          <p className="text-[17px] font-semibold">{joint.words}</p>
        </div>
      )}
      {bead !== null && window !== null && (
        <div data-testid="torch-there">
          <p className="label text-[16px]">where bead {bead.number} goes, worked out</p>
          <p className={`figure leading-[0.95] ${joint === null ? 'text-[min(88px,22vw)]' : 'text-[40px]'}`}>
            {temperature(bead.there_c, units)[0]}
            <span className={joint === null ? 'text-[30px]' : 'text-[20px]'}>
              {' '}
              {temperature(bead.there_c, units)[1]}
            </span>
          </p>
          <p className="text-[17px] font-semibold">
            {bead.wait_s >= 1 ? 'Too hot there: wait' : 'It may start'}
          </p>
        </div>
      )}
    </div>
  )
}
