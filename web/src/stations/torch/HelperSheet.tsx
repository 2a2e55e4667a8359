import { useMutation } from '@tanstack/react-query'
import { useEffect, type ReactNode } from 'react'
import { Link } from 'react-router'
import { api, dataOf, Refused, type Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useNow } from '../../job/useNow'
import { clock } from '../../quantity/show'
import { Sheet } from '../../ui/Sheet'

/** What a helper's phone is shown to get here: it sees this job, logs at its torch, and can do nothing else. */
export function HelperSheet({ open, onClose }: { open: boolean; onClose: () => void }): ReactNode {
  const { view } = useJob()
  const { mutate, data, error, isPending } = useMutation({
    mutationFn: async () =>
      dataOf('ForAHelper', await api.POST('/api/door/helper', { body: { job: view.id } })),
  })
  useEffect(() => {
    if (open) mutate()
  }, [open, mutate])
  return (
    <Sheet title="For a helper's phone" open={open} onOpenChange={(next) => !next && onClose()}>
      {data !== undefined && <Code shown={data} />}
      {error !== null && !isPending && (
        <p>
          {error instanceof Refused
            ? error.message
            : 'The server is not reached: there is no code without it.'}
        </p>
      )}
      <Link
        to={`/jobs/${view.id}/helper`}
        className="mt-4 flex min-h-11 w-fit items-center underline decoration-dotted"
      >
        Show it on this device
      </Link>
    </Sheet>
  )
}

function Code({ shown: { url, qr, until_ms } }: { shown: Schemas['ForAHelper'] }): ReactNode {
  const shop = useShop()
  const now = useNow()
  if (qr === '')
    return (
      <p>
        Only this machine reaches the server. Started with <code>--address 0.0.0.0</code>, phones in the
        shop&apos;s network reach it too.
      </p>
    )
  return (
    <div className="flex flex-col gap-3">
      <p>
        Hold the camera of the helper&apos;s phone on it: how hot, what next, what to hold. It can log at this
        torch and do nothing else.
      </p>
      <img
        src={`data:image/svg+xml,${encodeURIComponent(qr)}`}
        alt={`A code for the camera: ${url}`}
        className="w-[240px]"
      />
      {until_ms !== undefined && until_ms !== null && (
        <p className="text-ash">For one phone, until {clock(until_ms, shop, now)}.</p>
      )}
    </div>
  )
}
