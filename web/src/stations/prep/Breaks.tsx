import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { StrikeSheet } from '../../job/StrikeSheet'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { ReadForm, type Asked } from '../../job/ReadForm'

const GAUGES: readonly {
  what: Schemas['SeamReadingKind']
  label: string
  asks: readonly Asked[]
  verb: string
}[] = [
  {
    what: 'fit_up',
    label: 'Gap and step',
    asks: [
      { name: 'at', label: 'Along' },
      { name: 'gap', label: 'Gap' },
      { name: 'step', label: 'Step' },
    ],
    verb: 'Write the gap down',
  },
  {
    what: 'rock',
    label: 'Rock on the plate',
    asks: [
      { name: 'rock', label: 'Rocks' },
      { name: 'over', label: 'Over a length of' },
    ],
    verb: 'Write the rock down',
  },
  {
    what: 'pin',
    label: 'Pin through the holes',
    asks: [{ name: 'run_out', label: 'Pin runs out' }],
    verb: 'Write the pin down',
  },
]

/** Full breaks as their pieces lie on the bench: how they fit, what they tell, the tacks and their checks. */
export function Breaks({ breaks }: { breaks: readonly Schemas['BreakPlan'][] }): ReactNode {
  const [striking, setStriking] = useState<Schemas['ReadLine'] | null>(null)
  return (
    <>
      {breaks.map((it) => (
        <section
          key={it.crack}
          aria-label={`The pieces of ${it.letter}`}
          className="flex flex-col gap-2 border-t border-scribe pt-2"
        >
          <h2 className="text-[24px] leading-7">The pieces of {it.letter}</h2>
          {it.means.map((sentence) => (
            <p
              key={sentence}
              className={it.locked_in ? 'border-l-[3px] border-chalk pl-3 font-semibold' : ''}
            >
              {sentence}
            </p>
          ))}
          <ReadLines read={it.read} onStrike={setStriking} />
          <div className="flex flex-wrap items-start gap-x-6 gap-y-2">
            {GAUGES.map(({ what, label, asks, verb }) => (
              <ReadForm key={what} crack={it.crack} what={what} asks={asks} verb={verb} label={label} />
            ))}
          </div>
          <div className="grid grid-cols-[2fr_1fr] items-end gap-2 max-bench:grid-cols-1">
            <Field name={`crack.${it.crack}.align_by`} />
            <Field name={`crack.${it.crack}.old_share`} />
          </div>
          {it.tells.length > 0 && <p>{it.tells.join(' ')}</p>}
          <Tacks of={it} onStrike={setStriking} />
        </section>
      ))}
      <StrikeSheet
        target={striking?.id ?? null}
        what={striking?.words ?? ''}
        onClose={() => setStriking(null)}
      />
    </>
  )
}

interface ReadLinesProps {
  read: readonly Schemas['ReadLine'][]
  onStrike: (line: Schemas['ReadLine']) => void
}

function ReadLines({ read, onStrike }: ReadLinesProps): ReactNode {
  if (read.length === 0) return null
  return (
    <ul>
      {read.map((line) => (
        <li
          key={line.id}
          className="flex min-h-12 items-center justify-between gap-3 border-b border-rule py-1"
        >
          <b className="first-letter:uppercase">{line.words}</b>
          <Button label={`Cross out: ${line.words}`} onPress={() => onStrike(line)}>
            Cross out
          </Button>
        </li>
      ))}
    </ul>
  )
}

function Tacks({
  of,
  onStrike,
}: {
  of: Schemas['BreakPlan']
  onStrike: ReadLinesProps['onStrike']
}): ReactNode {
  const { say } = useJob()
  const { units } = useShop()
  const [moved, setMoved] = useState<number | null>(null)
  const next = of.tacks.find((tack) => tack.checked == null)?.number
  const check = (number: number) =>
    say({
      kind: 'measure_seam',
      crack: of.crack,
      what: 'tack',
      number,
      typed: { moved: '0' },
      shown_in: units,
    })
  if (of.tacks.length === 0) return null
  return (
    <section aria-label={`Tacks of ${of.letter}`}>
      <h3 className="text-[20px]">Tacks, in this order</h3>
      <p className="text-ash">
        Peen each one, let it go hand-warm by the gauge, then check the alignment
        {of.align_words === '' ? '' : `: ${of.align_words}`}.
      </p>
      <ol>
        {of.tacks.map((tack) => (
          <li key={tack.number} className="border-b border-rule py-1.5" data-tack={tack.number}>
            <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5">
              <span className="figure w-7 text-[22px]">{tack.number}</span>
              <span className="min-w-[200px] grow">{tack.words}</span>
              {tack.checked != null && <b className="first-letter:uppercase">{tack.checked.words}</b>}
              {(tack.checked == null ? tack.number === next : tack.moved) && (
                <>
                  <Button onPress={() => check(tack.number)}>In line</Button>
                  <Button
                    chosen={moved === tack.number}
                    onPress={() => setMoved(moved === tack.number ? null : tack.number)}
                  >
                    It moved
                  </Button>
                </>
              )}
              {tack.checked != null && (
                <Button
                  label={`Cross out the check of tack ${tack.number}`}
                  onPress={() => tack.checked != null && onStrike(tack.checked)}
                >
                  Cross out
                </Button>
              )}
            </div>
            {moved === tack.number && (
              <ReadForm
                crack={of.crack}
                what="tack"
                number={tack.number}
                asks={[{ name: 'moved', label: 'By' }]}
                verb="Write it down"
                label={`Tack ${tack.number} moved`}
              />
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}
