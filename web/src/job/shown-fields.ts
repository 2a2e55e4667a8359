/** Fields that are on the page: what is refused of one is told there, not in the tray. */
const shown = new Map<string, number>()
const listeners = new Set<() => void>()
let version = 0

export const shownFields = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  },
  version: (): number => version,
  has: (job: string, field: string): boolean => (shown.get(`${job} ${field}`) ?? 0) > 0,

  /** A field is shown, until what this gives is called. */
  show(job: string, field: string): () => void {
    const key = `${job} ${field}`
    const change = (by: number) => {
      shown.set(key, (shown.get(key) ?? 0) + by)
      version += 1
      for (const listener of listeners) listener()
    }
    change(1)
    return () => change(-1)
  },
}
