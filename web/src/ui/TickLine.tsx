import type { ReactNode } from 'react'

export interface TickLineProps {
  ticked: boolean
  /** It is the next to be done. */
  next?: boolean
  step: string
  onPress: () => void
  children: ReactNode
}

/** A line that is ticked, large enough for a glove. */
export function TickLine({ ticked, next = false, step, onPress, children }: TickLineProps): ReactNode {
  return (
    <button
      type="button"
      role="checkbox"
      aria-checked={ticked}
      data-step={step}
      onClick={onPress}
      className={`flex min-h-14 w-full items-start gap-3 py-2 text-left ${next ? 'border-l-[3px] border-chalk pl-2' : 'border-l-[3px] border-transparent pl-2'}`}
    >
      <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden className="mt-0.5 shrink-0">
        <rect
          x="2"
          y="2"
          width="22"
          height="22"
          fill="none"
          stroke="currentColor"
          strokeWidth={next ? 2.6 : 1.5}
        />
        {ticked && <path d="M6 13.500l5 5.500L20 7" fill="none" stroke="currentColor" strokeWidth="3" />}
      </svg>
      <span className={`min-w-0 grow ${ticked ? 'text-ash' : ''}`}>{children}</span>
    </button>
  )
}
