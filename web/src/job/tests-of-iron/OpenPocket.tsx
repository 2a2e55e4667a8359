import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { answersQuery } from '../../api/queries'
import { useJob } from '../JobContext'
import { useShop } from '../ShopContext'
import { fieldId, useQuestion } from '../../ui/focus'
import { Button } from '../../ui/Button'
import { Drawing } from './Drawing'

export interface OpenPocketProps {
  test: Schemas['TestView']
  /** What stands at the spot in hand. */
  chosen: string
  onObserve: (outcome: string) => void
}

/** A test: how it is done, and what it may show, each with what that would make of the plan. */
export function OpenPocket({ test, chosen, onObserve }: OpenPocketProps): ReactNode {
  const { view } = useJob()
  const id = fieldId(test.test)
  const { revision } = useShop()
  const answers = useQuery(answersQuery(view.id, view.revision, revision, test.test))
  const answer = (outcome: string) => answers.data?.answers.find((known) => known.outcome === outcome)
  const stays = answers.data?.answers.every(({ changes }) => changes.length === 0) === true
  const forbidden = view.plan.part.forbidden.find((known) => known.test === test.test)
  return (
    <section ref={useQuestion(id)} id={id} aria-label={test.label} tabIndex={-1} data-question="">
      <p className="leading-[19px]">
        {test.how} <span className="text-ash">{test.caution}</span>
      </p>
      {forbidden !== undefined && (
        <p role="status" className="mt-1 border-l-[3px] border-chalk pl-3 font-semibold">
          {test.label} {forbidden.why}.
        </p>
      )}
      {view.practice != null && (
        <div className="mt-2">
          <Button onPress={() => onObserve(test.outcomes[0]?.id ?? '')}>
            {chosen === '' ? `${test.label}: do it here` : `${test.label}: done here, look again`}
          </Button>
          <p className="mt-1 text-ash">What it shows is lit below: a made-up part answers for itself.</p>
        </div>
      )}
      <div
        className="mt-2 grid gap-2 max-bench:!grid-cols-2"
        style={{ gridTemplateColumns: `repeat(${Math.max(test.outcomes.length, 3)}, minmax(0, 1fr))` }}
      >
        {test.outcomes.map((outcome) => (
          <div
            key={outcome.id}
            className={`relative flex min-w-0 flex-col border-[1.5px] p-2 ${chosen === outcome.id ? 'border-chalk bg-raise' : 'border-scribe'}`}
          >
            <button
              type="button"
              aria-pressed={chosen === outcome.id}
              aria-describedby={`then-${outcome.id}`}
              disabled={view.practice != null}
              onClick={() => onObserve(outcome.id)}
              // The whole frame is the target.
              className="text-left after:absolute after:inset-0 after:content-['']"
            >
              <Drawing name={`${test.test}.${outcome.id}`} className="mx-auto w-full max-w-[176px]" />
              <b className="mt-1.5 block leading-[18px]">
                <span className="sr-only">{test.label}: </span>
                <span className="inline-block first-letter:uppercase">{outcome.looks}</span>
              </b>
            </button>
            {view.practice?.level !== 'alone' && (
              <Then id={`then-${outcome.id}`} answer={answer(outcome.id)} stays={stays} />
            )}
          </div>
        ))}
      </div>
      {stays && view.practice?.level !== 'alone' && (
        <p className="mt-1 text-ash">Whichever it is, the plan stays as it is.</p>
      )}
    </section>
  )
}

/** The first of what would change: more is seen once it is said. */
const shortly = (changes: readonly string[]): string =>
  changes.length > 1 ? `${changes[0]} and ${changes.length - 1} more` : changes.join(', ')

interface ThenProps {
  id: string
  answer: Schemas['Answer'] | undefined
  /** The plan stays as it is, whichever it is: that is said once. */
  stays: boolean
}

/** What this answer would make of the iron and of the plan. */
function Then({ id, answer, stays }: ThenProps): ReactNode {
  if (answer === undefined) return null
  return (
    <p id={id} className="mt-0.5 small leading-[17px] text-ash" data-testid={`then.${answer.outcome}`}>
      <span className="figure text-[15px] text-chalk max-bench:text-[16px]">{answer.chance.number} %</span>
      {stays ? ' likely' : `, then ${answer.leading_label.toLowerCase()} `}
      {!stays && (
        <>
          <span className="whitespace-nowrap">{answer.leading_share.number} %:</span>{' '}
          {answer.changes.length === 0 ? 'the same plan' : shortly(answer.changes)}.
        </>
      )}
    </p>
  )
}
