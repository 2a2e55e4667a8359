import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { themeOf, useShop } from '../../job/ShopContext'
import { STATIONS } from '../../job/stations'
import { useStationWord } from '../../job/useStationWord'
import { day, minutes } from '../../quantity/show'
import { HeatChart } from '../../ui/HeatChart'
import { RecordProofs, RecordSeen } from './RecordSeen'

/** The record on one page: what was planned, what was done, what to expect. */
export function RecordPage(): ReactNode {
  const { view, typed, field } = useJob()
  const shop = useShop()
  const { job } = view
  const round = job.rounds.at(-1)
  const owner = typed('part.owner')
  const endLabel = (crack: string, side: string, kind: string) =>
    field(`crack.${crack}.${side === 'left' ? 'end_a' : 'end_b'}`)
      .choices.find((choice) => choice.id === kind)
      ?.label.toLowerCase() ?? 'not known yet'
  const leading = view.plan.iron.shares[0]
  const sure = view.plan.figures.find((figure) => figure.id === 'iron.sure')
  const found = view.plan.iron.found
    .filter((line) => line.state === 'counts' || line.state === 'counts_by_half')
    .map((line) => line.words)
    .join('; ')
  return (
    <article className="text-[14.5px] max-bench:text-[16px]" data-testid="record">
      <header className="flex items-baseline justify-between border-b-2 border-chalk pb-1">
        <h2 className="text-[32px] leading-9">{view.name}</h2>
        {view.practice != null && <b>Practice on a made-up part. No repair.</b>}
        <span>{shop.name}</span>
      </header>
      <p className="py-1.5 text-ash">
        {[
          owner === '' ? '' : `of ${owner}`,
          view.plan.body_words,
          `${job.rounds.length} round${job.rounds.length === 1 ? '' : 's'}`,
        ]
          .filter((word) => word !== '' && word !== 'not known')
          .join(', ')}
        {round?.lit != null && `, lit ${day(round.lit.at_ms, shop)}`}
        {round?.lit != null && round.lit.speed !== 1 && `, job clock at ${round.lit.speed} times`}
      </p>
      {leading !== undefined && (
        <p>
          Iron: <b>{leading.label.toLowerCase()}</b>
          {sure !== undefined && `, ${Object.values(sure.shown).join(' ').trim()} sure`}
          {found !== '' && <span className="text-ash">. {found}.</span>}
        </p>
      )}
      {view.plan.cracks.length > 0 && (
        <p className="border-b border-rule pb-1">
          {view.plan.cracks
            .map(
              (crack) =>
                `Crack ${crack.letter}: ${crack.words}, ${endsOf(crack, view.plan.figures, (side, kind) => endLabel(crack.id, side, kind))}`,
            )
            .join('. ')}
          .
        </p>
      )}
      <div className="print:grid print:auto-cols-fr print:grid-flow-col print:gap-x-8">
        <RecordSeen />
        {round?.lit != null && round.readings.length > 1 && (
          <div className="mt-2 print:mt-1">
            <HeatChart
              name="The record: readings against time"
              theme={themeOf(shop)}
              units={shop.units}
              until={Math.max(round.readings.at(-1)?.minutes ?? 60, round.lit.frozen?.curve.at(-1)?.[0] ?? 0)}
              top={topOf(round)}
              plan={round.lit.frozen?.curve ?? []}
              record={round.readings}
              levels={[]}
              small
              tick={minutes}
            />
          </div>
        )}
      </div>
      {view.plan.hand_over.rounds.map((told) => (
        <p
          key={told.number}
          className="border-b border-rule py-1 [overflow-wrap:anywhere]"
          data-testid="round-told"
        >
          <b>
            Round {told.number}
            {told.lit_ms != null && `, ${day(told.lit_ms, shop)}`}
          </b>
          : {told.words}
        </p>
      ))}
      {round !== undefined && (
        <div className="grid grid-cols-2 gap-x-8 max-bench:grid-cols-1 print:grid-cols-2">
          {job.rounds.length > 1 && (
            <h3 className="col-span-full pt-1 text-[20px]">
              Round {job.rounds.length}
              {round.reason !== '' && `: ${round.reason}`}
            </h3>
          )}
          <Planned round={round} />
          <Done round={round} />
        </div>
      )}
      <RecordProofs />
      <div className="print:grid print:grid-cols-2 print:gap-x-8">
        {view.plan.hand_over.lightings.length > 0 && (
          <Section title="The lightings">
            {view.plan.hand_over.lightings.map((line, at) => (
              <p key={at} className="[overflow-wrap:anywhere]">
                {line}
              </p>
            ))}
          </Section>
        )}
        {view.plan.hand_over.used.length > 0 && (
          <Section title="Taken from the stores">
            <p>{view.plan.hand_over.used.join('; ')}.</p>
          </Section>
        )}
        <Finished plan={view.plan.finish} />
        <Shape bench={view.plan.bench} />
        <Notes />
      </div>
      <Section title="Cautions">
        <p>{(round?.lit?.frozen?.cautions ?? view.plan.cautions.map((c) => c.sentence)).join(' ')}</p>
      </Section>
      <Expect />
      <div className="mt-5 grid grid-cols-[1fr_1fr_1fr] gap-8 text-[14px] max-bench:text-[16px] print:text-[12px]">
        <Sign name="Repaired by" />
        <Sign name="Taken back by" />
        <Sign name="Date" />
      </div>
      <p className="only-print pt-1 text-right text-[12px]">Printed {day(view.now_ms, shop)}</p>
    </article>
  )
}

/** What to expect of it, what was answered since, when it is asked again. */
function Expect(): ReactNode {
  const { view, typed } = useJob()
  const shop = useShop()
  const expect = typed('hand_over.expect')
  const { afterwards } = view.plan.hand_over
  const asks = afterwards.became === 'failed' ? [] : afterwards.asks.filter((ask) => !ask.answered)
  return (
    <Section title="What to expect, what not to do">
      <p>{expect === '' ? 'Nothing written yet.' : expect}</p>
      {view.plan.cautions
        .filter((caution) => ['check', 'hand_over'].includes(caution.station))
        .map((caution) => (
          <p key={caution.sentence}>{caution.sentence}</p>
        ))}
      <p>
        {view.plan.bench.cause.length > 0
          ? view.plan.bench.cause.join(' ')
          : 'This mends the break, not its cause.'}{' '}
        Nobody promises that a repaired casting is as new.
      </p>
      {afterwards.answers.map((answer) => (
        <p key={answer.fact} className="[overflow-wrap:anywhere]">
          Asked {day(answer.at_ms, shop)}: <b>{answer.words}</b>.{' '}
          {[answer.did, answer.note].filter((words) => words !== '').join('. ')}
        </p>
      ))}
      <p>
        <b>
          {asks.length > 0
            ? `We ask how it is holding on ${asks.map((ask) => ask.day).join(', ')}.`
            : afterwards.answers.length === 0 && 'No day set to ask again.'}
        </b>
      </p>
    </Section>
  )
}

/** What was done to it once it was cold and good, and what was left for whoever has it. */
function Finished({ plan }: { plan: Schemas['FinishPlan'] }): ReactNode {
  const told = (done: boolean) =>
    plan.lines
      .filter((line) => line.done === done)
      .map((line) => `${line.word.toLowerCase()}${line.place === '' ? '' : ` (${line.place})`}`)
      .join('; ')
  const [done, open] = [told(true), told(false)]
  if (done === '') return null
  return (
    <Section title="Finish">
      <p className="first-letter:uppercase">{done}.</p>
      {open !== '' && <p>Not done: {open}.</p>}
    </Section>
  )
}

/** How the pieces fitted, and what had to be as it was. */
function Shape({ bench }: { bench: Schemas['BenchPlan'] }): ReactNode {
  const fitted = bench.breaks
    .filter((it) => it.read.length > 0)
    .map((it) => `The pieces of ${it.letter}: ${it.read.map((line) => line.words).join('; ')}.`)
  const sizes = bench.features.map(
    (it) =>
      `${it.name}, ${it.words}: ${it.verdict === '' ? 'not measured' : it.verdict}.${it.to_do === '' ? '' : ` ${it.to_do}`}`,
  )
  const missing = bench.missing.map((it) => `${it.name}: ${it.sentence}`)
  const lines = [...fitted, ...sizes, ...missing]
  if (lines.length === 0) return null
  return (
    <Section title="Shape">
      {lines.map((line) => (
        <p key={line} className="first-letter:uppercase">
          {line}
        </p>
      ))}
    </Section>
  )
}

/** What was noted, station by station. */
function Notes(): ReactNode {
  const { typed } = useJob()
  const word = useStationWord()
  const notes = (['job', ...STATIONS.map((entry) => entry.station)] as const)
    .map((of) => ({ of, words: typed(`note.${of}`) }))
    .filter(({ words }) => words !== '')
  if (notes.length === 0) return null
  return (
    <Section title="Notes">
      {notes.map(({ of, words }) => (
        <p key={of} className="[overflow-wrap:anywhere]">
          {of === 'job' ? '' : `${word(of)}: `}
          {words}
        </p>
      ))}
    </Section>
  )
}

/** Room for what was read and for what was planned, in degC. */
const topOf = ({ readings, lit }: Schemas['RoundSeen']): number => {
  const planned = (lit?.frozen?.curve ?? []).map(([, celsius]) => celsius)
  const hottest = Math.max(...readings.map((reading) => reading.celsius), ...planned)
  return Math.ceil((hottest * 1.12) / 50) * 50
}

/** A line to be signed. */
const Sign = ({ name }: { name: string }): ReactNode => <p className="border-t border-chalk pt-0.5">{name}</p>

/** "left end runs out at an edge, right end stop-hole 6.5 mm". */
const endsOf = (
  crack: Schemas['CrackPlan'],
  figures: readonly Schemas['FigureSeen'][],
  labelOf: (side: string, kind: string) => string,
): string =>
  crack.ends
    .map((end) => {
      const drill = figures.find((figure) => figure.id === `cracks.${crack.id}.${end.side}.drill`)
      return drill === undefined
        ? `${end.side} end ${labelOf(end.side, end.kind ?? '')}`
        : `${end.side} end stop-hole ${Object.values(drill.shown).join(' ')}`
    })
    .join(', ')

const SHOWN = ['heat.target', 'prep.rods', 'prep.pins', 'prep.beads', 'cooling.unwrap', 'method.odds']

interface RoundProps {
  /** The round in hand: what is planned and checked belongs to it. */
  round: Schemas['RoundSeen']
}

function Planned({ round }: RoundProps): ReactNode {
  const { view } = useJob()
  const frozen = round.lit?.frozen ?? null
  const figures = [...(frozen?.figures ?? view.plan.figures)].filter((figure) => SHOWN.includes(figure.id))
  return (
    <Section title={frozen === null ? 'Planned, not lit yet' : 'As planned when it was lit'}>
      <p>
        <b>{frozen?.label ?? view.plan.methods.headline}</b>
      </p>
      {round.lit?.owned !== undefined && round.lit.owned !== '' && (
        <p>Lit although the heat may not do: {round.lit.owned}</p>
      )}
      {view.plan.prep != null && view.plan.prep.filler !== '' && <p>{view.plan.prep.filler}</p>}
      {figures.map((figure) => (
        <FigureLine key={figure.id} figure={figure} />
      ))}
    </Section>
  )
}

function Done({ round }: RoundProps): ReactNode {
  const { view } = useJob()
  const log = round.log.filter((entry) => entry.struck == null)
  const count = (kind: Schemas['TorchEntry']['kind']) =>
    log.filter((entry) => entry.entry.kind === kind).length
  const piece = view.plan.torch?.flow != null ? 'seam' : (view.plan.torch?.piece ?? 'bead')
  const done = count(piece === 'pin' ? 'pin' : 'bead')
  const counted = [
    `${done} ${piece}${done === 1 ? '' : 's'}`,
    ...(['peened', 'reheated'] as const)
      .filter((kind) => count(kind) > 0)
      .map((kind) => `${count(kind)} ${kind === 'peened' ? 'peened' : 'reheats'}`),
  ].join(', ')
  const notes = log.flatMap((entry) => (entry.entry.kind === 'note' ? [entry.entry.text] : []))
  const covered = log.find((entry) => entry.entry.kind === 'covered')
  const stopped = covered?.entry.kind === 'covered' ? (covered.entry.why ?? '') : ''
  const unwrapped = log.find((entry) => entry.entry.kind === 'unwrapped')
  const passed = view.plan.torch?.passed ?? []
  return (
    <Section title="As done">
      {log.length === 0 && <p>Nothing is logged yet.</p>}
      {log.length > 0 && <p>{counted}.</p>}
      {covered !== undefined && (
        <p>
          Covered {covered.at} after lighting up{stopped !== '' && `: ${stopped}`}
          {unwrapped !== undefined && `, unwrapped ${unwrapped.at} after it`}.
        </p>
      )}
      {round.cancelled.map((heat) => (
        <p key={heat.lit.fact}>A lighting was cancelled.</p>
      ))}
      {passed.map((words) => (
        <p key={words}>
          <b>{words}</b>
        </p>
      ))}
      {round.hottest != null && <FigureLine figure={round.hottest} />}
      {notes.map((note) => (
        <p key={note}>“{note}”</p>
      ))}
      {view.plan.check.map((line) => (
        <p key={line.key} className="flex justify-between border-b border-rule">
          <span>
            {line.label}
            {foundThere(line).map((words) => (
              <span key={words} className="block text-ash">
                {words}
              </span>
            ))}
          </span>
          <b>{VERDICTS[line.verdict]}</b>
        </p>
      ))}
      {view.plan.hand_over.open.length > 0 && <p>Open: {view.plan.hand_over.open.join(' ')}</p>}
      {view.plan.hand_over.owned !== '' && <p>Goes out as it is: {view.plan.hand_over.owned}</p>}
    </Section>
  )
}

const VERDICTS: Readonly<Record<Schemas['CheckState'], string>> = {
  ok: 'good',
  not_ok: 'not good',
  left: 'left, and said so',
  open: 'not looked at',
}

/** What was found at its places, and what is done about it. */
function foundThere(line: Schemas['CheckLine']): string[] {
  const places = line.places.filter((place) => place.sentence !== '')
  const proved = line.proof?.done_words ?? ''
  const found = places.map((place) =>
    [`${place.words}: ${place.sentence}`, place.then_words ?? ''].filter((words) => words !== '').join(' '),
  )
  return proved === '' ? found : [...found, proved]
}

/** A figure; as it was planned when it was lit in both systems: whoever reads the record may use either. */
function FigureLine({ figure }: { figure: Schemas['FrozenFigureSeen'] | Schemas['FigureSeen'] }): ReactNode {
  const [shown, other] = 'shown' in figure ? [figure.shown] : [figure.metric, figure.imperial]
  return (
    <p className="flex justify-between border-b border-rule">
      <span>{figure.name}</span>
      <span className="figure text-[17px]">
        {shown.number} {shown.unit}
        {other !== undefined && other.unit !== shown.unit && ` (${other.number} ${other.unit})`}
      </span>
    </p>
  )
}

function Section({ title, children }: { title: string; children: ReactNode }): ReactNode {
  return (
    <section className="pt-2">
      <h3 className="text-[20px]">{title}</h3>
      {children}
    </section>
  )
}
