import { useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { useJob } from '../../job/JobContext'
import { Button } from '../../ui/Button'
import { Question } from '../../ui/Question'

/** Minutes that a press lets go by. */
const PASSES = [
  { minutes: 5, words: '5 min' },
  { minutes: 30, words: '30 min' },
  { minutes: 240, words: '4 h' },
] as const

/** Above every station of a practice: that it is one, what was said of the part, the clock, and the end. */
export function PracticeBar(): ReactNode {
  const { view, say } = useJob()
  const navigate = useNavigate()
  const [asked, setAsked] = useState(false)
  const { practice } = view
  if (practice == null) return null
  const round = view.job.rounds.at(-1)
  const lit = round?.lit != null
  const by = practice.made_by === '' ? '' : `, made by ${practice.made_by}`
  const end = () => {
    if (!practice.ended) say({ kind: 'end_practice' })
    setAsked(false)
    void navigate(`/jobs/${view.id}/hand-over`)
  }
  return (
    <section aria-label="Practice" className="practice-bar mb-2 flex flex-col gap-1.5 px-3 py-1.5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <p className="min-w-0 grow basis-80">
          <b className="words text-[22px]">practice</b>{' '}
          <span className="text-ash">
            {practice.level === 'alone' ? 'alone' : 'with the plan'}
            {by}, number {practice.seed}.
          </span>{' '}
          {practice.words}
        </p>
        {practice.ended ? (
          <Button onPress={end}>What became of it</Button>
        ) : (
          <Button onPress={() => setAsked(!asked)}>{asked ? 'Not yet' : 'See what became of it'}</Button>
        )}
      </div>
      {lit && !practice.ended && (
        <div className="no-print flex flex-wrap items-center gap-2">
          <span className="label">Let go by</span>
          {PASSES.map(({ minutes, words }) => (
            <Button key={minutes} onPress={() => say({ kind: 'pass', minutes })}>
              {words}
            </Button>
          ))}
        </div>
      )}
      {asked && (
        <Question>
          <div className="flex flex-wrap items-center gap-3">
            <span className="min-w-0 grow">
              Then nothing more can be done to it. It can be played again from its beginning.
            </span>
            <Button onPress={end}>It is done: a year later</Button>
          </div>
        </Question>
      )}
    </section>
  )
}
