import { useEffect, useMemo, useSyncExternalStore, type ReactNode } from 'react'
import { pictureBox, type RefusedPicture, type WaitingPicture } from '../api/queue/pictures'
import { Button } from '../ui/Button'
import { useJob } from './JobContext'

/** Pictures of this job that are on their way, or were refused; of one thing, or of the part itself. */
export function usePictureBox(of: string | null): {
  waiting: readonly WaitingPicture[]
  refused: readonly RefusedPicture[]
} {
  const { view } = useJob()
  const box = useSyncExternalStore(pictureBox.subscribe, pictureBox.now)
  const here = (item: { job: string; of: string | null }) => item.job === view.id && item.of === of
  return { waiting: box.waiting.filter(here), refused: box.refused.filter(here) }
}

/** A picture on its way: kept here until the server has it. */
export function OnItsWay({ item }: { item: WaitingPicture }): ReactNode {
  const url = useMemo(() => URL.createObjectURL(item.file), [item.file])
  useEffect(() => () => URL.revokeObjectURL(url), [url])
  return (
    <span className="relative block border-[1.5px] border-dashed border-scribe">
      <img src={url} alt={item.name} className="block h-[62px] w-[82px] object-cover opacity-60" />
      <span className="absolute inset-x-0 bottom-0 bg-iron px-1 small">on its way</span>
    </span>
  )
}

/** A picture that was not taken, and why. */
export function NotTaken({ item }: { item: RefusedPicture }): ReactNode {
  return (
    <p role="alert" className="mt-2 flex items-center justify-between gap-3 border-l-[3px] border-chalk pl-3">
      <span>
        <b>{item.name}</b>: {item.problem.message}{' '}
        {item.problem.would_be_right !== '' && <>{item.problem.would_be_right} would do.</>}
      </span>
      <Button onPress={() => pictureBox.dismiss(item.id)}>Let go of it</Button>
    </p>
  )
}
