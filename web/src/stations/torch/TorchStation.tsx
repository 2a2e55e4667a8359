import { useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import type { Live, Schemas } from '../../api/client'
import { useJob, useLive } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useShortcut } from '../../keys/useShortcut'
import { foreseen, inUnits } from '../../quantity/show'
import { Button } from '../../ui/Button'
import { Plate } from '../../ui/Plate'
import { HotBetween } from './HotBetween'
import { pieceDone } from './piece-words'
import { LightUp } from './LightUp'
import { NextPin } from './NextPin'
import { Pieces } from './Pieces'
import { StopSheet } from './StopSheet'
import { RanOn } from '../../job/RanOn'
import { ReadingSheet } from '../../job/ReadingSheet'
import { TorchLog } from './TorchLog'
import { WindowBar } from './WindowBar'

type Entry = Schemas['TorchEntry']

/** For a gloved hand at arm's length: how hot, what next, one large button for each thing to say. */
export function TorchStation(): ReactNode {
  const { view, waiting, say } = useJob()
  const { live } = useLive()
  const [sheet, setSheet] = useState<'reading' | 'note' | null>(null)
  const [stopping, setStopping] = useState(false)
  const [running, setRunning] = useState(false)
  const navigate = useNavigate()
  const { time_zone } = useShop()
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
  const piece: Entry =
    nextPin === null ? { kind: 'bead' } : { kind: 'pin', crack: nextPin.crack, number: nextPin.number }
  useShortcut('l', () => {
    if (lit !== null) setSheet('reading')
  })
  useShortcut('b', () => {
    if (lit !== null && !covered) log(piece)
  })
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
    planned.at_ms == null
      ? ''
      : ` ${foreseen(planned.at_ms, time_zone, view.standing.job_now_ms ?? view.now_ms)}`
  const next = !pins && !covered && done >= torch.planned ? 'Cover it' : planned.verb + at
  const left = Math.max(0, torch.planned - done)
  const finished = covered || (torch.planned > 0 && done >= torch.planned)
  return (
    <div className="mx-auto grid min-h-0 w-full grow content-start gap-x-8 gap-y-3 overflow-auto bench:grid-cols-[1fr_360px]">
      <div className="flex flex-col gap-3">
        {window === null ? (
          <h2 className="text-[40px] leading-[44px]">{view.plan.heat?.sentence}</h2>
        ) : (
          <Temperature live={live} window={window} />
        )}
        <p className="text-[22px] leading-7" data-testid="torch-next">
          <b>{unsent.length > 0 || live === null || live.next === '' ? next : live.next}.</b>{' '}
          <span className="text-ash">
            {covered
              ? view.standing.hot?.unwrapped === false
                ? 'It cools by itself.'
                : ''
              : pins
                ? ''
                : 'Pad at the coldest far corner.'}
          </span>
        </p>
        {torch.joint != null && !covered && (
          <p className="text-[19px] leading-6" data-testid="torch-joint">
            <b>
              Joint {inUnits(torch.joint, view.plan.units).number}{' '}
              {inUnits(torch.joint, view.plan.units).unit}
            </b>
            : {torch.joint.words}. <span className="text-ash">Read at {torch.joint.at}.</span>
          </p>
        )}
        {torch.passed.map((words) => (
          <p key={words} role="alert" className="border-2 border-chalk px-3 py-2 text-[17px] font-semibold">
            {words}
          </p>
        ))}
        {nextPin !== null && !covered && <NextPin pin={nextPin} />}
        {!covered && <Pieces piece={torch.piece} done={done} planned={torch.planned} waiting={unsentBeads} />}
      </div>
      <div className="flex flex-col gap-2.5">
        {!covered && !(finished && pins) && (
          <Plate large testId="torch-main" onPress={() => log(finished ? { kind: 'covered' } : piece)}>
            {finished ? 'Covered' : pieceDone(torch.piece)}
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
              <Button large onPress={() => log({ kind: 'reheated' })}>
                Reheated
              </Button>
            </>
          )}
          <Button large onPress={() => setSheet('reading')}>
            Reading
          </Button>
          {(pins || covered || finished) && (
            <Button large onPress={() => setSheet('note')}>
              Note
            </Button>
          )}
          {/* What is covered is looked at when it is cold. */}
          {!covered && (
            <Button large onPress={() => setRunning(true)}>
              It ran on
            </Button>
          )}
        </div>
        {/* With all beads laid the plate covers it: nothing is stopped. */}
        {!covered && !pins && !finished && (
          <div className="grid grid-cols-[1fr_2fr] gap-[9px]">
            <Button large onPress={() => setSheet('note')}>
              Note
            </Button>
            <Button large onPress={() => (left > 0 ? setStopping(true) : log({ kind: 'covered' }))}>
              <span aria-hidden className="size-5 border-[2.5px] border-chalk" /> Stop and cover
            </Button>
          </div>
        )}
        <TorchLog />
      </div>
      <StopSheet
        left={left}
        planned={torch.planned}
        piece={torch.piece}
        open={stopping}
        onClose={() => setStopping(false)}
        onStop={(why) => {
          log({ kind: 'covered', why })
          setStopping(false)
        }}
      />
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

/** How hot, in or out of the window, which way it goes: by number, word and shape. */
function Temperature({ live, window }: { live: Live | null; window: readonly [number, number] }): ReactNode {
  const { units } = useShop()
  if (live === null) return <h2 className="text-[40px] leading-[44px]">No reading yet</h2>
  const shown = inUnits(live, units)
  const trend = units === 'imperial' ? live.trend_imperial : live.trend_metric
  return (
    <div>
      <div className="flex items-end gap-4">
        <span className="figure text-[min(212px,46vw)] leading-[0.8]" data-testid="torch-now">
          {shown.number}
        </span>
        <span className="flex flex-col gap-1 pb-1 text-[17px] leading-[21px]">
          <span className="figure text-[40px] leading-[44px]">{shown.unit}</span>
          <b data-testid="torch-place">{live.place_words}</b>
          <span>{trend}</span>
          <span className="text-ash">
            {live.clock.number} {live.clock.unit} on the job clock
          </span>
        </span>
      </div>
      {live.place !== 'no_window' && <WindowBar live={live} low={window[0]} high={window[1]} />}
    </div>
  )
}
