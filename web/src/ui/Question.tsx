import type { ReactNode } from 'react'
import { useQuestion } from './focus'

interface QuestionProps {
  /** Of what is answered in it. */
  id?: string | undefined
  children: ReactNode
}

/** A question that is answered by a press on one of its answers: keys that lead here stand before them all, on none. */
export function Question({ id = '', children }: QuestionProps): ReactNode {
  return (
    <div ref={useQuestion(id)} tabIndex={-1} data-question="">
      {children}
    </div>
  )
}
