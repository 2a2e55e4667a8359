import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { RanOn } from '../../job/RanOn'
import { StrikeSheet } from '../../job/StrikeSheet'
import { FaceSheet } from './map/FaceSheet'
import type { Task } from './map/MapBench'

/** What lies on the station for a moment: a face described, a crack that ran on, one that is crossed out. */
export type CracksSheet = { kind: 'face'; id: string } | { kind: 'ran_on' } | { kind: 'strike' }

export interface CracksSheetsProps {
  sheet: CracksSheet | null
  /** The one in hand. */
  crack: Schemas['CrackPlan'] | undefined
  onClose: () => void
  /** It is drawn next, on this face where it has one. */
  onDraw: (task: Task, face: string | null) => void
}

export function CracksSheets({ sheet, crack, onClose, onDraw }: CracksSheetsProps): ReactNode {
  return (
    <>
      {crack !== undefined && (
        <StrikeSheet
          target={sheet?.kind === 'strike' ? crack.id : null}
          what={`Crack ${crack.letter}`}
          onClose={onClose}
        />
      )}
      <FaceSheet
        faceId={sheet?.kind === 'face' ? sheet.id : null}
        onClose={onClose}
        onDraw={(id) => onDraw({ thing: 'face', id }, id)}
      />
      <RanOn open={sheet?.kind === 'ran_on'} onClose={onClose} onTask={onDraw} />
    </>
  )
}
