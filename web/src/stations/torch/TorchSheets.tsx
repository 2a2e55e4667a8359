import type { ReactNode } from 'react'
import { useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { RanOn } from '../../job/RanOn'
import { ReadingSheet, type ReadingSheetProps } from '../../job/ReadingSheet'
import { AtOnceSheet } from './AtOnceSheet'
import { HelperSheet } from './HelperSheet'
import { MoreSheet } from './MoreSheet'
import { StopSheet } from './StopSheet'
import { TroubleSheet } from './TroubleSheet'

/** What lies over the torch: one of them at a time, or nothing. */
export type TorchSheet =
  NonNullable<ReadingSheetProps['kind']> | 'stop' | 'ran_on' | 'trouble' | 'more' | 'helper' | 'at_once'

const READ: ReadonlySet<TorchSheet> = new Set(['reading', 'note', 'aligned'])
const isRead = (sheet: TorchSheet | null): sheet is NonNullable<ReadingSheetProps['kind']> =>
  sheet !== null && READ.has(sheet)

export interface TorchSheetsProps {
  torch: Schemas['TorchPlan']
  sheet: TorchSheet | null
  onSheet: (sheet: TorchSheet | null) => void
  /** Gives the id of what was said. */
  onSay: (entry: Schemas['TorchEntry']) => string
  /** Pieces that are not done. */
  left: number
  /** It must stop. */
  onStop: () => void
}

/** What is asked for with gloves on, each over the page. */
export function TorchSheets({ torch, sheet, onSheet, onSay, left, onStop }: TorchSheetsProps): ReactNode {
  const { view } = useJob()
  const navigate = useNavigate()
  const close = () => onSheet(null)
  return (
    <>
      <StopSheet
        left={left}
        planned={torch.planned}
        piece={torch.piece}
        must={torch.must_stop}
        open={sheet === 'stop'}
        onClose={close}
        onStop={(why) => {
          onSay({ kind: 'covered', why })
          close()
        }}
      />
      <TroubleSheet open={sheet === 'trouble'} onClose={close} onSay={onSay} onStop={onStop} />
      <MoreSheet
        open={sheet === 'more'}
        onClose={close}
        onSay={onSay}
        onAlign={() => onSheet('aligned')}
        onHelper={() => onSheet('helper')}
      />
      <AtOnceSheet
        groups={torch.beads?.at_once ?? []}
        ahead={torch.beads?.ahead ?? []}
        peen={torch.peen}
        open={sheet === 'at_once'}
        onClose={close}
        onSay={onSay}
      />
      <HelperSheet open={sheet === 'helper'} onClose={close} />
      <RanOn
        open={sheet === 'ran_on'}
        onClose={close}
        onTask={(task, face) =>
          void navigate(`/jobs/${view.id}/cracks`, { state: { drawing: { task, face } } })
        }
      />
      <ReadingSheet kind={isRead(sheet) ? sheet : null} onClose={close} onSay={onSay} />
    </>
  )
}
