import type { ReactNode } from 'react'

/** Strokes of a thing in section: what is iron, and what is wrong with it. */
export interface Section {
  readonly iron: readonly string[]
  readonly wrong: ReactNode
}

/** As it looks: iron in section, what is wrong in the heavier line. */
export function SectionDrawing({ iron, wrong }: Section): ReactNode {
  return (
    <svg
      viewBox="0 0 96 56"
      className="h-14 w-24 shrink-0 fill-none stroke-current"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
    >
      <g className="text-ash" strokeWidth="1.5">
        {iron.map((d) => (
          <path key={d} d={d} />
        ))}
      </g>
      <g strokeWidth="3">{wrong}</g>
    </svg>
  )
}
