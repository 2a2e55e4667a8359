/** By how much the server's clock is ahead of this browser's, in ms; nothing while not known. */
let ahead: number | null = null

/** The server said what time it is. */
export function heardTheTime(serverMs: number): void {
  ahead = serverMs - Date.now()
}

/** The server's time at a moment of this browser's clock. */
export const serverTimeOf = (ms: number): number => ms + (ahead ?? 0)

/** The server's time now: what is shown goes by it, however this browser's clock is set. */
export const serverNow = (): number => serverTimeOf(Date.now())
