import type { Schemas } from '../../api/client'

type Calculation = Schemas['CalculationView']

/** Said in any question: they tell nothing apart. */
const EMPTY = new Set(
  'a an and at be by can do does for from go has have how i if in is it its me my of on or so that the then this to was what when which will with'.split(
    ' ',
  ),
)

const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []

/** What a welder said, without the words that tell nothing apart; all of them where nothing else was said. */
export function asked(question: string): string[] {
  const words = wordsOf(question)
  const telling = words.filter((word) => !EMPTY.has(word))
  return telling.length > 0 ? telling : words
}

/** House: a word in the name says more than one it is also called by, and that more than one of its sentence. */
const NAME = 5
const CALLED = 3
const SENTENCE = 1

function weight(calculation: Calculation, word: string): number {
  const has = (text: string) =>
    wordsOf(text).some((known) => known.startsWith(word) || (known.length > 3 && word.startsWith(known)))
  if (has(calculation.name)) return NAME
  if (has(calculation.found_by)) return CALLED
  const said = calculation.sentence.filter((piece) => piece.kind === 'words').map((piece) => piece.of)
  const blanks = calculation.blanks.flatMap((blank) => [blank.label, ...blank.choices.map((it) => it.label)])
  return has([...said, ...blanks].join(' ')) ? SENTENCE : 0
}

/** Those that answer what was asked, the likeliest first; all of them where nothing was asked. */
export function found(calculations: readonly Calculation[], question: string): readonly Calculation[] {
  const words = asked(question)
  if (words.length === 0) return calculations
  const weighed = calculations.map((calculation) => {
    const each = words.map((word) => weight(calculation, word))
    const hit = each.filter((it) => it > 0).length
    // One that knows every word goes before one that knows one of them well.
    return { calculation, hit, sum: each.reduce((sum, it) => sum + it, 0) }
  })
  return weighed
    .filter(({ sum }) => sum > 0)
    .sort((a, b) => b.hit - a.hit || b.sum - a.sum)
    .map(({ calculation }) => calculation)
}
