import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { Fig } from '../../job/Fig'
import { useJob } from '../../job/JobContext'
import { KeepOff } from '../../job/KeepOff'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { fieldId } from '../../ui/focus'
import { Marks } from '../../ui/Marks'
import { GrooveSection } from './GrooveSection'
import { PinRow } from './PinRow'

/** Holes, groove, filler and rods, or pins: what to do before anything gets hot. */
export function PrepStation(): ReactNode {
  const { view } = useJob()
  const { prep, methods } = view.plan
  const [picked, setPicked] = useState<string | null>(null)
  if (prep == null) {
    const why =
      methods.chosen == null
        ? 'Choose the method first: the groove follows from it.'
        : 'Map the cracks first: length and wall are needed.'
    return <h2 className="text-[28px]">{why}</h2>
  }
  const seam = prep.seams.find((candidate) => candidate.id === picked) ?? prep.seams[0]
  if (seam === undefined) return null
  const at = (what: string) => `prep.${seam.id}.${what}`
  const pins = seam.section == null
  return (
    <div className="-mx-1 flex min-h-0 grow flex-col gap-3 overflow-auto px-1">
      <KeepOff />
      {prep.seams.length > 1 && (
        <div className="flex gap-2">
          {prep.seams.map((s) => (
            <Button key={s.id} chosen={s.id === seam.id} onPress={() => setPicked(s.id)}>
              Crack {s.letter}
            </Button>
          ))}
        </div>
      )}
      <div className="grid grid-cols-[1.6fr_1fr] gap-6 max-bench:grid-cols-1">
        {pins ? <PinRow seam={seam} /> : <GrooveSection seam={seam} />}
        <dl className="grid grid-cols-[1fr_auto] content-start items-center gap-y-1.5">
          {pins ? (
            <>
              <Line name="Pins" id={at('pins')} />
              <Line name="Pin" id={at('pin')} />
              <Line name="Pitch" id={at('pitch')} />
              <Line name="Tap drill" id={at('tap_drill')} />
              <Line name="Pins in all" id="prep.pins" />
            </>
          ) : (
            <>
              <Line name="Depth" id={at('depth')} />
              <Line name="Opens to" id={at('width')} />
              <Line name="Section" id={at('area')} />
              <Line name="Filler in place, all seams" id="prep.volume" />
              <Line name="Metal to buy" id="prep.metal" />
              <Line name="Rods" id="prep.rods" />
              <Line name="Beads" id="prep.beads" />
            </>
          )}
        </dl>
      </div>
      {pins ? (
        <p>
          <b>Order:</b> <span className="figure text-[17px] text-ash">{seam.pin_order.join('  ')}</span>
        </p>
      ) : (
        <div className="grid grid-cols-[2fr_1fr_1fr_1fr_1fr] gap-2 border-t border-rule pt-2 max-bench:grid-cols-2">
          <Field name="prep.form" />
          <Field name="prep.depth" placeholder={seam.usual?.depth} />
          <Field name="prep.angle" placeholder={seam.usual?.angle} />
          <Field name="prep.gap" placeholder={seam.usual?.gap} />
          <Field name="prep.cap" placeholder={seam.usual?.cap} />
        </div>
      )}
      {!pins && (
        <div className="grid grid-cols-[2fr_1fr_1fr] items-end gap-2 border-t border-rule pt-2 max-bench:grid-cols-1">
          <p className="text-ash">
            <b className="text-chalk">As it was ground, crack {seam.letter}.</b> Measured, it takes the
            plan&apos;s place: filler, rods and beads follow from it.
          </p>
          <Field name={`crack.${seam.id}.ground_depth`} placeholder={seam.usual?.depth} />
          <Field name={`crack.${seam.id}.ground_width`} placeholder={seam.usual?.width} />
        </div>
      )}
      <section aria-label="In this order">
        <h2 className="text-[24px] leading-7">In this order</h2>
        <ol>
          {prep.steps.map((step, number) => (
            <li key={step} className="flex gap-3 border-b border-rule py-1.5">
              <span className="figure w-5 text-[19px] text-ash">{number + 1}</span>
              {step}
            </li>
          ))}
        </ol>
      </section>
      {prep.to_do.length > 0 && <Done items={prep.to_do} />}
    </div>
  )
}

/** What cannot be done once it is hot: each said to be done, before it is lit. */
function Done({ items }: { items: readonly Schemas['PrepItem'][] }): ReactNode {
  const { field, typed, say } = useJob()
  const { units } = useShop()
  const done = typed('prep.done')
    .split(',')
    .filter((id) => id !== '')
  const toggle = (ids: string[]) =>
    say({ kind: 'set', key: 'prep.done', typed: ids.join(','), shown_in: units }, field('prep.done').revision)
  return (
    <section aria-label="Done before the heat">
      <h2 className="mb-1 text-[24px] leading-7">Done, since it cannot be done hot</h2>
      <Marks
        id={fieldId('prep.done')}
        label="Done before the heat"
        choices={items}
        chosen={items.filter((item) => item.done).map((item) => item.id)}
        onChoose={(ids) => toggle([...done.filter((id) => !items.some((i) => i.id === id)), ...ids])}
      />
    </section>
  )
}

function Line({ name, id }: { name: string; id: string }): ReactNode {
  return (
    <>
      <dt className="label">{name}</dt>
      <dd className="text-right">
        <Fig id={id} side="top" />
      </dd>
    </>
  )
}
