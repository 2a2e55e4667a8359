import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { labelCodeQuery } from '../../api/queries'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { NewRound } from '../../job/NewRound'
import { NextOrButton } from '../../job/NextOrButton'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { focusField } from '../../ui/focus'
import { print } from '../../ui/print'
import { Afterwards } from './Afterwards'
import { RecordPage } from './RecordPage'
import { Used } from './Used'

/** The record that goes with the part and stays with it. */
export function HandOverStation(): ReactNode {
  const { view, field, say } = useJob()
  const { units } = useShop()
  const done = field('hand_over.done')
  const handed = done.typed === 'yes'
  const { open, owned, label, afterwards } = view.plan.hand_over
  const { became } = afterwards
  // It has to be there when the label is printed.
  useQuery({ ...labelCodeQuery(view.id), enabled: label != null })
  return (
    <div className="flex min-h-0 grow gap-5 max-bench:flex-col print:block">
      <div className="flex min-h-0 min-w-0 grow flex-col gap-3 overflow-auto print:block print:overflow-visible">
        <Used />
        <div
          tabIndex={0}
          role="region"
          aria-label="The record"
          className="grow border border-scribe bg-raise p-6 print:border-0 print:p-0"
        >
          <RecordPage />
        </div>
      </div>
      <div className="no-print flex w-[250px] shrink-0 flex-col gap-3 max-bench:order-first max-bench:w-full">
        <Field name="hand_over.follow_up" placeholder="in 3 months" />
        <Field name="hand_over.new_part" placeholder="in 6 weeks" folded />
        {handed && <Afterwards />}
        {handed && became === 'failed' && <NewRound reason="it failed in use" cause />}
        <Field name="hand_over.expect" placeholder="warm it slowly" />
        <Button onPress={() => void print('record')}>Print the record</Button>
        {label != null && <Button onPress={() => void print('label')}>Print the label, 62 x 29 mm</Button>}
        <a
          href={`/api/jobs/${view.id}/export`}
          download
          className="flex min-h-11 items-center justify-center border-[1.5px] border-scribe px-4 font-semibold"
        >
          Export to a file
        </a>
        {open.length > 0 && (
          <section aria-label="Open" className="border-l-[3px] border-chalk pl-3" data-testid="open">
            <b>Open</b>
            {open.map((words) => (
              <p key={words}>{words}</p>
            ))}
          </section>
        )}
        {(open.length > 0 || owned !== '') && (
          <Field name="hand_over.owned" placeholder="the owner knows, M. Okafor" />
        )}
        {handed ? (
          <Button
            onPress={() =>
              say({ kind: 'set', key: 'hand_over.done', typed: '', shown_in: units }, done.revision)
            }
          >
            Not handed over after all
          </Button>
        ) : (
          <NextOrButton
            station="hand_over"
            testId="handed-over"
            gate
            onPress={() => {
              if (open.length > 0 && owned === '') focusField('hand_over.owned')
              else say({ kind: 'set', key: 'hand_over.done', typed: 'yes', shown_in: units }, done.revision)
            }}
          >
            Handed over
          </NextOrButton>
        )}
      </div>
    </div>
  )
}
