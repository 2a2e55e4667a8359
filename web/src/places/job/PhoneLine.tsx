import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { Schemas, Station } from '../../api/client'
import { useJob, useLive } from '../../job/JobContext'
import { themeOf, useShop } from '../../job/ShopContext'
import { useAlone } from '../../job/useAlone'
import { STATIONS } from '../../job/stations'
import { useStationWord } from '../../job/useStationWord'
import { HeatLine } from '../../ui/HeatLine'
import { layOut, type LineBox } from '../../ui/heat-line-layout'
import { AMOUNT_WORDS } from '../../ui/PunchMark'
import { Sheet } from '../../ui/Sheet'
import { JobSheet } from './JobSheet'
import { NoteSheet } from './NoteSheet'

export interface PhoneLineProps {
  current: number
  station: Station
}

const NO_LINES: readonly Schemas['PlanLine'][] = []

/** On a phone the whole line is one target and opens the ten stations. */
export function PhoneLine({ current, station }: PhoneLineProps): ReactNode {
  const { view, waiting } = useJob()
  const { live, reached } = useLive()
  const shop = useShop()
  const word = useStationWord()
  const [sheet, setSheet] = useState<'stations' | 'job' | 'note' | null>(null)
  const close = () => setSheet(null)
  const { plan, job, standing } = view
  const record = job.rounds.at(-1)?.readings ?? []
  const readings = live !== null && standing.hot != null ? [...record, live] : record
  const box: LineBox = { width: 358, pad: 8, step: 17, shelf: 42, top: 6, end: 20, right: 8 }
  // Whoever practises alone has no curve to go by: only what was read is drawn.
  const lines = useAlone() ? NO_LINES : plan.lines
  const line = lines.find((candidate) => !candidate.cold) ?? lines[0] ?? null
  const hottest = Math.max(
    20,
    ...lines.flatMap((l) => l.curve.map(([, c]) => c)),
    ...readings.map((r) => r.celsius),
  )
  const layout = layOut(box, line, hottest, readings.at(-1)?.minutes ?? 0)
  return (
    <header className="no-print pt-2 bench:hidden">
      <div className="flex items-center justify-between gap-2">
        <h1 className="min-w-0">
          <Link
            to="/"
            className="words flex min-h-11 items-center text-[24px]"
            aria-label={`${view.name}. Back to the rack`}
          >
            <span className="truncate leading-8">{view.name}</span>
          </Link>
        </h1>
        <span className="flex shrink-0 items-center text-[16px]">
          <span role="status" className="text-ash" data-testid="saved-phone">
            {waiting.length > 0 ? `${waiting.length} waiting` : reached ? 'saved' : 'not reached'}
          </span>
          <button
            type="button"
            className="min-h-11 min-w-11 pl-3 font-semibold"
            onClick={() => setSheet('note')}
          >
            Note
          </button>
          <Link to="/reckoner" className="flex min-h-11 min-w-11 items-center pl-3 font-semibold">
            Reckon
          </Link>
          <button
            type="button"
            className="min-h-11 min-w-11 pl-3 font-semibold"
            onClick={() => setSheet('job')}
          >
            Job
          </button>
        </span>
      </div>
      <NoteSheet station={station} open={sheet === 'note'} onClose={close} />
      <JobSheet open={sheet === 'job'} onClose={close} />
      <button
        type="button"
        onClick={() => setSheet('stations')}
        className="block w-full text-left"
        aria-label={`Stations: ${word(station)}`}
      >
        <HeatLine
          box={box}
          layout={layout}
          height={52}
          plans={lines}
          stations={plan.stations}
          current={current}
          record={readings}
          earlier={[]}
          theme={themeOf(shop)}
          strokeWidth={4}
          round={1}
          markRadius={4.6}
          hot={standing.hot != null}
          stoppedAt={
            standing.stopped_at == null
              ? null
              : STATIONS.findIndex((entry) => entry.station === standing.stopped_at)
          }
        />
        <span className="text-[16px] font-bold">{word(station)}</span>
      </button>
      <Sheet title={view.name} open={sheet === 'stations'} onOpenChange={close}>
        <ul>
          {STATIONS.map((entry, at) => (
            <li key={entry.station} className="border-b border-rule last:border-0">
              <Link
                to={`/jobs/${view.id}/${entry.path}`}
                onClick={close}
                aria-current={at === current ? 'step' : undefined}
                className={`flex min-h-16 items-center justify-between text-[19px] ${at === current ? 'font-bold' : ''}`}
              >
                {word(entry.station)}
                <span className="text-[16px] text-ash">
                  {AMOUNT_WORDS[plan.stations[at]?.amount ?? 'nothing']}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </Sheet>
    </header>
  )
}
