import { useState, type ReactNode } from 'react'
import type { FieldName } from '../api/fields'
import { focusField } from '../ui/focus'
import { Field } from './Field'
import { useJob } from './JobContext'

/** A free note: a line while there is none, its field once it is wanted. */
export function StationNote({ name }: { name: FieldName }): ReactNode {
  const { field, typed } = useJob()
  const [wanted, setWanted] = useState(false)
  if (!wanted && typed(name) === '') {
    return (
      <button
        type="button"
        className="min-h-11 self-start text-ash underline decoration-dotted"
        onClick={() => {
          setWanted(true)
          focusField(name)
        }}
      >
        {field(name).label}
      </button>
    )
  }
  return <Field name={name} placeholder="" />
}
