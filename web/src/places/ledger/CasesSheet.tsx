import { useQuery } from '@tanstack/react-query'
import { useId, useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { Refused, type Schemas } from '../../api/client'
import { ledgerCasesQuery } from '../../api/queries'
import { useShop } from '../../job/ShopContext'
import { useShopWord } from '../../job/useShopWord'
import { FieldFrame, describedBy } from '../../ui/FieldFrame'
import { Sheet } from '../../ui/Sheet'
import { CouponPicture } from './CouponPicture'

/** Which line was opened: of the wall, or of the answer to a question. */
export interface Opened {
  title: string
  of: 'held' | 'split' | 'setting' | 'learned' | 'fault' | 'bench' | 'price'
  line: string
  words?: string
  /** Where they are there already. */
  cases?: readonly Case[]
}

/** One case of a line: a repair, a heating, an end, a timing. */
interface Case {
  case: string
  job?: string | null
  name: string
  words: string
  became?: Schemas['Became'] | null
  /** Of a coupon: whether there is a picture of it. */
  pictured?: boolean
}

export interface CasesSheetProps {
  opened: Opened | null
  onClose: () => void
}

/** What a line stands on, case by case: each leads to its job, and can be left out with a reason. */
export function CasesSheet({ opened, onClose }: CasesSheetProps): ReactNode {
  return (
    <Sheet
      title={opened?.title ?? ''}
      open={opened !== null}
      onOpenChange={(open) => {
        if (!open) onClose()
      }}
    >
      {opened !== null && <Cases opened={opened} />}
    </Sheet>
  )
}

function Cases({ opened }: { opened: Opened }): ReactNode {
  const { revision, units } = useShop()
  // As it stood when it was opened: what is left out meanwhile stays in sight, and says so.
  const [since] = useState(revision)
  const [leaving, setLeaving] = useState<string | null>(null)
  const [gone, setGone] = useState<readonly string[]>([])
  const { data, isError } = useQuery({
    ...ledgerCasesQuery(opened, since, units),
    enabled: opened.cases === undefined,
  })
  const cases: readonly Case[] = opened.cases ?? data?.cases ?? []
  return (
    <>
      {isError && <p role="alert">The server is not reached: its cases were not seen here before.</p>}
      <ul>
        {cases.map((it) => (
          <li key={it.case} className="border-b border-rule py-1">
            <div className="flex flex-wrap items-center justify-between gap-x-3">
              {it.job == null ? (
                <span className="flex min-h-11 items-center font-semibold">{it.name}</span>
              ) : (
                <Link
                  to={`/jobs/${it.job}/hand-over`}
                  className="flex min-h-11 items-center font-semibold underline"
                >
                  {it.name}
                </Link>
              )}
              <span className="text-ash">{it.words}</span>
              {it.pictured !== undefined && (
                <CouponPicture coupon={it.case} name={it.name} pictured={it.pictured} />
              )}
              {gone.includes(it.case) && <span role="status">left out</span>}
              {!gone.includes(it.case) && it.became !== 'unknown' && (
                <button
                  type="button"
                  className="min-h-11 min-w-11 text-ash"
                  onClick={() => setLeaving(leaving === it.case ? null : it.case)}
                >
                  Leave out
                </button>
              )}
            </div>
            {leaving === it.case && (
              <WhyNot
                of={it.case}
                onDone={() => {
                  setLeaving(null)
                  setGone([...gone, it.case])
                }}
              />
            )}
          </li>
        ))}
      </ul>
    </>
  )
}

function WhyNot({ of, onDone }: { of: string; onDone: () => void }): ReactNode {
  const id = useId()
  const word = useShopWord()
  const [reason, setReason] = useState('')
  const wrong = word.error instanceof Refused ? word.error.problems[0] : undefined
  return (
    <form
      className="flex flex-wrap items-end gap-3 pb-2"
      onSubmit={(event) => {
        event.preventDefault()
        word.mutate({ change: { kind: 'leave_out', case: of, reason } }, { onSuccess: onDone })
      }}
    >
      <div className="grow">
        <FieldFrame id={id} label="Why it does not count" problem={wrong}>
          <input
            id={id}
            value={reason}
            autoComplete="off"
            aria-invalid={wrong !== undefined || undefined}
            aria-describedby={describedBy(id, wrong)}
            onChange={(event) => setReason(event.target.value)}
            className="min-h-12 w-full border-[1.5px] border-dim bg-raise px-3 text-[17px] text-chalk"
          />
        </FieldFrame>
      </div>
      <button type="submit" className="min-h-12 border-[1.5px] border-dim px-4 font-semibold">
        Leave it out
      </button>
      {word.error !== null && wrong === undefined && (
        <p role="alert" className="basis-full">
          The server is not reached: it counts as before.
        </p>
      )}
    </form>
  )
}
