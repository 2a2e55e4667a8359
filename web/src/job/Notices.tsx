import { useSyncExternalStore, type ReactNode } from 'react'
import { tableOf } from '../api/fields'
import { outbox } from '../api/queue/outbox'
import { pictureBox } from '../api/queue/pictures'
import { serverTimeOf } from '../api/queue/server-clock'
import { whatWaits } from '../api/queue/what-waits'
import { reach } from '../api/reach'
import { clock } from '../quantity/show'
import { useShop } from './ShopContext'
import { useTables } from './TablesContext'
import { useNow } from './useNow'

/** What has to be known on every page: the clock, a server that is gone, a full store, what waits. */
export function Notices(): ReactNode {
  const box = useSyncExternalStore(outbox.subscribe, outbox.now)
  const pictures = useSyncExternalStore(pictureBox.subscribe, pictureBox.now)
  const { lost, seenAtMs } = useSyncExternalStore(reach.subscribe, reach.now)
  const shop = useShop()
  const tables = useTables()
  const now = useNow()
  const waits = whatWaits(box.waiting, pictures.waiting.length, (key) => tableOf(tables, key)?.label)
  const then = seenAtMs === null ? '' : ` as it was at ${clock(serverTimeOf(seenAtMs), shop, now)}`
  const said = [
    box.clockNotice,
    lost || seenAtMs !== null
      ? `The server is not reached. What stands here is${then === '' ? ' as it was last' : then}: what was hot then may be hot still.`
      : '',
    lost && waits !== '' ? `Kept in this browser until it answers: ${waits}.` : '',
    box.held === ''
      ? ''
      : `${box.waiting.length} of your entries wait in this browser: ${box.held}. They are sent when their own shop answers.`,
    box.trouble === ''
      ? ''
      : `The server keeps nothing now: ${box.trouble}. What you say waits in this browser, and is sent again and again.`,
    box.unkept || pictures.unkept
      ? 'This browser can keep nothing more: what waits is lost when this page is closed. Leave it open until it is sent.'
      : '',
  ].filter((words) => words !== '')
  return said.map((words) => (
    <p
      key={words}
      role="status"
      className="no-print border-b border-chalk bg-raise px-5 py-1.5 font-semibold max-bench:px-4"
      data-testid="notice"
    >
      {words}
    </p>
  ))
}
