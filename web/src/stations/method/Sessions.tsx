import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { bookedQuery } from '../../api/queries'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'

/** When it can be done, a day a line where one day does not hold it. */
export function Sessions({ methods }: { methods: Schemas['MethodPlan'] }): ReactNode {
  const { view } = useJob()
  const { revision } = useShop()
  const { sessions, between_sessions: between } = methods
  // Asked beside the page: what other jobs ask of the hands is not in this one's plan.
  const asked = useQuery({ ...bookedQuery(view.id, view.revision, revision), enabled: sessions.length > 0 })
  const booked = asked.data ?? { sessions: [], ready: '' }
  if (sessions.length === 0) return null
  return (
    <section aria-label="Sessions" className="border-t border-rule pt-1">
      <h3 className="label">
        {sessions.length === 1 ? 'At the soonest' : `${sessions.length} sessions, at the soonest`}
      </h3>
      <ol>
        {sessions.map((session, at) => (
          <li key={session.from}>
            {session.words}
            {(booked.sessions[at] ?? '') !== '' && <b>. {booked.sessions[at]}</b>}
            {session.too_long && (
              <b>. More than a day at the arc, and not to be broken off: somebody to take turns.</b>
            )}
          </li>
        ))}
      </ol>
      {booked.ready !== '' && <p data-testid="booked-ready">{booked.ready}</p>}
      {between !== '' && <p className="text-ash">{between}</p>}
      <a
        href={`/api/jobs/${view.id}/calendar.ics`}
        download="job.ics"
        className="flex min-h-11 items-center underline"
      >
        Into a calendar (iCalendar)
      </a>
    </section>
  )
}
