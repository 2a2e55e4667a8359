import { useEffect, useRef, useSyncExternalStore, type ReactNode } from 'react'
import { outbox, type Refusal } from '../api/queue/outbox'
import { Button } from '../ui/Button'
import { shownFields } from './shown-fields'

/** What the server would not take, and is not told at its field: what was said, why, and a way to say it again. */
export function Tray(): ReactNode {
  const box = useSyncExternalStore(outbox.subscribe, outbox.now)
  useSyncExternalStore(shownFields.subscribe, shownFields.version)
  const job = /^\/jobs\/([^/]+)/.exec(window.location.pathname)?.[1]
  const inTray = box.refusals.filter((item) => item.job !== job || !shownFields.has(item.job, item.field))
  const tray = useRef<HTMLElement>(null)
  const shown = inTray.length > 0
  // What lies at the foot of a page lies above it: nothing is covered by what was not taken.
  useEffect(() => {
    const page = document.documentElement.style
    const seen = tray.current
    if (seen === null) return
    const watch = new ResizeObserver(() => page.setProperty('--tray', `${seen.offsetHeight}px`))
    watch.observe(seen)
    return () => {
      watch.disconnect()
      page.removeProperty('--tray')
    }
  }, [shown])
  if (!shown) return null
  return (
    <section
      ref={tray}
      aria-label="Not taken"
      className="no-print fixed right-0 bottom-0 left-0 z-30 max-h-[30vh] max-bench:max-h-[24vh] overflow-auto border-t-[3px] border-chalk bg-raise px-5 py-2 max-bench:px-4"
      data-testid="tray"
    >
      <h2 className="text-[20px]">Not taken</h2>
      <ul>
        {inTray.toReversed().map((item) => (
          <NotTaken key={item.id} item={item} elsewhere={item.job !== job} />
        ))}
      </ul>
    </section>
  )
}

function NotTaken({ item, elsewhere }: { item: Refusal; elsewhere: boolean }): ReactNode {
  const { message, would_be_right } = item.problem
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-t border-rule py-1.5">
      <p role="alert" className="min-w-0 grow basis-[320px]">
        <b className="[overflow-wrap:anywhere] first-letter:uppercase">
          {item.typed === '' ? 'Nothing' : item.typed}.
        </b>{' '}
        {message}
        {would_be_right !== '' && <span className="text-ash"> ({would_be_right})</span>}
        {elsewhere && (
          <a href={`/jobs/${item.job}`} className="ml-2 underline">
            its job
          </a>
        )}
      </p>
      <span className="flex gap-2">
        <Button onPress={() => outbox.again(item)}>Say it again</Button>
        <Button onPress={() => outbox.dismiss(item)}>Let it go</Button>
      </span>
    </li>
  )
}
