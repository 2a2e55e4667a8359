import { useSyncExternalStore, type ReactNode } from 'react'
import { askedOnce } from './asked-once'
import { useJob } from './JobContext'

export interface AskedBackProps {
  /** The field's key, or the fact that logged a reading. */
  about: string
  /** As it stands: another value is asked again. */
  typed: string
  /** What it takes to be so; by itself it is enough that nobody is asked again. */
  onSo?: (() => void) | undefined
  /** What is pressed for it. */
  so?: string
}

/** What is odd against the rest of the part, asked back once; it stands either way. */
export function AskedBack({ about, typed, onSo, so = 'It is so' }: AskedBackProps): ReactNode {
  const { view } = useJob()
  const answered = useSyncExternalStore(askedOnce.subscribe, askedOnce.answered)
  const asked = view.plan.asked_back?.find((one) => one.about === about)
  const id = `${view.id} ${about} ${typed}`
  if (asked === undefined || answered.includes(id)) return null
  return (
    <p
      role="status"
      data-testid={`asked-back.${about}`}
      className="mt-1 flex flex-wrap items-center gap-x-3 border-l-[3px] border-chalk pl-3"
    >
      <span className="min-w-0 grow basis-40">{asked.sentence}</span>
      <button
        type="button"
        className="min-h-11 shrink-0 px-2 font-semibold underline decoration-dotted"
        onClick={() => {
          onSo?.()
          askedOnce.answer(id)
        }}
      >
        {so}
      </button>
    </p>
  )
}
