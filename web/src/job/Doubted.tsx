import type { ReactNode } from 'react'
import type { Schemas } from '../api/client'
import { AskedBack } from './AskedBack'
import { useJob } from './JobContext'

/** What is odd about an entry of the torch log, asked back. One that is doubted counts once it is said again. */
export function Doubted({ entry }: { entry: Schemas['LogEntry'] }): ReactNode {
  const { say } = useJob()
  const again =
    entry.doubted === true
      ? { so: 'Read again: it is so', onSo: () => void say({ kind: 'torch', entry: entry.entry }) }
      : {}
  return <AskedBack about={entry.fact} typed="" {...again} />
}
