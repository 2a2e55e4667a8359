import { useSyncExternalStore, type ReactNode } from 'react'
import { outbox } from '../api/queue/outbox'
import { pictureBox } from '../api/queue/pictures'

/** What has to be known on every page: the clock, a full store, what waits although the server answers. */
export function Notices(): ReactNode {
  const box = useSyncExternalStore(outbox.subscribe, outbox.now)
  const pictures = useSyncExternalStore(pictureBox.subscribe, pictureBox.now)
  const said = [
    box.clockNotice,
    box.held === ''
      ? ''
      : `${box.waiting.length} of your entries wait in this browser: ${box.held}. They are sent when their own shop answers.`,
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
