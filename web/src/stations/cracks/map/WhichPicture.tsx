import type { ReactNode } from 'react'
import { pictureUrl } from '../../../api/picture-url'

export interface WhichPictureProps {
  job: string
  pictures: readonly string[]
  chosen: string
  onChoose: (id: string) => void
}

/** One of several pictures of a job. */
export function WhichPicture({ job, pictures, chosen, onChoose }: WhichPictureProps): ReactNode {
  if (pictures.length < 2) return null
  return (
    <div className="flex flex-wrap gap-1.5" role="group" aria-label="Which picture">
      {pictures.map((id, index) => (
        <button
          key={id}
          type="button"
          aria-pressed={id === chosen}
          aria-label={`Picture ${index + 1}`}
          onClick={() => onChoose(id)}
          className="border-[1.5px] border-scribe aria-pressed:border-2 aria-pressed:border-chalk"
        >
          <img src={pictureUrl(job, id, true)} alt="" className="block h-[52px] w-[70px] object-cover" />
        </button>
      ))}
    </div>
  )
}
