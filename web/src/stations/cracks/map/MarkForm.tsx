import { useState, type ReactNode } from 'react'
import { Field } from '../../../job/Field'
import { StrikeSheet } from '../../../job/StrikeSheet'
import { Button } from '../../../ui/Button'
import type { FaceOnMap } from './edit'
import { ASKED_OF, isMark } from './things'

export interface MarkFormProps {
  mark: FaceOnMap['marks'][number]
}

/** What is asked of a thing on the map beside where it lies. */
export function MarkForm({ mark }: MarkFormProps): ReactNode {
  const [striking, setStriking] = useState(false)
  if (!isMark(mark.what)) return null
  return (
    <section
      aria-label={mark.name}
      className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] items-end gap-2"
    >
      {ASKED_OF[mark.what].map((field) => (
        <Field key={field} name={`mark.${mark.id}.${field}`} folded />
      ))}
      <div className="[&>button]:min-h-12">
        <Button onPress={() => setStriking(true)}>Cross out {mark.name}</Button>
      </div>
      <StrikeSheet target={striking ? mark.id : null} what={mark.name} onClose={() => setStriking(false)} />
    </section>
  )
}
