import { useState } from 'react'
import { halfTyped } from './half-typed'

/** A text that is said together with others: kept until then, also when the tab is ended. */
export function useHalfTyped(id: string): [text: string, type: (text: string) => void] {
  const [text, setText] = useState(() => halfTyped.read(id) ?? '')
  const type = (next: string) => {
    halfTyped.write(id, next === '' ? null : next)
    setText(next)
  }
  return [text, type]
}
