import { useState } from 'react'
import type { JobView, Schemas } from '../../api/client'

/** The figures the last changes moved, kept until they are seen. */
export function useMoved(view: JobView): { moved: readonly Schemas['Moved'][]; seen: () => void } {
  const [kept, setKept] = useState<{ revision: number; moved: readonly Schemas['Moved'][] }>({
    revision: view.revision,
    moved: [],
  })
  if (view.moved.length > 0 && view.revision > kept.revision) {
    // A figure that moved twice keeps what it was at first.
    const first = new Map([...view.moved, ...kept.moved].map((moved) => [moved.id, moved]))
    setKept({ revision: view.revision, moved: [...first.values()] })
  }
  return { moved: kept.moved, seen: () => setKept({ revision: view.revision, moved: [] }) }
}
