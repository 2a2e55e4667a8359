import { useState, type ReactNode } from 'react'
import { Link, useSearchParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { toTheBench } from '../../job/came-back'
import { useJob } from '../../job/JobContext'
import { Proofs } from '../../job/Proofs'
import { useShop } from '../../job/ShopContext'
import { day } from '../../quantity/show'
import { Button } from '../../ui/Button'
import { Plate } from '../../ui/Plate'
import { AskSheet } from './AskSheet'

type Became = Schemas['Became']

const ASKED = 'asked'
const IDS: readonly Became[] = ['holds', 'fault', 'failed', 'unknown']

/** How it holds, once it is out of the house: when that is asked, and what was answered. */
export function Afterwards(): ReactNode {
  const { view } = useJob()
  const shop = useShop()
  const [search, setSearch] = useSearchParams()
  // Answered on the rack with more to say of it: it goes on here.
  const begun = IDS.find((id) => id === search.get(ASKED)) ?? null
  const [open, setOpen] = useState(begun !== null)
  const { asks, answers, became } = view.plan.hand_over.afterwards
  const back = view.plan.hand_over.came_back ?? null
  const next = became === 'failed' ? undefined : asks.find((ask) => !ask.answered)
  const due = next !== undefined && next.due_ms <= view.now_ms
  const close = () => {
    setOpen(false)
    if (begun !== null) setSearch({}, { replace: true })
  }
  return (
    <section aria-label="How it holds" className="border-t border-scribe pt-2" data-testid="afterwards">
      <h3 className="text-[20px]">How it holds</h3>
      <ul className="my-1">
        {answers.map((answer) => (
          <li key={answer.fact} className="border-b border-rule py-1">
            <b>{answer.words}</b>
            <span className="text-ash">
              , {day(answer.at_ms, shop)}
              {answer.who !== '' && `, ${answer.who}`}
            </span>
            {[answer.did, answer.note]
              .filter((words) => words !== '')
              .map((words) => (
                <span key={words} className="block [overflow-wrap:anywhere] text-ash">
                  {words}
                </span>
              ))}
            <Proofs of={answer.fact} what={answer.words} />
          </li>
        ))}
        {became !== 'failed' &&
          asks
            .filter((ask) => !ask.answered)
            .map((ask) => (
              <li key={ask.due_ms} className="flex justify-between gap-3 py-0.5 text-ash">
                <span className={ask === next ? 'font-semibold text-chalk' : ''}>{ask.day}</span>
                <span className="text-right">{ask.words}</span>
              </li>
            ))}
      </ul>
      {due ? (
        <Plate testId="asked" onPress={() => setOpen(true)}>
          It was asked
        </Plate>
      ) : (
        <Button onPress={() => setOpen(true)}>It was asked</Button>
      )}
      {back !== null && (
        <p className="mt-1">
          <Link to={toTheBench(back)} className="inline-flex min-h-11 items-center font-semibold underline">
            Cut a strip across it: onto the break bench
          </Link>
        </p>
      )}
      {open && <AskSheet begun={begun} onClose={close} />}
    </section>
  )
}
