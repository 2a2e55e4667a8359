import { useRef, type ReactNode } from 'react'
import { Button } from '../ui/Button'

export interface PictureInputProps {
  /** What the pictures are of, to whoever does not see it. */
  label: string
  /** What stands on the button. */
  text: string
  /** A word in a line of a list, not a button. */
  inLine?: boolean
  onFiles: (files: readonly File[]) => void
}

/** Asks this device for pictures: from its camera, or from a folder. */
export function PictureInput({ label, text, inLine = false, onFiles }: PictureInputProps): ReactNode {
  const input = useRef<HTMLInputElement>(null)
  const handleAsk = () => input.current?.click()
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple
        className="sr-only"
        aria-label={label}
        tabIndex={-1}
        onChange={(event) => {
          onFiles([...(event.target.files ?? [])])
          event.target.value = ''
        }}
      />
      {inLine ? (
        <button
          type="button"
          className="min-h-11 shrink-0 px-2 text-ash underline decoration-dotted"
          aria-label={`${text}: ${label}`}
          onClick={handleAsk}
        >
          {text}
        </button>
      ) : (
        <Button onPress={handleAsk}>{text}</Button>
      )}
    </>
  )
}
