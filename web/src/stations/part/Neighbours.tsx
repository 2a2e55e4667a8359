import type { ReactNode } from 'react'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { Button } from '../../ui/Button'
import { focusField } from '../../ui/focus'

/** What lies beside the joint and must stay cool, each with the temperature it must not pass. */
export function Neighbours(): ReactNode {
  const { view, typed, say } = useJob()
  const several = view.job.rounds.at(-1)?.neighbours ?? []
  const row = 'grid grid-cols-[1.5fr_1fr_1fr_auto] items-end gap-2 max-bench:grid-cols-2'
  const older = typed('part.heat_shy') !== '' || typed('part.heat_shy_limit') !== ''
  return (
    <section aria-label="Must stay cool" className="flex flex-col gap-2">
      <h3 className="label !font-sans !font-[450]">Beside the joint, not to get hot</h3>
      {older && (
        <div className={row}>
          <Field name="part.heat_shy" />
          <Field name="part.heat_shy_limit" />
          <span />
          <span />
        </div>
      )}
      {several.map((neighbour) => (
        <div key={neighbour.id} className={row}>
          <Field name={`neighbour.${neighbour.id}.what`} placeholder="bearing shell, seal, bore" />
          <Field name={`neighbour.${neighbour.id}.limit`} />
          <Field name={`neighbour.${neighbour.id}.along`} placeholder="far end" />
          <div className="[&>button]:min-h-12">
            <Button
              label="Not there after all"
              onPress={() => say({ kind: 'strike', target: neighbour.id, reason: 'not there after all' })}
            >
              Cross out
            </Button>
          </div>
        </div>
      ))}
      <div>
        <Button onPress={() => focusField(`neighbour.${say({ kind: 'add_neighbour' })}.what`)}>
          {several.length === 0 && !older ? 'Something must stay cool' : 'Another one'}
        </Button>
      </div>
    </section>
  )
}
