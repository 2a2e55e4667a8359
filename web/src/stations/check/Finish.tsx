import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { stepKey } from '../../job/step-key'
import { useTicked } from '../../job/useTicked'
import { clock } from '../../quantity/show'
import { Fold } from '../../ui/Fold'
import { Marks } from '../../ui/Marks'
import { TickLine } from '../../ui/TickLine'

/** What is done to it once it is cold and good; until then how much that will be. */
export function Finish({ ready }: { ready: boolean }): ReactNode {
  const { view, say, field, waiting } = useJob()
  const shop = useShop()
  const isDone = useTicked()
  const [open, setOpen] = useState(false)
  const { lines, words, seams, places } = view.plan.finish
  if (lines.length === 0 && seams.length === 0) return null
  const asOf = (crack: string) => {
    const said = field(`crack.${crack}.finish`)
    return said.choices.find((it) => it.id === said.typed)?.label.toLowerCase() ?? 'as usual'
  }
  // What was just pressed counts before the server has it.
  const isTaken = (step: Schemas['WorkStep'], chosen: boolean): boolean => {
    const said = waiting.findLast(
      ({ change }) => change.kind === 'finish_step' && stepKey(change.step) === stepKey(step),
    )
    return said?.change.kind === 'finish_step' ? said.change.taken : chosen
  }
  const next = lines.find((line) => !isDone(line))
  const letterOf = (crack: string) => view.plan.cracks.find((it) => it.id === crack)?.letter ?? ''
  return (
    <section aria-label="Then finish it" className="mt-2" data-testid="finish">
      <h2 className="flex flex-wrap items-baseline gap-x-3 text-[24px] leading-7">
        Then finish it
        <span className="text-[17px] text-ash">{words === '' ? 'left as it is' : words}</span>
      </h2>
      {ready && (
        <ol>
          {lines.map((line) => {
            const ticked = isDone(line)
            const isNext = line === next
            const dry = line.dry_at_ms ?? null
            return (
              <li key={stepKey(line.step)} className="border-b border-rule">
                <TickLine
                  ticked={ticked}
                  next={isNext}
                  step={line.step.what}
                  onPress={() => say({ kind: 'tick', step: line.step, done: !ticked })}
                >
                  <span className="flex flex-wrap items-baseline gap-x-3">
                    <b className={isNext ? 'text-[20px]' : ''}>
                      {line.word}
                      {line.place !== '' && `, ${line.place}`}
                    </b>
                    <span className="figure flex flex-wrap gap-x-4 text-[19px]">
                      {line.settings.map((setting) => (
                        <span key={setting}>{setting}</span>
                      ))}
                    </span>
                    <span className="ml-auto text-ash">
                      {ticked && dry !== null && dry > view.now_ms
                        ? `dry ${clock(dry, shop, view.now_ms)}`
                        : line.time_words}
                    </span>
                  </span>
                  {isNext && <span className="block">{line.sentence}</span>}
                  {isNext && line.care !== '' && <b className="block">{line.care}</b>}
                </TickLine>
              </li>
            )
          })}
        </ol>
      )}
      <Fold
        title="What it has to be"
        summary={seams.map((seam) => `${letterOf(seam)} ${asOf(seam)}`).join(', ')}
        open={open}
        onOpenChange={setOpen}
      >
        <div className="grid gap-3 bench:grid-cols-2">
          {seams.map((seam) => (
            <div key={seam}>
              <p className="label">Crack {letterOf(seam)}</p>
              <Field name={`crack.${seam}.finish`} />
            </div>
          ))}
          <Field name="finish.coat" />
          <Field name="finish.putty" />
        </div>
        {places.map(({ words: of, steps, ...where }) => {
          const stepOf = (what: Schemas['Work']) => ({ what, ...where })
          const taken = steps.filter(({ what, chosen }) => isTaken(stepOf(what), chosen)).map((it) => it.what)
          return (
            <div key={of}>
              <p className="label mb-1">Steps, {of}</p>
              <Marks
                label={`Steps, ${of}`}
                choices={steps.map(({ what, word }) => ({ id: what, label: word }))}
                chosen={taken}
                onChoose={(ids) => {
                  for (const { what } of steps) {
                    const is = ids.includes(what)
                    if (is !== taken.includes(what))
                      say({ kind: 'finish_step', step: stepOf(what), taken: is })
                  }
                }}
              />
            </div>
          )
        })}
      </Fold>
    </section>
  )
}
