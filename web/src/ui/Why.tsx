import { Popover } from 'radix-ui'
import { use, useEffect, useRef, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { Figure, Schemas, UnitSystem } from '../api/client'
import { CardContext, useWhy } from './focus'
import { OnTop } from './OnTop'

export interface WhyProps {
  figure: Pick<Schemas['FigureSeen'], 'id' | 'name' | 'shown'>
  /** Its working: made when it is asked for. */
  inside: ReactNode
  /** The figure as it stands on the page. */
  children: ReactNode
  side?: 'left' | 'top' | 'bottom'
}

const SOURCES: Record<Schemas['Source']['kind'], string> = {
  standard: '',
  law: '',
  house: 'our own judgement',
  arithmetic: 'arithmetic',
  shop: "the shop's own",
}

const SURENESS: Record<Schemas['Certainty'], string> = {
  measured: 'measured',
  computed: 'computed from what was said',
  estimate: 'an estimate',
  guess: 'a guess',
}

/** What the figure hangs on, with this job's numbers. */
function sentence(figure: Figure, between: string): string {
  if (figure.because !== undefined && figure.because !== '') return figure.because
  const from = figure.facts.map((fact) => `${uncapped(fact.name)} ${fact.text}`).join(', ')
  const sure = SURENESS[figure.certainty]
  const start = from === '' ? `It is ${sure}` : `It follows from ${from}: ${sure}`
  return between === '' ? `${start}.` : `${start}, between ${between.replace(' to ', ' and ')}.`
}

const sourceWords = (source: Schemas['Source']): string =>
  source.kind === 'standard' || source.kind === 'law' ? source.name : SOURCES[source.kind]

/** Any figure can be asked why. */
export function Why({ figure, inside, children, side = 'left' }: WhyProps): ReactNode {
  const { shown } = figure
  const trigger = useWhy()
  const card = use(CardContext)
  const anchor = useRef({ getBoundingClientRect: () => new DOMRect() })
  useEffect(() => {
    anchor.current = { getBoundingClientRect: () => besideItsThing(trigger.current, card?.current) }
  })
  return (
    <Popover.Root>
      <Popover.Anchor virtualRef={anchor} />
      <Popover.Trigger
        ref={trigger}
        className="relative min-h-7 border-b border-dotted border-dim text-left before:absolute before:-inset-y-[9px] before:left-1/2 before:w-[max(100%,44px)] before:-translate-x-1/2 before:content-[''] data-[state=open]:border-chalk"
        data-why=""
        data-testid={`figure.${figure.id}`}
      >
        {children}
        <span className="sr-only"> {figure.name}, why?</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side={side}
          sideOffset={14}
          collisionPadding={18}
          className="scribed z-20 max-h-[80vh] w-[408px] max-w-[calc(100vw-40px)] bg-raise p-5"
          aria-label={`Why ${uncapped(figure.name)}`}
        >
          <OnTop />
          <div className="flex items-baseline gap-3">
            <span className="figure text-[30px] leading-8">
              {shown.number} <span className="text-[15px] text-ash max-bench:text-[16px]">{shown.unit}</span>
            </span>
            <span className="text-ash">{uncapped(figure.name)}, why?</span>
          </div>
          {inside}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}

/** A figure's working, its facts, its source, how sure it is. */
export function WhyWorking({ figure, units }: { figure: Figure; units: UnitSystem }): ReactNode {
  const between = (units === 'imperial' ? figure.between_imperial : figure.between_metric) ?? ''
  const forcedBy = figure.forced_by ?? ''
  return (
    <>
      <p className="mt-3" data-testid="why-sentence">
        {sentence(figure, between)}
      </p>
      <dl className="mt-3 grid grid-cols-[88px_1fr] gap-x-3 gap-y-1">
        {figure.facts.map((fact) => (
          <Line key={fact.name} term={fact.name} text={fact.text} />
        ))}
        {between !== '' && <Line term="Between" text={between} />}
        <Line term="Source" text={sourceWords(figure.source)} />
        <Line term="How sure" text={SURENESS[figure.certainty]} />
        {forcedBy !== '' && <Line term="Forced by" text={`${forcedBy}, of what it may be`} />}
      </dl>
      {figure.source.kind === 'shop' && (
        <Link to="/ledger#learned" className="mt-1 inline-flex min-h-11 items-center underline">
          Its cases are in the ledger
        </Link>
      )}
      {figure.note !== '' && <p className="mt-3 font-semibold">{figure.note}</p>}
      {figure.formula.length > 0 && (
        <details className="mt-3 border-t border-rule">
          <summary className="flex min-h-11 items-center text-ash">How it is worked out</summary>
          <ol className="formula">
            {figure.formula.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
        </details>
      )}
    </>
  )
}

/** Within a line: "Stop-hole, B left" keeps its B. */
const uncapped = (name: string): string => name.charAt(0).toLowerCase() + name.slice(1)

/** At the height of the figure, but beside the whole card when the figure is on it: never over it. */
function besideItsThing(trigger: Element | null, card: Element | null | undefined): DOMRect {
  const figure = trigger?.getBoundingClientRect() ?? new DOMRect()
  const whole = card?.getBoundingClientRect()
  return whole === undefined ? figure : new DOMRect(whole.x, figure.y, whole.width, figure.height)
}

function Line({ term, text }: { term: string; text: string }): ReactNode {
  return (
    <>
      <dt className="text-ash">{term}</dt>
      <dd>{text}</dd>
    </>
  )
}
