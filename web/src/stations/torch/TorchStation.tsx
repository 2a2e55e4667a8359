import { useMemo, useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob, useLive } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useAlone } from '../../job/useAlone'
import { useShortcut } from '../../keys/useShortcut'
import { foreseen } from '../../quantity/show'
import { Button } from '../../ui/Button'
import { useOffersStop } from '../../ui/stop'
import { Aloud, Gases, Next } from './Aloud'
import { BigClock } from './BigClock'
import { HotBetween } from './HotBetween'
import { Mute, Rang } from './Ringing'
import { laidOut, silence } from './clocks'
import { begun, isOut } from './not-sent'
import { useJobClock } from './useJobClock'
import { runsOf, useRings } from './useRings'
import { nextPiece } from './next-piece'
import { beadDone, flowDone, pieceDone } from './piece-words'
import { LightUp } from './LightUp'
import { NextPin } from './NextPin'
import { PartShows } from './PartShows'
import { Pieces } from './Pieces'
import { TipsByTheLog } from './TipsByTheLog'
import { TorchBeads } from './TorchBeads'
import { TorchButtons } from './TorchButtons'
import { TorchHead } from './TorchHead'
import { TorchLog } from './TorchLog'
import { TorchSheets, type TorchSheet } from './TorchSheets'
import { LitFirst } from './LitFirst'

type Entry = Schemas['TorchEntry']

/** For a gloved hand at arm's length: how hot, what next, one large button for each thing to say. */
export function TorchStation(): ReactNode {
  const { view, waiting, say } = useJob()
  const { live } = useLive()
  const [sheet, setSheet] = useState<TorchSheet | null>(null)
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
  const { entry: piece, laid: unsentBeads, begins, nextPin, upcoming } = nextPiece(torch, unsent)
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
  const stop = () => (left > 0 ? setSheet('stop') : log({ kind: 'covered' }))
  const finished = covered || (torch.planned > 0 && done >= torch.planned)
  const clocks = live?.clocks ?? []
  // The one that is at nothing first; what is not measured is not said to be.
  const { large: clock, small: gases } = laidOut(covered ? [] : clocks, now)
  const stops = !covered && (torch.trouble.length > 0 || (!pins && !finished))
  const order = torch.beads ?? null
  return (
    <div
      className={`mx-auto flex min-h-0 w-full grow flex-col gap-2 overflow-auto bench:scroll-pb-[180px] ${stops ? 'max-bench:pb-20' : ''}`}
    >
      <TorchHead torch={torch} covered={covered} pins={pins} alone={alone}>
        {clock !== undefined && !alone && <BigClock clock={clock} now={now} />}
        {heats && (
          <Button onPress={() => log({ kind: 'did', what: out ? 'back_in' : 'out_of_heat' })}>
            {out ? 'Back in the heat' : 'Out of the heat'}
          </Button>
        )}
      </TorchHead>
      {window !== null && !covered && rings.said !== '' && <Rang rings={rings} />}
      <Next
        words={
          alone && !covered
            ? 'What is next is yours to say'
            : unsent.length > 0 || live === null || live.next === ''
              ? next
              : live.next
        }
        cools={covered && view.standing.hot?.unwrapped === false}
      />
      <Aloud silent={silent} passed={alone ? [] : torch.passed} />
      <PartShows />
      {heats && !covered && !alone && done === 0 && <TipsByTheLog />}
      {nextPin !== null && !covered && <NextPin pin={nextPin} />}
      {!covered && order !== null && upcoming !== undefined && (
        <TorchBeads
          order={order}
          upcoming={upcoming}
          done={done}
          planned={torch.planned}
          unsent={unsentBeads}
          alone={alone}
          onAtOnce={
            unsentBeads === 0 && order.at_once.length > 0 && view.practice == null
              ? () => setSheet('at_once')
              : undefined
          }
        />
      )}
      {!covered && !alone && order !== null && order.never !== '' && (
        <p className="border-2 border-chalk px-3 py-2 text-[17px] font-semibold">{order.never}</p>
      )}
      {!covered && (
        <InPieces
          torch={torch}
          done={done}
          waiting={unsentBeads}
          byBead={upcoming !== undefined}
          finished={finished}
        />
      )}
      <TorchButtons
        torch={torch}
        covered={covered}
        finished={finished}
        pins={pins}
        heats={heats}
        stops={stops}
        words={
          finished
            ? 'Covered'
            : upcoming === undefined
              ? torch.flow == null
                ? pieceDone(torch.piece)
                : flowDone(begins)
              : beadDone(upcoming.number, out || clocks.some(({ kind }) => kind === 'soak'))
        }
        onMain={() => log(finished ? { kind: 'covered' } : piece)}
        onSay={log}
        onSheet={setSheet}
        onStop={stop}
      />
      <Gases gases={gases} now={now} />
      {window !== null && !covered && <Mute rings={rings} />}
      {covered && torch.go_on != null && (
        <section aria-label="Go on" className="shrink-0 border-t-[1.5px] border-scribe pt-3">
          <LightUp />
        </section>
      )}
      <TorchLog />
      {!pins && !finished && <OffersStop stop={stop} />}
      <TorchSheets torch={torch} sheet={sheet} onSheet={setSheet} onSay={log} left={left} onStop={stop} />
    </div>
  )
}

interface InPiecesProps {
  torch: Schemas['TorchPlan']
  done: number
  waiting: number
  /** Each bead is shown where it goes. */
  byBead: boolean
  finished: boolean
}

/** What is not led bead by bead: so many pieces, or a seam in one flow. */
function InPieces({ torch, done, waiting, byBead, finished }: InPiecesProps): ReactNode {
  const { flow = null } = torch
  return (
    <>
      {!byBead && (
        <Pieces
          piece={flow === null ? torch.piece : 'seam'}
          done={done}
          planned={torch.planned}
          waiting={waiting}
        />
      )}
      {flow !== null && !finished && (
        <p className="text-[17px]" data-testid="torch-flow">
          {flow.words}
        </p>
      )}
    </>
  )
}

/** As long as it burns it can be stopped from every sheet that lies over it. */
function OffersStop({ stop }: { stop: () => void }): ReactNode {
  useOffersStop(stop)
  return null
}
