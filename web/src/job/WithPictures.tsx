import type { ReactNode } from 'react'
import { Button } from '../ui/Button'
import { PictureInput } from './PictureInput'

export interface WithPicturesProps {
  /** What they will prove. */
  what: string
  files: readonly File[]
  onFiles: (files: readonly File[]) => void
}

/** Pictures that go with what is being written down: they are sent once that is taken. */
export function WithPictures({ what, files, onFiles }: WithPicturesProps): ReactNode {
  const many = files.length === 1 ? '1 picture' : `${files.length} pictures`
  return (
    <div className="flex flex-wrap items-center gap-2">
      <PictureInput
        label={`Pictures: ${what}`}
        text={files.length === 0 ? 'With a picture' : 'Another picture'}
        onFiles={(more) => onFiles([...files, ...more])}
      />
      {files.length > 0 && (
        <>
          <span data-testid="with-pictures">{many} with it</span>
          <Button onPress={() => onFiles([])}>Without</Button>
        </>
      )}
    </div>
  )
}
