import type { ReactNode } from 'react'
import { pictureUrl } from '../api/picture-url'

export interface ThumbProps {
  job: string
  id: string
  /** What it shows. */
  words: string
  onOpen: () => void
}

/** A picture, small; pressed it opens. */
export const Thumb = ({ job, id, words, onOpen }: ThumbProps): ReactNode => (
  <button
    type="button"
    onClick={onOpen}
    aria-label={`${words}, open`}
    className="border-[1.5px] border-scribe"
  >
    <img src={pictureUrl(job, id, true)} alt="" className="block h-[62px] w-[82px] object-cover" />
  </button>
)
