import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { useJob } from '../../job/JobContext'
import { LitNow } from '../../job/LitNow'
import { NextOrButton } from '../../job/NextOrButton'
import { useShop } from '../../job/ShopContext'
import { pathOf } from '../../job/stations'
import { Choice } from '../../ui/Choice'

const SPEEDS = [
  { id: '1', label: 'As it is' },
  { id: '10', label: '10 times' },
  { id: '60', label: '60 times' },
]

/** Everything laid out before lighting up: after that one cannot stop. */
export function LightUp(): ReactNode {
  const { view, asIf, say } = useJob()
  const { time_zone, stand_ins } = useShop()
  const [speed, setSpeed] = useState('1')
  const [owned, setOwned] = useState('')
  const { plan } = view
  const { refused, to_own } = plan.gate
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
          {stand_ins && (
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
          )}
          {to_own !== '' && (
            <label className="flex flex-col gap-1 border-2 border-chalk p-3">
              <b>{to_own}</b>
              <span>Who lights it all the same, and why?</span>
              <input
                value={owned}
                onChange={(event) => setOwned(event.target.value)}
                autoComplete="off"
                className="min-h-12 border-[1.5px] border-dim bg-raise px-3 text-[17px] font-semibold text-chalk"
              />
            </label>
          )}
          <p className="mt-auto text-right text-[19px]">
            <LitNow />
          </p>
          <span className="self-end">
            <NextOrButton
              station="torch"
              testId="light"
              onPress={() => say({ kind: 'light', speed: Number(speed), owned: owned.trim() })}
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
          {refused.map((line) => (
            <li
              key={line.sentence}
              className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2"
            >
              <p className="min-w-0 grow basis-[300px]">
                <b>{line.sentence}</b> <span className="text-ash">{line.unlock}</span>
              </p>
              <Link
                to={`/jobs/${view.id}/${pathOf(line.station)}`}
                state={{ field: line.key }}
                className="flex min-h-11 items-center border-[1.5px] border-scribe px-4 font-semibold"
              >
                {line.verb}
              </Link>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
