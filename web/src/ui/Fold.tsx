import { Collapsible } from 'radix-ui'
import type { ReactNode } from 'react'

export interface FoldProps {
  title: string
  /** What is in it, in a line; shown while it is shut. */
  summary: string
  open: boolean
  onOpenChange: (open: boolean) => void
  children: ReactNode
}

/** A ruled part of a sheet that opens and shuts. */
export function Fold({ title, summary, open, onOpenChange, children }: FoldProps): ReactNode {
  return (
    <Collapsible.Root open={open} onOpenChange={onOpenChange} asChild>
      <section aria-label={title} className="border-b border-rule">
        <Collapsible.Trigger className="flex min-h-11 w-full items-baseline gap-3 py-1.5 text-left">
          <h2 className="shrink-0 text-[22px] leading-7">{title}</h2>{' '}
          <span className="min-w-0 grow truncate text-ash">{open ? '' : summary}</span>
          <svg width="14" height="10" aria-hidden className={`shrink-0 ${open ? 'rotate-180' : ''}`}>
            <path d="M1 1l6 7 6-7" fill="none" stroke="currentColor" strokeWidth="1.6" />
          </svg>
        </Collapsible.Trigger>
        <Collapsible.Content className="flex flex-col gap-2.5 pb-3">{children}</Collapsible.Content>
      </section>
    </Collapsible.Root>
  )
}
