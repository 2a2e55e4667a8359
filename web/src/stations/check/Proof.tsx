import { useEffect, useRef, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { ring, unlock } from '../../job/bell'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { stepKey } from '../../job/step-key'
import { useNow } from '../../job/useNow'
import { useTicked } from '../../job/useTicked'
import { clockFace } from '../../quantity/clock-face'
import { clock } from '../../quantity/show'
import { TickLine } from '../../ui/TickLine'

/** The proof with water, step by step; each begins when it is pressed, and says until when it is held. */
export function Proof({ proof }: { proof: Schemas['ProofPlan'] }): ReactNode {
  const { say } = useJob()
  const shop = useShop()
  const now = useNow()
  const isDone = useTicked()
  const next = proof.steps.find((step) => !isDone(step))
  const ends = proof.steps.find((step) => step.until_ms != null)?.until_ms ?? null
  // What is held now is looked at; only then the next is of any concern.
  const holding = proof.steps.find((step) => isDone(step) && (step.until_ms ?? 0) > now)
  const before = useRef(now)
  useEffect(() => {
    // It rings when it was held long enough, and only then: not for what was over before the page was opened.
    if (ends !== null && before.current < ends && now >= ends) ring()
    before.current = now
  }, [ends, now])
  return (
    <section aria-label="Proof with water" className="mt-1" data-testid="proof">
      <p>
        <b>{proof.words}.</b> {proof.without}
      </p>
      <ol>
        {proof.steps.map((step) => {
          const ticked = isDone(step)
          const until = step.until_ms ?? null
          return (
            <li key={stepKey(step.step)}>
              <TickLine
                ticked={ticked}
                next={step === next && holding === undefined}
                step={stepKey(step.step)}
                onPress={() => {
                  unlock()
                  say({ kind: 'tick', step: step.step, done: !ticked })
                }}
              >
                <span className="flex flex-wrap items-baseline gap-x-3">
                  <b className={step === (holding ?? next) ? 'text-[20px]' : ''}>{step.word}</b>
                  <span className="ml-auto text-ash">{ticked ? step.held_words : step.held}</span>
                </span>
                {ticked && until !== null && (
                  <b className="figure block text-[20px] text-chalk">
                    {until > now
                      ? `${clockFace((until - now) / 1_000)} left: hold it until ${clock(until, shop, now)}`
                      : `Held since ${clock(until, shop, now)} long enough: no dark chalk? Then on.`}
                  </b>
                )}
                {step === (holding ?? next) && <span className="block">{step.sentence}</span>}
              </TickLine>
            </li>
          )
        })}
      </ol>
    </section>
  )
}
