import { useState, type ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { NextOrButton } from '../../job/NextOrButton'
import { useShop } from '../../job/ShopContext'
import { Choice } from '../../ui/Choice'

const SPEEDS = [
  { id: '1', label: 'As it is' },
  { id: '10', label: '10 times' },
  { id: '60', label: '60 times' },
]

/** Everything laid out before lighting up: after that one cannot stop. */
export function LightUp(): ReactNode {
  const { view, asIf, say, refusals } = useJob()
  const { time_zone } = useShop()
  const [speed, setSpeed] = useState('1')
  const { plan } = view
  const refused = refusals.findLast((refusal) => refusal.field === 'light')
  const cold = plan.heat?.cold === true && plan.methods.chosen?.school === 'no_heat'
  const ready = view.standing.unlit == null && asIf === null
  const lay = plan.torch?.lay_out ?? []
  return (
    <div className="flex min-h-0 grow flex-col gap-4 overflow-auto">
      <h2 className="text-[32px] leading-9">
        {!ready ? 'Not yet' : cold ? 'Ready to start' : 'Ready to light up'}
      </h2>
      {ready ? (
        <>
          <section aria-label="Lay out first">
            <h3 className="mb-1 text-[22px]">Lay out first</h3>
            <ul>
              {lay.map((item) => (
                <li key={item} className="border-b border-rule py-2 text-[19px] first-letter:uppercase">
                  {item}
                </li>
              ))}
            </ul>
          </section>
          <div>
            <p className="label mb-1">
              Job clock (the thermocouple is simulated; all times of the job are on this clock, {time_zone})
            </p>
            <Choice
              label="Speed of the job clock"
              choices={SPEEDS}
              chosen={speed}
              onChoose={(id) => setSpeed(id || '1')}
            />
          </div>
          <span className="mt-auto self-end">
            <NextOrButton
              station="torch"
              testId="light"
              onPress={() => say({ kind: 'light', speed: Number(speed) })}
            >
              {cold ? 'Start the work' : 'Light up'}
            </NextOrButton>
          </span>
        </>
      ) : (
        <ul>
          {asIf !== null && (
            <li className="py-1">
              <b>This plan is for one iron that is only supposed.</b> Go back to what it may be first.
            </li>
          )}
          {plan.locks.map((lock) => (
            <li key={lock.rule} className="py-1">
              <b>{lock.sentence}</b> {lock.unlock}
            </li>
          ))}
          {plan.missing.slice(0, 8).map((missing) => (
            <li key={missing.key} className="border-b border-rule py-1.5">
              <b>{missing.what}.</b> <span className="text-ash">{missing.why}</span>
            </li>
          ))}
          {plan.methods.chosen == null && plan.locks.length === 0 && (
            <li className="py-1.5">
              <b>The method is not decided.</b>
            </li>
          )}
          {plan.heat?.reached === false && <li className="py-1.5">{plan.heat.sentence}</li>}
        </ul>
      )}
      {refused !== undefined && <p role="alert">{refused.problem.message}</p>}
    </div>
  )
}
