import type { Schemas, UnitSystem } from '../../api/client'
import { store } from '../../api/queue/store'

/** One calculation as it was asked last on this device, with what came out. */
export interface Kept {
  id: string
  units: UnitSystem
  blanks: Readonly<Record<string, string>>
  answer: Schemas['Reckoned']
  at: number
}

const KEY = 'vanadin.reckoned'
/** House: more are not gone back to. */
const MOST = 12

const isKept = (it: unknown): it is Kept =>
  typeof it === 'object' &&
  it !== null &&
  'id' in it &&
  typeof it.id === 'string' &&
  'units' in it &&
  'blanks' in it &&
  typeof it.blanks === 'object' &&
  'answer' in it &&
  typeof it.answer === 'object' &&
  it.answer !== null &&
  'figures' in it.answer &&
  'at' in it &&
  typeof it.at === 'number'

/** What was asked on this device, the last first. What a version before kept otherwise is not shown. */
export function keptHere(): readonly Kept[] {
  const text = store.read(KEY)
  if (text === null) return []
  try {
    const all: unknown = JSON.parse(text)
    return Array.isArray(all) ? all.filter(isKept) : []
  } catch {
    return []
  }
}

/** Keeps it as the last one of its calculation in these units. */
export function keep(it: Kept): readonly Kept[] {
  const others = keptHere().filter((other) => other.id !== it.id || other.units !== it.units)
  const all = [it, ...others].slice(0, MOST)
  store.write(KEY, JSON.stringify(all))
  return all
}

/** It stands as at first again: nothing of it is gone back to. */
export function forget(id: string, units: UnitSystem): void {
  store.write(KEY, JSON.stringify(keptHere().filter((it) => it.id !== id || it.units !== units)))
}

/** The same blanks hold the same words. */
export const same = (a: Readonly<Record<string, string>>, b: Readonly<Record<string, string>>): boolean => {
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((key) => a[key] === b[key])
}
