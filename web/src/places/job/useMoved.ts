import { useState } from 'react'
import type { JobView, Schemas } from '../../api/client'
import { together } from './moved'

/** The figures the last changes moved, kept until they are seen. */
export function useMoved(view: JobView): { moved: readonly Schemas['Moved'][]; seen: () => void } {
  const [kept, setKept] = useState<{ revision: number; moved: readonly Schemas['Moved'][] }>({
    revision: view.revision,
    moved: [],
  })
  if (view.moved.length > 0 && view.revision > kept.revision) {
    setKept({ revision: view.revision, moved: together(kept.moved, view.moved) })
  }
  return { moved: kept.moved, seen: () => setKept({ revision: view.revision, moved: [] }) }
}
