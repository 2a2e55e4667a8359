import { useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import { api, dataOf, type Schemas } from '../../api/client'
import { practiceEndQuery } from '../../api/queries'
import { newId } from '../../api/queue/new-id'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { Plate } from '../../ui/Plate'
import { TruthMap } from './TruthMap'

type Ended = Schemas['Ended']

/** What became of a made-up part, and why: the parts as bars, the truth, what each choice would have made of it. */
export function PracticeEnd(): ReactNode {
  const { view } = useJob()
  const { revision, units } = useShop()
  const { data: ended, error } = useQuery(practiceEndQuery(view.id, revision, units))
  if (error !== null) return <p role="alert">{error.message}</p>
  if (ended === undefined) return null
  return (
    <div className="flex min-h-0 grow flex-col gap-4 overflow-auto">
      <div>
        <h2 className="text-[32px] leading-9" data-testid="became">
          {ended.headline}
        </h2>
        <p className="text-[19px]">
          Of a hundred such repairs{' '}
          <b className="figure text-[24px]">{ended.of_100.replace(' of 100', '')}</b> hold a year.{' '}
          {ended.holds ? 'This one was among them.' : 'This one was not among them.'}
        </p>
      </div>
      <Again />
      {ended.parts.length > 0 && <Parts parts={ended.parts} />}
      <section aria-label="What it was">
        <h3 className="text-[22px]">What it was</h3>
        <ul>
          {ended.truth.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
        <TruthMap tips={ended.tips} />
        {ended.tips.map((tip) => (
          <TrueEnd key={`${tip.crack}${tip.end}`} tip={tip} />
        ))}
      </section>
      {ended.otherwise.length > 0 && <Otherwise ended={ended} />}
      <HandBack />
    </div>
  )
}

/** Log-odds that fill the width of a bar. */
const FULL = 2.5

function Parts({ parts }: { parts: readonly Schemas['EndedPart'][] }): ReactNode {
  return (
    <section aria-label="Why">
      <h3 className="text-[22px]">Why</h3>
      <ul>
        {parts.map((part) => (
          <li
            key={part.name}
            className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_9rem] items-center gap-3 border-b border-rule py-1 max-bench:grid-cols-1 max-bench:gap-0"
          >
            <span>{part.words}</span>
            <svg viewBox="0 0 200 14" className="w-full max-w-[320px]" aria-hidden>
              <path d="M100 0V14" stroke="var(--dim)" strokeWidth="1.5" />
              <rect
                x={part.shift < 0 ? 100 - barOf(part.shift) : 100}
                y="2"
                width={barOf(part.shift)}
                height="10"
                fill={part.shift < 0 ? 'var(--chalk)' : 'none'}
                stroke="var(--chalk)"
                strokeWidth="1.5"
              />
            </svg>
            <span className="text-right max-bench:text-left">
              <b>{part.moves}</b>
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

const barOf = (shift: number): number => Math.min(Math.abs(shift) / FULL, 1) * 98

/** House: so many mm are drawn. */
const DRAWN_MM = 16

/** Where it was found to end, where its hole reaches, and where it really ends. */
function TrueEnd({ tip }: { tip: Schemas['TrueTip'] }): ReactNode {
  const x = (mm: number) => 120 + (Math.min(mm, DRAWN_MM) / DRAWN_MM) * 190
  const reach = tip.hole_to_mm ?? null
  return (
    <figure className="mt-2 flex flex-wrap items-center gap-x-4">
      <svg viewBox="0 0 340 64" className="w-full max-w-[340px]" role="img" aria-label={tip.words}>
        <path d="M0 34L40 30L74 37L120 34" fill="none" stroke="var(--chalk)" strokeWidth="2.5" />
        <path
          d={`M120 34H${x(tip.beyond_mm)}`}
          stroke="var(--chalk)"
          strokeWidth="2.5"
          strokeDasharray="2 5"
        />
        <path d={`M${x(tip.beyond_mm)} 26V42`} stroke="var(--chalk)" strokeWidth="2.5" />
        {reach !== null && (
          <circle
            cx={x(Math.max(reach - 3, 0))}
            cy="34"
            r={x(3) - x(0)}
            fill="none"
            stroke="var(--ash)"
            strokeWidth="2"
          />
        )}
        <text x="120" y="14" fontSize="13" fill="var(--ash)" textAnchor="end">
          found
        </text>
        <text x={x(tip.beyond_mm)} y="58" fontSize="13" fill="var(--chalk)" textAnchor="middle">
          it ended here
        </text>
      </svg>
      <figcaption>{tip.words}</figcaption>
    </figure>
  )
}

function Otherwise({ ended }: { ended: Ended }): ReactNode {
  return (
    <section aria-label="With one choice changed">
      <h3 className="text-[22px]">The same part, one choice changed</h3>
      <ul>
        {ended.otherwise.map((other) => (
          <li
            key={other.choice}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1.5"
          >
            <b className="shrink-0">{other.words}:</b>
            <span className="min-w-0 grow">{other.of_100}.</span>
            <span className={other.holds ? 'font-semibold' : 'text-ash'}>
              {other.holds ? 'this one too' : 'not this one'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** The same secret and the same luck, from the beginning. */
function Again(): ReactNode {
  const { view } = useJob()
  const navigate = useNavigate()
  const lit = view.job.rounds.some((round) => round.lit != null || round.cancelled.length > 0)
  const again = async (level: Schemas['Level'], from: Schemas['PlayedFrom'] = 'beginning') => {
    const made = dataOf(
      'JobView',
      await api.POST('/api/jobs/{id}/practice/again', {
        params: { path: { id: view.id } },
        body: { id: newId(), level, from },
      }),
    )
    void navigate(`/jobs/${made.id}/${from === 'beginning' ? 'part' : 'heat'}`)
  }
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Plate testId="again" onPress={() => void again('with_the_plan')}>
        Play it again, with the plan
      </Plate>
      {lit && (
        <Button onPress={() => void again(view.practice?.level ?? 'with_the_plan', 'before_the_heat')}>
          From before it was lit
        </Button>
      )}
      <Button onPress={() => void again('alone')}>Again, alone</Button>
      <Link to="/practice" className="flex min-h-11 items-center underline">
        All cases
      </Link>
    </div>
  )
}

/** The file a learner hands back. */
function HandBack(): ReactNode {
  const { view } = useJob()
  const [who, setWho] = useState('')
  return (
    <section aria-label="For a teacher" className="flex flex-wrap items-end gap-3 border-t border-rule pt-2">
      <label className="label flex flex-col gap-1">
        <span>Handed back by</span>
        <input
          value={who}
          maxLength={80}
          onChange={(event) => setWho(event.target.value)}
          className="min-h-11 w-56 border-[1.5px] border-dim bg-raise px-3 text-[17px] font-semibold text-chalk"
        />
      </label>
      <a
        href={`/api/jobs/${view.id}/practice/result?who=${encodeURIComponent(who.trim())}`}
        download={`practice-result-${view.practice?.seed ?? 0}.json`}
        className="flex min-h-11 items-center border-[1.5px] border-scribe px-4 font-semibold"
      >
        The result as a file
      </a>
    </section>
  )
}
