import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { api, dataOf, Refused, type Schemas } from '../../api/client'
import { practiceQuery } from '../../api/queries'
import { newId } from '../../api/queue/new-id'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { WORK_SURFACE } from '../../ui/focus'
import { Head } from '../Head'
import { Cases } from './Cases'
import { OwnCurve } from './OwnCurve'
import { Teacher } from './Teacher'

type Level = Schemas['Level']

const LEVELS = [
  { id: 'with_the_plan', label: 'With the plan' },
  { id: 'alone', label: 'Alone' },
]

/** Made-up parts with a secret: ten lessons, free cases, one's own curve. Nothing of it counts in the shop. */
export function PracticePage(): ReactNode {
  const { data: place, isError } = useQuery({ ...practiceQuery(), placeholderData: keepPreviousData })
  const navigate = useNavigate()
  const [level, setLevel] = useState<Level>('with_the_plan')
  const [problem, setProblem] = useState('')
  const begin = async (lesson: string | null, seed: number | null) => {
    setProblem('')
    try {
      const made = dataOf(
        'JobView',
        await api.POST('/api/practice', { body: { id: newId(), lesson, seed, level } }),
      )
      void navigate(`/jobs/${made.id}/part`)
    } catch (error) {
      setProblem(error instanceof Refused ? error.message : 'The server is not reached.')
    }
  }
  return (
    <div
      data-practice=""
      className="mx-auto flex min-h-[calc(100vh-var(--tray,0px))] max-w-[1480px] flex-col"
    >
      <title>Practice - Vanadin</title>
      <Head at="practice" />
      <main {...WORK_SURFACE} aria-label="Practice" className="grow px-5 pt-4 pb-8 max-bench:px-4">
        {isError && place === undefined && (
          <p>The server is not reached, and the cases were not seen here before.</p>
        )}
        {place !== undefined && (
          <div className="grid grid-cols-[minmax(0,1fr)_400px] gap-8 max-bench:grid-cols-1 max-bench:gap-4">
            <section aria-label="Lessons">
              <div className="flex flex-wrap items-end justify-between gap-3">
                <h1 className="words text-[38px] leading-10 max-bench:text-[30px] max-bench:leading-9">
                  A made-up part with a secret
                </h1>
                <Choice
                  label="How it is played"
                  choices={LEVELS}
                  chosen={level}
                  onChoose={(id) => setLevel(id === 'alone' ? 'alone' : 'with_the_plan')}
                />
              </div>
              <p className="mt-1 max-w-[75ch] text-ash">
                It answers like iron does, by chance and by what you do. Nothing of it counts in this shop:
                not in the ledger, the stores or the calendar.
              </p>
              {problem !== '' && (
                <p role="alert" className="mt-2 border-l-[3px] border-chalk pl-3 font-semibold">
                  {problem}
                </p>
              )}
              <ol className="mt-3">
                {place.lessons.map((lesson, at) => (
                  <Lesson
                    key={lesson.id}
                    lesson={lesson}
                    number={at + 1}
                    onBegin={() => void begin(lesson.id, null)}
                  />
                ))}
              </ol>
            </section>
            <div className="flex flex-col gap-6">
              <FreeCase onBegin={(seed) => void begin(null, seed)} />
              <OwnCurve curve={place.curve} />
              <Cases cases={place.cases} />
              <Teacher results={place.results} level={level} onProblem={setProblem} />
            </div>
          </div>
        )}
      </main>
    </div>
  )
}

interface LessonProps {
  lesson: Schemas['LessonLine']
  number: number
  onBegin: () => void
}

function Lesson({ lesson, number, onBegin }: LessonProps): ReactNode {
  const { played, held } = lesson
  return (
    <li className="grid grid-cols-[2.5rem_minmax(0,1fr)_auto] items-center gap-x-3 border-b border-dashed border-scribe py-2 max-bench:grid-cols-[2rem_minmax(0,1fr)]">
      <span className="figure text-[26px] text-ash">{number}</span>
      <span className="min-w-0">
        <b className="block text-[19px] leading-6">{lesson.title}</b>
        <span className="block text-ash">{lesson.teaches === '' ? lesson.words : lesson.teaches}</span>
        {played > 0 && (
          <span className="block">
            {played === 1 ? 'Played once' : `Played ${played} times`}, {held === 0 ? 'none' : held} held.
          </span>
        )}
      </span>
      <span className="max-bench:col-start-2 max-bench:pt-1">
        <Button onPress={onBegin} label={`Begin: ${lesson.title}`}>
          {played === 0 ? 'Begin' : 'Begin anew'}
        </Button>
      </span>
    </li>
  )
}

/** House: numbers of cases go up to this. */
const NUMBER_MOST = 4_294_967_295

function FreeCase({ onBegin }: { onBegin: (seed: number | null) => void }): ReactNode {
  const [typed, setTyped] = useState('')
  const number = typed.trim() === '' ? null : Number(typed.trim())
  const wrong = number !== null && !(Number.isInteger(number) && number >= 0 && number <= NUMBER_MOST)
  return (
    <section aria-label="A free case" className="flex flex-col gap-2">
      <h2 className="words text-[28px] leading-9">A free case</h2>
      <p className="text-ash">The same number is the same part, the same secret, the same luck.</p>
      <div className="flex items-end gap-2">
        <label htmlFor="free-number" className="label flex flex-col gap-1">
          <span>Its number</span>
          <input
            id="free-number"
            value={typed}
            inputMode="numeric"
            aria-invalid={wrong}
            aria-describedby="free-wrong"
            placeholder="by chance"
            onChange={(event) => setTyped(event.target.value)}
            className="min-h-11 w-44 border-[1.5px] border-dim bg-raise px-3 text-[17px] font-semibold text-chalk"
          />
        </label>
        <Button
          notYet={wrong ? 'A whole number, from 0 on' : undefined}
          onPress={() => onBegin(number)}
          label="Begin a free case"
        >
          Begin
        </Button>
      </div>
      <p id="free-wrong" role={wrong ? 'alert' : undefined} className="font-semibold">
        {wrong && 'A whole number, from 0 on: 41'}
      </p>
    </section>
  )
}
