import { useQuery } from '@tanstack/react-query'
import { Fragment, useEffect, useState, type ReactNode } from 'react'
import { Refused, type Problem, type Schemas, type UnitSystem } from '../../api/client'
import { serverNow } from '../../api/queue/server-clock'
import { reckonedQuery } from '../../api/queries'
import { themeOf, useShop } from '../../job/ShopContext'
import { clock, inUnits } from '../../quantity/show'
import { FieldFrame, describedBy } from '../../ui/FieldFrame'
import { Pick } from '../../ui/Pick'
import { TypedInput } from '../../ui/TypedInput'
import { Why, WhyWorking } from '../../ui/Why'
import { Illustrated } from './Illustrated'
import { IntoAJob } from './IntoAJob'
import { forget, keep, keptHere, same } from './kept'

type Calculation = Schemas['CalculationView']
type Blanks = Readonly<Record<string, string>>

/** The sentence is the form: its blanks are filled in, its answers stand in it. */
export function Sentence({ calculation }: { calculation: Calculation }): ReactNode {
  const shop = useShop()
  const { units } = shop
  const before = keptHere().find((it) => it.id === calculation.id && it.units === units)
  const usual = Object.fromEntries(calculation.blanks.map((blank) => [blank.key, blank.usual]))
  const [blanks, setBlanks] = useState<Blanks>({ ...usual, ...before?.blanks })
  const asked = useQuery(reckonedQuery(calculation.id, blanks, units, shop.revision))
  const problems = asked.error instanceof Refused ? asked.error.problems : []
  const lost = asked.error !== null && !(asked.error instanceof Refused)
  const { data } = asked
  const changed = !same(blanks, usual)
  useEffect(() => {
    if (data !== undefined && changed)
      keep({ id: calculation.id, units, blanks, answer: data, at: serverNow() })
  }, [data, changed, calculation.id, units, blanks])
  // Without the server it is what came out when the same was asked here.
  const kept = lost && before !== undefined && same(before.blanks, blanks) ? before : undefined
  const answer = data ?? kept?.answer
  const problemAt = (key: string) => problems.find((it) => it.field === key)
  const elsewhere = problems.filter((it) => !calculation.blanks.some((blank) => blank.key === it.field))
  return (
    <div className="max-w-[860px]">
      <div>
        <div className="text-[21px] leading-10 font-[450]" data-testid="sentence">
          {calculation.sentence.map((piece, at) => (
            <Fragment key={`${piece.kind} ${piece.of} ${at}`}>
              {at > 0 && !(piece.kind === 'words' && STOP.test(piece.of)) && ' '}
              {piece.kind === 'words' && piece.of}
              {piece.kind === 'blank' && (
                <InlineBlank
                  calculation={calculation}
                  name={piece.of}
                  typed={blanks[piece.of] ?? ''}
                  understood={answer?.understood[piece.of]}
                  units={units}
                  problem={problemAt(piece.of)}
                  onSay={(typed) => setBlanks({ ...blanks, [piece.of]: typed })}
                />
              )}
              {piece.kind === 'answer' && <AnswerOf id={piece.of} answer={answer} units={units} />}
            </Fragment>
          ))}
        </div>
        {elsewhere.map((problem) => (
          <p key={problem.field} role="alert">
            {problem.message} {problem.would_be_right}
          </p>
        ))}
        {kept !== undefined && (
          <p role="status" className="mt-3 text-ash">
            The server is not reached: so it came out here, {clock(kept.at, shop, serverNow())}.
          </p>
        )}
        {lost && kept === undefined && (
          <p role="status" className="mt-3 font-semibold">
            The server is not reached, and this was not asked here before: nothing is worked out.
          </p>
        )}
        {answer?.notes.map((note) => (
          <p key={note} className="mt-2 font-semibold">
            {note}
          </p>
        ))}
        {answer?.illustration != null && (
          <div className="mt-4 max-w-[620px]">
            <Illustrated drawn={answer.illustration} units={units} theme={themeOf(shop)} />
          </div>
        )}
        <div className="mt-4 flex flex-wrap gap-3">
          {changed && (
            <button
              type="button"
              className="min-h-11 min-w-11 text-ash"
              onClick={() => {
                forget(calculation.id, units)
                setBlanks(usual)
              }}
            >
              As it stood at first
            </button>
          )}
          {calculation.fact != null && answer !== undefined && (
            <IntoAJob fact={calculation.fact} answer={answer} units={units} />
          )}
        </div>
        {answer !== undefined && answer.figures.length > 0 && (
          <Working figures={answer.figures} units={units} />
        )}
      </div>
    </div>
  )
}

interface InlineBlankProps {
  calculation: Calculation
  name: string
  typed: string
  understood: Schemas['ParsedAmount'] | undefined
  units: UnitSystem
  problem: Problem | undefined
  onSay: (typed: string) => void
}

/** Stands close to what it ends. */
const STOP = /^[,.;:]/

/** House: room for what is usually typed, in letters. */
const ROOM = 11
const MOST_ROOM = 30

function InlineBlank({
  calculation,
  name,
  typed,
  understood,
  units,
  problem,
  onSay,
}: InlineBlankProps): ReactNode {
  const blank = calculation.blanks.find((it) => it.key === name)
  if (blank === undefined) return null
  const id = `blank-${calculation.id}-${name}`
  const chosen = blank.choices.find((choice) => choice.id === typed)
  const letters =
    blank.choices.length > 0 ? (chosen?.label.length ?? 0) + 5 : typed.length + (blank.unit === '' ? 3 : 6)
  const bare = /^[\d.,/\s-]*$/.test(typed)
  const shown = understood === undefined ? undefined : inUnits(understood, units)
  const plain = (text: string) => text.replace(/[\s°]/g, '').toLowerCase()
  const otherwise = shown !== undefined && plain(shown.number + shown.unit) !== plain(typed)
  return (
    <span
      className="mt-1 inline-block max-w-full align-baseline text-[19px] leading-6"
      style={{ width: `${Math.min(MOST_ROOM, Math.max(ROOM, letters))}ch` }}
    >
      <FieldFrame id={id} label={blank.label} problem={problem}>
        {blank.choices.length > 0 ? (
          <Pick
            id={id}
            label={blank.label}
            choices={blank.choices}
            chosen={typed}
            onChoose={onSay}
            describedBy={describedBy(id, problem)}
            placeholder="choose"
          />
        ) : (
          <TypedInput
            id={id}
            typed={typed}
            aside={
              bare ? blank.unit : otherwise && shown !== undefined ? `${shown.number} ${shown.unit}` : ''
            }
            keys={blank.keys}
            wrong={problem !== undefined}
            describedBy={describedBy(id, problem)}
            onCommit={onSay}
          />
        )}
      </FieldFrame>
    </span>
  )
}

/** What came out, where it stands in the sentence; a dash while it is not known. */
function AnswerOf({
  id,
  answer,
  units,
}: {
  id: string
  answer: Schemas['Reckoned'] | undefined
  units: UnitSystem
}): ReactNode {
  const words = answer?.words[id]
  const figure = answer?.figures.find((it) => it.id === id)
  if (words !== undefined) return <b data-testid={`answer.${id}`}>{words}</b>
  if (figure === undefined) return <b aria-label="not worked out">–</b>
  const shown = inUnits(figure, units)
  return (
    <Why figure={{ ...figure, shown }} side="bottom" inside={<WhyWorking figure={figure} units={units} />}>
      <span className="figure text-[30px] leading-9 whitespace-nowrap" data-testid={`answer.${id}`}>
        {shown.number}
        {shown.unit !== '' && ` ${shown.unit}`}
      </span>
    </Why>
  )
}

/** How it is worked out, line by line. */
function Working({
  figures,
  units,
}: {
  figures: readonly Schemas['Figure'][]
  units: UnitSystem
}): ReactNode {
  return (
    <details className="mt-4 border-t border-rule">
      <summary className="flex min-h-11 items-center text-ash">How it is worked out</summary>
      {figures.map((figure) => (
        <div key={figure.id} className="mb-3">
          <p className="font-semibold">
            {figure.name}: {inUnits(figure, units).number} {inUnits(figure, units).unit}
          </p>
          <ol className="formula">
            {figure.formula.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
        </div>
      ))}
    </details>
  )
}
