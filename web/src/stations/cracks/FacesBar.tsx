import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'

type Face = Schemas['MapPlan']['faces'][number]

export interface FacesBarProps {
  faces: readonly Face[]
  shown: Face
  /** It burns, or did: a crack may run on. */
  lit: boolean
  onShow: (id: string) => void
  onRanOn: () => void
  onDescribe: () => void
  onAdd: () => void
}

/** The faces of the part, the one that is shown, and what is done with it. */
export function FacesBar({
  faces,
  shown,
  lit,
  onShow,
  onRanOn,
  onDescribe,
  onAdd,
}: FacesBarProps): ReactNode {
  return (
    <div className="flex flex-wrap items-center gap-2">
      {faces.map((other) => (
        <Button key={other.id} chosen={other.id === shown.id} onPress={() => onShow(other.id)}>
          <span className="first-letter:uppercase">{other.name}</span>
        </Button>
      ))}
      <span className="text-ash">{shown.size_words}</span>
      <span className="ml-auto flex flex-wrap gap-2">
        {lit && <Button onPress={onRanOn}>It ran on</Button>}
        <Button onPress={onDescribe}>This face</Button>
        <Button onPress={onAdd}>Another face</Button>
      </span>
    </div>
  )
}

/** The map to take along: one to one. */
export function MapFiles({ job, face }: { job: string; face: Face }): ReactNode {
  return (
    <span className="flex flex-wrap gap-x-4">
      <a
        className="min-h-11 py-3 underline"
        href={`/api/jobs/${job}/map/${face.id}.svg`}
        download={`${face.name}.svg`}
      >
        1:1 as SVG
      </a>
      <a
        className="min-h-11 py-3 underline"
        href={`/api/jobs/${job}/map/${face.id}.dxf`}
        download={`${face.name}.dxf`}
      >
        1:1 as DXF
      </a>
      <a
        className="min-h-11 py-3 underline"
        href={`/api/jobs/${job}/map/${face.id}/pages`}
        target="_blank"
        rel="noreferrer"
      >
        1:1 to print
      </a>
    </span>
  )
}
