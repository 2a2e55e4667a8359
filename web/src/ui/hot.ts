import { createContext, use } from 'react'

/** "HOT, 343 °C", of the part that is on the bench; empty while it is cold, or no part is meant. */
export const HotContext = createContext('')

export const useHot = (): string => use(HotContext)
