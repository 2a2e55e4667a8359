import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { fieldAt } from '../../api/fields'
import { useShop } from '../../job/ShopContext'
import { useTables } from '../../job/TablesContext'
import { Button } from '../../ui/Button'
import { FieldInput } from '../../ui/FieldInput'
import { Sheet } from '../../ui/Sheet'
import type { ShopFields } from '../useShopFields'
import { askedOf, SIGNS } from './asked'

export interface ThingSheetProps {
  thing: Schemas['Thing']
  shelf: Schemas['ShelfPlan']
  held: Schemas['ShopView']['fields']
  said: ShopFields
  onClose: () => void
}

/** One thing taken off its shelf to be looked at: how much, what it cost, who takes of it, who took. */
export function ThingSheet({ thing, shelf, held, said, onClose }: ThingSheetProps): ReactNode {
  const tables = useTables()
  const { units } = useShop()
  const id = thing.id ?? ''
  const view = (field: Schemas['StoreField']) => fieldAt(tables, held, `store.${id}.${field}`)
  const field = (name: Schemas['StoreField']) => {
    const asked = view(name)
    if (asked === undefined) return null
    const tried = said.refused[asked.key]
    return (
      <FieldInput
        key={name}
        field={asked}
        units={units}
        typed={tried?.typed ?? asked.typed}
        placeholder={asked.example}
        problem={tried?.problem}
        onSay={(typed) => said.change(asked, typed)}
      />
    )
  }
  const become = (kind: string) => {
    const what = view('what')
    if (what !== undefined) said.change(what, kind)
  }
  const named = shelf.kinds.find(([kind]) => kind === thing.named)
  return (
    <Sheet title={thing.words} open onOpenChange={(open) => !open && onClose()}>
      <div className="flex flex-col gap-3">
        {thing.could_be !== '' && (
          <section aria-label="What it could be" className="flex flex-col gap-3 border-b border-rule pb-4">
            <p role="status" className="text-[19px] leading-6">
              {thing.could_be}
            </p>
            {SIGNS.map(field)}
            {named !== undefined && (
              <Button onPress={() => become(named[0])}>Call it {named[1].toLowerCase()}</Button>
            )}
          </section>
        )}
        <div className="grid grid-cols-2 gap-3 max-bench:grid-cols-1">
          {askedOf(thing.kind, shelf.shelf).map(field)}
        </div>
        {thing.short.map((line) => (
          <p key={line} className="border-l-[3px] border-chalk pl-2.5 font-semibold">
            {line}
          </p>
        ))}
        <Takers label="Spoken for" takers={thing.takers} />
        <Takers label="Taken since it was counted" takers={thing.used} said={said} />
        <Button
          onPress={() => {
            become('')
            onClose()
          }}
        >
          Take it off the shelf for good
        </Button>
      </div>
    </Sheet>
  )
}

interface TakersProps {
  label: string
  takers: readonly Schemas['Taker'][]
  /** What was taken can be put back. */
  said?: ShopFields
}

function Takers({ label, takers, said }: TakersProps): ReactNode {
  if (takers.length === 0) return null
  return (
    <section aria-label={label}>
      <h3 className="label !font-sans !font-normal">{label}</h3>
      <ul>
        {takers.map(({ job, words, taken }) => (
          <li key={taken ?? job} className="flex items-center justify-between gap-3 border-b border-rule">
            <Link to={`/jobs/${job}`} className="flex min-h-11 items-center underline">
              {words}
            </Link>
            {taken != null && said !== undefined && (
              <button
                type="button"
                className="min-h-11 shrink-0 px-2 text-ash"
                onClick={() => said.say({ kind: 'put_back', target: taken })}
              >
                Not taken: put it back
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
