import type { ReactNode } from 'react'
import { usePaper, usePrinter } from '../../ui/print'
import { PaperCard } from './PaperCard'
import { PaperEstimate } from './PaperEstimate'
import { PaperLabel } from './PaperLabel'
import { PaperStrip } from './PaperStrip'

/** The paper of the job that is printed, while it is. */
export function Papers(): ReactNode {
  usePrinter()
  switch (usePaper()) {
    case 'card':
      return <PaperCard />
    case 'strip':
      return <PaperStrip />
    case 'estimate':
      return <PaperEstimate />
    case 'label':
      return <PaperLabel />
    // Stands on the page already.
    case 'record':
    case null:
      return null
  }
}
