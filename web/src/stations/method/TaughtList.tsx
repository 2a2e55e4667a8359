import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { fieldId } from '../../ui/focus'
import { Pick } from '../../ui/Pick'
import { followed, type Followed } from './followed'

export interface TaughtListProps {
  matters: readonly Schemas['TaughtTable'][]
  /** What is chosen for the job, and what the shop prefers, by key; empty for nothing. */
  typed: (key: string) => string
  /** The shop's own preferences are set here, not a job's. */
  ofShop?: boolean
  onSay: (key: string, typed: string) => void
}

/** Where practice differs: what is done here, who does it so, and why. */
export function TaughtList({ matters, typed, ofShop = false, onSay }: TaughtListProps): ReactNode {
  return (
    <ul className="flex flex-col">
      {matters.map((matter) => {
        const key = ofShop ? matter.of_shop : matter.of_job
        const now = followed(matter, ofShop ? '' : typed(matter.of_job), typed(matter.of_shop))
        return (
          <li
            key={key}
            className="grid grid-cols-[130px_330px_1fr] items-center gap-x-3 border-b border-rule py-1 max-bench:grid-cols-1"
          >
            <span className="label">{matter.label}</span>
            <Pick
              id={fieldId(key)}
              label={matter.label}
              choices={matter.choices}
              chosen={typed(key)}
              placeholder={said(now)}
              onChoose={(id) => onSay(key, id)}
            />
            <span className="small text-ash">{now.who}</span>
          </li>
        )
      })}
    </ul>
  )
}

function said({ label, from }: Followed): string {
  return from === 'shop' ? `${label}, as here` : `${label}, as usual`
}
