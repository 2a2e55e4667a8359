import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, useSyncExternalStore, type ReactNode } from 'react'
import { Refused, type Problem, type Schemas } from '../../api/client'
import { fieldAt, type FieldView } from '../../api/fields'
import { sender } from '../../api/queue/outbox'
import { shopQuery } from '../../api/queries'
import { useShop } from '../../job/ShopContext'
import { useTables } from '../../job/TablesContext'
import { useShopWord } from '../../job/useShopWord'
import { letters } from '../../keys/letters'
import { useShortcut } from '../../keys/useShortcut'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { FieldInput } from '../../ui/FieldInput'
import { WORK } from '../../ui/focus'
import { Head } from '../Head'
import { ComeIn } from './ComeIn'
import { OnAPhone } from './OnAPhone'
import { PunchMark } from '../../ui/PunchMark'

interface Tried {
  typed: string
  problem: Problem
}

const tool = 'min-h-11 px-2 text-ash disabled:text-scribe'

/** The shop: how things are shown, and the gear at hand that every plan works with. */
export function ShopPage(): ReactNode {
  const shop = useQuery(shopQuery())
  const { units } = useShop()
  const tables = useTables()
  const queryClient = useQueryClient()
  const [refused, setRefused] = useState<Record<string, Tried>>({})
  const word = useShopWord()
  const change = (field: FieldView, typed: string) => {
    const said = { kind: 'set' as const, key: field.key, typed, shown_in: units }
    word.mutate(
      { change: said, base: field.revision },
      {
        onSuccess: () =>
          setRefused((all) => Object.fromEntries(Object.entries(all).filter(([key]) => key !== field.key))),
        onError: (error) => {
          const problem =
            error instanceof Refused && error.problems[0] !== undefined
              ? error.problems[0]
              : {
                  field: field.key,
                  message: 'The server is not reached. Press Enter again.',
                  would_be_right: '',
                }
          setRefused((all) => ({ ...all, [field.key]: { typed, problem } }))
          void queryClient.invalidateQueries({ queryKey: shopQuery().queryKey })
        },
      },
    )
  }
  // Everybody takes back their own word.
  const own = shop.data?.own_words.find((words) => words.sender === sender)
  const undo = () => {
    if (own?.undo != null) word.mutate({ change: { kind: 'undo', target: own.undo } })
  }
  const redo = () => {
    if (own?.redo != null) word.mutate({ change: { kind: 'redo', target: own.redo } })
  }
  useShortcut('z', undo)
  useShortcut('y', redo)
  if (shop.data === undefined) return null
  const { fields } = shop.data
  const field = (key: Schemas['ShopField'], placeholder?: string) => {
    const view = fieldAt(tables, fields, key)
    if (view === undefined) return null
    const tried = refused[key]
    return (
      <FieldInput
        field={view}
        units={units}
        typed={tried?.typed ?? view.typed}
        {...(placeholder === undefined ? {} : { placeholder })}
        problem={tried?.problem}
        onSay={(typed) => change(view, typed)}
      />
    )
  }
  const gear = (key: Schemas['ShopField']) => {
    const view = fieldAt(tables, fields, key)
    return view === undefined ? null : (
      <Gear view={view} problem={refused[key]?.problem} onSay={(typed) => change(view, typed)} />
    )
  }
  return (
    <div className="mx-auto max-w-[1480px]">
      <Head at="shop">
        <button type="button" className={tool} onClick={undo} disabled={own?.undo == null}>
          Undo
        </button>
        <button type="button" className={tool} onClick={redo} disabled={own?.redo == null}>
          Redo
        </button>
      </Head>
      <title>Shop - Vanadin</title>
      <main
        id={WORK}
        tabIndex={-1}
        aria-label="Shop"
        className="grid grid-cols-[320px_1fr] gap-x-10 gap-y-5 px-5 py-5 max-bench:grid-cols-1 max-bench:px-4"
      >
        <h1 className="sr-only">Shop</h1>
        <section aria-label="How things are shown" className="flex flex-col gap-3">
          <h2 className="text-[24px]">How things are shown</h2>
          {field('shop.name')}
          {field('shop.units')}
          {field('shop.theme')}
          {field('shop.time_zone')}
          {field('shop.ambient')}
          {field('shop.currency', '£, $, kr')}
          {field('shop.rate', '45')}
          {field('shop.low_rate', '5')}
          <Letters />
          <ComeIn />
        </section>
        <section aria-label="At hand" className="flex flex-col gap-3">
          <h2 className="text-[24px]">At hand</h2>
          <p className="text-ash">Press what is in the shop. Every plan on the rack is worked out with it.</p>
          {gear('shop.sources')}
          {gear('shop.packings')}
          {gear('shop.rods')}
          {gear('shop.sets')}
          {field('shop.stitch_kit')}
          {field('shop.pins')}
          <OnAPhone />
        </section>
      </main>
    </div>
  )
}

/** Whether single letters do something on this device. */
function Letters(): ReactNode {
  const on = useSyncExternalStore(letters.subscribe, letters.on)
  return (
    <div>
      <p className="label mb-1">Single-letter keys, on this device</p>
      <Choice
        label="Single-letter keys"
        choices={[
          { id: 'on', label: 'On' },
          { id: 'off', label: 'Off' },
        ]}
        chosen={on ? 'on' : 'off'}
        onChoose={(id) => letters.turn(id !== 'off')}
      />
    </div>
  )
}

interface GearProps {
  view: FieldView
  problem: Problem | undefined
  onSay: (typed: string) => void
}

/** What is at hand of one kind: a full punch mark is here. */
function Gear({ view, problem, onSay }: GearProps): ReactNode {
  const here = view.typed
    .split(',')
    .map((id) => id.trim())
    .filter((id) => id !== '')
  // "None" is an answer of its own: it stands alone, and gives way to whatever is there.
  const toggle = (id: string) => {
    const others = here.filter((other) => other !== id && other !== 'none')
    const next = here.includes(id) ? others : id === 'none' ? ['none'] : [...others, id]
    onSay(next.join(','))
  }
  return (
    <div role="group" aria-label={view.label}>
      <p className="label mb-1">{view.label}</p>
      <div className="flex flex-wrap gap-2">
        {view.choices.map((choice) => (
          <Button key={choice.id} chosen={here.includes(choice.id)} onPress={() => toggle(choice.id)}>
            <svg width="14" height="14" aria-hidden className="shrink-0">
              <PunchMark x={7} y={7} radius={5} amount={here.includes(choice.id) ? 'enough' : 'nothing'} />
            </svg>
            {choice.label}
          </Button>
        ))}
      </div>
      {problem !== undefined && (
        <p role="alert" className="mt-1">
          {problem.message}
        </p>
      )}
    </div>
  )
}
