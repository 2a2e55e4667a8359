import type { ReactNode } from 'react'
import { TypedBox } from './TypedBox'

export interface BoxProps {
  id: string
  text: string
  placeholder?: string | undefined
  /** The unit it is in. */
  aside: string
  wrong: boolean
  describedBy?: string | undefined
  /** A number goes in: with these beside a phone's number keys. */
  keys?: readonly string[] | null | undefined
  onType: (text: string) => void
}

/** A field whose text is said together with others. */
export const Box = ({ describedBy, ...props }: BoxProps): ReactNode => (
  <TypedBox {...props} aria-describedby={describedBy} />
)
