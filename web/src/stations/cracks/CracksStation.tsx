import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { KeepOff } from '../../job/KeepOff'
import { useJob } from '../../job/JobContext'
import { NextOrButton } from '../../job/NextOrButton'
import { StrikeSheet } from '../../job/StrikeSheet'
import { Button } from '../../ui/Button'
import { focusField } from '../../ui/focus'
import { GoesOn } from '../../ui/GoesOn'
import { Plate } from '../../ui/Plate'
import { CrackDrawing } from './CrackDrawing'
import { EndFigures } from './EndFigures'
import { Drilled } from './Drilled'
import { HardSpots } from './HardSpots'

/** Every crack to scale, with the holes that end it. */
export function CracksStation(): ReactNode {
  const { view, typed, say } = useJob()
  const { cracks } = view.plan
  const [picked, setPicked] = useState<string | null>(null)
  const [striking, setStriking] = useState(false)
  const crack = cracks.find((candidate) => candidate.id === picked) ?? cracks.at(-1)
  const here = view.standing.station === 'cracks'
  const add = () => {
    const id = say({ kind: 'add_crack' })
    setPicked(id)
    focusField(`crack.${id}.length`)
  }
  if (crack === undefined) {
    return (
      <div className="flex grow flex-col items-start gap-4">
        <KeepOff />
        <h2 className="text-[30px]">No crack is mapped yet</h2>
        <p className="max-w-xl">
          Clean to bright metal, let the oil out, find both ends: chalk and oil, dye or magnetic particles.
          Look at the other face too, the tip may be further on there.
        </p>
        <HardSpots />
        <NextOrButton station="cracks" testId="next" onPress={add}>
          Map the crack
        </NextOrButton>
      </div>
    )
  }
  const name = (end: Schemas['CrackField']) => `crack.${crack.id}.${end}` as const
  return (
    <div className="-mx-1 flex min-h-0 grow flex-col gap-3 overflow-auto px-1">
      <KeepOff />
      <CrackDrawing cracks={cracks} chosen={crack.id} onChoose={setPicked} />
      <section aria-label={`Crack ${crack.letter}`} className="border-t border-scribe pt-2">
        <div className="grid grid-cols-[52px_1fr_1fr_1.2fr_1.5fr_1.5fr] items-start gap-2 max-bench:grid-cols-2">
          <h2 className="pt-5 text-[40px] leading-[48px]">
            <span className="sr-only">Crack </span>
            {crack.letter}
          </h2>
          <Field name={name('length')} />
          <Field
            name={name('wall')}
            label="Wall"
            placeholder={crack.wall_guessed ? undefined : crack.wall_words}
          />
          <Field name={name('found_by')} folded />
          <Field name={name('end_a')} folded />
          <Field name={name('end_b')} folded />
        </div>
        <div className="mt-2 grid grid-cols-3 items-end gap-2 max-bench:grid-cols-1">
          {crack.full_break && <Field name={name('piece')} folded />}
          {typed('part.keep_off') !== '' && <Field name={name('behind')} folded />}
          {crack.ends.some((end) => end.stop_hole?.well_past_mm != null) && (
            <Field name={name('tip_way')} folded placeholder="well past it, groove into the hole" />
          )}
        </div>
        <EndFigures crack={crack} />
        <Drilled crack={crack} />
      </section>
      <HardSpots />
      <div className="mt-auto flex flex-wrap items-center gap-2 pt-1">
        <Button onPress={add}>Another crack</Button>
        <Button onPress={() => setStriking(true)}>Cross out crack {crack.letter}</Button>
        <span className="ml-auto" />
        {here && view.standing.next.key !== 'crack' && (
          <Plate
            testId="next"
            onPress={() => {
              const { key } = view.standing.next
              setPicked(/^crack\.([^.]+)\./.exec(key)?.[1] ?? crack.id)
              focusField(key)
            }}
          >
            {view.standing.next.verb}
          </Plate>
        )}
      </div>
      <StrikeSheet
        target={striking ? crack.id : null}
        what={`Crack ${crack.letter}`}
        onClose={() => setStriking(false)}
      />
      <GoesOn />
    </div>
  )
}
