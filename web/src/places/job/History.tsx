import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import type { Change } from '../../api/client'
import { tableOf } from '../../api/fields'
import { saidOf } from '../../api/queue/queue'
import { historyQuery } from '../../api/queries'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useTables } from '../../job/TablesContext'
import { clock } from '../../quantity/show'

/** Everything that was said of the job, the last first. */
export function History(): ReactNode {
  const { view } = useJob()
  const { time_zone } = useShop()
  const tables = useTables()
  const history = useQuery(historyQuery(view.id, view.revision))
  if (history.data === undefined) return null
  const label = (key: string) => tableOf(tables, key)?.label ?? key
  return (
    <section aria-label="History" className="mt-5">
      <h3 className="mb-1 text-[22px]">History</h3>
      <ol>
        {history.data.facts.toReversed().map((fact) => (
          <li
            key={fact.id}
            className="grid grid-cols-[92px_1fr] gap-2 border-b border-rule py-1.5 last:border-0"
          >
            <span className="text-ash">{clock(fact.at_server_ms, time_zone, view.now_ms)}</span>
            <span>{said(fact.change, label)}</span>
          </li>
        ))}
      </ol>
    </section>
  )
}

function said(change: Change, label: (key: string) => string): string {
  switch (change.kind) {
    case 'set':
      return `${label(change.key)}: ${change.typed === '' ? 'not known' : change.typed}`
    case 'observe':
      return `${change.test} at ${change.spot}: ${change.outcome.replaceAll('_', ' ')}, ${change.confidence}`
    case 'measure':
      return `${change.test} at ${change.spot}: ${Object.values(change.typed).join(', ')}, ${change.confidence}`
    case 'add_hard_spot':
      return `A hard spot was mapped: ${change.spot}`
    case 'add_neighbour':
      return 'Something must stay cool'
    case 'add_picture':
      return 'A picture was taken'
    case 'add_crack':
      return 'A crack was mapped'
    case 'strike':
      return `Struck out: ${change.reason}`
    case 'undo':
      return 'Taken back'
    case 'redo':
      return 'Put back'
    case 'light':
      return `Lit, job clock at ${change.speed} times`
    case 'cancel_light':
      return 'Lighting cancelled'
    case 'torch':
      return `Torch: ${saidOf(change)}`
    case 'new_round':
      return `New round: ${change.reason}`
    case 'unreadable':
      return `Cannot be read: ${change.text}`
    case 'put_away':
      return 'Put away'
    case 'bring_back':
      return 'Brought back'
  }
}
