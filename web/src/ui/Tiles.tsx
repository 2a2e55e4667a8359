import type { ReactNode } from 'react'
import { Toggles, type TogglesProps } from './Toggles'

export interface TilesProps extends Omit<TogglesProps, 'className' | 'itemClassName'> {
  columns: 2 | 3
}

/** One of several choices, each a line of its own grid: one press, none hidden. */
export function Tiles({ columns, ...props }: TilesProps): ReactNode {
  return (
    <Toggles
      {...props}
      className={`grid gap-1 ${columns === 3 ? 'grid-cols-3 max-bench:grid-cols-2' : 'grid-cols-2'}`}
      itemClassName="px-2.5 text-left leading-[18px]"
    />
  )
}
