/** Keys that stand between numbers: they are typed as they are. */
const BETWEEN = new Set(['/', '-', ':', ','])

/** What stands in a field after one of its keys: a unit takes the place of the one that stood behind the number. */
export function keyed(text: string, key: string, keys: readonly string[]): string {
  if (BETWEEN.has(key)) return text + key
  const typed = text.trimEnd()
  const behind = keys.find((other) => !BETWEEN.has(other) && typed.endsWith(` ${other}`))
  const number = behind === undefined ? typed : typed.slice(0, -behind.length).trimEnd()
  return number === '' ? text : `${number} ${key}`
}
