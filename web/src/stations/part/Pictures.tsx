import { useEffect, useMemo, useRef, useState, useSyncExternalStore, type ReactNode } from 'react'
import { pictureUrl } from '../../api/picture-url'
import { pictureBox, type WaitingPicture } from '../../api/queue/pictures'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useTables } from '../../job/TablesContext'
import { StrikeSheet } from '../../job/StrikeSheet'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'

/** What the first pictures of a part usually show. */
const USUALLY = ['overall', 'break'] as const

/** The pictures of the part: its face large, the others beside it, and the button for another. */
export function Pictures(): ReactNode {
  const { view, field, typed } = useJob()
  const { picture_mb } = useTables()
  const box = useSyncExternalStore(pictureBox.subscribe, pictureBox.now)
  const input = useRef<HTMLInputElement>(null)
  const [open, setOpen] = useState<string | null>(null)
  const { pictures } = view.job
  const face = view.face ?? null
  const waiting = box.waiting.filter((item) => item.job === view.id)
  const refused = box.refused.filter((item) => item.job === view.id)
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
          <button
            key={picture.id}
            type="button"
            onClick={() => setOpen(picture.id)}
            aria-label={`${shows(picture.id)}, open`}
            className="border-[1.5px] border-scribe"
          >
            <img
              src={pictureUrl(view.id, picture.id, true)}
              alt=""
              className="block h-[62px] w-[82px] object-cover"
            />
          </button>
        ))}
        {waiting.map((item) => (
          <Waiting key={item.id} item={item} />
        ))}
        <input
          ref={input}
          type="file"
          accept="image/jpeg,image/png,image/webp"
          multiple
          className="sr-only"
          aria-label="Pictures of the part"
          tabIndex={-1}
          onChange={(event) => {
            const files = [...(event.target.files ?? [])]
            files.forEach((file, at) => {
              const usual = USUALLY[pictures.length + waiting.length + at] ?? ''
              void pictureBox.take(view.id, file, usual, picture_mb)
            })
            event.target.value = ''
          }}
        />
        <div className="[&>button]:min-h-[62px]">
          <Button onPress={() => input.current?.click()}>
            {pictures.length === 0 ? 'Take a picture' : 'Another picture'}
          </Button>
        </div>
      </div>
      {refused.map((item) => (
        <p
          key={item.id}
          role="alert"
          className="mt-2 flex items-center justify-between gap-3 border-l-[3px] border-chalk pl-3"
        >
          <span>
            <b>{item.name}</b>: {item.problem.message}{' '}
            {item.problem.would_be_right !== '' && <>{item.problem.would_be_right} would do.</>}
          </span>
          <Button onPress={() => pictureBox.dismiss(item.id)}>Let go of it</Button>
        </p>
      ))}
      <OpenPicture
        id={open}
        face={face}
        title={open === null ? '' : shows(open)}
        onClose={() => setOpen(null)}
      />
    </section>
  )
}

/** A picture on its way: kept here until the server has it. */
function Waiting({ item }: { item: WaitingPicture }): ReactNode {
  const url = useMemo(() => URL.createObjectURL(item.file), [item.file])
  useEffect(() => () => URL.revokeObjectURL(url), [url])
  return (
    <span className="relative block border-[1.5px] border-dashed border-scribe">
      <img src={url} alt={item.name} className="block h-[62px] w-[82px] object-cover opacity-60" />
      <span className="absolute inset-x-0 bottom-0 bg-iron px-1 small">on its way</span>
    </span>
  )
}

interface OpenPictureProps {
  id: string | null
  face: string | null
  title: string
  onClose: () => void
}

/** One picture as large as it fits, with what it shows. */
function OpenPicture({ id, face, title, onClose }: OpenPictureProps): ReactNode {
  const { view, field, say } = useJob()
  const { units } = useShop()
  const [striking, setStriking] = useState(false)
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
            <Field name={`picture.${id}.shows`} columns={3} />
            <Field name={`picture.${id}.caption`} placeholder="the break from below" />
            <div className="flex flex-wrap gap-2">
              <Button
                chosen={face === id}
                onPress={() =>
                  say(
                    { kind: 'set', key: 'part.face', typed: id, shown_in: units },
                    field('part.face').revision,
                  )
                }
              >
                {face === id ? 'Stands for it on the rack' : 'Put it on the rack'}
              </Button>
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
