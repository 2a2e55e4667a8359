import { Suspense, useEffect, type ReactNode } from 'react'
import { Link, useLocation, useNavigate, useParams } from 'react-router'
import type { Station } from '../../api/client'
import { JobProvider, useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { pathOf, stationAt, STATIONS } from '../../job/stations'
import { useStationWord } from '../../job/useStationWord'
import { foreseen } from '../../quantity/show'
import { HotNow, WhileHot } from '../../job/HotNow'
import { useNow } from '../../job/useNow'
import { Button } from '../../ui/Button'
import { Crystal } from '../../ui/Crystal'
import { focusField, focusWork, isInAField, isWaitedFor, WORK_SURFACE } from '../../ui/focus'
import { Plate } from '../../ui/Plate'
import { Belief } from '../../stations/iron/Belief'
import { SURFACES } from '../../stations'
import { CannotBeShown } from './CannotBeShown'
import { Card } from './Card'
import { JobHeatLine } from './JobHeatLine'
import { JobTools } from './JobTools'
import { Papers } from './Papers'
import { PracticeBar } from './PracticeBar'
import { PracticeEnd } from './PracticeEnd'
import { PracticeGear } from './PracticeGear'
import { PhoneLine } from './PhoneLine'

/** A job: heat line on top, the station's work surface at the left, the card at the right. */
export function JobPage(): ReactNode {
  const { id = '', station } = useParams()
  return (
    <JobProvider key={id} id={id} otherwise={(message) => <CannotBeShown why={message} />}>
      <WhileHot>
        <Bench station={stationAt(station)} />
      </WhileHot>
    </JobProvider>
  )
}

function Bench({ station }: { station: Station }): ReactNode {
  const { view } = useJob()
  const Surface = SURFACES[station]
  const beside = PLATE_BESIDE.includes(station) && view.standing.next.key !== ''
  const current = STATIONS.findIndex((entry) => entry.station === station)
  const alone = view.practice?.level === 'alone'
  const word = useStationWord()
  return (
    <div className="contents" data-practice={view.practice == null ? undefined : ''}>
      <Papers />
      <div className="screen mx-auto flex h-[calc(100vh-var(--tray,0px))] max-w-[1480px] flex-col px-5 max-bench:h-auto max-bench:px-4 max-bench:pb-32 print:block print:h-auto print:pb-0!">
        <title>{`${word(station)}: ${view.name} - Vanadin`}</title>
        <header className="no-print relative pt-3 max-bench:hidden">
          <JobHeatLine current={current} />
          <JobName />
          <JobTools station={station} />
        </header>
        <PhoneLine current={current} station={station} />
        {!SAYS_IT_ITSELF.includes(station) && (
          <div className="no-print sticky top-0 z-20 bg-iron py-1 bench:hidden">
            <HotNow />
          </div>
        )}
        <div className="flex min-h-0 grow gap-4 pt-3 pb-3 max-bench:flex-col max-bench:pt-1 print:block">
          <main
            key={station}
            {...WORK_SURFACE}
            aria-label={word(station)}
            className="flex min-h-0 min-w-0 grow flex-col max-bench:min-h-[70vh]"
          >
            <Told />
            <AsIfBar />
            <PracticeBar />
            <Suspense>
              {view.practice?.ended === true && station === 'hand_over' ? <PracticeEnd /> : <Surface />}
              <Arrive station={station} />
            </Suspense>
          </main>
          <div className="no-print flex w-[344px] shrink-0 flex-col max-bench:w-full">
            {!SAYS_IT_ITSELF.includes(station) && (
              <div className="pb-2 max-bench:hidden">
                <HotNow />
              </div>
            )}
            {alone ? (
              <PracticeGear />
            ) : (
              <Card station={station} {...(station === 'iron' ? { first: <Belief /> } : {})} />
            )}
            {!alone && (view.standing.station !== station || beside) && <NextPlate here={station} />}
          </div>
        </div>
      </div>
    </div>
  )
}

/** The work goes on here: at the top of the station, or in the field that was meant; the keys too. */
function Arrive({ station }: { station: Station }): ReactNode {
  const { view } = useJob()
  const { state } = useLocation() as { state: { field?: string } | null }
  const field = state?.field ?? ''
  useEffect(() => {
    window.scrollTo(0, 0)
    if (field !== '') focusField(field)
    if (!isWaitedFor() && !isInAField()) focusWork()
  }, [station, field])
  // What had the keys may have gone with what was said.
  useEffect(() => {
    if (document.activeElement === document.body && !isWaitedFor()) focusWork()
  }, [view.revision])
  return null
}

/** What has to be known of a job that was just opened. */
function Told(): ReactNode {
  const { state } = useLocation() as { state: { told?: string } | null }
  const told = state?.told ?? ''
  if (told === '') return null
  return (
    <p role="status" data-testid="told" className="mb-2 border-l-[3px] border-chalk pl-3 font-semibold">
      {told}
    </p>
  )
}

/** Says that the plan on the page is one for an iron that is only supposed. */
function AsIfBar(): ReactNode {
  const { view, asIf, seeAsIf } = useJob()
  if (asIf === null) return null
  const label = view.plan.iron.shares.find((share) => share.iron === asIf)?.label ?? asIf
  return (
    <p
      role="status"
      className="mb-2 flex items-center justify-between gap-3 border-[1.5px] border-dashed border-chalk px-3 py-1"
    >
      <span>
        <b>As if it were {label.toLowerCase()}.</b> The plan on this page is for that iron alone.
      </span>
      <Button onPress={() => seeAsIf(null)}>Back to what it may be</Button>
    </p>
  )
}

/** Here the temperature is the largest thing there is. */
const SAYS_IT_ITSELF: readonly Station[] = ['torch', 'cooling']

/** These stations carry no plate of their own: the one beside them leads to the field in question. */
const PLATE_BESIDE: readonly Station[] = ['part', 'prep', 'heat', 'check']

/** The next thing to do: the plate goes to its station, or to its field when that is here. */
function NextPlate({ here }: { here: Station }): ReactNode {
  const { view, say } = useJob()
  const { next } = view.standing
  const shop = useShop()
  const now = useNow()
  const navigate = useNavigate()
  return (
    <div className="pt-3 [&>.plate]:w-full">
      <Plate
        testId="next"
        onPress={() => {
          // The first crack is put on the map by the same press that goes there.
          const key = next.key === 'crack' ? `crack.${say({ kind: 'add_crack' })}.length` : next.key
          if (next.station === here) focusField(key)
          else void navigate(`/jobs/${view.id}/${pathOf(next.station)}`, { state: { field: key } })
        }}
      >
        {next.verb}
        {next.at_ms != null && ` ${foreseen(next.at_ms, shop, now)}`}
      </Plate>
    </div>
  )
}

function JobName(): ReactNode {
  const { view } = useJob()
  const { job } = view
  const words = [view.plan.body_words, `round ${job.rounds.length}`].filter((word) => word !== 'not known')
  return (
    <div className="absolute top-2.5 left-0 flex items-start gap-3 bg-iron pr-4">
      <Link to="/" aria-label="Rack" className="-mr-2 flex min-h-11 min-w-11 items-center">
        <Crystal />
      </Link>
      <div>
        <h1 className="text-[35px] leading-9">{view.name}</h1>
        <p className="label">{view.practice == null ? words.join(', ') : 'practice'}</p>
      </div>
    </div>
  )
}
