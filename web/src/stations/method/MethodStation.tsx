import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { fieldId } from '../../ui/focus'
import { Plate } from '../../ui/Plate'

/** Contenders side by side with the reasons for and against; the excluded kept in sight. */
export function MethodStation(): ReactNode {
  const { view, field, typed, say } = useJob()
  const { units } = useShop()
  const { methods, locks } = view.plan
  const left = methods.contenders.filter((contender) => !contender.excluded)
  const out = methods.contenders.filter((contender) => contender.excluded)
  const [open, setOpen] = useState<string | null>(null)
  const choose = (id: string) =>
    say({ kind: 'set', key: 'method.choice', typed: id, shown_in: units }, field('method.choice').revision)
  // A part that is referred out is taken by nobody.
  const refused = locks.find((lock) => !lock.hot_only)
  const chosen = methods.contenders.find((contender) => contender.way.method === typed('method.choice'))
  return (
    <div className="flex min-h-0 grow flex-col gap-3 overflow-auto">
      <h2 className="text-[28px] leading-8" data-testid="method-headline">
        {methods.headline}
      </h2>
      {locks.map((lock) => (
        <p key={lock.rule} className="border-l-[3px] border-chalk pl-3">
          {lock.sentence} <b>{lock.unlock}</b>
        </p>
      ))}
      <div className="grid auto-cols-fr grid-flow-col border-t border-scribe max-bench:grid-flow-row">
        {left.map((contender) => (
          <Contender
            key={contender.way.method}
            contender={contender}
            chosen={methods.chosen?.method === contender.way.method}
            open={open === contender.way.method}
            onOpen={() => setOpen(open === contender.way.method ? null : contender.way.method)}
            refused={refused !== undefined}
            onChoose={() => choose(contender.way.method)}
          />
        ))}
      </div>
      {out.length > 0 && (
        <section aria-label="Ruled out" className="border-t border-rule pt-2">
          <h3 className="text-[20px]">Ruled out</h3>
          {out.map((contender) => (
            <p key={contender.way.method} className="py-0.5">
              <b>{contender.label}:</b> <span className="text-ash">{contender.reasons.join(' ')}</span>
            </p>
          ))}
        </section>
      )}
      {methods.not_considered.length > 0 && (
        <p className="text-ash">Not considered, because not known: {methods.not_considered.join('; ')}.</p>
      )}
      <div className="mt-auto grid grid-cols-[1fr_1.4fr_auto] items-end gap-3 pt-2 max-bench:grid-cols-1">
        {chosen !== undefined && chosen.schools_to_choose.length > 1 ? (
          <School schools={chosen.schools_to_choose} />
        ) : (
          <span />
        )}
        {typed('method.choice') !== '' ? (
          <Field name="method.reason" label="Why this one, for the record" />
        ) : (
          <span />
        )}
        <span className="flex items-center gap-2">
          {typed('method.choice') !== '' && <Button onPress={() => choose('')}>Leave it to the plan</Button>}
          {view.standing.station === 'method' && left[0] !== undefined && refused === undefined && (
            <Plate testId="next" onPress={() => choose(left[0]?.way.method ?? '')}>
              Take {left[0].label.toLowerCase()}
            </Plate>
          )}
        </span>
      </div>
    </div>
  )
}

interface ContenderProps {
  contender: Schemas['Contender']
  chosen: boolean
  open: boolean
  /** The job is referred out: it is worked out, but nobody takes it here. */
  refused: boolean
  onOpen: () => void
  onChoose: () => void
}

/** The schools of the method that was chosen: a school belongs to its method. */
function School({ schools }: { schools: Schemas['Contender']['schools_to_choose'] }): ReactNode {
  const { field, typed, say } = useJob()
  const { units } = useShop()
  return (
    <div>
      <p className="label mb-1">Another school than the usual</p>
      <Choice
        id={fieldId('method.school')}
        label="School"
        choices={schools}
        chosen={typed('method.school')}
        onChoose={(id) =>
          say(
            { kind: 'set', key: 'method.school', typed: id, shown_in: units },
            field('method.school').revision,
          )
        }
      />
    </div>
  )
}

function Contender({ contender, chosen, open, refused, onOpen, onChoose }: ContenderProps): ReactNode {
  return (
    <section
      aria-label={contender.label}
      className={`flex min-w-0 flex-col gap-1.5 border-rule p-3 [&:not(:last-child)]:border-r max-bench:!border-r-0 max-bench:border-b ${chosen ? 'bg-slab' : ''}`}
    >
      <h3 className="text-[22px] leading-6">{contender.label}</h3>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <button
          type="button"
          onClick={onOpen}
          aria-expanded={open}
          className="min-h-11 border-b border-dotted border-dim text-left whitespace-nowrap"
        >
          <span className="figure text-[40px] leading-10">{contender.score.toFixed(0)}</span>{' '}
          <span className="ml-1 text-ash">points</span>
          <span className="sr-only"> {contender.label}, why?</span>
        </button>
        {!refused && (
          <Button
            onPress={onChoose}
            chosen={chosen}
            label={`${chosen ? 'Taken' : 'Take it'}: ${contender.label}`}
          >
            {chosen ? 'Taken' : 'Take it'}
          </Button>
        )}
      </div>
      {open && (
        <ul className="formula">
          {contender.parts.map((part) => (
            <li key={part.name}>
              {part.points >= 0 ? '+' : ''}
              {part.points.toFixed(1)} {part.name}: {part.working}
            </li>
          ))}
        </ul>
      )}
      <p className="text-ash">{contender.summary}</p>
      <Reasons sign="+" reasons={contender.favours} />
      <Reasons sign="−" reasons={contender.cautions} />
      {contender.schools.map((school) => (
        <p key={school} className="small leading-[18px] text-ash">
          {school}
        </p>
      ))}
    </section>
  )
}

function Reasons({ sign, reasons }: { sign: string; reasons: readonly string[] }): ReactNode {
  return reasons.map((reason) => (
    <p key={reason} className="flex gap-1.5 small leading-[18px]">
      <b className="w-3 shrink-0">{sign}</b>
      <span>{reason}</span>
    </p>
  ))
}
