import type { ReactNode } from 'react'
import { Toggles, type TogglesProps } from './Toggles'

export type ChoiceProps = Omit<TogglesProps, 'className' | 'itemClassName'>

/** A few choices side by side. */
export function Choice(props: ChoiceProps): ReactNode {
  return (
    <Toggles
      {...props}
      className="flex flex-wrap"
      itemClassName="-ml-[1.5px] min-w-11 grow px-3 first:ml-0 data-[state=on]:z-10"
    />
  )
}
