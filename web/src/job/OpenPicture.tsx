import { useState, type ReactNode } from 'react'
import { pictureUrl } from '../api/picture-url'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { Field } from './Field'
import { useJob } from './JobContext'
import { useShop } from './ShopContext'
import { StrikeSheet } from './StrikeSheet'

export interface OpenPictureProps {
  /** Nothing while none is open. */
  id: string | null
  /** It may stand for the job on the rack. */
  ofThePart?: boolean
  title: string
  onClose: () => void
}

/** One picture as large as it fits, with what it shows. */
export function OpenPicture({ id, ofThePart = false, title, onClose }: OpenPictureProps): ReactNode {
  const { view, field, say } = useJob()
  const { units } = useShop()
  const [striking, setStriking] = useState(false)
  const onTheRack = view.face === id
  return (
    <>
      <Sheet title={title} open={id !== null && !striking} onOpenChange={(open) => !open && onClose()}>
        {id !== null && (
          <div className="flex flex-col gap-3">
            <img
              src={pictureUrl(view.id, id, false)}
              alt={title}
              className="max-h-[46vh] w-full bg-iron object-contain"
            />
            {ofThePart && <Field name={`picture.${id}.shows`} columns={3} />}
            <Field name={`picture.${id}.caption`} placeholder="the break from below" />
            <div className="flex flex-wrap gap-2">
              {ofThePart && (
                <Button
                  chosen={onTheRack}
                  onPress={() =>
                    say(
                      { kind: 'set', key: 'part.face', typed: id, shown_in: units },
                      field('part.face').revision,
                    )
                  }
                >
                  {onTheRack ? 'Stands for it on the rack' : 'Put it on the rack'}
                </Button>
              )}
              <Button onPress={() => setStriking(true)}>Cross out</Button>
              <span className="ml-auto" />
              <Button onPress={onClose}>Done</Button>
            </div>
          </div>
        )}
      </Sheet>
      <StrikeSheet
        target={striking ? id : null}
        what={title}
        onClose={() => {
          setStriking(false)
          onClose()
        }}
      />
    </>
  )
}
