import type { ReactNode } from 'react'
import { Field } from '../../job/Field'
import { Fig } from '../../job/Fig'
import { InTheLedger } from '../../job/InTheLedger'
import { useJob } from '../../job/JobContext'
import { themeOf, useShop } from '../../job/ShopContext'
import { useAlone } from '../../job/useAlone'
import { minutes } from '../../quantity/show'
import { HeatChart } from '../../ui/HeatChart'
import { AlongPart } from './AlongPart'
import { Beside, Settings } from './Beside'
import { Steps } from './Steps'
import { FaceHeat } from './face/FaceHeat'
import { Tried } from './Tried'

/** Can the heat at hand bring this part there, how long, how evenly. */
export function HeatStation(): ReactNode {
  const { view } = useJob()
  const shop = useShop()
  const { heat, methods, missing } = view.plan
  const alone = useAlone()
  if (alone)
    return (
      <div className="flex flex-col gap-4">
        <h2 className="text-[28px] leading-8">How hot, how long and where to begin is yours to say.</h2>
        <div className="max-w-md">
          <Field name="heat.source" />
        </div>
        <FaceHeat otherwise={null} />
      </div>
    )
  if (heat == null) {
    const unknown = missing.filter((m) =>
      ['part.mass', 'part.length', 'part.width', 'part.height', 'part.shape'].includes(m.key),
    )
    const why =
      methods.chosen == null
        ? 'Choose the method first: the preheat follows from it.'
        : unknown.length > 0
          ? `Not known yet: ${unknown.map((m) => m.what.toLowerCase()).join(', ')}.`
          : 'Say in the stores what heat is at hand.'
    return (
      <div className="flex flex-col gap-4">
        <h2 className="text-[28px] leading-8">{why}</h2>
        <div className="max-w-md">
          <Field name="heat.source" />
        </div>
      </div>
    )
  }
  if (heat.cold) {
    return (
      <div className="flex flex-col gap-4">
        <h2 className="text-[30px] leading-9">{heat.sentence}</h2>
        <p className="text-ash">Nothing to heat, nothing to wait for.</p>
        <div className="flex max-w-[70ch] flex-col gap-3">
          <Settings heat={heat} />
        </div>
      </div>
    )
  }
  const curve = heat.curve
  const until = Math.max(20, (curve.at(-1)?.[0] ?? 60) + heat.soak_minutes)
  const hottest = Math.max(heat.most_c, ...curve.map(([, , hot]) => hot))
  const soaked = heat.reached ? [[heat.minutes, heat.target_c] as const, [until, heat.target_c] as const] : []
  return (
    <div className="flex min-h-0 grow flex-col gap-2 overflow-auto">
      <h2 className="text-[26px] leading-8" data-testid="heat-sentence">
        {heat.sentence}
      </h2>
      <p className="text-ash">
        {heat.timing === '' ? '' : `${heat.timing}. `}Read it at the {heat.read_at}, not at the flame.
      </p>
      <FaceHeat
        otherwise={heat.along.length > 1 ? <AlongPart frames={heat.along} station={heat.station} /> : null}
      />
      <div className="min-h-[210px] grow">
        <HeatChart
          name="Planned heating: coldest and hottest place"
          theme={themeOf(shop)}
          units={shop.units}
          until={until}
          top={Math.ceil((hottest * 1.12) / 50) * 50}
          plan={[...curve.map(([at, cold]) => [at, cold] as const), ...soaked]}
          beside={curve.map(([at, , hot]) => [at, hot] as const)}
          record={[]}
          levels={[
            { celsius: heat.least_c, words: heat.least_words },
            { celsius: heat.most_c, words: heat.most_words },
          ]}
          tick={(at) => minutes(at)}
        />
      </div>
      <p className="small text-ash">
        Dashed: the hottest place. Good to {heat.good_to_words}.{' '}
        {heat.learned !== '' && <InTheLedger words={`${heat.learned}.`} />}
      </p>
      <Tried tried={heat.tried} target={heat.target_c} />
      <Beside heat={heat} />
      <Steps steps={heat.steps} />
      <div className="grid grid-cols-[1.5fr_auto_auto_auto_auto] items-end gap-x-7 gap-y-2 border-t border-rule pt-2 max-bench:grid-cols-2">
        <Field name="heat.source" folded placeholder={heat.source_label} />
        <Small name="Energy" id="heat.energy" />
        <Small name="Uneven by" id="heat.unevenness" />
        <Small name="Allowed" id="heat.limit" />
        <Small name="Stops at" id="heat.ceiling" />
      </div>
    </div>
  )
}

function Small({ name, id }: { name: string; id: string }): ReactNode {
  return (
    <div>
      <div className="label">{name}</div>
      <Fig id={id} size="card" side="top" otherwise="not reckoned" />
    </div>
  )
}
