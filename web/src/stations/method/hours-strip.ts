import type { Schemas } from '../../api/client'

type Step = Schemas['StepOpened']
type Words = Pick<Step, 'hands_words' | 'clock_words'>

const joined = (parts: readonly string[]): string => parts.filter((part) => part !== '').join(' and ')

/** Hands and clock of a step: "6 min", "13 h 00 by itself". */
export const stepWords = ({ hands_words, clock_words }: Words): string =>
  joined([hands_words, clock_words === '' ? '' : `${clock_words} by itself`])

export interface LaidStep {
  step: Step
  x: number
  /** Widths. */
  hands: number
  clock: number
  /** Its name, where there is room for it. */
  word: string
}

/** No step is narrower: a short one is seen too. */
const LEAST = 5
/** A letter of the strip is about so wide. */
const LETTER = 7.2

/** The steps laid side by side over a width, each as long as it takes; named where its name has room before the next. */
export function laidSteps(steps: readonly Step[], width: number): LaidStep[] {
  const minutes = steps.map((step) => step.attended_min + step.unattended_min)
  const all = minutes.reduce((sum, it) => sum + it, 0)
  const free = Math.max(width - LEAST * steps.length, 0)
  let x = 0
  const laid = steps.map((step, at) => {
    const wide = LEAST + (all > 0 ? ((minutes[at] ?? 0) / all) * free : 0)
    const share = (minutes[at] ?? 0) > 0 ? step.attended_min / (minutes[at] ?? 1) : 1
    const here = { step, x, hands: wide * share, clock: wide * (1 - share), word: '' }
    x += wide
    return here
  })
  // The longest is named first: what lies beside it gives way.
  const order = laid.map((_, at) => at).sort((a, b) => (minutes[b] ?? 0) - (minutes[a] ?? 0))
  const taken: [number, number][] = []
  for (const at of order) {
    const it = laid[at]
    if (it === undefined) continue
    const word = `${it.step.label.toLowerCase()} ${joined([it.step.hands_words, it.step.clock_words])}`
    const [from, to] = [it.x, it.x + word.length * LETTER + 12]
    if (to > width || taken.some(([start, end]) => from < end && to > start)) continue
    taken.push([from, to])
    it.word = word
  }
  return laid
}
