import type { ReactNode } from 'react'

/** Our own line drawings, one file each: what a test shows (`punch.raises_rim`), its tool (`tool.punch`). */
const FILES = import.meta.glob<string>('./drawings/*.svg', { query: '?raw', import: 'default', eager: true })

export interface DrawingProps {
  name: string
  className?: string
}

/** A drawing by its name, in the colour of the words around it. */
export function Drawing({ name, className = '' }: DrawingProps): ReactNode {
  return (
    <span
      aria-hidden
      className={`block shrink-0 [&>svg]:block [&>svg]:h-auto [&>svg]:w-full ${className}`}
      // Only files of this folder, built in.
      dangerouslySetInnerHTML={{ __html: FILES[`./drawings/${name}.svg`] ?? '' }}
    />
  )
}
