import type { ReactNode } from 'react'
import type { Problem } from '../api/client'

export interface FieldFrameProps {
  id: string
  label: string
  problem: Problem | undefined
  waiting?: boolean
  /** What it names is a group of choices, which names itself by it: there is no one element to point at. */
  group?: boolean
  children: ReactNode
}

export const describedBy = (id: string, problem: Problem | undefined): string | undefined =>
  problem === undefined ? undefined : `${id}-problem`

/** The id of what names a field. */
export const labelId = (id: string): string => `${id}-label`

/** A field's label above it and what is wrong with it below. */
export function FieldFrame(props: FieldFrameProps): ReactNode {
  const { id, label, problem, waiting = false, group = false, children } = props
  const Label = group ? 'span' : 'label'
  return (
    <div className="min-w-0">
      <Label
        id={labelId(id)}
        {...(group ? {} : { htmlFor: id })}
        className="label mb-1 flex justify-between gap-2"
      >
        <span>{label}</span>
        {waiting && <span>waiting</span>}
      </Label>
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
