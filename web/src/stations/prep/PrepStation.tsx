import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { Fig } from '../../job/Fig'
import { useJob } from '../../job/JobContext'
import { KeepOff } from '../../job/KeepOff'
import { StrikeSheet } from '../../job/StrikeSheet'
import { Button } from '../../ui/Button'
import { Breaks } from './Breaks'
import { DoneCold } from './DoneCold'
import { GrooveSection } from './GrooveSection'
import { PatchRing } from './PatchRing'
import { PinRow } from './PinRow'
import { ReadForm } from '../../job/ReadForm'
import { Restoring } from './Restoring'
import { SeamLength } from './SeamLength'
import { TimeSteps } from './TimeSteps'
import { WorkList } from './WorkList'

/** Holes, groove, filler and rods, or pins: what to do before anything gets hot. */
export function PrepStation(): ReactNode {
  const { view } = useJob()
  const { prep, methods, bench, torch } = view.plan
  const inBeads = torch?.beads?.seams.length ?? 0
  const [picked, setPicked] = useState<string | null>(null)
  const seam = prep?.seams.find((candidate) => candidate.id === picked) ?? prep?.seams[0]
  const beside = (
    <>
      <Breaks breaks={bench.breaks} />
      <Restoring bench={bench} />
    </>
  )
  if (prep == null || seam === undefined) {
    const why =
      methods.chosen == null
        ? 'Choose the method first: the groove follows from it.'
        : 'Map the cracks first: length and wall are needed.'
    return (
      <div className="-mx-1 flex min-h-0 grow flex-col gap-3 overflow-auto px-1">
        <h2 className="text-[28px] leading-8">{why}</h2>
        {beside}
      </div>
    )
  }
  return (
    <div className="-mx-1 flex min-h-0 grow flex-col gap-3 overflow-auto px-1">
      <KeepOff />
      {prep.seams.length > 1 && (
        <div className="flex flex-wrap gap-2">
          {prep.seams.map((s) => (
            <Button key={s.id} chosen={s.id === seam.id} onPress={() => setPicked(s.id)}>
              {s.patch == null ? (
                `Crack ${s.letter}`
              ) : (
                <span className="first-letter:uppercase">{s.letter}</span>
              )}
            </Button>
          ))}
        </div>
      )}
      <div className="grid grid-cols-[1.15fr_1fr] gap-8 max-bench:grid-cols-1">
        <div className="flex min-w-0 flex-col gap-3">
          {seam.section == null ? (
            <PinSeam seam={seam} />
          ) : (
            <GrooveSeam key={seam.id} seam={seam} over={prep.over_it} />
          )}
          {inBeads > 1 && <Field name="prep.order" placeholder="side by side" />}
        </div>
        <div className="min-w-0 max-bench:order-first">
          <WorkList work={prep.work} />
          {prep.to_do.length > 0 && <DoneCold items={prep.to_do} />}
          <TimeSteps />
        </div>
      </div>
      {beside}
    </div>
  )
}

function PinSeam({ seam }: { seam: Schemas['SeamPlan'] }): ReactNode {
  const at = (what: string) => `prep.${seam.id}.${what}`
  return (
    <>
      {seam.patch == null ? <PinRow seam={seam} /> : <PatchRing seam={seam} patch={seam.patch} />}
      <p className="text-ash">
        {seam.pins_that === 'push'
          ? 'Plain pins: their thread pushes outwards and holds the patch in.'
          : 'Pins that draw in: they pull the sides together.'}
      </p>
      <dl className="grid grid-cols-[1fr_auto] content-start items-center gap-y-1.5">
        <Line name="Pins" id={at('pins')} />
        <Line name="Pin" id={at('pin')} />
        <Line name="Pitch" id={at('pitch')} />
        <Line name="Tap drill" id={at('tap_drill')} />
        <Line name="Pins in all" id="prep.pins" />
      </dl>
      <details>
        <summary className="flex min-h-11 cursor-pointer items-center border-b border-dotted border-dim">
          Order of the pins
        </summary>
        <p className="figure text-[17px]">{seam.pin_order.join('  ')}</p>
      </details>
    </>
  )
}

interface GrooveSeamProps {
  seam: Schemas['SeamPlan']
  /** Another metal that is laid over the first. */
  over: Schemas['PrepPlan']['over_it']
}

function GrooveSeam({ seam, over }: GrooveSeamProps): ReactNode {
  const [looked, setLooked] = useState<number | null>(null)
  // The thickest place, until another one is looked at.
  const thickest = seam.cuts.reduce((best, cut, index) => {
    const known = seam.cuts[best]
    return known !== undefined && cut.wall_mm > known.wall_mm ? index : best
  }, 0)
  const place = Math.min(looked ?? thickest, seam.cuts.length - 1)
  const cut = seam.cuts[place]
  const at = (what: string) => `prep.${seam.id}.${what}`
  return (
    <>
      {cut !== undefined && <GrooveSection seam={seam} cut={cut} />}
      {cut !== undefined && cut.layers_words !== '' && (
        <p className="text-center text-ash first-letter:uppercase">{cut.layers_words}</p>
      )}
      <SeamLength seam={seam} at={place} onLook={setLooked} />
      <Depths
        seam={seam}
        at={looked === null || cut === undefined ? '' : cut.at_words.replace(' along', '')}
      />
      <dl className="grid grid-cols-[1fr_auto_1fr_auto] content-start items-center gap-x-5 gap-y-1.5 max-bench:grid-cols-[1fr_auto]">
        <Line name={seam.cuts.length > 1 ? 'Depth, thickest' : 'Depth'} id={at('depth')} />
        <Line name={seam.cuts.length > 1 ? 'Opens to, widest' : 'Opens to'} id={at('width')} />
        <Line name="Section" id={at('area')} />
        <Line name="Filler in place, all" id="prep.volume" />
        <Line name="Metal to buy" id="prep.metal" />
        <Line name="Rods" id="prep.rods" />
        {over != null && <Line name={over.filler} id="prep.over" />}
        <Line name="Beads" id="prep.beads" />
      </dl>
      {seam.why.length > 0 && <p className="text-ash">{seam.why.join(' ')}</p>}
      <div className="border-t border-rule pt-2">
        <Field name="prep.form" columns={3} />
      </div>
      <div className="grid grid-cols-4 gap-2 max-bench:grid-cols-2">
        <Field name="prep.depth" placeholder={seam.usual?.depth} />
        <Field name="prep.angle" placeholder={seam.usual?.angle} />
        <Field name="prep.gap" placeholder={seam.usual?.gap} />
        <Field name="prep.cap" placeholder={seam.usual?.cap} />
      </div>
      <div className="flex flex-col gap-2 border-t border-rule pt-2">
        <Field name={`crack.${seam.id}.reach`} />
        <Field name={`crack.${seam.id}.closes`} />
      </div>
      <div className="grid grid-cols-[2fr_1fr_1fr] items-end gap-2 border-t border-rule pt-2 max-bench:grid-cols-1">
        <p className="text-ash">
          <b className="text-chalk">As it was ground, crack {seam.letter}.</b> Measured, it takes the
          plan&apos;s place: filler, rods and beads follow from it.
        </p>
        <Field name={`crack.${seam.id}.ground_depth`} placeholder={seam.usual?.depth} />
        <Field name={`crack.${seam.id}.ground_width`} placeholder={seam.usual?.width} />
      </div>
    </>
  )
}

/** Depths read while grooving: what each of them says. */
function Depths({ seam, at }: { seam: Schemas['SeamPlan']; at: string }): ReactNode {
  const [striking, setStriking] = useState<Schemas['GroundAt'] | null>(null)
  return (
    <section aria-label="Depths read" className="flex flex-col gap-1">
      <ReadForm
        crack={seam.id}
        what="depth"
        asks={[
          { name: 'at', label: 'Along', example: '0' },
          { name: 'depth', label: 'Reads deep' },
        ]}
        given={{ at }}
        verb="Write the depth down"
        label={`Depth of ${seam.letter}`}
      />
      <ul>
        {seam.read.map((read) => (
          <li
            key={read.id}
            data-says={read.says}
            className="flex min-h-12 items-center justify-between gap-3 border-b border-rule py-1"
          >
            <span>
              <span className="text-ash">{read.words}</span>
              <b className={`block ${read.says === 'go_on' ? 'font-normal' : 'text-[20px]'}`}>
                {read.sentence}
              </b>
            </span>
            <Button label={`Cross out: ${read.words}`} onPress={() => setStriking(read)}>
              Cross out
            </Button>
          </li>
        ))}
      </ul>
      <StrikeSheet
        target={striking?.id ?? null}
        what={striking?.words ?? ''}
        onClose={() => setStriking(null)}
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
