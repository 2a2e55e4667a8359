import { saidOf, type Waiting } from './queue'

/** So many are named; the others are counted. */
const NAMED = 4

/** What waits for the server, in words: "Wall at the break 14, a new job and 2 pictures". */
export function whatWaits(
  waiting: readonly Waiting[],
  pictures: number,
  label: (key: string) => string | undefined,
): string {
  const said = waiting.map(({ change }) =>
    change.kind === 'set'
      ? `${(label(change.key) ?? change.key).replace(/\?$/, '')}: ${change.typed === '' ? 'nothing' : change.typed}`
      : saidOf(change),
  )
  const named = said.length > NAMED ? said.slice(0, NAMED) : said
  const more = said.length - named.length
  return [
    ...named,
    ...(more > 0 ? [`${more} more`] : []),
    ...(pictures > 0 ? [pictures === 1 ? 'a picture' : `${pictures} pictures`] : []),
  ].join('; ')
}
