/** The browser's own store, which may be full, or forbidden: then it says so instead of throwing. */
export const store = {
  entries(prefix: string): [key: string, text: string][] {
    try {
      return Object.keys(localStorage)
        .filter((key) => key.startsWith(prefix))
        .sort()
        .flatMap((key) => {
          const text = localStorage.getItem(key)
          return text === null ? [] : [[key, text] as [string, string]]
        })
    } catch {
      return []
    }
  },

  read(key: string): string | null {
    try {
      return localStorage.getItem(key)
    } catch {
      return null
    }
  },

  /** Whether it is kept. */
  write(key: string, text: string): boolean {
    try {
      localStorage.setItem(key, text)
      return true
    } catch {
      return false
    }
  },

  remove(key: string): void {
    try {
      localStorage.removeItem(key)
    } catch {
      // What cannot be reached is not there.
    }
  },
}
