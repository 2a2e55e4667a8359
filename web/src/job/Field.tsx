import { useEffect, useRef, type ReactNode } from 'react'
import type { Problem } from '../api/client'
import type { FieldName, FieldView } from '../api/fields'
import { outbox } from '../api/queue/outbox'
import { FieldInput } from '../ui/FieldInput'
import { AskedBack } from './AskedBack'
import { useJob, useRefusals } from './JobContext'
import { useShop } from './ShopContext'
import { shownFields } from './shown-fields'

export interface FieldProps {
  name: FieldName
  label?: string
  /** What might stand in it; by itself the field's own example. */
  placeholder?: string | undefined
  folded?: boolean
  columns?: 2 | 3
}

/** What was taken once and is not understood any more: it is shown, and said again or corrected. */
const kept = (field: FieldView): Problem | undefined =>
  field.not_understood == null
    ? undefined
    : { field: field.key, message: field.not_understood, would_be_right: '' }

/** A fact of the job that is typed or chosen. Saves as you go; what was refused stays in sight. */
export function Field({ name, label, placeholder, folded, columns }: FieldProps): ReactNode {
  const { view, field: fieldNamed, waiting, say } = useJob()
  const refusals = useRefusals()
  const { units } = useShop()
  const base = useRef<number | null>(null)
  const field = fieldNamed(name)
  useEffect(() => shownFields.show(view.id, name), [view.id, name])
  const unsent = waiting.findLast((item) => item.change.kind === 'set' && item.change.key === name)
  const refused = refusals.findLast((item) => item.field === name)
  const typed =
    unsent?.change.kind === 'set' ? unsent.change.typed : refused !== undefined ? refused.typed : field.typed
  return (
    <div className="min-w-0">
      <FieldInput
        field={field}
        units={units}
        typed={typed}
        problem={refused?.problem ?? kept(field)}
        waiting={unsent !== undefined}
        placeholder={placeholder ?? field.example}
        {...(label === undefined ? {} : { label })}
        {...(folded === undefined ? {} : { folded })}
        {...(columns === undefined ? {} : { columns })}
        onStart={() => {
          // What this page saw when the typing began: somebody else's change since is told, not
          // overwritten. After a refusal both values have been seen.
          base.current = field.revision
        }}
        onSay={(next) => {
          if (refused !== undefined) outbox.dismiss(refused)
          const seen = refused === undefined ? (base.current ?? field.revision) : field.revision
          base.current = null
          say({ kind: 'set', key: name, typed: next, shown_in: units }, seen)
        }}
      />
      {unsent === undefined && refused === undefined && <AskedBack about={name} typed={field.typed} />}
    </div>
  )
}
