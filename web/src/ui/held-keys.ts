/** Keys that press what has the focus. */
const PRESSES = ['Enter', ' ']

/** Whether a key that is held down would press something again: what it moved to, most of all. */
export const pressesAgain = (event: Pick<KeyboardEvent, 'key' | 'repeat'>, intoLines: boolean): boolean =>
  event.repeat && PRESSES.includes(event.key) && !intoLines

/** Words are typed into it, and a held key writes on. */
const isTypedInto = (target: EventTarget | null, key: string): boolean =>
  target instanceof Element && target.matches(key === 'Enter' ? 'textarea' : 'input, textarea')

/** A held key is one press, on every page. */
export function holdIsOnePress(): void {
  const handleKey = (event: KeyboardEvent) => {
    if (!pressesAgain(event, isTypedInto(event.target, event.key))) return
    event.preventDefault()
    event.stopImmediatePropagation()
  }
  window.addEventListener('keydown', handleKey, { capture: true })
}
