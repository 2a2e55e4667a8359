import { useRef, type ReactNode } from 'react'

export interface PickDayProps {
  label: string
  /** The day, as YYYY-MM-DD. */
  onPick: (day: string) => void
}

/** A day from the browser's own calendar, for whoever would rather not type one. */
export function PickDay({ label, onPick }: PickDayProps): ReactNode {
  const calendar = useRef<HTMLInputElement>(null)
  return (
    <span className="relative">
      <button
        type="button"
        aria-label={`Calendar: ${label}`}
        className="min-h-12 border-[1.5px] border-scribe px-3 font-semibold"
        onClick={() => calendar.current?.showPicker()}
      >
        Calendar
      </button>
      <input
        ref={calendar}
        type="date"
        tabIndex={-1}
        aria-hidden
        className="pointer-events-none absolute bottom-0 left-0 size-px opacity-0"
        onChange={(event) => {
          if (event.target.value !== '') onPick(event.target.value)
        }}
      />
    </span>
  )
}
