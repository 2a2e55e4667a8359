import type { ReactNode } from 'react'
import { Link, useParams } from 'react-router'
import { JobProvider, useJob, useLive } from '../../job/JobContext'
import { WORK_SURFACE } from '../../ui/focus'
import { CannotBeShown } from './CannotBeShown'
import { BigClock, Temperature, laidOut, useJobClock } from '../../stations/torch'

/** A second phone, for whoever helps: how hot, what next, what to hold. Nothing is said from here. */
export function HelperPage(): ReactNode {
  const { id = '' } = useParams()
  return (
    <JobProvider key={id} id={id} otherwise={(message) => <CannotBeShown why={message} />}>
      <Seen />
    </JobProvider>
  )
}

function Seen(): ReactNode {
  const { view } = useJob()
  const { live } = useLive()
  const now = useJobClock()
  const { torch } = view.plan
  const clock = laidOut(live?.clocks ?? [], now).large
  const next = live === null || live.next === '' ? view.standing.next.verb : live.next
  return (
    <main {...WORK_SURFACE} className="mx-auto flex min-h-screen max-w-[900px] flex-col gap-5 p-4">
      <title>{`For the helper: ${view.name} - Vanadin`}</title>
      <h1 className="text-[20px] leading-6">{view.name}</h1>
      <Temperature live={live} />
      <p className="text-[44px] leading-[48px]" data-testid="helper-next">
        <b>{next}</b>
      </p>
      {clock !== undefined && <BigClock clock={clock} now={now} />}
      <ul className="flex flex-col gap-3 text-[24px] leading-7">
        {(torch?.helper ?? []).map((words) => (
          <li key={words} className="border-l-[3px] border-chalk pl-3">
            {words}
          </li>
        ))}
      </ul>
      {view.standing.keep_off !== '' && <p className="text-[20px]">{view.standing.keep_off}</p>}
      <Link
        to={`/jobs/${view.id}/torch`}
        className="mt-auto flex min-h-11 w-fit items-center underline decoration-dotted"
      >
        To the torch
      </Link>
    </main>
  )
}
