import type { ReactNode } from 'react'
import { useJob } from '../../job/JobContext'

/** Alone nothing is advised: only what lies at hand. */
export function PracticeGear(): ReactNode {
  const { practice } = useJob().view
  if (practice == null) return null
  return (
    <aside aria-label="At hand" className="tag bg-slab px-4 pt-3 pb-3">
      <h2 className="label !font-sans !font-normal">At hand</h2>
      <ul>
        {practice.gear.map((line) => (
          <li key={line} className="border-b border-rule py-1.5">
            {line}
          </li>
        ))}
      </ul>
      <p className="pt-2 text-ash">Alone: nothing is advised, and nothing keeps you from anything.</p>
    </aside>
  )
}
