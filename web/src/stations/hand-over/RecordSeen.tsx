import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { pictureUrl } from '../../api/picture-url'
import { FaceDrawing } from '../../job/FaceDrawing'
import { useJob } from '../../job/JobContext'

/** Faces beyond these are on the map of the job, not on its record. */
const FACES_MOST = 2
/** Proofs beyond these stand in the job. */
const PROOFS_MOST = 6

const PICTURE = 'block h-[150px] w-full border border-scribe object-cover print:h-[20mm]'

/** The part before and after, and its cracks where they lay. */
export function RecordSeen(): ReactNode {
  const { view } = useJob()
  const { pictures } = view.plan.hand_over
  const before = pictures.find((picture) => picture.shows === 'before')
  const after = pictures.findLast((picture) => picture.shows === 'after')
  const faces = view.plan.map.faces.filter((face) => face.lines.length > 0).slice(0, FACES_MOST)
  if (before === undefined && after === undefined && faces.length === 0) return null
  return (
    <div
      className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 py-2 print:grid-cols-2 print:gap-1 print:py-1"
      data-testid="record-seen"
    >
      {before !== undefined && <Seen job={view.id} picture={before} when="Before" />}
      {after !== undefined && <Seen job={view.id} picture={after} when="After" />}
      {faces.map((face) => (
        <FaceOnRecord key={face.id} job={view.id} face={face} />
      ))}
    </div>
  )
}

/** What proves what was found, each with its words. */
export function RecordProofs(): ReactNode {
  const { view } = useJob()
  const proofs = view.plan.hand_over.pictures.filter((picture) => picture.shows === 'one')
  if (proofs.length === 0) return null
  return (
    <div
      className="grid grid-cols-[repeat(auto-fill,minmax(110px,1fr))] gap-2 pt-2 print:grid-cols-6"
      data-testid="record-proofs"
    >
      {proofs.slice(0, PROOFS_MOST).map((picture) => (
        <figure key={picture.id}>
          <img
            src={pictureUrl(view.id, picture.id, true)}
            alt=""
            className="block h-[80px] w-full border border-scribe object-cover print:h-[17mm]"
          />
          <figcaption className="leading-[17px] [overflow-wrap:anywhere] print:text-[10px] print:leading-[12px]">
            {picture.words}
          </figcaption>
        </figure>
      ))}
      {proofs.length > PROOFS_MOST && (
        <p className="text-ash">{proofs.length - PROOFS_MOST} more in the job.</p>
      )}
    </div>
  )
}

interface SeenProps {
  job: string
  picture: Schemas['PictureLine']
  when: string
}

function Seen({ job, picture, when }: SeenProps): ReactNode {
  return (
    <figure>
      <img src={pictureUrl(job, picture.id, false)} alt="" className={PICTURE} />
      <figcaption>{when}</figcaption>
    </figure>
  )
}

interface FaceOnRecordProps {
  job: string
  face: Schemas['FacePlan']
}

/** A face with its cracks by their letters. */
function FaceOnRecord({ job, face }: FaceOnRecordProps): ReactNode {
  const { left_mm, right_mm, top_mm, bottom_mm } = face.frame
  const size = Math.max(right_mm - left_mm, bottom_mm - top_mm) / 11
  const cracks = face.lines.filter((line) => !line.from_behind)
  return (
    <figure>
      <FaceDrawing
        job={job}
        face={face}
        className="h-[150px] w-full print:h-[20mm]"
        label={`${face.name}: ${cracks.map((line) => `crack ${line.letter}, ${line.length_words}`).join('; ')}`}
      >
        {cracks.map((line) => {
          const at = line.points[Math.floor(line.points.length / 2)]
          return (
            at !== undefined && (
              <text
                key={line.crack}
                x={at.x_mm + size / 4}
                y={at.y_mm - size / 4}
                fontSize={size}
                fontWeight="700"
                fill="var(--chalk)"
              >
                {line.letter}
              </text>
            )
          )
        })}
      </FaceDrawing>
      <figcaption>{face.name}</figcaption>
    </figure>
  )
}
