/** A press: when, where on the glass, and on what. */
export interface Press {
  readonly at: number
  readonly x: number
  readonly y: number
  readonly on: unknown
}

/** What a label passes on to its field comes at once: no hand is so quick, in ms. */
const AT_ONCE_MS = 30
/** A hand that presses twice does so within this, in ms, and within this, in px. */
const TWICE_MS = 300
const SAME_PLACE_PX = 12

/** The second of two presses fell on something that was not there at the first: nobody meant it. */
export function fellThrough(first: Press | null, second: Press): boolean {
  return (
    first !== null &&
    second.at - first.at > AT_ONCE_MS &&
    second.at - first.at <= TWICE_MS &&
    Math.hypot(second.x - first.x, second.y - first.y) <= SAME_PLACE_PX &&
    second.on !== first.on
  )
}

/** The button, link or field that a press is on: what lies in it is it. */
const pressedOn = (target: EventTarget | null): unknown =>
  target instanceof Element ? (target.closest('button, a, label, input, select, textarea') ?? target) : target

/** Swallows the second of two fast presses where the first one has put something else under the finger. */
export function letNothingFallThrough(): void {
  let last: Press | null = null
  document.addEventListener(
    'click',
    (event) => {
      // A key that presses, or a script, has no place on the glass.
      if (event.detail === 0) return
      const press = { at: event.timeStamp, x: event.clientX, y: event.clientY, on: pressedOn(event.target) }
      // A mouse counts its presses by itself, in the time its owner has set.
      const single = event instanceof PointerEvent && event.pointerType === 'mouse' && event.detail < 2
      if (!single && fellThrough(last, press)) {
        event.preventDefault()
        event.stopImmediatePropagation()
        return
      }
      last = press
    },
    { capture: true },
  )
}
