import { Suspense, useEffect, useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { STATIONS } from '../job/stations'
import type { KeysSheetProps } from './KeysSheet'
import { askWhy, isCovered, isWork, pressPlate } from '../ui/focus'
import { later } from '../ui/later'
import { letters } from './letters'
import { GO, SAID, STATION_KEYS } from './table'
import { useToggleUnits } from './useToggleUnits'

const KeysSheet = later<KeysSheetProps>(async () => (await import('./KeysSheet')).KeysSheet)

/** Said to whatever is on the screen: a station listens for what it can do. */
const shortcut = (name: string): CustomEvent => new CustomEvent(`vanadin:${name}`)

/** Where a letter is a letter: in a field, on a list that opens, on the map. */
const TYPED_INTO = 'input, textarea, select, [contenteditable=true], [data-own-letters]'

/** Nothing that could be pressed has the keys: the page, or the work surface itself. */
const isIdle = (target: EventTarget | null): boolean => target === document.body || isWork(target)

const silent = (target: EventTarget | null): boolean =>
  (target instanceof Element && target.closest(TYPED_INTO) !== null) || isCovered()

/** The keyboard. Silent while somebody types, chooses from a list, or a sheet lies on the page. */
export function Shortcuts(): ReactNode {
  const navigate = useNavigate()
  const toggleUnits = useToggleUnits()
  const [open, setOpen] = useState(false)
  useEffect(() => {
    const handleKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || silent(event.target)) return
      if (event.key === 'Enter') {
        // On a button or a link it presses that.
        if (!isIdle(event.target)) return
        // What the plate leads to has the keys by then: the same press is none there.
        event.preventDefault()
        pressPlate()
        return
      }
      if (!letters.on()) return
      const job = /^\/jobs\/([^/]+)/.exec(window.location.pathname)?.[1]
      const digit = STATION_KEYS.indexOf(event.key)
      const place = GO.find(({ key }) => key === event.key)
      const station = digit === -1 ? undefined : STATIONS[digit]
      if (station !== undefined && job !== undefined) void navigate(`/jobs/${job}/${station.path}`)
      else if (event.key === '?') setOpen(true)
      else if (event.key === 'u') toggleUnits()
      else if (place !== undefined) void navigate(place.to)
      else if (event.key === 'w') askWhy()
      else if (event.key in SAID) window.dispatchEvent(shortcut(event.key))
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', handleKey)
    return () => window.removeEventListener('keydown', handleKey)
  }, [navigate, toggleUnits])
  return <Suspense>{open && <KeysSheet onClose={() => setOpen(false)} />}</Suspense>
}
