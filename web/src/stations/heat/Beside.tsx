import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { minutes } from '../../quantity/show'
import { Button } from '../../ui/Button'

export interface BesideProps {
  heat: Schemas['HeatPlan']
}

/** What goes with the heating: tips that may run, what gets too hot, how to read it, its gas, how its source is set. */
export function Beside({ heat }: BesideProps): ReactNode {
  const { view } = useJob()
  const runsOn = heat.runs_on
  return (
    <div className="grid gap-x-8 gap-y-3 bench:grid-cols-2">
      {(runsOn.length > 0 || heat.stays_cool.length > 0) && (
        <section aria-label="While it is heated" className="bench:col-span-2">
          <h3 className="text-[20px]">While it is heated</h3>
          {runsOn.map((tip) => (
            <p
              key={`${tip.letter}-${tip.end}`}
              className="border-l-[3px] border-chalk pl-3 text-[17px]"
              data-testid="heat-runs-on"
            >
              <b>{tip.sentence}</b> <span className="small text-ash">{tip.working}</span>
            </p>
          ))}
          {heat.stays_cool.map((it) => (
            <p
              key={it.what}
              className={`pl-3 text-[17px] first-letter:uppercase ${it.over ? 'border-l-[3px] border-chalk font-semibold' : ''}`}
              data-testid="heat-stays-cool"
            >
              {it.sentence}
            </p>
          ))}
        </section>
      )}
      <section aria-label="Reading it" className="flex flex-col gap-2">
        <h3 className="text-[20px]">Reading it</h3>
        {heat.sticks !== '' && (
          <p className="text-[17px]" data-testid="heat-sticks">
            {heat.sticks}
          </p>
        )}
        {heat.infrared != null && (
          <p className="text-[17px]" data-testid="heat-infrared">
            {heat.infrared.words} {heat.infrared.dont !== '' && <b>{heat.infrared.dont}</b>}
          </p>
        )}
        <div className="grid grid-cols-[2fr_1fr] items-end gap-3">
          <Field name="heat.surface" folded placeholder="Cast skin" />
          <Field name="heat.gun_set" placeholder="0.95" />
        </div>
        {heat.by_eye !== '' && (
          <details>
            <summary className="flex min-h-11 cursor-pointer items-center text-ash">By eye</summary>
            <p className="text-[17px]">{heat.by_eye}</p>
          </details>
        )}
        <details>
          <summary className="flex min-h-11 cursor-pointer items-center text-ash">
            Pad 1 lies at the {heat.pad_at}. More pads?
          </summary>
          <div className="grid gap-3 sm:grid-cols-3">
            {(['heat.pad_2', 'heat.pad_3', 'heat.pad_4'] as const).map((pad) => (
              <Field key={pad} name={pad} folded placeholder="not said" />
            ))}
          </div>
        </details>
      </section>
      <section aria-label="Gas and settings" className="flex flex-col gap-2">
        <h3 className="text-[20px]">{heat.gas.length > 0 ? 'Gas and settings' : 'Settings'}</h3>
        {heat.gas.map((gas) => (
          <p
            key={gas.kind}
            className={`text-[17px] ${gas.short ? 'border-l-[3px] border-chalk pl-3 font-semibold' : ''}`}
            data-testid="heat-gas"
          >
            {gas.words}
          </p>
        ))}
        {heat.oven.length > 0 && (
          <div data-testid="heat-oven">
            <ol className="text-[17px]">
              {heat.oven.map((segment) => (
                <li key={segment.words}>
                  <b>{segment.words}.</b> <span className="text-ash">{segment.what}.</span>
                </li>
              ))}
            </ol>
            <OvenRuns />
            <a
              href={`/api/jobs/${view.id}/oven.csv`}
              download="oven.csv"
              className="flex min-h-11 w-fit items-center underline decoration-dotted"
            >
              The oven's program as a file
            </a>
          </div>
        )}
        <Settings heat={heat} />
      </section>
    </div>
  )
}

/** The oven is started and stopped from here, once the part is lit: its controller follows. */
function OvenRuns(): ReactNode {
  const { view, say } = useJob()
  const from = view.plan.torch?.oven_from_min ?? null
  const lit = view.job.rounds.at(-1)?.lit ?? null
  if (lit === null || lit.what !== 'main') return null
  return (
    <div className="flex flex-wrap items-center gap-3 py-2" data-testid="oven-runs">
      <Button large onPress={() => say({ kind: 'torch', entry: { kind: 'oven', runs: from === null } })}>
        {from === null ? 'Start the oven' : 'Stop the oven'}
      </Button>
      {from !== null && <span>Started {minutes(from)} after lighting up.</span>}
    </div>
  )
}

/** How hard the edge gets, and what the machine or the flame is set to. */
export function Settings({ heat }: BesideProps): ReactNode {
  const { view } = useJob()
  return (
    <>
      {heat.edge !== '' && (
        <p className="text-[17px]" data-testid="heat-edge">
          {heat.edge}
        </p>
      )}
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 text-[17px]">
        {view.plan.methods.settings.map((line) => (
          <div key={line.name} className="contents">
            <dt className="text-ash">{line.name}</dt>
            <dd>{line.words}</dd>
          </div>
        ))}
      </dl>
    </>
  )
}
