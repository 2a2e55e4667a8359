import { useState, type ReactNode } from 'react'
import { Field } from '../../../job/Field'
import { useJob } from '../../../job/JobContext'
import { StrikeSheet } from '../../../job/StrikeSheet'
import { useShop } from '../../../job/ShopContext'
import { Button } from '../../../ui/Button'
import { FieldFrame } from '../../../ui/FieldFrame'
import { Pick } from '../../../ui/Pick'
import { Sheet } from '../../../ui/Sheet'
import { LayPicture } from './LayPicture'

export interface FaceSheetProps {
  /** The face that is described; nothing while the sheet is shut. */
  faceId: string | null
  onClose: () => void
  /** Its outline is drawn on the map. */
  onDraw: (face: string) => void
}

/** What each outline is measured by. */
const SIZES: Readonly<Record<string, readonly ('across' | 'down' | 'bore' | 'leg' | 'foot' | 'around')[]>> = {
  rectangle: ['across', 'down'],
  circle: ['across'],
  ring: ['across', 'bore'],
  l: ['across', 'down', 'leg', 'foot'],
  unrolled: ['around', 'down'],
}

const EDGES = {
  across: [
    { id: 'left', label: 'Left edge' },
    { id: 'right', label: 'Right edge' },
  ],
  down: [
    { id: 'top', label: 'Top edge' },
    { id: 'bottom', label: 'Bottom edge' },
  ],
} as const

/** One face of the part: its outline, its picture, what it is the back of, from where holes are measured. */
export function FaceSheet({ faceId, onClose, onDraw }: FaceSheetProps): ReactNode {
  const { view, typed } = useJob()
  /** What lies over the face's own sheet. */
  const [over, setOver] = useState<'picture' | 'strike' | null>(null)
  const face = view.plan.map.faces.find((candidate) => candidate.id === faceId)
  if (faceId === null || face === undefined) return null
  const name = (field: 'name' | 'outline' | 'across' | 'down' | 'bore' | 'leg' | 'foot' | 'around') =>
    `face.${faceId}.${field}` as const
  const others = view.plan.map.faces.filter((other) => other.id !== faceId)
  const broken = view.plan.cracks.filter((crack) => crack.full_break)
  const references = face.marks
    .filter((mark) => ['bolt_hole', 'bore', 'machined_edge'].includes(mark.what))
    .map((mark) => ({ id: mark.id, label: mark.name }))
  return (
    <>
      <Sheet
        title={`The face: ${face.name}`}
        open={over === null}
        onOpenChange={(open) => !open && onClose()}
      >
        <div className="flex flex-col gap-3">
          <Field name={name('name')} placeholder="front, inside, flange" />
          <Field name={name('outline')} columns={3} />
          {(SIZES[typed(name('outline'))] ?? []).length > 0 && (
            <div className="grid grid-cols-2 gap-2">
              {(SIZES[typed(name('outline'))] ?? []).map((size) => (
                <Field key={size} name={name(size)} />
              ))}
            </div>
          )}
          {typed(name('outline')) === 'drawn' && (
            <Button onPress={() => onDraw(faceId)}>Press its corners on the map</Button>
          )}
          {others.length > 0 && (
            <Chosen
              name={`face.${faceId}.back_of`}
              placeholder="of no other face"
              choices={others.map((other) => ({ id: other.id, label: other.name }))}
            />
          )}
          {broken.length > 0 && (
            <Chosen
              name={`face.${faceId}.broken_of`}
              placeholder="no broken face"
              choices={broken.map((crack) => ({ id: crack.id, label: `Crack ${crack.letter}` }))}
            />
          )}
          <div className="grid grid-cols-2 gap-2">
            <Chosen
              name={`face.${faceId}.from_across`}
              placeholder="Left edge"
              choices={[...EDGES.across, ...references]}
            />
            <Chosen
              name={`face.${faceId}.from_down`}
              placeholder="Top edge"
              choices={[...EDGES.down, ...references]}
            />
          </div>
          {face.seen != null && <p className="text-ash first-letter:uppercase">{face.seen.error}.</p>}
          <div className="flex flex-wrap gap-2">
            <Button
              onPress={() => setOver('picture')}
              notYet={view.job.pictures.length === 0 ? 'Take a picture of it at Part first' : undefined}
            >
              {face.seen == null ? 'Lay a picture on it' : 'Lay the picture anew'}
            </Button>
            <Button onPress={() => setOver('strike')}>Cross out</Button>
            <span className="ml-auto" />
            <Button onPress={onClose} testId="face-done">
              Done
            </Button>
          </div>
        </div>
      </Sheet>
      {over === 'picture' && <LayPicture faceId={faceId} name={face.name} onClose={() => setOver(null)} />}
      <StrikeSheet
        target={over === 'strike' ? faceId : null}
        what={face.name}
        onClose={() => {
          setOver(null)
          onClose()
        }}
      />
    </>
  )
}

interface ChosenProps {
  name: `face.${string}.${'back_of' | 'broken_of' | 'from_across' | 'from_down'}`
  placeholder: string
  choices: readonly { id: string; label: string }[]
}

/** One of the things that are there. */
function Chosen({ name, placeholder, choices }: ChosenProps): ReactNode {
  const { field, typed, say } = useJob()
  const { units } = useShop()
  const { label, key, revision } = field(name)
  const id = `field-${key.replaceAll('.', '-')}`
  return (
    <FieldFrame id={id} label={label} problem={undefined}>
      <Pick
        id={id}
        label={label}
        choices={choices}
        chosen={typed(name)}
        placeholder={placeholder}
        onChoose={(next) => say({ kind: 'set', key: name, typed: next, shown_in: units }, revision)}
      />
    </FieldFrame>
  )
}
