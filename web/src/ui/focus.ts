import { createContext, use, useEffect, useLayoutEffect, useRef, type RefObject } from 'react'

/** What of one kind is on the page, each by its own ref: where that is put on another element, it is that one. */
class OnThePage<What> {
  #all: readonly { ref: RefObject<HTMLElement | null>; what: What }[] = []

  put(ref: RefObject<HTMLElement | null>, what: What): () => void {
    const kept = { ref, what }
    this.#all = [...this.#all, kept]
    return () => {
      this.#all = this.#all.filter((other) => other !== kept)
    }
  }

  /** In the order in which they stand on the page. */
  inOrder(): (What & { element: HTMLElement })[] {
    const there = this.#all.flatMap(({ ref, what }) =>
      ref.current === null ? [] : [{ ...what, element: ref.current }],
    )
    const isBefore = (a: Element, b: Element) =>
      (a.compareDocumentPosition(b) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0
    return there.toSorted((a, b) => (isBefore(a.element, b.element) ? -1 : 1))
  }
}

/** Puts it there for as long as it is shown; gives the ref of its element. */
function useOnThePage<What, E extends HTMLElement>(
  where: OnThePage<What>,
  what: What,
  by: readonly unknown[],
): RefObject<E | null> {
  const ref = useRef<E>(null)
  // eslint-disable-next-line react-hooks/exhaustive-deps -- put anew where what is told of it changes
  useLayoutEffect(() => where.put(ref, what), [where, ...by])
  return ref
}

/** The work surface of the page: what is not in a field goes on from there. */
export const WORK = 'work'

const workRef: RefObject<HTMLElement | null> = { current: null }

/** What makes an element the work surface. */
export const WORK_SURFACE = { id: WORK, tabIndex: -1, ref: workRef } as const

export const isWork = (target: EventTarget | null): boolean => target !== null && target === workRef.current

/** The keys go on with the work, where nothing else has them. */
export function focusWork(): void {
  workRef.current?.focus({ preventScroll: true })
}

/** So many things lie on top of the page. */
let covers = 0

/** Something lies on the page for a moment: until what it returns is called the keys are its own. */
export function cover(): () => void {
  covers += 1
  return () => {
    covers -= 1
  }
}

export const isCovered = (): boolean => covers > 0

const plates = new OnThePage<{ gate: boolean }>()

/** The button of a plate: the next thing. */
export const usePlate = (gate: boolean): RefObject<HTMLButtonElement | null> =>
  useOnThePage(plates, { gate }, [gate])

/** The next thing, as the plate of the page has it; nothing while a sheet lies on it. */
export function pressPlate(): void {
  const [plate] = plates.inOrder()
  if (isCovered() || plate === undefined) return
  // What gates is answered on itself alone.
  if (plate.gate) plate.element.focus()
  else plate.element.click()
}

/** The card that figures stand on; nothing for those that stand elsewhere. */
export const CardContext = createContext<RefObject<HTMLElement | null> | null>(null)

const whys = new OnThePage<{ onCard: boolean }>()

/** A figure that can be asked why. */
export function useWhy(): RefObject<HTMLButtonElement | null> {
  const onCard = use(CardContext) !== null
  return useOnThePage(whys, { onCard }, [onCard])
}

/** Asks the first figure of the card why. */
export function askWhy(): void {
  whys
    .inOrder()
    .find(({ onCard }) => onCard)
    ?.element.click()
}

/** The element of a field, by its key. */
export const fieldId = (key: string): string => `field-${key.replaceAll('.', '-')}`

interface Stop {
  id: string
  /** It is typed into; else it is a question, and its keys stand before its answers. */
  typed: boolean
}

const stops = new OnThePage<Stop>()

/** What keys that lead to a field go to: into what is typed; of what is chosen on no choice, so that no key that led
 * there answers. */
function useStop<E extends HTMLElement>(id: string, typed: boolean): RefObject<E | null> {
  const ref = useOnThePage<Stop, E>(stops, { id, typed }, [id, typed])
  useEffect(() => arrived(id), [id])
  return ref
}

export const useTyped = <E extends HTMLElement>(id: string): RefObject<E | null> => useStop(id, true)
export const useQuestion = (id: string): RefObject<HTMLDivElement | null> => useStop(id, false)

/** From a field that was just typed to the next one of its part of the sheet, where that is typed too; else to where
 * what follows is done. */
export function goOn(from: HTMLElement, follows: () => void = focusWork): void {
  const part = from.closest('section, form, [role=dialog]')
  const fields = stops.inOrder().filter(({ id, element }) => id !== '' && part?.contains(element) === true)
  const next = fields[fields.findIndex(({ element }) => element === from) + 1]
  if (next?.typed === true) put(next)
  else follows()
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
function arrived(id: string): void {
  if (wanted?.id !== id || Date.now() > wanted.until) return
  wanted = null
  focusOn(id)
}

/** Whether a field is waited for. */
export const isWaitedFor = (): boolean => wanted !== null && Date.now() <= wanted.until

/** Whether the keys are in a field, or before a question. */
export function isInAField(): boolean {
  const at = document.activeElement
  const typed = at instanceof HTMLInputElement || at instanceof HTMLTextAreaElement
  return typed || stops.inOrder().some(({ element }) => element === at)
}

function focusOn(id: string): boolean {
  const stop = stops.inOrder().find((known) => known.id === id)
  if (stop !== undefined) put(stop)
  return stop !== undefined
}

function put({ element }: { element: HTMLElement }): void {
  element.focus()
  element.scrollIntoView({ block: 'nearest' })
}
