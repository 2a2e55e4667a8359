import { useRef, type ReactNode } from 'react'
import { Fig } from '../../job/Fig'
import { LitNow } from '../../job/LitNow'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import type { Plan, Station } from '../../api/client'
import { STATIONS } from '../../job/stations'
import { CardContext } from '../../ui/focus'
import { useWholeLines } from '../../ui/useWholeLines'
import { OddsMoved } from './OddsMoved'
import { useMoved } from './useMoved'

/** Where the work moves them: elsewhere the card has enough to say. */
const AT_WORK: ReadonlySet<Station> = new Set(['torch', 'cooling', 'check', 'hand_over'])

export interface CardProps {
  station: Station
  /** The station's own thing, shown first. */
  first?: ReactNode
}

/** The traveller tied to the part: the running plan, always in sight. */
export function Card({ station, first }: CardProps): ReactNode {
  const { view } = useJob()
  const { plan } = view
  const leading = plan.iron.shares[0]
  const { moved, seen } = useMoved(view)
  const bar = (...ids: string[]) => moved.some((m) => ids.includes(m.id))
  const chosen = plan.methods.chosen
  const contender = plan.methods.contenders.find((c) => c.way.method === chosen?.method)
  const odds = plan.figures.find((f) => f.id === 'method.odds')
  const rods = plan.figures.find((f) => f.id === 'prep.rods')
  // What the stores have of it.
  const here = plan.takes.find((take) => take.when === 'done')?.here_words ?? ''
  const card = useRef<HTMLElement>(null)
  const { frame, cover, under } = useWholeLines('[data-line]')
  const elapsed = plan.figures.find((f) => f.id === 'method.hours')
  const between = elapsed?.between ?? ''
  return (
    <CardContext value={card}>
      <aside
        ref={card}
        aria-label="Card"
        data-card=""
        className="tag flex min-h-0 flex-col bg-slab px-4 pt-3 pb-3"
      >
        <svg width="26" height="26" aria-hidden className="mx-auto shrink-0">
          <circle cx="13" cy="13" r="12" fill="none" stroke="var(--scribe)" strokeWidth="1.5" />
          <circle cx="13" cy="13" r="7.5" fill="var(--iron)" stroke="var(--scribe)" strokeWidth="1.5" />
        </svg>
        <div
          ref={frame}
          tabIndex={under > 0 ? 0 : undefined}
          role={under > 0 ? 'region' : undefined}
          aria-label={under > 0 ? 'The card' : undefined}
          className="min-h-0 grow overflow-auto"
        >
          {first ?? (
            <Row name="Iron" moved={bar('iron.sure')}>
              <span className="words mr-2 text-[26px]">{leading?.label}</span>
              <Fig id="iron.sure" />
            </Row>
          )}
          <Row name="Method" moved={false}>
            <b>{contender?.label ?? (plan.locks[0] === undefined ? 'not decided' : plan.locks[0].short)}</b>
          </Row>
          <Row name="Preheat" moved={bar('heat.target')} under={underPreheat(plan, first === undefined)}>
            {plan.heat?.cold === true && plan.methods.chosen?.school === 'no_heat' ? (
              <b>none</b>
            ) : plan.heat?.cold === true && plan.methods.chosen?.school === 'arc_only' ? (
              <b>none, {plan.heat.most_words}</b>
            ) : (
              <Fig id="heat.target" size="card" />
            )}
          </Row>
          {first !== undefined ? null : plan.methods.sets_pins ? (
            <Row name="Pins" moved={bar('prep.pins')} under={here}>
              <Fig id="prep.pins" size="card" />
            </Row>
          ) : plan.prep != null && rods === undefined ? null : (
            <Row
              name={rods?.name ?? 'Rods'}
              moved={bar('prep.rods')}
              under={first === undefined ? [plan.prep?.filler ?? '', here].filter(Boolean).join('; ') : ''}
            >
              <Fig id="prep.rods" size="card" />
            </Row>
          )}
          {first === undefined && (
            <>
              <Row name="Heat with" moved={false}>
                <b>{plan.heat == null ? <Unknown /> : plan.heat.cold ? 'nothing' : plan.heat.source_label}</b>
              </Row>
              <Row
                name="Start to finish"
                moved={bar('method.hours')}
                under={
                  contender?.hours == null ? (
                    ''
                  ) : (
                    <>
                      {[between, contender.ready?.begun !== false ? '' : `ready ${contender.ready.words}`]
                        .filter(Boolean)
                        .join('; ')}
                      {contender.ready?.begun === false ? '. ' : ' '}
                      <LitNow />
                    </>
                  )
                }
              >
                <Fig id="method.hours" size="card" />
              </Row>
              <Row
                name="Price"
                moved={bar('method.price')}
                under={plan.figures.find((f) => f.id === 'method.price')?.note ?? ''}
              >
                <Fig id="method.price" size="card" otherwise="needs rates" />
              </Row>
            </>
          )}
          <Row
            name="Odds"
            moved={bar('method.odds')}
            under={
              <>
                {first === undefined && (odds?.note ?? '')}
                {odds !== undefined && AT_WORK.has(station) && <OddsMoved />}
              </>
            }
          >
            <Fig id="method.odds" size="card" />
          </Row>
          <Cautions station={station} />
          {under > 0 && (
            <p
              className="sticky bottom-0 bg-slab pt-1 small text-ash"
              style={{ height: cover }}
              data-testid="under-the-card"
            >
              {under === 1 ? '1 more line below' : `${under} more lines below`}
            </p>
          )}
        </div>
        <MovedFoot moved={moved} seen={seen} />
      </aside>
    </CardContext>
  )
}

/** Where to read it, and which of several irons forced it. */
function underPreheat(plan: Plan, whole: boolean): string {
  const forced = plan.figures.find((figure) => figure.id === 'heat.target')?.forced_by ?? ''
  const said = [
    forced === '' ? '' : `${forced} forces it`,
    whole && plan.heat != null && !plan.heat.cold ? plan.heat.read_at : '',
  ]
  return said.filter((words) => words !== '').join('; ')
}

const Unknown = (): ReactNode => <span className="font-normal text-ash">not known yet</span>

interface RowProps {
  name: string
  moved: boolean
  under?: ReactNode
  children: ReactNode
}

function Row({ name, moved, under = '', children }: RowProps): ReactNode {
  return (
    <div
      data-line=""
      className={`-ml-4 border-l-[3px] pl-[13px] ${moved ? 'border-chalk' : 'border-transparent'}`}
    >
      <div className="border-b border-rule py-0.5">
        <div className="flex min-h-8 items-center justify-between gap-3">
          <span className="label">{name}</span>
          <span className="text-right">{children}</span>
        </div>
        {under !== '' && (
          <p className="pb-0.5 text-right small leading-[18px] text-ash empty:hidden">{under}</p>
        )}
      </div>
    </div>
  )
}

/** What matters at this station, then at the next. */
function Cautions({ station }: { station: Station }): ReactNode {
  const { view } = useJob()
  const order = STATIONS.map((entry) => entry.station)
  const of = (ahead: number) =>
    view.plan.cautions.filter((caution) => order.indexOf(caution.station) - order.indexOf(station) === ahead)
  const answered = view.plan.part.answered_for
  const near = [...of(0), ...of(1)].filter((caution) => caution.sentence !== answered)
  if (near.length === 0 && answered === '') return null
  return (
    <section aria-label="Cautions now" className="pt-2">
      <h2 className="label !font-sans !font-normal">Cautions now</h2>
      {answered !== '' && (
        <p className="border-l-[3px] border-chalk py-0.5 pl-2.5 font-semibold" data-testid="answered-for">
          {answered}
        </p>
      )}
      <ul>
        {near.map((caution) => (
          <li key={caution.sentence} data-line="" className="flex gap-2 py-0.5">
            <svg width="16" height="16" aria-hidden className="mt-0.5 shrink-0">
              <path d="M8 1.5 15 14.5H1z" fill="none" stroke="var(--chalk)" strokeWidth="1.5" />
            </svg>
            {caution.sentence}
          </li>
        ))}
      </ul>
    </section>
  )
}

interface MovedFootProps {
  moved: ReturnType<typeof useMoved>['moved']
  seen: () => void
}

function MovedFoot({ moved, seen }: MovedFootProps): ReactNode {
  const { units } = useShop()
  const { view } = useJob()
  const told = moved.filter((m) => (units === 'imperial' ? m.was_imperial !== m.now_imperial : true))
  if (told.length === 0) return null
  const shown = told.slice(0, 3).map((m) => {
    const figure = view.plan.figures.find((f) => f.id === m.id)
    const now = figure === undefined ? m.now_metric : Object.values(figure.shown).join(' ').trim()
    return { id: m.id, name: m.name, was: units === 'imperial' ? m.was_imperial : m.was_metric, now }
  })
  return (
    <div role="status" className="mt-2 flex items-end justify-between gap-3 border-t border-rule pt-2">
      <div className="min-w-0 border-l-[3px] border-chalk pl-2.5 small leading-[18px]">
        <b>{told.length === 1 ? '1 figure moved' : `${told.length} figures moved`}</b>
        {shown.map((m) => (
          <p key={m.id} className="text-ash">
            {m.name}: was <s>{m.was}</s>, now <b className="text-chalk">{m.now}</b>
          </p>
        ))}
      </div>
      <button
        type="button"
        onClick={seen}
        className="min-h-11 shrink-0 border-[1.5px] border-dim px-4 font-semibold"
      >
        Noted
      </button>
    </div>
  )
}
