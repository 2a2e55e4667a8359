import { useState, type ReactNode } from 'react'
import { pictureUrl } from '../../api/picture-url'
import { pictureBox } from '../../api/queue/pictures'
import { useJob } from '../../job/JobContext'
import { OpenPicture } from '../../job/OpenPicture'
import { PictureInput } from '../../job/PictureInput'
import { useTables } from '../../job/TablesContext'
import { Thumb } from '../../job/Thumb'
import { NotTaken, OnItsWay, usePictureBox } from '../../job/WaitingPicture'

/** What the first pictures of a part usually show. */
const USUALLY = ['overall', 'break'] as const

/** The pictures of the part: its face large, the others beside it, and the button for another. */
export function Pictures(): ReactNode {
  const { view, field, typed } = useJob()
  const { picture_mb } = useTables()
  const [open, setOpen] = useState<string | null>(null)
  // What proves one thing lies beside that.
  const pictures = view.job.pictures.filter((picture) => picture.of == null)
  const face = view.face ?? null
  const { waiting, refused } = usePictureBox(null)
  const shows = (id: string): string => {
    const name = `picture.${id}.shows` as const
    return field(name).choices.find((choice) => choice.id === typed(name))?.label ?? 'A picture'
  }
  const others = pictures.filter((picture) => picture.id !== face)
  return (
    <section aria-label="Pictures">
      {face !== null && (
        <button
          type="button"
          onClick={() => setOpen(face)}
          aria-label={`${shows(face)}, open`}
          className="block w-full border-[1.5px] border-scribe"
        >
          <img
            src={pictureUrl(view.id, face, false)}
            alt={`${view.name}: ${shows(face).toLowerCase()}`}
            className="block h-[190px] w-full object-cover"
          />
        </button>
      )}
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        {others.map((picture) => (
          <Thumb
            key={picture.id}
            job={view.id}
            id={picture.id}
            words={shows(picture.id)}
            onOpen={() => setOpen(picture.id)}
          />
        ))}
        {waiting.map((item) => (
          <OnItsWay key={item.id} item={item} />
        ))}
        <div className="[&>button]:min-h-[62px]">
          <PictureInput
            label="Pictures of the part"
            text={pictures.length === 0 ? 'Take a picture' : 'Another picture'}
            onFiles={(files) =>
              files.forEach((file, at) => {
                const usual = USUALLY[pictures.length + waiting.length + at] ?? ''
                void pictureBox.take(view.id, file, usual, picture_mb)
              })
            }
          />
        </div>
      </div>
      {refused.map((item) => (
        <NotTaken key={item.id} item={item} />
      ))}
      <OpenPicture
        id={open}
        ofThePart
        title={open === null ? '' : shows(open)}
        onClose={() => setOpen(null)}
      />
    </section>
  )
}
