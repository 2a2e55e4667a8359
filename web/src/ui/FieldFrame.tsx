import type { ReactNode } from 'react'
import type { Problem } from '../api/client'

export interface FieldFrameProps {
  id: string
  label: string
  problem: Problem | undefined
  waiting?: boolean
  children: ReactNode
}

export const describedBy = (id: string, problem: Problem | undefined): string | undefined =>
  problem === undefined ? undefined : `${id}-problem`

/** A field's label above it and what is wrong with it below. */
export function FieldFrame({ id, label, problem, waiting = false, children }: FieldFrameProps): ReactNode {
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="label mb-1 flex justify-between gap-2">
        <span>{label}</span>
        {waiting && <span>waiting</span>}
      </label>
      {children}
      {problem !== undefined && (
        <p id={`${id}-problem`} role="alert" className="mt-1 small first-letter:uppercase">
          {problem.message}
          {problem.would_be_right !== '' && !problem.message.endsWith('.') ? '. ' : ' '}
          {problem.would_be_right !== '' && <b>{problem.would_be_right}</b>}{' '}
          {problem.would_be_right !== '' && 'would do.'}
        </p>
      )}
    </div>
  )
}
