import { useState, type ReactNode } from 'react'
import { pictureBox } from '../api/queue/pictures'
import { useJob } from './JobContext'
import { OpenPicture } from './OpenPicture'
import { PictureInput } from './PictureInput'
import { useTables } from './TablesContext'
import { Thumb } from './Thumb'
import { NotTaken, OnItsWay, usePictureBox } from './WaitingPicture'

export interface ProofsProps {
  /** What they prove, by its id. */
  of: string
  /** The same in words: "Toes whole, A, second side". */
  what: string
}

/** The pictures that prove one thing, and the way to another. */
export function Proofs({ of, what }: ProofsProps): ReactNode {
  const { view } = useJob()
  const { picture_mb } = useTables()
  const { waiting, refused } = usePictureBox(of)
  const [open, setOpen] = useState<string | null>(null)
  const known = view.plan.hand_over.pictures.filter((picture) => picture.of === of)
  return (
    <>
      <span className="flex flex-wrap items-center gap-1.5" data-proofs={of}>
        {known.map((picture) => (
          <Thumb
            key={picture.id}
            job={view.id}
            id={picture.id}
            words={picture.words}
            onOpen={() => setOpen(picture.id)}
          />
        ))}
        {waiting.map((item) => (
          <OnItsWay key={item.id} item={item} />
        ))}
        <PictureInput
          label={what}
          text="Picture"
          inLine
          onFiles={(files) => {
            for (const file of files) void pictureBox.take(view.id, file, '', picture_mb, of)
          }}
        />
      </span>
      {refused.map((item) => (
        <NotTaken key={item.id} item={item} />
      ))}
      <OpenPicture
        id={open}
        title={known.find((picture) => picture.id === open)?.words ?? what}
        onClose={() => setOpen(null)}
      />
    </>
  )
}
