import { useQuery } from '@tanstack/react-query'
import { useState, useSyncExternalStore, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { fieldAt } from '../../api/fields'
import { shopQuery } from '../../api/queries'
import { useShop } from '../../job/ShopContext'
import { useTables } from '../../job/TablesContext'
import { letters } from '../../keys/letters'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { FieldInput } from '../../ui/FieldInput'
import { WORK_SURFACE } from '../../ui/focus'
import { Head } from '../Head'
import { TaughtList } from '../../stations/method/TaughtList'
import { UndoRedo } from '../UndoRedo'
import { UnitsHere } from './UnitsHere'
import { useShopFields } from '../useShopFields'
import { ComeIn } from './ComeIn'
import { OnAPhone } from './OnAPhone'

/** The shop: how things are shown, and the gear at hand that every plan works with. */
export function ShopPage(): ReactNode {
  const shop = useQuery(shopQuery())
  const { units } = useShop()
  const tables = useTables()
  const said = useShopFields(shop.data)
  if (shop.data === undefined) return null
  const { fields } = shop.data
  const field = (key: Schemas['ShopField'], placeholder?: string) => {
    const view = fieldAt(tables, fields, key)
    if (view === undefined) return null
    const tried = said.refused[key]
    return (
      <FieldInput
        field={view}
        units={units}
        typed={tried?.typed ?? view.typed}
        {...(placeholder === undefined ? {} : { placeholder })}
        problem={tried?.problem}
        onSay={(typed) => said.change(view, typed)}
      />
    )
  }
  return (
    <div className="mx-auto max-w-[1480px]">
      <Head at="shop">
        <UndoRedo fields={said} />
      </Head>
      <title>Shop - Vanadin</title>
      <main
        {...WORK_SURFACE}
        aria-label="Shop"
        className="grid grid-cols-[320px_1fr] gap-x-10 gap-y-5 px-5 py-5 max-bench:grid-cols-1 max-bench:px-4"
      >
        <h1 className="sr-only">Shop</h1>
        {shop.data.damaged.length > 0 && (
          <p
            role="alert"
            className="col-span-full border-l-[3px] border-chalk pl-3"
            data-testid="shop-damaged"
          >
            <b>Something said of the shop cannot be read</b> (entry{' '}
            {shop.data.damaged.map((it) => `no. ${it.revision}`).join(', ')}): it changes nothing. Say it
            again, or put back a copy of the data file if you have one.
          </p>
        )}
        <section aria-label="How things are shown" className="flex flex-col gap-3">
          <h2 className="text-[24px]">How things are shown</h2>
          {field('shop.name')}
          <UnitsHere />
          {field('shop.units')}
          {field('shop.theme')}
          {field('shop.time_zone')}
          {field('shop.clock')}
          {field('shop.ambient')}
          {field('shop.currency', '£, $, kr')}
          {field('shop.rate', '45')}
          {field('shop.low_rate', '5')}
          {field('shop.small_things', '3')}
          <div className="grid grid-cols-2 gap-3">
            {field('shop.day_from', '8:00')}
            {field('shop.day_to', '17:00')}
          </div>
          {field('shop.work_days')}
          {field('shop.hood', '5 h')}
          <a href="/api/calendar.ics" download="shop.ics" className="flex min-h-11 items-center underline">
            The shop&apos;s calendar (iCalendar)
          </a>
          <Letters />
          <ComeIn />
        </section>
        <section aria-label="In the shop" className="flex flex-col gap-3">
          <h2 className="text-[24px]">In the shop</h2>
          <Link to="/stores" className="flex min-h-11 items-center underline">
            What lies on the shelves and stands on the floor: Stores
          </Link>
          {field('shop.pins')}
          {field('shop.done_often')}
          <h2 className="mt-2 text-[24px]">How it is done here</h2>
          <p className="text-ash">Shops do these differently. A job may still do it its own way.</p>
          <TaughtList
            matters={tables.taught}
            ofShop
            typed={(key) => fields[key]?.typed ?? ''}
            onSay={(key, typed) => {
              const view = fieldAt(tables, fields, key)
              if (view !== undefined) said.change(view, typed)
            }}
          />
          <h2 className="mt-2 text-[24px]">Instruments</h2>
          <p className="text-ash">
            {shop.data.stand_ins
              ? 'The thermocouples are simulated: what they show is made up.'
              : 'Readings come from the logger, or are typed in.'}{' '}
            A logger posts lines of minutes or time, channel, °C to the address of a job,
            /api/jobs/…/readings, with this key.
          </p>
          <LoggerKey
            kept={shop.data.logger}
            onSay={(typed) => {
              const view = fieldAt(tables, fields, 'shop.logger')
              if (view !== undefined) said.change(view, typed)
            }}
          />
          <OnAPhone />
        </section>
      </main>
    </div>
  )
}

/** The key a logger shows: it is made here and shown once, the shop keeps only what it is known by. */
function LoggerKey({ kept, onSay }: { kept: boolean; onSay: (key: string) => void }): ReactNode {
  const [made, setMade] = useState('')
  return (
    <div className="flex flex-wrap items-center gap-3" data-testid="logger-key">
      <Button
        onPress={() => {
          const key = token()
          onSay(key)
          setMade(key)
        }}
      >
        {kept ? 'Make another key' : 'Make a key'}
      </Button>
      {kept && (
        <Button
          onPress={() => {
            onSay('')
            setMade('')
          }}
        >
          Take it away
        </Button>
      )}
      <p role="status" className="min-w-0 grow basis-[280px]">
        {made !== '' ? (
          <>
            <b className="formula [overflow-wrap:anywhere]">{made}</b> Write it into the logger now: it is not
            shown again.
          </>
        ) : kept ? (
          'A key is set.'
        ) : (
          'No key yet: no logger can post.'
        )}
      </p>
    </div>
  )
}

/** Twenty letters and figures that nobody guesses. Works on plain http too. */
const token = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(20)), (byte) => (byte % 36).toString(36)).join('')

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
