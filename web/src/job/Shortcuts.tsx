import { useEffect, useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { Sheet } from '../ui/Sheet'
import { STATIONS } from './stations'
import { useToggleUnits } from './useToggleUnits'

const KEYS: readonly [key: string, what: string][] = [
  ['/', 'Find a job'],
  ['n', 'New job'],
  ['r', 'Rack'],
  ['1 to 9, 0', 'Stations, Part to Hand-over'],
  ['l', 'Log a reading'],
  ['b', 'Bead done, or pin set'],
  ['w', 'Why: the first figure on the card'],
  ['u', 'Units'],
  ['z', 'Undo (y: put back)'],
  ['?', 'These keys'],
]

/** Said to whatever is on the screen: a station listens for what it can do. */
export const shortcut = (name: string): CustomEvent => new CustomEvent(`vanadin:${name}`)

/** Where a letter is a letter: in a field, on a list, open or closed, in a menu. */
const TYPED_INTO =
  'input, textarea, select, [contenteditable=true], [role=combobox], [role=listbox], [role=menu], [role=dialog]'
/** While one of these lies on the page, the keys are its own. */
const ON_TOP = '[role=dialog], [role=listbox], [role=menu]'

const silent = (target: EventTarget | null): boolean =>
  (target instanceof Element && target.closest(TYPED_INTO) !== null) ||
  document.querySelector(ON_TOP) !== null

/** The keyboard. Silent while somebody types, chooses from a list, or a sheet lies on the page. */
export function Shortcuts(): ReactNode {
  const navigate = useNavigate()
  const toggleUnits = useToggleUnits()
  const [open, setOpen] = useState(false)
  useEffect(() => {
    const handleKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || silent(event.target)) return
      const job = /^\/jobs\/([^/]+)/.exec(window.location.pathname)?.[1]
      const digit = '1234567890'.indexOf(event.key)
      const station = digit === -1 ? undefined : STATIONS[digit]
      if (station !== undefined && job !== undefined) void navigate(`/jobs/${job}/${station.path}`)
      else if (event.key === '?') setOpen(true)
      else if (event.key === 'u') toggleUnits()
      else if (event.key === 'r') void navigate('/')
      else if (event.key === 'n') void navigate('/?new')
      else if (event.key === '/') void navigate('/?find')
      else if (event.key === 'w') document.querySelector<HTMLElement>('[data-card] [data-why]')?.click()
      else if ('lbzy'.includes(event.key)) window.dispatchEvent(shortcut(event.key))
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', handleKey)
    return () => window.removeEventListener('keydown', handleKey)
  }, [navigate, toggleUnits])
  return (
    <Sheet title="Keys" open={open} onOpenChange={setOpen}>
      <dl className="grid grid-cols-[110px_1fr] gap-y-2">
        {KEYS.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="formula">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  )
}
