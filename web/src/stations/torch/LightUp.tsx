import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { LitNow } from '../../job/LitNow'
import { NextOrButton } from '../../job/NextOrButton'
import { useShop } from '../../job/ShopContext'
import { Choice } from '../../ui/Choice'
import { LayOut } from './LayOut'
import { Rehearsal } from './Rehearsal'
import { Refused } from './Refused'

type Lighting = Schemas['Lighting']

const SPEEDS = [
  { id: '1', label: 'As it is' },
  { id: '10', label: '10 times' },
  { id: '60', label: '60 times' },
]

/** Everything laid out before lighting up: after that one cannot stop. It may be lit for the oil or the tacks first. */
export function LightUp(): ReactNode {
  const { view, asIf, say } = useJob()
  const { time_zone, stand_ins } = useShop()
  const practice = view.practice != null
  const [speed, setSpeed] = useState(practice ? '60' : '1')
  const [owned, setOwned] = useState('')
  const [wanted, setWanted] = useState<Lighting | null>(null)
  const { gate, heat, methods, torch, lightings } = view.plan
  const cold = heat?.cold === true && methods.chosen?.school === 'no_heat'
  const mainReady = view.standing.unlit == null
  // What comes before the repair is offered while the repair itself cannot begin.
  const before = lightings.find((it) => it.refused.length === 0)
  const what = wanted ?? (mainReady ? 'main' : (before?.what ?? 'main'))
  const other = lightings.find((it) => it.what === what)
  const refused = other?.refused ?? gate.refused
  const ready = asIf === null && (other === undefined ? mainReady : refused.length === 0)
  const lines = other?.lay_out ?? torch?.lay_out ?? []
  const goOn = torch?.go_on ?? null
  const to_own = other === undefined ? gate.to_own : ''
  const verb = other?.label ?? (goOn !== null ? 'Light it again' : cold ? 'Start the work' : 'Light up')
  const words = cold ? 'Ready to start' : 'Ready to light up'
  return (
    <div className="flex min-h-0 grow flex-col gap-4 overflow-auto">
      {lightings.length > 0 && (
        <Choice
          label="What it is lit for"
          choices={[
            ...lightings.map((it) => ({ id: it.what, label: it.label })),
            { id: 'main', label: cold ? 'The repair, cold' : 'The repair' },
          ]}
          chosen={what}
          onChoose={(id) => setWanted((id || what) as Lighting)}
        />
      )}
      <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
        <h2 className="text-[32px] leading-9">{!ready ? 'Not yet' : (other?.label ?? words)}</h2>
        {ready && (
          <NextOrButton
            station="torch"
            testId="light"
            gate
            onPress={() => say({ kind: 'light', speed: Number(speed), owned: owned.trim(), what })}
          >
            {verb}
          </NextOrButton>
        )}
      </div>
      {ready && other === undefined && (
        <p className="text-[19px]">
          <LitNow />
        </p>
      )}
      {other !== undefined && (
        <p className="text-[19px]">
          {other.sentence}
          {other.timing !== '' && <b> {other.timing}.</b>}
        </p>
      )}
      {goOn !== null && other === undefined && (
        <section aria-label="Going on" data-testid="go-on">
          <p className="text-[19px]">
            Stopped: <b>{goOn.because}</b>. Going on is a new lighting of the same round:
          </p>
          <ul className="list-disc pl-6 text-[19px]">
            {goOn.needs.map((need) => (
              <li key={need}>{need}</li>
            ))}
          </ul>
        </section>
      )}
      {ready ? (
        <>
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
          {torch != null && other === undefined && <Rehearsal torch={torch} />}
          <LayOut lines={lines} />
          {(stand_ins || practice) && (
            <div>
              <p className="label mb-1">
                {practice
                  ? 'Job clock of the practice'
                  : `Job clock, ${time_zone}: the thermocouple is simulated`}
              </p>
              <Choice
                label="Speed of the job clock"
                choices={SPEEDS}
                chosen={speed}
                onChoose={(id) => setSpeed(id || '1')}
              />
            </div>
          )}
        </>
      ) : (
        <>
          <Refused lines={refused} supposed={asIf !== null} />
          {torch != null && other === undefined && <Rehearsal torch={torch} />}
        </>
      )}
    </div>
  )
}
