import { createContext, use } from 'react'
import type { Tables } from '../api/fields'

export const TablesContext = createContext<Tables | null>(null)

/** Every field and every test there is. */
export function useTables(): Tables {
  const tables = use(TablesContext)
  if (tables === null) throw new Error('outside the shop')
  return tables
}
