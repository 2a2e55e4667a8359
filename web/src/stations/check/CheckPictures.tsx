import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { pictureUrl } from '../../api/picture-url'
import { pictureBox } from '../../api/queue/pictures'
import { useJob } from '../../job/JobContext'
import { OpenPicture } from '../../job/OpenPicture'
import { PictureInput } from '../../job/PictureInput'
import { useTables } from '../../job/TablesContext'
import { NotTaken, OnItsWay, usePictureBox } from '../../job/WaitingPicture'

/** The part before and after, and what proves what was found. */
export function CheckPictures(): ReactNode {
  const { view } = useJob()
  const { picture_mb } = useTables()
  const { waiting, refused } = usePictureBox(null)
  const [open, setOpen] = useState<Schemas['PictureLine'] | null>(null)
  const { pictures } = view.plan.hand_over
  const before = pictures.find((picture) => picture.shows === 'before')
  const after = pictures.findLast((picture) => picture.shows === 'after')
  const proofs = pictures.filter((picture) => picture.shows === 'one')
  const shown = (picture: Schemas['PictureLine'], words: string, large: boolean) => (
    <button
      type="button"
      onClick={() => setOpen(picture)}
      aria-label={`${words}, open`}
      className="flex w-full flex-col text-left"
    >
      <img
        src={pictureUrl(view.id, picture.id, true)}
        alt=""
        className={`block w-full border border-scribe object-cover ${large ? 'h-[104px]' : 'h-[84px]'}`}
      />
      <span className="leading-5 [overflow-wrap:anywhere]">{words}</span>
    </button>
  )
  return (
    <section aria-label="Pictures" className="mt-3 grid grid-cols-2 gap-2" data-testid="check-pictures">
      {before !== undefined && shown(before, 'Before', true)}
      {after === undefined ? (
        <div className={before === undefined ? 'col-span-2' : 'flex items-center'}>
          {waiting.map((item) => (
            <OnItsWay key={item.id} item={item} />
          ))}
          <PictureInput
            label="The part as it is now"
            text="Picture it now"
            onFiles={(files) => {
              for (const file of files) void pictureBox.take(view.id, file, 'after', picture_mb)
            }}
          />
        </div>
      ) : (
        shown(after, 'After', true)
      )}
      {proofs.map((picture) => (
        <div key={picture.id}>{shown(picture, picture.words, false)}</div>
      ))}
      {refused.map((item) => (
        <NotTaken key={item.id} item={item} />
      ))}
      <OpenPicture
        id={open?.id ?? null}
        ofThePart={open !== null && open.shows !== 'one'}
        title={open?.words ?? ''}
        onClose={() => setOpen(null)}
      />
    </section>
  )
}
