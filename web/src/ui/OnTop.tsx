import { useLayoutEffect } from 'react'
import { cover } from './focus'

/** Stands in what lies on the page for a moment. */
export function OnTop(): null {
  useLayoutEffect(cover, [])
  return null
}
