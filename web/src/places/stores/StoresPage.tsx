import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { fieldAt } from '../../api/fields'
import { newId } from '../../api/queue/new-id'
import { shopQuery, storesQuery } from '../../api/queries'
import { useShop } from '../../job/ShopContext'
import { useTables } from '../../job/TablesContext'
import { FieldInput } from '../../ui/FieldInput'
import { WORK_SURFACE } from '../../ui/focus'
import { Plate } from '../../ui/Plate'
import { Sheet } from '../../ui/Sheet'
import { Head } from '../Head'
import { UndoRedo } from '../UndoRedo'
import { useShopFields } from '../useShopFields'
import { BuyingList } from './BuyingList'
import { Drills } from './Drills'
import { Gear } from './Gear'
import { ShelfLine } from './ShelfLine'
import { ThingSheet } from './ThingSheet'

/** What lies on the page for a moment: a thing, or what has to be bought. */
type StoresSheet = { kind: 'thing'; id: string } | { kind: 'buying' }

/** The stores: things on shelves, what the jobs will take of them, what is missing. */
export function StoresPage(): ReactNode {
  const shop = useQuery(shopQuery())
  const { revision, units } = useShop()
  const { data: stores } = useQuery({
    ...storesQuery(revision),
    // What lies open stays open while the shelves are looked at anew.
    placeholderData: keepPreviousData,
  })
  const tables = useTables()
  const said = useShopFields(shop.data)
  const [sheet, setSheet] = useState<StoresSheet | null>(null)
  const close = () => setSheet(null)
  if (shop.data === undefined || stores === undefined) return null
  const { fields } = shop.data
  const { plan, drills: marked } = stores
  const put = (kind: string, sizeMm: number | null) => {
    const id = newId()
    said.say({ kind: 'set', key: `store.${id}.what`, typed: kind, shown_in: units })
    if (sizeMm !== null)
      said.say({ kind: 'set', key: `store.${id}.size`, typed: `${sizeMm} mm`, shown_in: units })
    setSheet({ kind: 'thing', id })
  }
  const setting = (key: Schemas['ShopField']) => fieldAt(tables, fields, key)
  const say = (key: Schemas['ShopField'], typed: string) => {
    const view = setting(key)
    if (view !== undefined) said.change(view, typed)
  }
  const gear = (key: Schemas['ShopField']) => {
    const view = setting(key)
    return view === undefined ? null : (
      <Gear view={view} problem={said.refused[key]?.problem} onSay={(typed) => said.change(view, typed)} />
    )
  }
  const nothing: Partial<Record<Schemas['Shelf'], { key: Schemas['ShopField']; typed: string }>> = {
    rods: { key: 'shop.rods', typed: 'none' },
    packing: { key: 'shop.packings', typed: 'air' },
    stitching: { key: 'shop.stitch_kit', typed: 'no' },
  }
  const openThing = plan.shelves
    .flatMap((shelf) => shelf.things.map((thing) => ({ shelf, thing })))
    .find(({ thing }) => sheet?.kind === 'thing' && thing.id === sheet.id)
  const drills = setting('shop.drills')
  return (
    <div className="mx-auto max-w-[1480px]">
      <Head at="stores">
        <UndoRedo fields={said} />
      </Head>
      <title>Stores - Vanadin</title>
      <main {...WORK_SURFACE} aria-label="Stores" className="flex flex-col gap-3 px-5 py-4 max-bench:px-4">
        <div className="flex flex-wrap items-start justify-between gap-4">
          <div>
            <h1 className="words text-[35px] leading-10">{plan.headline}</h1>
            <p className="text-ash">{plan.second}</p>
          </div>
          {plan.buying.length > 0 && (
            <Plate onPress={() => setSheet({ kind: 'buying' })}>Buying list: {plan.buying.length}</Plate>
          )}
        </div>
        <div className="grid grid-cols-2 gap-x-8 gap-y-4 max-bench:grid-cols-1">
          {plan.shelves.map((shelf) => {
            const none = nothing[shelf.shelf]
            return (
              <ShelfLine
                key={shelf.shelf}
                shelf={shelf}
                onOpen={(thing) => setSheet({ kind: 'thing', id: thing.id ?? '' })}
                onPut={put}
                onNothing={none === undefined ? undefined : () => say(none.key, none.typed)}
                nothing={none !== undefined && (fields[none.key]?.typed ?? '') === none.typed}
              />
            )
          })}
        </div>
        {drills !== undefined && (
          <Drills drills={marked}>
            <FieldInput
              field={drills}
              units={units}
              typed={said.refused[drills.key]?.typed ?? drills.typed}
              placeholder={drills.example}
              problem={said.refused[drills.key]?.problem}
              onSay={(typed) => said.change(drills, typed)}
            />
          </Drills>
        )}
        <section aria-label="On the floor" className="flex flex-col gap-3">
          <h2 className="text-[24px]">On the floor</h2>
          <p className="text-ash">
            Press what stands in the shop. Every plan on the rack is worked out with it.
          </p>
          {gear('shop.sources')}
          {gear('shop.sets')}
        </section>
      </main>
      {openThing !== undefined && (
        <ThingSheet
          key={openThing.thing.id}
          thing={openThing.thing}
          shelf={openThing.shelf}
          held={fields}
          said={said}
          onClose={close}
        />
      )}
      <Sheet title="Buying list" open={sheet?.kind === 'buying'} onOpenChange={close}>
        <BuyingList buying={plan.buying} />
        <a
          href="/api/stores/buying.csv"
          download="buying-list.csv"
          className="mt-3 flex min-h-11 items-center underline"
        >
          As a list for a sheet (CSV)
        </a>
      </Sheet>
    </div>
  )
}
