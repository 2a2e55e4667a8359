import { useCallback, type ReactNode } from 'react'
import { keyed } from './unit-keys'

export interface UnitKeysProps {
  keys: readonly string[]
  text: string
  onType: (text: string) => void
  /** The letters of the phone are up, and not its numbers. */
  letters: boolean
  onLetters: (letters: boolean) => void
  lies: keyof typeof LIES
}

/** Over what is below, so that nothing moves under the finger when the field is left; over what is above where
 * something is said below the field; or in its place where they stay. */
const LIES = {
  below: 'absolute top-full right-0 left-0 z-30 min-w-[220px] bg-iron',
  above: 'absolute bottom-full right-0 left-0 z-30 min-w-[220px] bg-iron',
  stays: '',
} as const

/** House: so many pixels stay free beside them. */
const EDGE = 8

const KEY = 'min-h-11 min-w-11 grow border-[1.5px] border-dim bg-raise px-2 text-[17px] font-semibold'

/** A phone's number keys have no units: they stand at the field, wide enough for a glove. */
export function UnitKeys({ keys, text, onType, letters, onLetters, lies }: UnitKeysProps): ReactNode {
  /** At the right edge of a narrow page they hang to the left of it. */
  const hang = useCallback((row: HTMLElement | null) => {
    const over = (row?.getBoundingClientRect().right ?? 0) + EDGE - document.documentElement.clientWidth
    if (row !== null && over > 0) row.style.translate = `${-over}px`
  }, [])
  return (
    <span
      ref={hang}
      role="group"
      aria-label="Units"
      className={`hidden flex-wrap gap-1 py-1 max-bench:flex pointer-coarse:flex ${LIES[lies]}`}
      // The field keeps the keys.
      onMouseDown={(event) => event.preventDefault()}
    >
      {keys.map((key) => (
        <button
          key={key}
          type="button"
          tabIndex={-1}
          className={KEY}
          onClick={() => onType(keyed(text, key, keys))}
        >
          {key}
        </button>
      ))}
      <button type="button" tabIndex={-1} className={KEY} onClick={() => onLetters(!letters)}>
        {letters ? '123' : 'abc'}
      </button>
    </span>
  )
}
