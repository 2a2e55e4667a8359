/** The work surface of the page: what is not in a field goes on from there. */
export const WORK = 'work'

/** The keys go on with the work, where nothing else has them. */
export function focusWork(): void {
  document.getElementById(WORK)?.focus({ preventScroll: true })
}

/** The element of a field, by its key. */
export const fieldId = (key: string): string => `field-${key.replaceAll('.', '-')}`

/** The next thing, as the plate of the page has it; nothing while a sheet lies on it. */
export function pressPlate(): void {
  if (document.querySelector('[role=dialog]') !== null) return
  const plate = document.querySelector<HTMLElement>('.plate > button')
  // What gates is answered on itself alone.
  if (plate?.parentElement?.dataset.gate === undefined) plate?.click()
  else plate.focus()
}

// What is wrong with a field stands under it by an id of its own, and is no field.
const IN_ORDER = ['field', 'point'].map((kind) => `[id^="${kind}-"]:not([id$="-problem"])`).join()

/** From a field that was just typed to the next one of its part of the sheet, where that is typed too. */
export function goOn(from: Element): void {
  const around = from.closest('section, form, [role=dialog]')
  const fields = [...(around?.querySelectorAll(IN_ORDER) ?? [])]
  const next = fields[fields.indexOf(from) + 1]
  if (fields.includes(from) && next?.matches('input') === true) focusOn(next.id)
  // What is typed of a point belongs to the map: there the keys go on.
  else if (from.closest('[data-point-form]') === null || !focusMap()) focusWork()
}

/** The keys go on with the map, where there is one. */
export function focusMap(): boolean {
  const map = document.querySelector<SVGElement>('[data-map]')
  map?.focus({ preventScroll: true })
  return map !== null
}

/** A field that is to be gone on with as soon as it is there. */
let wanted: { id: string; until: number } | null = null
const WANTED_MS = 5_000

/** Puts the cursor into a field, or before the choices of a question: now, or once it is there. */
export function focusField(key: string): void {
  const id = fieldId(key)
  wanted = focusOn(id) ? null : { id, until: Date.now() + WANTED_MS }
}

/** A field is there: it may be waited for. */
export function arrived(id: string): void {
  if (wanted?.id !== id || Date.now() > wanted.until) return
  wanted = null
  focusOn(id)
}

/** Whether a field is waited for. */
export const isWaitedFor = (): boolean => wanted !== null && Date.now() <= wanted.until

/** Where keys that lead to a field go: into what is typed; of what is chosen on no choice, so that no key that led
 * there answers. */
function focusOn(id: string): boolean {
  const field = document.getElementById(id)
  const typed = field?.matches('input, textarea') ? field : field?.querySelector('input, textarea')
  const target = typed ?? field?.closest('[data-question]')
  if (!(target instanceof HTMLElement)) return false
  target.focus()
  target.scrollIntoView({ block: 'nearest' })
  return true
}
