import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { useTables } from '../../job/TablesContext'
import { OpenPocket } from '../../job/tests-of-iron/OpenPocket'
import { Choice } from '../../ui/Choice'
import { GoesOn } from '../../ui/GoesOn'
import { focusField } from '../../ui/focus'
import { Plate } from '../../ui/Plate'
import { Evidence } from './Evidence'
import { MeasuredForm } from './MeasuredForm'
import { Meaning } from './Meaning'
import { Roll, type Pocket } from './Roll'

const SURE = [
  { id: 'sure', label: 'Sure' },
  { id: 'fair', label: 'Fairly' },
  { id: 'unsure', label: 'Unsure' },
]

/** Tests laid out like a tool roll; the outcome is chosen by what it looks like. */
export function IronStation(): ReactNode {
  const { view, say } = useJob()
  const { roll, measured: measurable } = useTables()
  const [confidence, setConfidence] = useState<Schemas['Confidence']>('sure')
  const [spot, setSpot] = useState('first spot')
  // The pocket somebody opened; once its test is said the next one worth doing opens by itself.
  const [opened, setOpened] = useState<Pocket | null>(null)
  const { iron } = view.plan
  const next = iron.next_tests[0]
  const alone = view.practice?.level === 'alone'
  const open: Pocket = opened ?? next?.test ?? roll[0]?.test ?? 'punch'
  const standing = view.job.evidence.filter((seen) => seen.struck == null && seen.hard_spot == null)
  const before = (test: string) => standing.findLast((seen) => seen.test === test && seen.spot === spot)
  const observe = (test: string, outcome: string) => {
    say({ kind: 'observe', test, outcome, confidence, spot: spot.trim() }, before(test)?.revision ?? 0)
    setOpened(null)
  }
  const look = roll.find((test) => test.test === open)
  const measured = measurable.find((test) => test.test === open)
  return (
    <div className="flex min-h-0 grow flex-col gap-2.5 overflow-auto px-1 -mx-1 max-bench:overflow-visible">
      {alone ? (
        <h2 className="text-[26px] leading-7">What iron is it?</h2>
      ) : (
        <Headline onOpen={(pocket) => setOpened(pocket)} />
      )}
      {(alone ? [] : iron.notices).map((notice) => (
        <p key={notice} role="status" className="border-l-[3px] border-chalk pl-3">
          {notice}
        </p>
      ))}
      <Unasked />
      <Roll open={open} next={alone ? undefined : next?.test} onOpen={setOpened} />
      {look !== undefined && (
        <OpenPocket
          test={look}
          chosen={before(look.test)?.outcome ?? ''}
          onObserve={(outcome) => observe(look.test, outcome)}
        />
      )}
      {measured !== undefined && (
        <MeasuredForm
          key={measured.test}
          test={measured}
          onMeasure={(typed, shownIn) =>
            say(
              {
                kind: 'measure',
                test: measured.test,
                typed,
                shown_in: shownIn,
                confidence,
                spot: spot.trim(),
              },
              before(measured.test)?.revision ?? 0,
            )
          }
        />
      )}
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <Choice
          label="How sure of what was seen"
          choices={SURE}
          chosen={confidence}
          onChoose={(id) => setConfidence(id === 'fair' || id === 'unsure' ? id : 'sure')}
        />
        <label className="label flex items-center gap-2">
          <span>Where on the part</span>
          <input
            value={spot}
            onChange={(event) => setSpot(event.target.value)}
            className="min-h-11 w-40 border-[1.5px] border-dim bg-raise px-3 text-[17px] font-semibold text-chalk"
          />
        </label>
      </div>
      <Evidence
        onCorrect={(line) => {
          setConfidence(line.confidence)
          setSpot(line.spot)
          const pocket = [...roll, ...measurable].find((test) => test.test === line.test)
          if (pocket !== undefined) setOpened(pocket.test)
        }}
      />
      {!alone && <Meaning />}
      <GoesOn />
    </div>
  )
}

/** Who leads, and the test that tells most in the time it takes. */
function Headline({ onOpen }: { onOpen: (pocket: Pocket) => void }): ReactNode {
  const { view } = useJob()
  const { iron } = view.plan
  const leading = iron.shares[0]
  const next = iron.next_tests[0]
  const tested = iron.steps.length > 0
  const stopped = view.standing.stopped === "Don't repair"
  const who = stopped
    ? `${leading?.label}: don't repair.`
    : iron.enough
      ? `${leading?.label}: enough, go on.`
      : tested
        ? `${leading?.label} leads.`
        : `Most likely ${leading?.label.toLowerCase()}.`
  const what =
    iron.enough || stopped
      ? ''
      : next === undefined
        ? ' No test here tells more.'
        : ` Next: ${next.verb.toLowerCase()}.`
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
      <div className="min-w-0">
        <h2 className="text-[26px] leading-7" data-testid="iron-headline">
          {who}
          {what}
        </h2>
        {!iron.enough && next !== undefined && next.mark !== '' && (
          <p className="text-ash">It leaves {next.mark}.</p>
        )}
      </div>
      {view.standing.station === 'iron' && next !== undefined && (
        <Plate
          testId="next"
          onPress={() => {
            onOpen(next.test)
            // Before its pictures, on none.
            focusField(next.test)
          }}
        >
          {view.standing.next.verb}
        </Plate>
      )}
    </div>
  )
}

/** What is believed before any test hangs on these two: asked here while nobody has said. */
function Unasked(): ReactNode {
  const { typed } = useJob()
  const [missing] = useState(() => typed('part.family') === '' || typed('part.era') === '')
  if (!missing) return null
  return (
    <div className="grid grid-cols-[1.6fr_1fr] gap-3 max-bench:grid-cols-1">
      <Field name="part.family" columns={3} />
      <Field name="part.era" columns={2} />
    </div>
  )
}
