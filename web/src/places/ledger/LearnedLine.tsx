import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'

/** A figure that has wandered from the book to this shop: its cases are ticks. */
export function LearnedLine({
  line,
  onOpen,
}: {
  line: Schemas['LearnedLine']
  onOpen: () => void
}): ReactNode {
  const [low, high] = line.scale
  const at = (value: number) => `${4 + ((value - low) / (high - low)) * 92}%`
  const [from, to] = [Math.min(line.book, line.here), Math.max(line.book, line.here)]
  return (
    <button
      type="button"
      onClick={onOpen}
      className="grid min-h-12 w-full grid-cols-[320px_minmax(0,1fr)_minmax(0,400px)] items-center gap-x-6 border-b border-rule text-left max-bench:grid-cols-1 max-bench:py-2"
    >
      <span className="font-semibold">{line.name}</span>
      <span className="relative block h-9" aria-hidden="true">
        <span className="absolute inset-x-0 top-[17px] border-t border-rule" />
        <span
          className="absolute top-[16px] border-t-[3px] border-ash"
          style={{ left: at(from), width: `calc(${at(to)} - ${at(from)})` }}
        />
        {line.values.map((value, index) => (
          <span
            key={index}
            className="absolute top-[10px] h-4 border-l-2 border-dim"
            style={{ left: at(value) }}
          />
        ))}
        <span
          className="absolute top-[4px] h-7 border-l-2 border-dotted border-chalk"
          style={{ left: at(line.book) }}
        />
        <span
          className="absolute top-[10px] size-[15px] -translate-x-1/2 rounded-full border-[5px] border-chalk bg-iron"
          style={{ left: at(line.here) }}
        />
      </span>
      <span>{line.words}</span>
    </button>
  )
}
