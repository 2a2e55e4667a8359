/** Words that were typed and not said yet, kept for this tab: they are there again after it was ended. */
const key = (id: string): string => `vanadin.half-typed ${window.location.pathname} ${id}`

export const halfTyped = {
  read(id: string): string | null {
    try {
      return sessionStorage.getItem(key(id))
    } catch {
      return null
    }
  },
  /** Nothing forgets them. */
  write(id: string, text: string | null): void {
    try {
      if (text === null) sessionStorage.removeItem(key(id))
      else sessionStorage.setItem(key(id), text)
    } catch {
      // A browser without a store keeps them as long as the page is open.
    }
  },
}
